export { deviceEffects } from './device-survey';
export { classMedians, floorPattern, type FloorStep, floorSteps } from './floor-log';
export { byMonth, type RecurringHour, recurringHour } from './recurrence';
export { isNoiseTest, NOISE_TESTS, type TestReading, whoseNoise } from './whose';
export {
  amplifierWords,
  noiseVerdict,
  type NoiseVerdict,
  ORDINARY_FROM_HZ,
  riseOf,
  type StrongCarrier,
} from './verdict';
