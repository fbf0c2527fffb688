// The sums of the Sommerfeld integrals (see src/solver/sommerfeld.ts): spectral nodes times e^{−γ₂h} and the Bessel functions, two nodes at a
// time, one in each SIMD lane. A pair of nodes has 2 × 11 values: λ, γ₂ (re, im), then four complex weights, each for both nodes in turn.

import { all, cosine, ma, ms, sinCos, sine } from './simd';

/** eˣ for −700 ≤ x ≤ 700, to about 2e-16: by powers of 2, then the rational function of Cephes. */
// @ts-ignore: decorator
@inline function exp(x: v128): v128 {
  const n = f64x2.nearest(f64x2.mul(x, all(1.4426950408889634)));
  let r = ms(x, n, all(6.93145751953125e-1));
  r = ms(r, n, all(1.42860682030941723212e-6));
  const z = f64x2.mul(r, r);
  let p = ma(all(3.02994407707441961300e-2), z, all(1.26177193074810590878e-4));
  p = f64x2.mul(r, ma(all(9.99999999999999999910e-1), z, p));
  let q = ma(all(2.52448340349684104192e-3), z, all(3.00198505138664455042e-6));
  q = ma(all(2.27265548208155028766e-1), z, q);
  q = ma(all(2.00000000000000000005), z, q);
  const part = f64x2.div(p, f64x2.sub(q, p));
  const power = i64x2.shl(i64x2.add(i64x2.extend_low_i32x4_s(i32x4.trunc_sat_f64x2_s_zero(n)), i64x2.splat(1023)), 52);
  return f64x2.mul(ma(all(1), part, all(2)), power);
}

/** J₀(x), x ≥ 0: Abramowitz & Stegun 9.4.1 and 9.4.3, the same as besselJ0 of the core. */
// @ts-ignore: decorator
@inline function j0(x: v128): v128 {
  const near = f64x2.lt(x, all(3));
  const s = f64x2.mul(x, all(1.0 / 3.0)), t = f64x2.mul(s, s);
  let p = ma(all(-0.0039444), t, all(0.00021));
  p = ma(all(0.0444479), t, p);
  p = ma(all(-0.3163866), t, p);
  p = ma(all(1.2656208), t, p);
  p = ma(all(-2.2499997), t, p);
  p = ma(all(1), t, p);
  if (i64x2.all_true(near)) return p;
  const u = f64x2.div(all(3), x);
  let size = ma(all(-0.00072805), u, all(0.00014476));
  size = ma(all(0.00137237), u, size);
  size = ma(all(-0.00009512), u, size);
  size = ma(all(-0.0055274), u, size);
  size = ma(all(-0.00000077), u, size);
  size = ma(all(0.79788456), u, size);
  let phase = ma(all(-0.00029333), u, all(0.00013558));
  phase = ma(all(-0.00054125), u, phase);
  phase = ma(all(0.00262573), u, phase);
  phase = ma(all(-0.00003954), u, phase);
  phase = ma(all(-0.04166397), u, phase);
  sinCos(ma(f64x2.sub(x, all(0.78539816)), u, phase));
  return v128.bitselect(p, f64x2.div(f64x2.mul(size, cosine), f64x2.sqrt(x)), near);
}

