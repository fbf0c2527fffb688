import { wasmKernels, type WasmKernel } from '../numeric/wasm';
import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { ENTRIES_KERNEL } from './entries-wasm';
import { fillByKernel, finishMatrix, type FillHelp } from './fill-kernel';
import type { GroundTable } from './ground-table';
import type { Mesh } from './mesh';
import type { WireModel } from './model';

// named once: hot loops must not look them up on a global
const { abs, hypot, log, max } = Math;

type Kernel = WasmKernel<'turn' | 'between'>;
/** Each fit has a kernel of its own: the matrices stay in its memory. */
const anotherKernel = wasmKernels(ENTRIES_KERNEL, ['turn', 'between']);
/** Kernels of fits that were given back: a drag makes dozens of fits a second, and a new memory each time would cost more than it holds. */
const spare: Kernel[] = [];
const MOST_SPARE = 2;
/** Memory never gets smaller again: a larger one is not kept, bytes. */
const MOST_SPARE_BYTES = 32e6;

/** Matrices that a fit takes in at most; by then a smooth one is known to rounding. */
const MOST_NODES = 16;
/** Memory that the matrices of a sweep may take, bytes. */
const MOST_BYTES = 256e6;
/** Fewer than these do not follow a band: matrices so large are filled at every frequency. */
const LEAST_NODES = 5;
/** What most sweeps need. */
const USUAL_NODES = 8;
/** Planes of a node: direct waves and those from below, re and im. */
const PLANES = 4;

/** Bytes of ways, result and some nodes: of each the upper half, in planes. */
const fitBytes = (unknowns: number, nodes: number): number =>
  (8 * PLANES * (1 + nodes) * unknowns * (unknowns + 1)) / 2;
/** Memory that a fit takes in a usual sweep, bytes. */
export const entryFitBytes = ({ unknowns }: Pick<Mesh, 'unknowns'>): number =>
  fitBytes(unknowns, LEAST_NODES) > MOST_BYTES ? 0 : Math.min(MOST_BYTES, fitBytes(unknowns, USUAL_NODES));

/** Matrices of a model at some frequencies, and what lies between them. */
export interface EntryFit {
  /** Frequencies whose matrices are known. */
  readonly nodesHz: () => readonly number[];
  /**
   * Fills the matrix whole and takes it in.
   * @returns false, and nothing done, when the fit has no room for another
   */
  readonly takeIn: (z: Float64Array, freqHz: number, table?: GroundTable, help?: FillHelp) => boolean;
  /** Fills the matrix from those that are known: best between them. */
  readonly fillBetween: (z: Float64Array, freqHz: number) => void;
  /** How much worse than at a frequency where it was tried the fit can be at others: the polynomial whose zeros are the nodes, over its size there. */
  readonly worstOver: (triedHz: number, freqsHz: Iterable<number>) => number;
  /** Gives its memory to the next fit; this one is not to be asked any more. */
  readonly release: () => void;
}

/** How far each unknown current is from those after it, and from their images, m. */
function layWays(
  { start, direction, lengthM, halfUnknown, halfStart, segments, unknowns: n }: Mesh,
  direct: Float64Array,
  below: Float64Array,
): void {
  const place = new Float64Array(3 * n);
  for (let half = 0; half < 2 * segments; half += 1)
    for (let at = halfStart[half]; at < halfStart[half + 1]; at += 1)
      for (let axis = 0; axis < 3; axis += 1) {
        const p = half >> 1;
        const along = half % 2 === 0 ? 0 : lengthM[p];
        place[3 * halfUnknown[at] + axis] = start[3 * p + axis] + along * direction[3 * p + axis];
      }
  let e = 0;
  for (let i = 0; i < n; i += 1)
    for (let j = i; j < n; j += 1, e += 1) {
      const flat = hypot(place[3 * i] - place[3 * j], place[3 * i + 1] - place[3 * j + 1]);
      direct[e] = hypot(flat, place[3 * i + 2] - place[3 * j + 2]);
      below[e] = hypot(flat, place[3 * i + 2] + place[3 * j + 2]);
    }
}

/**
 * Interpolates matrix entries in frequency. With the phase of the way from current to current taken out, k·Z changes slowly: what is left turns by the
 * lengths of segments, not by those of the antenna. Direct waves and those from below have different ways, and are kept apart.
 * Source: E. H. Newman, "Generation of wide-band data from the method of moments by interpolating the impedance matrix", IEEE AP-36 (1988), from memory.
 * @returns undefined where there is no kernel, or not enough room
 */
