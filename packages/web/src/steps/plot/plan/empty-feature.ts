/** What a feature holds before anything was entered. */
export const EMPTY_FEATURE = {
  heightM: 0,
  endHeightM: 0,
  clearanceM: 0,
  widthM: 0,
  antennaId: null,
  transmitterId: null,
  attachmentId: null,
} as const;
