import { BOLTZMANN_J_PER_K } from './constants';

/** Noise of a resistance at a temperature, V/√Hz. Source: Nyquist, Phys. Rev. 32 (1928) 110. */
export const thermalVoltsPerRootHz = (ohm: number, kelvin: number): number =>
  Math.sqrt(4 * BOLTZMANN_J_PER_K * kelvin * ohm);
