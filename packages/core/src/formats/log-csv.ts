import { hertzOf, readMomentCell, readNamedMoment, type MomentCell } from './cells';
import { clockGoesBack, setBack } from './clock-back';
import { headingSays } from './heading-words';
import { levelColumn } from './levels-of';
import { frequencyAt, frequencyUnit, headingOf } from './sweep-csv';
import { firstRows, numberAt, readTable, tableKey, type Table, type TableRow } from './table';
import { TableQuestionError, type TableAnswer } from './table-question';
import { SweepFileError } from './touchstone';

/** A long log: many rows of one sort. */
export const LOG_KINDS = ['levels', 'decodes', 'pattern'] as const;
export type LogKind = (typeof LOG_KINDS)[number];

/** A column of a long log: numbers (a gap is NaN, inside the bytes only) or words. */
export interface LogColumn {
  readonly id: string;
  /** With its unit. */
  readonly label: string;
  readonly words: boolean;
}
/** What each kind of log holds; the first column orders its rows. */
export const LOG_COLUMNS: Readonly<Record<LogKind, readonly LogColumn[]>> = {
  levels: [
    { id: 'atMs', label: 'Time, UTC', words: false },
    { id: 'levelDbm', label: 'Level (dBm)', words: false },
  ],
  decodes: [
    { id: 'atMs', label: 'Time, UTC', words: false },
    { id: 'freqHz', label: 'Frequency (Hz)', words: false },
    { id: 'snrDb', label: 'SNR (dB)', words: false },
    { id: 'sender', label: 'Heard', words: true },
    { id: 'locator', label: 'Locator', words: true },
    { id: 'mode', label: 'Mode', words: true },
  ],
  pattern: [
    { id: 'angleDeg', label: 'Angle (degrees)', words: false },
    { id: 'levelDb', label: 'Level (dB)', words: false },
  ],
};

/** Rows of a long log by column, ascending in the first. */
export interface LogRows {
  readonly kind: LogKind;
  readonly numbers: Readonly<Record<string, Float64Array>>;
  readonly words: Readonly<Record<string, readonly string[]>>;
  /** Of a pattern: what its heading says that the angles count. */
  readonly cut?: PatternCut;
}

/** What the angles of a pattern count: clockwise from north, up from the horizon, or down from the zenith. */
export const PATTERN_CUTS = ['not said', 'azimuth', 'elevation', 'zenith'] as const;
export type PatternCut = (typeof PATTERN_CUTS)[number];

const CUT_NAMES: readonly (readonly [PatternCut, RegExp])[] = [
  ['zenith', /zenith|theta|polar/i],
  ['elevation', /elevation/i],
  ['azimuth', /azimuth|bearing|heading|phi\b/i],
];
/** What a heading says that its angles count; "angle" alone says nothing. */
const cutOf = (heading: string | undefined): PatternCut =>
  CUT_NAMES.find(([, pattern]) => heading !== undefined && pattern.test(heading))?.[0] ?? 'not said';

/** Most rows of one log. */
export const MOST_LOG_ROWS = 1_000_000;

/** What the columns of a table may mean, by kind; those that must be there first. */
const MEANINGS: Readonly<Record<LogKind, { readonly must: readonly string[]; readonly may: readonly string[] }>> = {
  levels: { must: ['time', 'level'], may: ['date'] },
  decodes: { must: ['time', 'frequency'], may: ['date', 'snr', 'sender', 'locator', 'mode'] },
  pattern: { must: ['angle', 'level'], may: [] },
};

