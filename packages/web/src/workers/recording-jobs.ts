import { sha256, sha512 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import {
  type Band,
  type BandLevel,
  bandSeries,
  type BandSeries,
  type ByteSource,
  combIn,
  type Comb,
  levelOver,
  type ListenMode,
  meanSpectrum,
  pairsAtOnce,
  peakOf,
  plannedTurns,
  type PictureView,
  readSigmfLayout,
  readWavLayout,
  type RecordedFloor,
  recordedFloor,
  type RecordedPulses,
  recordedPulses,
  type Recording,
  type RecordingLayout,
  type RecordingMeaning,
  recordingOf,
  secondsOf,
  snrAtFrequencies,
  soundOf,
  spectrumLines,
  type Spread,
  spreadOf,
  type Stretch,
  standardOffset,
  type Switched,
  switchedTurns,
  switchingPeriodS,
  waterfall,
} from '@velvet-reed/core/recording';

/** Reads a blob at once; only workers have it. */
declare class FileReaderSync {
  readAsArrayBuffer(blob: Blob): ArrayBuffer;
}

const sourceOf = (file: Blob): ByteSource => {
  const reader = new FileReaderSync();
  return {
    size: file.size,
    read: (offset, length) => new Uint8Array(reader.readAsArrayBuffer(file.slice(offset, offset + length))),
  };
};

/** A file, what its head says, and what was answered. */
export interface OpenRecording {
  readonly file: Blob;
  readonly layout: RecordingLayout;
  readonly meaning: RecordingMeaning;
  readonly centreHz: number;
  readonly channel: 0 | 1;
}

const recordingIn = ({ file, layout, ...answers }: OpenRecording): Recording =>
  recordingOf(sourceOf(file), layout, answers);

/** Head of a file. @param metaText of a .sigmf-meta; absent: a WAV file. @param key comes back with the answer. */
export function* openRecording({
  file,
  metaText,
  key,
}: {
  readonly file: Blob;
  readonly metaText?: string;
  readonly key: string;
}): Generator<undefined, { readonly key: string; readonly layout: RecordingLayout }> {
  yield undefined;
  return { key, layout: metaText === undefined ? readWavLayout(sourceOf(file)) : readSigmfLayout(metaText, file.size) };
}

export const recordingPicture = ({ open, view }: { readonly open: OpenRecording; readonly view: PictureView }) =>
  waterfall(recordingIn(open), view);

/** Bytes read between two looks whether the job was left. */
const HASHED_AT_ONCE = 1 << 22;

/** SHA-256 of a whole file, by which it is known again, whether it is the one that its description tells, and its highest value. */
export function* recordingProof(open: OpenRecording) {
  const { file, layout } = open;
  const described = layout.sha512 === undefined ? undefined : sha512.create();
  const reader = new FileReaderSync();
  const hash = sha256.create();
  for (let at = 0; at < file.size; at += HASHED_AT_ONCE) {
    const bytes = new Uint8Array(reader.readAsArrayBuffer(file.slice(at, at + HASHED_AT_ONCE)));
    hash.update(bytes);
    described?.update(bytes);
    yield { share: at / file.size };
  }
  const peak = yield* peakOf(recordingIn(open));
  return {
    checksum: bytesToHex(hash.digest()),
    isDescribed: described === undefined || bytesToHex(described.digest()) === layout.sha512,
    ...peak,
  };
}

/** Levels of a signal and the noise beside it, and the turns of two antennas when it was switched. */
export interface RecordedLevels extends BandLevel {
  readonly series: BandSeries;
  readonly signal: Spread;
  /** Absent: nothing was said of turns and none were seen. */
  readonly switched?: Switched;
  /** Time of a turn as said or as found, s. */
  readonly turnS?: number;
  readonly turnFound: boolean;
}

/** Levels over time in a signal's band. @param turnS time of one antenna's turn; null: looked for. @param switchedAtS a plan made by hand instead. */
export function* recordingLevels({
  open,
  signal,
  quiet,
  turnS,
  switchedAtS = [],
}: {
  readonly open: OpenRecording;
  readonly signal: Band;
  readonly quiet: Band;
  readonly turnS: number | null;
  readonly switchedAtS?: readonly number[];
}): Generator<{ readonly share: number }, RecordedLevels> {
  const series = yield* bandSeries(recordingIn(open), signal, quiet);
  const common = {
    ...{ series, signal: spreadOf(series.signal) },
    ...levelOver(series, 0, series.signal.length),
  };
  if (switchedAtS.length > 0) {
    const lengthS = series.signal.length * series.stepS;
    const planned = { switched: plannedTurns(series, switchedAtS), turnS: lengthS / (switchedAtS.length + 1) };
    return { ...common, ...planned, turnFound: false };
  }
  const found = turnS === null ? switchingPeriodS(series) : turnS;
  return {
    ...common,
    ...(found === undefined ? {} : { switched: switchedTurns(series, found), turnS: found }),
    turnFound: turnS === null && found !== undefined,
  };
}

/** Noise of a recording: its log, what ticks in it, and carriers at equal spacing. */
export interface RecordedNoise {
  readonly floor: RecordedFloor;
  readonly pulses: RecordedPulses;
  readonly comb?: Comb;
}

/** Bins in which a comb is sought. */
const COMB_POINTS = 8192;

export function* recordingNoise({
  open,
  bandwidthHz,
}: {
  readonly open: OpenRecording;
  readonly bandwidthHz: number;
}): Generator<{ readonly share: number }, RecordedNoise> {
  const recording = recordingIn(open);
  const floor = yield* recordedFloor(recording, bandwidthHz);
  const pulses = yield* recordedPulses(recording);
  const spectrum = yield* meanSpectrum(recording, { points: COMB_POINTS });
  const comb = combIn(spectrumLines(spectrum), spectrum.binHz);
  return { floor, pulses, ...(comb ? { comb } : {}) };
}

export const recordingStandard = ({
  open,
  standardHz,
}: {
  readonly open: OpenRecording;
  readonly standardHz: number;
}) => standardOffset(recordingIn(open), standardHz);

/** Spectrum around a resonance, for the coil: source on in one recording, off in another. */
export const recordingSpectrum = ({
  open,
  lowHz,
  highHz,
}: {
  readonly open: OpenRecording;
  readonly lowHz: number;
  readonly highHz: number;
}) => meanSpectrum(recordingIn(open), { points: 4096, lowHz, highHz });

/** Two receivers in one file, A on the first channel at its beginning. */
export function* recordingAtOnce({
  open,
  signal,
  quiet,
  ...when
}: {
  readonly open: OpenRecording;
  readonly signal: Band;
  readonly quiet: Band;
  readonly blockS: number;
  readonly exchangedAtS: number | null;
}) {
  const first = yield* bandSeries(recordingIn({ ...open, channel: 0 }), signal, quiet);
  const second = yield* bandSeries(recordingIn({ ...open, channel: 1 }), signal, quiet);
  return pairsAtOnce(first, second, when);
}

/** SNR at a list of frequencies, and the crashes of the whole band. */
export function* recordingList({
  open,
  frequenciesHz,
  bandwidthHz,
}: {
  readonly open: OpenRecording;
  readonly frequenciesHz: readonly number[];
  readonly bandwidthHz: number;
}) {
  const listed = yield* snrAtFrequencies(recordingIn(open), frequenciesHz, bandwidthHz);
  const { count } = yield* recordedPulses(recordingIn(open));
  return { listed, crashesPerMinute: (60 * count) / secondsOf(open.layout) };
}

export function* recordingSound({
  open,
  band,
  mode,
  stretch,
}: {
  readonly open: OpenRecording;
  readonly band: Band;
  readonly mode: ListenMode;
  readonly stretch: Stretch;
}) {
  yield undefined;
  return soundOf(recordingIn(open), band, mode, stretch);
}
