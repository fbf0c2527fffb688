import { describe, expect, test } from '@jest/globals';
import { NotConvergedError } from '../errors';
import { factorInPlace } from './complex-solve';
import { aaa } from './rational';
import { factorSymmetric } from './symmetric-solve';

/** Repeatable numbers in ±0.5 (Numerical Recipes' quick generator). */
function numbers(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 1664525 + 1013904223) >>> 0;
    return state / 2 ** 32 - 0.5;
  };
}

function symmetric(n: number, diagonal: number, next: () => number): Float64Array {
  const a = new Float64Array(2 * n * n);
  for (let i = 0; i < n; i += 1)
    for (let j = 0; j <= i; j += 1)
      for (const part of [0, 1]) {
        const value = next() + (i === j ? diagonal : 0);
        a[2 * (i * n + j) + part] = value;
        a[2 * (j * n + i) + part] = value;
      }
  return a;
}

describe('symmetric elimination', () => {
  // Against LU with partial pivoting, an elimination of its own.
  test.each([40, 41, 63, 96, 151])('agrees with pivoted elimination for %d unknowns', (n) => {
    const next = numbers(n);
    const a = symmetric(n, 3, next);
    const [x, y] = [0, 1].map(() => Float64Array.from({ length: 2 * n }, (_, i) => Math.sin(i)));
    factorSymmetric(Float64Array.from(a), n).solveInto(x);
    factorInPlace(Float64Array.from(a), n).solveInto(y);
    x.forEach((value, i) => expect(Math.abs(value - y[i])).toBeLessThan(1e-10));
  });
  test('a matrix that needs pivoting still gets its answer', () => {
    const n = 60;
    const a = symmetric(n, 0, numbers(5));
    for (let i = 0; i < n; i += 1) for (const part of [0, 1]) a[2 * (i * n + i) + part] = i % 2 === 0 ? 1e-14 : 1;
    const x = Float64Array.from({ length: 2 * n }, (_, i) => Math.cos(i));
    const b = Float64Array.from(x);
    factorSymmetric(Float64Array.from(a), n).solveInto(x);
    let worst = 0;
    for (let i = 0; i < n; i += 1) {
      let [re, im] = [-b[2 * i], -b[2 * i + 1]];
      for (let j = 0; j < n; j += 1) {
        re += a[2 * (i * n + j)] * x[2 * j] - a[2 * (i * n + j) + 1] * x[2 * j + 1];
        im += a[2 * (i * n + j)] * x[2 * j + 1] + a[2 * (i * n + j) + 1] * x[2 * j];
      }
      worst = Math.max(worst, Math.hypot(re, im));
    }
    expect(worst).toBeLessThan(1e-8);
  });
  test('a singular matrix is refused', () => {
    expect(() => factorSymmetric(new Float64Array(2 * 50 * 50), 50).solveInto(new Float64Array(100).fill(1))).toThrow(
      NotConvergedError,
    );
  });
});

describe('rational interpolation', () => {
  // A rational function of type (3, 3) is found exactly from enough samples.
  test('finds a function with poles off the axis', () => {
    const f = (x: number): { re: number; im: number } => {
      // 1/(x − 0.3 − 0.05j) + x
      const [a, b] = [x - 0.3, -0.05];
      const d = a * a + b * b;
      return { re: a / d + x, im: -b / d };
    };
    const xs = Array.from({ length: 9 }, (_, i) => -1 + i / 4);
    const fit = aaa(xs, xs.map(f));
    for (const x of [-0.93, 0.29, 0.31, 0.77]) {
      expect(Math.hypot(fit(x).re - f(x).re, fit(x).im - f(x).im)).toBeLessThan(1e-8);
    }
  });
  test('a constant stays constant', () => {
    expect(
      aaa(
        [-1, 0, 1],
        [0, 1, 2].map(() => ({ re: 2, im: -1 })),
      )(0.4),
    ).toEqual({ re: 2, im: -1 });
  });
});
