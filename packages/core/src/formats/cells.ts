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

/** Two groups of three and more: whatever the sign between them, it can only group. */
const GROUPED = /^([+-]?\d{1,3}([ .,'’])\d{3}(?:\2\d{3})+)(?![\d.,])\s*([^\d\s.,+-].*)?$/;

/**
 * Reads a cell as a number with an optional unit. What cannot be a number with this decimal sign and can be with the other one, is that.
 * @returns undefined for anything else; never NaN or an infinite value.
 */
export function readNumberCell(text: string, decimal: Decimal): NumberCell | undefined {
  const cell = plainCell(text);
  if (cell.length > 60) return undefined;
  const whole = GROUPED.exec(cell);
  if (whole) return { value: Number(whole[1].replace(/[ .,'’]/g, '')), unit: (whole[3] ?? '').replace(/\s+/g, '') };
  return readWith(cell, decimal) ?? readWith(cell, decimal === '.' ? ',' : '.');
}

function readWith(cell: string, decimal: Decimal): NumberCell | undefined {
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

/** Months by their names and short names in eight languages, without marks and points. */
const MONTHS: ReadonlyMap<string, number> = new Map(
  ['en', 'de', 'fr', 'es', 'it', 'nl', 'pt', 'pl', 'sv'].flatMap((language) =>
    (['long', 'short'] as const).flatMap((month) => {
      // with a day beside it some languages bend the name
      const forms = [
        new Intl.DateTimeFormat(language, { month, timeZone: 'UTC' }),
        new Intl.DateTimeFormat(language, { day: 'numeric', month, timeZone: 'UTC' }),
      ];
      return Array.from({ length: 12 }, (_, i) => i).flatMap((i) =>
        forms.flatMap((form) =>
          form
            .formatToParts(Date.UTC(2026, i, 15))
            .filter(({ type }) => type === 'month')
            .map(({ value }) => [monthName(value), i + 1] as const),
        ),
      );
    }),
  ),
);
function monthName(text: string): string {
  return text
    .toLowerCase()
    .normalize('NFD')
    .replaceAll(/[^a-z]/g, '');
}
const DAY_WORD_YEAR = /^(\d{1,2})\.?[\s/-]+(?:de\s+)?(\p{L}{3,12})\.?,?[\s/-]+(?:de\s+)?(\d{4})$/u;
const WORD_DAY_YEAR = /^(\p{L}{3,12})\.?\s+(\d{1,2}),?\s+(\d{4})$/u;

/** "24 Oct 2026", "Oct 24, 2026", "24. Oktober 2026", "24 de outubro de 2026". */
function readWordDate(text: string): Omit<MomentCell, 'seconds' | 'zoneMin'> | undefined {
  const [, day, word, year] = DAY_WORD_YEAR.exec(text) ?? [];
  const [, word2, day2, year2] = WORD_DAY_YEAR.exec(text) ?? [];
  const month = MONTHS.get(monthName(word ?? word2 ?? ''));
  const parts = [Number(year ?? year2), month ?? 0, Number(day ?? day2)] as const;
  return month !== undefined && isDate(...parts) ? { year: parts[0], month, day: parts[2] } : undefined;
}

/** "20261024T091300Z", "20261024T0913" (ISO 8601, basic format). */
const BASIC = /^(\d{4})(\d{2})(\d{2})T(\d{2})(\d{2})(\d{2})?(?:[.,]\d+)?(Z|[+-]\d{2}:?\d{2})?$/i;

/** Seconds since 1970 and milliseconds, in the years 2001 to 2100: shorter and longer numbers are none. */
const EPOCH_S = [1e9, 4.1e9] as const;
const within = (value: number, [least, most]: readonly [number, number], times: number): boolean =>
  value >= least * times && value < most * times;

/** A moment in a column that is named as time: also seconds or milliseconds since 1970, "20261024" and "0913". */
export function readNamedMoment(text: string, order?: DateOrder): MomentCell | undefined {
  const cell = plainCell(text);
  if (/^\d{9,13}([.,]\d+)?$/.test(cell)) {
    const value = Number(cell.replace(',', '.'));
    const ms = within(value, EPOCH_S, 1) ? value * 1000 : within(value, EPOCH_S, 1000) ? value : undefined;
    if (ms !== undefined) {
      const at = new Date(ms);
      const dayMs = Date.UTC(at.getUTCFullYear(), at.getUTCMonth(), at.getUTCDate());
      const date = { year: at.getUTCFullYear(), month: at.getUTCMonth() + 1, day: at.getUTCDate() };
      return { ...date, seconds: (ms - dayMs) / 1000, zoneMin: 0 };
    }
  }
  const day = /^(\d{4})(\d{2})(\d{2})$/.exec(cell);
  if (day) {
    const [year, month, date] = day.slice(1).map(Number);
    if (isDate(year, month, date)) return { year, month, day: date };
  }
  const clock = /^(\d{2})(\d{2})(\d{2})?$/.exec(cell);
  if (clock) return readClock(`${clock[1]}:${clock[2]}${clock[3] === undefined ? '' : `:${clock[3]}`}`);
  const both = /^(\d{8})\s+(\d{4}|\d{6})$/.exec(cell);
  if (both) {
    const [date, time] = [readNamedMoment(both[1]), readNamedMoment(both[2])];
    if (date && time) return { ...date, ...time };
  }
  return readMomentCell(cell, order);
}

function readDate(text: string, order: DateOrder | undefined): Omit<MomentCell, 'seconds' | 'zoneMin'> | undefined {
  const iso = ISO_DATE.exec(text);
  const inWords = readWordDate(text);
  if (inWords) return inWords;
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
  const basic = BASIC.exec(cell);
  if (basic) {
    const [year, month, day] = basic.slice(1, 4).map(Number);
    const time = readClock(`${basic[4]}:${basic[5]}:${basic[6] ?? '00'}${basic[7] ?? ''}`);
    return isDate(year, month, day) && time ? { year, month, day, ...time } : undefined;
  }
  // a date in words holds blanks itself: the clock is what stands behind the last one or two
  const words = /^(.+?\d{4}),?\s+(\d{1,2}[:.h].+)$/.exec(cell);
  const wordDate = words && readWordDate(words[1]);
  const wordClock = words && readClock(words[2]);
  if (wordDate && wordClock) return { ...wordDate, ...wordClock };
  const parts = /^(\S+?)(?:T|\s+)(.+)$/i.exec(cell);
  if (!parts) return undefined;
  const [first, second] = [readDate(parts[1], order), readClock(parts[2])];
  return first && second ? { ...first, ...second } : undefined;
}

/** A level in S units: "S7", "S9+10", "S9 + 10 dB". */
export const S_CELL = /^s\s*(\d(?:\.\d+)?)(?:\s*\+\s*(\d{1,2})\s*(?:db)?)?$/i;
