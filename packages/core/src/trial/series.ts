import { requirePositive, requireRange, ShapeError } from '../errors';
import { median } from '../numeric/statistics';
import { powerDb, powerRatio } from '../units/decibel';

/** How much readings tell that are not independent. */
export interface EffectiveNumber {
  /** n(1 − ρ)/(1 + ρ): for many readings. */
  readonly asymptotic: number;
  /** From the variance of the mean of n readings. */
  readonly exact: number;
  /** An interval that takes them for independent is too narrow by this factor. */
  readonly intervalFactor: number;
}

/**
 * Effective number of equally spaced readings whose correlation falls as ρ, ρ², … (AR(1)).
 * @param rho correlation of a reading with the next, −0.99 to 0.999.
 * Source: Bayley & Hammersley, J. Royal Stat. Soc. Suppl. 8 (1946) 184.
 */
export function effectiveNumber(n: number, rho: number): EffectiveNumber {
  requirePositive(n, 'Number of readings');
  requireRange(rho, 'Correlation with the next reading', -0.99, 0.999);
  // Σ (1 − k/n) ρ^k, k from 1 to n − 1, in closed form
  const sum = rho === 0 ? 0 : (rho * (n - 1 - n * rho + rho ** n)) / (n * (1 - rho) ** 2);
  const exact = n / (1 + 2 * sum);
  return { asymptotic: (n * (1 - rho)) / (1 + rho), exact, intervalFactor: Math.sqrt(n / exact) };
}

/** Correlation of a series with itself one reading later, corrected for its bias in short series; 0 for fewer than four readings. Source: Kendall, Biometrika 41 (1954) 403. */
export function lagOne(values: readonly number[]): number {
  const n = values.length;
  if (n < 4) return 0;
  const mean = values.reduce((sum, one) => sum + one, 0) / n;
  const squares = values.reduce((sum, one) => sum + (one - mean) ** 2, 0);
  if (squares === 0) return 0;
  const products = values.slice(1).reduce((sum, one, i) => sum + (one - mean) * (values[i] - mean), 0);
  const raw = products / squares;
  return Math.max(-0.95, Math.min(0.95, raw + (1 + 3 * raw) / n));
}

/** What fading leaves of readings taken at an interval. */
export interface FadingSpacing {
  readonly rho: number;
  readonly effective: number;
  /** Interval from which readings count as nearly independent, s. */
  readonly intervalS: number;
}

/**
 * Readings in fading whose correlation falls to 1/e in a time, exponentially.
 * @param rhoMost correlation that is still accepted, above 0 and below 1.
 */
export function fadingSpacing(input: {
  readonly intervalS: number;
  readonly fadingS: number;
  readonly n: number;
  readonly rhoMost: number;
}): FadingSpacing {
  requirePositive(input.intervalS, 'Time between readings (s)');
  requirePositive(input.fadingS, 'Fading time (s)');
  requireRange(input.rhoMost, 'Correlation accepted', 1e-6, 0.999);
  const rho = Math.exp(-input.intervalS / input.fadingS);
  return {
    rho,
    effective: effectiveNumber(input.n, Math.min(0.999, rho)).asymptotic,
    intervalS: -input.fadingS * Math.log(input.rhoMost),
  };
}

/** Three means of readings in dB: they differ when the readings scatter, so a report says which. */
export function readingMeans(readings: readonly number[]) {
  if (readings.length === 0) throw new ShapeError('There are no readings. Type at least one.');
  readings.forEach((one) => requireRange(one, 'Reading (dBm)', -300, 100));
  const meanDb = readings.reduce((sum, one) => sum + one, 0) / readings.length;
  const powerMeanDbm = powerDb(readings.reduce((sum, one) => sum + powerRatio(one), 0) / readings.length);
  return { meanDb, powerMeanDbm, medianDbm: median(readings), powerLessDb: powerMeanDbm - meanDb };
}
