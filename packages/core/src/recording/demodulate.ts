import { requirePositive, requireRange } from '../errors';
import { fourierPlan, inverseFourierInPlace } from '../numeric/fft';
import { quantile } from '../numeric/statistics';
import { blocksOf, powerOfTwo, type Stretch } from './frames';
import type { Band } from './band-levels';
import type { Recording } from './layout';

/** How a signal is listened to. */
export type ListenMode = 'am' | 'usb' | 'lsb' | 'cw' | 'fm';

/** Sound, at most ±0.5 of full scale. */
export interface Sound {
  readonly rateHz: number;
  readonly samples: Float32Array<ArrayBuffer>;
}

/** Pitch at which a carrier in the middle of the band is heard in CW, Hz. */
const CW_PITCH_HZ = 700;
/** Longest stretch made into sound, s. */
export const MOST_LISTENED_S = 120;
/** Lowest rate of the sound, Hz. */
const LEAST_RATE_HZ = 8000;
/** Loud stretches sound at this share of full scale; nothing passes the other. */
const LOUD = 0.1;
const MOST = 0.5;
/** Length over which loudness is taken, s: a crash is shorter and does not turn the rest down. */
const LOUDNESS_S = 0.1;
/** Time over which a carrier's level is taken out of AM, s. */
const CARRIER_S = 0.05;
/** A band takes at least so many bins: its edges are then steep. */
const LEAST_BINS = 32;

/**
 * A band of a recording as baseband of a low rate: transforms of half-overlapping stretches of which the bins of the band are turned back.
 * Windows of sin² add up to one. Middle of the band at 0 Hz to within a bin, the rest turned back afterwards.
 */
function basebandOf(recording: Recording, band: Band, stretch: Stretch) {
  const { sampleRateHz, meaning } = recording.layout;
  const length = powerOfTwo((LEAST_BINS * sampleRateHz) / band.bandwidthHz, 1024);
  const binHz = sampleRateHz / length;
  const middle = Math.round(band.offsetHz / binHz);
  const half = band.bandwidthHz / 2 / binHz;
  let size = 64;
  while (size * binHz < LEAST_RATE_HZ || size < 2 * half) size *= 2;
  const rateHz = size * binHz;
  const plan = fourierPlan(length);
  const window = Float64Array.from({ length }, (_, i) => Math.sin((Math.PI * i) / length) ** 2);
  const hop = length / 2;
  const frames = Math.floor((stretch.toS - stretch.fromS) * sampleRateHz);
  const outHop = size / 2;
  const hops = Math.floor(frames / hop) + 1;
  const outRe = new Float64Array((hops + 1) * outHop);
  const outIm = new Float64Array((hops + 1) * outHop);
  const heldRe = new Float64Array(length);
  const heldIm = new Float64Array(length);
  let [filled, block] = [0, 0];
  const [re, im] = [new Float64Array(length), new Float64Array(length)];
  const [bandRe, bandIm] = [new Float64Array(size), new Float64Array(size)];
  const turn = (): void => {
    for (let i = 0; i < length; i += 1) {
      re[i] = heldRe[i] * window[i];
      im[i] = heldIm[i] * window[i];
    }
    plan.forward(re, im);
    bandRe.fill(0);
    bandIm.fill(0);
    // each hop begins half a length later: a bin of odd number has turned by half a turn
    const sign = (middle * block) % 2 === 0 ? 1 : -1;
    for (let k = -Math.floor(half); k <= Math.floor(half); k += 1) {
      const from = (((middle + k) % length) + length) % length;
      const to = (k + size) % size;
      bandRe[to] = (sign * re[from]) / length;
      bandIm[to] = (sign * im[from]) / length;
    }
    inverseFourierInPlace(bandRe, bandIm);
    for (let i = 0; i < size && block * outHop + i < outRe.length; i += 1) {
      outRe[block * outHop + i] += bandRe[i] * size;
      outIm[block * outHop + i] += bandIm[i] * size;
    }
    heldRe.copyWithin(0, hop);
    heldIm.copyWithin(0, hop);
    filled = hop;
    block += 1;
  };
  for (const { count, re: inRe, im: inIm } of blocksOf(recording, stretch)) {
    for (let i = 0; i < count; i += 1) {
      heldRe[filled] = inRe[i];
      heldIm[filled] = meaning === 'iq' ? inIm[i] : 0;
      filled += 1;
      if (filled === length) turn();
    }
  }
  if (filled > hop) {
    heldRe.fill(0, filled);
    heldIm.fill(0, filled);
    turn();
  }
  const offset = (band.offsetHz - middle * binHz) / rateHz;
  // what the first and the last stretch alone carry fades in and out
  const samples = block * outHop;
  return { rateHz, re: outRe.subarray(0, samples), im: outIm.subarray(0, samples), offset };
}

