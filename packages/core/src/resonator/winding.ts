import { requirePositive } from '../errors';
import { completeElliptic } from '../numeric/elliptic';
import { VACUUM_PERMEABILITY_H_PER_M } from '../units/constants';
import { powerDb } from '../units/decibel';

/** A single-layer coil in air: mean diameter, length of the winding, turns. */
export interface Solenoid {
  readonly diameterM: number;
  readonly lengthM: number;
  readonly turns: number;
}

/**
 * Inductance of a single-layer coil as a current sheet (Nagaoka 1909: exact), with its form factor, and by Wheeler's formula
 * (Proc. IRE 16 (1928) 1398: within 0.3 % from a length of 0.8 radii up).
 */
export function solenoid({ diameterM, lengthM, turns }: Solenoid) {
  requirePositive(diameterM, 'Diameter (m)');
  requirePositive(lengthM, 'Length (m)');
  requirePositive(turns, 'Turns');
  const k2 = diameterM ** 2 / (diameterM ** 2 + lengthM ** 2);
  const { first, second } = completeElliptic(Math.sqrt(k2));
  const form =
    (4 / (3 * Math.PI * Math.sqrt(1 - k2))) * (((1 - k2) / k2) * first - ((1 - 2 * k2) / k2) * second - Math.sqrt(k2));
  const radius = diameterM / 2;
  return {
    inductanceH: ((VACUUM_PERMEABILITY_H_PER_M * turns ** 2 * Math.PI * radius ** 2) / lengthM) * form,
    form,
    wheelerH: (10 * Math.PI * VACUUM_PERMEABILITY_H_PER_M * turns ** 2 * radius ** 2) / (9 * radius + 10 * lengthM),
  };
}

/**
 * Demagnetisation factor of a rod as a prolate spheroid of the same slenderness, and its apparent permeability.
 * Source: Osborn, Phys. Rev. 67 (1945) 351.
 */
export function rodPermeability(slenderness: number, initial: number) {
  requirePositive(slenderness, 'Length over diameter');
  requirePositive(initial, 'Initial permeability');
  const demagnetisation = demagnetisationOf(slenderness);
  return { demagnetisation, permeability: initial / (1 + demagnetisation * (initial - 1)) };
}

function demagnetisationOf(m: number): number {
  // near a sphere both forms lose their digits: the series around 1/3
  if (Math.abs(m - 1) < 1e-4) return 1 / 3 - (4 / 15) * (m - 1);
  if (m > 1) {
    const root = Math.sqrt(m * m - 1);
    return ((m / root) * Math.log(m + root) - 1) / (m * m - 1);
  }
  const root = Math.sqrt(1 - m * m);
  return (1 - (m / root) * Math.acos(m)) / (1 - m * m);
}

/** A coil with a capacitor: where it resonates and what it does there. All loss in the coil at resonance. */
export function tunedCircuit(inductanceH: number, capacitanceF: number, q: number) {
  requirePositive(inductanceH, 'Inductance (H)');
  requirePositive(capacitanceF, 'Capacitance (F)');
  requirePositive(q, 'Q');
  const omega = 1 / Math.sqrt(inductanceH * capacitanceF);
  const resonanceHz = omega / (2 * Math.PI);
  return { resonanceHz, parallelOhm: q * omega * inductanceH, bandwidthHz: resonanceHz / q, magnification: q };
}

/** Coil and fixed capacitor for a tuning range, or why one range is not enough. */
export type TuningRange =
  | { readonly possible: true; readonly parallelF: number; readonly inductanceH: number }
  | { readonly possible: false; readonly bands: number };

/**
 * L and a fixed parallel capacitor so that a variable capacitor covers a range exactly. Strays include the coil's own capacitance.
 * When the capacitor's ratio is too small: how many bands of equal ratio it takes.
 */
