import { useEffect, useMemo, useState } from 'react';
import type { StationData } from '../data/station';
import type { standings } from './standings';
import type { StepId, StepStanding } from './steps';

type Judge = typeof standings;
let loaded: Judge | undefined;

/** Where each step stands; absent until the part that judges is there: the first view does not wait for it. */
export function useStandings(data: StationData | undefined): Readonly<Record<StepId, StepStanding>> | undefined {
  const [judge, setJudge] = useState<Judge | undefined>(() => loaded);
  useEffect(() => {
    let gone = false;
    import('./standings').then(
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
