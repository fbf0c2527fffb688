import { describe, expect, test } from '@jest/globals';
import { chanceOf } from '../recording/made';
import { measuredPattern, scaleDoubtful, scanPlan } from './measured-pattern';
import type { Estimate } from './pattern-fit';

/** A worked example: V(θ) = 0.05 + 0.95·((1 + cos θ)/2)³ every 5°. */
const AMPLITUDE = Array.from({ length: 72 }, (_, i) => ({
  angleDeg: 5 * i,
  level: 0.05 + 0.95 * ((1 + Math.cos((5 * i * Math.PI) / 180)) / 2) ** 3,
}));

const holds = (estimate: Estimate | null | undefined, truth: number): boolean =>
  estimate != null && estimate.low <= truth && truth <= estimate.high;
const offNorth = (deg: number): number => Math.min(deg, 360 - deg);

/** A beam whose field is cos², 65.53° wide at half power, over a floor of −25 dB; scattered, from a direction of its own. */
function beam(stepDeg: number, scatterDb: number, seed: number) {
  const { normal, uniform } = chanceOf(seed);
  const turned = 360 * uniform();
  return Array.from({ length: 360 / stepDeg }, (_, i) => {
    const cos = Math.max(0, Math.cos(((i * stepDeg - turned) * Math.PI) / 180));
    return { angleDeg: i * stepDeg, level: 10 * Math.log10(cos ** 4 + 10 ** -2.5) + scatterDb * normal() };
  });
}
/** 2 arccos 2^(−1/4). */
const BEAM_DEG = 65.53;

describe('a noisy turn', () => {
  test('1° steps with 1 dB of scatter: the width in 95 % of its intervals, under 8° wide, and no side lobe out of the scatter', () => {
    let held = 0;
    let lobes = 0;
    const wide: number[] = [];
    for (let seed = 1; seed <= 40; seed += 1) {
      const found = measuredPattern(beam(1, 1, seed), 'dB');
      held += holds(found.widthDeg, BEAM_DEG) ? 1 : 0;
      lobes += found.sideLobeDb ? 1 : 0;
      wide.push((found.widthDeg?.high ?? 99) - (found.widthDeg?.low ?? 0));
    }
    // of 40 at 95 % fewer than 34 come up once in 500 runs (binomial)
    expect(held).toBeGreaterThanOrEqual(34);
    expect(wide.filter((one) => one < 8).length).toBeGreaterThan(36);
    expect(lobes).toBeLessThanOrEqual(4);
  });
  test('what was not measured is said: half a turn has no back, a gap behind no front to back', () => {
    const half = beam(5, 0, 3).filter(({ angleDeg }) => angleDeg < 180);
    const found = measuredPattern(half, 'dB');
    expect(found.gapsDeg).toHaveLength(1);
    expect(found.gapsDeg[0][1] - found.gapsDeg[0][0]).toBe(185);
    expect(found).not.toHaveProperty('frontToBackDb');
    expect(found).not.toHaveProperty('sideLobeDb');
    expect(found).not.toHaveProperty('rotationalDbi');
    expect(found.levelsDb.filter((db) => db === undefined).length).toBeGreaterThan(30);
  });
  test('dead readings inside the main lobe are named and left out; the width stays', () => {
    const dead = AMPLITUDE.map((one) => ({ ...one, level: 20 * Math.log10(one.level) })).map((one) =>
      one.angleDeg === 20 || one.angleDeg === 340 ? { ...one, level: -80 } : one,
    );
    const found = measuredPattern(dead, 'dB');
    expect(found.deadDeg).toEqual([20, 340]);
    expect(Math.abs((found.widthDeg?.value ?? 0) - 79.5)).toBeLessThan(1.5);
  });
  test('decibels are no amplitudes', () => {
    expect(() => measuredPattern(beam(5, 0, 1), 'amplitude')).toThrow(/no amplitudes. Take them as decibels/);
  });
});

