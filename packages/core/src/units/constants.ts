/** Speed of light in vacuum, m/s (exact, SI). */
export const SPEED_OF_LIGHT_M_PER_S = 299_792_458;
/** Boltzmann constant, J/K (exact, SI). */
export const BOLTZMANN_J_PER_K = 1.380649e-23;
/** Standard noise temperature, K (IEEE definition of noise figure). */
export const STANDARD_TEMPERATURE_K = 290;
/** Vacuum permeability, H/m (CODATA; 4π·1e-7 to 10 digits). */
export const VACUUM_PERMEABILITY_H_PER_M = 4e-7 * Math.PI;
/** Vacuum permittivity, F/m. */
export const VACUUM_PERMITTIVITY_F_PER_M = 1 / (VACUUM_PERMEABILITY_H_PER_M * SPEED_OF_LIGHT_M_PER_S ** 2);
/** Wave impedance of free space, Ω. */
export const FREE_SPACE_IMPEDANCE_OHM = VACUUM_PERMEABILITY_H_PER_M * SPEED_OF_LIGHT_M_PER_S;
/** Thermal noise density of a matched source at 290 K, dBm/Hz (−173.975; not the rounded −174). */
export const THERMAL_NOISE_DBM_PER_HZ = 10 * Math.log10(BOLTZMANN_J_PER_K * STANDARD_TEMPERATURE_K * 1000);
/** Gain of a half-wave dipole over isotropic in free space, dB. */
export const DIPOLE_GAIN_DBI = 2.15;
/** Conductivity of annealed copper, S/m (IACS 100 %). */
export const COPPER_CONDUCTIVITY_S_PER_M = 5.8e7;

/** Radians in a degree. */
export const RAD = Math.PI / 180;
