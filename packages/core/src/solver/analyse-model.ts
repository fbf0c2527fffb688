import type { Complex } from '../numeric/complex';
import { USUAL_ARRIVAL_DEG } from '../site/arrival';
import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { powerDb } from '../units/decibel';
import { segmentCurrents } from './current-elements';
import { elevationStepDeg, extentM, findPeak, gainRatio, lostShare, radiatedShare, type Peak } from './far-field';
import { entryFitBytes } from './entry-fit';
import type { GroundNeed } from './ground-span';
import { keptBlocks } from './kept-blocks';
import { meshOf } from './mesh';
import { sweepModel, type ModelSweep, type Progress } from './model-sweep';
import type { Point, WireModel } from './model';
import { settle, sweepDensity } from './settle';
import { fillWith, inputImpedance, solveAt, solveBytes, type Solution } from './solve';

/** A cut through a pattern: angles in degrees, gains in dBi (−99 where nothing goes). */
interface PatternCut {
  readonly angleDeg: readonly number[];
  readonly gainDbi: readonly number[];
}

/** One stretch of wire with the size of the current on it, for drawing; 1 is the largest. */
export interface CurrentStretch {
  readonly from: Point;
  readonly to: Point;
  readonly current: number;
}

/** Everything about one frequency that a person looks at. */
export interface SpotAnalysis {
  readonly freqHz: number;
  readonly impedance: Complex;
  readonly peak: Peak;
  /** Gain of the peak's direction over the opposite one at the same elevation, dB. */
  readonly frontToBackDb: number;
  /** Gain of the peak's direction over the larger one at right angles, dB. */
  readonly frontToSideDb: number;
  /** Not lost in conductors and loads. */
  readonly efficiency: number;
  /** Receiving directivity factor: gain of the peak over the average in all directions (none from below ground), dB. */
  readonly receivingDirectivityDb: number;
  /** Power in the far field over power accepted: below 1 by conductor and ground loss. */
  readonly radiated: number;
  /**
   * Average-gain test: far-field power over power that is accounted for; 1 is perfect, within 0.05 good. Absent over real ground, where the
   * ground takes an unknown share.
   */
  readonly averageGain?: number;
  /** Along the peak's azimuth: elevation 0..180° over ground (90° is the zenith), −180..180° in free space. */
  readonly elevation: PatternCut;
  /** At the peak's elevation, azimuth 0..360°, clockwise from forward as seen from above. */
  readonly azimuth: PatternCut;
  /** The same at the elevation at which wanted waves arrive. */
  readonly azimuthAtArrival: PatternCut;
  /** Width of the main lobe in azimuth, 3 dB down on either side, degrees; absent where it never falls that far. */
  readonly azimuthWidthDeg?: number;
  /** Step of the search for lobes, degrees, and the spacing of lobes over ground at this height. */
  readonly stepDeg: number;
  readonly lobeSpacingDeg?: number;
  /** What a search in steps of 5° would have called the largest gain, dBi. */
  readonly coarseGainDbi: number;
  readonly stretches: readonly CurrentStretch[];
  readonly segments: number;
  readonly remarks: readonly string[];
}

export const FLOOR_DBI = -99;
const dbi = (ratio: number): number => (ratio > 1e-9 ? powerDb(ratio) : FLOOR_DBI);

