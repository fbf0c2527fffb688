import { ShapeError } from '../errors';

/** A transform of one length, planned once. */
export interface FourierPlan {
  readonly length: number;
  /** X[k] = Σ x[n]·e^{−j2πkn/N}, in place. re, im: length values each. */
  readonly forward: (re: Float64Array, im: Float64Array) => void;
}

/** One radix-4 pass of Stockham: `n` points at stride `s`, from x to y. Twiddles are e^{−j2πk/N}, N = n·s. */
function quarterPass(
  n: number,
  s: number,
  cos: Float64Array,
  sin: Float64Array,
  xr: Float64Array,
  xi: Float64Array,
  yr: Float64Array,
  yi: Float64Array,
): void {
  const quarter = n >> 2;
  const step = s * quarter;
  for (let p = 0; p < quarter; p += 1) {
    const [k1, k2, k3] = [p * s, 2 * p * s, 3 * p * s];
    const c1 = cos[k1];
    const s1 = sin[k1];
    const c2 = cos[k2];
    const s2 = sin[k2];
    const c3 = cos[k3];
    const s3 = sin[k3];
    let from = s * p;
    let to = 4 * s * p;
    for (let q = 0; q < s; q += 1, from += 1, to += 1) {
      const ar = xr[from];
      const ai = xi[from];
      const br = xr[from + step];
      const bi = xi[from + step];
      const cr = xr[from + 2 * step];
      const ci = xi[from + 2 * step];
      const dr = xr[from + 3 * step];
      const di = xi[from + 3 * step];
      const sumR = ar + cr;
      const sumI = ai + ci;
      const difR = ar - cr;
      const difI = ai - ci;
      const sum2R = br + dr;
      const sum2I = bi + di;
      // −j·(b − d)
      const turnR = bi - di;
      const turnI = dr - br;
      yr[to] = sumR + sum2R;
      yi[to] = sumI + sum2I;
      const oneR = difR + turnR;
      const oneI = difI + turnI;
      yr[to + s] = oneR * c1 + oneI * s1;
      yi[to + s] = oneI * c1 - oneR * s1;
      const twoR = sumR - sum2R;
      const twoI = sumI - sum2I;
      yr[to + 2 * s] = twoR * c2 + twoI * s2;
      yi[to + 2 * s] = twoI * c2 - twoR * s2;
      const threeR = difR - turnR;
      const threeI = difI - turnI;
      yr[to + 3 * s] = threeR * c3 + threeI * s3;
      yi[to + 3 * s] = threeI * c3 - threeR * s3;
    }
  }
}

/**
 * Plans a discrete Fourier transform: radix 4 without bit reversal, one pass of radix 2 where the length is not a power of four.
 * @throws ShapeError unless the length is a power of two from 2.
 * Source: Van Loan, Computational Frameworks for the Fast Fourier Transform (1992), sec. 1.7 (Stockham).
 */
export function fourierPlan(length: number): FourierPlan {
  if (!Number.isInteger(length) || length < 2 || (length & (length - 1)) !== 0)
    throw new ShapeError(`A transform needs a power of two of points; this has ${length}. Fill up with zeros.`);
  const angle = (2 * Math.PI) / length;
  const cos = Float64Array.from({ length }, (_, k) => Math.cos(angle * k));
  const sin = Float64Array.from({ length }, (_, k) => Math.sin(angle * k));
  const spareR = new Float64Array(length);
  const spareI = new Float64Array(length);
  const forward = (re: Float64Array, im: Float64Array): void => {
    if (re.length !== length || im.length !== length)
      throw new ShapeError(`This transform is of ${length} points; here are ${re.length} and ${im.length}.`);
    let xr: Float64Array = re;
    let xi: Float64Array = im;
    let yr: Float64Array = spareR;
    let yi: Float64Array = spareI;
    let n = length;
    let s = 1;
    for (; n >= 4; n >>= 2, s <<= 2) {
      quarterPass(n, s, cos, sin, xr, xi, yr, yi);
      [xr, xi, yr, yi] = [yr, yi, xr, xi];
    }
    if (n === 2) {
      for (let q = 0; q < s; q += 1) {
        yr[q] = xr[q] + xr[q + s];
        yi[q] = xi[q] + xi[q + s];
        yr[q + s] = xr[q] - xr[q + s];
        yi[q + s] = xi[q] - xi[q + s];
      }
      [xr, xi] = [yr, yi];
    }
    if (xr !== re) {
      re.set(xr);
      im.set(xi);
    }
  };
  return { length, forward };
}

/**
 * Inverse discrete Fourier transform in place, x[n] = (1/N)·Σ X[k]·e^{+j2πkn/N}.
 * @throws ShapeError unless both arrays have the same length, a power of two.
 */
export function inverseFourierInPlace(re: Float64Array, im: Float64Array): void {
  const n = re.length;
  // with real and imaginary part exchanged the forward transform turns the other way
  fourierPlan(n).forward(im, re);
  for (let i = 0; i < n; i += 1) {
    re[i] /= n;
    im[i] /= n;
  }
}
