import { requirePositive, requireRange } from '../errors';

/** A band that a sweep must show. */
export interface PlannedBand {
  readonly name: string;
  readonly lowHz: number;
  readonly highHz: number;
}

/** One stretch of a segmented sweep. */
interface SweepSegment {
  readonly name: string;
  readonly startHz: number;
  readonly stopHz: number;
  readonly points: number;
}

/** Points that show a band well: edges, middle, and a dip between them. Common practice, no source. */
export const POINTS_PER_BAND = 21;

/** What one sweep over a span gives, and what a sweep in segments would. */
export interface SweepPlan {
  readonly stepHz: number;
  readonly seconds: number;
  readonly perBand: readonly { readonly band: PlannedBand; readonly points: number }[];
  /** One stretch a band, 21 points each. */
  readonly segments: readonly SweepSegment[];
  readonly segmentSeconds: number;
  /** Points and time of a single sweep that would put 21 points into the narrowest band. */
  readonly singlePoints: number;
  readonly singleSeconds: number;
  readonly remarks: readonly string[];
}

/**
 * Step, time and points per band of a sweep, beside what segments would take. A start below the analyser's lowest frequency is replaced.
 * @param secondsPerPoint as learned from this analyser.
 */
export function planSweep(input: {
  readonly startHz: number;
  readonly stopHz: number;
  readonly points: number;
  readonly secondsPerPoint: number;
  readonly lowestHz: number;
  readonly bands: readonly PlannedBand[];
}): SweepPlan {
  const { startHz, stopHz, points, secondsPerPoint, lowestHz, bands } = input;
  requireRange(startHz, 'Start (Hz)', 0);
  requirePositive(stopHz - startHz, 'Span (Hz)');
  requireRange(points, 'Points', 2, 200_001);
  requirePositive(secondsPerPoint, 'Time per point (s)');
  const stepHz = (stopHz - startHz) / (points - 1);
  const inside = bands.filter((band) => band.highHz > startHz && band.lowHz < stopHz);
  const narrowest = Math.min(...inside.map((band) => band.highHz - band.lowHz));
  const singlePoints =
    inside.length === 0 ? points : Math.ceil((stopHz - startHz) / (narrowest / (POINTS_PER_BAND - 1)) - 1e-9) + 1;
  const perBand = inside.map((band) => ({ band, points: (band.highHz - band.lowHz) / stepHz }));
  return {
    stepHz,
    seconds: points * secondsPerPoint,
    perBand,
    segments: inside.map((band) => ({
      name: band.name,
      startHz: Math.max(band.lowHz, lowestHz),
      stopHz: band.highHz,
      points: POINTS_PER_BAND,
    })),
    segmentSeconds: inside.length * POINTS_PER_BAND * secondsPerPoint,
    singlePoints,
    singleSeconds: singlePoints * secondsPerPoint,
    remarks: [
      ...(startHz < lowestHz
        ? [
            `The analyser begins at ${lowestHz.toFixed(0)} Hz: the sweep starts there instead of ${startHz.toFixed(0)} Hz.`,
          ]
        : []),
      ...perBand
        .filter((one) => one.points < POINTS_PER_BAND / 2)
        .map(
          (one) => `Only ${one.points.toFixed(1)} points fall into ${one.band.name}: its dip can hide between them.`,
        ),
    ],
  };
}
