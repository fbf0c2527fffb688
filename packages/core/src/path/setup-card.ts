import { requirePositive } from '../errors';
import { frequencyText } from '../units/format';
import { converterFloor, foldAlias, RECOMMENDED_ROOM_DB } from './receiver';

/** A receiver as its set-up depends on it. */
export interface CardReceiver {
  readonly name: string;
  readonly bits: number;
  readonly fullScaleDbm: number;
  readonly sampleRateHz: number;
  readonly complexSamples: boolean;
  /** A dial and no samples. */
  readonly superhet?: boolean;
  readonly minHz: number;
  readonly maxHz: number;
}

/** How to set a receiver up for a frequency. */
export interface SetupCard {
  readonly mode: string;
  /** Ranges seen without aliasing, Hz; absent where nothing samples. */
  readonly cleanHz?: number;
  readonly mirrored: boolean;
  /** Where the wanted frequency appears, Hz; undefined on the edge of a zone. */
  readonly appearsAtHz?: number;
  /** Other frequencies that appear in the same place, Hz. */
  readonly ghostsHz: readonly number[];
  /** Complex samples, and inside its range: where to tune, beside the wanted signal, and what then shows up on it as an image. */
  readonly tuning?: { readonly tunedHz: number; readonly imageHz: number; readonly inside: boolean };
  readonly filter: string;
  /** The frequency lies outside its range. */
  readonly outside: boolean;
  /** It lies above half the sample rate of real samples. */
  readonly folded: boolean;
  /** Absent where nothing samples. */
  readonly floorDbfs?: number;
  readonly remarks: readonly string[];
}

/** A receiver with complex samples is tuned this share of its sample rate below the wanted signal. Common practice, no source. */
const BESIDE = 8;
/** Ghosts are listed up to this many sample rates. */
const GHOST_RATES = 1.5;

/**
 * Sampling mode, ghosts and filter for a receiver at a frequency at its input. Real samples fold at half their rate and show a mirrored twin of everything at
 * negative frequencies; complex ones mirror about the tuning frequency, and unequal halves leave an image of 2·tuned − f on f.
 * @param tunedHz of a receiver with complex samples; absent: an eighth of the sample rate below the wanted signal, clear of spike and edge.
 */
export function setupCard(receiver: CardReceiver, freqHz: number, bandwidthHz: number, tunedHz?: number): SetupCard {
  requirePositive(freqHz, 'Frequency (Hz)');
  const { sampleRateHz, complexSamples } = receiver;
  const { snrDb, processingGainDb } = converterFloor({ ...receiver, bandwidthHz });
  const floorDbfs = -(snrDb + processingGainDb);
  const outside = freqHz < receiver.minHz || freqHz > receiver.maxHz;
  const way =
    complexSamples && freqHz < receiver.minHz
      ? 'A converter ahead of it brings it there; a direct input, where it has one, is a receiver of its own in Listen.'
      : 'A converter ahead of it, or another receiver, brings it there.';
  const beyond = outside
    ? [
        `${frequencyText(freqHz)} lies outside its range (${frequencyText(receiver.minHz)} to ${frequencyText(receiver.maxHz)}). ${way}`,
      ]
    : [];
  if (receiver.superhet)
    return {
      mode: 'a superhet with a dial: it samples nothing, so nothing folds',
      ...{ mirrored: false, appearsAtHz: freqHz, ghostsHz: [], outside, folded: false },
      filter: 'a preselector for the band, against what overloads its mixer and against its image',
      remarks: [
        ...beyond,
        'Its image lies twice its intermediate frequency from the dial; its manual names that frequency.',
      ],
    };
  if (complexSamples) {
    const tuned = tunedHz ?? freqHz - sampleRateHz / BESIDE;
    return {
      mode: 'complex samples, tuned: the display mirrors about the tuning frequency',
      cleanHz: sampleRateHz / 2,
      ...{ outside, folded: false },
      mirrored: false,
      appearsAtHz: freqHz,
      ghostsHz: [],
      ...(outside
        ? {}
        : {
            tuning: {
              tunedHz: tuned,
              imageHz: 2 * tuned - freqHz,
              inside: Math.abs(freqHz - tuned) < sampleRateHz / 2,
            },
          }),
      filter: 'a preselector for the band, against what overloads the tuner',
      floorDbfs,
      remarks: [
        ...beyond,
        'A spike sits at the tuning frequency; strong signals show an image on the other side of it, 40 to 70 dB down (common practice, no source).',
      ],
    };
  }
  const alias = foldAlias(freqHz, sampleRateHz, GHOST_RATES * sampleRateHz);
  const half = sampleRateHz / 2;
  const below = freqHz <= half;
  return {
    mode: `real input${below ? ', direct' : `, folded from zone ${alias.zone}`}: everything has a mirrored twin at negative frequencies`,
    cleanHz: half,
    ...{ outside, folded: !below },
    mirrored: alias.mirrored,
    ...(alias.appearsAtHz === undefined ? {} : { appearsAtHz: alias.appearsAtHz }),
    ghostsHz: alias.sameBinHz.filter((ghost) => Math.abs(ghost - freqHz) > 1),
    filter: below
      ? `a low-pass that passes ${frequencyText(freqHz)} and stops from ${frequencyText(sampleRateHz - freqHz)} up, where it would fold; everything above ${frequencyText(half)}, half the sample rate, folds somewhere`
      : `a band-pass around ${frequencyText(freqHz)}: everything else folds onto it`,
    floorDbfs,
    remarks: [
      ...beyond,
      ...(alias.appearsAtHz === undefined
        ? ['This frequency lies on the edge of a zone: its own mirror falls on it. Change the sample rate.']
        : []),
    ],
  };
}

