import { useRef, useState, type ComponentProps, type ReactNode } from 'react';
import { saveCsv } from './export';
import { ExportButtons } from './export-buttons';
import { Wide } from './section';
import { TraceChart, type Trace } from './trace-chart';

/** What an axis counts: its heading with the unit, its number from what is plotted, and how many decimals are meant. */
export interface Axis {
  readonly head: string;
  readonly of?: (plotted: number) => number;
  readonly decimals: number;
}

/** Points of a curve that the table on the page shows; the CSV holds all. */
const MOST_SHOWN = 24;

const thinned = <T,>(points: readonly T[]): readonly T[] =>
  points.length <= MOST_SHOWN
    ? points
    : Array.from({ length: MOST_SHOWN }, (_, i) => points[Math.round((i * (points.length - 1)) / (MOST_SHOWN - 1))]);

/** The numbers behind curves, on demand: the same as drawn. */
export function Numbers({
  traces,
  x,
  y,
  name,
}: {
  readonly traces: readonly Trace[];
  readonly x: Axis;
  readonly y: Axis;
  readonly name: string;
}) {
  const [open, setOpen] = useState(false);
  const text = (value: number, { of = (one) => one, decimals }: Axis): string =>
    of(value).toFixed(decimals).replace('-', '−');
  return (
    <details data-numbers className="text-sm" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary>Numbers</summary>
      {open && (
        <Wide label={`Numbers of ${name.replaceAll('-', ' ')}`}>
          <table>
            <thead>
              <tr>
                <th scope="col">Curve</th>
                <th scope="col">{x.head}</th>
                <th scope="col">{y.head}</th>
              </tr>
            </thead>
            <tbody>
              {traces.flatMap((trace) =>
                thinned(trace.points).map((point, i) => (
                  <tr key={`${trace.id} ${i}`}>
                    <th scope="row" className="text-ink">
                      {trace.name}
                    </th>
                    <td className="font-mono">{text(point.x, x)}</td>
                    <td className="font-mono">{point.y === null ? 'none' : text(point.y, y)}</td>
                  </tr>
                )),
              )}
            </tbody>
          </table>
        </Wide>
      )}
    </details>
  );
}

/** Curves that can be read as a picture, as a table and taken along: SVG, PNG, and CSV with every point drawn. */
export function Curves({
  name,
  x,
  y,
  caption,
  evidence = false,
  ...chart
}: Omit<ComponentProps<typeof TraceChart>, 'label'> & {
  readonly label: string;
  /** Name of the files, in words joined by hyphens. */
  readonly name: string;
  readonly x: Axis;
  readonly y: Axis;
  readonly caption: ReactNode;
  /** It proves the room's verdict. */
  readonly evidence?: boolean;
}) {
  const box = useRef<HTMLDivElement>(null);
  const [plottedX, plottedY] = [x.of ?? Number, y.of ?? Number];
  return (
    <div className="mb-3">
      <div ref={box} {...(evidence ? { 'data-evidence': true } : {})}>
        <TraceChart {...chart} />
        <div className="max-w-4xl text-xs text-dim">{caption}</div>
      </div>
      <div className="flex flex-wrap items-baseline gap-x-4">
        <ExportButtons
          of={box}
          name={name}
          onCsv={() =>
            saveCsv(
              `${name}.csv`,
              ['curve', x.head, y.head],
              chart.traces.flatMap((trace) =>
                trace.points.map((point) => [
                  trace.name,
                  plottedX(point.x),
                  point.y === null ? null : plottedY(point.y),
                ]),
              ),
            )
          }
        />
        <Numbers traces={chart.traces} x={x} y={y} name={name} />
      </div>
    </div>
  );
}
