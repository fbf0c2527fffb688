import { ShapeError } from '../errors';
import { plannedInterval, type MeanInterval } from '../trial/sequence';
import { combining } from './fix';

/** What two antennas together would have given over the better one alone, on an evening that was logged. */
export interface DiversityGain {
  readonly pairs: number;
  /** Which alone was better on the average: 0 the first. */
  readonly better: 0 | 1;
  /** Means over the pairs, dB over the better one alone, each with its 95 % interval. */
  readonly ways: readonly {
    readonly name: 'switching' | 'equal gain' | 'maximum ratio';
    readonly meanDb: number;
    readonly interval?: MeanInterval;
  }[];
}

/**
 * Switching to the better one pair by pair, adding with equal gain, and adding by the best weights, against the better antenna left on all evening.
 * @param snrDb of both antennas, pair by pair. @throws ShapeError for fewer than two pairs.
 * Range: noise of the two is independent; noise from one place heard by both does not add so.
 */
export function diversityGain(snrDb: readonly (readonly [number, number])[]): DiversityGain {
  if (snrDb.length < 2) throw new ShapeError('Two pairs at least with the SNR of both antennas are needed. Log more.');
  const mean = (side: 0 | 1): number => snrDb.reduce((sum, pair) => sum + pair[side], 0) / snrDb.length;
  const better = mean(1) > mean(0) ? 1 : 0;
  const over = (name: DiversityGain['ways'][number]['name'], of: (pair: readonly [number, number]) => number) => {
    const gains = snrDb.map((pair) => of(pair) - pair[better]);
    const interval = plannedInterval(gains);
    return { name, meanDb: gains.reduce((sum, one) => sum + one, 0) / gains.length, ...(interval ? { interval } : {}) };
  };
  return {
    ...{ pairs: snrDb.length, better },
    ways: [
      over('switching', (pair) => combining(pair).selectionDb),
      over('equal gain', (pair) => combining(pair).equalGainDb),
      over('maximum ratio', (pair) => combining(pair).maximumRatioDb),
    ],
  };
}
