import { requireRange, CoreError } from '../errors';
import { RAD } from '../units/constants';

/** A text that should be a grid locator is not one. */
class LocatorTextError extends CoreError {
  readonly code = 'LOCATOR_TEXT';
}

/** Position in degrees, north and east positive. */
export interface Position {
  readonly latDeg: number;
  readonly lonDeg: number;
}

/** Mean radius of the spherical earth used for distances, km. Against the ellipsoid distances are within 0.6 %. */
const EARTH_RADIUS_KM = 6371.0088;
/** Six-character grid locator (IARU, Maidenhead 1980) of a position. */
export function locatorOf({ latDeg, lonDeg }: Position): string {
  requireRange(latDeg, 'Latitude (degrees)', -90, 90);
  requireRange(lonDeg, 'Longitude (degrees)', -180, 180);
  const x = Math.min(lonDeg + 180, 360 - 1e-9);
  const y = Math.min(latDeg + 90, 180 - 1e-9);
  const letter = (value: number, first: string): string => String.fromCharCode(first.charCodeAt(0) + Math.floor(value));
  return (
    letter(x / 20, 'A') +
    letter(y / 10, 'A') +
    Math.floor((x % 20) / 2) +
    Math.floor(y % 10) +
    letter(((x % 2) / 2) * 24 + 1e-9, 'a') +
    letter((y % 1) * 24 + 1e-9, 'a')
  );
}

/** Middle of the square that a 4, 6 or 8 character locator names. @throws LocatorTextError */
export function positionOf(locator: string): Position {
  const text = locator.trim().toUpperCase();
  const match = /^([A-R])([A-R])(\d)(\d)(?:([A-X])([A-X])(?:(\d)(\d))?)?$/.exec(text);
  if (!match)
    throw new LocatorTextError(
      `"${locator.trim()}" is not a grid locator. Type it like IO00 or IO00ie, or type coordinates.`,
    );
  const value = (text: string | undefined, first: string): number =>
    (text ?? first).charCodeAt(0) - first.charCodeAt(0);
  let lonDeg = value(match[1], 'A') * 20 + Number(match[3]) * 2 - 180;
  let latDeg = value(match[2], 'A') * 10 + Number(match[4]) - 90;
  let width = 2;
  let height = 1;
  if (match[5]) {
    [width, height] = [2 / 24, 1 / 24];
    lonDeg += value(match[5], 'A') * width;
    latDeg += value(match[6], 'A') * height;
  }
  if (match[7]) {
    [width, height] = [width / 10, height / 10];
    lonDeg += Number(match[7]) * width;
    latDeg += Number(match[8]) * height;
  }
  return { latDeg: latDeg + height / 2, lonDeg: lonDeg + width / 2 };
}

/** Reads "50.2 N 19.3 W", "50.2, -19.3", "50°12' N 19°18' W" or a grid locator. @throws LocatorTextError */
export function parsePosition(text: string): Position {
  const trimmed = text.trim();
  if (trimmed.length > 80) throw new LocatorTextError('This is too long for a position. Type it like 50.2 N 19.3 W.');
  if (/^[A-Ra-r]{2}\d{2}/.test(trimmed)) return positionOf(trimmed);
  const part = String.raw`([+-]?\d+(?:\.\d+)?)\s*°?\s*(?:(\d+(?:\.\d+)?)\s*['′]\s*)?(?:(\d+(?:\.\d+)?)\s*["″]\s*)?`;
  const match = new RegExp(String.raw`^${part}([NS])?[\s,;]+${part}([EW])?$`, 'i').exec(trimmed.replaceAll('−', '-'));
  if (!match)
    throw new LocatorTextError(`"${trimmed}" is not a position. Type it like 50.2 N 19.3 W, 50.2, -19.3 or IO00ie.`);
  const read = (degrees: string, minutes: string, seconds: string, side: string | undefined): number => {
    const size = Math.abs(Number(degrees)) + Number(minutes ?? 0) / 60 + Number(seconds ?? 0) / 3600;
    const negative = degrees.startsWith('-') !== /[SW]/i.test(side ?? '');
    return negative ? -size : size;
  };
  const position = {
    latDeg: read(match[1], match[2], match[3], match[4]),
    lonDeg: read(match[5], match[6], match[7], match[8]),
  };
  requireRange(position.latDeg, 'Latitude (degrees)', -90, 90);
  requireRange(position.lonDeg, 'Longitude (degrees)', -180, 180);
  return position;
}

/** Great-circle distance and the bearings at both ends, clockwise from true north (spherical earth). */
export function greatCircle(from: Position, to: Position) {
  const φ1 = from.latDeg * RAD;
  const φ2 = to.latDeg * RAD;
  const Δλ = (to.lonDeg - from.lonDeg) * RAD;
  const h = Math.sin((φ2 - φ1) / 2) ** 2 + Math.cos(φ1) * Math.cos(φ2) * Math.sin(Δλ / 2) ** 2; // haversine
  const bearing = (φa: number, φb: number, Δ: number): number => {
    const east = Math.sin(Δ) * Math.cos(φb);
    const north = Math.cos(φa) * Math.sin(φb) - Math.sin(φa) * Math.cos(φb) * Math.cos(Δ);
    return (((Math.atan2(east, north) / RAD) % 360) + 360) % 360;
  };
  return {
    distanceKm: 2 * EARTH_RADIUS_KM * Math.asin(Math.min(1, Math.sqrt(h))),
    bearingDeg: bearing(φ1, φ2, Δλ),
    backBearingDeg: bearing(φ2, φ1, -Δλ),
  };
}
