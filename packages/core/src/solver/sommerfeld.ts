import { besselJ0, besselJ1 } from '../numeric/bessel';
import { gaussLegendre } from '../numeric/gauss-legendre';
import { wasmKernel, type WasmKernel } from '../numeric/wasm';
import { SOMMERFELD_KERNEL } from './sommerfeld-wasm';

// named once: hot loops must not look them up on a global
const { abs, ceil, cos, exp, hypot, log, max, min, sin, sqrt } = Math;

/**
 * The four Sommerfeld integrals of a homogeneous half space in mixed-potential form, in units of the free-space wavenumber (k₀ = 1):
 *   S₁ = ∫ (ε−1)/(γ₂s²) e^{−γ₂h} J₀ λ dλ        S₂ = ∫ c/(γ₂sD) e^{−γ₂h} J₀ λ dλ
 *   S₃ = ∫ (ε+1)c/(sD) e^{−γ₂h} J₁ λ² dλ        S₄ = ∫ [ε + (ε+1)γ₂²] c/(γ₂sD) e^{−γ₂h} J₀ λ dλ
 * with γ₂ = √(λ²−1), γ₁ = √(λ²−ε), s = γ₁+γ₂, D = εγ₂+γ₁, c = 2(ε−1)/(ε+1).
 * Source: Michalski & Zheng, IEEE Trans. AP 38 (1990) 335, formulation C; images taken out.
 */
export interface HalfSpace {
  /** Relative complex permittivity ε = ε_r − jσ/(ωε₀); the imaginary part is 0 or negative. */
  readonly re: number;
  readonly im: number;
}

const NODES = gaussLegendre(12);
const TAIL_NODES = gaussLegendre(8);
const PARTIAL_SUMS = 16;
/** Largest oscillation of the kernel within one panel, radians. */
const PANEL_RAD = 5;
/** e^{−30}: where the tail has died out. */
const DEAD_EXPONENT = 30;

/** Spectral factors at one λ, times the quadrature weight: what does not depend on the place. */
const FACTORS = 11; // λ, γ₂ (re, im), then four complex weights

interface NodeSet {
  readonly count: number;
  readonly data: Float64Array;
}

/** Complex square root with a real part ≥ 0. */
function root(re: number, im: number): readonly [number, number] {
  const size = hypot(re, im);
  const a = sqrt(0.5 * (size + abs(re)));
  const b = a === 0 ? 0 : im / (2 * a);
  return re >= 0 ? [a, b] : [abs(b), im < 0 ? -a : a];
}

/** Writes the factors of one node. `measure` is dλ/γ₂ as a complex number times the weight. */
function nodeInto(
  data: Float64Array,
  at: number,
  ground: HalfSpace,
  lambda: number,
  gamma2: readonly [number, number],
  measure: readonly [number, number],
): void {
  const { re: er, im: ei } = ground;
  const [g2r, g2i] = gamma2;
  const [g1r, g1i] = root(lambda * lambda - er, -ei);
  const sr = g1r + g2r;
  const si = g1i + g2i;
  const dr = er * g2r - ei * g2i + g1r;
  const di = er * g2i + ei * g2r + g1i;
  // c = 2(ε−1)/(ε+1)
  const den = (er + 1) ** 2 + ei * ei;
  const cr = (2 * ((er - 1) * (er + 1) + ei * ei)) / den;
  const ci = (4 * ei) / den;
  const mr = measure[0] * lambda;
  const mi = measure[1] * lambda;
  data[at] = lambda;
  data[at + 1] = g2r;
  data[at + 2] = g2i;
  // S₁: (ε−1)/s² · λ dλ/γ₂
  const s2r = sr * sr - si * si;
  const s2i = 2 * sr * si;
  const s2 = s2r * s2r + s2i * s2i;
  const ar = ((er - 1) * s2r + ei * s2i) / s2;
  const ai = (ei * s2r - (er - 1) * s2i) / s2;
  data[at + 3] = ar * mr - ai * mi;
  data[at + 4] = ar * mi + ai * mr;
  // c/(sD)
  const pr = sr * dr - si * di;
  const pi = sr * di + si * dr;
  const p2 = pr * pr + pi * pi;
  const qr = (cr * pr + ci * pi) / p2;
  const qi = (ci * pr - cr * pi) / p2;
  const br = qr * mr - qi * mi;
  const bi = qr * mi + qi * mr;
  data[at + 5] = br;
  data[at + 6] = bi;
  // S₃: (ε+1)c/(sD) λ² dλ = (ε+1)·γ₂·λ·[c/(sD) λ dλ/γ₂]
  const er1r = (er + 1) * g2r - ei * g2i;
  const er1i = (er + 1) * g2i + ei * g2r;
  data[at + 7] = lambda * (er1r * br - er1i * bi);
  data[at + 8] = lambda * (er1r * bi + er1i * br);
  // S₄: ε + (ε+1)γ₂² with γ₂² = λ² − 1, real
  const g22 = lambda * lambda - 1;
  const fr = er + (er + 1) * g22;
  const fi = ei + ei * g22;
  data[at + 9] = fr * br - fi * bi;
  data[at + 10] = fr * bi + fi * br;
}

