import { QuantityTextError } from '../errors';
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
  level: '-73 dBm or S9+10',
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
  /** Frequency that decides which S-unit table "S7" means; below 30 MHz if absent. */
  readonly freqHz?: number;
}

const NUMBER = String.raw`[+-]?(?:\d+(?:[ \u00a0,]\d{3})*(?:\.\d+)?|\.\d+|\d+)(?:e[+-]?\d+)?`;
const TERM = new RegExp(String.raw`(${NUMBER})\s*([a-zµω°"'′″%/]*)`, 'giy');

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
  if (dimension === 'level') {
    const s = /^s\s*(\d(?:\.\d+)?)\s*(?:\+\s*(\d+(?:\.\d+)?)\s*(?:db)?)?$/.exec(trimmed);
    if (s) return s9Dbm(options.freqHz ?? 7e6) + (Number(s[1]) - 9) * S_UNIT_DB + Number(s[2] ?? 0);
  }
  let total = 0;
  let position = 0;
  let terms = 0;
  while (position < trimmed.length) {
    TERM.lastIndex = position;
    const match = TERM.exec(trimmed);
    if (!match || match[0] === '') return refuse(`is not a ${dimension === 'plain' ? 'number' : dimension}`);
    const value = Number(match[1].replace(/[ \u00a0,](?=\d{3})/g, ''));
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