/** Two cuts, gains and currents of a solution. */
export function spotAnalysis(solution: Solution, arrivalDeg = USUAL_ARRIVAL_DEG): SpotAnalysis {
  const gain = gainRatio(solution);
  const free = solution.model.ground.type === 'free';
  const peak = findPeak(solution);
  const at = (azimuthDeg: number, elevationDeg: number): number =>
    elevationDeg > 90
      ? gain(azimuthDeg + 180, 180 - elevationDeg)
      : elevationDeg < -90
        ? gain(azimuthDeg + 180, -180 - elevationDeg)
        : gain(azimuthDeg, elevationDeg);
  const step = Math.max(0.1, Math.min(2, elevationStepDeg(solution)));
  const lowest = free ? -180 : 0;
  const count = Math.ceil((180 - lowest) / step);
  const elevations = Array.from({ length: count + 1 }, (_, i) => lowest + ((180 - lowest) * i) / count);
  const azimuths = Array.from({ length: 181 }, (_, i) => 2 * i);
  const [front, back] = [gain(peak.azimuthDeg, peak.elevationDeg), gain(peak.azimuthDeg + 180, peak.elevationDeg)];
  const side = Math.max(gain(peak.azimuthDeg + 90, peak.elevationDeg), gain(peak.azimuthDeg - 90, peak.elevationDeg));
  const half = (direction: number): number | undefined => {
    for (let turn = 0.5; turn <= 180; turn += 0.5)
      if (gain(peak.azimuthDeg + direction * turn, peak.elevationDeg) < front / 2) return turn - 0.25;
    return undefined;
  };
  const [left, right] = [half(-1), half(1)];
  let coarse = front;
  // broad lobes look the same on any grid
  if (elevationStepDeg(solution) < 2.5) coarse = 0;
  for (let e = free ? -90 : 0; coarse < front && e <= 90; e += 5)
    for (let a = 0; a < 360; a += 5) coarse = Math.max(coarse, gain(peak.azimuthDeg + a, e));
  const { meanHeightM } = extentM(solution);
  const spacing = SPEED_OF_LIGHT_M_PER_S / solution.freqHz / (2 * Math.max(meanHeightM, 1e-9));
  const lost = lostShare(solution);
  const radiated = radiatedShare(solution);
  return {
    freqHz: solution.freqHz,
    impedance: inputImpedance(solution),
    peak,
    frontToBackDb: powerDb(front / Math.max(back, front * 1e-6)),
    frontToSideDb: powerDb(front / Math.max(side, front * 1e-6)),
    efficiency: 1 - lost,
    radiated,
    receivingDirectivityDb: peak.gainDbi - powerDb(radiated),
    ...(solution.model.ground.type === 'real' ? {} : { averageGain: radiated / (1 - lost) }),
    elevation: { angleDeg: elevations, gainDbi: elevations.map((e) => dbi(at(peak.azimuthDeg, e))) },
    // the solver counts azimuth from +x toward +y; a compass card runs the other way round
    azimuth: { angleDeg: azimuths, gainDbi: azimuths.map((a) => dbi(gain(-a, peak.elevationDeg))) },
    azimuthAtArrival: { angleDeg: azimuths, gainDbi: azimuths.map((a) => dbi(gain(-a, arrivalDeg))) },
    ...(left !== undefined && right !== undefined ? { azimuthWidthDeg: left + right } : {}),
    stepDeg: elevationStepDeg(solution),
    ...(!free && spacing < 1 ? { lobeSpacingDeg: (Math.asin(spacing) * 180) / Math.PI } : {}),
    coarseGainDbi: dbi(coarse),
    stretches: stretchesOf(solution),
    segments: solution.mesh.segments,
    remarks: solution.mesh.remarks,
  };
}

function stretchesOf(solution: Solution): CurrentStretch[] {
  const { mesh } = solution;
  const ends = segmentCurrents(solution);
  const raw = Array.from({ length: mesh.segments }, (_, i) => {
    const from: Point = [mesh.start[3 * i], mesh.start[3 * i + 1], mesh.start[3 * i + 2]];
    const l = mesh.lengthM[i];
    const to: Point = [
      from[0] + l * mesh.direction[3 * i],
      from[1] + l * mesh.direction[3 * i + 1],
      from[2] + l * mesh.direction[3 * i + 2],
    ];
    const current = Math.hypot((ends[4 * i] + ends[4 * i + 2]) / 2, (ends[4 * i + 1] + ends[4 * i + 3]) / 2);
    return { from, to, current };
  });
  const largest = Math.max(...raw.map((one) => one.current), 1e-30);
  return raw.map((one) => ({ ...one, current: one.current / largest }));
}

