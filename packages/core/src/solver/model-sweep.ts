import { NotConvergedError, requireRange } from '../errors';
import { reflectionOf } from '../line/reflection';
import type { Complex } from '../numeric/complex';
import { aaa, type Rational } from '../numeric/rational';
import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { imageRange } from './images';
import { meshOf, type Mesh } from './mesh';
import type { WireModel } from './model';
import { inputImpedance, solveAt, type Factor } from './solve';
import { groundTable, logStepFor, type GroundTable } from './ground-table';

/** Impedance of a port over frequency, computed at few frequencies and interpolated between them. */
export interface ModelSweep {
  readonly freqHz: Float64Array;
  /** Ω. */
  readonly resistance: Float64Array;
  readonly reactance: Float64Array;
  /** Frequencies at which the wires were really solved. */
  readonly solvedHz: readonly number[];
  /** Largest error of the reflection coefficient on 50 Ω between them, as seen where two fits differed most; ground interpolation included. */
  readonly errorBound: number;
  readonly remarks: readonly string[];
}

/** How far a long computation is, 0 to 1. */
export interface Progress {
  readonly share: number;
}

const REFERENCE_OHM = 50;
/** A fit counts as good when twice in a row the worst disagreement with the one before stays below this. One agreement can be chance. */
const CONFIRMATIONS = 2;
const FIRST_SAMPLES = 5;
const MAX_SAMPLES = 60;

/**
 * Ground tables for any frequency of a span: computed at Chebyshev nodes of log f for one range of places, interpolated between. More
 * nodes are taken until a table computed in the middle agrees.
 * @returns the table at a frequency, and the largest relative error seen.
 */
export function groundTables(
  model: WireModel,
  mesh: Mesh,
  lowHz: number,
  highHz: number,
): { readonly at: (freqHz: number) => GroundTable | undefined; readonly error: number } {
  const { ground } = model;
  if (ground.type !== 'real') return { at: () => undefined, error: 0 };
  const range = imageRange(mesh);
  const logStep = logStepFor(ground, highHz, range);
  const direct = (freqHz: number): GroundTable => groundTable(ground, freqHz, range, logStep);
  const wave = (freqHz: number): number => (2 * Math.PI * freqHz) / SPEED_OF_LIGHT_M_PER_S;
  if (highHz / lowHz < 1.0005) {
    const only = direct(Math.sqrt(lowHz * highHz));
    return { at: (freqHz) => ({ ...only, waveNumber: wave(freqHz) }), error: 0 };
  }
  const middle = (Math.log(highHz) + Math.log(lowHz)) / 2;
  const half = (Math.log(highHz) - Math.log(lowHz)) / 2;
  const interpolant = (count: number): ((freqHz: number) => GroundTable) => {
    const angles = Array.from({ length: count }, (_, i) => (Math.PI * (2 * i + 1)) / (2 * count));
    const nodes = angles.map(Math.cos);
    const weights = angles.map((angle, i) => (i % 2 === 0 ? 1 : -1) * Math.sin(angle));
    // S in units of the free-space wavenumber does not vanish at k → 0; F = R·S·e^{jkR} is tabulated per frequency as it is
    const tables = nodes.map((x) => direct(Math.exp(middle + half * x)));
    return (freqHz) => {
      const x = (Math.log(freqHz) - middle) / half;
      const exact = nodes.findIndex((node) => Math.abs(node - x) < 1e-12);
      const shares =
        exact >= 0 ? nodes.map((_, i) => (i === exact ? 1 : 0)) : nodes.map((node, i) => weights[i] / (x - node));
      const sum = shares.reduce((a, b) => a + b);
      const values = new Float64Array(tables[0].values.length);
      tables.forEach((table, t) => {
        const share = shares[t] / sum;
        for (let i = 0; i < values.length; i += 1) values[i] += share * table.values[i];
      });
      return { ...tables[0], waveNumber: wave(freqHz), values };
    };
  };
  let count = Math.max(2, Math.ceil(1.8 + 3.2 * half));
  for (;;) {
    const at = interpolant(count);
    const probe = Math.exp(middle + half * 0.31 * Math.cos(Math.PI / count));
    const [found, wanted] = [at(probe).values, direct(probe).values];
    let off = 0;
    let size = 0;
    wanted.forEach((value, i) => {
      if (Number.isNaN(value)) return; // no place looks there
      off = Math.max(off, Math.abs(value - found[i]));
      size = Math.max(size, Math.abs(value));
    });
    if (off <= 3e-4 * size || count >= 14) return { at, error: off / size };
    count += 2;
  }
}