/** J₁(x), x ≥ 0: Abramowitz & Stegun 9.4.4 and 9.4.6, the same as besselJ1 of the core. */
// @ts-ignore: decorator
@inline function j1(x: v128): v128 {
  const near = f64x2.lt(x, all(3));
  const s = f64x2.mul(x, all(1.0 / 3.0)), t = f64x2.mul(s, s);
  let p = ma(all(-0.00031761), t, all(0.00001109));
  p = ma(all(0.00443319), t, p);
  p = ma(all(-0.03954289), t, p);
  p = ma(all(0.21093573), t, p);
  p = ma(all(-0.56249985), t, p);
  p = f64x2.mul(x, ma(all(0.5), t, p));
  if (i64x2.all_true(near)) return p;
  const u = f64x2.div(all(3), x);
  let size = ma(all(0.00113653), u, all(-0.00020033));
  size = ma(all(-0.00249511), u, size);
  size = ma(all(0.00017105), u, size);
  size = ma(all(0.01659667), u, size);
  size = ma(all(0.00000156), u, size);
  size = ma(all(0.79788456), u, size);
  let phase = ma(all(0.00079824), u, all(-0.00029166));
  phase = ma(all(0.00074348), u, phase);
  phase = ma(all(-0.00637879), u, phase);
  phase = ma(all(0.0000565), u, phase);
  phase = ma(all(0.12499612), u, phase);
  sinCos(ma(f64x2.sub(x, all(2.35619449)), u, phase));
  return v128.bitselect(p, f64x2.div(f64x2.mul(size, cosine), f64x2.sqrt(x)), near);
}

const WIDTH: usize = 176; // bytes of a pair of nodes

/** Adds both lanes to one of the sums. */
// @ts-ignore: decorator
@inline function put(sum: usize, v: v128): void {
  store<f64>(sum, load<f64>(sum) + f64x2.extract_lane(v, 0) + f64x2.extract_lane(v, 1));
}

/** Adds Σ weight·e^{−γ₂h}·J(λρ) over pairs of nodes to the 8 values of sum: S₁..S₄, re and im. */
export function accumulate(sum: usize, nodes: usize, pairs: i32, rho: f64, h: f64): void {
  let s0 = all(0), s1 = all(0), s2 = all(0), s3 = all(0), s4 = all(0), s5 = all(0), s6 = all(0), s7 = all(0);
  const hh = all(h), rr = all(rho);
  for (let i = 0; i < pairs; i++, nodes += WIDTH) {
    const down = f64x2.mul(v128.load(nodes, 16), hh);
    // e^{−32.2} = 1e-14: what is smaller does not count
    if (i64x2.all_true(f64x2.gt(down, all(32.23)))) continue;
    const decay = exp(f64x2.neg(f64x2.min(down, all(700))));
    sinCos(f64x2.mul(v128.load(nodes, 32), hh));
    const er = f64x2.mul(decay, cosine), ei = f64x2.neg(f64x2.mul(decay, sine));
    const x = f64x2.mul(v128.load(nodes), rr);
    const b0 = j0(x), r0 = f64x2.mul(er, b0), i0 = f64x2.mul(ei, b0);
    let wr = v128.load(nodes, 48), wi = v128.load(nodes, 64);
    s0 = f64x2.add(s0, ms(f64x2.mul(wr, r0), wi, i0));
    s1 = f64x2.add(s1, ma(f64x2.mul(wr, i0), wi, r0));
    wr = v128.load(nodes, 80); wi = v128.load(nodes, 96);
    s2 = f64x2.add(s2, ms(f64x2.mul(wr, r0), wi, i0));
    s3 = f64x2.add(s3, ma(f64x2.mul(wr, i0), wi, r0));
    const b1 = j1(x), r1 = f64x2.mul(er, b1), i1 = f64x2.mul(ei, b1);
    wr = v128.load(nodes, 112); wi = v128.load(nodes, 128);
    s4 = f64x2.add(s4, ms(f64x2.mul(wr, r1), wi, i1));
    s5 = f64x2.add(s5, ma(f64x2.mul(wr, i1), wi, r1));
    wr = v128.load(nodes, 144); wi = v128.load(nodes, 160);
    s6 = f64x2.add(s6, ms(f64x2.mul(wr, r0), wi, i0));
    s7 = f64x2.add(s7, ma(f64x2.mul(wr, i0), wi, r0));
  }
  put(sum, s0); put(sum + 8, s1); put(sum + 16, s2); put(sum + 24, s3);
  put(sum + 32, s4); put(sum + 40, s5); put(sum + 48, s6); put(sum + 56, s7);
}

