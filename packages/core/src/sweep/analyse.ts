import { complex, magnitude, type Complex } from '../numeric/complex';
import { impedanceOf, returnLossDb, swrOf } from '../line/reflection';
import type { SweepData } from '../formats/touchstone';

/** What stands at one frequency of a sweep, interpolated between its points. */
export interface SweepPoint {
  readonly freqHz: number;
  readonly gamma: Complex;
  readonly swr: number | null;
  readonly returnLossDb: number | null;
  readonly impedance?: Complex;
}

const describe = (freqHz: number, gamma: Complex, referenceOhm: number): SweepPoint => ({
  freqHz,
  gamma,
  swr: swrOf(magnitude(gamma)),
  returnLossDb: returnLossDb(magnitude(gamma)),
  impedance: impedanceOf(gamma, referenceOhm),
});

/** The measured point at an index. */
export const pointAt = (sweep: SweepData, index: number): SweepPoint =>
  describe(sweep.freqHz[index], complex(sweep.re[index], sweep.im[index]), sweep.referenceOhm);

/** Index of the last point at or below a frequency; −1 before the first. */
export function indexBelow(freqHz: Float64Array, value: number): number {
  let low = -1;
  let high = freqHz.length;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (freqHz[middle] <= value) low = middle;
    else high = middle;
  }
  return low;
}

/** Reflection at any frequency inside the sweep, linear in real and imaginary part; undefined outside (never extrapolated). */
export function markerAt(sweep: SweepData, freqHz: number): SweepPoint | undefined {
  const i = indexBelow(sweep.freqHz, freqHz);
  const last = sweep.freqHz.length - 1;
  if (i < 0 || freqHz > sweep.freqHz[last]) return undefined;
  if (i === last) return pointAt(sweep, last);
  const t = (freqHz - sweep.freqHz[i]) / (sweep.freqHz[i + 1] - sweep.freqHz[i]);
  const between = (values: Float64Array): number => values[i] + t * (values[i + 1] - values[i]);
  return describe(freqHz, complex(between(sweep.re), between(sweep.im)), sweep.referenceOhm);
}

/** A dip of |Γ|: its place by a parabola through three points of |Γ|², and its width. */
export interface Resonance {
  readonly freqHz: number;
  readonly swr: number | null;
  /** Feed impedance interpolated at the dip. */
  readonly impedance?: Complex;
  /** Where X passes zero from below nearest to the dip; undefined if it does not within the sweep. */
  readonly zeroReactanceHz?: number;
  /** Band in which SWR stays below `widthSwr`; an edge outside the sweep is undefined. */
  readonly lowEdgeHz?: number;
  readonly highEdgeHz?: number;
  readonly widthSwr: number;
}

const gammaSquared = (sweep: SweepData, i: number): number => sweep.re[i] ** 2 + sweep.im[i] ** 2;

/**
 * Least rise of |Γ|² on both sides that makes a dip a resonance: small where the match is good (a narrow sweep around a trimmed
 * antenna rises little), larger where nearly everything is reflected and noise ripples.
 */
const dipDepth = (atDip: number): number => 0.004 + 0.03 * atDip;

/** Frequency where SWR crosses a limit, walking from a dip in one direction. */
function crossing(sweep: SweepData, from: number, direction: 1 | -1, limitSwr: number): number | undefined {
  const limit = (limitSwr - 1) / (limitSwr + 1);
  for (let i = from; i + direction >= 0 && i + direction < sweep.freqHz.length; i += direction) {
    const inside = Math.sqrt(gammaSquared(sweep, i));
    const outside = Math.sqrt(gammaSquared(sweep, i + direction));
    if (inside > limit || outside <= limit) continue;
    // bisection on the interpolated reflection: |Γ| of a chord is not linear
    let near = sweep.freqHz[i];
    let far = sweep.freqHz[i + direction];
    for (let round = 0; round < 50; round += 1) {
      const middle = (near + far) / 2;
      const point = markerAt(sweep, middle);
      if (point && magnitude(point.gamma) <= limit) near = middle;
      else far = middle;
    }
    return (near + far) / 2;
  }
  return undefined;
}

