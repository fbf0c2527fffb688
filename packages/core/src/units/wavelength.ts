import { SPEED_OF_LIGHT_M_PER_S } from './constants';

/** Free-space wavelength. */
export const wavelengthM = (freqHz: number): number => SPEED_OF_LIGHT_M_PER_S / freqHz;
/** Free-space wave number 2π/λ, rad/m. */
export const waveNumberRadPerM = (freqHz: number): number => (2 * Math.PI * freqHz) / SPEED_OF_LIGHT_M_PER_S;
