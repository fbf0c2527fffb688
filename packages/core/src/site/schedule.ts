import { satellitePasses, type OrbitalElements } from './passes';
import { wantedPosition, LINE_OF_SIGHT_FROM_HZ, type WantedPlace } from './arrival';
import type { Position } from './place';
import { lightAt } from './sun';

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
/** Below: absorbed by day, good in the dark. Above: carried by day, dead in the dark. Between both: best at dusk and dawn. Common practice, no source. */
const NIGHT_BELOW_HZ = 8e6;
const DAY_ABOVE_HZ = 12e6;
const SKY_WAVE_BELOW_HZ = 50e6;

interface Opinion {
  readonly quality: 'good' | 'fair' | 'poor';
  readonly why: string;
}

/** Whether the sun at both ends favours a frequency. A stated rule of thumb, not a forecast of the ionosphere. */
export function lightFavours(
  freqHz: number,
  here: ReturnType<typeof lightAt>,
  there: ReturnType<typeof lightAt>,
): Opinion {
  const dark = [here, there].filter((light) => light !== 'day').length;
  const ends = `${here} here, ${there} there`;
  if (freqHz < NIGHT_BELOW_HZ)
    return dark === 2
      ? { quality: 'good', why: `${ends}: no absorption below 8 MHz` }
      : dark === 1
        ? { quality: 'fair', why: `${ends}: the bright end absorbs` }
        : { quality: 'poor', why: `${ends}: absorbed by day` };
  if (freqHz > DAY_ABOVE_HZ)
    return dark === 0
      ? { quality: 'good', why: `${ends}: carried by day above 12 MHz` }
      : [here, there].includes('night')
        ? { quality: 'poor', why: `${ends}: the dark end lets it through` }
        : { quality: 'fair', why: `${ends}: about to close` };
  return [here, there].includes('twilight')
    ? { quality: 'good', why: `${ends}: the grey line favours 8 to 12 MHz` }
    : { quality: 'fair', why: `${ends}: 8 to 12 MHz is open most hours` };
}

/** Whether a moment lies within a target's hours. */
export function withinHours({ fromMin, toMin }: Pick<ScheduledTarget, 'fromMin' | 'toMin'>, atMs: number): boolean {
  if (fromMin === null || toMin === null || fromMin === toMin) return true;
  const minute = Math.floor(atMs / MINUTE_MS) % 1440;
  return fromMin < toMin ? minute >= fromMin && minute < toMin : minute >= fromMin || minute < toMin;
}

const hasHours = (target: ScheduledTarget): boolean => target.fromMin !== null && target.toMin !== null;

function opinion(target: ScheduledTarget, station: Position, atMs: number): Opinion {
  const centreHz = (target.lowHz + target.highHz) / 2;
  const place = wantedPosition(target);
  if (centreHz >= LINE_OF_SIGHT_FROM_HZ || centreHz >= SKY_WAVE_BELOW_HZ)
    return {
      quality: 'good',
      why: hasHours(target) ? 'its own hours; the sun does not matter' : 'any hour: line of sight',
    };
  const here = lightAt(station, atMs);
  if (!place) {
    const { quality, why } = lightFavours(centreHz, here, here);
    return { quality, why: `${why.replace(/, \w+ there/, '')} (no place given: this end only)` };
  }
  return lightFavours(centreHz, here, lightAt(place, atMs));
}

/**
 * Good and fair windows in a stretch of time, earliest first: the target's own hours, the sun at both ends, and satellite passes. Edges are
 * good to 10 minutes, passes to a second.
 */
export function listeningWindows(
  targets: readonly ScheduledTarget[],
  satellites: readonly ScheduledSatellite[],
  station: Position,
  fromMs: number,
  hours = 24,
): readonly ListeningWindow[] {
  const toMs = fromMs + hours * 60 * MINUTE_MS;
  const windows = targets.flatMap((target): ListeningWindow[] => {
    const found: ListeningWindow[] = [];
    let open: ListeningWindow | undefined;
    for (let ms = fromMs; ms <= toMs; ms += STEP_MS) {
      const now = ms < toMs && withinHours(target, ms) ? opinion(target, station, ms) : undefined;
      const counted = now && now.quality !== 'poor' ? { quality: now.quality, why: now.why } : undefined;
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
