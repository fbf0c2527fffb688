import { readMomentCell, readNamedMoment, type MomentCell } from './cells';
import { clockGoesBack, setBack } from './clock-back';
import { headingSays } from './heading-words';
import { type LevelColumn, levelColumn } from './levels-of';
import { headingOf } from './sweep-csv';
import { firstRows, readTable, tableKey, type Table, type TableRow } from './table';
import { type ClockBack, TableQuestionError, type TableAnswer } from './table-question';
import { SweepFileError } from './touchstone';

/** The noise floor at one moment. */
export interface FloorReading {
  readonly atMs: number;
  readonly levelDbm: number;
}

/** What a column of a noise log may hold. */
const LOG_MEANINGS = ['time', 'date', 'level', 'ignore'] as const;
type LogMeaning = (typeof LOG_MEANINGS)[number];
const isMeaning = (text: string): text is LogMeaning => LOG_MEANINGS.some((one) => one === text);

const DAY_S = 86_400;
/** A clock that falls back by more than this has passed midnight. */
const MIDNIGHT_S = DAY_S / 2;

/** A moment in UTC: "2026-08-04T09:13Z", "2026-08-04 09:13", or a clock time of a given day. @returns undefined for anything else. */
export function readMoment(text: string, day: string): number | undefined {
  const cell = readMomentCell(text);
  if (cell?.seconds === undefined || cell.doubtful) return undefined;
  const begin =
    cell.year === undefined ? Date.parse(`${day}T00:00:00Z`) : Date.UTC(cell.year, (cell.month ?? 1) - 1, cell.day);
  return Number.isFinite(begin) ? begin + cell.seconds * 1000 - (cell.zoneMin ?? 0) * 60_000 : undefined;
}

const LEVEL_HEADING = /dbm|dbfs|db|µv|μv|\buv\b|volt|s.?unit|level|floor|noise|power|pegel|rssi/i;

