import { studentQuantile } from '../numeric/special';
import { RAD } from '../units/constants';

/** A level in a direction. */
export interface PatternPoint {
  readonly deg: number;
  readonly db: number;
}

/** A figure with its 95 % interval. */
export interface Estimate {
  readonly value: number;
  readonly low: number;
  readonly high: number;
}

/** Harmonics at most; the penalty takes out what the scatter does not carry. */
const MOST_HARMONICS = 24;
/** Fewer readings for each, and cross-validation takes the scatter for shape. */
const READINGS_A_HARMONIC = 3;
/** Weights of the penalty that are tried, each for a reading. */
const LAMBDAS = Array.from({ length: 29 }, (_, i) => 10 ** (-9 + i / 3));

type Matrix = readonly (readonly number[])[];

/** Inverse of a symmetric positive matrix, by elimination in place. */
function inverse(a: Matrix): Matrix {
  const n = a.length;
  const m = a.map((row) => Float64Array.from(row));
  for (let k = 0; k < n; k += 1) {
    const pivot = m[k][k];
    m[k][k] = 1;
    for (let j = 0; j < n; j += 1) m[k][j] /= pivot;
    for (let i = 0; i < n; i += 1) {
      const share = m[i][k];
      if (i === k || share === 0) continue;
      m[i][k] = 0;
      for (let j = 0; j < n; j += 1) m[i][j] -= share * m[k][j];
    }
  }
  return m.map((row) => [...row]);
}

const wave = (deg: number, count: number): readonly number[] => {
  const row = [1];
  for (let k = 1; k <= count; k += 1) row.push(Math.cos(k * deg * RAD), Math.sin(k * deg * RAD));
  return row;
};

const normal = (rows: Matrix): readonly (readonly number[])[] => {
  const m = rows[0].length;
  const out = Array.from({ length: m }, () => new Array<number>(m).fill(0));
  for (const row of rows) for (let i = 0; i < m; i += 1) for (let j = 0; j <= i; j += 1) out[i][j] += row[i] * row[j];
  for (let i = 0; i < m; i += 1) for (let j = i + 1; j < m; j += 1) out[i][j] = out[j][i];
  return out;
};
const times = (rows: Matrix, values: readonly number[]): readonly number[] =>
  rows[0].map((_, i) => rows.reduce((sum, row, k) => sum + row[i] * values[k], 0));
const dot = (a: readonly number[], b: readonly number[]): number => a.reduce((sum, one, i) => sum + one * b[i], 0);

/** Levels round the circle with the scatter taken out. */
export interface SmoothCircle {
  readonly at: (deg: number) => number;
  /** Standard error of a difference of levels in two directions, dB. */
  readonly errorOf: (aDeg: number, bDeg: number) => number;
  /** Scatter of one reading, dB. */
  readonly sigmaDb: number;
  readonly dof: number;
}

/**
 * A smooth curve through levels round the circle: Fourier series whose curvature is held down by a penalty, its weight by generalised cross-validation.
 * Source: Craven and Wahba, Numer. Math. 31 (1979) 377; errors of the curve as Wahba, J. R. Statist. Soc. B 45 (1983) 133 (from memory).
 * Range: where directions are missing it says nothing.
 */
export function smoothCircle(points: readonly PatternPoint[]): SmoothCircle {
  const n = points.length;
  const count = Math.max(1, Math.min(MOST_HARMONICS, Math.floor(n / READINGS_A_HARMONIC)));
  const rows = points.map(({ deg }) => wave(deg, count));
  const [square, right] = [
    normal(rows),
    times(
      rows,
      points.map(({ db }) => db),
    ),
  ];
  const penalty = wave(0, count).map((_, i) => Math.ceil(i / 2) ** 4);
  let best: { gcv: number; inverse: Matrix; beta: readonly number[]; rss: number; trace: number } | undefined;
  for (const lambda of LAMBDAS) {
    const held = square.map((row, i) => row.map((one, j) => (i === j ? one + n * lambda * penalty[i] + 1e-9 : one)));
    const inv = inverse(held);
    const beta = inv.map((row) => dot(row, right));
    const trace = inv.reduce((sum, row, i) => sum + row.reduce((part, one, j) => part + one * square[j][i], 0), 0);
    const rss = rows.reduce((sum, row, k) => sum + (points[k].db - dot(row, beta)) ** 2, 0);
    if (n - trace < 1) continue;
    const gcv = (n * rss) / (n - trace) ** 2;
    if (!best || gcv < best.gcv) best = { gcv, inverse: inv, beta, rss, trace };
  }
  const { beta, inverse: inv, rss, trace } = best ?? { beta: [0], inverse: [[0]], rss: 0, trace: 1 };
  const dof = Math.max(1, n - trace);
  const sigmaDb = Math.sqrt(rss / dof);
  return {
    at: (deg) => dot(wave(deg, count), beta),
    errorOf: (aDeg, bDeg) => {
      const [a, b] = [wave(aDeg, count), wave(bDeg, count)];
      const between = a.map((one, i) => one - b[i]);
      return (
        sigmaDb *
        Math.sqrt(
          Math.max(
            0,
            dot(
              between,
              inv.map((row) => dot(row, between)),
            ),
          ),
        )
      );
    },
    ...{ sigmaDb, dof },
  };
}

