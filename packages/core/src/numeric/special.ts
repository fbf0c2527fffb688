import { NotConvergedError } from '../errors';

const EULER_GAMMA = 0.5772156649015329;

/**
 * Sine integral Si(x) and cosine integral Ci(x), x > 0.
 * Power series below 4 (Abramowitz & Stegun 5.2.14, 5.2.16), continued fraction of E₁(jx) by Lentz's method above (5.1.22).
 * Relative error below 1e-12 over 1e-6..1e6.
 */
export function sineCosineIntegrals(x: number): { readonly si: number; readonly ci: number } {
  if (x === 0) return { si: 0, ci: -Infinity };
  if (x < 4) {
    let si = 0;
    let ci = EULER_GAMMA + Math.log(x);
    let term = 1; // xᵏ/k!, sign by pairs
    for (let k = 1; k < 80; k += 1) {
      term *= x / k;
      const signed = Math.floor(k / 2) % 2 === 0 ? term : -term;
      if (k % 2 === 1) si += signed / k;
      else ci += signed / k;
      if (term < 1e-18) break;
    }
    return { si, ci };
  }
  // E₁(jx) = e^{−jx}·1/(1+jx − 1²/(3+jx − 2²/(5+jx − …)))
  let bRe = 1;
  let cRe = 1e300;
  let cIm = 0;
  let norm = bRe * bRe + x * x;
  let dRe = bRe / norm;
  let dIm = -x / norm;
  let hRe = dRe;
  let hIm = dIm;
  for (let i = 1; i < 500; i += 1) {
    const a = -(i * i);
    bRe += 2;
    const ddRe = a * dRe + bRe;
    const ddIm = a * dIm + x;
    norm = ddRe * ddRe + ddIm * ddIm;
    dRe = ddRe / norm;
    dIm = -ddIm / norm;
    norm = cRe * cRe + cIm * cIm;
    const ccRe = bRe + (a * cRe) / norm;
    const ccIm = x - (a * cIm) / norm;
    cRe = ccRe;
    cIm = ccIm;
    const deltaRe = cRe * dRe - cIm * dIm;
    const deltaIm = cRe * dIm + cIm * dRe;
    const nextRe = hRe * deltaRe - hIm * deltaIm;
    hIm = hRe * deltaIm + hIm * deltaRe;
    hRe = nextRe;
    if (Math.abs(deltaRe - 1) + Math.abs(deltaIm) < 1e-15) {
      const cos = Math.cos(x);
      const sin = Math.sin(x);
      return { si: Math.PI / 2 + (cos * hIm - sin * hRe), ci: -(cos * hRe + sin * hIm) };
    }
  }
  throw new NotConvergedError('The cosine integral', Math.hypot(hRe, hIm));
}

const LANCZOS = [
  0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059,
  12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
];

/** ln Γ(x), x > 0; Lanczos approximation (g = 7, n = 9), error below 1e-13. */
export function logGamma(x: number): number {
  if (x < 0.5) return Math.log(Math.PI / Math.sin(Math.PI * x)) - logGamma(1 - x);
  let sum = LANCZOS[0];
  for (let i = 1; i < 9; i += 1) sum += LANCZOS[i] / (x - 1 + i);
  const t = x + 6.5;
  return 0.5 * Math.log(2 * Math.PI) + (x - 0.5) * Math.log(t) - t + Math.log(sum);
}

/** Regularised incomplete beta I_x(a, b) by Lentz's continued fraction (Abramowitz & Stegun 26.5.8). */
export function incompleteBeta(x: number, a: number, b: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  const front = Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log1p(-x));
  return x < (a + 1) / (a + b + 2) ? (front * betaFraction(x, a, b)) / a : 1 - (front * betaFraction(1 - x, b, a)) / b;
}

function betaFraction(x: number, a: number, b: number): number {
  const tiny = 1e-300;
  const guard = (v: number): number => (Math.abs(v) < tiny ? tiny : v);
  let c = 1;
  let d = 1 / guard(1 - ((a + b) * x) / (a + 1));
  let h = d;
  for (let m = 1; m < 1000; m += 1) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    d = 1 / guard(1 + even * d);
    c = guard(1 + even / c);
    h *= d * c;
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    d = 1 / guard(1 + odd * d);
    c = guard(1 + odd / c);
    const step = d * c;
    h *= step;
    if (Math.abs(step - 1) < 1e-15) return h;
  }
  throw new NotConvergedError('The incomplete beta function', h);
}

/** Complementary error function; continued fraction or series, relative error below 1e-12. */
export function erfc(x: number): number {
  if (x < 0) return 2 - erfc(-x);
  if (x < 2) {
    let term = x;
    let sum = x;
    for (let n = 1; n < 100; n += 1) {
      term *= (-x * x) / n;
      sum += term / (2 * n + 1);
      if (Math.abs(term) < 1e-18) break;
    }
    return 1 - (2 / Math.sqrt(Math.PI)) * sum;
  }
  if (x > 27) return 0; // below the smallest double
  let fraction = 0;
  for (let n = 120; n >= 1; n -= 1) fraction = n / 2 / (x + fraction); // A&S 7.1.14
  return Math.exp(-x * x) / Math.sqrt(Math.PI) / (x + fraction);
}

/** Standard normal distribution function. */
export const normalCdf = (z: number): number => 0.5 * erfc(-z / Math.SQRT2);

/** Standard normal quantile by Newton on the distribution function; p in (0, 1). */
export function normalQuantile(p: number): number {
  let z = 0;
  for (let i = 0; i < 100; i += 1) {
    const density = Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI);
    const raw = (normalCdf(z) - p) / density;
    const step = Math.max(-1, Math.min(1, raw));
    z -= step;
    if (Math.abs(step) < 1e-13) return z;
  }
  return z;
}

/** Student's t distribution function with `dof` degrees of freedom. */
export function studentCdf(t: number, dof: number): number {
  const tail = 0.5 * incompleteBeta(dof / (dof + t * t), dof / 2, 0.5);
  return t > 0 ? 1 - tail : tail;
}

/** Student quantile by bisection on the distribution function; p in (0, 1). */
export function studentQuantile(p: number, dof: number): number {
  return bisect((t) => studentCdf(t, dof) - p, -1e8, 1e8, 1e-13);
}

/** Beta-distribution quantile; used for exact binomial limits. */
export const betaQuantile = (p: number, a: number, b: number): number =>
  bisect((x) => incompleteBeta(x, a, b) - p, 0, 1, 1e-14);

/** Root of an increasing function between two bounds, to a relative tolerance. */
export function bisect(rising: (x: number) => number, low: number, high: number, relative: number): number {
  for (let i = 0; i < 400; i += 1) {
    const middle = (low + high) / 2;
    if (rising(middle) > 0) high = middle;
    else low = middle;
    if (high - low <= relative * Math.max(1e-3, Math.abs(middle))) break;
  }
  return (low + high) / 2;
}
