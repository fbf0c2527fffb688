import { STAGE_DEFAULTS } from '@velvet-reed/contract';

/** Values of a stage that its kind does not use. */
export const UNUSED_STAGE = {
  ...STAGE_DEFAULTS,
  cableId: 'pe5',
  lengthM: 0,
  gainDb: 0,
  noiseFigureDb: 0,
  iip2Dbm: 40,
  iip3Dbm: 10,
  lossDb: 0,
  shape: 'lowpass',
  family: 'chebyshev',
  order: 5,
  rippleDb: 0.1,
  edgeLowHz: 1.8e6,
  edgeHighHz: 30e6,
};
