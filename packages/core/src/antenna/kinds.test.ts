import { describe, expect, test } from '@jest/globals';
import { dish, waveguide } from './aperture';
import type { Design, KindId } from './kind';
import { ANTENNA_KINDS, checkDesign, startDesign, wireModel } from './kinds';
import { rectangleBeamDimensions } from './rectangle-beam';
import { usefulRange } from './useful-range';
import { OutOfRangeError } from '../errors';
import { reflectionOf, swrOf } from '../line/reflection';
import { magnitude } from '../numeric/complex';
import { coilFromTwoResonances, tunedCoil } from '../resonator/tuned-coil';
import { findPeak, gainRatio, radiatedShare } from '../solver/far-field';
import { GROUND_CLASSES, groundClass } from '../solver/ground-classes';
import { meshOf } from '../solver/mesh';
import { findResonance } from '../solver/resonance';
import { inputImpedance, type Solution, solveAt } from '../solver/solve';
import { powerDb } from '../units/decibel';

const FREE = groundClass('free').ground;
const AVERAGE = groundClass('average').ground;
const solved = (design: Design, freqHz = design.freqHz, ground = AVERAGE): Solution => {
  const model = wireModel(design, ground);
  return solveAt(model, meshOf(model, freqHz), freqHz);
};
const everyKind = ANTENNA_KINDS.map((kind) => [kind.id, kind] as const);
/** Where a kind is at home. */
const homeHz = (id: KindId): number =>
  id === 'ferrite-rod' ? 77.5e3 : id === 'dish' ? 11e9 : id === 'horn' ? 1420e6 : 14.1e6;
const wireKinds = everyKind.filter(([, kind]) => kind.model !== undefined);

describe('every kind', () => {
  test.each(wireKinds)('%s is a solvable, passive antenna at HF and VHF', (id) => {
    for (const freqHz of [7.1e6, 145e6]) {
      const s = solved(startDesign(id, freqHz));
      expect(inputImpedance(s).re).toBeGreaterThan(0);
      expect(radiatedShare(s)).toBeLessThan(1.02);
    }
  });
  test.each(everyKind)('%s says what it takes, how it is built and what goes wrong', (id, kind) => {
    const draft = kind.draft(startDesign(id, homeHz(id)));
    expect(draft.pieces.length).toBeGreaterThan(0);
    expect(draft.steps.length).toBeGreaterThan(3);
    expect(draft.trimLengthM).toBeGreaterThan(0);
    expect(kind.materials.length).toBeGreaterThan(1);
    expect(kind.goesWrong.length).toBeGreaterThan(1);
    expect(kind.fit(startDesign(id, homeHz(id)), { spanM: 5000, heightM: 500 }).fits).toBe(true);
    expect(kind.fit(startDesign(id, homeHz(id)), { spanM: 0.01, heightM: 500 }).fits).toBe(false);
  });
  test.each(everyKind)('%s refuses each dimension beyond its range, by name', (id, kind) => {
    for (const parameter of kind.parameters) {
      const design = { ...startDesign(id, homeHz(id)), dimensions: { [parameter.id]: parameter.most * 1.5 + 1 } };
      expect(() => checkDesign(design)).toThrow(OutOfRangeError);
      expect(() => checkDesign(design)).toThrow(parameter.label);
    }
  });
  test('a set dimension stays when the frequency changes; the others follow it', () => {
    const set = { ...startDesign('half-wave-dipole', 7.1e6), dimensions: { heightM: 4 } };
    const [a, b] = [wireModel(set, AVERAGE), wireModel({ ...set, freqHz: 14.2e6 }, AVERAGE)];
    expect([a.wires[0].from[2], b.wires[0].from[2]]).toEqual([4, 4]);
    expect(a.wires[0].to[1] / b.wires[0].to[1]).toBeCloseTo(2, 1);
  });
});