/** SWR below which a match counts as good, by custom: a ninth of the power comes back. */
export const GOOD_SWR = 2;

/**
 * Resonances of a sweep, deepest dip first. A dip at the very edge is not counted: nobody knows what lies beyond.
 * @param widthSwr limit for the width.
 */
export function findResonances(sweep: SweepData, widthSwr = GOOD_SWR): readonly Resonance[] {
  const n = sweep.freqHz.length;
  const found: { index: number; depth: number }[] = [];
  let highestBefore = n > 0 ? gammaSquared(sweep, 0) : 0;
  let lowest = 0; // deepest point since the last shoulder
  for (let i = 1; i < n; i += 1) {
    const value = gammaSquared(sweep, i);
    const bottom = gammaSquared(sweep, lowest);
    if (value < bottom) lowest = i;
    else if (value > bottom + dipDepth(bottom)) {
      if (lowest > 0 && highestBefore > bottom + dipDepth(bottom)) found.push({ index: lowest, depth: bottom });
      highestBefore = value;
      lowest = i;
    }
  }
  return found
    .sort((a, b) => a.depth - b.depth)
    .map(({ index }) => {
      const freqHz = parabolaVertex(sweep, index);
      const point = markerAt(sweep, freqHz);
      const inside = swrOf(Math.sqrt(gammaSquared(sweep, index)));
      const wide = inside !== null && inside <= widthSwr;
      return {
        freqHz,
        swr: point?.swr ?? null,
        impedance: point?.impedance,
        zeroReactanceHz: zeroReactance(sweep, index),
        lowEdgeHz: wide ? crossing(sweep, index, -1, widthSwr) : undefined,
        highEdgeHz: wide ? crossing(sweep, index, 1, widthSwr) : undefined,
        widthSwr,
      };
    });
}

function parabolaVertex(sweep: SweepData, i: number): number {
  const [x0, x1, x2] = [sweep.freqHz[i - 1], sweep.freqHz[i], sweep.freqHz[i + 1]];
  const [y0, y1, y2] = [gammaSquared(sweep, i - 1), gammaSquared(sweep, i), gammaSquared(sweep, i + 1)];
  const a = (x1 - x0) ** 2 * (y1 - y2) - (x1 - x2) ** 2 * (y1 - y0);
  const b = (x1 - x0) * (y1 - y2) - (x1 - x2) * (y1 - y0);
  const vertex = b === 0 ? x1 : x1 - a / (2 * b);
  return Math.min(x2, Math.max(x0, vertex));
}

function zeroReactance(sweep: SweepData, near: number): number | undefined {
  let best: number | undefined;
  for (let i = 1; i < sweep.freqHz.length; i += 1) {
    // the sign of X is the sign of Im Γ for any passive reading
    if (!(sweep.im[i - 1] < 0 && sweep.im[i] >= 0)) continue;
    const t = sweep.im[i - 1] / (sweep.im[i - 1] - sweep.im[i]);
    const freq = sweep.freqHz[i - 1] + t * (sweep.freqHz[i] - sweep.freqHz[i - 1]);
    if (best === undefined || Math.abs(freq - sweep.freqHz[near]) < Math.abs(best - sweep.freqHz[near])) best = freq;
  }
  return best;
}

/** One band against a sweep: its edges, middle and best point. */
export interface BandRow {
  readonly name: string;
  readonly lowHz: number;
  readonly highHz: number;
  readonly low?: SweepPoint;
  readonly middle?: SweepPoint;
  readonly high?: SweepPoint;
  /** Lowest SWR among the sweep's points inside the band. */
  readonly best?: SweepPoint;
}

