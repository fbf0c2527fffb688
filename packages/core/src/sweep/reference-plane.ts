import { requireRange } from '../errors';
import type { SweepData } from '../formats/touchstone';
import { attenuationDbPer100m, type LineLossModel } from '../line/coax';
import { alongLine, renormalise } from '../line/reflection';
import { complex, magnitude } from '../numeric/complex';
import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';

/** A line between analyser and antenna. */
export interface FeedLine extends LineLossModel {
  readonly impedanceOhm: number;
  readonly velocityFactor: number;
  readonly lengthM: number;
}

/** A sweep moved to the antenna's end of its line. */
export interface MovedSweep {
  readonly sweep: SweepData;
  /** Readings of |Γ| ≥ 1 at the antenna: loss over-estimated, or a wrong reading. */
  readonly unphysical: number;
  /** How many times larger every reading error becomes at the highest frequency. */
  readonly errorFactor: number;
  readonly doubts: readonly string[];
}

/** Residual error of a calibrated pocket analyser as |Γ|: a directivity of 35 dB. Common practice, no source. */
const RESIDUAL = 10 ** (-35 / 20);
/** With more than this left uncertain a reading at the antenna means nothing. */
const MOST_UNCERTAIN = 0.3;

/** Moves a sweep along a line: positive length towards the antenna, in the line's own impedance and back. Source: Pozar, Microwave Engineering, sec. 2.3. */
function moved(sweep: SweepData, line: FeedLine, towardsAntenna: 1 | -1): SweepData {
  const n = sweep.freqHz.length;
  const re = new Float64Array(n);
  const im = new Float64Array(n);
  for (let i = 0; i < n; i += 1) {
    const freq = sweep.freqHz[i];
    const lossDb = (attenuationDbPer100m(line, freq) * line.lengthM) / 100;
    const wavelengths = (freq * line.lengthM) / (line.velocityFactor * SPEED_OF_LIGHT_M_PER_S);
    const own = renormalise(complex(sweep.re[i], sweep.im[i]), sweep.referenceOhm, line.impedanceOhm);
    const turned = alongLine(own, -towardsAntenna * lossDb, -towardsAntenna * wavelengths);
    const gamma = renormalise(turned, line.impedanceOhm, sweep.referenceOhm);
    re[i] = gamma.re;
    im[i] = gamma.im;
  }
  return { ...sweep, re, im };
}

/** What the analyser reads at the far end of a line from an antenna. */
export const throughLine = (atAntenna: SweepData, line: FeedLine): SweepData => moved(atAntenna, line, -1);

/**
 * What stands at the antenna: the line taken off by calculation, with how far that may be trusted.
 * @throws OutOfRangeError for a negative length or an impossible velocity factor.
 */
export function takeLineOff(sweep: SweepData, line: FeedLine): MovedSweep {
  requireRange(line.lengthM, 'Line length (m)', 0, 2000);
  requireRange(line.velocityFactor, 'Velocity factor', 0.2, 1);
  const atAntenna = moved(sweep, line, 1);
  let unphysical = 0;
  for (let i = 0; i < atAntenna.freqHz.length; i += 1)
    if (magnitude(complex(atAntenna.re[i], atAntenna.im[i])) >= 1) unphysical += 1;
  const topHz = sweep.freqHz[sweep.freqHz.length - 1];
  const lossDb = (attenuationDbPer100m(line, topHz) * line.lengthM) / 100;
  const errorFactor = 10 ** (lossDb / 10);
  const doubts: string[] = [];
  if (RESIDUAL * errorFactor > MOST_UNCERTAIN)
    doubts.push(
      `${lossDb.toFixed(1)} dB of line make every reading error ${errorFactor.toFixed(0)} times larger: nothing certain is left. Measure at the feed.`,
    );
  else if (errorFactor > 2)
    doubts.push(`The line makes every reading error ${errorFactor.toFixed(1)} times larger at the antenna.`);
  if (unphysical > 0)
    doubts.push(
      `${unphysical} points would reflect more than they receive: the line loses less than assumed, or current flows on its outside.`,
    );
  return { sweep: atAntenna, unphysical, errorFactor, doubts };
}
