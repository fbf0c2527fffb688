export {
  analyseModel,
  type CurrentStretch,
  FLOOR_DBI,
  type ModelAnswer,
  type ModelQuestion,
  type PatternSurface,
  type SpotAnalysis,
} from './analyse-model';
export { elevationStepDeg, findPeak, gainRatio, lostShare, openCircuitVoltage, radiatedShare } from './far-field';
export { freshCells, groundKey, type KeptCells, takeCells } from './ground-table';
export { computeGround, type GroundNeed } from './ground-span';
export { GROUND_CLASSES, groundClass } from './ground-classes';
export { type Mesh, meshOf } from './mesh';
export { type Ground, type LumpedLoad, type Point, type Wire, type WireModel, wireLengthM } from './model';
export { finish, type ModelSweep, sweepModel } from './model-sweep';
export { nearFieldPerRootWatt } from './near-field';
export { findResonance } from './resonance';
export { settle } from './settle';
export { inputImpedance, maximumGain, type Solution, solveAt, transmission } from './solve';
export { SOLVER_VERSION } from './version';
