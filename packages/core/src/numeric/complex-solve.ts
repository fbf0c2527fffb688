import { NotConvergedError } from '../errors';

/** A factored complex matrix: solves for any number of right-hand sides. */
export interface Factored {
  readonly n: number;
  /** Overwrites b (2n values, re and im in turn) by the solution. */
  solveInto(b: Float64Array): void;
}

/**
 * LU with partial pivoting of a complex matrix, row-major [re, im, …], 2n² values; the matrix is overwritten.
 * @throws NotConvergedError if a pivot vanishes.
 */
export function factorInPlace(a: Float64Array, n: number): Factored {
  const pivots = new Int32Array(n);
  const row = 2 * n;
  for (let k = 0; k < n; k += 1) {
    let best = -1;
    let at = k;
    for (let i = k; i < n; i += 1) {
      const size = a[i * row + 2 * k] ** 2 + a[i * row + 2 * k + 1] ** 2;
      if (size > best) {
        best = size;
        at = i;
      }
    }
    if (!(best > 0) || !Number.isFinite(best)) throw new NotConvergedError('The wire equations', Infinity);
    pivots[k] = at;
    if (at !== k)
      for (let j = 0; j < row; j += 1) {
        const held = a[k * row + j];
        a[k * row + j] = a[at * row + j];
        a[at * row + j] = held;
      }
    const ir = a[k * row + 2 * k] / best;
    const ii = -a[k * row + 2 * k + 1] / best;
    for (let i = k + 1; i < n; i += 1) {
      const xr = a[i * row + 2 * k];
      const xi = a[i * row + 2 * k + 1];
      const lr = xr * ir - xi * ii;
      const li = xr * ii + xi * ir;
      a[i * row + 2 * k] = lr;
      a[i * row + 2 * k + 1] = li;
      for (let j = i * row + 2 * k + 2, u = k * row + 2 * k + 2; u < (k + 1) * row; j += 2, u += 2) {
        a[j] -= lr * a[u] - li * a[u + 1];
        a[j + 1] -= lr * a[u + 1] + li * a[u];
      }
    }
  }
  return {
    n,
    solveInto(b) {
      for (let k = 0; k < n; k += 1) {
        const at = pivots[k];
        if (at !== k) {
          [b[2 * k], b[2 * at]] = [b[2 * at], b[2 * k]];
          [b[2 * k + 1], b[2 * at + 1]] = [b[2 * at + 1], b[2 * k + 1]];
        }
        // rows were swapped whole, so the multipliers stand in final order
      }
      for (let i = 1; i < n; i += 1)
        for (let j = 0; j < i; j += 1) {
          const [lr, li] = [a[i * row + 2 * j], a[i * row + 2 * j + 1]];
          b[2 * i] -= lr * b[2 * j] - li * b[2 * j + 1];
          b[2 * i + 1] -= lr * b[2 * j + 1] + li * b[2 * j];
        }
      for (let i = n - 1; i >= 0; i -= 1) {
        let [re, im] = [b[2 * i], b[2 * i + 1]];
        for (let j = i + 1; j < n; j += 1) {
          const [ur, ui] = [a[i * row + 2 * j], a[i * row + 2 * j + 1]];
          re -= ur * b[2 * j] - ui * b[2 * j + 1];
          im -= ur * b[2 * j + 1] + ui * b[2 * j];
        }
        const [dr, di] = [a[i * row + 2 * i], a[i * row + 2 * i + 1]];
        const size = dr * dr + di * di;
        b[2 * i] = (re * dr + im * di) / size;
        b[2 * i + 1] = (im * dr - re * di) / size;
      }
    },
  };
}
