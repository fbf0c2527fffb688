import { requireRange } from '../errors';
import { median } from '../numeric/statistics';
import { studentQuantile } from '../numeric/special';

const DAY_MS = 86_400_000;
const YEAR_DAYS = 365.25;
/** The same weeks: so many days before and after the day of the year. */
const SAME_WEEKS_DAYS = 28;
/** What was measured less than this apart is one season, days. */
const ONE_SEASON_DAYS = 60;
const NAMES = ['winter', 'spring', 'summer', 'autumn'] as const;

/** A measured value and when it was measured. */
export interface Dated {
  readonly atMs: number;
  readonly value: number;
}

/** "spring 2026", by the months of the hemisphere (meteorological seasons: March to May is spring in the north). */
export function seasonName(atMs: number, latDeg: number): string {
  requireRange(latDeg, 'Latitude (°)', -90, 90);
  const date = new Date(atMs);
  const month = date.getUTCMonth();
  const quarter = Math.floor(((month + 1) % 12) / 3);
  // a winter is named after the year in which it ends
  const year = date.getUTCFullYear() + (month === 11 ? 1 : 0);
  return `${NAMES[(quarter + (latDeg < 0 ? 2 : 0)) % 4]} ${year}`;
}

/** Days between two days of the year, the short way round, 0 to 183. */
function daysOfYearApart(aMs: number, bMs: number): number {
  const days = Math.abs(aMs - bMs) / DAY_MS;
  const rest = days % YEAR_DAYS;
  return Math.min(rest, YEAR_DAYS - rest);
}

/** Values of now, and those of the same weeks of an earlier year. */
interface SamePeriods {
  readonly now: readonly Dated[];
  readonly then: readonly Dated[];
}

/**
 * Splits values into the last season that was measured and the latest earlier year in which the same weeks were.
 * @returns undefined when no earlier year has any.
 */
export function sameWeeks(values: readonly Dated[]): SamePeriods | undefined {
  const sorted = [...values].sort((a, b) => a.atMs - b.atMs);
  const last = sorted.at(-1);
  if (!last) return undefined;
  const now = sorted.filter(
    ({ atMs }) => last.atMs - atMs <= ONE_SEASON_DAYS * DAY_MS && daysOfYearApart(atMs, last.atMs) <= SAME_WEEKS_DAYS,
  );
  const earlier = sorted.filter(
    ({ atMs }) => last.atMs - atMs > ONE_SEASON_DAYS * DAY_MS && daysOfYearApart(atMs, last.atMs) <= SAME_WEEKS_DAYS,
  );
  const latest = earlier.at(-1);
  if (!latest) return undefined;
  return { now, then: earlier.filter(({ atMs }) => latest.atMs - atMs <= ONE_SEASON_DAYS * DAY_MS) };
}

/** The last season that was measured and the one measured before it, whatever the weeks; undefined when there is one only. */
export function lastSeasons(values: readonly Dated[]): SamePeriods | undefined {
  const sorted = [...values].sort((a, b) => a.atMs - b.atMs);
  const last = sorted.at(-1);
  if (!last) return undefined;
  const apart = ONE_SEASON_DAYS * DAY_MS;
  const before = sorted.filter(({ atMs }) => last.atMs - atMs > apart);
  const latest = before.at(-1);
  if (!latest) return undefined;
  return {
    now: sorted.filter(({ atMs }) => last.atMs - atMs <= apart),
    then: before.filter(({ atMs }) => latest.atMs - atMs <= apart),
  };
}

/** How far a mean moved between two periods. */
export interface SeasonShift {
  /** Mean of the days of now minus that of then. */
  readonly shift: number;
  /** Interval of 95 %; null where a single day on either side, without a stated resolution, leaves the scatter open. */
  readonly low: number | null;
  readonly high: number | null;
  readonly days: { readonly now: number; readonly then: number };
  /** The interval lies on one side of zero. */
  readonly moved: boolean;
}

/** Values of one day count as one: they share the weather, the receiver and the hour. */
function daily(values: readonly Dated[]): readonly number[] {
  const days = new Map<number, number[]>();
  for (const { atMs, value } of values)
    days.set(Math.floor(atMs / DAY_MS), [...(days.get(Math.floor(atMs / DAY_MS)) ?? []), value]);
  return [...days.values()].map(median);
}

const meanOf = (list: readonly number[]): number => list.reduce((sum, one) => sum + one, 0) / list.length;
const varianceOf = (list: readonly number[]): number => {
  const mean = meanOf(list);
  return list.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (list.length - 1);
};

/**
 * Difference of the daily medians of two periods with Welch's interval (B. L. Welch, Biometrika 34, 1947), widened by the resolution of a single
 * measurement, which no number of days takes away. With one day on each side the resolution alone is the interval.
 * @param resolution half width within which a single value is known, in the unit of the values; 0: not known
 */
export function seasonShift({ now, then }: SamePeriods, resolution = 0): SeasonShift {
  requireRange(resolution, 'Resolution', 0, 1e12);
  const [a, b] = [daily(now), daily(then)];
  const shift = meanOf(a) - meanOf(b);
  const days = { now: a.length, then: b.length };
  const coarse = Math.SQRT2 * resolution;
  let half: number | undefined;
  if (a.length > 1 && b.length > 1) {
    const [va, vb] = [varianceOf(a) / a.length, varianceOf(b) / b.length];
    const sum = va + vb;
    const dof = sum > 0 ? sum ** 2 / (va ** 2 / (a.length - 1) + vb ** 2 / (b.length - 1)) : a.length + b.length - 2;
    half = Math.hypot(studentQuantile(0.975, dof) * Math.sqrt(sum), coarse);
  } else if (a.length > 1 || b.length > 1) {
    // the scatter of the side with several days stands for the single day of the other
    const many = a.length > 1 ? a : b;
    half = Math.hypot(
      studentQuantile(0.975, many.length - 1) * Math.sqrt(varianceOf(many) * (1 + 1 / many.length)),
      coarse,
    );
  } else if (resolution > 0) half = coarse;
  if (half === undefined) return { shift, low: null, high: null, days, moved: false };
  return { shift, low: shift - half, high: shift + half, days, moved: Math.abs(shift) > half };
}

/** What a change can mean, and where to look, the likeliest first. */
export interface SeasonCause {
  readonly means: string;
  readonly look: readonly string[];
}

/** What can have moved a dip: down means electrically longer. @param shiftHz not zero */
export const dipCauses = (shiftHz: number): SeasonCause =>
  shiftHz < 0
    ? {
        means: 'electrically longer',
        look: [
          ...['a stretched wire', 'a sagging middle', 'wet or iced insulation'],
          'something conducting that came near',
        ],
      }
    : {
        means: 'electrically shorter',
        look: ['a slipped or broken end', 'a corroded joint', 'a shorted turn', 'something that was taken away'],
      };

/** What a wider or narrower dip can mean. @param ratio width now over width then */
export const widthCauses = (ratio: number): SeasonCause =>
  ratio > 1
    ? { means: 'wider: more loss in the antenna or the cable', look: ['corrosion', 'water in the cable', 'dry ground'] }
    : { means: 'narrower: less loss, or a changed height', look: ['ground or cable that was wet then'] };
