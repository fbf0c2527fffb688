import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { fourierPlan } from '../numeric/fft';
import { noisePeak } from '../sweep/noise-peak';
import { bandSeries, levelOver, spreadOf } from './band-levels';
import { standardOffset } from './carrier';
import { combIn, spectrumLines } from './comb';
import { burstRatio, recordedFloor, recordedPulses } from './floor';
import { transforms, transformsOf } from './frames';
import {
  bandOf,
  type ByteSource,
  type Recording,
  recordingOf,
  type RecordingLayout,
  type SampleFormat,
} from './layout';
import { chanceOf, madeSwitched, wavOf } from './made';
import { meanSpectrum, peakOf, waterfall } from './picture';
import { datasetNamed, readSigmfLayout, withAnnotations } from './sigmf';
import { plannedTurns, switchedTurns, switchingPeriodS } from './switching';
import { readWavLayout } from './wav';

const sourceOf = (bytes: Uint8Array): ByteSource => ({
  size: bytes.length,
  read: (offset, length) => bytes.slice(offset, offset + length),
});
const ended = <A>(steps: Generator<unknown, A>): A => {
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
  }
};

/** Values as a recording of 32-bit floats, as they are. */
function recordingFrom(
  values: Float32Array,
  sampleRateHz: number,
  meaning: 'iq' | 'real' | 'two',
  centreHz = 0,
): Recording {
  const bytes = new Uint8Array(values.buffer);
  const channels = meaning === 'real' ? 1 : 2;
  return recordingOf(
    sourceOf(bytes),
    {
      ...{ sample: 'f32', bigEndian: false, channels, meaning, sampleRateHz, offset: 0 },
      ...{ frames: values.length / channels, captures: [], annotations: [], remarks: [] },
    },
    { centreHz },
  );
}

/** I and Q of a rule over time, s. */
function iqOf(sampleRateHz: number, seconds: number, rule: (s: number) => readonly [number, number]): Float32Array {
  const out = new Float32Array(2 * Math.floor(sampleRateHz * seconds));
  for (let i = 0; i < out.length / 2; i += 1) [out[2 * i], out[2 * i + 1]] = rule(i / sampleRateHz);
  return out;
}

describe('transform', () => {
  // the definition, written down: X[k] = Σ x[n] e^{−j2πkn/N}
  test.each([2, 4, 8, 32, 128])('of %d points equals the sum of its definition', (n) => {
    const chance = chanceOf(n);
    const re = Float64Array.from({ length: n }, chance.normal);
    const im = Float64Array.from({ length: n }, chance.normal);
    const [fr, fi] = [re.slice(), im.slice()];
    fourierPlan(n).forward(fr, fi);
    for (let k = 0; k < n; k += 1) {
      let [sr, si] = [0, 0];
      for (let m = 0; m < n; m += 1) {
        const angle = (-2 * Math.PI * k * m) / n;
        sr += re[m] * Math.cos(angle) - im[m] * Math.sin(angle);
        si += re[m] * Math.sin(angle) + im[m] * Math.cos(angle);
      }
      expect(fr[k]).toBeCloseTo(sr, 9);
      expect(fi[k]).toBeCloseTo(si, 9);
    }
  });
  test('refuses what is no power of two', () => {
    expect(() => fourierPlan(12)).toThrow(/power of two/);
  });
});

