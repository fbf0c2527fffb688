import { saidPath } from '@velvet-reed/station/path/said';
import { SaidVerdict } from '../../ui/said';
import type { Saved } from '@velvet-reed/contract';
import { ASSUMED_NOISE_FIGURE_DB, type PathVerdict } from '@velvet-reed/core/path';
import { fixed } from '@velvet-reed/core/units';
import { useMemo, type ReactNode } from 'react';
import { useSearchParams } from 'react-router';
import type { StageOrder } from '@velvet-reed/station/path/orders';
import type { AskedPath } from '@velvet-reed/station/path/question';
import type { StationData } from '@velvet-reed/station/record';
import { judgedPath, type JudgedPath, type OrderView, unjudgedPath } from '@velvet-reed/station/verdicts';
import { Disclosure } from '../../ui/disclosure';
import { Room } from '../../ui/room';
import { Note } from '../../ui/section';
import { ChangeButton, DeleteButton } from '../../ui/record-row';
import { pathFields } from './path-fields';
import { NewPath } from './new-path';

/** A path judged, with what its rooms ask of it. */
export interface PathState extends JudgedPath {
  readonly data: StationData;
  readonly first: OrderView;
  readonly better: OrderView;
  /** Its orders as they are kept. */
  readonly kept: readonly StageOrder[];
  readonly pick: (id: number) => void;
}

/** A room of Path: the path in the address, judged, and what the room shows of it. */
export function PathRoom({
  data,
  title,
  verdict,
  picker,
  children,
}: {
  readonly data: StationData;
  readonly title: string;
  /** A sentence of the room's own; without it the path's. */
  readonly verdict?: (path: PathState) => ReactNode;
  readonly picker?: (path: PathState) => ReactNode;
  readonly children: (path: PathState) => ReactNode;
}) {
  const [params, setParams] = useSearchParams();
  const path = data.paths.find((one) => one.id === Number(params.get('path'))) ?? data.paths.at(-1);
  const judged = useMemo(() => path && judgedPath(data, path), [data, path]);
  const pick = (id: number): void => setParams({ path: String(id) });
  const unjudged = path && !judged ? unjudgedPath(data, path) : undefined;
  const picked = path && (
    <label className="text-sm text-dim">
      Path
      <select className="ml-2 text-ink" value={path.id} onChange={(event) => pick(Number(event.target.value))}>
        {data.paths.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </select>
    </label>
  );
  if (path && unjudged)
    return (
      <Room title={title} picker={picked} verdict={<SaidVerdict said={saidPath(data, path)} />}>
        {!unjudged.waiting && (
          <div className="flex flex-wrap gap-3">
            <ChangeButton resource="paths" record={path} name={path.name} fields={pathFields(data)} />
            <DeleteButton resource="paths" record={path} name={path.name} />
            <Disclosure label="New path">{(close) => <NewPath data={data} onClose={close} onMade={pick} />}</Disclosure>
          </div>
        )}
      </Room>
    );
  if (!judged)
    return (
      <Room title={title} verdict={<SaidVerdict said={saidPath(data, undefined)} />}>
        <Disclosure label="New path" look="main">
          {(close) => <NewPath data={data} onClose={close} onMade={pick} />}
        </Disclosure>
      </Room>
    );
  const [first] = judged.orders;
  const state: PathState = {
    ...judged,
    ...{ data, first, pick },
    better: judged.orders.find(({ order }) => order === judged.verdict.better.order) ?? first,
    kept: judged.orders.flatMap((view) => (view.kept ? [view.kept] : [])),
  };
  return (
    <Room
      key={judged.path.id}
      title={title}
      verdict={verdict?.(state) ?? <SaidVerdict said={saidPath(data, judged.path)} />}
      margin={<Margin {...state} />}
      picker={
        <>
          {picked}
          {picker?.(state)}
        </>
      }
    >
      {children(state)}
    </Room>
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
        {!verdict.overloadJudged && (
          <p>No transmitter of others is entered: overload cannot be judged. Enter them in Listen.</p>
        )}
        <ul>
          {asked.question.signals.map((signal) => (
            <li key={signal.name}>
              {signal.name}: <span className="font-mono">{fixed(signal.levelDbm, 0)} dBm</span>
              {signal.assumed ? ' (assumed)' : ''}
            </li>
          ))}
        </ul>
        {asked.remarks.map((remark) => (
          <p key={remark} className="mt-1 text-sm text-caution">
            {remark}
          </p>
        ))}
      </Note>
    </>
  );
}
