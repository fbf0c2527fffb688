import { requirePositive } from '../errors';
import { floorSteps } from '../noise/floor-log';
import { median } from '../numeric/statistics';
import type { Band } from './band-levels';
import { bandWeights, dbfs, powerIn, powerOfTwo, transforms, transformsOf, blocksOf, type Stretch } from './frames';
import { secondsOf, type Recording } from './layout';

/** A lasting change of the noise in a recording. */
interface RecordedStep {
  readonly atS: number;
  readonly beforeDbfs: number;
  readonly afterDbfs: number;
}

/** The noise over a recording, without what ticks in it. */
export interface RecordedFloor {
  /** Middle of each value, s, and the noise in the asked bandwidth there, dBFS. */
  readonly atS: readonly number[];
  readonly levelDbfs: readonly number[];
  readonly medianDbfs: number;
  readonly steps: readonly RecordedStep[];
}

/** Values of a log: a second each, longer in a long recording. */
const MOST_SECONDS = 7200;
/** Share of the band, at its edges, where receivers' own filters fall off. */
const EDGE_SHARE = 0.1;
/** Transforms that make up one bandwidth: so short that a tick spoils few of them. */
const PER_BANDWIDTH = 3;

/**
 * Mean power of values that follow a gamma distribution of so many degrees of freedom is exceeded this many times by none of a million.
 * Checked against the incomplete gamma function in the tests.
 */
export const burstRatio = (independent: number): number => 1 + 5 / Math.sqrt(independent) + 9 / independent;

/**
 * Noise of a recording second by second: the median over the frequencies of its band, or the mean in a quiet band that is named, of transforms
 * without ticks; its median and its lasting steps.
 * @param bandwidthHz bandwidth to which the level refers.
 * @param quiet a band known to be quiet; absent: all the band but its edges, of which carriers are outliers.
 * @throws OutOfRangeError for bands that the recording does not hold.
 */
export function* recordedFloor(
  recording: Recording,
  bandwidthHz: number,
  quiet?: Band,
  stretch?: Stretch,
): Generator<{ readonly share: number }, RecordedFloor> {
  requirePositive(bandwidthHz, 'Bandwidth (Hz)');
  const { sampleRateHz } = recording.layout;
  const plan = transformsOf(recording, powerOfTwo((PER_BANDWIDTH * sampleRateHz) / bandwidthHz));
  const band = quiet && bandWeights(recording, plan, quiet);
  const seconds = (stretch?.toS ?? secondsOf(recording.layout)) - (stretch?.fromS ?? 0);
  const lengthS = Math.max(1, Math.ceil(seconds / MOST_SECONDS));
  const perValue = Math.ceil((lengthS * sampleRateHz) / plan.hop) + 1;
  const startS = stretch?.fromS ?? 0;
  const from = Math.ceil(EDGE_SHARE * plan.bins);
  const [first, last] =
    recording.layout.meaning === 'iq' ? [from, plan.bins - from] : [Math.max(2, from >> 1), plan.bins - from];
  // transforms of one value, kept until it is whole: those with a tick are then left out
  const powers = Array.from({ length: perValue }, () => new Float64Array(plan.bins));
  const atS: number[] = [];
  const levelDbfs: number[] = [];
  const finish = (count: number, number: number): void => {
    const used = powers.slice(0, count);
    const totals = used.map((power) => power.reduce((sum, one) => sum + one, 0));
    const most = median(totals) * burstRatio(plan.bins / 2);
    const clean = used.filter((_, i) => totals[i] <= most);
    const density = (bin: number): number => clean.reduce((sum, power) => sum + power[bin], 0) / clean.length;
    // the median of means of n powers lies below their mean by 1/3n
    const level = band
      ? (clean.reduce((sum, power) => sum + powerIn(power, band), 0) / clean.length) *
        (bandwidthHz / (quiet?.bandwidthHz ?? 1))
      : (median(Array.from({ length: last - first }, (_, i) => density(first + i))) *
          (1 + 2 / (3 * clean.length)) *
          bandwidthHz) /
        plan.binHz;
    atS.push(startS + (number + 0.5) * lengthS);
    levelDbfs.push(dbfs(level));
  };
  let [count, seen, current] = [0, 0, 0];
  for (const { frame, power } of transforms(recording, plan, stretch)) {
    const number = Math.floor(((frame + plan.length / 2) / sampleRateHz - startS) / lengthS);
    if (number !== current && count > 0) {
      finish(count, current);
      count = 0;
    }
    current = number;
    powers[count].set(power);
    count += 1;
    seen += 1;
    if (seen % 1024 === 0) yield { share: (seen * plan.hop) / (seconds * sampleRateHz) };
  }
  // a last value of a few moments would scatter more than the others
  if (count > perValue / 2 || (count > 0 && levelDbfs.length === 0)) finish(count, current);
  const steps = floorSteps(levelDbfs.map((levelDbm, i) => ({ atMs: 1000 * atS[i], levelDbm })));
  return {
    ...{ atS, levelDbfs },
    medianDbfs: median(levelDbfs),
    steps: steps.map(({ atMs, beforeDbm, afterDbm }) => ({
      atS: atMs / 1000 - lengthS / 2,
      beforeDbfs: beforeDbm,
      afterDbfs: afterDbm,
    })),
  };
}

