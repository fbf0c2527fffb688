import { lazy, Suspense, useState } from 'react';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { Disclosure } from '../../../ui/disclosure';
import { ChangeButton, DeleteButton } from '../../../ui/record-row';
import { Section } from '../../../ui/section';
import { Waiting } from '../../../ui/states';
import { StationPage } from '../../../ui/station-page';
import { NewPath } from '../new-path';
import { pathFields } from '../path-fields';
import { PathRoom, type PathState } from '../path-room';
import { usePathTools } from '../use-path-tools';
import { Compare } from './compare';
import { DuplicatePath, SeveralPaths } from './several-paths';
import { StageForms } from './stage-forms';
import { Carriers, StageReports } from './stage-reports';

const ChainDrawing = lazy(() => import('./chain-drawing'));
const Orders = lazy(() => import('./orders'));

export default function ChainRoom() {
  return <StationPage>{(data) => <Chain data={data} />}</StationPage>;
}

function Chain({ data }: { readonly data: StationData }) {
  const [shown, setShown] = useState<number>();
  const [over, setOver] = useState(false);
  const viewOf = ({ orders, better }: PathState) => orders.find(({ order }) => order === shown) ?? better;
  return (
    <PathRoom
      data={data}
      title="Chain, Path"
      picker={(path) =>
        path.orders.length > 1 && (
          <>
            <label className="text-sm text-dim">
              Drawn
              <select
                className="ml-2 text-ink"
                value={viewOf(path).order}
                onChange={(event) => setShown(Number(event.target.value))}
              >
                {path.orders.map(({ order }) => (
                  <option key={order} value={order}>
                    order {order}
                  </option>
                ))}
              </select>
            </label>
            <label className="flex items-center gap-2 text-sm">
              <input type="checkbox" checked={over} onChange={(event) => setOver(event.target.checked)} />
              Lay another over it
            </label>
          </>
        )
      }
    >
      {(path) => (
        <ChainSheet
          path={path}
          view={viewOf(path)}
          {...(over ? { other: path.orders.find((one) => one !== viewOf(path)) } : {})}
        />
      )}
    </PathRoom>
  );
}

function ChainSheet({
  path: state,
  view,
  other,
}: {
  readonly path: PathState;
  readonly view: PathState['first'];
  readonly other?: PathState['first'] | undefined;
}) {
  const { trySave } = useWrite();
  const { data, path, receiver, target, asked, orders, verdict, kept, pick } = state;
  const { targets, carriers } = usePathTools(state);
  return (
    <>
      <Suspense fallback={<Waiting what="the chain" />}>
        <ChainDrawing
          view={view}
          other={other}
          receiverName={receiver.name}
          headName={asked.head?.name}
          targetName={target.name}
        />
      </Suspense>
      <Compare orders={orders} />
      <StageForms
        target={target}
        wanted={targets}
        carriers={carriers}
        runs={data.plotFeatures.filter((one) => one.kind === 'cable')}
        path={path}
        stages={data.pathStages.filter(({ pathId }) => pathId === path.id)}
        orders={kept}
      />
      <Suspense fallback={<Waiting what="the stages" />}>
        <Orders path={path} orders={orders} receiverName={receiver.name} headName={asked.head?.name} />
      </Suspense>
      {orders.map((one) => (
        <StageReports key={one.order} view={one} />
      ))}
      {orders.map((one) => (
        <Carriers key={one.order} view={one} receiverName={receiver.name} />
      ))}
      <SeveralPaths data={data} current={path.id} />
      <Section title="This path">
        <div className="flex flex-wrap items-end gap-3">
          <ChangeButton resource="paths" record={path} name={path.name} fields={pathFields(data)} />
          <DeleteButton resource="paths" record={path} name={path.name} />
          <DuplicatePath data={data} path={path} onMade={pick} />
          <Disclosure label="New path">{(close) => <NewPath data={data} onClose={close} onMade={pick} />}</Disclosure>
          <Button
            look="quiet"
            onClick={() =>
              void trySave(
                [entry('path', `${path.name}: ${verdict.sentence} ${verdict.next}`)],
                'Added to the notebook.',
              )
            }
          >
            Note this in the Notebook
          </Button>
        </div>
      </Section>
    </>
  );
}
