import { sommerfeldIntegrals, type HalfSpace } from './sommerfeld';

// named once: hot loops must not look them up on a global
const { atan2, ceil, cos, exp, floor, hypot, log, max, min, sin, sqrt } = Math;

/** Range of places that a table must cover, metres. */
export interface TableRange {
  readonly leastM: number;
  readonly mostM: number;
  /** Elevation of the image as seen from the place, radians: atan(h/ρ). */
  readonly lowestRad: number;
  readonly highestRad: number;
  /** All wires lie level: the terms of vertical wires are not needed. */
  readonly level: boolean;
}

/** R·S·e^{jkR} over log R and the angle, smooth enough for cubic interpolation. */
export interface GroundTable {
  readonly waveNumber: number;
  readonly logLeast: number;
  readonly logStep: number;
  readonly rows: number;
  readonly angleLeast: number;
  readonly angleStep: number;
  readonly columns: number;
  readonly level: boolean;
  /** rows × columns × 8 (S₁..S₄, re and im). */
  readonly values: Float64Array;
}

const LOG_STEP = 0.16;
const ANGLE_STEP = 0.05;

/** Angles are spaced by their square root: near grazing the lateral wave makes everything change faster. */
const toAngle = (v: number): number => (Math.PI / 2) * v * v;
const fromAngle = (angle: number): number => sqrt(max(0, angle) / (Math.PI / 2));

/** Grid that covers a range with a margin of interpolation points; the same grid serves every frequency of a sweep. */
export function tableGrid(range: TableRange): Omit<GroundTable, 'waveNumber' | 'values'> {
  const logLeast = log(range.leastM) - 1.5 * LOG_STEP;
  const rows = max(4, ceil((log(range.mostM) - logLeast) / LOG_STEP) + 3);
  const low = max(0.004, fromAngle(range.lowestRad) - 1.5 * ANGLE_STEP);
  const high = min(1, fromAngle(range.highestRad) + 1.5 * ANGLE_STEP);
  const columns = max(4, ceil((high - low) / ANGLE_STEP) + 1);
  return {
    logLeast,
    logStep: LOG_STEP,
    rows,
    angleLeast: low,
    angleStep: (high - low) / (columns - 1),
    columns,
    level: range.level,
  };
}

export function groundTable(ground: HalfSpace, waveNumber: number, grid: ReturnType<typeof tableGrid>): GroundTable {
  const integrals = sommerfeldIntegrals(ground, grid);
  const values = new Float64Array(grid.rows * grid.columns * 8);
  const s = new Float64Array(8);
  for (let row = 0, at = 0; row < grid.rows; row += 1) {
    const r = waveNumber * exp(grid.logLeast + row * grid.logStep);
    const cr = r * cos(r);
    const ci = r * sin(r);
    for (let column = 0; column < grid.columns; column += 1, at += 8) {
      const angle = toAngle(grid.angleLeast + column * grid.angleStep);
      integrals(s, r * cos(angle), r * sin(angle));
      for (let k = 0; k < 8; k += 2) {
        values[at + k] = s[k] * cr - s[k + 1] * ci;
        values[at + k + 1] = s[k] * ci + s[k + 1] * cr;
      }
    }
  }
  return { waveNumber, ...grid, values };
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
