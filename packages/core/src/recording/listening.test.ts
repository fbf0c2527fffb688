import { describe, expect, test } from '@jest/globals';
import { plannedInterval } from '../trial/sequence';
import { trialVerdict } from '../trial/verdict';
import { pairsAtOnce } from './at-once';
import { type BandSeries, bandSeries } from './band-levels';
import { type ListenMode, soundOf } from './demodulate';
import { type Recording, recordingOf } from './layout';
import { chanceOf } from './made';
import { comparedSnr, snrAtFrequencies } from './snr-list';

const ended = <A>(steps: Generator<unknown, A>): A => {
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
  }
};

/** Values of a rule as 32-bit floats: I and Q, two receivers, or one real signal. */
function recordingBy(
  sampleRateHz: number,
  seconds: number,
  meaning: 'iq' | 'two' | 'real',
  rule: (s: number) => readonly [number, number],
  centreHz = 0,
): Recording {
  const frames = Math.floor(sampleRateHz * seconds);
  const channels = meaning === 'real' ? 1 : 2;
  const values = new Float32Array(channels * frames);
  for (let i = 0; i < frames; i += 1) values.set(rule(i / sampleRateHz).slice(0, channels), channels * i);
  const bytes = new Uint8Array(values.buffer);
  const source = { size: bytes.length, read: (at: number, length: number) => bytes.slice(at, at + length) };
  const layout = {
    ...({ sample: 'f32', bigEndian: false, meaning, sampleRateHz, offset: 0, frames } as const),
    ...{ captures: [], annotations: [], remarks: [] },
  };
  return recordingOf(source, { ...layout, channels: channels === 1 ? 1 : 2 }, { centreHz });
}

describe('two receivers at once', () => {
  /** A fading carrier on two antennas: B hears it `betterDb` over its noise more than A; the second receiver reads `gainDb` higher. */
  const made = (seed: number, betterDb: number, gainDb: number, exchangedAtS: number | null): Recording => {
    const chance = chanceOf(seed);
    return recordingBy(4000, 80, 'two', (s) => {
      const fade = 10 ** ((6 * Math.sin((2 * Math.PI * s) / 17 + seed)) / 20);
      const carrier = 0.02 * fade * Math.cos(2 * Math.PI * 1000 * s);
      const a = carrier + 0.01 * chance.normal();
      const b = 0.5 * (carrier * 10 ** (betterDb / 20) + 0.01 * chance.normal());
      const exchanged = exchangedAtS !== null && s >= exchangedAtS;
      const gain = 10 ** (gainDb / 20);
      return exchanged ? [b, a * gain] : [a, b * gain];
    });
  };
  const seriesOf = (recording: Recording, channel: 0 | 1): BandSeries =>
    ended(
      bandSeries({ ...recording, channel }, { offsetHz: 1000, bandwidthHz: 200 }, { offsetHz: 1500, bandwidthHz: 200 }),
    );
  const compared = (recording: Recording, exchangedAtS: number | null) =>
    pairsAtOnce(seriesOf(recording, 0), seriesOf(recording, 1), { blockS: 2, exchangedAtS });

  // truth put in: SNR 4 dB better, antenna B 6.02 dB weaker (half the voltage) but for that; gain of the receivers 5 dB
  test.each([1, 2, 3, 4, 5])('an exchange takes the receivers out to 0.3 dB (seed %d)', (seed) => {
    const { pairs, receivers } = compared(made(seed, 4, 5, 40), 40);
    expect(receivers?.levelDb).toBeCloseTo(5, 0);
    expect(Math.abs((receivers?.levelDb ?? 0) - 5)).toBeLessThan(0.3);
    const verdict = trialVerdict(pairs, { a: 'A', b: 'B' }, { plannedPairs: pairs.length });
    expect(Math.abs((verdict.snr.result?.mean ?? 0) - 4)).toBeLessThan(0.3);
    expect(Math.abs((verdict.level.result?.mean ?? 0) - (4 - 6.02))).toBeLessThan(0.3);
    expect(verdict.sentence).toMatch(/^B is better on SNR by (3\.[7-9]|4\.[0-3]) dB, proven/);
  });
  test('without an exchange the gain stays in the level, and the answer says so', () => {
    const { pairs, receivers } = compared(made(6, 4, 5, null), null);
    expect(receivers).toBeNull();
    const { level, snr } = trialVerdict(pairs, { a: 'A', b: 'B' });
    expect(Math.abs((level.result?.mean ?? 0) - (4 - 6.02 + 5))).toBeLessThan(0.3);
    expect(Math.abs((snr.result?.mean ?? 0) - 4)).toBeLessThan(0.3);
  });
  test('fading does not stand between them: the scatter is that of the noise', () => {
    const { pairs } = compared(made(7, 4, 0, null), null);
    const levels = pairs.map(({ levelADbm }) => levelADbm ?? NaN);
    expect(Math.max(...levels) - Math.min(...levels)).toBeGreaterThan(8);
    expect(trialVerdict(pairs, { a: 'A', b: 'B' }).level.result?.sd ?? 9).toBeLessThan(0.6);
  });
  test('blocks longer than what is there, and an exchange outside it, are refused with a remedy', () => {
    const recording = made(8, 0, 0, null);
    const [a, b] = [seriesOf(recording, 0), seriesOf(recording, 1)];
    expect(() => pairsAtOnce(a, b, { blockS: 100, exchangedAtS: null })).toThrow(/Make the blocks shorter/);
    expect(() => pairsAtOnce(a, b, { blockS: 5, exchangedAtS: 2 })).toThrow(/before and after the exchange/);
    expect(() => pairsAtOnce(a, b, { blockS: 5, exchangedAtS: 200 })).toThrow(/Moment of the exchange/);
  });
});

