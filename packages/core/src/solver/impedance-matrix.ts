import { FREE_SPACE_IMPEDANCE_OHM, SPEED_OF_LIGHT_M_PER_S, VACUUM_PERMITTIVITY_F_PER_M } from '../units/constants';
import type { Mesh } from './mesh';
import type { Ground, WireModel } from './model';
import { farPairInto, gaussPoints, NEAR_POINTS, nearPairInto, samplesOf, type Placed, type Samples } from './pair';
import { tableReader, type GroundTable, type TableRange } from './ground-table';
import { wireSurfaceImpedance } from './wire-loss';

// named once: hot loops must not look them up on a global
const { abs, atan2, cos, hypot, log, max, min, sin, sqrt } = Math;

const FAR_POINTS = gaussPoints(2);
const MIDDLE_POINTS = gaussPoints(3);
const LOSS_POINTS = gaussPoints(6);
/** Beyond this many segment lengths two points a side are enough. */
const FAR_LENGTHS = 6;

/** Relative complex permittivity of real ground at a frequency. */
export function groundPermittivity(
  ground: Extract<Ground, { type: 'real' }>,
  freqHz: number,
): { re: number; im: number } {
  return {
    re: ground.relPermittivity,
    im: -ground.conductivitySPerM / (2 * Math.PI * freqHz * VACUUM_PERMITTIVITY_F_PER_M),
  };
}

/** The mesh mirrored in z = 0: places and directions; currents get their signs where they are used. */
function mirrored(mesh: Placed): Placed {
  const flip = (values: Float64Array): Float64Array => values.map((value, i) => (i % 3 === 2 ? -value : value));
  return { start: flip(mesh.start), direction: flip(mesh.direction) };
}

/** Distances and angles of all images, for the ground table. */
export function imageRange(mesh: Mesh): TableRange {
  const { segments: n, start, direction, lengthM } = mesh;
  let lowest = Infinity;
  let highest = 0;
  const ends: number[][] = [];
  for (let i = 0; i < n; i += 1)
    for (const s of [0, lengthM[i]]) {
      const end = [0, 1, 2].map((axis) => start[3 * i + axis] + s * direction[3 * i + axis]);
      ends.push(end);
      lowest = min(lowest, end[2]);
      highest = max(highest, end[2]);
    }
  const minX = min(...ends.map((e) => e[0]));
  const maxX = max(...ends.map((e) => e[0]));
  const minY = min(...ends.map((e) => e[1]));
  const maxY = max(...ends.map((e) => e[1]));
  const widest = hypot(maxX - minX, maxY - minY);
  const h = 2 * max(lowest, 1e-6);
  return {
    leastM: h,
    mostM: max(hypot(widest, 2 * highest), 1.2 * h),
    lowestRad: atan2(h, widest + 1e-12),
    highestRad: Math.PI / 2,
    level: direction.every((value, i) => i % 3 !== 2 || abs(value) < 1e-9),
  };
}

/** Far-away pair: by the distance between the middles. */
function middleDistance(p: Placed, pi: number, lengthP: number, q: Placed, qi: number, lengthQ: number): number {
  let sum = 0;
  for (let axis = 0; axis < 3; axis += 1) {
    const d =
      p.start[3 * pi + axis] +
      0.5 * lengthP * p.direction[3 * pi + axis] -
      q.start[3 * qi + axis] -
      0.5 * lengthQ * q.direction[3 * qi + axis];
    sum += d * d;
  }
  return sqrt(sum);
}

/** Sample sets of one mesh at one frequency. */
interface SampleSets {
  readonly far: Samples;
  readonly middle: Samples;
  readonly near: Samples;
}

/**
 * Fills the impedance matrix of the unknown node currents, complex and symmetric, row-major [re, im, …], 2n² values:
 * Z = jωμ/4π ∬ t·t′ φφ′G + 1/(4πjωε) ∬ φ̇φ̇′G with its image terms, distributed losses and insulation. Lumped loads are not in it.
 * @param table ground integrals for real ground at this frequency.
 */
