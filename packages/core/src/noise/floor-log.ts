import type { FloorReading } from '../formats/floor-csv';
import { requireRange, ShapeError } from '../errors';
import type { Position } from '../site/place';
import { ENVIRONMENTS, expectedNoise, noisePowerDbm, type Environment } from '../site/external-noise';
import { lightAt, sunTimes } from '../site/sun';
import { median } from '../numeric/statistics';

/** A lasting change of the floor. */
export interface FloorStep {
  /** First reading after the change. */
  readonly atMs: number;
  readonly beforeDbm: number;
  readonly afterDbm: number;
  readonly stepDb: number;
  /** Sunrise or sunset nearest to it, minutes (positive: the step came after it); undefined when none is within two hours. */
  readonly sun?: { readonly event: 'sunrise' | 'sunset'; readonly minutesAfter: number };
  /** What such a step is often made by; a hint, no finding. */
  readonly hint: string;
}

/** Readings that each side of a step must have, and the least step, dB. Common practice, no source. */
const LEAST_SIDE = 4;
const LEAST_STEP_DB = 2;
/** A step must be this many times the scatter of the readings about their level. */
const LEAST_RATIO = 4;
const MINUTE_MS = 60_000;
const SUN_REACH_MIN = 120;
/** Readings farther from the median than this many scatters do not count for the level. */
const OUTLIER = 3.5;

const scatterOf = (values: readonly number[]): number => {
  const middle = median(values);
  return 1.4826 * median(values.map((value) => Math.abs(value - middle)));
};

/** Level of readings: the mean of those that are no outliers. */
function levelOf(values: readonly number[]): number {
  const middle = median(values);
  const reach = OUTLIER * Math.max(0.1, scatterOf(values));
  const kept = values.filter((value) => Math.abs(value - middle) <= reach);
  return kept.reduce((sum, value) => sum + value, 0) / kept.length;
}

const spread = (values: readonly number[]): number => {
  const middle = median(values);
  return values.reduce((sum, value) => sum + Math.abs(value - middle), 0);
};

/** Readings farther apart than this many usual intervals, and than ten minutes, leave a gap: what happened in it nobody saw. */
const GAP_INTERVALS = 5;
const GAP_MS = 10 * MINUTE_MS;

/** For each reading whether a gap lies ahead of it. */
function gapsAhead(readings: readonly FloorReading[]): readonly boolean[] {
  const intervals = readings.slice(1).map(({ atMs }, i) => atMs - readings[i].atMs);
  const most = intervals.length === 0 ? Infinity : Math.max(GAP_MS, GAP_INTERVALS * median(intervals));
  return [false, ...intervals.map((interval) => interval > most)];
}

/** How much better two levels explain the readings around a place than one, if they differ enough; undefined when they do not. */
function stepGain(levels: readonly number[], at: number, gapAhead: readonly boolean[]): number | undefined {
  // a change across hours without a reading has no moment, so it is no step
  for (let i = at - LEAST_SIDE + 1; i < at + LEAST_SIDE; i += 1) if (gapAhead[i]) return undefined;
  const before = levels.slice(Math.max(0, at - LEAST_SIDE), at);
  const after = levels.slice(at, at + LEAST_SIDE);
  if (before.length < LEAST_SIDE || after.length < LEAST_SIDE) return undefined;
  const step = Math.abs(median(after) - median(before));
  const scatter = Math.max(scatterOf(before), scatterOf(after), 0.2);
  if (step < LEAST_STEP_DB || step < LEAST_RATIO * scatter) return undefined;
  return spread([...before, ...after]) - spread(before) - spread(after);
}

/** Sunrise or sunset nearest to a moment. */
function nearestSun(position: Position, atMs: number): FloorStep['sun'] {
  const events = [-1, 0, 1].flatMap((day) => {
    const { riseMs, setMs } = sunTimes(position, atMs + day * 24 * 60 * MINUTE_MS);
    return [
      ...(riseMs === undefined ? [] : [{ event: 'sunrise' as const, ms: riseMs }]),
      ...(setMs === undefined ? [] : [{ event: 'sunset' as const, ms: setMs }]),
    ];
  });
  const [nearest] = events.sort((a, b) => Math.abs(a.ms - atMs) - Math.abs(b.ms - atMs));
  if (!nearest) return undefined;
  const minutesAfter = (atMs - nearest.ms) / MINUTE_MS;
  return Math.abs(minutesAfter) <= SUN_REACH_MIN ? { event: nearest.event, minutesAfter } : undefined;
}

