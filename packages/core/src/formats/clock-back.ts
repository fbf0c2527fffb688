import type { ClockBack } from './table-question';

/** A clock that is set back at the end of summer time goes back by an hour, in some places by half of one; rows come every few minutes. */
const LEAST_MS = 60_000;
const MOST_MS = 2 * 3_600_000;
const HOUR_MS = 3_600_000;

const clockText = (ms: number): string => new Date(ms).toISOString().slice(11, 19).replace(/:00$/, '');

/**
 * The one row at which a clock goes back by up to two hours while all others follow each other; undefined for rows in order, turned round, or in no order.
 * @param localMs moments as the clock showed them, in the order of the rows. @param lineOf line of a row in the file.
 */
export function clockGoesBack(localMs: ArrayLike<number>, lineOf: (row: number) => number): ClockBack | undefined {
  let at = -1;
  for (let i = 1; i < localMs.length; i += 1) {
    const step = localMs[i] - localMs[i - 1];
    if (step >= 0) continue;
    // one more step back: this is no clock, these are rows in another order
    if (at >= 0 || step < -MOST_MS) return undefined;
    at = i;
  }
  // the last of a falling pair of rows may be the whole table: then it is one written backwards
  if (at < 0 || localMs.length < 3 || localMs[at - 1] - localMs[at] < LEAST_MS) return undefined;
  return { line: lineOf(at), from: clockText(localMs[at - 1]), to: clockText(localMs[at]) };
}

/** Moments with the hour that was set back added from that row on. */
export function setBack(localMs: ArrayLike<number>): Float64Array {
  let laterMs = 0;
  return Float64Array.from(localMs, (ms, i) => {
    if (i > 0 && ms < localMs[i - 1]) laterMs = HOUR_MS;
    return ms + laterMs;
  });
}
