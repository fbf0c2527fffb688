import { requirePositive, requireRange, ShapeError } from '../errors';
import { gaussLegendre } from '../numeric/gauss-legendre';
import { logGamma, normalCdf, normalQuantile, studentCdf, studentQuantile } from '../numeric/special';

/** Mean of paired differences with Student's interval. Values that need two or more pairs are null below that. */
export interface PairedResult {
  readonly n: number;
  readonly mean: number;
  readonly sd: number | null;
  readonly standardError: number | null;
  readonly ciLow: number | null;
  readonly ciHigh: number | null;
  readonly t: number | null;
  readonly pTwoSided: number | null;
}

/**
 * Paired t test of differences (dB). With a standard deviation of exactly 0, t and p are null unless the mean is 0 too: identical
 * differences prove nothing about scatter, usually they were copied.
 * Source: Student, "The probable error of a mean", Biometrika 6 (1908).
 */
export function pairedDifferences(differences: readonly number[], confidence = 0.95): PairedResult {
  if (differences.length === 0)
    throw new ShapeError('There are no complete pairs yet. Log one reading of each antenna.');
  requireRange(confidence, 'Confidence (ratio)', 0.5, 0.9999);
  differences.forEach((one) => requireRange(one, 'Difference (dB)', -500, 500));
  const n = differences.length;
  const mean = differences.reduce((sum, d) => sum + d, 0) / n;
  if (n < 2) return { n, mean, sd: null, standardError: null, ciLow: null, ciHigh: null, t: null, pTwoSided: null };
  const sd = Math.sqrt(differences.reduce((sum, d) => sum + (d - mean) ** 2, 0) / (n - 1));
  const standardError = sd / Math.sqrt(n);
  const half = studentQuantile(0.5 + confidence / 2, n - 1) * standardError;
  const t = standardError > 0 ? mean / standardError : null;
  return {
    n,
    mean,
    sd,
    standardError,
    ciLow: mean - half,
    ciHigh: mean + half,
    t,
    pTwoSided: t === null ? null : 2 * (1 - studentCdf(Math.abs(t), n - 1)),
  };
}

/**
 * Readings for an interval of half width E: by the normal formula, by iterating Student's t, and inflated for correlation.
 * Answers "how narrow", not "how likely to prove" (see `pairsForPower`).
 */
export function readingsForHalfWidth(sd: number, halfWidth: number, confidence = 0.95, correlation = 0) {
  requirePositive(sd, 'Scatter (dB)');
  requirePositive(halfWidth, 'Half width (dB)');
  requireRange(correlation, 'Correlation', -0.99, 0.99);
  requireRange(confidence, 'Confidence (ratio)', 0.5, 0.9999);
  requireRange(sd / halfWidth, 'Scatter over half width', 0, 1000);
  const normal = Math.ceil(((normalQuantile(0.5 + confidence / 2) * sd) / halfWidth) ** 2 - 1e-9);
  const wide = (n: number): boolean => (studentQuantile(0.5 + confidence / 2, n - 1) * sd) / Math.sqrt(n) > halfWidth;
  let student = Math.max(2, normal); // Student never needs fewer than the normal formula
  while (wide(student)) student += 1;
  const correlated = Math.ceil((student * (1 + correlation)) / (1 - correlation) - 1e-9);
  return { normal, student, correlated };
}

const CHI_POINTS = 64;

/** Power of a two-sided paired t test: noncentral t, integrated over the distribution of the sample deviation. */
export function pairedPower(n: number, trueDifference: number, sd: number, confidence = 0.95): number {
  const dof = n - 1;
  const critical = studentQuantile(0.5 + confidence / 2, dof);
  const shift = (trueDifference / sd) * Math.sqrt(n);
  const { nodes, weights } = gaussLegendre(CHI_POINTS);
  // s = √(χ²/ν): density 2 (ν/2)^{ν/2} s^{ν−1} e^{−νs²/2} / Γ(ν/2); practically all of it lies within 1 ± 6/√ν, from 0
  const logFront = Math.log(2) + (dof / 2) * Math.log(dof / 2) - logGamma(dof / 2);
  const low = Math.max(0, 1 - 7 / Math.sqrt(2 * dof));
  const high = 1 + 7 / Math.sqrt(2 * dof);
  let power = 0;
  for (let i = 0; i < CHI_POINTS; i += 1) {
    const s = low + ((high - low) * (1 + nodes[i])) / 2;
    const density = Math.exp(logFront + (dof - 1) * Math.log(s) - (dof * s * s) / 2);
    const reject = 1 - normalCdf(critical * s - shift) + normalCdf(-critical * s - shift);
    power += ((high - low) / 2) * weights[i] * density * reject;
  }
  return power;
}

/** Asking for more pairs than this is answered with "not practical" (null). */
const MOST_PAIRS = 2000;

