import { findPeak, gainRatio, meshOf, solveAt, type WireModel } from '@velvet-reed/core/solver';
import type { Random } from './random';

/** Where the antenna on the turntable is heard: what the place adds, hidden. */
export interface Range {
  /** A wall: its ray against the direct one, dB, from how far round, degrees, and its phase, degrees. */
  readonly wall: { readonly db: number; readonly fromDeg: number; readonly phaseDeg: number };
  /** The sender drifts with every reading, dB. */
  readonly driftDb: number;
  /** Every so many readings the meter drops one. */
  readonly dropsEvery: number;
  /** The table's zero is so far off its mark until it has been home, degrees. */
  readonly offMarkDeg: number;
}

/** Gain over azimuth, clockwise from forward, as a ratio to the largest. */
export type AzimuthGain = (deg: number) => number;

export const drawRange = (random: Random): Range => ({
  wall: { db: random.between(-28, -18), fromDeg: random.between(60, 300), phaseDeg: random.between(0, 360) },
  driftDb: random.between(-0.006, 0.006),
  dropsEvery: Math.round(random.between(23, 61)),
  offMarkDeg: random.between(-60, 60),
});

/** Azimuth pattern of wires at the elevation of their strongest lobe over ground, at the horizon in free space; solved at the first question. */
export function solvedAzimuth(model: WireModel, freqHz: number): AzimuthGain {
  let known: Float64Array | undefined;
  const solve = (): Float64Array => {
    const solution = solveAt(model, meshOf(model, freqHz), freqHz);
    const gain = gainRatio(solution);
    const elevationDeg = model.ground.type === 'free' ? 0 : findPeak(solution).elevationDeg;
    // the solver counts azimuth from +x toward +y; a compass card runs the other way round
    const all = Float64Array.from({ length: 360 }, (_, deg) => gain(-deg, elevationDeg));
    const most = all.reduce((a, b) => Math.max(a, b), 1e-12);
    return all.map((one) => one / most);
  };
  return (deg) => {
    known ??= solve();
    const at = ((deg % 360) + 360) % 360;
    const low = Math.floor(at);
    return known[low % 360] + (at - low) * (known[(low + 1) % 360] - known[low % 360]);
  };
}

/** A beam broad in front, before anybody put an antenna of their own on the table: a cardioid with a dent. */
export const startAzimuth: AzimuthGain = (deg) => (0.52 + 0.48 * Math.cos((deg * Math.PI) / 180)) ** 2;

/** Power that arrives with a sender in front and a wall beside, against the antenna's largest gain alone; amplitudes add with the wall's phase. */
export function arriving(azimuth: AzimuthGain, { wall }: Range, facingDeg: number): number {
  // a table turned clockwise by ψ shows the antenna's own azimuth −ψ to the sender
  const direct = azimuth(-facingDeg);
  const ray = 10 ** (wall.db / 10) * azimuth(wall.fromDeg - facingDeg);
  return Math.max(1e-9, direct + ray + 2 * Math.sqrt(direct * ray) * Math.cos((wall.phaseDeg * Math.PI) / 180));
}

/** Level broadside at 30 m from the source, dBm; what a null of a good loop leaves, dB. */
const BROADSIDE_DBM = -58;
const NEAR_M = 30;
const LOOP_FLOOR_DB = -29;

/** What a loop hears of a source, dBm: its null lies where the table points, it falls with the square of the distance. */
export function loopDbm(eastM: number, northM: number, tableDeg: number): number {
  const off = Math.atan2(eastM, northM) - (tableDeg * Math.PI) / 180;
  const share = Math.sin(off) ** 2 + 10 ** (LOOP_FLOOR_DB / 10);
  return BROADSIDE_DBM - 20 * Math.log10(Math.max(1, Math.hypot(eastM, northM)) / NEAR_M) + 10 * Math.log10(share);
}
