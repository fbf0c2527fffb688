import { requirePositive, requireRange, ShapeError } from '../errors';
import { studentQuantile } from '../numeric/special';
import { RAD } from '../units/constants';
import { powerDb } from '../units/decibel';
import { patternFigures, type PatternFigures } from './pattern';

/** What the levels of a table are. */
export type LevelScale = 'dB' | 'amplitude' | 'power';

/** A pattern as it was turned, brought onto an even circle. */
export interface MeasuredPattern {
  readonly stepDeg: number;
  /** Levels on an even circle from 0°, dB against the peak. */
  readonly levelsDb: readonly number[];
  readonly figures: PatternFigures;
  /** Level at right angles to the peak, the larger one, dB against it. */
  readonly sideDb: number;
  /** Directivity of a body that looks the same from all sides about its axis, dBi: an estimate from one cut. */
  readonly rotationalDbi: number;
  /** Level at the end less that at the beginning of the same direction, dB, taken out evenly; absent where no direction was read again. */
  readonly driftDb?: number;
  /** Turns that were averaged, and half of the interval (95 %) of each figure from their scatter; absent for one turn, or where a turn has no such figure. */
  readonly turns: number;
  readonly widthHalfDeg?: number;
  readonly frontToBackHalfDb?: number;
  readonly frontToRearHalfDb?: number;
  readonly sideHalfDb?: number;
  readonly sideLobeHalfDb?: number;
}

const LEAST_DIRECTIONS = 8;
const FLOOR_DB = -80;

/** Levels that look like shares of the largest are not decibels: which they are must be asked. */
export const scaleDoubtful = (levels: readonly number[]): boolean =>
  levels.length > 0 && levels.every((one) => one >= 0) && Math.max(...levels) <= 10;

const toDb = (level: number, scale: LevelScale): number =>
  scale === 'dB' ? level : level <= 0 ? FLOOR_DB : scale === 'power' ? powerDb(level) : 2 * powerDb(level);

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
function rotational(levelsDb: readonly number[], peakDeg: number): number {
  const n = levelsDb.length;
  const step = 360 / n;
  const at = (deg: number): number => levelsDb[((Math.round(deg / step) % n) + n) % n];
  let sum = 0;
  for (let deg = 0; deg <= 180; deg += step) {
    const power = (10 ** (at(peakDeg + deg) / 10) + 10 ** (at(peakDeg - deg) / 10)) / 2;
    sum += power * Math.sin(deg * RAD) * step * RAD;
  }
  return powerDb(2 / sum);
}

/**
 * Pattern out of angles and levels: turns averaged in dB, a drift between the first reading and its repetition at the end taken out evenly.
 * @param rows in the order in which they were read. @throws ShapeError for fewer than eight directions.
 */
export function measuredPattern(
  rows: readonly { readonly angleDeg: number; readonly level: number }[],
  scale: LevelScale,
): MeasuredPattern {
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
  const steady = read.map(({ deg, db }, i) => ({ deg, db: db - ((driftDb ?? 0) * i) / Math.max(1, read.length - 1) }));
  // the k-th reading of a direction belongs to the k-th turn
  const seen = new Map<number, number>();
  const turns: { deg: number; db: number }[][] = [];
  for (const one of again ? steady.slice(0, -1) : steady) {
    const turn = seen.get(wrapped(one.deg)) ?? 0;
    seen.set(wrapped(one.deg), turn + 1);
    (turns[turn] ??= []).push(one);
  }
  const whole = turns.filter((turn) => turn.length >= directions.size);
  const stepDeg = 360 / directions.size;
  const circles = (whole.length > 0 ? whole : [steady]).map((turn) => circle(turn, stepDeg));
  const mean = circles[0].map((_, i) => circles.reduce((sum, one) => sum + one[i], 0) / circles.length);
  const peak = Math.max(...mean);
  const levelsDb = mean.map((db) => db - peak);
  const figures = patternFigures(levelsDb);
  const side = (levels: readonly number[], peakDeg: number): number => {
    const at = (deg: number): number => {
      const place = Math.round((peakDeg + deg) / stepDeg) % levels.length;
      return levels[(place + levels.length) % levels.length];
    };
    return Math.max(at(90), at(-90)) - Math.max(...levels);
  };
  const each = circles.map((one) => ({ levels: one, figures: patternFigures(one) }));
  const half = (values: readonly (number | null)[]): number | undefined => {
    const known = values.flatMap((one) => one ?? []);
    const n = known.length;
    if (n < 2 || n < values.length) return undefined;
    const middle = known.reduce((sum, one) => sum + one, 0) / n;
    const scatter = Math.sqrt(known.reduce((sum, one) => sum + (one - middle) ** 2, 0) / (n - 1));
    return (studentQuantile(0.975, n - 1) * scatter) / Math.sqrt(n);
  };
  const halves = {
    widthHalfDeg: half(each.map((one) => one.figures.widthDeg)),
    frontToBackHalfDb: half(each.map((one) => one.figures.frontToBackDb)),
    frontToRearHalfDb: half(each.map((one) => one.figures.frontToRearDb)),
    sideHalfDb: half(each.map((one) => side(one.levels, one.figures.peakDeg))),
    sideLobeHalfDb: half(each.map((one) => one.figures.sideLobeDb)),
  };
  return {
    ...{ stepDeg, levelsDb, figures, turns: circles.length, sideDb: side(levelsDb, figures.peakDeg) },
    rotationalDbi: rotational(levelsDb, figures.peakDeg),
    ...(driftDb === undefined ? {} : { driftDb }),
    ...Object.fromEntries(Object.entries(halves).filter(([, value]) => value !== undefined)),
  };
}

/** How long a turn takes. @param stepDeg between readings. @param dwellS at each, moving included. */
export function scanPlan(stepDeg: number, dwellS: number, turns = 1) {
  requirePositive(stepDeg, 'Step (degrees)');
  requirePositive(dwellS, 'Time at each direction (s)');
  const points = Math.ceil(360 / stepDeg) * turns;
  return { points, minutes: (points * dwellS) / 60 };
}
