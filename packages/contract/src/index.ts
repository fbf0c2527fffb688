export {
  BLANK,
  IN_CALENDARS,
  RESOURCES,
  SCHEMAS,
  schemaFor,
  stationFileSchema,
  STATION_BLANK,
  RESOURCE_NAMES,
  stationSchema,
  type ResourceName,
  type Saved,
  type Station,
  type Stored,
  type StationValues,
  type Values,
  type EditValues,
  type NewValues,
} from './resources';
export { STATION } from './tables/station';
export { ACCESSORY_KINDS } from './tables/notebook';
export { MOST_TRANSFER_POINTS } from './tables/path';
export type { Column, Columns, Store } from './columns';
export {
  answerSchema,
  createOf,
  readBatch,
  undoSchema,
  type ArrivedChange,
  type Change,
  type Refusal,
  updateOf,
} from './changes';
export {
  EVENT_KINDS,
  type Asking,
  type Device,
  type DoorBell,
  type DoorEvent,
  type DoorState,
  type EventKind,
  type Me,
  type PhoneCode,
} from './door';
export { logPage, packLog, unpackLog, type LogPage } from './bulk';
export { packRecords, unpackRecords } from './packed';
export {
  packCalibration,
  packSamples,
  packSpectrum,
  unpackCalibration,
  unpackSamples,
  unpackSpectrum,
} from './samples';
export {
  INSTRUMENT_KINDS,
  type InstrumentKind,
  type InstrumentCard,
  sweepRequestSchema,
  spectrumRequestSchema,
  readingRequestSchema,
  routeRequestSchema,
  turnRequestSchema,
  handsRequestSchema,
  type SweepRequest,
  type SpectrumRequest,
  type ReadingRequest,
  type RouteRequest,
  type TurnRequest,
  type HandsRequest,
  type ExerciseTruth,
} from './instruments';
export { ModelFileError, modelFileOf, readModelFile, type ModelFileContent } from './model-file';
