import { closeSync, fstatSync, openSync, readFileSync, readSync } from 'node:fs';
import { ShapeError } from '@velvet-reed/core/errors';
import {
  bandSeries,
  type ByteSource,
  meanSpectrum,
  peakOf,
  readSigmfLayout,
  readWavLayout,
  recordedFloor,
  recordedPulses,
  type Recording,
  type RecordingMeaning,
  recordingOf,
  secondsOf,
  standardOffset,
  switchedTurns,
} from '@velvet-reed/core/recording';
import { noisePeak } from '@velvet-reed/core/sweep';
import { fixed, frequencyText } from '@velvet-reed/core/units';

/** What may be asked of a recording, as typed. */
export interface RecordingFlags {
  readonly json?: boolean;
  readonly iq?: boolean;
  readonly real?: boolean;
  readonly two?: boolean;
  readonly centre?: string;
  readonly signal?: string;
  readonly bandwidth?: string;
  readonly noise?: string;
  readonly switched?: string;
  readonly off?: string;
  readonly resonance?: string;
  readonly floor?: string;
  readonly standard?: string;
}

function numberOf(text: string, flag: string): number {
  const value = Number(text);
  if (text.trim() === '' || !Number.isFinite(value))
    throw new ShapeError(`--${flag} takes a number; "${text}" is none. Write it in Hz or s, as 9.65e6.`);
  return value;
}

/** Runs a computation to its end: at a terminal nobody looks at the steps. */
function ended<A>(steps: Generator<unknown, A>): A {
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
  }
}

const open: number[] = [];
function sourceOf(path: string): ByteSource {
  const file = openSync(path, 'r');
  open.push(file);
  return {
    size: fstatSync(file).size,
    read: (offset, length) => {
      const bytes = new Uint8Array(length);
      let got = 0;
      while (got < length) {
        const count = readSync(file, bytes, got, length - got, offset + got);
        if (count === 0) break;
        got += count;
      }
      return bytes.subarray(0, got);
    },
  };
}

const META = /\.sigmf-meta$/i;

function recordingAt(path: string, flags: RecordingFlags): Recording {
  const named = (['iq', 'real', 'two'] as const).filter((one) => flags[one]);
  if (named.length > 1) throw new ShapeError('Say one of --iq, --real and --two: a recording is one of them.');
  const meaning: RecordingMeaning | undefined = named[0];
  const source = sourceOf(path.replace(META, '.sigmf-data'));
  const layout = META.test(path) ? readSigmfLayout(readFileSync(path, 'utf8'), source.size) : readWavLayout(source);
  return recordingOf(source, layout, {
    ...(meaning === undefined ? {} : { meaning }),
    ...(flags.centre === undefined ? {} : { centreHz: numberOf(flags.centre, 'centre') }),
  });
}

/** The two antennas of a switched recording, in the names of the command's output. */
function switchedOf(recording: Recording, flags: RecordingFlags) {
  const { signal, bandwidth, noise, switched } = flags;
  if (signal === undefined || bandwidth === undefined || noise === undefined || switched === undefined)
    throw new ShapeError(
      'Levels of two antennas need all four of --signal, --bandwidth, --noise and --switched: where the signal lies, how wide, where it is quiet, and for how long each antenna was heard.',
    );
  const bandwidthHz = numberOf(bandwidth, 'bandwidth');
  const { turns, pairs } = switchedTurns(
    ended(
      bandSeries(
        recording,
        { offsetHz: numberOf(signal, 'signal'), bandwidthHz },
        { offsetHz: numberOf(noise, 'noise'), bandwidthHz },
      ),
    ),
    numberOf(switched, 'switched'),
  );
  const stretches = turns.map(({ antenna, startS, stopS, levelDbfs, noiseDbfs }) => ({
    ...{ antenna, startS, stopS, levelDbfs, noiseDbfs },
  }));
  return { stretches, pairs };
}

function resonanceOf(recording: Recording, flags: RecordingFlags) {
  const [low, high] = (flags.resonance ?? '').split(/(?<=\d)-/);
  if (flags.off === undefined || high === undefined)
    throw new ShapeError(
      'A resonance needs --off with the recording of the source off, and --resonance LOW-HIGH in Hz.',
    );
  const band = { points: RESONANCE_POINTS, lowHz: numberOf(low, 'resonance'), highHz: numberOf(high, 'resonance') };
  const [on, off] = [recording, recordingAt(flags.off, flags)].map((one) => ended(meanSpectrum(one, band)));
  const { centreHz, centreHalfHz, q, qHalf } = noisePeak(on, off);
  return {
    resonance: {
      ...{ centreHz, lowHz: centreHz - centreHalfHz, highHz: centreHz + centreHalfHz },
      ...{ q, qLow: q - qHalf, qHigh: q + qHalf },
    },
  };
}
/** Bins of the spectra in which a resonance is sought: some tens across a width of 1 % in a recording of audio rate. */
const RESONANCE_POINTS = 4096;