/** How to set a receiver up, in one sentence. @param conversion the converter ahead of it, and where that brings what is wanted. */
export function setupSentence(
  receiver: CardReceiver & { readonly name: string },
  wantedName: string,
  card: SetupCard,
  conversion?: { readonly name: string; readonly outHz: number; readonly mirrored: boolean },
): string {
  const wanted = conversion
    ? `${wantedName}, which ${conversion.name} brings to ${frequencyText(conversion.outHz, 5)}${conversion.mirrored ? ' mirrored' : ''}`
    : wantedName;
  if (card.outside) return `${receiver.name} does not tune to ${wanted}.`;
  if (receiver.superhet) return `Set the dial of ${receiver.name} to ${wanted}: it samples nothing, so nothing folds.`;
  if (card.tuning)
    return `Tune ${receiver.name} to ${frequencyText(card.tuning.tunedHz, 5)} for ${wanted}, beside it and clear of the spike.`;
  if (card.appearsAtHz === undefined)
    return `${receiver.name} cannot show ${wanted}: it lies on the edge of a zone and falls on its own mirror.`;
  return card.mirrored || card.folded
    ? `${receiver.name} shows ${wanted} folded${card.mirrored ? ' and mirrored' : ''}, at ${frequencyText(card.appearsAtHz, 4)}.`
    : `${receiver.name} shows ${wanted} where it is: it samples the whole input up to ${frequencyText(card.cleanHz ?? 0, 3)}.`;
}

/** A receiver's frequency error from one standard, and what it does elsewhere. */
export function frequencyError(standardHz: number, readHz: number) {
  requirePositive(standardHz, 'Standard (Hz)');
  requirePositive(readHz, 'Reading (Hz)');
  const ratio = (readHz - standardHz) / standardHz;
  return { ppm: 1e6 * ratio, offAtHz: (freqHz: number): number => freqHz * ratio };
}

/** Side bands of a receiver's audio. */
export type SideBand = 'upper' | 'lower';

/**
 * Frequency of something that is heard as a tone: dial plus the tone in the upper side band, dial minus it in the lower. Behind a converter the oscillator
 * is added, or the whole taken from it where that mirrors (then the side bands change places).
 * @throws OutOfRangeError for a dial or tone that is not positive.
 */
