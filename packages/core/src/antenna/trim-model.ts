import { NotConvergedError, OutOfRangeError } from '../errors';
import { reflectionOf, swrOf } from '../line/reflection';
import { magnitude } from '../numeric/complex';
import { gainRatio } from '../solver/far-field';
import { meshOf } from '../solver/mesh';
import type { Ground } from '../solver/model';
import { inputImpedance, solveAt, type Solution } from '../solver/solve';
import { powerDb } from '../units/decibel';
import { dimensionsOf } from './dimensions';
import type { Design } from './kind';
import { antennaKind, checkDesign, wireModel } from './kinds';

/** A step of a search: the best design so far and how good it is (smaller is better). */
export interface TrimProgress {
  readonly design: Design;
  readonly score: number;
  readonly evaluations: number;
}

const solved = (design: Design, ground: Ground, freqHz: number): Solution => {
  const model = wireModel(design, ground);
  return solveAt(model, meshOf(model, freqHz), freqHz);
};
const withDimension = (design: Design, id: string, value: number): Design => ({
  ...design,
  dimensions: { ...design.dimensions, [id]: value },
});

/**
 * Trims the kind's own length until the model's reactance vanishes at the design frequency: secant rule from the closed-form start, steps
 * of at most 8 %. Deterministic; a generator, so that it can be stopped.
 * @throws OutOfRangeError for a kind that is not trimmed; NotConvergedError when no such length is near.
 */
export function* trimToResonance(design: Design, ground: Ground): Generator<TrimProgress, Design> {
  const kind = antennaKind(design.kind);
  if (!kind.trim) throw new OutOfRangeError(`A ${kind.name.toLowerCase()} is not trimmed to a resonance.`);
  const { id } = kind.trim;
  const reactance = (value: number): number =>
    inputImpedance(solved(withDimension(design, id, value), ground, design.freqHz)).im;
  let evaluations = 1;
  let before = dimensionsOf(kind.parameters, design)[id];
  let xBefore = reactance(before);
  let now = before * (xBefore > 0 ? 0.99 : 1.01);
  for (let round = 0; round < 25; round += 1) {
    const x = reactance(now);
    evaluations += 1;
    const trimmed = withDimension(design, id, now);
    yield { design: trimmed, score: Math.abs(x), evaluations };
    if (Math.abs(x) < 0.05 || Math.abs(now - before) < 1e-6 * now) {
      checkDesign(trimmed);
      return trimmed;
    }
    const slope = (x - xBefore) / (now - before);
    const step = slope === 0 ? 0.02 * now : -x / slope;
    before = now;
    xBefore = x;
    now += Math.max(-0.08 * now, Math.min(0.08 * now, step));
  }
  throw new NotConvergedError('The trimming of the model', Math.abs(xBefore));
}

/** What a design should reach; weights say how much each matters. 0 leaves a goal out. */
export interface DesignGoals {
  readonly lowHz: number;
  readonly highHz: number;
  /** Worst SWR over the band, against 50 Ω. */
  readonly swrWeight: number;
  /** Gain forward (+x) at an elevation, dBi. */
  readonly gainWeight: number;
  readonly frontToBackWeight: number;
  readonly elevationDeg: number;
}

/** Frequencies at which goals are looked at: both edges and the middle. */
const goalFrequencies = ({ lowHz, highHz }: DesignGoals): readonly number[] =>
  highHz > lowHz * 1.001 ? [lowHz, Math.sqrt(lowHz * highHz), highHz] : [lowHz];

