import {
  coilResistance,
  CoreError,
  designFilter,
  filterTouchstone,
  fixed,
  frequencyText,
  namedParts,
  qFrequencyHz,
  significant,
  spiceNetlist,
  spurSources,
  type Branch,
  type FilterDesign,
  type FilterQuestion,
  type FilterYield,
  type PathSignal,
} from '@velvet-reed/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { entry, useWrite } from '../../data/station';
import { Button } from '../../ui/button';
import { saveCsv, saveText } from '../../ui/export';
import { Caution, Section, Wide } from '../../ui/stage';
import { TraceChart } from '../../ui/trace-chart';
import { TypedFields } from '../../ui/typed-numbers';
import { useTypedNumbers } from '../../ui/use-typed-numbers';
import { inDb, Value } from '../../ui/value';
import { startSolver } from '../../workers/solver';
import { Schematic } from './schematic';

const SHAPES = [
  { id: 'lowpass', name: 'low-pass' },
  { id: 'highpass', name: 'high-pass' },
  { id: 'bandpass', name: 'band-pass' },
  { id: 'bandstop', name: 'band-stop' },
] as const;
type Shape = FilterQuestion['shape'];
const isBand = (shape: Shape): boolean => shape === 'bandpass' || shape === 'bandstop';
const LINE_OHM = 50;
const TICKS = [0, 20, 40, 60, 80];
/** Points of a response curve. */
const POINTS = 300;

/** Whether a frequency is meant to pass. */
function passes(shape: Shape, edges: readonly number[], freqHz: number): boolean {
  const inside = freqHz >= edges[0] && freqHz <= (edges[1] ?? Infinity);
  if (shape === 'lowpass') return freqHz <= edges[0];
  if (shape === 'highpass') return freqHz >= edges[0];
  return shape === 'bandpass' ? inside : !inside;
}

/** A filter from what it must stop and may lose: order, parts, response, scatter, files. */
export function FilterDesigner({
  signals,
  wanted,
}: {
  readonly signals: readonly PathSignal[];
  readonly wanted: { readonly name: string; readonly lowHz: number; readonly highHz: number };
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
    { name: 'pass', label: 'Lose on the wanted band at most', dimension: 'gain', bareUnit: 'dB', start: '1 dB' },
    { name: 'q', label: 'Q of the coils', dimension: 'plain', start: '100' },
    { name: 'order', label: 'Order (empty: least)', dimension: 'plain', start: '', optional: true },
  ]);
  const shownFields = typed.fields.filter(
    ({ name }) => (name !== 'high' || isBand(shape)) && (name !== 'ripple' || family === 'chebyshev'),
  );
  const result = useDesign({ shape, family, series, typed, signals, wanted });
  return (
    <Section title="Design a filter" hint="order from what it must stop and may lose; real parts; files to take along">
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
              ],
              (value: string) => setFamily(value === 'butterworth' ? 'butterworth' : 'chebyshev'),
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
        <Designed design={result.design} question={result.question} signals={signals} wanted={wanted} />
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
}: {
  readonly shape: Shape;
  readonly family: FilterQuestion['family'];
  readonly series: FilterQuestion['series'];
  readonly typed: ReturnType<typeof useTypedNumbers>;
  readonly signals: readonly PathSignal[];
  readonly wanted: { readonly name: string; readonly lowHz: number; readonly highHz: number };
}): { readonly question?: FilterQuestion; readonly design?: FilterDesign; readonly fault?: string } {
  const [low, high, ripple, stop, pass, q, order] = ['low', 'high', 'ripple', 'stop', 'pass', 'q', 'order'].map(
    (name) => typed.value(name),
  );
  return useMemo(() => {
    if (low === undefined || ripple === undefined || stop === undefined || pass === undefined || q === undefined)
      return {};
    if (isBand(shape) && high === undefined) return {};
    const edgesHz = isBand(shape) ? [low, high ?? low] : [low];
    const middle = (wanted.lowHz + wanted.highHz) / 2;
    const question: FilterQuestion = {
      shape,
      family,
      rippleDb: ripple,
      edgesHz,
      lineOhm: LINE_OHM,
      first: shape === 'highpass' || shape === 'bandpass' ? 'series' : 'shunt',
      ...(order === undefined ? {} : { order: Math.round(order) }),
      stops: signals
        .filter(({ freqHz }) => !passes(shape, edgesHz, freqHz))
        .map(({ name, freqHz }) => ({ name, freqHz, leastDb: stop })),
      passes: passes(shape, edgesHz, middle) ? [{ name: wanted.name, freqHz: middle, mostDb: pass }] : [],
      coilQ: q,
      series,
    };
    try {
      return { question, design: designFilter(question) };
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      return { fault: error.message };
    }
  }, [low, high, ripple, stop, pass, q, order, shape, family, series, signals, wanted]);
}

