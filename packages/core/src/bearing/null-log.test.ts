import { describe, expect, test } from '@jest/globals';
import { chanceOf } from '../recording/made';
import { axialDeg, type AxisReading, fitNull, senseOf, silentMiddle } from './null-log';

/** A turn of a worked example: source at 37° (or 217°), maximum −62.0 dBm, floor near −91. */
const TURN: readonly AxisReading[] = [
  -66.4, -70.5, -79.9, -78.9, -70.1, -66.2, -63.9, -62.7, -62.1, -62.1, -62.7, -64.1,
].map((levelDbm, i) => ({ axisDeg: 15 * i, levelDbm }));

describe('the turn of a worked example', () => {
  const fit = fitNull(TURN);
  test('axis 37.0°, maximum −62.0 dBm, floor −91 dBm, depth about 29 dB', () => {
    expect(Math.abs(fit.axisDeg - 37)).toBeLessThan(0.5);
    expect(Math.abs(fit.maximumDbm + 62)).toBeLessThan(0.3);
    expect(Math.abs(fit.floorDbm + 91)).toBeLessThan(1.5);
    expect(Math.abs(fit.depthDb - 29)).toBeLessThan(1.5);
    expect(fit.halfDeg).toBeLessThan(1);
  });
  test('the lowest sample lies 7° off, and nothing is doubted', () => {
    expect(fit.lowestDeg).toBe(30);
    expect(Math.abs(fit.lowestOffDeg - 7)).toBeLessThan(0.5);
    expect(fit.doubtful).toEqual([]);
    fit.residualsDb.forEach((off) => expect(Math.abs(off)).toBeLessThan(0.5));
  });
  test('a crash of 15 dB in one reading turns it by less than a degree, and is named', () => {
    const crashed = TURN.map((one, i) => (i === 4 ? { ...one, levelDbm: one.levelDbm + 15 } : one));
    const found = fitNull(crashed);
    expect(Math.abs(axialDeg(found.axisDeg - 37))).toBeLessThan(1);
    expect(found.doubtful).toEqual([4]);
  });
  test('more readings are asked for beside the null, where the level turns fastest', () => {
    for (const deg of fit.halving.atDeg) expect(Math.abs(axialDeg(deg - 37))).toBeLessThan(6);
    expect(fit.halving.readings).toBeGreaterThanOrEqual(1);
  });
});

test('1,000 made-up turns, a third of them with crashes: the interval covers the truth in 93 to 97 %', () => {
  let [covered, count, turned] = [0, 0, 0];
  for (let seed = 1; seed <= 1000; seed += 1) {
    const { uniform, normal } = chanceOf(seed);
    const truth = 180 * uniform();
    const depth = 10 + 20 * uniform();
    const scatter = 0.3 + 1.2 * uniform();
    const crashes = seed % 3 === 0 ? 0.08 : 0;
    const n = 10 + Math.floor(15 * uniform());
    const offset = 360 * uniform();
    const readings = Array.from({ length: n }, (_, i): AxisReading => {
      const axisDeg = offset + ((i + 0.3 * normal()) * 360) / n;
      const level = -62 + 10 * Math.log10(Math.sin(((axisDeg - truth) * Math.PI) / 180) ** 2 + 10 ** (-depth / 10));
      const crash = uniform() < crashes ? 3 + 15 * uniform() : 0;
      return { axisDeg, levelDbm: level + scatter * normal() + crash };
    });
    const { axisDeg, halfDeg } = fitNull(readings);
    expect(Number.isFinite(axisDeg) && Number.isFinite(halfDeg)).toBe(true);
    count += 1;
    const off = Math.abs(axialDeg(axisDeg - truth));
    if (off <= halfDeg) covered += 1;
    if (off > 20) turned += 1;
  }
  expect(covered / count).toBeGreaterThanOrEqual(0.93);
  expect(covered / count).toBeLessThanOrEqual(0.97);
  expect(turned).toBeLessThan(5);
});

test('nine readings over half a turn covered 89 %: 600 turns, shallow nulls and deep ones, hold 93 to 97', () => {
  let covered = 0;
  const count = 600;
  for (let seed = 1; seed <= count; seed += 1) {
    const { uniform, normal } = chanceOf(seed);
    const [truth, offset] = [180 * uniform(), 360 * uniform()];
    const [depth, scatter] = [seed % 2 === 0 ? 12 : 25, [0.5, 1, 1.5][seed % 3]];
    const readings = Array.from({ length: 9 }, (_, i): AxisReading => {
      const axisDeg = offset + 20 * i;
      const power = Math.sin(((axisDeg - truth) * Math.PI) / 180) ** 2 + 10 ** (-depth / 10);
      return { axisDeg, levelDbm: -62 + 10 * Math.log10(power) + scatter * normal() };
    });
    const { axisDeg, halfDeg } = fitNull(readings);
    if (Math.abs(axialDeg(axisDeg - truth)) <= halfDeg) covered += 1;
  }
  expect(covered / count).toBeGreaterThanOrEqual(0.93);
  expect(covered / count).toBeLessThanOrEqual(0.97);
});

test('readings all alike, too few directions and nonsense are refused with a remedy', () => {
  expect(() => fitNull(TURN.slice(0, 4))).toThrow(/5 directions at least; here are 4/);
  expect(() => fitNull([...TURN.slice(0, 3), ...TURN.slice(0, 3)])).toThrow(/here are 3/);
  expect(() => fitNull([{ axisDeg: 0, levelDbm: NaN }, ...TURN])).toThrow(/Level/);
  const flat = fitNull(TURN.map((one) => ({ ...one, levelDbm: -70 })));
  // nothing turns: the interval says so
  expect(flat.halfDeg).toBeGreaterThan(10);
});

test('a silent sector gives its middle, across north too; the sense antenna tells the end', () => {
  expect(silentMiddle(170, 10)).toEqual({ axisDeg: 0, widthDeg: 20 });
  expect(silentMiddle(30, 44)).toEqual({ axisDeg: 37, widthDeg: 14 });
  // a cardioid that favours 217°: |1 + cos| by hand
  const readings = Array.from({ length: 12 }, (_, i) => ({
    axisDeg: 30 * i,
    levelDbm: -60 + 20 * Math.log10(0.1 + Math.abs(1 + Math.cos(((30 * i - 217) * Math.PI) / 180)) / 2),
  }));
  expect(senseOf(37, readings)?.bearingDeg).toBeCloseTo(217, 9);
  expect(senseOf(37, readings.slice(0, 2))).toBeUndefined();
});
