import type { Saved } from '@velvet-reed/contract';
import {
  type AxisReading,
  type BearingFix,
  fitNull,
  type BearingLine,
  insideRegion95,
  judgedFix,
  nextPlace,
  region95,
  type NullFit,
  senseOf,
} from '@velvet-reed/core/bearing';
import { CoreError } from '@velvet-reed/core/errors';
import type { StationData } from './record';

type NullLog = Saved<'nullLogs'>;
const KM = 1000;

/** A turn with what it says; or why it says nothing. */
export interface JudgedTurn {
  readonly log: NullLog;
  readonly readings: readonly AxisReading[];
  readonly fit?: NullFit;
  /** The end of the axis that the sense antenna favours, degrees. */
  readonly bearingDeg?: number;
  readonly fault?: string;
}

/** Directions of the null, true: declination added, a plane turned by a quarter. */
const truly = ({ declinationDeg, meaning }: NullLog, pairs: NullLog['readings']): readonly AxisReading[] =>
  pairs.map(([deg, levelDbm]) => ({ axisDeg: deg + declinationDeg + (meaning === 'plane' ? 90 : 0), levelDbm }));

function judgedTurn(log: NullLog): JudgedTurn {
  const readings = truly(log, log.readings);
  try {
    const fit = fitNull(readings);
    const sense = senseOf(fit.axisDeg, truly(log, log.sense));
    return { log, readings, fit, ...(sense ? { bearingDeg: sense.bearingDeg } : {}) };
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    return { log, readings, fault: error.message };
  }
}

/** All turns, and the place that they point to. */
export interface JudgedDirection {
  readonly turns: readonly JudgedTurn[];
  readonly fix?: {
    readonly found: BearingFix;
    readonly xM: number;
    readonly yM: number;
    readonly semiMajorM: number;
    readonly semiMinorM: number;
    /** Corners of the region that holds it in 95 % of such turns, m. */
    readonly regionM: readonly (readonly [number, number])[];
    readonly lines: readonly BearingLine[];
    readonly axial: boolean;
    /** Turns that fit as well with null and plane exchanged. */
    readonly doubtful: readonly string[];
    /** The turn that does not fit, and what was done about it. */
    readonly culprit?: { readonly name: string; readonly how: 'back to front' | 'left out' };
    readonly consistent: boolean;
    readonly next?: { readonly xM: number; readonly yM: number; readonly semiMajorM: number };
  };
  readonly fault?: string;
}

/** Places on rings about the turns that could be walked to, m. */
const RINGS_M = [20, 40, 80];
const DIRECTIONS = 24;
/** Nearer to the source a bearing says little of what it is, m. */
const LEAST_M = 10;

export function judgedDirection(logs: readonly NullLog[]): JudgedDirection {
  const turns = logs.map(judgedTurn);
  const known = turns.flatMap((turn) => (turn.fit ? [{ ...turn, fit: turn.fit }] : []));
  if (known.length < 2) return { turns };
  const sensed = known.every(({ bearingDeg }) => bearingDeg !== undefined);
  const lines = known.map(({ log, fit, bearingDeg }) => ({
    ...{ eastKm: log.xM / KM, northKm: log.yM / KM, bearingDeg: (sensed ? bearingDeg : undefined) ?? fit.axisDeg },
    // 1 sigma: the error of a direction, and what the fit leaves
    sigmaDeg: Math.hypot(log.sigmaDeg, fit.halfDeg / 2),
  }));
  try {
    const { fix, culprit, consistent, lines: used, doubtfulAxes } = judgedFix(lines, !sensed);
    const places = known.flatMap(({ log }) =>
      RINGS_M.flatMap((radius) =>
        Array.from({ length: DIRECTIONS }, (_, i) => ({
          eastKm: (log.xM + radius * Math.sin((2 * Math.PI * i) / DIRECTIONS)) / KM,
          northKm: (log.yM + radius * Math.cos((2 * Math.PI * i) / DIRECTIONS)) / KM,
        })),
      ),
    );
    const next = nextPlace(lines, fix, places, LEAST_M / KM);
    return {
      turns,
      fix: {
        found: fix,
        ...{ xM: fix.eastKm * KM, yM: fix.northKm * KM },
        ...{ semiMajorM: fix.semiMajorKm * KM, semiMinorM: fix.semiMinorKm * KM },
        ...{ consistent, lines: used, axial: !sensed },
        regionM: region95(used, !sensed, fix).map(([east, north]) => [east * KM, north * KM] as const),
        doubtful: doubtfulAxes.map((index) => known[index].log.name),
        ...(culprit ? { culprit: { name: known[culprit.index].log.name, how: culprit.how } } : {}),
        ...(next ? { next: { xM: next.eastKm * KM, yM: next.northKm * KM, semiMajorM: next.semiMajorKm * KM } } : {}),
      },
    };
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    return { turns, fault: error.message };
  }
}

/** Noise sources of the plan that lie inside the region of 95 %. */
export function suspectsIn(data: StationData, fix: NonNullable<JudgedDirection['fix']>): readonly string[] {
  return data.plotFeatures
    .filter(({ kind, points }) => kind === 'noise' && points.length > 0)
    .filter(({ points: [[x, y]] }) => insideRegion95(fix.lines, fix.axial, fix.found, [x / KM, y / KM]))
    .map(({ name }) => name);
}
