import { CoreError } from '../errors';
import { PLOT_KINDS, PLOT_SHAPES, leastPoints, type PlanPoint, type PlotFeature, type PlotKind } from '../plot/feature';
import type { Position } from '../site/place';
import { RAD } from '../units/constants';

/** A GeoJSON file that cannot be taken; the sentence says which feature and why. */
export class PlotFileError extends CoreError {
  readonly code = 'PLOT_FILE';
}

/** WGS 84 ellipsoid. */
const EQUATORIAL_M = 6_378_137;
const ECCENTRICITY_SQUARED = 0.006_694_379_990_14;
/** A plan is flat: beyond this the tangent plane errs by more than a metre. */
const FARTHEST_M = 20_000;

/** Metres per radian of latitude and of longitude at a place (radii of curvature of the ellipsoid). */
function scales({ latDeg }: Position): { readonly north: number; readonly east: number } {
  const sine = Math.sin(latDeg * RAD);
  const w = Math.sqrt(1 - ECCENTRICITY_SQUARED * sine * sine);
  return {
    north: (EQUATORIAL_M * (1 - ECCENTRICITY_SQUARED)) / w ** 3,
    east: (EQUATORIAL_M / w) * Math.cos(latDeg * RAD),
  };
}

/** A point of the plan as longitude and latitude, degrees. */
export function toLonLat([x, y]: PlanPoint, origin: Position): readonly [number, number] {
  const { north, east } = scales(origin);
  return [origin.lonDeg + x / east / RAD, origin.latDeg + y / north / RAD];
}

/** Longitude and latitude as a point of the plan. */
export function toPlan([lonDeg, latDeg]: readonly [number, number], origin: Position): PlanPoint {
  const { north, east } = scales(origin);
  const turn = ((((lonDeg - origin.lonDeg + 180) % 360) + 360) % 360) - 180;
  return [turn * RAD * east, (latDeg - origin.latDeg) * RAD * north];
}

/** A plan as a GeoJSON text (RFC 7946, WGS 84), heights and clearances as properties. */
export function writePlot(features: readonly PlotFeature[], origin: Position): string {
  const coordinates = (feature: PlotFeature): unknown => {
    const points = feature.points.map((point) => toLonLat(point, origin));
    const shape = PLOT_SHAPES[feature.kind];
    return shape === 'point' ? points[0] : shape === 'line' ? points : [[...points, points[0]]];
  };
  return JSON.stringify(
    {
      type: 'FeatureCollection',
      features: features.map((feature) => ({
        type: 'Feature',
        geometry: {
          type: { point: 'Point', line: 'LineString', area: 'Polygon' }[PLOT_SHAPES[feature.kind]],
          coordinates: coordinates(feature),
        },
        properties: {
          kind: feature.kind,
          name: feature.name,
          heightM: feature.heightM,
          endHeightM: feature.endHeightM,
          clearanceM: feature.clearanceM,
        },
      })),
    },
    undefined,
    1,
  );
}

type Entries = ReadonlyMap<string, unknown>;
const entriesOf = (value: unknown): Entries | undefined =>
  typeof value === 'object' && value !== null && !Array.isArray(value)
    ? new Map<string, unknown>(Object.entries(value))
    : undefined;

const isKind = (value: unknown): value is PlotKind => PLOT_KINDS.some((kind) => kind === value);

/**
 * Reads a GeoJSON text. Points, lines and polygons of other programs are taken as supports, keep-outs and boundaries when they do not say
 * what they are.
 * @throws PlotFileError naming the feature that cannot be taken; then nothing is taken.
 */
export function readPlot(text: string, origin: Position): readonly Omit<PlotFeature, 'id'>[] {
  let parsed: unknown;
  try {
    parsed = JSON.parse(text);
  } catch {
    throw new PlotFileError('This file is not JSON. Export the plan as GeoJSON and choose that file.');
  }
  const root = entriesOf(parsed);
  const list = root?.get('type') === 'Feature' ? [parsed] : root?.get('features');
  if (!Array.isArray(list))
    throw new PlotFileError('This file holds no features. Export the plan as a GeoJSON FeatureCollection.');
  return list.map((item: unknown, i) => readFeature(entriesOf(item), i + 1, origin));
}

const USUAL_KIND: Readonly<Record<string, PlotKind>> = { Point: 'support', LineString: 'keepout', Polygon: 'boundary' };

function readFeature(feature: Entries | undefined, number: number, origin: Position): Omit<PlotFeature, 'id'> {
  const refuse = (why: string): never => {
    throw new PlotFileError(`Feature ${number} ${why}. Correct it in the file, or take it out.`);
  };
  const geometry = entriesOf(feature?.get('geometry')) ?? refuse('has no geometry');
  const type = String(geometry.get('type'));
  const usual = USUAL_KIND[type] ?? refuse(`is a ${type}; Point, LineString and Polygon are taken`);
  const properties = entriesOf(feature?.get('properties')) ?? new Map<string, unknown>();
  const said = properties.get('kind');
  const kind = isKind(said) ? said : usual;
  const raw: unknown = geometry.get('coordinates');
  const ring: unknown = type === 'Polygon' && Array.isArray(raw) ? raw[0] : raw;
  const nested: unknown = type === 'Point' ? [raw] : ring;
  if (!Array.isArray(nested)) return refuse('has no coordinates');
  const points = nested.map((pair: unknown): PlanPoint => {
    if (!Array.isArray(pair)) return refuse('has a coordinate that is not a pair of numbers');
    const [lonDeg, latDeg] = [Number(pair[0]), Number(pair[1])];
    if (!(Math.abs(lonDeg) <= 540 && Math.abs(latDeg) <= 90))
      return refuse('has a coordinate outside longitude ±180° and latitude ±90°; GeoJSON puts longitude first');
    const point = toPlan([lonDeg, latDeg], origin);
    if (Math.hypot(...point) > FARTHEST_M)
      return refuse(`lies ${(Math.hypot(...point) / 1000).toFixed(0)} km from the station; a plan reaches 20 km`);
    return point;
  });
  // a ring repeats its first point
  const closed = type === 'Polygon' && points.length > 3 ? points.slice(0, -1) : points;
  if (PLOT_SHAPES[kind] === 'point' && closed.length !== 1) return refuse(`is a ${kind}, which is a single point`);
  if (closed.length < leastPoints(kind)) return refuse(`has too few points for a ${kind}`);
  const metres = (name: string): number => {
    const value = properties.get(name);
    if (value === undefined || value === null) return 0;
    return typeof value === 'number' && value >= 0 && value <= 500
      ? value
      : refuse(`has a ${name} that is not a number of metres from 0 to 500`);
  };
  const name = properties.get('name');
  return {
    kind,
    name: typeof name === 'string' && name.trim() !== '' ? name.trim().slice(0, 80) : `${kind} ${number}`,
    points: closed,
    heightM: metres('heightM'),
    endHeightM: metres('endHeightM'),
    clearanceM: metres('clearanceM'),
  };
}
