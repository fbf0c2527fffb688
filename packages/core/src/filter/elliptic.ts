import { OutOfRangeError, requireRange } from '../errors';
import { add, complex, divide, multiply, type Complex } from '../numeric/complex';
import { completeElliptic } from '../numeric/elliptic';
import { scaleOf, transformed, type Branch } from './ladder';
import type { FilterShape } from './response';

/** An odd-order elliptic low-pass between equal resistances. */
export interface EllipticSpec {
  readonly order: number;
  readonly rippleDb: number;
  readonly stopDb: number;
  /** Ripple edge, Hz. */
  readonly edgeHz: number;
  readonly lineOhm: number;
  /** Traps from the source on, by the number of their zero: 1 is the zero nearest to the pass band. */
  readonly trapOrder: readonly number[];
}

/** Real polynomial, coefficients from the constant up. */
type Polynomial = readonly number[];

const times = (a: Polynomial, b: Polynomial): number[] => {
  const out = Array.from({ length: a.length + b.length - 1 }, () => 0);
  a.forEach((x, i) => b.forEach((y, j) => (out[i + j] += x * y)));
  return out;
};
const minus = (a: Polynomial, b: Polynomial): number[] =>
  Array.from({ length: Math.max(a.length, b.length) }, (_, i) => (a[i] ?? 0) - (b[i] ?? 0));
const at = (p: Polynomial, s: Complex): Complex =>
  [...p].reverse().reduce((sum, c) => add(multiply(sum, s), complex(c)), complex(0));

/** Quotient by s² + w², whose remainder is nothing but rounding. */
function withoutPair(p: Polynomial, w: number): number[] {
  const rest = [...p];
  const out = Array.from({ length: Math.max(1, p.length - 2) }, () => 0);
  for (let i = p.length - 1; i >= 2; i -= 1) {
    out[i - 2] = rest[i];
    rest[i - 2] -= rest[i] * w * w;
  }
  return out;
}

/** Nome of a modulus. */
const nomeOf = (k: number): number =>
  Math.exp((-Math.PI * completeElliptic(Math.sqrt(1 - k * k)).first) / completeElliptic(k).first);

/** Modulus of a nome: k = 4√q ((Σ q^{m(m+1)}) / (1 + 2Σ q^{m²}))². Source: Abramowitz & Stegun 16.38. */
function modulusOf(q: number): number {
  let [above, below] = [1, 1];
  for (let m = 1; m < 12; m += 1) {
    above += q ** (m * (m + 1));
    below += 2 * q ** (m * m);
  }
  return 4 * Math.sqrt(q) * (above / below) ** 2;
}

/** sn(x·K) of a modulus by its Fourier series. Source: Abramowitz & Stegun 16.23.1. */
function sineAmplitude(x: number, k: number): number {
  const q = nomeOf(k);
  let sum = 0;
  for (let m = 0; m < 40; m += 1) {
    const term = q ** (m + 0.5) / (1 - q ** (2 * m + 1));
    sum += term * Math.sin(((2 * m + 1) * Math.PI * x) / 2);
    if (term < 1e-18) break;
  }
  return ((2 * Math.PI) / (k * completeElliptic(k).first)) * sum;
}

/** Moduli of the descending Landen transformation, until they vanish. Source: Abramowitz & Stegun 16.12; Orfanidis 2006, eq. 50. */
function landen(k: number): readonly number[] {
  const list = [];
  for (let now = k; now > 1e-18 && list.length < 12;) {
    now = (now / (1 + Math.sqrt(1 - now * now))) ** 2;
    list.push(now);
  }
  return list;
}

/** cd(u·K) of a modulus for complex u. */
function cdOf(u: Complex, k: number): Complex {
  const half = Math.PI / 2;
  // cos(a + jb)
  let w = complex(Math.cos(u.re * half) * Math.cosh(u.im * half), -Math.sin(u.re * half) * Math.sinh(u.im * half));
  for (const v of [...landen(k)].reverse()) {
    const top = complex((1 + v) * w.re, (1 + v) * w.im);
    w = divide(top, add(complex(1), multiply(complex(v), multiply(w, w))));
  }
  return w;
}

