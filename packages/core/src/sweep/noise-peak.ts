import type { Spectrum } from '../formats/spectrum-csv';
import { NotConvergedError, ShapeError } from '../errors';
import { solveLinear } from '../numeric/least-squares';
import { studentQuantile } from '../numeric/special';
import { median } from '../numeric/statistics';

/** A resonance that noise shows. */
export interface NoisePeak {
  readonly centreHz: number;
  readonly q: number;
  /** Half-power width, Hz. */
  readonly widthHz: number;
  /** Height over the background, dB. */
  readonly riseDb: number;
  /** 95 % interval of the centre and of Q, ± about the value. */
  readonly centreHalfHz: number;
  readonly qHalf: number;
  /** Share of points set aside as spikes. */
  readonly spikes: number;
  /** Centre and width read at 3 dB under the highest point: rough. */
  readonly rough: { readonly centreHz: number; readonly widthHz?: number };
  /** Scatter about the fit, dB. */
  readonly scatterDb: number;
}

/**
 * How far a coil's noise stands over the background around its resonance, dB.
 * @param freqHz Hz. @param peak centre in Hz, Q, and height over the background in dB. Range: a single tuned circuit, well coupled to nothing else.
 * Source: Terman, Radio Engineers' Handbook (1943), sec. 3, universal resonance curve: power 1/(1 + (Q(f/f₀ − f₀/f))²).
 */
export function noiseRiseDb(
  freqHz: number,
  { centreHz, q, riseDb }: Pick<NoisePeak, 'centreHz' | 'q' | 'riseDb'>,
): number {
  const detuned = q * (freqHz / centreHz - centreHz / freqHz);
  return db(1 + (power(riseDb) - 1) / (1 + detuned ** 2));
}

/** Points below this number cannot decide three values and their scatter. */
const LEAST_POINTS = 12;
/** Tukey's constant: 95 % efficient on normal scatter. Source: Huber, Robust Statistics. */
const TUKEY = 4.685;
const ROUNDS = 60;
/** Points over which the background is smoothed, each side. */
const SMOOTH = 6;
/** A resonance, or a floor raised everywhere, must explain this many squared scatters. Chance alone reaches 30 once in 100,000 fits. */
const LEAST_GAIN = 40;
/** Efficiency of Tukey's biweight against least squares on normal scatter. */
const EFFICIENCY = 0.95;
/** Furthest that one round moves the logarithm of a parameter. */
const LONGEST_STEP = 0.5;
/** A round that moves no logarithm further has settled: a millionth of the centre. */
const SETTLED = 1e-6;
/** A floor raised by less than this share of the background, 0.04 dB, is not raised. */
const LEAST_RAISED = 0.01;

const db = (ratio: number): number => 10 * Math.log10(ratio);
const power = (level: number): number => 10 ** (level / 10);
/** Median of each point and so many neighbours each side, fewer at the ends: one sorted window that slides. */
function runningMedian(values: Float64Array, reach: number): Float64Array {
  const n = values.length;
  const window = new Float64Array(2 * reach + 1);
  let size = 0;
  const placeOf = (value: number): number => {
    let [low, high] = [0, size];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (window[middle] < value) low = middle + 1;
      else high = middle;
    }
    return low;
  };
  const take = (value: number): void => {
    const at = placeOf(value);
    window.copyWithin(at + 1, at, size);
    window[at] = value;
    size += 1;
  };
  const drop = (value: number): void => {
    const at = placeOf(value);
    window.copyWithin(at, at + 1, size);
    size -= 1;
  };
  for (let i = 0; i < Math.min(n, reach); i += 1) take(values[i]);
  return Float64Array.from(values, (_, i) => {
    if (i - reach - 1 >= 0) drop(values[i - reach - 1]);
    if (i + reach < n) take(values[i + reach]);
    const middle = size >> 1;
    return size % 2 === 1 ? window[middle] : (window[middle - 1] + window[middle]) / 2;
  });
}

