import { Announced } from '../../../ui/announced';
import { MOST_TRANSFER_POINTS } from '@velvet-reed/contract';
import {
  builtTransfer,
  coilResistance,
  type FilterDesign,
  filterFinding,
  type FilterGoals,
  type FilterQuestion,
  filterTouchstone,
  LEAKAGE_DB,
  namedParts,
  qFrequencyHz,
  spiceNetlist,
} from '@velvet-reed/core/filter';
import { thinTransfer } from '@velvet-reed/core/formats';
import { type PathSignal, productDropDb, spurSources } from '@velvet-reed/core/path';
import { fixed, frequencyText, inDb } from '@velvet-reed/core/units';
import { useMemo } from 'react';
import { entry } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { saveCsv, saveText } from '../../../ui/export';
import { Caution } from '../../../ui/section';
import { Curves } from '../../../ui/curves';
import { Value } from '../../../ui/value';
import { FilterParts } from './filter-parts';
import { FilterScatter } from './filter-scatter';
import { InThisPath, type FilterPlace } from './in-this-path';
import { partRows } from './part-rows';
import { Schematic } from './schematic';
import { LINE_OHM } from '@velvet-reed/core/line';

const TICKS = [0, 20, 40, 60, 80, 100, 120];
/** Carriers farther than this times the highest edge are not drawn. */
const FARTHEST = 30;
/** Points of a response curve. */
const POINTS = 300;

/** Losses are told up to this, dB: beyond it nothing that a listener has can tell two filters apart. */
const MOST_SHOWN_DB = 120;
const lossText = (lossDb: number) =>
  lossDb > MOST_SHOWN_DB ? { digits: `over ${MOST_SHOWN_DB}`, unit: 'dB' } : inDb(lossDb, 1);

const FAMILY = { chebyshev: 'Chebyshev', butterworth: 'Butterworth', elliptic: 'Elliptic' } as const;

/** Frequencies that a response is drawn over: its edges, the wanted band, the carriers near them. */
function drawnSpan(
  { spec }: FilterDesign,
  signals: readonly PathSignal[],
  wanted: { readonly lowHz: number; readonly highHz: number },
) {
  const near = signals.map(({ freqHz }) => freqHz).filter((freqHz) => freqHz < FARTHEST * Math.max(...spec.edgesHz));
  return {
    lowHz: Math.min(spec.edgesHz[0], wanted.lowHz, ...near) / 2,
    highHz: 2 * Math.max(...spec.edgesHz, wanted.highHz, ...near),
  };
}

/** The response of a design, drawn. */
export function FilterResponse({
  design,
  signals,
  wanted,
}: {
  readonly design: FilterDesign;
  readonly signals: readonly PathSignal[];
  readonly wanted: { readonly lowHz: number; readonly highHz: number };
}) {
  return <Response design={design} {...drawnSpan(design, signals, wanted)} />;
}

