import { requireRange, ShapeError } from '../errors';
import type { SweepData } from '../formats/touchstone';
import { attenuationDbPer100m } from '../line/coax';
import { inverseFourierInPlace } from '../numeric/fft';
import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { lengthText } from '../units/format';
import type { FeedLine } from './reference-plane';

/** Where a line reflects, and how strongly. */
interface LineEcho {
  readonly distanceM: number;
  /** |Γ| there, the line's loss there and back taken off; above 1 only by error. */
  readonly reflection: number;
}

/** Reflections along a line from a sweep. */
export interface DistancePlot {
  readonly distanceM: Float64Array;
  /** |Γ| per place, loss not taken off. */
  readonly level: Float64Array;
  readonly echoes: readonly LineEcho[];
  /** Two places closer than this are seen as one, m (rectangular window; the window used doubles it). */
  readonly resolutionM: number;
  /** Echoes from beyond fold back from here, m. */
  readonly reachM: number;
  readonly remarks: readonly string[];
}

/** Kaiser window parameter: side lobes below −44 dB at 1.7 times the width. Source: Harris, Proc. IEEE 66 (1978) 51. */
const KAISER_BETA = 6;
/** Display points per independent point. */
const PADDING = 4;
/** Share of the unambiguous distance that is shown, and that an expected end may take. */
const SHOWN = 0.95;
const SAFE = 0.8;
/** Weakest echo named, as |Γ| and against the strongest. */
const LEAST_LEVEL = 0.03;
const LEAST_SHARE = 0.08;

/** Modified Bessel function I₀ by its series. */
function besselI0(x: number): number {
  let term = 1;
  let sum = 1;
  for (let k = 1; k < 60 && term > 1e-16 * sum; k += 1) {
    term *= (x / (2 * k)) ** 2;
    sum += term;
  }
  return sum;
}

/**
 * Distance to what reflects: band-pass impulse response of a sweep (Kaiser window, zeros appended for display), by its two-way delay. Only
 * |h| means something, since the sweep does not begin at zero; open and short look alike.
 * @param expectedM end of the line as far as known; a reach too small for it is remarked.
 * @throws ShapeError unless the sweep has at least 16 evenly spaced points.
 */
export function distanceToFault(sweep: SweepData, line: FeedLine, expectedM?: number): DistancePlot {
  const n = sweep.freqHz.length;
  requireRange(line.velocityFactor, 'Velocity factor', 0.2, 1);
  if (n < 16) throw new ShapeError(`Distances need at least 16 points; this sweep has ${n}. Sweep with more.`);
  const spanHz = sweep.freqHz[n - 1] - sweep.freqHz[0];
  const stepHz = spanHz / (n - 1);
  for (let i = 1; i < n; i += 1)
    if (Math.abs(sweep.freqHz[i] - sweep.freqHz[i - 1] - stepHz) > 0.01 * stepHz)
      throw new ShapeError('The points of this sweep are not evenly spaced. Sweep one segment with even steps.');
  let size = 1;
  while (size < PADDING * n) size *= 2;
  const re = new Float64Array(size);
  const im = new Float64Array(size);
  let weight = 0;
  for (let i = 0; i < n; i += 1) {
    const x = (2 * i) / (n - 1) - 1;
    const w = besselI0(KAISER_BETA * Math.sqrt(1 - x * x)) / besselI0(KAISER_BETA);
    weight += w;
    re[i] = w * sweep.re[i];
    im[i] = w * sweep.im[i];
  }
  inverseFourierInPlace(re, im);
  const speed = line.velocityFactor * SPEED_OF_LIGHT_M_PER_S;
  const reachM = speed / (2 * stepHz);
  const count = Math.floor(SHOWN * size); // the rest is where the window's foot of an echo at nought folds to
  const distanceM = Float64Array.from({ length: count }, (_, i) => (i * reachM) / size);
  const level = Float64Array.from({ length: count }, (_, i) => (Math.hypot(re[i], im[i]) * size) / weight);
  const resolutionM = speed / (2 * spanHz);
  const midHz = (sweep.freqHz[0] + sweep.freqHz[n - 1]) / 2;
  const lossDbPerM = attenuationDbPer100m(line, midHz) / 100;
  const echoes = echoesOf(distanceM, level, Math.ceil((2 * resolutionM * size) / reachM)).map((echo) => ({
    distanceM: echo.distanceM,
    reflection: echo.level * 10 ** ((2 * lossDbPerM * echo.distanceM) / 20),
  }));
  return { distanceM, level, echoes, resolutionM, reachM, remarks: remarksOf({ resolutionM, reachM, expectedM }) };
}

/** Local maxima well above the rest, strongest first; the place by a parabola through three points. */
function echoesOf(distanceM: Float64Array, level: Float64Array, reach: number) {
  const strongest = level.reduce((most, value) => Math.max(most, value), 0);
  const least = Math.max(LEAST_LEVEL, LEAST_SHARE * strongest);
  const found: { distanceM: number; level: number }[] = [];
  for (let i = 1; i < level.length - 1; i += 1) {
    if (level[i] < least || level[i] < level[i - 1] || level[i] <= level[i + 1]) continue;
    let top = true;
    for (let k = Math.max(0, i - reach); k <= Math.min(level.length - 1, i + reach); k += 1)
      if (level[k] > level[i]) top = false;
    if (!top) continue;
    const bend = level[i - 1] - 2 * level[i] + level[i + 1];
    const shift = bend === 0 ? 0 : (level[i - 1] - level[i + 1]) / (2 * bend);
    found.push({ distanceM: distanceM[i] + shift * (distanceM[1] - distanceM[0]), level: level[i] });
  }
  return found.sort((a, b) => b.level - a.level).slice(0, 6);
}

function remarksOf({ resolutionM, reachM, expectedM }: { resolutionM: number; reachM: number; expectedM?: number }) {
  const remarks: string[] = [];
  if (expectedM !== undefined && expectedM > SAFE * reachM)
    remarks.push(
      `The line is longer than this sweep shows safely (${lengthText(SAFE * reachM, 2)}): echoes from farther fold back. Use more points or a narrower span.`,
    );
  if (expectedM !== undefined && 2 * resolutionM > expectedM)
    remarks.push(
      `Places closer than ${lengthText(2 * resolutionM, 2)} run together, and the line is shorter than that. Sweep a wider span.`,
    );
  return remarks;
}

/** Distance to a reflection from the period of the ripple that it makes over frequency: c·vf/2Δf. */
export const distanceFromRippleM = (rippleHz: number, velocityFactor: number): number =>
  (SPEED_OF_LIGHT_M_PER_S * velocityFactor) / (2 * rippleHz);

/** Velocity factor of a line of known length whose open or shorted end makes a ripple of a period: 2lΔf/c. */
export const velocityFromRipple = (rippleHz: number, lengthM: number): number =>
  (2 * lengthM * rippleHz) / SPEED_OF_LIGHT_M_PER_S;
