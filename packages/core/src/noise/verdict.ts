import { amplifierAdvice, noiseRise, type AmplifierAdvice } from '../path/receiver';
import { frequencyText } from '../units/format';

/** Noise of a receiver with a dummy load and with the antenna, on one frequency; dBm in the same bandwidth. */
export interface NoiseReading {
  readonly freqHz: number;
  readonly offDbm: number;
  readonly onDbm: number;
}

/** How the floor stands. `some other floor`: readings of another kind are kept, but none with the antenna off and on. */
type NoiseState =
  'nothing measured' | 'some other floor' | 'outside decides' | 'receiver decides' | 'no rise' | 'perhaps overload';

/** The noise as data: page, report and rail read this. */
export interface NoiseVerdict<R extends NoiseReading = NoiseReading> {
  readonly state: NoiseState;
  /** The reading with the least rise. */
  readonly worst?: R;
  /** SNR that the receiver costs there, dB; null: everything. */
  readonly snrLossDb?: number | null;
  readonly sentence: string;
  /** The sentence around its loss, where it names one: a page shows the figure between the two with its origin. */
  readonly around?: readonly [before: string, after: string];
  readonly next: string;
}

const AMPLIFIER_WORDS: Readonly<Record<AmplifierAdvice, string>> = {
  none_needed: 'not needed',
  little: 'little gained',
  at_antenna_helps: 'helps, at the antenna',
};

/** What a rise says about an amplifier, in a word or two; table and report read this. Without a rise nothing from outside was heard, and nothing can be said. */
export const amplifierWords = (riseDb: number, strong?: StrongCarrier): string =>
  riseDb <= 0 || mayBeOverload(riseDb, strong) ? 'cannot be said' : AMPLIFIER_WORDS[amplifierAdvice(riseDb)];

/** The strongest carrier of others at the place, as an isotropic antenna hands it on. */
export interface StrongCarrier {
  readonly name: string;
  readonly levelDbm: number;
}
/** Where no antenna is known: below this an ordinary one is short against the wave, and hands on far less than a lossless one, Hz. Common practice, no source. */
export const ORDINARY_FROM_HZ = 3e6;
/** From here a carrier overloads ordinary receivers, dBm. Common practice, no source. */
const STRONG_DBM = -15;
/** Less than this the noise must rise before overload is thought of, dB. Common practice, no source. */
const HARDLY_DB = 3;
/** A fall, or hardly a rise, beside a strong carrier: what an overloaded receiver shows as well as a deaf one. */
const mayBeOverload = (riseDb: number, strong: StrongCarrier | undefined): strong is StrongCarrier =>
  strong !== undefined && strong.levelDbm > STRONG_DBM && riseDb < HARDLY_DB;

/** Rise to a tenth of a dB, as the readings are shown. */
export const riseOf = ({ offDbm, onDbm }: NoiseReading): number => Math.round((onDbm - offDbm) * 10) / 10;

/** @param others how many floors of other kinds (log, devices, hand-read) are kept. @param strong the strongest carrier of others at the place. */
export function noiseVerdict<R extends NoiseReading>(
  readings: readonly R[],
  others = 0,
  strong?: StrongCarrier,
): NoiseVerdict<R> {
  const worst = readings.reduce<R | undefined>(
    (low, one) => (!low || riseOf(one) < riseOf(low) ? one : low),
    undefined,
  );
  if (!worst)
    return {
      state: others > 0 ? 'some other floor' : 'nothing measured',
      sentence:
        others > 0
          ? 'Floors are written down, but none with the antenna off and on: what your receiver adds is not known.'
          : 'Nothing measured yet.',
      next: 'Read the noise with the antenna off and on, on a quiet frequency.',
    };
  const rise = riseOf(worst);
  const { snrLossDb } = noiseRise(rise);
  const where = frequencyText(worst.freqHz, 3);
  const common = { worst, snrLossDb };
  if (mayBeOverload(rise, strong))
    return {
      ...common,
      state: 'perhaps overload',
      sentence: `At ${where} the noise ${rise < 0 ? 'falls' : 'hardly rises'} with the antenna, beside ${strong.name} (${strong.levelDbm.toFixed(0).replace('-', '−')} dBm): the receiver may be overloaded.`,
      next: 'Put a pad of 10 dB in: if signals come up, it was overload.',
    };
  if (snrLossDb === null)
    return {
      ...common,
      state: 'no rise',
      sentence: `At ${where} the noise does not rise with the antenna: nothing from outside reaches the receiver.`,
      next: 'Check cable and antenna, and that both readings used the same gain and bandwidth.',
    };
  const told = (before: string, after: string) => ({
    sentence: `${before} ${snrLossDb.toFixed(snrLossDb < 1 ? 2 : 1)} dB ${after}`,
    around: [before, after] as const,
  });
  if (readings.every((one) => amplifierAdvice(riseOf(one)) === 'none_needed'))
    return {
      ...common,
      state: 'outside decides',
      ...told('Your receiver hears the noise from outside wherever you looked: its own costs', 'of SNR at worst.'),
      next: 'Leave amplifiers out; look at the Path for overload.',
    };
  return {
    ...common,
    state: 'receiver decides',
    ...told(
      `At ${where} the receiver’s own noise ${amplifierAdvice(rise) === 'at_antenna_helps' ? 'decides' : 'is heard too'}: it costs`,
      'of SNR.',
    ),
    next:
      amplifierAdvice(rise) === 'at_antenna_helps'
        ? 'Try an amplifier in the Path, ahead of the line.'
        : 'An amplifier would gain little there; look at the Path before adding one.',
  };
}
