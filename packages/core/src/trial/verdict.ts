import { fixed } from '../units/format';
import { pairedDifferences, pairsForPower, signedRank, type PairedResult } from './paired';
import { anytimeInterval, type MeanInterval, pairsWhenWatched, plannedInterval } from './sequence';

/** One round of a comparison: both antennas heard the same signal within moments. Levels in dBm; null if it was not read. */
export interface TrialPair {
  readonly levelADbm: number | null;
  readonly noiseADbm: number | null;
  readonly levelBDbm: number | null;
  readonly noiseBDbm: number | null;
  /** SNR of B less A where that alone was written down. */
  readonly differenceDb?: number | null;
}

/** What is compared. */
export type TrialMeasure = 'snr' | 'level' | 'noise';

/** How a trial is judged: once, after a number of pairs fixed beforehand, or so that it may be watched. */
type TrialRule = 'plan' | 'watch';

/** B − A in one respect. */
export interface TrialResult {
  readonly what: TrialMeasure;
  readonly result?: PairedResult;
  /** By what it is judged. */
  readonly rule: TrialRule;
  /** The interval that decides; absent while there is none. */
  readonly interval?: MeanInterval;
  /** Both kinds of interval, the one that decides among them. */
  readonly planned?: MeanInterval;
  readonly watched?: MeanInterval;
  readonly proven: boolean;
  /** Proven, or missed, by so little that another pair may turn it. */
  readonly byAHair: boolean;
  /** Pairs still to log until a difference of this size would show with 80 % probability; null if that is not practical. */
  readonly morePairs: number | null;
}

/** Three separate results; the primary one decides. */
export interface TrialVerdict {
  readonly snr: TrialResult;
  readonly level: TrialResult;
  readonly noise: TrialResult;
  /** The one that decides. */
  readonly primary: TrialResult;
  readonly sentence: string;
  readonly doubt?: string;
  /** Present where level and SNR point to different antennas. */
  readonly warning?: string;
}

/** What was settled before the trial. */
export interface TrialTerms {
  /** Difference worth proving, dB; the number of pairs still needed refers to it. */
  readonly worthDb?: number;
  /** Number of pairs fixed beforehand; null: it is watched. */
  readonly plannedPairs?: number | null;
  readonly primary?: TrialMeasure;
  /** Correlation of neighbouring pairs that their spacing in the fading lets expect. */
  readonly rhoLeast?: number;
}

/** Below this many pairs no interval is believed, whatever it says: one odd reading decides it. A number fixed beforehand may be one less. */
const LEAST_PAIRS: Readonly<Record<TrialRule, number>> = { watch: 6, plan: 5 };
/** A scatter below this is smaller than any meter's last digit, dB: nothing can be said from it. */
const ALIKE_DB = 0.02;
/** Smaller differences are not worth proving: fading and reading steps are larger. */
const WORTH_DB = 1;
/** A bound this near to zero, as a share of the interval's half width, is a hair. */
const HAIR = 0.1;

/** As it is shown, to a tenth of a dB: an interval that reads "0.0 to 0.3" proves nothing. */
const shownDb = (db: number): number => Math.round(db * 10) / 10;

function judge(what: TrialMeasure, all: readonly number[], terms: Required<TrialTerms>): TrialResult {
  const { plannedPairs, rhoLeast } = terms;
  const rule: TrialRule = plannedPairs === null ? 'watch' : 'plan';
  // what was logged beyond the plan does not count: it would be watching again
  const differences = plannedPairs === null ? all : all.slice(0, plannedPairs);
  if (differences.length === 0) return { what, rule, proven: false, byAHair: false, morePairs: null };
  const result = pairedDifferences(differences);
  const [planned, watched] = [plannedInterval(differences, rhoLeast), anytimeInterval(differences, rhoLeast)];
  const interval = rule === 'plan' ? planned : watched;
  const atEnd = plannedPairs === null || differences.length >= plannedPairs;
  const excludesZero = interval !== undefined && (shownDb(interval.low) > 0 || shownDb(interval.high) < 0);
  // differences alike to the last digit tell of the meter's steps, not of the antennas
  const scatters = result.sd !== null && result.sd > ALIKE_DB;
  const proven = excludesZero && atEnd && result.n >= LEAST_PAIRS[rule] && scatters;
  const bound = interval && Math.min(Math.abs(interval.low), Math.abs(interval.high));
  const byAHair =
    interval !== undefined &&
    bound !== undefined &&
    result.n >= LEAST_PAIRS[rule] &&
    atEnd &&
    scatters &&
    bound < (HAIR * (interval.high - interval.low)) / 2;
  return {
    ...{ what, rule, result, proven, byAHair },
    ...(interval ? { interval } : {}),
    ...(planned ? { planned } : {}),
    ...(watched ? { watched } : {}),
    morePairs: proven ? 0 : pairsLeft(result, rule, terms),
  };
}

/** Pairs still to log; null if that is not practical. */
function pairsLeft(result: PairedResult, rule: TrialRule, terms: Required<TrialTerms>): number | null {
  const { worthDb, plannedPairs } = terms;
  if (plannedPairs !== null && result.n < plannedPairs) return plannedPairs - result.n;
  const least = Math.max(1, LEAST_PAIRS[rule] - result.n);
  if (result.sd === null || result.sd <= ALIKE_DB) return least;
  const worth = Math.max(worthDb, WORTH_DB);
  const needed = rule === 'watch' ? pairsWhenWatched(result.sd, worth) : pairsForPower(result.sd, worth);
  return needed === null ? null : Math.max(least, needed - result.n);
}

