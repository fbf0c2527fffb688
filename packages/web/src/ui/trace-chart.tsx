import { scaleLinear, scaleLog } from 'd3-scale';
import { memo, useState } from 'react';
import { dashOf, inkOf } from './line-looks';
import { placeLabels } from './place-labels';
import { CartesianGrid, Line, LineChart, ResponsiveContainer, usePlotArea, XAxis, YAxis } from 'recharts';

/** One curve. Dash tells it apart without colour; the label stands at its end. */
export interface Trace {
  readonly id: string;
  readonly name: string;
  readonly points: readonly { readonly x: number; readonly y: number | null }[];
  /** 0-based: the same antenna keeps the same dash everywhere. */
  readonly look: number;
  /** Drawn thin: a second quantity of the same sweep (X beside R). */
  readonly fine?: boolean;
}

type Span = readonly [number, number];

/** How far beyond the visible span curves are drawn, as a share of it on either side. */
const BEYOND = 0.75;

const middleOf = ([low, high]: Span): Span => {
  const side = (BEYOND / (1 + 2 * BEYOND)) * (high - low);
  return [low + side, high - side];
};
const around = ([low, high]: Span): Span => [low - BEYOND * (high - low), high + BEYOND * (high - low)];

/**
 * Span to draw so that panning only slides the finished picture: it stays while the visible span, at the same width, lies within it.
 * Drawing a frame of the chart costs some 50 ms, sliding it nothing.
 */
export function useDrawnSpan(visible: Span): Span {
  const [drawn, setDrawn] = useState<Span>(() => around(visible));
  const width = visible[1] - visible[0];
  const sameWidth = Math.abs((drawn[1] - drawn[0]) / (1 + 2 * BEYOND) / width - 1) < 1e-6;
  if (sameWidth && visible[0] >= drawn[0] && visible[1] <= drawn[1]) return drawn;
  const next = around(visible);
  setDrawn(next);
  return next;
}

interface ChartData {
  readonly traces: readonly Trace[];
  readonly bands: readonly { readonly name: string; readonly low: number; readonly high: number }[];
  readonly markers: readonly { readonly name: string; readonly x: number }[];
  /** Span of the traces; wider than what is visible. */
  readonly drawn: Span;
  readonly range: Span;
  readonly ticks: readonly number[];
  readonly logarithmic: boolean;
  /** Places of the ticks below, where the chart's own are not wanted, and how they read. */
  readonly below?: { readonly ticks: readonly number[]; readonly text: (value: number) => string };
}

const TOP_PX = 18;
const AXIS_PX = 30;
/** Half of the last number below, where nothing lies beyond it. */
const LAST_TICK_PX = 28;
const INK = { fill: 'var(--dim)', fontSize: 12, fontFamily: 'var(--font-mono)' };

/** Curves over frequency (MHz) with shaded bands and markers; fed decimated points, exact numbers stand beside it. */
export function TraceChart({
  label,
  visible,
  height = 260,
  ...chart
}: ChartData & { readonly label: string; readonly visible: Span; readonly height?: number }) {
  const { drawn, range, ticks, logarithmic } = chart;
  const width = visible[1] - visible[0];
  const y = (logarithmic ? scaleLog : scaleLinear)([range[0], range[1]], [height - AXIS_PX, TOP_PX]);
  return (
    <div role="img" aria-label={label} style={{ height }} className="flex w-full max-w-4xl">
      <svg width={44} height={height} className="shrink-0">
        {ticks.map((tick) => (
          <text key={tick} x={38} y={y(tick) + 4} textAnchor="end" {...INK}>
            {String(tick).replace('-', '−')}
          </text>
        ))}
      </svg>
      <div className="relative min-w-0 flex-1 overflow-hidden">
        <div
          className="absolute inset-y-0"
          style={{
            width: `${(100 * (drawn[1] - drawn[0])) / width}%`,
            left: `${(-100 * (visible[0] - drawn[0])) / width}%`,
          }}
        >
          <Curves
            {...chart}
            xTicks={Math.round((7 * (drawn[1] - drawn[0])) / width)}
            rightPx={drawn[1] === visible[1] ? LAST_TICK_PX : 0}
          />
        </div>
      </div>
    </div>
  );
}

/** The drawn span; untouched while it slides. */
const Curves = memo(function Curves({
  traces,
  bands,
  markers,
  drawn,
  range,
  ticks,
  logarithmic,
  below,
  xTicks,
  rightPx,
}: ChartData & { readonly xTicks: number; readonly rightPx: number }) {
  return (
    <ResponsiveContainer width="100%" height="100%">
      <LineChart margin={{ top: TOP_PX, right: rightPx, bottom: 0, left: 0 }} accessibilityLayer={false}>
        <CartesianGrid stroke="var(--rule)" vertical={false} />
        <BandsAndMarkers bands={bands} markers={markers} drawn={drawn} seen={rightPx > 0 ? drawn : middleOf(drawn)} />
        <XAxis
          dataKey="x"
          type="number"
          height={AXIS_PX}
          domain={[drawn[0], drawn[1]]}
          allowDataOverflow
          ticks={below ? [...below.ticks] : scaleLinear([drawn[0], drawn[1]], [0, 1]).ticks(xTicks)}
          tick={INK}
          stroke="var(--rule)"
          tickFormatter={below?.text ?? ((value: number) => String(Number(value.toPrecision(5))))}
        />
        <YAxis
          hide
          scale={logarithmic ? 'log' : 'auto'}
          domain={[range[0], range[1]]}
          allowDataOverflow
          ticks={[...ticks]}
        />
        {traces.map((trace) => (
          <Line
            key={trace.id}
            data={[...trace.points]}
            dataKey="y"
            name={trace.name}
            dot={false}
            isAnimationActive={false}
            stroke={inkOf(trace.look)}
            strokeWidth={trace.fine ? 1 : 2.2}
            strokeDasharray={dashOf(trace.look)}
            connectNulls={false}
          />
        ))}
      </LineChart>
    </ResponsiveContainer>
  );
});