/** Where the finite part ends and the tail begins: beyond every branch point and its neighbourhood. */
const finiteEnd = (ground: HalfSpace): number => max(2, 2.2 * sqrt(hypot(ground.re, ground.im)));

/** Nodes on 0..finiteEnd, fine enough for distances up to `reach` (k₀ρ or k₀h). */
function finiteNodes(ground: HalfSpace, reach: number): NodeSet {
  const index = sqrt(hypot(ground.re, ground.im));
  const end = finiteEnd(ground);
  const grade = min(0.5, 1 / index); // the pole of D lies about this far from λ = 1, in the variable t
  const [edge, damping] = root(ground.re, ground.im);
  const width = max(abs(damping), 0.04 * index);
  const split = (from: number, to: number, marks: readonly number[]): number[] =>
    [from, ...marks.filter((mark) => mark > from && mark < to), to].sort((a, b) => a - b);
  // λ = sin t up to 1, λ = cosh t beyond: dλ/γ₂ = −j dt, then dt
  const below = split(0, Math.PI / 2, [0.8, Math.PI / 2 - 3 * grade, Math.PI / 2 - grade]);
  const toT = (lambda: number): number => Math.acosh(max(1, lambda));
  const above = split(0, toT(end), [
    grade,
    3 * grade,
    ...[-9, -3, -1, 0, 1, 3, 9].map((step) => toT(edge + step * width)),
  ]);
  const rows: number[] = [];
  const panels = (
    marks: readonly number[],
    lambdaAt: (t: number) => number,
    fill: (t: number, w: number) => void,
  ): void => {
    for (let i = 1; i < marks.length; i += 1) {
      const from = marks[i - 1];
      const to = marks[i];
      const count = max(1, ceil((reach * (lambdaAt(to) - lambdaAt(from))) / PANEL_RAD));
      for (let panel = 0; panel < count; panel += 1) {
        const half = (to - from) / count / 2;
        const middle = from + (2 * panel + 1) * half;
        NODES.nodes.forEach((x, k) => fill(middle + half * x, half * NODES.weights[k]));
      }
    }
  };
  const data: number[] = [];
  const push = (lambda: number, gamma2: readonly [number, number], measure: readonly [number, number]): void => {
    const node = new Float64Array(FACTORS);
    nodeInto(node, 0, ground, lambda, gamma2, measure);
    data.push(...node);
    rows.push(1);
  };
  panels(below, sin, (t, w) => push(sin(t), [0, cos(t)], [0, -w]));
  panels(above, Math.cosh, (t, w) => push(Math.cosh(t), [Math.sinh(t), 0], [w, 0]));
  return { count: rows.length, data: Float64Array.from(data) };
}

/** Adds Σ weight·e^{−γ₂h}·J(λρ) over nodes to sum[0..7] (S₁..S₄, re and im). */
function accumulate(sum: Float64Array, nodes: NodeSet, rho: number, h: number): void {
  const { data } = nodes;
  for (let i = 0, at = 0; i < nodes.count; i += 1, at += FACTORS) {
    const decay = exp(-data[at + 1] * h);
    if (decay < 1e-14) continue;
    const er = decay * cos(data[at + 2] * h);
    const ei = -decay * sin(data[at + 2] * h);
    const x = data[at] * rho;
    const j0 = besselJ0(x);
    const e0r = er * j0;
    const e0i = ei * j0;
    sum[0] += data[at + 3] * e0r - data[at + 4] * e0i;
    sum[1] += data[at + 3] * e0i + data[at + 4] * e0r;
    sum[2] += data[at + 5] * e0r - data[at + 6] * e0i;
    sum[3] += data[at + 5] * e0i + data[at + 6] * e0r;
    const j1 = besselJ1(x);
    const e1r = er * j1;
    const e1i = ei * j1;
    sum[4] += data[at + 7] * e1r - data[at + 8] * e1i;
    sum[5] += data[at + 7] * e1i + data[at + 8] * e1r;
    sum[6] += data[at + 9] * e0r - data[at + 10] * e0i;
    sum[7] += data[at + 9] * e0i + data[at + 10] * e0r;
  }
}

