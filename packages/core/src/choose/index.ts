export { type GainPoint, gainsText, readGains } from './bought';
export {
  type CandidateSpec,
  type Heard,
  hearingQuestions,
  kindCandidates,
  type ReadyCandidate,
  noiseAskOf,
  readyCandidate,
  sizeWords,
} from './candidate';
export { bandTargets, type Coverage, coverageGaps, coverageOf } from './coverage';
export {
  COUNTS_FROM_DB,
  COUNTS_TO_DB,
  filterAdvice,
  type ForecastPlace,
  type ForecastTarget,
  hearingState,
  signalOf,
  type TargetForecast,
} from './forecast';
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
export { poorlyHeard } from './poorly-heard';
export { type AntennaSet, bestSets } from './sets';
export { EVENING } from './evening';
export { mendsFor } from './mends';
export { type NoiseAsk, type SpotNoise, spotNoise, withFloor } from './house-noise';
export { burdenOf, type PriceRates, USUAL_RATES } from './cost';
export { HOMES, type Spot, SPOT_WORDS, spotRoom } from './spot';
export { type TurningPoint, turningPoints, turningSteps } from './turning';
export { candidateName, choiceVerdict, firstPiece, heardText } from './verdict';
export { ownTransmission, type OwnTransmission } from './own-transmitter';
export { type PathEnd, pathEnd } from './path-end';
export { pricePerProvenDb, type Worth } from './worth';
