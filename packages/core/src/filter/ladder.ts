import { OutOfRangeError, requirePositive, requireRange } from '../errors';
import { add, complex, divide, magnitude, multiply, type Complex } from '../numeric/complex';
import type { FilterFamily, FilterShape } from './response';

/** Element values of the normalised low-pass (1 Ω, 1 rad/s) from the source on, and the load. */
export interface Prototype {
  readonly g: readonly number[];
  /** 1 but for Chebyshev filters of even order. */
  readonly load: number;
}

/**
 * Low-pass prototype. Butterworth cut-off at 3.0103 dB, Chebyshev cut-off at the RIPPLE.
 * Source: Matthaei, Young & Jones, Microwave Filters, sec. 4.05.
 */
export function prototype(family: FilterFamily, order: number, rippleDb: number): Prototype {
  requireRange(order, 'Order', 1, 15);
  const angle = (k: number): number => ((2 * k - 1) * Math.PI) / (2 * order);
  if (family === 'butterworth')
    return { g: Array.from({ length: order }, (_, i) => 2 * Math.sin(angle(i + 1))), load: 1 };
  requireRange(rippleDb, 'Ripple (dB)', 0.001, 3);
  const beta = Math.log(1 / Math.tanh(rippleDb / 17.37177927613007));
  const gamma = Math.sinh(beta / (2 * order));
  const a = (k: number): number => Math.sin(angle(k));
  const b = (k: number): number => gamma ** 2 + Math.sin((k * Math.PI) / order) ** 2;
  const g = [(2 * a(1)) / gamma];
  for (let k = 2; k <= order; k += 1) g.push((4 * a(k - 1) * a(k)) / (b(k - 1) * g[k - 2]));
  return { g, load: order % 2 === 1 ? 1 : 1 / Math.tanh(beta / 4) ** 2 };
}

/** A branch of a ladder: a coil and a capacitor, one of them, in series with the line or across it. */
export interface Branch {
  readonly place: 'series' | 'shunt';
  readonly henry?: number;
  readonly farad?: number;
  /** How coil and capacitor of one branch are joined. */
  readonly joined: 'series' | 'parallel';
}

/** What is to be built. */
export interface LadderSpec {
  readonly shape: FilterShape;
  readonly family: FilterFamily;
  readonly order: number;
  readonly rippleDb: number;
  /** One edge for low- and high-pass, two for band-pass and band-stop. */
  readonly edgesHz: readonly number[];
  readonly lineOhm: number;
  readonly first: 'series' | 'shunt';
}

/** Middle of a band filter (geometric), its relative width; the edge of the others. @throws OutOfRangeError for edges that do not fit. */
export function scaleOf({ shape, edgesHz }: Pick<LadderSpec, 'shape' | 'edgesHz'>): {
  readonly omega: number;
  readonly width: number;
} {
  edgesHz.forEach((edge) => requirePositive(edge, 'Edge (Hz)'));
  if (shape === 'lowpass' || shape === 'highpass') return { omega: 2 * Math.PI * edgesHz[0], width: 1 };
  const [low, high] = edgesHz;
  if (!(low < high)) throw new OutOfRangeError('A band needs two edges, the lower one first. Enter both.', 'edges');
  const middle = Math.sqrt(low * high);
  return { omega: 2 * Math.PI * middle, width: (high - low) / middle };
}

/**
 * What becomes of one element of the prototype: a coil in series or a capacitor across, of a normalised value, in a shape of filter.
 * Source: Matthaei, Young & Jones, ch. 4 and 8 (frequency transformations).
 */
export function transformed(
  shape: FilterShape,
  place: Branch['place'],
  value: number,
  { omega, width, lineOhm }: { readonly omega: number; readonly width: number; readonly lineOhm: number },
): Branch {
  const series = place === 'series';
  const own = series ? (value * lineOhm) / omega : value / (lineOhm * omega);
  const other = series ? 1 / (value * lineOhm * omega) : lineOhm / (value * omega);
  switch (shape) {
    case 'lowpass':
      return { place, joined: 'series', ...(series ? { henry: own } : { farad: own }) };
    case 'highpass':
      return { place, joined: 'series', ...(series ? { farad: other } : { henry: other }) };
    case 'bandpass':
      return series
        ? { place, joined: 'series', henry: own / width, farad: other * width }
        : { place, joined: 'parallel', henry: other * width, farad: own / width };
    case 'bandstop':
      return series
        ? { place, joined: 'parallel', henry: own * width, farad: other / width }
        : { place, joined: 'series', henry: other / width, farad: own * width };
  }
}

/**
 * Branches of a ladder between equal resistances, from the source on.
 * @throws OutOfRangeError for a Chebyshev filter of even order, which needs unequal ends.
 */
export function ladder(spec: LadderSpec): readonly Branch[] {
  if (spec.family === 'chebyshev' && spec.order % 2 === 0)
    throw new OutOfRangeError('A Chebyshev ladder of even order needs unequal ends. Take an odd order.', 'order');
  const scale = { ...scaleOf(spec), lineOhm: spec.lineOhm };
  const { g } = prototype(spec.family, spec.order, spec.rippleDb);
  return g.map((value, i) =>
    transformed(spec.shape, (spec.first === 'series') === (i % 2 === 0) ? 'series' : 'shunt', value, scale),
  );
}