/** What ticks in a recording. */
export interface RecordedPulses {
  readonly count: number;
  /** Time from one to the next, s: of a regular train to a part in a thousand, else the usual gap; null for fewer than three. */
  readonly intervalS: number | null;
  readonly regular: boolean;
  /** When each came, s, as far as they are listed. */
  readonly atS: readonly number[];
}

/** Time in which power is averaged before a tick is looked for, s. */
const TICK_S = 0.001;
/** The level without ticks is the median of so many values; where it steps, the higher one of neighbours counts. */
const LOCAL = 256;
/** Ticks at most that are looked at; more are a hiss. */
const MOST_TICKS = 50_000;
/** Gaps of a regular train are whole multiples of its interval within this share of it. */
const REGULAR = 0.08;
const LEAST_TRAIN = 8;

/** Interval of a train of which some ticks may be missing: least squares over whole numbers that grow with the times. */
function trainInterval(times: readonly number[]): { readonly intervalS: number; readonly regular: boolean } {
  const gaps = times.slice(1).map((at, i) => at - times[i]);
  const usual = median(gaps);
  const off = median(gaps.map((gap) => Math.abs(gap / usual - Math.max(1, Math.round(gap / usual)))));
  if (times.length < LEAST_TRAIN || off > REGULAR) return { intervalS: usual, regular: false };
  let interval = usual;
  // the estimate of the first few counts the next ones right: it is refined as it goes
  for (let n = LEAST_TRAIN; ; n = Math.min(times.length, 2 * n)) {
    let number = 0;
    let [sumN, sumT, sumNN, sumNT] = [0, 0, 0, 0];
    for (let i = 0; i < n; i += 1) {
      if (i > 0) number += Math.max(1, Math.round((times[i] - times[i - 1]) / interval));
      sumN += number;
      sumT += times[i];
      sumNN += number * number;
      sumNT += number * times[i];
    }
    interval = (n * sumNT - sumN * sumT) / (n * sumNN - sumN * sumN);
    if (n === times.length) return { intervalS: interval, regular: true };
  }
}

/** Short bursts over the noise of the whole band: how many, how regular. */
export function* recordedPulses(
  recording: Recording,
  stretch?: Stretch,
): Generator<{ readonly share: number }, RecordedPulses> {
  const { sampleRateHz, meaning } = recording.layout;
  const size = Math.max(1, Math.round(TICK_S * sampleRateHz));
  // real samples have one degree of freedom each, I and Q two
  const ratio = burstRatio(meaning === 'iq' ? size : size / 2);
  const independent = meaning === 'iq' ? size : size / 2;
  // the median of an exponential is ln 2 of its mean; of averages it is nearly the mean
  const overMedian = ratio / (1 - (1 - Math.LN2) / Math.max(1, independent));
  const times: number[] = [];
  const startFrame = Math.floor((stretch?.fromS ?? 0) * sampleRateHz);
  let [lastHit, best, looked] = [-Infinity, 0, 0];
  /** Stretches of values, the one looked at in the middle. */
  let window: { readonly powers: readonly number[]; readonly middle: number }[] = [];
  const look = (powers: readonly number[], middles: readonly number[]): void => {
    const most = Math.max(...middles) * overMedian;
    powers.forEach((power, i) => {
      if (power <= most) return;
      const at = (startFrame + (looked + i + 0.5) * size) / sampleRateHz;
      // what follows at once belongs to the same tick; its strongest moment counts
      if (at - lastHit > (3.5 * size) / sampleRateHz) {
        if (times.length < MOST_TICKS) times.push(at);
        best = power;
      } else if (power > best) {
        times[times.length - 1] = at;
        best = power;
      }
      lastHit = at;
    });
    looked += powers.length;
  };
  let held: number[] = [];
  const next = (last: boolean): void => {
    if (held.length > 0) window.push({ powers: held, middle: median(held) });
    held = [];
    const middles = window.map(({ middle }) => middle);
    if (window.length === 2 && looked === 0) look(window[0].powers, middles);
    if (window.length === 3) look(window[1].powers, middles);
    window = window.slice(-2);
    if (last && window.length > 0) look(window[window.length - 1].powers, middles.slice(-2));
  };
  let [sum, count] = [0, 0];
  for (const block of blocksOf(recording, stretch)) {
    for (let i = 0; i < block.count; i += 1) {
      sum += block.re[i] * block.re[i] + (meaning === 'iq' ? block.im[i] * block.im[i] : 0);
      count += 1;
      if (count < size) continue;
      held.push(sum / size);
      [sum, count] = [0, 0];
      if (held.length === LOCAL) next(false);
    }
    yield { share: (block.frame + block.count) / recording.layout.frames };
  }
  next(true);
  return {
    count: times.length,
    atS: times,
    ...(times.length < 3 ? { intervalS: null, regular: false } : trainInterval(times)),
  };
}
