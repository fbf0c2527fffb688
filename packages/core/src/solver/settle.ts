import { reflectionOf } from '../line/reflection';
import { meshOf } from './mesh';
import { inputImpedance, solveAt, type Solution } from './solve';

/** A mesh counts as settled when a finer one moves the reflection coefficient (50 Ω) by no more than this. */
const SETTLED = 0.01;
const REFINEMENT = 1.6;
/** Meshes beyond this are not refined further: the answer would be late. */
const MOST_SETTLED_SEGMENTS = 500;
const MOST_DENSITY = 5;

/** A solution whose mesh was made finer until the answer stayed. */
interface Settled {
  readonly solution: Solution;
  /** Factor on the number of segments that was needed; 1: the first mesh had settled. */
  readonly density: number;
  /** How far |Γ| still moves on a mesh 1.6 times finer; above 0.01 only where the mesh was as fine as it may be. */
  readonly movement: number;
}

/**
 * Makes the mesh of a solution 1.6 times finer until its reflection coefficient stays. Tips that face each other across a small gap need it: their
 * coupling is only as good as the segments beside the gap. Every door to the solver takes this one answer. A generator, so that its caller can stop.
 */
export function* settle(first: Solution): Generator<{ readonly density: number }, Settled> {
  const { model, freqHz } = first;
  let solution = first;
  let density = 1;
  for (;;) {
    const finer = density * REFINEMENT;
    const fine = solveAt(model, meshOf(model, freqHz, finer), freqHz);
    const [a, b] = [solution, fine].map((one) => reflectionOf(inputImpedance(one), 50));
    const movement = Math.hypot(a.re - b.re, a.im - b.im);
    if (movement <= SETTLED || fine.mesh.segments > MOST_SETTLED_SEGMENTS || finer > MOST_DENSITY)
      return { solution, density, movement };
    solution = fine;
    density = finer;
    yield { density };
  }
}

/** The finest mesh up to a settled density that a sweep to a frequency may have. */
export function sweepDensity({ solution, density }: Pick<Settled, 'solution' | 'density'>, highHz: number): number {
  let allowed = density;
  while (allowed > 1 && meshOf(solution.model, highHz, allowed).segments > MOST_SETTLED_SEGMENTS) allowed /= REFINEMENT;
  return Math.max(1, allowed);
}
