import { requirePositive, requireRange } from '../errors';
import { add, complex, divide, magnitude, multiply, scale, subtract, type Complex } from '../numeric/complex';

/** |Γ| this close to 1 counts as total reflection: SWR and mismatch loss have no finite value there. */
const TOTAL_REFLECTION = 1 - 1e-9;

/** Reflection coefficient of an impedance on a real reference. Source: Pozar, Microwave Engineering. */
export const reflectionOf = (z: Complex, referenceOhm: number): Complex =>
  divide(subtract(z, complex(referenceOhm)), add(z, complex(referenceOhm)));

/** Impedance of a reflection coefficient on a real reference; undefined for an ideal open (Γ = 1). */
export function impedanceOf(gamma: Complex, referenceOhm: number): Complex | undefined {
  const below = subtract(complex(1), gamma);
  if (magnitude(below) < 1e-12) return undefined;
  return scale(divide(add(complex(1), gamma), below), referenceOhm);
}

/** SWR for |Γ|; null when everything is reflected (or more: not a passive reading). */
export const swrOf = (gammaMagnitude: number): number | null =>
  gammaMagnitude >= TOTAL_REFLECTION ? null : (1 + gammaMagnitude) / (1 - gammaMagnitude);

/** |Γ| of an SWR ≥ 1. */
export const gammaOfSwr = (swr: number): number => (swr - 1) / (swr + 1);

/** Return loss, dB ≥ 0; null for a perfect match (no reflection at all). */
export const returnLossDb = (gammaMagnitude: number): number | null =>
  gammaMagnitude === 0 ? null : Math.max(0, -20 * Math.log10(gammaMagnitude));

/** Power lost to reflection at one joint, dB; null for total reflection. */
export const mismatchLossDb = (gammaMagnitude: number): number | null =>
  gammaMagnitude >= TOTAL_REFLECTION ? null : -10 * Math.log10(1 - gammaMagnitude ** 2);

/**
 * The same impedance seen on another real reference. SWR alone cannot be changed this way: the complex value is needed.
 */
export function renormalise(gamma: Complex, fromOhm: number, toOhm: number): Complex {
  requirePositive(fromOhm, 'Old reference (ohm)');
  requirePositive(toOhm, 'New reference (ohm)');
  const r = (toOhm - fromOhm) / (toOhm + fromOhm);
  return divide(subtract(gamma, complex(r)), subtract(complex(1), scale(gamma, r)));
}

/** Limits of the gain error where two mismatched ports meet with unknown phase, dB; null where it grows without bound. */
export function mismatchUncertainty(
  gamma1: number,
  gamma2: number,
): { readonly maxDb: number | null; readonly minDb: number; readonly spreadDb: number | null } {
  requireRange(gamma1, 'First reflection', 0, 1);
  requireRange(gamma2, 'Second reflection', 0, 1);
  const product = gamma1 * gamma2;
  const minDb = -20 * Math.log10(1 + product);
  if (product >= TOTAL_REFLECTION) return { maxDb: null, minDb, spreadDb: null };
  const maxDb = -20 * Math.log10(1 - product);
  return { maxDb, minDb, spreadDb: maxDb - minDb };
}

/** Fraction of the source's available power that a load accepts: 4 R_s R_l / |Z_s + Z_l|² (0..1). */
export function powerTransfer(source: Complex, load: Complex): number {
  const whole = magnitude(add(source, load)) ** 2;
  return whole === 0 ? 0 : Math.min(1, (4 * source.re * load.re) / whole);
}

/** Voltage-wave product e^{∓2γl} applied to a reflection: positive `wavelengths` and `lossDb` move towards the generator. */
export function alongLine(gamma: Complex, oneWayLossDb: number, wavelengths: number): Complex {
  const size = 10 ** (-oneWayLossDb / 10);
  const turn = -4 * Math.PI * wavelengths;
  return multiply(gamma, complex(size * Math.cos(turn), size * Math.sin(turn)));
}

/**
 * What a return loss measured through a bridge or coupler may read: its own leak adds to the reflection with unknown phase.
 * @returns least and largest indication, dB; null where the leak can hide the reflection whole.
 */
export function directivityBounds(trueReturnLossDb: number, directivityDb: number) {
  const [reflected, leak] = [trueReturnLossDb, directivityDb].map((db) => 10 ** (-db / 20));
  const least = -20 * Math.log10(reflected + leak);
  const rest = Math.abs(reflected - leak);
  return { leastDb: least, mostDb: rest < 1e-9 ? null : -20 * Math.log10(rest) };
}

/** Loss of a coupler's main line by what it couples out, dB. */
export const mainLineLossDb = (couplingDb: number): number => -10 * Math.log10(1 - 10 ** (-couplingDb / 10));