describe('SNR at a list of frequencies', () => {
  const FREQUENCIES = [7_003_000, 7_006_000, 7_009_000, 7_012_000, 7_015_000];
  const SNR_DB = [20, 14, 8, 3, -40];
  const BANDWIDTH_HZ = 200;
  /** Carriers of the SNRs above in white noise; the other receiver loses `lossDb` of all of them. */
  const made = (seed: number, lossDb: number, neighbour = false): Recording => {
    const chance = chanceOf(seed);
    const density = 1e-8;
    const amplitudes = SNR_DB.map((db) => Math.sqrt(density * BANDWIDTH_HZ * 10 ** ((db - lossDb) / 10)));
    const scatter = Math.sqrt((density * 20_000) / 2);
    return recordingBy(
      20_000,
      30,
      'iq',
      (s) => {
        let [re, im] = [scatter * chance.normal(), scatter * chance.normal()];
        FREQUENCIES.forEach((hz, i) => {
          const angle = 2 * Math.PI * (hz - 7_009_000) * s;
          re += amplitudes[i] * Math.cos(angle);
          im += amplitudes[i] * Math.sin(angle);
        });
        // a strong station above the first: noise must be read on the other side
        if (neighbour) re += Math.cos(2 * Math.PI * (7_003_400 - 7_009_000) * s);
        if (neighbour) im += Math.sin(2 * Math.PI * (7_003_400 - 7_009_000) * s);
        return [re, im];
      },
      7_009_000,
    );
  };
  test('reads what was put in to 0.5 dB, and says what was not heard', () => {
    const listed = ended(snrAtFrequencies(made(1, 0), FREQUENCIES, BANDWIDTH_HZ));
    listed.slice(0, 4).forEach(({ snrDb, interval }, i) => {
      expect(Math.abs((snrDb ?? 99) - SNR_DB[i])).toBeLessThan(0.5);
      expect(interval?.low).toBeLessThan(SNR_DB[i] + 0.3);
      expect(interval?.high).toBeGreaterThan(SNR_DB[i] - 0.3);
    });
    expect(listed[4].snrDb).toBeNull();
    expect(listed[4].levelDbfs).toBeNull();
  });
  test('a strong neighbour on one side does not count as noise', () => {
    const [first] = ended(snrAtFrequencies(made(2, 0, true), FREQUENCIES, BANDWIDTH_HZ));
    expect(Math.abs((first.snrDb ?? 99) - 20)).toBeLessThan(0.7);
  });
  test('two receivers on one list: each difference has its interval, and all together prove it', () => {
    const [a, b] = [made(3, 0), made(4, 2)].map((one) => ended(snrAtFrequencies(one, FREQUENCIES, BANDWIDTH_HZ)));
    const { rows, overall } = comparedSnr(a, b);
    rows.slice(0, 3).forEach(({ differenceDb, halfDb }) => {
      expect(Math.abs((differenceDb ?? 99) + 2)).toBeLessThan(0.6);
      expect(halfDb).toBeGreaterThan(0);
      expect(halfDb).toBeLessThan(1.5);
    });
    expect(rows[4].differenceDb).toBeNull();
    expect(overall?.n).toBe(4);
    expect(Math.abs((overall?.mean ?? 0) + 2)).toBeLessThan(0.4);
  });
  test('a frequency that the recording does not hold is named', () => {
    const recording = made(5, 0);
    expect(() => ended(snrAtFrequencies(recording, [7_003_000, 7_025_000], 200))).toThrow(
      /7025\.000 kHz .* 6999\.000 to 7019\.000 kHz/,
    );
    expect(() => ended(snrAtFrequencies(recording, [], 200))).toThrow(/Type 1 to/);
  });
  test('an interval is that of as many blocks as are independent', () => {
    // Student for 5 values 1, 2, 3, 4, 5: mean 3 ± 1.963 (t 2.776, table of Student's t, 4 degrees, 95 %), were they independent; they rise, so it is wider
    const interval = plannedInterval([1, 2, 3, 4, 5]);
    expect((interval?.high ?? 0) - 3).toBeGreaterThanOrEqual(1.963);
  });
});

