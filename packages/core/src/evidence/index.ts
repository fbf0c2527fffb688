export { BEARING_DEG, type Holding, holdsFor, PLACE_M, type Question } from './holds-for';
export {
  type AntennaState,
  antennaState,
  type LaidRun,
  type Evidence,
  isScope,
  type Origin,
  type PartState,
  type Quality,
  type Scope,
} from './scope';
