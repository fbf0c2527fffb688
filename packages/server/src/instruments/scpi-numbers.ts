import { voltsRmsToDbm, wattsToDbm } from '@velvet-reed/core/units';
import { InstrumentError } from './scpi-error';

/** What a number of an instrument measures; levels come out in dBm, angles in degrees, the rest in SI units. */
export type Measure = 'plain' | 'frequency' | 'level' | 'inductance' | 'capacitance' | 'angle';

/** Values that stand for none (SCPI-1999 vol. 1, 7.2.1.4 and 7.2.1.5). */
const INFINITE = 9.9e37;
const NOT_A_NUMBER = 9.91e37;
const near = (value: number, mark: number): boolean => Math.abs(value - mark) < 1e-4 * mark;

/** Words for a value that stands for none; undefined for a number that is one. */
export function missingReading(value: number): string | undefined {
  if (Number.isNaN(value) || near(Math.abs(value), NOT_A_NUMBER)) return 'not a number';
  if (!Number.isFinite(value) || near(Math.abs(value), INFINITE)) return value > 0 ? 'overflow' : 'underflow';
  return undefined;
}

/** SCPI's multipliers (IEEE 488.2, table 7-2): M is milli, but mega before HZ. */
const MULTIPLIERS: Readonly<Record<string, number>> = {
  ...{ '': 1, P: 1e-12, N: 1e-9, U: 1e-6, µ: 1e-6, M: 1e-3, K: 1e3, MA: 1e6, G: 1e9 },
};
const SI: Readonly<Record<'frequency' | 'inductance' | 'capacitance', string>> = {
  frequency: 'HZ',
  inductance: 'H',
  capacitance: 'F',
};
/** What 0 dB over a unit is in dBm, in 50 Ω where the unit is a voltage. */
const DB_OVER: Readonly<Record<string, number>> = {
  ...{ DBM: 0, DBW: 30, DBUW: -30 },
  ...{ DBUV: voltsRmsToDbm(1e-6), DBMV: voltsRmsToDbm(1e-3), DBV: voltsRmsToDbm(1) },
};

const multiplied = (unit: string, base: string): number | undefined =>
  unit.endsWith(base) ? MULTIPLIERS[unit.slice(0, unit.length - base.length)] : undefined;

/** A value with its unit in the measure's own; undefined for a unit that does not measure this. */
export function inOwnUnit(value: number, unit: string, measure: Measure): number | undefined {
  const name = unit
    .toUpperCase()
    .replaceAll('Μ', 'U')
    .replaceAll('µ', 'U')
    .replaceAll(/[\s_.]/g, '');
  if (name === '') return value;
  if (measure === 'level') {
    const over = DB_OVER[name];
    if (over !== undefined) return value + over;
    const watts = multiplied(name, 'W');
    // a meter at its zero wavers about it: there is no level below
    if (watts !== undefined) return value > 0 ? wattsToDbm(value * watts) : -INFINITE;
    const volts = multiplied(name, 'V');
    if (volts === undefined) return undefined;
    return value > 0 ? voltsRmsToDbm(value * volts) : -INFINITE;
  }
  if (measure === 'angle') {
    if (name === 'DEG' || name === '°') return value;
    return name === 'RAD' ? (value * 180) / Math.PI : undefined;
  }
  if (measure === 'plain') return undefined;
  if (measure === 'frequency' && name === 'MHZ') return value * 1e6;
  const times = multiplied(name, SI[measure]);
  return times === undefined ? undefined : value * times;
}

const NUMBER = /^\s*([+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?)\s*([A-Za-z°µμ_.]*)\s*$/;
const WORDS: Readonly<Record<string, number>> = { INF: INFINITE, NINF: -INFINITE, NAN: NOT_A_NUMBER };

/** One number of an answer, with its unit when it brings one. @returns NaN for what is none. */
export function readNumber(text: string, measure: Measure, unit = ''): number {
  const word = WORDS[text.trim().toUpperCase()];
  if (word !== undefined) return word;
  const found = NUMBER.exec(text);
  if (!found) return NaN;
  const value = Number(found[1]);
  // what stands for none has no unit
  if (missingReading(value) !== undefined) return value;
  const own = inOwnUnit(value, found[2] === '' ? unit : found[2], measure);
  if (own === undefined)
    throw new InstrumentError(
      `The instrument answered "${text.trim().slice(0, 60)}", in a unit that does not measure this. Set its unit by hand (${HAND_UNITS[measure]}).`,
    );
  return own;
}
const HAND_UNITS: Readonly<Record<Measure, string>> = {
  ...{ plain: 'none', frequency: 'Hz', level: 'dBm', inductance: 'H', capacitance: 'F', angle: 'degrees' },
};

/** Whether an answer about one channel says that it is closed: 1, ON, CLOSED, or a list of channels that holds it. */
export function saysClosed(answer: string, channel: number): boolean {
  const text = answer
    .trim()
    .toUpperCase()
    .split(/[;,](?![^(]*\))/)[0];
  const list = /^\(@([^)]*)\)$/.exec(text)?.[1];
  if (list === undefined) return /^(\+?1(\.0*)?|ON|CLOS(ED)?)$/.test(text);
  return list.split(',').some((part) => {
    const [from, to = from] = part.split(':').map((one) => Number(one.trim()));
    return from <= channel && channel <= to;
  });
}