/**
 * Writes pairs of nodes of the tail, where γ₂ is real, between two λ.
 * @param rule abscissas on −1..1 and weights: a v128 of each for every pair, one after the other
 */
export function tailNodes(nodes: usize, rule: usize, pairs: i32, from: f64, to: f64, er: f64, ei: f64): void {
  const half = all((to - from) / 2), middle = all((to + from) / 2), vr = all(er), vi = all(ei), one = all(1);
  const den = (er + 1) * (er + 1) + ei * ei;
  const cr = all((2 * ((er - 1) * (er + 1) + ei * ei)) / den), ci = all((4 * ei) / den);
  const less = all(er - 1), more = all(er + 1);
  for (let i = 0; i < pairs; i++, nodes += WIDTH, rule += 32) {
    const lambda = ma(middle, half, v128.load(rule));
    const square = f64x2.mul(lambda, lambda), g22 = f64x2.sub(square, one), g2 = f64x2.sqrt(g22);
    const m = f64x2.div(f64x2.mul(f64x2.mul(half, v128.load(rule, 16)), lambda), g2);
    // γ₁ = √(λ² − ε): the real part of λ² − ε is positive beyond every branch point
    const ar = f64x2.sub(square, vr), size = f64x2.sqrt(ma(f64x2.mul(ar, ar), vi, vi));
    const g1r = f64x2.sqrt(f64x2.mul(all(0.5), f64x2.add(size, f64x2.abs(ar))));
    const g1i = f64x2.div(f64x2.neg(vi), f64x2.add(g1r, g1r));
    const sr = f64x2.add(g1r, g2), si = g1i;
    const dr = ma(g1r, vr, g2), di = ma(g1i, vi, g2);
    v128.store(nodes, lambda);
    v128.store(nodes, g2, 16);
    v128.store(nodes, all(0), 32);
    // S₁: (ε−1)/s² · λ dλ/γ₂
    const s2r = ms(f64x2.mul(sr, sr), si, si), s2i = f64x2.mul(f64x2.add(sr, sr), si);
    const s2 = f64x2.div(m, ma(f64x2.mul(s2r, s2r), s2i, s2i));
    v128.store(nodes, f64x2.mul(s2, ma(f64x2.mul(less, s2r), vi, s2i)), 48);
    v128.store(nodes, f64x2.mul(s2, ms(f64x2.mul(vi, s2r), less, s2i)), 64);
    // c/(sD)
    const pr = ms(f64x2.mul(sr, dr), si, di), pi = ma(f64x2.mul(sr, di), si, dr);
    const p2 = f64x2.div(m, ma(f64x2.mul(pr, pr), pi, pi));
    const br = f64x2.mul(p2, ma(f64x2.mul(cr, pr), ci, pi)), bi = f64x2.mul(p2, ms(f64x2.mul(ci, pr), cr, pi));
    v128.store(nodes, br, 80);
    v128.store(nodes, bi, 96);
    // S₃: (ε+1)·γ₂·λ·[c/(sD) λ dλ/γ₂]
    const er1r = f64x2.mul(more, g2), er1i = f64x2.mul(vi, g2);
    v128.store(nodes, f64x2.mul(lambda, ms(f64x2.mul(er1r, br), er1i, bi)), 112);
    v128.store(nodes, f64x2.mul(lambda, ma(f64x2.mul(er1r, bi), er1i, br)), 128);
    // S₄: ε + (ε+1)γ₂²
    const fr = ma(vr, more, g22), fi = ma(vi, vi, g22);
    v128.store(nodes, ms(f64x2.mul(fr, br), fi, bi), 144);
    v128.store(nodes, ma(f64x2.mul(fr, bi), fi, br), 160);
  }
}

export function base(): usize { return (__heap_base + 63) & ~63; }