/** Smallest number of pairs with which a true difference would be proven with the given probability; null beyond 2000. */
export function pairsForPower(sd: number, difference: number, power = 0.8, confidence = 0.95): number | null {
  requirePositive(sd, 'Scatter (dB)');
  requirePositive(Math.abs(difference), 'Difference to prove (dB)');
  requireRange(power, 'Power (ratio)', 0.01, 0.999);
  requireRange(confidence, 'Confidence (ratio)', 0.5, 0.9999);
  let [low, high] = [1, 2];
  while (pairedPower(high, difference, sd, confidence) < power) {
    if (high >= MOST_PAIRS) return null;
    [low, high] = [high, Math.min(MOST_PAIRS, 2 * high)];
  }
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (pairedPower(middle, difference, sd, confidence) >= power) high = middle;
    else low = middle;
  }
  return high;
}

/** Signed-rank test and shift estimate. */
export interface SignedRank {
  readonly used: number;
  readonly wPlus: number;
  readonly pTwoSided: number | null;
  readonly hodgesLehmann: number;
}

/** Above this many pairs the exact enumeration gives way to the normal approximation with tie correction. */
const EXACT_UP_TO = 25;

/**
 * Wilcoxon signed-rank test: zeros dropped, mid-ranks for ties, exact p over all sign patterns (doubled ranks make the sums
 * whole numbers) up to 25 pairs. Hodges-Lehmann: median of the Walsh averages of all differences.
 * Source: Wilcoxon, Biometrics Bulletin 1 (1945) 80; Hodges & Lehmann, Ann. Math. Stat. 34 (1963) 598.
 */
export function signedRank(differences: readonly number[]): SignedRank {
  if (differences.length === 0)
    throw new ShapeError('There are no complete pairs yet. Log one reading of each antenna.');
  const kept = differences.filter((d) => Math.abs(d) > 1e-12).sort((a, b) => Math.abs(a) - Math.abs(b));
  const n = kept.length;
  const doubledRanks = new Array<number>(n);
  let tieTerm = 0;
  for (let i = 0; i < n;) {
    let end = i + 1;
    while (end < n && Math.abs(Math.abs(kept[end]) - Math.abs(kept[i])) < 1e-9) end += 1;
    for (let k = i; k < end; k += 1) doubledRanks[k] = i + 1 + end;
    tieTerm += (end - i) ** 3 - (end - i);
    i = end;
  }
  const wDoubled = doubledRanks.reduce((sum, rank, i) => sum + (kept[i] > 0 ? rank : 0), 0);
  const total = doubledRanks.reduce((sum, rank) => sum + rank, 0);
  return {
    used: n,
    wPlus: wDoubled / 2,
    pTwoSided:
      n === 0 ? null : n <= EXACT_UP_TO ? exactP(doubledRanks, total, wDoubled) : normalP(n, wDoubled / 2, tieTerm),
    hodgesLehmann: walshMedian(differences),
  };
}

function exactP(doubledRanks: readonly number[], total: number, observed: number): number {
  let ways = new Float64Array(total + 1);
  ways[0] = 1;
  for (const rank of doubledRanks) {
    const next = ways.slice();
    for (let sum = rank; sum <= total; sum += 1) next[sum] += ways[sum - rank];
    ways = next;
  }
  const far = Math.abs(2 * observed - total);
  let extreme = 0;
  ways.forEach((count, sum) => {
    if (Math.abs(2 * sum - total) >= far) extreme += count;
  });
  return Math.min(1, extreme / 2 ** doubledRanks.length);
}

function normalP(n: number, wPlus: number, tieTerm: number): number {
  const variance = (n * (n + 1) * (2 * n + 1)) / 24 - tieTerm / 48;
  return Math.min(1, 2 * (1 - normalCdf(Math.abs(wPlus - (n * (n + 1)) / 4) / Math.sqrt(variance))));
}

/** Median of the averages of all pairs (Hodges & Lehmann 1963). */
function walshMedian(values: readonly number[]): number {
  const sorted = Float64Array.from(values).sort();
  const count = (sorted.length * (sorted.length + 1)) / 2;
  const middle = count >> 1;
  return count % 2 === 1
    ? walshRank(sorted, middle) / 2
    : (walshRank(sorted, middle - 1) + walshRank(sorted, middle)) / 4;
}

/** How many sums of two values, each with itself and every later one, lie at or below a limit; and the largest of them. */
function sumsUpTo(sorted: Float64Array, limit: number): { readonly count: number; readonly largest: number } {
  let [count, largest, j] = [0, -Infinity, sorted.length - 1];
  for (let i = 0; i < sorted.length; i += 1) {
    while (j >= i && sorted[i] + sorted[j] > limit) j -= 1;
    if (j < i) break;
    count += j - i + 1;
    largest = Math.max(largest, sorted[i] + sorted[j]);
  }
  return { count, largest };
}

/** The sum of rank k (from 0) by halving the span of values: a few dozen looks of n steps instead of n² sums. */
function walshRank(sorted: Float64Array, k: number): number {
  let [low, high] = [2 * sorted[0], 2 * sorted[sorted.length - 1]];
  // the sum sought lies in (low, high], or is low itself
  if (sumsUpTo(sorted, low).count > k) return low;
  for (;;) {
    const middle = low + (high - low) / 2;
    if (middle <= low || middle >= high) return sumsUpTo(sorted, high).largest;
    const { count, largest } = sumsUpTo(sorted, middle);
    if (count > k) high = largest;
    else low = middle;
  }
}
