import type { StationValues, Values } from './resources';

/** What a station begins with beside its position, noise class, room and cable: no restrictions, every burden counted once. */
export const STATION_DEFAULTS = {
  ownCableDb10: null,
  ownCableDb100: null,
  nothingVisible: false,
  lawnAllowed: true,
  noDrilling: false,
  noTransmitting: false,
  noStakes: false,
  askFirst: false,
  windLimitMPerS: null,
  windForecastMPerS: null,
  priceWeight: 1,
  effortWeight: 1,
  sightWeight: 1,
  adapterBox: '',
} as const satisfies Partial<StationValues>;

/** A wish of which only the band is known. */
export const WISH_DEFAULTS = {
  latDeg: null,
  lonDeg: null,
  arrivalDeg: null,
  fromMin: null,
  toMin: null,
} as const satisfies Partial<Values<'targets'>>;

/** A trim step of which only length and dip are known. */
export const TRIM_DEFAULTS = { note: '', undoNote: '', photoId: null } as const satisfies Partial<Values<'trimSteps'>>;

/** A stage of the path: values that its kind does not use, and nothing entered of DC, plugs, part or run. */
export const STAGE_DEFAULTS = {
  ...{ plotFeatureId: null, partId: null, figures: {}, connectorIn: '', connectorOut: '' },
  ...{ cableId: 'pe5', lengthM: 0, gainDb: 0, noiseFigureDb: 0, iip2Dbm: 40, iip3Dbm: 10, lossDb: 0 },
  ...{ shape: 'lowpass', family: 'chebyshev', order: 5, rippleDb: 0.1, edgeLowHz: 1.8e6, edgeHighHz: 30e6 },
} as const satisfies Partial<Values<'pathStages'>>;

/** A path whose two end plugs nobody entered. */
export const PATH_DEFAULTS = { antennaConnector: '', receiverConnector: '' } as const satisfies Partial<
  Values<'paths'>
>;