/** The v for which sn(jv·K) is j/ε: how far the natural frequencies lie off the axis. Source: Orfanidis 2006, eq. 65. */
function offAxis(epsilon: number, k1: number, order: number): number {
  // j·y through the ascending Landen steps stays imaginary: sn(jv) = j·y
  let y = 1 / epsilon;
  let before = k1;
  for (const v of landen(k1)) {
    y = (2 * y) / ((1 + v) * (1 + Math.sqrt(1 + (before * y) ** 2)));
    before = v;
  }
  return ((2 / Math.PI) * Math.asinh(y)) / order;
}

/** Natural frequencies in the left half plane, those above the real axis and the real one last. */
function naturalFrequencies(order: number, epsilon: number, k: number, k1: number): readonly Complex[] {
  const v = offAxis(epsilon, k1, order);
  const pairs = (order - 1) / 2;
  const pole = (u: number): Complex => {
    const w = cdOf(complex(u, -v), k);
    // s = j·cd
    const s = complex(-w.im, w.re);
    return s.re < 0 ? s : complex(-s.re, s.im);
  };
  return [...Array.from({ length: pairs }, (_, i) => pole((2 * i + 1) / order)), complex(pole(1).re, 0)];
}

/** Normalised design: stop edge, zeros nearest first, and the ladder's elements. */
interface Normalised {
  readonly stop: number;
  readonly zeros: readonly number[];
  readonly shunts: readonly number[];
  readonly traps: readonly Tank[];
}

/** Coil and capacitor side by side. */
interface Tank {
  readonly l: number;
  readonly c: number;
}

/** @throws OutOfRangeError when the order of the traps asks for a negative element. */
function normalised({ order, rippleDb, stopDb, trapOrder }: Omit<EllipticSpec, 'edgeHz'>): Normalised {
  const epsilon = Math.sqrt(10 ** (rippleDb / 10) - 1);
  const k1 = epsilon / Math.sqrt(10 ** (stopDb / 10) - 1);
  // degree equation in nomes: q₁ = qⁿ
  const k = modulusOf(nomeOf(k1) ** (1 / order));
  const pairs = (order - 1) / 2;
  // zeros of the characteristic function, largest last; the transmission zeros are their mirrors 1/(kω)
  const inner = Array.from({ length: pairs }, (_, i) => sineAmplitude((2 * (i + 1)) / order, k));
  const zeros = inner.map((w) => 1 / (k * w)).sort((a, b) => a - b);
  const f = inner.reduce<number[]>((p, w) => times(p, [w * w, 0, 1]), [0, 1]);
  // E from its roots, which are known in closed form: no search that could fail to settle
  const roots = naturalFrequencies(order, epsilon, k, k1);
  const e = roots.reduce<number[]>(
    (p, s) => times(p, s.im === 0 ? [-s.re, 1] : [s.re * s.re + s.im * s.im, -2 * s.re, 1]),
    [1],
  );
  // Y = (E + F)/(E − F): shunt capacitor first
  let above = e.map((value, i) => value + (f[i] ?? 0));
  let below = minus(e, f).slice(0, order);
  const shunts: number[] = [];
  const traps: { l: number; c: number }[] = [];
  for (const number of trapOrder) {
    const w = zeros[number - 1];
    const point = complex(0, w);
    const shunt = divide(at(above, point), at(below, point)).im / w;
    const rest = withoutPair(minus(above, times([0, shunt], below)), w);
    const residue = divide(at(below, point), multiply(point, at(rest, point))).re;
    shunts.push(shunt);
    traps.push({ c: 1 / residue, l: residue / (w * w) });
    below = withoutPair(minus(below, times([0, residue], rest)), w);
    above = rest;
  }
  shunts.push(above[1] / below[0]);
  if ([...shunts, ...traps.flatMap(({ l, c: cap }) => [l, cap])].some((value) => !(value > 0)))
    throw new OutOfRangeError(
      'With the traps in this order an element would be negative. Try another order.',
      'trapOrder',
    );
  return { stop: 1 / k, zeros, shunts, traps };
}

