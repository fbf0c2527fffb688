import { requirePositive, requireRange } from '../errors';
import { pairsForPower } from './paired';
import { pairsWhenWatched } from './sequence';
import { fadingSpacing } from './series';

/** What a fair comparison will take. */
interface TrialPlan {
  /** Pairs for 80 % when their number is fixed beforehand, and when the trial is watched; null: not practical. */
  readonly fixedPairs: number | null;
  readonly watchedPairs: number | null;
  /** From the start of one pair to the next, s: so far apart that fading makes them nearly independent. */
  readonly spacingS: number;
  /** Minutes for the fixed number, and for the watched one. */
  readonly fixedMinutes: number | null;
  readonly watchedMinutes: number | null;
  /** Antennas in turn: A B B A, so that a steady drift cancels. */
  readonly order: string;
}

/** Correlation of neighbouring pairs that a plan accepts. */
const RHO_ACCEPTED = 0.1;
/** Rounds that are written out. */
const WRITTEN = 4;

/**
 * Pairs, spacing and time of a comparison.
 * @param sdDb scatter of a pair's difference. @param fadingS time in which the fading falls to 1/e; null: not known, pairs follow at once.
 * @param readS time for reading one antenna, and @param settleS after each switch, s.
 */
export function trialPlan(input: {
  readonly sdDb: number;
  readonly worthDb: number;
  readonly fadingS: number | null;
  readonly readS: number;
  readonly settleS: number;
}): TrialPlan {
  requirePositive(input.sdDb, 'Scatter (dB)');
  requirePositive(input.worthDb, 'Difference worth proving (dB)');
  requireRange(input.readS, 'Time of a reading (s)', 0.1, 86_400);
  requireRange(input.settleS, 'Time to settle (s)', 0, 3600);
  const ownS = 2 * (input.readS + input.settleS);
  const apartS =
    input.fadingS === null
      ? 0
      : fadingSpacing({ intervalS: ownS, fadingS: input.fadingS, n: 2, rhoMost: RHO_ACCEPTED }).intervalS;
  const spacingS = Math.max(ownS, apartS);
  const minutes = (pairs: number | null): number | null => (pairs === null ? null : (pairs * spacingS) / 60);
  const fixedPairs = pairsForPower(input.sdDb, input.worthDb);
  const watchedPairs = pairsWhenWatched(input.sdDb, input.worthDb);
  return {
    ...{ fixedPairs, watchedPairs, spacingS },
    ...{ fixedMinutes: minutes(fixedPairs), watchedMinutes: minutes(watchedPairs) },
    order: Array.from({ length: WRITTEN }, (_, round) => (round % 2 === 0 ? 'A B' : 'B A')).join(' '),
  };
}
