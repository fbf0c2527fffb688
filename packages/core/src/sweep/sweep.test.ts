import { describe, expect, test } from '@jest/globals';
import type { SweepData } from '../formats/touchstone';
import { reflectionOf } from '../line/reflection';
import { complex } from '../numeric/complex';
import { askedBands, bandTable, decimate, findResonances, markerAt, summariseSweep } from './analyse';
import { lengthForTarget, nextCut, planTrims } from './trim';

/** Series resonance R + jRQ(f/f0 − f0/f), the textbook model of an antenna near its dip. */
function seriesSweep(
  rOhm: number,
  q: number,
  f0Hz: number,
  startHz: number,
  stopHz: number,
  points: number,
): SweepData {
  const freqHz = Float64Array.from({ length: points }, (_, i) => startHz + ((stopHz - startHz) * i) / (points - 1));
  const gamma = Array.from(freqHz, (f) => reflectionOf(complex(rOhm, rOhm * q * (f / f0Hz - f0Hz / f)), 50));
  return {
    freqHz,
    re: Float64Array.from(gamma, (g) => g.re),
    im: Float64Array.from(gamma, (g) => g.im),
    referenceOhm: 50,
  };
}

test('24 bands stood under a fan cut for three: those it is cut for and those wanted come first, the others are folded', () => {
  const row = (name: string, lowMHz: number, highMHz: number) => ({ name, lowHz: lowMHz * 1e6, highHz: highMHz * 1e6 });
  const rows = [row('80 m', 3.5, 3.8), row('49 m', 5.9, 6.2), row('40 m', 7, 7.2), row('20 m', 14, 14.35)];
  const names = (list: readonly { readonly name: string }[]) => list.map(({ name }) => name);
  const found = askedBands(rows, [7.1e6, 14.2e6], [{ lowHz: 5.95e6, highHz: 6.0e6 }]);
  expect(names(found.asked)).toEqual(['49 m', '40 m', '20 m']);
  expect(names(found.others)).toEqual(['80 m']);
  expect(askedBands(rows, [28e6], []).asked).toHaveLength(4); // nothing is asked for: all are shown
});

describe('a 42 Ω antenna with Q 11 at 14.18 MHz', () => {
  // Closed form of the series circuit: SWR 1.363 / 1.191 / 1.344 at 14.000 / 14.175 / 14.350 MHz, 963.8 kHz under SWR 2.
  const sweep = seriesSweep(42, 11, 14.18e6, 12e6, 17e6, 501);
  test('markers and band edges', () => {
    expect(markerAt(sweep, 14e6)?.swr).toBeCloseTo(1.363, 3);
    const [row] = bandTable(sweep, [{ name: '20 m', lowHz: 14e6, highHz: 14.35e6 }]);
    expect([row.low?.swr, row.middle?.swr, row.high?.swr].map((swr) => Number(swr?.toFixed(2)))).toEqual([
      1.36, 1.19, 1.34,
    ]);
  });
  test('the dip, its reactance zero and its width', () => {
    const [dip] = findResonances(sweep);
    expect(dip.swr).toBeCloseTo(1.19, 2);
    expect(dip.zeroReactanceHz).toBeCloseTo(14.18e6, -3);
    expect((dip.highEdgeHz ?? 0) - (dip.lowEdgeHz ?? 0)).toBeGreaterThan(963.8e3 * 0.997);
    expect((dip.highEdgeHz ?? 0) - (dip.lowEdgeHz ?? 0)).toBeLessThan(963.8e3 * 1.003);
  });
  test('a marker outside is refused, not extrapolated', () => {
    expect(markerAt(sweep, 11.9e6)).toBeUndefined();
    expect(markerAt(sweep, 17e6)?.freqHz).toBe(17e6);
  });
  test('a narrow sweep around a good match still shows the dip', () => {
    expect(findResonances(seriesSweep(42, 11, 14.18e6, 13.9e6, 14.45e6, 101))).toHaveLength(1);
  });
  test('a dip at the very edge is not called a resonance', () => {
    expect(findResonances(seriesSweep(42, 11, 14.18e6, 14.2e6, 17e6, 101))).toHaveLength(0);
  });
});

test('two wires give two resonances, the deeper first', () => {
  const a = seriesSweep(48, 14, 7.06e6, 6e6, 17e6, 801);
  const b = seriesSweep(36, 11, 14.18e6, 6e6, 17e6, 801);
  const near = (i: number): SweepData => (a.freqHz[i] < 10e6 ? a : b);
  const both = { ...a, re: a.re.map((_, i) => near(i).re[i]), im: a.im.map((_, i) => near(i).im[i]) };
  expect(findResonances(both).map((dip) => Math.round(dip.freqHz / 1e5) / 10)).toEqual([7.1, 14.2]);
});

