// Interactions of segments for the wire solver's matrix (see src/solver/fill-kernel.ts), two pairs of segments at a time, one in each SIMD lane.
// Sample places are [x, y, z] per point, m points per segment. The half functions φ₀, φ₁ and their slopes, times the weights, are the same for
// all segments of a run: 4 values per point, `pv` and `qv`. A list has (p, q, slot) for each pair, an even count. Each pair adds to its slot
// of `blocks` (8 values: the 2×2 block, re and im):
//   j·V·Σφφ′w_A·G − j·S·Σφ̇φ̇′w_D·G,   V = kη/4π, S = η/4πk, complex weights w.

import { all, cosine, ma, ms, sinCos, sine } from './simd';

// @ts-ignore: decorator
@inline function at(base: usize, i: i32): usize { return base + (<usize>i << 3); }
// @ts-ignore: decorator
@inline function two(a: usize, b: usize): v128 { return v128.load64_lane(b, v128.load64_splat(a), 1); }
/** ln x for normal positive x, to about 2e-16: mantissa in √½..√2, then 2·artanh as a series in s² (s ≤ 0.1716). */
// @ts-ignore: decorator
@inline function ln(x: v128): v128 {
  // exponent such that the mantissa lies in √½..√2
  const shifted = i64x2.sub(x, i64x2.splat(0x3fe6a09e667f3bcd));
  const e = i64x2.shr_s(shifted, 52);
  const m = i64x2.sub(x, i64x2.shl(e, 52));
  const ef = f64x2.convert_low_i32x4_s(i32x4.shuffle(e, e, 0, 2, 0, 2));
  const s = f64x2.div(f64x2.sub(m, all(1)), f64x2.add(m, all(1)));
  const z = f64x2.mul(s, s);
  let p = ma(all(1.0 / 17.0), z, all(1.0 / 19.0));
  p = ma(all(1.0 / 15.0), z, p);
  p = ma(all(1.0 / 13.0), z, p);
  p = ma(all(1.0 / 11.0), z, p);
  p = ma(all(1.0 / 9.0), z, p);
  p = ma(all(1.0 / 7.0), z, p);
  p = ma(all(1.0 / 5.0), z, p);
  p = ma(all(1.0 / 3.0), z, p);
  p = ma(all(1), z, p);
  return f64x2.add(f64x2.mul(ef, all(0.6931471805599453)), f64x2.mul(f64x2.add(s, s), p));
}

/** atan(h/ρ) for h, ρ ≥ 0, not both 0, to about 2e-16: reduced to |x| ≤ tan(π/8), then the rational function of Cephes. */
// @ts-ignore: decorator
@inline function elevation(h: v128, rho: v128): v128 {
  const low = f64x2.le(h, f64x2.mul(rho, all(0.41421356237309503)));
  const high = f64x2.ge(h, f64x2.mul(rho, all(2.414213562373095)));
  const above = v128.bitselect(h, v128.bitselect(f64x2.neg(rho), f64x2.sub(h, rho), high), low);
  const below = v128.bitselect(rho, v128.bitselect(h, f64x2.add(h, rho), high), low);
  const base = v128.bitselect(all(0), v128.bitselect(all(1.5707963267948966), all(0.7853981633974483), high), low);
  const x = f64x2.div(above, below);
  const z = f64x2.mul(x, x);
  let p = ma(all(-1.615753718733365076637e1), z, all(-8.750608600031904122785e-1));
  p = ma(all(-7.500855792314704667340e1), z, p);
  p = ma(all(-1.228866684490136173410e2), z, p);
  p = ma(all(-6.485021904942025371773e1), z, p);
  let q = f64x2.add(z, all(2.485846490142306297962e1));
  q = ma(all(1.650270098316988542046e2), z, q);
  q = ma(all(4.328810604912902668951e2), z, q);
  q = ma(all(4.853903996359136964868e2), z, q);
  q = ma(all(1.945506571482613964425e2), z, q);
  return f64x2.add(base, ma(x, f64x2.mul(x, z), f64x2.div(p, q)));
}