/** The rows of a band table that are asked about: those that hold a frequency the antenna is cut for, or touch a wanted band; and the others. */
export function askedBands(
  rows: readonly BandRow[],
  cutForHz: readonly number[],
  wanted: readonly { readonly lowHz: number; readonly highHz: number }[],
): { readonly asked: readonly BandRow[]; readonly others: readonly BandRow[] } {
  const isAsked = ({ lowHz, highHz }: BandRow): boolean =>
    cutForHz.some((freqHz) => freqHz >= lowHz && freqHz <= highHz) ||
    wanted.some((one) => one.lowHz <= highHz && one.highHz >= lowHz);
  const asked = rows.filter(isAsked);
  return asked.length === 0 ? { asked: rows, others: [] } : { asked, others: rows.filter((row) => !isAsked(row)) };
}

/** The band table: edges, middle and dip of each band that the sweep touches. */
export function bandTable(
  sweep: SweepData,
  bands: readonly { readonly name: string; readonly lowHz: number; readonly highHz: number }[],
): readonly BandRow[] {
  const first = sweep.freqHz[0];
  const last = sweep.freqHz[sweep.freqHz.length - 1];
  return bands
    .filter((band) => band.highHz >= first && band.lowHz <= last)
    .map((band) => {
      const candidates = [markerAt(sweep, band.lowHz), markerAt(sweep, band.highHz)];
      for (
        let i = Math.max(0, indexBelow(sweep.freqHz, band.lowHz));
        i < sweep.freqHz.length && sweep.freqHz[i] <= band.highHz;
        i += 1
      )
        if (sweep.freqHz[i] >= band.lowHz) candidates.push(pointAt(sweep, i));
      const best = candidates.reduce<SweepPoint | undefined>(
        (least, point) => (point && (!least || magnitude(point.gamma) < magnitude(least.gamma)) ? point : least),
        undefined,
      );
      return {
        ...{ name: band.name, lowHz: band.lowHz, highHz: band.highHz },
        low: candidates[0],
        middle: markerAt(sweep, (band.lowHz + band.highHz) / 2),
        high: candidates[1],
        best,
      };
    });
}

/**
 * Indices that keep every dip and peak of a trace when it is drawn `columns` pixels wide: per column the first point and the lowest and
 * highest value. All indices if there are few points. Markers and numbers never use this.
 */
export function decimate(values: Float64Array, from: number, to: number, columns: number): readonly number[] {
  const count = to - from;
  if (count <= 3 * columns) return Array.from({ length: Math.max(0, count) }, (_, i) => from + i);
  const kept = new Set<number>();
  for (let column = 0; column < columns; column += 1) {
    const start = from + Math.floor((column * count) / columns);
    const end = from + Math.floor(((column + 1) * count) / columns);
    let low = start;
    let high = start;
    for (let i = start; i < end; i += 1) {
      if (values[i] < values[low]) low = i;
      if (values[i] > values[high]) high = i;
    }
    kept.add(start).add(low).add(high);
  }
  kept.add(to - 1);
  return [...kept].sort((a, b) => a - b);
}

/** Readings that a passive antenna cannot give: |Γ| above 1 beyond a small calibration error. */
export function unphysicalPoints(sweep: SweepData, tolerance = 0.02): number {
  let count = 0;
  for (let i = 0; i < sweep.freqHz.length; i += 1) if (gammaSquared(sweep, i) > (1 + tolerance) ** 2) count += 1;
  return count;
}

/** Summary of a sweep for lists and the command line. */
export function summariseSweep(sweep: SweepData) {
  const n = sweep.freqHz.length;
  return {
    points: n,
    startHz: sweep.freqHz[0],
    stopHz: sweep.freqHz[n - 1],
    stepHz: n > 1 ? (sweep.freqHz[n - 1] - sweep.freqHz[0]) / (n - 1) : null,
    referenceOhm: sweep.referenceOhm,
    unphysicalPoints: unphysicalPoints(sweep),
    resonances: findResonances(sweep),
  };
}
