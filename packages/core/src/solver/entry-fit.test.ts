import { describe, expect, jest, test } from '@jest/globals';
import fc from 'fast-check';
import { startDesign, wireModel } from '../antenna/kinds';
import { reflectionOf } from '../line/reflection';
import { entryFit, entryFitBytes } from './entry-fit';
import { fillByKernel } from './fill-kernel';
import { groundClass } from './ground-classes';
import { groundTable } from './ground-table';
import { imageRange } from './images';
import { keptBlocks, type KeptBlocks } from './kept-blocks';
import { meshOf, type Mesh } from './mesh';
import { GeometryError, type Ground, type Point, type WireModel } from './model';
import { finish, sweepModel } from './model-sweep';
import { inputImpedance, solveAt } from './solve';

const GROUNDS: readonly Ground[] = [
  { type: 'free' },
  { type: 'perfect' },
  { type: 'real', relPermittivity: 13, conductivitySPerM: 0.005 },
  { type: 'real', relPermittivity: 81, conductivitySPerM: 5 },
];
const tableOf = ({ ground }: WireModel, mesh: Mesh, freqHz: number) =>
  ground.type === 'real' ? groundTable(ground, freqHz, imageRange(mesh)) : undefined;
const matrixOf = ({ unknowns }: Mesh): Float64Array => new Float64Array(2 * unknowns * unknowns);
function whole(model: WireModel, mesh: Mesh, freqHz: number, blocks?: KeptBlocks): Float64Array {
  const z = matrixOf(mesh);
  expect(fillByKernel(z, model, mesh, freqHz, tableOf(model, mesh, freqHz), blocks && { blocks })).toBe(true);
  return z;
}
/** Largest difference of two matrices, as a share of the largest entry. */
function apart(found: Float64Array, wanted: Float64Array): number {
  let [off, largest] = [0, 0];
  wanted.forEach((value, i) => {
    off = Math.max(off, Math.abs(value - found[i]));
    largest = Math.max(largest, Math.abs(value));
  });
  return off / largest;
}
function fitOver(model: WireModel, mesh: Mesh, freqsHz: readonly number[]) {
  const fit = entryFit(model, mesh);
  if (!fit) throw new Error('There is no kernel.');
  for (const freqHz of freqsHz) expect(fit.takeIn(matrixOf(mesh), freqHz, tableOf(model, mesh, freqHz))).toBe(true);
  return fit;
}
function between(fit: ReturnType<typeof fitOver>, mesh: Mesh, freqHz: number): Float64Array {
  const z = matrixOf(mesh);
  fit.fillBetween(z, freqHz);
  return z;
}
/** Chebyshev nodes of a span: where a polynomial of few terms follows best. */
const nodesOf = (lowHz: number, highHz: number, count: number): number[] =>
  Array.from(
    { length: count },
    (_, i) => (lowHz + highHz) / 2 + ((highHz - lowHz) / 2) * Math.cos((Math.PI * (2 * i + 1)) / (2 * count)),
  );

const point = fc.tuple(
  ...([-12, -12, 0.4] as const).map((min, axis) => fc.double({ min, max: axis === 2 ? 12 : 12, noNaN: true })),
) as unknown as fc.Arbitrary<Point>;
const wires = fc
  .array(point, { minLength: 2, maxLength: 4 })
  .map((corners) => corners.slice(1).map((to, i) => ({ from: corners[i], to, radiusM: 0.001 })));

