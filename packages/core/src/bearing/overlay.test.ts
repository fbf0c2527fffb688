import { describe, expect, test } from '@jest/globals';
import { chanceOf } from '../recording/made';
import { overlayModel } from './overlay';

/** A cardioid with a deep back, and a beam with lobes behind it: closed forms; gains against their peak, dB. */
const cardioid = (deg: number): number => 20 * Math.log10(Math.max(1e-4, (1 + Math.cos((deg * Math.PI) / 180)) / 2));
const lobed = (deg: number): number =>
  20 * Math.log10(Math.max(0.02, Math.abs(Math.cos((deg * Math.PI) / 360) ** 3 * Math.cos((3 * deg * Math.PI) / 360))));
const CUT = Array.from({ length: 181 }, (_, i) => 2 * i);
const cut = (of: (deg: number) => number, gain = 7) => ({ angleDeg: CUT, gainDbi: CUT.map((deg) => gain + of(deg)) });
const ANGLES = Array.from({ length: 72 }, (_, i) => 5 * i);
const circle = (of: (deg: number) => number) => {
  const raw = ANGLES.map(of);
  return { angleDeg: ANGLES, levelDb: raw.map((one) => one - Math.max(...raw)) };
};
const STATED = { scatterDb: 0.2, reflectionDb: -30 };

describe('a pattern over its model', () => {
  test('turned by 37° and lifted, it lies on its model to a hundredth of a dB', () => {
    const found = overlayModel(
      circle((deg) => lobed(deg - 37)),
      cut(lobed),
      STATED,
    );
    expect(Math.abs(found.rotationDeg - 37)).toBeLessThan(0.4);
    expect(found.rmsDb).toBeLessThan(0.15);
    expect(found.mainRmsDb).toBeLessThan(found.rmsDb + 0.05);
    expect(found.agrees).toBe(true);
    expect(found.explanations.filter(({ telling, kind }) => telling && kind !== 'mirrored')).toEqual([]);
  });
  test('another antenna does not agree', () => {
    const found = overlayModel(circle(cardioid), cut(lobed), STATED);
    expect(found.agrees).toBe(false);
    expect(found.rmsDb).toBeGreaterThan(2);
  });
  test('80 made-up places with one reflection: within the stated error in 95 %; a strong ray is named in 95 %, its strength within 4 dB in most', () => {
    const chance = chanceOf(162);
    let agreed = 0;
    let named = 0;
    let near = 0;
    let strong = 0;
    for (let round = 0; round < 80; round += 1) {
      const strengthDb = -28 + 14 * chance.uniform();
      const toward = 40 + 280 * chance.uniform();
      const phase = 2 * Math.PI * chance.uniform();
      const r = 10 ** (strengthDb / 20);
      const measured = circle((deg) => {
        const own = 10 ** (cardioid(deg - 20) / 20);
        const other = r * 10 ** (cardioid(deg - 20 + toward) / 20);
        const power = own ** 2 + other ** 2 + 2 * own * other * Math.cos(phase);
        return 10 * Math.log10(Math.max(1e-6, power)) + 0.2 * chance.normal();
      });
      const found = overlayModel(measured, cut(cardioid), { scatterDb: 0.25, reflectionDb: strengthDb });
      if (found.agrees) agreed += 1;
      if (strengthDb < -22) continue;
      strong += 1;
      const ray = found.explanations.find(({ kind }) => kind === 'reflection');
      if (ray?.telling) named += 1;
      if (Math.abs((ray?.strengthDb ?? 0) - strengthDb) <= 4) near += 1;
    }
    expect(agreed).toBeGreaterThanOrEqual(76);
    expect(named / strong).toBeGreaterThanOrEqual(0.95);
    expect(near / strong).toBeGreaterThan(0.65);
  });
  test('a cable that radiates all round fills the null; the clock turned the other way is told', () => {
    const filled = circle((deg) => 10 * Math.log10(10 ** (cardioid(deg) / 10) + 0.01));
    const [first] = overlayModel(filled, cut(cardioid), STATED).explanations;
    expect(['feed line', 'reflection']).toContain(first.kind);
    const feed = overlayModel(filled, cut(cardioid), STATED).explanations.find(({ kind }) => kind === 'feed line');
    expect(feed?.telling).toBe(true);
    expect(Math.abs((feed?.strengthDb ?? 0) + 20)).toBeLessThanOrEqual(1);
    const lopsided = (deg: number): number => cardioid(deg) + 4 * Math.sin((2 * deg * Math.PI) / 180 + 0.5);
    const other = overlayModel(
      circle((deg) => lopsided(-deg)),
      cut(lopsided),
      STATED,
    );
    const mirrored = other.explanations.find(({ kind }) => kind === 'mirrored');
    expect(mirrored?.telling).toBe(true);
    expect(mirrored?.rmsDb).toBeLessThan(0.2);
  });
  test('a mast out of plumb lifts one side: told as a tilt with its swing', () => {
    const tilted = circle((deg) => Math.max(-14, cardioid(deg)) + 1.5 * Math.cos(((deg - 100) * Math.PI) / 180));
    const flat = (deg: number): number => Math.max(-14, cardioid(deg));
    const tilt = overlayModel(tilted, cut(flat), STATED).explanations.find(({ kind }) => kind === 'tilt');
    expect(tilt?.telling).toBe(true);
  });
  test('too few directions and nonsense errors are refused', () => {
    expect(() => overlayModel({ angleDeg: [0, 1, 2], levelDb: [0, -1, -2] }, cut(cardioid), STATED)).toThrow(/eight/);
    expect(() => overlayModel(circle(cardioid), cut(cardioid), { scatterDb: 0, reflectionDb: -20 })).toThrow();
    expect(() => overlayModel(circle(cardioid), cut(cardioid), { scatterDb: 0.2, reflectionDb: 3 })).toThrow();
  });
});
