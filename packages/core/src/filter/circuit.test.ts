import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { designFilter, type FilterQuestion } from './design';
import { coilResistance, ladderLossDb } from './ladder';
import { spiceNetlist } from './netlist';
import { filterTouchstone, ladderScattering } from './scattering';
import { readTwoPort } from '../formats/two-port';
import { magnitude } from '../numeric/complex';

interface Phasor {
  re: number;
  im: number;
}
const plus = (a: Phasor, b: Phasor): Phasor => ({ re: a.re + b.re, im: a.im + b.im });
const times = (a: Phasor, b: Phasor): Phasor => ({ re: a.re * b.re - a.im * b.im, im: a.re * b.im + a.im * b.re });
const over = (a: Phasor, b: Phasor): Phasor => {
  const d = b.re * b.re + b.im * b.im;
  return { re: (a.re * b.re + a.im * b.im) / d, im: (a.im * b.re - a.re * b.im) / d };
};
const size = (a: Phasor): number => Math.hypot(a.re, a.im);

/**
 * The voltage at "out" of a netlist by nodal analysis: the reader and the solver know nothing of ladders, so that they are a second route.
 * The source of 1 V behind its resistor becomes a current into the node behind it. Source: Kirchhoff; Chua & Lin, ch. 4.
 */
function outVolts(netlist: string, freqHz: number): number {
  const omega = 2 * Math.PI * freqHz;
  const parts = netlist
    .split('\n')
    .filter((line) => /^[RLC]/.test(line))
    .map((line) => line.split(' '));
  const nodes = [...new Set(parts.flatMap(([, a, b]) => [a, b]))].filter((node) => node !== '0' && node !== 'src');
  const index = new Map(nodes.map((node, i) => [node, i]));
  const rows = nodes.map(() => nodes.map((): Phasor => ({ re: 0, im: 0 })));
  const right = nodes.map((): Phasor => ({ re: 0, im: 0 }));
  for (const [name, a, b, text] of parts) {
    const value = Number(text);
    const admittance: Phasor =
      name[0] === 'R'
        ? { re: 1 / value, im: 0 }
        : name[0] === 'C'
          ? { re: 0, im: omega * value }
          : { re: 0, im: -1 / (omega * value) };
    for (const [from, to] of [
      [a, b],
      [b, a],
    ]) {
      const i = index.get(from);
      if (i === undefined) continue;
      rows[i][i] = plus(rows[i][i], admittance);
      const j = index.get(to);
      if (j !== undefined) rows[i][j] = plus(rows[i][j], { re: -admittance.re, im: -admittance.im });
      if (to === 'src') right[i] = plus(right[i], admittance);
    }
  }
  for (let p = 0; p < nodes.length; p += 1) {
    let best = p;
    for (let r = p + 1; r < nodes.length; r += 1) if (size(rows[r][p]) > size(rows[best][p])) best = r;
    [rows[p], rows[best]] = [rows[best], rows[p]];
    [right[p], right[best]] = [right[best], right[p]];
    for (let r = p + 1; r < nodes.length; r += 1) {
      const share = over(rows[r][p], rows[p][p]);
      const negative = { re: -share.re, im: -share.im };
      for (let c = p; c < nodes.length; c += 1) rows[r][c] = plus(rows[r][c], times(negative, rows[p][c]));
      right[r] = plus(right[r], times(negative, right[p]));
    }
  }
  const volts: Phasor[] = nodes.map(() => ({ re: 0, im: 0 }));
  for (let r = nodes.length - 1; r >= 0; r -= 1) {
    let rest = right[r];
    for (let c = r + 1; c < nodes.length; c += 1) {
      const known = times(rows[r][c], volts[c]);
      rest = plus(rest, { re: -known.re, im: -known.im });
    }
    volts[r] = over(rest, rows[r][r]);
  }
  const controlled = /^Eout out 0 (\S+) 0 1$/m.exec(netlist)?.[1] ?? '';
  return size(volts[index.get(controlled) ?? 0]);
}

const question = (over: Partial<FilterQuestion>): FilterQuestion => ({
  ...{ shape: 'lowpass', family: 'chebyshev', rippleDb: 0.1, stopDb: 45, edgesHz: [9e6, 10e6], lineOhm: 50 },
  ...{ first: 'shunt', order: 5, stops: [], passes: [], coilQ: 120, series: 'E24' },
  ...over,
});
const SHAPES = ['lowpass', 'highpass', 'bandpass', 'bandstop'] as const;
const FAMILIES = ['butterworth', 'chebyshev', 'elliptic'] as const;
const CASES = SHAPES.flatMap((shape) => FAMILIES.map((family) => [shape, family] as const));