/** The main lobe is looked at down to so much below its top. */
const LOBE_DB = 8;
const HALF_POWER_DB = 3;
/** Readings in the lobe, at least. */
const LEAST_READINGS = 6;
/**
 * How much steeper than a parabola a lobe falls in dB: 3·(z² + k·z⁴)/(1 + k), z in half widths. 0.05 for a cardioid and its powers, 0.055 for cos² of the
 * field, 0.064 for an even aperture, 0.10 for a dipole, 0 for a Gaussian beam: by their series. Its own doubt counts in the width.
 */
const STEEPER = 0.06;
const STEEPER_DOUBT = 0.025;
const FINE_DEG = 0.5;
const MOST_ROUNDS = 40;
const WINDOW_ROUNDS = 4;
/** A width that is known no better is none. */
const MOST_DOUBT = 0.33;
/** Half widths at which such a lobe has fallen by LOBE_DB: z² + 0.06·z⁴ = 2.83. */
const LOBE_Z = 1.57;

/** Top and width of the main lobe. */
export interface MainLobe {
  readonly peakDeg: Estimate;
  readonly widthDeg: Estimate;
  /** Level at the top by the curve, dB. */
  readonly topDb: number;
}

/** Top, place of it, and half width to either side, degrees from the centre. */
type Lobe = readonly [topDb: number, peakDeg: number, leftDeg: number, rightDeg: number];

const lobeAt = ([top, peak, left, right]: Lobe, x: number, steeper: number): number => {
  const z = (x - peak) / (x < peak ? left : right);
  return top - (HALF_POWER_DB * (z ** 2 + steeper * z ** 4)) / (1 + steeper);
};

/** Least squares of a lobe by Gauss and Newton, with steps that are halved until they help. */
function fitLobe(
  points: readonly { readonly x: number; readonly db: number }[],
  start: Lobe,
  steeper: number,
): { readonly lobe: Lobe; readonly rss: number; readonly inverse: Matrix } {
  const rssOf = (lobe: Lobe): number =>
    points.reduce((sum, { x, db }) => sum + (db - lobeAt(lobe, x, steeper)) ** 2, 0);
  const slopes = (lobe: Lobe): Matrix =>
    points.map(({ x }) =>
      lobe.map((one, i) => {
        const step = 1e-4 * Math.max(1, Math.abs(one));
        const moved = lobe.map((value, k) => (k === i ? value + step : value)) as unknown as Lobe;
        return (lobeAt(moved, x, steeper) - lobeAt(lobe, x, steeper)) / step;
      }),
    );
  let lobe = start;
  let rss = rssOf(lobe);
  for (let round = 0; round < MOST_ROUNDS; round += 1) {
    const rows = slopes(lobe);
    const inv = inverse(normal(rows).map((row, i) => row.map((one, j) => (i === j ? one * (1 + 1e-9) + 1e-12 : one))));
    const right = times(
      rows,
      points.map(({ x, db }) => db - lobeAt(lobe, x, steeper)),
    );
    const step = inv.map((row) => dot(row, right));
    let share = 1;
    let better: Lobe | undefined;
    while (share > 1e-4) {
      const [top, peak, left, to] = lobe.map((one, i) => one + share * step[i]);
      if (left > 0 && to > 0 && rssOf([top, peak, left, to]) < rss) {
        better = [top, peak, left, to];
        break;
      }
      share /= 2;
    }
    if (!better) break;
    const now = rssOf(better);
    const settled = rss - now < 1e-10 * (1 + rss);
    [lobe, rss] = [better, now];
    if (settled) break;
  }
  return {
    lobe,
    rss,
    inverse: inverse(normal(slopes(lobe)).map((row, i) => row.map((one, j) => (i === j ? one + 1e-12 : one)))),
  };
}

/**
 * Peak and width at −3 dB of the main lobe: a lobe of two half widths through its readings in dB, with intervals from their own scatter and from what is
 * not known of the lobe's shape. @param centreDeg near its top. @param smooth bounds the lobe.
 * @returns undefined where too few directions lie in the lobe, or it does not fall by 3 dB within them.
 * Source: least squares and JCGM 100, sec. 5.1; the shape by the series of common lobes.
 */
