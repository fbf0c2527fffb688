import { requireRange, ShapeError } from '../errors';
import { solveLinear } from '../numeric/least-squares';
import { studentQuantile } from '../numeric/special';
import { median } from '../numeric/statistics';
import { RAD } from '../units/constants';
import { powerDb } from '../units/decibel';

/** One direction of a loop's axis and what was read there. */
export interface AxisReading {
  /** Where the null of the antenna points, clockwise from north, degrees; either end of it. */
  readonly axisDeg: number;
  readonly levelDbm: number;
}

/** A figure of eight with a floor, fitted in power. */
export interface NullFit {
  /** Direction in which the source lies, or the opposite one, degrees, 0 to 180. */
  readonly axisDeg: number;
  /** 95 %, degrees to either side. */
  readonly halfDeg: number;
  readonly maximumDbm: number;
  readonly floorDbm: number;
  readonly depthDb: number;
  /** Read less fitted, dB, in the order of the readings. */
  readonly residualsDb: readonly number[];
  /** Scatter of a reading, dB, crashes left out. */
  readonly scatterDb: number;
  /** Readings that a crash or a slip of the pen raised or lowered: they hardly count. */
  readonly doubtful: readonly number[];
  /** The direction with the lowest reading, and how far it lies from the axis, degrees. */
  readonly lowestDeg: number;
  readonly lowestOffDeg: number;
  /** Level that the fit expects at a direction, dBm. */
  readonly at: (axisDeg: number) => number;
  /** Readings at these two directions, so many in all, would halve the interval. */
  readonly halving: { readonly readings: number; readonly atDeg: readonly [number, number] };
}

const LEAST_READINGS = 5;
/** Huber's constant: 95 % as sharp as least squares where nothing crashes. Source: Huber, Ann. Math. Stat. 35 (1964) 73. */
const HUBER = 1.345;
/** A reading this many scatters off hardly counts. */
const DOUBTFUL = 3.5;
const DB_PER_NEPER = 10 / Math.LN10;
/** No reading is exact to less than this, dB: otherwise four readings on the curve would prove everything. */
const LEAST_SCATTER_DB = 0.05;
const ROUNDS = 60;

/** A floor that no reading reaches is known to about this, dB, under the lowest reading. */
const FLOOR_PRIOR_DB = 10;
const UNDER_LOWEST_DB = 3;

/** Turns to −90 to 90 degrees: an axis has no sense. */
export const axialDeg = (deg: number): number => ((((deg + 90) % 180) + 180) % 180) - 90;

interface Parameters {
  readonly axis: number;
  /** Natural logarithms of the lobe's and the floor's power. */
  readonly lobe: number;
  readonly floor: number;
}

const modelDb = ({ axis, lobe, floor }: Parameters, deg: number): number =>
  powerDb(Math.exp(lobe) * Math.sin((deg - axis) * RAD) ** 2 + Math.exp(floor));

/** Slopes of the level by axis (degrees), lobe and floor. */
function slopesOf({ axis, lobe, floor }: Parameters, deg: number): readonly [number, number, number] {
  const turn = (deg - axis) * RAD;
  const [sine, cosine] = [Math.sin(turn), Math.cos(turn)];
  const [a, f] = [Math.exp(lobe) * sine * sine, Math.exp(floor)];
  const whole = DB_PER_NEPER / (a + f);
  return [-2 * Math.exp(lobe) * sine * cosine * RAD * whole, a * whole, f * whole];
}

const scaleOf = (residuals: readonly number[]): number =>
  Math.max(
    LEAST_SCATTER_DB,
    1.4826 * median(residuals.map(Math.abs)) * Math.sqrt(residuals.length / Math.max(1, residuals.length - 3)),
  );

/** Starting values for an axis: lobe and floor from the readings far from it and near it. */
function startAt(readings: readonly AxisReading[], axis: number): Parameters {
  const far = readings.filter(({ axisDeg }) => Math.abs(axialDeg(axisDeg - axis)) > 45).map(({ levelDbm }) => levelDbm);
  const all = readings.map(({ levelDbm }) => levelDbm);
  const top = far.length > 0 ? median(far) : Math.max(...all);
  const low = Math.min(...all);
  return { axis, lobe: (top + 1) / DB_PER_NEPER, floor: Math.min(low, top - 3) / DB_PER_NEPER };
}

