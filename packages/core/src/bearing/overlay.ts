import { requireRange, ShapeError } from '../errors';
import { RAD } from '../units/constants';
import { powerDb, powerRatio } from '../units/decibel';

/** A cut of a model: angles in degrees, ascending, and gains, dBi. */
interface ModelCut {
  readonly angleDeg: readonly number[];
  readonly gainDbi: readonly number[];
}

/** Something that would make a measured pattern differ from its model as it does. */
export interface Explanation {
  readonly kind: 'mirrored' | 'reflection' | 'feed line' | 'tilt';
  /** What is left between measurement and model when it is allowed for, rms, dB. */
  readonly rmsDb: number;
  /** A reflection or feed line: its strength against the main lobe, dB. A tilt: its swing either way, dB. Mirrored: 0. */
  readonly strengthDb: number;
  /** Where the reflected ray comes from, degrees from the direct one; where a tilt lifts the level most. */
  readonly towardDeg?: number;
  /** It accounts for the difference so well that chance does not. */
  readonly telling: boolean;
}

/** A measured pattern laid over a model at the same cut. */
export interface Overlay {
  /** By how much the model is turned, degrees, and lifted against the measurement's own peak, dB, so that they lie best. */
  readonly rotationDeg: number;
  readonly offsetDb: number;
  /** The model so turned and lifted, at the measured angles, dB. */
  readonly modelDb: readonly number[];
  /** Measured less model, dB, and its rms. Levels below the floor count as the floor. */
  readonly residualDb: readonly number[];
  readonly rmsDb: number;
  /** The same where the model is within 10 dB of its peak: what the antenna is used for. */
  readonly mainRmsDb: number;
  /** Allowed difference downward and upward at each angle, dB, from what was stated, and the directions that keep within. */
  readonly allowedDb: readonly (readonly [number, number])[];
  readonly within: number;
  readonly agrees: boolean;
  /** Best first; telling ones explain, the others do not. */
  readonly explanations: readonly Explanation[];
}

/** Errors of a measured level: scatter of a reading, 1 sigma, and the strongest reflection against the main lobe, dB. */
export interface StatedError {
  readonly scatterDb: number;
  readonly reflectionDb: number;
}

/** Depths below this say more of the place than of the antenna: levels under it count as it, dB below the peak. */
export const OVERLAY_FLOOR_DB = -30;
/** How far below its peak a pattern counts as used, dB. */
export const USED_DB = -10;
/** So many of the directions must keep within their error. */
const AGREEING_SHARE = 0.95;

const floored = (db: number): number => Math.max(OVERLAY_FLOOR_DB, db);

/** Level of a cut at any angle, straight between its points round the circle. */
function cutAt({ angleDeg, gainDbi }: ModelCut): (deg: number) => number {
  const points = angleDeg
    .map((deg, i) => ({ deg: ((deg % 360) + 360) % 360, db: gainDbi[i] }))
    .sort((a, b) => a.deg - b.deg)
    .filter(({ deg }, i, all) => i === 0 || deg - all[i - 1].deg > 1e-9);
  return (angle) => {
    const deg = ((angle % 360) + 360) % 360;
    let low = -1;
    let high = points.length;
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if (points[middle].deg <= deg) low = middle;
      else high = middle;
    }
    const before = points[low < 0 ? points.length - 1 : low];
    const after = points[high >= points.length ? 0 : high];
    const span = (after.deg - before.deg + 360) % 360 || 360;
    const share = ((deg - before.deg + 360) % 360) / span;
    return before.db + share * (after.db - before.db);
  };
}

const mean = (values: readonly number[]): number => values.reduce((sum, one) => sum + one, 0) / values.length;
const rms = (values: readonly number[]): number => Math.sqrt(mean(values.map((one) => one * one)));
// named once: hot loops must not look them up on a global
const { log10, max, sqrt } = Math;

interface Laid {
  readonly rotationDeg: number;
  readonly offsetDb: number;
  readonly modelDb: readonly number[];
}

/** How far a reflection can lower and raise a level so far below the main lobe, with twice the scatter of a reading, dB. */
function allowed(belowPeakDb: number, { scatterDb, reflectionDb }: StatedError): readonly [number, number] {
  const share = 10 ** ((reflectionDb - Math.max(belowPeakDb, OVERLAY_FLOOR_DB)) / 20);
  const down = share < 1 ? -20 * Math.log10(1 - share) : -OVERLAY_FLOOR_DB;
  return [
    Math.hypot(2 * scatterDb, Math.min(-OVERLAY_FLOOR_DB, down)),
    Math.hypot(2 * scatterDb, 20 * Math.log10(1 + share)),
  ];
}

