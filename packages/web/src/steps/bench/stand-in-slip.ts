import { IDEAL_STANDARDS, type Standards } from '@velvet-reed/core/sweep';

/** Constants of the standards, as printed on the slip in the stand-in's box. */
export const STAND_IN_SLIP: Standards = {
  ...IDEAL_STANDARDS,
  openFarad: 40e-15,
  openDelayS: 12e-12,
  shortDelayS: 14e-12,
};
