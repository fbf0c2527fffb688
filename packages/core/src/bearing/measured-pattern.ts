import { requirePositive, requireRange, ShapeError } from '../errors';
import { studentQuantile } from '../numeric/special';
import { quantile } from '../numeric/statistics';
import { RAD } from '../units/constants';
import { powerDb } from '../units/decibel';
import {
  type Estimate,
  mainLobe,
  type PatternPoint,
  type SmoothCircle,
  smoothCircle,
  topOf,
  widthByCurve,
} from './pattern-fit';

/** With readings that scatter less than this the curve itself tells the width; with more, which of two intervals is the narrower is chance, dB. */
const CALM_DB = 0.4;

/** What the levels of a table are. */
export type LevelScale = 'dB' | 'amplitude' | 'power';

/** A pattern as it was turned, brought onto an even circle; its figures by curves through the readings, each with its 95 % interval. */
export interface MeasuredPattern {
  readonly stepDeg: number;
  /** Levels on an even circle from 0°, dB against the strongest; where nothing was measured undefined. */
  readonly levelsDb: readonly (number | undefined)[];
  /** Direction of the strongest level. */
  readonly peakDeg: Estimate;
  /** absent: the scatter hides it, or the lobe does not fall by 3 dB in what was measured. */
  readonly widthDeg?: Estimate;
  /** absent: nothing was measured there. Side: the larger one, 90° off. Rear: the worst of 90 to 270° off. All above zero where they are weaker. */
  readonly frontToBackDb?: Estimate;
  readonly frontToRearDb?: Estimate;
  readonly frontToSideDb?: Estimate;
  /** The highest lobe that stands out of the scatter, dB against the peak; null: none does. absent: not all directions were measured. */
  readonly sideLobeDb?: Estimate | null;
  /** Directivity of a body that looks the same from all sides about its axis, dBi: an estimate from one cut. absent: not all directions were measured. */
  readonly rotationalDbi?: number;
  /** Scatter of one reading about the curve, dB. */
  readonly sigmaDb: number;
  /** Sectors in which nothing was measured, from and to, degrees. */
  readonly gapsDeg: readonly (readonly [number, number])[];
  /** Directions whose reading was left out: far below its neighbours inside the main lobe, or no level at all. */
  readonly deadDeg: readonly number[];
  /** Level at the end less that at the beginning of the same direction, dB, taken out evenly; absent where no direction was read again. */
  readonly driftDb?: number;
  readonly turns: number;
}

const LEAST_DIRECTIONS = 8;
const FLOOR_DB = -80;

/** Levels that look like shares of the largest are not decibels: which they are must be asked. */
export const scaleDoubtful = (levels: readonly number[]): boolean =>
  levels.length > 0 && levels.every((one) => one >= 0) && Math.max(...levels) <= 10;

const toDb = (level: number, scale: LevelScale): number =>
  scale === 'dB' ? level : level <= 0 ? FLOOR_DB : scale === 'power' ? powerDb(level) : 2 * powerDb(level);

/** A sector is not measured where neighbours lie this many usual steps apart. */
const GAP_STEPS = 2.5;
/** A reading so far below its neighbours, where these lie near the top, is none. Common practice, no source. */
const DEAD_DB = 15;
const NEAR_TOP_DB = 12;
const NEIGHBOURS = 3;

/** Directions whose readings are none, in a turn in the order of its angles. */
function deadAmong(points: readonly PatternPoint[]): ReadonlySet<PatternPoint> {
  const n = points.length;
  const top = quantile(
    points.map(({ db }) => db),
    0.95,
  );
  return new Set(
    points.filter((one, i) => {
      const around = Array.from({ length: 2 * NEIGHBOURS + 1 }, (_, k) => points[(i + k - NEIGHBOURS + n) % n].db);
      const middle = quantile(around, 0.5);
      return one.db < middle - DEAD_DB && middle > top - NEAR_TOP_DB;
    }),
  );
}

/** Sectors between neighbours that lie farther apart than the turn's usual step. */
function gapsOf(directions: readonly number[]): readonly (readonly [number, number])[] {
  const sorted = [...directions].sort((a, b) => a - b);
  const steps = sorted.map((deg, i) => (i + 1 < sorted.length ? sorted[i + 1] : sorted[0] + 360) - deg);
  const usual = quantile(steps, 0.5);
  return sorted.flatMap((deg, i) => (steps[i] > GAP_STEPS * usual ? [[deg, deg + steps[i]] as const] : []));
}
const inside = (gaps: readonly (readonly [number, number])[], deg: number): boolean =>
  gaps.some(([from, to]) => {
    const on = ((((deg - from) % 360) + 360) % 360) + from;
    return on > from + 1e-6 && on < to - 1e-6;
  });

