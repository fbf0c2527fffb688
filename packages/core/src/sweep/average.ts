import { ShapeError } from '../errors';
import type { SweepData } from '../formats/touchstone';

/** Mean of several passes over one grid, and how much they scattered. */
export interface AveragedSweep {
  readonly sweep: SweepData;
  readonly passes: number;
  /** Standard deviation of one pass about the mean, as |Γ|, over all points; undefined for a single pass. */
  readonly scatter?: number;
}

/**
 * Mean of the complex readings, never of dB or SWR.
 * @throws ShapeError for no sweep or for grids that differ.
 */
export function averageSweeps(passes: readonly SweepData[]): AveragedSweep {
  const first = passes[0];
  if (!first) throw new ShapeError('There is nothing to average. Sweep at least once.');
  const n = first.freqHz.length;
  for (const pass of passes)
    if (pass.freqHz.length !== n || pass.freqHz.some((freq, i) => freq !== first.freqHz[i]))
      throw new ShapeError(
        'These sweeps lie on different frequencies. Average sweeps of one span and number of points.',
      );
  const re = new Float64Array(n);
  const im = new Float64Array(n);
  for (const pass of passes)
    for (let i = 0; i < n; i += 1) {
      re[i] += pass.re[i] / passes.length;
      im[i] += pass.im[i] / passes.length;
    }
  const sweep = { ...first, re, im };
  if (passes.length < 2) return { sweep, passes: 1 };
  let square = 0;
  for (const pass of passes)
    for (let i = 0; i < n; i += 1) square += (pass.re[i] - re[i]) ** 2 + (pass.im[i] - im[i]) ** 2;
  return { sweep, passes: passes.length, scatter: Math.sqrt(square / (n * (passes.length - 1))) };
}