/** Best turn and level of a model, first by 2°, then finer: each direction counts by its error. @param at level at the model's own angle, dB. */
function laidBest(
  angles: readonly number[],
  measured: readonly number[],
  at: (deg: number) => number,
  stated: StatedError,
  mostTurnDeg = 180,
): Laid {
  const top = Math.max(...angles.map(at));
  const laid = (rotationDeg: number): Laid & { readonly misfit: number } => {
    const model = angles.map((deg) => at(deg - rotationDeg));
    const weights = model.map((db) => allowed(db - top, stated)[1] ** -2);
    let offsetDb = -top;
    for (let round = 0; round < 2; round += 1) {
      const [sum, weight] = [0, 1].map((what) =>
        weights.reduce((total, w, i) => {
          const above = measured[i] > OVERLAY_FLOOR_DB && model[i] + offsetDb > OVERLAY_FLOOR_DB;
          return total + (above ? w * (what === 0 ? measured[i] - model[i] : 1) : 0);
        }, 0),
      );
      if (weight > 0) offsetDb = sum / weight;
    }
    const modelDb = model.map((db) => db + offsetDb);
    const misfit = weights.reduce((sum, w, i) => sum + w * (floored(measured[i]) - floored(modelDb[i])) ** 2, 0);
    return { rotationDeg, offsetDb, modelDb, misfit };
  };
  let best = laid(0);
  for (const [step, reach] of [
    [4, mostTurnDeg],
    [1, 4],
    [0.1, 1],
  ]) {
    const middle = best.rotationDeg;
    for (let turn = -reach; turn <= reach; turn += step) {
      const one = laid(middle + turn);
      if (one.misfit < best.misfit - 1e-12) best = one;
    }
  }
  return { ...best, rotationDeg: ((((best.rotationDeg + 180) % 360) + 360) % 360) - 180 };
}

/** What is left between levels and a figure in power, lifted so that least is left; rms, dB. */
function leftBy(measured: Float64Array, power: Float64Array): number {
  const n = measured.length;
  let sum = 0;
  let squares = 0;
  for (let i = 0; i < n; i += 1) {
    const db = 10 * log10(max(1e-3, power[i]));
    const off = measured[i] - db;
    sum += off;
    squares += off * off;
  }
  return sqrt(max(0, squares / n - (sum / n) ** 2));
}

/** Strengths that are tried, dB against the main lobe. */
const STRENGTHS_DB = Array.from({ length: 16 }, (_, i) => -36 + 2 * i);
const AROUND = Array.from({ length: 24 }, (_, i) => 15 * i);
const PHASES = [-1, -0.5, 0, 0.5, 1];
/** A tilt may have been taken for a turn, degrees either way. */
const TAKEN_FOR_A_TURN = 20;
/** Bayesian information difference from which an explanation is very strong: Kass & Raftery, J. Am. Stat. Assoc. 90 (1995) 773, from memory. */
const STRONG_EVIDENCE = 10;

/**
 * Lays a measured pattern over a model: best turn and level, what is left at each angle, and whether that keeps within the stated error.
 * The error grows in the nulls: a reflection R dB below the main lobe moves a level L dB below it by 20·log10(1 ± 10^((R+L)/20)).
 * @param points directions of the cut and levels there, dB against their peak. @throws ShapeError for fewer than eight.
 * @param mostTurnDeg how far the mark of the table may have been off.
 * Explanations are tried one at a time; the model's phases are not known to them, so a reflection's strength is rough: within 4 dB in three places of four, else told too weak.
 */
export function overlayModel(
  {
    angleDeg: angles,
    levelDb: measured,
  }: { readonly angleDeg: readonly number[]; readonly levelDb: readonly number[] },
  cut: ModelCut,
  stated: StatedError,
  mostTurnDeg = 180,
): Overlay {
  if (measured.length < 8 || cut.angleDeg.length < 8)
    throw new ShapeError('Both patterns need eight directions at least. Measure more, or choose another antenna.');
  requireRange(stated.scatterDb, 'Scatter of a reading (dB)', 0.01, 20);
  requireRange(stated.reflectionDb, 'Strongest reflection (dB)', -80, 0);
  const n = measured.length;
  const at = cutAt(cut);
  const best = laidBest(angles, measured, at, stated, mostTurnDeg);
  const residualDb = measured.map((db, i) => floored(db) - floored(best.modelDb[i]));
  const peak = Math.max(...best.modelDb);
  const allowedDb = best.modelDb.map((db) => allowed(db - peak, stated));
  const within = residualDb.filter((one, i) => one >= -allowedDb[i][0] && one <= allowedDb[i][1]).length;
  return {
    ...{ rotationDeg: best.rotationDeg, offsetDb: best.offsetDb, modelDb: best.modelDb },
    ...{ residualDb, rmsDb: rms(residualDb), allowedDb, within },
    mainRmsDb: rms(residualDb.filter((_, i) => best.modelDb[i] - peak >= USED_DB)),
    agrees: within >= AGREEING_SHARE * n,
    explanations: explain(angles, measured, at, best, stated),
  };
}

