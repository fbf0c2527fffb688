import { requirePositive, requireRange } from '../errors';
import { dbmToVoltsRms, voltsRmsToDbm } from './decibel';

/** One S unit in dB. Source: IARU Region 1 Technical Recommendation R.1 (from memory). */
export const S_UNIT_DB = 6;

/**
 * Level of S9 in 50 Ω. −73 dBm below 30 MHz, −93 dBm from 30 MHz up. The recommendation's wording for the second figure is
 * "above 144 MHz"; this project applies it from 30 MHz and says so on screen.
 */
export const s9Dbm = (freqHz: number): number => (freqHz < 30e6 ? -73 : -93);

/** A reading as printed on an S meter. `sUnits` 0..9; `dbOverS9` is 0 unless the level is above S9. */
export interface SReading {
  readonly sUnits: number;
  readonly dbOverS9: number;
}

/** S reading of a level in 50 Ω; levels below S0 (S9 − 54 dB) are clamped to S0. */
export function dbmToS(levelDbm: number, freqHz: number): SReading {
  requireRange(levelDbm, 'Level (dBm)');
  requirePositive(freqHz, 'Frequency (Hz)');
  const overS9Db = levelDbm - s9Dbm(freqHz);
  if (overS9Db > 0) return { sUnits: 9, dbOverS9: overS9Db };
  return { sUnits: Math.max(0, 9 + overS9Db / S_UNIT_DB), dbOverS9: 0 };
}

/** Level in 50 Ω of an S reading. @throws OutOfRangeError for S units outside 0..9. */
export function sToDbm(reading: SReading, freqHz: number): number {
  requireRange(reading.sUnits, 'S units', 0, 9);
  return s9Dbm(freqHz) + (reading.sUnits - 9) * S_UNIT_DB + reading.dbOverS9;
}

/** Level in dBµV across 50 Ω. */
export const dbmToDbMicrovolt = (levelDbm: number): number => 20 * Math.log10(dbmToVoltsRms(levelDbm) * 1e6);

/** Terminal level of a 50 Ω generator set by its open-circuit EMF: the terminal voltage is half of it. */
export const emfToDbm = (emfVoltsRms: number): number => voltsRmsToDbm(emfVoltsRms / 2);
