export {
  exposureFieldVPerM,
  friisCoupling,
  leakLevel,
  meterZeroProves,
  parallelDipoleCoupling,
  rampUp,
  switchingExposure,
} from './coupling';
export { guardInputs, type GuardResult, type GuardState } from './coverage';
export { GUARD_WORDS, guardVerdict, type GuardVerdict, insideNearField } from './verdict';
export { switchLosses } from './switch';
