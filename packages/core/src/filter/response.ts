import { OutOfRangeError, requirePositive, requireRange } from '../errors';

export type FilterShape = 'lowpass' | 'highpass' | 'bandpass' | 'bandstop';
export type FilterFamily = 'butterworth' | 'chebyshev';

/**
 * A filter as ordered: what it passes and how steep. `edgeLowHz` serves high-pass, band-pass and band-stop; `edgeHighHz` low-pass,
 * band-pass and band-stop. Butterworth edges are 3 dB points, Chebyshev edges are RIPPLE points.
 */
export interface FilterSpec {
  readonly shape: FilterShape;
  readonly family: FilterFamily;
  readonly order: number;
  readonly rippleDb: number;
  readonly edgeLowHz?: number;
  readonly edgeHighHz?: number;
  /** Loss added everywhere for real parts, dB. */
  readonly insertionLossDb: number;
}

/** An edge that the shape has. @throws OutOfRangeError when it was not given or is not positive. */
function edgeOf(edge: number | undefined, name: string): number {
  if (edge === undefined) throw new OutOfRangeError(`This filter needs its ${name}. Enter it.`, name);
  requirePositive(edge, name);
  return edge;
}

/** Frequency of the low-pass prototype (1 = edge) that a frequency maps to; Infinity at the transmission zeros. */
function prototypeFrequency(spec: FilterSpec, freqHz: number): number {
  if (spec.shape === 'lowpass') return freqHz / edgeOf(spec.edgeHighHz, 'upper edge (Hz)');
  if (spec.shape === 'highpass') return edgeOf(spec.edgeLowHz, 'lower edge (Hz)') / freqHz;
  const low = edgeOf(spec.edgeLowHz, 'lower edge (Hz)');
  const high = edgeOf(spec.edgeHighHz, 'upper edge (Hz)');
  if (!(low < high))
    throw new OutOfRangeError('The lower edge must lie below the upper edge. Exchange the two.', 'edgeLowHz');
  const centre = Math.sqrt(low * high); // geometric mean
  const bandwidth = (high - low) / centre;
  const pass = Math.abs(freqHz / centre - centre / freqHz) / bandwidth;
  return spec.shape === 'bandpass' ? pass : 1 / pass;
}

/**
 * Attenuation of an ideal prototype at a normalised frequency w ≥ 0 (1 = edge), dB: 10 log(1 + w^2n), or 10 log(1 + ε² T_n²(w)).
 * Source: Matthaei, Young & Jones, Microwave Filters ch. 4.
 */
export function prototypeLossDb(family: FilterFamily, order: number, rippleDb: number, w: number): number {
  const excess =
    family === 'butterworth' ? w ** (2 * order) : Math.expm1((rippleDb * Math.LN10) / 10) * chebyshev(order, w) ** 2;
  return 10 * Math.log10(1 + excess);
}

/** Chebyshev polynomial T_n(w) of whole order, by its recurrence: a path asks for it thousands of times. */
function chebyshev(order: number, w: number): number {
  let [before, now] = [1, w];
  for (let n = 1; n < order; n += 1) [before, now] = [now, 2 * w * now - before];
  return order === 0 ? 1 : now;
}

/** Deepest stop-band loss that a built filter of discrete parts keeps; leakage around it sets this. Common practice, no source. */
export const LEAKAGE_DB = 80;

/**
 * Attenuation of an ideal filter at a frequency between equal resistive terminations, dB, plus its insertion loss; limited to 80 dB.
 */
export function filterLossDb(spec: FilterSpec, freqHz: number): number {
  requirePositive(freqHz, 'Frequency (Hz)');
  requireRange(spec.order, 'Order', 1, 15);
  requireRange(spec.insertionLossDb, 'Insertion loss (dB)', 0);
  const w = prototypeFrequency(spec, freqHz);
  if (!Number.isFinite(w)) return LEAKAGE_DB + spec.insertionLossDb;
  if (spec.family === 'chebyshev') requireRange(spec.rippleDb, 'Ripple (dB)', 0.001, 3);
  return Math.min(LEAKAGE_DB, prototypeLossDb(spec.family, spec.order, spec.rippleDb, w)) + spec.insertionLossDb;
}