/** Shaded bands and marker lines, drawn straight into the plot: the chart's own reference elements cost a pass through its store each, every frame of a pan. */
function BandsAndMarkers({
  bands,
  markers,
  drawn,
  seen,
}: Pick<ChartData, 'bands' | 'markers' | 'drawn'> & {
  /** What was in view when the span was drawn: names stand whole within it. */
  readonly seen: Span;
}) {
  const [low, high] = drawn;
  const plot = usePlotArea();
  if (!plot) return null;
  const x = (value: number): number =>
    plot.x + ((Math.min(high, Math.max(low, value)) - low) / (high - low)) * plot.width;
  const named = bandNames(bands, seen, x);
  return (
    <g>
      {bands.map((band) => (
        <g key={band.name + band.low}>
          <rect
            x={x(band.low)}
            width={x(band.high) - x(band.low)}
            y={plot.y}
            height={plot.height}
            fill="var(--reed)"
            fillOpacity={0.13}
          />
          {named.has(band.low) && (
            <text x={named.get(band.low)} y={plot.y + 13} textAnchor="middle" fontSize={11} fill="var(--ink)">
              {band.name}
            </text>
          )}
        </g>
      ))}
      {besideEachOther(markers, [low, high], x).map(({ marker, anchor }) => (
        <g key={marker.x}>
          <line
            x1={x(marker.x)}
            x2={x(marker.x)}
            y1={plot.y}
            y2={plot.y + plot.height}
            stroke="var(--ink)"
            strokeDasharray="3 3"
          />
          <text
            x={x(marker.x) + (anchor === 'start' ? 1 : anchor === 'end' ? -1 : 0)}
            y={plot.y - 5}
            textAnchor={anchor}
            fontSize={12}
            fill="var(--ink)"
          >
            {marker.name}
          </text>
        </g>
      ))}
    </g>
  );
}

/** Width of a letter of a marker's name, and the least gap between two names, px. */
const LETTER_PX = 8;
const GAP_PX = 3;
type Anchor = 'start' | 'middle' | 'end';

/** Names of markers that stand close give way to the outer sides, left to right; one that finds no place is only in the table. */
function besideEachOther(markers: ChartData['markers'], [low, high]: Span, x: (value: number) => number) {
  const inside = markers.filter((marker) => marker.x >= low && marker.x <= high).sort((a, b) => a.x - b.x);
  let taken = -Infinity;
  return inside.map((marker, i) => {
    const [at, width] = [x(marker.x), marker.name.length * LETTER_PX];
    const next = inside.at(i + 1);
    const crowded = next !== undefined && i + 1 < inside.length && x(next.x) - at < width;
    const left: Readonly<Record<Anchor, number>> = { end: at - width - 1, middle: at - width / 2, start: at + 1 };
    const order: readonly Anchor[] = crowded ? ['end', 'middle', 'start'] : ['middle', 'start', 'end'];
    const anchor = order.find(
      (one) => left[one] >= Math.max(taken + GAP_PX, x(low) - 2) && left[one] + width <= x(high) + LAST_TICK_PX / 2,
    );
    if (anchor === undefined) return { marker: { ...marker, name: '' }, anchor: 'middle' as const };
    taken = left[anchor] + width;
    return { marker, anchor };
  });
}

/** Half the width of a letter of a band's name, px. */
const HALF_LETTER_PX = 3.2;

/** Where the names of bands stand, by lower edge: those that can stand side by side, wide bands first, whole within what is seen. */
function bandNames(
  bands: readonly { readonly name: string; readonly low: number; readonly high: number }[],
  [low, high]: Span,
  x: (value: number) => number,
): ReadonlyMap<number, number> {
  const [left, right] = [x(low), x(high)];
  const labels = bands.map((band) => {
    const [from, to] = [Math.max(low, band.low), Math.min(high, band.high)];
    const middle = from < to ? (x(from) + x(to)) / 2 : (x(band.low) + x(band.high)) / 2;
    const half = HALF_LETTER_PX * band.name.length;
    const whole = from < to ? Math.min(right - half, Math.max(left + half, middle)) : middle;
    return { id: String(band.low), text: band.name, x: whole, priority: band.high - band.low };
  });
  const drawn = placeLabels(labels, Math.max(...labels.map((label) => label.x), right) + 1e3);
  return new Map(drawn.map((label) => [Number(label.id), label.x]));
}

/** A short piece of a trace's line, for direct labels in lists. */
export const TraceMark = ({ look, fine = false }: { readonly look: number; readonly fine?: boolean }) => (
  <svg width="34" height="10" aria-hidden className="inline-block align-middle">
    <line
      x1="1"
      x2="33"
      y1="5"
      y2="5"
      stroke={inkOf(look)}
      strokeWidth={fine ? 1 : 2.5}
      strokeDasharray={dashOf(look)}
    />
  </svg>
);
