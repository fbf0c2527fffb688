import { OutOfRangeError, requirePositive, requireRange } from '../errors';
import { add, complex, divide, magnitude, multiply, subtract, type Complex } from '../numeric/complex';
import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';

/** A calibration kit's constants on a 50 Ω reference. Delays are ONE-WAY: the phase turns by −2ωτ. */
export interface Standards {
  readonly openFarad: number;
  readonly openDelayS: number;
  readonly shortHenry: number;
  readonly shortDelayS: number;
  readonly loadOhm: number;
}

export const IDEAL_STANDARDS: Standards = { openFarad: 0, openDelayS: 0, shortHenry: 0, shortDelayS: 0, loadOhm: 50 };
const REFERENCE_OHM = 50;

/** True reflections of the three standards at one frequency. */
export function standardReflections(kit: Standards, freqHz: number): { open: Complex; short: Complex; load: Complex } {
  const omega = 2 * Math.PI * freqHz;
  const delayed = (gamma: Complex, delayS: number): Complex =>
    multiply(gamma, complex(Math.cos(2 * omega * delayS), -Math.sin(2 * omega * delayS)));
  const y = omega * kit.openFarad * REFERENCE_OHM;
  const x = omega * kit.shortHenry;
  return {
    open: delayed(divide(complex(1, -y), complex(1, y)), kit.openDelayS),
    short: delayed(divide(complex(-REFERENCE_OHM, x), complex(REFERENCE_OHM, x)), kit.shortDelayS),
    load: complex((kit.loadOhm - REFERENCE_OHM) / (kit.loadOhm + REFERENCE_OHM)),
  };
}

/** Error terms of a one-port at one frequency: raw = (a + c'·Γ)/(1 − b·Γ) in the linear form a + b·Γ·m − c·Γ = m. */
export interface ErrorTerms {
  readonly directivity: Complex;
  readonly sourceMatch: Complex;
  readonly determinant: Complex;
}

/** Three readings of three known standards decide the three error terms (3×3 complex system, Cramer's rule). */
export function solveErrorTerms(
  raw: { readonly open: Complex; readonly short: Complex; readonly load: Complex },
  truth: { readonly open: Complex; readonly short: Complex; readonly load: Complex },
): ErrorTerms {
  const rows = (['open', 'short', 'load'] as const).map((name) => ({
    g: truth[name],
    gm: multiply(truth[name], raw[name]),
    m: raw[name],
  }));
  const one = complex(1);
  const det = (a: readonly Complex[], b: readonly Complex[], c: readonly Complex[]): Complex => {
    const minor = (p: number, q: number): Complex => subtract(multiply(b[p], c[q]), multiply(b[q], c[p]));
    return add(subtract(multiply(a[0], minor(1, 2)), multiply(a[1], minor(0, 2))), multiply(a[2], minor(0, 1)));
  };
  const ones = [one, one, one];
  const gm = rows.map((row) => row.gm);
  const g = rows.map((row) => row.g);
  const m = rows.map((row) => row.m);
  const whole = det(ones, gm, g);
  if (magnitude(whole) < 1e-12)
    throw new OutOfRangeError(
      'Two of the three standards read the same. Measure open, short and load again, one of each.',
    );
  return {
    directivity: divide(det(m, gm, g), whole),
    sourceMatch: divide(det(ones, m, g), whole),
    determinant: divide(det(ones, gm, m), whole),
  };
}

/** Removes the error terms from a raw reading. */
export const correctReading = (raw: Complex, terms: ErrorTerms): Complex =>
  divide(subtract(raw, terms.directivity), add(multiply(terms.sourceMatch, raw), terms.determinant));

/**
 * Error of linearly interpolating a term that a cable turns between two calibrated points: 1 − cos(Δφ/2).
 * @returns phase step (degrees), worst relative error (ratio), the same as a level (dB; null if there is none).
 */
export function interpolationError(
  startHz: number,
  stopHz: number,
  points: number,
  cableM: number,
  velocityFactor: number,
) {
  requireRange(points, 'Points', 2);
  requirePositive(velocityFactor, 'Velocity factor');
  const stepHz = (stopHz - startHz) / (points - 1);
  const phaseStepDeg = (360 * 2 * stepHz * cableM) / (velocityFactor * SPEED_OF_LIGHT_M_PER_S);
  const worst = 1 - Math.cos((phaseStepDeg / 2) * (Math.PI / 180));
  return { phaseStepDeg, worstError: worst, floorDb: worst > 0 ? 20 * Math.log10(worst) : null };
}

/** Distances that a sweep can resolve and reach, and the place of a reflection by its two-way delay. */
export function timeDomainReach(
  startHz: number,
  stopHz: number,
  points: number,
  velocityFactor: number,
  twoWayDelayS: number,
) {
  requireRange(points, 'Points', 2);
  requirePositive(stopHz - startHz, 'Span (Hz)');
  const stepHz = (stopHz - startHz) / (points - 1);
  const speed = velocityFactor * SPEED_OF_LIGHT_M_PER_S;
  return {
    stepHz,
    resolutionM: speed / (2 * (stopHz - startHz)),
    maxDistanceM: speed / (2 * stepHz),
    distanceM: (speed * twoWayDelayS) / 2,
  };
}
