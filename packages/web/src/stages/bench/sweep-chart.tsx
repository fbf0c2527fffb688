import {
  bandText,
  decimate,
  frequencyText,
  impedanceOf,
  indexBelow,
  markerAt,
  parseQuantity,
  returnLossDb,
  swrOf,
  type Band,
  type SweepData,
} from '@velvet-reed/core';
import { useMemo, useState, type KeyboardEvent } from 'react';
import { useFocus } from '../../data/focus';
import { Button } from '../../ui/button';
import { Section } from '../../ui/stage';
import { TraceChart, TraceMark, useDrawnSpan, type Trace } from '../../ui/trace-chart';
import { Swr } from './band-table';
import type { LoadedSweep } from './loaded-sweep';

type View = 'swr' | 'loss' | 'rx';
const VIEWS: readonly { readonly id: View; readonly name: string }[] = [
  { id: 'swr', name: 'SWR' },
  { id: 'loss', name: 'return loss (dB)' },
  { id: 'rx', name: 'R and X (Ω)' },
];
/** Room beside the first and last point, so that the edge frequencies can be read. */
const EDGE_ROOM = 0.025;
/** Of the drawn span, which is two and a half times the visible one. */
const COLUMNS = 500;
/** Scales that a listener can read at a glance; beyond them a curve runs off the edge. */
const RANGE: Readonly<Record<View, readonly [number, number]>> = { swr: [1, 10], loss: [0, 40], rx: [-200, 200] };

const TICKS: Readonly<Record<View, readonly number[]>> = {
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
  const [markers, setMarkers] = useState<readonly number[]>(targetHz ? [targetHz] : []);
  const visible = span ?? whole;
  const drawnHz = useDrawnSpan(visible);
  const traces = useMemo(
    () =>
      shown.flatMap((one) =>
        view === 'swr'
          ? [traceOf(one, swrAt, '', one.look, drawnHz)]
          : view === 'loss'
            ? [traceOf(one, lossAt, '', one.look, drawnHz)]
            : one.header.phaseKnown
              ? [traceOf(one, zAt('re'), 'R', one.look, drawnHz), traceOf(one, zAt('im'), 'X', one.look + 1, drawnHz)]
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
  const drawnMarkers = useMemo(() => markers.map((freqHz, i) => ({ name: `M${i + 1}`, x: freqHz / 1e6 })), [markers]);
  const pan = (share: number): void =>
    setSpan([visible[0] + share * (visible[1] - visible[0]), visible[1] + share * (visible[1] - visible[0])]);
  const zoom = (factor: number): void => {
    const middle = (visible[0] + visible[1]) / 2;
    const half = Math.max((visible[1] - visible[0]) / 2, 1e3) * factor;
    setSpan([Math.max(0, middle - half), middle + half]);
  };
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
        aria-label="Sweep chart: arrow keys pan, plus and minus zoom, Home shows all"
        onKeyDown={onKeyDown}
        data-testid="sweep-chart"
      >
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
      </div>
      <p className="text-xs text-dim">MHz</p>
      <ul className="mt-1 flex flex-wrap gap-x-6 text-sm">
        {traces.map((trace) => (
          <li key={trace.id}>
            <TraceMark look={trace.look} /> {trace.name}
          </li>
        ))}
      </ul>
      <Markers shown={shown} markers={markers} onMarkers={setMarkers} />
    </Section>
  );
}

/** Exact readings at typed frequencies, for every curve shown. */
function Markers({
  shown,
  markers,
  onMarkers,
}: {
  readonly shown: readonly LoadedSweep[];
  readonly markers: readonly number[];
  readonly onMarkers: (markers: readonly number[]) => void;
}) {
  const [text, setText] = useState('');
  const [fault, setFault] = useState('');
  const addMarker = (): void => {
    try {
      onMarkers([...markers, parseQuantity(text, 'frequency', { bareUnit: 'MHz' })]);
      setText('');
      setFault('');
    } catch (error) {
      setFault(error instanceof Error ? error.message : 'Type a frequency.');
    }
  };
  return (
    <div className="mt-3">
      <table>
        <caption className="sr-only">Markers</caption>
        <thead>
          <tr>
            <th scope="col">Marker</th>
            {shown.map((one) => (
              <th scope="col" key={one.header.id}>
                {one.header.name}
              </th>
            ))}
            <th scope="col">
              <span className="sr-only">Actions</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {markers.map((freqHz, i) => (
            <tr key={`${i} ${freqHz}`}>
              <th scope="row" className="font-mono text-ink">
                M{i + 1} {frequencyText(freqHz, 5)}
              </th>
              {shown.map((one) => {
                const point = markerAt(one.sweep, freqHz);
                return (
                  <td key={one.header.id}>
                    SWR <Swr point={point} />
                    {point?.impedance && one.header.phaseKnown && (
                      <span className="ml-3 font-mono text-sm text-dim">
                        {point.impedance.re.toFixed(1)} {point.impedance.im < 0 ? '−' : '+'} j
                        {Math.abs(point.impedance.im).toFixed(1)} Ω
                      </span>
                    )}
                  </td>
                );
              })}
              <td>
                <Button
                  look="danger"
                  aria-label={`Remove marker ${i + 1}`}
                  onClick={() => onMarkers(markers.filter((_, k) => k !== i))}
                >
                  Remove
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <form
        noValidate
        className="mt-2 flex flex-wrap items-center gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          addMarker();
        }}
      >
        <label htmlFor="marker" className="text-sm text-dim">
          Marker at
        </label>
        <input
          id="marker"
          className="w-36 font-mono"
          value={text}
          onChange={(event) => setText(event.target.value)}
          aria-invalid={fault ? true : undefined}
          aria-describedby={fault ? 'marker-fault' : undefined}
          placeholder="9.65 MHz"
        />
        <Button type="submit">Set marker</Button>
        {fault && (
          <p id="marker-fault" role="alert" className="text-sm text-danger">
            {fault}
          </p>
        )}
      </form>
    </div>
  );
}