export function heardAt(
  dialHz: number,
  toneHz: number,
  side: SideBand,
  converter?: { readonly oscillatorHz: number; readonly mirrored: boolean },
): number {
  requirePositive(dialHz, 'Dial (Hz)');
  requirePositive(toneHz, 'Tone (Hz)');
  const atReceiver = side === 'upper' ? dialHz + toneHz : dialHz - toneHz;
  if (!converter) return atReceiver;
  return converter.mirrored ? converter.oscillatorHz - atReceiver : converter.oscillatorHz + atReceiver;
}

/** Noise as shown at one setting of the gain. */
export interface GainReading {
  readonly gainDb: number;
  readonly noiseDbfs: number;
}

/** Where to leave the gain. */
export interface GainAdvice {
  readonly gainDb: number;
  readonly reason: string;
  readonly state:
    'found' | 'limited by headroom' | 'never external' | 'external from the first' | 'raise further' | 'compresses';
}

/** Noise that rises with the gain by at least this share comes from outside, dB per dB. */
const FOLLOWS = 0.85;
/** Room above the noise's own converter floor: from here more gain brings no SNR. */
const MARGIN_DB = 10;

/**
 * Gain by measurement: raised step by step until the noise follows it, 1 dB per dB (then it is the outside that is heard), with 10 dB over the converter's
 * own noise; stopped earlier where strong signals leave less than the headroom, or where the noise stops following (compression). Where the noise follows
 * from the first row the converter's own was never seen, and nothing is said of it.
 * @param peakDbfs level of the strongest signals at the lowest gain; @param headroomDb to keep to full scale.
 */
export function gainByMeasurement(
  readings: readonly GainReading[],
  peakDbfs: number | undefined,
  headroomDb = RECOMMENDED_ROOM_DB,
): GainAdvice | undefined {
  const sorted = [...readings].sort((a, b) => a.gainDb - b.gainDb);
  if (sorted.length < 3) return undefined;
  const slopes = sorted
    .slice(1)
    .map((now, i) => (now.noiseDbfs - sorted[i].noiseDbfs) / (now.gainDb - sorted[i].gainDb));
  const floor = sorted[0].noiseDbfs;
  const highest = sorted[sorted.length - 1];
  const most = peakDbfs === undefined ? Infinity : sorted[0].gainDb + (-headroomDb - peakDbfs);
  const follows = slopes.findIndex((slope) => slope >= FOLLOWS);
  const compresses = slopes.findIndex((slope, i) => i > follows && follows >= 0 && slope < FOLLOWS);
  const wanted = sorted.find((one, i) => i > follows && follows >= 0 && one.noiseDbfs >= floor + MARGIN_DB);
  const top = compresses >= 0 ? sorted[compresses].gainDb : Infinity;
  if (follows < 0) {
    return {
      gainDb: Math.min(highest.gainDb, most),
      state: 'never external',
      reason:
        'the noise never follows the gain: what is heard is the receiver, not the outside. An amplifier at the antenna, or a better antenna, would be heard.',
    };
  }
  const enoughDb = follows === 0 ? sorted[0].gainDb : (wanted?.gainDb ?? highest.gainDb);
  const gainDb = Math.min(enoughDb, most, top);
  if (gainDb === most)
    return {
      gainDb,
      state: 'limited by headroom',
      reason: `strong signals leave only ${headroomDb} dB to full scale here: a filter or a pad, not more gain.`,
    };
  if (gainDb === top)
    return {
      gainDb,
      state: 'compresses',
      reason: 'above this the noise rises less than 1 dB per dB: something compresses.',
    };
  if (follows === 0)
    return {
      gainDb,
      state: 'external from the first',
      reason:
        'the noise follows the gain from the first row on, so the antenna is heard at the lowest gain already. The converter’s own noise does not show in these rows: read lower gains, too, to see whether less is enough.',
    };
  if (!wanted)
    return {
      gainDb,
      state: 'raise further',
      reason: `the noise follows the gain, but stands only ${(highest.noiseDbfs - floor).toFixed(0)} dB over the converter's own: ${MARGIN_DB} dB are wanted. Read higher gains, too, if there are any.`,
    };
  return {
    gainDb,
    state: 'found',
    reason: `from here the noise follows the gain and stands ${(wanted.noiseDbfs - floor).toFixed(0)} dB over the converter's own: more gain brings no SNR, only overload.`,
  };
}