describe('files', () => {
  /** A WAV file of any format, by the published layout. */
  function wavBytes(ask: {
    tag: number;
    bits: number;
    channels: number;
    rate: number;
    data: Uint8Array;
    extensible?: boolean;
    rf64?: boolean;
    toldBytes?: number;
    odd?: boolean;
  }): Uint8Array {
    const parts: number[] = [];
    const text = (word: string) => [...word].forEach((letter) => parts.push(letter.charCodeAt(0)));
    const u16 = (value: number) => parts.push(value & 255, (value >> 8) & 255);
    const u32 = (value: number) => {
      u16(value & 0xffff);
      u16(value >>> 16);
    };
    text(ask.rf64 ? 'RF64' : 'RIFF');
    u32(ask.rf64 ? 0xffffffff : 0);
    text('WAVE');
    if (ask.rf64) {
      text('ds64');
      u32(28);
      u32(0);
      u32(0);
      u32(ask.data.length);
      u32(0);
      u32(0);
      u32(0);
      u32(0);
    }
    if (ask.odd) {
      text('note');
      u32(3);
      parts.push(1, 2, 3, 0);
    }
    text('fmt ');
    u32(ask.extensible ? 40 : 16);
    u16(ask.extensible ? 0xfffe : ask.tag);
    u16(ask.channels);
    u32(ask.rate);
    u32((ask.rate * ask.channels * ask.bits) / 8);
    u16((ask.channels * ask.bits) / 8);
    u16(ask.bits);
    if (ask.extensible) {
      u16(22);
      u16(ask.bits);
      u32(3);
      u16(ask.tag);
      for (let i = 0; i < 14; i += 1) parts.push(0);
    }
    text('data');
    u32(ask.rf64 ? 0xffffffff : (ask.toldBytes ?? ask.data.length));
    return Uint8Array.from([...parts, ...ask.data]);
  }
  /** Values in a sample format, little-endian or big. */
  function encoded(values: readonly number[], format: SampleFormat, little = true): Uint8Array {
    const width = { u8: 1, i8: 1, i16: 2, i24: 3, i32: 4, f32: 4, f64: 8 }[format];
    const out = new Uint8Array(values.length * width);
    const view = new DataView(out.buffer);
    values.forEach((value, i) => {
      const at = i * width;
      if (format === 'u8') view.setUint8(at, Math.round(128 + value * 127));
      else if (format === 'i8') view.setInt8(at, Math.round(value * 127));
      else if (format === 'i16') view.setInt16(at, Math.round(value * 32767), little);
      else if (format === 'i32') view.setInt32(at, Math.round(value * 2147483647), little);
      else if (format === 'f32') view.setFloat32(at, value, little);
      else if (format === 'f64') view.setFloat64(at, value, little);
      else {
        const whole = Math.round(value * 8388607) & 0xffffff;
        const three = [whole & 255, (whole >> 8) & 255, whole >> 16];
        out.set(little ? three : three.reverse(), at);
      }
    });
    return out;
  }
  const SQUARE = Array.from({ length: 64 }, (_, i) => (i % 16 < 8 ? 0.5 : -0.5));
  const firstValues = (recording: Recording): number => ended(peakOf(recording)).peakDbfs;

  test.each([
    [1, 8, 'u8'],
    [1, 16, 'i16'],
    [1, 24, 'i24'],
    [1, 32, 'i32'],
    [3, 32, 'f32'],
    [3, 64, 'f64'],
  ] as const)('WAV format %d of %d bits, plain, extensible and RF64', (tag, bits, format) => {
    const data = encoded(SQUARE, format);
    for (const more of [{}, { extensible: true }, { rf64: true }, { odd: true }]) {
      const bytes = wavBytes({ tag, bits, channels: 1, rate: 48000, data, ...more });
      const layout = readWavLayout(sourceOf(bytes));
      expect(layout).toMatchObject({ sample: format, frames: 64, sampleRateHz: 48000, meaning: 'real', remarks: [] });
      // half of full scale: −6.02 dB
      expect(firstValues(recordingOf(sourceOf(bytes), layout))).toBeCloseTo(-6.02, 0);
    }
  });
  test.each(['cf32_le', 'cf32_be', 'ci16_le', 'ci16_be', 'ci8', 'cu8', 'rf32_le', 'ri16_le', 'ri16_be', 'ci32_be'])(
    'SigMF datatype %s',
    (datatype) => {
      const format = /(f32|i32|i16|i8|u8)/.exec(datatype)?.[1] as SampleFormat;
      const data = encoded(
        datatype.startsWith('c') ? SQUARE.flatMap((one) => [one, 0]) : SQUARE,
        format,
        !datatype.endsWith('be'),
      );
      const meta = JSON.stringify({
        global: { 'core:datatype': datatype, 'core:sample_rate': 8000, 'core:version': '1.0.0' },
        captures: [{ 'core:sample_start': 0, 'core:frequency': 7.1e6, 'core:datetime': '2026-03-10T18:40:00Z' }],
        annotations: [],
      });
      const layout = readSigmfLayout(meta, data.length);
      expect(layout.frames).toBe(64);
      expect(layout.captures[0]).toEqual({ frame: 0, centreHz: 7.1e6, startMs: Date.UTC(2026, 2, 10, 18, 40) });
      expect(firstValues(recordingOf(sourceOf(data), layout))).toBeCloseTo(-6.02, 0);
    },
  );
  test('what two channels are is asked; one channel cannot be I and Q', () => {
    const two = readWavLayout(sourceOf(wavOf(new Float32Array(8), 8000, 2)));
    expect(() => recordingOf(sourceOf(new Uint8Array(0)), two)).toThrow(
      'I and Q of one receiver, or two receivers at once',
    );
    expect(recordingOf(sourceOf(new Uint8Array(0)), two, { meaning: 'two' }).layout.meaning).toBe('two');
    const one = readWavLayout(sourceOf(wavOf(new Float32Array(8), 8000, 1)));
    expect(() => recordingOf(sourceOf(new Uint8Array(0)), one, { meaning: 'iq' })).toThrow('one channel');
  });
  test('a cut file says how much of it is there; broken and foreign ones say what to do', () => {
    const whole = wavOf(new Float32Array(2 * 8000), 8000, 1);
    const cut = readWavLayout(sourceOf(whole.slice(0, 44 + 8000)));
    expect([cut.frames, cut.remarks]).toEqual([
      4000,
      ['The file is cut: 0.5 s of 2.0 s are there, and those are read.'],
    ]);
    const data = new Uint8Array(8);
    const refused = (bytes: Uint8Array) => () => readWavLayout(sourceOf(bytes));
    expect(refused(new TextEncoder().encode('freq;level\n1;2\n'))).toThrow('This is no WAV file');
    expect(refused(new Uint8Array(0))).toThrow('This is no WAV file');
    expect(refused(whole.slice(0, 30))).toThrow('cut off');
    expect(refused(whole.slice(0, 40))).toThrow('No samples were found');
    expect(refused(wavBytes({ tag: 85, bits: 0, channels: 2, rate: 44100, data }))).toThrow('compressed (format 85)');
    expect(refused(wavBytes({ tag: 1, bits: 16, channels: 6, rate: 44100, data }))).toThrow('6 channels');
    expect(refused(wavBytes({ tag: 1, bits: 16, channels: 1, rate: 0, data }))).toThrow('sample rate of zero');
    expect(refused(wavBytes({ tag: 1, bits: 16, channels: 1, rate: 8000, data: new Uint8Array(0) }))).toThrow(
      'no samples',
    );
    const unsaid = readWavLayout(
      sourceOf(wavBytes({ tag: 1, bits: 16, channels: 1, rate: 8000, data, toldBytes: 0xffffffff })),
    );
    expect([unsaid.frames, unsaid.remarks[0]]).toEqual([4, expect.stringContaining('did not say how long')]);
  });
  test('a description that lacks something says what', () => {
    const meta = (global: object, captures: object[] = []) => JSON.stringify({ global, captures, annotations: [] });
    const good = { 'core:datatype': 'ci16_le', 'core:sample_rate': 8000 };
    expect(() => readSigmfLayout('{', 8)).toThrow('not valid JSON');
    expect(() => readSigmfLayout('[]', 8)).toThrow('"global" is missing');
    expect(() => readSigmfLayout(meta({ ...good, 'core:datatype': 'cq16' }), 8)).toThrow('datatype "cq16"');
    expect(() => readSigmfLayout(meta({ 'core:datatype': 'ci16_le' }), 8)).toThrow('core:sample_rate');
    expect(() => readSigmfLayout(meta(good), 0)).toThrow('holds no samples');
    expect(readSigmfLayout(meta(good), 9).remarks).toEqual(['The last sample is cut off; all before it are read.']);
    // bytes behind the samples are none; an extension that must be understood is not skipped (SigMF 1.2)
    const trailing = readSigmfLayout(meta({ ...good, 'core:trailing_bytes': 6 }), 4 * 10 + 6);
    expect([trailing.frames, trailing.remarks]).toEqual([10, []]);
    const extension = (optional: boolean) => [{ name: 'capture_details', version: '1.0.0', optional }];
    expect(readSigmfLayout(meta({ ...good, 'core:extensions': extension(true) }), 40).frames).toBe(10);
    expect(() => readSigmfLayout(meta({ ...good, 'core:extensions': extension(false) }), 40)).toThrow(
      'without the extension "capture_details"',
    );
    expect(() => readSigmfLayout(meta({ ...good, 'core:metadata_only': true }), 40)).toThrow('not handed on');
    const sum = 'ab'.repeat(64);
    expect(readSigmfLayout(meta({ ...good, 'core:sha512': sum.toUpperCase() }), 40).sha512).toBe(sum);
    expect(datasetNamed(meta({ ...good, 'core:dataset': 'night.bin' }))).toBe('night.bin');
    // retuned after one second
    const retuned = readSigmfLayout(
      meta(good, [
        { 'core:sample_start': 0, 'core:frequency': 7e6 },
        { 'core:sample_start': 8000, 'core:frequency': 9e6 },
      ]),
      4 * 16000,
    );
    expect([retuned.frames, retuned.remarks[0]]).toEqual([
      8000,
      expect.stringContaining('retuned 1.0 s after the start'),
    ]);
  });
  test('annotations are read, written in time order, and what is unknown stays', () => {
    const meta = JSON.stringify({
      global: { 'core:datatype': 'ci16_le', 'core:sample_rate': 1000, 'other:field': 7 },
      captures: [],
      annotations: [{ 'core:sample_start': 5000, 'core:sample_count': 1000, 'core:label': 'late', 'other:mark': 1 }],
    });
    const text = withAnnotations(meta, [{ startS: 1, stopS: 2, lowHz: 100, highHz: 300, text: 'signal' }], 1000);
    expect(readSigmfLayout(text, 40000).annotations).toEqual([
      { startS: 1, stopS: 2, lowHz: 100, highHz: 300, text: 'signal' },
      { startS: 5, stopS: 6, lowHz: null, highHz: null, text: 'late' },
    ]);
    expect(JSON.parse(text)).toMatchObject({ global: { 'other:field': 7 }, annotations: [{}, { 'other:mark': 1 }] });
  });
  test('whatever bytes come, the reader answers or refuses with a sentence', () => {
    const head = Array.from(wavOf(new Float32Array(4), 8000, 2).slice(0, 44));
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 43 }), fc.integer({ min: 0, max: 255 })), { maxLength: 6 }),
        fc.integer({ min: 0, max: 60 }),
        (changes, length) => {
          const bytes = Uint8Array.from([...head, ...new Array<number>(16).fill(1)]);
          changes.forEach(([at, value]) => (bytes[at] = value));
          try {
            const layout = readWavLayout(sourceOf(bytes.slice(0, length)));
            expect(layout.frames).toBeGreaterThan(0);
          } catch (error) {
            expect(error).toMatchObject({ code: 'RECORDING' });
          }
        },
      ),
      { numRuns: 2000, seed: 3 },
    );
  });
});

