import { fixed } from '@velvet-reed/core/units';
import type { OrderView } from '@velvet-reed/station/verdicts';
import { placeLabels } from '../../../ui/place-labels';
import { levelLines, MOST_CARRIERS } from './level-lines';

const HEIGHT = 250;
const [TOP, FOOT] = [16, 8];
const LABEL_PX = 14;

const minus = (value: number, digits: number): string => fixed(value, digits).replace('-', '−');

/** Levels along the chain: at the input of each stage, and of the receiver. The same columns as the drawing above it. */
export function LevelDiagram({
  view,
  other,
  targetName,
  width,
  xOf,
}: {
  readonly view: OrderView;
  /** Another order, laid over it with thin lines. */
  readonly other?: OrderView | undefined;
  readonly targetName: string;
  readonly width: number;
  /** Where a column stands: 0 is the antenna, then the stages' inputs, the last the receiver. */
  readonly xOf: (index: number) => number;
}) {
  const { reports } = view.analysis;
  const lines = levelLines(view, targetName);
  /** Where a stage compresses, or the receiver clips. */
  const limits = reports.flatMap(({ totalDbm, roomDb, name }, i) =>
    totalDbm === undefined || roomDb === undefined
      ? []
      : [{ i, name, limit: totalDbm + roomDb, total: totalDbm, roomDb, last: i === reports.length - 1 }],
  );
  const tight = limits.reduce<(typeof limits)[number] | undefined>(
    (least, one) => (!least || one.roomDb < least.roomDb ? one : least),
    undefined,
  );
  const all = [
    ...lines.flatMap(({ levels }) => levels.filter((one) => one > -200)),
    ...limits.map(({ limit }) => limit),
  ];
  const high = 20 * Math.ceil((Math.max(...all) + 6) / 20);
  const low = 20 * Math.floor((Math.min(...all) - 4) / 20);
  const y = (dbm: number): number => TOP + ((high - Math.max(low, dbm)) / (high - low)) * (HEIGHT - TOP - FOOT);
  const step = high - low > 140 ? 40 : 20;
  const ticks = Array.from({ length: Math.floor((high - low) / step) + 1 }, (_, i) => high - step * i);
  const path = (levels: readonly number[]): string =>
    levels.map((level, i) => `${i === 0 ? 'M' : 'L'}${xOf(i).toFixed(1)},${y(level).toFixed(1)}`).join(' ');
  const last = reports.length - 1;
  // labels stand behind the receiver, moved apart so that none lies on another
  const placed = apart(lines.map((line) => ({ line, y: y(line.levels[last]) })));
  const told = [
    ...lines.map(({ name, levels }) => `${name} ${minus(levels[0], 1)} to ${minus(levels[last], 1)} dBm`),
    tight ? `least room ${minus(tight.roomDb, 1)} dB at ${tight.name}` : 'no limit known',
  ].join('; ');
  const names = placeLabels(
    limits.map(({ i, name, roomDb }) => ({ id: String(i), text: name, x: xOf(i), priority: -roomDb })),
    width,
  );
  return (
    <svg
      width={width}
      height={HEIGHT}
      role="img"
      aria-label={`Levels along order ${view.order}, antenna to receiver: ${told}`}
    >
      {ticks.map((dbm) => (
        <g key={dbm}>
          <line x1={46} x2={xOf(last)} y1={y(dbm)} y2={y(dbm)} stroke="var(--rule)" />
          <text
            x={dbm === high ? 56 : 40}
            y={y(dbm) + (dbm === high ? -5 : 4)}
            textAnchor="end"
            fontSize={11.5}
            fill="var(--dim)"
            fontFamily="var(--font-mono)"
          >
            {String(dbm).replace('-', '−')}
            {dbm === high ? ' dBm' : ''}
          </text>
        </g>
      ))}
      {other &&
        other.analysis.reports.length === reports.length &&
        [
          other.analysis.reports.map(({ noiseDbm }) => noiseDbm),
          ...other.analysis.walks.slice(0, MOST_CARRIERS).map(({ levelsDbm }) => levelsDbm),
        ].map((levels, i) => (
          <path key={i} d={path(levels)} fill="none" stroke="var(--dim)" strokeWidth={1} strokeDasharray="1 3" />
        ))}
      {lines.map(({ id, levels, ink, width: thick, dash }) => (
        <path key={id} d={path(levels)} fill="none" stroke={ink} strokeWidth={thick} strokeDasharray={dash} />
      ))}
      {limits.map(({ i, limit, total, roomDb, last: isLast }) => (
        <g key={i} stroke="var(--danger)">
          <line x1={xOf(i) - 13} x2={xOf(i) + 13} y1={y(limit)} y2={y(limit)} strokeWidth={1.6} />
          {tight?.i === i && (
            <line
              x1={xOf(i)}
              x2={xOf(i)}
              y1={y(limit)}
              y2={y(total)}
              strokeWidth={1.2}
              strokeDasharray={roomDb < 0 ? '' : '3 2'}
            />
          )}
          {(tight?.i === i || names.some(({ id }) => id === String(i))) && (
            <text
              x={xOf(i) + (isLast ? -16 : 16)}
              y={y(limit) - 4}
              textAnchor={isLast ? 'end' : 'start'}
              fontSize={11.5}
              stroke="none"
              fill="var(--danger)"
            >
              {tight?.i === i
                ? `${isLast ? 'clips' : 'compresses'}, ${minus(roomDb, 1)} dB room`
                : isLast
                  ? 'clips'
                  : 'compresses'}
            </text>
          )}
        </g>
      ))}
      {placed.map(({ line, y: at }) => (
        <text key={line.id} x={xOf(last) + 20} y={at + 4} fontSize={12} fill={line.ink}>
          {line.name}
        </text>
      ))}
    </svg>
  );
}

/** Moves labels apart, top down, so that none lies on another. */
function apart<T extends { readonly y: number }>(labels: readonly T[]): readonly T[] {
  const sorted = [...labels].sort((a, b) => a.y - b.y);
  let floor = -Infinity;
  const down = sorted.map((one) => {
    const y = Math.max(one.y, floor + LABEL_PX);
    floor = y;
    return { ...one, y };
  });
  const over = Math.max(0, (down.at(-1)?.y ?? 0) - (HEIGHT - 6));
  let ceiling = Infinity;
  return [...down]
    .reverse()
    .map((one, i) => {
      const y = Math.min(i === 0 ? one.y - over : one.y, ceiling - LABEL_PX);
      ceiling = y;
      return { ...one, y };
    })
    .reverse();
}
