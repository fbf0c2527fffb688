export {
  type Appointment,
  type Clash,
  clashes,
  type Occurrence,
  occurrencesOf,
  passOccurrences,
  slotStarts,
} from './appointments';
export { type Arrival, arrivalOf, LINE_OF_SIGHT_FROM_HZ, USUAL_ARRIVAL_DEG, wantedPosition } from './arrival';
export {
  combinedDecilesDb,
  compareAntennas,
  type Environment,
  ENVIRONMENTS,
  type ExpectedNoise,
  expectedNoise,
  type NoiseView,
  type TimeOfDay,
  faExceededDb,
  insideStatedRange,
  medianFaDb,
  minimumEfficiency,
  noiseFieldDbuv,
  noisePowerDbm,
  snrFromField,
} from './external-noise';
export { fieldDbuv, fieldToPower, freeSpaceFieldVPerM, POWER_KINDS, type PowerKind, transmitterField } from './field';
export { clockShows, readZone } from './clock';
export { floorNear, measuredFaDb } from './measured-floor';
export { hydrogenVelocityMPerS, linkRange, noiseScatterDb, radiometer } from './link';
export { circularOrbit, EFFECTIVE_EARTH, geostationaryLook, horizonKm, radioHorizonKm } from './orbit';
export {
  ELEMENTS_OLD_DAYS,
  elementsEpochMs,
  type OrbitalElements,
  type Pass,
  readElements,
  satellitePasses,
} from './passes';
export { horizonAt, type HorizonPoint, horizonText, readHorizon } from './horizon';
export { AIMED_FROM_HZ, surroundings } from './sky-temperature';
export { clearSeconds, LOW_PASS_DEG, ratingsByHeight, type SkyPoint, skyTrack, wholePictures } from './sky';
export { greatCircle, locatorOf, parsePosition, type Position } from './place';
export { openingAt } from './opening';
export { heardDays, type HeardMark } from './heard';
export { type ListeningWindow, listeningWindows } from './schedule';
export { REPEATS } from './repeats';
export { daylightOf, halfOfHours, lightAt, nextSunEvent } from './sun';
