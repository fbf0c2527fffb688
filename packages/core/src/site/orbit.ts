import { requirePositive, requireRange } from '../errors';
import { RAD, SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import type { Position } from './place';

/** Equatorial radius (WGS 84), geostationary radius, km, and the earth's gravitational parameter, km³/s². */
const EARTH_RADIUS_KM = 6378.137;
const GEOSTATIONARY_RADIUS_KM = 42_164.17;
const EARTH_GM_KM3_PER_S2 = 398_600.4418;

/** Free-space path loss between isotropic antennas, dB. */
export function freeSpaceLossDb(distanceM: number, freqHz: number): number {
  requirePositive(distanceM, 'Distance (m)');
  requirePositive(freqHz, 'Frequency (Hz)');
  return 20 * Math.log10((4 * Math.PI * distanceM * freqHz) / SPEED_OF_LIGHT_M_PER_S);
}

/** Where a geostationary satellite stands. */
export type LookAngle =
  | {
      readonly visible: true;
      /** Clockwise from true north. */
      readonly azimuthDeg: number;
      readonly elevationDeg: number;
      readonly rangeKm: number;
      /** Turn of the polarisation plane, clockwise as seen from behind the dish, ±90°. */
      readonly skewDeg: number;
    }
  | { readonly visible: false; readonly elevationDeg: number };

/**
 * Direction of a geostationary satellite on a spherical earth; elevation and azimuth within 0.03° of the ellipsoid, skew within 0.33°.
 * Refraction and the real horizon are not counted: doubt anything under 5°. Source: spherical trigonometry; ITU-R S.484.
 */
export function geostationaryLook(site: Position, satelliteLonDeg: number): LookAngle {
  requireRange(site.latDeg, 'Latitude (degrees)', -90, 90);
  requireRange(satelliteLonDeg, 'Satellite longitude (degrees)', -360, 360);
  const lat = site.latDeg * RAD;
  const east = wrapDeg(site.lonDeg - satelliteLonDeg) * RAD;
  const cosGamma = Math.cos(lat) * Math.cos(east);
  const sinGamma = Math.sqrt(1 - cosGamma * cosGamma);
  const elevationDeg = Math.atan2(cosGamma - EARTH_RADIUS_KM / GEOSTATIONARY_RADIUS_KM, sinGamma) / RAD;
  if (elevationDeg <= 0) return { visible: false, elevationDeg };
  // on the equator the skew is ±90° east or west of the satellite, and none below it
  const skew = Math.abs(lat) < 1e-12 ? (Math.sign(east) * Math.PI) / 2 : Math.atan(Math.sin(east) / Math.tan(lat));
  return {
    visible: true,
    azimuthDeg: (Math.atan2(-Math.sin(east), -Math.sin(lat) * Math.cos(east)) / RAD + 360) % 360,
    elevationDeg,
    rangeKm: Math.sqrt(
      EARTH_RADIUS_KM ** 2 + GEOSTATIONARY_RADIUS_KM ** 2 - 2 * EARTH_RADIUS_KM * GEOSTATIONARY_RADIUS_KM * cosGamma,
    ),
    skewDeg: skew / RAD,
  };
}

/** An angle brought into −180..180°. */
const wrapDeg = (deg: number): number => ((((deg + 180) % 360) + 360) % 360) - 180;

/**
 * A circular low orbit over a resting spherical earth: what a pass at best offers. The earth's turning changes duration and Doppler by
 * about 6.5 % · cos(inclination). Source: two-body motion and plane trigonometry.
 */
export function circularOrbit(
  altitudeKm: number,
  freqHz: number,
  at: { readonly elevationDeg: number; readonly leastDeg: number; readonly highestDeg: number },
) {
  requirePositive(altitudeKm, 'Altitude (km)');
  requirePositive(freqHz, 'Frequency (Hz)');
  for (const [name, value] of Object.entries(at)) requireRange(value, name, 0, 90);
  const radiusKm = EARTH_RADIUS_KM + altitudeKm;
  const turnPerS = Math.sqrt(EARTH_GM_KM3_PER_S2 / radiusKm ** 3);
  const speedKmPerS = turnPerS * radiusKm;
  const rangeKm = (elevationDeg: number): number => {
    const s = EARTH_RADIUS_KM * Math.sin(elevationDeg * RAD);
    return -s + Math.sqrt(s * s + radiusKm ** 2 - EARTH_RADIUS_KM ** 2);
  };
  /** Angle at the earth's centre between the listener and the point below the satellite. */
  const centralAngle = (elevationDeg: number): number =>
    Math.acos((EARTH_RADIUS_KM * Math.cos(elevationDeg * RAD)) / radiusKm) - elevationDeg * RAD;
  const share = Math.cos(centralAngle(at.leastDeg)) / Math.cos(centralAngle(at.highestDeg));
  const rateKmPerS = (speedKmPerS * EARTH_RADIUS_KM * Math.cos(at.elevationDeg * RAD)) / radiusKm;
  return {
    periodS: (2 * Math.PI) / turnPerS,
    speedKmPerS,
    rangeKm: rangeKm(at.elevationDeg),
    pathLossDb: freeSpaceLossDb(rangeKm(at.elevationDeg) * 1000, freqHz),
    pathLossZenithDb: freeSpaceLossDb(altitudeKm * 1000, freqHz),
    dopplerHz: (freqHz * rateKmPerS * 1000) / SPEED_OF_LIGHT_M_PER_S,
    /** 0 for a pass that never climbs above the least elevation. */
    durationS: at.highestDeg <= at.leastDeg ? 0 : (2 / turnPerS) * Math.acos(share),
  };
}

/** Effective earth radius over the real one for radio waves in a usual atmosphere. Source: ITU-R P.310. */
export const EFFECTIVE_EARTH = 4 / 3;
/** Mean radius, m. */
const MEAN_EARTH_M = 6_371_000;

/** Distance to the horizon from a height, km. @param earthRatio effective over real radius: 1 for light, 4/3 for radio. */
export function horizonKm(heightM: number, earthRatio: number): number {
  requireRange(heightM, 'Height (m)', 0);
  return Math.sqrt(2 * earthRatio * MEAN_EARTH_M * heightM) * 1e-3;
}

/** Distance to the radio horizon between two heights, km (effective earth radius 4/3). Source: ITU-R P.310. */
export function radioHorizonKm(heightM: number, otherHeightM: number): number {
  requireRange(heightM, 'Height (m)', 0);
  requireRange(otherHeightM, 'Other height (m)', 0);
  return 4.12 * (Math.sqrt(heightM) + Math.sqrt(otherHeightM));
}