/**
 * Direction of a source from the levels of a figure of eight turned round: power A·sin²(θ − θ₀) + floor, fitted in dB so that the readings near the null
 * count, robustly, so that a crash does not turn it.
 * @param readings five at least, uneven steps allowed. @throws ShapeError where they do not decide a null.
 * Range: one source, steady to the scatter that is told; both ends of the axis are possible.
 */
export function fitNull(readings: readonly AxisReading[]): NullFit {
  for (const { axisDeg, levelDbm } of readings) {
    requireRange(axisDeg, 'Direction (degrees)', -720, 720);
    requireRange(levelDbm, 'Level (dBm)', -200, 60);
  }
  const places = new Set(readings.map(({ axisDeg }) => Math.round(axialDeg(axisDeg) * 10)));
  if (places.size < LEAST_READINGS)
    throw new ShapeError(
      `A null needs readings in ${LEAST_READINGS} directions at least; here are ${places.size}. Turn on, in steps of 15° or so.`,
    );
  const cost = (p: Parameters): number =>
    readings.reduce((sum, { axisDeg, levelDbm }) => sum + Math.min(16, Math.abs(levelDbm - modelDb(p, axisDeg))), 0);
  let best = startAt(readings, 0);
  for (let axis = 0; axis < 180; axis += 2) {
    const start = startAt(readings, axis);
    for (const floor of [start.floor, start.floor - 10 / DB_PER_NEPER]) {
      const tried = { ...start, floor };
      if (cost(tried) < cost(best)) best = tried;
    }
  }
  const expected = (Math.min(...readings.map(({ levelDbm }) => levelDbm)) - UNDER_LOWEST_DB) / DB_PER_NEPER;
  const p = fitted(readings, best, expected, (one) =>
    scaleOf(readings.map(({ axisDeg, levelDbm }) => levelDbm - modelDb(one, axisDeg))),
  );
  return toldOf(readings, p, expected);
}

/** Residuals of the readings with Huber's weights, and the slopes of the level there. */
const weighted = (readings: readonly AxisReading[], one: Parameters, scale: number) =>
  readings.map(({ axisDeg, levelDbm }) => {
    const off = levelDbm - modelDb(one, axisDeg);
    const weight = Math.abs(off) <= HUBER * scale ? 1 : (HUBER * scale) / Math.abs(off);
    return { off, weight, slopes: slopesOf(one, axisDeg) };
  });

/** How strongly the floor is held to what is expected under the lowest reading. */
const floorPrior = (scale: number): number => (scale * DB_PER_NEPER) ** 2 / FLOOR_PRIOR_DB ** 2;

/** What is minimised: squares up to Huber's limit, straight beyond, and the floor's pull. */
const lossOf = (readings: readonly AxisReading[], one: Parameters, scale: number, expected: number): number =>
  weighted(readings, one, scale).reduce(
    (sum, { off }) =>
      sum + (Math.abs(off) <= HUBER * scale ? off * off : 2 * HUBER * scale * Math.abs(off) - (HUBER * scale) ** 2),
    floorPrior(scale) * (one.floor - expected) ** 2,
  );

