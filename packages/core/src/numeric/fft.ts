import { ShapeError } from '../errors';

/**
 * Inverse discrete Fourier transform in place, x[n] = (1/N)·Σ X[k]·e^{+j2πkn/N}, radix 2. Source: Cooley & Tukey, Math. Comp. 19 (1965) 297.
 * @throws ShapeError unless both arrays have the same length, a power of two.
 */
export function inverseFourierInPlace(re: Float64Array, im: Float64Array): void {
  const n = re.length;
  if (im.length !== n || n < 2 || (n & (n - 1)) !== 0)
    throw new ShapeError(`A transform needs a power of two of points; this has ${n}. Fill up with zeros.`);
  for (let i = 1, j = 0; i < n; i += 1) {
    // j counts as i does, with its bits reversed
    let bit = n >> 1;
    for (; j & bit; bit >>= 1) j ^= bit;
    j ^= bit;
    if (i < j) {
      [re[i], re[j]] = [re[j], re[i]];
      [im[i], im[j]] = [im[j], im[i]];
    }
  }
  for (let size = 2; size <= n; size <<= 1) {
    const half = size >> 1;
    const angle = (2 * Math.PI) / size;
    for (let k = 0; k < half; k += 1) {
      const [cos, sin] = [Math.cos(angle * k), Math.sin(angle * k)];
      for (let low = k; low < n; low += size) {
        const high = low + half;
        const r = re[high] * cos - im[high] * sin;
        const i = re[high] * sin + im[high] * cos;
        re[high] = re[low] - r;
        im[high] = im[low] - i;
        re[low] += r;
        im[low] += i;
      }
    }
  }
  for (let i = 0; i < n; i += 1) {
    re[i] /= n;
    im[i] /= n;
  }
}
