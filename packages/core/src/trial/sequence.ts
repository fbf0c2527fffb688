import { requireRange } from '../errors';
import { studentQuantile } from '../numeric/special';
import { effectiveNumber, lagOne } from './series';

/** An interval of the mean difference, and the number of independent pairs that it counts. */
export interface MeanInterval {
  readonly low: number;
  readonly high: number;
  /** Correlation of a difference with the next that was taken into account. */
  readonly rho: number;
  readonly effective: number;
}

/** Ever being wrong is allowed this often. */
const ALPHA = 0.05;
/** Variance of the effects that are thought likely, in squared scatters: differences of half a scatter and more. */
const PRIOR = 0.3;
/** Standard errors added to an estimated correlation: it is known badly while the series is short, and hiding it costs most. */
const CAUTION = 0.7;
const MOST_RHO = 0.95;

/** Mean, variance of one reading and the number of independent ones, at a correlation. */
function momentsOf(differences: readonly number[], rho: number) {
  const n = differences.length;
  const mean = differences.reduce((sum, one) => sum + one, 0) / n;
  const squares = differences.reduce((sum, one) => sum + (one - mean) ** 2, 0);
  const effective = Math.max(2, effectiveNumber(n, rho).exact);
  // readings that go together scatter too little about their own mean: squares are n(1 − 1/n_eff) of the variance
  return { mean, effective, variance: squares / n / (1 - 1 / effective) };
}

/**
 * Interval of a mean that holds at all times at once with 95 %: it may be looked at after every pair, and the trial stopped whenever one likes.
 * It is the set of means that a mixture of sequential t-tests does not reject: likelihood ratio of effects spread as a normal with variance c² in
 * units of the scatter, whatever the scatter is, at most 20 (Ville's inequality); the number of pairs counts as the effective one, at a correlation
 * a little above the estimated one.
 * @param rhoLeast correlation known from the fading time; 0 where nothing is known.
 * @returns undefined while nothing can be excluded. Range: correlation up to 0.5 by the bench; beyond it claims grow too bold.
 * Source: Lai, "On confidence sequences", Ann. Stat. 4 (1976) 265; Wang & Ramdas, "Anytime-valid t-tests and confidence sequences for Gaussian
 * means with unknown variance" (2023); Ville, Étude critique de la notion de collectif (1939). The part of the correlation: own simulation.
 */
export function anytimeInterval(differences: readonly number[], rhoLeast = 0): MeanInterval | undefined {
  requireRange(rhoLeast, 'Correlation', 0, 0.999);
  const n = differences.length;
  if (n < 3) return undefined;
  const rho = Math.min(MOST_RHO, Math.max(0, rhoLeast, lagOne(differences) + CAUTION / Math.sqrt(n)));
  const { mean, effective, variance } = momentsOf(differences, rho);
  const spread = 1 + effective * PRIOR;
  const ratio = Math.exp((2 * (Math.log(1 / ALPHA) + Math.log(spread) / 2)) / effective);
  if (ratio >= spread) return undefined;
  // (1 + u)/(1 + u/spread) = ratio, u = t²/(n − 1)
  const u = (ratio - 1) / (1 - ratio / spread);
  const half = Math.sqrt((variance * (effective - 1) * u) / effective);
  return { low: mean - half, high: mean + half, rho, effective };
}

/** A correlation counts in a judgement at the end when it is larger than chance makes it in independent readings. */
const significant = (rho: number, n: number): boolean => rho > 1 / Math.sqrt(n);

/**
 * Student's interval of a mean, for a number of pairs that was fixed beforehand; where the series goes together, for as many as are independent.
 * @returns undefined for fewer than two differences.
 * Source: Student, Biometrika 6 (1908); effective number by Bayley & Hammersley (1946). Range: with ρ of 0.75 it covers 93 to 97 % from some 60 pairs.
 */
export function plannedInterval(differences: readonly number[], rhoLeast = 0): MeanInterval | undefined {
  const n = differences.length;
  if (n < 2) return undefined;
  const found = lagOne(differences);
  const raw = (found * n - 1) / (n + 3);
  const rho = Math.min(MOST_RHO, Math.max(rhoLeast, significant(raw, n) ? found : 0));
  const { mean, effective, variance } = momentsOf(differences, rho);
  const half = studentQuantile(1 - ALPHA / 2, Math.max(1, effective - 1)) * Math.sqrt(variance / effective);
  return { low: mean - half, high: mean + half, rho, effective };
}

/** Most pairs that a plan looks ahead. */
const FARTHEST = 2000;

/**
 * Pairs after which a watched trial proves a difference with about 80 %, independent readings; null beyond 2000.
 * Approximate: the difference must exceed the interval's half width by 0.84 standard errors.
 */
export function pairsWhenWatched(sd: number, difference: number): number | null {
  requireRange(sd, 'Scatter (dB)', 1e-6, 500);
  const enough = (n: number): boolean => {
    const rho = CAUTION / Math.sqrt(n);
    const effective = effectiveNumber(n, Math.min(MOST_RHO, rho)).exact;
    const spread = 1 + effective * PRIOR;
    const ratio = Math.exp((2 * (Math.log(1 / ALPHA) + Math.log(spread) / 2)) / effective);
    if (effective <= 2 || ratio >= spread) return false;
    const half = sd * Math.sqrt((((ratio - 1) / (1 - ratio / spread)) * (effective - 1)) / effective);
    return Math.abs(difference) > half + (POWER_SIGMAS * sd) / Math.sqrt(n);
  };
  let [low, high] = [2, 4];
  while (!enough(high)) {
    if (high >= FARTHEST) return null;
    [low, high] = [high, Math.min(FARTHEST, 2 * high)];
  }
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (enough(middle)) high = middle;
    else low = middle;
  }
  return high;
}
/** 80 % point of a normal. */
const POWER_SIGMAS = 0.8416;