export function fillImpedanceMatrix(
  z: Float64Array,
  model: WireModel,
  mesh: Mesh,
  freqHz: number,
  table?: GroundTable,
): void {
  z.fill(0);
  const { segments: n, lengthM, radiusM, direction } = mesh;
  const k = (2 * Math.PI * freqHz) / SPEED_OF_LIGHT_M_PER_S;
  const image = model.ground.type === 'free' ? undefined : mirrored(mesh);
  const sets = (placed: Placed, withNear: boolean): SampleSets => ({
    far: samplesOf(placed, lengthM, k, FAR_POINTS),
    middle: samplesOf(placed, lengthM, k, MIDDLE_POINTS),
    near: withNear
      ? samplesOf(placed, lengthM, k, NEAR_POINTS)
      : samplesOf(placed, lengthM.subarray(0, 0), k, NEAR_POINTS),
  });
  const own = sets(mesh, table !== undefined);
  const mirror = image && sets(image, false);
  // K_q = (ε−1)/(ε+1): 1 on perfect ground
  const [kqr, kqi] = imageFactor(model.ground, freqHz);
  const pair = new Float64Array(16);
  const sum = new Float64Array(8); // 2×2 block of this pair, re and im
  const vector = k * FREE_SPACE_IMPEDANCE_OHM * (1 / (4 * Math.PI));
  const scalar = FREE_SPACE_IMPEDANCE_OHM / (4 * Math.PI * k);

  const interact = (q: Placed, qSets: SampleSets, pi: number, qi: number): void => {
    const lp = lengthM[pi];
    const lq = lengthM[qi];
    const apart = middleDistance(mesh, pi, lp, q, qi, lq);
    if (apart < 2 * max(lp, lq) + 0.5 * (lp + lq))
      nearPairInto(
        pair,
        k,
        { p: mesh, pi, lengthP: lp, q, qi, lengthQ: lq },
        0.5 * (radiusM[pi] ** 2 + radiusM[qi] ** 2),
      );
    else if (apart < FAR_LENGTHS * max(lp, lq)) farPairInto(pair, k, own.middle, pi, qSets.middle, qi);
    else farPairInto(pair, k, own.far, pi, qSets.far, qi);
  };
  // block += j·vector·w·A − j·scalar·v·D with complex weights w (of the vector part) and v (of the scalar part)
  const addBlock = (wr: number, wi: number, vr: number, vi: number): void => {
    for (let c = 0; c < 8; c += 2) {
      const re = vector * (wr * pair[c] - wi * pair[c + 1]) - scalar * (vr * pair[8 + c] - vi * pair[9 + c]);
      const im = vector * (wr * pair[c + 1] + wi * pair[c]) - scalar * (vr * pair[9 + c] + vi * pair[8 + c]);
      sum[c] -= im;
      sum[c + 1] += re;
    }
  };
  const groundPair = table && groundPairs(table, mesh, own);
  const distributed = distributedTerms(model, mesh, freqHz, k);
  for (let p = 0; p < n; p += 1) {
    for (let q = p; q < n; q += 1) {
      sum.fill(0);
      const horizontal = direction[3 * p] * direction[3 * q] + direction[3 * p + 1] * direction[3 * q + 1];
      const vertical = direction[3 * p + 2] * direction[3 * q + 2];
      interact(mesh, own, p, q);
      addBlock(horizontal + vertical, 0, 1, 0);
      if (image && mirror) {
        interact(image, mirror, p, q);
        if (table) addBlock(vertical * kqr, vertical * kqi, -kqr, -kqi);
        else addBlock(vertical - horizontal, 0, -1, 0);
      }
      if (groundPair) {
        groundPair(pair, p, q);
        addBlock(1, 0, 1, 0);
      }
      if (p === q) distributed(sum, p);
      scatter(z, mesh, sum, p, q);
    }
  }
}

function imageFactor(ground: Ground, freqHz: number): readonly [number, number] {
  if (ground.type !== 'real') return [1, 0];
  const e = groundPermittivity(ground, freqHz);
  const den = (e.re + 1) ** 2 + e.im ** 2;
  return [((e.re - 1) * (e.re + 1) + e.im ** 2) / den, (2 * e.im) / den];
}

/** The Sommerfeld part of a pair: direction cosines differ from point to point, so they go into the kernel. */
function groundPairs(
  table: GroundTable,
  mesh: Mesh,
  sets: SampleSets,
): (out: Float64Array, p: number, q: number) => void {
  const { direction, lengthM } = mesh;
  const lookUp = tableReader(table);
  const s = new Float64Array(8);
  return (out, p, q) => {
    out.fill(0);
    const apart = middleDistance(mesh, p, lengthM[p], mesh, q, lengthM[q]);
    const height = mesh.start[3 * p + 2] + mesh.start[3 * q + 2];
    const longest = max(lengthM[p], lengthM[q]);
    const vertical = abs(direction[3 * p + 2]) + abs(direction[3 * q + 2]) > 1e-9;
    const near = hypot(apart, height) < (vertical ? 3 : 1.5) * longest;
    const samples = near ? sets.near : apart < FAR_LENGTHS * longest ? sets.middle : sets.far;
    const px = direction[3 * p];
    const py = direction[3 * p + 1];
    const pz = direction[3 * p + 2];
    const qx = direction[3 * q];
    const qy = direction[3 * q + 1];
    const qz = direction[3 * q + 2];
    const hh = px * qx + py * qy;
    const zz = pz * qz;
    const m = samples.perSegment;
    for (let g = 0, ip = p * m; g < m; g += 1, ip += 1) {
      let a0r = 0;
      let a0i = 0;
      let a1r = 0;
      let a1i = 0;
      let b0r = 0;
      let b0i = 0;
      let b1r = 0;
      let b1i = 0;
      for (let h = 0, iq = q * m; h < m; h += 1, iq += 1) {
        const dx = samples.places[3 * ip] - samples.places[3 * iq];
        const dy = samples.places[3 * ip + 1] - samples.places[3 * iq + 1];
        const rho = sqrt(dx * dx + dy * dy);
        lookUp(s, rho, samples.places[3 * ip + 2] + samples.places[3 * iq + 2]);
        // G_zx = −cosφ S₃ and G_xz = +cosφ S₃, φ from source to field point
        const cross = rho > 0 ? ((px * dx + py * dy) * qz - pz * (qx * dx + qy * dy)) / rho : 0;
        const vr = hh * s[0] + zz * s[6] + cross * s[4];
        const vi = hh * s[1] + zz * s[7] + cross * s[5];
        const at = 4 * iq;
        a0r += samples.values[at] * vr;
        a0i += samples.values[at] * vi;
        a1r += samples.values[at + 1] * vr;
        a1i += samples.values[at + 1] * vi;
        b0r += samples.values[at + 2] * s[2];
        b0i += samples.values[at + 2] * s[3];
        b1r += samples.values[at + 3] * s[2];
        b1i += samples.values[at + 3] * s[3];
      }
      const at = 4 * ip;
      for (let i = 0; i < 2; i += 1) {
        const phi = samples.values[at + i];
        const slope = samples.values[at + 2 + i];
        out[4 * i] += phi * a0r;
        out[4 * i + 1] += phi * a0i;
        out[4 * i + 2] += phi * a1r;
        out[4 * i + 3] += phi * a1i;
        out[8 + 4 * i] += slope * b0r;
        out[9 + 4 * i] += slope * b0i;
        out[10 + 4 * i] += slope * b1r;
        out[11 + 4 * i] += slope * b1i;
      }
    }
  };
}