describe('figures of the trade', () => {
  // Cebik's regression worked by hand: 868 MHz, 1.8 mm wire → 123.4 / 15.0 / 7.05 / 24.0 / 46.0 mm; 433.92 MHz, 2.0 mm → 247.8 / 31.9 / 12.5 / 47.8 / 92.2 mm.
  test.each([
    [868e6, 0.0018, [123.4, 15.0, 7.05, 24.0, 46.0]],
    [433.92e6, 0.002, [247.8, 31.9, 12.5, 47.8, 92.2]],
  ])('rectangle beam at %d Hz', (freqHz, diameterM, millimetres) => {
    const d = rectangleBeamDimensions(freqHz, diameterM);
    [d.sideM, d.drivenTipM, d.gapM, d.reflectorTipM, d.depthM].forEach((value, i) =>
      expect(Math.abs(value * 1000 - millimetres[i])).toBeLessThan(0.2),
    );
  });
  // Separate moment-method program, free space: 45 − 9j Ω ± 6, SWR under 1.35, 6.2 ± 0.3 dBi, front-to-back over 23 dB.
  test('rectangle beam for 433.92 MHz in free space', () => {
    const design = { ...startDesign('rectangle-beam', 433.92e6), diameterM: 0.002, dimensions: { upright: 1 } };
    const s = solved(design, design.freqHz, FREE);
    const z = inputImpedance(s);
    expect(Math.abs(z.re - 45)).toBeLessThan(6);
    expect(Math.abs(z.im + 9)).toBeLessThan(6);
    expect(swrOf(magnitude(reflectionOf(z, 50)))).toBeLessThan(1.35);
    const gain = gainRatio(s);
    expect(Math.abs(powerDb(gain(0, 0)) - 6.2)).toBeLessThan(0.3);
    expect(powerDb(gain(0, 0) / gain(180, 0))).toBeGreaterThan(23);
  });
  // The same over average ground at 6 m: peak 11.3 ± 0.5 dBi near 1.6 ± 0.5°; a 5° grid would report about 9.7 dBi.
  test('its lobes over ground are found', () => {
    const design = {
      ...startDesign('rectangle-beam', 433.92e6),
      diameterM: 0.002,
      dimensions: { upright: 1, heightM: 6 },
    };
    const s = solved(design);
    const peak = findPeak(s);
    expect(Math.abs(peak.gainDbi - 11.3)).toBeLessThan(0.5);
    expect(Math.abs(peak.elevationDeg - 1.6)).toBeLessThan(0.5);
    const gain = gainRatio(s);
    expect(Math.abs(Math.max(...Array.from({ length: 18 }, (_, i) => powerDb(gain(0, 5 * i)))) - 9.7)).toBeLessThan(
      0.5,
    );
  });
  // Closed form against the wire model in free space: cut by induced-EMF theory, a thin dipole resonates within 1.5 % of where it was cut for.
  test.each([
    ['half-wave-dipole', 0.015],
    ['v-dipole', 0.02],
    ['flat-v-dipole', 0.02],
    ['quarter-wave', 0.05],
    ['folded-dipole', 0.03],
    ['square-loop', 0.04],
  ] as [KindId, number][])('%s: the closed form is within %d of the model', (id, share) => {
    const design = startDesign(id, 28.5e6);
    const model = wireModel(design, FREE);
    const mesh = meshOf(model, 30e6);
    const { freqHz } = findResonance((f) => inputImpedance(solveAt(model, mesh, f)), 28.5e6);
    expect(Math.abs(freqHz / 28.5e6 - 1)).toBeLessThan(share);
  });
  // A discone keeps its match over octaves above its lowest frequency (common practice, no source).
  test('a discone is matched over more than two octaves', () => {
    const design = startDesign('discone', 110e6);
    for (const freqHz of [140e6, 200e6, 300e6, 450e6])
      expect(swrOf(magnitude(reflectionOf(inputImpedance(solved(design, freqHz, FREE)), 50)))).toBeLessThan(3);
  });
  test('a terminated long wire hears forward, not back', () => {
    const s = solved(startDesign('travelling-wave-wire', 3.65e6));
    const gain = gainRatio(s);
    expect(powerDb(gain(0, 30) / gain(180, 30))).toBeGreaterThan(5);
    // reversed, it is the mirror image
    const back = gainRatio(solved({ ...startDesign('travelling-wave-wire', 3.65e6), dimensions: { reversed: 1 } }));
    expect(powerDb(back(180, 30))).toBeCloseTo(powerDb(gain(0, 30)), 3);
  });
  test('classes of ground have names, and an unknown id means average', () => {
    expect(new Set(GROUND_CLASSES.map((one) => one.id)).size).toBe(GROUND_CLASSES.length);
    expect(groundClass('nonsense').id).toBe('average');
  });
});

