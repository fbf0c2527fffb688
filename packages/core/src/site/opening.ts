import { requirePositive } from '../errors';
import { RAD } from '../units/constants';
import {
  EARTH_RADIUS_KM,
  GROUND_WAVE_KM,
  hopElevationDeg,
  LINE_OF_SIGHT_FROM_HZ,
  midpoint,
  wantedPosition,
  type WantedPlace,
} from './arrival';
import { greatCircle, type Position } from './place';
import { sunElevationDeg } from './sun';

/** Whether a moment is worth listening on a target, and why: the reason, a colon, what stands behind it. */
export interface Opening {
  readonly quality: 'good' | 'fair' | 'poor';
  readonly why: string;
  /** The hour does not matter: along the ground or in sight. */
  readonly always?: true;
}

const HOUR_MS = 3_600_000;
/** Height at which a wave is turned back, km, for the angle at which it meets the layer. */
const LAYER_KM = 300;
/** A single hop reaches so far, km. Source: Davies, Ionospheric Radio (1990), ch. 6. */
const MOST_HOP_KM = 3500;
/** Where nobody said how far: a usual distance of short wave, km. */
const USUAL_KM = 1500;

/** From −1 in midwinter to 1 in midsummer of the place: by the declination of the sun. */
function summerAt({ latDeg }: Position, atMs: number): number {
  const year = new Date(atMs).getUTCFullYear();
  const day = (atMs - Date.UTC(year, 0, 1)) / (24 * HOUR_MS);
  return Math.sign(latDeg || 1) * Math.sin((2 * Math.PI * (day - 80)) / 365.25);
}

/** Hours since the sun was last up, at most 16; 0 by day. */
function hoursDark(place: Position, atMs: number): number {
  for (let hours = 0; hours < 16; hours += 1) if (sunElevationDeg(place, atMs - hours * HOUR_MS) > 0) return hours;
  return 16;
}

/**
 * Critical frequency of the F layer at a place of middle latitude, at moderate solar activity, Hz. A stated table of common practice, no source: by day 9 MHz in
 * winter and 7 in summer, falling to 3 and 5 before dawn with a time constant of 2.5 hours after sunset. Days differ by 30 % either way, the solar cycle by more.
 */
export function criticalHz(place: Position, atMs: number): number {
  const summer = summerAt(place, atMs);
  const [day, night] = [8 - summer, 4 + summer];
  const elevation = sunElevationDeg(place, atMs);
  if (elevation > 0) return 1e6 * (night + (day - night) * Math.sin(elevation * RAD) ** 0.2);
  const dark = hoursDark(place, atMs);
  const floor = night * (1 - 0.15 * Math.min(1, dark / 8));
  return 1e6 * (floor + 0.76 * (day - night) * Math.exp(-dark / 2.5));
}

/** How much higher than the critical frequency a wave may be that meets the layer aslant: 1/cos of the angle there. Source: secant law, Davies ch. 6. */
export function secantFactor(hopKm: number): number {
  requirePositive(hopKm, 'Length of a hop (km)');
  const elevation = Math.max(1, hopElevationDeg(hopKm, LAYER_KM, 1)) * RAD;
  const sine = (EARTH_RADIUS_KM / (EARTH_RADIUS_KM + LAYER_KM)) * Math.cos(elevation);
  return 1 / Math.sqrt(1 - sine * sine);
}

/** Lowest frequency that absorption leaves by day, Hz: rises with the sun and the length of a hop. A stated rule of common practice, no source, ±30 %. */
const absorbedBelowHz = (elevationDeg: number, hopKm: number): number =>
  1e6 * (1.6 + 6 * Math.max(0, Math.sin(elevationDeg * RAD)) ** 0.7 * (0.5 + hopKm / 3000));

/** Points of a path where its waves meet the layer: the middle of a single hop, of the first and last of several. */
function controlPoints(station: Position, there: Position | undefined, hops: number): readonly Position[] {
  if (!there) return [station];
  const middle = midpoint(station, there);
  return hops === 1 ? [middle] : [midpoint(station, middle), midpoint(middle, there)];
}

const SHARE_GOOD = 0.9;
const SHARE_FAIR = 1.1;
const ABSORBED_FAIR = 0.8;

/** Sporadic E carries the highest short waves over this distance on some summer days, km. Common practice, no source. */
const SPORADIC_KM = [700, 2300] as const;
const SPORADIC_HZ = [24e6, 72e6] as const;

function sporadic(station: Position, freqHz: number, distanceKm: number | undefined, atMs: number): boolean {
  const far = distanceKm === undefined || (distanceKm >= SPORADIC_KM[0] && distanceKm <= SPORADIC_KM[1]);
  const within = freqHz >= SPORADIC_HZ[0] && freqHz <= SPORADIC_HZ[1];
  return far && within && summerAt(station, atMs) > 0.4 && sunElevationDeg(station, atMs) > 0;
}

/** Along the ground a station is heard so far off, km: long wave far, medium wave some hundred. Common practice, no source. */
const groundReachKm = (freqHz: number): number =>
  freqHz < 300e3 ? 1500 : freqHz < 2e6 ? 250 * Math.sqrt(0.7e6 / freqHz) : GROUND_WAVE_KM;