/** Adds up the integrand over nodes, into the eight values of `sum`: S₁..S₄, re and im. */
interface Summing {
  readonly sum: Float64Array;
  readonly finite: (nodes: NodeSet, rho: number, h: number) => void;
  /** One panel of the tail, where γ₂ is real. */
  readonly panel: (from: number, to: number, rho: number, h: number) => void;
}

/** Node by node, without the kernel: where there is no WebAssembly, and what the kernel is held against. */
function summingPlainly(ground: HalfSpace): Summing {
  const sum = new Float64Array(8);
  const node: NodeSet = { count: 1, data: new Float64Array(FACTORS) };
  return {
    sum,
    finite: (nodes, rho, h) => accumulate(sum, nodes, rho, h),
    panel(from, to, rho, h) {
      const half = (to - from) / 2;
      const middle = (to + from) / 2;
      for (let k = 0; k < TAIL_NODES.nodes.length; k += 1) {
        const lambda = middle + half * TAIL_NODES.nodes[k];
        const gamma2 = sqrt(lambda * lambda - 1);
        nodeInto(node.data, 0, ground, lambda, [gamma2, 0], [(half * TAIL_NODES.weights[k]) / gamma2, 0]);
        accumulate(sum, node, rho, h);
      }
    },
  };
}

const kernelOnce = wasmKernel(SOMMERFELD_KERNEL, ['accumulate', 'tailNodes']);
type Kernel = WasmKernel<'accumulate' | 'tailNodes'>;
const TAIL_PAIRS = TAIL_NODES.nodes.length / 2;
/** Where things stand in the kernel's memory, from its base on, bytes: the sums, the rule of the tail, the nodes of a panel, those of the finite part. */
const RULE_AT = 64;
const PANEL_AT = RULE_AT + 32 * TAIL_PAIRS;
const FINITE_AT = PANEL_AT + 16 * FACTORS * TAIL_PAIRS;
/** The node set that stands in the kernel's memory. */
let laid: NodeSet | undefined;

/** Two nodes at a time in the kernel. */
function summingByKernel(kernel: Kernel, { re, im }: HalfSpace): Summing {
  const { base, call } = kernel;
  const rule = new Float64Array(kernel.memory(base + FINITE_AT), base + RULE_AT, 4 * TAIL_PAIRS);
  for (let i = 0; i < TAIL_PAIRS; i += 1)
    for (const lane of [0, 1]) {
      rule[4 * i + lane] = TAIL_NODES.nodes[2 * i + lane];
      rule[4 * i + 2 + lane] = TAIL_NODES.weights[2 * i + lane];
    }
  let sum = new Float64Array(rule.buffer, base, 8);
  const lay = (nodes: NodeSet): void => {
    if (laid === nodes) return;
    laid = nodes;
    const pairs = ceil(nodes.count / 2);
    const length = 2 * FACTORS * pairs;
    const place = new Float64Array(kernel.memory(base + FINITE_AT + 8 * length), base + FINITE_AT, length);
    for (let i = 0; i < 2 * pairs; i += 1)
      for (let f = 0; f < FACTORS; f += 1)
        // one node more than an even count has no weight
        place[2 * FACTORS * (i >> 1) + 2 * f + (i & 1)] =
          i < nodes.count ? nodes.data[FACTORS * i + f] : f < 3 ? nodes.data[f] : 0;
  };
  return {
    get sum() {
      // memory that has grown has another buffer
      if (sum.buffer !== kernel.memory(0)) sum = new Float64Array(kernel.memory(0), base, 8);
      return sum;
    },
    finite(nodes, rho, h) {
      lay(nodes);
      call.accumulate(base, base + FINITE_AT, ceil(nodes.count / 2), rho, h);
    },
    panel(from, to, rho, h) {
      call.tailNodes(base + PANEL_AT, base + RULE_AT, TAIL_PAIRS, from, to, re, im);
      call.accumulate(base, base + PANEL_AT, TAIL_PAIRS, rho, h);
    },
  };
}

