import { type ForecastTarget, hearingState } from './forecast';
import { type Candidate, isJudged, mayStay } from './rank';

/** Loss from which a target is not heard well, dB. */
const POOR_DB = 10;

/** Who leads over many targets. */
export interface Leaders {
  /** The one that is best on most targets, and on how many; absent where nothing that may stand here is judged. */
  readonly leader?: { readonly candidate: Candidate; readonly targets: number };
  /** Targets that nothing here hears well. */
  readonly poor: readonly ForecastTarget[];
}

/** Whether it may lead anywhere: it may be put up here, and was judged. */
const mayLead = (candidate: Candidate): boolean => mayStay(candidate) && isJudged(candidate);

/** Which candidate loses least on each target, of those that may be put up here; of equals the one that ranks higher. */
export function leadersOf(ranked: readonly Candidate[], targets: readonly ForecastTarget[]): Leaders {
  const may = ranked.filter(mayLead);
  // what drives the receiver over its full scale hears nothing there
  const lossOf = ({ forecasts }: Candidate, i: number): number =>
    hearingState(forecasts[i]) === 'overloads' ? Infinity : (forecasts[i].lostDb ?? Infinity);
  const bests = targets.map((target, i) => {
    const lossDb = Math.min(Infinity, ...may.map((one) => lossOf(one, i)));
    return { target, lossDb, best: may.find((one) => lossOf(one, i) === lossDb && lossDb < Infinity) };
  });
  const counts = new Map<Candidate, number>();
  for (const { best } of bests) if (best) counts.set(best, (counts.get(best) ?? 0) + 1);
  const [first] = [...counts].sort((a, b) => b[1] - a[1]);
  return {
    ...(first ? { leader: { candidate: first[0], targets: first[1] } } : {}),
    poor: bests.filter(({ lossDb }) => lossDb > POOR_DB).map(({ target }) => target),
  };
}

/** Of some candidates side by side the one that loses least, of those that may be put up here. */
export const leastLoss = (candidates: readonly Candidate[]): Candidate | undefined =>
  candidates
    .filter(mayLead)
    .reduce<Candidate | undefined>(
      (best, one) => (!best || (one.lossDb ?? Infinity) < (best.lossDb ?? Infinity) ? one : best),
      undefined,
    );
