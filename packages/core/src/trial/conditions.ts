import { ShapeError } from '../errors';
import { studentQuantile } from '../numeric/special';
import { pairedDifferences } from './paired';

/** Something that may decide which antenna is better; a value for each pair, null where nobody knows it. */
export type Factor =
  | { readonly id: string; readonly kind: 'number'; readonly values: readonly (number | null)[] }
  | { readonly id: string; readonly kind: 'flag'; readonly values: readonly (boolean | null)[] };

/** The pairs on one side of a rule. */
export interface Stratum {
  readonly n: number;
  readonly meanDb: number;
  /** 95 %, by Student. */
  readonly lowDb: number;
  readonly highDb: number;
}

/** What the difference hangs on. */
export interface ConditionRule {
  readonly factor: string;
  /** Of a number: pairs at or above it are on the far side. */
  readonly threshold?: { readonly at: number; readonly low: number; readonly high: number };
  /** Below the threshold, or where the flag is not set. */
  readonly near: Stratum;
  readonly far: Stratum;
  /** Whether the one antenna wins on one side and the other on the other; else only the size differs. */
  readonly opposite: boolean;
  /** Chance of as large a difference somewhere among all factors if none matters. */
  readonly p: number;
}

/** Whether a rule was found, and if not, what keeps it from being found. */
export type RuleFinding =
  | { readonly state: 'rule'; readonly rule: ConditionRule }
  | { readonly state: 'none' }
  /** A factor with too few pairs on one side: how many are missing there. */
  | { readonly state: 'too few'; readonly factor: string; readonly side: 'near' | 'far'; readonly missing: number };

/** Pairs that each side of a rule must have. */
const LEAST_SIDE = 5;
/** Shuffles of the differences against which the largest effect is held. */
const SHUFFLES = 999;
const ALPHA = 0.05;

/** Pairs in the order of a factor, and where sides may be parted. */
interface Ordered {
  readonly factor: Factor;
  /** Places in the list of pairs, the near side first. */
  readonly order: Int32Array;
  /** Sizes of the near side at which the value changes. */
  readonly cuts: readonly number[];
}

function ordered(factor: Factor): Ordered {
  const known = factor.values.flatMap((value, i) => (value === null ? [] : [{ i, value: Number(value) }]));
  known.sort((a, b) => a.value - b.value || a.i - b.i);
  const cuts = known
    .slice(1)
    .flatMap(({ value }, k) => (value > known[k].value ? [k + 1] : []))
    .filter((size) => size >= LEAST_SIDE && known.length - size >= LEAST_SIDE);
  return { factor, order: Int32Array.from(known, ({ i }) => i), cuts };
}

/** Largest squared t of a difference between the two sides, over all cuts. */
function strongestCut({ order, cuts }: Ordered, values: Float64Array): { readonly t2: number; readonly size: number } {
  const n = order.length;
  let [sum, squares] = [0, 0];
  for (let k = 0; k < n; k += 1) {
    const value = values[order[k]];
    sum += value;
    squares += value * value;
  }
  const whole = squares - (sum * sum) / n;
  let best = { t2: 0, size: 0 };
  let [near, at] = [0, 0];
  for (const size of cuts) {
    for (; at < size; at += 1) near += values[order[at]];
    const far = sum - near;
    const between = (near * near) / size + (far * far) / (n - size) - (sum * sum) / n;
    const t2 = (between * (n - 2)) / Math.max(1e-12, whole - between);
    if (t2 > best.t2) best = { t2, size };
  }
  return best;
}

const stratum = (differences: readonly number[]): Stratum => {
  const { n, mean, ciLow, ciHigh } = pairedDifferences(differences);
  return { n, meanDb: mean, lowDb: ciLow ?? mean, highDb: ciHigh ?? mean };
};

