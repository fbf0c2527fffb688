import { CoreError } from '../errors';

/** A text that should be a horizon is none. */
class HorizonTextError extends CoreError {
  readonly code = 'HORIZON_TEXT';
}

/** How high the horizon stands in a direction; between two directions it runs straight. */
export interface HorizonPoint {
  readonly azimuthDeg: number;
  readonly elevationDeg: number;
}

/**
 * Reads a horizon as it is typed: "0 5, 90 12, 180 8", azimuth and elevation in degrees. Empty: flat.
 * @throws HorizonTextError with what cannot be read.
 */
export function readHorizon(text: string): readonly HorizonPoint[] {
  const parts = text
    .split(/[,;\n]/)
    .map((part) => part.trim())
    .filter((part) => part !== '');
  const points = parts.map((part): HorizonPoint => {
    const match = /^(\d+(?:\.\d+)?)°?[\s:]+(-?\d+(?:\.\d+)?)°?$/.exec(part);
    const [azimuthDeg, elevationDeg] = match ? [Number(match[1]), Number(match[2])] : [NaN, NaN];
    if (!(azimuthDeg >= 0 && azimuthDeg <= 360 && elevationDeg >= -10 && elevationDeg <= 89))
      throw new HorizonTextError(
        `"${part.slice(0, 30)}" is no direction with its height. Write azimuth and elevation in degrees, as in 0 5, 90 12, 180 8.`,
      );
    return { azimuthDeg: azimuthDeg % 360, elevationDeg };
  });
  return points.sort((a, b) => a.azimuthDeg - b.azimuthDeg);
}

/** A horizon as it would be typed. */
export const horizonText = (points: readonly HorizonPoint[]): string =>
  points.map(({ azimuthDeg, elevationDeg }) => `${Math.round(azimuthDeg)} ${Math.round(elevationDeg)}`).join(', ');

/** Height of a horizon in a direction, degrees; 0 where nothing was said. */
export function horizonAt(points: readonly HorizonPoint[], azimuthDeg: number): number {
  if (points.length === 0) return 0;
  const turned = ((azimuthDeg % 360) + 360) % 360;
  const after = points.findIndex((one) => one.azimuthDeg > turned);
  const next = points[after < 0 ? 0 : after];
  const last = points[(after <= 0 ? points.length : after) - 1];
  const width = (((next.azimuthDeg - last.azimuthDeg) % 360) + 360) % 360 || 360;
  const share = ((((turned - last.azimuthDeg) % 360) + 360) % 360) / width;
  return last.elevationDeg + share * (next.elevationDeg - last.elevationDeg);
}