/** Nearer to sunrise or sunset than this a step looks like something that follows the light. Common practice, no source. */
const WITH_THE_SUN_MIN = 30;

function hintFor(stepDb: number, sun: FloorStep['sun']): string {
  if (!sun || Math.abs(sun.minutesAfter) > WITH_THE_SUN_MIN)
    return 'suspect something that was switched or has a timer; only a hint';
  const fell = stepDb < 0;
  return (sun.event === 'sunset') === fell
    ? 'suspect photovoltaic or lighting; only a hint'
    : 'suspect lighting, or propagation that opens with the dark; only a hint';
}

/**
 * Lasting steps of a noise log, in time order: places where the medians of four readings before and after differ by at least 2 dB and four times
 * their scatter, each where two levels explain its neighbourhood best. Robust against single crashes.
 * @param position for the sun; absent: no sun times.
 * @throws ShapeError for readings that are not in time order.
 */
export function floorSteps(readings: readonly FloorReading[], position?: Position): readonly FloorStep[] {
  readings.forEach((reading, i) => {
    requireRange(reading.levelDbm, 'Level (dBm)', -250, 80);
    if (i > 0 && reading.atMs <= readings[i - 1].atMs)
      throw new ShapeError(`Reading ${i + 1} is not later than the one before. Sort the log by time.`);
  });
  const levels = readings.map(({ levelDbm }) => levelDbm);
  const gapAhead = gapsAhead(readings);
  const gains = levels.map((_, at) => stepGain(levels, at, gapAhead));
  // of neighbouring places the one that explains most is the step
  const cuts = gains.flatMap((gain, at) => {
    if (gain === undefined) return [];
    const rivals = gains.slice(Math.max(0, at - LEAST_SIDE + 1), at + LEAST_SIDE);
    return rivals.every(
      (one, i) => one === undefined || one < gain || (one === gain && i >= Math.min(at, LEAST_SIDE - 1)),
    )
      ? [at]
      : [];
  });
  const edges = [0, ...cuts, levels.length];
  return cuts.map((cut, i): FloorStep => {
    const beforeDbm = levelOf(levels.slice(edges[i], cut));
    const afterDbm = levelOf(levels.slice(cut, edges[i + 2]));
    const { atMs } = readings[cut];
    const sun = position && nearestSun(position, atMs);
    const stepDb = afterDbm - beforeDbm;
    return { atMs, beforeDbm, afterDbm, stepDb, ...(sun ? { sun } : {}), hint: hintFor(stepDb, sun) };
  });
}

/** Level over a group of readings. */
export interface FloorGroup {
  readonly name: string;
  readonly count: number;
  readonly medianDbm: number;
}

const WEEKDAYS = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday'];

/** Medians by day and night (sun above or below −6°) and by weekday, UTC; groups without readings are left out. */
export function floorPattern(
  readings: readonly FloorReading[],
  position: Position,
): { readonly light: readonly FloorGroup[]; readonly weekdays: readonly FloorGroup[] } {
  const groups = (nameOf: (reading: FloorReading) => string, order: readonly string[]): readonly FloorGroup[] =>
    order.flatMap((name) => {
      const levels = readings.filter((reading) => nameOf(reading) === name).map(({ levelDbm }) => levelDbm);
      return levels.length === 0 ? [] : [{ name, count: levels.length, medianDbm: median(levels) }];
    });
  return {
    light: groups(({ atMs }) => lightAt(position, atMs), ['day', 'twilight', 'night']),
    weekdays: groups(({ atMs }) => WEEKDAYS[new Date(atMs).getUTCDay()], WEEKDAYS),
  };
}

/** What a noise class expects, for a lossless antenna without a line. */
export interface ClassMedian {
  readonly environment: Environment;
  readonly levelDbm: number;
  /** Near enough to a log to be drawn behind it. */
  readonly near: boolean;
}

/** Medians this far from the readings are still near, dB. */
const BEHIND_DB = 20;

/**
 * Median noise of every class at a frequency, beside a log whose readings lie between two levels.
 * @param span lowest and highest reading, dBm. Source: Recommendation ITU-R P.372, ±10 dB.
 */
export const classMedians = (
  freqHz: number,
  bandwidthHz: number,
  [lowestDbm, highestDbm]: readonly [number, number],
): readonly ClassMedian[] =>
  ENVIRONMENTS.map((environment) => {
    const levelDbm = noisePowerDbm(expectedNoise(environment, freqHz).faDb, bandwidthHz);
    return { environment, levelDbm, near: levelDbm > lowestDbm - BEHIND_DB && levelDbm < highestDbm + BEHIND_DB };
  });