/** Impedance of a branch with a series resistance in its coil, Ω; null for an open one. */
function branchImpedance(branch: Branch, omega: number, coilOhm: (henry: number) => number): Complex | null {
  const coil = branch.henry === undefined ? undefined : complex(coilOhm(branch.henry), omega * branch.henry);
  const cap = branch.farad === undefined ? undefined : complex(0, -1 / (omega * branch.farad));
  if (!coil || !cap) return coil ?? cap ?? null;
  if (branch.joined === 'series') return add(coil, cap);
  const sum = add(coil, cap);
  return magnitude(sum) < 1e-12 ? null : divide(multiply(coil, cap), sum);
}

/** Chain matrix of a ladder; an open series or a shorted shunt branch gives entries beyond bounds, as it should. */
export function ladderChain(
  branches: readonly Branch[],
  freqHz: number,
  coilOhm: (henry: number) => number = () => 0,
): { readonly a: Complex; readonly b: Complex; readonly c: Complex; readonly d: Complex } {
  requirePositive(freqHz, 'Frequency (Hz)');
  const omega = 2 * Math.PI * freqHz;
  let [a, b, c, d]: Complex[] = [complex(1), complex(0), complex(0), complex(1)];
  for (const branch of branches) {
    const z = branchImpedance(branch, omega, coilOhm);
    if (branch.place === 'series') {
      const series = z ?? complex(OPEN_OHM);
      [b, d] = [add(multiply(a, series), b), add(multiply(c, series), d)];
    } else if (z !== null) {
      const y = magnitude(z) < 1 / OPEN_OHM ? complex(OPEN_OHM) : divide(complex(1), z);
      [a, c] = [add(a, multiply(b, y)), add(c, multiply(d, y))];
    }
  }
  return { a, b, c, d };
}

/** Stands for an ideal open branch, and its inverse for an ideal short, Ω. */
const OPEN_OHM = 1e15;

/**
 * Insertion loss of a ladder between equal resistances, dB; every coil may have a series resistance.
 * @param coilOhm resistance of a coil by its inductance; lossless when absent.
 * @returns Infinity where an ideal branch lets nothing pass.
 */
export function ladderLossDb(
  branches: readonly Branch[],
  freqHz: number,
  lineOhm: number,
  coilOhm: (henry: number) => number = () => 0,
): number {
  requirePositive(freqHz, 'Frequency (Hz)');
  const omega = 2 * Math.PI * freqHz;
  // from the load back to the source, with 1 V on the load; in plain numbers, because thousands of scattered filters go through here
  let [vr, vi] = [1, 0];
  let [ir, ii] = [1 / lineOhm, 0];
  for (let k = branches.length - 1; k >= 0; k -= 1) {
    const { henry, farad, joined, place } = branches[k];
    // impedance of the branch; a parallel circuit by its admittance
    let zr = henry === undefined ? 0 : coilOhm(henry);
    let zi = henry === undefined ? 0 : omega * henry;
    let open = henry === undefined && farad === undefined;
    if (farad !== undefined) {
      if (henry === undefined || joined === 'series') zi -= 1 / (omega * farad);
      else {
        const coil = zr * zr + zi * zi;
        const gr = zr / coil;
        const gi = omega * farad - zi / coil;
        const size = gr * gr + gi * gi;
        open = size < 1 / OPEN_OHM ** 2;
        zr = gr / size;
        zi = -gi / size;
      }
    }
    if (place === 'series') {
      if (open) [zr, zi] = [OPEN_OHM, 0];
      vr += zr * ir - zi * ii;
      vi += zr * ii + zi * ir;
    } else if (!open) {
      const size = zr * zr + zi * zi;
      const short = size < 1 / OPEN_OHM ** 2;
      const yr = short ? OPEN_OHM : zr / size;
      const yi = short ? 0 : -zi / size;
      ir += yr * vr - yi * vi;
      ii += yr * vi + yi * vr;
    }
  }
  const lossDb = 20 * Math.log10(Math.hypot(vr + lineOhm * ir, vi + lineOhm * ii) / 2);
  return lossDb > NOTHING_PASSES_DB ? Infinity : lossDb;
}

/** More loss than this only an ideal open or short gives, dB. */
const NOTHING_PASSES_DB = 240;

/** Resistance of coils whose Q is stated at one frequency: ω_q·L/Q. */
export const coilResistance =
  (q: number, atHz: number): ((henry: number) => number) =>
  (henry) =>
    (2 * Math.PI * atHz * henry) / q;

/** Frequency at which the Q of a filter's coils is stated: the edge, or the geometric middle. */
export const qFrequencyHz = (spec: Pick<LadderSpec, 'shape' | 'edgesHz'>): number =>
  scaleOf(spec).omega / (2 * Math.PI);

/** First-order mid-band loss of a band-pass, dB: 4.343 Σg / (Q·width). Over-estimates above some 3 dB. Source: Cohn, Proc. IRE 47 (1959) 1342. */
export function bandpassLossRuleDb(spec: LadderSpec, q: number): number {
  const sum = prototype(spec.family, spec.order, spec.rippleDb).g.reduce((total, value) => total + value, 0);
  return ((10 / Math.LN10) * sum) / (q * scaleOf(spec).width);
}
