import { QuantityTextError } from '../errors';
import { voltsRmsToDbm, wattsToDbm } from './decibel';
import { S_UNIT_DB, s9Dbm } from './s-meter';

/** What kind of quantity a text field holds; the value is always in the SI (or dB) unit named here. */
export type Dimension =
  | 'frequency' // Hz
  | 'length' // m
  | 'power' // W
  | 'level' // dBm
  | 'gain' // dB, dBi
  | 'angle' // degrees
  | 'time' // s
  | 'resistance' // Ω
  | 'speed' // m/s
  | 'plain';

interface UnitRow {
  readonly names: readonly string[];
  readonly factor: number;
}

const UNITS: Record<Dimension, readonly UnitRow[]> = {
  frequency: [
    { names: ['hz'], factor: 1 },
    { names: ['khz', 'k'], factor: 1e3 },
    { names: ['mhz', 'm'], factor: 1e6 },
    { names: ['ghz', 'g'], factor: 1e9 },
  ],
  length: [
    { names: ['m', 'metre', 'metres', 'meter', 'meters'], factor: 1 },
    { names: ['mm'], factor: 1e-3 },
    { names: ['cm'], factor: 1e-2 },
    { names: ['km'], factor: 1e3 },
    { names: ['in', 'inch', 'inches', '"', '″'], factor: 0.0254 },
    { names: ['ft', 'foot', 'feet', "'", '′'], factor: 0.3048 },
    { names: ['yd'], factor: 0.9144 },
    { names: ['mi', 'mile', 'miles'], factor: 1609.344 },
  ],
  power: [
    { names: ['w', 'watt', 'watts'], factor: 1 },
    { names: ['mw'], factor: 1e-3 },
    { names: ['kw'], factor: 1e3 },
    { names: ['µw', 'uw'], factor: 1e-6 },
  ],
  level: [{ names: ['dbm'], factor: 1 }],
  gain: [{ names: ['db', 'dbi'], factor: 1 }],
  angle: [{ names: ['°', 'deg', 'degrees'], factor: 1 }],
  time: [
    { names: ['s', 'sec'], factor: 1 },
    { names: ['ms'], factor: 1e-3 },
    { names: ['min'], factor: 60 },
    { names: ['h'], factor: 3600 },
  ],
  resistance: [
    { names: ['ω', 'ohm', 'ohms', 'r'], factor: 1 },
    { names: ['kω', 'kohm', 'k'], factor: 1e3 },
  ],
  speed: [
    { names: ['m/s'], factor: 1 },
    { names: ['km/h', 'kmh'], factor: 1 / 3.6 },
    { names: ['mph'], factor: 0.44704 },
    { names: ['kn', 'kt', 'knots'], factor: 1852 / 3600 },
  ],
  plain: [{ names: ['%'], factor: 1 }],
};

const EXAMPLE: Record<Dimension, string> = {
  frequency: '9.65 MHz, 518 kHz or 7.1M',
  length: '7.38 m, 65 mm or 6 ft 3 in',
  power: '100 W or 3 kW',
  level: '-73 dBm, 12 uV, 34 dBuV, 1 mW or S9+10',
  gain: '2.15 dB',
  angle: '120°',
  time: '12 ms',
  resistance: '50 ohm',
  speed: '35 mph or 15 m/s',
  plain: '4',
};

/** A unit that a bare number is taken in, per dimension ("7.1" in a MHz field). */
export interface ParseOptions {
  readonly bareUnit?: string;
  /** Frequency that decides which level "S7" means; without it S readings are not taken. */
  readonly freqHz?: number;
}

const NUMBER = String.raw`[+-]?(?:\d+,(?:\d{1,2}(?!\d)|\d{4,})|\d+(?:[ \u00a0,]\d{3})*(?:\.\d+)?|\.\d+|\d+)(?:e[+-]?\d+)?`;
const TERM = new RegExp(String.raw`(${NUMBER})\s*([a-zµω°"'′″%/]*)`, 'giy');

/** Longest text that can be a quantity. */
const LONGEST = 60;
/** Highest step above S9 that meters show, dB. */
const MOST_OVER_S9_DB = 80;

const LEVEL =
  /^([+-]?(?:\d+[.,]?\d*|[.,]\d+)(?:e[+-]?\d+)?)\s*(dbm|dbµv|dbuv|dbμv|µv|uv|μv|mv|v|pw|nw|µw|uw|μw|mw|w)\s*(?:(?:@|in|into|across|on)?\s*(\d+(?:\.\d+)?)\s*(?:ohms?|ω))?$/;
