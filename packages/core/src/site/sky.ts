import { requirePositive, requireRange } from '../errors';
import { horizonAt, type HorizonPoint } from './horizon';
import { lookFrom, type OrbitalElements, type Pass } from './passes';
import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import type { Position } from './place';

/** A moment of a pass. */
export interface SkyPoint {
  readonly atMs: number;
  readonly azimuthDeg: number;
  readonly elevationDeg: number;
  readonly rangeKm: number;
  /** Received over sent frequency, less 1. */
  readonly dopplerRatio: number;
  /** Whether it stands above the horizon in that direction. */
  readonly clear: boolean;
}

/** A pass over the sky of a place. @param points moments from rise to set. */
export function skyTrack(
  elements: OrbitalElements,
  site: Position,
  pass: Pick<Pass, 'riseMs' | 'setMs'>,
  horizon: readonly HorizonPoint[] = [],
  points = 60,
): readonly SkyPoint[] {
  requireRange(points, 'Points of the track', 2, 5000);
  return Array.from(
    { length: points },
    (_, i) => pass.riseMs + (i * (pass.setMs - pass.riseMs)) / (points - 1),
  ).flatMap((atMs): SkyPoint[] => {
    const [here, later] = [atMs, atMs + 1000].map((ms) => lookFrom(elements, site, ms));
    if (!here || !later) return [];
    return [
      {
        ...{ atMs, ...here },
        dopplerRatio: ((here.rangeKm - later.rangeKm) * 1000) / SPEED_OF_LIGHT_M_PER_S,
        clear: here.elevationDeg > horizonAt(horizon, here.azimuthDeg),
      },
    ];
  });
}

/** Longest stretch of a track above the horizon, s. */
export function clearSeconds(track: readonly SkyPoint[]): number {
  let [best, from] = [0, -1];
  track.forEach(({ clear, atMs }, i) => {
    if (clear && from < 0) from = i;
    if (clear) best = Math.max(best, (atMs - track[from].atMs) / 1000);
    if (!clear) from = -1;
  });
  return best;
}

/** Pictures sent one after the other, of which the window holds some whole. */
export interface WholePictures {
  /** Whole ones whatever the moment at which the window begins. */
  readonly least: number;
  /** Chance of one more than that. */
  readonly chanceOfMore: number;
}

/**
 * Whole pictures in a window that begins at any moment of the sender's round of picture and pause.
 * @param windowS time that the sender is heard. @param pictureS time of one picture. @param pauseS between two.
 * Source: uniform phase; m = (window − picture)/round, at least ⌊m⌋, one more with the chance of its fraction.
 */
export function wholePictures(windowS: number, pictureS: number, pauseS: number): WholePictures {
  requireRange(windowS, 'Window (s)', 0, 1e6);
  requirePositive(pictureS, 'Time of a picture (s)');
  requireRange(pauseS, 'Pause (s)', 0, 1e6);
  const rounds = (windowS - pictureS) / (pictureS + pauseS);
  if (rounds < 0) return { least: 0, chanceOfMore: 0 };
  return { least: Math.floor(rounds), chanceOfMore: rounds - Math.floor(rounds) };
}

/** Elevation under which a pass counts as low, degrees. Common practice, no source. */
export const LOW_PASS_DEG = 30;

/** How passes were rated, low ones and high ones apart. */
export interface RatedPasses {
  readonly count: number;
  readonly mean: number;
}

/** Mean ratings of passes that stayed low and of those that stood high; undefined where one of the two is missing. */
export function ratingsByHeight(
  passes: readonly { readonly highestDeg: number; readonly rating: number }[],
): { readonly low: RatedPasses; readonly high: RatedPasses } | undefined {
  const rated = (list: typeof passes): RatedPasses => ({
    count: list.length,
    mean: list.reduce((sum, { rating }) => sum + rating, 0) / list.length,
  });
  const low = passes.filter(({ highestDeg }) => highestDeg < LOW_PASS_DEG);
  const high = passes.filter(({ highestDeg }) => highestDeg >= LOW_PASS_DEG);
  return low.length === 0 || high.length === 0 ? undefined : { low: rated(low), high: rated(high) };
}
