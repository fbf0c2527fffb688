import { incompleteBeta } from '../numeric/special';

/** An hour of the day at which something comes again and again. */
export interface RecurringHour {
  /** Beginning of a stretch of two hours, UTC; a whole hour, 0 to 23. */
  readonly fromHour: number;
  /** Events within it, and all; on so many different days. */
  readonly count: number;
  readonly of: number;
  readonly days: number;
  /** Chance that some stretch of two hours would hold as many if they came at any hour. */
  readonly byChance: number;
}

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
const STRETCH_H = 2;
const LEAST_DAYS = 3;
/** Recurring: less likely than this by chance. */
const RARE = 0.05;

/**
 * The two hours of the day in which events come most, where that is no accident: several on one day count once, and every one of 24 stretches might have
 * been the one (Bonferroni), so P = min(1, 24·P(X ≥ k)) with X binomial of n days at 2/24.
 * @param timesMs moments, UTC. @returns undefined when they come at any hour, or on fewer than three days.
 */
export function recurringHour(timesMs: readonly number[]): RecurringHour | undefined {
  const day = (atMs: number): number => Math.floor(atMs / DAY_MS);
  const of = new Set(timesMs.map(day)).size;
  if (of < LEAST_DAYS) return undefined;
  const stretches = Array.from({ length: 24 }, (_, fromHour) => {
    const within = timesMs.filter((atMs) => {
      const hour = (((atMs % DAY_MS) + DAY_MS) % DAY_MS) / HOUR_MS;
      return (hour - fromHour + 24) % 24 < STRETCH_H;
    });
    // a stretch over midnight belongs to the day on which it began
    const days = new Set(within.map((atMs) => day(atMs - fromHour * HOUR_MS))).size;
    return { fromHour, count: within.length, of: timesMs.length, days };
  });
  const best = stretches.reduce((a, b) => (b.days > a.days ? b : a));
  const k = Math.min(best.days, of);
  const byChance = Math.min(1, 24 * incompleteBeta(STRETCH_H / 24, k, of - k + 1));
  return best.days >= LEAST_DAYS && byChance < RARE ? { ...best, byChance } : undefined;
}

/** Events by month of the year, those without any left out: when in the year a source is there. */
export const byMonth = (timesMs: readonly number[]): readonly { readonly month: string; readonly count: number }[] =>
  MONTHS.flatMap((month, index) => {
    const count = timesMs.filter((atMs) => new Date(atMs).getUTCMonth() === index).length;
    return count > 0 ? [{ month, count }] : [];
  });
const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
];
