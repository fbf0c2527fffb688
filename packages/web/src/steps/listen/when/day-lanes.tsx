import { clockText } from '../../../ui/moment-text';
import { daylightOf, type ListeningWindow, type Position } from '@velvet-reed/core/site';
import { useEffect, useRef, useState } from 'react';
import { saveCsv } from '../../../ui/export';
import { ExportButtons } from '../../../ui/export-buttons';

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
const LANE_PX = 30;
const NAME_PX = 176;
const TOP_PX = 26;
const FOOT_PX = 34;
/** Half of the width of "sunrise 06:40". */
const SUN_PX = 38;
/** Room of a letter in a stretch. */
const TURN_LETTER_PX = 7;
/** Letters of a name that fit beside the lanes. */
const NAME_LETTERS = 25;

/** One lane: a target or a satellite, with its windows. */
export interface Lane {
  readonly id: string;
  readonly name: string;
  readonly windows: readonly ListeningWindow[];
  /** On how many days it was heard, by hour of the UTC day. */
  readonly heardDays?: readonly number[];
  /** Hours kept free by an appointment, with the beginnings of a timed mode's transmissions. */
  readonly kept?: readonly { readonly fromMs: number; readonly toMs: number; readonly slots: readonly number[] }[];
  /** Which antenna a trial's rule names. */
  readonly turns?: readonly {
    readonly fromMs: number;
    readonly toMs: number;
    readonly name: string;
    readonly second: boolean;
  }[];
  /** Where something else wants the same receiver. */
  readonly clashes?: readonly { readonly fromMs: number; readonly toMs: number }[];
}

/** Long names keep both ends: what tells two alike ones apart stands last. */
const shortened = (name: string): string =>
  name.length > NAME_LETTERS ? `${name.slice(0, NAME_LETTERS - 9).trimEnd()}… ${name.slice(-7).trimStart()}` : name;

/** The stretches of darkness at the station between two moments. */
function nights(station: Position, fromMs: number, toMs: number): readonly (readonly [number, number])[] {
  const dark: (readonly [number, number])[] = [];
  let began: number | undefined = fromMs;
  const events: { readonly atMs: number; readonly rises: boolean }[] = [];
  for (let day = fromMs - DAY_MS; day <= toMs + DAY_MS; day += DAY_MS) {
    const { riseMs, setMs } = daylightOf(station, day);
    if (riseMs !== undefined) events.push({ atMs: riseMs, rises: true });
    if (setMs !== undefined) events.push({ atMs: setMs, rises: false });
  }
  const inside = events
    .filter(({ atMs }, i) => atMs > fromMs && atMs < toMs && events.findIndex((one) => one.atMs === atMs) === i)
    .sort((a, b) => a.atMs - b.atMs);
  if (inside.length === 0) return [];
  if (!inside[0].rises) began = undefined;
  for (const { atMs, rises } of inside) {
    if (rises && began !== undefined) dark.push([began, atMs]);
    began = rises ? undefined : atMs;
  }
  if (began !== undefined) dark.push([began, toMs]);
  return dark;
}

/** Middles of the hours shown in which a target was heard before. */
function heardHours({ heardDays = [] }: Lane, fromMs: number, toMs: number) {
  const first = Math.ceil(fromMs / HOUR_MS - 0.5);
  return Array.from({ length: Math.max(0, Math.floor(toMs / HOUR_MS - 0.5) - first + 1) }, (_, i) => first + i).flatMap(
    (hour) => {
      const days = heardDays[hour % 24] ?? 0;
      return days > 0 ? [{ atMs: (hour + 0.5) * HOUR_MS, days }] : [];
    },
  );
}

const CSV_HEAD = ['lane', 'from (UTC)', 'to (UTC)', 'what', 'why'];
const csvRows = ({ name, windows, kept = [], clashes = [], turns = [] }: Lane): (readonly string[])[] => {
  const row = (one: { readonly fromMs: number; readonly toMs: number }, what: string, why = ''): readonly string[] => [
    ...[name, new Date(one.fromMs).toISOString(), new Date(one.toMs).toISOString()],
    ...[what, why],
  ];
  return [
    ...windows.map((one) => row(one, one.quality, one.why)),
    ...kept.map((one) => row(one, 'kept free', one.slots.length > 0 ? `${one.slots.length} transmissions` : '')),
    ...clashes.map((one) => row(one, 'clash')),
    ...turns.map((one) => row(one, one.name, 'by your trials')),
  ];
};

