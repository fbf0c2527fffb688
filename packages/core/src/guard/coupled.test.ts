import { describe, expect, test } from '@jest/globals';
import { ANTENNA_KINDS, startDesign } from '../antenna/kinds';
import { parallelDipoleCoupling } from './coupling';
import { type PlacedAntenna, placedWires } from '../antenna/placed-wires';
import { antennaCoupling, couplingRanges } from './coupled';
import type { Ground } from '../solver/model';

const FREE: Ground = { type: 'free' };
const AVERAGE: Ground = { type: 'real', relPermittivity: 13, conductivitySPerM: 0.005 };
const F = 14.2e6;
const LAMBDA = 299_792_458 / F;

/** A half-wave dipole of 4 mm copper, about resonant. */
const dipole = (name: string, at: readonly [number, number], facingDeg: number, heightM = 10): PlacedAntenna => ({
  ...{ name, at, facingDeg },
  design: {
    ...startDesign('half-wave-dipole', F),
    diameterM: 0.004,
    dimensions: { heightM },
  },
});

test('wires stand where they are put: forward is the bearing, left stays left', () => {
  const placed = placedWires(dipole('d', [100, 50], 90));
  const ends = (placed?.wires ?? []).flatMap(({ from, to }) => [from, to]);
  // facing east, a broadside wire runs north and south
  expect(Math.max(...ends.map(([x]) => Math.abs(x - 100)))).toBeLessThan(1e-6);
  expect(Math.max(...ends.map(([, y]) => y)) - Math.min(...ends.map(([, y]) => y))).toBeGreaterThan(9);
});

describe('against outside figures', () => {
  // Carter's induced-EMF theory (Proc. IRE 20, 1932): two parallel half-wave dipoles, both matched; into 50 Ω the other loses a little more
  test.each([0.5, 1, 2, 5])(
    'parallel dipoles %d wavelengths apart in free space agree with Carter within 0.3 dB',
    (wavelengths) => {
      const found = antennaCoupling(dipole('a', [0, 0], 90), dipole('b', [wavelengths * LAMBDA, 0], 90), FREE, F);
      const carter = parallelDipoleCoupling(F, wavelengths * LAMBDA, 1).couplingDb;
      // least loss is what both matched would give
      expect(Math.abs((found.leastLossDb ?? 0) + carter)).toBeLessThan(0.3);
      expect(found.lossDb).toBeGreaterThanOrEqual((found.leastLossDb ?? 0) - 1e-6);
    },
  );
  test('far away the model and Friis say the same', () => {
    const found = antennaCoupling(dipole('a', [0, 0], 90), dipole('b', [20 * LAMBDA, 0], 90), FREE, F);
    expect(Math.abs(found.lossDb - found.farFieldLossDb)).toBeLessThan(0.2);
  });
  test('near by the far field is off, and its limits lie farther away', () => {
    const near = antennaCoupling(dipole('a', [0, 0], 90), dipole('b', [0.1 * LAMBDA, 0], 90), FREE, F);
    expect(near.distanceM).toBeLessThan(near.reactiveM);
    expect(near.reactiveM).toBeCloseTo(LAMBDA / (2 * Math.PI), 9);
    expect(Math.abs(near.lossDb - near.farFieldLossDb)).toBeGreaterThan(3);
  });
  test('crossed dipoles hear nothing of each other in free space', () => {
    const crossed = antennaCoupling(dipole('a', [0, 0], 90), dipole('b', [LAMBDA, 0], 0), FREE, F);
    expect(crossed.lossDb).toBeGreaterThan(80);
    // a null by symmetry that no builder hits: 3° turn a share of sin 3° into the other's plane, −25.6 dB of the parallel coupling
    const parallel = antennaCoupling(dipole('a', [0, 0], 90), dipole('b', [LAMBDA, 0], 90), FREE, F);
    // one wavelength is not far: 1.5 dB
    const expectedDb = parallel.lossDb - 20 * Math.log10(Math.sin((3 * Math.PI) / 180));
    expect(Math.abs(crossed.safeDb - expectedDb)).toBeLessThan(1.5);
  });
});

