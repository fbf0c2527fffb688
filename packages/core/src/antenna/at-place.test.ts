import { describe, expect, test } from '@jest/globals';
import { groundClass } from '../solver/ground-classes';
import { gainRatio } from '../solver/far-field';
import { meshOf } from '../solver/mesh';
import { solveAt } from '../solver/solve';
import { atPlace } from './at-place';
import { fitOf } from './attempt';
import { dimensionsOf } from './dimensions';
import type { Design } from './kind';
import { antennaKind, ANTENNA_KINDS, startDesign, wireModel } from './kinds';

const AVERAGE = groundClass('average').ground;
const room = (spanM: number, heightM: number) => ({ spanM, heightM });
const figures = (design: Design) => dimensionsOf(antennaKind(design.kind).parameters, design);
const gainDb = (design: Design, elevationDeg: number): number => {
  const model = wireModel(design, AVERAGE);
  return 10 * Math.log10(gainRatio(solveAt(model, meshOf(model, design.freqHz), design.freqHz))(0, elevationDeg));
};

describe('size and height follow the place', () => {
  test('a support of 3 m and one of 9 m gave one figure: the dipole hangs at either, and they lie 5 to 8 dB apart at 20°', () => {
    const dipole = startDesign('half-wave-dipole', 9.65e6);
    const [low, high] = [3, 9].map((heightM) => atPlace(dipole, room(38, heightM)));
    expect(figures(low).heightM).toBe(3);
    expect(figures(high).heightM).toBe(9);
    // image theory over a perfect ground: 20 log of sin(kh·sin 20°) at both heights is 8.6 dB; real ground takes off some
    const apart = gainDb(high, 20) - gainDb(low, 20);
    expect(apart).toBeGreaterThan(5);
    expect(apart).toBeLessThan(9);
  });
  test('VHF kinds stood half a wave up under a roof of 6 m: rods stand on it, wire verticals hang from it', () => {
    const vhf = atPlace(startDesign('quarter-wave', 125e6), room(10, 6));
    expect(figures(vhf).heightM).toBe(6);
    expect(figures(atPlace(startDesign('discone', 118e6), room(10, 6))).heightM).toBe(6);
    const hf = figures(atPlace(startDesign('quarter-wave', 21e6), room(30, 9)));
    expect(hf.heightM + hf.elementM).toBeCloseTo(9, 6);
  });
  test('"it does not fit: 48.5 m" is said of no wire that is as good shorter', () => {
    const garden = room(14, 6);
    const wire = atPlace(startDesign('end-fed-wire', 3.65e6), garden);
    expect(fitOf(wire, garden).fits).toBe(true);
    expect(figures(wire).wireM + figures(wire).counterpoiseM).toBeLessThanOrEqual(14);
    const farm = room(60, 12);
    const laid = atPlace(startDesign('ground-laid-wire', 0.5e6), farm);
    expect(fitOf(laid, farm).fits).toBe(false); // 0.18 of 600 m is more than the run: it would hear all round
    expect(fitOf(atPlace(startDesign('ground-laid-wire', 3.65e6), farm), farm).fits).toBe(true);
  });
  test('what a person set stays, and what cannot hang so does not fit', () => {
    const set = { ...startDesign('half-wave-dipole', 9.65e6), dimensions: { heightM: 5 } };
    expect(atPlace(set, room(38, 9)).dimensions).toEqual({ heightM: 5 });
    // the ends of the V would lie under the ground
    expect(fitOf(atPlace(startDesign('v-dipole', 3.65e6), room(60, 3)), room(60, 3)).fits).toBe(false);
  });
  test('of no kind a longer run or a higher support makes what fits not fit', () => {
    for (const { id, bandHz } of ANTENNA_KINDS)
      for (const share of [0.2, 0.5, 0.8]) {
        const design = startDesign(id, bandHz[0] * (bandHz[1] / bandHz[0]) ** share);
        const fits = (spanM: number, heightM: number) =>
          fitOf(atPlace(design, room(spanM, heightM)), room(spanM, heightM)).fits;
        for (const [spanM, heightM] of [
          [6, 4],
          [14, 6],
          [38, 9],
          [60, 12],
        ] as const)
          if (fits(spanM, heightM)) {
            expect([id, share, spanM, fits(1.5 * spanM, heightM)]).toEqual([id, share, spanM, true]);
            expect([id, share, heightM, fits(spanM, 1.4 * heightM)]).toEqual([id, share, heightM, true]);
          }
      }
  });
});
