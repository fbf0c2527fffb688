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
/** Effects that are thought likely, as variances in squared scatters with their weights: most about a scatter, some far larger. */
const PRIORS = [
  { weight: 0.85, variance: 0.4 },
  { weight: 0.15, variance: 10 },
] as const;
/** Standard errors added to an estimated correlation: it is known badly while the series is short, and hiding it costs most. */
const CAUTION = 0.9;
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
 * Evidence against a mean: likelihood ratio of t among so many pairs, for effects spread as normals of the variances above over none, whatever the
 * scatter is. Its expectation without an effect is 1 at every number of pairs.
 */
function evidence(t2: number, n: number): number {
  return PRIORS.reduce((sum, { weight, variance }) => {
    const spread = 1 + n * variance;
    const log = -Math.log(spread) / 2 + (n / 2) * (Math.log1p(t2 / (n - 1)) - Math.log1p(t2 / ((n - 1) * spread)));
    return sum + weight * Math.exp(log);
  }, 0);
}

/** The t² at which the evidence reaches 1/α; undefined where no t does. */
function boundT2(n: number): number | undefined {
  if (n <= 2 || evidence(1e15, n) < 1 / ALPHA) return undefined;
  let [low, high] = [-10, Math.log(1e15)];
  for (let round = 0; round < 80; round += 1) {
    const middle = (low + high) / 2;
    if (evidence(Math.exp(middle), n) < 1 / ALPHA) low = middle;
    else high = middle;
  }
  return Math.exp(high);
}

/**
 * Interval of a mean that holds at all times at once with 95 %: it may be looked at after every pair, and the trial stopped whenever one likes.
 * It is the set of means that a mixture of sequential t-tests does not reject: evidence against them at most 20 (Ville's inequality). The number of
 * pairs counts as the effective one, at a correlation a little above the estimated one.
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
  const t2 = boundT2(effective);
  if (t2 === undefined) return undefined;
  const half = Math.sqrt((variance * t2) / effective);
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
    const t2 = boundT2(effective);
    if (t2 === undefined) return false;
    const half = sd * Math.sqrt(t2 / effective);
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
