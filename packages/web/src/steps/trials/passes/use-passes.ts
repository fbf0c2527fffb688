import type { Saved } from '@velvet-reed/contract';
import {
  clearSeconds,
  type HorizonPoint,
  type Pass,
  readHorizon,
  satellitePasses,
  type SkyPoint,
  skyTrack,
} from '@velvet-reed/core/site';
import { useMemo } from 'react';
import type { StationData } from '@velvet-reed/station/record';
import { tried } from '../../../ui/tried';

const DAY_MS = 86_400_000;

/** A pass of a satellite with its way over the sky. */
export interface SeenPass {
  readonly satellite: Saved<'satellites'>;
  readonly pass: Pass;
  readonly track: readonly SkyPoint[];
  readonly clearS: number;
  /** Highest point that the horizon does not hide, degrees; undefined: it is hidden throughout. */
  readonly clearDeg?: number;
}

/** Passes of the next day, earliest first; elements that cannot be followed say why. */
export function usePasses(data: StationData, atMs: number) {
  return useMemo(() => {
    const { station } = data;
    const read = tried(() => readHorizon(station.horizon));
    const horizon: readonly HorizonPoint[] = read.value ?? [];
    const faults: string[] = read.fault ? [read.fault] : [];
    const passes = data.satellites.flatMap((satellite): SeenPass[] => {
      const { value, fault } = tried(() =>
        satellitePasses(satellite, station, { fromMs: atMs, toMs: atMs + DAY_MS, leastDeg: satellite.leastDeg }),
      );
      if (fault) faults.push(`${satellite.name}: ${fault}`);
      return (value ?? []).map((pass) => {
        const track = skyTrack(satellite, station, pass, horizon);
        const clear = track.filter((one) => one.clear).map(({ elevationDeg }) => elevationDeg);
        return {
          ...{ satellite, pass, track, clearS: clearSeconds(track) },
          ...(clear.length > 0 ? { clearDeg: Math.max(...clear) } : {}),
        };
      });
    });
    return { horizon, faults, passes: passes.sort((a, b) => a.pass.riseMs - b.pass.riseMs) };
  }, [data, atMs]);
}