describe('matrix entries between frequencies', () => {
  test('follow the whole fill over any wires and grounds, better with every matrix more, and are exact at the nodes', () => {
    fc.assert(
      fc.property(
        wires,
        fc.constantFrom(...GROUNDS),
        fc.double({ min: 0.05, max: 0.95, noNaN: true }),
        (some, ground, share) => {
          const model: WireModel = { wires: some, ports: [{ wire: 0, position: 0.5 }], loads: [], ground };
          const [low, high] = [5e6, 9e6];
          let mesh;
          try {
            mesh = meshOf(model, high);
          } catch (error) {
            if (error instanceof GeometryError) return;
            throw error;
          }
          const freqHz = low + share * (high - low);
          const wanted = whole(model, mesh, freqHz);
          const few = fitOver(model, mesh, nodesOf(low, high, 3));
          const more = fitOver(model, mesh, nodesOf(low, high, 6));
          expect(apart(between(few, mesh, freqHz), wanted)).toBeLessThan(2e-3);
          expect(apart(between(more, mesh, freqHz), wanted)).toBeLessThan(2e-6);
          const [node] = more.nodesHz();
          expect(apart(between(more, mesh, node), whole(model, mesh, node))).toBeLessThan(1e-12);
        },
      ),
      { numRuns: 40, seed: 20261128 },
    );
  });

  test('one trial tells how wrong they can be anywhere in the span', () => {
    const model = wireModel(startDesign('yagi', 14.1e6), groundClass('average').ground);
    const mesh = meshOf(model, 18e6);
    const fit = fitOver(model, mesh, [9e6, 13e6, 18e6]);
    const freqsHz = Array.from({ length: 24 }, (_, i) => 9.2e6 + 0.37e6 * i);
    const errors = freqsHz.map((freqHz) => apart(between(fit, mesh, freqHz), whole(model, mesh, freqHz)));
    const worst = Math.max(...errors);
    for (const [i, freqHz] of freqsHz.entries()) {
      const told = errors[i] * fit.worstOver(freqHz, freqsHz);
      // the derivative that the zeros are weighed with changes a little over the span
      expect(told).toBeGreaterThan(worst / 3);
      expect(told).toBeLessThan(worst * 3);
    }
  });

  test('the memory told is that of a usual sweep; a matrix of which few find room is filled at each frequency', () => {
    // ways, result and eight nodes: four numbers of 8 bytes for each entry of the upper half
    expect(entryFitBytes({ unknowns: 100 })).toBe((8 * 4 * 9 * 100 * 101) / 2);
    expect(entryFitBytes({ unknowns: 1500 })).toBe(256e6);
    expect(entryFitBytes({ unknowns: 1700 })).toBe(0);
    const model = wireModel(startDesign('half-wave-dipole', 14.1e6), { type: 'free' });
    expect(entryFit(model, { ...meshOf(model, 15e6), unknowns: 1700 })).toBeUndefined();
  });

  test('a fit that gave its memory back does not disturb the next, nor does one that was left half-way', () => {
    const model = wireModel(startDesign('delta-loop', 14.1e6), groundClass('average').ground);
    const mesh = meshOf(model, 15e6);
    const nodes = nodesOf(13e6, 15e6, 4);
    const left = fitOver(model, mesh, nodes);
    const first = fitOver(model, mesh, nodes);
    const wanted = between(first, mesh, 14.3e6);
    first.release();
    // the next works in the memory of the first, on other wires
    const loop = wireModel(startDesign('square-loop', 14.1e6), { type: 'free' });
    const other = meshOf(loop, 15e6);
    const next = fitOver(loop, other, nodes);
    expect(apart(between(next, other, 14.3e6), whole(loop, other, 14.3e6))).toBeLessThan(1e-5);
    expect(apart(between(left, mesh, 14.3e6), wanted)).toBe(0);
  });

  test('refuse when there is no room for another matrix', () => {
    const model = wireModel(startDesign('half-wave-dipole', 14.1e6), { type: 'free' });
    const mesh = meshOf(model, 15e6);
    const fit = fitOver(model, mesh, nodesOf(13e6, 15e6, 16));
    expect(fit.takeIn(matrixOf(mesh), 14.2e6)).toBe(false);
    expect(fit.nodesHz()).toHaveLength(16);
  });

  test.each(['yagi', 'delta-loop', 'end-fed-wire', 'quarter-wave', 'fan-dipole', 'vertical-over-radials'] as const)(
    'a sweep of a %s that uses them stays within the error that it states',
    (kind) => {
      const model = wireModel(startDesign(kind, 9.65e6), groundClass('average').ground);
      const sweep = finish(sweepModel(model, { lowHz: 5e6, highHz: 16e6, points: 221 }));
      expect(sweep.interpolated).toBeGreaterThan(0);
      expect(sweep.interpolated).toBeLessThan(sweep.solvedHz.length - 3);
      expect(sweep.errorBound).toBeLessThan(0.002);
      const mesh = meshOf(model, 16e6);
      for (let i = 0; i < 221; i += 11) {
        const exact = reflectionOf(inputImpedance(solveAt(model, mesh, sweep.freqHz[i])), 50);
        const swept = reflectionOf({ re: sweep.resistance[i], im: sweep.reactance[i] }, 50);
        expect(Math.hypot(exact.re - swept.re, exact.im - swept.im)).toBeLessThan(sweep.errorBound);
      }
    },
  );
});

