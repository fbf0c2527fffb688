import { CoreError } from '@velvet-reed/core/errors';
import {
  designFilter,
  type FilterDesign,
  filterGoals,
  type FilterGoals,
  type FilterQuestion,
  filterStart,
  type GoalBand,
} from '@velvet-reed/core/filter';
import type { PathSignal } from '@velvet-reed/core/path';
import { useMemo, useState } from 'react';
import { Section } from '../../../ui/section';
import { TypedFields } from '../../../ui/typed-numbers';
import { typedFrequency } from '../../../ui/typed';
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

/** A filter from what it must stop and may lose: order, parts, response, scatter, files. */
export function FilterDesigner({
  signals,
  wanted,
  targets = [],
  place,
}: {
  readonly signals: readonly PathSignal[];
  readonly wanted: GoalBand;
  /** Other bands that must not suffer, where they lie in its pass band. */
  readonly targets?: readonly GoalBand[];
  /** The path that it is meant for. */
  readonly place?: FilterPlace;
}) {
  const [begin] = useState(() => filterStart(wanted, targets, signals));
  const [shape, setShape] = useState<Shape>(begin.shape);
  const [family, setFamily] = useState<FilterQuestion['family']>('chebyshev');
  const [series, setSeries] = useState<FilterQuestion['series']>('E24');
  const typed = useTypedNumbers([
    {
      name: 'low',
      label: isBand(shape) ? 'Lower edge' : 'Edge',
      dimension: 'frequency',
      bareUnit: 'MHz',
      start: typedFrequency(begin.edgesHz[0]),
    },
    {
      name: 'high',
      label: 'Upper edge',
      dimension: 'frequency',
      bareUnit: 'MHz',
      start: typedFrequency(begin.edgesHz[1] ?? 2 * begin.edgesHz[0]),
    },
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
      {result.design && result.question && result.goals && (
        <DesignedFilter
          design={result.design}
          question={result.question}
          goals={result.goals}
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
  readonly wanted: GoalBand;
  readonly targets: readonly GoalBand[];
}): {
  readonly goals?: FilterGoals;
  readonly question?: FilterQuestion;
  readonly design?: FilterDesign;
  readonly fault?: string;
} {
  const [low, high, ripple, stop, pass, q, order] = ['low', 'high', 'ripple', 'stop', 'pass', 'q', 'order'].map(
    (name) => typed.value(name),
  );
  return useMemo(() => {
    if (low === undefined || ripple === undefined || stop === undefined || pass === undefined || q === undefined)
      return {};
    if (isBand(shape) && high === undefined) return {};
    const edgesHz = isBand(shape) ? [low, high ?? low] : [low];
    const goals = filterGoals({
      ...{ shape, edgesHz, wanted, others: targets, carriers: signals },
      ...{ stopDb: stop, passDb: pass },
    });
    const question: FilterQuestion = {
      shape,
      family,
      rippleDb: ripple,
      stopDb: Math.min(120, Math.max(10, stop)),
      edgesHz,
      lineOhm: LINE_OHM,
      first: shape === 'highpass' || shape === 'bandpass' ? 'series' : 'shunt',
      ...(order === undefined ? {} : { order: Math.round(order) }),
      stops: goals.stops,
      passes: goals.passes,
      coilQ: q,
      series,
    };
    try {
      return { goals, question, design: designFilter(question) };
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      return { fault: error.message };
    }
  }, [low, high, ripple, stop, pass, q, order, shape, family, series, signals, wanted, targets]);
}
