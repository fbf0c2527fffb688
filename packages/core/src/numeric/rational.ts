import { complex, type Complex } from './complex';

/** A rational interpolant in barycentric form; answers at any real x. */
export type Rational = (x: number) => Complex;

/**
 * Right singular vector of the smallest singular value of a complex matrix given by columns, by one-sided Jacobi rotations.
 * Source: Hestenes 1958; Golub & Van Loan sec. 8.6.3.
 */
function smallestSingularVector(columns: readonly Float64Array[]): Float64Array {
  const n = columns.length;
  const a = columns.map((column) => Float64Array.from(column));
  const v = a.map((_, j) => {
    const unit = new Float64Array(2 * n);
    unit[2 * j] = 1;
    return unit;
  });
  const rotate = (p: Float64Array, q: Float64Array, c: number, sr: number, si: number): void => {
    // p ← c·p − conj(s)·q, q ← s·p + c·q
    for (let i = 0; i < p.length; i += 2) {
      const pr = p[i];
      const pi = p[i + 1];
      const qr = q[i];
      const qi = q[i + 1];
      p[i] = c * pr - (sr * qr + si * qi);
      p[i + 1] = c * pi - (sr * qi - si * qr);
      q[i] = sr * pr - si * pi + c * qr;
      q[i + 1] = sr * pi + si * pr + c * qi;
    }
  };
  for (let sweep = 0; sweep < 40; sweep += 1) {
    let worst = 0;
    for (let j = 0; j < n; j += 1) {
      for (let k = j + 1; k < n; k += 1) {
        let alpha = 0;
        let beta = 0;
        let gr = 0;
        let gi = 0;
        for (let i = 0; i < a[j].length; i += 2) {
          alpha += a[j][i] ** 2 + a[j][i + 1] ** 2;
          beta += a[k][i] ** 2 + a[k][i + 1] ** 2;
          gr += a[j][i] * a[k][i] + a[j][i + 1] * a[k][i + 1]; // conj(a_j)·a_k
          gi += a[j][i] * a[k][i + 1] - a[j][i + 1] * a[k][i];
        }
        const size = Math.hypot(gr, gi);
        if (size === 0 || size < 1e-15 * Math.sqrt(alpha * beta)) continue;
        worst = Math.max(worst, size / Math.sqrt(alpha * beta));
        const zeta = (beta - alpha) / (2 * size);
        const t = Math.sign(zeta || 1) / (Math.abs(zeta) + Math.sqrt(1 + zeta * zeta));
        const c = 1 / Math.sqrt(1 + t * t);
        const s = (c * t) / size;
        rotate(a[j], a[k], c, s * gr, s * gi);
        rotate(v[j], v[k], c, s * gr, s * gi);
      }
    }
    if (worst < 1e-13) break;
  }
  const sizes = a.map((column) => column.reduce((sum, x) => sum + x * x, 0));
  return v[sizes.indexOf(Math.min(...sizes))];
}

/**
 * Fits a rational function to samples by the AAA algorithm: support points chosen greedily, weights from the smallest singular vector.
 * Source: Nakatsukasa, Sète & Trefethen, SIAM J. Sci. Comput. 40 (2018) A1494.
 * @param x distinct, scaled to about −1..1. @param tolerance relative to the largest |f|.
 */
export function aaa(x: readonly number[], f: readonly Complex[], tolerance = 1e-9): Rational {
  const scale = Math.max(...f.map((value) => Math.hypot(value.re, value.im)), 1e-300);
  const mean = f.reduce(
    (sum, value) => ({ re: sum.re + value.re / f.length, im: sum.im + value.im / f.length }),
    complex(0),
  );
  const supports: number[] = [];
  let rational: Rational = () => mean;
  // one support more than half would leave no equation to choose the weights by
  for (const limit = Math.ceil(x.length / 2); supports.length < limit;) {
    let worst = -1;
    let error = -1;
    for (let i = 0; i < x.length; i += 1) {
      if (supports.includes(i)) continue;
      const guess = rational(x[i]);
      const off = Math.hypot(guess.re - f[i].re, guess.im - f[i].im);
      if (off > error || !Number.isFinite(off)) {
        error = off;
        worst = i;
      }
    }
    if (worst < 0 || error <= tolerance * scale) break;
    supports.push(worst);
    const rest = x.map((_, i) => i).filter((i) => !supports.includes(i));
    if (rest.length === 0) break;
    const columns = supports.map((s) => {
      const column = new Float64Array(2 * rest.length);
      rest.forEach((i, row) => {
        const d = x[i] - x[s];
        column[2 * row] = (f[i].re - f[s].re) / d;
        column[2 * row + 1] = (f[i].im - f[s].im) / d;
      });
      return column;
    });
    rational = barycentric(
      supports.map((s) => x[s]),
      supports.map((s) => f[s]),
      smallestSingularVector(columns),
    );
  }
  return rational;
}

function barycentric(nodes: readonly number[], values: readonly Complex[], weights: Float64Array): Rational {
  return (x) => {
    let nr = 0;
    let ni = 0;
    let dr = 0;
    let di = 0;
    for (let k = 0; k < nodes.length; k += 1) {
      const d = x - nodes[k];
      if (d === 0) return values[k];
      const wr = weights[2 * k] / d;
      const wi = weights[2 * k + 1] / d;
      nr += wr * values[k].re - wi * values[k].im;
      ni += wr * values[k].im + wi * values[k].re;
      dr += wr;
      di += wi;
    }
    const size = dr * dr + di * di;
    return { re: (nr * dr + ni * di) / size, im: (ni * dr - nr * di) / size };
  };
}
