/** A cell that holds a number, with the unit written behind it if there is one. */
export interface NumberCell {
  readonly value: number;
  /** As written, without blanks; empty where there is none. */
  readonly unit: string;
}

/** Which character separates the decimals; the other one may group thousands. */
export type Decimal = '.' | ',';

/** Minus signs as typographers write them, and blanks of every width. */
const MINUS = /[\u2212\u2012\u2013\uFE63\uFF0D]/g;
const BLANKS = /[\u00a0\u2007\u2009\u202f]/g;

/** A cell without quotes, odd blanks and typographic signs. */
export const plainCell = (text: string): string => text.replace(MINUS, '-').replace(BLANKS, ' ').trim();

const POINT =
  /^([+-]?(?:\d{1,3}(?:([ ,'’])\d{3})(?:\2\d{3})*|\d+)?(?:\.\d*)?)(?:[eEdD]([+-]?\d{1,3}))?\s*([^\d\s.,+-].*)?$/;
const COMMA =
  /^([+-]?(?:\d{1,3}(?:([ .'’])\d{3})(?:\2\d{3})*|\d+)?(?:,\d*)?)(?:[eEdD]([+-]?\d{1,3}))?\s*([^\d\s.,+-].*)?$/;

/** Reads a cell as a number with an optional unit. @returns undefined for anything else; never NaN or an infinite value. */
export function readNumberCell(text: string, decimal: Decimal): NumberCell | undefined {
  const cell = plainCell(text);
  if (cell.length > 60) return undefined;
  const match = (decimal === '.' ? POINT : COMMA).exec(cell);
  if (!match || !/\d/.test(match[1])) return undefined;
  const grouped = decimal === '.' ? match[1].replace(/[ ,'’]/g, '') : match[1].replace(/[ .'’]/g, '').replace(',', '.');
  const value = Number(match[3] === undefined ? grouped : `${grouped}e${match[3]}`);
  return Number.isFinite(value) ? { value, unit: (match[4] ?? '').replace(/\s+/g, '') } : undefined;
}

const HERTZ: Readonly<Record<string, number>> = { hz: 1, khz: 1e3, mhz: 1e6, ghz: 1e9 };

/** Hertz of a unit of frequency; undefined for any other word. */
export const hertzOf = (unit: string): number | undefined => HERTZ[unit.trim().toLowerCase()];

/** How a moment is written: the order of day and month where it can be mistaken. */
export type DateOrder = 'dmy' | 'mdy';

/** A moment as a cell gives it: parts that are missing come from elsewhere. */
export interface MomentCell {
  readonly year?: number;
  readonly month?: number;
  readonly day?: number;
  /** Seconds since midnight; undefined for a date alone. */
  readonly seconds?: number;
  /** Minutes ahead of UTC, where the cell says so. */
  readonly zoneMin?: number;
  /** Day and month could be exchanged and still be a date. */
  readonly doubtful?: boolean;
}

const ZONES: Readonly<Record<string, number>> = { z: 0, utc: 0, gmt: 0, ut: 0 };
const CLOCK =
  /^(\d{1,2})[:.h](\d{2})(?:[:.m](\d{2})(?:[.,](\d{1,9}))?)?s?\s*(am|pm)?\s*(z|utc|gmt|ut|[+-]\d{2}:?\d{2})?$/i;
const ISO_DATE = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})$/;
const SHORT_DATE = /^(\d{1,2})[-/.](\d{1,2})[-/.](\d{4}|\d{2})$/;

function readClock(text: string): Pick<MomentCell, 'seconds' | 'zoneMin'> | undefined {
  const match = CLOCK.exec(text);
  if (!match) return undefined;
  const [, h, m, s = '0', fraction = '0', half, zone] = match;
  let hour = Number(h);
  if (half) {
    if (hour < 1 || hour > 12) return undefined;
    hour = (hour % 12) + (half.toLowerCase() === 'pm' ? 12 : 0);
  }
  if (hour > 23 || Number(m) > 59 || Number(s) > 59) return undefined;
  const seconds = hour * 3600 + Number(m) * 60 + Number(s) + Number(`0.${fraction}`);
  if (zone === undefined) return { seconds };
  const named = ZONES[zone.toLowerCase()];
  const sign = zone.startsWith('-') ? -1 : 1;
  const digits = zone.replace(/\D/g, '');
  const zoneMin = named ?? sign * (Number(digits.slice(0, 2)) * 60 + Number(digits.slice(2)));
  return Math.abs(zoneMin) <= 14 * 60 ? { seconds, zoneMin } : undefined;
}

const daysIn = (year: number, month: number): number => new Date(Date.UTC(year, month, 0)).getUTCDate();
const isDate = (year: number, month: number, day: number): boolean =>
  month >= 1 && month <= 12 && day >= 1 && day <= daysIn(year, month) && year >= 1970 && year <= 2200;

function readDate(text: string, order: DateOrder | undefined): Omit<MomentCell, 'seconds' | 'zoneMin'> | undefined {
  const iso = ISO_DATE.exec(text);
  if (iso) {
    const [year, month, day] = iso.slice(1).map(Number);
    return isDate(year, month, day) ? { year, month, day } : undefined;
  }
  const short = SHORT_DATE.exec(text);
  if (!short) return undefined;
  const [a, b] = [Number(short[1]), Number(short[2])];
  const year = short[3].length === 2 ? 2000 + Number(short[3]) : Number(short[3]);
  const dmy = isDate(year, b, a);
  const mdy = isDate(year, a, b);
  if (!dmy && !mdy) return undefined;
  const asMdy = dmy && mdy ? order === 'mdy' : mdy;
  return {
    year,
    month: asMdy ? a : b,
    day: asMdy ? b : a,
    doubtful: dmy && mdy && a !== b && order === undefined,
  };
}

/** Reads "09:13", "2026-08-04T09:13:30Z", "4.8.2026 09:13", "08/04/2026 9:13 PM". @returns undefined for anything else. */
export function readMomentCell(text: string, order?: DateOrder): MomentCell | undefined {
  const cell = plainCell(text);
  if (cell.length > 40) return undefined;
  const clock = readClock(cell);
  if (clock) return clock;
  const date = readDate(cell, order);
  if (date) return date;
  const parts = /^(\S+?)(?:T|\s+)(.+)$/i.exec(cell);
  if (!parts) return undefined;
  const [first, second] = [readDate(parts[1], order), readClock(parts[2])];
  return first && second ? { ...first, ...second } : undefined;
}