/** Adds the lanes of one value of the block, j·(re + j·im), to both slots. */
// @ts-ignore: decorator
@inline function put(a: usize, b: usize, c: i32, re: v128, im: v128): void {
  store<f64>(at(a, c), load<f64>(at(a, c)) - f64x2.extract_lane(im, 0));
  store<f64>(at(a, c + 1), load<f64>(at(a, c + 1)) + f64x2.extract_lane(re, 0));
  store<f64>(at(b, c), load<f64>(at(b, c)) - f64x2.extract_lane(im, 1));
  store<f64>(at(b, c + 1), load<f64>(at(b, c + 1)) + f64x2.extract_lane(re, 1));
}

// ∬φᵢφⱼG and ∬φ̇ᵢφ̇ⱼG of the pairs in both lanes
let a00r: v128 = f64x2.splat(0); let a00i: v128 = f64x2.splat(0); let a01r: v128 = f64x2.splat(0); let a01i: v128 = f64x2.splat(0);
let a10r: v128 = f64x2.splat(0); let a10i: v128 = f64x2.splat(0); let a11r: v128 = f64x2.splat(0); let a11i: v128 = f64x2.splat(0);
let d00r: v128 = f64x2.splat(0); let d00i: v128 = f64x2.splat(0); let d01r: v128 = f64x2.splat(0); let d01i: v128 = f64x2.splat(0);
let d10r: v128 = f64x2.splat(0); let d10i: v128 = f64x2.splat(0); let d11r: v128 = f64x2.splat(0); let d11i: v128 = f64x2.splat(0);

// @ts-ignore: decorator
@inline function clear(): void {
  const o = all(0);
  a00r = o; a00i = o; a01r = o; a01i = o; a10r = o; a10i = o; a11r = o; a11i = o;
  d00r = o; d00i = o; d01r = o; d01i = o; d10r = o; d10i = o; d11r = o; d11i = o;
}
/** Adds what one point of p sees of all points of q. */
// @ts-ignore: decorator
@inline function gather(v: usize, a0r: v128, a0i: v128, a1r: v128, a1i: v128, b0r: v128, b0i: v128, b1r: v128, b1i: v128): void {
  const phi0 = v128.load64_splat(v), phi1 = v128.load64_splat(v, 8), slope0 = v128.load64_splat(v, 16), slope1 = v128.load64_splat(v, 24);
  a00r = ma(a00r, phi0, a0r); a00i = ma(a00i, phi0, a0i); a01r = ma(a01r, phi0, a1r); a01i = ma(a01i, phi0, a1i);
  a10r = ma(a10r, phi1, a0r); a10i = ma(a10i, phi1, a0i); a11r = ma(a11r, phi1, a1r); a11i = ma(a11i, phi1, a1i);
  d00r = ma(d00r, slope0, b0r); d00i = ma(d00i, slope0, b0i); d01r = ma(d01r, slope0, b1r); d01i = ma(d01i, slope0, b1i);
  d10r = ma(d10r, slope1, b0r); d10i = ma(d10i, slope1, b0i); d11r = ma(d11r, slope1, b1r); d11i = ma(d11i, slope1, b1i);
}
// @ts-ignore: decorator
@inline function entry(a: usize, b: usize, c: i32, ar: v128, ai: v128, dr: v128, di: v128, war: v128, wai: v128, wdr: v128, wdi: v128): void {
  put(a, b, c,
    f64x2.sub(f64x2.sub(f64x2.mul(war, ar), f64x2.mul(wai, ai)), f64x2.sub(f64x2.mul(wdr, dr), f64x2.mul(wdi, di))),
    f64x2.sub(f64x2.add(f64x2.mul(war, ai), f64x2.mul(wai, ar)), f64x2.add(f64x2.mul(wdr, di), f64x2.mul(wdi, dr))));
}
// @ts-ignore: decorator
@inline function addTo(a: usize, b: usize, war: v128, wai: v128, wdr: v128, wdi: v128): void {
  entry(a, b, 0, a00r, a00i, d00r, d00i, war, wai, wdr, wdi);
  entry(a, b, 2, a01r, a01i, d01r, d01i, war, wai, wdr, wdi);
  entry(a, b, 4, a10r, a10i, d10r, d10i, war, wai, wdr, wdi);
  entry(a, b, 6, a11r, a11i, d11r, d11i, war, wai, wdr, wdi);
}

/**
 * Pairs through e^{−jkR}/R. @param px, qx places of the samples of all segments; @param pv, qv m × 4 values; @param list count × (p, q, slot), count even
 * @param war, wai, wdr, wdi weights of ∬φφ and ∬φ̇φ̇, V and S in them.
 */