const WYNN_COLUMNS = [0, 1, 2].map(() => new Float64Array(2 * PARTIAL_SUMS + 2));
/**
 * Limit of a sequence of complex partial sums by Wynn's epsilon algorithm (Wynn 1956). Stops when differences vanish: dividing by them
 * would blow up.
 */
function wynnLimit(re: Float64Array, im: Float64Array, count: number): readonly [number, number] {
  // three columns in turn: the one before last (zeros at first), the last, the next
  let [older, newer, next] = WYNN_COLUMNS;
  older.fill(0);
  for (let i = 0; i < count; i += 1) {
    newer[2 * i] = re[i];
    newer[2 * i + 1] = im[i];
  }
  let bestRe = re[count - 1];
  let bestIm = im[count - 1];
  const scale = hypot(bestRe, bestIm) + 1e-300;
  for (let column = 1; column < count; column += 1) {
    for (let i = 0; i + column < count; i += 1) {
      const dr = newer[2 * i + 2] - newer[2 * i];
      const di = newer[2 * i + 3] - newer[2 * i + 1];
      const size = dr * dr + di * di;
      if (size < 1e-30 * scale * scale)
        return column % 2 === 1 ? [newer[2 * i + 2], newer[2 * i + 3]] : [bestRe, bestIm];
      next[2 * i] = older[2 * i + 2] + dr / size;
      next[2 * i + 1] = older[2 * i + 3] - di / size;
    }
    [older, newer, next] = [newer, next, older];
    if (column % 2 === 0) {
      bestRe = newer[2 * (count - 1 - column)];
      bestIm = newer[2 * (count - 1 - column) + 1];
    }
  }
  return [bestRe, bestIm];
}

/** Plans once per ground (without the kernel when `plain`); the returned function writes S₁..S₄ (re, im) at k₀ρ and k₀h > 0 into out[0..7]. Accuracy about 1e-6 of the largest. */
export function sommerfeldIntegrals(
  ground: HalfSpace,
  { plain = false }: { readonly plain?: boolean } = {},
): (out: Float64Array, rho: number, h: number) => void {
  const sets = new Map<number, NodeSet>();
  const end = finiteEnd(ground);
  const kernel = plain ? undefined : kernelOnce();
  const summing = kernel ? summingByKernel(kernel, ground) : summingPlainly(ground);
  const sums = new Float64Array(8 * PARTIAL_SUMS);
  const re = new Float64Array(PARTIAL_SUMS);
  const im = new Float64Array(PARTIAL_SUMS);
  return (out, rho, h) => {
    // node sets in steps of a factor of 4 of reach
    const tier = max(0, ceil(log(max(rho, h, 1e-9)) / log(4)));
    let nodes = sets.get(tier);
    if (!nodes) sets.set(tier, (nodes = finiteNodes(ground, 4 ** tier)));
    summing.sum.fill(0);
    summing.finite(nodes, rho, h);
    const { sum } = summing;
    if (end * h > DEAD_EXPONENT) return out.set(sum);
    if (h > 0.35 * rho) {
      // the exponential decides: panels of a few e-folds until it is spent
      let from = end;
      const last = end + DEAD_EXPONENT / h;
      const step = min(3 / h, PANEL_RAD / max(rho, 1e-9));
      // small places: the integrand falls like a power before the exponential bites, so panels grow with λ
      while (from < last) {
        const to = min(last, from + min(step, 0.7 * from));
        summing.panel(from, to, rho, h);
        from = to;
      }
      return out.set(sum);
    }
    // oscillation decides: half cycles of the Bessel functions, extrapolated
    const half = Math.PI / rho;
    let from = end;
    let first = half * ceil(end / half + 0.25);
    while (from < first) {
      const to = min(first, from + 0.7 * from);
      summing.panel(from, to, rho, h);
      from = to;
    }
    out.set(sum);
    sum.fill(0);
    for (let k = 0; k < PARTIAL_SUMS; k += 1) {
      summing.panel(first, first + half, rho, h);
      first += half;
      sums.set(sum, 8 * k);
    }
    for (let s = 0; s < 4; s += 1) {
      for (let k = 0; k < PARTIAL_SUMS; k += 1) {
        re[k] = sums[8 * k + 2 * s];
        im[k] = sums[8 * k + 2 * s + 1];
      }
      const [limitRe, limitIm] = wynnLimit(re, im, PARTIAL_SUMS);
      out[2 * s] += limitRe;
      out[2 * s + 1] += limitIm;
    }
  };
}
