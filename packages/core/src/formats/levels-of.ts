import { sToDbm, voltsRmsToDbm } from '../units';
import { plainCell, readNumberCell, S_CELL } from './cells';
import { numberAt, type Table, type TableRow } from './table';
import type { TableAnswer, TableQuestion } from './table-question';
import { SweepFileError } from './touchstone';

/** In which scales a level may be written. */
export const LEVEL_SCALES = ['dBm', 'dBuV', 'uV', 's-below', 's-above', 'dB'] as const;
type LevelScale = (typeof LEVEL_SCALES)[number];
const isScale = (text: string | undefined): text is LevelScale => LEVEL_SCALES.some((one) => one === text);

/** A frequency of each side on which S units are counted, Hz. */
const SIDE_HZ = { 's-below': 7e6, 's-above': 145e6 } as const;
const VOLTS = { uV: 1e-6, mV: 1e-3, V: 1 } as const;
/** No receiver hears so little in a voltage scale: thermal noise in 100 Hz is −154 dBm, −47 dB over a microvolt in 50 Ω. */
const ONLY_DBM = -45;

/** The unit of a level that a text names; undefined for none. */
function scaleNamed(text: string): LevelScale | 'mV' | 'V' | 'dBmV' | 'dBW' | 'dBFS' | undefined {
  const plain = text.toLowerCase().replaceAll(/[µμ]/g, 'u').replaceAll(/\s/g, '');
  if (/dbm(?!v)(?![a-z])/.test(plain)) return 'dBm';
  if (/db[([/]?uv/.test(plain) || /db>1uv/.test(plain)) return 'dBuV';
  if (/dbmv/.test(plain)) return 'dBmV';
  if (/dbw(?![a-z])/.test(plain)) return 'dBW';
  if (/dbfs/.test(plain)) return 'dBFS';
  if (/(^|[^a-z])uv($|[^a-z])|microvolt/.test(plain)) return 'uV';
  if (/(^|[^a-z])mv($|[^a-z])|millivolt/.test(plain)) return 'mV';
  if (/[[(/]v[\])]?$|volts?$/.test(plain)) return 'V';
  if (/s-?(units?|meter|stufe|wert)/.test(plain)) return 's-below';
  return undefined;
}

/** An impedance that a heading or a line ahead of the table names, ohm. */
export function impedanceNamed(texts: readonly string[]): number | undefined {
  for (const text of texts) {
    const found = /(\d+(?:[.,]\d+)?)\s*(?:ohms?|Ω|ω)(?![a-z])/i.exec(text)?.[1];
    const ohm = found === undefined ? NaN : Number(found.replace(',', '.'));
    if (ohm >= 1 && ohm <= 10_000) return ohm;
  }
  return undefined;
}

/** Volts of a level in dB over a microvolt. */
const voltsOf = (dbuv: number): number => 10 ** (dbuv / 20) * 1e-6;

/** How a column of levels is read, and what has to be said before it can be. */
export interface LevelColumn {
  /** dBm; where only differences count, dB of any reference. @throws SweepFileError */
  readonly read: (row: TableRow) => number;
  readonly open: Pick<TableQuestion, 'level' | 'ohm' | 'zeroDbm'>;
}

/**
 * Levels of a column in dBm, by the unit that its heading, its cells or the person names.
 * @param relative only differences count: any scale in dB will do, and voltages become dB; 'asked later': what has no unit is left as it stands.
 */
export function levelColumn(
  table: Table,
  column: number,
  answer: TableAnswer,
  relative: boolean | 'asked later',
): LevelColumn {
  const heading = table.headings[column] ?? '';
  const cells = table.rows.slice(0, 200).map(({ cells: all }) => plainCell(all[column] ?? ''));
  const numbers = cells.map((cell) => readNumberCell(cell, table.decimal));
  const inS = cells.some((cell) => S_CELL.test(cell));
  const inCells = numbers.map((one) => (one ? scaleNamed(one.unit) : undefined)).find((one) => one !== undefined);
  const named = inS ? 's-below' : (inCells ?? scaleNamed(heading));
  const said = isScale(answer.level) ? answer.level : undefined;
  const values = numbers.flatMap((one) => (one ? [one.value] : []));
  const least = Math.min(...values);
  const lowest = values.length > 0 && [...values].sort((a, b) => a - b)[values.length >> 1] < ONLY_DBM;
  // without a unit: so low is only dBm; of a table where only differences count, what goes below zero is in dB
  const presumed = lowest || relative === 'asked later' || (relative && least < 0) ? 'dBm' : undefined;
  const scale = said ?? named ?? presumed;
  const ohm = answer.ohm ?? impedanceNamed([heading, ...table.preamble]);
  const zeroDbm = answer.zeroDbm;
  const guessed: LevelScale =
    scale === 'mV' || scale === 'V'
      ? 'uV'
      : scale === 'dBmV'
        ? 'dBuV'
        : scale === 'dBFS' || scale === 'dBW'
          ? 'dB'
          : (scale ?? (relative ? 'dB' : 'dBuV'));
  const isVoltage = scale === 'uV' || scale === 'mV' || scale === 'V' || scale === 'dBuV' || scale === 'dBmV';
  const open: LevelColumn['open'] = {
    ...(scale === undefined || ((scale === 's-below' || scale === 's-above') && said === undefined)
      ? { level: guessed }
      : {}),
    ...(!relative && (isVoltage || scale === undefined) && ohm === undefined ? { ohm: 50 } : {}),
    ...(!relative && (scale === 'dBFS' || scale === 'dB' || scale === undefined) && zeroDbm === undefined
      ? { zeroDbm: 0 }
      : {}),
  };
  const needed =
    open.level !== undefined ||
    (isVoltage && open.ohm !== undefined) ||
    ((scale === 'dBFS' || scale === 'dB') && open.zeroDbm !== undefined);
  const inDbm = (value: number, own: ReturnType<typeof scaleNamed>): number => {
    const across = ohm ?? 50;
    switch (own) {
      case 'dBuV':
        return voltsRmsToDbm(voltsOf(value), across);
      case 'dBmV':
        return voltsRmsToDbm(voltsOf(value + 60), across);
      case 'uV':
      case 'mV':
      case 'V':
        return voltsRmsToDbm(value * VOLTS[own], across);
      case 'dBW':
        return value + 30;
      case 's-below':
      case 's-above':
        return sToDbm({ sUnits: value, dbOverS9: 0 }, SIDE_HZ[own]);
      case 'dB':
      case 'dBFS':
        return value + (zeroDbm ?? 0);
      default:
        return value;
    }
  };
  return {
    open: !needed ? {} : relative || open.level === undefined ? open : { ohm: 50, zeroDbm: 0, ...open },
    read(row) {
      const cell = plainCell(row.cells[column] ?? '');
      const s = S_CELL.exec(cell);
      if (s) {
        const own = said === 's-above' ? 's-above' : 's-below';
        return inDbm(Number(s[1]), own) + Number(s[2] ?? 0);
      }
      const { value, unit } = numberAt(table, row, column);
      const own = scaleNamed(unit) ?? scale;
      if ((own === 'uV' || own === 'mV' || own === 'V') && !(value > 0))
        throw new SweepFileError(
          row.line,
          `${value} is no voltage: it must be above zero. Correct or delete that row.`,
        );
      return inDbm(value, own);
    },
  };
}