/** Smaller is better: excess SWR in dB of mismatch, minus gain and front-to-back in dB, by weight. */
function scoreOf(design: Design, ground: Ground, goals: DesignGoals): number {
  try {
    checkDesign(design);
    let score = 0;
    let worst = 0;
    const frequencies = goalFrequencies(goals);
    for (const freqHz of frequencies) {
      const s = solved(design, ground, freqHz);
      worst = Math.max(worst, magnitude(reflectionOf(inputImpedance(s), 50)));
      if (goals.gainWeight === 0 && goals.frontToBackWeight === 0) continue;
      const gain = gainRatio(s);
      const forward = powerDb(Math.max(1e-9, gain(0, goals.elevationDeg)));
      const back = powerDb(Math.max(1e-9, gain(180, goals.elevationDeg)));
      score -=
        (goals.gainWeight * forward + goals.frontToBackWeight * Math.min(30, forward - back)) / frequencies.length;
    }
    // |Γ| in dB: SWR 2 counts −9.5, SWR 1.2 −20.8; better than that earns nothing more
    return score + goals.swrWeight * Math.max(-25, 2 * powerDb(Math.max(1e-4, worst)));
  } catch (error) {
    if (error instanceof OutOfRangeError) return 1e6; // beyond what can be built
    throw error;
  }
}

/**
 * Changes chosen dimensions until the goals are met as well as they can be: the simplex of Nelder & Mead from the present dimensions,
 * first steps of 3 %. Deterministic; yields after every evaluation, so that it can be stopped within one solve.
 * @param ids parameters to change, 1 to 6. @param evaluations most solves of all frequencies.
 * @returns the best design met.
 */
export function* optimiseDesign(
  design: Design,
  ground: Ground,
  ids: readonly string[],
  goals: DesignGoals,
  evaluations = 120,
): Generator<TrimProgress, Design> {
  const kind = antennaKind(design.kind);
  if (ids.length === 0 || ids.length > 6) throw new OutOfRangeError('Choose one to six dimensions to change.');
  const values = dimensionsOf(kind.parameters, design);
  const place = (x: readonly number[]): Design => ({
    ...design,
    dimensions: { ...design.dimensions, ...Object.fromEntries(ids.map((id, i) => [id, values[id] * Math.exp(x[i])])) },
  });
  let count = 0;
  let best = { x: ids.map(() => 0), score: Infinity };
  const score = function* (x: readonly number[]): Generator<TrimProgress, number> {
    const value = scoreOf(place(x), ground, goals);
    count += 1;
    if (value < best.score) best = { x: [...x], score: value };
    yield { design: place(best.x), score: best.score, evaluations: count };
    return value;
  };
  const simplex: { x: number[]; y: number }[] = [];
  for (let i = -1; i < ids.length; i += 1) {
    const x = ids.map((_, j) => (j === i ? 0.03 : 0));
    simplex.push({ x, y: yield* score(x) });
  }
  while (count < evaluations) {
    simplex.sort((a, b) => a.y - b.y);
    const last = simplex[simplex.length - 1];
    const spread = Math.max(...simplex.map((p) => Math.max(...p.x.map((v, j) => Math.abs(v - simplex[0].x[j])))));
    if (spread < 1e-5) break;
    const centre = ids.map((_, j) => simplex.slice(0, -1).reduce((sum, p) => sum + p.x[j], 0) / ids.length);
    const along = (t: number): number[] => centre.map((c, j) => c + t * (last.x[j] - c));
    const mirrored = along(-1);
    const y = yield* score(mirrored);
    if (y < simplex[0].y) {
      const far = along(-2);
      const yFar = yield* score(far);
      simplex[simplex.length - 1] = yFar < y ? { x: far, y: yFar } : { x: mirrored, y };
    } else if (y < simplex[simplex.length - 2].y) simplex[simplex.length - 1] = { x: mirrored, y };
    else {
      const near = along(y < last.y ? -0.5 : 0.5);
      const yNear = yield* score(near);
      if (yNear < Math.min(y, last.y)) simplex[simplex.length - 1] = { x: near, y: yNear };
      else
        for (let i = 1; i < simplex.length; i += 1) {
          const x = simplex[i].x.map((v, j) => (v + simplex[0].x[j]) / 2);
          simplex[i] = { x, y: yield* score(x) };
        }
    }
  }
  return place(best.x);
}

/** SWR of a design's model at a frequency on 50 Ω; null for a total reflection. */
export const modelSwr = (design: Design, ground: Ground, freqHz: number): number | null =>
  swrOf(magnitude(reflectionOf(inputImpedance(solved(design, ground, freqHz)), 50)));
