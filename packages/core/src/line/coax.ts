import { requirePositive, requireRange, ShapeError } from '../errors';
import { add, complex, magnitude, parallel, type Complex } from '../numeric/complex';
import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { alongLine, gammaOfSwr, impedanceOf, reflectionOf, swrOf } from './reflection';

/** Matched loss of a cable: k1·√f + k2·f, dB per 100 m with f in MHz. */
export interface LineLossModel {
  readonly k1: number;
  readonly k2: number;
}

/** A generic class of cable; figures are typical of the class, makers spread by 10 to 20 %. */
export interface CableClass extends LineLossModel {
  readonly id: string;
  readonly name: string;
  readonly impedanceOhm: number;
  readonly velocityFactor: number;
  /** DC resistance of centre and shield together, Ω per m: usual for the class, from memory; a copper-clad steel centre has several times as much. */
  readonly loopOhmPerM: number;
  /** Range of the attenuation tables the two constants were fitted to. */
  readonly fitMinHz: number;
  readonly fitMaxHz: number;
}

/** Fits of handbook attenuation tables (from memory), worst fit error 0.5..5 %. */
export const CABLE_CLASSES: readonly CableClass[] = [
  {
    id: 'pe3',
    name: '2.8 mm solid polyethylene, 50 Ω',
    impedanceOhm: 50,
    loopOhmPerM: 0.36,
    velocityFactor: 0.66,
    k1: 2.43,
    k2: 0.0345,
    fitMinHz: 50e6,
    fitMaxHz: 1e9,
  },
  {
    id: 'ptfe2',
    name: '2.5 mm PTFE, 50 Ω',
    impedanceOhm: 50,
    loopOhmPerM: 0.3,
    velocityFactor: 0.7,
    k1: 2.72,
    k2: 0.0083,
    fitMinHz: 10e6,
    fitMaxHz: 1e9,
  },
  {
    id: 'pe5',
    name: '5 mm solid polyethylene, 50 Ω',
    impedanceOhm: 50,
    loopOhmPerM: 0.053,
    velocityFactor: 0.66,
    k1: 1.311,
    k2: 0.0294,
    fitMinHz: 1e6,
    fitMaxHz: 1e9,
  },
  {
    id: 'foam7',
    name: '7 mm foam, 75 Ω',
    impedanceOhm: 75,
    loopOhmPerM: 0.04,
    velocityFactor: 0.83,
    k1: 0.69,
    k2: 0,
    fitMinHz: 55e6,
    fitMaxHz: 1e9,
  },
  {
    id: 'pe10',
    name: '10 mm solid polyethylene, 50 Ω',
    impedanceOhm: 50,
    loopOhmPerM: 0.01,
    velocityFactor: 0.66,
    k1: 0.62,
    k2: 0.0062,
    fitMinHz: 1e6,
    fitMaxHz: 1e9,
  },
  {
    id: 'foam10',
    name: '10 mm foam, 50 Ω',
    impedanceOhm: 50,
    loopOhmPerM: 0.009,
    velocityFactor: 0.85,
    k1: 0.418,
    k2: 0.0003,
    fitMinHz: 10e6,
    fitMaxHz: 1e9,
  },
];

/** Cable class by its id. @throws ShapeError for an unknown id. */
export function cableClass(id: string): CableClass {
  const found = CABLE_CLASSES.find((cable) => cable.id === id);
  if (!found) throw new ShapeError(`There is no cable class "${id}". Choose one from the list.`, 'cable');
  return found;
}

/** Impedance that lines, receivers and parts are made for, ohm. */
export const LINE_OHM = 50;

/** Attenuation in dB per 100 m. */
export const attenuationDbPer100m = (model: LineLossModel, freqHz: number): number =>
  model.k1 * Math.sqrt(freqHz / 1e6) + model.k2 * (freqHz / 1e6);

/** What a matched line does to power and time. */
export function lineLoss(model: LineLossModel, freqHz: number, lengthM: number, velocityFactor: number) {
  requirePositive(freqHz, 'Frequency (Hz)');
  requireRange(lengthM, 'Line length (m)', 0);
  requireRange(velocityFactor, 'Velocity factor', 0.01, 1);
  const lossDb = (attenuationDbPer100m(model, freqHz) * lengthM) / 100;
  const delayS = lengthM / (velocityFactor * SPEED_OF_LIGHT_M_PER_S);
  return { lossDb, powerOutRatio: 10 ** (-lossDb / 10), wavelengths: freqHz * delayS, delayS };
}

