import { NotConvergedError, ShapeError } from '../errors';
import { solveLinear } from '../numeric/least-squares';
import { studentQuantile } from '../numeric/special';

/** A spectrum: levels in dB (any reference) over frequency, ascending. */
export interface Spectrum {
  readonly freqHz: Float64Array;
  readonly levelDb: Float64Array;
}

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

/** Points below this number cannot decide three values and their scatter. */
const LEAST_POINTS = 12;
/** Tukey's constant: 95 % efficient on normal scatter. Source: Huber, Robust Statistics. */
const TUKEY = 4.685;
const ROUNDS = 60;
/** Points over which the background is smoothed, each side. */
const SMOOTH = 6;

const db = (ratio: number): number => 10 * Math.log10(ratio);
const median = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[middle] : (sorted[middle - 1] + sorted[middle]) / 2;
};

/** Background at a frequency, interpolated; smoothed by a running median so that its own scatter does not enter twice. */
function background(off: Spectrum, freqHz: Float64Array): Float64Array {
  const n = off.freqHz.length;
  const smooth = Float64Array.from(off.levelDb, (_, i) =>
    median(Array.from(off.levelDb.slice(Math.max(0, i - SMOOTH), Math.min(n, i + SMOOTH + 1)))),
  );
  return Float64Array.from(freqHz, (f) => {
    const next = off.freqHz.findIndex((one) => one >= f);
    if (next === 0) return smooth[0];
    if (next < 0) return smooth[n - 1];
    const share = (f - off.freqHz[next - 1]) / (off.freqHz[next] - off.freqHz[next - 1]);
    return smooth[next - 1] + share * (smooth[next] - smooth[next - 1]);
  });
}

/**
 * Centre, Q and their intervals of a resonance that broadband noise shows, from a spectrum with the noise source on and one with it off. The
 * off spectrum is taken off in linear power; a resonance curve A/(1 + (Q(f/f₀ − f₀/f))²) over it is fitted in dB by weighted least squares,
 * spikes of stations losing their weight (Tukey's biweight).
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
  const floor = floorDb.map((value) => 10 ** (value / 10));
  const start = firstGuess(on, floorDb);
  let p = [Math.log(start.height), Math.log(start.centreHz), Math.log(start.q)];
  const scaleHeight = 10 ** (median(Array.from(floorDb)) / 10);
  /** Model in dB and its derivatives by the three parameters, at one point. */
  const model = (i: number, [logA, logF, logQ]: readonly number[]) => {
    const f0 = Math.exp(logF);
    const q = Math.exp(logQ);
    const f = on.freqHz[i];
    const u = f / f0 - f0 / f;
    const den = 1 + (q * u) ** 2;
    const line = (scaleHeight * Math.exp(logA)) / den;
    const total = floor[i] + line;
    const perLn = (10 / Math.LN10) * (line / total);
    // d ln(line): by ln A 1; by ln f0 2q²u(f/f0 + f0/f)/den; by ln q −2(qu)²/den
    return {
      value: db(total),
      slope: [perLn, (perLn * 2 * q * q * u * (f / f0 + f0 / f)) / den, (-perLn * 2 * (q * u) ** 2) / den],
    };
  };
  const residuals = (at: readonly number[]): number[] =>
    Array.from(on.levelDb, (level, i) => level - model(i, at).value);
  let damping = 1e-3;
  let scale = 1;
  let weights: number[] = [];
  const cost = (at: readonly number[]): number => residuals(at).reduce((sum, r, i) => sum + weights[i] * r * r, 0);
  for (let round = 0; round < ROUNDS; round += 1) {
    const r = residuals(p);
    scale = Math.max(0.02, 1.4826 * median(r.map(Math.abs)));
    weights = r.map((one) => {
      const u = one / (TUKEY * scale);
      return Math.abs(u) < 1 ? (1 - u * u) ** 2 : 0;
    });
    const { normal, gradient } = normalEquations(n, weights, r, (i) => model(i, p).slope);
    const before = cost(p);
    let moved = 0;
    for (let attempt = 0; attempt < 12; attempt += 1) {
      const damped = normal.map((row, i) => row.map((value, j) => (i === j ? value * (1 + damping) + 1e-12 : value)));
      const step = solveLinear(damped, gradient).map((value) => Math.max(-0.5, Math.min(0.5, value)));
      const next = p.map((value, i) => value + step[i]);
      if (cost(next) <= before) {
        p = next;
        moved = Math.max(...step.map(Math.abs));
        damping = Math.max(1e-9, damping / 5);
        break;
      }
      damping *= 6;
    }
    if (moved < 1e-9 && round > 3) break;
  }
  return conclude(on, p, {
    weights,
    scale,
    scaleHeight,
    floor,
    residuals: residuals(p),
    slope: (i) => model(i, p).slope,
    start,
  });
}

