import { requirePositive, ShapeError } from '../errors';
import { studentQuantile } from '../numeric/special';
import { median } from '../numeric/statistics';
import { blocksOf, powerOfTwo, transforms, transformsOf, type Stretch } from './frames';
import { secondsOf, type Recording } from './layout';

/** A carrier of known frequency as the receiver shows it. */
export interface StandardOffset {
  /** Shown less true frequency, Hz, in the middle of the stretch. */
  readonly offsetHz: number;
  /** The same against the true frequency, millionths. */
  readonly ppm: number;
  /** 95 % interval of the offset, Hz. */
  readonly lowHz: number;
  readonly highHz: number;
  /** Change over the stretch, Hz a minute. */
  readonly driftHzPerMin: number;
  /** How far the carrier stands over the noise in 1 Hz, dB. */
  readonly carrierToNoiseDb: number;
}

/** A receiver's oscillator is no farther off than this, millionths, or this many Hz. */
const MOST_PPM = 150;
const LEAST_REACH_HZ = 100;
/** Looks of the finest transform that are averaged at least. */
const LEAST_LOOKS = 4;
/** Below this height over its surroundings a line is chance, dB. */
const LEAST_HEIGHT_DB = 12;
/** Phases from which frequency is fitted. */
const PHASES = 60;

/** The strongest line within reach of an offset: coarse frequency, and height over the median, dB. */
function* strongestLine(recording: Recording, aroundHz: number, reachHz: number, stretch?: Stretch) {
  const { frames, sampleRateHz } = recording.layout;
  const count = stretch ? (stretch.toS - stretch.fromS) * sampleRateHz : frames;
  const plan = transformsOf(recording, powerOfTwo(count / LEAST_LOOKS / 2, 64, 1 << 16));
  const mean = new Float64Array(plan.bins);
  for (const { power } of transforms(recording, plan, stretch)) {
    for (let i = 0; i < mean.length; i += 1) mean[i] += power[i];
    yield { share: 0.4 };
  }
  const near = Array.from(mean, (power, i) => ({ hz: plan.firstHz + i * plan.binHz, power })).filter(
    ({ hz }) => Math.abs(hz - aroundHz) <= reachHz,
  );
  if (near.length < 16)
    throw new ShapeError(
      'Too little of the recording lies around that frequency. Record a longer stretch, or a wider band.',
    );
  const top = near.reduce((best, one) => (one.power > best.power ? one : best));
  const floor = median(near.map(({ power }) => power));
  return { hz: top.hz, heightDb: 10 * Math.log10(top.power / floor), binHz: plan.binHz };
}

/**
 * Offset of a receiver's scale from a carrier whose frequency is known: the strongest line near it, its frequency from the run of its phase.
 * @param standardHz true frequency. @throws ShapeError when no carrier stands out there.
 * Source of the fit: Tretter, IEEE Trans. Inf. Theory 31 (1985) 832 (frequency by regression of the phase).
 */
export function* standardOffset(
  recording: Recording,
  standardHz: number,
  stretch?: Stretch,
): Generator<{ readonly share: number }, StandardOffset> {
  requirePositive(standardHz, 'Frequency of the standard (Hz)');
  const { sampleRateHz, meaning } = recording.layout;
  const aroundHz = standardHz - recording.centreHz;
  const reach = Math.max(LEAST_REACH_HZ, (MOST_PPM * standardHz) / 1e6);
  const line = yield* strongestLine(recording, aroundHz, reach, stretch);
  if (line.heightDb < LEAST_HEIGHT_DB)
    throw new ShapeError(
      `No carrier stands out within ${reach.toFixed(0)} Hz of the standard. Check the recording's centre frequency, or record when the station is strong.`,
    );
  const seconds = (stretch?.toS ?? secondsOf(recording.layout)) - (stretch?.fromS ?? 0);
  // blocks so short that the coarse frequency turns the phase by far less than half a turn in each
  const size = Math.max(8, Math.floor(Math.min((seconds * sampleRateHz) / PHASES, sampleRateHz / (3 * line.binHz))));
  const phasors: Phasor[] = [];
  const step = (-2 * Math.PI * line.hz) / sampleRateHz;
  let [re, im, count] = [0, 0, 0];
  for (const block of blocksOf(recording, stretch)) {
    for (let i = 0; i < block.count; i += 1) {
      const angle = step * (block.frame + i);
      const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
      const q = meaning === 'iq' ? block.im[i] : 0;
      re += block.re[i] * cos - q * sin;
      im += block.re[i] * sin + q * cos;
      count += 1;
      if (count === size) {
        phasors.push({ re: re / size, im: im / size });
        [re, im, count] = [0, 0, 0];
      }
    }
    yield { share: 0.4 + (0.6 * (block.frame + block.count)) / recording.layout.frames };
  }
  const blockS = size / sampleRateHz;
  const fit = phaseFit(phasors, blockS);
  const offsetHz = line.hz + fit.hz - aroundHz;
  return {
    offsetHz,
    ppm: (1e6 * offsetHz) / standardHz,
    lowHz: offsetHz - fit.halfHz,
    highHz: offsetHz + fit.halfHz,
    driftHzPerMin: fit.driftHzPerS * 60,
    carrierToNoiseDb: line.heightDb + 10 * Math.log10(line.binHz),
  };
}

