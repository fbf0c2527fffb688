import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { fillByKernel } from './fill-kernel';
import { fillPlan } from './fill-plan';
import { groundTable } from './ground-table';
import { imageRange } from './images';
import { fillImpedanceMatrix } from './impedance-matrix';
import { meshOf } from './mesh';
import { GeometryError, type Ground, type Point, type WireModel } from './model';

const F = 9.65e6;
const GROUNDS: readonly Ground[] = [
  { type: 'free' },
  { type: 'perfect' },
  { type: 'real', relPermittivity: 13, conductivitySPerM: 0.005 },
  { type: 'real', relPermittivity: 81, conductivitySPerM: 5 },
];

/** Largest difference of the kernel's matrix from the reference, as a share of the largest entry; undefined for wires that cannot be solved. */
function difference(model: WireModel, density = 1): number | undefined {
  let mesh;
  try {
    mesh = meshOf(model, F, density);
  } catch (error) {
    if (error instanceof GeometryError) return undefined;
    throw error;
  }
  const { ground } = model;
  const table = ground.type === 'real' ? groundTable(ground, F, imageRange(mesh)) : undefined;
  const n = mesh.unknowns;
  const [wanted, found] = [new Float64Array(2 * n * n), new Float64Array(2 * n * n).fill(NaN)];
  fillImpedanceMatrix(wanted, model, mesh, F, table);
  expect(fillByKernel(found, model, mesh, F, table)).toBe(true);
  let [off, largest] = [0, 0];
  for (let i = 0; i < n; i += 1)
    for (let j = 0; j <= i; j += 1)
      for (const part of [0, 1]) {
        const at = 2 * (i * n + j) + part;
        largest = Math.max(largest, Math.abs(wanted[at]));
        off = Math.max(off, Math.abs(wanted[at] - found[at]));
        // whole and symmetric
        expect(found[at]).toBe(found[2 * (j * n + i) + part]);
      }
  return off / largest;
}

const between = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const point = fc.tuple(between(-20, 20), between(-20, 20), between(0.3, 15));
const radiusM = fc.constantFrom(0.0004, 0.001, 0.004);

/** A chain of wires that meet end to end, with stubs that leave from its corners. */
const chain = fc
  .record({
    corners: fc.array(point, { minLength: 2, maxLength: 5 }),
    stubs: fc.array(point, { maxLength: 2 }),
    radiusM,
  })
  .map(({ corners, stubs, radiusM: r }) => [
    ...corners.slice(1).map((to, i) => ({ from: corners[i], to, radiusM: r })),
    ...stubs.map((to, i) => ({ from: corners[Math.min(i + 1, corners.length - 1)], to, radiusM: r })),
  ]);
/** Arms that are alike on both sides, level, sloping or upright, some of them counted from the other end. */
const fan = fc
  .record({
    arms: fc.array(fc.tuple(between(2, 9), between(-2, 2), fc.boolean()), { minLength: 1, maxLength: 3 }),
    height: between(3, 12),
    mast: fc.boolean(),
    radiusM,
  })
  .map(({ arms, height, mast, radiusM: r }) => {
    const top: Point = [3, -2, height];
    return [
      ...arms.flatMap(([length, drop, turned], i) =>
        [1, -1].map((side) => {
          const end: Point = [3 + side * length, -2 + 0.7 * i * side, height + drop];
          return turned ? { from: end, to: top, radiusM: r } : { from: top, to: end, radiusM: r };
        }),
      ),
      ...(mast ? [{ from: top, to: [3, -2, 0.5] as Point, radiusM: r }] : []),
    ];
  });
const model = fc
  .record({ wires: fc.oneof(chain, fan), ground: fc.constantFrom(...GROUNDS) })
  .map(({ wires, ground }): WireModel => ({ wires, ground, ports: [{ wire: 0, position: 0.5 }], loads: [] }));

describe('filling the matrix by the kernel', () => {
  // The reference integrates every pair of segments by itself; both are sums of the same samples, so only rounding may differ.
  test('200 random geometries: as pair by pair, to 1e-9 of the largest entry', () => {
    let compared = 0;
    fc.assert(
      fc.property(model, (one) => {
        const off = difference(one, 0.6);
        fc.pre(off !== undefined);
        compared += 1;
        expect(off).toBeLessThan(1e-9);
      }),
      { seed: 20261128, numRuns: 200 },
    );
    expect(compared).toBeGreaterThanOrEqual(200);
  }, 120_000);

  test('a straight level wire over ground is integrated once for each distance', () => {
    const wires = [{ from: [0, 0, 9], to: [0, 30, 9], radiusM: 0.001 }] as const;
    const mesh = meshOf({ wires, ports: [{ wire: 0, position: 0.5 }], loads: [], ground: GROUNDS[2] }, F);
    // half a wire and half a wire: their places differ by up to n − 1
    expect(fillPlan(mesh, 'real').integrated).toBe(2 * mesh.segments);
  });

  test('a wire that is cut anew has a plan of its own, the same mesh has its plan once', () => {
    const wires = [{ from: [0, 0, 9], to: [0, 30, 9], radiusM: 0.001 }] as const;
    const bare: WireModel = { wires, ports: [{ wire: 0, position: 0.5 }], loads: [], ground: GROUNDS[0] };
    const mesh = meshOf(bare, F);
    expect(fillPlan(mesh, 'free')).toBe(fillPlan(mesh, 'free'));
    expect(fillPlan(meshOf(bare, F, 2), 'free')).not.toBe(fillPlan(mesh, 'free'));
  });
});
