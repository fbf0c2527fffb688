import type { Saved } from '@velvet-reed/contract';
import type { ReactNode } from 'react';
import { Link, useSearchParams } from 'react-router';
import { latestRevision } from '@velvet-reed/station/derive';
import type { StationData } from '@velvet-reed/station/record';
import { useStationId } from '../../data/station';
import { AntennaPicker } from '../../ui/antenna-picker';
import { Room } from '../../ui/room';
import { Next } from '../../ui/section';
import { Empty } from '../../ui/states';
import { DraftNotes } from './draft-notes';
import { NewAntenna } from './new-antenna';
import { useDraft, type DraftState } from './use-draft';
import { Verdict } from './verdict';

/** A room of Draft: the antenna in the address, its verdict, and what the room shows of it. */
export function DraftRoom({
  data,
  title,
  verdict,
  around,
  children,
}: {
  readonly data: StationData;
  readonly title: string;
  /** A sentence of the room's own; without it the draft's. */
  readonly verdict?: (draft: DraftState) => ReactNode;
  /** Holds what sentence and content share. */
  readonly around?: (draft: DraftState, room: ReactNode) => ReactNode;
  readonly children: (draft: DraftState) => ReactNode;
}) {
  const stationId = useStationId();
  const [params, setParams] = useSearchParams();
  const newest = data.antennas.at(-1);
  const antenna = data.antennas.find((one) => one.id === Number(params.get('antenna'))) ?? newest;
  const revision = antenna && latestRevision(data, antenna.id);
  if (!antenna || !revision)
    return (
      <Room
        title={title}
        verdict={
          <>
            There is no antenna to draft yet.{' '}
            <Next>
              <Link to={`/s/${stationId}/choose/ranking`}>Next: choose one,</Link> or begin one of any kind below.
            </Next>
          </>
        }
      >
        <NewAntenna
          antennas={data.antennas}
          onMade={(id) => setParams({ antenna: String(id) })}
          onClose={() => undefined}
        />
        <Empty>Dimensions, model, cut list and build plan appear here once there is an antenna.</Empty>
      </Room>
    );
  return (
    <Sheet
      key={`${antenna.id} ${revision.number}`}
      {...{ data, title, antenna, revision, children }}
      {...(verdict ? { verdict } : {})}
      {...(around ? { around } : {})}
      onPick={(id) => setParams({ antenna: String(id) })}
    />
  );
}

function Sheet({
  data,
  title,
  antenna,
  revision,
  verdict,
  around,
  onPick,
  children,
}: {
  readonly data: StationData;
  readonly title: string;
  readonly antenna: Saved<'antennas'>;
  readonly revision: Saved<'revisions'>;
  readonly verdict?: (draft: DraftState) => ReactNode;
  readonly around?: (draft: DraftState, room: ReactNode) => ReactNode;
  readonly onPick: (id: number) => void;
  readonly children: (draft: DraftState) => ReactNode;
}) {
  const state = useDraft(data, antenna, revision);
  const { design, draft, fault, editing } = state;
  const room = (
    <Room
      title={title}
      verdict={
        verdict?.(state) ??
        (draft ? (
          <Verdict
            design={design}
            draft={draft}
            state={state.state}
            data={data}
            revision={revision}
            antennaId={antenna.id}
          />
        ) : (
          <>{fault}</>
        ))
      }
      picker={
        <>
          <AntennaPicker data={data} value={antenna.id} onPick={onPick} />
          <p className="text-sm text-dim">
            revision {revision.number}
            {editing.changed && ', unsaved changes'}
          </p>
        </>
      }
      margin={draft && <DraftNotes design={design} draft={draft} data={data} />}
    >
      {children(state)}
    </Room>
  );
  return around ? around(state, room) : room;
}
