import { useRef } from 'react';
import type { JudgedDirection } from '@velvet-reed/station/direction';
import type { StationData } from '@velvet-reed/station/record';
import { useReadable } from '../../../ui/drawn-scale';
import { saveCsv } from '../../../ui/export';
import { ExportButtons } from '../../../ui/export-buttons';

const SIZE = 420;
const ROOM = 30;

/** Turns with their lines on the plan, the ellipse where they meet, and what is suspected. */
export function FixPlan({
  data,
  judged: { turns, fix },
}: {
  readonly data: StationData;
  readonly judged: JudgedDirection;
}) {
  const drawing = useRef<HTMLElement>(null);
  const readable = useReadable(drawing, SIZE);
  const suspects = data.plotFeatures.filter(({ kind, points }) => kind === 'noise' && points.length > 0);
  const houses = data.plotFeatures.filter(({ kind, points }) => kind === 'house' && points.length > 2);
  const xs = [
    ...turns.map(({ log }) => log.xM),
    ...(fix ? [fix.xM - fix.semiMajorM, fix.xM + fix.semiMajorM] : []),
    ...suspects.map(({ points }) => points[0][0]),
  ];
  const ys = [
    ...turns.map(({ log }) => log.yM),
    ...(fix ? [fix.yM - fix.semiMajorM, fix.yM + fix.semiMajorM] : []),
    ...suspects.map(({ points }) => points[0][1]),
  ];
  const span = Math.max(20, Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)) * 1.15;
  const [midX, midY] = [(Math.max(...xs) + Math.min(...xs)) / 2, (Math.max(...ys) + Math.min(...ys)) / 2];
  const scale = (SIZE - 2 * ROOM) / span;
  const at = (x: number, y: number): readonly [number, number] => [
    SIZE / 2 + (x - midX) * scale,
    SIZE / 2 - (y - midY) * scale,
  ];
  const bar = 10 ** Math.floor(Math.log10(span / 2));
  return (
    <figure ref={drawing} className="m-0 max-w-[27rem]">
      <svg
        viewBox={`0 0 ${SIZE} ${SIZE}`}
        className="w-full border border-rule"
        role="img"
        aria-label={`Plan with ${turns.length} turns${fix ? ' and the region where they meet' : ''}; the figures stand beside`}
      >
        {houses.map(({ id, points }) => (
          <polygon
            key={id}
            points={points.map(([x, y]) => at(x, y).join(',')).join(' ')}
            fill="var(--rule)"
            stroke="var(--dim)"
          />
        ))}
        {turns.map(({ log, fit, bearingDeg }) => {
          if (!fit) return null;
          const turn = ((bearingDeg ?? fit.axisDeg) * Math.PI) / 180;
          const [x, y] = at(log.xM, log.yM);
          const far = 2 * SIZE;
          const back = bearingDeg === undefined ? far : 0;
          return (
            <line
              key={log.id}
              x1={x - back * Math.sin(turn)}
              y1={y + back * Math.cos(turn)}
              x2={x + far * Math.sin(turn)}
              y2={y - far * Math.cos(turn)}
              stroke="var(--plum)"
              strokeWidth="1.4"
            />
          );
        })}
        {fix && (
          <polygon
            points={fix.regionM.map(([x, y]) => at(x, y).join(',')).join(' ')}
            fill="var(--reed)"
            fillOpacity={0.2}
            stroke="var(--reed)"
          />
        )}
        {fix && <circle cx={at(fix.xM, fix.yM)[0]} cy={at(fix.xM, fix.yM)[1]} r="3" fill="var(--reed)" />}
        {suspects.map(({ id, name, points: [[px, py]] }) => {
          const [x, y] = at(px, py);
          return (
            <g key={id}>
              <path d={`M${x - 4},${y - 4}l8,8m0,-8l-8,8`} stroke="var(--caution)" strokeWidth="2" />
              <text x={x + 7} y={y + 4} fontSize={readable(12)} fill="var(--ink)">
                {name}
              </text>
            </g>
          );
        })}
        {turns.map(({ log }) => {
          const [x, y] = at(log.xM, log.yM);
          return <circle key={log.id} cx={x} cy={y} r="5" fill="var(--sheet)" stroke="var(--plum)" strokeWidth="2" />;
        })}
        {fix?.next && (
          <path
            d={(([x, y]) => `M${x},${y - 7}l6,11h-12z`)(at(fix.next.xM, fix.next.yM))}
            fill="none"
            stroke="var(--ink)"
            strokeWidth="1.6"
          />
        )}
        <line x1={ROOM} x2={ROOM + bar * scale} y1={SIZE - 14} y2={SIZE - 14} stroke="var(--ink)" strokeWidth="2" />
        <text x={ROOM} y={SIZE - 20} fontSize={readable(12)} fill="var(--ink)">
          {bar} m
        </text>
      </svg>
      <figcaption className="text-sm text-dim">
        circles: turns; lines: their axes; ellipses: 1 σ and 95 %; triangle: where another turn helps most (measured){' '}
        <ExportButtons
          of={drawing}
          name="fix"
          onCsv={() =>
            saveCsv(
              'fix.csv',
              ['turn', 'east (m)', 'north (m)', 'axis (degrees)', '95 % (degrees)'],
              turns.map(({ log, fit }) => [log.name, log.xM, log.yM, fit?.axisDeg ?? '', fit?.halfDeg ?? '']),
            )
          }
        />
      </figcaption>
    </figure>
  );
}
