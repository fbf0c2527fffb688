export {
  GOOD_SWR,
  askedBands,
  type BandRow,
  bandTable,
  decimate,
  findResonances,
  indexBelow,
  markerAt,
  type Resonance,
  summariseSweep,
  type SweepPoint,
  unphysicalPoints,
} from './analyse';
export { type AsBuilt, type AsBuiltFit, type AsBuiltQuestion, type AsBuiltValue, fitAsBuilt } from './as-built';
export { averageSweeps } from './average';
export { benchVerdict, coilVerdict, type BenchVerdict, CUT_WORDS, dipOf, sealingVerdict } from './bench-verdict';
export {
  correctReading,
  IDEAL_STANDARDS,
  interpolationError,
  solveErrorTerms,
  standardReflections,
  type Standards,
  timeDomainReach,
} from './calibration';
export { type Cause, type FaultFinding, findFault } from './compare';
export { checkClaims, disguisedSwr } from './consistency';
export {
  type Calibration,
  calibrationDoubts,
  checkStandard,
  correctSweep,
  STANDARD_NAMES,
  type StandardName,
} from './correct';
export { type DistancePlot, distanceFromRippleM, distanceToFault, velocityFromRipple } from './distance';
export { type AutoMarker, autoMarkers, dipShiftHz, shiftText } from './markers';
export { noisePeak, noiseRiseDb, type NoisePeak } from './noise-peak';
export { planSweep, POINTS_PER_BAND, type SweepPlan } from './plan';
export { type FeedLine, takeLineOff } from './reference-plane';
export {
  gettingWorse,
  learnFromTrim,
  lengthForTarget,
  type LengthReading,
  type NextCut,
  nextCut,
  planTrims,
  type TrimPlan,
  trimSensitivity,
} from './trim';
