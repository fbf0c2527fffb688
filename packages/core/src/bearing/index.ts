export {
  type BearingFix,
  type BearingLine,
  bearingFix,
  cancellation,
  ELLIPSE_95,
  combining,
  figureEightNull,
  insideRegion95,
  region95,
} from './fix';
export { crossingOf, nullSector, nullSteering, type PairArrival, pairArrival } from './pair';
export { averageTurns, checkedGain, substitutionGain, twoRay } from './range';
export { type LevelScale, type MeasuredPattern, measuredPattern, scaleDoubtful, scanPlan } from './measured-pattern';
export type { Estimate } from './pattern-fit';
export { farField, patternFigures, reflectionByMove, reflectionRipple, threeAntennas } from './pattern';
export { type DiversityGain, diversityGain } from './diversity';
export { judgedFix, nextPlace } from './judged-fix';
export { axialDeg, type AxisReading, fitNull, type NullFit, senseOf, silentMiddle } from './null-log';
export { type Explanation, OVERLAY_FLOOR_DB, overlayModel, USED_DB } from './overlay';
export { type CableLimit, levelOf, nullTargets, type Turned, type TurnTarget, turnTargets } from './turn-plan';
