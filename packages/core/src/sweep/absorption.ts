import type { SweepData } from '../formats/touchstone';
import { markerAt, pointAt, type SweepPoint } from './analyse';
import { quantile } from '../numeric/statistics';

/** A stretch of a sweep where power is taken: an antenna's resonance as seen through a lossy line and noise. */
export interface AbsorptionDip extends SweepPoint {
  /** Share of the power that reaches the far end and stays there, 0 to 1. */
  readonly taken: number;
}

/** Loss there and back, dB, at each point: −10 log |Γ|². */
export const lossesDb = (sweep: SweepData): Float64Array =>
  Float64Array.from(sweep.freqHz, (_, i) => -10 * Math.log10(Math.max(1e-9, sweep.re[i] ** 2 + sweep.im[i] ** 2)));

/** Loss of the line itself there and back, dB per √Hz: the least that any point loses, by the 10th percentile against noise. */
const lineLossPerRoot = (sweep: SweepData, losses: Float64Array): number =>
  Math.max(
    0,
    quantile(
      losses.map((loss, i) => loss / Math.sqrt(sweep.freqHz[i])),
      0.1,
    ),
  );

/** Points that the share taken is averaged over, each side: a dip of an antenna is many points wide. */
const reachOf = (points: number): number => (points >= 150 ? 2 : points >= 60 ? 1 : 0);
/** A dip takes at least this share more than what surrounds it; less is a joint, a bend or noise. Common practice, no source. */
const LEAST_TAKEN = 0.1;
/** The head of a dip, as a share of its height: wider ones lean with the dip's own slope. */
const HEAD = 0.06;
/** In units of the noise of one point after averaging. */
const NOISE_FACTOR = 6;

/** Noise of one point from its difference to the middle of its neighbours (σ² of that is 1.5 σ²), by the median. */
function scatter(values: Float64Array): number {
  if (values.length < 5) return 0;
  const off = Array.from({ length: values.length - 2 }, (_, i) =>
    Math.abs(values[i + 1] - (values[i] + values[i + 2]) / 2),
  );
  return (1.4826 * quantile(off, 0.5)) / Math.sqrt(1.5);
}

/**
 * Dips of what is taken at the far end of a line, lowest frequency first: the line's own loss is judged from the sweep, so that a lossy cable
 * neither hides dips nor makes up new ones; noise does not count. A dip at the very edge is not counted.
 */
export function absorptionDips(sweep: SweepData): readonly AbsorptionDip[] {
  const n = sweep.freqHz.length;
  if (n < 5) return [];
  const losses = lossesDb(sweep);
  const perRoot = lineLossPerRoot(sweep, losses);
  const raw = losses.map((loss, i) => 1 - 10 ** (-(loss - perRoot * Math.sqrt(sweep.freqHz[i])) / 10));
  const reach = reachOf(n);
  const taken = raw.map((_, i) => {
    const from = Math.max(0, i - reach);
    const to = Math.min(n - 1, i + reach);
    let sum = 0;
    for (let k = from; k <= to; k += 1) sum += raw[k];
    return sum / (to - from + 1);
  });
  const noise = (NOISE_FACTOR * scatter(raw)) / Math.sqrt(2 * reach + 1);
  const least = Math.max(LEAST_TAKEN, noise);
  const tops: number[] = [];
  let lowest = taken[0];
  let top = 0;
  for (let i = 1; i < n; i += 1) {
    if (taken[i] > taken[top]) top = i;
    else if (taken[i] < taken[top] - least) {
      if (top > 0 && taken[top] - lowest > least) tops.push(top);
      lowest = taken[i];
      top = i;
    }
    if (taken[i] < lowest) {
      lowest = taken[i];
      if (taken[top] - lowest > least || taken[top] <= lowest) top = i;
    }
  }
  return tops.map((index) => ({ ...placeOf(sweep, taken, index, noise), taken: Math.min(1, taken[index]) }));
}

/** Place of a dip by a parabola fitted to all points of its head, so that noise at its flat bottom does not decide. */
function placeOf(sweep: SweepData, taken: Float64Array, index: number, noise: number): SweepPoint {
  const foot = taken[index] - Math.max(noise, HEAD * taken[index]);
  let [from, to] = [index, index];
  while (from > 0 && taken[from - 1] > foot) from -= 1;
  while (to < taken.length - 1 && taken[to + 1] > foot) to += 1;
  // even on both sides: a head cut on one side would draw the vertex away
  const half = Math.max(1, Math.min(index - from, to - index));
  const [low, high] = [Math.max(0, index - half), Math.min(taken.length - 1, index + half)];
  const centre = sweep.freqHz[index];
  const scale = Math.max(1, sweep.freqHz[high] - centre, centre - sweep.freqHz[low]);
  const s = [0, 0, 0, 0, 0];
  const t = [0, 0, 0];
  for (let i = low; i <= high; i += 1) {
    const x = (sweep.freqHz[i] - centre) / scale;
    for (let p = 0; p < 5; p += 1) s[p] += x ** p;
    for (let p = 0; p < 3; p += 1) t[p] += x ** p * taken[i];
  }
  // normal equations of a + b·x + c·x² by Cramer's rule; the vertex is −b/2c
  const det = (a: readonly number[]): number =>
    a[0] * (a[4] * a[8] - a[5] * a[7]) - a[1] * (a[3] * a[8] - a[5] * a[6]) + a[2] * (a[3] * a[7] - a[4] * a[6]);
  const b = det([s[0], t[0], s[2], s[1], t[1], s[3], s[2], t[2], s[4]]);
  const c = det([s[0], s[1], t[0], s[1], s[2], t[1], s[2], s[3], t[2]]);
  const shift = c < 0 ? Math.max(-1, Math.min(1, -b / (2 * c))) : 0;
  return markerAt(sweep, centre + shift * scale) ?? pointAt(sweep, index);
}