describe('levels', () => {
  test('a sine of full scale reads 0 dBFS, real or complex, wherever it lies between bins', () => {
    for (const hz of [1000, 1003.7, 1011.9]) {
      const angle = (s: number) => 2 * Math.PI * hz * s;
      const complex = recordingFrom(
        iqOf(8000, 4, (s) => [Math.cos(angle(s)), Math.sin(angle(s))]),
        8000,
        'iq',
      );
      const real = recordingFrom(
        Float32Array.from({ length: 32000 }, (_, i) => Math.cos(angle(i / 8000))),
        8000,
        'real',
      );
      for (const recording of [complex, real]) {
        const series = ended(
          bandSeries(recording, { offsetHz: 1000, bandwidthHz: 400 }, { offsetHz: 3000, bandwidthHz: 400 }),
        );
        expect(spreadOf(series.signal).meanDbfs).toBeCloseTo(0, 1);
        expect(spreadOf(series.noise).meanDbfs).toBeLessThan(-90);
      }
    }
  });
  test('white noise of known power reads its share of the band', () => {
    // σ² = 0.01 over 8 kHz: in 500 Hz 12.04 dB less than −20 dBFS
    const chance = chanceOf(5);
    const noise = recordingFrom(
      iqOf(8000, 20, () => [chance.normal() * Math.sqrt(0.005), chance.normal() * Math.sqrt(0.005)]),
      8000,
      'iq',
    );
    const series = ended(
      bandSeries(noise, { offsetHz: 1000, bandwidthHz: 500 }, { offsetHz: -2000, bandwidthHz: 250 }),
    );
    expect(spreadOf(series.signal).meanDbfs).toBeCloseTo(-32.04, 0);
    // the quiet band is half as wide and taken to the same width
    expect(spreadOf(series.noise).meanDbfs).toBeCloseTo(-32.04, 0);
    expect(levelOver(series, 0, series.signal.length)).toMatchObject({ levelDbfs: null, snrDb: null });
    expect(() =>
      ended(bandSeries(noise, { offsetHz: 3900, bandwidthHz: 500 }, { offsetHz: 0, bandwidthHz: 500 })),
    ).toThrow('Upper edge of the band');
  });
  test('power is the same whatever the length of the transforms (Parseval), block borders included', () => {
    const chance = chanceOf(11);
    const noise = recordingFrom(
      iqOf(100_000, 3, () => [chance.normal() * 0.1, chance.normal() * 0.1]),
      100_000,
      'iq',
    );
    for (const length of [64, 1024, 8192]) {
      const plan = transformsOf(noise, length);
      let [sum, count] = [0, 0];
      for (const { power } of transforms(noise, plan)) {
        sum += power.reduce((total, one) => total + one, 0);
        count += 1;
      }
      expect(count).toBe(Math.floor((300_000 - length) / (length / 2)) + 1);
      expect(10 * Math.log10(sum / count / 0.02)).toBeCloseTo(0, 1);
    }
  });
});