interface Phasor {
  readonly re: number;
  readonly im: number;
}

/** Turn per block that brings most phasors into line, rad: the peak of their periodogram, the most likely frequency of one carrier in white noise. */
function commonTurn(phasors: readonly Phasor[]): number {
  const { cos, sin, PI } = Math;
  const lined = (turn: number): number => {
    let [re, im] = [0, 0];
    phasors.forEach((one, i) => {
      const [c, s] = [cos(turn * i), -sin(turn * i)];
      re += one.re * c - one.im * s;
      im += one.re * s + one.im * c;
    });
    return re * re + im * im;
  };
  const fine = 8 * phasors.length;
  let best = 0;
  for (let k = -fine / 2; k < fine / 2; k += 1) {
    const turn = (2 * PI * k) / fine;
    if (lined(turn) > lined(best)) best = turn;
  }
  return best;
}

/** Phases that go on from their neighbours, outward from the strongest, after a common turn is taken off. */
function runningPhases(phasors: readonly Phasor[], turn: number): readonly number[] {
  const raw = phasors.map(({ re, im }, i) => Math.atan2(im, re) - turn * i);
  const sizes = phasors.map(({ re, im }) => re * re + im * im);
  const middle = sizes.indexOf(Math.max(...sizes));
  const phases = raw.slice();
  for (const way of [-1, 1])
    for (let i = middle + way; i >= 0 && i < raw.length; i += way) {
      // what the last few say, the weak ones less
      let [sum, weight] = [0, 0];
      for (let k = 1; k <= LOOK_BACK && (i - way * k - middle) * way >= 0; k += 1) {
        sum += sizes[i - way * k] * phases[i - way * k];
        weight += sizes[i - way * k];
      }
      const lead = weight > 0 ? sum / weight : 0;
      phases[i] = raw[i] + 2 * Math.PI * Math.round((lead - raw[i]) / (2 * Math.PI));
    }
  return phases;
}
const LOOK_BACK = 4;

/** Frequency in the middle, its 95 % half width and its drift, from phases of equal spacing, weighted by power. */
function phaseFit(phasors: readonly Phasor[], blockS: number) {
  const n = phasors.length;
  const turn = commonTurn(phasors);
  const phases = runningPhases(phasors, turn);
  const weights = phasors.map(({ re, im }) => re * re + im * im);
  const total = weights.reduce((sum, w) => sum + w, 0);
  const t = phases.map((_, i) => (i - (n - 1) / 2) * blockS);
  const mean = (of: (i: number) => number): number => weights.reduce((sum, w, i) => sum + w * of(i), 0) / total;
  const t1 = mean((i) => t[i]);
  const quadratic = (i: number): number => (t[i] - t1) ** 2;
  const t2 = mean(quadratic);
  const y1 = mean((i) => phases[i]);
  const slope = mean((i) => (t[i] - t1) * (phases[i] - y1)) / t2;
  const curveNorm = mean((i) => (quadratic(i) - t2) ** 2);
  const curve = mean((i) => (quadratic(i) - t2) * (phases[i] - y1 - slope * (t[i] - t1))) / curveNorm;
  const rests = phases.map((phase, i) => phase - y1 - slope * (t[i] - t1) - curve * (quadratic(i) - t2));
  const variance = mean((i) => rests[i] ** 2) * (n / Math.max(1, n - 3));
  // fading turns the phase slowly: neighbours that go together count for fewer
  const alike =
    rests.slice(1).reduce((sum, rest, i) => sum + rest * rests[i], 0) /
    rests.reduce((sum, rest) => sum + rest * rest, 1e-300);
  const stretchRatio = (1 + Math.max(0, alike)) / (1 - Math.min(0.98, Math.max(0, alike)));
  const effective = (total * total) / weights.reduce((sum, w) => sum + w * w, 0);
  const error = Math.sqrt((variance / (t2 * effective)) * stretchRatio);
  return {
    hz: (slope + turn / blockS) / (2 * Math.PI),
    halfHz: (studentQuantile(0.975, Math.max(1, n - 3)) * error) / (2 * Math.PI),
    driftHzPerS: curve / Math.PI,
  };
}
