// What the kernels share: short words for two doubles side by side, and sin and cos of them.

// @ts-ignore: decorator
@inline export function all(x: f64): v128 { return f64x2.splat(x); }
// @ts-ignore: decorator
@inline export function ma(s: v128, a: v128, b: v128): v128 { return f64x2.add(s, f64x2.mul(a, b)); }
// @ts-ignore: decorator
@inline export function ms(s: v128, a: v128, b: v128): v128 { return f64x2.sub(s, f64x2.mul(a, b)); }

export let sine: v128 = f64x2.splat(0);
export let cosine: v128 = f64x2.splat(0);
/** sin x and cos x for |x| < 1e5, to about 2e-16: quadrant by Cody and Waite, then the polynomials of Cephes (S. Moshier, 1989). */
// @ts-ignore: decorator
@inline export function sinCos(x: v128): void {
  // adding 1.5·2⁵² rounds to a whole number and leaves it in the lowest bits
  const wide = ma(all(6755399441055744.0), x, all(0.6366197723675814)), n = f64x2.sub(wide, all(6755399441055744.0));
  let r = ms(x, n, all(1.5707963267341256));
  r = ms(r, n, all(6.077100506303966e-11));
  r = ms(r, n, all(2.0222662487959506e-21));
  const z = f64x2.mul(r, r);
  let s = ma(all(-2.50507477628578072866e-8), z, all(1.58962301576546568060e-10));
  s = ma(all(2.75573136213857245213e-6), z, s);
  s = ma(all(-1.98412698295895385996e-4), z, s);
  s = ma(all(8.33333333332211858878e-3), z, s);
  s = ma(all(-1.66666666666666307295e-1), z, s);
  s = ma(r, f64x2.mul(r, z), s);
  let c = ma(all(2.08757008419747316778e-9), z, all(-1.13585365213876817300e-11));
  c = ma(all(-2.75573141792967388112e-7), z, c);
  c = ma(all(2.48015872888517045348e-5), z, c);
  c = ma(all(-1.38888888888730564116e-3), z, c);
  c = ma(all(4.16666666666665929218e-2), z, c);
  c = ma(ms(all(1), z, all(0.5)), f64x2.mul(z, z), c);
  // quadrant: odd ones change places, the sign follows bit 1
  const odd = i64x2.sub(i64x2.splat(0), v128.and(wide, i64x2.splat(1)));
  sine = v128.xor(v128.bitselect(c, s, odd), i64x2.shl(v128.and(wide, i64x2.splat(2)), 62));
  cosine = v128.xor(v128.bitselect(s, c, odd), i64x2.shl(v128.and(i64x2.add(wide, i64x2.splat(1)), i64x2.splat(2)), 62));
}