/** Level at an angle, straight between neighbours round the circle. */
function between(points: readonly { readonly deg: number; readonly db: number }[], deg: number): number {
  const after = points.findIndex((one) => one.deg >= deg - 1e-9);
  const next = points[after < 0 ? 0 : after];
  if (Math.abs(next.deg - deg) < 1e-6) return next.db;
  const last = points[(after <= 0 ? points.length : after) - 1];
  const span = (((next.deg - last.deg) % 360) + 360) % 360 || 360;
  const share = ((((deg - last.deg) % 360) + 360) % 360) / span;
  return last.db + share * (next.db - last.db);
}

/** One turn on an even circle. */
function circle(
  readings: readonly { readonly deg: number; readonly db: number }[],
  stepDeg: number,
): readonly number[] {
  const points = [...readings]
    .map(({ deg, db }) => ({ deg: ((deg % 360) + 360) % 360, db }))
    .sort((a, b) => a.deg - b.deg);
  return Array.from({ length: Math.round(360 / stepDeg) }, (_, i) => between(points, i * stepDeg));
}

/** Directivity of a figure that turns about the direction of its peak, both halves averaged: 2 / ∫ p sin θ dθ. */
function rotational(at: (deg: number) => number, step: number, peakDeg: number): number {
  let sum = 0;
  for (let deg = 0; deg <= 180; deg += step) {
    const power = (10 ** (at(peakDeg + deg) / 10) + 10 ** (at(peakDeg - deg) / 10)) / 2;
    sum += power * Math.sin(deg * RAD) * step * RAD;
  }
  return powerDb(2 / sum);
}

/**
 * Pattern out of angles and levels: turns averaged in dB, a drift between the first reading and its repetition at the end taken out evenly; dead
 * readings and directions that nobody measured are named and left out.
 * @param rows in the order in which they were read. @throws ShapeError for fewer than eight directions, or for amplitudes or powers below nothing.
 */
export function measuredPattern(
  rows: readonly { readonly angleDeg: number; readonly level: number }[],
  scale: LevelScale,
): MeasuredPattern {
  if (scale !== 'dB' && rows.some(({ level }) => level < 0))
    throw new ShapeError(
      `These levels lie below zero: they are no ${scale === 'power' ? 'powers' : 'amplitudes'}. Take them as decibels.`,
    );
  const read = rows.map(({ angleDeg, level }) => ({ deg: angleDeg, db: toDb(level, scale) }));
  read.forEach(({ deg }) => requireRange(deg, 'Angle (degrees)', -3600, 3600));
  const wrapped = (deg: number): number => Math.round(10 * (((deg % 360) + 360) % 360)) % 3600;
  const directions = new Set(read.map(({ deg }) => wrapped(deg)));
  if (directions.size < LEAST_DIRECTIONS)
    throw new ShapeError(
      `A pattern needs ${LEAST_DIRECTIONS} directions at least; here are ${directions.size}. Measure more.`,
    );
  const [first, last] = [read[0], read[read.length - 1]];
  const again = read.length > directions.size && wrapped(first.deg) === wrapped(last.deg);
  const driftDb = again ? last.db - first.db : undefined;
  const steady = read.map(({ deg, db }, i) => ({
    deg: ((deg % 360) + 360) % 360,
    db: db - ((driftDb ?? 0) * i) / Math.max(1, read.length - 1),
  }));
  const kept = again ? steady.slice(0, -1) : steady;
  const dead = deadAmong([...kept].sort((a, b) => a.deg - b.deg));
  const alive = kept.filter((one) => !dead.has(one));
  // the k-th reading of a direction belongs to the k-th turn
  const seen = new Map<number, number>();
  const turns: PatternPoint[][] = [];
  for (const one of alive) {
    const turn = seen.get(wrapped(one.deg)) ?? 0;
    seen.set(wrapped(one.deg), turn + 1);
    (turns[turn] ??= []).push(one);
  }
  const whole = turns.filter((turn) => turn.length >= seen.size);
  const gapsDeg = gapsOf([...seen.keys()].map((tenths) => tenths / 10));
  const measured = (deg: number): boolean => !inside(gapsDeg, deg);
  const missingDeg = gapsDeg.reduce((sum, [from, to]) => sum + to - from, 0);
  const stepDeg = 360 / Math.round((360 * seen.size) / Math.max(1, 360 - missingDeg));
  const circles = (whole.length > 0 ? whole : [alive]).map((turn) => circle(turn, stepDeg));
  const mean = circles[0].map((_, i) => circles.reduce((sum, one) => sum + one[i], 0) / circles.length);
  const strongest = Math.max(...mean.filter((_, i) => measured(i * stepDeg)));
  const smooth = smoothCircle(alive);
  const roughPeak = topOf(smooth, measured);
  const lobe = mainLobe(alive, roughPeak, smooth);
  const peak = lobe?.peakDeg.value ?? roughPeak;
  const byCurve = widthByCurve(smooth, peak, measured);
  const span = (one: Estimate | undefined): number => (one ? one.high - one.low : Infinity);
  const width = smooth.sigmaDb < CALM_DB && span(byCurve) < span(lobe?.widthDeg) ? byCurve : lobe?.widthDeg;
  const t = studentQuantile(0.975, smooth.dof);
  /** Top less a direction by the curve. */
  const below = (deg: number): Estimate => {
    const [value, half] = [smooth.at(peak) - smooth.at(deg), t * smooth.errorOf(peak, deg)];
    return { value, low: value - half, high: value + half };
  };
  const sides = [peak + 90, peak - 90].filter(measured);
  const rear = Array.from({ length: 181 }, (_, i) => peak + 90 + i);
  const least = (all: readonly number[]): Estimate | undefined => all.map(below).sort((a, b) => a.value - b.value)[0];
  const side = least(sides);
  const worst = rear.every(measured) ? least(rear) : undefined;
  const back = measured(peak + 180) ? straightBehind(alive, peak, smooth, { t, stepDeg }) : undefined;
  return {
    ...{ stepDeg, turns: circles.length, sigmaDb: smooth.sigmaDb, gapsDeg },
    levelsDb: mean.map((db, i) => (measured(i * stepDeg) ? db - strongest : undefined)),
    peakDeg: lobe
      ? { ...lobe.peakDeg, value: ((lobe.peakDeg.value % 360) + 360) % 360 }
      : { value: roughPeak, low: roughPeak - stepDeg, high: roughPeak + stepDeg },
    deadDeg: [...dead].map(({ deg }) => deg).sort((a, b) => a - b),
    ...(width ? { widthDeg: width } : {}),
    ...(back ? { frontToBackDb: back } : {}),
    ...(worst ? { frontToRearDb: worst } : {}),
    ...(side && sides.length === 2 ? { frontToSideDb: side } : {}),
    ...(gapsDeg.length === 0
      ? {
          sideLobeDb: sideLobe(smooth, peak, t),
          rotationalDbi: rotational((deg) => smooth.at(deg) - smooth.at(peak), 1, peak),
        }
      : {}),
    ...(driftDb === undefined ? {} : { driftDb }),
  };
}