const henryText = (henry: number): string =>
  henry < 1e-6 ? `${significant(henry * 1e9, 4)} nH` : `${significant(henry * 1e6, 4)} µH`;
const faradText = (farad: number): string =>
  farad < 1e-9 ? `${significant(farad * 1e12, 4)} pF` : `${significant(farad * 1e9, 4)} nF`;

function Designed({
  design,
  question,
  signals,
  wanted,
}: {
  readonly design: FilterDesign;
  readonly question: FilterQuestion;
  readonly signals: readonly PathSignal[];
  readonly wanted: { readonly name: string; readonly lowHz: number; readonly highHz: number };
}) {
  const { trySave } = useWrite();
  const { spec } = design;
  const coilOhm = coilResistance(question.coilQ, qFrequencyHz(spec));
  const names = namedParts(design.ideal);
  const lowHz = Math.min(spec.edgesHz[0], wanted.lowHz, ...signals.map(({ freqHz }) => freqHz)) / 2;
  const highHz = 2 * Math.max(...spec.edgesHz, wanted.highHz, ...signals.map(({ freqHz }) => freqHz));
  const provenance = {
    origin: 'model',
    formula:
      'chain matrix of the ladder between 50 Ω and 50 Ω, with capacitors of the series and coils of the stated Q',
    source: 'Matthaei, Young & Jones, Microwave Filters, ch. 4; IEC 60063',
  } as const;
  return (
    <div className="mt-3">
      <p role="status" className={design.met ? '' : 'text-caution'}>
        {question.family === 'chebyshev' ? 'Chebyshev' : 'Butterworth'}, order{' '}
        <Value strong shown={{ digits: String(spec.order), unit: '' }} provenance={provenance} />
        {design.met
          ? ': every goal is met with real parts.'
          : ': not every goal can be met. Move the edge, or ask for less.'}
      </p>
      {[
        ...design.stops.map((goal) => [goal, 'stopped by'] as const),
        ...design.passes.map((goal) => [goal, 'loses'] as const),
      ].length > 0 && (
        <ul className="list-disc pl-5" aria-label="Goals">
          {[...design.stops, ...design.passes].map((goal, i) => (
            <li key={`${goal.name} ${goal.freqHz}`} className={goal.met ? '' : 'text-caution'}>
              {goal.name}, {frequencyText(goal.freqHz)}: {i < design.stops.length ? 'stopped by' : 'loses'}{' '}
              <Value shown={inDb(goal.lossDb, 1)} provenance={provenance} /> (
              {i < design.stops.length ? 'wanted at least' : 'allowed'} {fixed(goal.wantedDb, 1)} dB; ideal parts{' '}
              {fixed(design.idealLossDb(goal.freqHz), 1)} dB)
            </li>
          ))}
        </ul>
      )}
      <Placement design={design} signals={signals} wanted={wanted} />
      <Schematic branches={design.ideal} />
      <Parts names={names} branches={design.ideal} design={design} />
      <Response design={design} lowHz={lowHz} highHz={highHz} />
      <Scatter question={question} />
      <Caution>
        Solder in moving air, eyes protected; a filter in the DC path of an amplifier must pass or bypass the DC.
      </Caution>
      <div className="flex flex-wrap gap-2">
        <Button
          onClick={() =>
            saveText(
              'filter.cir',
              spiceNetlist(design.real, LINE_OHM, { lowHz, highHz, pointsPerDecade: 200 }, coilOhm),
              'text/plain',
            )
          }
        >
          Netlist (.cir)
        </Button>
        <Button
          onClick={() =>
            saveText('filter.s2p', filterTouchstone(design.real, grid(lowHz, highHz), LINE_OHM, coilOhm), 'text/plain')
          }
        >
          Two-port file (.s2p)
        </Button>
        <Button
          onClick={() =>
            saveCsv(
              'filter-parts.csv',
              ['part', 'ideal', 'built_from'],
              partRows(names, design).map((row) => [row.name, row.ideal, `"${row.real}"`]),
            )
          }
        >
          Parts as CSV
        </Button>
        <Button
          onClick={() =>
            void trySave(
              [
                entry(
                  'path',
                  `Filter designed: ${question.shape}, order ${spec.order}, ${partRows(names, design)
                    .map((row) => `${row.name} ${row.ideal}`)
                    .join(', ')}.`,
                ),
              ],
              'Written into the notebook.',
            )
          }
        >
          Write it into the notebook
        </Button>
      </div>
    </div>
  );
}

