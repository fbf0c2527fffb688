import { NotConvergedError, requireRange } from '../errors';
import type { Complex } from '../numeric/complex';
import { aaa, type Rational } from '../numeric/rational';
import { groundOverSpan, type GroundNeed } from './ground-span';
import type { KeptBlocks } from './kept-blocks';
import { meshOf } from './mesh';
import type { WireModel } from './model';
import type { Factor } from './solve';
import { reflectionsApart, sweepSolver } from './sweep-solver';

/** Impedance of a port over frequency, computed at few frequencies and interpolated between them. */
export interface ModelSweep {
  readonly freqHz: Float64Array;
  /** Ω. */
  readonly resistance: Float64Array;
  readonly reactance: Float64Array;
  /** Frequencies at which the wires were really solved. */
  readonly solvedHz: readonly number[];
  /** For so many of them the matrix was interpolated between those of the others. */
  readonly interpolated: number;
  /** Largest error of the reflection coefficient on 50 Ω between them, as seen where two fits differed most; what interpolating ground and matrices adds is included. */
  readonly errorBound: number;
  readonly remarks: readonly string[];
}

/** How far a long computation is, 0 to 1. */
export interface Progress {
  readonly share: number;
}

/** A fit counts as good when twice in a row the worst disagreement with the one before stays below this. One agreement can be chance. */
const CONFIRMATIONS = 2;
/** The first samples, of five across the band: the ends, the middle, then what lies between. */
const FIRST_ORDER = [0, 4, 2, 1, 3];
const FIRST_SAMPLES = FIRST_ORDER.length;
const MAX_SAMPLES = 60;

/**
 * Sweeps a model: solves where two successive rational fits differ most, until they agree twice. A generator, so that its caller can
 * show progress, have ground tables made elsewhere too, and stop between solves; the last value is the sweep.
 * @param tolerance allowed error of the reflection coefficient (0.001 is 0.1 %).
 * @throws NotConvergedError after 60 solves.
 */
export function* sweepModel(
  model: WireModel,
  { lowHz, highHz, points }: { readonly lowHz: number; readonly highHz: number; readonly points: number },
  {
    tolerance = 0.001,
    factor,
    density = 1,
    blocks,
  }: {
    readonly tolerance?: number;
    readonly factor?: Factor;
    readonly density?: number;
    /** Blocks of sweeps before this one: parts that did not move are not computed again. */
    readonly blocks?: KeptBlocks;
  } = {},
): Generator<Progress | GroundNeed, ModelSweep> {
  requireRange(lowHz, 'Lowest frequency (Hz)', 1);
  requireRange(highHz, 'Highest frequency (Hz)', lowHz * (1 + 1e-9));
  requireRange(points, 'Number of points', 2, 200_001);
  const mesh = meshOf(model, highHz, density);
  yield { share: 0.02 };
  const ground = yield* groundOverSpan(model, mesh, lowHz, highHz);
  const freqHz = Float64Array.from({ length: points }, (_, i) => lowHz + ((highHz - lowHz) * i) / (points - 1));
  const scaled = (f: number): number => (2 * f - lowHz - highHz) / (highHz - lowHz);
  const known: { x: number; f: number; z: Complex }[] = [];
  const solver = sweepSolver(model, mesh, { freqHz, tolerance, ground, factor, blocks });
  const solve = (f: number, whole = false): Complex => {
    const z = solver.solve(f, whole);
    known.push({ x: scaled(f), f, z });
    return z;
  };
  const taken = (f: number): boolean => known.some((one) => one.f === f);
  // the first samples lie on the grid, closer together at the ends
  for (const i of FIRST_ORDER) {
    const share = (1 - Math.cos((Math.PI * i) / (FIRST_SAMPLES - 1))) / 2;
    const f = freqHz[Math.round(share * (points - 1))];
    if (!taken(f)) solve(f);
    yield { share: 0.05 + (0.2 * known.length) / FIRST_SAMPLES };
  }
  const fit = (): Rational =>
    aaa(
      known.map((one) => one.x),
      known.map((one) => one.z),
    );
  let previous = fit();
  let agreed = 0;
  let seen: number[] = [];
  for (;;) {
    // the next solve goes where it tells most: half way into the widest gap at first, then where two fits disagree
    let at = -1;
    let worst = -1;
    const latest = fit();
    for (let i = 0; i < points; i += 1) {
      if (taken(freqHz[i])) continue;
      const off = reflectionsApart(previous(scaled(freqHz[i])), latest(scaled(freqHz[i])));
      if (off > worst) {
        worst = off;
        at = i;
      }
    }
    if (at < 0) break; // every point was solved
    if (worst < tolerance / 4) {
      // fits agree everywhere: probe the widest unsolved gap, where a resonance could still hide
      const sorted = known.map((one) => one.f).sort((a, b) => a - b);
      let widest = 0;
      for (let i = 1; i < sorted.length; i += 1) {
        const gap = sorted[i] - sorted[i - 1];
        if (gap <= widest) continue;
        const index = Math.round(((sorted[i] + sorted[i - 1]) / 2 - lowHz) / ((highHz - lowHz) / (points - 1)));
        if (taken(freqHz[index])) continue;
        widest = gap;
        at = index;
      }
    }
    const guess = latest(scaled(freqHz[at]));
    previous = latest;
    // the solve that confirms is whole: it also tells whether interpolated matrices led the fit astray
    const off = reflectionsApart(guess, solve(freqHz[at], agreed === CONFIRMATIONS - 1));
    seen = [...seen.slice(-(CONFIRMATIONS - 1)), Math.max(off, Math.min(worst, 2))];
    agreed = off < tolerance / 2 && worst < tolerance ? agreed + 1 : 0;
    yield { share: Math.min(0.98, 0.25 + (0.7 * (known.length - FIRST_SAMPLES)) / 24) };
    if (agreed >= CONFIRMATIONS) break;
    if (known.length >= MAX_SAMPLES) throw new NotConvergedError('The sweep of the wires', worst);
  }
  solver.release();
  const rational = fit();
  const z = Array.from(freqHz, (f) => rational(scaled(f)));
  return {
    freqHz,
    resistance: Float64Array.from(z, (one) => one.re),
    reactance: Float64Array.from(z, (one) => one.im),
    solvedHz: known.map((one) => one.f).sort((a, b) => a - b),
    interpolated: solver.interpolated(),
    errorBound: Math.max(...seen, 1e-6) + ground.error + solver.error(),
    remarks: mesh.remarks,
  };
}

/** Runs a generator to its end. */
export function finish<T>(steps: Generator<unknown, T>): T {
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}