function guess(heading: string, sample: string): LogMeaning | undefined {
  const named = headingSays(heading, 'time') || headingSays(heading, 'date');
  const moment = named ? readNamedMoment(sample) : readMomentCell(sample);
  if (moment) return moment.seconds === undefined ? 'date' : 'time';
  const { name, unit } = headingOf(heading);
  if (/^(#|no\.?|n|index|row|sample|channel|station|name)$/i.test(name)) return 'ignore';
  if (unit.startsWith('db') || headingSays(heading, 'level') || LEVEL_HEADING.test(heading)) return 'level';
  if (/hz|freq|temp|snr|bandwidth|battery/i.test(heading)) return 'ignore';
  return undefined;
}

function meaningsOf(table: Table, answer: TableAnswer): { readonly columns: LogMeaning[]; readonly certain: boolean } {
  if (answer.columns) {
    const columns = table.headings.map((_, k) => answer.columns?.[k] ?? 'ignore').filter(isMeaning);
    const count = (what: LogMeaning): number => columns.filter((one) => one === what).length;
    if (columns.length !== table.headings.length || count('time') !== 1 || count('level') !== 1)
      throw new SweepFileError(
        Math.max(1, table.headingLine),
        `one column must be the time and one the level. Choose from: ${LOG_MEANINGS.join(', ')}.`,
      );
    return { columns, certain: true };
  }
  const first = table.rows[0].cells;
  const guesses = table.headings.map((heading, k) => guess(heading, first[k] ?? ''));
  const open = guesses.flatMap((one, k) => (one === undefined ? [k] : []));
  const level = guesses.includes('level') ? -1 : (open[0] ?? -1);
  const columns = guesses.map((one, k): LogMeaning => one ?? (k === level ? 'level' : 'ignore'));
  const count = (what: LogMeaning): number => columns.filter((one) => one === what).length;
  // two columns, one of them a time: the other is the level
  const certain =
    count('time') === 1 && count('level') === 1 && count('date') <= 1 && (open.length === 0 || columns.length === 2);
  return { columns, certain };
}

/** A zone that the heading names. */
const zoneIn = (heading: string): number | undefined => {
  if (/\b(utc|gmt|zulu)\b|_utc|\(z\)/i.test(heading) && !/[+-]\d/.test(heading)) return 0;
  const offset = /(?:utc|gmt)\s*([+-])(\d{1,2})(?::?(\d{2}))?/i.exec(heading);
  return offset ? (offset[1] === '-' ? -1 : 1) * (Number(offset[2]) * 60 + Number(offset[3] ?? 0)) : undefined;
};

/** A log that needs no day and no zone: every row has its own, or the person who imports it says them. */
export interface LogOptions extends TableAnswer {
  /** Day of the first clock time without a date, "2026-08-04". */
  readonly day: string;
}

/**
 * Reads a noise log: time and level in dBm a row, in any order of columns; a clock that passes midnight goes on to the next day. What the file does not make
 * certain (a zone, day and month, a column) is asked.
 * @throws TableQuestionError while something has to be answered; SweepFileError with the line number.
 */
export function readFloorCsv(text: string, { day, ...answer }: LogOptions): readonly FloorReading[] {
  const table = readTable(text, answer);
  const { columns, certain } = meaningsOf(table, answer);
  const [timeAt, dateAt, levelAt] = (['time', 'date', 'level'] as const).map((one) => columns.indexOf(one));
  const moments = timeAt < 0 ? [] : table.rows.map((row) => momentOf(row, { timeAt, dateAt, answer }));
  const zoneMin = answer.zoneMin ?? (timeAt < 0 ? undefined : zoneIn(table.headings[timeAt]));
  const zoneOpen = zoneMin === undefined && moments.some((one) => one.zoneMin === undefined);
  const dateOpen =
    moments.some((one) => one.doubtful) &&
    !moments.some((one) => one.day !== undefined && !one.doubtful && one.day > 12);
  const level = levelAt < 0 ? undefined : levelColumn(table, levelAt, answer, false);
  const levelOpen = Object.keys(level?.open ?? {}).length > 0;
  const localMs = certain ? localTimes(table, moments, day) : new Float64Array();
  // a moment with its own zone cannot be mistaken
  const back =
    answer.clock === undefined && moments.every((one) => one.zoneMin === undefined)
      ? clockGoesBack(localMs, (row) => table.rows[row].line)
      : undefined;
  if (!certain || !level || zoneOpen || dateOpen || table.decimalDoubtful || levelOpen || back)
    throw new TableQuestionError({
      ask: questionText({ certain, zoneOpen, dateOpen, decimalOpen: table.decimalDoubtful, levelOpen, back }),
      headings: table.headings,
      rows: firstRows(table),
      columns,
      meanings: LOG_MEANINGS,
      ...(zoneOpen ? { zoneMin: 0 } : {}),
      ...(dateOpen ? { dateOrder: 'dmy' as const } : {}),
      ...(table.decimalDoubtful ? { decimal: table.decimal } : {}),
      ...level?.open,
      ...(back ? { clockBack: back } : {}),
      key: tableKey(table),
    });
  const clockMs = answer.clock === 'set-back' ? setBack(localMs) : localMs;
  const readings = table.rows.map((row, i) => ({
    line: row.line,
    atMs: clockMs[i] - (moments[i].zoneMin ?? zoneMin ?? 0) * 60_000,
    levelDbm: levelOf(level, row),
  }));
  return ascending(answer.clock === 'disorder' ? readings.sort((a, b) => a.atMs - b.atMs) : readings);
}

function questionText(open: {
  readonly certain: boolean;
  readonly zoneOpen: boolean;
  readonly dateOpen: boolean;
  readonly decimalOpen: boolean;
  readonly levelOpen: boolean;
  readonly back: ClockBack | undefined;
}): string {
  const parts = [
    ...(open.certain ? [] : ['what each column holds']),
    ...(open.zoneOpen ? ['in which time zone its clock runs'] : []),
    ...(open.dateOpen ? ['which number of a date is the day and which the month'] : []),
    ...(open.decimalOpen ? ['whether a comma is the decimal sign or groups thousands'] : []),
    ...(open.levelOpen ? ['in which unit the level stands'] : []),
    ...(open.back
      ? [`whether its clock was set back where line ${open.back.line} goes from ${open.back.from} to ${open.back.to}`]
      : []),
  ];
  return `This log does not say for certain ${parts.join(', and ')}. Say it once; it is remembered for logs with this heading.`;
}

function momentOf(
  row: TableRow,
  { timeAt, dateAt, answer }: { readonly timeAt: number; readonly dateAt: number; readonly answer: TableAnswer },
): MomentCell {
  const time = readNamedMoment(row.cells[timeAt] ?? '', answer.dateOrder);
  const date = dateAt < 0 ? undefined : readNamedMoment(row.cells[dateAt] ?? '', answer.dateOrder);
  if (time?.seconds === undefined || (dateAt >= 0 && date?.year === undefined))
    throw new SweepFileError(
      row.line,
      `"${(row.cells[dateAt >= 0 && time ? dateAt : timeAt] ?? '').slice(0, 40)}" is not a time. Write it as 09:13 or 2026-08-04 09:13.`,
    );
  return date ? { ...date, ...time, year: date.year, month: date.month, day: date.day, doubtful: date.doubtful } : time;
}

/** Levels that any receiver shows, dBm. */
const LEVELS = [-250, 80] as const;

/** @throws SweepFileError for what no receiver shows. */
function levelOf(level: LevelColumn, row: TableRow): number {
  const value = level.read(row);
  if (value < LEVELS[0] || value > LEVELS[1])
    throw new SweepFileError(
      row.line,
      `${value} is not a level in dBm. Correct it, or say again which column holds the level, and in which unit.`,
    );
  return value;
}

/** Moments as the clock showed them, ms; one without a date counts on from the day, and past midnight. @throws SweepFileError */
function localTimes(table: Table, moments: readonly MomentCell[], day: string): Float64Array {
  const begin = Date.parse(`${day}T00:00:00Z`);
  let laterDays = 0;
  return Float64Array.from(table.rows, (row, i) => {
    const moment = moments[i];
    const seconds = moment.seconds ?? 0;
    if (moment.year === undefined && i > 0 && moments[i - 1].year === undefined) {
      const step = seconds - (moments[i - 1].seconds ?? 0);
      if (step < -MIDNIGHT_S) laterDays += 1;
      else if (step > MIDNIGHT_S && laterDays > 0) laterDays -= 1;
    }
    const dayMs =
      moment.year === undefined
        ? begin + laterDays * DAY_S * 1000
        : Date.UTC(moment.year, (moment.month ?? 1) - 1, moment.day);
    if (!Number.isFinite(dayMs))
      throw new SweepFileError(row.line, 'this time has no date. Choose the day of the log, then import again.');
    return dayMs + seconds * 1000;
  });
}

/** Logs written with the latest row first are turned round; anything else out of order is told. @throws SweepFileError */
function ascending(readings: (FloorReading & { readonly line: number })[]): readonly FloorReading[] {
  const falls = readings.length > 1 && readings[1].atMs < readings[0].atMs;
  for (let i = 1; i < readings.length; i += 1)
    if (falls ? readings[i].atMs >= readings[i - 1].atMs : readings[i].atMs <= readings[i - 1].atMs)
      throw new SweepFileError(
        readings[i].line,
        'the times must follow each other. Sort the rows, or delete the one that stands twice.',
      );
  const ordered = falls ? readings.reverse() : readings;
  return ordered.map(({ atMs, levelDbm }) => ({ atMs, levelDbm }));
}
