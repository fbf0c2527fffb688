import { expect, test } from '@jest/globals';
import { groundClass } from '../solver/ground-classes';
import { meshOf } from '../solver/mesh';
import { finish } from '../solver/model-sweep';
import { inputImpedance, solveAt } from '../solver/solve';
import type { Design } from './kind';
import { antennaKind, startDesign, wireModel } from './kinds';
import { onFrequency } from './on-frequency';
import { trimToResonance } from './trim-model';

const AVERAGE = groundClass('average').ground;

/** Where the reactance of a drafted antenna vanishes, by halving between ratios of its frequency. */
function dipOf(design: Design): number {
  const model = wireModel(design, AVERAGE);
  const reactance = (freqHz: number): number => inputImpedance(solveAt(model, meshOf(model, freqHz), freqHz)).im;
  let [low, high] = [0.9 * design.freqHz, 1.1 * design.freqHz];
  for (let i = 0; i < 20; i += 1) {
    const middle = (low + high) / 2;
    if (reactance(middle) < 0) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

test.each(['half-wave-dipole', 'quarter-wave', 'v-dipole'] as const)(
  '"finished" was said of a %s that dips elsewhere: the side it is off is the one that the trimming of the model mends',
  (id) => {
    const design = startDesign(id, 9.65e6);
    const kind = antennaKind(id);
    const drafted = kind.draft(design);
    const found = onFrequency(drafted, design.freqHz, dipOf(design));
    const trimmed = finish(trimToResonance(design, AVERAGE));
    const trimmedM = kind.draft(trimmed).trimLengthM;
    expect(Math.sign(found.offRatio)).toBe(Math.sign(trimmedM - drafted.trimLengthM));
    expect(onFrequency(kind.draft(trimmed), design.freqHz, dipOf(trimmed)).on).toBe(true);
    expect(found.on).toBe(false); // all three are drafted for free space, and the ground pulls them off
  },
);
test('the bounds of "on frequency" are half a per cent either way', () => {
  expect(onFrequency({ trimLengthM: 10 }, 10e6, 9.96e6).on).toBe(true);
  expect(onFrequency({ trimLengthM: 10 }, 10e6, 9.94e6)).toMatchObject({ on: false, draftedM: 10 });
  expect(() => onFrequency({ trimLengthM: 10 }, 10e6, 0)).toThrow(/Dip of the model/);
});
