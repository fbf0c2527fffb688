import { cableClass } from '../line/coax';
import type { StageValues } from './stage-kind';

/** A stage as a new record begins, for tests. */
export const stageValues = (name: string): StageValues => ({
  ...{ name, figures: {}, choices: {}, lengthM: 0, gainDb: 0, noiseFigureDb: 0, iip2Dbm: 40, iip3Dbm: 10, lossDb: 0 },
  ...{ shape: 'lowpass', family: 'chebyshev', order: 5, rippleDb: 0.1, edgeLowHz: 1.8e6, edgeHighHz: 30e6 },
  cable: cableClass('pe5'),
});
