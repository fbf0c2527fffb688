import { requirePositive } from '../errors';
import { FREE_SPACE_IMPEDANCE_OHM } from '../units/constants';
import { wattsToDbm } from '../units/decibel';
import { dbmToDbMicrovolt } from '../units/s-meter';
import { wavelengthM } from '../units/wavelength';

/** How a transmitter's radiated power is stated: against a half-wave dipole, against isotropic, or against a short monopole. */
const RADIATED_KINDS = ['ERP', 'EIRP', 'EMRP'] as const;
export type PowerKind = (typeof RADIATED_KINDS)[number];
/** The same, and the power that leaves its socket: that alone says nothing of a field. */
export const POWER_KINDS = [...RADIATED_KINDS, 'output'] as const;

/** Power gain over isotropic of each reference: 1; 1.64 (half-wave dipole); 3 (short vertical on perfect ground, ITU-R BS.561). */
const REFERENCE_GAIN: Readonly<Record<PowerKind, number>> = { EIRP: 1, ERP: 1.64, EMRP: 3 };

/** The same power as EIRP, W. */
const toEirpW = (powerW: number, kind: PowerKind): number => powerW * REFERENCE_GAIN[kind];

/**
 * Line-of-sight free-space field, V/m: E = √(30·EIRP)/d. An upper bound but for a ground reflection (up to +6 dB); buildings take
 * 10 to 30 dB off. For EMRP this equals 300 mV/m per √kW at 1 km.
 */
export function freeSpaceFieldVPerM(powerW: number, kind: PowerKind, distanceM: number): number {
  requirePositive(powerW, 'Power (W)');
  requirePositive(distanceM, 'Distance (m)');
  return Math.sqrt(30 * toEirpW(powerW, kind)) / distanceM;
}

/** Field in dBµV/m. */
export const fieldDbuv = (fieldVPerM: number): number => 20 * Math.log10(fieldVPerM * 1e6);
/** Field in V/m of a level in dBµV/m. */
const fieldVPerM = (levelDbuv: number): number => 10 ** (levelDbuv / 20) / 1e6;

/** Power that a matched antenna of a given gain takes from a field: E²/η·λ²G/4π, dBm. */
export function receivedDbm(levelDbuv: number, freqHz: number, gainDbi: number): number {
  requirePositive(freqHz, 'Frequency (Hz)');
  const density = fieldVPerM(levelDbuv) ** 2 / FREE_SPACE_IMPEDANCE_OHM;
  return wattsToDbm((density * wavelengthM(freqHz) ** 2) / (4 * Math.PI)) + gainDbi;
}

/** Received level, terminal voltage and antenna factor in 50 Ω. */
export function fieldToPower(levelDbuv: number, freqHz: number, gainDbi: number) {
  const powerDbm = receivedDbm(levelDbuv, freqHz, gainDbi);
  const voltageDbuv = dbmToDbMicrovolt(powerDbm);
  return { powerDbm, voltageDbuv, antennaFactorDb: levelDbuv - voltageDbuv };
}

/** Below this a transmitter nearby comes as a ground wave, vertical, over ground that is as good as metal to it, Hz. Common practice, no source. */
export const GROUND_WAVE_BELOW_HZ = 3e6;

/** A local transmitter as it reaches the listener. */
export interface TransmitterField {
  readonly fieldVPerM: number;
  readonly fieldDbuv: number;
  readonly isotropicDbm: number;
  /** Present where the free-space figure is not to be trusted. */
  readonly caution?: string;
}

/** Field and isotropic level of a registered transmitter at the station. */
export function transmitterField(transmitter: {
  readonly freqHz: number;
  readonly powerW: number;
  readonly powerKind: PowerKind;
  readonly distanceM: number;
}): TransmitterField {
  const field = freeSpaceFieldVPerM(transmitter.powerW, transmitter.powerKind, transmitter.distanceM);
  const level = fieldDbuv(field);
  const near = wavelengthM(transmitter.freqHz) / (2 * Math.PI);
  const cautions = [
    transmitter.freqHz < GROUND_WAVE_BELOW_HZ
      ? 'Below 3 MHz it comes as a ground wave: the loss of the ground on the way is not counted, an upper bound.'
      : '',
    transmitter.distanceM < near ? `Inside λ/2π (${near.toFixed(0)} m): the far-field formula does not hold here.` : '',
  ].filter(Boolean);
  return {
    fieldVPerM: field,
    fieldDbuv: level,
    isotropicDbm: receivedDbm(level, transmitter.freqHz, 0),
    ...(cautions.length > 0 ? { caution: cautions.join(' ') } : {}),
  };
}
