import { SPEED_OF_LIGHT_M_PER_S, VACUUM_PERMITTIVITY_F_PER_M } from '../units/constants';
import type { Ground } from './model';
import { sommerfeldIntegrals, type HalfSpace } from './sommerfeld';

// named once: hot loops must not look them up on a global
const { asin, atan2, ceil, cos, exp, floor, hypot, log, max, min, sin, sqrt } = Math;

/** Ground with a loss and a permittivity. */
export type RealGround = Extract<Ground, { type: 'real' }>;

/** Places that a table must serve, metres: distances from images, and sums of the heights of both ends. */
export interface TableRange {
  readonly leastM: number;
  readonly mostM: number;
  readonly leastHeightM: number;
  readonly mostHeightM: number;
}

/** R·S·e^{jkR} over log R and the angle of the image (as seen from the place), smooth enough for cubic interpolation. */
export interface GroundTable {
  /** Equal for tables in which equal places read equal values. */
  readonly origin: string;
  readonly waveNumber: number;
  readonly logLeast: number;
  readonly logStep: number;
  readonly rows: number;
  readonly angleLeast: number;
  readonly angleStep: number;
  readonly columns: number;
  /** rows × columns × 8 (S₁..S₄, re and im); NaN where no place of the range looks. */
  readonly values: Float64Array;
}

/** Tables have their cells at the same distances (e^{0.16 i} m, or twice as many) and angles: what one antenna needed serves the next. */
const LOG_STEP = 0.16;
const FINE_LOG_STEP = 0.08;
/** A step that the waves in air and ground part by so much, radians, is too long while the wave in the ground has this much of its strength left. */
const STEP_RAD = 0.7;
const STILL_STRONG = 0.3;
const COLUMNS = 21;
const ANGLE_LEAST = 0.004;
const ANGLE_STEP = (1 - ANGLE_LEAST) / (COLUMNS - 1);
/** S₁..S₄, re and im. */
const PER_CELL = 8;
/** Grounds at frequencies whose cells are kept; one takes up to 70 kB. */
const MOST_KEPT = 150;

/** Angles are spaced by their square root: near grazing the lateral wave makes everything change faster. */
const toAngle = (v: number): number => (Math.PI / 2) * v * v;
const fromAngle = (angle: number): number => sqrt(max(0, angle) / (Math.PI / 2));

/** Relative complex permittivity of real ground at a frequency. */
export function groundPermittivity({ relPermittivity, conductivitySPerM }: RealGround, freqHz: number): HalfSpace {
  return { re: relPermittivity, im: -conductivitySPerM / (2 * Math.PI * freqHz * VACUUM_PERMITTIVITY_F_PER_M) };
}

/** What is known of a ground at a frequency: rows of cells by their number, NaN where a cell was not needed yet. */
interface Cells {
  readonly rows: Map<number, Float64Array>;
  /** Planned when the first cell is computed. */
  integrals?: ReturnType<typeof sommerfeldIntegrals>;
  /** Cells were computed since they were last handed out. */
  fresh: boolean;
}
const kept = new Map<string, Cells>();

/** Cells of a ground at a frequency as somebody keeps them for the next time: rows of distances by their number, NaN where nothing is known. */
export interface KeptCells {
  /** Ground, frequency and step: what they are the same for. */
  readonly key: string;
  readonly rows: ReadonlyMap<number, Float64Array>;
}

/** What all keys of a ground begin with. */
export const groundKey = ({ relPermittivity, conductivitySPerM }: RealGround): string =>
  `${relPermittivity} ${conductivitySPerM} `;

/** Takes in cells that were kept or computed elsewhere; what is known here already stays, and what does not fit these tables is left. */
export function takeCells({ key, rows }: KeptCells): void {
  const { rows: own } = cellsOf(key);
  for (const [row, cells] of rows) {
    if (cells.length !== COLUMNS * PER_CELL) continue;
    const known = own.get(row);
    if (!known) own.set(row, cells);
    else for (let at = 0; at < cells.length; at += 1) if (Number.isNaN(known[at])) known[at] = cells[at];
  }
}

