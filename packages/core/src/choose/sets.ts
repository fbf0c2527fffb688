import { countedDb, type ForecastTarget } from './forecast';
import { type Candidate, isJudged, mayStay } from './rank';

/** Some antennas together, each for what it hears best. */
export interface AntennaSet {
  readonly antennas: readonly SetMember[];
  /** Weighted mean over the targets of what the best of them hears, dB. */
  readonly heardDb: number;
  /** Whether it hears enough more than the next smaller set. */
  readonly worthIt: boolean;
}
interface SetMember {
  readonly candidate: Candidate;
  /** Targets that it is the best of the set for. */
  readonly targets: readonly ForecastTarget[];
  /** What the set would lose without it, dB; of a single one, what it hears. */
  readonly addsDb: number;
}

/** Less than this a further antenna must not add, beyond its own burden, dB. Common practice, no source. */
const WORTH_A_SECOND_DB = 3;

/** The best one and two antennas for the targets, and three where the third adds enough: larger sets last. */
export function bestSets(ranked: readonly Candidate[], targets: readonly ForecastTarget[]): readonly AntennaSet[] {
  const may = ranked.filter((one) => mayStay(one) && isJudged(one));
  const weight = targets.reduce((sum, target) => sum + target.weight, 0);
  if (may.length === 0 || weight === 0) return [];
  const values = new Map(may.map((one) => [one, one.forecasts.map((forecast) => countedDb(forecast, 'quiet'))]));
  const valueOf = (one: Candidate, i: number): number => values.get(one)?.[i] ?? -Infinity;
  const heard = (set: readonly Candidate[]): number =>
    targets.reduce((sum, target, i) => sum + target.weight * Math.max(...set.map((one) => valueOf(one, i))), 0) /
    weight;
  const worth = (set: readonly Candidate[]): number => heard(set) - set.reduce((sum, one) => sum + one.burdenDb, 0);
  const sets: (readonly Candidate[])[] = [[may[0]]];
  // pairs are compared in full; a third joins the best pair
  const pairs = may.flatMap((one, i) => may.slice(i + 1).map((other) => [one, other]));
  const best = (list: readonly (readonly Candidate[])[]): readonly Candidate[] | undefined =>
    list.reduce<readonly Candidate[] | undefined>(
      (top, set) => (!top || worth(set) > worth(top) ? set : top),
      undefined,
    );
  const pair = best(pairs);
  if (pair) sets.push(pair);
  const triple = pair && best(may.filter((one) => !pair.includes(one)).map((one) => [...pair, one]));
  if (triple && heard(triple) >= heard(pair) + WORTH_A_SECOND_DB) sets.push(triple);
  return sets.map((set, i) => ({
    heardDb: heard(set),
    worthIt: i === 0 || heard(set) >= heard(sets[i - 1]) + WORTH_A_SECOND_DB,
    antennas: set.map((candidate) => {
      const others = set.filter((one) => one !== candidate);
      return {
        candidate,
        targets: targets.filter((_, i) => others.every((one) => valueOf(one, i) < valueOf(candidate, i))),
        addsDb: others.length === 0 ? heard(set) : heard(set) - heard(others),
      };
    }),
  }));
}
