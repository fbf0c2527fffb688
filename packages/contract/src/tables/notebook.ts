import { LOG_KINDS, MOST_LOG_ROWS, PATTERN_CUTS } from '@velvet-reed/core/formats';
import {
  choice,
  evidence,
  filled,
  flag,
  line,
  maybeReal,
  maybeRef,
  ownFile,
  real,
  ref,
  text,
  whole,
  withBlank,
  takenOn,
} from '../columns';
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
    /** What it speaks of: an antenna, and the room in which it was written, "bench/trim". */
    antennaId: maybeRef('antennas', 'Antenna'),
    room: text('Room', 60),
    /** Stands above the others. */
    pinned: withBlank(flag('Pinned'), false),
  },
});

/** A photo of an entry: upright, without anything that tells where it was taken. */
export const photos = tableOf({
  label: 'photo',
  columns: {
    entryId: ref('entries', 'Entry'),
    attachmentId: evidence(ownFile(ref('attachments', 'Picture'))),
    /** The same, small. */
    smallId: evidence(ownFile(ref('attachments', 'Small picture'))),
    caption: text('Caption', 200),
  },
});

/** What upkeep is for. */
const UPKEEP_KINDS = ['ropes', 'joints', 'rods', 'paint', 'battery', 'calibration', 'storm', 'other'] as const;

/** Something that is looked at again and again, and when it was last. */
export const upkeep = tableOf({
  label: 'duty',
  plural: 'duties',
  columns: {
    name: line('What is looked at', 120),
    kind: choice('Kind', UPKEEP_KINDS),
    everyDays: real('Every (days)', 1, 7300),
    /** Counted from here until it was done once. */
    sinceMs: real('Counted from (ms)', 0, 1e14),
    doneMs: maybeReal('Last done (ms)', 0, 1e14),
    antennaId: maybeRef('antennas', 'Antenna'),
    note: text('Note', 400),
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
    /** Of a pattern: what its angles count. */
    cut: withBlank(choice('Angles are', PATTERN_CUTS), 'not said'),
    attachmentId: evidence(ownFile(ref('attachments', 'Raw file'))),
    checksum: evidence(text('Checksum', 64)),
    takenOn: takenOn(),
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