/**
 * k1, k2 ≥ 0 that fit a cable table with the least squares of the RELATIVE error (else the highest frequency decides alone).
 * @returns the constants and the worst relative error, as a ratio.
 */
export function fitLineLoss(
  freqsHz: readonly number[],
  dbPer100m: readonly number[],
): LineLossModel & { worstError: number } {
  if (freqsHz.length !== dbPer100m.length || freqsHz.length < 1)
    throw new ShapeError('Frequencies and attenuations must come in pairs. Complete the table.');
  freqsHz.forEach((freq) => requirePositive(freq, 'Frequency (Hz)'));
  dbPer100m.forEach((loss) => requirePositive(loss, 'Attenuation (dB per 100 m)'));
  const a = freqsHz.map((freq, i) => Math.sqrt(freq / 1e6) / dbPer100m[i]);
  const b = freqsHz.map((freq, i) => freq / 1e6 / dbPer100m[i]);
  const sum = (x: readonly number[], y: readonly number[]): number =>
    x.reduce((total, value, i) => total + value * y[i], 0);
  const ones = freqsHz.map(() => 1);
  const det = sum(a, a) * sum(b, b) - sum(a, b) ** 2;
  let k1 = (sum(a, ones) * sum(b, b) - sum(b, ones) * sum(a, b)) / det;
  let k2 = (sum(b, ones) * sum(a, a) - sum(a, ones) * sum(a, b)) / det;
  if (freqsHz.length === 1 || k2 < 0) [k1, k2] = [sum(a, ones) / sum(a, a), 0];
  else if (k1 < 0) [k1, k2] = [0, sum(b, ones) / sum(b, b)];
  const worstError = Math.max(...a.map((value, i) => Math.abs(k1 * value + k2 * b[i] - 1)));
  return { k1, k2, worstError };
}

/** A piece of line between antenna and shack, at one frequency. */
export interface LineSection {
  readonly impedanceOhm: number;
  readonly lengthM: number;
  readonly velocityFactor: number;
  readonly lossDbPer100m: number;
  readonly freqHz: number;
}

function checkSection(line: LineSection): { lossDb: number; wavelengths: number } {
  requirePositive(line.impedanceOhm, 'Line impedance (ohm)');
  requireRange(line.lossDbPer100m, 'Line loss (dB per 100 m)', 0);
  const { wavelengths } = lineLoss({ k1: 0, k2: 0 }, line.freqHz, line.lengthM, line.velocityFactor);
  return { lossDb: (line.lossDbPer100m * line.lengthM) / 100, wavelengths };
}

/** Reflection at the shack end of a line that is terminated by an antenna, on the line's own (real) impedance. */
export function antennaToShack(antenna: Complex, line: LineSection) {
  const { lossDb, wavelengths } = checkSection(line);
  const gammaAntenna = reflectionOf(antenna, line.impedanceOhm);
  const gammaShack = alongLine(gammaAntenna, lossDb, wavelengths);
  return {
    swrAntenna: swrOf(magnitude(gammaAntenna)),
    gammaShack,
    swrShack: swrOf(magnitude(gammaShack)),
    impedanceShack: impedanceOf(gammaShack, line.impedanceOhm),
  };
}

/**
 * Reflection at the antenna from a reading at the shack, on the line's own impedance. If |Γ| reaches 1 the data are not
 * physical: the loss is over-estimated, the reading is wrong, or common-mode current took part.
 */
export function shackToAntenna(gammaShack: Complex, line: LineSection) {
  const { lossDb, wavelengths } = checkSection(line);
  const gammaAntenna = alongLine(gammaShack, -lossDb, -wavelengths);
  const physical = magnitude(gammaAntenna) < 1;
  return {
    physical,
    gammaAntenna,
    swrShack: swrOf(magnitude(gammaShack)),
    swrAntenna: physical ? swrOf(magnitude(gammaAntenna)) : null,
    impedanceAntenna: physical ? impedanceOf(gammaAntenna, line.impedanceOhm) : undefined,
  };
}

