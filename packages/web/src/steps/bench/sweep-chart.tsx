import type { SweepData } from '@velvet-reed/core/formats';
import { impedanceOf, returnLossDb, swrOf } from '@velvet-reed/core/line';
import type { Band } from '@velvet-reed/core/spectrum';
import { autoMarkers, decimate, indexBelow } from '@velvet-reed/core/sweep';
import { bandText } from '@velvet-reed/core/units';
import { useCallback, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { useFocus } from '../../data/focus';
import { Button } from '../../ui/button';
import { saveCsv } from '../../ui/export';
import { ExportButtons } from '../../ui/export-buttons';
import { Section } from '../../ui/section';
import { TraceChart, TraceMark, useDrawnSpan, type Trace } from '../../ui/trace-chart';
import { panned, useGestures, zoomed } from '../../ui/gestures';
import type { LoadedSweep } from '@velvet-reed/station/bench/loaded-sweep';
import { MarkerTable } from './marker-table';
import { PlaneChart } from './plane-chart';

type View = 'swr' | 'loss' | 'rx' | 'plane';
type Curve = Exclude<View, 'plane'>;
const VIEWS: readonly { readonly id: View; readonly name: string }[] = [
  { id: 'swr', name: 'SWR' },
  { id: 'loss', name: 'return loss (dB)' },
  { id: 'rx', name: 'R and X (Ω)' },
  { id: 'plane', name: 'reflection plane' },
];
/** Room beside the first and last point, so that the edge frequencies can be read. */
const EDGE_ROOM = 0.025;
/** Of the drawn span, which is two and a half times the visible one. */
const COLUMNS = 500;
/** Scales that a listener can read at a glance; beyond them a curve runs off the edge. */
const RANGE: Readonly<Record<Curve, readonly [number, number]>> = { swr: [1, 10], loss: [0, 40], rx: [-200, 200] };

const TICKS: Readonly<Record<Curve, readonly number[]>> = {
  swr: [1, 1.5, 2, 3, 5, 10],
  loss: [0, 10, 20, 30, 40],
  rx: [-200, -100, 0, 100, 200],
};

type Y = (sweep: SweepData, i: number) => number | null;
const swrAt: Y = (sweep, i) => swrOf(Math.hypot(sweep.re[i], sweep.im[i]));
const lossAt: Y = (sweep, i) => returnLossDb(Math.hypot(sweep.re[i], sweep.im[i]));
const zAt =
  (part: 're' | 'im'): Y =>
  (sweep, i) =>
    impedanceOf({ re: sweep.re[i], im: sweep.im[i] }, sweep.referenceOhm)?.[part] ?? null;

/** Points of one quantity over the visible span, thinned so that no dip is lost. */
function traceOf(
  one: LoadedSweep,
  y: Y,
  suffix: string,
  look: number,
  [lowHz, highHz]: readonly [number, number],
): Trace {
  const { sweep, header } = one;
  const from = Math.max(0, indexBelow(sweep.freqHz, lowHz));
  const to = Math.min(sweep.freqHz.length, indexBelow(sweep.freqHz, highHz) + 2);
  const values = new Float64Array(sweep.freqHz.length);
  for (let i = from; i < to; i += 1) values[i] = y(sweep, i) ?? 1e9;
  const points = decimate(values, from, to, COLUMNS).map((i) => ({
    x: sweep.freqHz[i] / 1e6,
    y: values[i] === 1e9 ? null : values[i],
  }));
  return { id: `${header.id}${suffix}`, name: `${header.name} ${suffix}`, points, look };
}

/** Several sweeps over frequency, with bands, markers and exact readings. */
export default function SweepChart({
  shown,
  bands,
  targetHz,
}: {
  readonly shown: readonly LoadedSweep[];
  readonly bands: readonly Band[];
  readonly targetHz: number | undefined;
}) {
  const { band } = useFocus();
  const startHz = Math.min(...shown.map((one) => one.header.startHz));
  const stopHz = Math.max(...shown.map((one) => one.header.stopHz));
  const rim = EDGE_ROOM * (stopHz - startHz);
  const whole: readonly [number, number] = [startHz - rim, stopHz + rim];
  const [view, setView] = useState<View>('swr');
  const [span, setSpan] = useState<readonly [number, number]>();
  const [own, setOwn] = useState<readonly number[]>([]);
  const [byThemselves, setByThemselves] = useState(true);
  const latest = shown.at(-1);
  const markers = useMemo(
    () => [
      ...(targetHz ? [{ name: 'target', freqHz: targetHz }] : []),
      ...(byThemselves && latest ? autoMarkers(latest.sweep, latest.dips, bands, targetHz) : []),
      ...own.map((freqHz) => ({ name: '', freqHz })),
    ],
    [targetHz, byThemselves, latest, bands, own],
  );
  const visible = span ?? whole;
  const drawnHz = useDrawnSpan(visible);
  const traces = useMemo(
    () =>
      shown.flatMap((one) =>
        view === 'swr'
          ? [traceOf(one, swrAt, '', one.look, drawnHz)]
          : view === 'loss'
            ? [traceOf(one, lossAt, '', one.look, drawnHz)]
            : view === 'rx' && one.header.phaseKnown
              ? [
                  traceOf(one, zAt('re'), 'R', one.look, drawnHz),
                  { ...traceOf(one, zAt('im'), 'X', one.look, drawnHz), fine: true },
                ]
              : [],
      ),
    [shown, view, drawnHz],
  );
  const drawn = useMemo(() => [drawnHz[0] / 1e6, drawnHz[1] / 1e6] as const, [drawnHz]);
  const drawnBands = useMemo(
    () =>
      bands
        .filter((one) => one.highHz > drawnHz[0] && one.lowHz < drawnHz[1])
        .map((one) => ({ name: one.name, low: one.lowHz / 1e6, high: one.highHz / 1e6 })),
    [bands, drawnHz],
  );
  const drawnMarkers = useMemo(
    () => markers.map(({ freqHz }, i) => ({ name: `M${i + 1}`, x: freqHz / 1e6 })),
    [markers],
  );
  const pan = (share: number): void => setSpan(panned(visible, share));
  const zoom = (factor: number, place = 0.5): void => setSpan(zoomed(visible, factor, place));
  const box = useRef<HTMLDivElement>(null);
  const zoomArea = useGestures({
    zoom: (factor, { x, width }) => zoom(factor, x / width),
    pan: (dx, _dy, { width }) => pan(-dx / width),
    oneFinger: true,
  });
  const held = useCallback(
    (element: HTMLDivElement | null) => {
      box.current = element;
      return view === 'plane' ? undefined : zoomArea(element);
    },
    [view, zoomArea],
  );
  const onKeyDown = (event: KeyboardEvent): void => {
    const act = {
      ArrowLeft: () => pan(-0.1),
      ArrowRight: () => pan(0.1),
      '+': () => zoom(0.7),
      '=': () => zoom(0.7),
      '-': () => zoom(1 / 0.7),
      Home: () => setSpan(undefined),
    }[event.key];
    if (!act) return;
    event.preventDefault();
    act();
  };
  return (
    <Section
      title={`${VIEWS.find((one) => one.id === view)?.name ?? ''} over ${bandText(Math.max(visible[0], startHz), Math.min(visible[1], stopHz))}`}
      actions={
        <>
          <span role="group" aria-label="Quantity" className="flex">
            {VIEWS.map((one) => (
              <Button
                key={one.id}
                look="quiet"
                aria-pressed={view === one.id}
                className={view === one.id ? 'font-semibold no-underline' : ''}
                onClick={() => setView(one.id)}
              >
                {one.name}
              </Button>
            ))}
          </span>
          <Button look="quiet" onClick={() => setSpan([band.lowHz, band.highHz])}>
            Focus band
          </Button>
          <Button look="quiet" onClick={() => setSpan(undefined)}>
            Whole sweep
          </Button>
        </>
      }
    >
      <div
        tabIndex={0}
        role="group"
        aria-label="Sweep chart: arrow keys pan, plus, minus, Ctrl and wheel or two fingers zoom, Home shows all"
        onKeyDown={onKeyDown}
        data-testid="sweep-chart"
        data-evidence
        ref={held}
        className="touch-pan-y"
      >
        {view === 'plane' ? (
          <PlaneChart shown={shown} visible={visible} markers={markers} />
        ) : (
          <TraceChart
            label={`${view} of ${shown.map((one) => one.header.name).join(', ')}; exact values in the tables below`}
            traces={traces}
            bands={drawnBands}
            markers={drawnMarkers}
            visible={[visible[0] / 1e6, visible[1] / 1e6]}
            drawn={drawn}
            range={RANGE[view]}
            ticks={TICKS[view]}
            logarithmic={view === 'swr'}
          />
        )}
      </div>
      <p className="text-xs text-dim">
        {view === 'plane' ? 'Γ on 50 Ω' : 'MHz; Ctrl and wheel or two fingers zoom, arrow keys pan'}
      </p>
      <ExportButtons
        of={box}
        name="sweep"
        onCsv={() =>
          saveCsv(
            'sweep.csv',
            ['sweep', 'frequency (Hz)', 'R (ohm)', 'X (ohm)', 'SWR', 'return loss (dB)'],
            shown.flatMap(({ header, sweep }) =>
              Array.from(sweep.freqHz).flatMap((freqHz, i): (string | number | null)[][] => {
                if (freqHz < visible[0] || freqHz > visible[1]) return [];
                const z = header.phaseKnown ? zAt('re')(sweep, i) : null;
                const x = header.phaseKnown ? zAt('im')(sweep, i) : null;
                return [[header.name, freqHz, z, x, swrAt(sweep, i), lossAt(sweep, i)]];
              }),
            ),
          )
        }
      />
      <ul className="mt-1 flex flex-wrap gap-x-6 text-sm">
        {(view === 'plane'
          ? shown.map(({ header, look }) => ({ id: String(header.id), name: header.name, look }))
          : traces
        ).map((trace) => (
          <li key={trace.id}>
            <TraceMark look={trace.look} fine={'fine' in trace && trace.fine === true} /> {trace.name}
          </li>
        ))}
      </ul>
      <label className="mt-2 flex min-h-11 items-center gap-2 text-sm sm:min-h-0">
        <input type="checkbox" checked={byThemselves} onChange={(event) => setByThemselves(event.target.checked)} />
        Markers at dips, band edges and middle set themselves
      </label>
      <MarkerTable shown={shown} markers={markers} own={own} onOwn={setOwn} />
    </Section>
  );
}