/** Polar weather satellites and amateur satellites near them: they come by their passes. */
const SATELLITES_HZ = [137e6, 138e6] as const;
/** Six metres: mostly silent beyond the horizon. */
const SIX_METRES_HZ = [50e6, 54e6] as const;
const inside = (freqHz: number, [low, high]: readonly [number, number]): boolean => freqHz >= low && freqHz <= high;
/** Straight reception ends about here, km: aircraft are heard farther, houses nearer. Common practice, no source. */
const SIGHT_KM = 300;

const mhz = (freqHz: number): string => `${(freqHz / 1e6).toFixed(freqHz < 10e6 ? 1 : 0)} MHz`;
const kilometres = (km: number): string => `${Number(km.toPrecision(2))} km`;

/** Below the ionosphere's limit: medium and long wave along the ground, and by the sky at night. */
function low(station: Position, freqHz: number, distanceKm: number | undefined, atMs: number): Opening {
  const reach = groundReachKm(freqHz);
  const night = sunElevationDeg(station, atMs) < -6;
  if (distanceKm !== undefined && distanceKm <= reach)
    return {
      quality: 'good',
      always: true,
      why: `along the ground, at any hour: it reaches about ${kilometres(reach)}`,
    };
  if (freqHz < 300e3)
    return distanceKm === undefined
      ? { quality: 'good', always: true, why: 'along the ground, at any hour: long wave reaches far' }
      : { quality: night ? 'good' : 'fair', why: `by the sky beyond ${kilometres(reach)}: stronger at night` };
  if (night) return { quality: 'good', why: 'by the sky at night: nothing absorbs it' };
  return distanceKm === undefined
    ? { quality: 'fair', why: 'near stations along the ground: far ones only at night' }
    : { quality: 'poor', why: `absorbed by day: the ground wave ends about ${kilometres(reach)} off` };
}

/** From 50 MHz up. */
function high(station: Position, freqHz: number, distanceKm: number | undefined, atMs: number): Opening {
  if (inside(freqHz, SATELLITES_HZ))
    return { quality: 'poor', why: 'by its passes only: paste the elements of the satellite below' };
  if (sporadic(station, freqHz, distanceKm, atMs) && inside(freqHz, [SIX_METRES_HZ[0], SPORADIC_HZ[1]]))
    return { quality: 'fair', why: 'sporadic E: on some summer days, for minutes or hours' };
  if (inside(freqHz, SIX_METRES_HZ))
    return { quality: 'poor', why: 'seldom: beyond the horizon only by sporadic E on summer days' };
  if (distanceKm !== undefined && distanceKm > SIGHT_KM)
    return { quality: 'poor', why: `beyond the horizon: ${kilometres(distanceKm)} is too far for straight waves` };
  return { quality: 'good', always: true, why: 'at any hour: line of sight' };
}

/**
 * Whether a target may be heard at a moment: along the ground, in sight, or by the F layer between what absorption leaves and what the layer turns back. A
 * stated rule of common practice, no forecast: days differ by 30 %.
 */
export function openingAt(wanted: WantedPlace, station: Position, atMs: number): Opening {
  const freqHz = (wanted.lowHz + wanted.highHz) / 2;
  const there = wantedPosition(wanted);
  const distanceKm = there && greatCircle(station, there).distanceKm;
  if (freqHz >= LINE_OF_SIGHT_FROM_HZ) return high(station, freqHz, distanceKm, atMs);
  if (freqHz < 2e6) return low(station, freqHz, distanceKm, atMs);
  if (distanceKm !== undefined && distanceKm <= GROUND_WAVE_KM)
    return { quality: 'good', always: true, why: `along the ground, at any hour: nearer than ${GROUND_WAVE_KM} km` };
  const wayKm = Math.max(1, distanceKm ?? USUAL_KM);
  const hops = Math.ceil(wayKm / MOST_HOP_KM);
  const hopKm = wayKm / hops;
  const factor = secantFactor(hopKm);
  const highestHz = Math.min(...controlPoints(station, there, hops).map((place) => factor * criticalHz(place, atMs)));
  const ends = there ? [station, midpoint(station, there), there] : [station];
  const lowestHz = Math.max(...ends.map((place) => absorbedBelowHz(sunElevationDeg(place, atMs), hopKm)));
  const over = `over ${kilometres(wayKm)}${distanceKm === undefined ? ' (no place given)' : ''}`;
  if (freqHz <= SHARE_GOOD * highestHz && freqHz >= lowestHz)
    return { quality: 'good', why: `open: about ${mhz(lowestHz)} to ${mhz(highestHz)} ${over}` };
  if (freqHz <= SHARE_FAIR * highestHz && freqHz >= ABSORBED_FAIR * lowestHz)
    return {
      quality: 'fair',
      why: `at the edge: about ${mhz(lowestHz)} to ${mhz(highestHz)} ${over}, and days differ by 30 %`,
    };
  if (sporadic(station, freqHz, distanceKm, atMs))
    return { quality: 'fair', why: 'sporadic E: on some summer days, for minutes or hours' };
  return freqHz > highestHz
    ? { quality: 'poor', why: `too high at this hour: the layer turns back up to ${mhz(highestHz)} ${over}` }
    : { quality: 'poor', why: `absorbed by day: below about ${mhz(lowestHz)} ${over}` };
}
