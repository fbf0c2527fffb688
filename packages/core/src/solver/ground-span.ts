import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import {
  groundTable,
  isGroundKnown,
  logStepFor,
  type GroundTable,
  type RealGround,
  type TableRange,
} from './ground-table';
import { imageRange } from './images';
import type { Mesh } from './mesh';
import type { WireModel } from './model';

/** Tables of a ground that are not known, and that somebody is about to compute one after the other. */
export interface GroundNeed {
  readonly ground: RealGround;
  readonly range: TableRange;
  readonly logStep: number;
  readonly freqsHz: readonly number[];
}

/** Computes one of the tables for whoever needs it: its cells are then known here, and fresh. */
export function computeGround({ ground, range, logStep, freqsHz }: GroundNeed, index: number): void {
  groundTable(ground, freqsHz[index], range, logStep);
}

/** The ground over a span of frequencies: its table at each, and the largest relative error seen between those that were computed. */
export interface GroundSpan {
  readonly at: (freqHz: number) => GroundTable | undefined;
  readonly error: number;
}

/** Share of the largest value that an interpolated table may be off. */
const ALLOWED = 3e-4;
/** Intervals of the finest set of nodes. */
const MOST_INTERVALS = 16;

/** Chebyshev–Lobatto node i of n intervals in −1..1: with twice the intervals every second is one of these. */
const lobatto = (i: number, intervals: number): number => -Math.cos((Math.PI * i) / intervals);

/** Shares of the tables at the nodes in a table at x, by the barycentric formula. Source: Berrut & Trefethen, SIAM Review 46 (2004). */
function sharesAt(x: number, intervals: number): readonly number[] {
  const nodes = Array.from({ length: intervals + 1 }, (_, i) => lobatto(i, intervals));
  const exact = nodes.findIndex((node) => Math.abs(node - x) < 1e-12);
  if (exact >= 0) return nodes.map((_, i) => (i === exact ? 1 : 0));
  const parts = nodes.map((node, i) => ((i % 2 === 0 ? 1 : -1) * (i === 0 || i === intervals ? 0.5 : 1)) / (x - node));
  const sum = parts.reduce((a, b) => a + b);
  return parts.map((part) => part / sum);
}

/**
 * Ground tables for any frequency of a span: computed at Chebyshev–Lobatto nodes of log f for one range of places, interpolated between. Where the table
 * at a node of the next finer set disagrees, that set is taken, which has all tables so far among its own. A generator: it says what it needs before it
 * computes, and can be left between tables.
 */
export function* groundOverSpan(
  { ground }: WireModel,
  mesh: Mesh,
  lowHz: number,
  highHz: number,
): Generator<GroundNeed, GroundSpan> {
  if (ground.type !== 'real') return { at: () => undefined, error: 0 };
  const range = imageRange(mesh);
  const logStep = logStepFor(ground, highHz, range);
  const wave = (freqHz: number): number => (2 * Math.PI * freqHz) / SPEED_OF_LIGHT_M_PER_S;
  const middle = (Math.log(highHz) + Math.log(lowHz)) / 2;
  const half = (Math.log(highHz) - Math.log(lowHz)) / 2;
  if (highHz / lowHz < 1.0005) {
    const only = groundTable(ground, Math.exp(middle), range, logStep);
    return { at: (freqHz) => ({ ...only, waveNumber: wave(freqHz) }), error: 0 };
  }
  // a span too wide for a coarse set would agree there by chance
  let intervals = 1;
  while (intervals < 1 + 2 * half) intervals *= 2;
  for (; ; intervals *= 2) {
    const freqOf = (i: number, of: number): number => Math.exp(middle + half * lobatto(i, of));
    // beside the middle, where the next finer set has a node
    const probeHz = freqOf(intervals + 1 - (intervals > 1 ? 0 : 1), 2 * intervals);
    const freqsHz = [...Array.from({ length: intervals + 1 }, (_, i) => freqOf(i, intervals)), probeHz];
    // S in units of the free-space wavenumber does not vanish at k → 0; F = R·S·e^{jkR} is tabulated per frequency as it is
    const tables: GroundTable[] = [];
    for (const freqHz of freqsHz) {
      const unknown = freqsHz.slice(tables.length).filter((one) => !isGroundKnown(ground, one, range, logStep));
      if (unknown[0] === freqHz) yield { ground, range, logStep, freqsHz: unknown };
      tables.push(groundTable(ground, freqHz, range, logStep));
    }
    const nodes = tables.slice(0, -1);
    const at = (freqHz: number): GroundTable => {
      const shares = sharesAt((Math.log(freqHz) - middle) / half, intervals);
      const values = new Float64Array(nodes[0].values.length);
      nodes.forEach((table, t) => {
        const share = shares[t];
        if (share !== 0) for (let i = 0; i < values.length; i += 1) values[i] += share * table.values[i];
      });
      const origin = `${freqHz} of ${intervals} from ${lowHz} to ${highHz}: ${nodes[0].origin}`;
      return { ...nodes[0], origin, waveNumber: wave(freqHz), values };
    };
    const found = at(probeHz).values;
    let off = 0;
    let size = 0;
    tables[tables.length - 1].values.forEach((value, i) => {
      if (Number.isNaN(value)) return; // no place looks there
      off = Math.max(off, Math.abs(value - found[i]));
      size = Math.max(size, Math.abs(value));
    });
    if (off <= ALLOWED * size || intervals >= MOST_INTERVALS) return { at, error: off / size };
  }
}