/** A filter designed: goals, place, schematic, parts, scatter, files. */
export function DesignedFilter({
  design,
  question,
  goals,
  signals,
  wanted,
  place,
}: {
  readonly design: FilterDesign;
  readonly question: FilterQuestion;
  readonly goals: FilterGoals;
  readonly signals: readonly PathSignal[];
  readonly wanted: { readonly name: string; readonly lowHz: number; readonly highHz: number };
  readonly place: FilterPlace | undefined;
}) {
  const { trySave } = useWrite();
  const { spec } = design;
  const coilOhm = coilResistance(question.coilQ, qFrequencyHz(spec));
  const finding = filterFinding(design, goals);
  const names = namedParts(design.ideal);
  const { lowHz, highHz } = drawnSpan(design, signals, wanted);
  const provenance = {
    origin: 'model',
    formula:
      'chain matrix of the ladder between 50 Ω and 50 Ω, with capacitors of the series and coils of the stated Q',
    source: 'Matthaei, Young & Jones, Microwave Filters, ch. 4; IEC 60063',
  } as const;
  return (
    <div className="mt-3">
      <Announced
        className={finding.state === 'holds' ? '' : finding.state === 'spoils' ? 'text-danger' : 'text-caution'}
      >
        {FAMILY[question.family]}, order{' '}
        <Value strong shown={{ digits: String(spec.order), unit: '' }} provenance={provenance} />: {wanted.name} loses{' '}
        <Value strong shown={lossText(finding.wanted.lossDb)} provenance={provenance} />
        {finding.state === 'spoils'
          ? ', which is more than you allow. Choose another shape or move the edge.'
          : '.'}{' '}
        {finding.carriers === 0
          ? 'No transmitter is entered that it could stop.'
          : `${finding.stopped} of ${finding.carriers} transmitters ${finding.stopped === 1 ? 'is' : 'are'} stopped as asked.`}
        {finding.state === 'missed' && ' Not every goal is met: see below.'}
      </Announced>
      {design.stops.length + design.passes.length + goals.left.length + goals.lost.length > 0 && (
        <ul className="list-disc pl-5" aria-label="Goals">
          {goals.left.map(({ name, freqHz }) => (
            <li key={`left ${name} ${freqHz}`} className="text-caution">
              {name}, {frequencyText(freqHz)}: passes with{' '}
              <Value shown={lossText(design.realLossDb(freqHz))} provenance={provenance} />: this shape does not stop it
            </li>
          ))}
          {goals.lost.map(({ name, freqHz }) => (
            <li key={`lost ${name} ${freqHz}`} className="text-caution">
              {name}, {frequencyText(freqHz)}: stopped by{' '}
              <Value shown={lossText(design.realLossDb(freqHz))} provenance={provenance} />, though you want to hear it
            </li>
          ))}
          {[...design.stops, ...design.passes].map((goal, i) => (
            <li key={`${goal.name} ${goal.freqHz}`} className={goal.met ? '' : 'text-caution'}>
              {goal.name}, {frequencyText(goal.freqHz)}: {i < design.stops.length ? 'stopped by' : 'loses'}{' '}
              <Value shown={lossText(goal.lossDb)} provenance={provenance} /> (
              {i < design.stops.length ? 'wanted at least' : 'allowed'} {fixed(goal.wantedDb, 1)} dB; ideal parts{' '}
              {lossText(design.idealLossDb(goal.freqHz)).digits} dB)
            </li>
          ))}
        </ul>
      )}
      {design.stops.some(({ lossDb }) => lossDb > LEAKAGE_DB) && (
        <p className="text-sm text-dim">
          Losses over {LEAKAGE_DB} dB need a screen between the parts and between input and output: without them leakage
          leaves some {LEAKAGE_DB} dB, and a path counts no more.
        </p>
      )}
      <Placement design={design} signals={signals} wanted={wanted} />
      {place && <InThisPath design={design} place={place} />}
      <Schematic branches={design.ideal} />
      <FilterParts names={names} design={design} />
      <FilterScatter question={question} />
      <Caution of={['solder', 'coaxDc']} />
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
              partRows(names, design).map((row) => [row.name, row.ideal, row.real]),
            )
          }
        >
          Parts as CSV
        </Button>
        <Button
          onClick={() =>
            void trySave(
              [
                {
                  op: 'create',
                  resource: 'parts',
                  values: {
                    name: `${FAMILY[question.family]} ${question.shape} ${spec.edgesHz.map((edge) => frequencyText(edge, 3)).join(' to ')}`,
                    transfer: thinTransfer(builtTransfer(design, grid(lowHz, highHz)), MOST_TRANSFER_POINTS),
                    noiseFigureDb: null,
                    iip2Dbm: null,
                    iip3Dbm: null,
                    p1Dbm: null,
                    supplyV: null,
                    currentA: null,
                    connectorIn: 'SMA-f',
                    connectorOut: 'SMA-f',
                    cost: 1,
                  },
                },
              ],
              'On the shelf: put it into the path there, and see what it does to the whole.',
            )
          }
        >
          Put it on the shelf
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
      grid(lowHz, highHz).map((freqHz) => ({
        x: Math.log10(freqHz / 1e6),
        y: Math.min(MOST_SHOWN_DB, lossDb(freqHz)),
      }));
    return [
      { id: 'real', name: 'real parts', points: curve(design.realLossDb), look: 0 },
      { id: 'ideal', name: 'ideal parts', points: curve(design.idealLossDb), look: 1 },
    ];
  }, [design, lowHz, highHz]);
  const span: readonly [number, number] = [Math.log10(lowHz / 1e6), Math.log10(highHz / 1e6)];
  const below = useMemo(
    () => ({
      ticks: MEGAHERTZ.map(Math.log10).filter(
        (tick) => tick >= Math.log10(lowHz / 1e6) && tick <= Math.log10(highHz / 1e6),
      ),
      text: (value: number): string => String(Number((10 ** value).toPrecision(2))),
    }),
    [lowHz, highHz],
  );
  return (
    <Curves
      evidence
      name="filter-response"
      x={{ head: 'frequency (MHz)', of: (x) => 10 ** x, decimals: 4 }}
      y={{ head: 'loss (dB)', decimals: 2 }}
      caption="loss in dB over MHz; solid: real parts, dashed: ideal; T: transmitters in the order above"
      label="Loss of the filter over frequency, with real and ideal parts"
      traces={traces}
      bands={[]}
      markers={design.stops.slice(0, 4).map((goal, i) => ({ name: `T${i + 1}`, x: Math.log10(goal.freqHz / 1e6) }))}
      visible={span}
      drawn={span}
      range={[0, MOST_SHOWN_DB]}
      ticks={TICKS}
      logarithmic={false}
      below={below}
      height={200}
    />
  );
}

/** Ticks of a response, MHz. */
const MEGAHERTZ = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000];

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
  const drop = productDropDb(
    source,
    (name) => design.idealLossDb(signals.find((one) => one.name === name)?.freqHz ?? middle),
    design.idealLossDb(middle),
  );
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
