export { type AntennaCoupling, antennaCoupling, type CouplingRange, couplingRanges, TRUSTED_LOSS_DB } from './coupled';
export {
  exposureFieldVPerM,
  friisCoupling,
  insideNearField,
  leakLevel,
  meterZeroProves,
  parallelDipoleCoupling,
  rampUp,
  switchingExposure,
} from './coupling';
export {
  type Drive,
  type Footing,
  type GuardGraph,
  type GuardNode,
  type Known,
  type Port,
  portsOf,
  linkedNodes,
  wiredTogether,
} from './graph';
export {
  type Cell,
  type Colour,
  COLOUR_WORDS,
  COLOURS,
  badness,
  type GuardBand,
  type GuardProof,
  guardProof,
  type GuardQuestion,
  type MeasuredWay,
  type MissingFigure,
  toldMarginDb,
} from './judge';
export { keyLine } from './key-line';
export { cheapestMending, type Mending, type Offer } from './mend';
export { fieldOfPeople, MODE_SHARES, type PeopleField } from './people';
export { checkedPad, type PowerTest, powerTest, type Rung, testAgainstModel } from './power-test';
export { switchLosses } from './switch';
export type { InOrder } from './states';
export { sequenceChance, sequenceOf, sequenceRemarks, type SequenceTimes, TIMES_NEEDED } from './timeline';
