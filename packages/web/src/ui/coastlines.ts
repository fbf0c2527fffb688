import { feature } from 'topojson-client';
import type { GeometryCollection, Topology } from 'topojson-specification';
import land from 'world-atlas/land-110m.json';

type LandTopology = Topology<{ land: GeometryCollection }>;

const isTopology = (value: unknown): value is LandTopology =>
  typeof value === 'object' && value !== null && 'type' in value && value.type === 'Topology';

/** Coastlines of the world at 1:110 million (Natural Earth, public domain), as GeoJSON. */
export function coastlines() {
  const value: unknown = land;
  if (!isTopology(value)) throw new Error('The packaged coastlines are damaged. Install the application again.');
  return feature(value, value.objects.land);
}
