import { satellitePasses, type OrbitalElements } from './passes';
import type { WantedPlace } from './arrival';
import { heardDays, type HeardMark, withHeard } from './heard';
import { openingAt } from './opening';
import type { Position } from './place';

/** A target as far as the timetable needs it. */
export interface ScheduledTarget extends WantedPlace {
  readonly id: string;
  readonly name: string;
  readonly weight: number;
  /** Its hours, minutes of the UTC day; both null: always. An end before the beginning runs past midnight. */
  readonly fromMin: number | null;
  readonly toMin: number | null;
}

export interface ScheduledSatellite extends OrbitalElements {
  readonly id: string;
  readonly freqHz: number;
  readonly leastDeg: number;
}

/** A stretch of time worth listening in. */
export interface ListeningWindow {
  readonly id: string;
  readonly name: string;
  readonly fromMs: number;
  readonly toMs: number;
  readonly quality: 'good' | 'fair';
  readonly why: string;
  readonly weight: number;
}

const MINUTE_MS = 60_000;
const STEP_MS = 10 * MINUTE_MS;
/** Whether a moment lies within a target's hours. */
export function withinHours({ fromMin, toMin }: Pick<ScheduledTarget, 'fromMin' | 'toMin'>, atMs: number): boolean {
  if (fromMin === null || toMin === null || fromMin === toMin) return true;
  const minute = Math.floor(atMs / MINUTE_MS) % 1440;
  return fromMin < toMin ? minute >= fromMin && minute < toMin : minute >= fromMin || minute < toMin;
}

/**
 * Good and fair windows in a stretch of time, earliest first: the target's own hours, what the way lets through, and satellite passes. Edges are
 * good to 10 minutes, passes to a second.
 * @param heard what the listener heard before: in hours of several days it opens what the rule keeps shut.
 */
export function listeningWindows(
  targets: readonly ScheduledTarget[],
  satellites: readonly ScheduledSatellite[],
  station: Position,
  fromMs: number,
  hours = 24,
  heard: readonly HeardMark[] = [],
): readonly ListeningWindow[] {
  const toMs = fromMs + hours * 60 * MINUTE_MS;
  const windows = targets.flatMap((target): ListeningWindow[] => {
    const found: ListeningWindow[] = [];
    const days = heardDays(heard, target);
    let open: ListeningWindow | undefined;
    for (let ms = fromMs; ms <= toMs; ms += STEP_MS) {
      const now =
        ms < toMs && withinHours(target, ms) ? withHeard(openingAt(target, station, ms), days, ms) : undefined;
      const counted = now && now.quality !== 'poor' ? { quality: now.quality, why: now.why } : undefined;
      // what stands behind a window changes by the minute: the words of its beginning stay
      if (open && open.quality === counted?.quality) continue;
      if (open) found.push({ ...open, toMs: ms });
      open = counted && { id: target.id, name: target.name, weight: target.weight, fromMs: ms, toMs: ms, ...counted };
    }
    return found;
  });
  const passes = satellites.flatMap((satellite) =>
    satellitePasses(satellite, station, { fromMs, toMs, leastDeg: satellite.leastDeg }).map(
      (pass): ListeningWindow => ({
        id: `satellite-${satellite.id}`,
        name: satellite.name,
        fromMs: pass.riseMs,
        toMs: pass.setMs,
        quality: pass.highestDeg >= 30 ? 'good' : 'fair',
        why: `pass, ${pass.highestDeg.toFixed(0)}° at ${new Date(pass.highestMs).toISOString().slice(11, 16)} UTC, rises at ${pass.riseAzimuthDeg.toFixed(0)}°, sets at ${pass.setAzimuthDeg.toFixed(0)}°, Doppler ±${((Math.abs(pass.riseDopplerRatio) * satellite.freqHz) / 1000).toFixed(2)} kHz`,
        weight: 3,
      }),
    ),
  );
  return [...windows, ...passes].sort((a, b) => a.fromMs - b.fromMs || b.weight - a.weight);
}
