import { wasmKernel, type WasmKernel } from '../numeric/wasm';
import { FREE_SPACE_IMPEDANCE_OHM, SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { distributedTerms } from './distributed';
import { FILL_KERNEL } from './fill-wasm';
import { fillPlan, PER_PAIR, type FillPlan, type FillTask, type Run } from './fill-plan';
import type { GroundTable } from './ground-table';
import { imageFactor } from './images';
import type { KeptBlocks } from './kept-blocks';
import type { Mesh } from './mesh';
import type { WireModel } from './model';
import { nearPairInto, SAMPLE_POINTS, samplesOf, type Fineness, type Placed } from './pair';

const kernelOnce = wasmKernel(FILL_KERNEL, ['freePairs', 'groundPairs', 'scatter']);
type Kernel = WasmKernel<'freePairs' | 'groundPairs' | 'scatter'>;

/** In the order in which the kernel counts them. */
const SHAPES: readonly FillTask['shape'][] = ['difference', 'sum', 'none'];
const FINENESSES: readonly Fineness[] = ['near', 'middle', 'far'];
/** Values of a block: 2×2, re and im. */
const PER_BLOCK = 8;
/** Values of a sample: φ₀, φ₁ and their slopes, times the weight. */
const PER_SAMPLE = 4;

/** A stretch of the kernel's memory: its place in bytes. */
interface Laid {
  readonly at: number;
  readonly data: Float64Array;
}

/** What one fill keeps in the kernel's memory. */
interface Arena {
  /** Sample places of the segments and of their images, by fineness. */
  readonly own: Readonly<Record<Fineness, number>>;
  readonly image: Readonly<Record<Fineness, number>>;
  /** First values of a run, by fineness. */
  readonly values: Readonly<Record<Fineness, readonly number[]>>;
  readonly table: number;
  /** Room for what a task makes of the table. */
  readonly scratch: number;
  readonly grid: Laid;
  readonly way: Laid;
  readonly blocks: Laid;
  readonly list: { readonly at: number; readonly data: Int32Array };
  /** The matrix, and which unknowns the halves belong to. */
  readonly matrix: Laid;
  readonly halves: readonly [start: number, unknown: number, sign: number];
}

/** Lays out the memory and fills what does not change during a fill. */
function arena(kernel: Kernel, mesh: Mesh, plan: FillPlan, k: number, table: GroundTable | undefined): Arena {
  const { runs, image } = plan;
  const tasks = [...plan.direct, ...plan.below];
  const mostSlots = 1 + tasks.reduce((most, { slots }) => Math.max(most, slots), 0);
  const mostListed = tasks.reduce(
    (most, { lists, groundLists }) =>
      Math.max(most, ...FINENESSES.flatMap((one) => [lists[one].length, groundLists[one].length])),
    0,
  );
  const sets = (placed: Placed, fine: readonly Fineness[]) =>
    fine.map((one) => [one, samplesOf(placed, mesh.lengthM, k, SAMPLE_POINTS[one])] as const);
  // the ground's own terms need many samples of near pairs; waves are integrated exactly there
  const own = sets(mesh, table ? FINENESSES : ['middle', 'far']);
  const mirror = plan.below.length > 0 ? sets(image, ['middle', 'far']) : [];
  let next = kernel.base;
  const take = (bytes: number): number => {
    const at = next;
    next += (bytes + 15) & ~15;
    return at;
  };
  const placeOf = (groups: typeof own): { at: number; data: Float64Array; fineness: Fineness }[] =>
    groups.map(([fineness, { places }]) => ({ at: take(places.byteLength), data: places, fineness }));
  const [ownPlaces, imagePlaces] = [placeOf(own), placeOf(mirror)];
  const valueSets = own.map(([fineness, { values, perSegment }]) => {
    const size = perSegment * PER_SAMPLE;
    const data = new Float64Array(runs.length * size);
    runs.forEach(({ first }, r) => data.set(values.subarray(first * size, (first + 1) * size), r * size));
    return { fineness, at: take(data.byteLength), data, size };
  });
  const { halfStart, halfUnknown, halfSign, unknowns } = mesh;
  const halves = [take(halfStart.byteLength), take(halfUnknown.byteLength), take(halfSign.byteLength)] as const;
  const matrixAt = take(16 * unknowns * unknowns);
  const tableAt = take(table?.values.byteLength ?? 0);
  const scratch = take(table?.values.byteLength ?? 0);
  const [gridAt, wayAt, blocksAt, listAt] = [take(40), take(48), take(mostSlots * PER_BLOCK * 8), take(mostListed * 4)];
  const buffer = kernel.memory(next);
  for (const { at, data } of [...ownPlaces, ...imagePlaces, ...valueSets])
    new Float64Array(buffer, at, data.length).set(data);
  new Int32Array(buffer, halves[0], halfStart.length).set(halfStart);
  new Int32Array(buffer, halves[1], halfUnknown.length).set(halfUnknown);
  new Float64Array(buffer, halves[2], halfSign.length).set(halfSign);
  if (table) new Float64Array(buffer, tableAt, table.values.length).set(table.values);
  const places = (all: typeof ownPlaces): Record<Fineness, number> => {
    const at: Record<Fineness, number> = { near: 0, middle: 0, far: 0 };
    for (const one of all) at[one.fineness] = one.at;
    return at;
  };
  const values: Record<Fineness, readonly number[]> = { near: [], middle: [], far: [] };
  for (const { fineness, at, size } of valueSets) values[fineness] = runs.map((_, r) => at + r * size * 8);
  const laid = (at: number, length: number): Laid => ({ at, data: new Float64Array(buffer, at, length) });
  const grid = laid(gridAt, 5);
  if (table)
    grid.data.set([table.logLeast, 1 / table.logStep, table.angleLeast, 1 / table.angleStep, table.waveNumber]);
  return {
    ...{ own: places(ownPlaces), image: places(imagePlaces), values, table: tableAt, scratch, grid },
    ...{ way: laid(wayAt, 6), blocks: laid(blocksAt, mostSlots * PER_BLOCK) },
    list: { at: listAt, data: new Int32Array(buffer, listAt, mostListed) },
    ...{ matrix: laid(matrixAt, 2 * unknowns * unknowns), halves },
  };
}

/** Unknown between the first two segments of a run, where all inner ones follow it one by one and count along the run; else −1. */
function innerUnknown({ halfStart, halfUnknown, halfSign }: Mesh, { first, count }: Run): number {
  const start = halfUnknown[halfStart[2 * first + 1]];
  for (let m = 0; m < count - 1; m += 1)
    for (const half of [2 * (first + m) + 1, 2 * (first + m) + 2]) {
      const at = halfStart[half];
      if (halfStart[half + 1] - at !== 1 || halfUnknown[at] !== start + m || halfSign[at] !== 1) return -1;
    }
  return count > 1 ? start : -1;
}

/** Copies the upper triangle to the lower, in squares that stay in the cache. */
function mirrorDown(z: Float64Array, n: number): void {
  const SIDE = 32;
  for (let i0 = 0; i0 < n; i0 += SIDE)
    for (let j0 = 0; j0 <= i0; j0 += SIDE)
      for (let i = i0; i < Math.min(n, i0 + SIDE); i += 1)
        for (let j = j0; j < Math.min(i, j0 + SIDE); j += 1) {
          z[2 * (i * n + j)] = z[2 * (j * n + i)];
          z[2 * (i * n + j) + 1] = z[2 * (j * n + i) + 1];
        }
}

/** Adds what belongs to single segments: losses and insulation; then what stands above the diagonal is copied below it. */
export function finishMatrix(z: Float64Array, model: WireModel, mesh: Mesh, freqHz: number): void {
  const k = (2 * Math.PI * freqHz) / SPEED_OF_LIGHT_M_PER_S;
  const distributed = distributedTerms(model, mesh, freqHz, k);
  const own = new Float64Array(PER_BLOCK);
  const { halfStart, halfUnknown, halfSign, unknowns: n } = mesh;
  for (let p = 0; p < mesh.segments; p += 1) {
    own.fill(0);
    distributed(own, p);
    for (let c = 0; c < 4; c += 1) {
      const [hp, hq] = [2 * p + (c >> 1), 2 * p + (c & 1)];
      for (let u = halfStart[hp]; u < halfStart[hp + 1]; u += 1)
        for (let v = halfStart[hq]; v < halfStart[hq + 1]; v += 1) {
          if (halfUnknown[u] < halfUnknown[v]) continue;
          const s = halfSign[u] * halfSign[v];
          const at = 2 * (halfUnknown[v] * n + halfUnknown[u]);
          z[at] += s * own[2 * c];
          z[at + 1] += s * own[2 * c + 1];
        }
    }
  }
  mirrorDown(z, n);
}

/** What a fill may use and tell beside the matrix. */
export interface FillHelp {
  /** Blocks of earlier fills, which take in those of this one. */
  readonly blocks?: KeptBlocks;
  /** Sees the matrix twice, above its diagonal and without what belongs to single segments: with the direct waves alone, and with those from below. */
  readonly watch?: (matrix: Float64Array) => void;
}

/** A task with fewer integrated pairs is computed faster than looked up. */
const WORTH_KEEPING = 24;
/** A sweep fills at so many frequencies at least: blocks are kept when those of all have room. */
const FREQUENCIES_KEPT = 5;

/** Where blocks are kept, if all of a mesh find room there. */
function roomFor({ direct, below }: FillPlan, kept: KeptBlocks | undefined): KeptBlocks | undefined {
  const slots = [...direct, ...below].reduce((sum, task) => sum + task.slots, 0);
  return kept && FREQUENCIES_KEPT * 8 * PER_BLOCK * slots <= kept.mostBytes ? kept : undefined;
}

/**
 * Fills the impedance matrix as `fillImpedanceMatrix` does, with what repeats computed once and pairs of segments two at a time in a WebAssembly kernel.
 * @param z 2n² values, row-major [re, im, …]; overwritten
 * @param help blocks to be used again, and a look at the matrix on its way
 * @returns false, and nothing done, where there is no kernel
 */
export function fillByKernel(
  z: Float64Array,
  model: WireModel,
  mesh: Mesh,
  freqHz: number,
  table?: GroundTable,
  help: FillHelp = {},
): boolean {
  const kernel = kernelOnce();
  if (!kernel) return false;
  const { watch } = help;
  const k = (2 * Math.PI * freqHz) / SPEED_OF_LIGHT_M_PER_S;
  const plan = fillPlan(mesh, model.ground.type);
  const kept = roomFor(plan, help.blocks);
  const vector = (k * FREE_SPACE_IMPEDANCE_OHM) / (4 * Math.PI);
  const scalar = FREE_SPACE_IMPEDANCE_OHM / (4 * Math.PI * k);
  const [kqr, kqi] = imageFactor(model.ground, freqHz);
  const pair = new Float64Array(16);
  const { direction, lengthM, radiusM } = mesh;
  const memory = arena(kernel, mesh, plan, k, table);
  const integrate = (task: FillTask, fromBelow: boolean): void => {
    const [{ a, b }] = task.uses;
    const { blocks, list } = memory;
    blocks.data.fill(0, 0, (task.slots + 1) * PER_BLOCK);
    const [p3, q3] = [3 * a.first, 3 * b.first];
    const horizontal = direction[p3] * direction[q3] + direction[p3 + 1] * direction[q3 + 1];
    const vertical = direction[p3 + 2] * direction[q3 + 2];
    // weights of the parts along and across, as the image turns them
    const weights: readonly [number, number, number, number] = !fromBelow
      ? [horizontal + vertical, 0, 1, 0]
      : table
        ? [vertical * kqr, vertical * kqi, -kqr, -kqi]
        : [vertical - horizontal, 0, -1, 0];
    const [war, wai] = [vector * weights[0], vector * weights[1]];
    const [wdr, wdi] = [scalar * weights[2], scalar * weights[3]];
    const placedQ = fromBelow ? plan.image : mesh;
    const radiusSquared = 0.5 * (radiusM[a.first] ** 2 + radiusM[b.first] ** 2);
    const { near } = task.lists;
    for (let e = 0; e < near.length; e += PER_PAIR) {
      const [pi, qi, slot] = [near[e], near[e + 1], near[e + 2]];
      if (slot === task.slots) continue;
      const at = { p: mesh, pi, lengthP: lengthM[pi], q: placedQ, qi, lengthQ: lengthM[qi] };
      nearPairInto(pair, k, at, radiusSquared);
      for (let c = 0; c < PER_BLOCK; c += 2) {
        const re = war * pair[c] - wai * pair[c + 1] - (wdr * pair[8 + c] - wdi * pair[9 + c]);
        const im = war * pair[c + 1] + wai * pair[c] - (wdr * pair[9 + c] + wdi * pair[8 + c]);
        blocks.data[PER_BLOCK * slot + c] -= im;
        blocks.data[PER_BLOCK * slot + c + 1] += re;
      }
    }
    const [ra, rb] = [plan.runOf[a.first], plan.runOf[b.first]];
    for (const fineness of ['middle', 'far'] as const) {
      const chosen = task.lists[fineness];
      if (chosen.length === 0) continue;
      list.data.set(chosen);
      kernel.call.freePairs(
        ...[memory.own[fineness], (fromBelow ? memory.image : memory.own)[fineness]],
        ...[memory.values[fineness][ra], memory.values[fineness][rb], SAMPLE_POINTS[fineness].at.length, k],
        ...[list.at, chosen.length / PER_PAIR, blocks.at, war, wai, wdr, wdi],
      );
    }
    if (!fromBelow || !table) return;
    memory.way.data.set([...direction.subarray(p3, p3 + 3), ...direction.subarray(q3, q3 + 3)]);
    for (const fineness of FINENESSES) {
      const chosen = task.groundLists[fineness];
      if (chosen.length === 0) continue;
      list.data.set(chosen);
      kernel.call.groundPairs(
        ...[memory.own[fineness], memory.values[fineness][ra], memory.values[fineness][rb]],
        ...[SAMPLE_POINTS[fineness].at.length, list.at, chosen.length / PER_PAIR, blocks.at],
        ...[memory.table, table.rows, table.columns, memory.grid.at, memory.way.at, memory.scratch, vector, scalar],
      );
    }
  };
  const inner = plan.runs.map((run) => innerUnknown(mesh, run));
  const scatter = ({ uses, shape, self, from, to }: FillTask): void => {
    const { matrix, blocks, halves } = memory;
    for (const { a, b, flipA, flipB } of uses)
      kernel.call.scatter(
        ...[matrix.at, mesh.unknowns, blocks.at, SHAPES.indexOf(shape), Number(self), from, to],
        ...[a.count, b.count, a.first, b.first, Number(flipA), Number(flipB)],
        ...[inner[plan.runOf[a.first]], inner[plan.runOf[b.first]], ...halves],
      );
  };
  memory.matrix.data.fill(0);
  const over = `${freqHz} ${model.ground.type === 'real' ? table?.origin : model.ground.type}`;
  const fill = (task: FillTask, fromBelow: boolean): void => {
    const { lists, key } = task;
    const used = PER_BLOCK * task.slots;
    const keep = kept && key !== undefined && FINENESSES.some((one) => lists[one].length >= PER_PAIR * WORTH_KEEPING);
    const name = keep ? `${fromBelow ? over : freqHz}: ${key}` : '';
    const known = keep ? kept.get(name) : undefined;
    if (known) memory.blocks.data.set(known);
    else {
      integrate(task, fromBelow);
      if (keep) kept.set(name, memory.blocks.data.slice(0, used));
    }
    scatter(task);
  };
  for (const task of plan.direct) fill(task, false);
  watch?.(memory.matrix.data);
  for (const task of plan.below) fill(task, true);
  watch?.(memory.matrix.data);
  z.set(memory.matrix.data);
  finishMatrix(z, model, mesh, freqHz);
  return true;
}
