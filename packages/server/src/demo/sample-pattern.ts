import { type Design, wireModel } from '@velvet-reed/core/antenna';
import { gainRatio, meshOf, solveAt } from '@velvet-reed/core/solver';
import { repeatableNoise } from './sample-noise';

const STEP_DEG = 10;
/** The place it was turned in: a wall, a sender that drifts, a mark that was set by eye, the scatter of a reading. Made up. */
const WALL = { db: -22, fromDeg: 130, phaseDeg: 70 };
const DRIFT_DB = 0.6;
const OFF_MARK_DEG = 4;
const SCATTER_DB = 0.25;
/** Level of the strongest direction, dBm. */
const FORWARD_DBM = -38;

/** An antenna as a turntable would have measured it at the horizon, once round and back to the first direction. @returns CSV of angle and level. */
export function turnedPattern(design: Design): string {
  const noise = repeatableNoise(1375);
  const model = wireModel(design, { type: 'free' });
  const solution = solveAt(model, meshOf(model, design.freqHz), design.freqHz);
  const gain = gainRatio(solution);
  // the solver counts azimuth from +x toward +y; a compass card runs the other way round
  const at = (deg: number): number => gain(-deg, 0);
  const angles = Array.from({ length: 360 / STEP_DEG + 1 }, (_, i) => STEP_DEG * i);
  const most = Math.max(...angles.map(at));
  const rows = angles.map((angleDeg, i) => {
    const direct = at(angleDeg - OFF_MARK_DEG) / most;
    const ray = (10 ** (WALL.db / 10) * at(angleDeg - OFF_MARK_DEG + WALL.fromDeg)) / most;
    const sum = direct + ray + 2 * Math.sqrt(direct * ray) * Math.cos((WALL.phaseDeg * Math.PI) / 180);
    const drift = (DRIFT_DB * i) / (angles.length - 1);
    return `${angleDeg},${(FORWARD_DBM + 10 * Math.log10(Math.max(1e-6, sum)) + drift + SCATTER_DB * noise()).toFixed(2)}`;
  });
  return ['azimuth_deg,level_dB', ...rows].join('\n');
}