function normalEquations(
  n: number,
  weights: readonly number[],
  r: readonly number[],
  slope: (i: number) => readonly number[],
): { readonly normal: number[][]; readonly gradient: number[] } {
  const normal = [0, 1, 2].map(() => [0, 0, 0]);
  const gradient = [0, 0, 0];
  for (let i = 0; i < n; i += 1) {
    if (weights[i] === 0) continue;
    const s = slope(i);
    for (let a = 0; a < 3; a += 1) {
      gradient[a] += weights[i] * s[a] * r[i];
      for (let b = 0; b < 3; b += 1) normal[a][b] += weights[i] * s[a] * s[b];
    }
  }
  return { normal, gradient };
}

interface Fit {
  readonly weights: readonly number[];
  readonly scale: number;
  readonly scaleHeight: number;
  readonly floor: Float64Array;
  readonly residuals: readonly number[];
  readonly slope: (i: number) => readonly number[];
  readonly start: ReturnType<typeof firstGuess>;
}

function conclude(on: Spectrum, p: readonly number[], fit: Fit): NoisePeak {
  const n = on.freqHz.length;
  const kept = fit.weights.filter((weight) => weight > 0).length;
  const centreHz = Math.exp(p[1]);
  const q = Math.exp(p[2]);
  const peakFloor =
    fit.floor[
      Math.max(
        0,
        on.freqHz.findIndex((f) => f >= centreHz),
      )
    ];
  const riseDb = db(1 + (fit.scaleHeight * Math.exp(p[0])) / peakFloor);
  // how much better than no resonance at all, in units of the scatter: three values fitted to noise alone gain about 3
  const gained = fit.residuals.reduce(
    (sum, r, k) => sum + (fit.weights[k] > 0 ? (on.levelDb[k] - db(fit.floor[k])) ** 2 - r * r : 0),
    0,
  );
  if (
    !(centreHz > on.freqHz[0] && centreHz < on.freqHz[n - 1]) ||
    gained < LEAST_GAIN * fit.scale ** 2 ||
    kept < LEAST_POINTS
  )
    throw new NotConvergedError('The search for a resonance in the noise', fit.scale);
  // unweighted points that were kept decide the scatter; Tukey's weights shrink it by their efficiency
  const { normal } = normalEquations(
    n,
    fit.weights.map((weight) => (weight > 0 ? 1 : 0)),
    fit.residuals,
    fit.slope,
  );
  const square = fit.residuals.reduce((sum, r, i) => sum + (fit.weights[i] > 0 ? r * r : 0), 0) / Math.max(1, kept - 3);
  const variance = [1, 2].map((k) => {
    const unit = [0, 0, 0];
    unit[k] = 1;
    return (square * solveLinear(normal, unit)[k]) / EFFICIENCY;
  });
  const t = studentQuantile(0.975, Math.max(1, kept - 3));
  return {
    centreHz,
    q,
    widthHz: centreHz / q,
    riseDb,
    centreHalfHz: t * Math.sqrt(variance[0]) * centreHz,
    qHalf: t * Math.sqrt(variance[1]) * q,
    spikes: 1 - kept / n,
    rough: fit.start.rough,
    scatterDb: Math.sqrt(square),
  };
}

/** A resonance must explain this many squared scatters more than a flat line. Chance alone reaches 30 once in 100,000 fits. */
const LEAST_GAIN = 40;

/** Efficiency of Tukey's biweight against least squares on normal scatter. */
const EFFICIENCY = 0.95;

/** Highest point of the smoothed difference, its half-power width, and a Q from it. */
function firstGuess(on: Spectrum, floorDb: Float64Array) {
  const n = on.freqHz.length;
  const reach = Math.max(1, Math.round(n / 100));
  const smooth = Array.from(on.levelDb, (_, i) =>
    median(Array.from({ length: 2 * reach + 1 }, (__, k) => on.levelDb[Math.min(n - 1, Math.max(0, i + k - reach))])),
  );
  const over = smooth.map((level, i) => Math.max(0, 10 ** (level / 10) - 10 ** (floorDb[i] / 10)));
  const top = over.indexOf(Math.max(...over));
  const half = over[top] / 2;
  let [low, high] = [top, top];
  while (low > 0 && over[low] > half) low -= 1;
  while (high < n - 1 && over[high] > half) high += 1;
  const widthHz = Math.max(on.freqHz[high] - on.freqHz[low], on.freqHz[1] - on.freqHz[0]);
  return {
    centreHz: on.freqHz[top],
    q: on.freqHz[top] / widthHz,
    height: Math.max(1e-3, over[top] / 10 ** (floorDb[top] / 10)),
    rough: {
      centreHz: (on.freqHz[low] + on.freqHz[high]) / 2,
      ...(low > 0 && high < n - 1 ? { widthHz } : {}),
    },
  };
}
