import { requirePositive, requireRange } from '../errors';
import { RAD } from '../units/constants';
import { powerRatio } from '../units/decibel';

/** What is left of the beginning of the world, K. */
const COSMIC_K = 2.7;
/** Mean temperature of the air that absorbs, K. Source: ITU-R P.372, clear sky. */
const AIR_K = 275;
/** Temperature of the ground, K. */
const GROUND_K = 290;
/** Vapour of a middle day, g/m³. Source: reference of ITU-R P.372's brightness curves. */
const VAPOUR_G_PER_M3 = 7.5;
/** Radius of the earth for refracted rays, km; equivalent height of the dry air. Source: ITU-R P.676 and P.618. */
const EARTH_KM = 8500;
const DRY_KM = 6;

/** Absorption of dry air at the ground, dB/km. Source: ITU-R P.676 (simple formula below 57 GHz, 15 °C, 1013 hPa; constants from memory). */
const dryDbPerKm = (ghz: number): number =>
  (7.27 / (ghz ** 2 + 0.351) + 7.5 / ((ghz - 57) ** 2 + 2.44)) * ghz ** 2 * 1e-3;

/** Absorption of vapour at the ground, dB/km. Source: as `dryDbPerKm`. */
const vapourDbPerKm = (ghz: number): number =>
  (3.27e-2 +
    1.67e-3 * VAPOUR_G_PER_M3 +
    7.7e-4 * Math.sqrt(ghz) +
    3.79 / ((ghz - 22.235) ** 2 + 9.81) +
    11.73 / ((ghz - 183.31) ** 2 + 11.85) +
    4.01 / ((ghz - 325.153) ** 2 + 10.44)) *
  ghz ** 2 *
  VAPOUR_G_PER_M3 *
  1e-4;

/** Equivalent height of vapour, km: more at its line. Source: as `dryDbPerKm`. */
const vapourKm = (ghz: number): number => 1.65 * (1 + 1.61 / ((ghz - 22.23) ** 2 + 2.91));

/** How many times a layer is crossed compared with straight up. Source: ITU-R P.618, the formula for low elevations. */
function crossings(elevationDeg: number, heightKm: number): number {
  const sine = Math.sin(elevationDeg * RAD);
  return 2 / (Math.sqrt(sine ** 2 + (2 * heightKm) / EARTH_KM) + sine);
}

/** Frequencies between which the model is stated, Hz; below them the air gives next to nothing. */
const MOST_HZ = 50e9;

/**
 * Brightness of a clear sky without the galaxy, K: air by oxygen and vapour at 7.5 g/m³, and 2.7 K behind it. Range: to 50 GHz; a fifth or 5 K either way,
 * because vapour changes from day to day; rain adds tens of kelvin above 5 GHz and is not counted. The galaxy is a part of its own.
 * @param elevationDeg 0 to 90. Source: radiative transfer of one layer; ITU-R P.372, P.676.
 */
export function skyTemperatureK(freqHz: number, elevationDeg: number): number {
  requirePositive(freqHz, 'Frequency (Hz)');
  requireRange(elevationDeg, 'Elevation (degrees)', 0, 90);
  const ghz = Math.min(freqHz, MOST_HZ) / 1e9;
  const lossDb =
    dryDbPerKm(ghz) * DRY_KM * crossings(elevationDeg, DRY_KM) +
    vapourDbPerKm(ghz) * vapourKm(ghz) * crossings(elevationDeg, vapourKm(ghz));
  const passed = powerRatio(-lossDb);
  return AIR_K * (1 - passed) + COSMIC_K * passed;
}

/** Share of the view that is warm earth: of an antenna near the ground, and of one that looks up, past its edge. Assumed: 0.4 to 1, and 0.05 to 0.2. */
const EARTH_SHARE = { low: 0.65, up: 0.1 } as const;
/** A low antenna looks this high on the average, degrees. Assumed. */
const LOW_DEG = 10;
/** Where nobody said how high a dish points, degrees; what lies lower than the least is no sky. Assumed. */
const USUAL_ELEVATION_DEG = 30;
const LEAST_ELEVATION_DEG = 5;

/** From here up nobody listens but with what looks at the sky, Hz. Common practice, no source. */
export const AIMED_FROM_HZ = 3e9;

/** What an antenna above 30 MHz sees: sky and warm earth. */
export interface Surroundings {
  readonly skyK: number;
  readonly elevationDeg: number;
  /** Share of the view that is earth, 0 to 1. */
  readonly earthShare: number;
  readonly antennaK: number;
}

/**
 * Temperature of the surroundings of a lossless antenna, the galaxy left out.
 * @param look absent: it stands near the ground; else it looks up at that elevation in degrees, 30 where nobody said it or where it lies under 5. Source: sum over the view.
 */
export function surroundings(freqHz: number, look?: { readonly elevationDeg?: number }): Surroundings {
  const said = look?.elevationDeg;
  const usualDeg = look ? USUAL_ELEVATION_DEG : LOW_DEG;
  const elevationDeg = said === undefined || said < LEAST_ELEVATION_DEG ? usualDeg : said;
  const earthShare = EARTH_SHARE[look ? 'up' : 'low'];
  const skyK = skyTemperatureK(freqHz, elevationDeg);
  return { skyK, elevationDeg, earthShare, antennaK: earthShare * GROUND_K + (1 - earthShare) * skyK };
}