function floorOf(recording: Recording, flags: RecordingFlags) {
  const bandwidthHz = numberOf(flags.floor ?? '', 'floor');
  const quiet = flags.noise === undefined ? undefined : { offsetHz: numberOf(flags.noise, 'noise'), bandwidthHz };
  const { medianDbfs, steps } = ended(recordedFloor(recording, bandwidthHz, quiet));
  const { intervalS, count, regular } = ended(recordedPulses(recording));
  return { floor: { medianDbfs }, steps, pulses: { intervalS, count, regular } };
}

function standardOf(recording: Recording, flags: RecordingFlags) {
  const { offsetHz, ppm, lowHz, highHz } = ended(standardOffset(recording, numberOf(flags.standard ?? '', 'standard')));
  return { standard: { offsetHz, ppm, lowHz, highHz } };
}

/** `reed recording`: what a recording holds and what was asked of it. @returns the exit code. */
export function recording(path: string, flags: RecordingFlags, write: (line: string) => void): number {
  try {
    const read = recordingAt(path, flags);
    const { layout, centreHz } = read;
    const answer = {
      file: path,
      ...{ sampleRateHz: layout.sampleRateHz, lengthS: secondsOf(layout), channels: layout.channels, centreHz },
      ...ended(peakOf(read)),
      remarks: layout.remarks,
      ...(flags.switched === undefined && flags.signal === undefined ? {} : switchedOf(read, flags)),
      ...(flags.resonance === undefined && flags.off === undefined ? {} : resonanceOf(read, flags)),
      ...(flags.floor === undefined ? {} : floorOf(read, flags)),
      ...(flags.standard === undefined ? {} : standardOf(read, flags)),
    };
    if (flags.json) write(JSON.stringify(answer, null, 2));
    else tell(answer, write);
    return 0;
  } finally {
    open.splice(0).forEach(closeSync);
  }
}

type Answer =
  ReturnType<typeof peakOf> extends Generator<unknown, infer P>
    ? P & {
        readonly sampleRateHz: number;
        readonly lengthS: number;
        readonly channels: number;
        readonly centreHz: number;
        readonly remarks: readonly string[];
      } & Partial<ReturnType<typeof switchedOf>> &
        Partial<ReturnType<typeof resonanceOf>> &
        Partial<ReturnType<typeof floorOf>> &
        Partial<ReturnType<typeof standardOf>>
    : never;

const level = (db: number | null): string => (db === null ? 'not above the noise' : `${fixed(db, 1)} dBFS`);

/** The same in words. */
function tell(answer: Answer, write: (line: string) => void): void {
  write(
    `${answer.lengthS.toFixed(1)} s at ${answer.sampleRateHz} samples/s, ${answer.channels} channel${answer.channels === 1 ? '' : 's'}, centre ${frequencyText(answer.centreHz)}, peak ${level(answer.peakDbfs)}`,
  );
  answer.remarks.forEach(write);
  answer.stretches?.forEach((one) =>
    write(
      `${one.antenna}  ${one.startS.toFixed(2)} to ${one.stopS.toFixed(2)} s  signal ${level(one.levelDbfs)}, noise ${level(one.noiseDbfs)}`,
    ),
  );
  const { pairs, resonance, floor, standard } = answer;
  if (pairs && pairs.meanSnrDb !== null)
    write(
      `SNR of B less A: ${fixed(pairs.meanSnrDb, 1)} dB of ${pairs.n} pairs${pairs.lowDb === null || pairs.highDb === null ? '' : `, 95 % ${fixed(pairs.lowDb, 1)} to ${fixed(pairs.highDb, 1)} dB`}`,
    );
  if (resonance)
    write(
      `resonance at ${frequencyText(resonance.centreHz, 5)}, Q ${resonance.q.toFixed(0)} (${resonance.qLow.toFixed(0)} to ${resonance.qHigh.toFixed(0)})`,
    );
  if (floor) write(`noise ${level(floor.medianDbfs)} in the middle of the time`);
  answer.steps?.forEach((one) =>
    write(`step at ${one.atS.toFixed(0)} s: ${level(one.beforeDbfs)} to ${level(one.afterDbfs)}`),
  );
  const { pulses } = answer;
  if (pulses && pulses.count > 0)
    write(
      `${pulses.count} ticks${pulses.intervalS === null ? '' : pulses.regular ? `, one every ${pulses.intervalS.toFixed(4)} s` : `, irregular, usually ${pulses.intervalS.toFixed(2)} s apart`}`,
    );
  if (standard)
    write(
      `${fixed(standard.offsetHz, 2)} Hz off the standard (${fixed(standard.lowHz, 2)} to ${fixed(standard.highHz, 2)}), ${standard.ppm.toFixed(3)} ppm`,
    );
}