export function mainLobe(
  points: readonly PatternPoint[],
  centreDeg: number,
  smooth: SmoothCircle,
): MainLobe | undefined {
  const off = (deg: number): number => ((((deg - centreDeg + 180) % 360) + 360) % 360) - 180;
  const top = smooth.at(centreDeg);
  const edge = (side: 1 | -1, downDb: number): number => {
    let deg = 0;
    while (deg < 175 && smooth.at(centreDeg + side * (deg + 1)) > top - downDb) deg += 1;
    return side * (deg + 0.5);
  };
  const all = points.map(({ deg, db }) => ({ x: off(deg), db }));
  const within = (from: number, to: number) => all.filter(({ x }) => x >= from && x <= to);
  let [from, to] = [edge(-1, LOBE_DB), edge(1, LOBE_DB)];
  let inside = within(from, to);
  let fit: ReturnType<typeof fitLobe> | undefined;
  const start: Lobe = [top, 0, Math.max(1, -edge(-1, HALF_POWER_DB)), Math.max(1, edge(1, HALF_POWER_DB))];
  // the scatter must not choose which readings belong to the lobe: the lobe itself does, once it is known
  for (let round = 0; round < WINDOW_ROUNDS; round += 1) {
    if (inside.length < LEAST_READINGS || Math.min(-from, to) > 174) return undefined;
    fit = fitLobe(inside, fit?.lobe ?? start, STEEPER);
    const [, peak, left, right] = fit.lobe;
    [from, to] = [Math.max(-174, peak - LOBE_Z * left), Math.min(174, peak + LOBE_Z * right)];
    inside = within(from, to);
  }
  if (!fit || inside.length < LEAST_READINGS) return undefined;
  const { lobe, rss, inverse: inv } = fitLobe(inside, fit.lobe, STEEPER);
  const [, peak, left, right] = lobe;
  if (peak - left < Math.min(...inside.map(({ x }) => x)) || peak + right > Math.max(...inside.map(({ x }) => x)))
    return undefined;
  const dof = inside.length - lobe.length;
  // few readings in the lobe may lie on it by chance: the scatter of the whole circle counts where it is larger
  const variance = Math.max(rss / dof, smooth.sigmaDb ** 2);
  const widthOf = (steeper: number): number => {
    const [, , a, b] = fitLobe(inside, lobe, steeper).lobe;
    return a + b;
  };
  const shape = (widthOf(STEEPER + STEEPER_DOUBT) - widthOf(STEEPER - STEEPER_DOUBT)) / 2;
  const t = studentQuantile(0.975, dof);
  const widthHalf = t * Math.sqrt(variance * Math.max(0, inv[2][2] + inv[3][3] + 2 * inv[2][3]) + shape ** 2);
  const peakHalf = t * Math.sqrt(variance * Math.max(0, inv[1][1]));
  // hidden in the scatter: a width of half its size either way says nothing
  if (widthHalf > MOST_DOUBT * (left + right)) return undefined;
  const around = (value: number, half: number): Estimate => ({ value, low: value - half, high: value + half });
  return {
    peakDeg: around(centreDeg + peak, peakHalf),
    widthDeg: around(left + right, widthHalf),
    topDb: lobe[0],
  };
}

/**
 * Width at −3 dB by the smooth curve itself: better than a lobe's shape where the readings scatter little, and true for any shape.
 * @returns undefined where the curve does not fall so far within what was measured.
 */
export function widthByCurve(
  smooth: SmoothCircle,
  peakDeg: number,
  isMeasured: (deg: number) => boolean,
): Estimate | undefined {
  const top = smooth.at(peakDeg);
  const crossing = (side: 1 | -1): { readonly off: number; readonly error: number } | undefined => {
    for (let off = FINE_DEG; off < 180; off += FINE_DEG) {
      const deg = peakDeg + side * off;
      if (!isMeasured(deg)) return undefined;
      const level = smooth.at(deg) - top;
      if (level > -HALF_POWER_DB) continue;
      const inner = smooth.at(deg - side * FINE_DEG) - top;
      const slope = (inner - level) / FINE_DEG;
      return { off: off - FINE_DEG + (inner + HALF_POWER_DB) / slope, error: smooth.errorOf(deg, peakDeg) / slope };
    }
    return undefined;
  };
  const [left, right] = [crossing(-1), crossing(1)];
  if (!left || !right) return undefined;
  const value = left.off + right.off;
  // both lean on the same top: their errors go together
  const half = studentQuantile(0.975, smooth.dof) * (left.error + right.error);
  return { value, low: value - half, high: value + half };
}

/** The direction of the top of a smooth curve. */
export function topOf(smooth: SmoothCircle, isMeasured: (deg: number) => boolean): number {
  let best = 0;
  let level = -Infinity;
  for (let deg = 0; deg < 360; deg += FINE_DEG)
    if (isMeasured(deg) && smooth.at(deg) > level) [best, level] = [deg, smooth.at(deg)];
  return best;
}
