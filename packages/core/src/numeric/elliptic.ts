import { requireRange } from '../errors';

/**
 * Complete elliptic integrals K and E of the MODULUS k (not the parameter m = k²), by the arithmetic-geometric mean.
 * Source: Abramowitz & Stegun 17.6.
 */
export function completeElliptic(k: number): { readonly first: number; readonly second: number } {
  requireRange(k, 'Modulus', 0, 1 - 1e-15);
  let a = 1;
  let b = Math.sqrt(1 - k * k);
  let c = k;
  let sum = (c * c) / 2;
  let power = 0.5;
  while (Math.abs(c) > 1e-16) {
    const next = (a + b) / 2;
    c = (a - b) / 2;
    b = Math.sqrt(a * b);
    a = next;
    power *= 2;
    sum += power * c * c;
    if (power > 1e9) break;
  }
  const first = Math.PI / (2 * a);
  return { first, second: first * (1 - sum) };
}
