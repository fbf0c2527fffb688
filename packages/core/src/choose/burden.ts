import type { KindId } from '../antenna/kind';

/** How much of it is seen: nothing, hardly, plainly, from the next street. */
export type Sight = 0 | 1 | 2 | 3;
export const SIGHT_WORDS: Readonly<Record<Sight, string>> = {
  0: 'unseen',
  1: 'hardly seen',
  2: 'plainly seen',
  3: 'seen from the street',
};

/** What an antenna costs beside its radio: money, time, looks, and what it takes from the place. */
export interface Burden {
  /** Parts, in the user's currency; order of magnitude. */
  readonly price: number;
  readonly hours: number;
  readonly sight: Sight;
  /** It lies on a lawn. */
  readonly onLawn?: boolean;
  /** It needs a mast or another high point. */
  readonly mast?: boolean;
  /** It is held by stakes or rods driven into the ground. */
  readonly stakes?: boolean;
}

/** Assumed for an ordinary home build with new parts; no source. Every figure can be weighed down to nothing. */
export const BURDENS: Readonly<Record<KindId, Burden>> = {
  'half-wave-dipole': { price: 60, hours: 4, sight: 2, mast: true },
  'v-dipole': { price: 60, hours: 4, sight: 2, mast: true },
  'flat-v-dipole': { price: 60, hours: 4, sight: 2, mast: true },
  'fan-dipole': { price: 90, hours: 7, sight: 2, mast: true },
  'folded-dipole': { price: 70, hours: 5, sight: 2, mast: true },
  'quarter-wave': { price: 50, hours: 4, sight: 3, mast: true },
  'vertical-over-radials': { price: 70, hours: 6, sight: 3, mast: true, stakes: true },
  'whip-on-surface': { price: 30, hours: 1, sight: 1 },
  'end-fed-wire': { price: 50, hours: 3, sight: 1 },
  'square-loop': { price: 90, hours: 8, sight: 3, mast: true },
  'delta-loop': { price: 80, hours: 7, sight: 3, mast: true },
  'amplified-loop': { price: 180, hours: 4, sight: 1 },
  'field-probe': { price: 120, hours: 4, sight: 1 },
  'rectangle-beam': { price: 90, hours: 9, sight: 3, mast: true },
  yagi: { price: 120, hours: 10, sight: 3, mast: true },
  discone: { price: 110, hours: 8, sight: 3, mast: true },
  'travelling-wave-wire': { price: 90, hours: 8, sight: 2, stakes: true },
  'ground-laid-wire': { price: 60, hours: 4, sight: 0, onLawn: true, stakes: true },
  'ground-loop': { price: 60, hours: 3, sight: 0, onLawn: true },
  'ferrite-rod': { price: 40, hours: 6, sight: 0 },
  dish: { price: 150, hours: 8, sight: 3 },
  horn: { price: 60, hours: 10, sight: 2 },
};

/** How much each burden counts, 0 (not at all) to 5. */
export interface BurdenWeights {
  readonly price: number;
  readonly effort: number;
  readonly sight: number;
}

/** Scale of the weights: at weight 1 a dB of hearing is worth 100 of money, 4 hours, or one step of sight. Common practice, no source. */
const MONEY_PER_DB = 100;
const HOURS_PER_DB = 4;

/** Burden in dB, to be added to the dB that are lost in hearing. */
export const burdenDb = (burden: Burden, weights: BurdenWeights): number =>
  (weights.price * burden.price) / MONEY_PER_DB +
  (weights.effort * burden.hours) / HOURS_PER_DB +
  weights.sight * burden.sight;

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
