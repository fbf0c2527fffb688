import { FREE_SPACE_IMPEDANCE_OHM, SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { distributedTerms } from './distributed';
import { tableReader, type GroundTable } from './ground-table';
import { finenessOf, groundLimitsOf, imageFactor, isLevel, limitsOf, middlesOf, mirrored } from './images';
import type { Mesh } from './mesh';
import type { WireModel } from './model';
import { farPairInto, nearPairInto, SAMPLE_POINTS, samplesOf, type Fineness, type Placed, type Samples } from './pair';

// named once: hot loops must not look them up on a global
const { sqrt } = Math;

/** Points whose horizontal distance is less than this share of their height sum stand above each other. */
const SAME_PLACE = 1e-9;

/** Sample sets of one mesh at one frequency. */
type SampleSets = Readonly<Record<Fineness, Samples>>;

/**
 * Fills the impedance matrix of the unknown node currents pair by pair, without the kernel: where there is no WebAssembly, and what the kernel is
 * held against. Complex and symmetric, row-major [re, im, …], 2n² values:
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
  const none = lengthM.subarray(0, 0);
  const sets = (placed: Placed, withNear: boolean): SampleSets => ({
    far: samplesOf(placed, lengthM, k, SAMPLE_POINTS.far),
    middle: samplesOf(placed, lengthM, k, SAMPLE_POINTS.middle),
    near: samplesOf(placed, withNear ? lengthM : none, k, SAMPLE_POINTS.near),
  });
  const own = sets(mesh, table !== undefined);
  const mirror = image && sets(image, false);
  // K_q = (ε−1)/(ε+1): 1 on perfect ground
  const [kqr, kqi] = imageFactor(model.ground, freqHz);
  const pair = new Float64Array(16);
  const sum = new Float64Array(8); // 2×2 block of this pair, re and im
  const vector = k * FREE_SPACE_IMPEDANCE_OHM * (1 / (4 * Math.PI));
  const scalar = FREE_SPACE_IMPEDANCE_OHM / (4 * Math.PI * k);

  const middles = middlesOf(mesh, lengthM);
  const imageMiddles = image ? middlesOf(image, lengthM) : middles;
  const interact = (q: Placed, qSets: SampleSets, pi: number, qi: number): void => {
    const limits = limitsOf(lengthM[pi], lengthM[qi]);
    const fineness = finenessOf(middles, pi, q === mesh ? middles : imageMiddles, qi, limits);
    if (fineness === 'near') {
      const at = { p: mesh, pi, lengthP: lengthM[pi], q, qi, lengthQ: lengthM[qi] };
      nearPairInto(pair, k, at, 0.5 * (radiusM[pi] ** 2 + radiusM[qi] ** 2));
    } else farPairInto(pair, k, own[fineness], pi, qSets[fineness], qi);
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
  const groundPair = table && image && groundPairs(table, mesh, image, own);
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

/** The Sommerfeld part of a pair: direction cosines differ from point to point, so they go into the kernel. */
function groundPairs(
  table: GroundTable,
  mesh: Mesh,
  image: Placed,
  sets: SampleSets,
): (out: Float64Array, p: number, q: number) => void {
  const { direction, lengthM } = mesh;
  const [middles, imageMiddles] = [middlesOf(mesh, lengthM), middlesOf(image, lengthM)];
  const lookUp = tableReader(table);
  const s = new Float64Array(8);
  return (out, p, q) => {
    out.fill(0);
    const upright = !isLevel(direction[3 * p + 2]) || !isLevel(direction[3 * q + 2]);
    const limits = groundLimitsOf(lengthM[p], lengthM[q], upright);
    const samples = sets[finenessOf(middles, p, imageMiddles, q, limits)];
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
        const up = samples.places[3 * ip + 2] + samples.places[3 * iq + 2];
        lookUp(s, rho, up);
        // G_zx = −cosφ S₃ and G_xz = +cosφ S₃, φ from source to field point; straight above each other S₃ = 0, and rounding must not choose a φ
        const cross = rho > SAME_PLACE * up ? ((px * dx + py * dy) * qz - pz * (qx * dx + qy * dy)) / rho : 0;
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
