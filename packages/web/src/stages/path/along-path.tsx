import {
  CoreError,
  dcPath,
  fixed,
  frequencyPlan,
  frequencyText,
  joinRow,
  readAdapters,
  showFrequency,
  type DcPath,
  type PlugRow,
} from '@velvet-reed/core';
import { useState } from 'react';
import { pluggedRow, toDcStage } from '../../data/path-stages';
import { showTrouble, useWrite, type StationData } from '../../data/station';
import { Button } from '../../ui/button';
import { Caution, Section } from '../../ui/stage';
import { Value } from '../../ui/value';
import type { OrderView, PathView } from './order-view';

/** What goes along the path beside the signal: DC, plugs, and where a converter puts the band. */
export function AlongPath({ data, path, receiver, orders }: PathView) {
  return (
    <>
      <Frequencies orders={orders} receiverName={receiver.name} />
      <Dc data={data} orders={orders} />
      <Plugs data={data} path={path} receiver={receiver} orders={orders} />
    </>
  );
}

/** Orders that find the same, told together. */
function together<T>(orders: readonly OrderView[], find: (view: OrderView) => T) {
  const [first, second] = orders.map((view) => ({ title: `Order ${view.order}`, found: find(view) }));
  return JSON.stringify(first.found) === JSON.stringify(second.found)
    ? [{ title: 'In both orders', found: first.found }]
    : [first, second];
}

function Frequencies({
  orders,
  receiverName,
}: {
  readonly orders: readonly OrderView[];
  readonly receiverName: string;
}) {
  const [{ stages, analysis }] = orders;
  const plan = frequencyPlan(stages, analysis.reports[0].freqHz);
  if (plan.length === 0) return null;
  const mixing = {
    origin: 'model',
    formula: '|signal − oscillator|, or their sum',
    source: 'mixing; an oscillator above the signal mirrors the spectrum',
  } as const;
  return (
    <Section title="Frequency plan" hint="where the converter puts the wanted band">
      <ul className="list-disc pl-5">
        {plan.map((one) => (
          <li key={one.name}>
            {one.name}: {frequencyText(one.inHz, 5)} lands at{' '}
            <Value strong shown={showFrequency(one.outHz, 5)} provenance={mixing} />
            {one.mirrored ? ', mirrored' : ''}.{' '}
            {one.imageHz === undefined ? '' : `Its image is ${frequencyText(one.imageHz, 5)}.`}
          </li>
        ))}
      </ul>
      <p className={analysis.outOfReach ? 'text-caution' : ''}>
        {analysis.outOfReach ?? `Tune ${receiverName} to ${frequencyText(analysis.landsAtHz, 5)}.`}
      </p>
    </Section>
  );
}

const OHM = {
  origin: 'model',
  formula: 'U − Σ I · (loop ohm per metre) · length; a line carries the current of all that is fed beyond it',
  source: 'Ohm; loop resistance is centre and shield together',
} as const;

function Dc({ data, orders }: { readonly data: StationData; readonly orders: readonly OrderView[] }) {
  const views = together(orders, ({ stored }) => dcPath(stored.map((stage) => toDcStage(data, stage))));
  if (views.every(({ found }) => found.loads.length + found.errors.length + found.warnings.length === 0)) return null;
  return (
    <Section
      title="DC along this path"
      hint="read off its stages: what is fed over the coax, and what stands in the way"
    >
      <Caution>
        Disconnect before you change plugs. Check polarity and short circuits with a meter before an amplifier is
        connected.
      </Caution>
      <div role="status">
        {views.map(({ title, found }) => (
          <DcOrder key={title} title={title} found={found} />
        ))}
      </div>
    </Section>
  );
}

function DcOrder({ title, found }: { readonly title: string; readonly found: DcPath }) {
  return (
    <div className="mt-1 max-w-prose">
      <h3 className="font-semibold">{title}</h3>
      {found.loads.map((load) => (
        <div key={load.name}>
          {load.volts === undefined ? null : (
            <p>
              {load.name} gets <Value strong shown={{ digits: fixed(load.volts, 2), unit: 'V' }} provenance={OHM} />{' '}
              from {load.feed}, and works down to {fixed(load.leastV, 1)} V.{' '}
              {load.errors.length + load.warnings.length === 0 ? 'Fine.' : ''}
            </p>
          )}
          <Sentences errors={load.errors} warnings={load.warnings} />
        </div>
      ))}
      <Sentences errors={found.errors} warnings={found.warnings} />
    </div>
  );
}