describe('two receivers at once', () => {
  test('either channel is read as if it were alone, by transforms and by samples', () => {
    // half of full scale at 1 kHz on the first, a tenth at 2 kHz on the second
    const both = iqOf(8000, 3, (s) => [0.5 * Math.cos(2000 * Math.PI * s), 0.1 * Math.cos(4000 * Math.PI * s)]);
    const first = recordingFrom(both, 8000, 'two');
    for (const [channel, hz, db] of [
      [0, 1000, -6.02],
      [1, 2000, -20],
    ] as const) {
      const one = { ...first, channel };
      const series = ended(bandSeries(one, { offsetHz: hz, bandwidthHz: 400 }, { offsetHz: 3000, bandwidthHz: 400 }));
      expect(spreadOf(series.signal).meanDbfs).toBeCloseTo(db, 1);
      const { freqHz, levelDb } = ended(meanSpectrum(one));
      expect(Math.abs(freqHz[levelDb.indexOf(Math.max(...levelDb))] - hz)).toBeLessThan(5);
    }
  });
});

describe('two antennas in turn', () => {
  const ASK = {
    ...{ sampleRateHz: 5600, turns: 16, periodS: 6, carrierHz: 1210, bandwidthHz: 500 },
    ...{ fadingDb: 4, fadingS: 37, jitter: 0.05, clickS: 0.15 },
  };
  const seriesOf = (iq: Float32Array) =>
    ended(
      bandSeries(
        recordingFrom(iq, 5600, 'iq'),
        { offsetHz: 1210, bandwidthHz: 500 },
        { offsetHz: -2300, bandwidthHz: 500 },
      ),
    );
  // differences of level and of noise, dB: large, small in level only, small in noise only, none but the SNR
  test.each([
    [1, [-54, -73], [-70, -93]],
    [2, [-54, -60], [-75, -75]],
    [3, [-50, -50], [-80, -76]],
    [4, [-40, -43], [-70, -77]],
  ] as const)('seed %d: edges to 0.1 s, levels to 0.4 dB', (seed, levelDbfs, noiseDbfs) => {
    const made = madeSwitched({ ...ASK, seed, levelDbfs, noiseDbfs });
    const series = seriesOf(made.iq);
    expect(switchingPeriodS(series)).toBeCloseTo(6, 0);
    const found = switchedTurns(series, 6);
    expect(found.seen).toBe(true);
    expect(found.turns.length).toBe(16);
    found.turns.forEach((turn, i) => {
      const truth = made.turns[i];
      expect(turn.antenna).toBe(truth.antenna);
      expect(Math.abs(turn.startS - truth.startS)).toBeLessThan(0.1);
      expect(Math.abs((turn.levelDbfs ?? NaN) - truth.levelDbfs)).toBeLessThan(0.4);
      expect(Math.abs(turn.noiseDbfs - truth.noiseDbfs)).toBeLessThan(0.6);
    });
    const snr = (at: number) => made.turns[at].levelDbfs - made.turns[at].noiseDbfs;
    const truth = [0, 2, 4, 6, 8, 10, 12, 14].reduce((sum, at) => sum + snr(at + 1) - snr(at), 0) / 8;
    expect(Math.abs((found.pairs.meanSnrDb ?? NaN) - truth)).toBeLessThan(0.4);
    // a plan made by hand gives the same
    const planned = plannedTurns(
      series,
      made.turns.slice(1).map(({ startS }) => startS),
    );
    expect(Math.abs((planned.pairs.meanSnrDb ?? NaN) - truth)).toBeLessThan(0.4);
  });
  test('one antenna all the time: nothing is said to be seen', () => {
    const made = madeSwitched({ ...ASK, seed: 9, levelDbfs: [-50, -50], noiseDbfs: [-75, -75], clickS: 0 });
    const series = seriesOf(made.iq);
    expect(switchingPeriodS(series)).toBeUndefined();
    expect(switchedTurns(series, 6).seen).toBe(false);
  });
  test('turns longer than the recording, and times outside it, are refused', () => {
    const made = madeSwitched({ ...ASK, turns: 2, seed: 1, levelDbfs: [-50, -60], noiseDbfs: [-75, -75] });
    expect(() => switchedTurns(seriesOf(made.iq), 60)).toThrow('too short for turns of 60 s');
    expect(() => plannedTurns(seriesOf(made.iq), [5, 3])).toThrow('Switching 2, at 3 s');
  });
});

