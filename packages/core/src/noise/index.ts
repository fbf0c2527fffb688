export { deviceEffects } from './device-survey';
export { classMedians, floorPattern, type FloorStep, floorSteps } from './floor-log';
export { byMonth, type RecurringHour, recurringHour } from './recurrence';
export { amplifierWords, noiseVerdict, type NoiseVerdict, riseOf, type StrongCarrier } from './verdict';
