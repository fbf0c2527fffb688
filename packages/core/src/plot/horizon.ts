import { requireRange } from '../errors';
import type { HorizonPoint } from '../site/horizon';
import { insideArea, type PlanPoint, type PlotFeature, stretchesOf } from './feature';

/** Directions in which the houses are looked at, degrees. */
const STEP_DEG = 5;
/** A place nearer to a wall than this stands on it, m. */
const NEAREST_M = 0.1;
const HIGHEST_DEG = 89;

/** Distance along a ray to where it meets a stretch, m; undefined where it does not. */
function rayMeets(
  [x, y]: PlanPoint,
  [dx, dy]: PlanPoint,
  [[ax, ay], [bx, by]]: readonly [PlanPoint, PlanPoint],
): number | undefined {
  const [ex, ey] = [bx - ax, by - ay];
  const denominator = dx * ey - dy * ex;
  if (Math.abs(denominator) < 1e-12) return undefined;
  const along = ((ax - x) * ey - (ay - y) * ex) / denominator;
  const onStretch = ((ax - x) * dy - (ay - y) * dx) / denominator;
  return along > 0 && onStretch >= 0 && onStretch <= 1 ? along : undefined;
}

/**
 * How high the houses of the plan stand as seen from a place. Masts and trees entered as supports are too thin to count, and terrain is not on the plan.
 * @param place on the plan, m. @param heightM of the antenna over the ground.
 * @returns one point every 5° where anything stands above the antenna or its neighbours do; empty for a flat horizon.
 */
export function plotHorizon(features: readonly PlotFeature[], place: PlanPoint, heightM: number): HorizonPoint[] {
  requireRange(heightM, 'Height of the antenna (m)', 0, 500);
  const houses = features.filter(({ kind, points }) => kind === 'house' && points.length > 2);
  const heights = Array.from({ length: 360 / STEP_DEG }, (_, i) => {
    const azimuth = (i * STEP_DEG * Math.PI) / 180;
    const direction: PlanPoint = [Math.sin(azimuth), Math.cos(azimuth)];
    return houses.reduce((most, house) => {
      // from a roof its own walls lie below
      if (house.heightM <= heightM || insideArea(house.points, place)) return most;
      const near = stretchesOf(house).flatMap((stretch) => rayMeets(place, direction, stretch) ?? []);
      if (near.length === 0) return most;
      const elevation = (Math.atan2(house.heightM - heightM, Math.max(NEAREST_M, Math.min(...near))) * 180) / Math.PI;
      return Math.max(most, Math.min(HIGHEST_DEG, elevation));
    }, 0);
  });
  if (heights.every((one) => one === 0)) return [];
  const at = (i: number): number => heights[(i + heights.length) % heights.length];
  return heights.flatMap((elevationDeg, i) =>
    elevationDeg > 0 || at(i - 1) > 0 || at(i + 1) > 0 ? [{ azimuthDeg: i * STEP_DEG, elevationDeg }] : [],
  );
}
