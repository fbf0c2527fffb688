import type { ForecastTarget } from '@velvet-reed/core/choose';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { targetChoices } from '@velvet-reed/station/derive';
import { useMoment } from '../../data/moment';
import type { StationData } from '@velvet-reed/station/record';

/** Targets that a ranking is for: everything wanted, until one is chosen. */
export function useAsked(data: StationData) {
  const { atMs } = useMoment();
  const [asked, setAsked] = useState<number | 'all'>('all');
  const wanted = useMemo(
    (): readonly ForecastTarget[] =>
      targetChoices(data, atMs).filter((target) => asked === 'all' || target.id === String(asked)),
    [data, atMs, asked],
  );
  return { asked, setAsked, wanted };
}

/** Everything that is wanted, at this hour. */
export function useEveryTarget(data: StationData): readonly ForecastTarget[] {
  const { atMs } = useMoment();
  return useMemo(() => targetChoices(data, atMs), [data, atMs]);
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
