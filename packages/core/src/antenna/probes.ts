import { OutOfRangeError, requirePositive, requireRange } from '../errors';
import {
  BOLTZMANN_J_PER_K,
  STANDARD_TEMPERATURE_K,
  VACUUM_PERMEABILITY_H_PER_M,
  VACUUM_PERMITTIVITY_F_PER_M,
} from '../units/constants';
import { dbmToVoltsRms, voltsRmsToDbm } from '../units/decibel';
import { thermalVoltsPerRootHz } from '../units/thermal';
import { wavelengthM } from '../units/wavelength';

/** Short vertical on a ground plane (height well below a wavelength): capacitance, effective height, radiation resistance. */
export function shortMonopole(heightM: number, radiusM: number, freqHz: number) {
  requirePositive(heightM, 'Height (m)');
  requirePositive(radiusM, 'Radius (m)');
  requirePositive(freqHz, 'Frequency (Hz)');
  const slender = Math.log(heightM / radiusM) - 1;
  if (slender <= 0)
    throw new OutOfRangeError('The wire is too thick for its height. Use a height over 3 times the radius.');
  const capacitanceF = (2 * Math.PI * VACUUM_PERMITTIVITY_F_PER_M * heightM) / slender;
  return {
    capacitanceF,
    effectiveHeightM: heightM / 2,
    radiationOhm: 40 * Math.PI ** 2 * (heightM / wavelengthM(freqHz)) ** 2,
    reactanceOhm: -1 / (2 * Math.PI * freqHz * capacitanceF),
  };
}

/** A capacitive probe with its amplifier: divider C_a against C_s, bias resistor, voltage gain into 50 Ω. */
export interface FieldProbe {
  readonly effectiveHeightM: number;
  readonly probeFarad: number;
  readonly shuntFarad: number;
  readonly biasOhm: number;
  readonly voltageGain: number;
}

/** Gate voltage, output level and antenna factor of a field probe. */
export function fieldProbe(probe: FieldProbe, fieldVPerM: number, freqHz: number) {
  requirePositive(fieldVPerM, 'Field (V/m)');
  requirePositive(freqHz, 'Frequency (Hz)');
  const omega = 2 * Math.PI * freqHz;
  const total = probe.probeFarad + probe.shuntFarad;
  const divider = (omega * probe.probeFarad * probe.biasOhm) / Math.hypot(1, omega * total * probe.biasOhm);
  const gateV = fieldVPerM * probe.effectiveHeightM * divider;
  const outputV = gateV * probe.voltageGain;
  return {
    gateV,
    outputDbm: voltsRmsToDbm(outputV),
    antennaFactorDb: 20 * Math.log10(fieldVPerM / outputV),
    cornerHz: 1 / (2 * Math.PI * probe.biasOhm * total),
  };
}

/** Noise of a probe's amplifier: voltage and current at its gate. */
export interface ProbeNoise {
  readonly voltsPerRootHz: number;
  readonly amperesPerRootHz: number;
}

/**
 * Field that equals a probe's own noise in a bandwidth, V/m: of the amplifier and of its bias resistor at 290 K, on the impedance of
 * probe, shunt and resistor; and the same as a noise figure by the short monopole, Fa = E − 20·log f − 10·log B + 95.5 (ITU-R P.372).
 */
export function probeNoiseField(
  probe: FieldProbe,
  { voltsPerRootHz, amperesPerRootHz }: ProbeNoise,
  freqHz: number,
  bandwidthHz: number,
) {
  requirePositive(bandwidthHz, 'Bandwidth (Hz)');
  const { gateV } = fieldProbe(probe, 1, freqHz);
  const sourceOhm = 1 / Math.hypot(1 / probe.biasOhm, 2 * Math.PI * freqHz * (probe.probeFarad + probe.shuntFarad));
  const biasAmperes = thermalVoltsPerRootHz(1 / probe.biasOhm, STANDARD_TEMPERATURE_K);
  const noiseV = Math.hypot(voltsPerRootHz, amperesPerRootHz * sourceOhm, biasAmperes * sourceOhm);
  const fieldVPerM = (noiseV / gateV) * Math.sqrt(bandwidthHz);
  return {
    fieldVPerM,
    faDb:
      20 * Math.log10(fieldVPerM * 1e6) - 20 * Math.log10(freqHz / 1e6) - 10 * Math.log10(bandwidthHz) + MONOPOLE_DB,
  };
}
/** Of the short vertical monopole, as published in ITU-R P.372 (rounded there). */
const MONOPOLE_DB = 95.5;

