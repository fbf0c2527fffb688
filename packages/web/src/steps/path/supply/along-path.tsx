import { Announced } from '../../../ui/announced';
import { SCHEMAS, stationSchema } from '@velvet-reed/contract';
import { type DcPath, frequencyPlan, joinRow, type PlugRow, readAdapters } from '@velvet-reed/core/path';
import { fixed, frequencyText, showFrequency } from '@velvet-reed/core/units';
import { pluggedRow } from '@velvet-reed/station/path/stages';
import { useWrite } from '../../../data/station';
import { RecordForm, type FieldSpec } from '../../../ui/record-form';
import { Caution, Section } from '../../../ui/section';
import { Value } from '../../../ui/value';
import type { OrderView } from '@velvet-reed/station/verdicts';
import type { PathView } from '../order-view';

/** What goes along the path beside the signal: DC, plugs, and where a converter puts the band. */
export function AlongPath({ data, path, receiver, orders }: PathView) {
  return (
    <>
      <Frequencies orders={orders} receiverName={receiver.name} />
      <Dc orders={orders} />
      <Plugs data={data} path={path} receiver={receiver} orders={orders} />
    </>
  );
}

/** Orders that find the same, told together. */
function together<T>(orders: readonly OrderView[], find: (view: OrderView) => T) {
  const all = orders.map((view) => ({ title: `Order ${view.order}`, found: find(view) }));
  const [first] = all;
  if (all.length < 2 || all.some(({ found }) => JSON.stringify(found) !== JSON.stringify(first.found))) return all;
  return [{ title: all.length === 2 ? 'In both orders' : 'In every order', found: first.found }];
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
        {analysis.outOfReach
          ? `${receiverName} does not tune to ${frequencyText(analysis.landsAtHz)}. ${analysis.outOfReach}`
          : `Tune ${receiverName} to ${frequencyText(analysis.landsAtHz, 5)}.`}
      </p>
    </Section>
  );
}

const OHM = {
  origin: 'model',
  formula: 'U − Σ I · (loop ohm per metre) · length; a line carries the current of all that is fed beyond it',
  source: 'Ohm; loop resistance is centre and shield together',
} as const;

function Dc({ orders }: { readonly orders: readonly OrderView[] }) {
  const views = together(orders, ({ dc }) => dc);
  if (views.every(({ found }) => found.loads.length + found.errors.length + found.warnings.length === 0)) return null;
  return (
    <Section
      title="DC along this path"
      hint="read off its stages: what is fed over the coax, and what stands in the way"
    >
      <Caution of="coaxDc" />
      <Announced>
        {views.map(({ title, found }) => (
          <DcOrder key={title} title={title} found={found} />
        ))}
      </Announced>
    </Section>
  );
}

function DcOrder({ title, found }: { readonly title: string; readonly found: DcPath }) {
  return (
    <div className="mt-1 max-w-prose">
      <h3 className="font-semibold">{title}</h3>
      {found.loads.map((load) => (
        <div key={load.name}>
          {load.volts === undefined || load.errors.length > 0 ? null : (
            <p>
              {load.name} gets <Value strong shown={{ digits: fixed(load.volts, 2), unit: 'V' }} provenance={OHM} />{' '}
              from {load.feed}, and works down to {fixed(load.leastV, 1)} V.{' '}
              {load.errors.length + load.warnings.length === 0 ? 'Fine.' : ''}
            </p>
          )}
          {load.switched && load.errors.length === 0 && (
            <p className={load.switched.doubt ? 'text-caution' : ''}>
              {load.name}: {load.switched.sentence}
            </p>
          )}
          {/* what it would be left with says nothing while something stands in the way */}
          <Sentences errors={load.errors} warnings={load.errors.length > 0 ? [] : load.warnings} />
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

const PLUG_HINT = 'family and gender, like N-f, or empty';
const ENDS: readonly FieldSpec[] = [
  { name: 'antennaConnector', label: 'Plug of the antenna', kind: 'text', hint: PLUG_HINT },
  { name: 'receiverConnector', label: 'Plug of the receiver', kind: 'text', hint: PLUG_HINT },
];
const BOX: readonly FieldSpec[] = [
  { name: 'adapterBox', label: 'Adapters in the box', kind: 'long', hint: 'one a line, like SMA-m to N-f' },
];

function Plugs({ data: { station, parts }, path, receiver, orders }: PathView) {
  const { save, saveStation } = useWrite();
  const box = readAdapters(station.adapterBox);
  const views = together(orders, ({ stored }) =>
    joinRow(pluggedRow({ station, parts }, path, stored, receiver.name), box),
  );
  return (
    <Section title="Plugs and adapters" hint="the plugs of the stages are entered with them, or with the part">
      <Announced className="max-w-prose">
        {views.map((view) => (
          <Row key={view.title} title={view.title} row={view.found} />
        ))}
      </Announced>
      <RecordForm
        fields={ENDS}
        schema={SCHEMAS.paths}
        fixed={SCHEMAS.paths.cast({ ...path }, { stripUnknown: true })}
        start={{ antennaConnector: path.antennaConnector, receiverConnector: path.receiverConnector }}
        submit="Keep the plugs"
        version={path.version}
        onSave={({ antennaConnector, receiverConnector }, version) => {
          const { id } = path;
          const values = { antennaConnector, receiverConnector };
          return save([{ op: 'update', resource: 'paths', id, version, values }], 'Plugs kept.');
        }}
      />
      <RecordForm
        fields={BOX}
        schema={stationSchema}
        fixed={stationSchema.cast({ ...station }, { stripUnknown: true })}
        start={{ adapterBox: station.adapterBox }}
        submit="Keep the box"
        version={station.version}
        onSave={({ adapterBox }, version) => saveStation(version, { adapterBox })}
      />
    </Section>
  );
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
