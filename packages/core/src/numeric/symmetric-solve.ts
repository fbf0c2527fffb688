import { factorInPlace, type Factored } from './complex-solve';
import { LDLT_KERNEL } from './ldlt-wasm';
import { wasmKernel, type WasmKernel } from './wasm';

/** Padding of a row in the kernel's memory: its tiles reach three columns beyond the last. */
const ROW_ROOM = 4;
/** Panel width of the kernel (NB there). */
const PANEL = 24;
/** Below this size the copies cost more than the elimination. */
const LEAST_SIZE = 40;
/** A solution whose residual is larger than this share of the right-hand side is refined, and failing that done again with pivoting. */
const WORST_RESIDUAL = 1e-9;

const kernelOnce = wasmKernel(LDLT_KERNEL, ['ldlt']);
type Kernel = WasmKernel<'ldlt'>;

/** L (strict lower triangle) and D⁻¹ (diagonal) of A = LDLᵀ, split re and im. */
interface Factors {
  readonly re: Float64Array;
  readonly im: Float64Array;
  readonly ld: number;
}

function factorByKernel(kernel: Kernel, a: Float64Array, n: number): Factors | undefined {
  const ld = (n + ROW_ROOM + 1) & ~1;
  const size = n * ld * 8;
  const scratch = PANEL * ld * 8;
  const need = kernel.base + 2 * size + 2 * scratch + 64;
  const buffer = kernel.memory(need);
  const re = new Float64Array(buffer, kernel.base, n * ld);
  const im = new Float64Array(buffer, kernel.base + size, n * ld);
  for (let i = 0; i < n; i += 1)
    for (let j = 0, to = i * ld, from = 2 * i * n; j <= i; j += 1, to += 1, from += 2) {
      re[to] = a[from];
      im[to] = a[from + 1];
    }
  const places = [kernel.base, kernel.base + size, kernel.base + 2 * size, kernel.base + 2 * size + scratch] as const;
  if (kernel.call.ldlt(...places, n, ld) !== 1) return undefined;
  return { re: re.slice(), im: im.slice(), ld };
}

/** x = A⁻¹·b by L, D and Lᵀ, in place. */
function substitute({ re, im, ld }: Factors, n: number, x: Float64Array): void {
  for (let i = 0; i < n; i += 1) {
    let sr = x[2 * i];
    let si = x[2 * i + 1];
    for (let j = 0, at = i * ld; j < i; j += 1, at += 1) {
      sr -= re[at] * x[2 * j] - im[at] * x[2 * j + 1];
      si -= re[at] * x[2 * j + 1] + im[at] * x[2 * j];
    }
    x[2 * i] = sr;
    x[2 * i + 1] = si;
  }
  for (let i = 0; i < n; i += 1) {
    const at = i * ld + i;
    const xr = x[2 * i];
    const xi = x[2 * i + 1];
    x[2 * i] = xr * re[at] - xi * im[at];
    x[2 * i + 1] = xr * im[at] + xi * re[at];
  }
  // Lᵀ row by row of L: once xᵢ is known, its share is taken from all before it
  for (let i = n - 1; i > 0; i -= 1) {
    const xr = x[2 * i];
    const xi = x[2 * i + 1];
    for (let j = 0, at = i * ld; j < i; j += 1, at += 1) {
      x[2 * j] -= re[at] * xr - im[at] * xi;
      x[2 * j + 1] -= re[at] * xi + im[at] * xr;
    }
  }
}

/** r = b − A·x; returns |r| / |b|. */
function residualInto(r: Float64Array, a: Float64Array, n: number, x: Float64Array, b: Float64Array): number {
  let off = 0;
  let size = 0;
  for (let i = 0; i < n; i += 1) {
    let sr = b[2 * i];
    let si = b[2 * i + 1];
    for (let j = 0, at = 2 * i * n; j < n; j += 1, at += 2) {
      sr -= a[at] * x[2 * j] - a[at + 1] * x[2 * j + 1];
      si -= a[at] * x[2 * j + 1] + a[at + 1] * x[2 * j];
    }
    r[2 * i] = sr;
    r[2 * i + 1] = si;
    off += sr * sr + si * si;
    size += b[2 * i] ** 2 + b[2 * i + 1] ** 2;
  }
  return Math.sqrt(off / size);
}

/**
 * Factors a complex symmetric matrix (row-major [re, im, …], 2n² values) as LDLᵀ without pivoting, half the work of LU, in a WebAssembly
 * kernel. The wire solver's matrices take it well; that is not proven for all, so every solution is checked by its residual, refined
 * once, and if it still does not hold the matrix is factored again by LU with pivoting.
 * @throws NotConvergedError if the matrix is singular.
 */
export function factorSymmetric(a: Float64Array, n: number): Factored {
  const kernel = n >= LEAST_SIZE ? kernelOnce() : undefined;
  const factors = kernel && factorByKernel(kernel, a, n);
  if (!factors) return factorInPlace(a, n);
  let pivoted: Factored | undefined;
  const r = new Float64Array(2 * n);
  return {
    n,
    solveInto(b) {
      if (pivoted) {
        pivoted.solveInto(b);
        return;
      }
      const x = Float64Array.from(b);
      substitute(factors, n, x);
      let off = residualInto(r, a, n, x, b);
      if (!(off <= WORST_RESIDUAL)) {
        substitute(factors, n, r);
        for (let i = 0; i < 2 * n; i += 1) x[i] += r[i];
        off = residualInto(r, a, n, x, b);
      }
      if (off <= WORST_RESIDUAL) {
        b.set(x);
        return;
      }
      pivoted = factorInPlace(a, n);
      pivoted.solveInto(b);
    },
  };
}
