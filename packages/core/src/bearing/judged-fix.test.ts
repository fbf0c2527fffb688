import { expect, test } from '@jest/globals';
import { FIX_CASES } from './fix-cases';
import { chanceOf } from '../recording/made';
import { type BearingLine, insideRegion95, region95 } from './fix';
import { diversityGain } from './diversity';
import { judgedFix, nextPlace } from './judged-fix';

const DEG = 180 / Math.PI;
const bearingTo = (from: readonly [number, number], to: readonly [number, number]): number =>
  (Math.atan2(to[0] - from[0], to[1] - from[1]) * DEG + 360) % 360;
const lineTo = (
  from: readonly [number, number],
  to: readonly [number, number],
  sigmaDeg: number,
  off = 0,
): BearingLine => ({
  ...{ eastKm: from[0], northKm: from[1], sigmaDeg },
  bearingDeg: (bearingTo(from, to) + off + 360) % 360,
});

// worked example: axis 37° at the hut, 334° at 120 m east and 20 m north: source near (78.8, 104.5) m, ellipse 8.4 by 4.6 m at 3°
test('two axes of a worked example: the place and its ellipse', () => {
  const { fix, consistent } = judgedFix(
    [
      { eastKm: 0, northKm: 0, bearingDeg: 37, sigmaDeg: 3 },
      { eastKm: 0.12, northKm: 0.02, bearingDeg: 334, sigmaDeg: 3 },
    ],
    true,
  );
  expect(fix.eastKm * 1000).toBeCloseTo(78.8, 0);
  expect(fix.northKm * 1000).toBeCloseTo(104.5, 0);
  expect(Math.abs(fix.semiMajorKm * 1000 - 8.4)).toBeLessThan(0.3);
  expect(Math.abs(fix.semiMinorKm * 1000 - 4.6)).toBeLessThan(0.3);
  expect(consistent).toBe(true);
});

test('2,000 random triples with one bearing back to front: never NaN, and the culprit is named in 90 %', () => {
  let named = 0;
  for (let seed = 1; seed <= 2000; seed += 1) {
    const { uniform, normal } = chanceOf(seed);
    const source: readonly [number, number] = [200 * uniform() - 100, 200 * uniform() - 100];
    const places = Array.from({ length: 3 }, (): readonly [number, number] => [
      300 * uniform() - 150,
      300 * uniform() - 150,
    ]);
    const bad = Math.floor(3 * uniform());
    const lines = places.map((place, i) => lineTo(place, source, 2, 2 * normal() + (i === bad ? 180 : 0)));
    try {
      const found = judgedFix(lines);
      expect(Number.isFinite(found.fix.eastKm + found.fix.northKm + found.fix.semiMajorKm)).toBe(true);
      if (found.culprit?.index === bad && found.culprit.how === 'back to front') named += 1;
    } catch (error) {
      expect(String(error)).toMatch(/[.] |again/);
    }
  }
  expect(named / 2000).toBeGreaterThanOrEqual(0.9);
});

