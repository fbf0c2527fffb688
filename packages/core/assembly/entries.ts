// Matrix entries between frequencies (see src/solver/entry-fit.ts), two entries at a time, one in each SIMD lane.
// A plane holds one number of every entry. A node has four: the direct waves re and im, those from below re and im; the ways have one for each.

import { all, cosine, ma, ms, sinCos, sine } from './simd';

/** Multiplies a plane of real and one of imaginary parts by factor·e^{jk·way}, in place. */
export function turn(re: usize, im: usize, ways: usize, plane: usize, k: f64, factor: f64): void {
  for (let e: usize = 0; e < plane; e += 16) {
    sinCos(f64x2.mul(all(k), v128.load(ways + e)));
    const x = f64x2.mul(all(factor), v128.load(re + e)),
      y = f64x2.mul(all(factor), v128.load(im + e));
    v128.store(re + e, ms(f64x2.mul(x, cosine), y, sine));
    v128.store(im + e, ma(f64x2.mul(x, sine), y, cosine));
  }
}

/** Writes Σ share·node·e^{−jk·way}, both layers together, to two planes at out. */
export function between(
  out: usize,
  nodes: usize,
  count: i32,
  shares: usize,
  ways: usize,
  plane: usize,
  k: f64,
  below: bool,
): void {
  const width: usize = 4 * plane;
  for (let e: usize = 0; e < plane; e += 16) {
    let node = nodes + e,
      dr = all(0),
      di = all(0),
      br = all(0),
      bi = all(0);
    for (let m = 0; m < count; m++, node += width) {
      const share = v128.load64_splat(shares + 8 * m);
      dr = ma(dr, share, v128.load(node));
      di = ma(di, share, v128.load(node + plane));
      if (!below) continue;
      br = ma(br, share, v128.load(node + 2 * plane));
      bi = ma(bi, share, v128.load(node + 3 * plane));
    }
    sinCos(f64x2.mul(all(k), v128.load(ways + e)));
    let re = ma(f64x2.mul(dr, cosine), di, sine),
      im = ms(f64x2.mul(di, cosine), dr, sine);
    if (below) {
      sinCos(f64x2.mul(all(k), v128.load(ways + plane + e)));
      re = ma(ma(re, br, cosine), bi, sine);
      im = ms(ma(im, bi, cosine), br, sine);
    }
    v128.store(out + e, re);
    v128.store(out + plane + e, im);
  }
}

export function base(): usize {
  return (__heap_base + 63) & ~63;
}
