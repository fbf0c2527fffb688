export { effectiveNumber, fadingSpacing, lagOne, readingMeans } from './series';
export { sameSlotsTest, signTest } from './same-slots';
export { type BlockRatio, binomialLimits, blockRatio, readCounts, censoredDifference, snrBandwidth } from './counts';
export { pairedDifferences, type PairedResult, pairsForPower, readingsForHalfWidth, signedRank } from './paired';
export { HEARD_DB, SURVEY_SIGNALS, surveyRows, surveySummary } from './survey';
export {
  compareSlots,
  type DecodeReport,
  decodeReport,
  planModes,
  type SlotComparison,
  type WeakMode,
} from './decodes';
export { type ConditionRule, type Factor, findRule, type RuleFinding, type Stratum } from './conditions';
export { dwellReading } from './dwell';
export { trialPlan } from './plan';
export { anytimeInterval, type MeanInterval, pairsWhenWatched, plannedInterval } from './sequence';
export {
  firstOfRound,
  pairCounts,
  snrDifference,
  type TrialMeasure,
  type TrialPair,
  type TrialResult,
  type TrialVerdict,
  trialVerdict,
} from './verdict';
export {
  type Dated,
  dipCauses,
  lastSeasons,
  sameWeeks,
  seasonName,
  type SeasonShift,
  seasonShift,
  type SeasonCause,
  widthCauses,
} from './season';
