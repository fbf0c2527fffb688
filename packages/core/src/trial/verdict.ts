import { fixed } from '../units/format';
import { pairedDifferences, pairsForPower, signedRank, type PairedResult } from './paired';

/** One round of a comparison: both antennas heard the same signal within moments. Levels in dBm; null if it was not read. */
export interface TrialPair {
  readonly levelADbm: number | null;
  readonly noiseADbm: number | null;
  readonly levelBDbm: number | null;
  readonly noiseBDbm: number | null;
}

/** B − A in one respect. */
export interface TrialResult {
  readonly what: 'snr' | 'level' | 'noise';
  readonly result?: PairedResult;
  readonly proven: boolean;
  /** Pairs still to log until a difference of this size would show with 80 % probability; null if that is not practical. */
  readonly morePairs: number | null;
}

/** Three separate results; SNR decides. */
export interface TrialVerdict {
  readonly snr: TrialResult;
  readonly level: TrialResult;
  readonly noise: TrialResult;
  readonly sentence: string;
  /** Present where the rank test, which needs no normal scatter, does not agree with what is called proven. */
  readonly doubt?: string;
  /** Present where level and SNR point to different antennas. */
  readonly warning?: string;
}

/** Below this many pairs no interval is believed, whatever it says: one odd reading decides it. */
const LEAST_PAIRS = 6;
/** A scatter below this is smaller than any meter's last digit, dB: nothing can be said from it. */
const ALIKE_DB = 0.02;
/** Smaller differences are not worth proving: fading and reading steps are larger. */
const WORTH_DB = 1;

function judge(what: TrialResult['what'], differences: readonly number[], worthDb: number): TrialResult {
  if (differences.length === 0) return { what, proven: false, morePairs: null };
  const result = pairedDifferences(differences);
  // as it is shown, to a tenth of a dB: an interval that reads "0.0 to 0.3" proves nothing
  const shown = (db: number | null): number => (db === null ? 0 : Math.round(db * 10) / 10);
  const excludesZero = shown(result.ciLow) > 0 || shown(result.ciHigh) < 0;
  // differences alike to the last digit tell of the meter's steps, not of the antennas
  const proven = excludesZero && result.n >= LEAST_PAIRS && result.sd !== null && result.sd > ALIKE_DB;
  if (proven) return { what, result, proven, morePairs: 0 };
  const scatter = result.sd === null || result.sd === 0 ? undefined : result.sd;
  if (scatter === undefined) return { what, result, proven, morePairs: Math.max(1, LEAST_PAIRS - result.n) };
  const needed = pairsForPower(scatter, Math.max(worthDb, WORTH_DB));
  return {
    what,
    result,
    proven,
    morePairs: needed === null ? null : Math.max(1, LEAST_PAIRS - result.n, needed - result.n),
  };
}

/**
 * Level, noise and SNR of B against A as three results. Lower level is not worse: SNR decides.
 * @param worthDb difference worth proving; the number of pairs still needed refers to it.
 */
export function trialVerdict(
  pairs: readonly TrialPair[],
  names: { readonly a: string; readonly b: string },
  worthDb = 3,
): TrialVerdict {
  const level = pairs.flatMap((pair) =>
    pair.levelADbm === null || pair.levelBDbm === null ? [] : [pair.levelBDbm - pair.levelADbm],
  );
  const noise = pairs.flatMap((pair) =>
    pair.noiseADbm === null || pair.noiseBDbm === null ? [] : [pair.noiseBDbm - pair.noiseADbm],
  );
  const snr = pairs.flatMap(({ levelADbm, noiseADbm, levelBDbm, noiseBDbm }) =>
    levelADbm === null || noiseADbm === null || levelBDbm === null || noiseBDbm === null
      ? []
      : [levelBDbm - noiseBDbm - (levelADbm - noiseADbm)],
  );
  const results = {
    snr: judge('snr', snr, worthDb),
    level: judge('level', level, worthDb),
    noise: judge('noise', noise, worthDb),
  };
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
  const ranks = results.snr.proven ? signedRank(snr) : undefined;
  const doubt =
    ranks?.pTwoSided !== undefined && ranks.pTwoSided !== null && ranks.pTwoSided > 0.05
      ? `The rank test does not agree yet (p ${ranks.pTwoSided.toPrecision(2)}): log more pairs before relying on it.`
      : undefined;
  return {
    ...results,
    sentence: `${sentenceFor(results.snr, names, worthDb)}${doubt ? ` ${doubt}` : ''}`,
    ...(doubt ? { doubt } : {}),
    ...(warning ? { warning } : {}),
  };
}

function sentenceFor(snr: TrialResult, names: { readonly a: string; readonly b: string }, worthDb: number): string {
  if (!snr.result) return 'No complete pair yet.';
  const better = snr.result.mean >= 0 ? names.b : names.a;
  const size = fixed(Math.abs(snr.result.mean), 1);
  if (snr.proven) return `${better} is better on SNR by ${size} dB, proven.`;
  if (snr.result.sd !== null && snr.result.sd <= ALIKE_DB && snr.result.n >= 2)
    return 'Not proven: all differences are alike to the last digit, which tells of the meter, not of the antennas. Read tenths of a dB.';
  if (snr.morePairs === null)
    return `Not proven: the readings scatter too much to show ${worthDb} dB in a practical number of pairs.`;
  return `Not proven, ${snr.morePairs} more pair${snr.morePairs === 1 ? '' : 's'} to show ${worthDb} dB.`;
}

/** Which antenna to read first in round n (0-based): ABBA, so that a steady drift cancels. */
export const firstOfRound = (round: number): 'A' | 'B' => (round % 2 === 0 ? 'A' : 'B');
