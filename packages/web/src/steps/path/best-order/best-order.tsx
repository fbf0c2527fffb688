import { Announced } from '../../../ui/announced';
import {
  MOST_PARTS,
  type PathReceiver,
  type PathSignal,
  type PathStage,
  type SearchGoal,
  type ShelfPart,
} from '@velvet-reed/core/path';
import type { Change } from '@velvet-reed/contract';
import { fixed, inDb } from '@velvet-reed/core/units';
import { useState } from 'react';
import { entry } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { Section } from '../../../ui/section';
import { Value } from '../../../ui/value';
import { useJob } from '../../../workers/use-job';

/** The best set and order of the path's stages for every target within the receiver's reach. */
export function BestOrder({
  own,
  shelf,
  receiver,
  goals,
  signals,
  head,
  keep,
}: {
  /** What is in the path now. */
  readonly own: readonly ShelfPart[];
  /** Parts that the listener has, beside what is in the path. */
  readonly shelf: readonly { readonly stage: PathStage; readonly cost: number }[];
  readonly receiver: PathReceiver;
  readonly goals: readonly SearchGoal[];
  readonly signals: readonly PathSignal[];
  readonly head: PathStage | undefined;
  /** Makes an order of the path of the stages that it has, by their index. */
  readonly keep: (indices: readonly number[]) => readonly Change[];
}) {
  const { trySave } = useWrite();
  const { start, stop, answer: result, ...state } = useJob('order');
  const [withShelf, setWithShelf] = useState(true);
  const pool: readonly ShelfPart[] = [
    ...own,
    ...(withShelf
      ? // a part that is in the path already is not taken twice
        shelf
          .filter(({ stage }) => !own.some((one) => one.stage.kind === 'part' && one.stage.name === stage.name))
          .map(({ stage, cost }) => ({ stage, cost, needed: false }))
      : []),
  ];
  const [searched, setSearched] = useState<readonly ShelfPart[]>([]);
  const name = (index: number): string => searched[index]?.stage.name ?? '';
  return (
    <Section title="Best set and order" hint={`of these stages, for all targets; exact up to ${MOST_PARTS} parts`}>
      <p className="max-w-prose text-sm text-dim">
        Lines, splitters, switches, limiters and feeds must be used; every other stage may be left out. What decides is
        the target that loses most; strong carriers must overload nothing. The supply over the coax is not judged: look
        at DC along this path when you have moved the stages.
        {head ? ' The antenna’s own amplifier stays first: nothing can be put ahead of it.' : ''}
      </p>
      {shelf.length > 0 && (
        <label className="mt-1 flex min-h-11 items-center gap-2 sm:min-h-0">
          <input type="checkbox" checked={withShelf} onChange={(event) => setWithShelf(event.target.checked)} />
          also the {shelf.length === 1 ? 'part' : `${shelf.length} parts`} on the shelf
        </label>
      )}
      <div className="mt-2 flex gap-3">
        <Button
          look="main"
          busy={state.busy}
          disabled={pool.length > MOST_PARTS || goals.length === 0}
          onClick={() => {
            setSearched(pool);
            start({ shelf: pool, receiver, goals, signals, ...(head ? { head } : {}) });
          }}
        >
          {state.busy ? `Searching, ${state.step?.visited ?? 0} tried…` : 'Find the best order'}
        </Button>
        {state.busy && <Button onClick={stop}>Cancel</Button>}
      </div>
      {pool.length > MOST_PARTS && (
        <p className="mt-1 text-caution">More than {MOST_PARTS} parts: take some out for the search.</p>
      )}
      {state.fault && (
        <p role="alert" className="mt-1 text-danger">
          {state.fault}
        </p>
      )}
      {result && (
        <Announced className="mt-2">
          <p>{result.sentence}</p>
          {result.best && (
            <ul className="list-disc pl-5" aria-label="Best order by target">
              <li>Order: {result.best.order.map(name).join(', ') || 'nothing in between'}</li>
              {goals.map((goal, i) => (
                <li key={goal.name}>
                  {goal.name} loses{' '}
                  <Value
                    shown={inDb(result.best?.lossesDb[i] ?? 0, 2)}
                    provenance={{
                      origin: 'model',
                      formula: 'SNR lost to the chain, its strongest product counted as noise',
                      inputs: [
                        ['orders tried', String(result.visited)],
                        ['beginnings left by the bound', String(result.pruned)],
                        ['time', state.ms === undefined ? '' : `${fixed(state.ms, 0)} ms`],
                      ],
                      source: 'Friis 1944; power-series intermodulation; exhaustive search with bounds',
                    }}
                  />
                </li>
              ))}
            </ul>
          )}
          {result.best?.order.every((i) => searched[i] !== undefined && own.includes(searched[i])) && (
            <Button
              className="mt-1 mr-3"
              onClick={() =>
                void trySave(
                  keep(result.best?.order.map((i) => own.indexOf(searched[i])) ?? []),
                  'Kept: it stands beside your orders now.',
                )
              }
            >
              Keep it as an order of this path
            </Button>
          )}
          <Button
            className="mt-1"
            onClick={() =>
              void trySave([entry('path', `Best order: ${result.sentence}`)], 'Written into the notebook.')
            }
          >
            Write this into the notebook
          </Button>
        </Announced>
      )}
    </Section>
  );
}
