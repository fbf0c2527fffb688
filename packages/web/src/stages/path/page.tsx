import type { Saved } from '@velvet-reed/contract';
import { CAUTIONS } from '@velvet-reed/core/antenna';
import { ASSUMED_NOISE_FIGURE_DB, type PathVerdict } from '@velvet-reed/core/path';
import { fixed } from '@velvet-reed/core/units';
import { lazy, Suspense, useMemo } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { AskedPath } from '../../data/path-question';
import { entry, useStationId, useWrite, type StationData } from '../../data/station';
import { Button } from '../../ui/button';
import { Disclosure } from '../../ui/disclosure';
import { Next, Note, Stage } from '../../ui/stage';
import { Waiting } from '../../ui/states';
import { StationPage } from '../../ui/station-page';
import { AlongPath } from './along-path';
import { Compare } from './compare';
import { EveryWish } from './every-wish';
import { NewPath } from './new-path';
import { judgedPath, type JudgedPath, type OrderView } from '../../data/verdicts';
import { pathFields } from './path-fields';
import { PathTools } from './path-tools';
import { ChangeButton, DeleteButton } from '../../ui/record-row';
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
  const judged = useMemo(() => path && judgedPath(data, path), [data, path]);
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
      {path && (
        <>
          <ChangeButton resource="paths" record={path} name={path.name} fields={pathFields(data)} />
          <DeleteButton resource="paths" record={path} name={path.name} />
        </>
      )}
      {path && <DuplicatePath data={data} path={path} onMade={(id) => setParams({ path: String(id) })} />}
      <Disclosure label="New path" look={data.paths.length === 0 ? 'main' : 'plain'}>
        {(close) => <NewPath data={data} onClose={close} onMade={(id) => setParams({ path: String(id) })} />}
      </Disclosure>
    </div>
  );
  if (!judged)
    return (
      <Stage
        title="Path"
        verdict={
          <>
            Nothing stands between antenna and receiver yet.{' '}
            <Next>
              {data.receivers.length === 0 || data.targets.length === 0 ? (
                <Link to={`/s/${stationId}/listen`}>Next: enter a receiver and a target in Listen.</Link>
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
  return <PathSheet key={judged.path.id} data={data} judged={judged} chooser={chooser} />;
}

function PathSheet({
  data,
  judged,
  chooser,
}: {
  readonly data: StationData;
  readonly judged: JudgedPath;
  readonly chooser: React.ReactNode;
}) {
  const { path } = judged;
  const { trySave } = useWrite();
  const { receiver, target, asked, orders, verdict } = judged;
  const [first] = orders;
  const kept = orders.flatMap((view) => (view.kept ? [view.kept] : []));
  const better = orders.find(({ order }) => order === verdict.better.order) ?? first;
  return (
    <Stage
      title="Path"
      verdict={<Verdict verdict={verdict} />}
      margin={<Margin asked={asked} receiver={receiver} better={better} verdict={verdict} />}
    >
      {chooser}
      <Suspense fallback={<Waiting what="the stages" />}>
        <Orders path={path} orders={orders} receiverName={receiver.name} headName={asked.head?.name} />
      </Suspense>
      <StageForms
        target={target}
        runs={data.plotFeatures.filter((one) => one.kind === 'cable')}
        path={path}
        stages={data.pathStages.filter(({ pathId }) => pathId === path.id)}
        orders={kept}
      />
      <Compare orders={orders} />
      <EveryWish data={data} path={path} receiver={receiver} orders={orders} />
      {orders.map((view) => (
        <StageReports key={view.order} view={view} />
      ))}
      <AlongPath data={data} path={path} receiver={receiver} orders={orders} />
      {orders.map((view) => (
        <Carriers key={view.order} view={view} receiverName={receiver.name} />
      ))}
      <SeveralPaths data={data} current={path.id} />
      <FilterLosses view={first} />
      <PathTools
        data={data}
        path={path}
        target={target}
        receiver={receiver}
        asked={asked}
        stored={first.stored}
        orders={kept}
      />
      <Button
        look="quiet"
        onClick={() =>
          void trySave([entry('path', `${path.name}: ${verdict.sentence} ${verdict.next}`)], 'Added to the notebook.')
        }
      >
        Note this in the Notebook
      </Button>
    </Stage>
  );
}

function Verdict({ verdict }: { readonly verdict: PathVerdict }) {
  const bad = verdict.better.state !== 'fine' && verdict.better.state !== 'noise';
  return (
    <>
      <span className={bad ? 'text-caution' : ''}>{verdict.sentence}</span>{' '}
      <Next>
        Next: {verdict.next.charAt(0).toLowerCase()}
        {verdict.next.slice(1)}
      </Next>
    </>
  );
}

function Margin({
  asked,
  receiver,
  better,
  verdict,
}: {
  readonly asked: AskedPath;
  readonly receiver: Saved<'receivers'>;
  readonly better: OrderView;
  readonly verdict: PathVerdict;
}) {
  return (
    <>
      <Note title="Which limit binds">
        <p>{verdict.limit}</p>
        {better.analysis.assumedNoise.length > 0 && (
          <p className="mt-1 text-caution">
            No noise figure is entered for {better.analysis.assumedNoise.join(', ')}: {ASSUMED_NOISE_FIGURE_DB} dB is
            assumed. Enter it on the shelf.
          </p>
        )}
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