/** Cells that were computed since the last call, to be kept. */
export function freshCells(): readonly KeptCells[] {
  return [...kept].flatMap(([key, cells]) => {
    if (!cells.fresh) return [];
    cells.fresh = false;
    return [{ key, rows: cells.rows }];
  });
}

const cellsKey = (ground: RealGround, freqHz: number, logStep: number): string =>
  `${groundKey(ground)}${freqHz} ${logStep}`;

function cellsOf(key: string): Cells {
  const cells = kept.get(key) ?? { rows: new Map<number, Float64Array>(), fresh: false };
  // the one used last goes last
  kept.delete(key);
  kept.set(key, cells);
  const [oldest] = kept.keys();
  if (kept.size > MOST_KEPT && oldest !== undefined) kept.delete(oldest);
  return cells;
}

/** Number of the first row of a table, and how many there are. */
function rowsOf({ leastM, mostM }: TableRange, logStep: number): { readonly firstRow: number; readonly rows: number } {
  const firstRow = floor(log(leastM) / logStep - 1e-9) - 1;
  return { firstRow, rows: max(4, ceil(log(mostM) / logStep + 1e-9) + 2 - firstRow) };
}

/** First and last column that interpolation at places of a range reads in a row: a place reads the row before its own and two after. */
function columnsOf({ leastHeightM, mostHeightM }: TableRange, row: number, logStep: number): readonly [number, number] {
  const [nearM, farM] = [exp((row - 2) * logStep), exp((row + 2) * logStep)];
  const place = (heightM: number, distanceM: number): number =>
    (fromAngle(asin(min(1, heightM / distanceM))) - ANGLE_LEAST) / ANGLE_STEP;
  const first = floor(place(leastHeightM * (1 - 1e-9), farM)) - 1;
  const last = floor(place(mostHeightM * (1 + 1e-9), nearM)) + 2;
  return [max(0, min(first, COLUMNS - 4)), min(COLUMNS - 1, max(last, 3))];
}

/** Whether a table can be had without computing. */
export function isGroundKnown(ground: RealGround, freqHz: number, range: TableRange, logStep: number): boolean {
  const cells = kept.get(cellsKey(ground, freqHz, logStep));
  const { firstRow, rows } = rowsOf(range, logStep);
  for (let row = firstRow; row < firstRow + rows; row += 1) {
    const known = cells?.rows.get(row);
    if (!known) return false;
    const [first, last] = columnsOf(range, row, logStep);
    for (let column = first; column <= last; column += 1) if (Number.isNaN(known[column * PER_CELL])) return false;
  }
  return true;
}

/**
 * Step of the distances that a range asks for: along low wires over ground with little loss the wave in the ground beats with the one in the air, and
 * a table must follow that.
 */
export function logStepFor(ground: RealGround, freqHz: number, { leastHeightM, mostM }: TableRange): number {
  const { re, im } = groundPermittivity(ground, freqHz);
  const size = hypot(re, im);
  const waveNumber = (2 * Math.PI * freqHz) / SPEED_OF_LIGHT_M_PER_S;
  // √ε of the ground's wave: how fast both part, and how fast it dies out, per metre
  const beat = waveNumber * max(1e-9, sqrt((size + re) / 2) - 1);
  const fading = waveNumber * sqrt((size - re) / 2);
  const reachM = STEP_RAD / (LOG_STEP * beat);
  const matters = mostM > reachM && leastHeightM * beat < 1 && exp(-fading * reachM) > STILL_STRONG;
  return matters ? FINE_LOG_STEP : LOG_STEP;
}

/**
 * Ground integrals for places of a range at one frequency. Cells are computed when first needed and kept, and are the same whoever asks: tables of
 * other antennas over the same ground share them, and a dimension that is dragged needs few new ones.
 */
