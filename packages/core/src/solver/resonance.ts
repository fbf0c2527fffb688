import { NotConvergedError } from '../errors';
import type { Complex } from '../numeric/complex';

/** Where the reactance of a port vanishes. */
export interface ModelResonance {
  readonly freqHz: number;
  readonly resistanceOhm: number;
}

/**
 * Frequency of zero reactance nearest a guess, by the secant rule on X(f) with steps of at most 8 %.
 * @throws NotConvergedError when none is found near.
 */
export function findResonance(impedance: (freqHz: number) => Complex, guessHz: number): ModelResonance {
  let [f0, f1] = [guessHz, guessHz * 1.01];
  let [z0, z1] = [impedance(f0), impedance(f1)];
  for (let round = 0; round < 30; round += 1) {
    if (Math.abs(z0.im) < Math.abs(z1.im)) [f0, f1, z0, z1] = [f1, f0, z1, z0];
    const slope = (z1.im - z0.im) / (f1 - f0);
    const step = slope === 0 ? 0.02 * f1 : -z1.im / slope;
    const next = f1 + Math.max(-0.08 * f1, Math.min(0.08 * f1, step));
    [f0, z0] = [f1, z1];
    [f1, z1] = [next, impedance(next)];
    if (Math.abs(f1 - f0) < 1e-7 * f1) return { freqHz: f1, resistanceOhm: z1.re };
  }
  throw new NotConvergedError('The search for a resonance', Math.abs(z1.im));
}
