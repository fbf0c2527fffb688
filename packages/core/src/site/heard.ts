import type { Opening } from './opening';

/** Something that was heard, by its time and frequency. */
export interface HeardMark {
  readonly atMs: number;
  readonly freqHz: number;
}

const HOUR_MS = 3_600_000;
const HOURS = 24;
/** Heard on so many days in the same hour it is no accident. Assumed. */
const ENOUGH_DAYS = 3;

/** On how many days something was heard between two frequencies, by hour of the UTC day, 0 to 23. */
export function heardDays(
  marks: readonly HeardMark[],
  { lowHz, highHz }: { readonly lowHz: number; readonly highHz: number },
): readonly number[] {
  const days = Array.from({ length: HOURS }, () => new Set<number>());
  for (const { atMs, freqHz } of marks) {
    if (freqHz < lowHz || freqHz > highHz) continue;
    const hour = Math.floor(atMs / HOUR_MS);
    days[hour % HOURS].add(Math.floor(hour / HOURS));
  }
  return days.map(({ size }) => size);
}

/** What the rule says of a moment, and what the listener's own records say: they open an hour that the rule keeps shut, and never shut one. */
export function withHeard(rule: Opening, days: readonly number[], atMs: number): Opening {
  const heard = days[Math.floor(atMs / HOUR_MS) % HOURS] ?? 0;
  if (rule.always || heard < ENOUGH_DAYS || rule.quality === 'good') return rule;
  return {
    quality: rule.quality === 'poor' ? 'fair' : 'good',
    why: `heard here in this hour on ${heard} days: your own records`,
  };
}