describe('the netlist is the filter', () => {
  test.each(CASES)('%s, %s: nodal analysis of the text finds the loss of the ladder', (shape, family) => {
    const design = designFilter(question({ shape, family, first: shape === 'highpass' ? 'series' : 'shunt' }));
    const ohm = coilResistance(120, 9.5e6);
    const netlist = spiceNetlist(design.real, 50, { lowHz: 1e6, highHz: 1e8, pointsPerDecade: 10 }, ohm);
    for (let freqHz = 1e6; freqHz < 90e6; freqHz *= 1.07) {
      const lossDb = -20 * Math.log10(2 * outVolts(netlist, freqHz));
      const expected = ladderLossDb(design.real, freqHz, 50, ohm);
      if (expected < 110) expect(lossDb).toBeCloseTo(expected, 3);
    }
  });
});

describe('what holds for every lossless reciprocal two-port (Pozar, Microwave Engineering, sec. 4.3)', () => {
  test.each(CASES)('%s, %s: what is not passed is reflected, alike from both sides', (shape, family) => {
    const { ideal } = designFilter(question({ shape, family }));
    for (let freqHz = 2e6; freqHz < 60e6; freqHz *= 1.11) {
      const { s11, s21, s12, s22 } = ladderScattering(ideal, freqHz, 50);
      expect(magnitude(s11) ** 2 + magnitude(s21) ** 2).toBeCloseTo(1, 6);
      expect(magnitude(s22)).toBeCloseTo(magnitude(s11), 6);
      expect(Math.hypot(s21.re - s12.re, s21.im - s12.im)).toBeLessThan(1e-6);
    }
  });
  test('a design of any order keeps its promise at the edges and inside', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 4 }),
        fc.double({ min: 0.05, max: 1, noNaN: true }),
        fc.double({ min: 1, max: 200, noNaN: true }),
        fc.constantFrom('lowpass' as const, 'highpass' as const),
        (pairs, rippleDb, edgeMHz, shape) => {
          const edgesHz = [edgeMHz * 1e6];
          const design = designFilter(question({ shape, edgesHz, rippleDb, order: 2 * pairs + 1 }));
          expect(design.idealLossDb(edgesHz[0])).toBeCloseTo(rippleDb, 4);
          for (const share of [0.2, 0.5, 0.8, 0.95]) {
            const inside = shape === 'lowpass' ? edgesHz[0] * share : edgesHz[0] / share;
            expect(design.idealLossDb(inside)).toBeLessThan(rippleDb + 1e-6);
          }
          const butterworth = designFilter(question({ shape, edgesHz, family: 'butterworth', order: 2 * pairs + 1 }));
          expect(butterworth.idealLossDb(edgesHz[0])).toBeCloseTo(3.0103, 3);
        },
      ),
      { numRuns: 40 },
    );
  });
  test('real capacitors are what a shop has, within 2 % alone or as a pair that comes closer (IEC 60063)', () => {
    const E24 = [10, 11, 12, 13, 15, 16, 18, 20, 22, 24, 27, 30, 33, 36, 39, 43, 47, 51, 56, 62, 68, 75, 82, 91];
    const { capacitors } = designFilter(question({ shape: 'bandpass', order: 5 }));
    expect(capacitors.length).toBeGreaterThan(4);
    for (const { wantedF, parts, sumF } of capacitors) {
      expect(parts.length).toBeLessThanOrEqual(2);
      for (const part of parts) {
        const mantissa = part / 10 ** (Math.floor(Math.log10(part * (1 + 1e-9))) - 1);
        expect(E24.some((value) => Math.abs(value / mantissa - 1) < 1e-6)).toBe(true);
      }
      expect(Math.abs(sumF / wantedF - 1)).toBeLessThan(0.021);
    }
  });
});

test('a two-port file that goes out comes in with the same gain', () => {
  const design = designFilter(question({ shape: 'bandpass' }));
  const ohm = coilResistance(120, 9.5e6);
  const freqsHz = Array.from({ length: 50 }, (_, i) => 5e6 + i * 0.3e6);
  const back = readTwoPort(filterTouchstone(design.real, freqsHz, 50, ohm)).points;
  expect(back).toHaveLength(freqsHz.length);
  back.forEach(({ freqHz, gainDb }, i) => {
    expect(freqHz).toBeCloseTo(freqsHz[i], 3);
    expect(gainDb).toBeCloseTo(-ladderLossDb(design.real, freqsHz[i], 50, ohm), 6);
  });
});
