import { noisePowerDbm } from './external-noise';
import { powerDb, powerRatio } from '../units/decibel';

/** A noise floor as read at the receiver with an antenna on it. */
export interface MeasuredFloor {
  readonly freqHz: number;
  readonly levelDbm: number;
  readonly bandwidthHz: number;
}

/** What lies between field and reading. */
export interface FloorChain {
  /** Share of outside noise that the antenna hands on, ratio (1: a lossless matched antenna). */
  readonly transfer: number;
  readonly lineLossDb: number;
  readonly noiseFigureDb: number;
}

/**
 * External noise figure behind a reading, dB over kT₀: what the chain itself adds is taken off, then its losses. undefined when the reading
 * is within 1 dB of the chain's own noise: it then says nothing of the outside.
 */
export function measuredFaDb(floor: MeasuredFloor, chain: FloorChain): number | undefined {
  const read = powerRatio(floor.levelDbm - noisePowerDbm(0, floor.bandwidthHz));
  const line = powerRatio(-chain.lineLossDb);
  // line and matched losses at 290 K give kT₀ of their own
  const own = powerRatio(chain.noiseFigureDb) - line * chain.transfer;
  const outside = read - own;
  if (!(read > own * powerRatio(1)) || chain.transfer <= 0) return undefined;
  return powerDb(outside / (line * chain.transfer));
}

/** A floor counts for frequencies within this ratio of it. Assumed: noise changes slowly within half an octave. */
const FLOOR_REACH = Math.SQRT2;

/** The floor nearest to a frequency, if one is near enough to count. */
export function floorNear<F extends { readonly freqHz: number }>(floors: readonly F[], freqHz: number): F | undefined {
  const off = (floor: F): number => Math.abs(Math.log(floor.freqHz / freqHz));
  return floors.filter((floor) => off(floor) <= Math.log(FLOOR_REACH)).sort((a, b) => off(a) - off(b))[0];
}
