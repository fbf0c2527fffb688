import type { Saved } from '@velvet-reed/contract';
import { analysePath, CAUTIONS, dcPath, fixed } from '@velvet-reed/core';
import { lazy, Suspense, useMemo } from 'react';
import { Link, useSearchParams } from 'react-router';
import { orderedStages, toDcStage, toPathReceiver, toPathStage } from '../../data/path-stages';
import { askPath, type AskedPath } from '../../data/path-question';
import { entry, useStationId, useWrite, type StationData } from '../../data/station';
import { Button } from '../../ui/button';
import { Disclosure } from '../../ui/disclosure';
import { Next, Note, Stage } from '../../ui/stage';
import { Waiting } from '../../ui/states';
import { StationPage } from '../../ui/station-page';
import { inDb, Value } from '../../ui/value';
import { AlongPath } from './along-path';
import { Compare } from './compare';
import { NewPath } from './new-path';
import { lossProvenance, type OrderView } from './order-view';
import { PathTools } from './path-tools';
import { DuplicatePath, SeveralPaths } from './several-paths';
import { StageForms } from './stage-forms';
import { Carriers, FilterLosses, StageReports } from './stage-reports';

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
      verdict={
        <Verdict
          better={better}
          other={better === first ? second : first}
          target={target}
          dcFault={
            dcPath(better.stored.map((stage) => toDcStage(data, stage))).loads.flatMap(({ errors }) => errors)[0]
          }
        />
      }
      margin={<Margin asked={asked} receiver={receiver} better={better} />}
    >
      {chooser}
      <Suspense fallback={<Waiting what="the stages" />}>
        <Orders orders={orders} receiverName={receiver.name} headName={asked.head?.name} />
      </Suspense>
      <StageForms runs={data.plotFeatures.filter((one) => one.kind === 'cable')} path={path} stages={first.stored} />
      <Compare orders={orders} />
      {orders.map((view) => (
        <StageReports key={view.order} view={view} />
      ))}
      <AlongPath data={data} path={path} receiver={receiver} orders={orders} />
      {orders.map((view) => (
        <Carriers key={view.order} view={view} receiverName={receiver.name} />
      ))}
      <SeveralPaths data={data} current={path.id} />
      <FilterLosses data={data} stages={first.stored} asked={asked} />
      <PathTools data={data} path={path} target={target} receiver={receiver} asked={asked} stored={first.stored} />
      <Button look="quiet" onClick={() => void trySave([entry('path', `${path.name}: ${sentence}`)], 'Noted.')}>
        Note this in the Notebook
      </Button>
    </Stage>
  );
}

function Verdict({
  better,
  other,
  target,
  dcFault,
}: {
  readonly better: OrderView;
  readonly other: OrderView;
  readonly target: Saved<'targets'>;
  /** Why something that is fed over the coax does not get its supply. */
  readonly dcFault: string | undefined;
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
        {analysis.outOfReach
          ? `Next: ${analysis.outOfReach}`
          : dcFault
            ? `Next: ${dcFault}`
            : analysis.canClip
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
