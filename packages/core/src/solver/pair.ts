import { gaussLegendre } from '../numeric/gauss-legendre';

// named once: hot loops must not look them up on a global
const { cos, log, sin, sqrt } = Math;

/** Positions and directions of segments: x, y, z each. The image of a mesh has its own. */
export interface Placed {
  readonly start: Float64Array;
  readonly direction: Float64Array;
}

const OUTER = 8;
const INNER = 4;
const graded = gaussLegendre(OUTER);
/** Outer points on 0..1, crowded at the ends where a neighbour begins or stops: s = 3u² − 2u³. */
const GRADED_AT = graded.nodes.map((x) => {
  const u = (1 + x) / 2;
  return u * u * (3 - 2 * u);
});
const GRADED_WEIGHT = graded.weights.map((w, i) => {
  const u = (1 + graded.nodes[i]) / 2;
  return (w / 2) * 6 * u * (1 - u);
});
const inner = gaussLegendre(INNER);
const INNER_AT = inner.nodes.map((x) => (1 + x) / 2);
const INNER_WEIGHT = inner.weights.map((w) => w / 2);

/** asinh(u2/ρ) − asinh(u1/ρ) = ∫du/R, without cancellation when both ends lie far on one side. */
function logIntegral(u1: number, u2: number, r1: number, r2: number): number {
  if (u1 > 0) return log((u2 + r2) / (u1 + r1));
  if (u2 < 0) return log((r1 - u1) / (r2 - u2));
  return log(((u2 + r2) * (r1 - u1)) / (r1 * r1 - u1 * u1));
}

/**
 * Interactions of the halves of segment p with those of segment q through e^{−jkR}/R, near each other: 16 numbers into out, first
 * ∬φᵢφⱼG for ij = 00, 01, 10, 11 (re, im), then ∬φ′ᵢφ′ⱼG. The static part and the first terms in k are integrated exactly along q, the
 * smooth rest by Gauss. φ₀ = sin k(L−s)/sin kL, φ₁ = sin ks/sin kL. R² = distance² + a².
 */
export function nearPairInto(
  out: Float64Array,
  k: number,
  at: {
    readonly p: Placed;
    readonly pi: number;
    readonly lengthP: number;
    readonly q: Placed;
    readonly qi: number;
    readonly lengthQ: number;
  },
  radiusSquared: number,
): void {
  out.fill(0);
  const { p, q, lengthP, lengthQ } = at;
  const p3 = 3 * at.pi;
  const q3 = 3 * at.qi;
  const sinP = sin(k * lengthP);
  const sinQ = sin(k * lengthQ);
  const k2 = k * k;
  const kOverQ = k / sinQ;
  const kOverP = k / sinP;
  for (let g = 0; g < OUTER; g += 1) {
    const s = lengthP * GRADED_AT[g];
    const weight = lengthP * GRADED_WEIGHT[g];
    const x = p.start[p3] + s * p.direction[p3] - q.start[q3];
    const y = p.start[p3 + 1] + s * p.direction[p3 + 1] - q.start[q3 + 1];
    const z = p.start[p3 + 2] + s * p.direction[p3 + 2] - q.start[q3 + 2];
    const foot = x * q.direction[q3] + y * q.direction[q3 + 1] + z * q.direction[q3 + 2];
    // by components: as a difference of squares it would lose a thin wire's radius in rounding
    const offX = x - foot * q.direction[q3];
    const offY = y - foot * q.direction[q3 + 1];
    const offZ = z - foot * q.direction[q3 + 2];
    const rho2 = offX * offX + offY * offY + offZ * offZ + radiusSquared;
    const u1 = -foot;
    const u2 = lengthQ - foot;
    const r1 = sqrt(u1 * u1 + rho2);
    const r2 = sqrt(u2 * u2 + rho2);
    const i0 = logIntegral(u1, u2, r1, r2);
    const i1 = r2 - r1;
    const i2 = 0.5 * (u2 * r2 - u1 * r1 + rho2 * i0);
    // value and slope of the four functions of q at the foot point
    const sinFar = sin(k * (lengthQ - foot));
    const cosFar = cos(k * (lengthQ - foot));
    const sinFoot = sin(k * foot);
    const cosFoot = cos(k * foot);
    const f0 = sinFar / sinQ;
    const f1 = sinFoot / sinQ;
    const d0 = -kOverQ * cosFar; // φ₀′, also the slope of φ₀
    const d1 = kOverQ * cosFoot;
    const even = i0 - 0.5 * k2 * i2 - 0.5 * k2 * (i2 - rho2 * i0);
    let a0r = f0 * even + d0 * i1;
    let a1r = f1 * even + d1 * i1;
    let b0r = d0 * even - k2 * f0 * i1;
    let b1r = d1 * even - k2 * f1 * i1;
    let a0i = 0;
    let a1i = 0;
    let b0i = 0;
    let b1i = 0;
    for (let h = 0; h < INNER; h += 1) {
      const t = lengthQ * INNER_AT[h];
      const w = lengthQ * INNER_WEIGHT[h];
      const u = t - foot;
      const r2h = u * u + rho2;
      const r = sqrt(r2h);
      const phi0 = sin(k * (lengthQ - t)) / sinQ;
      const phi1 = sin(k * t) / sinQ;
      const slope0 = -kOverQ * cos(k * (lengthQ - t));
      const slope1 = kOverQ * cos(k * t);
      const er = cos(k * r) / r;
      const ei = -sin(k * r) / r;
      const bend = (1 - 0.5 * k2 * r2h - 0.5 * k2 * u * u) / r;
      const lean = u / r;
      a0r += w * (phi0 * er - f0 * bend - d0 * lean);
      a0i += w * phi0 * ei;
      a1r += w * (phi1 * er - f1 * bend - d1 * lean);
      a1i += w * phi1 * ei;
      b0r += w * (slope0 * er - d0 * bend + k2 * f0 * lean);
      b0i += w * slope0 * ei;
      b1r += w * (slope1 * er - d1 * bend + k2 * f1 * lean);
      b1i += w * slope1 * ei;
    }
    const phi0 = (weight * sin(k * (lengthP - s))) / sinP;
    const phi1 = (weight * sin(k * s)) / sinP;
    const slope0 = -weight * kOverP * cos(k * (lengthP - s));
    const slope1 = weight * kOverP * cos(k * s);
    out[0] += phi0 * a0r;
    out[1] += phi0 * a0i;
    out[2] += phi0 * a1r;
    out[3] += phi0 * a1i;
    out[4] += phi1 * a0r;
    out[5] += phi1 * a0i;
    out[6] += phi1 * a1r;
    out[7] += phi1 * a1i;
    out[8] += slope0 * b0r;
    out[9] += slope0 * b0i;
    out[10] += slope0 * b1r;
    out[11] += slope0 * b1i;
    out[12] += slope1 * b0r;
    out[13] += slope1 * b0i;
    out[14] += slope1 * b1r;
    out[15] += slope1 * b1i;
  }
}