describe('a worked example', () => {
  const found = measuredPattern(AMPLITUDE, 'amplitude');
  test('3 dB width 79.5°, front to back 26.0 dB, rotational directivity 8.1 dBi', () => {
    expect(offNorth(found.peakDeg.value)).toBeLessThan(0.5);
    expect(Math.abs((found.widthDeg?.value ?? 0) - 79.5)).toBeLessThan(0.5);
    expect(Math.abs((found.frontToBackDb?.value ?? 0) - 26.02)).toBeLessThan(0.3);
    expect(Math.abs((found.rotationalDbi ?? 0) - 8.1)).toBeLessThan(0.2);
    // 15.5 dB to the side, read at 90°
    expect(Math.abs((found.frontToSideDb?.value ?? 0) - 15.5)).toBeLessThan(0.3);
  });
  test('taken for power it would be 111.8° wide: such levels are doubtful and asked', () => {
    expect(Math.abs((measuredPattern(AMPLITUDE, 'power').widthDeg?.value ?? 0) - 111.8)).toBeLessThan(1.5);
    expect(scaleDoubtful(AMPLITUDE.map(({ level }) => level))).toBe(true);
    expect(scaleDoubtful([-3, 0, -20])).toBe(false);
    expect(scaleDoubtful([12, 45, 60])).toBe(false);
  });
});

describe('as it is measured', () => {
  const inDb = AMPLITUDE.map(({ angleDeg, level }) => ({ angleDeg, level: 20 * Math.log10(level) - 40 }));
  test('a drift of 2 dB over the turn is found by the return to zero and taken out', () => {
    const drifting = [...inDb, { angleDeg: 360, level: inDb[0].level }].map((one, i, all) => ({
      ...one,
      level: one.level + (2 * i) / (all.length - 1),
    }));
    const found = measuredPattern(drifting, 'dB');
    expect(found.driftDb).toBeCloseTo(2, 9);
    expect(Math.abs((found.widthDeg?.value ?? 0) - 79.5)).toBeLessThan(1);
    expect(Math.abs((found.frontToBackDb?.value ?? 0) - 26.02)).toBeLessThan(0.3);
  });
  test('five turns that scatter are averaged, and the width has an interval that holds the truth', () => {
    const { normal } = chanceOf(4);
    const turns = Array.from({ length: 5 }, () =>
      inDb.map((one) => ({ ...one, level: one.level + 0.3 * normal() })),
    ).flat();
    const found = measuredPattern(turns, 'dB');
    expect(found.turns).toBe(5);
    expect(found.sigmaDb).toBeGreaterThan(0.25);
    expect(found.sigmaDb).toBeLessThan(0.4);
    expect(holds(found.widthDeg, 79.5)).toBe(true);
    // five readings of 0.3 dB behind, the top by the curve: 0.15 dB, 1 σ
    expect(Math.abs((found.frontToBackDb?.value ?? 0) - 26.02)).toBeLessThan(0.5);
    // the larger of two sides leans up by half a scatter
    expect(Math.abs((found.frontToSideDb?.value ?? 0) - 15.5)).toBeLessThan(0.6);
    expect((found.widthDeg?.high ?? 99) - (found.widthDeg?.low ?? 0)).toBeLessThan(5);
  });
  test('a pattern turned round and unevenly read keeps its width', () => {
    const uneven = AMPLITUDE.filter((_, i) => i % 7 !== 3).map((one) => ({ ...one, angleDeg: one.angleDeg + 130 }));
    const found = measuredPattern(uneven, 'amplitude');
    expect(Math.abs((found.widthDeg?.value ?? 0) - 79.5)).toBeLessThan(2);
    expect(Math.abs(found.peakDeg.value - 130)).toBeLessThan(found.stepDeg);
  });
  test('too few directions are refused; a plan of 5° and 8 s is 72 points and 9.6 minutes', () => {
    expect(() => measuredPattern(AMPLITUDE.slice(0, 5), 'dB')).toThrow(/8 directions at least; here are 5/);
    expect(scanPlan(5, 8)).toEqual({ points: 72, minutes: 9.6 });
    expect(() => scanPlan(0, 8)).toThrow(/Step/);
  });
});
