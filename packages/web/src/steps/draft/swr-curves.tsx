import type { Band } from '@velvet-reed/core/spectrum';
import { frequencyText } from '@velvet-reed/core/units';
import { memo, useMemo, useRef } from 'react';
import { saveCsv } from '../../ui/export';
import { Numbers } from '../../ui/curves';
import { ExportButtons } from '../../ui/export-buttons';
import { TraceChart, TraceMark, type Trace } from '../../ui/trace-chart';
import { swrOfSweep, type ModelCurves } from './model-figures';

const SWR_TICKS = [1, 1.5, 2, 3, 5, 10];
/** SWR at the top of the drawing. */
const TALLEST = 10;

/** SWR over frequency. Plain numbers are asked for, so that what did not change is not drawn again while a dimension is dragged. */
export const SwrCurves = memo(function SwrCurves({
  curves,
  lowHz,
  highHz,
  freqHz,
  bands,
}: {
  readonly curves: readonly ModelCurves[];
  readonly lowHz: number;
  readonly highHz: number;
  /** What the antenna is cut for. */
  readonly freqHz: number;
  readonly bands: readonly Band[];
}) {
  const ref = useRef<HTMLDivElement>(null);
  const visible = useMemo(() => [lowHz / 1e6, highHz / 1e6] as const, [lowHz, highHz]);
  const traces = useMemo(
    () =>
      curves.flatMap(({ name, look, sweep }): Trace[] => {
        if (!sweep) return [];
        const swr = swrOfSweep(sweep);
        return [{ id: name, name, look, points: swr.map((y, i) => ({ x: sweep.freqHz[i] / 1e6, y })) }];
      }),
    [curves],
  );
  const shaded = useMemo(
    () =>
      bands
        .filter((one) => one.highHz > lowHz && one.lowHz < highHz)
        .map((one) => ({ name: one.name, low: one.lowHz / 1e6, high: one.highHz / 1e6 })),
    [bands, lowHz, highHz],
  );
  const markers = useMemo(() => [{ name: 'cut for', x: freqHz / 1e6 }], [freqHz]);
  const sweep = curves[0].sweep;
  return (
    <figure ref={ref} data-testid="model-swr">
      <figcaption className="flex flex-wrap items-baseline gap-4 text-sm">
        <span className="font-semibold">
          SWR, {frequencyText(lowHz)} to {frequencyText(highHz)}
        </span>
        {traces.length > 1 &&
          traces.map((trace) => (
            <span key={trace.id}>
              <TraceMark look={trace.look} /> {trace.name}
            </span>
          ))}
        <ExportButtons
          of={ref}
          name="swr-model"
          onCsv={() =>
            sweep &&
            saveCsv(
              'swr-model.csv',
              ['freq_Hz', 'R_ohm', 'X_ohm', 'SWR'],
              swrOfSweep(sweep).map((swr, i) => [sweep.freqHz[i], sweep.resistance[i], sweep.reactance[i], swr]),
            )
          }
        />
      </figcaption>
      <TraceChart
        label="SWR of the model over frequency; exact values in the tables"
        traces={traces}
        bands={shaded}
        markers={markers}
        visible={visible}
        drawn={visible}
        range={[1, TALLEST]}
        ticks={SWR_TICKS}
        logarithmic
        height={220}
      />
      <Numbers
        traces={traces}
        x={{ head: 'frequency (MHz)', decimals: 4 }}
        y={{ head: 'SWR', decimals: 2 }}
        name="swr-model"
      />
      <p className="text-xs text-dim">
        MHz
        {traces.length > 0 &&
          traces.every(({ points }) => points.every(({ y }) => y === null || y > TALLEST)) &&
          `; SWR above ${TALLEST} all over: it is far off its frequency, or read by an amplifier that needs no match`}
      </p>
    </figure>
  );
});
