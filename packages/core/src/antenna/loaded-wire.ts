import { wavelengthM } from '../units/wavelength';

/** Characteristic impedance of one arm of a dipole as a line, ohm: 60 (ln(2l/a) − 1). Source: Schelkunoff; Terman, Radio Engineers' Handbook (from memory). */
const armOhm = (armM: number, diameterM: number): number => 60 * (Math.log((4 * armM) / diameterM) - 1);

/**
 * Reactance in the middle of an arm that brings a short dipole to resonance, ohm: Z₀ (cot kl₂ − tan kl₁), the arm taken as a line open at its end.
 * @param innerM from the feed to the coil. @param outerM from the coil to the end.
 */
export function loadingOhm(freqHz: number, innerM: number, outerM: number, diameterM: number): number {
  const k = (2 * Math.PI) / wavelengthM(freqHz);
  return armOhm(innerM + outerM, diameterM) * (1 / Math.tan(k * outerM) - Math.tan(k * innerM));
}

/** Length from a reactance to the end of an arm that brings it to resonance, m: the same solved for l₂. */
export function outerLengthM(freqHz: number, innerM: number, loadOhm: number, diameterM: number): number {
  const k = (2 * Math.PI) / wavelengthM(freqHz);
  const ohm = armOhm(2 * innerM, diameterM);
  const cotangent = loadOhm / ohm + Math.tan(k * innerM);
  const angle = Math.atan2(1, cotangent);
  return angle / k;
}
