import {
  BYTES_OF,
  RecordingError,
  type Annotation,
  type Capture,
  type RecordingLayout,
  type SampleFormat,
} from './layout';

type Fields = Readonly<Record<string, unknown>>;
const isFields = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const fieldsIn = (value: unknown): readonly Fields[] => (Array.isArray(value) ? value.filter(isFields) : []);
const numberIn = (fields: Fields, name: string): number | null => {
  const value = fields[name];
  return typeof value === 'number' && Number.isFinite(value) ? value : null;
};
const textIn = (fields: Fields, name: string): string => {
  const value = fields[name];
  return typeof value === 'string' ? value : '';
};

/** What the words of a datatype mean. */
function datatypeOf(word: string): Pick<RecordingLayout, 'sample' | 'bigEndian' | 'meaning'> & { complex: boolean } {
  const match = /^([cr])(f64|f32|i32|i16|i8|u8)(?:_(le|be))?$/.exec(word);
  if (!match)
    throw new RecordingError(
      `This recording says datatype "${word}"; cf32, cf64, ci32, ci16, ci8, cu8 and the same with r can be read, with _le or _be. Correct core:datatype, or export it again.`,
    );
  const complex = match[1] === 'c';
  return { complex, sample: match[2] as SampleFormat, bigEndian: match[3] === 'be', meaning: complex ? 'iq' : 'real' };
}

function captureOf(fields: Fields): Capture {
  const at = Date.parse(textIn(fields, 'core:datetime'));
  return {
    frame: numberIn(fields, 'core:sample_start') ?? 0,
    centreHz: numberIn(fields, 'core:frequency'),
    startMs: Number.isNaN(at) ? null : at,
  };
}

function annotationOf(fields: Fields, sampleRateHz: number): Annotation {
  const start = numberIn(fields, 'core:sample_start') ?? 0;
  return {
    startS: start / sampleRateHz,
    stopS: (start + (numberIn(fields, 'core:sample_count') ?? 0)) / sampleRateHz,
    lowHz: numberIn(fields, 'core:freq_lower_edge'),
    highHz: numberIn(fields, 'core:freq_upper_edge'),
    text: textIn(fields, 'core:label') || textIn(fields, 'core:comment'),
  };
}

/**
 * Reads the description of a recording (SigMF 1.x): the data lie in a file of the same name.
 * @param metaText the .sigmf-meta file. @param dataBytes size of the .sigmf-data file.
 * @throws RecordingError with what is wrong and how to mend it.
 */