export function tuningRange(input: {
  readonly leastF: number;
  readonly mostF: number;
  readonly strayF: number;
  readonly lowHz: number;
  readonly highHz: number;
}): TuningRange {
  const { leastF, mostF, strayF, lowHz, highHz } = input;
  requirePositive(lowHz, 'Lowest frequency (Hz)');
  requirePositive(highHz - lowHz, 'Span (Hz)');
  requirePositive(mostF - leastF, 'Capacitor range (F)');
  requirePositive(leastF + strayF, 'Smallest capacitance (F)');
  const square = (highHz / lowHz) ** 2;
  const parallelF = (mostF + strayF - square * (leastF + strayF)) / (square - 1);
  if (parallelF < 0) {
    const most = Math.sqrt((mostF + strayF) / (leastF + strayF));
    return { possible: false, bands: Math.ceil(Math.log(highHz / lowHz) / Math.log(most) - 1e-12) };
  }
  return {
    possible: true,
    parallelF,
    inductanceH: 1 / ((2 * Math.PI * lowHz) ** 2 * (mostF + strayF + parallelF)),
  };
}

/** Turns that couple a tuned coil to a load for most power, rounded to whole ones, and what the rounding costs. */
export function couplingWinding(input: {
  readonly freqHz: number;
  readonly inductanceH: number;
  readonly q: number;
  readonly turns: number;
  readonly loadOhm: number;
}) {
  for (const [name, value] of Object.entries(input)) requirePositive(value, name);
  const parallelOhm = input.q * 2 * Math.PI * input.freqHz * input.inductanceH;
  const turnsRatio = Math.sqrt(parallelOhm / input.loadOhm);
  const coupling = Math.max(1, Math.round(input.turns / turnsRatio));
  const reflected = input.loadOhm * (input.turns / coupling) ** 2;
  return {
    turnsRatio,
    couplingTurns: coupling,
    loadedQ: (input.q * reflected) / (reflected + parallelOhm),
    mismatchLossDb: -powerDb((4 * parallelOhm * reflected) / (parallelOhm + reflected) ** 2),
  };
}

/** A coil that can be wound: on a core, and in air. */
export interface Winding {
  /** Whole turns on a core (a pass through the hole is one), and the error they leave, ratio. */
  readonly coreTurns: number;
  readonly coreError: number;
  /** Turns of a single layer in air at the stated pitch, and its length. */
  readonly airTurns: number;
  readonly airLengthM: number;
}

/** Turns on a core for an inductance, N = √(L/A_L): as they come out, as whole passes through the hole, and the inductance of these. */
export function coreTurns(henry: number, alHenry: number) {
  requirePositive(henry, 'Inductance (H)');
  requirePositive(alHenry, 'Inductance factor (H per turn²)');
  const turnsExact = Math.sqrt(henry / alHenry);
  const turns = Math.max(1, Math.round(turnsExact));
  return { turnsExact, turns, inductanceH: turns ** 2 * alHenry };
}

/**
 * Turns for an inductance: N = √(L/A_L) on a core, rounded to whole turns; in air by Nagaoka's current sheet, solved for the turns at a given mean
 * diameter and pitch.
 * @param alHenry inductance factor of the core, H per turn².
 */
export function windingFor(
  henry: number,
  coil: { readonly alHenry: number; readonly diameterM: number; readonly pitchM: number },
): Winding {
  requirePositive(coil.pitchM, 'Pitch (m)');
  const core = coreTurns(henry, coil.alHenry);
  const air = (turns: number): number =>
    solenoid({ diameterM: coil.diameterM, lengthM: turns * coil.pitchM, turns }).inductanceH;
  let [low, high] = [0.05, 2];
  while (air(high) < henry) high *= 2;
  for (let round = 0; round < 60; round += 1) {
    const middle = (low + high) / 2;
    if (air(middle) < henry) low = middle;
    else high = middle;
  }
  return {
    coreTurns: core.turns,
    coreError: core.inductanceH / henry - 1,
    airTurns: high,
    airLengthM: high * coil.pitchM,
  };
}
