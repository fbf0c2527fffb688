export {
  SCHEMAS,
  RESOURCE_NAMES,
  stationSchema,
  MOST_TRANSFER_POINTS,
  OWN_CABLE,
  type ResourceName,
  type Saved,
  type Station,
  type Stored,
  type StationValues,
  type Values,
} from './resources';
export { PATH_DEFAULTS, STAGE_DEFAULTS, STATION_DEFAULTS, TRIM_DEFAULTS, WISH_DEFAULTS } from './defaults';
export { answerSchema, readBatch, undoSchema, type Change, type NewReference, type Refusal } from './changes';
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
  handsRequestSchema,
  type SweepRequest,
  type SpectrumRequest,
  type ReadingRequest,
  type HandsRequest,
  type ExerciseTruth,
} from './instruments';
export { ModelFileError, modelFileOf, readModelFile, type ModelFileContent } from './model-file';
