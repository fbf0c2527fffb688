import { describe, expect, test } from '@jest/globals';
import { ellipticLowpass, ladderLossDb, OutOfRangeError } from '../index';

const make = (order: number, rippleDb: number, stopDb: number, trapOrder: readonly number[]) =>
  ellipticLowpass({ order, rippleDb, stopDb, edgeHz: 1e6, lineOhm: 50, trapOrder });

describe('elliptic low-pass', () => {
  // What defines the approximation (Zolotarev; Zverev, Handbook of Filter Synthesis, ch. 5): equal ripple in both bands, all of it used.
  test.each([
    [3, 0.1, 30, [1]],
    [5, 0.1, 50, [2, 1]],
    [7, 0.2, 60, [2, 3, 1]],
  ] as const)(
    'order %i: the parts ripple %f dB in the pass band and %f dB in the stop band',
    (n, ripple, stop, traps) => {
      const { branches, stopHz, zerosHz } = make(n, ripple, stop, traps);
      const loss = (hz: number): number => ladderLossDb(branches, hz, 50);
      const pass = Array.from({ length: 4000 }, (_, i) => loss((1e6 * (i + 1)) / 4000));
      expect(Math.max(...pass)).toBeCloseTo(ripple, 3);
      expect(loss(1e6)).toBeCloseTo(ripple, 4);
      expect(loss(stopHz)).toBeCloseTo(stop, 2);
      const beyond = Array.from({ length: 8000 }, (_, i) => loss(stopHz * 1.001 ** i)).filter(Number.isFinite);
      expect(Math.min(...beyond)).toBeGreaterThan(stop - 0.02);
      zerosHz.forEach((hz) => {
        expect(loss(hz * (1 + 1e-7))).toBeGreaterThan(stop + 40);
      });
      // extrema of the pass band: (n + 1)/2 peaks at full ripple, one of them the edge itself
      const peaks = pass.filter((v, i) => i > 0 && i < 3999 && v > pass[i - 1] && v >= pass[i + 1]);
      expect(peaks).toHaveLength((n - 1) / 2);
      peaks.forEach((peak) => {
        expect(peak).toBeCloseTo(ripple, 3);
      });
    },
  );
  test('the order of the traps changes the parts, not the response', () => {
    const [a, b] = [make(5, 0.1, 50, [2, 1]), make(5, 0.1, 50, [1, 2])];
    expect(a.branches[0].farad).not.toBeCloseTo(b.branches[0].farad ?? 0, 12);
    for (const hz of [0.3e6, 0.9e6, 1.4e6, 4e6])
      expect(ladderLossDb(a.branches, hz, 50)).toBeCloseTo(ladderLossDb(b.branches, hz, 50), 5);
  });
  test('an even order and a wrong list of traps are refused in words', () => {
    expect(() => make(4, 0.1, 50, [1])).toThrow('Take an odd order');
    expect(() => make(5, 0.1, 50, [1, 1])).toThrow('Name each of the 2 zeros once');
    expect(() => make(5, 0, 50, [1, 2])).toThrow(OutOfRangeError);
  });
});