const Sentences = ({ errors, warnings }: Pick<DcPath, 'errors' | 'warnings'>) => (
  <>
    {errors.map((one) => (
      <p key={one} className="text-danger">
        {one}
      </p>
    ))}
    {warnings.map((one) => (
      <p key={one} className="text-caution">
        {one}
      </p>
    ))}
  </>
);

function Plugs({ data, path, receiver, orders }: PathView) {
  const { trySave, saveStation } = useWrite();
  const [antenna, setAntenna] = useState(path.antennaConnector);
  const [end, setEnd] = useState(path.receiverConnector);
  const [box, setBox] = useState(data.station.adapterBox);
  const now = { ...path, antennaConnector: antenna, receiverConnector: end };
  const found = joined(orders, box, (view) => pluggedRow(data, now, view.stored, receiver.name));
  const changed =
    antenna !== path.antennaConnector || end !== path.receiverConnector || box !== data.station.adapterBox;
  return (
    <Section title="Plugs and adapters" hint="the plugs of the stages are entered with them, or with the part">
      <div className="flex flex-wrap items-end gap-4">
        <label className="text-sm text-dim">
          Plug of the antenna
          <input
            className="mt-1 block w-28 font-mono text-ink"
            value={antenna}
            placeholder="N-f"
            onChange={(event) => setAntenna(event.target.value)}
          />
        </label>
        <label className="text-sm text-dim">
          Plug of the receiver
          <input
            className="mt-1 block w-28 font-mono text-ink"
            value={end}
            placeholder="SMA-f"
            onChange={(event) => setEnd(event.target.value)}
          />
        </label>
        <label className="text-sm text-dim">
          Adapters in the box, one a line
          <textarea
            className="mt-1 block w-56 font-mono text-ink"
            rows={2}
            value={box}
            placeholder="SMA-m to N-f"
            onChange={(event) => setBox(event.target.value)}
          />
        </label>
        <Button
          disabled={!changed || 'fault' in found}
          onClick={() =>
            void (async () => {
              const { id, version } = path;
              const values = { antennaConnector: antenna.trim(), receiverConnector: end.trim() };
              const ids = await trySave([{ op: 'update', resource: 'paths', id, version, values }], 'Plugs kept.');
              if (ids && box !== data.station.adapterBox)
                await saveStation(data.station.version, { adapterBox: box }).catch(showTrouble);
            })()
          }
        >
          Keep plugs and box
        </Button>
      </div>
      {'fault' in found ? (
        <p role="alert" className="mt-1 text-danger">
          {found.fault}
        </p>
      ) : (
        <div role="status" className="mt-2 max-w-prose">
          {found.views.map((view) => (
            <Row key={view.title} title={view.title} row={view.found} />
          ))}
        </div>
      )}
    </Section>
  );
}

function joined(orders: readonly OrderView[], box: string, rowOf: (view: OrderView) => ReturnType<typeof pluggedRow>) {
  try {
    const adapters = readAdapters(box);
    return { views: together(orders, (view) => joinRow(rowOf(view), adapters)) };
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    return { fault: error.message };
  }
}

function Row({ title, row }: { readonly title: string; readonly row: PlugRow }) {
  const known = row.joints.filter((joint) => joint.known);
  const through = known.filter((joint) => joint.adapters.length > 0);
  const unknown = row.joints.length - known.length;
  return (
    <div className="mt-1">
      <h3 className="font-semibold">{title}</h3>
      {known.length > 0 && row.missing.length === 0 && (
        <p>{through.length === 0 ? 'Every known plug mates by itself.' : 'Every known plug goes together.'}</p>
      )}
      {through.map((joint) => (
        <p key={joint.from + joint.to}>
          {joint.from} to {joint.to}: fewest adapters {joint.adapters.join(', then ')}.
        </p>
      ))}
      {row.missing.length > 0 && (
        <p className="text-caution">Missing, for the shopping list: {row.missing.join('; ')}.</p>
      )}
      {unknown > 0 && (
        <p className="text-sm text-dim">
          {unknown} of {row.joints.length} joints not judged: a plug is not entered.
        </p>
      )}
    </div>
  );
}
