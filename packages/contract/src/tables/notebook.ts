import { real, whole, line, choice, evidence, filled } from '../columns';
import { tableOf } from '../table';

export const entries = tableOf({
  label: 'entry',
  plural: 'entries',
  columns: {
    stage: choice('Stage', [
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
