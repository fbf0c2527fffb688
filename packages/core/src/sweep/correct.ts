import { OutOfRangeError, ShapeError } from '../errors';
import type { SweepData } from '../formats/touchstone';
import { add, angleDeg, complex, divide, magnitude, multiply, subtract, type Complex } from '../numeric/complex';
import { returnLossDb } from '../line/reflection';
import { frequencyText } from '../units/format';
import { indexBelow } from './analyse';
import { correctReading, solveErrorTerms, standardReflections, type ErrorTerms, type Standards } from './calibration';

export type StandardName = 'open' | 'short' | 'load';
export const STANDARD_NAMES: readonly StandardName[] = ['open', 'short', 'load'];

/** Readings of the three standards over one grid. */
export interface Calibration {
  readonly freqHz: Float64Array;
  readonly readings: Readonly<Record<StandardName, { readonly re: Float64Array; readonly im: Float64Array }>>;
  readonly standards: Standards;
}

/** A corrected sweep: on the calibration's own frequencies or between them. */
export interface CorrectedSweep {
  readonly sweep: SweepData;
  readonly between: boolean;
}

/** Error terms that may be interpolated: e00, e11 and e10e01; their product form turns too fast. */
interface Terms {
  readonly directivity: Complex;
  readonly sourceMatch: Complex;
  readonly tracking: Complex;
}

const at = (values: { readonly re: Float64Array; readonly im: Float64Array }, i: number): Complex =>
  complex(values.re[i], values.im[i]);

/** The three terms at every calibrated frequency. @throws ShapeError for grids that differ; OutOfRangeError for two equal standards. */
function termsOf({ freqHz, readings, standards }: Calibration): readonly Terms[] {
  if (STANDARD_NAMES.some((name) => readings[name].re.length !== freqHz.length) || freqHz.length < 2)
    throw new ShapeError('Open, short and load were read on different frequencies. Calibrate again over one span.');
  return Array.from(freqHz, (freq, i) => {
    const { directivity, sourceMatch, determinant } = solveErrorTerms(
      { open: at(readings.open, i), short: at(readings.short, i), load: at(readings.load, i) },
      standardReflections(standards, freq),
    );
    return { directivity, sourceMatch, tracking: add(determinant, multiply(directivity, sourceMatch)) };
  });
}

const between = (a: Complex, b: Complex, share: number): Complex =>
  complex(a.re + share * (b.re - a.re), a.im + share * (b.im - a.im));

/** Error terms as correctReading wants them. */
const asErrorTerms = ({ directivity, sourceMatch, tracking }: Terms): ErrorTerms => ({
  directivity,
  sourceMatch,
  determinant: subtract(tracking, multiply(directivity, sourceMatch)),
});

/**
 * Takes the analyser's own errors off a sweep. Terms belong to frequencies: on the calibrated grid they are used as they are, between its
 * points they are interpolated, beyond its span nothing is corrected.
 * @throws OutOfRangeError when the sweep leaves the calibrated span.
 */
export function correctSweep(raw: SweepData, calibration: Calibration): CorrectedSweep {
  const grid = calibration.freqHz;
  const n = raw.freqHz.length;
  const [low, high] = [grid[0], grid[grid.length - 1]];
  if (raw.freqHz[0] < low || raw.freqHz[n - 1] > high)
    throw new OutOfRangeError(
      `The calibration reaches from ${frequencyText(low)} to ${frequencyText(high)} and the sweep goes beyond. Calibrate over the whole span, or sweep inside it.`,
    );
  const terms = termsOf(calibration);
  const re = new Float64Array(n);
  const im = new Float64Array(n);
  let interpolated = false;
  for (let i = 0; i < n; i += 1) {
    const freq = raw.freqHz[i];
    const k = Math.min(grid.length - 2, indexBelow(grid, freq));
    const share = (freq - grid[k]) / (grid[k + 1] - grid[k]);
    const exact = share === 0 ? terms[k] : share === 1 ? terms[k + 1] : undefined;
    if (!exact) interpolated = true;
    const own = exact ?? {
      directivity: between(terms[k].directivity, terms[k + 1].directivity, share),
      sourceMatch: between(terms[k].sourceMatch, terms[k + 1].sourceMatch, share),
      tracking: between(terms[k].tracking, terms[k + 1].tracking, share),
    };
    const gamma = correctReading(complex(raw.re[i], raw.im[i]), asErrorTerms(own));
    re[i] = gamma.re;
    im[i] = gamma.im;
  }
  return { sweep: { ...raw, re, im }, between: interpolated };
}

