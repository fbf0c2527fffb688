import { CoreError } from '../errors';

/** A file of which any stretch can be read: a file on a disc, or one chosen in the browser. */
export interface ByteSource {
  readonly size: number;
  /** Bytes from an offset; fewer at the end of the file. */
  readonly read: (offset: number, length: number) => Uint8Array;
}

/** A recording cannot be read, or not as it says. */
export class RecordingError extends CoreError {
  readonly code = 'RECORDING';
}

/** How one value is stored. */
export type SampleFormat = 'u8' | 'i8' | 'i16' | 'i24' | 'i32' | 'f32' | 'f64';
export const BYTES_OF: Readonly<Record<SampleFormat, number>> = {
  ...{ u8: 1, i8: 1, i16: 2, i24: 3, i32: 4, f32: 4, f64: 8 },
};

/** What the values of one moment are: one real signal, in-phase and quadrature, or two receivers at once. */
export type RecordingMeaning = 'real' | 'iq' | 'two';

/** A stretch of a recording tuned to one frequency. */
export interface Capture {
  readonly frame: number;
  readonly centreHz: number | null;
  readonly startMs: number | null;
}

/** A mark that the file carries: a stretch of time, maybe of a band. */
export interface Annotation {
  readonly startS: number;
  readonly stopS: number;
  readonly lowHz: number | null;
  readonly highHz: number | null;
  readonly text: string;
}

/** Where the samples of a recording lie and what they mean. */
export interface RecordingLayout {
  readonly sample: SampleFormat;
  readonly bigEndian: boolean;
  /** Values of each moment, one or two. */
  readonly channels: 1 | 2;
  /** Undefined where the file does not say whether two channels are I and Q or two receivers: to be asked. */
  readonly meaning: RecordingMeaning | undefined;
  readonly sampleRateHz: number;
  /** First byte of the samples. */
  readonly offset: number;
  /** Moments that are there. */
  readonly frames: number;
  readonly captures: readonly Capture[];
  readonly annotations: readonly Annotation[];
  /** What is odd about the file, for the listener. */
  readonly remarks: readonly string[];
  /** SHA-512 of the whole data file as its description tells it, in hexadecimal; absent where it tells none. */
  readonly sha512?: string;
}

export const bytesPerFrame = ({ sample, channels }: Pick<RecordingLayout, 'sample' | 'channels'>): number =>
  BYTES_OF[sample] * channels;
export const secondsOf = ({ frames, sampleRateHz }: Pick<RecordingLayout, 'frames' | 'sampleRateHz'>): number =>
  frames / sampleRateHz;

/** A recording whose meaning is known: what the file says, or what was answered. */
export interface Recording {
  readonly source: ByteSource;
  readonly layout: RecordingLayout & { readonly meaning: RecordingMeaning };
  /** Middle of its band, Hz; 0 where the listener reads real samples as they are. */
  readonly centreHz: number;
  /** Which of two receivers is read, 0 or 1; of anything else 0. */
  readonly channel: 0 | 1;
}

/** Lowest and highest frequency that a recording holds, Hz. */
export function bandOf({ layout, centreHz }: Recording): { readonly lowHz: number; readonly highHz: number } {
  const { sampleRateHz, meaning } = layout;
  return meaning === 'iq'
    ? { lowHz: centreHz - sampleRateHz / 2, highHz: centreHz + sampleRateHz / 2 }
    : { lowHz: centreHz, highHz: centreHz + sampleRateHz / 2 };
}

/**
 * Puts together a file, its layout and what was answered.
 * @param answers what two channels mean where the file does not say; the frequency in the middle where it does not say.
 * @throws RecordingError when it must still be asked, or the answer cannot be.
 */
export function recordingOf(
  source: ByteSource,
  layout: RecordingLayout,
  answers: { readonly meaning?: RecordingMeaning; readonly centreHz?: number; readonly channel?: 0 | 1 } = {},
): Recording {
  const meaning = answers.meaning ?? layout.meaning;
  if (meaning === undefined)
    throw new RecordingError(
      'This file has two channels and does not say what they are. Say whether they are I and Q of one receiver, or two receivers at once.',
    );
  if (layout.channels === 1 && meaning !== 'real')
    throw new RecordingError('This file has one channel: it can be read as real samples only.');
  return {
    source,
    layout: { ...layout, meaning },
    centreHz: answers.centreHz ?? layout.captures[0]?.centreHz ?? 0,
    channel: meaning === 'two' ? (answers.channel ?? 0) : 0,
  };
}