/** Gain in every direction, dBi, for a surface: rows by elevation, columns by azimuth (from +x toward +y). */
export interface PatternSurface {
  readonly elevationDeg: readonly number[];
  readonly azimuthDeg: readonly number[];
  readonly gainDbi: Float32Array;
}

export function patternSurface(solution: Solution, rows = 37, columns = 49): PatternSurface {
  const gain = gainRatio(solution);
  const lowest = solution.model.ground.type === 'free' ? -90 : 0;
  const elevationDeg = Array.from({ length: rows }, (_, i) => lowest + ((90 - lowest) * i) / (rows - 1));
  const azimuthDeg = Array.from({ length: columns }, (_, i) => (360 * i) / (columns - 1));
  return {
    elevationDeg,
    azimuthDeg,
    gainDbi: Float32Array.from(elevationDeg.flatMap((e) => azimuthDeg.map((a) => dbi(gain(a, e))))),
  };
}

/** What is asked of a model at once. */
export interface ModelQuestion {
  readonly model: WireModel;
  readonly freqHz: number;
  readonly lowHz: number;
  readonly highHz: number;
  readonly points: number;
  /** Elevation at which wanted waves arrive, degrees; assumed until their distance is known. */
  readonly arrivalDeg: number;
}

/** Answers in the order in which they are ready. */
export type ModelAnswer =
  /** Before anything is solved: how large the model is, and the memory that solving it over a band takes. */
  | { readonly part: 'size'; readonly segments: number; readonly bytes: number }
  | { readonly part: 'spot'; readonly spot: SpotAnalysis }
  | { readonly part: 'surface'; readonly surface: PatternSurface }
  | { readonly part: 'sweep'; readonly sweep: ModelSweep }
  /** How far the reflection coefficient still moves when the mesh is made 1.6 times finer; above 0.01 only where the mesh was as fine as it may be. */
  | { readonly part: 'settled'; readonly movement: number }
  /** Tables of the ground that are now computed one after the other: others may help. */
  | { readonly part: 'ground'; readonly need: GroundNeed }
  | ({ readonly part: 'progress' } & Progress);

/** While a dimension is dragged one model after the other is analysed: parts that did not move are not computed again. */
const blocks = keptBlocks(96e6);

/**
 * Analyses a model in parts: the spot frequency first, a finer mesh until it has settled, then the sweep and the surface. A generator: its caller
 * may stop between any two steps.
 */
export function* analyseModel(question: ModelQuestion): Generator<ModelAnswer, void> {
  const { model, freqHz, lowHz, highHz, points, arrivalDeg } = question;
  const mesh = meshOf(model, freqHz);
  // the sweep's mesh is that of its highest frequency
  const { segments, unknowns } = meshOf(model, Math.max(freqHz, highHz));
  yield { part: 'size', segments, bytes: solveBytes({ unknowns }) + entryFitBytes({ unknowns }) };
  const first = solveAt(model, mesh, freqHz, { fill: fillWith({ blocks }) });
  yield { part: 'spot', spot: spotAnalysis(first, arrivalDeg) };
  const refining = settle(first);
  let settled = refining.next();
  for (; !settled.done; settled = refining.next()) yield { part: 'progress', share: 0.01 };
  const { solution, density, movement } = settled.value;
  // the spot is answered again when the first mesh had not settled, and the sweep follows on the mesh that had
  if (density > 1) yield { part: 'spot', spot: spotAnalysis(solution, arrivalDeg) };
  yield { part: 'settled', movement };
  const steps = sweepModel(
    model,
    { lowHz, highHz, points },
    { blocks, density: sweepDensity(settled.value, Math.max(freqHz, highHz)) },
  );
  for (;;) {
    const step = steps.next();
    if (step.done) {
      yield { part: 'sweep', sweep: step.value };
      break;
    }
    yield 'share' in step.value ? { part: 'progress', ...step.value } : { part: 'ground', need: step.value };
  }
  yield { part: 'surface', surface: patternSurface(solution) };
}
