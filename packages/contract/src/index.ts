export {
  SCHEMAS,
  RESOURCE_NAMES,
  stationSchema,
  OWN_CABLE,
  type ResourceName,
  type Saved,
  type Station,
  type Stored,
  type StationValues,
  type Values,
} from './resources';
export { STATION_DEFAULTS, WISH_DEFAULTS } from './defaults';
export { batchSchema, type Change, type NewReference, type Refusal } from './changes';
export { packSamples, unpackSamples } from './samples';
export { ModelFileError, modelFileOf, readModelFile, type ModelFileContent } from './model-file';
