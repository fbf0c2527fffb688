import { reflectionOf } from '../line/reflection';
import type { Complex } from '../numeric/complex';
import { entryFit } from './entry-fit';
import { fillPlan } from './fill-plan';
import type { GroundSpan } from './ground-span';
import type { KeptBlocks } from './kept-blocks';
import type { Mesh } from './mesh';
import type { WireModel } from './model';
import { fillWith, inputImpedance, solveAt, type Factor, type Fill } from './solve';

const REFERENCE_OHM = 50;
/** Matrices are interpolated when that moves the reflection coefficient by less than this share of what is allowed, at its worst. */
const SHARE_OF_MATRICES = 0.1;
/** Matrices that are filled before one is tried between them. */
const FIRST_MATRICES = 3;
/** Where at least this share of the pairs is integrated one by one a matrix is interpolated faster than filled: without ground, and over it. */
const WORTH_INTERPOLATING = { free: 0.15, over: 0.05 };
/** Frequencies at which the worst place of an interpolation is looked for. */
const LOOKS = 400;

/** Distance of the reflection coefficients of two impedances on 50 Ω. */
export function reflectionsApart(a: Complex, b: Complex): number {
  const [ga, gb] = [reflectionOf(a, REFERENCE_OHM), reflectionOf(b, REFERENCE_OHM)];
  const off = Math.hypot(ga.re - gb.re, ga.im - gb.im);
  return Number.isFinite(off) ? off : 2;
}

interface SweepSolver {
  /** Impedance at a frequency. @param whole the matrix is filled there, whatever is known of others */
  readonly solve: (freqHz: number, whole?: boolean) => Complex;
  /** Solves whose matrix was interpolated. */
  readonly interpolated: () => number;
  /** Frees what it holds; it is not to be asked any more. */
  readonly release: () => void;
  /** Most that interpolated matrices move the reflection coefficient; 0 where none was. */
  readonly error: () => number;
}

/** Solves a mesh at frequencies of a sweep; once matrices are known well enough others are interpolated between them. */
export function sweepSolver(
  model: WireModel,
  mesh: Mesh,
  {
    freqHz,
    tolerance,
    ground,
    factor,
    blocks,
  }: {
    /** Frequencies that may be asked. */
    readonly freqHz: Float64Array;
    readonly tolerance: number;
    readonly ground: GroundSpan;
    readonly factor?: Factor | undefined;
    readonly blocks?: KeptBlocks | undefined;
  },
): SweepSolver {
  const { integrated, pairs } = fillPlan(mesh, model.ground.type);
  const worth = WORTH_INTERPOLATING[model.ground.type === 'free' ? 'free' : 'over'];
  const matrices = integrated >= worth * pairs ? entryFit(model, mesh) : undefined;
  const looks = freqHz.filter((_, i) => i % Math.ceil(freqHz.length / LOOKS) === 0);
  let interpolated = 0;
  /** Undefined until it is little. */
  let error: number | undefined;
  const by = (f: number, fill: Fill): Complex =>
    inputImpedance(solveAt(model, mesh, f, { table: () => ground.at(f), fill, ...(factor ? { factor } : {}) }));
  const fillWhole: Fill = (...asked) => {
    const [z, , , f, table] = asked;
    if (!matrices?.takeIn(z, f, table(), { blocks })) fillWith({ blocks })(...asked);
  };
  const solve = (f: number, whole = false): Complex => {
    if (!matrices) return by(f, fillWhole);
    const between = (): Complex => by(f, (z) => matrices.fillBetween(z, f));
    if (error !== undefined && !whole) {
      interpolated += 1;
      return between();
    }
    if (matrices.nodesHz().length < FIRST_MATRICES) return by(f, fillWhole);
    // tried before the matrix of this frequency is taken in
    const tried = between();
    const worse = Math.max(1, matrices.worstOver(f, looks));
    const found = by(f, fillWhole);
    const off = worse * reflectionsApart(tried, found);
    if (error !== undefined) error = Math.max(error, off);
    else if (off < SHARE_OF_MATRICES * tolerance) error = off;
    return found;
  };
  return {
    solve,
    interpolated: () => interpolated,
    error: () => (interpolated > 0 ? (error ?? 0) : 0),
    release: () => matrices?.release(),
  };
}