export function entryFit(model: WireModel, mesh: Mesh): EntryFit | undefined {
  if (entryFitBytes(mesh) === 0) return undefined;
  const kernel = spare.pop() ?? anotherKernel();
  if (!kernel) return undefined;
  const n = mesh.unknowns;
  const entries = (n * (n + 1)) / 2;
  /** Entries of a plane: two at a time. */
  const length = entries + (entries % 2);
  const plane = 8 * length;
  const fromBelow = model.ground.type !== 'free';
  const waveNumber = (freqHz: number): number => (2 * Math.PI * freqHz) / SPEED_OF_LIGHT_M_PER_S;
  const nodes: { readonly freqHz: number; readonly x: number }[] = [];
  const sharesAt = kernel.base;
  const waysAt = sharesAt + 8 * MOST_NODES;
  const outAt = waysAt + 2 * plane;
  const nodesAt = outAt + 2 * plane;
  const view = (at: number): Float64Array => new Float64Array(kernel.memory(0), at, length);

  const takeIn: EntryFit['takeIn'] = (z, freqHz, table, help) => {
    const at = nodesAt + nodes.length * PLANES * plane;
    const end = at + PLANES * plane;
    if (nodes.length >= MOST_NODES || end > MOST_BYTES) return false;
    kernel.memory(end);
    if (nodes.length === 0) layWays(mesh, view(waysAt), view(waysAt + plane));
    const [directRe, directIm, belowRe, belowIm] = [0, 1, 2, 3].map((p) => view(at + p * plane));
    let looks = 0;
    const watch = (matrix: Float64Array): void => {
      looks += 1;
      let e = 0;
      for (let i = 0; i < n; i += 1)
        for (let from = 2 * i * (n + 1); from < 2 * (i + 1) * n; from += 2, e += 1)
          if (looks === 1) {
            directRe[e] = matrix[from];
            directIm[e] = matrix[from + 1];
          } else {
            belowRe[e] = matrix[from] - directRe[e];
            belowIm[e] = matrix[from + 1] - directIm[e];
          }
    };
    if (!fillByKernel(z, model, mesh, freqHz, table, { ...help, watch })) return false;
    const k = waveNumber(freqHz);
    kernel.call.turn(at, at + plane, waysAt, plane, k, k);
    if (fromBelow) kernel.call.turn(at + 2 * plane, at + 3 * plane, waysAt + plane, plane, k, k);
    nodes.push({ freqHz, x: log(freqHz) });
    return true;
  };

  const fillBetween: EntryFit['fillBetween'] = (z, freqHz) => {
    const k = waveNumber(freqHz);
    const x = log(freqHz);
    new Float64Array(kernel.memory(0), sharesAt, MOST_NODES).set(
      nodes.map(({ x: own }, i) =>
        nodes.reduce((share, { x: other }, j) => (i === j ? share : (share * (x - other)) / (own - other)), 1 / k),
      ),
    );
    kernel.call.between(outAt, nodesAt, nodes.length, sharesAt, waysAt, plane, k, fromBelow ? 1 : 0);
    const [re, im] = [view(outAt), view(outAt + plane)];
    let e = 0;
    for (let i = 0; i < n; i += 1)
      for (let at = 2 * i * (n + 1); at < 2 * (i + 1) * n; at += 2, e += 1) {
        z[at] = re[e];
        z[at + 1] = im[e];
      }
    finishMatrix(z, model, mesh, freqHz);
  };

  const zeros = (x: number): number => nodes.reduce((product, node) => product * abs(x - node.x), 1);
  const worstOver: EntryFit['worstOver'] = (triedHz, freqsHz) => {
    let worst = 0;
    for (const freqHz of freqsHz) worst = max(worst, zeros(log(freqHz)));
    return worst / zeros(log(triedHz));
  };
  const release = (): void => {
    if (spare.length < MOST_SPARE && kernel.memory(0).byteLength <= MOST_SPARE_BYTES) spare.push(kernel);
  };
  return { nodesHz: () => nodes.map(({ freqHz }) => freqHz), takeIn, fillBetween, worstOver, release };
}