describe('noise, ticks and carriers', () => {
  /** Noise with a step and ticks, as a listener records it beside a charger. */
  const floorRecording = (seed: number, tickS: number | null): Recording => {
    const chance = chanceOf(seed);
    let next = 0.4;
    return recordingFrom(
      iqOf(1000, 300, (s) => {
        const density = 10 ** ((s < 162 ? -58 : -70.5) / 10) * 10;
        const size = Math.sqrt(density / 2);
        if (tickS !== null && s > next + 0.004) next += tickS;
        const tick = tickS !== null && s >= next && s < next + 0.004 ? 0.08 : 0;
        return [size * chance.normal() + tick, size * chance.normal()];
      }),
      1000,
      'iq',
    );
  };
  test('the step is where it was put, and ticks do not count as noise', () => {
    const recording = floorRecording(4, 1.15);
    const { steps, levelDbfs, medianDbfs } = ended(recordedFloor(recording, 100));
    expect(levelDbfs.length).toBe(300);
    expect(steps.length).toBe(1);
    expect(Math.abs(steps[0].atS - 162)).toBeLessThan(2);
    expect(Math.abs(steps[0].beforeDbfs + 58)).toBeLessThan(0.4);
    expect(Math.abs(steps[0].afterDbfs + 70.5)).toBeLessThan(0.4);
    expect(Math.abs(medianDbfs + 58)).toBeLessThan(0.5);
    const pulses = ended(recordedPulses(recording));
    expect(pulses.regular).toBe(true);
    expect(Math.abs((pulses.intervalS ?? NaN) / 1.15 - 1)).toBeLessThan(0.01);
    expect(Math.abs(pulses.count - 299.6 / 1.15)).toBeLessThan(4);
  });
  test('noise alone ticks not', () => {
    expect(ended(recordedPulses(floorRecording(6, null)))).toMatchObject({ count: 0, intervalS: null, regular: false });
  });
  test('crashes at random times are counted and not called regular', () => {
    const chance = chanceOf(8);
    const times = Array.from({ length: 60 }, () => 200 * chance.uniform()).sort((a, b) => a - b);
    let at = 0;
    const recording = recordingFrom(
      iqOf(1000, 200, (s) => {
        while (times[at] !== undefined && s > times[at] + 0.004) at += 1;
        const crash = times[at] !== undefined && s >= times[at] ? 0.5 : 0;
        return [0.01 * chance.normal() + crash, 0.01 * chance.normal()];
      }),
      1000,
      'iq',
    );
    const found = ended(recordedPulses(recording));
    expect(found.regular).toBe(false);
    expect(Math.abs(found.count - 60)).toBeLessThan(5);
  });
  test('the ratio of a burst is passed by chance less than once in a million', () => {
    // upper tail of a gamma distribution of whole shape k at k·ratio: e^{−x} Σ x^i/i! (Abramowitz & Stegun 6.5.13)
    for (const k of [1, 2, 4, 8, 32, 100]) {
      const x = k * burstRatio(k);
      let [term, sum] = [1, 1];
      for (let i = 1; i < k; i += 1) {
        term *= x / i;
        sum += term;
      }
      expect(sum * Math.exp(-x)).toBeLessThan(1.5e-6);
    }
  });
  test('a standard: offset to a hundredth of a hertz, with an interval that holds it', () => {
    const chance = chanceOf(12);
    let held = 0;
    for (let seed = 0; seed < 24; seed += 1) {
      const offset = 20 + 150 * chance.uniform();
      const recording = recordingFrom(
        iqOf(1000, 20, (s) => {
          const fade = 1 + 0.8 * Math.sin(2 * Math.PI * (s / 7 + seed / 24));
          const angle = 2 * Math.PI * offset * s;
          return [
            0.01 * fade * Math.cos(angle) + 0.02 * chance.normal(),
            0.01 * fade * Math.sin(angle) + 0.02 * chance.normal(),
          ];
        }),
        1000,
        'iq',
        10e6,
      );
      const found = ended(standardOffset(recording, 10e6));
      expect(Math.abs(found.offsetHz - offset)).toBeLessThan(0.02);
      expect(found.ppm).toBeCloseTo(found.offsetHz / 10, 9);
      if (found.lowHz <= offset && offset <= found.highHz) held += 1;
    }
    // 95 % of 24: fewer than 19 would come once in a thousand (binomial)
    expect(held).toBeGreaterThanOrEqual(19);
  });
  test('drift is told, and no carrier is told as none', () => {
    const chance = chanceOf(2);
    const drifting = recordingFrom(
      iqOf(2000, 30, (s) => {
        // 87 Hz in the middle, 0.2 Hz a minute
        const t = s - 15;
        const angle = 2 * Math.PI * (87 * t + (0.2 / 60 / 2) * t * t);
        return [0.1 * Math.cos(angle) + 0.01 * chance.normal(), 0.1 * Math.sin(angle) + 0.01 * chance.normal()];
      }),
      2000,
      'iq',
      10e6,
    );
    const found = ended(standardOffset(drifting, 10e6));
    expect(found.offsetHz).toBeCloseTo(87, 1);
    expect(found.driftHzPerMin).toBeCloseTo(0.2, 1);
    const noise = recordingFrom(
      iqOf(2000, 10, () => [chance.normal() * 0.1, chance.normal() * 0.1]),
      2000,
      'iq',
      10e6,
    );
    expect(() => ended(standardOffset(noise, 10e6))).toThrow('No carrier stands out');
  });
  test('a resonance in two recordings, source on and off', () => {
    // noise through poles at r·e^{±jθ} and zeros at 0 and half the rate: a tuned circuit of half-power width fs·(1−r)/π for r near 1 (Oppenheim & Schafer, Discrete-Time Signal Processing, from memory)
    const chance = chanceOf(3);
    const [rate, centre, q] = [48_000, 9_000, 60];
    const r = 1 - (Math.PI * centre) / q / rate;
    const cos = 2 * r * Math.cos((2 * Math.PI * centre) / rate);
    let [y1, y2, x1, x2] = [0, 0, 0, 0];
    const on = Float32Array.from({ length: 10 * rate }, () => {
      const x = 1e-3 * chance.normal();
      const y = x - x2 + cos * y1 - r * r * y2;
      [y2, y1, x2, x1] = [y1, y, x1, x];
      return y + 0.002 * chance.normal();
    });
    const off = Float32Array.from({ length: 10 * rate }, () => 0.002 * chance.normal());
    const [a, b] = [on, off].map((values) =>
      ended(meanSpectrum(recordingFrom(values, rate, 'real'), { points: 4096, lowHz: 6000, highHz: 12_000 })),
    );
    const peak = noisePeak(a, b);
    expect(Math.abs(peak.centreHz - centre)).toBeLessThan(Math.max(0.001 * centre, peak.centreHalfHz));
    expect(Math.abs(peak.q / q - 1)).toBeLessThan(0.1);
  });
  test('a comb of 65 kHz is named with its spacing; single carriers are none', () => {
    const chance = chanceOf(21);
    const teeth = [1, 2, 3, 4, 6, 7].map((n) => n * 65_000 - 250_000);
    const lone = [-33_000, 111_000, 87_500];
    const made = (places: readonly number[]) =>
      recordingFrom(
        iqOf(500_000, 0.3, (s) => {
          const { cos, sin } = Math;
          let [re, im] = [0.01 * chance.normal(), 0.01 * chance.normal()];
          places.forEach((hz, i) => {
            re += 0.01 * cos(2 * Math.PI * hz * s + i);
            im += 0.01 * sin(2 * Math.PI * hz * s + i);
          });
          return [re, im];
        }),
        500_000,
        'iq',
        250_000,
      );
    const spectrum = ended(meanSpectrum(made([...teeth, ...lone]), { points: 8192 }));
    const comb = combIn(spectrumLines(spectrum), spectrum.binHz);
    expect(comb?.count).toBe(6);
    expect(Math.abs((comb?.spacingHz ?? NaN) - 65_000)).toBeLessThan(60);
    expect(Math.abs((comb?.firstHz ?? NaN) - 65_000)).toBeLessThan(60);
    const few = ended(meanSpectrum(made(lone), { points: 8192 }));
    expect(combIn(spectrumLines(few), few.binHz)).toBeUndefined();
  });
});