/** Front to back from the readings straight behind, as they are: a curve would fill a deep null. */
function straightBehind(
  points: readonly PatternPoint[],
  peakDeg: number,
  smooth: SmoothCircle,
  { t, stepDeg }: { readonly t: number; readonly stepDeg: number },
): Estimate | undefined {
  const off = (deg: number): number => Math.abs(((((deg - peakDeg) % 360) + 360) % 360) - 180);
  const behind = points.filter(({ deg }) => off(deg) <= stepDeg / 2 + 1e-6);
  if (behind.length === 0) return undefined;
  const value = smooth.at(peakDeg) - behind.reduce((sum, { db }) => sum + db, 0) / behind.length;
  const half = t * Math.hypot(smooth.sigmaDb / Math.sqrt(behind.length), smooth.errorOf(peakDeg, peakDeg + 180) / 2);
  return { value, low: value - half, high: value + half };
}

/** Many directions are looked at, and one of them rises by chance: a lobe must stand out by so many intervals. */
const RARE_LOBE = 1.7;

/** The highest lobe beside the main one whose rise over the valley before it is more than the scatter makes; null: none. */
function sideLobe(smooth: SmoothCircle, peakDeg: number, t: number): Estimate | null {
  const at = (i: number): number => smooth.at(peakDeg + i);
  const first = (side: 1 | -1): number => {
    let i = 1;
    while (i < 180 && at(side * (i + 1)) < at(side * i)) i += 1;
    return i;
  };
  const [from, to] = [first(1), 360 - first(-1)];
  let best: Estimate | null = null;
  for (let i = from + 1; i < to; i += 1) {
    if (at(i) < at(i - 1) || at(i) < at(i + 1)) continue;
    let [left, right] = [i, i];
    while (left > from && at(left - 1) < at(left)) left -= 1;
    while (right < to && at(right + 1) < at(right)) right += 1;
    const valley = at(left) > at(right) ? left : right;
    const rises = at(i) - at(valley) > RARE_LOBE * t * smooth.errorOf(peakDeg + i, peakDeg + valley);
    const value = at(i) - at(0);
    if (!rises || (best && value <= best.value)) continue;
    const half = t * smooth.errorOf(peakDeg + i, peakDeg);
    best = { value, low: value - half, high: value + half };
  }
  return best;
}

/** How long a turn takes. @param stepDeg between readings. @param dwellS at each, moving included. */
export function scanPlan(stepDeg: number, dwellS: number, turns = 1) {
  requirePositive(stepDeg, 'Step (degrees)');
  requirePositive(dwellS, 'Time at each direction (s)');
  const points = Math.ceil(360 / stepDeg) * turns;
  return { points, minutes: (points * dwellS) / 60 };
}
