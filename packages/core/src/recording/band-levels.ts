import { requirePositive } from '../errors';
import { quantile } from '../numeric/statistics';
import { bandWeights, dbfs, powerIn, powerOfTwo, transforms, transformsOf, type Stretch } from './frames';
import type { Recording } from './layout';

/** A band that is measured. */
export interface Band {
  /** Middle, Hz from the recording's centre. */
  readonly offsetHz: number;
  readonly bandwidthHz: number;
}

/** Powers over time in two bands alike: the signal's, and a quiet one beside it. */
export interface BandSeries {
  /** Middle of the first value, s from the start of the recording, and from one value to the next. */
  readonly startS: number;
  readonly stepS: number;
  /** Power in the signal's band, relative to a sine of full scale; the noise is in it. */
  readonly signal: Float64Array;
  /** Power in the quiet band, taken to the same width. */
  readonly noise: Float64Array;
}

/** Bins that a band takes at least: Hann's window smears over two. */
const LEAST_BINS = 8;
/** Values of a series at most; a longer recording is averaged over longer steps. */
const MOST_VALUES = 400_000;

/**
 * Power in the band of a signal and in a quiet band of the same width, over time.
 * @throws OutOfRangeError for bands that the recording does not hold.
 */
export function* bandSeries(
  recording: Recording,
  signal: Band,
  noise: Band,
  stretch?: Stretch,
): Generator<{ readonly share: number }, BandSeries> {
  requirePositive(signal.bandwidthHz, 'Bandwidth (Hz)');
  const { sampleRateHz, frames } = recording.layout;
  const narrowest = Math.min(signal.bandwidthHz, noise.bandwidthHz);
  const plan = transformsOf(recording, powerOfTwo((LEAST_BINS * sampleRateHz) / narrowest));
  const [first, last] = [stretch?.fromS ?? 0, Math.min(stretch?.toS ?? Infinity, frames / sampleRateHz)];
  const expected = ((last - first) * sampleRateHz) / plan.hop;
  const merge = Math.max(1, Math.ceil(expected / MOST_VALUES));
  const inSignal = bandWeights(recording, plan, signal);
  const inNoise = bandWeights(recording, plan, noise);
  const width = signal.bandwidthHz / noise.bandwidthHz;
  const out = { signal: [] as number[], noise: [] as number[] };
  let [count, sumSignal, sumNoise, seen] = [0, 0, 0, 0];
  for (const { power } of transforms(recording, plan, stretch)) {
    sumSignal += powerIn(power, inSignal);
    sumNoise += powerIn(power, inNoise) * width;
    count += 1;
    seen += 1;
    if (count === merge) {
      out.signal.push(sumSignal / merge);
      out.noise.push(sumNoise / merge);
      [count, sumSignal, sumNoise] = [0, 0, 0];
    }
    if (seen % 2048 === 0) yield { share: seen / expected };
  }
  return {
    startS: first + (plan.length + (merge - 1) * plan.hop) / (2 * sampleRateHz),
    stepS: (merge * plan.hop) / sampleRateHz,
    signal: Float64Array.from(out.signal),
    noise: Float64Array.from(out.noise),
  };
}

/** Level, noise and their ratio over a stretch. */
export interface BandLevel {
  /** Signal without the noise, dBFS; null where it does not stand out of the noise. */
  readonly levelDbfs: number | null;
  /** Noise in the same bandwidth, dBFS. */
  readonly noiseDbfs: number;
  readonly snrDb: number | null;
}

/** A signal must exceed the noise by this many standard errors of both, or it is none. */
const LEAST_SIGMAS = 3;

/** Mean of power over some values of a series, the noise taken out. */
export function levelOver(
  { signal, noise }: Pick<BandSeries, 'signal' | 'noise'>,
  from: number,
  to: number,
): BandLevel {
  let [sum, sumNoise, squares] = [0, 0, 0];
  const n = Math.max(1, to - from);
  for (let i = from; i < to; i += 1) {
    sum += signal[i];
    sumNoise += noise[i];
    squares += noise[i] * noise[i];
  }
  const mean = sumNoise / n;
  const error = Math.sqrt(Math.max(0, squares / n - mean * mean) / n);
  const net = sum / n - mean;
  const noiseDbfs = dbfs(mean);
  if (net <= LEAST_SIGMAS * Math.SQRT2 * error) return { levelDbfs: null, noiseDbfs, snrDb: null };
  return { levelDbfs: dbfs(net), noiseDbfs, snrDb: dbfs(net) - noiseDbfs };
}

/** Mean of power, median and the tenths of a series, dBFS. */
export interface Spread {
  readonly meanDbfs: number;
  readonly medianDbfs: number;
  readonly lowDbfs: number;
  readonly highDbfs: number;
}

export function spreadOf(power: Float64Array): Spread {
  const mean = power.reduce((sum, one) => sum + one, 0) / Math.max(1, power.length);
  return {
    meanDbfs: dbfs(mean),
    medianDbfs: dbfs(quantile(power, 0.5)),
    lowDbfs: dbfs(quantile(power, 0.1)),
    highDbfs: dbfs(quantile(power, 0.9)),
  };
}
