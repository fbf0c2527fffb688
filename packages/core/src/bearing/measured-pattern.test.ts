import { describe, expect, test } from '@jest/globals';
import { chanceOf } from '../recording/made';
import { measuredPattern, scaleDoubtful, scanPlan } from './measured-pattern';

/** A worked example: V(θ) = 0.05 + 0.95·((1 + cos θ)/2)³ every 5°. */
const AMPLITUDE = Array.from({ length: 72 }, (_, i) => ({
  angleDeg: 5 * i,
  level: 0.05 + 0.95 * ((1 + Math.cos((5 * i * Math.PI) / 180)) / 2) ** 3,
}));

describe('a worked example', () => {
  const found = measuredPattern(AMPLITUDE, 'amplitude');
  test('3 dB width 79.5°, front to back 26.0 dB, rotational directivity 8.1 dBi', () => {
    expect(found.figures.peakDeg).toBe(0);
    expect(found.figures.widthDeg).toBeCloseTo(79.5, 0);
    expect(found.figures.frontToBackDb).toBeCloseTo(26.02, 1);
    expect(Math.abs(found.rotationalDbi - 8.1)).toBeLessThan(0.15);
    // 15.5 dB to the side, read at 90°
    expect(-found.sideDb).toBeCloseTo(15.5, 1);
  });
  test('taken for power it would be 111.8° wide: such levels are doubtful and asked', () => {
    expect(measuredPattern(AMPLITUDE, 'power').figures.widthDeg).toBeCloseTo(111.8, 0);
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
    expect(found.figures.widthDeg).toBeCloseTo(79.5, 0);
    expect(found.figures.frontToBackDb).toBeCloseTo(26.02, 1);
  });
  test('five turns that scatter are averaged, and the width has an interval that holds the truth', () => {
    const { normal } = chanceOf(4);
    const turns = Array.from({ length: 5 }, () =>
      inDb.map((one) => ({ ...one, level: one.level + 0.3 * normal() })),
    ).flat();
    const found = measuredPattern(turns, 'dB');
    expect(found.turns).toBe(5);
    expect(found.widthHalfDeg).toBeGreaterThan(0.2);
    // five readings of 0.3 dB each way: t(4) = 2.78, 2.78·√2·0.3/√5 = 0.53 dB for a difference of two; from five turns it scatters widely
    for (const half of [found.frontToBackHalfDb, found.sideHalfDb]) {
      expect(half).toBeGreaterThan(0.1);
      expect(half).toBeLessThan(1.5);
    }
    expect(Math.abs(found.figures.frontToBackDb - 26.02)).toBeLessThan((found.frontToBackHalfDb ?? 0) + 0.6);
    expect(measuredPattern(inDb, 'dB').frontToBackHalfDb).toBeUndefined();
    expect(Math.abs((found.figures.widthDeg ?? 0) - 79.5)).toBeLessThan((found.widthHalfDeg ?? 0) + 2);
  });
  test('a pattern turned round and unevenly read keeps its width', () => {
    const uneven = AMPLITUDE.filter((_, i) => i % 7 !== 3).map((one) => ({ ...one, angleDeg: one.angleDeg + 130 }));
    const found = measuredPattern(uneven, 'amplitude');
    expect(Math.abs((found.figures.widthDeg ?? 0) - 79.5)).toBeLessThan(3);
    expect(Math.abs(found.figures.peakDeg - 130)).toBeLessThan(found.stepDeg);
  });
  test('too few directions are refused; a plan of 5° and 8 s is 72 points and 9.6 minutes', () => {
    expect(() => measuredPattern(AMPLITUDE.slice(0, 5), 'dB')).toThrow(/8 directions at least; here are 5/);
    expect(scanPlan(5, 8)).toEqual({ points: 72, minutes: 9.6 });
    expect(() => scanPlan(0, 8)).toThrow(/Step/);
  });
});
