import { OutOfRangeError, ShapeError } from '../errors';

/** A small dense matrix as rows. */
export type Matrix = readonly (readonly number[])[];

/**
 * Solves a square system by Gaussian elimination with partial pivoting.
 * @throws OutOfRangeError if the matrix is singular to working precision.
 */
export function solveLinear(a: Matrix, b: readonly number[]): number[] {
  const n = b.length;
  const work = a.map((row, i) => [...row, b[i]]);
  const size = Math.max(...a.flat().map(Math.abs), 0);
  for (let k = 0; k < n; k += 1) {
    let pivot = k;
    for (let i = k + 1; i < n; i += 1) if (Math.abs(work[i][k]) > Math.abs(work[pivot][k])) pivot = i;
    if (!(Math.abs(work[pivot][k]) > size * 1e-14))
      throw new OutOfRangeError('These measurements do not decide every unknown. Add a reading that changes only one.');
    [work[k], work[pivot]] = [work[pivot], work[k]];
    for (let i = k + 1; i < n; i += 1) {
      const factor = work[i][k] / work[k][k];
      for (let j = k; j <= n; j += 1) work[i][j] -= factor * work[k][j];
    }
  }
  const x = new Array<number>(n).fill(0);
  for (let i = n - 1; i >= 0; i -= 1) {
    let sum = work[i][n];
    for (let j = i + 1; j < n; j += 1) sum -= work[i][j] * x[j];
    x[i] = sum / work[i][i];
  }
  return x;
}

/**
 * min ‖A x − b‖; A has at least as many rows as columns. Columns are scaled first, so that unknowns of different size
 * (mm beside m) do not look singular; the normal equations are enough for the handful of unknowns met here.
 */
export function leastSquares(a: Matrix, b: readonly number[]): number[] {
  const rows = a.length;
  const cols = a[0]?.length ?? 0;
  if (rows !== b.length || rows < cols)
    throw new ShapeError(`${rows} readings cannot decide ${cols} unknowns. Add readings.`);
  const norm = Array.from({ length: cols }, (_, j) => Math.hypot(...a.map((row) => row[j])) || 1);
  const normal = Array.from({ length: cols }, (_, i) =>
    Array.from({ length: cols }, (_, j) => a.reduce((sum, row) => sum + (row[i] / norm[i]) * (row[j] / norm[j]), 0)),
  );
  const right = Array.from({ length: cols }, (_, i) => a.reduce((sum, row, r) => sum + (row[i] / norm[i]) * b[r], 0));
  return solveLinear(normal, right).map((value, i) => value / norm[i]);
}

/**
 * min ‖A x − b‖ with every x ≥ 0, by the active-set method of Lawson and Hanson, Solving Least Squares Problems (1974) ch. 23.
 */
export function nonNegativeLeastSquares(a: Matrix, b: readonly number[]): number[] {
  const cols = a[0].length;
  const passive = new Set<number>();
  const x = new Array<number>(cols).fill(0);
  const gradient = (): number[] => {
    const residual = b.map((value, r) => value - a[r].reduce((sum, v, j) => sum + v * x[j], 0));
    return Array.from({ length: cols }, (_, j) => a.reduce((sum, row, r) => sum + row[j] * residual[r], 0));
  };
  const scale = Math.max(...a.flat().map(Math.abs)) * Math.max(...b.map(Math.abs), 1e-300);
  for (let round = 0; round < 3 * cols + 10; round += 1) {
    const slope = gradient();
    const next = slope
      .map((value, j) => ({ value, j }))
      .filter(({ value, j }) => !passive.has(j) && value > 1e-12 * scale)
      .sort((p, q) => q.value - p.value)[0];
    if (!next) return x;
    passive.add(next.j);
    for (;;) {
      const columns = [...passive].sort((p, q) => p - q);
      const trial = leastSquares(
        a.map((row) => columns.map((j) => row[j])),
        b,
      );
      if (trial.every((value) => value > 0)) {
        x.fill(0);
        columns.forEach((j, i) => (x[j] = trial[i]));
        break;
      }
      let step = 1;
      columns.forEach((j, i) => {
        if (trial[i] <= 0) step = Math.min(step, x[j] / (x[j] - trial[i]));
      });
      columns.forEach((j, i) => {
        x[j] += step * (trial[i] - x[j]);
        if (x[j] <= 1e-15) {
          x[j] = 0;
          passive.delete(j);
        }
      });
      if (passive.size === 0) break;
    }
  }
  return x;
}
