import { CoreError } from '@velvet-reed/core/errors';
import { designFilter, type FilterDesign, type FilterQuestion } from '@velvet-reed/core/filter';
import type { PathSignal } from '@velvet-reed/core/path';
import { useMemo, useState } from 'react';
import { Section } from '../../../ui/section';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { FilterResponse, DesignedFilter } from './designed-filter';
import type { FilterPlace } from './in-this-path';
import { LINE_OHM } from '@velvet-reed/core/line';

const SHAPES = [
  { id: 'lowpass', name: 'low-pass' },
  { id: 'highpass', name: 'high-pass' },
  { id: 'bandpass', name: 'band-pass' },
  { id: 'bandstop', name: 'band-stop' },
] as const;
type Shape = FilterQuestion['shape'];
const isBand = (shape: Shape): boolean => shape === 'bandpass' || shape === 'bandstop';
/** Whether a frequency is meant to pass. */
function passes(shape: Shape, edges: readonly number[], freqHz: number): boolean {
  const inside = freqHz >= edges[0] && freqHz <= (edges[1] ?? Infinity);
  if (shape === 'lowpass') return freqHz <= edges[0];
  if (shape === 'highpass') return freqHz >= edges[0];
  return shape === 'bandpass' ? inside : !inside;
}

interface Wanted {
  readonly name: string;
  readonly lowHz: number;
  readonly highHz: number;
}

/** The end of a band that the filter takes most from: the one nearest to what is stopped. */
function worstEndHz(shape: Shape, edges: readonly number[], { lowHz, highHz }: Wanted): number {
  if (shape === 'lowpass') return highHz;
  if (shape === 'highpass') return lowHz;
  const centre = Math.sqrt(edges[0] * edges[1]);
  const far = (freqHz: number): number => Math.abs(Math.log(freqHz / centre));
  const [outer, inner] = far(lowHz) > far(highHz) ? [lowHz, highHz] : [highHz, lowHz];
  return shape === 'bandpass' ? outer : inner;
}