/** Largest turn of the tracking term between two calibrated points, degrees: what interpolation has to bridge. */
function largestPhaseStepDeg(calibration: Calibration): number {
  const terms = termsOf(calibration);
  let largest = 0;
  for (let i = 1; i < terms.length; i += 1)
    largest = Math.max(largest, Math.abs(angleDeg(divide(terms[i].tracking, terms[i - 1].tracking))));
  return largest;
}

/** Interpolation over more than this leaves an error above 0.4 % (1 − cos(Δφ/2)). */
const MOST_PHASE_STEP_DEG = 10;
/** A calibration older than this is asked about: cables move, plugs warm up. Common practice, no source. */
const OLD_AFTER_MS = 12 * 3600e3;

/** Why a calibration may not fit a sweep; empty when nothing speaks against it. */
export function calibrationDoubts(
  calibration: Calibration,
  madeMs: number,
  nowMs: number,
  sweep: { readonly startHz: number; readonly stopHz: number; readonly points: number },
): readonly string[] {
  const grid = calibration.freqHz;
  const [low, high] = [grid[0], grid[grid.length - 1]];
  const doubts: string[] = [];
  if (sweep.startHz < low || sweep.stopHz > high)
    doubts.push(
      `The span goes beyond the calibration (${frequencyText(low)} to ${frequencyText(high)}): readings stay raw until you calibrate again.`,
    );
  else if (sweep.startHz !== low || sweep.stopHz !== high || sweep.points !== grid.length) {
    const step = largestPhaseStepDeg(calibration);
    doubts.push(
      step > MOST_PHASE_STEP_DEG
        ? `The span changed after the calibration, and its terms turn ${step.toFixed(0)}° from point to point: too much to interpolate (up to ${(100 * (1 - Math.cos((step * Math.PI) / 360))).toFixed(1)} % error). Calibrate again with more points.`
        : `The span changed after the calibration: corrections are interpolated between its points, within ${(100 * (1 - Math.cos((step * Math.PI) / 360))).toFixed(2)} %.`,
    );
  }
  if (nowMs - madeMs > OLD_AFTER_MS)
    doubts.push(
      `The calibration is ${((nowMs - madeMs) / 3600e3).toFixed(0)} hours old. Put the standards on again, or check one of them.`,
    );
  return doubts;
}

/** Least return loss of a load that is read through a sound calibration, dB. */
const LEAST_LOAD_RETURN_DB = 35;
const MOST_ERROR = 0.02;

/**
 * Reads a standard through the calibration made with it: open and short must come back whole and where they are, the load not at all.
 * @param reading corrected. @returns the worst deviation and whether it passes (|Γ| within 0.02; load better than 35 dB).
 */
export function checkStandard(reading: SweepData, name: StandardName, standards: Standards) {
  let worst = 0;
  let worstHz = reading.freqHz[0];
  for (let i = 0; i < reading.freqHz.length; i += 1) {
    const truth = standardReflections(standards, reading.freqHz[i])[name];
    const off = magnitude(subtract(at(reading, i), truth));
    if (off > worst) {
      worst = off;
      worstHz = reading.freqHz[i];
    }
  }
  const limit = name === 'load' ? 10 ** (-LEAST_LOAD_RETURN_DB / 20) : MOST_ERROR;
  const passed = worst <= limit;
  return {
    passed,
    worst,
    worstHz,
    sentence: passed
      ? `The ${name} reads as it should, within ${worst.toFixed(3)}.`
      : name === 'load'
        ? `The load returns ${returnLossDb(worst)?.toFixed(0) ?? 'no'} dB at ${frequencyText(worstHz)} instead of at least ${LEAST_LOAD_RETURN_DB} dB. Clean and tighten the plugs, then calibrate again.`
        : `The ${name} is off by ${worst.toFixed(3)} at ${frequencyText(worstHz)}, more than ${MOST_ERROR}. Clean and tighten the plugs, then calibrate again.`,
  };
}