/** Multiplies by e^{j2π·turns·n}, in place. */
function turnBy(re: Float64Array, im: Float64Array, turns: number): void {
  for (let i = 0; i < re.length; i += 1) {
    const angle = 2 * Math.PI * ((turns * i) % 1);
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    const real = re[i] * c - im[i] * s;
    im[i] = re[i] * s + im[i] * c;
    re[i] = real;
  }
}

/**
 * A band of a recording as sound. USB is tuned to the band's lower edge and LSB to its upper; AM and FM to its middle; CW lets its middle sound at 700 Hz.
 * The volume is guarded: usual loudness at a tenth of full scale, nothing above half.
 * @throws OutOfRangeError for a band outside the recording or a stretch longer than two minutes.
 * Source: single sideband by a complex filter: Lyons, Understanding Digital Signal Processing, ch. 9 (from memory).
 */
export function soundOf(recording: Recording, band: Band, mode: ListenMode, stretch: Stretch): Sound {
  requirePositive(band.bandwidthHz, 'Bandwidth (Hz)');
  requireRange(stretch.toS - stretch.fromS, 'Length of the stretch (s)', 0.05, MOST_LISTENED_S);
  const half = recording.layout.sampleRateHz / 2;
  const lowest = recording.layout.meaning === 'iq' ? -half : 0;
  requireRange(band.offsetHz - band.bandwidthHz / 2, 'Lower edge of the band (Hz from the centre)', lowest, half);
  requireRange(band.offsetHz + band.bandwidthHz / 2, 'Upper edge of the band (Hz from the centre)', lowest, half);
  const { rateHz, re, im, offset } = basebandOf(recording, band, stretch);
  const edge = band.bandwidthHz / 2 / rateHz;
  const pitch: Readonly<Record<ListenMode, number>> = { am: 0, fm: 0, usb: edge, lsb: -edge, cw: CW_PITCH_HZ / rateHz };
  turnBy(re, im, pitch[mode] - offset);
  const sound = new Float64Array(re.length);
  if (mode === 'am') envelopeInto(sound, re, im, rateHz);
  else if (mode === 'fm') turningInto(sound, re, im);
  else sound.set(re);
  return { rateHz, samples: guarded(sound, rateHz) };
}

/** out = the envelope without its slow mean. */
function envelopeInto(out: Float64Array, re: Float64Array, im: Float64Array, rateHz: number): void {
  const share = 1 / (CARRIER_S * rateHz);
  let mean = Math.hypot(re[0] ?? 0, im[0] ?? 0);
  for (let i = 0; i < re.length; i += 1) {
    const envelope = Math.hypot(re[i], im[i]);
    mean += share * (envelope - mean);
    out[i] = envelope - mean;
  }
}

/** out = the turning from one sample to the next, radians. */
function turningInto(out: Float64Array, re: Float64Array, im: Float64Array): void {
  for (let i = 1; i < re.length; i += 1)
    out[i] = Math.atan2(im[i] * re[i - 1] - re[i] * im[i - 1], re[i] * re[i - 1] + im[i] * im[i - 1]);
}

/** Usual loudness made the same for every recording; what is louder is cut, for the ears. */
function guarded(sound: Float64Array, rateHz: number): Float32Array<ArrayBuffer> {
  const size = Math.max(1, Math.round(LOUDNESS_S * rateHz));
  const loud = Array.from({ length: Math.max(1, Math.floor(sound.length / size)) }, (_, i) =>
    Math.sqrt(sound.subarray(i * size, (i + 1) * size).reduce((sum, one) => sum + one * one, 0) / size),
  );
  const usual = quantile(loud, 0.5);
  const gain = usual > 0 ? LOUD / usual : 0;
  return Float32Array.from(sound, (one) => Math.max(-MOST, Math.min(MOST, one * gain)));
}
