import { requirePositive, requireRange, ShapeError } from '../errors';
import { minimise } from '../numeric/minimise';
import { betaQuantile, erfc, normalQuantile } from '../numeric/special';
import { pairedDifferences } from './paired';
import { powerDb } from '../units/decibel';

/** Wilson and Clopper-Pearson limits of k successes in n. Sources: Wilson, JASA 22 (1927); Clopper & Pearson, Biometrika 26 (1934). */
export function binomialLimits(successes: number, tries: number, confidence = 0.95) {
  requirePositive(tries, 'Tries');
  requireRange(successes, 'Successes', 0, tries);
  requireRange(confidence, 'Confidence (ratio)', 0.5, 0.9999);
  const z = normalQuantile(0.5 + confidence / 2);
  const p = successes / tries;
  const centre = (p + (z * z) / (2 * tries)) / (1 + (z * z) / tries);
  const half = (z / (1 + (z * z) / tries)) * Math.sqrt((p * (1 - p)) / tries + (z * z) / (4 * tries * tries));
  const tail = (1 - confidence) / 2;
  return {
    wilsonLow: Math.max(0, centre - half),
    wilsonHigh: Math.min(1, centre + half),
    exactLow: successes === 0 ? 0 : betaQuantile(tail, successes, tries - successes + 1),
    exactHigh: successes === tries ? 1 : betaQuantile(1 - tail, successes + 1, tries - successes),
  };
}

/** Counts out of a line: whole numbers, with commas, semicolons or spaces between. @throws ShapeError naming what is none. */
export function readCounts(text: string): readonly number[] {
  return text
    .split(/[\s,;]+/)
    .filter(Boolean)
    .map((word) => {
      if (!/^\d+$/.test(word))
        throw new ShapeError(`"${word}" is not a count. Type whole numbers with commas between, as in 810, 790, 845.`);
      return Number(word);
    });
}

/** Counts of two set-ups in alternating blocks, compared. */
export interface BlockRatio {
  readonly blocks: number;
  /** Geometric mean of second over first. */
  readonly ratio: number;
  /** 95 % by Student's t of the logarithms; null with one pair of blocks. */
  readonly low: number | null;
  readonly high: number | null;
}

/**
 * Ratio of counts in blocks that alternate between two set-ups, as pairs of neighbours, so that the traffic of the hour cancels.
 * @throws ShapeError for lists of different length or none; OutOfRangeError for a block without a count.
 */
export function blockRatio(first: readonly number[], second: readonly number[]): BlockRatio {
  if (first.length !== second.length || first.length === 0)
    throw new ShapeError(
      `Both lists need the same number of blocks; here are ${first.length} and ${second.length}. Complete the shorter one.`,
    );
  for (const count of [...first, ...second]) requireRange(count, 'Count of a block', 1, 1e9);
  const { n, mean, ciLow, ciHigh } = pairedDifferences(first.map((count, i) => Math.log(second[i] / count)));
  return {
    blocks: n,
    ratio: Math.exp(mean),
    low: ciLow === null ? null : Math.exp(ciLow),
    high: ciHigh === null ? null : Math.exp(ciHigh),
  };
}

/** SNR of weak-signal reports refers to this bandwidth. */
const REPORT_BANDWIDTH_HZ = 2500;

/** SNR in another bandwidth, C/N₀, Eb/N₀ (null without a bit rate) and margin over a threshold (null without one). */
export function snrBandwidth(input: {
  readonly snrDb: number;
  readonly fromHz: number;
  readonly toHz: number;
  readonly bitsPerSecond?: number | null;
  readonly threshold2500Db?: number | null;
}) {
  requirePositive(input.fromHz, 'Bandwidth (Hz)');
  requirePositive(input.toHz, 'New bandwidth (Hz)');
  const carrierToDensity = input.snrDb + powerDb(input.fromHz);
  const snr2500Db = carrierToDensity - powerDb(REPORT_BANDWIDTH_HZ);
  return {
    snrDb: carrierToDensity - powerDb(input.toHz),
    snr2500Db,
    carrierToDensityDbHz: carrierToDensity,
    energyPerBitDb: input.bitsPerSecond ? carrierToDensity - powerDb(input.bitsPerSecond) : null,
    marginDb: input.threshold2500Db == null ? null : snr2500Db - input.threshold2500Db,
  };
}

/** Log of the upper tail of the standard normal; asymptotic beyond the reach of erfc. */
const logUpperTail = (z: number): number =>
  z < 35 ? Math.log(0.5 * erfc(z / Math.SQRT2)) : (-z * z) / 2 - Math.log(z * Math.sqrt(2 * Math.PI));

/**
 * Most likely mean and scatter of a normal difference A − B when one receiver did not decode (null: below the threshold).
 * Both missing says nothing. Without at least two exact pairs there is no estimate (null): use counts.
 */
export function censoredDifference(a: readonly (number | null)[], b: readonly (number | null)[], thresholdDb: number) {
  if (a.length !== b.length)
    throw new ShapeError('Each reading of A needs one of B (empty if not heard). Complete the list.');
  const exact: number[] = [];
  const above: number[] = [];
  const below: number[] = [];
  a.forEach((valueA, i) => {
    const valueB = b[i];
    if (valueA !== null && valueB !== null) exact.push(valueA - valueB);
    else if (valueA !== null) above.push(valueA - thresholdDb);
    else if (valueB !== null) below.push(thresholdDb - valueB);
  });
  const n = exact.length;
  const naive = n > 0 ? exact.reduce((sum, d) => sum + d, 0) / n : null;
  const counts = { exact: n, greater: above.length, less: below.length, naiveMeanDb: naive };
  const sd = naive === null || n < 2 ? 0 : Math.sqrt(exact.reduce((sum, d) => sum + (d - naive) ** 2, 0) / n);
  if (naive === null || sd === 0) return { ...counts, meanDb: null, sdDb: null };
  if (above.length + below.length === 0) return { ...counts, meanDb: naive, sdDb: sd };
  const cost = ([mean, logSd]: readonly number[]): number => {
    const s = Math.exp(logSd);
    return (
      exact.reduce((sum, d) => sum + logSd + (d - mean) ** 2 / (2 * s * s), 0) -
      above.reduce((sum, limit) => sum + logUpperTail((limit - mean) / s), 0) -
      below.reduce((sum, limit) => sum + logUpperTail((mean - limit) / s), 0)
    );
  };
  const [mean, logSd] = minimise(cost, [naive, Math.log(sd)], [Math.max(0.5, sd / 2), 0.3]);
  return { ...counts, meanDb: mean, sdDb: Math.exp(logSd) };
}
