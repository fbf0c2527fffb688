import type { StationValues, Values } from './resources';

/** What a station begins with beside its position, noise class, room and cable: no restrictions, every burden counted once. */
export const STATION_DEFAULTS = {
  ownCableDb10: null,
  ownCableDb100: null,
  nothingVisible: false,
  lawnAllowed: true,
  noDrilling: false,
  noTransmitting: false,
  windLimitMPerS: null,
  windForecastMPerS: null,
  priceWeight: 1,
  effortWeight: 1,
  sightWeight: 1,
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