/** SWR at the antenna from the SWR at the shack through a matched loss; null when that is not physical. */
export function swrThroughLoss(swrShack: number, oneWayLossDb: number): number | null {
  requireRange(swrShack, 'SWR', 1);
  return swrOf(gammaOfSwr(swrShack) * 10 ** (oneWayLossDb / 10));
}

/**
 * Power into a line over power into its load, dB, for a real line impedance.
 * Valid from a quarter wave up; on shorter lines with SWR above 3 the place of the current maximum decides instead.
 */
export function lossUnderSwr(matchedLossDb: number, load: Complex, lineOhm: number) {
  requireRange(matchedLossDb, 'Matched loss (dB)', 0);
  requireRange(load.re, 'Load resistance (ohm)', 0);
  const gamma = magnitude(reflectionOf(load, lineOhm));
  const a = 10 ** (matchedLossDb / 10);
  const swrLoad = swrOf(gamma);
  const total = swrLoad === null ? null : 10 * Math.log10((a * a - gamma * gamma) / (a * (1 - gamma * gamma)));
  return {
    totalLossDb: total,
    additionalLossDb: total === null ? null : total - matchedLossDb,
    swrLoad,
    swrInput: swrOf(gamma / a),
  };
}

/**
 * Common-mode choke (R ∥ L ∥ C) in series with a common-mode path: reduction of the current, dB. Negative means that an
 * inductive choke cancelled a capacitive path and made the current larger.
 */
export function chokeRejection(
  choke: { readonly parallelOhm: number; readonly inductanceH: number; readonly capacitanceF: number },
  path: Complex,
  freqHz: number,
): { readonly impedance: Complex; readonly rejectionDb: number } {
  requirePositive(freqHz, 'Frequency (Hz)');
  requirePositive(choke.parallelOhm, 'Choke resistance (ohm)');
  requirePositive(choke.inductanceH, 'Choke inductance (H)');
  requireRange(choke.capacitanceF, 'Choke capacitance (F)', 0);
  const omega = 2 * Math.PI * freqHz;
  const susceptance = omega * choke.capacitanceF - 1 / (omega * choke.inductanceH);
  // R ∥ jB: 1/(G + jB)
  const conductance = 1 / choke.parallelOhm;
  const norm = conductance ** 2 + susceptance ** 2;
  const impedance = complex(conductance / norm, -susceptance / norm);
  const rejectionDb = 20 * Math.log10(magnitude(add(path, impedance)) / magnitude(path));
  return { impedance, rejectionDb };
}

/** Physical length of a fraction of a wavelength of cable. */
export const electricalLengthM = (fraction: number, velocityFactor: number, freqHz: number): number =>
  (fraction * velocityFactor * SPEED_OF_LIGHT_M_PER_S) / freqHz;

/** Velocity factor from the first impedance minimum of an OPEN piece: there it is a quarter wave long. */
export const velocityFactorFromStub = (lengthM: number, firstMinimumHz: number): number =>
  (4 * lengthM * firstMinimumHz) / SPEED_OF_LIGHT_M_PER_S;

/**
 * Resistive L-section (series r1, then r2 to ground) at 290 K from a resistive source.
 * Its noise figure is its available loss with that source, not its loss between 50 Ω ports.
 */
export function lossySectionNoise(sourceOhm: number, seriesOhm: number, shuntOhm: number) {
  requirePositive(sourceOhm, 'Source resistance (ohm)');
  requireRange(seriesOhm, 'Series resistor (ohm)', 0);
  requirePositive(shuntOhm, 'Shunt resistor (ohm)');
  const inner = sourceOhm + seriesOhm;
  const divider = shuntOhm / (inner + shuntOhm);
  const outputOhm = (inner * shuntOhm) / (inner + shuntOhm);
  const availableGainDb = 10 * Math.log10((divider ** 2 * sourceOhm) / outputOhm);
  const load = parallel(complex(shuntOhm), complex(50)).re;
  const insertionLossDb = -20 * Math.log10((2 * load) / (50 + seriesOhm + load));
  return { availableGainDb, noiseFigureDb: -availableGainDb, insertionLossDb };
}
