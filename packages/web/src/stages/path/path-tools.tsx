import type { Saved } from '@velvet-reed/contract';
import { partStage, type PathSignal, type SearchGoal, stageKind } from '@velvet-reed/core/path';
import { useMemo, useState } from 'react';
import { newOrder, type StageOrder } from '../../data/path-orders';
import { toPathReceiver, toPathStage } from '../../data/path-stages';
import { askPath, type AskedPath } from '../../data/path-question';
import type { StationData } from '../../data/station';
import { BestOrder } from './best-order';
import { Converters } from './converters';
import { DcFeed } from './dc-feed';
import { DialAndTone } from './dial-and-tone';
import { Splitters } from './splitters';
import { FilterDesigner } from './filter-designer';
import { Notches } from './notches';
import { Compatibility, SetupCards } from './receiver-tools';
import { Shelf } from './shelf';

interface PathToolsProps {
  readonly data: StationData;
  readonly path: Saved<'paths'>;
  readonly target: Saved<'targets'>;
  readonly receiver: Saved<'receivers'>;
  readonly asked: AskedPath;
  readonly stored: readonly Saved<'pathStages'>[];
  readonly orders: readonly StageOrder[];
}

/** What is planned beside the order of stages: filter, search, DC, splitters, converters, receiver set-up. Computed once it is asked for. */
export function PathTools(props: PathToolsProps) {
  const [opened, setOpened] = useState(false);
  return (
    <details onToggle={() => setOpened(true)}>
      <summary className="mb-3 text-plum">
        More tools: parts shelf, best order, design a filter, DC, splitters, converters, receiver set-up
      </summary>
      {opened && <Tools {...props} />}
    </details>
  );
}

function Tools({ data, path, target, receiver, asked, stored, orders }: PathToolsProps) {
  const signals: readonly PathSignal[] = asked.question.signals;
  const wanted = useMemo(
    () => ({ name: target.name, lowHz: target.lowHz, highHz: target.highHz }),
    [target.name, target.lowHz, target.highHz],
  );
  const goals = useMemo(
    () =>
      data.targets
        .filter((one) => one.lowHz >= receiver.minHz && one.highHz <= receiver.maxHz)
        .map((one): SearchGoal => {
          const { signals: _signals, ...question } = askPath(data, path, one).question;
          return { ...question, name: one.name };
        }),
    [data, path, receiver],
  );
  const wishes = useMemo(() => goals.map(({ name, lowHz, highHz }) => ({ name, lowHz, highHz })), [goals]);
  const stages = useMemo(() => stored.map((stage) => toPathStage(data, stage)), [stored, data]);
  const own = useMemo(
    () =>
      stored.map(({ kind }, i) => ({
        stage: stages[i],
        needed: stageKind(kind).stays === true,
        cost: stageKind(kind).stays ? 0 : 1,
      })),
    [stored, stages],
  );
  const place = useMemo(
    () => ({
      stages,
      receiver: toPathReceiver(receiver),
      question: asked.question,
      ...(asked.head ? { head: asked.head } : {}),
    }),
    [stages, receiver, asked],
  );
  const shelf = useMemo(
    () => data.parts.map((part) => ({ stage: partStage(part.name, part), cost: part.cost })),
    [data.parts],
  );
  return (
    <>
      <Shelf data={data} path={path} orders={orders} />
      <BestOrder
        keep={(indices) => [
          ...newOrder(
            path.id,
            1 + Math.max(0, ...orders.map(({ record }) => record.number)),
            indices.map((i) => stored[i].id),
          ),
        ]}
        own={own}
        shelf={shelf}
        receiver={toPathReceiver(receiver)}
        goals={goals}
        signals={signals}
        head={asked.head}
      />
      <FilterDesigner signals={signals} wanted={wanted} wishes={wishes} place={place} />
      <Notches wanted={wanted} />
      <DcFeed />
      <Splitters />
      <Converters />
      <SetupCards receivers={data.receivers} wanted={wanted} />
      <DialAndTone />
      <Compatibility />
    </>
  );
}