/** The coming hours as lanes: when each target can be heard, night at the station behind them, now in front. Filled: good; open: fair. */
export function DayLanes({
  lanes,
  station,
  fromMs,
  hours,
  nowMs,
}: {
  readonly lanes: readonly Lane[];
  readonly station: Position;
  readonly fromMs: number;
  readonly hours: number;
  /** Undefined when another day is looked at. */
  readonly nowMs: number | undefined;
}) {
  const box = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(760);
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    const observer = new ResizeObserver(() => setWidth(Math.max(300, element.clientWidth)));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  const names = width < 480 ? 110 : NAME_PX;
  const toMs = fromMs + hours * HOUR_MS;
  const x = (ms: number): number => names + ((ms - fromMs) / (toMs - fromMs)) * (width - names - 8);
  const height = TOP_PX + lanes.length * LANE_PX + FOOT_PX;
  const stepH = hours > 48 ? 24 : width < 480 ? 6 : 3;
  const first = Math.ceil(fromMs / (stepH * HOUR_MS)) * stepH * HOUR_MS;
  const ticks = Array.from(
    { length: Math.floor((toMs - first) / (stepH * HOUR_MS)) + 1 },
    (_, i) => first + i * stepH * HOUR_MS,
  );
  const dark = nights(station, fromMs, toMs);
  const middle = (ms: number): number => Math.min(width - SUN_PX, Math.max(names + SUN_PX, x(ms)));
  // where two would lie on each other the later one is left out: its stretch of darkness is still drawn
  const sunWords = dark
    .flatMap(([begin, end]) => [
      ...(begin > fromMs ? [{ text: `sunset ${clockText(begin)}`, at: middle(begin) }] : []),
      ...(end < toMs ? [{ text: `sunrise ${clockText(end)}`, at: middle(end) }] : []),
    ])
    .reduce<{ readonly text: string; readonly at: number }[]>(
      (kept, one) => (one.at - (kept.at(-1)?.at ?? -Infinity) < 2 * SUN_PX + 4 ? kept : [...kept, one]),
      [],
    );
  const label = lanes
    .map(({ name, windows, kept = [], clashes = [], turns }) => {
      if (turns) return `${name}: ${turns.map((one) => `${one.name} from ${clockText(one.fromMs)}`).join(', ')}`;
      if (kept.length > 0)
        return `${name}: kept from ${clockText(kept[0].fromMs)} to ${clockText(kept[0].toMs)}${clashes.length > 0 ? `, clash at ${clockText(clashes[0].fromMs)}` : ''}`;
      const next = windows.find(({ quality }) => quality === 'good') ?? windows[0];
      return `${name}: ${windows.length === 0 ? 'no window' : `${next.quality} from ${clockText(next.fromMs)}`}`;
    })
    .join('; ');
  return (
    <>
      <div ref={box} data-evidence>
        <svg width={width} height={height} role="img" aria-label={`The next ${hours} hours, UTC. ${label}.`}>
          {dark.map(([begin, end]) => (
            <rect
              key={begin}
              x={x(begin)}
              width={x(end) - x(begin)}
              y={TOP_PX}
              height={lanes.length * LANE_PX}
              fill="var(--ink)"
              fillOpacity={0.07}
            />
          ))}
          {ticks.map((ms) => (
            <g key={ms}>
              <line x1={x(ms)} x2={x(ms)} y1={TOP_PX} y2={TOP_PX + lanes.length * LANE_PX} stroke="var(--rule)" />
              {x(ms) < width - 14 && (
                <text
                  x={x(ms)}
                  y={16}
                  textAnchor="middle"
                  fontSize={12}
                  fill="var(--dim)"
                  fontFamily="var(--font-mono)"
                >
                  {stepH === 24 ? new Date(ms).toISOString().slice(8, 10) : clockText(ms).slice(0, 2)}
                </text>
              )}
            </g>
          ))}
          {lanes.map((lane, i) => {
            const top = TOP_PX + i * LANE_PX;
            return (
              <g key={lane.id}>
                <text x={names - 8} y={top + 19} textAnchor="end" fontSize={13} fill="var(--ink)">
                  {width < 480 ? shortened(lane.name).slice(0, 15) : shortened(lane.name)}
                  <title>{lane.name}</title>
                </text>
                <line x1={names} x2={width - 8} y1={top + LANE_PX - 3} y2={top + LANE_PX - 3} stroke="var(--rule)" />
                {lane.windows.map((one) => (
                  <rect
                    key={one.fromMs}
                    x={x(Math.max(fromMs, one.fromMs))}
                    width={Math.max(3, x(Math.min(toMs, one.toMs)) - x(Math.max(fromMs, one.fromMs)))}
                    y={top + 6}
                    height={16}
                    fill={one.quality === 'good' ? 'var(--reed)' : 'var(--sheet)'}
                    stroke="var(--reed)"
                    strokeWidth={1.4}
                  >
                    <title>
                      {lane.name}, {clockText(one.fromMs)} to {clockText(one.toMs)} UTC, {one.quality}: {one.why}
                    </title>
                  </rect>
                ))}
                {heardHours(lane, fromMs, toMs).map(({ atMs, days }) => (
                  <circle key={atMs} cx={x(atMs)} cy={top + 25} r={Math.min(3.2, 1.6 + 0.4 * days)} fill="var(--plum)">
                    <title>
                      {lane.name}: heard in this hour on {days} {days === 1 ? 'day' : 'days'}
                    </title>
                  </circle>
                ))}
                {lane.kept?.map((one) => {
                  const [left, right] = [x(Math.max(fromMs, one.fromMs)), x(Math.min(toMs, one.toMs))];
                  // slots closer than a few px would be a grey bar
                  const shown = one.slots.length > 0 && (right - left) / one.slots.length > 4 ? one.slots : [];
                  return (
                    <g key={one.fromMs}>
                      <rect
                        x={left}
                        width={Math.max(3, right - left)}
                        y={top + 6}
                        height={16}
                        rx={4}
                        fill="var(--plum)"
                        fillOpacity={0.18}
                        stroke="var(--plum)"
                        strokeWidth={1.6}
                      >
                        <title>
                          {lane.name}, kept {clockText(one.fromMs)} to {clockText(one.toMs)} UTC
                        </title>
                      </rect>
                      {shown
                        .filter((ms) => ms > fromMs && ms < toMs)
                        .map((ms) => (
                          <line key={ms} x1={x(ms)} x2={x(ms)} y1={top + 15} y2={top + 22} stroke="var(--plum)" />
                        ))}
                    </g>
                  );
                })}
                {lane.turns?.map((one) => {
                  const [left, right] = [x(one.fromMs), x(one.toMs)];
                  const letters = Math.floor((right - left) / TURN_LETTER_PX);
                  return (
                    <g key={one.fromMs}>
                      <rect
                        x={left}
                        width={Math.max(3, right - left)}
                        y={top + 5}
                        height={18}
                        fill={one.second ? 'var(--ink)' : 'var(--sheet)'}
                        fillOpacity={one.second ? 0.14 : 1}
                        stroke="var(--dim)"
                      >
                        <title>
                          {one.name}, {clockText(one.fromMs)} to {clockText(one.toMs)} UTC
                        </title>
                      </rect>
                      {letters > 3 && (
                        <text x={left + 4} y={top + 18} fontSize={12} fill="var(--ink)">
                          {one.name.length > letters ? `${one.name.slice(0, letters - 1)}…` : one.name}
                        </text>
                      )}
                    </g>
                  );
                })}
                {lane.clashes?.map((one) => (
                  <path
                    key={one.fromMs}
                    d={`M${x(Math.max(fromMs, one.fromMs))} ${top + 25}H${Math.max(x(Math.max(fromMs, one.fromMs)) + 3, x(Math.min(toMs, one.toMs)))}`}
                    stroke="var(--danger)"
                    strokeWidth={4}
                    strokeDasharray="4 2"
                  >
                    <title>
                      Clash, {clockText(one.fromMs)} to {clockText(one.toMs)} UTC
                    </title>
                  </path>
                ))}
              </g>
            );
          })}
          {nowMs !== undefined && nowMs >= fromMs && nowMs <= toMs && (
            <g>
              <line
                x1={x(nowMs)}
                x2={x(nowMs)}
                y1={TOP_PX - 4}
                y2={TOP_PX + lanes.length * LANE_PX}
                stroke="var(--plum)"
                strokeWidth={2}
              />
              <text
                x={Math.max(names + 14, x(nowMs))}
                y={TOP_PX + lanes.length * LANE_PX + 30}
                textAnchor="middle"
                fontSize={12}
                fill="var(--plum)"
              >
                now
              </text>
            </g>
          )}
          {hours <= 48 &&
            sunWords.map(({ text, at }) => (
              <text
                key={text}
                x={at}
                y={TOP_PX + lanes.length * LANE_PX + 14}
                textAnchor="middle"
                fontSize={11}
                fill="var(--dim)"
              >
                {text}
              </text>
            ))}
        </svg>
      </div>
      <ExportButtons of={box} name="day" onCsv={() => saveCsv('day.csv', CSV_HEAD, lanes.flatMap(csvRows))} />
    </>
  );
}