/** SNR of B less A of a pair; null where something is missing. */
export function snrDifference(pair: TrialPair): number | null {
  const { levelADbm, noiseADbm, levelBDbm, noiseBDbm, differenceDb = null } = pair;
  return levelADbm === null || noiseADbm === null || levelBDbm === null || noiseBDbm === null
    ? differenceDb
    : levelBDbm - noiseBDbm - (levelADbm - noiseADbm);
}

const present = (values: readonly (number | null)[]): readonly number[] => values.filter((one) => one !== null);
const less = (b: number | null, a: number | null): number | null => (a === null || b === null ? null : b - a);

/** Differences B less A of one pair, dB; null where a value for it is missing. */
const differencesOf = (pair: TrialPair): Readonly<Record<TrialMeasure, number | null>> => ({
  snr: snrDifference(pair),
  level: less(pair.levelBDbm, pair.levelADbm),
  noise: less(pair.noiseBDbm, pair.noiseADbm),
});

/** For which results a pair counts, and which of its four values are missing. */
export function pairCounts(pair: TrialPair): {
  readonly counts: readonly TrialMeasure[];
  readonly lacks: readonly ('levelADbm' | 'noiseADbm' | 'levelBDbm' | 'noiseBDbm')[];
} {
  const of = differencesOf(pair);
  return {
    counts: (['snr', 'level', 'noise'] as const).filter((what) => of[what] !== null),
    lacks: (['levelADbm', 'noiseADbm', 'levelBDbm', 'noiseBDbm'] as const).filter((field) => pair[field] === null),
  };
}

/** Level, noise and SNR of B against A as three results. Lower level is not worse: SNR decides, unless the trial asks otherwise. */
export function trialVerdict(
  pairs: readonly TrialPair[],
  names: { readonly a: string; readonly b: string },
  { worthDb = 3, plannedPairs = null, primary = 'snr', rhoLeast = 0 }: TrialTerms = {},
): TrialVerdict {
  const terms = { worthDb, plannedPairs, primary, rhoLeast };
  const differences: Readonly<Record<TrialMeasure, readonly number[]>> = {
    snr: present(pairs.map((pair) => differencesOf(pair).snr)),
    level: present(pairs.map((pair) => differencesOf(pair).level)),
    noise: present(pairs.map((pair) => differencesOf(pair).noise)),
  };
  const results = {
    snr: judge('snr', differences.snr, terms),
    level: judge('level', differences.level, terms),
    noise: judge('noise', differences.noise, terms),
  };
  const decides = results[primary];
  const mean = results.snr.result?.mean;
  const levelMean = results.level.result?.mean;
  const warning =
    mean !== undefined &&
    levelMean !== undefined &&
    mean * levelMean < 0 &&
    Math.abs(levelMean) >= WORTH_DB &&
    Math.abs(mean) >= WORTH_DB
      ? `Level and SNR disagree: ${levelMean < 0 ? names.b : names.a} is weaker on the meter and better in SNR. A lower level does not mean worse reception.`
      : undefined;
  const counted = plannedPairs === null ? differences[primary] : differences[primary].slice(0, plannedPairs);
  const ranks = decides.proven ? signedRank(counted) : undefined;
  const doubt =
    ranks?.pTwoSided !== undefined && ranks.pTwoSided !== null && ranks.pTwoSided > 0.05
      ? `Wilcoxon’s rank test, which asks only how often and how far either was ahead, does not agree yet (p ${ranks.pTwoSided.toPrecision(2)}): a few large differences carry the mean. Log more pairs before relying on it.`
      : undefined;
  return {
    ...results,
    primary: decides,
    sentence: `${sentenceFor(decides, names, terms)}${doubt ? ` ${doubt}` : ''}`,
    ...(doubt ? { doubt } : {}),
    ...(warning ? { warning } : {}),
  };
}

/** What B is when a difference is above zero, and when below. */
const AHEAD: Readonly<Record<TrialMeasure, string>> = {
  snr: 'better on SNR',
  level: 'stronger',
  noise: 'noisier',
};

function sentenceFor(
  { what, result, proven, byAHair, morePairs, rule }: TrialResult,
  names: { readonly a: string; readonly b: string },
  { worthDb, plannedPairs }: Required<TrialTerms>,
): string {
  if (!result) return 'No complete pair yet.';
  const ahead = result.mean >= 0 ? names.b : names.a;
  const size = fixed(Math.abs(result.mean), 1);
  if (proven) return `${ahead} is ${AHEAD[what]} by ${size} dB, proven${byAHair ? ' by a hair' : ''}.`;
  if (result.sd !== null && result.sd <= ALIKE_DB && result.n >= 2)
    return 'Not proven: all differences are alike to the last digit, which tells of the meter, not of the antennas. Read tenths of a dB.';
  if (rule === 'plan' && plannedPairs !== null && result.n < plannedPairs)
    return `Not judged yet: ${result.n} of the ${plannedPairs} pairs that were planned.`;
  const missed = byAHair ? 'Not proven by a hair' : 'Not proven';
  if (rule === 'plan')
    return `${missed} by the ${result.n} pairs that were planned. A new trial with other pairs may prove it.`;
  if (morePairs === null)
    return `${missed}: the readings scatter too much to show ${worthDb} dB in a practical number of pairs.`;
  return `${missed}, about ${morePairs} more pair${morePairs === 1 ? '' : 's'} to show ${worthDb} dB.`;
}

/** Which antenna to read first in round n (0-based): ABBA, so that a steady drift cancels. */
export const firstOfRound = (round: number): 'A' | 'B' => (round % 2 === 0 ? 'A' : 'B');
