import { ShapeError } from '../errors';
import { median } from '../numeric/statistics';

/** The signal lies in the middle so many bins wide, to either side; noise is read three times as far away. */
const SIGNAL_BINS = 5;
/** Bins that a spectrum must have for noise on both sides. */
const LEAST_BINS = 8 * SIGNAL_BINS;

/**
 * Level of a signal in the middle of a spectrum, and the noise beside it: the highest bin about the middle, the median of those well away.
 * @param levelDb of bins as wide as the bandwidth, lowest frequency first. @throws ShapeError for a spectrum too short for noise beside the signal.
 */
export function dwellReading(levelDb: readonly number[] | Float64Array): {
  readonly levelDb: number;
  readonly noiseDb: number;
} {
  if (levelDb.length < LEAST_BINS)
    throw new ShapeError(
      `A reading needs ${LEAST_BINS} points about the signal; here are ${levelDb.length}. Read more points.`,
    );
  const middle = Math.floor(levelDb.length / 2);
  const all = Float64Array.from(levelDb);
  const away = all.filter((_, i) => Math.abs(i - middle) > 3 * SIGNAL_BINS);
  return {
    levelDb: Math.max(...all.subarray(middle - SIGNAL_BINS, middle + SIGNAL_BINS + 1)),
    noiseDb: median(away),
  };
}
