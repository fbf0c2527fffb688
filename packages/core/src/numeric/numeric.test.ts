import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { divide, magnitude, multiply, subtract } from './complex';
import { leastSquares, nonNegativeLeastSquares, solveLinear } from './least-squares';
import { minimise } from './minimise';
import {
  erfc,
  incompleteBeta,
  normalCdf,
  normalQuantile,
  sineCosineIntegrals,
  studentCdf,
  studentQuantile,
} from './special';

// Abramowitz & Stegun, Handbook of Mathematical Functions, tables 5.1 and 5.2 (10 decimals there; from memory).
test.each([
  [1, 0.9460830704, 0.3374039229],
  [2, 1.6054129768, 0.4229808288],
  [5, 1.5499312449, -0.1900297497],
  [10, 1.6583475942, -0.045456433],
])('Si and Ci at %d', (x, si, ci) => {
  const found = sineCosineIntegrals(x);
  expect(found.si).toBeCloseTo(si, 8);
  expect(found.ci).toBeCloseTo(ci, 8);
});
test('series and continued fraction of Si and Ci meet at 4', () => {
  const [below, above] = [sineCosineIntegrals(4 - 1e-10), sineCosineIntegrals(4 + 1e-10)];
  expect(Math.abs(below.si - above.si) + Math.abs(below.ci - above.ci)).toBeLessThan(1e-9);
});

// Student's t, two-sided 5 %: any statistics table.
test.each([
  [1, 12.706],
  [4, 2.776],
  [9, 2.262],
  [30, 2.042],
])('t table, %d degrees of freedom', (dof, t) => {
  expect(studentQuantile(0.975, dof)).toBeCloseTo(t, 3);
  expect(studentCdf(t, dof)).toBeCloseTo(0.975, 4);
});
test('normal table: 1.96 and 2.5758', () => {
  expect(normalQuantile(0.975)).toBeCloseTo(1.959964, 6);
  expect(normalQuantile(0.995)).toBeCloseTo(2.575829, 6);
  expect(normalQuantile(1e-6)).toBeCloseTo(-4.753424, 5);
  expect(normalCdf(0)).toBe(0.5);
  expect(erfc(3)).toBeCloseTo(2.209049699858544e-5, 15); // A&S table 7.1
});
test('I_x(a, b) mirrors: I_x(a, b) = 1 − I_{1−x}(b, a)', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.01, max: 0.99, noNaN: true }),
      fc.double({ min: 0.3, max: 40, noNaN: true }),
      fc.double({ min: 0.3, max: 40, noNaN: true }),
      (x, a, b) => {
        expect(incompleteBeta(x, a, b) + incompleteBeta(1 - x, b, a)).toBeCloseTo(1, 9);
      },
    ),
    { seed: 31 },
  );
});
test('complex division undoes multiplication', () => {
  const number = fc.record({
    re: fc.double({ min: -1e3, max: 1e3, noNaN: true }),
    im: fc.double({ min: 0.01, max: 1e3, noNaN: true }),
  });
  fc.assert(
    fc.property(number, number, (a, b) => {
      expect(magnitude(subtract(divide(multiply(a, b), b), a))).toBeLessThan(1e-9 * (1 + magnitude(a)));
    }),
    { seed: 32 },
  );
});

describe('least squares', () => {
  test('a line through three points on it', () => {
    const [a, b] = leastSquares(
      [
        [1, 1],
        [1, 2],
        [1, 4],
      ],
      [5, 7, 11],
    );
    expect([a, b].map((value) => Number(value.toFixed(9)))).toEqual([3, 2]);
  });
  test('undecided unknowns and too few readings are refused', () => {
    expect(() =>
      solveLinear(
        [
          [1, 1],
          [2, 2],
        ],
        [1, 2],
      ),
    ).toThrow(/do not decide every unknown/);
    expect(() => leastSquares([[1, 2]], [1])).toThrow(/cannot decide 2 unknowns/);
  });
  // Lawson & Hanson's conditions: x ≥ 0 and the gradient ≤ 0 where x = 0, = 0 where x > 0 (Kuhn-Tucker).
  test('non-negative solutions meet the Kuhn-Tucker conditions', () => {
    const entry = fc.integer({ min: -9, max: 9 });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(entry, entry, entry), { minLength: 4, maxLength: 6 }),
        fc.array(entry, { minLength: 6, maxLength: 6 }),
        (a, rhs) => {
          const b = rhs.slice(0, a.length);
          let x: number[];
          try {
            x = nonNegativeLeastSquares(a, b);
          } catch {
            return; // rank-deficient sample
          }
          const residual = b.map((value, r) => value - a[r].reduce((sum, v, j) => sum + v * x[j], 0));
          x.forEach((value, j) => {
            const slope = a.reduce((sum, row, r) => sum + row[j] * residual[r], 0);
            expect(value).toBeGreaterThanOrEqual(0);
            if (value > 1e-9) expect(Math.abs(slope)).toBeLessThan(1e-6);
            else expect(slope).toBeLessThan(1e-6);
          });
        },
      ),
      { seed: 33 },
    );
  });
});

// Rosenbrock's valley, Computer Journal 3 (1960): minimum at (1, 1).
test('the simplex finds the end of a curved valley', () => {
  const [x, y] = minimise(([a, b]) => (1 - a) ** 2 + 100 * (b - a * a) ** 2, [-1.2, 1], [0.5, 0.5]);
  expect(x).toBeCloseTo(1, 4);
  expect(y).toBeCloseTo(1, 4);
});