test('thinning a 20,001-point sweep keeps its lowest and highest point', () => {
  const values = Float64Array.from(
    { length: 20001 },
    (_, i) => Math.sin(i / 700) + (i === 12345 ? -9 : 0) + (i === 777 ? 9 : 0),
  );
  const kept = decimate(values, 0, values.length, 260);
  expect(kept.length).toBeLessThan(800);
  expect(kept).toEqual(expect.arrayContaining([12345, 777, 0, 20000]));
});

test('a summary of one point does not divide by zero', () => {
  const one = { freqHz: Float64Array.of(7e6), re: Float64Array.of(0.1), im: Float64Array.of(0), referenceOhm: 50 };
  expect(summariseSweep(one)).toMatchObject({ points: 1, stepHz: null, resonances: [] });
});

describe('trimming', () => {
  const reading = (mm: number, mhz: number) => ({ lengthM: mm / 1000, freqHz: mhz * 1e6 });
  const three = [reading(65, 1024), reading(64, 1036), reading(63, 1048)];
  // Worked example of the field: 65/64/63 mm at 1024/1036/1048 MHz aim at 59.5 (line) or 59.7 mm (1/f) for 1090 MHz, cut to about 61.3.
  test('three readings: the 1/f fit aims, half of the way is cut', () => {
    const cut = nextCut(three, 1090e6);
    expect(cut.method).toBe('1/f fit');
    expect(cut.targetLengthM * 1000).toBeCloseTo(59.7, 1);
    expect((cut.straightLineTargetM ?? 0) * 1000).toBeCloseTo(59.5, 1);
    expect(Math.abs(cut.newLengthM * 1000 - 61.3)).toBeLessThan(0.3);
  });
  test('one reading uses the proportional rule, two the measured slope', () => {
    expect(nextCut(three.slice(0, 1), 1090e6).method).toBe('proportional');
    expect(nextCut(three.slice(0, 2), 1090e6).slopeHzPerM).toBeCloseTo(-12e9, -3);
  });
  test('it never cuts past the target and stops when there', () => {
    let lengthM = 0.065;
    const history: { lengthM: number; freqHz: number }[] = [];
    const truth = (l: number): number => 1e9 / (0.25 + 11.2 * l); // some antenna with an end effect
    for (let i = 0; i < 30; i += 1) {
      history.push({ lengthM, freqHz: truth(lengthM) });
      const cut = nextCut(history, 1090e6, 1e-4);
      expect(truth(cut.newLengthM)).toBeLessThanOrEqual(1090e6 * 1.0005);
      if (cut.state === 'done') break;
      lengthM = cut.newLengthM;
    }
    expect(nextCut(history, 1090e6).state).toBe('done');
  });
  test('too short is never cut, and a wrong slope stops the work', () => {
    expect(nextCut([reading(60, 1100)], 1090e6)).toMatchObject({ state: 'too short', cutM: 0 });
    expect(nextCut([reading(65, 1024), reading(64, 1020)], 1090e6).state).toBe('getting worse');
  });
  test('a dip so far off that a third of the element would go is no trimming: nothing is cut, and no length turns negative', () => {
    expect(nextCut([reading(100, 500)], 1090e6)).toMatchObject({ state: 'too far', cutM: 0, newLengthM: 0.1 });
    // two readings whose line reaches the target below zero
    expect(nextCut([reading(100, 500), reading(99, 500.1)], 1090e6)).toMatchObject({ state: 'too far', cutM: 0 });
    expect(nextCut([reading(80, 1000)], 1090e6).state).toBe('cut');
  });
  test('fits that rise with length are refused in words', () => {
    expect(() => lengthForTarget([reading(65, 1024), reading(66, 1030)], 1090e6)).toThrow(
      /did not rise when the length fell/,
    );
  });
  // Two interacting wires, worked example: 10.8 and 6.0 cm, where each wire alone would say 11.5 and 7.3.
  test('interacting wires are solved together', () => {
    const plan = planTrims(
      [14e6, 21e6],
      [
        { changeM: -0.05, freqsHz: [14.048e6, 21.012e6] },
        { changeM: -0.03, freqsHz: [14.003e6, 21.062e6] },
      ],
      [14.11e6, 21.15e6],
    );
    expect(plan.changeM.map((change) => Math.round(-change * 1000) / 10)).toEqual([10.8, 6]);
  });
  test('wire that should grow is left alone when only cutting is possible', () => {
    const plan = planTrims(
      [7e6, 14e6],
      [
        { changeM: -0.1, freqsHz: [7.05e6, 14e6] },
        { changeM: -0.1, freqsHz: [7e6, 14.2e6] },
      ],
      [7.1e6, 13.9e6],
    );
    expect(plan.changeM[1]).toBeGreaterThan(0);
    expect(plan.changeCutOnlyM[1]).toBe(0);
    expect(plan.changeCutOnlyM[0]).toBeCloseTo(-0.2, 9);
  });
});