test.each(FIX_CASES)(
  'regions hold the source at their level: %s, 95 %% of 1,000 within 93 to 97 %%',
  (_, places, sigmaDeg, spread, at) => {
    let [inside, count] = [0, 0];
    for (let seed = 1; seed <= 1000; seed += 1) {
      const { normal, uniform } = chanceOf(seed + 5000);
      const source: readonly [number, number] = [
        at[0] + 2 * spread * (uniform() - 0.5),
        at[1] + 2 * spread * (uniform() - 0.5),
      ];
      const lines = places.map((place) => lineTo(place, source, sigmaDeg, sigmaDeg * normal()));
      try {
        const { fix, culprit, lines: used } = judgedFix(lines, true);
        if (culprit) continue;
        count += 1;
        if (insideRegion95(used, true, fix, source)) inside += 1;
      } catch (error) {
        expect(String(error)).toMatch(/[.]/);
      }
    }
    expect(count).toBeGreaterThan(850);
    expect(inside / count).toBeGreaterThanOrEqual(0.93);
    // two lines have no freedom left: the region is exact
    expect(inside / count).toBeLessThanOrEqual(0.97);
  },
);
test('the drawn region has its corners where the ratio of likelihoods ends', () => {
  const lines = [lineTo([-100, 0], [0, 0], 3), lineTo([0, -100], [0, 0], 3)];
  const { fix } = judgedFix(lines, true);
  const corners = region95(lines, true, fix);
  for (const [east, north] of corners) {
    expect(insideRegion95(lines, true, fix, [0.99 * east, 0.99 * north])).toBe(true);
    expect(insideRegion95(lines, true, fix, [1.02 * east, 1.02 * north])).toBe(false);
  }
});
test('a plane that was logged as a null is asked about, and nothing is asked where all agree', () => {
  const source = [0, 0] as const;
  const three = [lineTo([-50, 0], source, 3), lineTo([0, -50], source, 3), lineTo([-40, -40], source, 3)];
  expect(judgedFix(three, true).doubtfulAxes).toEqual([]);
  const logged = three.map((line, i) => (i === 0 ? { ...line, bearingDeg: line.bearingDeg + 90 } : line));
  expect(() => judgedFix(logged, true)).toThrow(/Number 1 would fit if its directions are of the plane/);
});

test('with four bearings one that is simply wrong is left out; parallel ones get a sentence', () => {
  const source = [30, 40] as const;
  const lines = [
    lineTo([-100, 0], source, 1),
    lineTo([100, 0], source, 1),
    lineTo([0, -100], source, 1),
    lineTo([0, 150], source, 1, 50),
  ];
  const found = judgedFix(lines);
  expect(found.culprit).toEqual({ index: 3, how: 'left out' });
  expect(found.residualsDeg[3]).toBeNull();
  expect(Math.hypot(found.fix.eastKm - 30, found.fix.northKm - 40)).toBeLessThan(1);
  const parallel = [0, 10, 20].map((eastKm) => ({ eastKm, northKm: 0, bearingDeg: 0, sigmaDeg: 2 }));
  expect(() => judgedFix(parallel)).toThrow(/do not meet/);
});

test('the next bearing is best taken across the long axis, and never on top of the source', () => {
  const source = [0, 0] as const;
  // both from the west: the ellipse is long from west to east
  const lines = [lineTo([-100, 10], source, 2), lineTo([-100, -10], source, 2)];
  const { fix } = judgedFix(lines);
  const ring = Array.from({ length: 36 }, (_, i) => ({
    eastKm: 50 * Math.sin((i * Math.PI) / 18),
    northKm: 50 * Math.cos((i * Math.PI) / 18),
  }));
  const best = nextPlace(lines, fix, [...ring, { eastKm: 0.1, northKm: 0 }], 5);
  expect(Math.abs(best?.northKm ?? 0)).toBeGreaterThan(40);
  expect(best?.semiMajorKm).toBeLessThan(fix.semiMajorKm / 2);
  expect(nextPlace(lines, fix, [{ eastKm: 0.1, northKm: 0 }], 5)).toBeUndefined();
});

// by hand: 12 and 7 dB by maximum ratio are 13.19 dB; switching follows the better one
test('what two antennas together would have given on an evening', () => {
  const found = diversityGain([
    [12, 7],
    [3, 9],
    [10, 10],
    [8, 2],
  ]);
  expect(found).toMatchObject({ pairs: 4, better: 0 });
  const [switching, equal, ratio] = found.ways;
  expect(switching.meanDb).toBeCloseTo((0 + 6 + 0 + 0) / 4, 9);
  expect(ratio.meanDb).toBeGreaterThan(equal.meanDb);
  expect(ratio.meanDb).toBeCloseTo((1.193 + 6.973 + 3.01 + 0.973) / 4, 2);
  expect(() => diversityGain([[1, 2]])).toThrow(/Two pairs at least/);
});
