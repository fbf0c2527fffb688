// The far field of many small currents in one direction (see src/solver/far-field.ts), two currents at a time, one in each SIMD lane.
// A pair of currents has 2 × 9 values: x, y, z, then the moments along them (re, im), each for both currents in turn.

import { all, cosine, ma, ms, sinCos, sine } from './simd';

const WIDTH: usize = 144;

// @ts-ignore: decorator
@inline function put(at: usize, v: v128): void {
  store<f64>(at, f64x2.extract_lane(v, 0) + f64x2.extract_lane(v, 1));
}

/**
 * Writes Σ moment·e^{jk·r̂·r′} to out: the parts along the horizontal of θ, along z and along φ, re and im; six more for the places mirrored in the ground.
 */
export function radiate(out: usize, currents: usize, pairs: i32, flatX: f64, flatY: f64, rise: f64, cosP: f64, sinP: f64, mirrored: bool): void {
  const kx = all(flatX), ky = all(flatY), kz = all(rise), cp = all(cosP), sp = all(sinP), o = all(0);
  let hr = o, hi = o, vr = o, vi = o, pr = o, pi = o, Hr = o, Hi = o, Vr = o, Vi = o, Pr = o, Pi = o;
  for (let i = 0; i < pairs; i++, currents += WIDTH) {
    const flat = ma(f64x2.mul(kx, v128.load(currents)), ky, v128.load(currents, 16)), up = f64x2.mul(kz, v128.load(currents, 32));
    const xr = v128.load(currents, 48), xi = v128.load(currents, 64), yr = v128.load(currents, 80), yi = v128.load(currents, 96);
    const zr = v128.load(currents, 112), zi = v128.load(currents, 128);
    const alongRe = ma(f64x2.mul(xr, cp), yr, sp), alongIm = ma(f64x2.mul(xi, cp), yi, sp);
    const acrossRe = ms(f64x2.mul(yr, cp), xr, sp), acrossIm = ms(f64x2.mul(yi, cp), xi, sp);
    sinCos(f64x2.add(flat, up));
    hr = ms(ma(hr, alongRe, cosine), alongIm, sine); hi = ma(ma(hi, alongRe, sine), alongIm, cosine);
    vr = ms(ma(vr, zr, cosine), zi, sine); vi = ma(ma(vi, zr, sine), zi, cosine);
    pr = ms(ma(pr, acrossRe, cosine), acrossIm, sine); pi = ma(ma(pi, acrossRe, sine), acrossIm, cosine);
    if (!mirrored) continue;
    sinCos(f64x2.sub(flat, up));
    Hr = ms(ma(Hr, alongRe, cosine), alongIm, sine); Hi = ma(ma(Hi, alongRe, sine), alongIm, cosine);
    Vr = ms(ma(Vr, zr, cosine), zi, sine); Vi = ma(ma(Vi, zr, sine), zi, cosine);
    Pr = ms(ma(Pr, acrossRe, cosine), acrossIm, sine); Pi = ma(ma(Pi, acrossRe, sine), acrossIm, cosine);
  }
  put(out, hr); put(out + 8, hi); put(out + 16, vr); put(out + 24, vi); put(out + 32, pr); put(out + 40, pi);
  if (!mirrored) return;
  put(out + 48, Hr); put(out + 56, Hi); put(out + 64, Vr); put(out + 72, Vi); put(out + 80, Pr); put(out + 88, Pi);
}

export function base(): usize { return (__heap_base + 63) & ~63; }
