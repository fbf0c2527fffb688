import { ShapeError } from '@velvet-reed/core/errors';
import { LOG_COLUMNS, type LogKind, type LogRows } from '@velvet-reed/core/formats';

/** Length of the header's length, bytes. */
const LENGTH_BYTES = 4;
const NUMBER_BYTES = 8;
const WORD_BYTES = 4;
/** The header is written in UTF-16. */
const LETTER_BYTES = 2;
/** Letters turned into text at once. */
const LETTERS = 8192;

/** What stands ahead of the columns: how many rows, and the words that the columns of words count into. */
interface Header {
  readonly rows: number;
  readonly words: Readonly<Record<string, readonly string[]>>;
}

/** Rows of a log as bytes: a header, then each column as little-endian float64, or as uint32 into its list of words. */
export function packLog({ kind, numbers, words }: LogRows): Uint8Array<ArrayBuffer> {
  const columns = LOG_COLUMNS[kind];
  const rows = numbers[columns[0].id].length;
  const lists = new Map<string, Map<string, number>>();
  const indices = columns.map(({ id, words: isWords }) => {
    if (!isWords) return undefined;
    const list = new Map<string, number>();
    lists.set(id, list);
    return Uint32Array.from(words[id], (word) => {
      const known = list.get(word) ?? list.size;
      if (known === list.size) list.set(word, known);
      return known;
    });
  });
  const header: Header = { rows, words: Object.fromEntries([...lists].map(([id, list]) => [id, [...list.keys()]])) };
  const text = JSON.stringify(header);
  const size = columns.reduce((sum, column) => sum + rows * (column.words ? WORD_BYTES : NUMBER_BYTES), 0);
  const bytes = new Uint8Array(LENGTH_BYTES + text.length * LETTER_BYTES + size);
  const view = new DataView(bytes.buffer);
  view.setUint32(0, text.length, true);
  for (let i = 0; i < text.length; i += 1) view.setUint16(LENGTH_BYTES + i * LETTER_BYTES, text.charCodeAt(i), true);
  let at = LENGTH_BYTES + text.length * LETTER_BYTES;
  columns.forEach(({ id }, k) => {
    const words32 = indices[k];
    for (let i = 0; i < rows; i += 1) {
      if (words32) view.setUint32(at + i * WORD_BYTES, words32[i], true);
      else view.setFloat64(at + i * NUMBER_BYTES, numbers[id][i], true);
    }
    at += rows * (words32 ? WORD_BYTES : NUMBER_BYTES);
  });
  return bytes;
}

const isHeader = (value: unknown): value is Header =>
  typeof value === 'object' &&
  value !== null &&
  'rows' in value &&
  typeof value.rows === 'number' &&
  'words' in value &&
  typeof value.words === 'object' &&
  value.words !== null;

/** undefined for what is no header. */
function readHeader(view: DataView, length: number): Header | undefined {
  let text = '';
  for (let i = 0; i < length; i += LETTERS * LETTER_BYTES) {
    const letters = Math.min(LETTERS, (length - i) / LETTER_BYTES);
    text += String.fromCharCode(
      ...Array.from({ length: letters }, (_, k) => view.getUint16(LENGTH_BYTES + i + k * LETTER_BYTES, true)),
    );
  }
  try {
    const value: unknown = JSON.parse(text);
    return isHeader(value) ? value : undefined;
  } catch {
    return undefined;
  }
}

/**
 * The reverse of packLog, of all rows or of a page of them.
 * @throws ShapeError if the bytes are not a whole log of this kind.
 */
export function unpackLog(kind: LogKind, bytes: Uint8Array, from = 0, count = Infinity): LogRows {
  const broken = new ShapeError('The stored log is incomplete. Import its file again.');
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.byteLength < LENGTH_BYTES) throw broken;
  const length = view.getUint32(0, true) * LETTER_BYTES;
  if (LENGTH_BYTES + length > bytes.byteLength) throw broken;
  const header = readHeader(view, length);
  if (!header) throw broken;
  const columns = LOG_COLUMNS[kind];
  const { rows } = header;
  const size = columns.reduce((sum, column) => sum + rows * (column.words ? WORD_BYTES : NUMBER_BYTES), 0);
  if (LENGTH_BYTES + length + size !== bytes.byteLength) throw broken;
  const begin = Math.min(rows, Math.max(0, from));
  const n = Math.min(count, rows - begin);
  const numbers: Record<string, Float64Array> = {};
  const words: Record<string, readonly string[]> = {};
  let at = LENGTH_BYTES + length;
  for (const { id, words: isWords } of columns) {
    const start = at;
    if (isWords) {
      const list = header.words[id] ?? [];
      words[id] = Array.from(
        { length: n },
        (_, i) => list[view.getUint32(start + (begin + i) * WORD_BYTES, true)] ?? '',
      );
    } else
      numbers[id] = Float64Array.from({ length: n }, (_, i) =>
        view.getFloat64(start + (begin + i) * NUMBER_BYTES, true),
      );
    at += rows * (isWords ? WORD_BYTES : NUMBER_BYTES);
  }
  return { kind, numbers, words };
}

/** A page of a log as it travels: a row is a list of values by column; null: nothing there. */
export interface LogPage {
  readonly from: number;
  readonly rows: readonly (readonly (number | string | null)[])[];
}

/** Rows of a log as a page. */
export function logPage({ kind, numbers, words }: LogRows, from: number): LogPage {
  const columns = LOG_COLUMNS[kind];
  const rows = Array.from({ length: numbers[columns[0].id].length }, (_, i) =>
    columns.map(({ id, words: isWords }) => {
      if (isWords) return words[id][i];
      const value = numbers[id][i];
      return Number.isNaN(value) ? null : value;
    }),
  );
  return { from, rows };
}