const grid = (lowHz: number, highHz: number): readonly number[] =>
  Array.from({ length: POINTS }, (_, i) => lowHz * (highHz / lowHz) ** (i / (POINTS - 1)));

type Named = ReturnType<typeof namedParts>;

/** Each part with its ideal value and what it is built from. */
function partRows(names: Named, design: FilterDesign) {
  let next = 0;
  return names.flat().map(({ name, kind, value }) => {
    if (kind === 'coil') return { name, ideal: henryText(value), real: 'wind and trim by spacing' };
    const capacitor = design.capacitors[next];
    next += 1;
    return { name, ideal: faradText(value), real: capacitor.parts.map(faradText).join(' + ') };
  });
}

function Parts({
  names,
  design,
}: {
  readonly names: Named;
  readonly branches: readonly Branch[];
  readonly design: FilterDesign;
}) {
  return (
    <Wide label="Parts of the filter">
      <table className="max-w-2xl">
        <thead>
          <tr>
            <th scope="col">Part</th>
            <th scope="col">Ideal (model)</th>
            <th scope="col">Built from (catalogue)</th>
          </tr>
        </thead>
        <tbody>
          {partRows(names, design).map((row) => (
            <tr key={row.name}>
              <th scope="row" className="font-mono text-ink">
                {row.name}
              </th>
              <td className="font-mono">{row.ideal}</td>
              <td className="font-mono">{row.real}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Wide>
  );
}

function Response({
  design,
  lowHz,
  highHz,
}: {
  readonly design: FilterDesign;
  readonly lowHz: number;
  readonly highHz: number;
}) {
  const traces = useMemo(() => {
    const curve = (lossDb: (freqHz: number) => number) =>
      grid(lowHz, highHz).map((freqHz) => ({ x: Math.log10(freqHz / 1e6), y: Math.min(90, lossDb(freqHz)) }));
    return [
      { id: 'real', name: 'real parts', points: curve(design.realLossDb), look: 0 },
      { id: 'ideal', name: 'ideal parts', points: curve(design.idealLossDb), look: 1 },
    ];
  }, [design, lowHz, highHz]);
  const span: readonly [number, number] = [Math.log10(lowHz / 1e6), Math.log10(highHz / 1e6)];
  return (
    <>
      <TraceChart
        label="Loss of the filter over frequency, with real and ideal parts"
        traces={traces}
        bands={[]}
        markers={design.stops.slice(0, 4).map((goal, i) => ({ name: `T${i + 1}`, x: Math.log10(goal.freqHz / 1e6) }))}
        visible={span}
        drawn={span}
        range={[0, 90]}
        ticks={TICKS}
        logarithmic={false}
        height={200}
      />
      <p className="text-xs text-dim">
        loss in dB over log₁₀ of MHz (0: 1 MHz, 1: 10 MHz, 2: 100 MHz); solid: real parts, dashed: ideal; T:
        transmitters in the order above
      </p>
    </>
  );
}

/** Where to put it: what it does to products, ahead of an amplifier and behind it. */
function Placement({
  design,
  signals,
  wanted,
}: {
  readonly design: FilterDesign;
  readonly signals: readonly PathSignal[];
  readonly wanted: { readonly name: string; readonly lowHz: number; readonly highHz: number };
}) {
  const middle = (wanted.lowHz + wanted.highHz) / 2;
  const [source] = spurSources(middle, signals, (wanted.highHz - wanted.lowHz) / 2);
  if (!source) return null;
  const losses = source.carriers.map((name) =>
    design.idealLossDb(signals.find((one) => one.name === name)?.freqHz ?? middle),
  );
  // the first carrier counts twice in 2f1 − f2 and the like, and in harmonics alone
  const whole =
    source.order === 2
      ? losses.length === 1
        ? 2 * losses[0]
        : losses[0] + losses[1]
      : losses.length === 1
        ? 3 * losses[0]
        : losses.length === 2
          ? 2 * losses[0] + losses[1]
          : losses[0] + losses[1] + losses[2];
  const drop = whole - design.idealLossDb(middle);
  return (
    <p className="my-2 max-w-prose">
      Product of {source.carriers.join(' and ')} ({source.label}) on {wanted.name}:{' '}
      <strong>ahead of the amplifier</strong> the filter takes{' '}
      <Value
        strong
        shown={inDb(drop, 1)}
        provenance={{
          origin: 'model',
          formula: 'losses at the carriers by the order of the product, less the loss at the product',
          source: 'power-series intermodulation; ideal parts',
        }}
      />{' '}
      off it{drop > 60 ? ' (never visible again)' : ''}; <strong>behind it</strong> nothing against the wanted signal:
      useless there.
    </p>
  );
}

function Scatter({ question }: { readonly question: FilterQuestion }) {
  const typed = useTypedNumbers([
    { name: 'coil', label: 'Coils within ±, %', dimension: 'plain', start: '5' },
    { name: 'capacitor', label: 'Capacitors within ±, %', dimension: 'plain', start: '5' },
  ]);
  const [state, setState] = useState<{
    readonly busy: boolean;
    readonly found?: FilterYield;
    readonly ms?: number;
    readonly fault?: string;
  }>({ busy: false });
  const solver = useRef<ReturnType<typeof startSolver>>(undefined);
  useEffect(() => {
    solver.current = startSolver((reply) => {
      if (reply.reply === 'yield') setState({ busy: false, found: reply.found });
      else if (reply.reply === 'done') setState((old) => ({ ...old, ms: reply.ms }));
      else if (reply.reply === 'trouble') setState({ busy: false, fault: reply.message });
    });
    return () => solver.current?.end();
  }, []);
  const [coil, capacitor] = [typed.value('coil'), typed.value('capacitor')];
  return (
    <div className="my-3">
      <h3 className="font-semibold">Scatter of the parts</h3>
      <div className="flex flex-wrap items-end gap-3">
        <TypedFields of={typed} />
        <Button
          busy={state.busy}
          disabled={coil === undefined || capacitor === undefined}
          onClick={() => {
            if (coil === undefined || capacitor === undefined) return;
            setState({ busy: true });
            solver.current?.ask({ do: 'yield', question, tolerance: { coil: coil / 100, capacitor: capacitor / 100 } });
          }}
        >
          {state.busy ? 'Drawing 10,000 filters…' : 'Build 10,000 of them'}
        </Button>
      </div>
      {state.fault && (
        <p role="alert" className="mt-1 text-danger">
          {state.fault}
        </p>
      )}
      {state.found && (
        <p role="status" className="mt-1 max-w-prose">
          <Value
            strong
            shown={{ digits: fixed(100 * state.found.yieldShare, 1), unit: '%' }}
            provenance={{
              origin: 'model',
              formula: 'share of filters that meet every goal, parts uniform within their tolerance, seed 1',
              source: `Monte Carlo of ${state.found.samples} filters${state.ms === undefined ? '' : `, ${fixed(state.ms, 0)} ms`}`,
            }}
          />{' '}
          meet every goal
          {state.found.weakest
            ? `; the weakest is ${state.found.weakest.name}, missed by ${fixed(100 * state.found.weakest.missShare, 1)} %`
            : ''}
          . All parts high: {state.found.allHigh ? 'holds' : 'fails'}; all low: {state.found.allLow ? 'holds' : 'fails'}
          .
        </p>
      )}
    </div>
  );
}