/** Least loss from a start by damped steps; with `held` the axis stays where it is. */
function fitted(
  readings: readonly AxisReading[],
  start: Parameters,
  expected: number,
  scaleAt: (one: Parameters) => number,
  held = false,
): Parameters {
  let p = start;
  let damping = 1e-3;
  for (let round = 0; round < ROUNDS; round += 1) {
    const scale = scaleAt(p);
    const rows = weighted(readings, p, scale);
    const free = held ? [1, 2] : [0, 1, 2];
    const prior = floorPrior(scale);
    const normal = free.map((i) =>
      free.map((j) => rows.reduce((sum, { weight, slopes }) => sum + weight * slopes[i] * slopes[j], 0)),
    );
    const right = free.map((i) => rows.reduce((sum, { weight, slopes, off }) => sum + weight * slopes[i] * off, 0));
    normal[normal.length - 1][normal.length - 1] += prior;
    right[right.length - 1] += prior * (expected - p.floor);
    // where a turn tells nothing of the lobe or the floor, that one stays
    const ridge = 1e-9 * (1 + Math.max(...normal.map((row, i) => row[i])));
    const solved = solveLinear(
      normal.map((row, i) => row.map((value, j) => value + (i === j ? damping * value + ridge : 0))),
      right,
    );
    const step = held ? [0, ...solved] : solved;
    const next = {
      axis: p.axis + Math.max(-15, Math.min(15, step[0])),
      lobe: p.lobe + Math.max(-2, Math.min(2, step[1])),
      floor: p.floor + Math.max(-2, Math.min(2, step[2])),
    };
    if (lossOf(readings, next, scale, expected) <= lossOf(readings, p, scale, expected)) {
      const moved = Math.max(
        Math.abs(next.axis - p.axis),
        Math.abs(next.lobe - p.lobe),
        Math.abs(next.floor - p.floor),
      );
      p = next;
      damping = Math.max(1e-9, damping / 5);
      if (moved < (held ? 1e-4 : 1e-7) && round > (held ? 0 : 3)) break;
    } else damping *= 8;
  }
  return p;
}

/**
 * How far the axis can be turned until the loss, lobe and floor fitted anew, has risen by so much: the mean of both sides, degrees. The level is no
 * straight line in the axis, so an interval by its slope alone is too narrow beside a shallow null.
 * Source: profile likelihood, Venzon & Moolgavkar, Applied Statistics 37 (1988) 87.
 */
function profiledHalf(
  readings: readonly AxisReading[],
  p: Parameters,
  {
    scale,
    expected,
    rise,
    firstDeg,
  }: { readonly scale: number; readonly expected: number; readonly rise: number; readonly firstDeg: number },
): number {
  const limit = lossOf(readings, p, scale, expected) + rise;
  const beyond = (start: Parameters, offDeg: number) => {
    const there = fitted(readings, { ...start, axis: p.axis + offDeg }, expected, () => scale, true);
    return { there, over: lossOf(readings, there, scale, expected) > limit };
  };
  const reach = (sign: 1 | -1): number => {
    let [inside, outside] = [0, Math.min(90, Math.max(0.01, firstDeg))];
    let from = p;
    for (let now = beyond(from, sign * outside); !now.over; now = beyond(from, sign * outside)) {
      if (outside >= 90) return 90;
      from = now.there;
      inside = outside;
      outside = Math.min(90, 1.6 * outside);
    }
    for (let i = 0; i < 6; i += 1) {
      const middle = (inside + outside) / 2;
      const now = beyond(from, sign * middle);
      if (now.over) outside = middle;
      else {
        inside = middle;
        from = now.there;
      }
    }
    return (inside + outside) / 2;
  };
  return (reach(1) + reach(-1)) / 2;
}

