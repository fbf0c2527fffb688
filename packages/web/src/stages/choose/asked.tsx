import type { ForecastTarget } from '@velvet-reed/core/choose';
import { useMemo, useState, type ReactNode } from 'react';
import { Link, useSearchParams } from 'react-router';
import { wishTargets } from '../../data/derive';
import { useFocus } from '../../data/focus';
import { useMoment } from '../../data/moment';
import { useStationId, type StationData } from '../../data/station';
import type { Ranking } from '../../data/ranking';
import { Button } from '../../ui/button';
import { Room } from '../../ui/room';
import { Next } from '../../ui/stage';
import { Empty } from '../../ui/states';

/** Targets that a ranking is for: the one that the focus band lies on, until another is chosen. */
export function useAsked(data: StationData) {
  const { band } = useFocus();
  const { atMs } = useMoment();
  const [chosen, setAsked] = useState<number | 'all'>();
  const middle = Math.sqrt(band.lowHz * band.highHz);
  const inFocus = data.targets.find((target) => middle >= target.lowHz && middle <= target.highHz);
  const asked = chosen ?? inFocus?.id ?? 'all';
  const wanted = useMemo(
    (): readonly ForecastTarget[] =>
      wishTargets(data, atMs).filter((target) => asked === 'all' || target.id === String(asked)),
    [data, atMs, asked],
  );
  return { asked, setAsked, wanted };
}

/** Everything that is wanted, at this hour. */
export function useEveryTarget(data: StationData): readonly ForecastTarget[] {
  const { atMs } = useMoment();
  return useMemo(() => wishTargets(data, atMs), [data, atMs]);
}

/** Antennas that are set side by side, by their ids; the address keeps them. */
export function useBeside() {
  const [params, setParams] = useSearchParams();
  const beside = (params.get('beside') ?? '').split(',').filter(Boolean);
  const set = (ids: readonly string[]): void =>
    setParams(
      (old) => {
        if (ids.length > 0) old.set('beside', ids.join(','));
        else old.delete('beside');
        return old;
      },
      { replace: true },
    );
  return {
    beside,
    toggle: (id: string) =>
      set(beside.includes(id) ? beside.filter((one) => one !== id) : [...beside, id].slice(-MOST_BESIDE)),
    clear: () => set([]),
  };
}
const MOST_BESIDE = 4;

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
        {ms === undefined ? '' : `, ${ms < 300 ? 'all known' : `${(ms / 1000).toFixed(1)} s`}`}.
      </p>
    );
  return (
    <div className="mb-2 flex flex-wrap items-center gap-3 text-sm" role="status">
      <progress max={asked} value={answered} aria-label="Wire model" className="h-2 w-48" />
      <span className="font-mono">
        {answered} of {asked}
      </span>
      {stopped ? (
        <>
          <span>Stopped: antennas without an answer stand last.</span>
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
