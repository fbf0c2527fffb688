import { type ForecastTarget, hearingState } from './forecast';
import { type Candidate, mayStay } from './rank';

/** Targets that nothing that may be put up here hears well. */
export const poorlyHeard = (
  ranked: readonly Candidate[],
  targets: readonly ForecastTarget[],
): readonly ForecastTarget[] =>
  targets.filter((_, i) => !ranked.some((one) => mayStay(one) && hearingState(one.forecasts[i]) === 'served'));
