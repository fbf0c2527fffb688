import { OutOfRangeError, requirePositive, ShapeError } from '../errors';
import { freeSpaceLossDb } from '../site/orbit';
import { wavelengthM } from '../units/wavelength';

/** Figures of an azimuth pattern. Levels against the peak, dB; null where there is none. */
export interface PatternFigures {
  readonly peakDeg: number;
  /** Width between the −3.0 dB points; null when the pattern never falls that far. */
  readonly widthDeg: number | null;
  readonly frontToBackDb: number;
  /** Against the worst direction 90 to 270° off. */
  readonly frontToRearDb: number;
  /** Highest lobe outside the main one. */
  readonly sideLobeDb: number | null;
}

const HALF_POWER_DB = 3;

/**
 * Peak, width, front to back, front to rear and side lobe of levels on an even circle, any reference. The width is interpolated in dB on both
 * sides of the peak; the main lobe ends at the first minimum on each side; a lobe is a sample not lower than both neighbours.
 * @throws ShapeError for fewer than eight directions.
 */
export function patternFigures(levelsDb: readonly number[]): PatternFigures {
  const n = levelsDb.length;
  if (n < 8) throw new ShapeError('A pattern needs at least eight directions. Measure more.');
  const stepDeg = 360 / n;
  const peak = levelsDb.indexOf(Math.max(...levelsDb));
  const level = (i: number): number => levelsDb[(((peak + i) % n) + n) % n] - levelsDb[peak];
  const crossing = (direction: 1 | -1): number | null => {
    for (let i = 1; i <= n / 2; i += 1) {
      const [inner, outer] = [level(direction * (i - 1)), level(direction * i)];
      if (outer <= -HALF_POWER_DB) return i - 1 + (inner + HALF_POWER_DB) / (inner - outer);
    }
    return null;
  };
  const [left, right] = [crossing(-1), crossing(1)];
  const rear = Array.from({ length: n }, (_, i) => i).filter(
    (i) => i * stepDeg >= 90 - 1e-9 && i * stepDeg <= 270 + 1e-9,
  );
  const firstMinimum = (direction: 1 | -1): number => {
    let i = 1;
    while (i < n && level(direction * (i + 1)) < level(direction * i)) i += 1;
    return i;
  };
  const [from, to] = [firstMinimum(1), n - firstMinimum(-1)];
  const lobes = Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => from + i).filter(
    (i) => i > from && i < to && level(i) >= level(i - 1) && level(i) >= level(i + 1),
  );
  return {
    peakDeg: peak * stepDeg,
    widthDeg: left === null || right === null ? null : (left + right) * stepDeg,
    frontToBackDb: -backLevel(level, n),
    frontToRearDb: -Math.max(...rear.map(level)),
    sideLobeDb: lobes.length > 0 ? Math.max(...lobes.map(level)) : null,
  };
}

/** Level straight behind; between two samples when there is none there. */
function backLevel(level: (i: number) => number, n: number): number {
  const half = n / 2;
  return Number.isInteger(half) ? level(half) : (level(Math.floor(half)) + level(Math.ceil(half))) / 2;
}

/** Distances for a pattern measurement: 2D²/λ, 10 λ and 10 D; phase error over the aperture at a distance. */
export function farField(freqHz: number, apertureM: number, distanceM: number) {
  requirePositive(apertureM, 'Aperture (m)');
  requirePositive(distanceM, 'Distance (m)');
  const lambda = wavelengthM(freqHz);
  const farFieldM = (2 * apertureM ** 2) / lambda;
  const recommendedM = Math.max(farFieldM, 10 * lambda, 10 * apertureM);
  return {
    farFieldM,
    /** D²/(8d) more way at the edge than in the middle. */
    phaseErrorDeg: (360 * (Math.hypot(distanceM, apertureM / 2) - distanceM)) / lambda,
    recommendedM,
    enough: distanceM >= recommendedM,
  };
}

/** What a reflected ray does to a level, and the ray behind an observed ripple. Levels against the direct ray, dB. */
export function reflectionRipple(reflectedDb: number, observedRippleDb: number) {
  const r = 10 ** (reflectedDb / 20);
  const p = 10 ** (observedRippleDb / 20);
  const mostDb = 20 * Math.log10(1 + r);
  const leastDb = 20 * Math.log10(1 - r);
  return { mostDb, leastDb, rippleDb: mostDb - leastDb, reflectedDb: 20 * Math.log10((p - 1) / (p + 1)) };
}

/**
 * The strongest reflection of a place from the same cut measured twice, the antenna moved by λ/4 along the ray: a ray that came back by another λ/2 of way
 * adds where it took away. Of the differences within 10 dB of the peak the largest counts, each dB apart as (1 + r)/(1 − r).
 * @param first levels at even angles, dB. @param moved the same after the move. @returns dB against the direct ray; −80 where nothing differs.
 * @throws ShapeError when the angles differ.
 */
export function reflectionByMove(first: readonly number[], moved: readonly number[]): number {
  if (first.length !== moved.length || first.length < 8)
    throw new ShapeError('Both turns need the same angles, eight at least. Turn in the same steps.');
  const shift = (levels: readonly number[]): number => Math.max(...levels);
  const [a, b] = [shift(first), shift(moved)];
  const apart = first.flatMap((db, i) => (db >= a - 10 ? [Math.abs(db - a - (moved[i] - b))] : []));
  const ratio = 10 ** (Math.max(...apart) / 20);
  return Math.max(-80, 20 * Math.log10(Math.max(1e-4, (ratio - 1) / (ratio + 1))));
}

/**
 * Gains of three antennas from three transmissions over one distance, dBi, with their error.
 * @param s21Db received over sent, below 0 dB. @param scatterDb of one transmission, 1 sigma. @param distanceErrorM of the distance, 1 sigma.
 * Each gain is half of a sum of three levels and the loss of the way: √3/2 of the scatter, and half of 8.686·Δd/d (JCGM 100).
 */
export function threeAntennas(
  freqHz: number,
  distanceM: number,
  s21Db: { readonly ab: number; readonly ac: number; readonly bc: number },
  { scatterDb = 0, distanceErrorM = 0 }: { readonly scatterDb?: number; readonly distanceErrorM?: number } = {},
) {
  const pathLossDb = freeSpaceLossDb(distanceM, freqHz);
  const { ab, ac, bc } = s21Db;
  if (Math.max(ab, ac, bc) > 0)
    throw new OutOfRangeError(
      'More cannot arrive than was sent: received over sent is below 0 dB. Enter it with a minus sign.',
      's21Db',
    );
  return {
    pathLossDb,
    sigmaDb: Math.hypot((Math.sqrt(3) / 2) * scatterDb, ((10 / Math.LN10) * distanceErrorM) / distanceM),
    gainADbi: (ab + ac - bc + pathLossDb) / 2,
    gainBDbi: (ab + bc - ac + pathLossDb) / 2,
    gainCDbi: (ac + bc - ab + pathLossDb) / 2,
  };
}
