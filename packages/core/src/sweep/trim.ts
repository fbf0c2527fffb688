import { OutOfRangeError, requirePositive, ShapeError } from '../errors';
import { leastSquares, nonNegativeLeastSquares, type Matrix } from '../numeric/least-squares';

/** Sensitivity and cut of an element whose frequency is inversely proportional to its (overall) length. */
export function trimSensitivity(freqHz: number, lengthM: number, targetHz: number) {
  requirePositive(freqHz, 'Frequency (Hz)');
  requirePositive(lengthM, 'Length (m)');
  requirePositive(targetHz, 'Target frequency (Hz)');
  const slopeHzPerM = -freqHz / lengthM;
  return { slopeHzPerM, cutM: lengthM * (1 - freqHz / targetHz), cutLinearM: (freqHz - targetHz) / slopeHzPerM };
}

/** A measured length and the frequency it gave. */
export interface LengthReading {
  readonly lengthM: number;
  readonly freqHz: number;
}

/**
 * Length for a target from two or more readings by 1/f = a + b·length, which covers fixed loading and end effect.
 * @returns `extrapolated` if the target lies outside the measured frequencies; `endOffsetM` = a/b.
 * @throws OutOfRangeError if the readings do not get lower with length.
 */
export function lengthForTarget(readings: readonly LengthReading[], targetHz: number) {
  requirePositive(targetHz, 'Target frequency (Hz)');
  if (readings.length < 2)
    throw new ShapeError('One reading does not give a slope. Cut a little, measure, and enter both.');
  readings.forEach((reading) => requirePositive(reading.freqHz, 'Frequency (Hz)'));
  const [a, b] = leastSquares(
    readings.map((reading) => [1, reading.lengthM]),
    readings.map((reading) => 1 / reading.freqHz),
  );
  if (!(b > 0))
    throw new OutOfRangeError(
      'The frequency did not rise when the length fell. Check the readings, or whether another wire moved.',
    );
  const freqs = readings.map((reading) => reading.freqHz);
  return {
    lengthM: (1 / targetHz - a) / b,
    endOffsetM: a / b,
    extrapolated: targetHz < Math.min(...freqs) || targetHz > Math.max(...freqs),
  };
}

/** The way to the target as a straight line f = p + q·length. */
function straightLineLength(readings: readonly LengthReading[], targetHz: number) {
  const [p, q] = leastSquares(
    readings.map((reading) => [1, reading.lengthM]),
    readings.map((reading) => reading.freqHz),
  );
  return { lengthM: (targetHz - p) / q, slopeHzPerM: q };
}

/** Step for the next cut, with the reason for its size. */
export interface NextCut {
  /** How much to take off the measured element now; 0 when done or when it is already too short. */
  readonly cutM: number;
  readonly newLengthM: number;
  readonly targetLengthM: number;
  readonly remainingHz: number;
  readonly method: 'proportional' | 'measured slope' | '1/f fit';
  readonly slopeHzPerM: number;
  readonly straightLineTargetM?: number;
  readonly state: 'cut' | 'done' | 'too short' | 'too far' | 'getting worse';
}

/** A dip that would take off more of the element than this is no trimming: another dip, another antenna, or a fault. Common practice, no source. */
const MOST_TRIMMED = 0.3;
/** The element counts as on target within this share of the target frequency. */
const ON_TARGET = 0.0005;

/**
 * Advice for the next cut: the proportional rule from one reading, the measured slope from two, the 1/f fit from three on. It
 * goes half of the remaining way (and none when more than 0.3 of the element would have to go) and never past the target; the last stretch below the tool's resolution is taken at once.
 * @param toolM smallest cut that the listener can make (default 1 mm).
 */
export function nextCut(readings: readonly LengthReading[], targetHz: number, toolM = 1e-3): NextCut {
  if (readings.length === 0) throw new ShapeError('There is no reading yet. Measure the resonance first.');
  const last = readings[readings.length - 1];
  requirePositive(last.lengthM, 'Length (m)');
  requirePositive(last.freqHz, 'Frequency (Hz)');
  requirePositive(targetHz, 'Target frequency (Hz)');
  const distinct = new Set(readings.map((reading) => reading.lengthM)).size;
  let method: NextCut['method'] = 'proportional';
  let targetLengthM = (last.lengthM * last.freqHz) / targetHz;
  let slopeHzPerM = -last.freqHz / last.lengthM;
  let straightLineTargetM: number | undefined;
  let fits = true;
  if (distinct >= 2) {
    const line = straightLineLength(readings, targetHz);
    if (line.slopeHzPerM < 0) {
      slopeHzPerM = line.slopeHzPerM;
      straightLineTargetM = line.lengthM;
      method = distinct >= 3 ? '1/f fit' : 'measured slope';
      targetLengthM = distinct >= 3 ? lengthForTarget(readings, targetHz).lengthM : line.lengthM;
    } else fits = false;
  }
  const remainingHz = targetHz - last.freqHz;
  const common = { targetLengthM, remainingHz, method, slopeHzPerM, straightLineTargetM };
  const stay = { ...common, cutM: 0, newLengthM: last.lengthM };
  if (Math.abs(remainingHz) <= ON_TARGET * targetHz) return { ...stay, state: 'done' };
  // two changes in a row that took it away: no third before the cause is known
  if (gettingWorse(readings, targetHz)) return { ...stay, state: 'getting worse' };
  if (remainingHz < 0) return { ...stay, state: 'too short' };
  if (!fits || targetLengthM >= last.lengthM) return { ...stay, state: 'getting worse' };
  const wholeM = last.lengthM - targetLengthM;
  if (wholeM > MOST_TRIMMED * last.lengthM) return { ...stay, state: 'too far' };
  const cutM = wholeM <= toolM ? wholeM : Math.max(wholeM / 2, Math.min(wholeM, toolM));
  return { ...common, cutM, newLengthM: last.lengthM - cutM, state: 'cut' };
}

