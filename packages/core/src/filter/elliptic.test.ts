import { describe, expect, test } from '@jest/globals';
import { OutOfRangeError } from '../errors';
import { ellipticLadder, ellipticLowpass } from './elliptic';
import { ladderLossDb } from './ladder';
import type { FilterShape } from './response';

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

describe('elliptic filters of other shapes', () => {
  const low = make(5, 0.1, 50, [2, 1]);
  const of = (shape: FilterShape, edgesHz: readonly number[]) =>
    ellipticLadder({ shape, edgesHz, order: 5, rippleDb: 0.1, stopDb: 50, lineOhm: 50, trapOrder: [2, 1] });
  // the change of frequency itself is the second route (Matthaei, Young & Jones, sec. 4.12): what the low-pass of 1 MHz loses at the frequency that it maps to
  const band = (hz: number): number => Math.abs(hz / 9.5e6 - 9.5e6 / hz) / (1e6 / 9.5e6);
  const edges = [9.5e6 * (Math.sqrt(1 + 1 / 361) - 1 / 19), 9.5e6 * (Math.sqrt(1 + 1 / 361) + 1 / 19)];
  test.each<[FilterShape, readonly number[], (hz: number) => number]>([
    ['lowpass', [3e6], (hz) => hz / 3e6],
    ['highpass', [3e6], (hz) => 3e6 / hz],
    ['bandpass', edges, band],
    ['bandstop', edges, (hz) => 1 / band(hz)],
  ])('%s: loses what the low-pass loses where it maps to', (shape, edgesHz, map) => {
    const branches = of(shape, edgesHz);
    expect(branches.flatMap(({ henry, farad }) => [henry ?? 1, farad ?? 1]).every((value) => value > 0)).toBe(true);
    for (let hz = 1e6; hz < 30e6; hz *= 1.013) {
      const expected = ladderLossDb(low.branches, 1e6 * map(hz), 50);
      if (expected < 120) expect(ladderLossDb(branches, hz, 50)).toBeCloseTo(expected, 5);
    }
  });
  test('a band-pass has two traps for each one of the low-pass, their zeros mirrored about the middle', () => {
    const traps = of('bandpass', edges).filter(({ place }) => place === 'series');
    expect(traps).toHaveLength(4);
    const zeros = traps.map(({ henry = 1, farad = 1 }) => 1 / (2 * Math.PI * Math.sqrt(henry * farad)));
    for (const [a, b] of [
      [0, 1],
      [2, 3],
    ])
      expect(Math.sqrt(zeros[a] * zeros[b])).toBeCloseTo(9.5e6, -1);
  });
  test('edges the wrong way round are refused', () => {
    expect(() => of('bandstop', [10e6, 9e6])).toThrow(/the lower one first/);
  });
});
