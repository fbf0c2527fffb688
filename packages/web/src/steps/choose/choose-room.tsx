import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { Ranking } from '../../data/ranking';
import type { StationData } from '@velvet-reed/station/record';
import { useStationId } from '../../data/station';
import { Button } from '../../ui/button';
import { Room } from '../../ui/room';
import { Next } from '../../ui/section';
import { Empty } from '../../ui/states';

/** A room of Choose needs something that is wanted. */
export function WithTargets({
  data,
  title,
  children,
}: {
  readonly data: StationData;
  readonly title: string;
  readonly children: () => ReactNode;
}) {
  const stationId = useStationId();
  if (data.targets.length > 0) return children();
  return (
    <Room
      title={title}
      verdict={
        <>
          Nothing is wanted yet, so no antenna can be better than another.{' '}
          <Next>
            <Link to={`/s/${stationId}/listen/wanted`}>Next: say what you want to hear.</Link>
          </Next>
        </>
      }
    >
      <Empty>The ranking appears here as soon as there is a target and a receiver.</Empty>
    </Room>
  );
}

/** How far the wire model is. */
export function Progress({
  ranking,
}: {
  readonly ranking: Pick<Ranking, 'answered' | 'asked' | 'complete' | 'stopped' | 'stop' | 'resume' | 'ms'>;
}) {
  const { answered, asked, complete, stopped, stop, resume, ms } = ranking;
  if (complete)
    return (
      <p className="mb-2 text-sm text-dim" role="status">
        {asked} computations by the wire model over this ground
        {ms === undefined || ms < 300 ? ', all known' : `, ${(ms / 1000).toFixed(1)} s`}.
      </p>
    );
  return (
    <div className="mb-2 flex flex-wrap items-center gap-3 text-sm">
      <progress max={asked} value={answered} aria-label="Wire model" className="h-2 w-48" />
      <span className="font-mono">
        {answered} of {asked}
      </span>
      {stopped ? (
        <>
          <span role="status">Stopped: antennas without an answer stand last.</span>
          <Button look="quiet" onClick={resume}>
            Go on
          </Button>
        </>
      ) : (
        <Button look="quiet" onClick={stop}>
          Stop
        </Button>
      )}
    </div>
  );
}
