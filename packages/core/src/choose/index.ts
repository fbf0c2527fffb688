export { type GainPoint, gainsText, readGains } from './bought';
export {
  type CandidateSpec,
  hearingQuestions,
  kindCandidates,
  type ReadyCandidate,
  readyCandidate,
  sizeWords,
} from './candidate';
export { bandTargets, type Coverage, coverageGaps, coverageOf } from './coverage';
export { filterAdvice, type ForecastPlace, type ForecastTarget, hearingState, type TargetForecast } from './forecast';
export { type Hearing, hearingKey, type HearingQuestion, solveHearing, type Unheard } from './hearing';
export {
  type Candidate,
  type CandidateGroup,
  candidateKindName,
  inGroups,
  inView,
  isJudged,
  mayStay,
  rankCandidates,
  type RankRules,
  type RankView,
  schoolsSentence,
  spoiltCount,
  usable,
} from './rank';
export { leadersOf, leastLoss } from './leaders';
export { type TurningPoint, turningPoints, turningSteps } from './turning';
export { candidateName, choiceVerdict, firstPiece } from './verdict';
export { pricePerProvenDb, type Worth } from './worth';
