import { requireRange } from '../errors';
import { fourierPlan } from '../numeric/fft';
import { bytesPerFrame, type Recording } from './layout';

/** Moments read from the file at once: memory stays bounded whatever the file's length. */
const BLOCK_FRAMES = 1 << 17;

type Decoder = (bytes: Uint8Array, count: number, re: Float32Array, im: Float32Array) => void;
const littleEndianHost = new Uint8Array(new Uint16Array([1]).buffer)[0] === 1;

/** Reads single values of other layouts than the host's own. */
function valueReader(view: DataView, sample: string, little: boolean): (at: number) => number {
  switch (sample) {
    case 'u8':
      return (at) => (view.getUint8(at) - 128) / 128;
    case 'i8':
      return (at) => view.getInt8(at) / 128;
    case 'i16':
      return (at) => view.getInt16(at, little) / 32768;
    case 'i24':
      return (at) =>
        (little
          ? view.getInt8(at + 2) * 65536 + view.getUint16(at, true)
          : view.getInt8(at) * 65536 + view.getUint16(at + 1, false)) / 8388608;
    case 'i32':
      return (at) => view.getInt32(at, little) / 2147483648;
    case 'f64':
      return (at) => view.getFloat64(at, little);
    default:
      return (at) => view.getFloat32(at, little);
  }
}

/** How the bytes of a recording become values; full scale is 1. The second array stays as it is for one channel. */
function decoderOf({ layout }: Recording): Decoder {
  const { sample, channels, bigEndian } = layout;
  const fast = littleEndianHost && !bigEndian;
  if (fast && (sample === 'i16' || sample === 'f32')) {
    const scale = sample === 'i16' ? 1 / 32768 : 1;
    return (bytes, count, re, im) => {
      const values =
        sample === 'i16'
          ? new Int16Array(bytes.buffer, bytes.byteOffset, count * channels)
          : new Float32Array(bytes.buffer, bytes.byteOffset, count * channels);
      if (channels === 1) for (let i = 0; i < count; i += 1) re[i] = values[i] * scale;
      else
        for (let i = 0, k = 0; i < count; i += 1, k += 2) {
          re[i] = values[k] * scale;
          im[i] = values[k + 1] * scale;
        }
    };
  }
  const width = bytesPerFrame(layout) / channels;
  return (bytes, count, re, im) => {
    const read = valueReader(new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength), sample, !bigEndian);
    for (let i = 0; i < count; i += 1) {
      re[i] = read(i * channels * width);
      if (channels === 2) im[i] = read((i * channels + 1) * width);
    }
  };
}

/** Values of some moments; the arrays are used again for the next block. */
export interface Block {
  /** Number of the first moment. */
  readonly frame: number;
  readonly count: number;
  readonly re: Float32Array;
  readonly im: Float32Array;
}

/** A stretch of a recording, s from its start. */
export interface Stretch {
  readonly fromS: number;
  readonly toS: number;
}

/** First and last moment (not included) of a stretch, within the file. */
function framesIn({ layout }: Recording, stretch?: Stretch): readonly [from: number, to: number] {
  if (!stretch) return [0, layout.frames];
  requireRange(stretch.fromS, 'Start of the stretch (s)', 0, layout.frames / layout.sampleRateHz);
  requireRange(stretch.toS, 'End of the stretch (s)', stretch.fromS);
  return [
    Math.floor(stretch.fromS * layout.sampleRateHz),
    Math.min(layout.frames, Math.ceil(stretch.toS * layout.sampleRateHz)),
  ];
}

/** The samples of a stretch, block by block. */
export function* blocksOf(recording: Recording, stretch?: Stretch): Generator<Block> {
  const { source, layout } = recording;
  const decode = decoderOf(recording);
  const width = bytesPerFrame(layout);
  const [from, to] = framesIn(recording, stretch);
  const re = new Float32Array(BLOCK_FRAMES);
  const im = new Float32Array(BLOCK_FRAMES);
  for (let frame = from; frame < to; frame += BLOCK_FRAMES) {
    const bytes = source.read(layout.offset + frame * width, Math.min(BLOCK_FRAMES, to - frame) * width);
    const count = Math.floor(bytes.length / width);
    if (count === 0) return;
    // a view of wider values needs its bytes to begin on their width
    decode(bytes.byteOffset % 8 === 0 ? bytes : bytes.slice(), count, re, im);
    // the second of two receivers is read as the first would be
    yield recording.channel === 1 ? { frame, count, re: im, im: re } : { frame, count, re, im };
  }
}

/** Powers of one windowed transform; the array is used again for the next. */
export interface Transform {
  /** Number of its first moment. */
  readonly frame: number;
  /** Power per bin, relative to a sine of full scale; their sum over a band is the power there. Lowest frequency first. */
  readonly power: Float64Array;
}

/** What a run of transforms looks at. */
export interface Transforms {
  /** Moments of one, a power of two. */
  readonly length: number;
  /** Moments from one to the next. */
  readonly hop: number;
  /** Bins of the result, and the frequency of each bin's middle from the recording's centre, Hz. */
  readonly bins: number;
  readonly binHz: number;
  readonly firstHz: number;
}

