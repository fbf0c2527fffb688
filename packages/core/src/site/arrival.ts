import { requirePositive, requireRange } from '../errors';
import { greatCircle, type Position } from './place';
import { sunElevationDeg } from './sun';
import { RAD } from '../units/constants';

/** Mean earth radius, km. */
export const EARTH_RADIUS_KM = 6371.0088;
/**
 * Height at which a wave is taken to be turned back, km: the F2 layer by day and by night. Assumed; it varies from 200 to 450 km with hour,
 * season and sunspots. Source: Davies, Ionospheric Radio (1990), ch. 5, typical values (from memory).
 */
const LAYER_HEIGHT_KM = { day: 250, night: 350 } as const;
/** Below this elevation trees, hills and ground loss take the wave: one more hop is assumed instead. Common practice, no source. */
const LEAST_HOP_DEG = 4;
const MOST_HOPS = 12;
/** From here on the ionosphere lets waves through; what is heard comes straight. Common practice, no source. */
export const LINE_OF_SIGHT_FROM_HZ = 50e6;
/** A transmitter nearer than this comes along the ground. Common practice, no source. */
export const GROUND_WAVE_KM = 60;
/** Long and medium wave by day: along the ground to several hundred kilometres. Common practice, no source. */
const LOW_GROUND_WAVE_KM = 400;
const LOW_BELOW_HZ = 1.7e6;

/** Where waves arrive until the distance is known: usual for short wave from 1000 to 4000 km. Common practice, no source. */
export const USUAL_ARRIVAL_DEG = 15;
/** What comes along the ground or straight from the horizon; 0° itself is the ground's own null. Assumed. */
const GRAZING_DEG = 3;

/** One way in which a wave can arrive. */
export interface HopMode {
  readonly hops: number;
  readonly elevationDeg: number;
}

/**
 * Elevation at which a wave arrives after a number of equal hops between earth and a layer, degrees; negative below the horizon.
 * tan Δ = (cos θ − R/(R+h)) / sin θ, with θ half of one hop seen from the earth's centre. Source: Davies, Ionospheric Radio, ch. 6.
 */
export function hopElevationDeg(distanceKm: number, layerKm: number, hops: number): number {
  requirePositive(distanceKm, 'Distance (km)');
  requireRange(layerKm, 'Layer height (km)', 50, 1000);
  requireRange(hops, 'Hops', 1, 100);
  const theta = distanceKm / (2 * hops * EARTH_RADIUS_KM);
  const share = EARTH_RADIUS_KM / (EARTH_RADIUS_KM + layerKm);
  return Math.atan2(Math.cos(theta) - share, Math.sin(theta)) / RAD;
}

/** The two lowest modes that clear the horizon by 4°: few hops lose least, so they carry most. */
export function hopModes(distanceKm: number, layerKm: number): readonly HopMode[] {
  const modes: HopMode[] = [];
  for (let hops = 1; hops <= MOST_HOPS && modes.length < 2; hops += 1) {
    const elevationDeg = hopElevationDeg(distanceKm, layerKm, hops);
    if (elevationDeg >= LEAST_HOP_DEG) modes.push({ hops, elevationDeg });
  }
  return modes;
}

/** What is wanted, as far as arrival needs it. */
export interface WantedPlace {
  readonly lowHz: number;
  readonly highHz: number;
  readonly latDeg: number | null;
  readonly lonDeg: number | null;
  /** Typed by the listener; it then counts before everything computed. */
  readonly arrivalDeg: number | null;
}

/** Where and from which height wanted waves come, with the reason. */
export interface Arrival {
  /** Taken for every gain. */
  readonly elevationDeg: number;
  /** Range in which it may lie. */
  readonly fromDeg: number;
  readonly toDeg: number;
  readonly origin: 'model' | 'assumed';
  readonly why: string;
  /** Known when the target has a position. */
  readonly distanceKm?: number;
  readonly bearingDeg?: number;
  readonly backBearingDeg?: number;
}

/** Position of a target; undefined for one without. */
export const wantedPosition = (wanted: Pick<WantedPlace, 'latDeg' | 'lonDeg'>): Position | undefined =>
  wanted.latDeg === null || wanted.lonDeg === null ? undefined : { latDeg: wanted.latDeg, lonDeg: wanted.lonDeg };

/** The layer that a moment gives: night when the sun is down at the middle of the path. */
function layerAt(from: Position, to: Position, atMs: number): 'day' | 'night' {
  return sunElevationDeg(midpoint(from, to), atMs) > 0 ? 'day' : 'night';
}

/** Middle of the great circle between two places. */
export function midpoint(from: Position, to: Position): Position {
  const vector = ({ latDeg, lonDeg }: Position): readonly number[] => [
    Math.cos(latDeg * RAD) * Math.cos(lonDeg * RAD),
    Math.cos(latDeg * RAD) * Math.sin(lonDeg * RAD),
    Math.sin(latDeg * RAD),
  ];
  const a = vector(from);
  const b = vector(to);
  const [x, y, z] = a.map((value, i) => value + b[i]);
  return { latDeg: Math.atan2(z, Math.hypot(x, y)) / RAD, lonDeg: Math.atan2(y, x) / RAD };
}

/**
 * Likely arrival angle of a target at a moment. Typed angles count first; then line of sight from 50 MHz up, the ground wave nearby, equal
 * hops by the F2 layer for a known place, and an assumed 15° otherwise.
 */
export function arrivalOf(wanted: WantedPlace, station: Position, atMs: number): Arrival {
  const position = wantedPosition(wanted);
  const path = position && greatCircle(station, position);
  const direction = path
    ? { distanceKm: path.distanceKm, bearingDeg: path.bearingDeg, backBearingDeg: path.backBearingDeg }
    : {};
  const at = (
    elevationDeg: number,
    origin: Arrival['origin'],
    why: string,
    fromDeg = elevationDeg,
    toDeg = elevationDeg,
  ): Arrival => ({ elevationDeg, fromDeg, toDeg, origin, why, ...direction });
  if (wanted.arrivalDeg !== null) return at(wanted.arrivalDeg, 'assumed', 'typed by you');
  const centreHz = (wanted.lowHz + wanted.highHz) / 2;
  if (centreHz >= LINE_OF_SIGHT_FROM_HZ)
    return at(GRAZING_DEG, 'assumed', 'above 50 MHz: straight from the horizon; type an angle for a satellite', 0, 5);
  if (!position || !path) return at(USUAL_ARRIVAL_DEG, 'assumed', 'no place given: usual for 1000 to 4000 km', 5, 30);
  const along = centreHz < LOW_BELOW_HZ ? LOW_GROUND_WAVE_KM : GROUND_WAVE_KM;
  if (path.distanceKm < along) return at(GRAZING_DEG, 'assumed', `along the ground: nearer than ${along} km`, 0, 10);
  const light = layerAt(station, position, atMs);
  const modes = hopModes(path.distanceKm, LAYER_HEIGHT_KM[light]);
  const [first, second = first] = modes;
  return at(
    first.elevationDeg,
    'model',
    `${first.hops} ${first.hops === 1 ? 'hop' : 'hops'}, F2 layer at ${LAYER_HEIGHT_KM[light]} km by ${light}`,
    first.elevationDeg,
    second.elevationDeg,
  );
}