describe('picture', () => {
  test('a carrier stands in its column and row, and the ruler agrees with the centre', () => {
    // 1,250 Hz above the centre, on from 4 s to 6 s of 10 s
    const chance = chanceOf(17);
    const recording = recordingFrom(
      iqOf(8000, 10, (s) => {
        const on = s >= 4 && s < 6 ? 0.1 : 0;
        const angle = 2 * Math.PI * 1250 * s;
        return [on * Math.cos(angle) + 0.001 * chance.normal(), on * Math.sin(angle) + 0.001 * chance.normal()];
      }),
      8000,
      'iq',
      9.65e6,
    );
    expect(bandOf(recording)).toEqual({ lowHz: 9.646e6, highHz: 9.654e6 });
    const view = { fromS: 0, toS: 10, lowHz: -4000, highHz: 4000, columns: 200, rows: 100 };
    const steps = [...waterfall(recording, view)];
    expect(steps.length).toBeGreaterThan(1);
    const picture = ended(waterfall(recording, view));
    const { offsetHz, peakDb, medianDb } = picture.spectrum;
    const top = peakDb.indexOf(Math.max(...peakDb));
    expect(Math.abs(offsetHz[top] - 1250)).toBeLessThan(40);
    expect(Math.max(...peakDb)).toBeCloseTo(-20, 0);
    // on for a fifth of the time: the median does not see it
    expect(medianDb[top]).toBeLessThan(-60);
    const column = Array.from({ length: 100 }, (_, row) => picture.levelDb[row * 200 + top]);
    expect(column.slice(42, 58).every((db) => db > -23)).toBe(true);
    expect([...column.slice(0, 38), ...column.slice(62)].every((db) => db < -60)).toBe(true);
    expect(picture.contrast.lowDb).toBeLessThan(picture.contrast.highDb);
  });
  test('a narrow view of a short stretch is finer than the columns of the whole', () => {
    const recording = recordingFrom(
      iqOf(8000, 4, () => [0.1, 0]),
      8000,
      'iq',
    );
    const whole = ended(waterfall(recording, { fromS: 0, toS: 4, lowHz: -4000, highHz: 4000, columns: 100, rows: 50 }));
    const near = ended(waterfall(recording, { fromS: 0, toS: 4, lowHz: -100, highHz: 100, columns: 100, rows: 20 }));
    expect(near.resolutionHz).toBeLessThan(whole.resolutionHz / 4);
    expect(near.done).toBe(20);
  });
});

test('layouts of an unknown kind cannot be made up', () => {
  const layout: RecordingLayout = {
    ...{ sample: 'i16', bigEndian: false, channels: 2, meaning: undefined, sampleRateHz: 8000, offset: 0 },
    ...{ frames: 10, captures: [], annotations: [], remarks: [] },
  };
  expect(() => recordingOf(sourceOf(new Uint8Array(0)), layout)).toThrow('two channels');
});
