import { expect, test } from '@jest/globals';
import { startDesign } from '../antenna/kinds';
import { exposureFieldVPerM } from './coupling';
import { fieldOfPeople } from './people';

const ended = <A>(steps: Generator<unknown, A>): A => {
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
  }
};
const F = 14.2e6;
const antenna = {
  ...{ name: 'dipole', at: [0, 0] as const, facingDeg: 90 },
  design: { ...startDesign('half-wave-dipole', F), diameterM: 0.004, dimensions: { heightM: 1.5 } },
};

// Balanis ch. 4: E = √(30·P·G)/r in the far field of a dipole broadside; 100 W and 2.15 dBi at 10 m are 7.0 V/m by that formula
test('far away in free space the field is √(30PG)/r (RMS), and E over H is 377 Ω', () => {
  const [far] = ended(fieldOfPeople(antenna, { type: 'free' }, F, 100, [100]));
  expect(far.eVPerM / exposureFieldVPerM(100, 2.0, 100)).toBeGreaterThan(0.96);
  expect(far.eVPerM / exposureFieldVPerM(100, 2.0, 100)).toBeLessThan(1.04);
  expect(Math.abs(far.waveOhm - 377)).toBeLessThan(8);
  expect(far.near).toBe(false);
  // broadside is east or west
  expect([90, 270]).toContain(far.bearingDeg);
});
test('near by the far-field formula is far off, and the near field says so', () => {
  const [near] = ended(fieldOfPeople(antenna, { type: 'free' }, F, 100, [2]));
  expect(near.near).toBe(true);
  expect(near.eVPerM).toBeGreaterThan(1.5 * exposureFieldVPerM(100, 2.0, 2));
});
test('over ground the field at people’s heights is found; four times the power doubles it', () => {
  const ground = { type: 'real', relPermittivity: 13, conductivitySPerM: 0.005 } as const;
  const high = { ...antenna, design: { ...antenna.design, dimensions: { heightM: 10 } } };
  const [one] = ended(fieldOfPeople(high, ground, F, 25, [10]));
  const [four] = ended(fieldOfPeople(high, ground, F, 100, [10]));
  expect(four.eVPerM / one.eVPerM).toBeCloseTo(2, 9);
  expect(one.eVPerM).toBeGreaterThan(0.5);
  expect(one.hAPerM).toBeGreaterThan(0);
});