/** Background at ascending frequencies, interpolated; smoothed by a running median so that its own scatter does not enter twice. */
function background(off: Spectrum, freqHz: Float64Array): Float64Array {
  const n = off.freqHz.length;
  const smooth = runningMedian(off.levelDb, SMOOTH);
  let next = 0;
  return Float64Array.from(freqHz, (f) => {
    while (next < n && off.freqHz[next] < f) next += 1;
    if (next === 0) return smooth[0];
    if (next === n) return smooth[n - 1];
    const share = (f - off.freqHz[next - 1]) / (off.freqHz[next] - off.freqHz[next - 1]);
    return smooth[next - 1] + share * (smooth[next] - smooth[next - 1]);
  });
}

/** What is fitted: the recording, its background in linear power, and the power that parameters are relative to. */
interface Case {
  readonly on: Spectrum;
  readonly floor: Float64Array;
  readonly unit: number;
}

/** Logarithms of height, centre and Q, and of a floor raised everywhere when there is one: the source heard past the antenna. */
type Parameters = readonly number[];

/** Model at every point, dB. */
function modelled({ on, floor, unit }: Case, p: Parameters): Float64Array {
  const [height, f0, q, raised] = [unit * Math.exp(p[0]), Math.exp(p[1]), Math.exp(p[2]), raisedOf(unit, p)];
  const out = new Float64Array(floor.length);
  for (let i = 0; i < out.length; i += 1) {
    const f = on.freqHz[i];
    const qu = q * (f / f0 - f0 / f);
    out[i] = db(floor[i] + raised + height / (1 + qu * qu));
  }
  return out;
}

const raisedOf = (unit: number, p: Parameters): number => (p.length > 3 ? unit * Math.exp(p[3]) : 0);

/** Derivatives of the model in dB by each parameter, a row of them per point. */
function slopes({ on, floor, unit }: Case, p: Parameters): Float64Array {
  const [height, f0, q, raised] = [unit * Math.exp(p[0]), Math.exp(p[1]), Math.exp(p[2]), raisedOf(unit, p)];
  const width = p.length;
  const out = new Float64Array(floor.length * width);
  for (let i = 0; i < floor.length; i += 1) {
    const f = on.freqHz[i];
    const u = f / f0 - f0 / f;
    const den = 1 + (q * u) ** 2;
    const line = height / den;
    const perLn = 10 / Math.LN10 / (floor[i] + line + raised);
    // d ln(line): by ln A 1; by ln f0 2q²u(f/f0 + f0/f)/den; by ln q −2(qu)²/den
    out[i * width] = perLn * line;
    out[i * width + 1] = (perLn * line * 2 * q * q * u * (f / f0 + f0 / f)) / den;
    out[i * width + 2] = (-perLn * line * 2 * (q * u) ** 2) / den;
    if (width > 3) out[i * width + 3] = perLn * raised;
  }
  return out;
}

const residuals = (one: Case, p: Parameters): Float64Array => {
  const out = modelled(one, p);
  for (let i = 0; i < out.length; i += 1) out[i] = one.on.levelDb[i] - out[i];
  return out;
};

const weightOf = (residual: number, scale: number): number => {
  const u = residual / (TUKEY * scale);
  return Math.abs(u) < 1 ? (1 - u * u) ** 2 : 0;
};

/** Sum of Tukey's loss, in squared scatters: a point far off counts TUKEY²/3, one on the curve nothing. */
const lossOf = (r: Float64Array, scale: number): number =>
  r.reduce((sum, one) => sum + (TUKEY ** 2 / 3) * (1 - Math.max(0, 1 - (one / (TUKEY * scale)) ** 2) ** 3), 0);

interface Fit {
  readonly p: Parameters;
  readonly scale: number;
  readonly weights: Float64Array;
}

const sunk = (p: Parameters): boolean => p.length > 3 && p[3] < Math.log(LEAST_RAISED);

