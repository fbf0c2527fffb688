import { requirePositive, requireRange } from '../errors';
import { STANDARD_TEMPERATURE_K } from '../units/constants';
import { powerDb } from '../units/decibel';
import { wavelengthM } from '../units/wavelength';
import { thermalVoltsPerRootHz } from '../units/thermal';

/**
 * Lowest and highest resonance of a coil with a variable capacitor; strays and a fixed capacitor lie across all, a pad in series with the variable alone.
 * @param padF null for none.
 */
export function tuningSpan(input: {
  readonly inductanceH: number;
  readonly leastF: number;
  readonly mostF: number;
  readonly strayF: number;
  readonly parallelF: number;
  readonly padF: number | null;
}) {
  requirePositive(input.inductanceH, 'Inductance (H)');
  requirePositive(input.leastF, 'Least capacitance (F)');
  requireRange(input.mostF, 'Largest capacitance (F)', input.leastF);
  const resonanceHz = (variableF: number): number => {
    const section = input.padF === null ? variableF : (variableF * input.padF) / (variableF + input.padF);
    return 1 / (2 * Math.PI * Math.sqrt(input.inductanceH * (section + input.strayF + input.parallelF)));
  };
  const [lowHz, highHz] = [resonanceHz(input.mostF), resonanceHz(input.leastF)];
  return { lowHz, highHz, ratio: highHz / lowHz };
}

/**
 * What a small change of a tuned circuit does: new resonance, and loss at the old frequency.
 * @param q loaded, as measured at the old frequency. Source: Terman, Radio Engineers' Handbook, sec. 3, universal resonance curve.
 */
export function detuned(input: {
  readonly resonanceHz: number;
  readonly inductancePercent: number;
  readonly capacitancePercent: number;
  readonly q: number;
}) {
  requirePositive(input.resonanceHz, 'Resonance (Hz)');
  requireRange(input.inductancePercent, 'Change of inductance (%)', -99);
  requireRange(input.capacitancePercent, 'Change of capacitance (%)', -99);
  const change = (1 + input.inductancePercent / 100) * (1 + input.capacitancePercent / 100);
  const newHz = input.resonanceHz / Math.sqrt(change);
  const off = input.q * (input.resonanceHz / newHz - newHz / input.resonanceHz);
  return { newHz, shiftPercent: 100 * (newHz / input.resonanceHz - 1), lossDb: powerDb(1 + off * off) };
}

/** What a receiver of high impedance hears of a tuned coil's own noise. @param inputVoltsPerRootHz the receiver's noise, V/√Hz. */
export function coilNoise(input: {
  readonly inductanceH: number;
  readonly resonanceHz: number;
  readonly q: number;
  readonly inputVoltsPerRootHz: number;
}) {
  requirePositive(input.inductanceH, 'Inductance (H)');
  requirePositive(input.resonanceHz, 'Resonance (Hz)');
  requirePositive(input.q, 'Q');
  requirePositive(input.inputVoltsPerRootHz, 'Noise of the input (V/√Hz)');
  const parallelOhm = input.q * 2 * Math.PI * input.resonanceHz * input.inductanceH;
  const peakVoltsPerRootHz = thermalVoltsPerRootHz(parallelOhm, STANDARD_TEMPERATURE_K);
  return {
    peakVoltsPerRootHz,
    riseDb: powerDb(1 + (peakVoltsPerRootHz / input.inputVoltsPerRootHz) ** 2),
    widthHz: input.resonanceHz / input.q,
  };
}

/**
 * A tuned rod or loop in a field: effective height, voltage across the circuit, and the field that equals its own noise.
 * @param permeability apparent, of the rod; 1 in air. Source: Terman, Radio Engineers' Handbook, sec. 13 (h = 2πNAµ/λ; from memory).
 */
export function rodSensitivity(input: {
  readonly freqHz: number;
  readonly turns: number;
  readonly areaM2: number;
  readonly permeability: number;
  readonly inductanceH: number;
  readonly q: number;
  readonly fieldVPerM: number;
  readonly bandwidthHz: number;
}) {
  requirePositive(input.turns, 'Turns');
  requirePositive(input.areaM2, 'Cross-section (m²)');
  requirePositive(input.permeability, 'Permeability');
  requirePositive(input.q, 'Q');
  requirePositive(input.bandwidthHz, 'Bandwidth (Hz)');
  const heightM = (2 * Math.PI * input.turns * input.areaM2 * input.permeability) / wavelengthM(input.freqHz);
  const lossOhm = (2 * Math.PI * input.freqHz * input.inductanceH) / input.q;
  return {
    heightM,
    tunedV: input.q * input.fieldVPerM * heightM,
    noiseFieldVPerM: (thermalVoltsPerRootHz(lossOhm, STANDARD_TEMPERATURE_K) * Math.sqrt(input.bandwidthHz)) / heightM,
  };
}