export function freePairs(
  px: usize, qx: usize, pv: usize, qv: usize, m: i32, k: f64, list: usize, count: i32, blocks: usize,
  war: f64, wai: f64, wdr: f64, wdi: f64,
): void {
  const kk = all(k), stride = <usize>m * 24;
  const v0 = all(war), v1 = all(wai), v2 = all(wdr), v3 = all(wdi);
  for (let c = 0; c < count; c += 2, list += 24) {
    const pa = px + <usize>load<i32>(list) * stride, qa = qx + <usize>load<i32>(list, 4) * stride;
    const pb = px + <usize>load<i32>(list, 12) * stride, qb = qx + <usize>load<i32>(list, 16) * stride;
    clear();
    for (let g = 0; g < m; g++) {
      const o = <usize>g * 24;
      const x = two(pa + o, pb + o), y = two(pa + o + 8, pb + o + 8), z = two(pa + o + 16, pb + o + 16);
      let a0r = all(0), a0i = all(0), a1r = all(0), a1i = all(0), b0r = all(0), b0i = all(0), b1r = all(0), b1i = all(0);
      for (let h = 0; h < m; h++) {
        const u = <usize>h * 24;
        const dx = f64x2.sub(x, two(qa + u, qb + u)), dy = f64x2.sub(y, two(qa + u + 8, qb + u + 8)), dz = f64x2.sub(z, two(qa + u + 16, qb + u + 16));
        const r = f64x2.sqrt(ma(ma(f64x2.mul(dx, dx), dy, dy), dz, dz));
        sinCos(f64x2.mul(kk, r));
        const inverse = f64x2.div(all(1), r);
        const er = f64x2.mul(cosine, inverse), ei = f64x2.neg(f64x2.mul(sine, inverse));
        const v = qv + (<usize>h << 5);
        const phi0 = v128.load64_splat(v), phi1 = v128.load64_splat(v, 8), slope0 = v128.load64_splat(v, 16), slope1 = v128.load64_splat(v, 24);
        a0r = ma(a0r, phi0, er); a0i = ma(a0i, phi0, ei); a1r = ma(a1r, phi1, er); a1i = ma(a1i, phi1, ei);
        b0r = ma(b0r, slope0, er); b0i = ma(b0i, slope0, ei); b1r = ma(b1r, slope1, er); b1i = ma(b1i, slope1, ei);
      }
      gather(pv + (<usize>g << 5), a0r, a0i, a1r, a1i, b0r, b0i, b1r, b1i);
    }
    addTo(blocks + (<usize>load<i32>(list, 8) << 6), blocks + (<usize>load<i32>(list, 20) << 6), v0, v1, v2, v3);
  }
}

// weights of cubic Lagrange interpolation in both lanes, rows and columns of the table
let w0: v128 = f64x2.splat(0); let w1: v128 = f64x2.splat(0); let w2: v128 = f64x2.splat(0); let w3: v128 = f64x2.splat(0);
// @ts-ignore: decorator
@inline function cubic(x: v128): void {
  const a = f64x2.sub(x, all(1)), b = f64x2.sub(x, all(2)), c = f64x2.add(x, all(1));
  const xa = f64x2.mul(x, a), bc = f64x2.mul(b, c);
  w0 = f64x2.mul(f64x2.mul(xa, b), all(-1.0 / 6.0));
  w1 = f64x2.mul(f64x2.mul(bc, a), all(0.5));
  w2 = f64x2.mul(f64x2.mul(bc, x), all(-0.5));
  w3 = f64x2.mul(f64x2.mul(xa, c), all(1.0 / 6.0));
}

