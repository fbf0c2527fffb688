import { requirePositive, requireRange } from '../errors';
import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { wattsToDbm } from '../units/decibel';
import { wavelengthM } from '../units/wavelength';
import { EFFECTIVE_EARTH, horizonKm } from './orbit';

/** Which of two ends the range. */
export interface LinkRange {
  readonly linkKm: number;
  readonly horizonKm: number;
  readonly rangeKm: number;
  readonly limit: 'link' | 'horizon';
}

/**
 * How far a transmitter is heard: by its power in free space, and by the radio horizon; the smaller one counts.
 * @param lossDb all losses between the antennas' terminals and transmitter and receiver.
 */
export function linkRange(input: {
  readonly powerW: number;
  readonly freqHz: number;
  readonly transmitGainDbi: number;
  readonly receiveGainDbi: number;
  readonly lossDb: number;
  readonly sensitivityDbm: number;
  readonly otherHeightM: number;
  readonly heightM: number;
}): LinkRange {
  requirePositive(input.powerW, 'Power (W)');
  requireRange(input.sensitivityDbm, 'Sensitivity (dBm)', -200, 50);
  const allowedDb =
    wattsToDbm(input.powerW) + input.transmitGainDbi + input.receiveGainDbi - input.lossDb - input.sensitivityDbm;
  // free space: 20·log(4πd/λ); Friis, Proc. IRE 34 (1946) 254
  const linkKm = (wavelengthM(input.freqHz) / (4 * Math.PI)) * 10 ** (allowedDb / 20) * 1e-3;
  const farKm = horizonKm(input.heightM, EFFECTIVE_EARTH) + horizonKm(input.otherHeightM, EFFECTIVE_EARTH);
  return {
    ...{ linkKm, horizonKm: farKm },
    rangeKm: Math.min(linkKm, farKm),
    limit: linkKm < farKm ? 'link' : 'horizon',
  };
}

/** Rest frequency of neutral hydrogen, Hz. Source: Hellwig et al., IEEE Trans. Instrum. Meas. 19 (1970) 200. */
const HYDROGEN_HZ = 1_420_405_751.768;

/** Radial velocity of hydrogen seen at a frequency, m/s, positive when it recedes: the radio convention c(f₀ − f)/f₀. */
export function hydrogenVelocityMPerS(freqHz: number): number {
  requireRange(freqHz, 'Frequency (Hz)', 1.3e9, 1.5e9);
  return (SPEED_OF_LIGHT_M_PER_S * (HYDROGEN_HZ - freqHz)) / HYDROGEN_HZ;
}

/** Least SNR at which a difference of noise counts as seen. Common practice, no source. */
const SEEN_SNR = 5;

/**
 * How well noise itself is measured: scatter ΔT = T/√(Bτ), and the time in which a difference stands out five times.
 * @param differenceK difference of noise temperature looked for. Source: Dicke, Rev. Sci. Instrum. 17 (1946) 268.
 */
export function radiometer(input: {
  readonly systemK: number;
  readonly bandwidthHz: number;
  readonly seconds: number;
  readonly differenceK: number;
}) {
  requirePositive(input.systemK, 'System temperature (K)');
  requirePositive(input.bandwidthHz, 'Bandwidth (Hz)');
  requirePositive(input.seconds, 'Time (s)');
  requirePositive(input.differenceK, 'Difference (K)');
  const scatterK = input.systemK / Math.sqrt(input.bandwidthHz * input.seconds);
  return {
    scatterK,
    snr: input.differenceK / scatterK,
    secondsForSnr5: (SEEN_SNR * input.systemK) ** 2 / input.differenceK ** 2 / input.bandwidthHz,
  };
}

/** Scatter of a noise level read as the mean over a time, dB: 4.34/√(Bτ). Holds while it is well below 1 dB. */
export const noiseScatterDb = (bandwidthHz: number, seconds: number): number =>
  10 / Math.LN10 / Math.sqrt(bandwidthHz * seconds);
