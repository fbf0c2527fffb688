import { requireRange } from '../errors';
import { type Branch, ladderLossDb } from './ladder';

/** How parts scatter about their values. */
export interface Tolerance {
  /** Shares either way, uniform. */
  readonly coil: number;
  readonly capacitor: number;
}

/** Park & Miller's generator, CACM 31 (1988) 1192. @returns draws uniform about 1, within a share either way. */
export function partScatter(seed: number): (share: number) => number {
  let state = seed % 2147483646 || 1;
  return (share) => {
    state = (state * 48271) % 2147483647;
    return 1 + share * ((2 * state) / 2147483647 - 1);
  };
}

/** The parts of a ladder, each by its own factor. */
export const scattered = (
  branches: readonly Branch[],
  tolerance: Tolerance,
  factor: (share: number) => number,
): readonly Branch[] =>
  branches.map((branch): Branch => ({
    ...branch,
    ...(branch.henry === undefined ? {} : { henry: branch.henry * factor(tolerance.coil) }),
    ...(branch.farad === undefined ? {} : { farad: branch.farad * factor(tolerance.capacitor) }),
  }));

/**
 * Loss of a ladder at one frequency when all its parts scatter: mean, scatter, and the share of samples on the good side of a limit.
 * @param limit.side whether the loss must stay below the limit or above it.
 */
export function lossSpread(
  branches: readonly Branch[],
  lineOhm: number,
  freqHz: number,
  tolerance: Tolerance,
  limit: { readonly db: number; readonly side: 'below' | 'above' },
  samples = 20_000,
  seed = 1,
) {
  requireRange(samples, 'Samples', 100, 1_000_000);
  const factor = partScatter(seed);
  let [sum, squares, good] = [0, 0, 0];
  for (let n = 0; n < samples; n += 1) {
    const loss = ladderLossDb(scattered(branches, tolerance, factor), freqHz, lineOhm);
    sum += loss;
    squares += loss * loss;
    if (limit.side === 'below' ? loss <= limit.db : loss >= limit.db) good += 1;
  }
  const meanDb = sum / samples;
  return { meanDb, sdDb: Math.sqrt(Math.max(0, squares / samples - meanDb * meanDb)), goodShare: good / samples };
}
