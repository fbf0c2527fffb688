import { SCHEMAS, type Saved } from '@velvet-reed/contract';
import {
  analysePath,
  CAUTIONS,
  fixed,
  frequencyText,
  stageGainDb,
  type PathAnalysis,
  type PathStage,
} from '@velvet-reed/core';
import { lazy, Suspense, useMemo } from 'react';
import { Link, useSearchParams } from 'react-router';
import { orderedStages, toPathReceiver, toPathStage } from '../../data/derive';
import { askPath, type AskedPath } from '../../data/path-question';
import { entry, useStationId, useWrite, type StationData } from '../../data/station';
import { Button } from '../../ui/button';
import { Disclosure } from '../../ui/disclosure';
import { RecordForm } from '../../ui/record-form';
import { Next, Note, Section, Stage, Wide } from '../../ui/stage';
import { Empty, Waiting } from '../../ui/states';
import { StationPage } from '../../ui/station-page';
import { inDb, Value } from '../../ui/value';
import { PathTools } from './path-tools';
import { DuplicatePath, SeveralPaths } from './several-paths';
import { StageForms } from './stage-forms';

const Orders = lazy(() => import('./orders'));

export default function PathPage() {
  return <StationPage>{(data) => <PathChooser data={data} />}</StationPage>;
}

