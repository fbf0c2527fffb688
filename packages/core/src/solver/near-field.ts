import type { Complex } from '../numeric/complex';
import { FREE_SPACE_IMPEDANCE_OHM, SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { currentElements } from './current-elements';
import { imageFactor, imageRange } from './images';
import { acceptedPowerW } from './far-field';
import { GeometryError, type Point } from './model';
import type { Solution } from './solve';
import { groundTable, tableReader, type RealGround } from './ground-table';

// named once: hot loops must not look them up on a global
const { cos, hypot, max, min, sin, sqrt } = Math;

type Vector = readonly [Complex, Complex, Complex];

/** Fields at a point with 1 A (peak) into the port, peak phasors. */
interface NearField {
  /** V/m along x, y, z. */
  readonly e: Vector;
  /** A/m along x, y, z. */
  readonly h: Vector;
}

/**
 * Electric and magnetic field at a point above the ground, from vector and scalar potential with their image and ground terms. Points
 * nearer to a wire than about a segment's length are rough.
 * @throws GeometryError for a point under the ground.
 */
function nearField(solution: Solution, point: Point, port = 0): NearField {
  const { model, freqHz } = solution;
  const k = (2 * Math.PI * freqHz) / SPEED_OF_LIGHT_M_PER_S;
  if (model.ground.type !== 'free' && point[2] < 0)
    throw new GeometryError('The point lies under the ground. Raise it.');
  const elements = currentElements(solution, port, 6);
  const step = min(0.002 / k, 0.01);
  const table = model.ground.type === 'real' ? pointTable(solution, model.ground, point, step) : undefined;
  const [kqr, kqi] = imageFactor(model.ground, freqHz);
  const kq: Complex = { re: kqr, im: kqi };
  const lookUp = table && tableReader(table);
  const s = new Float64Array(8);
  // potentials without their constants: A/(μ/4π) in [0..5], Φ·(4πε)·jω/(−1) = ∫I′G in [6, 7]
  const potentials = (x: number, y: number, z: number): Float64Array => {
    const out = new Float64Array(8);
    for (let i = 0; i < elements.count; i += 1) {
      const dx = x - elements.places[3 * i];
      const dy = y - elements.places[3 * i + 1];
      const zs = elements.places[3 * i + 2];
      const m = elements.moments.subarray(6 * i, 6 * i + 6);
      const cr = elements.divergence[2 * i];
      const ci = elements.divergence[2 * i + 1];
      const addG = (dz: number, w: readonly [Complex, Complex, Complex, Complex]): void => {
        const r = sqrt(dx * dx + dy * dy + dz * dz);
        const gr = cos(k * r) / r;
        const gi = -sin(k * r) / r;
        for (let axis = 0; axis < 4; axis += 1) {
          const [ar, ai] = axis < 3 ? [m[2 * axis], m[2 * axis + 1]] : [cr, ci];
          const wr = w[axis].re * gr - w[axis].im * gi;
          const wi = w[axis].re * gi + w[axis].im * gr;
          out[2 * axis] += ar * wr - ai * wi;
          out[2 * axis + 1] += ar * wi + ai * wr;
        }
      };
      addG(z - zs, [ONE, ONE, ONE, ONE]);
      if (model.ground.type === 'perfect') addG(z + zs, [MINUS, MINUS, ONE, MINUS]);
      if (lookUp) {
        addG(z + zs, [ZERO, ZERO, kq, { re: -kq.re, im: -kq.im }]);
        const rho = sqrt(dx * dx + dy * dy);
        lookUp(s, rho, z + zs);
        const [cx, cy] = rho > 0 ? [dx / rho, dy / rho] : [0, 0];
        const times = (axis: number, ar: number, ai: number, at: number, sign = 1): void => {
          out[2 * axis] += sign * (ar * s[at] - ai * s[at + 1]);
          out[2 * axis + 1] += sign * (ar * s[at + 1] + ai * s[at]);
        };
        times(0, m[0], m[1], 0);
        times(1, m[2], m[3], 0);
        times(2, m[4], m[5], 6);
        times(3, cr, ci, 2);
        // G_zx = −cosφ S₃, G_xz = +cosφ S₃
        times(2, m[0] * cx + m[2] * cy, m[1] * cx + m[3] * cy, 4, -1);
        times(0, m[4] * cx, m[5] * cx, 4);
        times(1, m[4] * cy, m[5] * cy, 4);
      }
    }
    return out;
  };
  const here = potentials(...point);
  const slopes = [0, 1, 2].map((axis) => {
    const moved = (sign: number): Float64Array =>
      potentials(...(point.map((value, i) => (i === axis ? value + sign * step : value)) as [number, number, number]));
    const plus = moved(1);
    const less = moved(-1);
    return plus.map((value, i) => (value - less[i]) / (2 * step));
  });
  // E = −jωA − ∇Φ with ρ = −I′/(jω): E = −j(kη/4π)·a − j(η/4πk)·∇c
  const vector = (k * FREE_SPACE_IMPEDANCE_OHM) / (4 * Math.PI);
  const scalar = FREE_SPACE_IMPEDANCE_OHM / (4 * Math.PI * k);
  const e = [0, 1, 2].map((axis): Complex => {
    const re = vector * here[2 * axis] + scalar * slopes[axis][6];
    const im = vector * here[2 * axis + 1] + scalar * slopes[axis][7];
    return { re: im, im: -re };
  });
  const curl = (i: number, j: number): Complex => ({
    re: (slopes[i][2 * j] - slopes[j][2 * i]) / (4 * Math.PI),
    im: (slopes[i][2 * j + 1] - slopes[j][2 * i + 1]) / (4 * Math.PI),
  });
  return { e: [e[0], e[1], e[2]], h: [curl(1, 2), curl(2, 0), curl(0, 1)] };
}

const ONE: Complex = { re: 1, im: 0 };
const MINUS: Complex = { re: -1, im: 0 };
const ZERO: Complex = { re: 0, im: 0 };

/** Ground table that reaches from the wires to the point. */
function pointTable(solution: Solution, ground: RealGround, point: Point, step: number) {
  const range = imageRange(solution.mesh);
  const { start, segments } = solution.mesh;
  let far = 0;
  let low = Infinity;
  for (let i = 0; i < segments; i += 1) {
    far = max(far, hypot(point[0] - start[3 * i], point[1] - start[3 * i + 1]));
    low = min(low, start[3 * i + 2]);
  }
  const lowest = max(1e-4, min(point[2] - step + range.leastM / 2, range.leastM));
  return groundTable(ground, solution.freqHz, {
    leastM: lowest,
    mostM: hypot(far + range.mostM, point[2] + range.mostM),
    leastHeightM: lowest,
    mostHeightM: point[2] + step + range.mostHeightM,
  });
}

const norm = (vector: Vector): number => sqrt(vector.reduce((sum, v) => sum + v.re ** 2 + v.im ** 2, 0));

/** Peak field strength at a point for an accepted power of 1 W: |E| in V/m and |H| in A/m, each per √W. */
export function nearFieldPerRootWatt(
  solution: Solution,
  point: Point,
  port = 0,
): { readonly e: number; readonly h: number } {
  const field = nearField(solution, point, port);
  const root = sqrt(acceptedPowerW(solution, port));
  return { e: norm(field.e) / root, h: norm(field.h) / root };
}
