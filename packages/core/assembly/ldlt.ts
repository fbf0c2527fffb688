// Complex symmetric LDLᵀ without pivoting, in place, for the wire solver's matrices (see src/numeric/symmetric-solve.ts).
// Layout: split real and imaginary parts, row-major with a row length `ld` (even), lower triangle used. After factoring, the strict lower
// triangle holds L, the diagonal holds D⁻¹. Blocked: a panel of NB columns is factored, then the trailing lower triangle is updated by
// A22 −= L21·D·L21ᵀ in 2×4 tiles of SIMD pairs, with W = D·L21 kept transposed (row per panel column).
const NB: i32 = 24;

// @ts-ignore: decorator
@inline function at(base: usize, i: i32): usize { return base + (<usize>i << 3); }

/**
 * @param re, im n×ld values. @param wr, wi NB×ld scratch: W transposed. @returns 1, or 0 when a pivot vanishes.
 */
export function ldlt(re: usize, im: usize, wr: usize, wi: usize, n: i32, ld: i32): i32 {
  for (let k0 = 0; k0 < n; k0 += NB) {
    const k1 = min(k0 + NB, n);
    // panel: left-looking inside the block
    for (let k = k0; k < k1; k++) {
      // column k below the diagonal −= Σ_{p<k in block} L[i,p]·W[p,k]
      for (let i = k; i < n; i++) {
        const ri = i * ld;
        let sr = load<f64>(at(re, ri + k)), si = load<f64>(at(im, ri + k));
        for (let p = k0; p < k; p++) {
          const lr = load<f64>(at(re, ri + p)), li = load<f64>(at(im, ri + p));
          const o = (p - k0) * ld + k;
          const vr = load<f64>(at(wr, o)), vi = load<f64>(at(wi, o));
          sr -= lr * vr - li * vi;
          si -= lr * vi + li * vr;
        }
        store<f64>(at(re, ri + k), sr);
        store<f64>(at(im, ri + k), si);
      }
      const o = k * ld + k;
      const dr = load<f64>(at(re, o)), di = load<f64>(at(im, o)), size = dr * dr + di * di;
      if (!(size > 0)) return 0;
      const ir = dr / size, ii = -di / size;
      store<f64>(at(re, o), ir);
      store<f64>(at(im, o), ii);
      // W[k, i] = column before scaling (D·L); L = column·D⁻¹
      const w = (k - k0) * ld;
      for (let i = k + 1; i < n; i++) {
        const c = i * ld + k;
        const cr = load<f64>(at(re, c)), ci = load<f64>(at(im, c));
        store<f64>(at(wr, w + i), cr);
        store<f64>(at(wi, w + i), ci);
        store<f64>(at(re, c), cr * ir - ci * ii);
        store<f64>(at(im, c), cr * ii + ci * ir);
      }
    }
    // trailing lower triangle: A[i, j] −= Σ_p L[i,p]·W[p,j], j ≤ i; rows in pairs, columns in fours (a few beyond the diagonal do no harm)
    const nb = k1 - k0;
    let i = k1;
    for (; i + 1 < n; i += 2) {
      const ra = i * ld, rb = ra + ld;
      for (let j = k1; j <= i + 1; j += 4) {
        const par = at(re, ra + j), pai = at(im, ra + j), pbr = at(re, rb + j), pbi = at(im, rb + j);
        let ar0 = v128.load(par), ar1 = v128.load(par, 16), ai0 = v128.load(pai), ai1 = v128.load(pai, 16);
        let br0 = v128.load(pbr), br1 = v128.load(pbr, 16), bi0 = v128.load(pbi), bi1 = v128.load(pbi, 16);
        let pu = at(wr, j), pv = at(wi, j);
        const step = <usize>ld << 3;
        for (let p = 0; p < nb; p++, pu += step, pv += step) {
          const ur0 = v128.load(pu), ur1 = v128.load(pu, 16), ui0 = v128.load(pv), ui1 = v128.load(pv, 16);
          let lr = v128.load_splat<f64>(at(re, ra + k0 + p)), li = v128.load_splat<f64>(at(im, ra + k0 + p));
          ar0 = f64x2.add(f64x2.sub(ar0, f64x2.mul(lr, ur0)), f64x2.mul(li, ui0));
          ar1 = f64x2.add(f64x2.sub(ar1, f64x2.mul(lr, ur1)), f64x2.mul(li, ui1));
          ai0 = f64x2.sub(f64x2.sub(ai0, f64x2.mul(lr, ui0)), f64x2.mul(li, ur0));
          ai1 = f64x2.sub(f64x2.sub(ai1, f64x2.mul(lr, ui1)), f64x2.mul(li, ur1));
          lr = v128.load_splat<f64>(at(re, rb + k0 + p)); li = v128.load_splat<f64>(at(im, rb + k0 + p));
          br0 = f64x2.add(f64x2.sub(br0, f64x2.mul(lr, ur0)), f64x2.mul(li, ui0));
          br1 = f64x2.add(f64x2.sub(br1, f64x2.mul(lr, ur1)), f64x2.mul(li, ui1));
          bi0 = f64x2.sub(f64x2.sub(bi0, f64x2.mul(lr, ui0)), f64x2.mul(li, ur0));
          bi1 = f64x2.sub(f64x2.sub(bi1, f64x2.mul(lr, ui1)), f64x2.mul(li, ur1));
        }
        v128.store(par, ar0); v128.store(pai, ai0); v128.store(pbr, br0); v128.store(pbi, bi0);
        v128.store(par, ar1, 16); v128.store(pai, ai1, 16); v128.store(pbr, br1, 16); v128.store(pbi, bi1, 16);
      }
    }
    for (; i < n; i++) {
      const ri = i * ld;
      for (let j = k1; j <= i; j++) {
        let sr = load<f64>(at(re, ri + j)), si = load<f64>(at(im, ri + j));
        for (let p = 0; p < nb; p++) {
          const lr = load<f64>(at(re, ri + k0 + p)), li = load<f64>(at(im, ri + k0 + p));
          const o = p * ld + j;
          const vr = load<f64>(at(wr, o)), vi = load<f64>(at(wi, o));
          sr -= lr * vr - li * vi;
          si -= lr * vi + li * vr;
        }
        store<f64>(at(re, ri + j), sr);
        store<f64>(at(im, ri + j), si);
      }
    }
  }
  return 1;
}

export function base(): usize { return (__heap_base + 63) & ~63; }