// hh·S₁ + zz·S₄, S₂ and S₃ of one lane, (re, im) each
let s1: v128 = f64x2.splat(0); let s2: v128 = f64x2.splat(0); let s3: v128 = f64x2.splat(0);
// @ts-ignore: decorator
@inline function stencil(p: usize, rowBytes: usize, r0: v128, r1: v128, r2: v128, r3: v128, c0: v128, c1: v128, c2: v128, c3: v128, leaning: bool): void {
  s1 = all(0); s2 = all(0); s3 = all(0);
  for (let i = 0; i < 4; i++, p += rowBytes) {
    const w = i == 0 ? r0 : i == 1 ? r1 : i == 2 ? r2 : r3;
    s1 = ma(s1, w, ma(ma(ma(f64x2.mul(c0, v128.load(p)), c1, v128.load(p, 48)), c2, v128.load(p, 96)), c3, v128.load(p, 144)));
    s2 = ma(s2, w, ma(ma(ma(f64x2.mul(c0, v128.load(p, 16)), c1, v128.load(p, 64)), c2, v128.load(p, 112)), c3, v128.load(p, 160)));
    if (leaning) s3 = ma(s3, w, ma(ma(ma(f64x2.mul(c0, v128.load(p, 32)), c1, v128.load(p, 80)), c2, v128.load(p, 128)), c3, v128.load(p, 176)));
  }
}
// @ts-ignore: decorator
@inline function low(x: v128): v128 { return i64x2.shuffle(x, x, 0, 0); }
// @ts-ignore: decorator
@inline function high(x: v128): v128 { return i64x2.shuffle(x, x, 1, 1); }

/**
 * Pairs through the ground's Sommerfeld terms, from a table of R·S·e^{jkR} over log R and the root of the angle (rows × columns × 8 values).
 * @param table its values; @param grid logLeast, 1/logStep, angleLeast, 1/angleStep, k; @param way directions of p and q, 6 values
 * @param scratch rows × columns × 6 values. Weights are V and S alone.
 */
