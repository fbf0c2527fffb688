import { gammaOfSwr, reflectionOf } from '../line/reflection';
import { complex, fromPolar, type Complex } from '../numeric/complex';
import { hertzOf, plainCell, readNumberCell } from './cells';
import { linesOf } from './lines';
import { headingSays } from './heading-words';
import { impedanceNamed } from './levels-of';
import { frequencyByNumbers, guessByNumbers } from './sweep-guess';
import { firstRows, numberAt, readTable, tableKey, type Table, type TableRow } from './table';
import { TableQuestionError, type TableAnswer } from './table-question';
import { readTouchstone, SweepFileError, type SweepData } from './touchstone';

/** What a column of a sweep may hold. Impedances in ohm; Γ is the reflection, S11. */
const SWEEP_MEANINGS = [
  'frequency',
  'gamma-re',
  'gamma-im',
  'gamma-magnitude',
  'gamma-db',
  'gamma-degrees',
  'gamma-radians',
  'r',
  'x',
  'x-unsigned',
  'z-magnitude',
  'z-degrees',
  'z-radians',
  'swr',
  'return-loss-db',
  'ignore',
] as const;
type SweepMeaning = (typeof SWEEP_MEANINGS)[number];

/** A sweep from a table, with the quantities the table held. An SWR alone has no phase: `phaseKnown` is false. */
export interface CsvSweep extends SweepData {
  readonly phaseKnown: boolean;
}

/** A heading taken apart: words without unit, and the unit in brackets, behind a slash or an underscore. */
interface Heading {
  readonly name: string;
  readonly unit: string;
}

const UNITS =
  /(?:[([{/_\s-]|\bin\s+|^)(hz|khz|mhz|ghz|ohms?|ω|Ω|db|deg(?:rees?)?|°|rad(?:ians?)?|percent|%|pf|nh|uh|µh|μh)[)\]}]?\s*$/i;

