export {
  builtTransfer,
  designFilter,
  type FilterDesign,
  type FilterQuestion,
  filterYield,
  type FilterYield,
} from './design';
export { ellipticLowpass } from './elliptic';
export { filterFinding, filterGoals, type FilterGoals, filterStart, type GoalBand } from './goals';
export {
  bandpassLossRuleDb,
  type Branch,
  coilResistance,
  ladder,
  ladderLossDb,
  type LadderSpec,
  prototype,
  qFrequencyHz,
} from './ladder';
export { namedParts, spiceNetlist } from './netlist';
export { coaxStub, notchTrap, type Stub } from './notch';
export { type FilterFamily, type FilterShape, LEAKAGE_DB, prototypeLossDb } from './response';
export { filterTouchstone } from './scattering';
export { edgesForBand, filterName, namedByShape } from './start';
export { lossSpread, type Tolerance } from './spread';
