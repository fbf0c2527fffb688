import { greatCircle, radioHorizonKm, wantedPosition } from '@velvet-reed/core/site';
import { geoAzimuthalEquidistant, geoCircle, geoPath } from 'd3-geo';
import { useMemo, useState, useEffect, useRef } from 'react';
import { roomOf } from '../../../data/derive';
import type { StationData } from '../../../data/station';
import { useReadable } from '../../../ui/drawn-scale';
import { saveCsv } from '../../../ui/export';
import { ExportButtons } from '../../../ui/export-buttons';
import { Section } from '../../../ui/section';

const SIZE = 420;
const RADIUS = SIZE / 2 - 24;
const EARTH_KM_PER_DEG = 111.195;
const RINGS_KM = [5000, 10_000, 15_000];
/** Cruising height, m. */
const AIRLINER_M = 10_700;
const COMPASS = [
  [0, 'N'],
  [90, 'E'],
  [180, 'S'],
  [270, 'W'],
] as const;

type Land = Parameters<ReturnType<typeof geoPath>>[0];

/** Coastlines ship with the application; they are fetched when the map is first shown. */
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

/** Numbers of places near each other give way along their lines towards the station, so that none lies over another. */
function apart<T extends { readonly at: readonly [number, number] }>(
  places: readonly T[],
  leastApart: number,
): readonly (T & { readonly number: readonly [number, number] })[] {
  const taken: (readonly [number, number])[] = [];
  return places.map((place) => {
    const [dx, dy] = [place.at[0] - SIZE / 2, place.at[1] - SIZE / 2];
    const length = Math.max(1, Math.hypot(dx, dy));
    const on = (along: number): readonly [number, number] => [
      SIZE / 2 + (dx * along) / length,
      SIZE / 2 + (dy * along) / length,
    ];
    const free = ([x, y]: readonly [number, number]): boolean =>
      taken.every(([a, b]) => Math.hypot(x - a, y - b) >= leastApart);
    const tried = Array.from(
      { length: 2 * Math.ceil(RADIUS / leastApart) + 1 },
      (_, i) => length + (i % 2 === 0 ? -1 : 1) * Math.ceil(i / 2) * leastApart,
    );
    const number =
      tried
        .filter((along) => along >= 0 && along <= RADIUS)
        .map(on)
        .find(free) ?? place.at;
    taken.push(number);
    return { ...place, number };
  });
}

/** The world as the listener's antennas see it: azimuths true, distances true from the station. */
export function WorldMap({ data }: { readonly data: StationData }) {
  const land = useLand();
  const drawing = useRef<HTMLElement>(null);
  const readable = useReadable(drawing, SIZE);
  const { latDeg, lonDeg } = data.station;
  const { heightM } = roomOf(data);
  const map = useMemo(() => {
    const projection = geoAzimuthalEquidistant()
      .rotate([-lonDeg, -latDeg])
      .translate([SIZE / 2, SIZE / 2])
      .scale(RADIUS / Math.PI)
      .clipAngle(179.9);
    const path = geoPath(projection);
    return { projection, path };
  }, [latDeg, lonDeg]);
  const targets = data.targets.flatMap((target) => {
    const place = wantedPosition(target);
    const at = place && map.projection([place.lonDeg, place.latDeg]);
    return place && at ? [{ target, at, way: greatCircle(data.station, place) }] : [];
  });
  const numbered = apart(targets, 2.1 * 0.73 * readable(11));
  return (
    <Section title="Map" hint="azimuthal, centred on the station: bearings and distances from here are true">
      <figure ref={drawing} data-evidence className="max-w-[26rem]">
        <svg
          viewBox={`0 0 ${SIZE} ${SIZE}`}
          className="w-full"
          role="img"
          aria-label={`Azimuthal map centred on the station with ${targets.length} wanted places`}
        >
          <circle cx={SIZE / 2} cy={SIZE / 2} r={RADIUS} fill="var(--paper)" stroke="var(--dim)" />
          {land && <path d={map.path(land) ?? ''} fill="var(--rule)" stroke="var(--dim)" strokeWidth="0.5" />}
          {RINGS_KM.map((km) => (
            <g key={km}>
              <path
                d={
                  map.path(
                    geoCircle()
                      .center([lonDeg, latDeg])
                      .radius(km / EARTH_KM_PER_DEG)(),
                  ) ?? ''
                }
                fill="none"
                stroke="var(--dim)"
                strokeWidth="0.6"
                strokeDasharray="2 4"
              />
              <text
                x={SIZE / 2 + 3}
                y={SIZE / 2 - (km / 20_015) * RADIUS - 3}
                fontSize={readable(10)}
                fill="var(--dim)"
              >
                {km.toLocaleString('en-GB')} km
              </text>
            </g>
          ))}
          {/* what an airliner's height brings over the horizon */}
          <path
            d={
              map.path(
                geoCircle()
                  .center([lonDeg, latDeg])
                  .radius(radioHorizonKm(heightM, AIRLINER_M) / EARTH_KM_PER_DEG)(),
              ) ?? ''
            }
            fill="none"
            stroke="var(--reed)"
            strokeWidth="1"
          />
          {COMPASS.map(([deg, letter]) => (
            <text
              key={letter}
              x={SIZE / 2 + (RADIUS + 13) * Math.sin((deg * Math.PI) / 180)}
              y={SIZE / 2 - (RADIUS + 13) * Math.cos((deg * Math.PI) / 180) + 4}
              textAnchor="middle"
              fontSize={readable(13)}
              fill="var(--ink)"
            >
              {letter}
            </text>
          ))}
          <path
            d={`M${SIZE / 2 - 5},${SIZE / 2}h10M${SIZE / 2},${SIZE / 2 - 5}v10`}
            stroke="var(--plum)"
            strokeWidth="2"
          />
          {numbered.map(({ target, at: [x, y], number: [nx, ny] }, i) => (
            <g key={target.id}>
              <line x1={SIZE / 2} y1={SIZE / 2} x2={x} y2={y} stroke="var(--plum)" strokeWidth="1.2" />
              <circle cx={x} cy={y} r="2.5" fill="var(--plum)" />
              <circle
                cx={nx}
                cy={ny}
                r={readable(11) * 0.73}
                fill="var(--sheet)"
                stroke="var(--plum)"
                strokeWidth="1.5"
              />
              <text x={nx} y={ny + readable(11) * 0.36} textAnchor="middle" fontSize={readable(11)} fill="var(--plum)">
                {i + 1}
              </text>
            </g>
          ))}
        </svg>
        <figcaption className="text-sm">
          Small green ring: radio horizon to an aircraft at 10.7 km, {radioHorizonKm(heightM, AIRLINER_M).toFixed(0)} km
          (model).{' '}
          <ExportButtons
            of={drawing}
            name="map"
            onCsv={() =>
              saveCsv(
                'map.csv',
                ['target', 'distance (km)', 'bearing (degrees)'],
                targets.map(({ target, way }) => [target.name, way.distanceKm, way.bearingDeg]),
              )
            }
          />
        </figcaption>
      </figure>
      {targets.length === 0 ? (
        <p className="text-sm text-dim">No target has a place yet: give one its area to see its bearing here.</p>
      ) : (
        <ol className="list-decimal pl-6 text-sm">
          {targets.map(({ target, way }) => (
            <li key={target.id}>
              {target.name}: {way.distanceKm.toFixed(0)} km at {way.bearingDeg.toFixed(1)}° (model)
            </li>
          ))}
        </ol>
      )}
    </Section>
  );
}