/** An elliptic filter of any shape. */
export interface EllipticShape extends Omit<EllipticSpec, 'edgeHz'> {
  readonly shape: FilterShape;
  /** One ripple edge for low- and high-pass, two for band-pass and band-stop. */
  readonly edgesHz: readonly number[];
}

/** Two tanks in series that do in s what one of l and c does in p = (s/ω₀ + ω₀/s)/width. Source: partial fractions; Zverev, ch. 5. */
function twoTanks({ l, c }: Tank, omega: number, width: number): readonly Tank[] {
  const half = width / (2 * Math.sqrt(l * c));
  return [1, -1].map((sign) => {
    const own = omega * (Math.sqrt(1 + half * half) + sign * half);
    const farad = (c / (width * omega)) * (1 + (omega / own) ** 2);
    return { c: farad, l: 1 / (own * own * farad) };
  });
}

/** A trap of the low-pass in another shape: one trap, or two. The inverse change of frequency exchanges its coil and capacitor for their reciprocals. */
function trapsOf(shape: FilterShape, trap: Tank, omega: number, width: number): readonly Tank[] {
  const inverse = shape === 'highpass' || shape === 'bandstop';
  const own = inverse ? { l: 1 / trap.c, c: 1 / trap.l } : trap;
  return shape === 'bandpass' || shape === 'bandstop'
    ? twoTanks(own, omega, width)
    : [{ l: own.l / omega, c: own.c / omega }];
}

/** Checks what is asked and designs the normalised low-pass. */
function designed(spec: Omit<EllipticSpec, 'edgeHz'>): Normalised {
  requireRange(spec.order, 'Order', 3, 11);
  if (spec.order % 2 === 0) throw new OutOfRangeError('An even order needs unequal ends. Take an odd order.', 'order');
  requireRange(spec.rippleDb, 'Ripple (dB)', 0.001, 3);
  requireRange(spec.stopDb, 'Stop attenuation (dB)', 10, 120);
  const pairs = (spec.order - 1) / 2;
  if ([...spec.trapOrder].sort((a, b) => a - b).join() !== Array.from({ length: pairs }, (_, i) => i + 1).join())
    throw new OutOfRangeError(`Name each of the ${pairs} zeros once, 1 for the nearest to the pass band.`, 'trapOrder');
  return normalised(spec);
}

/** Branches in a shape: shunt, trap or traps (coil and capacitor side by side, in series with the line), shunt, … */
function branchesOf({ shunts, traps }: Normalised, { shape, edgesHz, lineOhm }: EllipticShape): readonly Branch[] {
  const scale = { ...scaleOf({ shape, edgesHz }), lineOhm };
  return shunts.flatMap((value, i): Branch[] => [
    transformed(shape, 'shunt', value, scale),
    ...traps
      .slice(i, i + 1)
      .flatMap((trap) => trapsOf(shape, trap, scale.omega, scale.width))
      .map(({ l, c }): Branch => ({ place: 'series', joined: 'parallel', henry: l * lineOhm, farad: c / lineOhm })),
  ]);
}

/**
 * Elements of an elliptic filter between equal resistances: the low-pass with its zeros shifted in the order that is asked for, then the change of
 * frequency. Source: Zverev, Handbook of Filter Synthesis, ch. 5; Saal & Ulbrich 1958; Matthaei, Young & Jones, sec. 4.12.
 * @throws OutOfRangeError for an even order, a wrong list of traps, an order of traps with a negative element, or edges that do not fit the shape.
 */
export const ellipticLadder = (spec: EllipticShape): readonly Branch[] => branchesOf(designed(spec), spec);

/** An elliptic low-pass with its stop edge and zeros. @throws OutOfRangeError as `ellipticLadder`. */
export function ellipticLowpass(spec: EllipticSpec) {
  const design = designed(spec);
  return {
    stopHz: design.stop * spec.edgeHz,
    zerosHz: design.zeros.map((w) => w * spec.edgeHz),
    branches: branchesOf(design, { ...spec, shape: 'lowpass', edgesHz: [spec.edgeHz] }),
  };
}