/** Parameters by weighted least squares in dB, damped (Levenberg, Marquardt), spikes losing their weight round by round. */
function fit(one: Case, start: Parameters): Fit {
  let p = start;
  let r = residuals(one, p);
  let damping = 1e-3;
  let scale = 1;
  let weights: Float64Array = new Float64Array(r.length);
  const cost = (of: Float64Array): number => {
    let sum = 0;
    for (let i = 0; i < of.length; i += 1) sum += weights[i] * of[i] * of[i];
    return sum;
  };
  for (let round = 0; round < ROUNDS; round += 1) {
    scale = Math.max(0.02, 1.4826 * median(r.map(Math.abs)));
    weights = r.map((value) => weightOf(value, scale));
    const { normal, gradient } = normalEquations(one, p, weights, r);
    const before = cost(r);
    let moved = 0;
    for (let attempt = 0; attempt < 12; attempt += 1) {
      const damped = normal.map((row, i) => row.map((value, j) => (i === j ? value * (1 + damping) + 1e-12 : value)));
      const step = solveLinear(damped, gradient).map((by) => Math.max(-LONGEST_STEP, Math.min(LONGEST_STEP, by)));
      const next = p.map((value, i) => value + step[i]);
      const nextResiduals = residuals(one, next);
      if (cost(nextResiduals) <= before) {
        p = next;
        r = nextResiduals;
        moved = Math.max(...step.map(Math.abs));
        damping = Math.max(1e-9, damping / 5);
        break;
      }
      damping *= 6;
    }
    if ((moved < SETTLED && round > 3) || sunk(p)) break;
  }
  return { p, scale, weights };
}

function normalEquations(
  one: Case,
  p: Parameters,
  weights: Float64Array,
  r: Float64Array,
): { readonly normal: number[][]; readonly gradient: number[] } {
  const normal = p.map(() => p.map(() => 0));
  const gradient = p.map(() => 0);
  const slope = slopes(one, p);
  const width = p.length;
  for (let i = 0; i < r.length; i += 1) {
    if (weights[i] === 0) continue;
    for (let a = 0; a < width; a += 1) {
      const weighted = weights[i] * slope[i * width + a];
      gradient[a] += weighted * r[i];
      for (let b = 0; b < width; b += 1) normal[a][b] += weighted * slope[i * width + b];
    }
  }
  return { normal, gradient };
}

/**
 * Centre, Q and their intervals of a resonance that broadband noise shows, from a spectrum with the noise source on and one with it off. The
 * off spectrum is taken off in linear power; a resonance curve A/(1 + (Q(f/f₀ − f₀/f))²) over it is fitted in dB by weighted least squares,
 * spikes of stations losing their weight (Tukey's biweight). Where a floor raised everywhere (the source heard past the antenna) explains the
 * recording clearly better, it is fitted along and stands apart from the height. 100,000 points take well under a second.
 * @throws ShapeError for spectra that are too short or do not overlap; NotConvergedError when nothing like a resonance is there.
 */
export function noisePeak(on: Spectrum, off: Spectrum): NoisePeak {
  const n = on.freqHz.length;
  if (n < LEAST_POINTS || off.freqHz.length < 1)
    throw new ShapeError(
      `A fit needs at least ${LEAST_POINTS} points with the source on and a spectrum with it off. Record more.`,
    );
  if (off.freqHz[off.freqHz.length - 1] < on.freqHz[0] || off.freqHz[0] > on.freqHz[n - 1])
    throw new ShapeError('The two spectra do not overlap. Record both over the same span.');
  const floorDb = background(off, on.freqHz);
  const one = { on, floor: floorDb.map(power), unit: power(median(floorDb)) };
  const start = firstGuess(on, floorDb);
  const raised = median(on.levelDb.map((level, i) => power(level) - one.floor[i])) / one.unit;
  const plain = fit(one, [Math.log(start.height), Math.log(start.centreHz), Math.log(start.q)]);
  if (!(raised > LEAST_RAISED)) return conclude(one, plain, raised, start.rough);
  const along = fit(one, [...plainStart(start, raised), Math.log(raised)]);
  if (sunk(along.p)) return conclude(one, plain, raised, start.rough);
  const scale = Math.min(plain.scale, along.scale);
  const gained = lossOf(residuals(one, plain.p), scale) - lossOf(residuals(one, along.p), scale);
  return conclude(one, gained > LEAST_GAIN ? along : plain, raised, start.rough);
}