/** Thresholds that the readings do not tell apart from the best one: misfit within 95 % of the least. Source: Hansen, Econometrica 68 (2000) 575. */
function thresholdOf({ factor, order, cuts }: Ordered, values: Float64Array, size: number) {
  const n = order.length;
  const valueAt = (k: number): number => Number(factor.values[order[k]]);
  const middleOf = (cut: number): number => (valueAt(cut - 1) + valueAt(cut)) / 2;
  const misfit = (cut: number): number => {
    const part = (from: number, to: number): number => {
      let [sum, squares] = [0, 0];
      for (let k = from; k < to; k += 1) {
        sum += values[order[k]];
        squares += values[order[k]] ** 2;
      }
      return squares - (sum * sum) / (to - from);
    };
    return part(0, cut) + part(cut, n);
  };
  const least = misfit(size);
  const limit = least * (1 + studentQuantile(1 - ALPHA / 2, n - 3) ** 2 / (n - 3));
  const alike = cuts.filter((cut) => misfit(cut) <= limit);
  return { at: middleOf(size), low: valueAt(Math.min(...alike) - 1), high: valueAt(Math.max(...alike)) };
}

/** Numbers of a generator for shuffles: the same readings give the same answer. Source: Park & Miller, CACM 31 (1988) 1192. */
function shuffler(seed: number): (values: Float64Array) => void {
  let state = (seed % 2147483646) + 1;
  return (values) => {
    for (let i = values.length - 1; i > 0; i -= 1) {
      state = (state * 48271) % 2147483647;
      const k = state % (i + 1);
      [values[i], values[k]] = [values[k], values[i]];
    }
  };
}

/**
 * Looks among conditions for the one that the difference of two antennas hangs on. Each factor parts the pairs in two; the strongest parting of all
 * counts if fewer than 5 % of shuffles of the differences show one as strong anywhere: so many factors may be looked at without finding what is
 * not there.
 * @param differencesDb SNR of B less A, one a pair. @param factors values in the same order.
 * @throws ShapeError when a factor has another number of values. Range: pairs that could have come in any order; those of one evening go together.
 * Source: permutation test of a maximum, Westfall & Young, Resampling-Based Multiple Testing (1993).
 */
export function findRule(differencesDb: readonly number[], factors: readonly Factor[]): RuleFinding {
  for (const { id, values } of factors)
    if (values.length !== differencesDb.length)
      throw new ShapeError(`The condition ${id} has ${values.length} values for ${differencesDb.length} pairs.`);
  const all = factors.map(ordered);
  const open = all.filter(({ cuts }) => cuts.length > 0);
  const values = Float64Array.from(differencesDb);
  if (open.length === 0) return tooFew(all);
  const found = open
    .map((one) => ({ one, ...strongestCut(one, values) }))
    .reduce((best, next) => (next.t2 > best.t2 ? next : best));
  const shuffle = shuffler(differencesDb.length * 7919 + factors.length);
  const shuffled = values.slice();
  let asStrong = 0;
  for (let k = 0; k < SHUFFLES; k += 1) {
    shuffle(shuffled);
    if (open.some((one) => strongestCut(one, shuffled).t2 >= found.t2)) asStrong += 1;
  }
  const p = (asStrong + 1) / (SHUFFLES + 1);
  if (p > ALPHA) return { state: 'none' };
  const { one, size } = found;
  const side = (from: number, to: number): Stratum =>
    stratum(Array.from(one.order.subarray(from, to), (i) => differencesDb[i]));
  const [near, far] = [side(0, size), side(size, one.order.length)];
  return {
    state: 'rule',
    rule: {
      factor: one.factor.id,
      ...(one.factor.kind === 'number' ? { threshold: thresholdOf(one, values, size) } : {}),
      ...{ near, far, p },
      opposite: near.meanDb * far.meanDb < 0,
    },
  };
}

/** The factor that lacks the fewest pairs on a side. */
function tooFew(all: readonly Ordered[]): RuleFinding {
  const lacks = all.flatMap(({ factor, order }) => {
    if (factor.kind !== 'flag' || order.length === 0) return [];
    const near = order.filter((i) => factor.values[i] === false).length;
    const far = order.length - near;
    const side = near < far ? ('near' as const) : ('far' as const);
    return [{ factor: factor.id, side, missing: LEAST_SIDE - Math.min(near, far) }];
  });
  const [least] = lacks.filter(({ missing }) => missing > 0).sort((a, b) => a.missing - b.missing);
  return least ? { state: 'too few', ...least } : { state: 'none' };
}
