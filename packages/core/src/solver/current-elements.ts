import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import type { Solution } from './solve';
import { gaussPoints } from './pair';

// named once: hot loops must not look them up on a global
const { cos, sin } = Math;

/** Currents of a solution as points: place, and current moment I·dl along x, y, z; charge moment (dI/ds)·dl. */
export interface CurrentElements {
  readonly count: number;
  readonly places: Float64Array;
  /** x, y, z components, re and im: 6 per element (A·m). */
  readonly moments: Float64Array;
  /** dI/ds·dl, re and im (A). */
  readonly divergence: Float64Array;
}

/** Current at the start and the end of every segment along it: 4 values each (re, im, re, im), A. */
export function segmentCurrents(solution: Solution, port = 0): Float64Array {
  const { mesh, currents } = solution;
  const out = new Float64Array(4 * mesh.segments);
  for (let half = 0; half < 2 * mesh.segments; half += 1)
    for (let e = mesh.halfStart[half]; e < mesh.halfStart[half + 1]; e += 1) {
      out[2 * half] += mesh.halfSign[e] * currents[port][2 * mesh.halfUnknown[e]];
      out[2 * half + 1] += mesh.halfSign[e] * currents[port][2 * mesh.halfUnknown[e] + 1];
    }
  return out;
}

/** Breaks the currents with 1 A into a port into points. @param perSegment Gauss points on each segment; 2 serve far fields (a phase error of 1e-5 on segments of λ/20). */
export function currentElements(solution: Solution, port = 0, perSegment = 3): CurrentElements {
  const { mesh, freqHz } = solution;
  const k = (2 * Math.PI * freqHz) / SPEED_OF_LIGHT_M_PER_S;
  const ends = segmentCurrents(solution, port);
  const points = gaussPoints(perSegment);
  const count = mesh.segments * perSegment;
  const places = new Float64Array(3 * count);
  const moments = new Float64Array(6 * count);
  const divergence = new Float64Array(2 * count);
  for (let i = 0, at = 0; i < mesh.segments; i += 1) {
    const length = mesh.lengthM[i];
    const sinKl = sin(k * length);
    for (let g = 0; g < perSegment; g += 1, at += 1) {
      const s = length * points.at[g];
      const w = (length * points.weight[g]) / sinKl;
      const phi0 = w * sin(k * (length - s));
      const phi1 = w * sin(k * s);
      const slope0 = -w * k * cos(k * (length - s));
      const slope1 = w * k * cos(k * s);
      const re = phi0 * ends[4 * i] + phi1 * ends[4 * i + 2];
      const im = phi0 * ends[4 * i + 1] + phi1 * ends[4 * i + 3];
      for (let axis = 0; axis < 3; axis += 1) {
        const t = mesh.direction[3 * i + axis];
        places[3 * at + axis] = mesh.start[3 * i + axis] + s * t;
        moments[6 * at + 2 * axis] = re * t;
        moments[6 * at + 2 * axis + 1] = im * t;
      }
      divergence[2 * at] = slope0 * ends[4 * i] + slope1 * ends[4 * i + 2];
      divergence[2 * at + 1] = slope0 * ends[4 * i + 1] + slope1 * ends[4 * i + 3];
    }
  }
  return { count, places, moments, divergence };
}