/** Adds conductor loss z_i ∫φφ and insulation −(1/jωε₀)(1 − 1/ε_r) ln(b/a)/2π ∫φ̇φ̇ of one segment to its own block. */
function distributedTerms(
  model: WireModel,
  mesh: Mesh,
  freqHz: number,
  k: number,
): (sum: Float64Array, segment: number) => void {
  const omega = 2 * Math.PI * freqHz;
  const perWire = model.wires.map((wire) => {
    const surface = wireSurfaceImpedance(wire.radiusM, wire.conductivitySPerM, freqHz);
    let sr = 0;
    let si = 0;
    if (wire.insulation) {
      const { outerRadiusM, relPermittivity, lossTangent } = wire.insulation;
      // 1 − 1/ε with ε = ε_r(1 − j tanδ); −1/(jωε₀) = j/(ωε₀)
      const den = relPermittivity * (1 + lossTangent ** 2);
      const factor = log(outerRadiusM / wire.radiusM) / (2 * Math.PI * omega * VACUUM_PERMITTIVITY_F_PER_M);
      const re = 1 - 1 / den;
      const im = -lossTangent / den;
      sr = -im * factor;
      si = re * factor;
    }
    return { zr: surface.re, zi: surface.im, sr, si };
  });
  return (sum, segment) => {
    const { zr, zi, sr, si } = perWire[mesh.wireOf[segment]];
    if (zr === 0 && zi === 0 && sr === 0 && si === 0) return;
    const length = mesh.lengthM[segment];
    const sinKl = sin(k * length);
    for (let g = 0; g < LOSS_POINTS.at.length; g += 1) {
      const s = length * LOSS_POINTS.at[g];
      const w = length * LOSS_POINTS.weight[g];
      const phi = [sin(k * (length - s)) / sinKl, sin(k * s) / sinKl];
      const slope = [(-k * cos(k * (length - s))) / sinKl, (k * cos(k * s)) / sinKl];
      for (let i = 0; i < 2; i += 1)
        for (let j = 0; j < 2; j += 1) {
          const pp = w * phi[i] * phi[j];
          const dd = w * slope[i] * slope[j];
          sum[4 * i + 2 * j] += zr * pp + sr * dd;
          sum[4 * i + 2 * j + 1] += zi * pp + si * dd;
        }
    }
  };
}

/** Adds the 2×2 block of halves to the unknowns they belong to, and its mirror image. */
function scatter(z: Float64Array, mesh: Mesh, sum: Float64Array, p: number, q: number): void {
  const { unknowns, halfStart, halfUnknown, halfSign } = mesh;
  for (let i = 0; i < 2; i += 1) {
    for (let u = halfStart[2 * p + i]; u < halfStart[2 * p + i + 1]; u += 1) {
      for (let j = 0; j < 2; j += 1) {
        for (let v = halfStart[2 * q + j]; v < halfStart[2 * q + j + 1]; v += 1) {
          const sign = halfSign[u] * halfSign[v];
          const re = sign * sum[4 * i + 2 * j];
          const im = sign * sum[4 * i + 2 * j + 1];
          const at = 2 * (halfUnknown[u] * unknowns + halfUnknown[v]);
          z[at] += re;
          z[at + 1] += im;
          if (p === q) continue;
          const mirrorAt = 2 * (halfUnknown[v] * unknowns + halfUnknown[u]);
          z[mirrorAt] += re;
          z[mirrorAt + 1] += im;
        }
      }
    }
  }
}