/** @param length moments of one transform. @param hop from one to the next; half a length for Hann's window loses nothing. */
export function transformsOf({ layout }: Recording, length: number, hop = length / 2): Transforms {
  const binHz = layout.sampleRateHz / length;
  const complex = layout.meaning === 'iq';
  return {
    ...{ length, hop, binHz },
    bins: complex ? length : length / 2,
    firstHz: complex ? -layout.sampleRateHz / 2 : 0,
  };
}

/**
 * Windowed transforms (Hann) through a stretch of a recording, streaming: memory does not grow with the file.
 * Normalised by Parseval: Σ|X|² over N·Σw² is the mean square. Source: Welch, IEEE Trans. Audio Electroacoust. 15 (1967) 70; Harris, Proc. IEEE 66 (1978) 51.
 */
export function* transforms(
  recording: Recording,
  { length, hop, bins }: Transforms,
  stretch?: Stretch,
): Generator<Transform> {
  const complex = recording.layout.meaning === 'iq';
  const plan = fourierPlan(length);
  const window = Float64Array.from({ length }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / length));
  const energy = window.reduce((sum, w) => sum + w * w, 0);
  // a real sine of full scale has half the power of a complex one, and half of that in either half of the spectrum
  const scale = (complex ? 1 : 4) / (length * energy);
  const re = new Float64Array(length);
  const im = new Float64Array(length);
  const power = new Float64Array(bins);
  let heldRe = new Float32Array(0);
  let heldIm = new Float32Array(0);
  let heldFrame = -1;
  for (const block of blocksOf(recording, stretch)) {
    const kept = heldRe.length;
    const nextRe = new Float32Array(kept + block.count);
    const nextIm = new Float32Array(complex ? kept + block.count : 0);
    nextRe.set(heldRe);
    nextRe.set(block.re.subarray(0, block.count), kept);
    if (complex) {
      nextIm.set(heldIm);
      nextIm.set(block.im.subarray(0, block.count), kept);
    }
    if (heldFrame < 0) heldFrame = block.frame;
    let at = 0;
    for (; at + length <= nextRe.length; at += hop) {
      for (let i = 0; i < length; i += 1) re[i] = nextRe[at + i] * window[i];
      if (complex) for (let i = 0; i < length; i += 1) im[i] = nextIm[at + i] * window[i];
      else im.fill(0);
      plan.forward(re, im);
      if (complex) {
        const half = length >> 1;
        // frequencies below the centre come second out of the transform and stand first here
        for (let k = 0; k < half; k += 1) {
          power[k] = (re[k + half] * re[k + half] + im[k + half] * im[k + half]) * scale;
          power[k + half] = (re[k] * re[k] + im[k] * im[k]) * scale;
        }
      } else for (let k = 0; k < bins; k += 1) power[k] = (re[k] * re[k] + im[k] * im[k]) * scale;
      yield { frame: heldFrame + at, power };
    }
    heldRe = nextRe.slice(at);
    heldIm = nextIm.slice(at);
    heldFrame += at;
  }
}

/** Weight of each bin in a band: 1 inside, the part that lies inside at its ends. */
export interface BandWeights {
  readonly first: number;
  readonly weights: Float64Array;
}

/**
 * @param band middle from the recording's centre, and width, Hz.
 * @throws OutOfRangeError for a band that the recording does not hold.
 */
export function bandWeights(
  { layout }: Recording,
  { bins, binHz, firstHz }: Transforms,
  band: { readonly offsetHz: number; readonly bandwidthHz: number },
): BandWeights {
  const [low, high] = [band.offsetHz - band.bandwidthHz / 2, band.offsetHz + band.bandwidthHz / 2];
  const lowest = layout.meaning === 'iq' ? -layout.sampleRateHz / 2 : 0;
  requireRange(band.bandwidthHz, 'Bandwidth (Hz)', Number.MIN_VALUE, layout.sampleRateHz);
  requireRange(low, 'Lower edge of the band (Hz from the centre)', lowest, layout.sampleRateHz / 2);
  requireRange(high, 'Upper edge of the band (Hz from the centre)', lowest, layout.sampleRateHz / 2);
  const place = (hz: number): number => (hz - firstHz) / binHz;
  const first = Math.max(0, Math.round(place(low)));
  const last = Math.min(bins - 1, Math.round(place(high)));
  const weights = Float64Array.from({ length: Math.max(1, last - first + 1) }, (_, i) => {
    const bin = first + i;
    return Math.max(0, Math.min(place(high), bin + 0.5) - Math.max(place(low), bin - 0.5));
  });
  return { first, weights };
}

export function powerIn(power: Float64Array, { first, weights }: BandWeights): number {
  let sum = 0;
  for (let i = 0; i < weights.length; i += 1) sum += weights[i] * power[first + i];
  return sum;
}

/** The power of two at or above a number, between limits. */
export function powerOfTwo(least: number, low = 16, high = 1 << 17): number {
  let length = low;
  while (length < least && length < high) length *= 2;
  return length;
}

/** @returns dB of a power; −300 for none. */
export const dbfs = (power: number): number => (power > 1e-30 ? 10 * Math.log10(power) : -300);
