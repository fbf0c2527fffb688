import { getPosition, getTimes } from 'suncalc';
import { requireRange } from '../errors';
import type { Position } from './place';

/** Sun times of one UTC day; undefined for what does not happen on that day (polar day or night). */
export interface SunTimes {
  readonly riseMs?: number;
  readonly setMs?: number;
  /** Begin of morning and end of evening civil twilight (−6°). */
  readonly dawnMs?: number;
  readonly duskMs?: number;
}

const DAY_MS = 86_400_000;

/**
 * Rise and set (upper limb, refraction: −0.833°) that fall within the UTC day containing `atMs`, by the suncalc package.
 * Checked within 2 minutes against published positions of the sun; a horizon of hills is not known.
 */
export function sunTimes(position: Position, atMs: number): SunTimes {
  requireRange(position.latDeg, 'Latitude (degrees)', -90, 90);
  requireRange(position.lonDeg, 'Longitude (degrees)', -180, 180);
  requireRange(atMs, 'Time (ms)', -8e15, 8e15);
  const startMs = Math.floor(atMs / DAY_MS) * DAY_MS;
  const within = (name: 'sunrise' | 'sunset' | 'dawn' | 'dusk'): number | undefined => {
    for (const day of [0, -1, 1]) {
      const times = getTimes(new Date(startMs + DAY_MS / 2 + day * DAY_MS), position.latDeg, position.lonDeg);
      const value = times[name]?.getTime();
      if (value !== undefined && Number.isFinite(value) && value >= startMs && value < startMs + DAY_MS) return value;
    }
    return undefined;
  };
  return { riseMs: within('sunrise'), setMs: within('sunset'), dawnMs: within('dawn'), duskMs: within('dusk') };
}

/**
 * The daylight that begins within the UTC day containing `atMs`: its rise and dawn, and the set and dusk that end it. Far from Greenwich the end falls on
 * another UTC day. Without a rise, what sets within the day.
 */
export function daylightOf(position: Position, atMs: number): SunTimes {
  const today = sunTimes(position, atMs);
  const next = sunTimes(position, atMs + DAY_MS);
  const ending = (from: number | undefined, own: number | undefined, later: number | undefined): number | undefined =>
    from === undefined || (own !== undefined && own > from) ? own : later;
  return {
    ...today,
    setMs: ending(today.riseMs, today.setMs, next.setMs),
    duskMs: ending(today.dawnMs, today.duskMs, next.duskMs),
  };
}

/** The next rise or set after a moment, within two days. */
export function nextSunEvent(
  position: Position,
  atMs: number,
): { kind: 'sunrise' | 'sunset'; atMs: number } | undefined {
  const events = [0, 1, 2].flatMap((day) => {
    const times = sunTimes(position, atMs + day * DAY_MS);
    return [
      ...(times.riseMs === undefined ? [] : [{ kind: 'sunrise' as const, atMs: times.riseMs }]),
      ...(times.setMs === undefined ? [] : [{ kind: 'sunset' as const, atMs: times.setMs }]),
    ];
  });
  return events.filter((event) => event.atMs > atMs).sort((a, b) => a.atMs - b.atMs)[0];
}

/** Elevation of the sun's centre, degrees, without refraction, by the suncalc package. */
export const sunElevationDeg = (position: Position, atMs: number): number =>
  getPosition(new Date(atMs), position.latDeg, position.lonDeg).altitude;

/** Light at a place: day above the horizon, twilight down to −12° (nautical), night below. */
export function lightAt(position: Position, atMs: number): 'day' | 'twilight' | 'night' {
  const elevation = sunElevationDeg(position, atMs);
  return elevation > -0.833 ? 'day' : elevation > -12 ? 'twilight' : 'night';
}

/** Half of the day to which the middle of a stretch of the UTC day belongs; undefined where no stretch is said. @param fromMin @param toMin minutes since midnight UTC; `toMin` before `fromMin` runs over midnight. @param atMs a moment of the day in question. */
export function halfOfHours(
  position: Position,
  { fromMin, toMin }: { readonly fromMin: number | null; readonly toMin: number | null },
  atMs: number,
): 'day' | 'night' | undefined {
  if (fromMin === null || toMin === null) return undefined;
  const lengthMin = (toMin - fromMin + 1440) % 1440 || 1440;
  const middleMs = Math.floor(atMs / DAY_MS) * DAY_MS + (fromMin + lengthMin / 2) * 60_000;
  return lightAt(position, middleMs) === 'day' ? 'day' : 'night';
}