/** A single-turn circular loop in air. */
export interface LoopShape {
  readonly radiusM: number;
  readonly wireRadiusM: number;
}

/** Inductance of a circular loop, H: μ₀R(ln(8R/a) − 2), ±2 %. */
export function loopInductanceH(loop: LoopShape): number {
  requirePositive(loop.radiusM, 'Loop radius (m)');
  requirePositive(loop.wireRadiusM, 'Conductor radius (m)');
  requireRange(loop.wireRadiusM / loop.radiusM, 'Conductor radius over loop radius', 0, 0.5);
  return VACUUM_PERMEABILITY_H_PER_M * loop.radiusM * (Math.log((8 * loop.radiusM) / loop.wireRadiusM) - 2);
}

/** Small loop in the field of a wave in its plane, feeding a resistive amplifier input. Valid below λ/10 of circumference. */
export function smallLoop(loop: LoopShape, freqHz: number, fieldVPerM: number, inputOhm: number) {
  requirePositive(freqHz, 'Frequency (Hz)');
  requirePositive(inputOhm, 'Amplifier input (ohm)');
  const areaM2 = Math.PI * loop.radiusM ** 2;
  const effectiveHeightM = (2 * Math.PI * areaM2) / wavelengthM(freqHz);
  const inductanceH = loopInductanceH(loop);
  const reactanceOhm = 2 * Math.PI * freqHz * inductanceH;
  const emfV = effectiveHeightM * fieldVPerM;
  return {
    areaM2,
    effectiveHeightM,
    emfV,
    inductanceH,
    reactanceOhm,
    currentA: emfV / Math.hypot(inputOhm, reactanceOhm),
    cornerHz: inputOhm / (2 * Math.PI * inductanceH),
  };
}

/** Circumference over wavelength up to which the small-loop formulas hold. */
export const SMALL_LOOP_MAX_WAVELENGTHS = 0.1;

/** Electronics of an amplified loop; noise as voltage and current densities at its input. */
export interface LoopAmplifier {
  readonly inputOhm: number;
  readonly noiseVoltPerRootHz: number;
  readonly noiseAmpPerRootHz: number;
  readonly gainDb: number;
  readonly iip2Dbm: number;
  readonly iip3Dbm: number;
}

/** Noise of loop and amplifier as an equivalent external noise figure, dB above kT₀ (P.372's short-monopole convention). */
export function loopAmplifierFaDb(loop: LoopShape, amplifier: LoopAmplifier, freqHz: number, lossOhm: number): number {
  const { effectiveHeightM, reactanceOhm } = smallLoop(loop, freqHz, 1, amplifier.inputOhm);
  const source = Math.hypot(lossOhm, reactanceOhm);
  const noiseSquared =
    amplifier.noiseVoltPerRootHz ** 2 +
    (amplifier.noiseAmpPerRootHz * source) ** 2 +
    4 * BOLTZMANN_J_PER_K * STANDARD_TEMPERATURE_K * lossOhm;
  const fieldDbuvPerRootHz = 20 * Math.log10((Math.sqrt(noiseSquared) / effectiveHeightM) * 1e6);
  return fieldDbuvPerRootHz - 20 * Math.log10(freqHz / 1e6) + 95.5;
}

/**
 * Second-order product of two strong fields in the head amplifier of an active antenna, and what a band-stop does behind
 * (nothing) and ahead of it (twice its loss).
 */
export function headAmplifierIm2(input: {
  readonly field1VPerM: number;
  readonly field2VPerM: number;
  readonly effectiveHeightM: number;
  readonly divider: number;
  readonly voltageGain: number;
  readonly oip2Dbm: number;
  readonly bandStopDb: number;
}) {
  const fieldGain = input.effectiveHeightM * input.divider * input.voltageGain;
  requirePositive(fieldGain, 'Product of height, divider and gain');
  const output1Dbm = voltsRmsToDbm(input.field1VPerM * fieldGain);
  const output2Dbm = voltsRmsToDbm(input.field2VPerM * fieldGain);
  const productDbm = output1Dbm + output2Dbm - input.oip2Dbm;
  return {
    output1Dbm,
    output2Dbm,
    productDbm,
    equivalentFieldDbuv: 20 * Math.log10((dbmToVoltsRms(productDbm) / fieldGain) * 1e6),
    stopBehindDbm: productDbm,
    stopAheadDbm: productDbm - 2 * input.bandStopDb,
  };
}