function toldOf(readings: readonly AxisReading[], p: Parameters, expected: number): NullFit {
  const residuals = readings.map(({ axisDeg, levelDbm }) => levelDbm - modelDb(p, axisDeg));
  const scale = scaleOf(residuals);
  const rows = weighted(readings, p, scale);
  const n = readings.length;
  // variance of Huber's estimate: squares of the limited residuals over the share that is not limited
  const limited = rows.reduce((sum, { off, weight }) => sum + (weight * off) ** 2, 0);
  const inside = rows.filter(({ weight }) => weight === 1).length / n;
  const freedom = Math.max(1, n - 3);
  // for few readings a little more. Source: Huber & Ronchetti, Robust Statistics (2009) sec. 7.6
  const few = 1 + (3 / n) * ((1 - inside) / inside);
  const variance = Math.max(LEAST_SCATTER_DB ** 2, (few ** 2 * limited) / freedom / inside ** 2);
  const information = [0, 1, 2].map((i) =>
    [0, 1, 2].map((j) => rows.reduce((sum, { slopes }) => sum + slopes[i] * slopes[j], 0)),
  );
  information[2][2] += floorPrior(scale);
  let share: number;
  try {
    [share] = solveLinear(information, [1, 0, 0]);
  } catch {
    throw new ShapeError(
      'These readings do not decide a null: they are all alike. Turn the antenna farther, or go nearer.',
    );
  }
  const sigma = Math.sqrt(Math.max(0, share) * variance);
  const t = studentQuantile(0.975, freedom);
  const halfDeg = profiledHalf(readings, p, {
    ...{ scale, expected, firstDeg: t * sigma },
    rise: inside * t * t * variance,
  });
  const [lobe, floor] = [Math.exp(p.lobe), Math.exp(p.floor)];
  const axisDeg = ((p.axis % 180) + 180) % 180;
  const lowest = readings.reduce((least, one) => (one.levelDbm < least.levelDbm ? one : least));
  // the level turns fastest where lobe and floor are equal
  const steepest = Math.min(45, Math.asin(Math.min(1, Math.sqrt(floor / lobe))) / RAD);
  const gained = slopesOf(p, p.axis + steepest)[0] ** 2;
  const wrapped = (deg: number): number => ((deg % 180) + 180) % 180;
  return {
    ...{ axisDeg, halfDeg, maximumDbm: powerDb(lobe + floor), floorDbm: powerDb(floor) },
    depthDb: powerDb((lobe + floor) / floor),
    residualsDb: residuals,
    scatterDb: Math.sqrt(variance),
    doubtful: residuals.flatMap((off, i) => (Math.abs(off) > DOUBTFUL * scale ? [i] : [])),
    lowestDeg: lowest.axisDeg,
    lowestOffDeg: Math.abs(axialDeg(lowest.axisDeg - axisDeg)),
    at: (deg) => modelDb(p, deg),
    halving: {
      // a quarter of the variance: three times the information that is there
      readings: Math.max(1, Math.ceil(3 / Math.max(1e-12, share) / Math.max(1e-12, gained))),
      atDeg: [wrapped(axisDeg - steepest), wrapped(axisDeg + steepest)],
    },
  };
}

/** The silent sector's middle, where the source vanishes in the noise between two edges. */
export function silentMiddle(fromDeg: number, toDeg: number): { readonly axisDeg: number; readonly widthDeg: number } {
  requireRange(fromDeg, 'First edge (degrees)', -720, 720);
  requireRange(toDeg, 'Second edge (degrees)', -720, 720);
  const width = (((toDeg - fromDeg) % 180) + 180) % 180;
  if (width === 0)
    throw new ShapeError('Both edges are the same direction. Turn from one edge of the silence to the other.');
  return { axisDeg: (((fromDeg + width / 2) % 180) + 180) % 180, widthDeg: width };
}

/** Which end of an axis: a second turn with the sense antenna is louder on the side that it favours. */
export function senseOf(
  axisDeg: number,
  readings: readonly AxisReading[],
): { readonly bearingDeg: number; readonly againstDb: number } | undefined {
  if (readings.length < 3) return undefined;
  // cardioid in amplitude: cos of the turn from the bearing, against the mean
  const toward = readings.reduce(
    (sum, { axisDeg: deg, levelDbm }) => sum + levelDbm * Math.cos((deg - axisDeg) * RAD),
    0,
  );
  const squares = readings.reduce((sum, { axisDeg: deg }) => sum + Math.cos((deg - axisDeg) * RAD) ** 2, 0);
  const mean = readings.reduce((sum, { levelDbm }) => sum + levelDbm, 0) / readings.length;
  const balance = readings.reduce((sum, { axisDeg: deg }) => sum + Math.cos((deg - axisDeg) * RAD), 0);
  const slope = (toward - mean * balance) / Math.max(1e-9, squares - balance ** 2 / readings.length);
  return { bearingDeg: (((slope >= 0 ? axisDeg : axisDeg + 180) % 360) + 360) % 360, againstDb: 2 * Math.abs(slope) };
}
