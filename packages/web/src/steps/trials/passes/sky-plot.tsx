import { type HorizonPoint, horizonAt, type SkyPoint } from '@velvet-reed/core/site';
import { useRef } from 'react';
import { useReadable } from '../../../ui/drawn-scale';
import { ExportButtons } from '../../../ui/export-buttons';
import { saveCsv } from '../../../ui/export';

const RADIUS = 130;
const ROOM = 30;
const SIZE = 2 * (RADIUS + ROOM);
const MIDDLE = SIZE / 2;

const placeOf = (azimuthDeg: number, elevationDeg: number): readonly [number, number] => {
  const r = (RADIUS * (90 - Math.max(0, elevationDeg))) / 90;
  const turn = (azimuthDeg * Math.PI) / 180;
  return [MIDDLE + r * Math.sin(turn), MIDDLE - r * Math.cos(turn)];
};
const pathOf = (points: readonly (readonly [number, number])[]): string =>
  points.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`).join('');

/** The sky from below the antenna: north up, zenith in the middle; the pass over it, and what the horizon hides. */
export function SkyPlot({
  track,
  horizon,
  name,
}: {
  readonly track: readonly SkyPoint[];
  readonly horizon: readonly HorizonPoint[];
  readonly name: string;
}) {
  const box = useRef<HTMLElement>(null);
  const readable = useReadable(box, SIZE);
  const size = readable(12);
  const hidden = Array.from({ length: 73 }, (_, i) => placeOf(5 * i, horizonAt(horizon, 5 * i)));
  const rim = Array.from({ length: 73 }, (_, i) => placeOf(360 - 5 * i, 0));
  return (
    <figure ref={box} data-evidence className="max-w-88">
      <svg
        viewBox={`0 0 ${SIZE} ${SIZE}`}
        className="block w-full"
        role="img"
        aria-label={`Sky track of ${name}: ${track.length > 0 ? `from ${track[0].azimuthDeg.toFixed(0)}° to ${track[track.length - 1].azimuthDeg.toFixed(0)}°, highest ${Math.max(...track.map(({ elevationDeg }) => elevationDeg)).toFixed(0)}°` : 'no pass'}; the table has it in figures`}
      >
        {[0, 30, 60].map((elevation) => (
          <circle
            key={elevation}
            cx={MIDDLE}
            cy={MIDDLE}
            r={(RADIUS * (90 - elevation)) / 90}
            fill="none"
            stroke="var(--rule)"
          />
        ))}
        {[0, 90].map((azimuth) => {
          const [[ax, ay], [bx, by]] = [placeOf(azimuth, 0), placeOf(azimuth + 180, 0)];
          return <line key={azimuth} x1={ax} y1={ay} x2={bx} y2={by} stroke="var(--rule)" />;
        })}
        {['N', 'E', 'S', 'W'].map((letter, i) => {
          const [x, y] = placeOf(90 * i, -0);
          return (
            <text
              key={letter}
              x={MIDDLE + (x - MIDDLE) * 1.12}
              y={MIDDLE + (y - MIDDLE) * 1.12 + size / 3}
              fontSize={size}
              textAnchor="middle"
              fill="var(--dim)"
            >
              {letter}
            </text>
          );
        })}
        {horizon.length > 0 && (
          <path d={`${pathOf(hidden)}${pathOf(rim).replace('M', 'L')}Z`} fill="var(--dim)" opacity="0.25" />
        )}
        <path
          d={pathOf(track.map((one) => placeOf(one.azimuthDeg, one.elevationDeg)))}
          fill="none"
          stroke="var(--dim)"
          strokeWidth="1.5"
          strokeDasharray="2 4"
        />
        {clearRuns(track).map((run) => (
          <path
            key={run[0].atMs}
            d={pathOf(run.map((one) => placeOf(one.azimuthDeg, one.elevationDeg)))}
            fill="none"
            stroke="var(--plum)"
            strokeWidth="3.5"
            strokeLinecap="round"
          />
        ))}
        {track.length > 0 && (
          <circle
            cx={placeOf(track[0].azimuthDeg, track[0].elevationDeg)[0]}
            cy={placeOf(track[0].azimuthDeg, track[0].elevationDeg)[1]}
            r="5"
            fill="var(--plum)"
          />
        )}
      </svg>
      <figcaption className="text-xs text-dim">
        dot: rise; rings at 0°, 30°, 60°; thick: above the horizon (model){' '}
        <ExportButtons
          of={box}
          name="sky-track"
          onCsv={() =>
            saveCsv(
              'sky-track.csv',
              ['time (ms UTC)', 'azimuth (deg)', 'elevation (deg)', 'range (km)'],
              track.map((one) => [one.atMs, one.azimuthDeg, one.elevationDeg, one.rangeKm]),
            )
          }
        />
      </figcaption>
    </figure>
  );
}

/** Stretches of a track that the horizon does not hide. */
function clearRuns(track: readonly SkyPoint[]): readonly (readonly SkyPoint[])[] {
  const runs: SkyPoint[][] = [];
  track.forEach((one, i) => {
    if (!one.clear) return;
    if (i > 0 && track[i - 1].clear) runs[runs.length - 1].push(one);
    else runs.push([one]);
  });
  return runs.filter((run) => run.length > 1);
}
