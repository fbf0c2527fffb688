import '../data/couplings-store';
import { useEffect, useMemo, useState } from 'react';
import type { StationData } from '@velvet-reed/station/record';
import type { standings } from '@velvet-reed/station/standings';
import type { StepId, StepStanding } from '@velvet-reed/station/steps';

type Judge = typeof standings;
let loaded: Judge | undefined;

/** Where each step stands; absent until the part that judges is there: the first view does not wait for it. */
export function useStandings(data: StationData | undefined): Readonly<Record<StepId, StepStanding>> | undefined {
  const [judge, setJudge] = useState<Judge | undefined>(() => loaded);
  useEffect(() => {
    let gone = false;
    import('@velvet-reed/station/standings').then(
      (module) => {
        loaded = module.standings;
        if (!gone) setJudge(() => module.standings);
      },
      () => undefined, // without it the marks are missing, and nothing else
    );
    return () => {
      gone = true;
    };
  }, []);
  return useMemo(() => data && judge?.(data), [data, judge]);
}
