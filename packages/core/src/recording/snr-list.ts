import { requirePositive, ShapeError } from '../errors';
import { pairedDifferences, type PairedResult } from '../trial/paired';
import { type MeanInterval, plannedInterval } from '../trial/sequence';
import { bandWeights, dbfs, powerIn, powerOfTwo, transforms, transformsOf } from './frames';
import { bandOf, type Recording, secondsOf } from './layout';

/** What a recording says of one frequency. */
export interface ListedSnr {
  readonly freqHz: number;
  /** Signal without the noise, and the noise in the same bandwidth, dBFS. */
  readonly levelDbfs: number | null;
  readonly noiseDbfs: number;
  /** Mean over the blocks in which it was heard; null where it was not heard in most of them. */
  readonly snrDb: number | null;
  /** 95 %, of as many blocks as are independent. */
  readonly interval?: MeanInterval;
  readonly blocks: number;
  readonly heardBlocks: number;
}

/** Noise is read this many bandwidths from the signal, on its quieter side. */
const NOISE_AWAY = 2;
/** Bins that a band takes at least. */
const LEAST_BINS = 8;
/** A frequency counts as heard when so many of its blocks are. */
const HEARD_SHARE = 0.5;
/** Blocks that a recording is cut into, and their shortest, s. */
const BLOCKS = 20;
const LEAST_BLOCK_S = 1;
/** Frequencies of one list. */
const MOST = 100;
/** A signal must exceed the noise of both sides by so many standard errors. */
const LEAST_SIGMAS = 3;

/**
 * SNR at a list of frequencies in one run through a recording. Noise is that of the quieter side, two bandwidths away: a neighbour on the other does not count.
 * @param frequenciesHz absolute. @throws OutOfRangeError, ShapeError naming the frequency that the recording does not hold.
 */
export function* snrAtFrequencies(
  recording: Recording,
  frequenciesHz: readonly number[],
  bandwidthHz: number,
): Generator<{ readonly share: number }, readonly ListedSnr[]> {
  requirePositive(bandwidthHz, 'Bandwidth (Hz)');
  if (frequenciesHz.length === 0 || frequenciesHz.length > MOST)
    throw new ShapeError(`Type 1 to ${MOST} frequencies; here are ${frequenciesHz.length}.`);
  const { lowHz, highHz } = bandOf(recording);
  const margin = bandwidthHz / 2;
  const outside = frequenciesHz.find((hz) => hz - margin < lowHz || hz + margin > highHz);
  if (outside !== undefined)
    throw new ShapeError(
      `${(outside / 1000).toFixed(3)} kHz with its bandwidth does not lie in this recording, which holds ${(lowHz / 1000).toFixed(3)} to ${(highHz / 1000).toFixed(3)} kHz. Leave it out, or correct the centre frequency.`,
    );
  const { sampleRateHz } = recording.layout;
  const plan = transformsOf(recording, powerOfTwo((LEAST_BINS * sampleRateHz) / bandwidthHz));
  const weigh = (hz: number) => bandWeights(recording, plan, { offsetHz: hz - recording.centreHz, bandwidthHz });
  const held = (hz: number): boolean => hz - margin >= lowHz && hz + margin <= highHz;
  const listed = frequenciesHz.map((freqHz) => ({
    freqHz,
    signal: weigh(freqHz),
    sides: [freqHz - NOISE_AWAY * bandwidthHz, freqHz + NOISE_AWAY * bandwidthHz].filter(held).map(weigh),
    // per block: power of the signal, and of either side
    blocks: [] as { signal: number; sides: number[] }[],
  }));
  const alone = listed.find(({ sides }) => sides.length === 0);
  if (alone) throw new ShapeError(`${bandwidthHz} Hz leave no room for noise beside the signal. Narrow the bandwidth.`);
  const perBlock = Math.max(
    1,
    Math.round((Math.max(LEAST_BLOCK_S, secondsOf(recording.layout) / BLOCKS) * sampleRateHz) / plan.hop),
  );
  let [count, seen] = [0, 0];
  const expected = recording.layout.frames / plan.hop;
  for (const { power } of transforms(recording, plan)) {
    for (const one of listed) {
      if (count === 0) one.blocks.push({ signal: 0, sides: one.sides.map(() => 0) });
      const block = one.blocks[one.blocks.length - 1];
      block.signal += powerIn(power, one.signal) / perBlock;
      one.sides.forEach((side, i) => (block.sides[i] += powerIn(power, side) / perBlock));
    }
    count = (count + 1) % perBlock;
    seen += 1;
    if (seen % 1024 === 0) yield { share: seen / expected };
  }
  // the error of a block's power: so many independent bins were summed
  const independent = (perBlock * bandwidthHz) / plan.binHz / 2;
  return listed.map(({ freqHz, blocks: all, sides }): ListedSnr => {
    // a last block that is not whole has too little power
    const blocks = count > 0 && all.length > 1 ? all.slice(0, -1) : all;
    const total = (of: (block: (typeof all)[number]) => number): number =>
      blocks.reduce((sum, block) => sum + of(block), 0) / blocks.length;
    const totals = sides.map((_, i) => total((block) => block.sides[i]));
    const side = totals.indexOf(Math.min(...totals));
    const heard = blocks.flatMap(({ signal, sides: noises }) => {
      const noise = noises[side];
      const net = signal - noise;
      return net > LEAST_SIGMAS * noise * Math.sqrt(2 / independent) ? [dbfs(net) - dbfs(noise)] : [];
    });
    const enough = heard.length > HEARD_SHARE * blocks.length;
    const interval = enough ? plannedInterval(heard) : undefined;
    return {
      ...{ freqHz, noiseDbfs: dbfs(totals[side]), blocks: blocks.length, heardBlocks: heard.length },
      levelDbfs: enough ? dbfs(Math.max(0, total(({ signal }) => signal) - totals[side])) : null,
      snrDb: enough ? heard.reduce((sum, one) => sum + one, 0) / heard.length : null,
      ...(interval ? { interval } : {}),
    };
  });
}

/** Two recordings on the same list. */
export interface ComparedSnr {
  readonly rows: readonly {
    readonly freqHz: number;
    /** Second less first, dB; null where either does not hear it. */
    readonly differenceDb: number | null;
    /** Half the width of its interval, 95 %: the squares of both recordings' added. */
    readonly halfDb: number | null;
  }[];
  /** Over the frequencies that both heard, as pairs. */
  readonly overall?: PairedResult;
}

const halfOf = (interval: MeanInterval | undefined): number | null =>
  interval === undefined ? null : (interval.high - interval.low) / 2;

/** Second recording less the first, frequency by frequency and over all that both heard. */
export function comparedSnr(first: readonly ListedSnr[], second: readonly ListedSnr[]): ComparedSnr {
  const rows = first.map((one) => {
    const other = second.find(({ freqHz }) => freqHz === one.freqHz);
    const differenceDb = one.snrDb === null || other?.snrDb == null ? null : other.snrDb - one.snrDb;
    const [a, b] = [halfOf(one.interval), halfOf(other?.interval)];
    return {
      ...{ freqHz: one.freqHz, differenceDb },
      halfDb: differenceDb === null || a === null || b === null ? null : Math.hypot(a, b),
    };
  });
  const both = rows.flatMap(({ differenceDb }) => (differenceDb === null ? [] : [differenceDb]));
  return { rows, ...(both.length > 0 ? { overall: pairedDifferences(both) } : {}) };
}