function explain(
  angles: readonly number[],
  measured: readonly number[],
  at: (deg: number) => number,
  best: Laid,
  stated: StatedError,
): readonly Explanation[] {
  const n = measured.length;
  const shown = Float64Array.from(measured, floored);
  const top = Math.max(...angles.map(at));
  const turnedBy = (deg: number): Float64Array =>
    Float64Array.from(angles, (one) => powerRatio(at(one - best.rotationDeg + deg) - top));
  const own = turnedBy(0);
  // below the scatter of a reading there is nothing left to explain
  const evidence = (rmsDb: number, parameters: number): number =>
    2 * n * Math.log(Math.max(rmsDb, stated.scatterDb)) + parameters * Math.log(n);
  const plain = evidence(leftBy(shown, own), 2);
  const found = (one: Omit<Explanation, 'telling'>, parameters: number): Explanation => ({
    ...one,
    telling: plain - evidence(one.rmsDb, 2 + parameters) > STRONG_EVIDENCE,
  });
  const mirror = laidBest(angles, measured, (deg) => at(-deg), stated);
  const mirrored = leftBy(
    shown,
    Float64Array.from(mirror.modelDb, (db) => powerRatio(db - mirror.offsetDb - top)),
  );
  const trial = new Float64Array(n);
  let feed = { rmsDb: Infinity, strengthDb: 0 };
  let ray = { rmsDb: Infinity, strengthDb: 0, towardDeg: 0 };
  for (const strengthDb of STRENGTHS_DB) {
    const power = powerRatio(strengthDb);
    own.forEach((one, i) => (trial[i] = one + power));
    const rmsDb = leftBy(shown, trial);
    if (rmsDb < feed.rmsDb) feed = { rmsDb, strengthDb };
  }
  // the ray may have been taken for a turn, too
  for (const turn of [-6, -3, 0, 3, 6]) {
    const direct = turnedBy(turn);
    for (const towardDeg of AROUND) {
      const other = turnedBy(turn + towardDeg);
      for (const strengthDb of STRENGTHS_DB) {
        const power = powerRatio(strengthDb);
        for (const phase of PHASES) {
          for (let i = 0; i < n; i += 1)
            trial[i] = direct[i] + power * other[i] + 2 * phase * sqrt(direct[i] * power * other[i]);
          const rmsDb = leftBy(shown, trial);
          if (rmsDb < ray.rmsDb) ray = { rmsDb, strengthDb, towardDeg };
        }
      }
    }
  }
  let tilt = { rmsDb: Infinity, strengthDb: 0, towardDeg: 0 };
  for (let turn = -TAKEN_FOR_A_TURN; turn <= TAKEN_FOR_A_TURN; turn += 1) {
    const model = turnedBy(turn);
    const one = firstHarmonic(
      angles,
      measured.map((db, i) => floored(db) - floored(powerDb(Math.max(1e-3, model[i])))),
    );
    if (one.rmsDb < tilt.rmsDb) tilt = one;
  }
  return [
    found({ kind: 'mirrored', rmsDb: mirrored, strengthDb: 0 }, 0),
    found({ kind: 'feed line', ...feed }, 1),
    found({ kind: 'reflection', ...ray }, 4),
    found({ kind: 'tilt', ...tilt }, 2),
  ].sort((a, b) => a.rmsDb - b.rmsDb);
}

/** Swing of one period round the circle in what is left, dB, where it is highest, and the rms without it and without a common offset. */
function firstHarmonic(angles: readonly number[], residual: readonly number[]) {
  const level = mean(residual);
  const a = 2 * mean(residual.map((one, i) => one * Math.cos(angles[i] * RAD)));
  const b = 2 * mean(residual.map((one, i) => one * Math.sin(angles[i] * RAD)));
  return {
    strengthDb: Math.hypot(a, b),
    towardDeg: (Math.atan2(b, a) / RAD + 360) % 360,
    rmsDb: rms(residual.map((one, i) => one - level - a * Math.cos(angles[i] * RAD) - b * Math.sin(angles[i] * RAD))),
  };
}