describe('closed forms', () => {
  // Worked by hand: 800 turns of 15 mH are 23.4 nH per turn²; two settings 485 pF → 71.0 kHz and 14 pF → 236 kHz give 32.9 pF and 9.703 mH.
  test('a ferrite coil from two resonances', () => {
    const coil = coilFromTwoResonances(
      { capacitanceF: 485e-12, freqHz: 71e3 },
      { capacitanceF: 14e-12, freqHz: 236e3 },
    );
    expect(Math.abs(coil.selfCapacitanceF * 1e12 - 32.9)).toBeLessThan(0.3);
    expect(Math.abs(coil.inductanceH * 1e3 - 9.703)).toBeLessThan(0.05);
    // 640 turns at 77.5 kHz with Q 85: 401.8 pF, 4725 Ω, 402 kΩ, 7.1 turns for 50 Ω, loaded Q 42.5
    const tuned = tunedCoil({ turns: 640, ...coil, q: 85, freqHz: 77.5e3, lineOhm: 50 });
    expect(tuned.factorH * 1e9).toBeCloseTo(23.69, 1);
    expect(Math.abs(tuned.externalF * 1e12 - 401.8)).toBeLessThan(1);
    expect(Math.abs(tuned.reactanceOhm - 4725)).toBeLessThan(25);
    expect(Math.abs(tuned.parallelOhm / 402e3 - 1)).toBeLessThan(0.01);
    expect(tuned.couplingTurns).toBeCloseTo(7.1, 1);
    expect(tuned.loadedQ).toBeCloseTo(42.5, 9);
    expect(() =>
      coilFromTwoResonances({ capacitanceF: 14e-12, freqHz: 71e3 }, { capacitanceF: 485e-12, freqHz: 236e3 }),
    ).toThrow(/larger capacitor must give the lower frequency/);
  });
  // 45 cm at 11 GHz and 60 %: 32.1 dBi, 4.2° (π²D²/λ², 70 λ/D by hand); a guide 16.5 cm wide: cut-off 908 MHz, 27.5 cm at the hydrogen line.
  test('dish and waveguide', () => {
    const d = dish(0.45, 11e9, 0.6);
    expect(d.gainDbi).toBeCloseTo(32.1, 1);
    expect(d.beamwidthDeg).toBeCloseTo(4.2, 1);
    const guide = waveguide(0.165, 1420.4e6);
    expect(guide.cutoffHz / 1e6).toBeCloseTo(908.5, 0);
    expect(guide.guideWavelengthM * 100).toBeCloseTo(27.5, 1);
    expect(() => waveguide(0.1, 1420.4e6)).toThrow(/passes nothing below 1499 MHz/);
  });
  test('what is no wire has no wires', () => {
    expect(() => wireModel(startDesign('dish', 11e9), FREE)).toThrow(/computed by closed form/);
  });
  test('useful spans lie around what an antenna is cut for', () => {
    for (const kind of ANTENNA_KINDS) {
      const [low, high] = usefulRange(startDesign(kind.id, homeHz(kind.id)));
      expect(low).toBeLessThan(high);
    }
  });
});