export function groundTable(
  ground: RealGround,
  freqHz: number,
  range: TableRange,
  logStep = logStepFor(ground, freqHz, range),
): GroundTable {
  const waveNumber = (2 * Math.PI * freqHz) / SPEED_OF_LIGHT_M_PER_S;
  const origin = cellsKey(ground, freqHz, logStep);
  const cells = cellsOf(origin);
  const { firstRow, rows } = rowsOf(range, logStep);
  const values = new Float64Array(rows * COLUMNS * PER_CELL).fill(NaN);
  const s = new Float64Array(PER_CELL);
  for (let row = 0; row < rows; row += 1) {
    let known = cells.rows.get(firstRow + row);
    if (!known) cells.rows.set(firstRow + row, (known = new Float64Array(COLUMNS * PER_CELL).fill(NaN)));
    const [first, last] = columnsOf(range, firstRow + row, logStep);
    const r = waveNumber * exp((firstRow + row) * logStep);
    const cr = cos(r);
    const ci = sin(r);
    for (let column = first; column <= last; column += 1) {
      const at = column * PER_CELL;
      if (!Number.isNaN(known[at])) continue;
      const angle = toAngle(ANGLE_LEAST + column * ANGLE_STEP);
      cells.integrals ??= sommerfeldIntegrals(groundPermittivity(ground, freqHz));
      cells.fresh = true;
      cells.integrals(s, r * cos(angle), r * sin(angle));
      for (let k = 0; k < PER_CELL; k += 2) {
        known[at + k] = r * (s[k] * cr - s[k + 1] * ci);
        known[at + k + 1] = r * (s[k] * ci + s[k + 1] * cr);
      }
    }
    values
      .subarray((row * COLUMNS + first) * PER_CELL, (row * COLUMNS + last + 1) * PER_CELL)
      .set(known.subarray(first * PER_CELL, (last + 1) * PER_CELL));
  }
  return {
    ...{ origin, waveNumber, logLeast: firstRow * logStep, logStep, rows },
    ...{ angleLeast: ANGLE_LEAST, angleStep: ANGLE_STEP, columns: COLUMNS, values },
  };
}

/** Weights of cubic Lagrange interpolation at x in −1..2 on the points −1, 0, 1, 2. */
function cubicInto(w: Float64Array, x: number): void {
  w[0] = (-x * (x - 1) * (x - 2)) / 6;
  w[1] = ((x + 1) * (x - 1) * (x - 2)) / 2;
  w[2] = (-x * (x + 1) * (x - 2)) / 2;
  w[3] = (x * (x + 1) * (x - 1)) / 6;
}

/** The returned function writes S₁..S₄ in 1/m (re, im) at horizontal distance ρ and height sum h (metres) into out[0..7]. */
export function tableReader(table: GroundTable): (out: Float64Array, rhoM: number, hM: number) => void {
  const rowWeights = new Float64Array(4);
  const columnWeights = new Float64Array(4);
  return (out, rhoM, hM) => {
    const r = hypot(rhoM, hM);
    const y = (log(r) - table.logLeast) / table.logStep;
    const row = min(table.rows - 3, max(1, floor(y)));
    cubicInto(rowWeights, y - row);
    const x = (fromAngle(atan2(hM, rhoM)) - table.angleLeast) / table.angleStep;
    const column = min(table.columns - 3, max(1, floor(x)));
    cubicInto(columnWeights, x - column);
    let a0 = 0;
    let a1 = 0;
    let a2 = 0;
    let a3 = 0;
    let a4 = 0;
    let a5 = 0;
    let a6 = 0;
    let a7 = 0;
    const { values, columns } = table;
    for (let i = 0; i < 4; i += 1) {
      let at = ((row - 1 + i) * columns + column - 1) * 8;
      for (let j = 0; j < 4; j += 1, at += 8) {
        const w = rowWeights[i] * columnWeights[j];
        a0 += w * values[at];
        a1 += w * values[at + 1];
        a2 += w * values[at + 2];
        a3 += w * values[at + 3];
        a4 += w * values[at + 4];
        a5 += w * values[at + 5];
        a6 += w * values[at + 6];
        a7 += w * values[at + 7];
      }
    }
    const cr = cos(table.waveNumber * r) / r;
    const ci = -sin(table.waveNumber * r) / r;
    out[0] = a0 * cr - a1 * ci;
    out[1] = a0 * ci + a1 * cr;
    out[2] = a2 * cr - a3 * ci;
    out[3] = a2 * ci + a3 * cr;
    out[4] = a4 * cr - a5 * ci;
    out[5] = a4 * ci + a5 * cr;
    out[6] = a6 * cr - a7 * ci;
    out[7] = a6 * ci + a7 * cr;
  };
}
