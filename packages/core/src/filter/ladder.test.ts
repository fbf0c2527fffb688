import { describe, expect, test } from '@jest/globals';
import { OutOfRangeError } from '../errors';
import {
  bandpassLossRuleDb,
  coilResistance,
  ladder,
  ladderLossDb,
  type LadderSpec,
  prototype,
  qFrequencyHz,
} from './ladder';
import { prototypeLossDb } from './response';

const spec = (over: Partial<LadderSpec>): LadderSpec => ({
  shape: 'lowpass',
  family: 'chebyshev',
  order: 5,
  rippleDb: 0.1,
  edgesHz: [10e6],
  lineOhm: 50,
  first: 'shunt',
  ...over,
});

describe('prototype element values', () => {
  // Source: Matthaei, Young & Jones, Microwave Filters, tables 4.05-1 and 4.05-2 (printed to four places; from memory).
  test.each([
    ['butterworth', 3, 0, [1, 2, 1], 1],
    ['butterworth', 5, 0, [0.618, 1.618, 2, 1.618, 0.618], 1],
    ['chebyshev', 3, 0.1, [1.0315, 1.1474, 1.0315], 1],
    ['chebyshev', 5, 0.1, [1.1468, 1.3712, 1.975, 1.3712, 1.1468], 1],
    ['chebyshev', 5, 0.5, [1.7058, 1.2296, 2.5408, 1.2296, 1.7058], 1],
    ['chebyshev', 4, 0.5, [1.6703, 1.1926, 2.3661, 0.8419], 1.9841],
  ] as const)('%s of order %i with %f dB stands in the table', (family, order, ripple, g, load) => {
    const made = prototype(family, order, ripple);
    g.forEach((value, i) => {
      expect(made.g[i]).toBeCloseTo(value, 3);
    });
    expect(made.load).toBeCloseTo(load, 3);
  });
});

describe('ladders', () => {
  // Two routes: chain matrix of the parts against the closed response 10 log(1 + ε²T²(w)) with the frequency transformation. Source: ibid., sec. 4.03 and 8.
  test.each([
    ['lowpass', [10e6], (f: number) => f / 10e6],
    ['highpass', [10e6], (f: number) => 10e6 / f],
    ['bandpass', [6e6, 9e6], (f: number) => Math.abs((f * f - 54e12) / (f * 3e6))],
    ['bandstop', [6e6, 9e6], (f: number) => Math.abs((f * 3e6) / (f * f - 54e12))],
  ] as const)('a %s does what its closed form says, in both topologies', (shape, edgesHz, mapped) => {
    for (const first of ['series', 'shunt'] as const)
      for (const family of ['butterworth', 'chebyshev'] as const) {
        const branches = ladder(spec({ shape: shape, edgesHz, first, family, order: 3 }));
        for (const hz of [2e6, 5e6, 6e6, 7e6, 9e6, 12e6, 30e6])
          expect(ladderLossDb(branches, hz, 50)).toBeCloseTo(prototypeLossDb(family, 3, 0.1, mapped(hz)), 6);
      }
  });
  test('an even Chebyshev order and a band with one edge are refused in words', () => {
    expect(() => ladder(spec({ order: 4 }))).toThrow(OutOfRangeError);
    expect(() => ladder(spec({ shape: 'bandpass', edgesHz: [9e6, 6e6] }))).toThrow('two edges, the lower one first');
    expect(() => ladderLossDb([], 0, 50)).toThrow(OutOfRangeError);
  });
  // Source: Cohn, Proc. IRE 47 (1959) 1342: 4.343 Σg/(Q w), first order in 1/Q, so the gap closes fourfold when Q doubles.
  test('the loss of a band-pass with coils of finite Q tends to the rule as Q rises', () => {
    const design = spec({ shape: 'bandpass', edgesHz: [6.9e6, 7.4e6], order: 3 });
    const branches = ladder(design);
    const middle = Math.sqrt(6.9e6 * 7.4e6);
    const gap = (q: number): number =>
      bandpassLossRuleDb(design, q) - ladderLossDb(branches, middle, 50, coilResistance(q, qFrequencyHz(design)));
    expect(gap(400)).toBeGreaterThan(0);
    expect(gap(400) / gap(800)).toBeCloseTo(4, 0);
    expect(gap(800)).toBeLessThan(0.01);
  });
});