function PathChooser({ data }: { readonly data: StationData }) {
  const stationId = useStationId();
  const [params, setParams] = useSearchParams();
  const path = data.paths.find((one) => one.id === Number(params.get('path'))) ?? data.paths.at(-1);
  const receiver = data.receivers.find((one) => one.id === path?.receiverId);
  const target = data.targets.find((one) => one.id === path?.targetId);
  const chooser = (
    <div className="mb-5 flex flex-wrap items-end gap-4">
      {data.paths.length > 0 && (
        <label className="text-sm text-dim">
          Path
          <select
            className="ml-2 text-ink"
            value={path?.id}
            onChange={(event) => setParams({ path: event.target.value })}
          >
            {data.paths.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </select>
        </label>
      )}
      {path && <DuplicatePath data={data} path={path} onMade={(id) => setParams({ path: String(id) })} />}
      <Disclosure label="New path" look={data.paths.length === 0 ? 'main' : 'plain'}>
        {(close) => <NewPath data={data} onClose={close} onMade={(id) => setParams({ path: String(id) })} />}
      </Disclosure>
    </div>
  );
  if (!path || !receiver || !target)
    return (
      <Stage
        title="Path"
        verdict={
          <>
            Nothing stands between antenna and receiver yet.{' '}
            <Next>
              {data.receivers.length === 0 || data.targets.length === 0 ? (
                <Link to={`/s/${stationId}/listen`}>Next: enter a receiver and a wish in Listen.</Link>
              ) : (
                'Next: make a path.'
              )}
            </Next>
          </>
        }
      >
        {chooser}
      </Stage>
    );
  return <PathSheet key={path.id} data={data} path={path} receiver={receiver} target={target} chooser={chooser} />;
}

/** Both orders of a path, analysed. */
export interface OrderView {
  readonly order: 1 | 2;
  readonly stored: readonly Saved<'pathStages'>[];
  readonly stages: readonly PathStage[];
  readonly analysis: PathAnalysis;
}

function PathSheet({
  data,
  path,
  receiver,
  target,
  chooser,
}: {
  readonly data: StationData;
  readonly path: Saved<'paths'>;
  readonly receiver: Saved<'receivers'>;
  readonly target: Saved<'targets'>;
  readonly chooser: React.ReactNode;
}) {
  const { trySave } = useWrite();
  const asked = useMemo(() => askPath(data, path, target), [data, path, target]);
  const orders = useMemo(
    () =>
      ([1, 2] as const).map((order): OrderView => {
        const stored = orderedStages(data, path.id, order);
        const stages = [...(asked.head ? [asked.head] : []), ...stored.map((stage) => toPathStage(data, stage))];
        return { order, stored, stages, analysis: analysePath(stages, toPathReceiver(receiver), asked.question) };
      }),
    [data, path.id, asked, receiver],
  );
  const [first, second] = orders;
  const better = second.analysis.snrLossWithProductsDb < first.analysis.snrLossWithProductsDb - 0.005 ? second : first;
  const sentence = `On ${target.name} order ${better.order} (${better.stored.map((stage) => stage.name).join(', ') || 'nothing'}) loses ${fixed(better.analysis.snrLossWithProductsDb, 2)} dB of SNR.`;
  return (
    <Stage
      title="Path"
      verdict={<Verdict better={better} other={better === first ? second : first} target={target} />}
      margin={<Margin asked={asked} receiver={receiver} better={better} />}
    >
      {chooser}
      <Suspense fallback={<Waiting what="the stages" />}>
        <Orders orders={orders} receiverName={receiver.name} headName={asked.head?.name} />
      </Suspense>
      <StageForms runs={data.plotFeatures.filter((one) => one.kind === 'cable')} path={path} stages={first.stored} />
      <Compare orders={orders} />
      <SeveralPaths data={data} current={path.id} />
      {orders.map((view) => (
        <Walks key={view.order} view={view} receiverName={receiver.name} />
      ))}
      <FilterLosses data={data} stages={first.stored} asked={asked} />
      <PathTools data={data} path={path} target={target} receiver={receiver} asked={asked} stored={first.stored} />
      <Button look="quiet" onClick={() => void trySave([entry('path', `${path.name}: ${sentence}`)], 'Noted.')}>
        Note this in the Notebook
      </Button>
    </Stage>
  );
}

const figureProvenance = (formula: string, view: OrderView) =>
  ({
    origin: 'model',
    formula,
    inputs: view.stages.map((stage, i) => [`${i + 1}.`, stage.name] as const),
    source: 'Friis 1944; power-series intermodulation; stages as entered',
  }) as const;

const lossProvenance = (view: OrderView) =>
  figureProvenance(
    'outside noise against outside noise plus what the chain adds, the strongest in-band product counted as noise',
    view,
  );

function Verdict({
  better,
  other,
  target,
}: {
  readonly better: OrderView;
  readonly other: OrderView;
  readonly target: Saved<'targets'>;
}) {
  const { analysis } = better;
  const difference = other.analysis.snrLossWithProductsDb - analysis.snrLossWithProductsDb;
  return (
    <>
      {Math.abs(difference) < 0.05 ? 'Both orders serve' : `Order ${better.order} serves`} {target.name}{' '}
      {Math.abs(difference) < 0.05 ? 'alike' : 'better'}:{' '}
      <Value strong shown={inDb(analysis.snrLossWithProductsDb, 2)} provenance={lossProvenance(better)} /> of SNR lost
      {Math.abs(difference) >= 0.05 && <> against {fixed(other.analysis.snrLossWithProductsDb, 2)} dB</>}.{' '}
      <Next>
        {analysis.canClip
          ? 'Next: the converter can clip; add a pad or a filter.'
          : analysis.worstProduct && analysis.worstProduct.overNoiseDb > 0
            ? `Next: put a filter ahead of ${analysis.worstProduct.madeIn}.`
            : analysis.snrLossDb > 3
              ? 'Next: less loss or an amplifier ahead of the line.'
              : 'Next: nothing must change; check the Guard before transmitting.'}
      </Next>
    </>
  );
}

function Margin({
  asked,
  receiver,
  better,
}: {
  readonly asked: AskedPath;
  readonly receiver: Saved<'receivers'>;
  readonly better: OrderView;
}) {
  return (
    <>
      <Note title="Which limit binds">
        <p>
          {better.analysis.worstProduct && better.analysis.worstProduct.overNoiseDb > 0
            ? `Overload in ${better.analysis.worstProduct.madeIn}: filter first.`
            : 'Noise, not overload: as little loss as possible ahead of the first amplifier.'}
        </p>
        {better.analysis.converterNoiseFigureDb > receiver.noiseFigureDb && (
          <p className="mt-1 text-caution">
            The converter&apos;s own floor ({fixed(better.analysis.converterNoiseFigureDb, 0)} dB noise figure) is above
            the receiver&apos;s stated figure and is used instead.
          </p>
        )}
      </Note>
      <Note title="Carriers at the antenna">
        {asked.question.signals.length === 0 ? (
          <p>None registered: overload cannot be judged. Enter transmitters in Listen.</p>
        ) : (
          <ul>
            {asked.question.signals.map((signal) => (
              <li key={signal.name}>
                {signal.name}: <span className="font-mono">{fixed(signal.levelDbm, 0)} dBm</span>
              </li>
            ))}
          </ul>
        )}
        {asked.remarks.map((remark) => (
          <p key={remark} className="mt-1 text-sm text-caution">
            {remark}
          </p>
        ))}
      </Note>
      <Note title="Feeding an amplifier over the coax">
        <p>{CAUTIONS.coaxDc}</p>
      </Note>
    </>
  );
}

function Compare({ orders }: { readonly orders: readonly OrderView[] }) {
  const rows: readonly (readonly [string, string, (view: OrderView) => React.ReactNode])[] = [
    [
      'Gain',
      'sum of the stages at the middle of the wanted band',
      (view) => (
        <Value
          shown={inDb(view.analysis.gainDb)}
          provenance={figureProvenance('sum of gains at the middle of the band', view)}
        />
      ),
    ],
    [
      'Noise figure',
      '',
      (view) => (
        <Value
          shown={inDb(view.analysis.noiseFigureDb, 2)}
          provenance={figureProvenance('F = F1 + (F2 − 1)/G1 + …; passive stages at 290 K', view)}
        />
      ),
    ],
    [
      'Third-order input intercept',
      '',
      (view) =>
        view.analysis.iip3Dbm === null ? (
          'none'
        ) : (
          <Value
            shown={inDb(view.analysis.iip3Dbm, 1, 'dBm')}
            provenance={figureProvenance(
              '1/IIP3 = Σ G/IIP3, products in phase; for signals inside every pass band',
              view,
            )}
          />
        ),
    ],
    [
      'Second-order input intercept',
      '',
      (view) =>
        view.analysis.iip2Dbm === null ? (
          'none'
        ) : (
          <Value
            shown={inDb(view.analysis.iip2Dbm, 1, 'dBm')}
            provenance={figureProvenance('1/√IIP2 = Σ √(G/IIP2)', view)}
          />
        ),
    ],
    [
      'All carriers at the converter',
      '',
      (view) =>
        view.analysis.totalDbm === null ? (
          'no carriers'
        ) : (
          <Value
            shown={inDb(view.analysis.totalDbm, 0, 'dBm')}
            provenance={figureProvenance(
              'sum of powers after every stage and the receiver’s assumed input filter',
              view,
            )}
          />
        ),
    ],
    [
      'Room to full scale',
      '',
      (view) =>
        view.analysis.headroomDb === null ? (
          ''
        ) : (
          <Value
            shown={inDb(view.analysis.headroomDb, 0)}
            provenance={figureProvenance('full-scale sine − total power; keep 12 dB for fading', view)}
          />
        ),
    ],
    [
      'First stage overloaded',
      '',
      ({ analysis }) =>
        analysis.firstOverload ? (
          <span className="text-caution">
            {analysis.firstOverload.name}: {fixed(analysis.firstOverload.totalDbm, 0)} dBm in all,{' '}
            {fixed(-(analysis.firstOverload.roomDb ?? 0), 0)} dB too much
          </span>
        ) : (
          <span className="text-dim">none</span>
        ),
    ],
    [
      'SNR lost to noise',
      '',
      (view) => (
        <Value shown={inDb(view.analysis.snrLossDb, 2)} provenance={figureProvenance('(fa + F − 1)/fa', view)} />
      ),
    ],
    [
      'SNR lost, products counted',
      '',
      (view) => <Value strong shown={inDb(view.analysis.snrLossWithProductsDb, 2)} provenance={lossProvenance(view)} />,
    ],
    ['Strongest product in band', '', (view) => <Product analysis={view.analysis} />],
  ];
  return (
    <Section title="Side by side">
      <Wide label="Both orders compared">
        <table className="w-full max-w-4xl" data-testid="compare">
          <thead>
            <tr>
              <th scope="col">At the wanted band</th>
              <th scope="col">Order 1</th>
              <th scope="col">Order 2</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(([name, , cell]) => (
              <tr key={name}>
                <th scope="row" className="text-ink">
                  {name}
                </th>
                {orders.map((view) => (
                  <td key={view.order}>{cell(view)}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
    </Section>
  );
}

function Product({ analysis }: { readonly analysis: PathAnalysis }) {
  const product = analysis.worstProduct;
  if (!product) return <span className="text-dim">none falls here</span>;
  return (
    <span className={product.overNoiseDb > 0 ? 'text-caution' : ''}>
      {product.signals.join(' and ')}, {product.label}, made in {product.madeIn}:{' '}
      <span className="font-mono">{fixed(product.overNoiseDb, 0)} dB</span> over the noise
    </span>
  );
}

/** Level of every carrier at the input of each stage. */
function Walks({ view, receiverName }: { readonly view: OrderView; readonly receiverName: string }) {
  const { walks, strongest } = view.analysis;
  if (walks.length === 0) return null;
  return (
    <Section title={`Order ${view.order}: carriers at each input`} hint="dBm; the strongest at the receiver in bold">
      <Wide label={`Carriers in order ${view.order}`}>
        <table className="max-w-4xl font-mono text-sm">
          <thead>
            <tr className="font-sans">
              <th scope="col">Carrier</th>
              {[...view.stages.map((stage) => stage.name), receiverName].map((name, i) => (
                <th scope="col" key={`${i} ${name}`}>
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            <tr className="text-dim">
              <th scope="row" className="font-sans font-normal">
                all together, room to compression
              </th>
              {view.analysis.inputs.map((input, i) => (
                <td key={i} className={input.roomDb !== undefined && input.roomDb < 0 ? 'text-caution' : ''}>
                  {fixed(input.totalDbm, 0)}
                  {input.roomDb === undefined ? '' : `, ${fixed(input.roomDb, 0)} dB`}
                </td>
              ))}
            </tr>
            {walks.map((walk) => (
              <tr key={walk.signal.name} className={walk === strongest ? 'font-bold' : ''}>
                <th scope="row" className="font-sans whitespace-nowrap text-ink">
                  {walk.signal.name}{' '}
                  <span className="font-mono font-normal text-dim">{frequencyText(walk.signal.freqHz)}</span>
                </th>
                {walk.levelsDbm.map((level, i) => (
                  <td key={i}>{fixed(level, 0)}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
    </Section>
  );
}

/** What each filter takes from each carrier, from its type and order. */
function FilterLosses({
  data,
  stages,
  asked,
}: {
  readonly data: StationData;
  readonly stages: readonly Saved<'pathStages'>[];
  readonly asked: AskedPath;
}) {
  const filters = stages.filter((stage) => stage.kind === 'filter');
  if (filters.length === 0 || asked.question.signals.length === 0) return null;
  const centreHz = (asked.question.lowHz + asked.question.highHz) / 2;
  return (
    <Section title="What the filters take" hint="from type, order and ripple; ideal parts, at most 80 dB">
      <ul>
        {filters.map((stage) => (
          <li key={stage.id}>
            <strong>{stage.name}</strong>:{' '}
            {[{ name: 'wanted band', freqHz: centreHz }, ...asked.question.signals]
              .map((signal) => `${signal.name} ${fixed(-stageGainDb(toPathStage(data, stage), signal.freqHz), 1)} dB`)
              .join(', ')}
          </li>
        ))}
      </ul>
    </Section>
  );
}

function NewPath({
  data,
  onClose,
  onMade,
}: {
  readonly data: StationData;
  readonly onClose: () => void;
  readonly onMade: (id: number) => void;
}) {
  const { save } = useWrite();
  if (data.receivers.length === 0 || data.targets.length === 0)
    return <Empty>A path needs a receiver and a wish. Enter both in Listen.</Empty>;
  const options = (rows: readonly { id: number; name: string }[]) =>
    rows.map((row) => ({ value: String(row.id), label: row.name }));
  return (
    <RecordForm
      fields={[
        { name: 'name', label: 'Name', kind: 'text' },
        {
          name: 'antennaId',
          label: 'Antenna',
          kind: 'choice',
          numeric: true,
          options: [{ value: '', label: 'isotropic, none drafted' }, ...options(data.antennas)],
        },
        { name: 'targetId', label: 'Judged on', kind: 'choice', numeric: true, options: options(data.targets) },
        { name: 'receiverId', label: 'Receiver', kind: 'choice', numeric: true, options: options(data.receivers) },
      ]}
      schema={SCHEMAS.paths}
      start={{
        name: '',
        antennaId: String(data.antennas.at(-1)?.id ?? ''),
        targetId: String(data.targets[0].id),
        receiverId: String(data.receivers[0].id),
      }}
      submit="Make the path"
      onCancel={onClose}
      onSave={async (values) => {
        const [id] = await save(
          [{ op: 'create', resource: 'paths', values }, entry('path', `Path made: ${String(values.name)}.`)],
          'Path made.',
        );
        onMade(id);
        onClose();
      }}
    />
  );
}
