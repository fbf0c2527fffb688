import { greatCircle, radioHorizonKm, wantedPosition } from '@velvet-reed/core/site';
import { useRef } from 'react';
import { roomOf } from '@velvet-reed/station/derive';
import type { StationData } from '@velvet-reed/station/record';
import { AzimuthalMap, MAP_RADIUS, MAP_SIZE } from '../../../ui/azimuthal-map';
import { saveCsv } from '../../../ui/export';
import { ExportButtons } from '../../../ui/export-buttons';
import { Section } from '../../../ui/section';

const RINGS_KM = [5000, 10_000, 15_000];
/** Cruising height, m. */
const AIRLINER_M = 10_700;
/** Numbers of places near each other give way along their lines towards the station, so that none lies over another. */
function apart<T extends { readonly at: readonly [number, number] }>(
  places: readonly T[],
  leastApart: number,
): readonly (T & { readonly number: readonly [number, number] })[] {
  const taken: (readonly [number, number])[] = [];
  return places.map((place) => {
    const [dx, dy] = [place.at[0] - MAP_SIZE / 2, place.at[1] - MAP_SIZE / 2];
    const length = Math.max(1, Math.hypot(dx, dy));
    const on = (along: number): readonly [number, number] => [
      MAP_SIZE / 2 + (dx * along) / length,
      MAP_SIZE / 2 + (dy * along) / length,
    ];
    const free = ([x, y]: readonly [number, number]): boolean =>
      taken.every(([a, b]) => Math.hypot(x - a, y - b) >= leastApart);
    const tried = Array.from(
      { length: 2 * Math.ceil(MAP_RADIUS / leastApart) + 1 },
      (_, i) => length + (i % 2 === 0 ? -1 : 1) * Math.ceil(i / 2) * leastApart,
    );
    const number =
      tried
        .filter((along) => along >= 0 && along <= MAP_RADIUS)
        .map(on)
        .find(free) ?? place.at;
    taken.push(number);
    return { ...place, number };
  });
}

/** The wanted places as the listener's antennas see them. */
export function WorldMap({ data }: { readonly data: StationData }) {
  const drawing = useRef<HTMLElement>(null);
  const { heightM } = roomOf(data);
  const targets = data.targets.flatMap((target) => {
    const place = wantedPosition(target);
    return place ? [{ target, place, way: greatCircle(data.station, place) }] : [];
  });
  return (
    <Section title="Map" hint="azimuthal, centred on the station: bearings and distances from here are true">
      <figure ref={drawing} data-evidence className="max-w-[26rem]">
        <AzimuthalMap
          drawing={drawing}
          centre={data.station}
          ringsKm={RINGS_KM}
          label={`Azimuthal map centred on the station with ${targets.length} wanted places`}
        >
          {({ at, circle, readable }) => {
            const placed = targets.flatMap((one) => {
              const point = at(one.place);
              return point ? [{ ...one, at: point }] : [];
            });
            return (
              <>
                {/* what an airliner's height brings over the horizon */}
                <path
                  d={circle(radioHorizonKm(heightM, AIRLINER_M))}
                  fill="none"
                  stroke="var(--reed)"
                  strokeWidth="1"
                />
                {apart(placed, 2.1 * 0.73 * readable(11)).map(({ target, at: [x, y], number: [nx, ny] }, i) => (
                  <g key={target.id}>
                    <line x1={MAP_SIZE / 2} y1={MAP_SIZE / 2} x2={x} y2={y} stroke="var(--plum)" strokeWidth="1.2" />
                    <circle cx={x} cy={y} r="2.5" fill="var(--plum)" />
                    <circle
                      cx={nx}
                      cy={ny}
                      r={readable(11) * 0.73}
                      fill="var(--sheet)"
                      stroke="var(--plum)"
                      strokeWidth="1.5"
                    />
                    <text
                      x={nx}
                      y={ny + readable(11) * 0.36}
                      textAnchor="middle"
                      fontSize={readable(11)}
                      fill="var(--plum)"
                    >
                      {i + 1}
                    </text>
                  </g>
                ))}
              </>
            );
          }}
        </AzimuthalMap>
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
