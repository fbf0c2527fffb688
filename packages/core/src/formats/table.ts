import { plainCell, readMomentCell, readNumberCell, S_CELL, type Decimal } from './cells';
import { linesOf } from './lines';
import type { TableAnswer } from './table-question';
import { MAX_SWEEP_POINTS, SweepFileError } from './touchstone';

/** One row of a table with the line of the file that it stands on. */
export interface TableRow {
  readonly line: number;
  readonly cells: readonly string[];
}

/** A table as it stands in a text, before anything is said of what its columns mean. */
export interface Table {
  /** One per column; empty texts where there is no heading. */
  readonly headings: readonly string[];
  /** Line of the heading; 0 where there is none. */
  readonly headingLine: number;
  readonly rows: readonly TableRow[];
  readonly decimal: Decimal;
  /** Commas may be decimals or group thousands, and nothing in the file says which. */
  readonly decimalDoubtful: boolean;
  /** Lines ahead of the table, for a reader that looks for settings there. */
  readonly preamble: readonly string[];
}

const COMMENT = /^(#|!|%|\/\/|\*)/;
/** A table has no more columns than this, and no cell is longer. */
const MOST_COLUMNS = 64;
/** Rows looked at to find out how a file is written. */
const LOOKED_AT = 200;
const SHOWN_ROWS = 5;

type Delimiter = '\t' | ';' | '|' | ',' | ' ';

/** Splits one line; a delimiter between quotes is text, two quotes are one (RFC 4180). */
function splitLine(line: string, delimiter: Delimiter): string[] {
  if (delimiter === ' ') return line.trim().split(/\s+/);
  if (!line.includes('"')) return line.split(delimiter, MOST_COLUMNS + 1).map((cell) => cell.trim());
  const cells: string[] = [];
  let cell = '';
  let quoted = false;
  for (let i = 0; i < line.length && cells.length <= MOST_COLUMNS; i += 1) {
    const letter = line[i];
    if (quoted) {
      if (letter !== '"') cell += letter;
      else if (line[i + 1] === '"') {
        cell += '"';
        i += 1;
      } else quoted = false;
    } else if (letter === '"' && cell.trim() === '') {
      quoted = true;
      cell = '';
    } else if (letter === delimiter) {
      cells.push(cell.trim());
      cell = '';
    } else cell += letter;
  }
  cells.push(cell.trim());
  return cells;
}

/** A number in either way of writing decimals; used before it is known which one holds. */
const looksNumeric = (cell: string): boolean => readNumberCell(cell, '.') !== undefined || S_CELL.test(plainCell(cell));
const looksTimed = (cell: string): boolean => readMomentCell(cell) !== undefined;

/** A row of data: at least two values, one of them a number, and no more words than values unless the table is one of words too. */
function isData(cells: readonly string[], wordy: boolean): boolean {
  if (cells.length < 2 || cells.length > MOST_COLUMNS) return false;
  let values = 0;
  let numbers = 0;
  let words = 0;
  for (const cell of cells) {
    if (cell === '') continue;
    if (PLAIN_NUMBER.test(cell)) {
      numbers += 1;
      values += 1;
      continue;
    }
    const timed = looksTimed(cell);
    if (!timed && looksNumeric(cell)) numbers += 1;
    if (timed || looksNumeric(cell) || NOT_READ.test(plainCell(cell))) values += 1;
    else words += 1;
  }
  return numbers >= 1 && values >= 2 && (wordy || words < values);
}

/** The usual case, told without trying every way of writing numbers and times. */
const PLAIN_NUMBER = /^[+-]?\d{1,15}(\.\d{1,15})?$/;

/** What programs write where there is no value. */
const NOT_READ = /^(-+|n\/?a|nan|[-+]?inf(inity)?|∞|ovld|ol|\?+)$/i;

/** The delimiter under which most lines are rows of one width. */
function findDelimiter(sample: readonly string[], wordy: boolean): Delimiter | undefined {
  let best: { readonly delimiter: Delimiter; readonly rows: number } | undefined;
  for (const delimiter of ['\t', ';', '|', ',', ' '] as const) {
    const widths = new Map<number, number>();
    for (const line of sample) {
      if (delimiter !== ' ' && !line.includes(delimiter)) continue;
      // a comma between digits and blanks around the numbers: "7,1 -90,5" is two columns, not three
      if (delimiter === ',' && /^\s*[-+−]?\d+,\d+(\s+[-+−]?\d+,\d+)+\s*$/.test(line)) continue;
      const cells = splitLine(line, delimiter);
      const filled = cells.at(-1) === '' ? cells.slice(0, -1) : cells;
      if (isData(filled, wordy)) widths.set(filled.length, (widths.get(filled.length) ?? 0) + 1);
    }
    const rows = Math.max(0, ...widths.values());
    // blanks also stand inside cells (a date and its time): they part columns only where nothing else does
    const needed = (best?.rows ?? 0) * (delimiter === ' ' ? 4 : 1);
    if (rows > needed) best = { delimiter, rows };
  }
  return best?.delimiter;
}

/** Which character separates decimals, and whether that is certain. */
function findDecimal(rows: readonly TableRow[]): { readonly decimal: Decimal; readonly doubtful: boolean } {
  let comma = false;
  let point = false;
  let group = false;
  for (const { cells } of rows.slice(0, 5000)) {
    for (const raw of cells) {
      const cell = plainCell(raw);
      if (!/^[+-]?[\d.,' ]+([eEdD][+-]?\d+)?\s*\D*$/.test(cell) || looksTimed(cell)) continue;
      const digits = cell.replace(/[eEdD][+-]?\d+.*$/, '');
      // two groups of three and more say nothing of the decimals
      if (/^[+-]?\d{1,3}([.,' ])\d{3}(\1\d{3})+\D*$/.test(digits)) continue;
      const [lastComma, lastPoint] = [digits.lastIndexOf(','), digits.lastIndexOf('.')];
      if (lastComma >= 0 && lastPoint >= 0) {
        if (lastComma > lastPoint) comma = true;
        else point = true;
      } else if (lastComma >= 0) {
        // three digits behind each comma, and one to three ahead: may be thousands; a leading zero is none
        if (/^[+-]?[1-9]\d{0,2}(,\d{3})+\D*$/.test(digits)) group = true;
        else comma = true;
      } else if (lastPoint >= 0) {
        point = true;
      }
    }
  }
  if (comma && !point) return { decimal: ',', doubtful: false };
  if (point && !comma) return { decimal: '.', doubtful: false };
  if (comma && point) return { decimal: ',', doubtful: true };
  return { decimal: group ? ',' : '.', doubtful: group };
}

const UNIT_WORD = /^[[(]?(hz|khz|mhz|ghz|ohm|ohms|ω|db|dbm|dbfs|dbµv|dbuv|deg|°|rad|s|ns|pf|nh|µh|%|-|1|:1|)[\])]?$/i;

interface Layout {
  readonly headings: readonly string[];
  readonly headingLine: number;
}

/** The last line ahead of the data that has a word for each column; a line of units below it belongs to it. */
function findHeading(
  before: readonly { readonly line: number; readonly text: string }[],
  width: number,
  delimiter: Delimiter,
): Layout {
  const none: Layout = { headings: Array.from({ length: width }, () => ''), headingLine: 0 };
  let units: readonly string[] | undefined;
  for (let i = before.length - 1; i >= Math.max(0, before.length - 6); i -= 1) {
    const text = before[i].text.trim().replace(COMMENT, '').trim();
    const own = splitLine(text, delimiter);
    // headings of blank-separated tables may hold blanks themselves: columns are then two blanks or a tab apart
    const cells = [own, text.split(/\t|\s{2,}/), text.split(',').map((one) => one.trim())].find(
      (one) => (one.at(-1) === '' ? one.length - 1 : one.length) === width,
    );
    if (!cells) continue;
    const words = cells.slice(0, width);
    if (
      words.every((cell) => UNIT_WORD.test(cell)) &&
      units === undefined &&
      i > 0 &&
      words.some((cell) => cell !== '')
    ) {
      units = words;
      continue;
    }
    if (words.some((cell) => cell !== '' && looksNumeric(cell) && !/[a-z]/i.test(cell))) continue;
    if (!words.some((cell) => /\p{L}/u.test(cell))) continue;
    return {
      headings: words.map((cell, k) => (units?.[k] ? `${cell} (${units[k].replace(/[[\]()]/g, '')})` : cell)),
      headingLine: before[i].line,
    };
  }
  return units ? { headings: units, headingLine: before.at(-1)?.line ?? 0 } : none;
}

/** What sort of table is looked for. */
interface TableSort {
  readonly mostRows?: number;
  /** Names and remarks may outnumber the numbers. */
  readonly wordy?: boolean;
}

/**
 * Finds the table in a text: its delimiter, decimals, heading and rows, whatever stands around it.
 * @throws SweepFileError with the line number.
 */
export function readTable(
  text: string,
  answer: Pick<TableAnswer, 'decimal'> = {},
  { mostRows = MAX_SWEEP_POINTS, wordy = false }: TableSort = {},
): Table {
  const sample: string[] = [];
  for (const { text: line } of linesOf(text)) {
    if (!COMMENT.test(line.trim())) sample.push(line);
    if (sample.length >= LOOKED_AT) break;
  }
  const delimiter = findDelimiter(sample, wordy);
  if (delimiter === undefined)
    throw new SweepFileError(
      1,
      'the file holds no table: no line has two values. Export it again as CSV with a heading row.',
    );
  const before: { readonly line: number; readonly text: string }[] = [];
  const rows: TableRow[] = [];
  let tail: { readonly line: number; readonly text: string } | undefined;
  for (const entry of linesOf(text)) {
    const cells = splitLine(entry.text, delimiter);
    const filled = cells.length > 1 && cells.at(-1) === '' ? cells.slice(0, -1) : cells;
    const comment = COMMENT.test(entry.text.trim());
    if (!comment && isData(filled, wordy)) {
      if (tail)
        throw new SweepFileError(
          tail.line,
          `"${tail.text.trim().slice(0, 40)}" stands between the rows and is not one. Correct or delete that line.`,
        );
      if (rows.length >= mostRows)
        throw new SweepFileError(entry.line, `more than ${mostRows} rows. Export fewer points.`);
      rows.push({ line: entry.line, cells: filled });
    } else if (rows.length === 0) {
      before.push(entry);
      if (before.length > 500)
        throw new SweepFileError(
          entry.line,
          '500 lines and no row of data. Export it again as CSV with a heading row.',
        );
    } else if (!comment) {
      // a damaged row keeps the width of the others; what has another width closes the table
      if (filled.length === rows[0].cells.length && filled.some((cell) => looksNumeric(cell) || looksTimed(cell)))
        rows.push({ line: entry.line, cells: filled });
      else tail ??= entry;
    }
  }
  if (rows.length === 0) throw new SweepFileError(1, 'the file holds no row of data. Export it again.');
  const widths = rows.map(({ cells }) => cells.length);
  const width = widths.reduce((most, one) => Math.max(most, one), 0);
  const odd = rows.find(({ cells }) => cells.length < Math.min(2, width));
  if (odd) throw new SweepFileError(odd.line, 'this row is too short. Complete or delete it.');
  const heading = findHeading(before, width, delimiter);
  if (heading.headingLine === 0) {
    const wide = commaBoth(before, rows, delimiter);
    if (wide !== undefined)
      throw new SweepFileError(
        wide,
        'commas separate both the columns and the decimals here. Export with semicolons or tabs between the columns.',
      );
  }
  const found = findDecimal(rows);
  return {
    ...heading,
    rows,
    decimal: answer.decimal ?? found.decimal,
    decimalDoubtful: found.doubtful && answer.decimal === undefined,
    preamble: before.map((one) => one.text),
  };
}

/** Twice as many cells as headings: "7,1,-90,5" under "freq,level". */
function commaBoth(
  before: readonly { readonly line: number; readonly text: string }[],
  rows: readonly TableRow[],
  delimiter: Delimiter,
): number | undefined {
  if (delimiter !== ',') return undefined;
  const heading = before.at(-1);
  if (!heading) return undefined;
  const names = splitLine(heading.text.trim().replace(COMMENT, ''), ',');
  return names.length >= 2 && rows[0].cells.length > names.length ? rows[0].line : undefined;
}

/** What an answer is remembered by: the heading, or the number of columns. */
export const tableKey = ({ headings, rows }: Table): string =>
  headings.some((one) => one !== '')
    ? headings.join('|').toLowerCase().slice(0, 400)
    : `no heading, ${rows[0].cells.length} columns`;

export const firstRows = ({ rows }: Table): readonly (readonly string[])[] =>
  rows.slice(0, SHOWN_ROWS).map(({ cells }) => cells);

/** A number in a column; a value that is missing or no number is told with its line. @throws SweepFileError */
export function numberAt(
  table: Table,
  row: TableRow,
  column: number,
): { readonly value: number; readonly unit: string } {
  const cell = row.cells[column] ?? '';
  const read = readNumberCell(cell, table.decimal);
  if (read) return read;
  throw new SweepFileError(
    row.line,
    `"${cell.slice(0, 40)}" in column ${column + 1} is not a number. Correct or delete that row.`,
  );
}