export function groundPairs(
  px: usize, pv: usize, qv: usize, m: i32, list: usize, count: i32, blocks: usize,
  table: usize, rows: i32, columns: i32, grid: usize, way: usize, scratch: usize, vector: f64, scalar: f64,
): void {
  const stride = <usize>m * 24, rowBytes = <usize>columns * 48;
  const logLeast = v128.load64_splat(grid), logRate = v128.load64_splat(grid, 8), angleLeast = v128.load64_splat(grid, 16), angleRate = v128.load64_splat(grid, 24);
  const k = v128.load64_splat(grid, 32);
  const ux = v128.load64_splat(way), uy = v128.load64_splat(way, 8), uz = v128.load64_splat(way, 16);
  const vx = v128.load64_splat(way, 24), vy = v128.load64_splat(way, 32), vz = v128.load64_splat(way, 40);
  const hh = ma(f64x2.mul(ux, vx), uy, vy), zz = f64x2.mul(uz, vz);
  // two level wires, and two upright ones, do not feel S₃
  const flatP = load<f64>(way, 16) == 0, flatQ = load<f64>(way, 40) == 0;
  const uprightP = load<f64>(way) == 0 && load<f64>(way, 8) == 0, uprightQ = load<f64>(way, 24) == 0 && load<f64>(way, 32) == 0;
  const leaning = !((flatP && flatQ) || (uprightP && uprightQ));
  // what both directions make of S₁ and S₄ is the same for all pairs
  for (let cell = 0, from = table, to = scratch; cell < rows * columns; cell++, from += 64, to += 48) {
    v128.store(to, ma(f64x2.mul(hh, v128.load(from)), zz, v128.load(from, 48)));
    v128.store(to, v128.load(from, 16), 16);
    v128.store(to, v128.load(from, 32), 32);
  }
  const one = all(1), zero = all(0), lastRow = all(<f64>(rows - 3)), lastColumn = all(<f64>(columns - 3));
  const wa = all(vector), wd = all(scalar);
  for (let c = 0; c < count; c += 2, list += 24) {
    const pa = px + <usize>load<i32>(list) * stride, qa = px + <usize>load<i32>(list, 4) * stride;
    const pb = px + <usize>load<i32>(list, 12) * stride, qb = px + <usize>load<i32>(list, 16) * stride;
    clear();
    for (let g = 0; g < m; g++) {
      const o = <usize>g * 24;
      const x = two(pa + o, pb + o), y = two(pa + o + 8, pb + o + 8), z = two(pa + o + 16, pb + o + 16);
      let a0r = zero, a0i = zero, a1r = zero, a1i = zero, b0r = zero, b0i = zero, b1r = zero, b1i = zero;
      for (let h = 0; h < m; h++) {
        const u = <usize>h * 24;
        const dx = f64x2.sub(x, two(qa + u, qb + u)), dy = f64x2.sub(y, two(qa + u + 8, qb + u + 8)), up = f64x2.add(z, two(qa + u + 16, qb + u + 16));
        const rho2 = ma(f64x2.mul(dx, dx), dy, dy), rho = f64x2.sqrt(rho2);
        const rr = ma(rho2, up, up), r = f64x2.sqrt(rr), inverse = f64x2.div(one, r);
        const row = f64x2.mul(f64x2.sub(f64x2.mul(ln(rr), all(0.5)), logLeast), logRate);
        const row0 = f64x2.min(lastRow, f64x2.max(one, f64x2.floor(row)));
        cubic(f64x2.sub(row, row0));
        const r0 = w0, r1 = w1, r2 = w2, r3 = w3;
        const column = f64x2.mul(f64x2.sub(f64x2.sqrt(f64x2.mul(elevation(up, rho), all(0.6366197723675814))), angleLeast), angleRate);
        const column0 = f64x2.min(lastColumn, f64x2.max(one, f64x2.floor(column)));
        cubic(f64x2.sub(column, column0));
        const c0 = w0, c1 = w1, c2 = w2, c3 = w3;
        const corner = f64x2.sub(f64x2.mul(f64x2.sub(row0, one), all(<f64>columns)), f64x2.sub(one, column0));
        stencil(scratch + <usize>f64x2.extract_lane(corner, 0) * 48, rowBytes, low(r0), low(r1), low(r2), low(r3), low(c0), low(c1), low(c2), low(c3), leaning);
        const t1 = s1, t2 = s2, t3 = s3;
        stencil(scratch + <usize>f64x2.extract_lane(corner, 1) * 48, rowBytes, high(r0), high(r1), high(r2), high(r3), high(c0), high(c1), high(c2), high(c3), leaning);
        sinCos(f64x2.mul(k, r));
        const er = f64x2.mul(cosine, inverse), ei = f64x2.mul(sine, inverse); // e^{−jkR}/R = er − j·ei
        const s1r = i64x2.shuffle(t1, s1, 0, 2), s1i = i64x2.shuffle(t1, s1, 1, 3), s2r = i64x2.shuffle(t2, s2, 0, 2), s2i = i64x2.shuffle(t2, s2, 1, 3);
        let fr = s1r, fi = s1i;
        if (leaning) {
          const s3r = i64x2.shuffle(t3, s3, 0, 2), s3i = i64x2.shuffle(t3, s3, 1, 3);
          // G_zx = −cosφ S₃ and G_xz = +cosφ S₃, φ from source to field point; 0 where points stand above each other
          const lean = f64x2.sub(f64x2.mul(ma(f64x2.mul(ux, dx), uy, dy), vz), f64x2.mul(uz, ma(f64x2.mul(vx, dx), vy, dy)));
          const cross = v128.and(f64x2.div(lean, rho), f64x2.gt(rho, f64x2.mul(up, all(1e-9))));
          fr = ma(fr, cross, s3r);
          fi = ma(fi, cross, s3i);
        }
        const vr = ma(f64x2.mul(fr, er), fi, ei), vi = ms(f64x2.mul(fi, er), fr, ei);
        const dr = ma(f64x2.mul(s2r, er), s2i, ei), di = ms(f64x2.mul(s2i, er), s2r, ei);
        const v = qv + (<usize>h << 5);
        const phi0 = v128.load64_splat(v), phi1 = v128.load64_splat(v, 8), slope0 = v128.load64_splat(v, 16), slope1 = v128.load64_splat(v, 24);
        a0r = ma(a0r, phi0, vr); a0i = ma(a0i, phi0, vi); a1r = ma(a1r, phi1, vr); a1i = ma(a1i, phi1, vi);
        b0r = ma(b0r, slope0, dr); b0i = ma(b0i, slope0, di); b1r = ma(b1r, slope1, dr); b1i = ma(b1i, slope1, di);
      }
      gather(pv + (<usize>g << 5), a0r, a0i, a1r, a1i, b0r, b0i, b1r, b1i);
    }
    addTo(blocks + (<usize>load<i32>(list, 8) << 6), blocks + (<usize>load<i32>(list, 20) << 6), wa, zero, wd, zero);
  }
}

