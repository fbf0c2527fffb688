import { LOG_KINDS, MOST_LOG_ROWS } from '@velvet-reed/core/formats';
import { real, maybeReal, maybeRef, ref, whole, line, text, choice, evidence, filled, ownFile } from '../columns';
import { FREQUENCY } from './shared';
import { tableOf } from '../table';

/** What an accessory can be. */
export const ACCESSORY_KINDS = [
  'choke',
  'transformer',
  'arrester',
  'switch',
  'tuner',
  'supply',
  'earth',
  'mast',
  'rotator',
  'adapter',
  'other',
] as const;

export const entries = tableOf({
  label: 'entry',
  plural: 'entries',
  columns: {
    step: choice('Step', [
      'listen',
      'plot',
      'choose',
      'draft',
      'bench',
      'trials',
      'noise',
      'path',
      'guard',
      'notebook',
    ] as const),
    text: filled('Text', 'The entry is empty. Write at least a word.'),
    atMs: real('Time (ms)', 0, 1e14),
  },
});

/** Header of a stored file; the bytes are fetched on their own. */
export const attachments = tableOf({
  label: 'file',
  bytes: 'bytes',
  columns: {
    name: evidence(line('File name', 200)),
    size: evidence(whole('Size (bytes)', 0, 1e9)),
    sha256: evidence(line('Checksum', 64)),
  },
});

/** Header of a long log: levels over time, decodes, a pattern; its rows travel as bytes, a page or a summary at a time. */
export const logs = tableOf({
  label: 'log',
  bytes: 'samples',
  columns: {
    name: line('Name', 120),
    kind: evidence(choice('Kind', LOG_KINDS)),
    rows: evidence(whole('Rows', 1, MOST_LOG_ROWS)),
    /** First and last value of what orders the rows: ms, or degrees for a pattern. */
    first: evidence(real('First', -1e15, 1e15)),
    last: evidence(real('Last', -1e15, 1e15)),
    antennaId: maybeRef('antennas', 'Antenna'),
    receiverId: maybeRef('receivers', 'Receiver'),
    freqHz: maybeReal('Frequency (Hz)', ...FREQUENCY),
    bandwidthHz: maybeReal('Bandwidth (Hz)', 1, 100e6),
    conditions: text('Conditions', 400),
    attachmentId: evidence(ownFile(ref('attachments', 'Raw file'))),
    checksum: evidence(text('Checksum', 64)),
  },
});

/** What belongs to the station beside antennas, receivers and lines: chokes, transformers, arresters, supplies, masts. */
export const accessories = tableOf({
  label: 'accessory',
  plural: 'accessories',
  columns: {
    name: line('Name'),
    kind: choice('Kind', ACCESSORY_KINDS),
    antennaId: maybeRef('antennas', 'Antenna'),
    /** What is known of it, in words and figures. */
    property: text('What is known of it', 200),
    sinceMs: maybeReal('In use since (ms)', 0, 1e14),
    measuredMs: maybeReal('Measured (ms)', 0, 1e14),
  },
});