/** Sample points of every segment with the values of its half functions and slopes, each times the weight. */
export interface Samples {
  readonly perSegment: number;
  /** x, y, z of each point. */
  readonly places: Float64Array;
  /** φ₀, φ₁, φ₀′, φ₁′ of each point, times its weight. */
  readonly values: Float64Array;
}

/** Samples at given shares of each segment. */
export function samplesOf(
  placed: Placed,
  lengthM: Float64Array,
  k: number,
  points: { readonly at: Float64Array; readonly weight: Float64Array },
): Samples {
  const n = points.at.length;
  const places = new Float64Array(3 * n * lengthM.length);
  const values = new Float64Array(4 * n * lengthM.length);
  lengthM.forEach((length, i) => {
    const sinKl = sin(k * length);
    for (let g = 0; g < n; g += 1) {
      const s = length * points.at[g];
      const w = length * points.weight[g];
      const at = i * n + g;
      for (let axis = 0; axis < 3; axis += 1)
        places[3 * at + axis] = placed.start[3 * i + axis] + s * placed.direction[3 * i + axis];
      values[4 * at] = (w * sin(k * (length - s))) / sinKl;
      values[4 * at + 1] = (w * sin(k * s)) / sinKl;
      values[4 * at + 2] = (-w * k * cos(k * (length - s))) / sinKl;
      values[4 * at + 3] = (w * k * cos(k * s)) / sinKl;
    }
  });
  return { perSegment: n, places, values };
}

/** Gauss points on 0..1. */
export function gaussPoints(n: number): { readonly at: Float64Array; readonly weight: Float64Array } {
  const { nodes, weights } = gaussLegendre(n);
  return { at: nodes.map((x) => (1 + x) / 2), weight: weights.map((w) => w / 2) };
}

/** How finely a pair of segments is integrated: exactly along one of them (of the ground's terms: by many samples), or by few samples of both. */
export type Fineness = 'near' | 'middle' | 'far';
export const SAMPLE_POINTS: Readonly<Record<Fineness, ReturnType<typeof gaussPoints>>> = {
  near: { at: GRADED_AT, weight: GRADED_WEIGHT },
  middle: gaussPoints(3),
  far: gaussPoints(2),
};

/** The same 16 numbers for segments far apart, by the samples of both. */
export function farPairInto(out: Float64Array, k: number, p: Samples, pi: number, q: Samples, qi: number): void {
  out.fill(0);
  const n = p.perSegment;
  const m = q.perSegment;
  for (let g = 0, ip = pi * n; g < n; g += 1, ip += 1) {
    const x = p.places[3 * ip];
    const y = p.places[3 * ip + 1];
    const z = p.places[3 * ip + 2];
    let a0r = 0;
    let a0i = 0;
    let a1r = 0;
    let a1i = 0;
    let b0r = 0;
    let b0i = 0;
    let b1r = 0;
    let b1i = 0;
    for (let h = 0, iq = qi * m; h < m; h += 1, iq += 1) {
      const dx = x - q.places[3 * iq];
      const dy = y - q.places[3 * iq + 1];
      const dz = z - q.places[3 * iq + 2];
      const r = sqrt(dx * dx + dy * dy + dz * dz);
      const er = cos(k * r) / r;
      const ei = -sin(k * r) / r;
      const at = 4 * iq;
      a0r += q.values[at] * er;
      a0i += q.values[at] * ei;
      a1r += q.values[at + 1] * er;
      a1i += q.values[at + 1] * ei;
      b0r += q.values[at + 2] * er;
      b0i += q.values[at + 2] * ei;
      b1r += q.values[at + 3] * er;
      b1i += q.values[at + 3] * ei;
    }
    const at = 4 * ip;
    const phi0 = p.values[at];
    const phi1 = p.values[at + 1];
    const slope0 = p.values[at + 2];
    const slope1 = p.values[at + 3];
    out[0] += phi0 * a0r;
    out[1] += phi0 * a0i;
    out[2] += phi0 * a1r;
    out[3] += phi0 * a1i;
    out[4] += phi1 * a0r;
    out[5] += phi1 * a0i;
    out[6] += phi1 * a1r;
    out[7] += phi1 * a1i;
    out[8] += slope0 * b0r;
    out[9] += slope0 * b0i;
    out[10] += slope0 * b1r;
    out[11] += slope0 * b1i;
    out[12] += slope1 * b0r;
    out[13] += slope1 * b0i;
    out[14] += slope1 * b1r;
    out[15] += slope1 * b1i;
  }
}
