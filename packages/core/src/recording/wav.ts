import { BYTES_OF, RecordingError, type ByteSource, type RecordingLayout, type SampleFormat } from './layout';

/** Format numbers of the fmt chunk. Source: Multimedia Programming Interface and Data Specifications 1.0 (1991); EBU Tech 3306 (RF64). */
const PCM = 1;
const FLOAT = 3;
const EXTENSIBLE = 0xfffe;
/** Size that says "look into the ds64 chunk" in RF64, and that some recorders leave while they write. */
const UNKNOWN_SIZE = 0xffffffff;
/** Chunks looked at before the samples. */
const MOST_CHUNKS = 1000;
const LEAST_FORMAT_BYTES = 16;

const textAt = (bytes: Uint8Array, at: number): string => String.fromCharCode(...bytes.subarray(at, at + 4));
const viewOf = (bytes: Uint8Array): DataView => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);

function sampleOf(tag: number, bits: number): SampleFormat {
  const known: Readonly<Record<string, SampleFormat>> = {
    ...{ '1 8': 'u8', '1 16': 'i16', '1 24': 'i24', '1 32': 'i32', '3 32': 'f32', '3 64': 'f64' },
  };
  const found = known[`${tag} ${bits}`];
  if (found) return found;
  throw new RecordingError(
    tag === PCM || tag === FLOAT
      ? `This file has samples of ${bits} bits; 8, 16, 24 and 32 bits and floating point can be read. Save it in one of these.`
      : `The samples of this file are compressed (format ${tag}). Save it as plain PCM or floating point: compression takes weak signals away.`,
  );
}

interface Format {
  readonly sample: SampleFormat;
  readonly channels: 1 | 2;
  readonly sampleRateHz: number;
}

function formatOf(bytes: Uint8Array): Format {
  if (bytes.length < LEAST_FORMAT_BYTES)
    throw new RecordingError('The format of this file is cut off. Copy the file again from where it was recorded.');
  const view = viewOf(bytes);
  const tag = view.getUint16(0, true);
  // the sub-format of WAVE_FORMAT_EXTENSIBLE begins with the number that a plain file has
  const plain = tag === EXTENSIBLE && bytes.length >= 26 ? view.getUint16(24, true) : tag;
  const channels = view.getUint16(2, true);
  const sampleRateHz = view.getUint32(4, true);
  const align = view.getUint16(12, true);
  const sample = sampleOf(plain, view.getUint16(14, true));
  if (channels !== 1 && channels !== 2)
    throw new RecordingError(
      `This file has ${channels} channels; one, or two (I and Q, or two receivers), can be read. Save the two that you mean.`,
    );
  if (sampleRateHz === 0)
    throw new RecordingError('This file says a sample rate of zero. Its head is damaged; record or copy it again.');
  if (align !== BYTES_OF[sample] * channels)
    throw new RecordingError(
      `The head of this file contradicts itself: ${align} bytes a moment, where ${channels} × ${BYTES_OF[sample]} are needed. Record or export it again.`,
    );
  return { sample, channels, sampleRateHz };
}

/** Bytes of a stretch that is missing at the end, in words. */
const missingText = (there: number, told: number, perSecond: number): string =>
  `The file is cut: ${(there / perSecond).toFixed(1)} s of ${(told / perSecond).toFixed(1)} s are there, and those are read.`;

/**
 * Reads the head of a WAV file (RIFF or RF64; PCM of 8, 16, 24, 32 bits or floating point; plain or extensible).
 * @throws RecordingError with what is wrong and how to mend it.
 */
export function readWavLayout(source: ByteSource): RecordingLayout {
  const head = source.read(0, 12);
  const kind = head.length === 12 ? textAt(head, 0) : '';
  if (!['RIFF', 'RF64', 'BW64'].includes(kind) || textAt(head, 8) !== 'WAVE')
    throw new RecordingError(
      'This is no WAV file, whatever its name says. A recording is a .wav, or a .sigmf-meta with its .sigmf-data.',
    );
  let format: Format | undefined;
  let wideSize: number | undefined;
  let at = 12;
  for (let count = 0; count < MOST_CHUNKS && at + 8 <= source.size; count += 1) {
    const chunk = source.read(at, 8);
    const name = textAt(chunk, 0);
    const size = viewOf(chunk).getUint32(4, true);
    if (name === 'ds64') wideSize = Number(viewOf(source.read(at + 8, 16)).getBigUint64(8, true));
    if (name === 'fmt ') format = formatOf(source.read(at + 8, Math.min(size, 64)));
    if (name === 'data') {
      if (!format)
        throw new RecordingError('In this file the samples come before their format. Record or export it again.');
      const offset = at + 8;
      const there = source.size - offset;
      const unsaid = size === UNKNOWN_SIZE || size === 0;
      const told = size === UNKNOWN_SIZE && wideSize !== undefined ? wideSize : unsaid ? there : size;
      const perFrame = BYTES_OF[format.sample] * format.channels;
      const frames = Math.floor(Math.min(told, there) / perFrame);
      if (frames === 0) throw new RecordingError('This file holds no samples. Record it again.');
      return {
        ...format,
        bigEndian: false,
        meaning: format.channels === 1 ? 'real' : undefined,
        ...{ offset, frames, annotations: [] },
        captures: [{ frame: 0, centreHz: null, startMs: null }],
        remarks: [
          ...(told > there ? [missingText(there, told, perFrame * format.sampleRateHz)] : []),
          ...(unsaid && wideSize === undefined
            ? ['The recorder did not say how long it is: all to the end of the file is read.']
            : []),
        ],
      };
    }
    at += 8 + size + (size % 2);
  }
  throw new RecordingError('No samples were found in this file: it ends before them. Copy it again.');
}