describe('listening', () => {
  /** Strongest frequency of a sound, by the definition of the transform about where it is looked for. */
  const pitchOf = (samples: Float32Array, rateHz: number, lowHz: number, highHz: number): number => {
    const kept = samples.subarray(Math.floor(0.1 * samples.length), Math.floor(0.9 * samples.length));
    let [best, found] = [0, NaN];
    for (let hz = lowHz; hz <= highHz; hz += 0.5) {
      let [re, im] = [0, 0];
      kept.forEach((value, i) => {
        re += value * Math.cos((2 * Math.PI * hz * i) / rateHz);
        im -= value * Math.sin((2 * Math.PI * hz * i) / rateHz);
      });
      if (re * re + im * im > best) [best, found] = [re * re + im * im, hz];
    }
    return found;
  };
  const seconds = 2;
  const stretch = { fromS: 0, toS: seconds };
  const tone = (rateHz: number, hz: number, centreHz = 0) =>
    recordingBy(
      rateHz,
      seconds,
      'iq',
      (s) => [Math.cos(2 * Math.PI * hz * s), Math.sin(2 * Math.PI * hz * s)],
      centreHz,
    );
  const modulated = (carrierHz: number, toneHz: number) =>
    recordingBy(48_000, seconds, 'iq', (s) => {
      const envelope = 0.3 * (1 + 0.6 * Math.cos(2 * Math.PI * toneHz * s));
      return [envelope * Math.cos(2 * Math.PI * carrierHz * s), envelope * Math.sin(2 * Math.PI * carrierHz * s)];
    });
  const swung = (carrierHz: number, toneHz: number) =>
    recordingBy(48_000, seconds, 'iq', (s) => {
      const phase = 2 * Math.PI * carrierHz * s + 2 * Math.sin(2 * Math.PI * toneHz * s);
      return [Math.cos(phase), Math.sin(phase)];
    });
  // a band of 2700 Hz from 9000 Hz: its lower edge is the dial of USB, its upper of LSB
  const voice = { offsetHz: 10_350, bandwidthHz: 2700 };
  test.each([
    ['usb', tone(48_000, 10_007), voice, 1007],
    ['lsb', tone(48_000, 10_707), voice, 993],
    ['cw', tone(48_000, -12_345), { offsetHz: -12_345, bandwidthHz: 400 }, 700],
    ['cw', tone(2000, 307), { offsetHz: 300, bandwidthHz: 200 }, 707],
    ['am', modulated(-7000.4, 441), { offsetHz: -7000, bandwidthHz: 6000 }, 441],
    ['fm', swung(5000.7, 523), { offsetHz: 5000, bandwidthHz: 8000 }, 523],
  ] as const)('a tone comes out of %s at its pitch to 1 Hz', (mode, recording, band, expected) => {
    const { rateHz, samples } = soundOf(recording, band, mode, stretch);
    expect(rateHz).toBeGreaterThanOrEqual(8000);
    expect(Math.abs(samples.length / rateHz - seconds)).toBeLessThan(0.3);
    expect(Math.abs(pitchOf(samples, rateHz, expected - 8, expected + 8) - expected)).toBeLessThanOrEqual(1);
  });
  test('a real recording is heard as well', () => {
    const recording = recordingBy(16_000, seconds, 'real', (s) => [Math.cos(2 * Math.PI * 3000 * s), 0]);
    const { rateHz, samples } = soundOf(recording, { offsetHz: 3200, bandwidthHz: 1000 }, 'usb', stretch);
    expect(Math.abs(pitchOf(samples, rateHz, 280, 320) - 300)).toBeLessThanOrEqual(1);
  });
  test('the other sideband is 60 dB down at least', () => {
    // 8000 Hz would be heard at 1000 Hz of a dial at 9000 Hz; the wanted tone is a thousandth of it
    const both = recordingBy(48_000, seconds, 'iq', (s) => [
      Math.cos(2 * Math.PI * 8000 * s) + 1e-3 * Math.cos(2 * Math.PI * 9400 * s),
      Math.sin(2 * Math.PI * 8000 * s) + 1e-3 * Math.sin(2 * Math.PI * 9400 * s),
    ]);
    const { rateHz, samples } = soundOf(both, voice, 'usb', stretch);
    const kept = samples.subarray(Math.floor(0.1 * samples.length), Math.floor(0.9 * samples.length));
    const amplitude = (hz: number): number => {
      const sum = (rule: (angle: number) => number): number =>
        kept.reduce((all, one, i) => all + one * rule((2 * Math.PI * hz * i) / rateHz), 0);
      return Math.hypot(sum(Math.cos), sum(Math.sin));
    };
    expect(amplitude(400)).toBeGreaterThan(amplitude(1000));
  });
  test('nothing is louder than half of full scale, whatever crashes', () => {
    const chance = chanceOf(3);
    const recording = recordingBy(48_000, 2, 'iq', (s) => {
      const crash = s > 1 && s < 1.02 ? 1000 : 1;
      return [crash * 1e-4 * chance.normal(), crash * 1e-4 * chance.normal()];
    });
    const { samples } = soundOf(recording, voice, 'usb', stretch);
    const most = samples.reduce((high, one) => Math.max(high, Math.abs(one)), 0);
    expect(most).toBeLessThanOrEqual(0.5);
    const quiet = samples.subarray(0, Math.floor(samples.length * 0.4));
    const rms = Math.sqrt(quiet.reduce((sum, one) => sum + one * one, 0) / quiet.length);
    expect(rms).toBeGreaterThan(0.05);
    expect(rms).toBeLessThan(0.2);
  });
  test('a band outside the recording and a stretch too long are refused', () => {
    const recording = tone(48_000, 0);
    const modes: readonly ListenMode[] = ['am', 'usb'];
    for (const mode of modes)
      expect(() => soundOf(recording, { offsetHz: 23_900, bandwidthHz: 2700 }, mode, stretch)).toThrow(/Upper edge/);
    expect(() => soundOf(recording, voice, 'am', { fromS: 0, toS: 500 })).toThrow(/Length of the stretch/);
  });
});
