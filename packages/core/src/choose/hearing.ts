import { CoreError } from '../errors';
import { powerTransfer } from '../line/reflection';
import { complex, type Complex } from '../numeric/complex';
import { gainParts, radiatedShare } from '../solver/far-field';
import { meshOf } from '../solver/mesh';
import { wireLengthM, type WireModel } from '../solver/model';
import { inputImpedance, solveAt, type Solution } from '../solver/solve';
import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { LINE_OHM } from '../line/coax';
import type { Polarisation } from '../spectrum/usual-signal';
import { powerRatio } from '../units/decibel';
import { rememberedOf } from './remembered';

/** What a ranking asks of a wire model: how it hears waves of one frequency at one elevation. Equal text asks the same. */
export interface HearingQuestion {
  readonly model: WireModel;
  readonly freqHz: number;
  readonly elevationDeg: number;
}

/** The answer: enough to say what arrives from any side. Plain numbers, so that it can be kept. */
export interface Hearing {
  readonly impedance: Complex;
  /** Average of the gain over all directions: what arrives of evenly spread noise, before the mismatch. */
  readonly radiated: number;
  /** Gain (ratio, loss included) at the elevation, for azimuths 0, 10, … 350° from +x toward +y. */
  readonly gains: readonly number[];
  /** Share of each gain that is vertical (along θ). */
  readonly vertical: readonly number[];
  /** Share of each gain that is right-hand circular. */
  readonly rightHand: readonly number[];
  readonly segments: number;
}

/** Not solved: too long for the time that a ranking has, or wires that cannot be solved; the sentence says why. */
export interface Unheard {
  readonly why: string;
}

/** Half of the usual density: a ranking needs tenths of a dB, not the dip. */
const DENSITY = 0.5;
/** Wires longer than this would need more than about 240 segments. */
const MOST_WAVELENGTHS = 12;
const AZIMUTHS = 36;

/** The text by which an answer is kept: the same wires, ground, frequency and elevation give the same answer. */
export const hearingKey = ({ model, freqHz, elevationDeg }: HearingQuestion): string =>
  `{"model":${modelText(model)},"freqHz":${freqHz},"elevationDeg":${elevationDeg}}`;
const modelText = rememberedOf((model: WireModel) => JSON.stringify(model));

/** Solves one question. Pure: the same question gives the same numbers. */
export function solveHearing({ model, freqHz, elevationDeg }: HearingQuestion): Hearing | Unheard {
  const wavelengths = (model.wires.reduce((sum, wire) => sum + wireLengthM(wire), 0) * freqHz) / SPEED_OF_LIGHT_M_PER_S;
  if (wavelengths > MOST_WAVELENGTHS)
    return { why: `${wavelengths.toFixed(0)} λ of wire here: too long to compute for a listener who waits.` };
  let solution: Solution;
  try {
    const mesh = meshOf(model, freqHz, DENSITY);
    solution = solveAt(model, mesh, freqHz);
  } catch (error) {
    if (error instanceof CoreError) return { why: error.message };
    throw error;
  }
  const gain = gainParts(solution);
  const parts = Array.from({ length: AZIMUTHS }, (_, i) => gain((360 * i) / AZIMUTHS, elevationDeg));
  return {
    impedance: inputImpedance(solution),
    radiated: radiatedShare(solution),
    gains: parts.map(({ total }) => total),
    vertical: parts.map(({ vertical }) => vertical),
    rightHand: parts.map(({ rightHand }) => rightHand),
    segments: solution.mesh.segments,
  };
}

/** What reaches an antenna of the wrong polarisation all the same: walls and hills turn some of a wave. Common practice, no source: crossed costs 15 to 20 dB in sight. */
export const CROSSED = powerRatio(-17.5);

/** The gains that count for a wave of some polarisation. A builder winds a circular antenna the right way round. */
export function polarised(hearing: Hearing, polarisation: Polarisation): Hearing {
  const { gains, vertical, rightHand } = hearing;
  const sum = (list: readonly number[]): number => list.reduce((all, one) => all + one, 0);
  const rightWins = 2 * sum(rightHand) >= sum(gains);
  const counted = gains.map((total, i) => {
    const across = total - vertical[i];
    if (polarisation === 'vertical') return vertical[i] + CROSSED * across;
    if (polarisation === 'horizontal') return across + CROSSED * vertical[i];
    if (polarisation === 'circular') return rightWins ? rightHand[i] : total - rightHand[i];
    return total / 2;
  });
  return { ...hearing, gains: counted };
}

/** What an antenna that closed form knows as one polarisation keeps of a wave, ratio. */
export const polarisedShare = (own: 'vertical' | 'horizontal' | 'circular' | undefined, wave: Polarisation): number => {
  if (wave === 'random' || own === undefined) return wave === 'random' ? 0.5 : 1;
  if (own === wave) return 1;
  return own === 'circular' || wave === 'circular' ? 0.5 : CROSSED;
};

/** Gain toward an azimuth (degrees from +x toward +y), between the sampled ones. */
export function gainToward({ gains }: Hearing, azimuthDeg: number): number {
  const at = ((((azimuthDeg % 360) + 360) % 360) * gains.length) / 360;
  const low = Math.floor(at);
  return gains[low % gains.length] * (1 - (at - low)) + gains[(low + 1) % gains.length] * (at - low);
}

/** Azimuth of the strongest sample, degrees. */
export const strongestAzimuthDeg = ({ gains }: Hearing): number =>
  (gains.indexOf(Math.max(...gains)) * 360) / gains.length;

export const meanGain = ({ gains }: Hearing): number => gains.reduce((sum, value) => sum + value, 0) / gains.length;

/** Impedance ratios of the usual receive transformers. Common practice, no source. */
const TRANSFORMERS = [1, 4, 9, 16] as const;
/** Share of the available power that reaches a 50 Ω line through a lossless transformer of an impedance ratio. */
export const transferThrough = (hearing: Hearing, ratio: number): number =>
  powerTransfer(complex(LINE_OHM * ratio), hearing.impedance);

/** The transformer that hands on most. */
export const bestTransformer = (hearing: Hearing): number =>
  TRANSFORMERS.reduce<number>(
    (best, ratio) => (transferThrough(hearing, ratio) > transferThrough(hearing, best) ? ratio : best),
    1,
  );
