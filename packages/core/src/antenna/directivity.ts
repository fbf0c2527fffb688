import { gaussLegendre } from '../numeric/gauss-legendre';
import { powerDb } from '../units/decibel';

/** Power over elevation and azimuth (radians), any scale; zero where nothing is received. */
export type PowerPattern = (elevationRad: number, azimuthRad: number) => number;

const QUADRANT_POINTS = 64;

/** Average of a pattern over the WHOLE sphere. Each octant is integrated on its own, so that a pattern may be cut at 90°. */
function averagePower(pattern: PowerPattern): number {
  const { nodes, weights } = gaussLegendre(QUADRANT_POINTS);
  let sum = 0;
  for (const half of [-1, 1]) {
    for (let i = 0; i < nodes.length; i += 1) {
      const elevation = Math.asin((half + nodes[i]) / 2);
      for (let quarter = 0; quarter < 4; quarter += 1) {
        for (let j = 0; j < nodes.length; j += 1) {
          const azimuth = (quarter + (1 + nodes[j]) / 2) * (Math.PI / 2);
          sum += (weights[i] / 2) * (weights[j] / 2) * (Math.PI / 2) * pattern(elevation, azimuth);
        }
      }
    }
  }
  return sum / (4 * Math.PI);
}

/**
 * Receiving directivity factor: gain toward a direction over the average on the whole sphere, dB; null in a null.
 * Right for noise that comes from everywhere alike.
 */
export function receivingDirectivityDb(pattern: PowerPattern, elevationDeg: number, azimuthDeg: number): number | null {
  const toward = pattern((elevationDeg * Math.PI) / 180, (azimuthDeg * Math.PI) / 180);
  return toward > 0 ? powerDb(toward / averagePower(pattern)) : null;
}

/** Patterns with a closed form. Over perfect ground nothing arrives from below. */
export const CLOSED_PATTERNS = {
  shortVerticalOverPerfectGround: (): PowerPattern => (a) => (a < 0 ? 0 : Math.cos(a) ** 2),
  twoVerticalsEndfire:
    (spacingWavelengths: number, phaseRad: number): PowerPattern =>
    (a, p) => {
      if (a < 0) return 0;
      const turn = 2 * Math.PI * spacingWavelengths * Math.cos(a) * Math.cos(p) - phaseRad;
      return Math.cos(a) ** 2 * (2 + 2 * Math.cos(turn));
    },
  smallLoopOverPerfectGround: (): PowerPattern => (a, p) => (a < 0 ? 0 : 1 - (Math.cos(a) * Math.sin(p)) ** 2),
  cosPower:
    (power: number): PowerPattern =>
    (a, p) => {
      const forward = Math.cos(a) * Math.cos(p);
      return forward > 0 ? forward ** power : 0;
    },
  halfWaveDipoleFreeSpace: (): PowerPattern => (a) => {
    const cos = Math.cos(a);
    return Math.abs(cos) < 1e-9 ? 0 : (Math.cos((Math.PI / 2) * Math.sin(a)) / cos) ** 2;
  },
};