export function readSigmfLayout(metaText: string, dataBytes: number): RecordingLayout {
  let meta: unknown;
  try {
    meta = JSON.parse(metaText);
  } catch {
    throw new RecordingError('The .sigmf-meta file is not valid JSON. Export the recording again.');
  }
  const global = isFields(meta) ? meta['global'] : undefined;
  if (!isFields(meta) || !isFields(global))
    throw new RecordingError('This is no .sigmf-meta file: the part "global" is missing. Choose the file beside it.');
  requireReadable(global);
  const { complex, ...datatype } = datatypeOf(textIn(global, 'core:datatype'));
  const sampleRateHz = numberIn(global, 'core:sample_rate') ?? 0;
  if (!(sampleRateHz > 0))
    throw new RecordingError('This recording does not say its sample rate. Put core:sample_rate into the meta file.');
  const several = numberIn(global, 'core:num_channels') ?? 1;
  if (several > 2 || several < 1 || (several === 2 && complex))
    throw new RecordingError(
      `This recording has ${several} ${complex ? 'complex ' : ''}channels; one complex, or one or two real ones, can be read.`,
    );
  const channels = complex || several === 2 ? 2 : 1;
  const perFrame = BYTES_OF[datatype.sample] * channels;
  const captures = fieldsIn(meta['captures']).map(captureOf);
  const offset = numberIn(fieldsIn(meta['captures'])[0] ?? {}, 'core:header_bytes') ?? 0;
  const trailing = numberIn(global, 'core:trailing_bytes') ?? 0;
  const ownBytes = dataBytes - offset - trailing;
  const whole = Math.floor(ownBytes / perFrame);
  if (whole < 1) throw new RecordingError('The .sigmf-data file holds no samples. Choose the one of the same name.');
  // a receiver that was retuned while it recorded: one frequency at a time can be measured
  // and bytes between two captures, which are no samples, end what can be read as well
  const headed = fieldsIn(meta['captures']).map((one) => (numberIn(one, 'core:header_bytes') ?? 0) > 0);
  const retuned = captures.find(({ centreHz }, i) => i > 0 && (centreHz !== captures[0].centreHz || headed[i]));
  const sha512 = textIn(global, 'core:sha512').toLowerCase();
  const frames = retuned ? Math.max(1, Math.min(whole, retuned.frame)) : whole;
  return {
    ...datatype,
    meaning: several === 2 ? 'two' : datatype.meaning,
    ...{ channels, sampleRateHz, offset, frames },
    captures: captures.length > 0 ? captures : [{ frame: 0, centreHz: null, startMs: null }],
    annotations: fieldsIn(meta['annotations']).map((one) => annotationOf(one, sampleRateHz)),
    remarks: [
      ...(ownBytes % perFrame === 0 ? [] : ['The last sample is cut off; all before it are read.']),
      ...(retuned
        ? [
            retuned.centreHz === captures[0].centreHz
              ? `Bytes that are no samples stand ${(retuned.frame / sampleRateHz).toFixed(1)} s after the start: what comes before is read. Split the file to read the rest.`
              : `The receiver was retuned ${(retuned.frame / sampleRateHz).toFixed(1)} s after the start: what comes before is read. Split the file to read the rest.`,
          ]
        : []),
    ],
    ...(/^[0-9a-f]{128}$/.test(sha512) ? { sha512 } : {}),
  };
}

/** What the description demands of whoever reads it (SigMF 1.2: extensions that are not optional, descriptions without data). @throws RecordingError */
function requireReadable(global: Fields): void {
  const needed = fieldsIn(global['core:extensions']).find(({ optional }) => optional === false);
  if (needed)
    throw new RecordingError(
      `This recording cannot be read without the extension "${textIn(needed, 'name')}", which is not known here. Export it without it, or as WAV.`,
    );
  if (global['core:metadata_only'] === true)
    throw new RecordingError(
      'This .sigmf-meta describes a recording whose data are not handed on. There is nothing to measure.',
    );
}

/** Name of the data file that a description names (a dataset in a format of its own); undefined: the file of the same name. */
export function datasetNamed(metaText: string): string | undefined {
  try {
    const meta: unknown = JSON.parse(metaText);
    const global = isFields(meta) ? meta['global'] : undefined;
    return isFields(global) ? textIn(global, 'core:dataset') || undefined : undefined;
  } catch {
    return undefined;
  }
}

/**
 * The description with annotations put in: those it had stay, so do fields that are not known here.
 * @param metaText the .sigmf-meta as it was read. @returns the text of a new .sigmf-meta.
 */
export function withAnnotations(metaText: string, added: readonly Annotation[], sampleRateHz: number): string {
  const meta: unknown = JSON.parse(metaText);
  if (!isFields(meta)) throw new RecordingError('This is no .sigmf-meta file.');
  const marks = added.map(({ startS, stopS, lowHz, highHz, text }) => ({
    'core:sample_start': Math.round(startS * sampleRateHz),
    'core:sample_count': Math.round((stopS - startS) * sampleRateHz),
    ...(lowHz === null ? {} : { 'core:freq_lower_edge': lowHz }),
    ...(highHz === null ? {} : { 'core:freq_upper_edge': highHz }),
    'core:label': text,
  }));
  const all = [...fieldsIn(meta['annotations']), ...marks].sort(
    (a, b) => (numberIn(a, 'core:sample_start') ?? 0) - (numberIn(b, 'core:sample_start') ?? 0),
  );
  return JSON.stringify({ ...meta, annotations: all }, null, 2);
}