/**
 * Sweeps a model: solves where two successive rational fits differ most, until they agree twice. A generator, so that its caller can
 * show progress and stop between solves; the last value is the sweep.
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
  }: { readonly tolerance?: number; readonly factor?: Factor; readonly density?: number } = {},
): Generator<Progress, ModelSweep> {
  requireRange(lowHz, 'Lowest frequency (Hz)', 1);
  requireRange(highHz, 'Highest frequency (Hz)', lowHz * (1 + 1e-9));
  requireRange(points, 'Number of points', 2, 200_001);
  const mesh = meshOf(model, highHz, density);
  yield { share: 0.02 };
  const ground = groundTables(model, mesh, lowHz, highHz);
  const freqHz = Float64Array.from({ length: points }, (_, i) => lowHz + ((highHz - lowHz) * i) / (points - 1));
  const scaled = (f: number): number => (2 * f - lowHz - highHz) / (highHz - lowHz);
  const known: { x: number; f: number; z: Complex }[] = [];
  const solve = (f: number): Complex => {
    const z = inputImpedance(solveAt(model, mesh, f, { table: ground.at(f), ...(factor ? { factor } : {}) }));
    known.push({ x: scaled(f), f, z });
    return z;
  };
  // the first samples lie on the grid, closer together at the ends
  for (let i = 0; i < FIRST_SAMPLES; i += 1) {
    const share = (1 - Math.cos((Math.PI * i) / (FIRST_SAMPLES - 1))) / 2;
    solve(freqHz[Math.round(share * (points - 1))]);
    yield { share: 0.05 + (0.2 * i) / FIRST_SAMPLES };
  }
  const fit = (): Rational =>
    aaa(
      known.map((one) => one.x),
      known.map((one) => one.z),
    );
  const taken = (f: number): boolean => known.some((one) => one.f === f);
  const gamma = (z: Complex): Complex => reflectionOf(z, REFERENCE_OHM);
  const apart = (a: Complex, b: Complex): number => {
    const [ga, gb] = [gamma(a), gamma(b)];
    const off = Math.hypot(ga.re - gb.re, ga.im - gb.im);
    return Number.isFinite(off) ? off : 2;
  };
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
      const off = apart(previous(scaled(freqHz[i])), latest(scaled(freqHz[i])));
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
    const off = apart(guess, solve(freqHz[at]));
    seen = [...seen.slice(-(CONFIRMATIONS - 1)), Math.max(off, Math.min(worst, 2))];
    agreed = off < tolerance / 2 && worst < tolerance ? agreed + 1 : 0;
    yield { share: Math.min(0.98, 0.25 + (0.7 * (known.length - FIRST_SAMPLES)) / 24) };
    if (agreed >= CONFIRMATIONS) break;
    if (known.length >= MAX_SAMPLES) throw new NotConvergedError('The sweep of the wires', worst);
  }
  const rational = fit();
  const z = Array.from(freqHz, (f) => rational(scaled(f)));
  return {
    freqHz,
    resistance: Float64Array.from(z, (one) => one.re),
    reactance: Float64Array.from(z, (one) => one.im),
    solvedHz: known.map((one) => one.f).sort((a, b) => a - b),
    errorBound: Math.max(...seen, 1e-6) + ground.error,
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
