import { frequencyAt, frequencyUnit, headingOf, rising } from './sweep-csv';
import { hertzOf, readNumberCell } from './cells';
import { headingSays } from './heading-words';
import { levelColumn } from './levels-of';
import { firstRows, readTable, tableKey, type Table } from './table';
import { TableQuestionError, type TableAnswer } from './table-question';
import { SweepFileError } from './touchstone';

/** A spectrum: levels in dB (any reference) over frequency, ascending. */
export interface Spectrum {
  readonly freqHz: Float64Array;
  readonly levelDb: Float64Array;
}

/** What a column of a spectrum may hold. */
const SPECTRUM_MEANINGS = ['frequency', 'level', 'ignore'] as const;
type SpectrumMeaning = (typeof SPECTRUM_MEANINGS)[number];
const isMeaning = (text: string): text is SpectrumMeaning => SPECTRUM_MEANINGS.some((one) => one === text);

const LEVEL = /level|power|ampl|db|µv|μv|\buv\b|volt|mag|pegel|niveau|trace|spectrum|rssi|signal/i;
/** Levels that any receiver shows, dB of whatever reference. */
const LEVELS = [-300, 300] as const;

function guess(heading: string): SpectrumMeaning | undefined {
  const { name, unit } = headingOf(heading);
  if (
    hertzOf(unit) !== undefined ||
    hertzOf(heading) !== undefined ||
    /^f(req.*)?$/.test(name) ||
    headingSays(heading, 'frequency')
  )
    return /band ?width|resolution|rbw/.test(name) ? 'ignore' : 'frequency';
  if (LEVEL.test(heading) || headingSays(heading, 'level')) return 'level';
  if (/^(#|no\.?|n|index|idx|bin|point|pt|row|sample|time|date|utc)$/i.test(name)) return 'ignore';
  return undefined;
}

function meaningsOf(
  table: Table,
  answer: TableAnswer,
): { readonly columns: SpectrumMeaning[]; readonly certain: boolean } {
  if (answer.columns) {
    const columns = table.headings.map((_, k) => answer.columns?.[k] ?? 'ignore').filter(isMeaning);
    const count = (what: SpectrumMeaning): number => columns.filter((one) => one === what).length;
    if (columns.length !== table.headings.length || count('frequency') !== 1 || count('level') !== 1)
      throw new SweepFileError(
        Math.max(1, table.headingLine),
        `one column must be the frequency and one the level. Choose from: ${SPECTRUM_MEANINGS.join(', ')}.`,
      );
    return { columns, certain: true };
  }
  const guesses = table.headings.map(guess);
  const named = guesses.some((one) => one !== undefined);
  const columns = guesses.map(
    (one, k): SpectrumMeaning => one ?? (named ? 'ignore' : k === 0 ? 'frequency' : k === 1 ? 'level' : 'ignore'),
  );
  const once = (what: SpectrumMeaning): boolean => guesses.filter((one) => one === what).length === 1;
  return { columns, certain: once('frequency') && once('level') && guesses.every((one) => one !== undefined) };
}

/**
 * Reads a recorded spectrum: a frequency and a level in dB of any reference. What the file does not make certain is asked.
 * @throws TableQuestionError while something has to be answered; SweepFileError with the line number.
 */
export function readSpectrumCsv(text: string, answer: TableAnswer = {}): Spectrum {
  const table = readTable(text, answer);
  const { columns, certain } = meaningsOf(table, answer);
  const frequency = columns.indexOf('frequency');
  const said = answer.unit === undefined ? undefined : hertzOf(answer.unit);
  const unitHz = said ?? (frequency < 0 ? undefined : frequencyUnit(table, frequency));
  const levelAt = columns.indexOf('level');
  const level = levelAt < 0 ? undefined : levelColumn(table, levelAt, answer, true);
  const levelOpen = Object.keys(level?.open ?? {}).length > 0;
  if (!certain || !level || unitHz === undefined || table.decimalDoubtful || levelOpen)
    throw new TableQuestionError({
      ask: 'This table does not say for certain which column is the frequency, in which unit, and which the level, and in which. Say it once; it is remembered for tables with this heading.',
      headings: table.headings,
      rows: firstRows(table),
      columns,
      meanings: SPECTRUM_MEANINGS,
      unit:
        unitHz === undefined
          ? spectrumUnit(table, Math.max(0, frequency))
          : unitHz === 1
            ? 'Hz'
            : unitHz === 1e3
              ? 'kHz'
              : unitHz === 1e6
                ? 'MHz'
                : 'GHz',
      ...(table.decimalDoubtful ? { decimal: table.decimal } : {}),
      ...level?.open,
      key: tableKey(table),
    });
  const rows = rising(
    table.rows.map((row) => {
      const value = level.read(row);
      if (value < LEVELS[0] || value > LEVELS[1])
        throw new SweepFileError(row.line, `${value} is not a level in dB. Say again which column holds the level.`);
      return { line: row.line, at: frequencyAt(table, row, frequency, unitHz), level: value };
    }),
    'frequency',
  );
  if (rows.length < 2)
    throw new SweepFileError(1, 'the file holds no spectrum. It needs two or more rows of frequency and level.');
  return { freqHz: Float64Array.from(rows, ({ at }) => at), levelDb: Float64Array.from(rows, ({ level }) => level) };
}

function spectrumUnit(table: Table, column: number): string {
  const most = readNumberCell(table.rows[table.rows.length - 1].cells[column] ?? '', table.decimal)?.value ?? 0;
  return most >= 3e4 ? 'Hz' : most >= 4000 ? 'kHz' : 'MHz';
}
