import type { Position } from '@velvet-reed/core/site';
import { geoAzimuthalEquidistant, geoCircle, geoPath } from 'd3-geo';
import { useEffect, useMemo, useState, type ReactNode, type RefObject } from 'react';
import { useReadable } from './drawn-scale';

export const MAP_SIZE = 420;
export const MAP_RADIUS = MAP_SIZE / 2 - 24;
const EARTH_KM_PER_DEG = 111.195;
/** Half way round the earth: all of it is on the map. */
const WHOLE_KM = 20_015;
const COMPASS = [
  [0, 'N'],
  [90, 'E'],
  [180, 'S'],
  [270, 'W'],
] as const;

type Land = Parameters<ReturnType<typeof geoPath>>[0];
type Place = readonly [x: number, y: number];

/** Coastlines ship with the application; they are fetched when a map is first shown. */
function useLand(): Land | undefined {
  const [land, setLand] = useState<Land>();
  useEffect(() => {
    let gone = false;
    void import('./coastlines').then(({ coastlines }) => {
      if (!gone) setLand(coastlines());
    });
    return () => {
      gone = true;
    };
  }, []);
  return land;
}

/** What is drawn on a map. */
interface Drawn {
  /** Where a place lies in the drawing; undefined beyond its rim. */
  readonly at: (place: Position) => Place | undefined;
  /** A circle of a distance about the centre, as a path. */
  readonly circle: (km: number) => string;
  readonly readable: (px: number) => number;
}

/** The world as the antennas of a station see it: azimuths true, distances true from its middle, out to a distance. */
export function AzimuthalMap({
  drawing,
  centre,
  reachKm = WHOLE_KM,
  ringsKm,
  label,
  children,
}: {
  readonly drawing: RefObject<HTMLElement | null>;
  readonly centre: Position;
  readonly reachKm?: number;
  readonly ringsKm: readonly number[];
  readonly label: string;
  readonly children: (drawn: Drawn) => ReactNode;
}) {
  const land = useLand();
  const readable = useReadable(drawing, MAP_SIZE);
  const { latDeg, lonDeg } = centre;
  const map = useMemo(() => {
    const rimDeg = Math.min(179.9, reachKm / EARTH_KM_PER_DEG);
    const projection = geoAzimuthalEquidistant()
      .rotate([-lonDeg, -latDeg])
      .translate([MAP_SIZE / 2, MAP_SIZE / 2])
      .scale(MAP_RADIUS / ((rimDeg * Math.PI) / 180))
      .clipAngle(rimDeg);
    return { projection, path: geoPath(projection) };
  }, [latDeg, lonDeg, reachKm]);
  const circle = (km: number): string =>
    map.path(
      geoCircle()
        .center([lonDeg, latDeg])
        .radius(km / EARTH_KM_PER_DEG)(),
    ) ?? '';
  const at = (place: Position): Place | undefined => {
    const found = map.projection([place.lonDeg, place.latDeg]);
    return found && Math.hypot(found[0] - MAP_SIZE / 2, found[1] - MAP_SIZE / 2) <= MAP_RADIUS + 1 ? found : undefined;
  };
  return (
    <svg viewBox={`0 0 ${MAP_SIZE} ${MAP_SIZE}`} className="w-full" role="img" aria-label={label}>
      <circle cx={MAP_SIZE / 2} cy={MAP_SIZE / 2} r={MAP_RADIUS} fill="var(--paper)" stroke="var(--dim)" />
      {land && <path d={map.path(land) ?? ''} fill="var(--rule)" stroke="var(--dim)" strokeWidth="0.5" />}
      {ringsKm.map((km) => (
        <g key={km}>
          <path d={circle(km)} fill="none" stroke="var(--dim)" strokeWidth="0.6" strokeDasharray="2 4" />
          <text
            x={MAP_SIZE / 2 + 3}
            y={MAP_SIZE / 2 - (km / reachKm) * MAP_RADIUS - 3}
            fontSize={readable(10)}
            fill="var(--dim)"
          >
            {km.toLocaleString('en-GB')} km
          </text>
        </g>
      ))}
      {COMPASS.map(([deg, letter]) => (
        <text
          key={letter}
          x={MAP_SIZE / 2 + (MAP_RADIUS + 13) * Math.sin((deg * Math.PI) / 180)}
          y={MAP_SIZE / 2 - (MAP_RADIUS + 13) * Math.cos((deg * Math.PI) / 180) + 4}
          textAnchor="middle"
          fontSize={readable(13)}
          fill="var(--ink)"
        >
          {letter}
        </text>
      ))}
      <path
        d={`M${MAP_SIZE / 2 - 5},${MAP_SIZE / 2}h10M${MAP_SIZE / 2},${MAP_SIZE / 2 - 5}v10`}
        stroke="var(--plum)"
        strokeWidth="2"
      />
      {children({ at, circle, readable })}
    </svg>
  );
}