const WATTS: Readonly<Record<string, number>> = { pw: 1e-12, nw: 1e-9, µw: 1e-6, uw: 1e-6, μw: 1e-6, mw: 1e-3, w: 1 };
const VOLTS: Readonly<Record<string, number>> = { µv: 1e-6, uv: 1e-6, μv: 1e-6, mv: 1e-3, v: 1 };
/** Impedance that a voltage is read across unless another is typed. */
const USUAL_OHM = 50;

/** A level as voltage or power, in dBm; undefined for anything else; NaN where a size above zero is needed. */
function readLevel(text: string): number | undefined {
  const match = LEVEL.exec(text);
  if (!match) return undefined;
  const value = Number(match[1].replace(',', '.'));
  const ohm = match[3] === undefined ? USUAL_OHM : Number(match[3]);
  const unit = match[2];
  if (unit === 'dbm') return match[3] === undefined ? value : undefined;
  if (unit.startsWith('db')) return voltsRmsToDbm(10 ** (value / 20) * 1e-6, ohm);
  if (!(value > 0 && ohm > 0)) return NaN;
  return unit in VOLTS ? voltsRmsToDbm(value * VOLTS[unit], ohm) : wattsToDbm(value * WATTS[unit]);
}

/** A comma with three digits behind it may be a decimal sign or group thousands: both readings, or none when it can be only one. */
function bothReadings(number: string): readonly [decimal: string, grouped: string] | undefined {
  const match = /^([+-]?[1-9]\d{0,2}),(\d{3})$/.exec(number);
  return match ? [String(Number(`${match[1]}.${match[2]}`)), `${match[1]}${match[2]}`] : undefined;
}

/**
 * Reads what a person types for a quantity and returns it in the unit of its dimension.
 * Feet and inches may follow each other; levels may be S readings.
 * @throws QuantityTextError with an example of what works.
 */
export function parseQuantity(text: string, dimension: Dimension, options: ParseOptions = {}): number {
  const trimmed = text.trim().replaceAll('−', '-').replaceAll('Ω', 'ω').toLowerCase();
  const refuse = (why: string): never => {
    throw new QuantityTextError(`"${text.trim()}" ${why}. Type it like ${EXAMPLE[dimension]}.`);
  };
  if (trimmed === '') return refuse('is empty');
  if (trimmed.length > LONGEST)
    throw new QuantityTextError(`This is too long for a number. Type it like ${EXAMPLE[dimension]}.`);
  if (dimension === 'level') {
    const s = /^s\s*(\d(?:\.\d+)?)\s*(?:\+\s*(\d+(?:\.\d+)?)\s*(?:db)?)?$/.exec(trimmed);
    if (s) {
      if (Number(s[1]) > 9 || Number(s[2] ?? 0) > MOST_OVER_S9_DB || (s[2] !== undefined && s[1] !== '9'))
        return refuse('is beyond any S meter: S0 to S9, then S9+10 up to S9+60');
      if (options.freqHz === undefined)
        return refuse('means another level below 30 MHz than above, and this field knows no frequency; give dBm');
      return s9Dbm(options.freqHz) + (Number(s[1]) - 9) * S_UNIT_DB + Number(s[2] ?? 0);
    }
    const level = readLevel(trimmed);
    if (level !== undefined) return Number.isFinite(level) ? level : refuse('is not above zero');
  }
  let total = 0;
  let position = 0;
  let terms = 0;
  while (position < trimmed.length) {
    TERM.lastIndex = position;
    const match = TERM.exec(trimmed);
    if (!match || match[0] === '') return refuse(`is not a ${dimension === 'plain' ? 'number' : dimension}`);
    const both = bothReadings(match[1]);
    if (both) {
      const unitText = match[2] === '' ? '' : ` ${text.trim().slice(text.trim().length - match[2].length)}`;
      throw new QuantityTextError(
        `"${text.trim()}" can mean ${both[0]}${unitText} or ${both[1]}${unitText}. Type it with a point, or without the comma.`,
      );
    }
    const decimalComma = /^[+-]?\d+,\d+(e[+-]?\d+)?$/.test(match[1]) && !/,\d{3}(,|$|e)/.test(match[1]);
    const value = Number(decimalComma ? match[1].replace(',', '.') : match[1].replace(/[ \u00a0,](?=\d{3})/g, ''));
    const unit = match[2] === '' ? options.bareUnit?.toLowerCase() : match[2];
    const row = UNITS[dimension].find((candidate) => unit !== undefined && candidate.names.includes(unit));
    if (!row && unit !== undefined) return refuse(`has the unit "${match[2]}", which is not one for a ${dimension}`);
    if (terms > 0 && (dimension !== 'length' || match[2] === '' || value < 0))
      return refuse('holds more than one number');
    total += value * (row?.factor ?? 1);
    terms += 1;
    position = TERM.lastIndex;
    while (trimmed[position] === ' ') position += 1;
  }
  if (!Number.isFinite(total)) return refuse('is too large');
  return total;
}
