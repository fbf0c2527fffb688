import { describe, expect, test } from '@jest/globals';
import { magnitude } from '../numeric/complex';
import { meshOf } from '../solver/mesh';
import type { Point, WireModel } from '../solver/model';
import { solveAt } from '../solver/solve';
import { wavelengthM } from '../units/wavelength';
import {
  type FeedLine,
  type FeedLineAnswer,
  type FeedLineQuestion,
  feedLineStudy,
  hangAndRun,
  withFeedLine,
} from './feed-line';
import { startDesign } from './kinds';
import { placedWires } from './placed-wires';

const FREQ = 14.2e6;
const HEIGHT = 10;
const GROUND = { type: 'real', relPermittivity: 13, conductivitySPerM: 0.005 } as const;
/** A dipole along east and west, forward to the north. */
function dipole(ground: WireModel['ground'] = { type: 'free' }): WireModel {
  const design = { ...startDesign('half-wave-dipole', FREQ), dimensions: { heightM: HEIGHT } };
  const wires = placedWires({ name: 'dipole', design, at: [0, 0], facingDeg: 0 });
  if (!wires) throw new Error('no wires');
  return { ...wires, ground };
}
const line = (corners: readonly Point[], chokes: FeedLine['chokes'] = [], earthed = false): FeedLine => ({
  ...{ corners, chokes, earthed, diameterM: 0.005 },
});
function studied(question: FeedLineQuestion): FeedLineAnswer {
  const steps = feedLineStudy(question);
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
  }
}
const ask = (model: WireModel, one: FeedLine): FeedLineQuestion => ({
  ...{ model, line: one, freqHz: FREQ, elevationDeg: 20, source: [1.5, 3, 1] },
});

describe('the outside of the cable as a wire', () => {
  test('a line half a wave long and open at its end takes little current from the feed, one of a quarter takes much', () => {
    // line theory: an open wire of λ/2 shows its high impedance at the top, one of λ/4 its low one
    const lambda = wavelengthM(FREQ);
    const current = (lengthM: number): number =>
      studied({
        ...ask(dipole(), line([[0, 0, HEIGHT - lengthM]])),
      }).bare.currentDb;
    expect(current(0.24 * lambda) - current(0.48 * lambda)).toBeGreaterThan(6);
  });
  test('a perfect choke at the feed gives the dipole back: impedance within 5 %, gain within a few tenths, a null nearer to its own', () => {
    const hung = line(hangAndRun([0, 0, HEIGHT], { heightM: 0.1, lengthM: 12, towardDeg: 30 }), [
      { atM: 0, ohm: 1e6, reactanceOhm: 0 },
    ]);
    const { alone, bare, choked } = studied(ask(dipole(GROUND), hung));
    expect(choked).toBeDefined();
    if (!choked) return;
    expect(Math.abs(choked.impedance.re / alone.impedance.re - 1)).toBeLessThan(0.05);
    expect(Math.abs(choked.peakDbi - alone.peakDbi)).toBeLessThan(0.3);
    expect(bare.currentDb).toBeGreaterThan(choked.currentDb + 10);
    expect(Math.abs(bare.nullDb - alone.nullDb)).toBeGreaterThan(Math.abs(choked.nullDb - alone.nullDb));
  });
  test('pick-up by the field of 1 W is what three short dipoles at the source would put into the feed: reciprocity', () => {
    const source: Point = [1.5, 3, 1];
    const hung = line(hangAndRun([0, 0, HEIGHT], { heightM: 0.5, lengthM: 8, towardDeg: 0 }));
    const { alone, bare } = studied(ask(dipole(), hung));
    const half = 0.05;
    const voltage = (model: WireModel): number =>
      [0, 1, 2].reduce((sum, axis) => {
        const end = (side: number): Point => [
          source[0] + (axis === 0 ? side * half : 0),
          source[1] + (axis === 1 ? side * half : 0),
          source[2] + (axis === 2 ? side * half : 0),
        ];
        const probed: WireModel = {
          ...model,
          wires: [...model.wires, { name: 'probe', from: end(-1), to: end(1), radiusM: 0.0005 }],
          ports: [...model.ports, { wire: model.wires.length, position: 0.5 }],
        };
        const { impedance } = solveAt(probed, meshOf(probed, FREQ), FREQ);
        return sum + magnitude(impedance[0][1]) ** 2 / impedance[0][0].re;
      }, 0);
    const byProbes = 10 * Math.log10(voltage(withFeedLine(dipole(), hung, FREQ)) / voltage(dipole()));
    expect(Math.abs(bare.pickUpDb - alone.pickUpDb - byProbes)).toBeLessThan(0.5);
  });
  test('where the choke should sit and how good: no other place that was tried does better, and the needed one comes within a decibel', () => {
    const hung = line(hangAndRun([0, 0, HEIGHT], { heightM: 0.1, lengthM: 15, towardDeg: 60 }), [
      { atM: 0, ohm: 2000, reactanceOhm: 0 },
    ]);
    const near: Point = [12, 10, 1];
    const found = studied({ ...ask(dipole(GROUND), hung), source: near });
    expect(found.helps).toBe(true);
    expect(found.places.length).toBeGreaterThan(5);
    found.places.forEach(({ pickUpDb }) => expect(found.best.pickUpDb).toBeLessThanOrEqual(pickUpDb + 0.05));
    const one = studied({
      ...ask(dipole(GROUND), { ...hung, chokes: [{ atM: found.best.atM, ohm: found.neededOhm, reactanceOhm: 0 }] }),
      source: near,
    });
    expect((one.choked?.pickUpDb ?? 0) - one.alone.pickUpDb).toBeCloseTo(found.leftDb, 6);
    expect(found.leftDb).toBeLessThan(found.bare.pickUpDb - found.alone.pickUpDb - 1);
    expect(found.best.pickUpDb).toBeLessThanOrEqual(found.bare.pickUpDb - found.alone.pickUpDb);
  });
  test('a coil as a choke can make it worse where the cable is a capacitor, a resistor cannot by much', () => {
    // an inductive choke cancels the capacitive reactance of a short cable: common-mode resonance
    const short = line([[0, 0, HEIGHT - 2.2]]);
    const current = (ohm: number, reactanceOhm: number): number =>
      studied({ ...ask(dipole(), { ...short, chokes: [{ atM: 0, ohm, reactanceOhm }] }) }).choked?.currentDb ?? 0;
    const without = studied(ask(dipole(), short)).bare.currentDb;
    const coils = [50, 100, 200, 300, 400, 500].map((reactance) => current(1, reactance));
    expect(Math.max(...coils)).toBeGreaterThan(without + 3);
    [100, 300, 1000].forEach((ohm) => expect(current(ohm, 0)).toBeLessThan(without + 0.1));
  });
  test('a cable without length, a choke beyond its end, a cable through the antenna: each a sentence', () => {
    expect(() => withFeedLine(dipole(), line([]), FREQ)).toThrow(/no length/);
    expect(() => withFeedLine(dipole(), line([[0, 0, 2]], [{ atM: 30, ohm: 1, reactanceOhm: 0 }]), FREQ)).toThrow(
      /beyond the cable's end at 8\.0 m/,
    );
  });
});