/** First guess beside a floor raised everywhere: the height is what stands over it. */
const plainStart = (start: ReturnType<typeof firstGuess>, raised: number): number[] => [
  Math.log(Math.max(1e-3, start.height - raised)),
  Math.log(start.centreHz),
  Math.log(start.q),
];

function conclude(one: Case, { p, scale, weights }: Fit, raised: number, rough: NoisePeak['rough']): NoisePeak {
  const { on, floor, unit } = one;
  const n = on.freqHz.length;
  const kept = weights.reduce((count, weight) => count + (weight > 0 ? 1 : 0), 0);
  const centreHz = Math.exp(p[1]);
  const q = Math.exp(p[2]);
  const after = on.freqHz.findIndex((f) => f >= centreHz);
  const under = floor[Math.max(0, after)] + (p.length > 3 ? unit * Math.exp(p[3]) : 0);
  const r = residuals(one, p);
  // how much better than no resonance at all, over the floor as it is or raised everywhere, in units of the scatter
  const without = [0, Math.max(0, raised)].map((by) =>
    on.levelDb.reduce(
      (sum, level, i) => sum + (weights[i] > 0 ? (level - db(floor[i] + unit * by)) ** 2 - r[i] ** 2 : 0),
      0,
    ),
  );
  if (
    !(centreHz > on.freqHz[0] && centreHz < on.freqHz[n - 1]) ||
    Math.min(...without) < LEAST_GAIN * scale ** 2 ||
    kept < LEAST_POINTS
  )
    throw new NotConvergedError('The search for a resonance in the noise', scale);
  // unweighted points that were kept decide the scatter; Tukey's weights shrink it by their efficiency
  const { normal } = normalEquations(
    one,
    p,
    weights.map((weight) => (weight > 0 ? 1 : 0)),
    r,
  );
  const square =
    r.reduce((sum, value, i) => sum + (weights[i] > 0 ? value * value : 0), 0) / Math.max(1, kept - p.length);
  const variance = [1, 2].map((k) => {
    const unitVector = p.map((_, i) => (i === k ? 1 : 0));
    return (square * solveLinear(normal, unitVector)[k]) / EFFICIENCY;
  });
  const t = studentQuantile(0.975, Math.max(1, kept - p.length));
  return {
    centreHz,
    q,
    widthHz: centreHz / q,
    riseDb: db(1 + (unit * Math.exp(p[0])) / under),
    centreHalfHz: t * Math.sqrt(variance[0]) * centreHz,
    qHalf: t * Math.sqrt(variance[1]) * q,
    spikes: 1 - kept / n,
    rough,
    scatterDb: Math.sqrt(square),
  };
}

/** Highest point of the smoothed difference, its half-power width, and a Q from it. */
function firstGuess(on: Spectrum, floorDb: Float64Array) {
  const n = on.freqHz.length;
  const smooth = runningMedian(on.levelDb, Math.max(1, Math.round(n / 100)));
  const over = smooth.map((level, i) => Math.max(0, power(level) - power(floorDb[i])));
  const top = over.reduce((best, value, i) => (value > over[best] ? i : best), 0);
  const half = over[top] / 2;
  let [low, high] = [top, top];
  while (low > 0 && over[low] > half) low -= 1;
  while (high < n - 1 && over[high] > half) high += 1;
  const widthHz = Math.max(on.freqHz[high] - on.freqHz[low], on.freqHz[1] - on.freqHz[0]);
  return {
    centreHz: on.freqHz[top],
    q: on.freqHz[top] / widthHz,
    height: Math.max(1e-3, over[top] / power(floorDb[top])),
    rough: {
      centreHz: (on.freqHz[low] + on.freqHz[high]) / 2,
      ...(low > 0 && high < n - 1 ? { widthHz } : {}),
    },
  };
}