describe('blocks of parts that did not move', () => {
  const F = 9.65e6;
  /** Counts what was found. */
  function counted(): { readonly blocks: KeptBlocks; readonly found: () => number } {
    const own = keptBlocks(64e6);
    let found = 0;
    const get = (key: string): Float64Array | undefined => {
      const known = own.get(key);
      if (known) found += 1;
      return known;
    };
    return { blocks: { ...own, get }, found: () => found };
  }
  /** A fan of three sloping wires and a mast; the first is as long as asked. */
  const fan = (length: number, ground: Ground, scale = 1): WireModel => ({
    wires: [
      ...[length, 8, 6.5].map((own, i) => ({
        from: [0, 0, 9 * scale] as Point,
        to: [own * scale * Math.cos(2 * i), own * scale * Math.sin(2 * i), (5 + i) * scale] as Point,
        radiusM: 0.001,
      })),
      { from: [0, 0, 9 * scale], to: [0, 0, 0.5 * scale], radiusM: 0.001 },
    ],
    ports: [{ wire: 3, position: 0.5 }],
    loads: [],
    ground,
  });

  test.each(GROUNDS)('are found again while one wire is dragged, and change nothing ($type)', (ground) => {
    const { blocks, found } = counted();
    for (let i = 0; i < 6; i += 1) {
      const model = fan(9 + 0.03 * i, ground);
      const mesh = meshOf(model, F);
      const before = found();
      expect(apart(whole(model, mesh, F, blocks), whole(model, mesh, F))).toBeLessThan(1e-10);
      // three wires stand still: each pair of them directly and from below, and each sloping one with its image
      if (i > 0) expect(found() - before).toBe(ground.type === 'free' ? 3 : 8);
    }
  });

  test('are those of one frequency, one ground and one size', () => {
    const { blocks, found } = counted();
    const asked = (model: WireModel, freqHz: number): void => {
      const mesh = meshOf(model, F);
      expect(apart(whole(model, mesh, freqHz, blocks), whole(model, mesh, freqHz))).toBeLessThan(1e-10);
    };
    asked(fan(9, GROUNDS[2]), F);
    asked(fan(9, GROUNDS[2]), 0.9 * F);
    expect(found()).toBe(0);
    asked(fan(9, GROUNDS[2], 2), F / 2);
    asked(fan(9, GROUNDS[2], 2), F);
    expect(found()).toBe(0);
    // direct waves do not know of the ground
    const mesh = meshOf(fan(9, GROUNDS[3]), F);
    asked(fan(9, GROUNDS[3]), F);
    expect(found()).toBeGreaterThan(0);
    expect(mesh.segments).toBeGreaterThan(20);
  });

  test('a mesh whose blocks at five frequencies find no room keeps none', () => {
    const small = keptBlocks(5 * 64 * 200);
    const mesh = meshOf(fan(9, GROUNDS[0]), F);
    const set = jest.fn();
    whole(fan(9, GROUNDS[0]), mesh, F, { ...small, set });
    expect(set).not.toHaveBeenCalled();
    whole(fan(9, GROUNDS[0]), mesh, F, { ...small, mostBytes: 64e6, set });
    expect(set).toHaveBeenCalled();
  });

  test('those not used for longest go first', () => {
    const kept = keptBlocks(8 * 10);
    kept.set('a', new Float64Array(4));
    kept.set('b', new Float64Array(4));
    expect(kept.get('a')).toHaveLength(4);
    kept.set('c', new Float64Array(4));
    expect(kept.get('b')).toBeUndefined();
    expect(kept.get('a')).toHaveLength(4);
    // one that is larger than all room is not kept, and takes nothing with it but what was there
    kept.set('d', new Float64Array(11));
    expect(kept.get('d')).toBeUndefined();
  });
});