const NAMES: readonly (readonly [string, RegExp])[] = [
  ['angle', /angle|azimuth|bearing|\bdeg|winkel|heading|zenith|theta|elevation/i],
  ['snr', /snr|s\/n|report/i],
  ['frequency', /freq|\bhz\b|khz|mhz|ghz/i],
  ['level', /dbm|dbfs|dbu|\bdb\b|µv|μv|\buv\b|volt|s.?unit|level|floor|noise|power|pegel|rssi/i],
  ['locator', /locator|grid|square|\bloc\b/i],
  ['mode', /mode|emission/i],
  ['sender', /sender|heard|decode|message|station|text|\bcall|\bname\b/i],
  ['ignore', /^(#|no\.?|n|index|row|sample|channel|drift|distance|dt)$/i],
];

/** A Maidenhead locator of four or six characters. */
const LOCATOR = /^[A-R]{2}\d{2}([A-X]{2})?$/i;

function guess(kind: LogKind, heading: string, sample: string): string | undefined {
  const { must, may } = MEANINGS[kind];
  const allowed = (what: string): boolean => must.includes(what) || may.includes(what) || what === 'ignore';
  const named = headingSays(heading, 'time') || headingSays(heading, 'date');
  const moment = named ? readNamedMoment(sample) : readMomentCell(sample);
  const momentName = moment?.seconds === undefined ? 'date' : 'time';
  // "7.04" could be a clock as well: such a cell is one only where its heading says nothing else
  if (moment && (named || sample.includes(':')) && allowed('time')) return momentName;
  if (LOCATOR.test(sample.trim()) && allowed('locator')) return 'locator';
  const { name, unit } = headingOf(heading);
  if ((hertzOf(unit) !== undefined || headingSays(heading, 'frequency')) && allowed('frequency')) return 'frequency';
  if (headingSays(heading, 'level') && allowed('level')) return 'level';
  const found = NAMES.find(([what, pattern]) => allowed(what) && (pattern.test(name) || pattern.test(heading)));
  return found?.[0] ?? (moment && allowed('time') ? momentName : heading === '' ? undefined : 'ignore');
}

function meaningsOf(kind: LogKind, table: Table, answer: TableAnswer) {
  const { must, may } = MEANINGS[kind];
  const known = [...must, ...may, 'ignore'];
  const once = (columns: readonly string[], what: string): boolean =>
    columns.filter((one) => one === what).length === 1;
  if (answer.columns) {
    const columns = table.headings.map((_, k) => answer.columns?.[k] ?? 'ignore');
    if (!columns.every((one) => known.includes(one)) || !must.every((what) => once(columns, what)))
      throw new SweepFileError(
        Math.max(1, table.headingLine),
        `there must be one column each for ${must.join(' and ')}. Choose from: ${known.join(', ')}.`,
      );
    return { columns, certain: true, known };
  }
  const first = table.rows[0].cells;
  const guesses = table.headings.map((heading, k) => guess(kind, heading, first[k] ?? ''));
  const columns = guesses.map((one) => one ?? 'ignore');
  const repeated = [...must, ...may].some((what) => columns.filter((one) => one === what).length > 1);
  return {
    columns,
    known,
    certain: !repeated && guesses.every((one) => one !== undefined) && must.every((what) => once(columns, what)),
  };
}

const zoneIn = (heading: string): number | undefined =>
  /\b(utc|gmt|zulu)\b|_utc|\(z\)/i.test(heading) && !/[+-]\d/.test(heading) ? 0 : undefined;

/** The moment of a row, its date from a column of its own where there is one. @throws SweepFileError */
function momentOf(row: TableRow, timeAt: number, dateAt: number, order: TableAnswer['dateOrder']): MomentCell {
  const time = readNamedMoment(row.cells[timeAt] ?? '', order);
  const date = dateAt < 0 ? time : readNamedMoment(row.cells[dateAt] ?? '', order);
  if (time?.seconds === undefined || date?.year === undefined)
    throw new SweepFileError(
      row.line,
      `"${(row.cells[timeAt] ?? '').slice(0, 40)}" is no time with its date. Write it as 2026-08-04 09:13, or add a column with the date.`,
    );
  const { year, month, day, doubtful } = date;
  return { ...time, year, month, day, doubtful };
}

function timesOf(table: Table, columns: readonly string[], answer: TableAnswer) {
  const [timeAt, dateAt] = [columns.indexOf('time'), columns.indexOf('date')];
  if (timeAt < 0) return undefined;
  const said = answer.zoneMin ?? zoneIn(table.headings[timeAt]);
  const localMs = new Float64Array(table.rows.length);
  const zones = new Float64Array(table.rows.length);
  let ownZone = false;
  let [zoneOpen, doubtful, sure] = [false, false, false];
  table.rows.forEach((row, i) => {
    const moment = momentOf(row, timeAt, dateAt, answer.dateOrder);
    const zoneMin = moment.zoneMin ?? said;
    ownZone ||= moment.zoneMin !== undefined;
    zoneOpen ||= zoneMin === undefined;
    doubtful ||= moment.doubtful === true;
    sure ||= moment.doubtful !== true && (moment.day ?? 0) > 12;
    const dayMs = Date.UTC(moment.year ?? 1970, (moment.month ?? 1) - 1, moment.day);
    localMs[i] = dayMs + (moment.seconds ?? 0) * 1000;
    zones[i] = (zoneMin ?? 0) * 60_000;
  });
  // a moment with its own zone cannot be mistaken, and UTC is never set back
  const back =
    answer.clock === undefined && !ownZone && said !== 0
      ? clockGoesBack(localMs, (row) => table.rows[row].line)
      : undefined;
  const clockMs = answer.clock === 'set-back' ? setBack(localMs) : localMs;
  const atMs = clockMs.map((ms, i) => ms - zones[i]);
  return { atMs, zoneOpen, dateOpen: doubtful && !sure, back };
}

/** Limits of a number by its column; what lies outside is a column taken for another. */
const LIMITS: Readonly<Record<string, readonly [number, number]>> = {
  levelDbm: [-250, 80],
  levelDb: [-300, 300],
  snrDb: [-100, 150],
  angleDeg: [-720, 720],
};
const FROM: Readonly<Record<string, string>> = {
  ...{ atMs: 'time', freqHz: 'frequency', snrDb: 'snr', levelDbm: 'level', levelDb: 'level', angleDeg: 'angle' },
  ...{ sender: 'sender', locator: 'locator', mode: 'mode' },
};

/**
 * Reads a long log: levels over time, decodes, or a pattern over angle; up to a million rows, in any order. What the file does not make certain is asked.
 * @throws TableQuestionError while something has to be answered; SweepFileError with the line number.
 */
export function readLogCsv(kind: LogKind, text: string, answer: TableAnswer = {}): LogRows {
  const table = readTable(text, answer, { mostRows: MOST_LOG_ROWS, wordy: kind === 'decodes' });
  const { columns, certain, known } = meaningsOf(kind, table, answer);
  const frequency = columns.indexOf('frequency');
  const unitHz = hertzOf(answer.unit ?? '') ?? (frequency < 0 ? 1 : frequencyUnit(table, frequency));
  const times = certain ? timesOf(table, columns, answer) : undefined;
  const levelAt = kind === 'decodes' ? -1 : columns.indexOf('level');
  const level =
    levelAt < 0 ? undefined : levelColumn(table, levelAt, answer, kind === 'pattern' ? 'asked later' : false);
  const levelOpen = Object.keys(level?.open ?? {}).length > 0;
  const timesOpen = times !== undefined && (times.zoneOpen || times.dateOpen || times.back !== undefined);
  if (!certain || unitHz === undefined || table.decimalDoubtful || timesOpen || levelOpen)
    throw new TableQuestionError({
      ask: 'This log does not say for certain what each column holds, in which unit, or how its clock runs. Say it once; it is remembered for logs with this heading.',
      ...{ headings: table.headings, rows: firstRows(table), columns, meanings: known, key: tableKey(table) },
      ...(unitHz === undefined ? { unit: 'MHz' } : {}),
      ...(times?.zoneOpen ? { zoneMin: 0 } : {}),
      ...(times?.dateOpen ? { dateOrder: 'dmy' as const } : {}),
      ...(times?.back ? { clockBack: times.back } : {}),
      ...(table.decimalDoubtful ? { decimal: table.decimal } : {}),
      ...level?.open,
    });
  const numbers: Record<string, Float64Array> = {};
  const words: Record<string, readonly string[]> = {};
  for (const { id, words: isWords } of LOG_COLUMNS[kind]) {
    const at = columns.indexOf(FROM[id]);
    if (isWords) words[id] = table.rows.map(({ cells }) => (at < 0 ? '' : (cells[at] ?? '').slice(0, 80)));
    else if (id === 'atMs') numbers[id] = times?.atMs ?? new Float64Array(table.rows.length);
    else
      numbers[id] = Float64Array.from(table.rows, (row) =>
        at < 0
          ? NaN
          : id === 'freqHz'
            ? frequencyAt(table, row, at, unitHz)
            : inLimits(row, at === levelAt && level ? level.read(row) : numberAt(table, row, at).value, LIMITS[id]),
      );
  }
  return {
    ...inOrder({ kind, numbers, words }),
    ...(kind === 'pattern' ? { cut: cutOf(table.headings[columns.indexOf('angle')]) } : {}),
  };
}

function inLimits(row: TableRow, value: number, [least, most]: readonly [number, number]): number {
  if (value >= least && value <= most) return value;
  throw new SweepFileError(row.line, `${value} lies outside ${least} to ${most}. Say again what each column holds.`);
}

/** Rows sorted by their first column; equal ones stay as they stand. */
function inOrder({ kind, numbers, words }: LogRows): LogRows {
  const first = numbers[LOG_COLUMNS[kind][0].id];
  if (first.every((value, i) => i === 0 || value >= first[i - 1])) return { kind, numbers, words };
  const order = Uint32Array.from(first, (_, i) => i).sort((a, b) => first[a] - first[b] || a - b);
  return {
    kind,
    numbers: Object.fromEntries(
      Object.entries(numbers).map(([id, values]) => [id, Float64Array.from(order, (i) => values[i])]),
    ),
    words: Object.fromEntries(Object.entries(words).map(([id, values]) => [id, Array.from(order, (i) => values[i])])),
  };
}

/** A stretch of a log in a few numbers. */
interface LogBucket {
  /** Middle of its first column. */
  readonly at: number;
  readonly count: number;
  readonly least: number;
  readonly median: number;
  readonly most: number;
}

/** A log at a glance: how many rows, from where to where, and its values in stretches of equal length. */
export interface LogSummary {
  readonly rows: number;
  readonly from: number;
  readonly to: number;
  /** Which column the values are of. */
  readonly value: string;
  readonly least: number;
  readonly median: number;
  readonly most: number;
  readonly buckets: readonly LogBucket[];
}

/** The column that a summary is of. */
const VALUE: Readonly<Record<LogKind, string>> = { levels: 'levelDbm', decodes: 'snrDb', pattern: 'levelDb' };

const middle = (sorted: Float64Array): number => {
  const half = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[half] : (sorted[half - 1] + sorted[half]) / 2;
};

/** Sums a log up in at most `most` stretches; rows without the value count, and are left out of its figures. */
export function summariseLog({ kind, numbers }: LogRows, most = 300): LogSummary {
  const firsts = numbers[LOG_COLUMNS[kind][0].id];
  const value = VALUE[kind];
  const values = numbers[value];
  const [from, to] = [firsts[0], firsts[firsts.length - 1]];
  const width = (to - from) / most || 1;
  const buckets: LogBucket[] = [];
  const figures = (list: Float64Array) => {
    const sorted = list.filter((one) => !Number.isNaN(one)).sort();
    const none = sorted.length === 0;
    return {
      least: none ? 0 : sorted[0],
      median: none ? 0 : middle(sorted),
      most: none ? 0 : sorted[sorted.length - 1],
      counted: sorted.length,
    };
  };
  for (let begin = 0; begin < firsts.length;) {
    const index = Math.min(most - 1, Math.floor((firsts[begin] - from) / width));
    let end = begin + 1;
    while (end < firsts.length && Math.min(most - 1, Math.floor((firsts[end] - from) / width)) === index) end += 1;
    const { counted, ...its } = figures(values.slice(begin, end));
    if (counted > 0) buckets.push({ at: from + (index + 0.5) * width, count: end - begin, ...its });
    begin = end;
  }
  const { counted: _counted, ...all } = figures(values);
  return { rows: firsts.length, from, to, value, ...all, buckets };
}
