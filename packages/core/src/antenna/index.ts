export { atPlace } from './at-place';
export { dish, optimumHorn, pointingLossDb, rectangularGuide } from './aperture';
export { parametersInUse } from './dimensions';
export { fitOf, knownDimensions, measuredGate, receptionOf, tryDraft } from './attempt';
export { type BuildStep, stepStates, withEntry, withPermission } from './build-plan';
export { CLOSED_PATTERNS, type PowerPattern, receivingDirectivityDb } from './directivity';
export { dipoleImpedance, dipoleResonanceHz, resonantDipole } from './induced-emf';
export {
  CHOKES,
  SIGHT_WORDS,
  SPOT_KINDS,
  type SpotKind,
  type Sight,
  type Design,
  type Draft,
  type DraftFigure,
  type KindId,
  type Parameter,
  type PlaceRoom,
} from './kind';
export { ANTENNA_KINDS, antennaKind, checkDesign, startDesign, wireModel } from './kinds';
export { onFrequency } from './on-frequency';
export { fieldProbe, headAmplifierIm2, probeNoiseField, shortMonopole, smallLoop } from './probes';
export { type DesignGoals, optimiseDesign, type TrimProgress, trimToResonance } from './trim-model';
export { AFTER_STORM_DAYS, CALIBRATION_DAYS, dutiesFor, dutyState } from './upkeep';
export { usefulRange } from './useful-range';
export { trimmedWires, wireSensitivities } from './wire-sensitivity';
export { type PlacedAntenna, placedWires } from './placed-wires';
export {
  AZIMUTH_STEP_DEG,
  type Choke,
  type FeedLineAnswer,
  type FeedLineFigures,
  type FeedLineQuestion,
  feedLineStudy,
  feedPoint,
  hangAndRun,
} from './feed-line';
