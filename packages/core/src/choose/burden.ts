import { SIGHT_WORDS, type Burden } from '../antenna/kind';

/** How much each burden counts, 0 (not at all) to 5. */
export interface BurdenWeights {
  readonly price: number;
  readonly effort: number;
  readonly sight: number;
}

/** Scale of the weights: at weight 1 a dB of hearing is worth 100 of money, 4 hours, or one step of sight. Common practice, no source. */
const MONEY_PER_DB = 100;
const HOURS_PER_DB = 4;

/** Burdens in dB, each to be added to the dB that are lost in hearing. */
export interface BurdenParts {
  readonly price: number;
  readonly effort: number;
  readonly sight: number;
  /** What one's own transmitter makes of it: the trouble of a limiter or a relay. */
  readonly guard: number;
}
export const burdenParts = (burden: Burden, weights: BurdenWeights): Omit<BurdenParts, 'guard'> => ({
  price: (weights.price * burden.price) / MONEY_PER_DB,
  effort: (weights.effort * burden.hours) / HOURS_PER_DB,
  sight: weights.sight * burden.sight,
});

/** What the landlord, the neighbours or the listener forbid. */
export interface Restrictions {
  readonly nothingVisible: boolean;
  readonly lawnAllowed: boolean;
  readonly noStakes?: boolean;
}

/** Why an antenna is withdrawn under the restrictions; undefined: it may stay. */
export function withdrawnBecause(
  burden: Burden,
  { nothingVisible, lawnAllowed, noStakes }: Restrictions,
): string | undefined {
  if (nothingVisible && burden.mast) return 'withdrawn: it needs a mast or a high point, and nothing may be visible';
  if (nothingVisible && burden.sight > 1)
    return `withdrawn: it is ${SIGHT_WORDS[burden.sight]}, and nothing may be visible`;
  if (!lawnAllowed && burden.onLawn) return 'withdrawn: it lies on the lawn, which is not allowed';
  if (noStakes && burden.stakes) return 'withdrawn: it needs stakes or rods in the ground, which are not allowed';
  return undefined;
}