/** Adds one value of a block to the unknowns of two halves, in the upper triangle. */
// @ts-ignore: decorator
@inline function addHalves(z: usize, n: i32, value: v128, turned: f64, same: bool, hp: usize, hq: usize, halfUnknown: usize, halfSign: usize): void {
  const v0 = load<i32>(hq), v1 = load<i32>(hq, 4);
  for (let u = load<i32>(hp), u1 = load<i32>(hp, 4); u < u1; u++) {
    const row = load<i32>(halfUnknown + (<usize>u << 2)), su = turned * load<f64>(at(halfSign, u));
    for (let v = v0; v < v1; v++) {
      const column = load<i32>(halfUnknown + (<usize>v << 2));
      let s = su * load<f64>(at(halfSign, v));
      if (same) {
        if (row < column) continue;
      } else if (row == column) s *= 2;
      const place = z + (<usize>(min(row, column) * n + max(row, column)) << 4);
      v128.store(place, f64x2.add(v128.load(place), f64x2.mul(value, f64x2.splat(s))));
    }
  }
}

/**
 * Adds the blocks of two runs to the upper triangle of the matrix, row-major with n columns of (re, im).
 * @param shape how slots follow from places i and j: 0 by the difference, 1 by the sum, 2 each its own
 * @param flipA, flipB 1 where a run is counted from its other end: its halves change places, and each turned run changes the sign
 * @param innerA, innerB unknown between the first two segments, where all inner ones follow it and have both signs 1; else −1
 * @param halfStart, halfUnknown, halfSign the mesh's: which unknowns a half belongs to
 */
export function scatter(
  z: usize, n: i32, blocks: usize, shape: i32, self: bool, from: i32, to: i32, countA: i32, countB: i32, firstA: i32, firstB: i32,
  flipA: i32, flipB: i32, innerA: i32, innerB: i32, halfStart: usize, halfUnknown: usize, halfSign: usize,
): void {
  const turned: f64 = flipA == flipB ? 1 : -1, sign = f64x2.splat(turned);
  // unknown of inner node m, counted as the blocks are: first + step·m
  const stepA = flipA ? -1 : 1, stepB = flipB ? -1 : 1;
  const nodeA = flipA ? innerA + countA - 2 : innerA, nodeB = flipB ? innerB + countB - 2 : innerB;
  const regular = innerA >= 0 && innerB >= 0;
  for (let i = from; i < to; i++) {
    const p = firstA + (flipA ? countA - 1 - i : i);
    const row = blocks + (<usize>(shape == 0 ? (self ? -i : countA - 1 - i) : shape == 1 ? i : (i - from) * countB) << 6);
    const first = self ? i + 2 : 0;
    for (let a = 0; a < 2; a++) {
      const hp = halfStart + (<usize>(2 * p + (a ^ flipA)) << 2);
      const inner = regular && (a == 0 ? i > 0 : i < countA - 1) && first < countB;
      for (let j = self ? i : 0; j < countB; j++) {
        const q = firstB + (flipB ? countB - 1 - j : j);
        const block = row + (<usize>j << 6) + (<usize>a << 5);
        const hq = halfStart + (<usize>(2 * q) << 2);
        if (inner && j >= first) {
          if (j == first) addHalves(z, n, v128.load(block), turned, p == q, hp, hq + (<usize>flipB << 2), halfUnknown, halfSign);
          // all columns in one go: unknown between j and j + 1 belongs to the end of one and the start of the next
          const u = nodeA + stepA * (i - 1 + a);
          let v = nodeB + stepB * j;
          let place = u < v ? z + (<usize>(u * n + v) << 4) : z + (<usize>(v * n + u) << 4);
          const stride = u < v ? stepB << 4 : stepB * (n << 4);
          let from = block + 16;
          for (let m = j; m < countB - 1; m++) {
            v128.store(place, ma(v128.load(place), sign, f64x2.add(v128.load(from), v128.load(from, 48))));
            place += stride;
            from += 64;
          }
          const last = firstB + (flipB ? 0 : countB - 1);
          addHalves(z, n, v128.load(row + (<usize>(countB - 1) << 6) + (<usize>a << 5), 16), turned, p == last,
            hp, halfStart + (<usize>(2 * last + (1 ^ flipB)) << 2), halfUnknown, halfSign);
          break;
        }
        addHalves(z, n, v128.load(block), turned, p == q, hp, hq + (<usize>flipB << 2), halfUnknown, halfSign);
        addHalves(z, n, v128.load(block, 16), turned, p == q, hp, hq + (<usize>(1 ^ flipB) << 2), halfUnknown, halfSign);
      }
    }
  }
}

export function base(): usize { return (__heap_base + 63) & ~63; }