export function headingOf(text: string): Heading {
  const plain = plainCell(text).replace(/^"|"$/g, '').trim();
  const match = UNITS.exec(plain);
  const unit = match ? match[1].toLowerCase().replace('Ω', 'ω') : '';
  const rest = match ? plain.slice(0, match.index) : plain;
  return {
    name: rest
      .toLowerCase()
      .replaceAll(/[_\-[\]{}"]/g, ' ')
      .replaceAll(/\s+/g, ' ')
      .trim(),
    unit,
  };
}

/** A guess at a column, and whether its heading leaves no doubt. */
interface Guess {
  readonly meaning: SweepMeaning;
  readonly certain: boolean;
}
const sure = (meaning: SweepMeaning): Guess => ({ meaning, certain: true });
const perhaps = (meaning: SweepMeaning): Guess => ({ meaning, certain: false });

const degrees = (unit: string): boolean => unit === '°' || unit.startsWith('deg');
const radians = (unit: string): boolean => unit.startsWith('rad');
const ohms = (unit: string): boolean => unit === 'ω' || unit.startsWith('ohm');

/** Columns that many programs add and that say nothing new. */
const NOTHING_NEW =
  /^(#|no\.?|nr\.?|n|index|idx|point|points?|pt|row|sample|time|date|timestamp|utc|marker|q|ls|lp|cs|cp|l|c|rp|xp|g|b|y|inductance|capacitance|series l|series c|parallel.*|conductance|susceptance|admittance|.*\bq\b.*factor|group delay|delay|temp(erature)?|battery|power|eff(iciency)?|mismatch loss)$/;
/** Another port than the antenna's. */
const OTHER_PORT = /s\s?(21|12|22)|transmission|insertion|isolation|\bthru\b|gain/;
const OF_GAMMA = /s\s?11|gamma|γ|\brho\b|ρ|refl/;
const OF_Z = /\bz\b|\|z\||imp|z\s?11/;

function guessHeading(text: string): Guess | undefined {
  const { name, unit } = headingOf(text);
  const says = (what: Parameters<typeof headingSays>[1]): boolean => headingSays(text, what);
  const words = name.replaceAll(/[()|]/g, ' ').replaceAll(/\s+/g, ' ').trim();
  if (name === '' && unit === '') return undefined;
  if (hertzOf(unit) !== undefined || /^(f|freq(uency)?\.?)( .*)?$/.test(words) || says('frequency'))
    return /band ?width|resolution|\brbw\b/.test(words) ? sure('ignore') : sure('frequency');
  if (OTHER_PORT.test(words)) return sure('ignore');
  if (/v?swr|standing/.test(words) || says('swr')) return sure('swr');
  if (/return ?loss|^rl$/.test(words) || says('return-loss')) return sure('return-loss-db');
  const gamma = OF_GAMMA.test(words);
  const ofZ = OF_Z.test(words);
  const re = /\bre(al)?\b|^re\b/.test(words);
  const im = /\bim(ag(inary)?)?\b/.test(words);
  const angle =
    /phase|phi|φ|ang(le)?\b|theta|θ|\barg\b|phs/.test(words) || says('phase') || degrees(unit) || radians(unit);
  const size = /\bmag(nitude)?\b|\babs(olute)?\b|\blin(ear)?\b|modulus|\bmod\b/.test(words) || name.includes('|');
  const inDb = unit === 'db' || /\bdb\b|\blog\b/.test(words);
  if (angle) {
    const of = gamma && !ofZ ? 'gamma' : ofZ && !gamma ? 'z' : undefined;
    const known = degrees(unit) || radians(unit) || /\bdeg/.test(words);
    const scale = radians(unit) ? 'radians' : 'degrees';
    if (of === undefined) return perhaps(`gamma-${scale}`);
    return { meaning: `${of}-${scale}`, certain: known };
  }
  if (re || im) {
    if (ohms(unit) || (ofZ && !gamma)) return { meaning: re ? 'r' : 'x', certain: ohms(unit) || !/norm/.test(words) };
    if (gamma && !ofZ) return sure(re ? 'gamma-re' : 'gamma-im');
    return perhaps(re ? 'gamma-re' : 'gamma-im');
  }
  if (gamma && !ofZ) {
    if (inDb) return sure('gamma-db');
    if (/\brho\b|ρ|coeff/.test(words) || size) return sure('gamma-magnitude');
    return perhaps('gamma-db');
  }
  if (says('r') && !name.includes('|')) return sure('r');
  if (says('x') && !name.includes('|') && !/abs|unsigned|magnitude/.test(words)) return sure('x');
  if (/^(z ?)?(r|rs|r s|res(istance)?|series r(esistance)?|rz|r series)$/.test(words)) return sure('r');
  if (/^(z ?)?(x|xs|x s|reactance|series x|series reactance|xz|x series)$/.test(words))
    return name.includes('|') ? sure('x-unsigned') : sure('x');
  if (/^(abs )?(x|xs|reactance)( abs| unsigned| magnitude)?$/.test(words)) return sure('x-unsigned');
  if ((ofZ && (size || /^(z|imp(edance)?)( ?mag.*)?$/.test(words))) || says('z')) {
    if (name.includes('|') || /mag|abs|mod/.test(words)) return sure('z-magnitude');
    return perhaps('z-magnitude');
  }
  if (NOTHING_NEW.test(words)) return sure('ignore');
  if (inDb) return perhaps('gamma-db');
  if (ohms(unit)) return perhaps('r');
  return undefined;
}

/** Sets of columns that give a reflection, the one that says most first. */
const SETS: readonly (readonly SweepMeaning[])[] = [
  ['r', 'x'],
  ['gamma-re', 'gamma-im'],
  ['z-magnitude', 'z-degrees'],
  ['z-magnitude', 'z-radians'],
  ['gamma-magnitude', 'gamma-degrees'],
  ['gamma-magnitude', 'gamma-radians'],
  ['gamma-db', 'gamma-degrees'],
  ['gamma-db', 'gamma-radians'],
  ['return-loss-db', 'gamma-degrees'],
  ['return-loss-db', 'gamma-radians'],
  ['r', 'x-unsigned'],
  ['gamma-magnitude'],
  ['gamma-db'],
  ['return-loss-db'],
  ['swr'],
];
const PHASELESS = new Set(['r+x-unsigned', 'gamma-magnitude', 'gamma-db', 'return-loss-db', 'swr']);

const pickSet = (columns: readonly SweepMeaning[]): readonly SweepMeaning[] | undefined =>
  SETS.find((set) => set.every((meaning) => columns.filter((one) => one === meaning).length === 1));

const SWR_WITHOUT_LIMIT = /^(inf(inity)?|∞|>\s*\d+(\.\d+)?)(:1)?$/i;

/** Γ of a row from the chosen set. @throws SweepFileError */
function gammaOf(
  table: Table,
  row: TableRow,
  {
    columns,
    set,
    referenceOhm,
    lossSign,
  }: {
    readonly columns: readonly SweepMeaning[];
    readonly set: readonly SweepMeaning[];
    readonly referenceOhm: number;
    readonly lossSign: 1 | -1;
  },
): Complex {
  const at = (meaning: SweepMeaning): number => numberAt(table, row, columns.indexOf(meaning)).value;
  const polar = (size: number): Complex => {
    const angle = set.find((one) => one.endsWith('degrees') || one.endsWith('radians'));
    if (angle === undefined) return complex(size);
    return fromPolar(size, angle.endsWith('radians') ? (at(angle) * 180) / Math.PI : at(angle));
  };
  switch (set[0]) {
    case 'r':
      return reflectionOf(complex(at('r'), at(set[1])), referenceOhm);
    case 'gamma-re':
      return complex(at('gamma-re'), at('gamma-im'));
    case 'z-magnitude':
      return reflectionOf(polar(at('z-magnitude')), referenceOhm);
    case 'gamma-magnitude':
      return polar(at('gamma-magnitude'));
    case 'gamma-db':
    case 'return-loss-db':
      return polar(10 ** ((lossSign * at(set[0])) / 20));
    default: {
      const cell = plainCell(row.cells[columns.indexOf('swr')] ?? '');
      if (SWR_WITHOUT_LIMIT.test(cell)) return complex(1);
      const swr = numberAt(
        table,
        { ...row, cells: row.cells.map((one) => one.replace(/:1$/, '')) },
        columns.indexOf('swr'),
      ).value;
      if (swr < 1 - SWR_ROUNDED)
        throw new SweepFileError(row.line, `SWR ${swr} is below 1, which cannot be. Correct that row.`);
      return complex(gammaOfSwr(Math.max(1, swr)));
    }
  }
}
/** Programs round 1 down to 0.99 now and then. */
const SWR_ROUNDED = 0.011;

/** Frequencies from here up can only be hertz: as kilohertz they would lie beyond 20 GHz. */
const SURELY_HZ = 2e7;
/** Highest frequency that any sweep of this application holds, Hz. */
const HIGHEST_SWEEP_HZ = 1e12;
/** A passive antenna reflects no more than it gets; calibration errors leave this much room. */
const MOST_REFLECTION = 1.5;

/** Multiples of a hertz that a column is written in; undefined where neither heading nor cells nor sizes say so. */
export function frequencyUnit(table: Table, column: number): number | undefined {
  const said = hertzOf(headingOf(table.headings[column]).unit) ?? hertzOf(table.headings[column]);
  if (said !== undefined) return said;
  const first = readNumberCell(table.rows[0].cells[column] ?? '', table.decimal);
  const inCell = first ? hertzOf(first.unit) : undefined;
  if (inCell !== undefined) return inCell;
  const values = [table.rows[0], table.rows[table.rows.length - 1]].map(
    ({ cells }) => readNumberCell(cells[column] ?? '', table.decimal)?.value ?? 0,
  );
  return Math.max(...values) >= SURELY_HZ ? 1 : undefined;
}

/** One frequency in Hz; a unit in the cell itself counts before the column's. @throws SweepFileError */
export function frequencyAt(table: Table, row: TableRow, column: number, unitHz: number): number {
  const { value, unit } = numberAt(table, row, column);
  const freqHz = Number((value * (hertzOf(unit) ?? unitHz)).toPrecision(15)); // 8.2 MHz is 8200000 Hz, not 8199999.999999999
  if (!(freqHz >= 0) || freqHz > HIGHEST_SWEEP_HZ)
    throw new SweepFileError(
      row.line,
      `the frequency ${value} ${unit} is negative or beyond 1000 GHz. Correct it, or say the unit of that column.`.replace(
        '  ',
        ' ',
      ),
    );
  return freqHz;
}

/** Rows in rising order of frequency: descending tables are turned round. @throws SweepFileError for anything else. */
export function rising<T extends { readonly line: number; readonly at: number }>(rows: T[], what: string): T[] {
  const falls = rows.length > 1 && rows[1].at < rows[0].at;
  for (let i = 1; i < rows.length; i += 1)
    if (falls ? rows[i].at >= rows[i - 1].at : rows[i].at <= rows[i - 1].at)
      throw new SweepFileError(
        rows[i].line,
        `the ${what} does not ${falls ? 'fall' : 'rise'} from the row before, as in the others. Sort the rows.`,
      );
  return falls ? rows.reverse() : rows;
}

/** A reference resistance that the lines ahead of the table name. */
function referenceIn(preamble: readonly string[]): number | undefined {
  for (const line of preamble) {
    const match =
      /(?:\bz0\b|\bzo\b|ref(?:erence)?\.?\s*(?:impedance|resistance)|system\s*(?:impedance|z))\D{0,12}(\d+(?:\.\d+)?)/i.exec(
        line,
      );
    const ohm = match ? Number(match[1]) : NaN;
    if (ohm >= 1 && ohm <= 10_000) return ohm;
  }
  return undefined;
}

/** A reference that stands in the heading of what refers to it: "SWR (75 Ohm)". Of R and X the unit alone stands there. */
const referenceOf = (
  headings: readonly string[],
  columns: readonly SweepMeaning[],
  set: readonly SweepMeaning[],
): number | undefined =>
  impedanceNamed(headings.filter((_, k) => set.includes(columns[k]) && !['r', 'x'].includes(columns[k])));

const isMeaning = (text: string): text is SweepMeaning => SWEEP_MEANINGS.some((one) => one === text);

/** What the columns are, by their headings, the person's answer, or nothing at all. */
function meaningsOf(
  table: Table,
  answer: TableAnswer,
): { readonly columns: SweepMeaning[]; readonly certain: boolean } {
  if (answer.columns) {
    const columns = table.headings.map((_, k) => answer.columns?.[k] ?? 'ignore');
    const wrong = columns.find((one) => !isMeaning(one));
    if (wrong !== undefined)
      throw new SweepFileError(
        Math.max(1, table.headingLine),
        `"${wrong.slice(0, 40)}" is not a meaning of a column. Choose from: ${SWEEP_MEANINGS.join(', ')}.`,
      );
    return { columns: columns.filter(isMeaning), certain: true };
  }
  const guesses = table.headings.map((text) => guessHeading(text));
  const columns = guesses.map((guess) => guess?.meaning ?? 'ignore');
  const surely = guesses.map((guess, k): SweepMeaning =>
    guess?.certain || ownsItsPhase(guesses, table.headings, k) ? (guess?.meaning ?? 'ignore') : 'ignore',
  );
  const certain =
    surely.filter((one) => one === 'frequency').length === 1 &&
    pickSet(surely) !== undefined &&
    !(pickSet(surely)?.length === 1 && betterPossible(guesses, surely));
  return { columns: certain ? surely : offered(table, guesses, columns), certain };
}

/** Rows looked at for a guess by numbers. */
const GUESSED_BY = 400;

/**
 * What is offered in a question: the first guess that gives a reflection which an antenna can have. By the headings, then by the numbers with what the
 * headings are sure of; where none fits, nothing but the frequency.
 */
function offered(
  table: Table,
  guesses: readonly (Guess | undefined)[],
  byHeading: readonly SweepMeaning[],
): SweepMeaning[] {
  const rows = table.rows.slice(0, GUESSED_BY);
  const numbers = table.headings.map((_, k) =>
    rows.map(({ cells }) => readNumberCell(cells[k] ?? '', table.decimal)?.value ?? NaN),
  );
  const all = guessByNumbers(numbers).map((list) => list.filter(isMeaning));
  const agrees = (list: readonly SweepMeaning[]): boolean =>
    guesses.every(
      (guess, k) =>
        !guess?.certain ||
        guess.meaning === list[k] ||
        (list[k] === 'ignore' && list[k] !== guess.meaning && guess.meaning !== 'frequency'),
    );
  const candidates = [byHeading, ...all.filter(agrees), ...all];
  const found = candidates.find((columns) => givesReflection({ ...table, rows }, columns));
  if (found) return [...found];
  const frequency = frequencyByNumbers(numbers);
  return table.headings.map((_, k) => (k === frequency ? 'frequency' : 'ignore'));
}

/** Whether meanings of the columns give a reflection in every row, and none that no antenna has. */
function givesReflection(table: Table, columns: readonly SweepMeaning[]): boolean {
  const set = pickSet(columns);
  if (!set || columns.filter((one) => one === 'frequency').length !== 1) return false;
  try {
    sweepOf(table, { columns, set, unitHz: 1 });
    return true;
  } catch (error) {
    if (error instanceof SweepFileError) return false;
    throw error;
  }
}

/** A phase in degrees beside S11 in dB or as magnitude, with nothing of Z in the table, can only be that of S11. */
function ownsItsPhase(guesses: readonly (Guess | undefined)[], headings: readonly string[], k: number): boolean {
  const { unit } = headingOf(headings[k]);
  if (!(degrees(unit) || radians(unit)) || !guesses[k]?.meaning.startsWith('gamma-')) return false;
  const sizes = guesses.filter(
    (one) => one?.certain && (one.meaning === 'gamma-db' || one.meaning === 'gamma-magnitude'),
  );
  const phases = guesses.filter((one) => one && /degrees|radians/.test(one.meaning));
  return (
    sizes.length === 1 && phases.length === 1 && !headings.some((one) => /z|imp|ohm|ω/i.test(one.replace(/hz/gi, '')))
  );
}

/** A phase whose owner is not said could make more of a magnitude: that is worth a question, not a guess. */
const betterPossible = (guesses: readonly (Guess | undefined)[], surely: readonly SweepMeaning[]): boolean => {
  const only = pickSet(surely)?.[0];
  return (
    only !== 'swr' &&
    guesses.some(
      (guess, k) =>
        guess && !guess.certain && surely[k] === 'ignore' && /degrees|radians|-re$|-im$/.test(guess.meaning),
    )
  );
};

const UNIT_NAME: Readonly<Record<number, string>> = { 1: 'Hz', 1e3: 'kHz', 1e6: 'MHz', 1e9: 'GHz' };

function unitGuess(table: Table, column: number): string {
  const last = table.rows[table.rows.length - 1];
  const most = Math.max(
    ...[table.rows[0], last].map(({ cells }) => readNumberCell(cells[column] ?? '', table.decimal)?.value ?? 0),
  );
  return most >= 1e6 ? 'Hz' : most >= 4000 ? 'kHz' : 'MHz';
}

/**
 * Reads a table of a sweep: a frequency, and one of R + X, Γ or Z in parts or as magnitude and phase, or without phase |Γ|, return loss or SWR. What the
 * file does not make certain (a column, the frequency's unit, decimal commas) is asked.
 * @throws TableQuestionError while something has to be answered; SweepFileError with the line number.
 */
function readSweepCsv(text: string, answer: TableAnswer = {}): CsvSweep {
  const table = readTable(text, answer);
  const { columns, certain } = meaningsOf(table, answer);
  const frequency = columns.indexOf('frequency');
  const saidHz = answer.unit === undefined ? undefined : hertzOf(answer.unit);
  if (answer.unit !== undefined && saidHz === undefined)
    throw new SweepFileError(1, `"${answer.unit.slice(0, 20)}" is not a unit of frequency. Say Hz, kHz, MHz or GHz.`);
  const unitHz = saidHz ?? (frequency < 0 ? undefined : frequencyUnit(table, frequency));
  const set = pickSet(columns);
  if (answer.columns && (frequency < 0 || !set))
    throw new SweepFileError(
      Math.max(1, table.headingLine),
      'these columns give no reflection: one must be the frequency, beside R and X, Γ or Z in two parts, |Γ|, return loss or SWR. Name them again.',
    );
  if (!certain || unitHz === undefined || table.decimalDoubtful)
    throw new TableQuestionError({
      ask: questionText(table, { certain, unitHz }),
      headings: table.headings,
      rows: firstRows(table),
      columns,
      meanings: SWEEP_MEANINGS,
      ...(unitHz === undefined ? { unit: unitGuess(table, Math.max(0, frequency)) } : { unit: UNIT_NAME[unitHz] }),
      ...(table.decimalDoubtful ? { decimal: table.decimal } : {}),
      key: tableKey(table),
    });
  if (!set) throw new SweepFileError(1, 'the table gives no reflection. Export it with R and X, S11 or SWR.');
  return sweepOf(table, { columns, set, unitHz });
}

function questionText(
  table: Table,
  { certain, unitHz }: { readonly certain: boolean; readonly unitHz: number | undefined },
): string {
  const parts = [
    ...(certain ? [] : ['what each column holds']),
    ...(unitHz === undefined ? ['the unit of the frequency'] : []),
    ...(table.decimalDoubtful ? ['whether a comma is the decimal sign or groups thousands'] : []),
  ];
  return `This table does not say for certain ${parts.join(', and ')}. Say it once; it is remembered for tables with this heading.`;
}

function sweepOf(
  table: Table,
  {
    columns,
    set,
    unitHz,
  }: { readonly columns: readonly SweepMeaning[]; readonly set: readonly SweepMeaning[]; readonly unitHz: number },
): CsvSweep {
  const frequency = columns.indexOf('frequency');
  const referenceOhm = referenceIn(table.preamble) ?? referenceOf(table.headings, columns, set) ?? 50;
  const loss = set.find((one) => one === 'gamma-db' || one === 'return-loss-db');
  // both signs are in use for what does not come back; the sign that most rows have says which
  const negative = loss
    ? table.rows.filter(
        (row) => (readNumberCell(row.cells[columns.indexOf(loss)] ?? '', table.decimal)?.value ?? 0) < 0,
      ).length
    : 0;
  const lossSign = negative * 2 > table.rows.length ? 1 : -1;
  const rows = rising(
    table.rows.map((row) => {
      const gamma = gammaOf(table, row, { columns, set, referenceOhm, lossSign });
      if (!Number.isFinite(gamma.re) || !Number.isFinite(gamma.im))
        throw new SweepFileError(row.line, 'this row gives no finite reflection. Correct or delete it.');
      if (Math.hypot(gamma.re, gamma.im) > MOST_REFLECTION)
        throw new SweepFileError(
          row.line,
          `this row reflects ${Math.hypot(gamma.re, gamma.im).toPrecision(3)} times what arrives, which no antenna does. Say again what the columns hold, or correct that row.`,
        );
      return { line: row.line, at: frequencyAt(table, row, frequency, unitHz), gamma };
    }),
    'frequency',
  );
  return {
    freqHz: Float64Array.from(rows, ({ at }) => at),
    re: Float64Array.from(rows, ({ gamma }) => gamma.re),
    im: Float64Array.from(rows, ({ gamma }) => gamma.im),
    referenceOhm,
    phaseKnown: !PHASELESS.has(set.join('+')),
  };
}

/** Whether a text is written in the measuring-file format: an option line, or rows of three numbers between blanks. */
function looksLikeTouchstone(text: string): boolean {
  let seen = 0;
  for (const { text: line } of linesOf(text)) {
    const content = line.split('!')[0].trim();
    if (content === '') continue;
    if (content.startsWith('[')) return /^\[version\]/i.test(content);
    if (/^#\s*((hz|khz|mhz|ghz|s|y|z|g|h|ri|ma|db|r)\b[\s\d.]*)+$/i.test(content)) return true;
    seen += 1;
    if (seen > 400) return false;
    if (content.startsWith('#') || /[a-df-z]/i.test(content)) continue;
    return (
      content.split(/\s+/).length === 3 &&
      !/[;,\t]/.test(content) &&
      content.split(/\s+/).every((one) => Number.isFinite(Number(one))) &&
      !hasHeading(text)
    );
  }
  return false;
}

/** A line with letters ahead of the numbers. */
function hasHeading(text: string): boolean {
  for (const { text: line } of linesOf(text)) {
    const content = line.trim();
    if (content.startsWith('!')) continue;
    return /[a-df-z]{2,}/i.test(content);
  }
  return false;
}

/** Reads either format by what the text looks like. @throws TableQuestionError, SweepFileError */
export function readSweepText(text: string, answer: TableAnswer = {}): CsvSweep {
  if (looksLikeTouchstone(text)) return { ...readTouchstone(text), phaseKnown: true };
  return readSweepCsv(text, answer);
}
