import { gaussLegendre } from '../numeric/gauss-legendre';
import type { Complex } from '../numeric/complex';
import { wasmKernel } from '../numeric/wasm';
import { RAD, FREE_SPACE_IMPEDANCE_OHM, SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { currentElements, segmentCurrents, type CurrentElements } from './current-elements';
import { groundPermittivity } from './ground-table';
import { gaussPoints } from './pair';
import { RADIATION_KERNEL } from './radiation-wasm';
import { loadImpedance, rowCurrent, type Solution } from './solve';
import { wireSurfaceImpedance } from './wire-loss';

// named once: hot loops must not look them up on a global
const { abs, ceil, cos, hypot, max, min, sin, sqrt } = Math;

/** Radiation vector toward one direction: N = ∫ J e^{jk·r̂·r′} with the ground's reflection in it; E = −jkη N e^{−jkr}/(4πr). */
interface RadiationVector {
  readonly theta: Complex;
  readonly phi: Complex;
}

/** Fresnel coefficients of real ground for the field components along θ and φ; ±1 on perfect ground. */
function reflection(
  solution: Solution,
  cosTheta: number,
): { readonly vertical: Complex; readonly horizontal: Complex } {
  const { ground } = solution.model;
  if (ground.type !== 'real') return { vertical: { re: 1, im: 0 }, horizontal: { re: -1, im: 0 } };
  const e = groundPermittivity(ground, solution.freqHz);
  // root of ε − sin²θ in the fourth quadrant
  const re = e.re - (1 - cosTheta * cosTheta);
  const size = hypot(re, e.im);
  const rootRe = sqrt(0.5 * (size + re));
  const rootIm = rootRe === 0 ? 0 : e.im / (2 * rootRe);
  const ratio = (ar: number, ai: number): Complex => {
    // (a − root)/(a + root)
    const nr = ar - rootRe;
    const ni = ai - rootIm;
    const dr = ar + rootRe;
    const di = ai + rootIm;
    const den = dr * dr + di * di;
    return { re: (nr * dr + ni * di) / den, im: (ni * dr - nr * di) / den };
  };
  return { vertical: ratio(e.re * cosTheta, e.im * cosTheta), horizontal: ratio(cosTheta, 0) };
}

/** Plans the far field of one port's currents (1 A); the returned function answers per direction (radians; elevation above the xy plane). */
function radiation(solution: Solution, port = 0): (azimuthRad: number, elevationRad: number) => RadiationVector {
  const k = (2 * Math.PI * solution.freqHz) / SPEED_OF_LIGHT_M_PER_S;
  const sums = radiationSums(currentElements(solution, port, 2), k);
  const onGround = solution.model.ground.type !== 'free';
  // patterns ask many azimuths at few elevations
  const reflections = new Map<number, ReturnType<typeof reflection>>();
  return (azimuth, elevation) => {
    const cosT = sin(elevation);
    const sinT = cos(elevation);
    const cosP = cos(azimuth);
    const sinP = sin(azimuth);
    let fresnel = reflections.get(elevation);
    if (onGround && !fresnel) reflections.set(elevation, (fresnel = reflection(solution, max(0, cosT))));
    return vectorToward(sums, { cosT, sinT, cosP, sinP }, fresnel);
  };
}

/** Toward where: sines and cosines of the angle from the zenith and of the azimuth. */
interface Toward {
  readonly cosT: number;
  readonly sinT: number;
  readonly cosP: number;
  readonly sinP: number;
}

/**
 * Sums of moment·e^{jk·r̂·r′}: along the horizontal of θ, along z and along φ (re, im), then the same for the places mirrored in the ground; the latter
 * only when asked for. The array is written over by the next call.
 */
type Sums = (toward: Toward, mirrored: boolean) => Float64Array;

/** Current by current, without the kernel: where there is no WebAssembly, and what the kernel is held against. */
export function plainSums({ count, places, moments }: CurrentElements, k: number): Sums {
  const out = new Float64Array(12);
  return ({ cosT, sinT, cosP, sinP }, mirrored) => {
    out.fill(0);
    for (let i = 0; i < count; i += 1) {
      const flat = k * sinT * (places[3 * i] * cosP + places[3 * i + 1] * sinP);
      const rise = k * cosT * places[3 * i + 2];
      const m = 6 * i;
      const alongRe = moments[m] * cosP + moments[m + 2] * sinP;
      const alongIm = moments[m + 1] * cosP + moments[m + 3] * sinP;
      const acrossRe = moments[m + 2] * cosP - moments[m] * sinP;
      const acrossIm = moments[m + 3] * cosP - moments[m + 1] * sinP;
      const zr = moments[m + 4];
      const zi = moments[m + 5];
      for (let side = 0; side < (mirrored ? 2 : 1); side += 1) {
        const angle = side === 0 ? flat + rise : flat - rise;
        const c = cos(angle);
        const s = sin(angle);
        const at = 6 * side;
        out[at] += alongRe * c - alongIm * s;
        out[at + 1] += alongRe * s + alongIm * c;
        out[at + 2] += zr * c - zi * s;
        out[at + 3] += zr * s + zi * c;
        out[at + 4] += acrossRe * c - acrossIm * s;
        out[at + 5] += acrossRe * s + acrossIm * c;
      }
    }
    return out;
  };
}

const kernelOnce = wasmKernel(RADIATION_KERNEL, ['radiate']);
/** Values of a current in the kernel's memory: place and moments. */
const PER_CURRENT = 9;
/** Bytes before the currents: twelve sums. */
const CURRENTS_AT = 96;
/** The currents that stand in the kernel's memory. */
let laid: CurrentElements | undefined;

/** Two currents at a time in the kernel, where there is one. */
export function radiationSums(elements: CurrentElements, k: number): Sums {
  const kernel = kernelOnce();
  if (!kernel) return plainSums(elements, k);
  const { base, call } = kernel;
  const { count, places, moments } = elements;
  const pairs = ceil(count / 2);
  const lay = (): void => {
    laid = elements;
    const length = 2 * PER_CURRENT * pairs;
    const data = new Float64Array(kernel.memory(base + CURRENTS_AT + 8 * length), base + CURRENTS_AT, length).fill(0);
    for (let i = 0; i < count; i += 1) {
      const at = 2 * PER_CURRENT * (i >> 1) + (i & 1);
      for (let v = 0; v < 3; v += 1) data[at + 2 * v] = places[3 * i + v];
      for (let v = 0; v < 6; v += 1) data[at + 6 + 2 * v] = moments[6 * i + v];
    }
  };
  let out = new Float64Array(kernel.memory(base + CURRENTS_AT), base, 12);
  return ({ cosT, sinT, cosP, sinP }, mirrored) => {
    if (laid !== elements) lay();
    // memory that grew has a new buffer
    if (out.length === 0) out = new Float64Array(kernel.memory(base + CURRENTS_AT), base, 12);
    const flat = k * sinT;
    call.radiate(
      ...[base, base + CURRENTS_AT, pairs, flat * cosP, flat * sinP, k * cosT, cosP, sinP, mirrored ? 1 : 0],
    );
    return out;
  };
}

function vectorToward(
  sums: Sums,
  toward: Toward,
  fresnel?: { readonly vertical: Complex; readonly horizontal: Complex },
): RadiationVector {
  const { cosT, sinT } = toward;
  const s = sums(toward, fresnel !== undefined);
  let tr = s[0] * cosT - s[2] * sinT;
  let ti = s[1] * cosT - s[3] * sinT;
  let pr = s[4];
  let pi = s[5];
  if (fresnel) {
    const br = -s[6] * cosT - s[8] * sinT;
    const bi = -s[7] * cosT - s[9] * sinT;
    tr += fresnel.vertical.re * br - fresnel.vertical.im * bi;
    ti += fresnel.vertical.re * bi + fresnel.vertical.im * br;
    pr += fresnel.horizontal.re * s[10] - fresnel.horizontal.im * s[11];
    pi += fresnel.horizontal.re * s[11] + fresnel.horizontal.im * s[10];
  }
  return { theta: { re: tr, im: ti }, phi: { re: pr, im: pi } };
}

/** Power accepted with 1 A (peak) into the port, W. */
export const acceptedPowerW = (solution: Solution, port = 0): number => 0.5 * solution.impedance[port][port].re;

/** Radiation intensity of a radiation vector, W/sr: kη²|N|²/(32π²η). */
const intensity = (n: RadiationVector, k: number): number =>
  ((k * k * FREE_SPACE_IMPEDANCE_OHM) / (32 * Math.PI ** 2)) *
  (n.theta.re ** 2 + n.theta.im ** 2 + n.phi.re ** 2 + n.phi.im ** 2);

/** Plans the power gain (loss included) as a ratio toward azimuth (from +x toward +y) and elevation, degrees; 0 below ground. */
export function gainRatio(solution: Solution, port = 0): (azimuthDeg: number, elevationDeg: number) => number {
  const toward = radiation(solution, port);
  const k = (2 * Math.PI * solution.freqHz) / SPEED_OF_LIGHT_M_PER_S;
  const scale = (4 * Math.PI) / acceptedPowerW(solution, port);
  const onGround = solution.model.ground.type !== 'free';
  return (azimuthDeg, elevationDeg) =>
    onGround && elevationDeg < 0 ? 0 : scale * intensity(toward(azimuthDeg * RAD, elevationDeg * RAD), k);
}

/** Power gains (ratios) of one direction by polarisation. */
export interface GainParts {
  /** Both together: what `gainRatio` gives. */
  readonly total: number;
  /** Along θ: vertical near the horizon. */
  readonly vertical: number;
  /** Right-hand circular; what is left of the total is left-hand. */
  readonly rightHand: number;
}

/** Plans the power gain by polarisation, degrees as for the gain; all 0 below ground. */
export function gainParts(solution: Solution, port = 0): (azimuthDeg: number, elevationDeg: number) => GainParts {
  const toward = radiation(solution, port);
  const k = (2 * Math.PI * solution.freqHz) / SPEED_OF_LIGHT_M_PER_S;
  const scale =
    ((4 * Math.PI) / acceptedPowerW(solution, port)) * ((k * k * FREE_SPACE_IMPEDANCE_OHM) / (32 * Math.PI ** 2));
  const onGround = solution.model.ground.type !== 'free';
  return (azimuthDeg, elevationDeg) => {
    if (onGround && elevationDeg < 0) return { total: 0, vertical: 0, rightHand: 0 };
    const { theta, phi } = toward(azimuthDeg * RAD, elevationDeg * RAD);
    const vertical = theta.re ** 2 + theta.im ** 2;
    const across = phi.re ** 2 + phi.im ** 2;
    // right hand at e^{jωt}: E = θ̂ − jφ̂ (IEEE Std 145); its share of a field is |Eθ + jEφ|²/2
    const rightHand = ((theta.re - phi.im) ** 2 + (theta.im + phi.re) ** 2) / 2;
    return { total: scale * (vertical + across), vertical: scale * vertical, rightHand: scale * rightHand };
  };
}

/** Horizontal radius, top and mean height of the wires, m: what decides how narrow lobes can be. */
export function extentM(solution: Solution): {
  readonly radiusM: number;
  readonly topM: number;
  readonly meanHeightM: number;
} {
  const { places, count } = currentElements(solution, 0, 1);
  let radius = 0;
  let top = 0;
  let cx = 0;
  let cy = 0;
  for (let i = 0; i < count; i += 1) {
    cx += places[3 * i] / count;
    cy += places[3 * i + 1] / count;
  }
  for (let i = 0; i < count; i += 1) {
    radius = max(radius, hypot(places[3 * i] - cx, places[3 * i + 1] - cy));
    top = max(top, abs(places[3 * i + 2]));
  }
  let mean = 0;
  for (let i = 0; i < count; i += 1) mean += places[3 * i + 2] / count;
  return { radiusM: radius, topM: top, meanHeightM: mean };
}

/**
 * Largest elevation step that sees every lobe: a lobe over ground is λ/(2h) wide in sin(elevation), one of a long wire λ/L; a fifth of that,
 * and never above 4°.
 */
export function elevationStepDeg(solution: Solution): number {
  const wavelength = SPEED_OF_LIGHT_M_PER_S / solution.freqHz;
  const { radiusM, topM } = extentM(solution);
  const size = max(solution.model.ground.type === 'free' ? 0 : 2 * topM, 2 * radiusM, 1e-9);
  return min(4, (wavelength / size / 5) * (180 / Math.PI));
}

/** Where a pattern is strongest. */
export interface Peak {
  readonly azimuthDeg: number;
  readonly elevationDeg: number;
  readonly gainDbi: number;
}

/** Direction of the largest gain, on a grid that adapts to the lobes, refined by parabolas to 0.05°. */
export function findPeak(solution: Solution, port = 0, azimuths?: readonly number[]): Peak {
  const gain = gainRatio(solution, port);
  const step = elevationStepDeg(solution);
  const wavelength = SPEED_OF_LIGHT_M_PER_S / solution.freqHz;
  const around = min(15, (wavelength / max(2 * extentM(solution).radiusM, 1e-9) / 4) * (180 / Math.PI));
  const count = ceil(360 / max(1, around));
  const list = azimuths ?? Array.from({ length: count }, (_, i) => (360 * i) / count);
  const lowest = solution.model.ground.type === 'free' ? -90 : 0;
  let az = 0;
  let el = 0;
  let best = -1;
  const try_ = (a: number, e: number): void => {
    const value = gain(a, e);
    if (value > best * (1 + 1e-6)) [az, el, best] = [a, e, value];
  };
  // from the horizon outward: of equal directions the lowest is named
  const upward = Array.from({ length: ceil(90 / step) + 1 }, (_, i) => min(90, i * step));
  const elevations = upward.flatMap((e) => (lowest < 0 && e > 0 ? [e, -e] : [e]));
  for (const a of list) for (const e of elevations) try_(a, e);
  // halve the steps around the best until they are small
  let da = azimuths ? 0 : 360 / count / 2;
  let de = step / 2;
  while (de > 0.02) {
    const a0 = az;
    const e0 = el;
    for (const a of da > 0 ? [a0 - da, a0, a0 + da] : [a0])
      for (const e of [e0 - de, e0, e0 + de]) if (e >= lowest && e <= 90) try_(a, e);
    da /= 2;
    de /= 2;
  }
  return { azimuthDeg: ((az % 360) + 360) % 360, elevationDeg: el, gainDbi: 10 * Math.log10(best) };
}

/** Power in the far field over power accepted: the average of the gain over the sphere (lossless and exact: 1). */
export function radiatedShare(solution: Solution, port = 0): number {
  const gain = gainRatio(solution, port);
  const wavelength = SPEED_OF_LIGHT_M_PER_S / solution.freqHz;
  const { radiusM, topM } = extentM(solution);
  const onGround = solution.model.ground.type !== 'free';
  const electrical = (2 * Math.PI * max(radiusM, onGround ? 2 * topM : topM, 1e-9)) / wavelength;
  const rings = min(180, ceil(14 + 0.8 * electrical));
  const { nodes, weights } = gaussLegendre(rings);
  const around = min(360, 2 * ceil(8 + ((2 * Math.PI * radiusM) / wavelength) * 1.2));
  let sum = 0;
  nodes.forEach((x, i) => {
    const sine = onGround ? (1 + x) / 2 : x;
    const w = onGround ? weights[i] / 2 : weights[i];
    const elevation = Math.asin(sine) / RAD;
    for (let a = 0; a < around; a += 1) sum += (w * gain((360 * a) / around, elevation)) / around;
  });
  return sum / 2; // ∫dΩ/4π: the sine of the elevation runs over 2
}

/** Power lost in conductors, insulation and loads, as a share of what is accepted. */
export function lostShare(solution: Solution, port = 0): number {
  const { model, mesh, freqHz } = solution;
  const k = (2 * Math.PI * freqHz) / SPEED_OF_LIGHT_M_PER_S;
  const ends = segmentCurrents(solution, port);
  const points = gaussPoints(6);
  const series = model.wires.map((wire) => wireSurfaceImpedance(wire.radiusM, wire.conductivitySPerM, freqHz).re);
  let lost = 0;
  for (let i = 0; i < mesh.segments; i += 1) {
    const r = series[mesh.wireOf[i]];
    if (r === 0) continue;
    const length = mesh.lengthM[i];
    const sinKl = sin(k * length);
    for (let g = 0; g < 6; g += 1) {
      const s = length * points.at[g];
      const a = sin(k * (length - s)) / sinKl;
      const b = sin(k * s) / sinKl;
      const re = a * ends[4 * i] + b * ends[4 * i + 2];
      const im = a * ends[4 * i + 1] + b * ends[4 * i + 3];
      lost += 0.5 * r * length * points.weight[g] * (re * re + im * im);
    }
  }
  mesh.loads.forEach((row, i) => {
    const through = rowCurrent(row, solution.currents[port]);
    lost += 0.5 * loadImpedance(model.loads[i], freqHz).re * (through.re ** 2 + through.im ** 2);
  });
  return lost / acceptedPowerW(solution, port);
}

/**
 * Open-circuit voltage (V, peak) at a port for a plane wave of 1 V/m (peak) from a direction, polarised along a unit vector; by
 * reciprocity it is the radiation vector along that polarisation. The effective length in metres is the same number.
 */
export function openCircuitVoltage(
  solution: Solution,
  wave: {
    readonly azimuthDeg: number;
    readonly elevationDeg: number;
    readonly polarisation: readonly [number, number, number];
  },
  port = 0,
): Complex {
  const azimuth = wave.azimuthDeg * RAD;
  const elevation = wave.elevationDeg * RAD;
  const n = radiation(solution, port)(azimuth, elevation);
  const [px, py, pz] = wave.polarisation;
  // θ̂ points down: (sin el cos az, sin el sin az, −cos el)
  const alongTheta = px * sin(elevation) * cos(azimuth) + py * sin(elevation) * sin(azimuth) - pz * cos(elevation);
  const alongPhi = -px * sin(azimuth) + py * cos(azimuth);
  return {
    re: alongTheta * n.theta.re + alongPhi * n.phi.re,
    im: alongTheta * n.theta.im + alongPhi * n.phi.im,
  };
}
