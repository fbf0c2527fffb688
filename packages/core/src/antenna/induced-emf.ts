import { OutOfRangeError, requirePositive } from '../errors';
import { frequencyText, lengthText } from '../units/format';
import { complex, type Complex } from '../numeric/complex';
import { bisect, sineCosineIntegrals } from '../numeric/special';
import { FREE_SPACE_IMPEDANCE_OHM, SPEED_OF_LIGHT_M_PER_S, VACUUM_PERMEABILITY_H_PER_M } from '../units/constants';
import { waveNumberRadPerM, wavelengthM } from '../units/wavelength';

const EULER_GAMMA = 0.5772156649015329;

/** Above this length the sinusoidal current no longer resembles the real one at the feed (its node nears the feed at one λ). */
export const INDUCED_EMF_MAX_WAVELENGTHS = 0.75;

/**
 * Radiation resistance and reactance of a thin centre-fed dipole referred to its current MAXIMUM.
 * Source: Balanis, Antenna Theory, eqs. 8-60a/b with 4-70 (from memory).
 */
function impedanceAtMaximum(lengthM: number, radiusM: number, freqHz: number): Complex {
  const k = waveNumberRadPerM(freqHz);
  const kl = k * lengthM;
  const one = sineCosineIntegrals(kl);
  const two = sineCosineIntegrals(2 * kl);
  const thin = sineCosineIntegrals((2 * k * radiusM ** 2) / lengthM);
  const re =
    EULER_GAMMA +
    Math.log(kl) -
    one.ci +
    0.5 * Math.sin(kl) * (two.si - 2 * one.si) +
    0.5 * Math.cos(kl) * (EULER_GAMMA + Math.log(kl / 2) + two.ci - 2 * one.ci);
  const im = 2 * one.si + Math.cos(kl) * (2 * one.si - two.si) - Math.sin(kl) * (2 * one.ci - two.ci - thin.ci);
  return complex((FREE_SPACE_IMPEDANCE_OHM / (2 * Math.PI)) * re, (FREE_SPACE_IMPEDANCE_OHM / (4 * Math.PI)) * im);
}

/**
 * Feed impedance of a straight centre-fed dipole in free space by the induced-EMF method (sinusoidal current).
 * @param lengthM overall length; @param radiusM wire radius.
 * Holds to INDUCED_EMF_MAX_WAVELENGTHS; near one wavelength it grows without bound, where a real antenna does not.
 */
export function dipoleImpedance(lengthM: number, radiusM: number, freqHz: number): Complex {
  requirePositive(lengthM, 'Length (m)');
  requirePositive(radiusM, 'Wire radius (m)');
  requirePositive(freqHz, 'Frequency (Hz)');
  const atMaximum = impedanceAtMaximum(lengthM, radiusM, freqHz);
  const toFeed = Math.sin((waveNumberRadPerM(freqHz) * lengthM) / 2) ** 2;
  return complex(atMaximum.re / toFeed, atMaximum.im / toFeed);
}

/** Directivity broadside, as a ratio: 120·(1 − cos kl/2)²/R_max; 1.5 for a short dipole, 1.64 for a half wave. */
export function dipoleDirectivity(lengthM: number, freqHz: number): number {
  const k = waveNumberRadPerM(freqHz);
  const peak = 1 - Math.cos((k * lengthM) / 2);
  return (120 * peak ** 2) / impedanceAtMaximum(lengthM, lengthM / 1e4, freqHz).re;
}

/**
 * Ohmic resistance at the feed of a dipole with sinusoidal current, Ω; skin effect of a round wire thick against the skin depth.
 */
export function dipoleLossOhm(lengthM: number, radiusM: number, freqHz: number, conductivitySPerM: number): number {
  const omega = 2 * Math.PI * freqHz;
  const surfaceOhm = Math.sqrt((omega * VACUUM_PERMEABILITY_H_PER_M) / (2 * conductivitySPerM));
  const perMetre = surfaceOhm / (2 * Math.PI * radiusM);
  const kl = waveNumberRadPerM(freqHz) * lengthM;
  // ∫ sin²(k(l/2 − |z|)) dz over the wire, referred to the feed current
  const share = (lengthM / 2) * (1 - Math.sin(kl) / kl);
  return (perMetre * share) / Math.sin(kl / 2) ** 2;
}

/** Resonant overall length of a half-wave dipole, its shortening against λ/2, and its resistance there. */
export interface ResonantDipole {
  readonly lengthM: number;
  readonly shortening: number;
  readonly resistanceOhm: number;
}

/** The length near half a wave at which X = 0. @throws OutOfRangeError for a wire so thick that no such length exists. */
export function resonantDipole(freqHz: number, diameterM: number): ResonantDipole {
  requirePositive(freqHz, 'Frequency (Hz)');
  requirePositive(diameterM, 'Wire diameter (m)');
  const half = wavelengthM(freqHz) / 2;
  if (diameterM >= half / 10)
    throw new OutOfRangeError(
      `A conductor of ${lengthText(diameterM)} is too thick at ${frequencyText(freqHz)}: it must stay below a twentieth of the wavelength, ${lengthText(half / 10, 2)}. Use a thinner one, or another kind.`,
      'Conductor diameter (m)',
    );
  const lengthM = bisect((length) => dipoleImpedance(length, diameterM / 2, freqHz).im, 0.6 * half, 1.02 * half, 1e-10);
  return {
    lengthM,
    shortening: lengthM / half,
    resistanceOhm: dipoleImpedance(lengthM, diameterM / 2, freqHz).re,
  };
}

/** The frequency at which a straight dipole of this length and diameter resonates near half a wave. */
export function dipoleResonanceHz(lengthM: number, diameterM: number): number {
  requirePositive(lengthM, 'Length (m)');
  const halfWaveHz = SPEED_OF_LIGHT_M_PER_S / (2 * lengthM);
  return bisect((freq) => dipoleImpedance(lengthM, diameterM / 2, freq).im, 0.6 * halfWaveHz, 1.02 * halfWaveHz, 1e-10);
}

/**
 * Mutual impedance of two parallel half-wave dipoles side by side, sinusoidal current.
 * Source: Carter, "Circuit relations in radiating systems", Proc. IRE 20 (1932) 1004 (from memory).
 */
export function parallelDipoleMutual(distanceM: number, freqHz: number): Complex {
  const k = waveNumberRadPerM(freqHz);
  const length = wavelengthM(freqHz) / 2;
  const slant = Math.hypot(distanceM, length);
  const u0 = sineCosineIntegrals(k * distanceM);
  const u1 = sineCosineIntegrals(k * (slant + length));
  const u2 = sineCosineIntegrals(k * (slant - length));
  return complex(30 * (2 * u0.ci - u1.ci - u2.ci), -30 * (2 * u0.si - u1.si - u2.si));
}