/** A filter from what it must stop and may lose: order, parts, response, scatter, files. */
export function FilterDesigner({
  signals,
  wanted,
  targets = [],
  place,
}: {
  readonly signals: readonly PathSignal[];
  readonly wanted: Wanted;
  /** Other bands that must not suffer, where they lie in its pass band. */
  readonly targets?: readonly Wanted[];
  /** The path that it is meant for. */
  readonly place?: FilterPlace;
}) {
  const [shape, setShape] = useState<Shape>('lowpass');
  const [family, setFamily] = useState<FilterQuestion['family']>('chebyshev');
  const [series, setSeries] = useState<FilterQuestion['series']>('E24');
  const typed = useTypedNumbers([
    {
      name: 'low',
      label: isBand(shape) ? 'Lower edge' : 'Edge',
      dimension: 'frequency',
      bareUnit: 'MHz',
      start: '30 MHz',
    },
    { name: 'high', label: 'Upper edge', dimension: 'frequency', bareUnit: 'MHz', start: '35 MHz' },
    { name: 'ripple', label: 'Ripple', dimension: 'gain', bareUnit: 'dB', start: '0.1 dB' },
    { name: 'stop', label: 'Stop transmitters by', dimension: 'gain', bareUnit: 'dB', start: '50 dB' },
    { name: 'pass', label: 'Lose on wanted bands at most', dimension: 'gain', bareUnit: 'dB', start: '1 dB' },
    { name: 'q', label: 'Q of the coils', dimension: 'plain', start: '100' },
    { name: 'order', label: 'Order (empty: least)', dimension: 'plain', start: '', optional: true },
  ]);
  const shownFields = typed.fields.filter(
    ({ name }) => (name !== 'high' || isBand(shape)) && (name !== 'ripple' || family !== 'butterworth'),
  );
  const result = useDesign({ shape, family, series, typed, signals, wanted, targets });
  return (
    <Section title="Design a filter" hint="order from what it must stop and may lose; real parts; files to take along">
      {result.design && <FilterResponse design={result.design} signals={signals} wanted={wanted} />}
      <div className="flex flex-wrap gap-4">
        {(
          [
            [
              'Passes',
              shape,
              SHAPES.map(({ id, name }) => [id, name]),
              (value: string) => setShape(SHAPES.find(({ id }) => id === value)?.id ?? 'lowpass'),
            ],
            [
              'Family',
              family,
              [
                ['chebyshev', 'Chebyshev (edge: ripple)'],
                ['butterworth', 'Butterworth (edge: 3 dB)'],
                ['elliptic', 'elliptic (edge: ripple)'],
              ],
              (value: string) => setFamily(value === 'butterworth' || value === 'elliptic' ? value : 'chebyshev'),
            ],
            [
              'Capacitors',
              series,
              [
                ['E24', 'E24'],
                ['E12', 'E12'],
              ],
              (value: string) => setSeries(value === 'E12' ? 'E12' : 'E24'),
            ],
          ] as const
        ).map(([label, value, options, set]) => (
          <label key={label} className="text-sm text-dim">
            {label}
            <select className="ml-2 text-ink" value={value} onChange={(event) => set(event.target.value)}>
              {options.map(([id, name]) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </select>
          </label>
        ))}
      </div>
      <TypedFields of={{ ...typed, fields: shownFields }} />
      {result.fault && (
        <p role="alert" className="mt-1 text-danger">
          {result.fault}
        </p>
      )}
      {result.design && result.question && (
        <DesignedFilter
          design={result.design}
          question={result.question}
          signals={signals}
          wanted={wanted}
          place={place}
        />
      )}
    </Section>
  );
}

function useDesign({
  shape,
  family,
  series,
  typed,
  signals,
  wanted,
  targets,
}: {
  readonly shape: Shape;
  readonly family: FilterQuestion['family'];
  readonly series: FilterQuestion['series'];
  readonly typed: ReturnType<typeof useTypedNumbers>;
  readonly signals: readonly PathSignal[];
  readonly wanted: Wanted;
  readonly targets: readonly Wanted[];
}): { readonly question?: FilterQuestion; readonly design?: FilterDesign; readonly fault?: string } {
  const [low, high, ripple, stop, pass, q, order] = ['low', 'high', 'ripple', 'stop', 'pass', 'q', 'order'].map(
    (name) => typed.value(name),
  );
  return useMemo(() => {
    if (low === undefined || ripple === undefined || stop === undefined || pass === undefined || q === undefined)
      return {};
    if (isBand(shape) && high === undefined) return {};
    const edgesHz = isBand(shape) ? [low, high ?? low] : [low];
    const bands = [wanted, ...targets.filter(({ name }) => name !== wanted.name)].filter(
      ({ lowHz, highHz }) => passes(shape, edgesHz, lowHz) && passes(shape, edgesHz, highHz),
    );
    const question: FilterQuestion = {
      shape,
      family,
      rippleDb: ripple,
      stopDb: Math.min(120, Math.max(10, stop)),
      edgesHz,
      lineOhm: LINE_OHM,
      first: shape === 'highpass' || shape === 'bandpass' ? 'series' : 'shunt',
      ...(order === undefined ? {} : { order: Math.round(order) }),
      stops: signals
        .filter(({ freqHz }) => !passes(shape, edgesHz, freqHz))
        .map(({ name, freqHz }) => ({ name, freqHz, leastDb: stop })),
      passes: bands.map((band) => ({
        name: band.name,
        freqHz: worstEndHz(shape, edgesHz, band),
        mostDb: pass,
      })),
      coilQ: q,
      series,
    };
    try {
      return { question, design: designFilter(question) };
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      return { fault: error.message };
    }
  }, [low, high, ripple, stop, pass, q, order, shape, family, series, signals, wanted, targets]);
}
