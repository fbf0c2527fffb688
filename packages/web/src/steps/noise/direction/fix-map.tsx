import { toLonLat } from '@velvet-reed/core/formats';
import { fixed } from '@velvet-reed/core/units';
import { useRef } from 'react';
import type { JudgedDirection } from '@velvet-reed/station/direction';
import type { StationData } from '@velvet-reed/station/record';
import { AzimuthalMap } from '../../../ui/azimuthal-map';

/** Turns farther apart than this are looked at on the map, m. */
export const ON_MAP_M = 1000;

/** Bearings of turns that lie kilometres apart, on the map about the station. */
export function FixMap({
  data,
  judged: { turns, fix },
}: {
  readonly data: StationData;
  readonly judged: JudgedDirection;
}) {
  const drawing = useRef<HTMLElement>(null);
  const { station } = data;
  const places = [
    ...turns.map(({ log }) => Math.hypot(log.xM, log.yM)),
    ...(fix ? [Math.hypot(fix.xM, fix.yM) + fix.semiMajorM] : []),
  ];
  const reachKm = Math.max(2, (1.25 * Math.max(...places)) / 1000);
  const ring = 10 ** Math.floor(Math.log10(reachKm));
  const position = (xM: number, yM: number) => {
    const [lonDeg, latDeg] = toLonLat([xM, yM], station);
    return { latDeg, lonDeg };
  };
  return (
    <figure ref={drawing} className="m-0 max-w-[27rem]">
      <AzimuthalMap
        drawing={drawing}
        centre={station}
        reachKm={reachKm}
        ringsKm={[ring, 2 * ring, 5 * ring].filter((km) => km <= reachKm)}
        label={`Map with ${turns.length} turns${fix ? ' and the place where their lines meet' : ''}; the figures stand beside`}
      >
        {({ at }) => (
          <>
            {turns.map(({ log, fit, bearingDeg }) => {
              const from = at(position(log.xM, log.yM));
              if (!fit || !from) return null;
              const turn = ((bearingDeg ?? fit.axisDeg) * Math.PI) / 180;
              // as far as the rim: from point to point, since the map may end between
              const ends = (side: 1 | -1) =>
                Array.from({ length: 60 }, (_, i) => (side * reachKm * 2000 * (i + 1)) / 60)
                  .map((m) => at(position(log.xM + m * Math.sin(turn), log.yM + m * Math.cos(turn))))
                  .filter((one) => one !== undefined)
                  .at(-1) ?? from;
              const [a, b] = [ends(1), bearingDeg === undefined ? ends(-1) : from];
              return (
                <g key={log.id}>
                  <line x1={b[0]} y1={b[1]} x2={a[0]} y2={a[1]} stroke="var(--plum)" strokeWidth="1.4" />
                  <circle cx={from[0]} cy={from[1]} r="5" fill="var(--sheet)" stroke="var(--plum)" strokeWidth="2" />
                </g>
              );
            })}
            {fix &&
              (([x, y]) => <circle cx={x} cy={y} r="7" fill="var(--reed)" fillOpacity="0.5" stroke="var(--reed)" />)(
                at(position(fix.xM, fix.yM)) ?? [-99, -99],
              )}
          </>
        )}
      </AzimuthalMap>
      <figcaption className="text-sm text-dim">
        circles: turns; lines: their nulls; the mark: where they meet
        {fix &&
          (([lon, lat]) =>
            `, ${fixed(Math.abs(lat), 4)}° ${lat < 0 ? 'S' : 'N'} ${fixed(Math.abs(lon), 4)}° ${lon < 0 ? 'W' : 'E'}`)(
            toLonLat([fix.xM, fix.yM], station),
          )}{' '}
        (measured)
      </figcaption>
    </figure>
  );
}