/** A test trim of one wire and the frequencies of all bands after it. */
export interface TrimTrial {
  readonly changeM: number;
  readonly freqsHz: readonly number[];
}

/** Solves several wires that pull each other. Changes are of length: negative = cut. */
export interface TrimPlan {
  /** [band][wire], Hz per m. */
  readonly jacobian: Matrix;
  readonly changeM: readonly number[];
  readonly predictedHz: readonly number[];
  readonly changeCutOnlyM: readonly number[];
  readonly predictedCutOnlyHz: readonly number[];
}

/**
 * min ‖W(J x − y)‖ for the changes x of every wire, once freely and once with x ≤ 0 (wire cannot be cut back on).
 * @param weights one per band, 1/allowed error; all equal if absent.
 */
export function planTrims(
  baselineHz: readonly number[],
  trials: readonly TrimTrial[],
  targetsHz: readonly number[],
  weights?: readonly number[],
): TrimPlan {
  const bands = baselineHz.length;
  if (targetsHz.length !== bands || trials.some((trial) => trial.freqsHz.length !== bands))
    throw new ShapeError(`Every row needs ${bands} frequencies, one per band. Complete the table.`);
  trials.forEach((trial) => {
    if (trial.changeM === 0)
      throw new OutOfRangeError('A test trim of 0 mm shows nothing. Enter how much was changed.');
  });
  const jacobian = baselineHz.map((base, band) => trials.map((trial) => (trial.freqsHz[band] - base) / trial.changeM));
  const weight = (band: number): number => weights?.[band] ?? 1;
  const a = jacobian.map((row, band) => row.map((value) => value * weight(band)));
  const y = targetsHz.map((target, band) => (target - baselineHz[band]) * weight(band));
  const predict = (change: readonly number[]): number[] =>
    jacobian.map((row, band) => baselineHz[band] + row.reduce((sum, value, i) => sum + value * change[i], 0));
  const changeM = leastSquares(a, y);
  const changeCutOnlyM = nonNegativeLeastSquares(
    a.map((row) => row.map((value) => -value)),
    y,
  ).map((value) => (value === 0 ? 0 : -value));
  return {
    jacobian,
    changeM,
    predictedHz: predict(changeM),
    changeCutOnlyM,
    predictedCutOnlyHz: predict(changeCutOnlyM),
  };
}

/** Whether the last two changes in a row each took the reading farther from the target: time to stop and look for the cause. */
export function gettingWorse(readings: readonly LengthReading[], targetHz: number): boolean {
  const off = readings.slice(-3).map(({ freqHz }) => Math.abs(freqHz - targetHz));
  return off.length === 3 && off[1] > off[0] && off[2] > off[1];
}

/**
 * Sensitivities after one more trim was measured: the smallest change that explains it. Source: Broyden, Math. Comp. 19 (1965) 577.
 * @param jacobian [band][wire], Hz per m. @param changeM of every wire, negative = cut. @param shiftHz of every dip.
 * @throws OutOfRangeError when no wire was changed; ShapeError for lists that do not fit.
 */
export function learnFromTrim(jacobian: Matrix, changeM: readonly number[], shiftHz: readonly number[]): Matrix {
  if (shiftHz.length !== jacobian.length || jacobian.some((row) => row.length !== changeM.length))
    throw new ShapeError('One change per wire and one shift per dip are needed. Complete the row.');
  const square = changeM.reduce((sum, value) => sum + value * value, 0);
  if (!(square > 0)) throw new OutOfRangeError('No wire was changed. Enter how much was cut off at least one.');
  return jacobian.map((row, band) => {
    const expected = row.reduce((sum, value, wire) => sum + value * changeM[wire], 0);
    return row.map((value, wire) => value + ((shiftHz[band] - expected) * changeM[wire]) / square);
  });
}