describe('whatever stands there', () => {
  const KINDS = ['half-wave-dipole', 'v-dipole', 'square-loop', 'quarter-wave', 'folded-dipole', 'delta-loop'];
  const GROUNDS: readonly Ground[] = [FREE, { type: 'perfect' }, AVERAGE];
  /** Both in one place of 60 m, kinds and bearings by the number. */
  const pair = (i: number): readonly [PlacedAntenna, PlacedAntenna] => {
    const known = KINDS.filter((id) => ANTENNA_KINDS.some((kind) => kind.id === id));
    const one = (k: number, at: readonly [number, number]): PlacedAntenna => ({
      ...{ name: `antenna ${k}`, at, facingDeg: (k * 77) % 360 },
      design: { ...startDesign(known[k % known.length], F), dimensions: { heightM: 8 + (k % 5) } },
    });
    return [one(i, [0, 0]), one(3 * i + 1, [22 + (i % 7) * 5, (i % 5) * 4])];
  };
  test('20 pairs over three grounds: transmission is the same either way round into matched ends, and never a gain', () => {
    for (let i = 0; i < 20; i += 1) {
      const [a, b] = pair(i);
      const ground = GROUNDS[i % 3];
      const [there, back] = [antennaCoupling(a, b, ground, F), antennaCoupling(b, a, ground, F)];
      // the largest power that can pass is the same in both directions (reciprocity)
      expect(Math.abs((there.leastLossDb ?? 0) - (back.leastLossDb ?? 99))).toBeLessThan(0.01);
      expect(there.lossDb).toBeGreaterThanOrEqual((there.leastLossDb ?? 0) - 1e-6);
      expect(there.lossDb).toBeGreaterThan(0);
      expect(there.openVoltsPerRootWatt).toBeGreaterThan(0);
    }
  }, 120_000);
  test('height and ground move it, by a range that holds the figure itself or lies beside it by little', () => {
    const [a, b] = [dipole('a', [0, 0], 90), dipole('b', [30, 5], 80, 6)];
    const own = antennaCoupling(a, b, AVERAGE, F).lossDb;
    const ranges = couplingRanges(
      a,
      b,
      [
        { ...AVERAGE, conductivitySPerM: 0.001 },
        { ...AVERAGE, conductivitySPerM: 0.03 },
      ],
      AVERAGE,
      F,
    );
    expect(ranges.map(({ because }) => because)).toEqual([
      'its place 30 cm off',
      'its bearing 3° off',
      'its height 10 % off',
      'drier and wetter ground',
    ]);
    for (const { lowDb, highDb } of ranges) {
      expect(highDb).toBeGreaterThan(lowDb);
      expect(own).toBeGreaterThan(lowDb - 1.5);
      expect(own).toBeLessThan(highDb + 1.5);
    }
  });
  test('a kind that is no wire takes the field at its place; one that is to send is refused with a remedy', () => {
    const noWire = ANTENNA_KINDS.find((kind) => !('model' in kind && kind.model !== undefined) && 'reception' in kind);
    expect(noWire).toBeDefined();
    const probe: PlacedAntenna = {
      ...{ name: 'probe', at: [30, 0], facingDeg: 0 },
      design: startDesign(noWire?.id ?? '', F),
    };
    const found = antennaCoupling(dipole('a', [0, 0], 90), probe, AVERAGE, F);
    expect(found.by).toBe('field');
    expect(antennaCoupling(dipole('a', [0, 0], 90), dipole('b', [30, 0], 90), AVERAGE, F).amplifierDb).toBe(0);
    expect(found.lossDb).toBeGreaterThan(10);
    expect(() => antennaCoupling(probe, dipole('a', [0, 0], 90), AVERAGE, F)).toThrow(/Measure step by step instead/);
  });
});
