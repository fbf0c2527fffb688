import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readFloorCsv } from './floor-csv';
import { readSpectrumCsv } from './spectrum-csv';
import { readSweepText } from './sweep-csv';
import { type TableAnswer, type TableQuestion, TableQuestionError } from './table-question';

/** Heading words of eight languages (dictionaries; abbreviations by common practice, no source). */
const LANGUAGES = {
  en: {
    f: 'Frequency',
    r: 'Resistance',
    x: 'Reactance',
    swr: 'SWR',
    rl: 'Return loss',
    ph: 'Phase',
    z: 'Impedance',
    level: 'Level',
    time: 'Time',
    date: 'Date',
  },
  de: {
    f: 'Frequenz',
    r: 'Wirkwiderstand',
    x: 'Blindwiderstand',
    swr: 'SWV',
    rl: 'Rückflussdämpfung',
    ph: 'Phase',
    z: 'Impedanz',
    level: 'Pegel',
    time: 'Uhrzeit',
    date: 'Datum',
  },
  fr: {
    f: 'Fréquence',
    r: 'Résistance',
    x: 'Réactance',
    swr: 'ROS',
    rl: 'Affaiblissement de réflexion',
    ph: 'Phase',
    z: 'Impédance',
    level: 'Niveau',
    time: 'Heure',
    date: 'Date',
  },
  es: {
    f: 'Frecuencia',
    r: 'Resistencia',
    x: 'Reactancia',
    swr: 'ROE',
    rl: 'Pérdida de retorno',
    ph: 'Fase',
    z: 'Impedancia',
    level: 'Nivel',
    time: 'Hora',
    date: 'Fecha',
  },
  it: {
    f: 'Frequenza',
    r: 'Resistenza',
    x: 'Reattanza',
    swr: 'ROS',
    rl: 'Perdita di ritorno',
    ph: 'Fase',
    z: 'Impedenza',
    level: 'Livello',
    time: 'Ora',
    date: 'Data',
  },
  nl: {
    f: 'Frequentie',
    r: 'Weerstand',
    x: 'Reactantie',
    swr: 'SGV',
    rl: 'Retourverlies',
    ph: 'Fase',
    z: 'Impedantie',
    level: 'Niveau',
    time: 'Tijd',
    date: 'Datum',
  },
  pt: {
    f: 'Frequência',
    r: 'Resistência',
    x: 'Reatância',
    swr: 'ROE',
    rl: 'Perda de retorno',
    ph: 'Fase',
    z: 'Impedância',
    level: 'Nível',
    time: 'Hora',
    date: 'Data',
  },
  pl: {
    f: 'Częstotliwość',
    r: 'Rezystancja',
    x: 'Reaktancja',
    swr: 'WFS',
    rl: 'Tłumienność odbicia',
    ph: 'Faza',
    z: 'Impedancja',
    level: 'Poziom',
    time: 'Czas',
    date: 'Data',
  },
} as const;
type Language = keyof typeof LANGUAGES;
const LANGUAGE_NAMES = ['en', 'de', 'fr', 'es', 'it', 'nl', 'pt', 'pl'] as const;

/** How a file is written, whatever it holds. */
const styleArb = fc.record({
  language: fc.constantFrom<Language>(...LANGUAGE_NAMES),
  delimiter: fc.constantFrom(',', ';', '\t'),
  comma: fc.boolean(),
  quotes: fc.boolean(),
  minus: fc.constantFrom('-', '−'),
  group: fc.constantFrom('', '', '.', ' ', "'"),
  heading: fc.constantFrom(true, true, true, false),
  falling: fc.boolean(),
  junkBefore: fc.constantFrom('', '# made by hand\n', 'Instrument, model 3\nfirmware 1.2\n\n', '\uFEFF'),
  junkAfter: fc.constantFrom('', '\n', 'END\n'),
  end: fc.constantFrom('\n', '\r\n'),
});
type Style = typeof styleArb extends fc.Arbitrary<infer T> ? T : never;

/** A number as the style writes it: decimals, grouping of thousands, minus. A comma between the columns puts decimal commas into quotes. */
function written(value: number, digits: number, { comma, group, minus }: Style): string {
  const [whole, part] = Math.abs(value).toFixed(digits).split('.');
  const grouped = group === '' ? whole : whole.replaceAll(/\B(?=(\d{3})+$)/g, group === '.' && !comma ? ',' : group);
  return `${value < 0 ? minus : ''}${grouped}${part === undefined ? '' : (comma ? ',' : '.') + part}`;
}

function textOf(style: Style, headings: readonly string[], rows: readonly (readonly string[])[]): string {
  const { delimiter, quotes, end } = style;
  const cell = (text: string): string => (quotes || text.includes(delimiter) ? `"${text}"` : text);
  const lines = [...(style.heading ? [headings] : []), ...rows].map((row) => row.map(cell).join(delimiter));
  return style.junkBefore + lines.join(end) + end + style.junkAfter;
}

interface Tally {
  read: number;
  asked: number;
  guessedRight: number;
}
/** Reads a table as a person would: as it is, else by the guess, else by the right answer. What is read must be the truth. */
function judge<T>(
  text: string,
  read: (text: string, answer?: TableAnswer) => T,
  isTrue: (value: T) => boolean,
  right: (question: TableQuestion) => TableAnswer,
  tally: Tally,
): void {
  let question: TableQuestion;
  try {
    const value = read(text);
    if (!isTrue(value)) throw new Error(`silently wrong:\n${text.slice(0, 400)}`);
    tally.read += 1;
    return;
  } catch (error) {
    if (!(error instanceof TableQuestionError))
      throw new Error(`${String(error)}\n${text.slice(0, 400)}`, { cause: error });
    question = error.question;
  }
  tally.asked += 1;
  const { ask: _ask, headings: _h, rows: _r, meanings: _m, key: _k, clockBack: _c, ...guess } = question;
  try {
    if (isTrue(read(text, guess))) tally.guessedRight += 1;
  } catch {
    // a guess may fail; it was asked
  }
  const answer = right(question);
  const value = read(text, answer);
  if (!isTrue(value)) throw new Error(`wrong after the right answer ${JSON.stringify(answer)}:\n${text.slice(0, 400)}`);
}

/** A series circuit, R + j(ωL − 1/ωC): the truth behind the sweeps. */
const FREQS = Array.from({ length: 21 }, (_, i) => 6.8e6 + i * 30e3);
const impedance = (freqHz: number, r0: number) => {
  const z = { r: r0 * (freqHz / 7.1e6) ** 2, x: 210 * (freqHz / 7.1e6 - 7.1e6 / freqHz) };
  return z;
};
const gamma = ({ r, x }: { r: number; x: number }, ohm: number) => {
  const d = (r + ohm) ** 2 + x ** 2;
  return { re: (r * r - ohm * ohm + x * x) / d, im: (2 * ohm * x) / d };
};

const SHAPES = {
  parts: ['r', 'x'],
  gamma: ['gamma-re', 'gamma-im'],
  polar: ['z-magnitude', 'z-degrees'],
  db: ['gamma-db', 'gamma-degrees'],
  swr: ['swr'],
  loss: ['return-loss-db'],
} as const;

const sweepArb = fc.record({
  style: styleArb,
  shape: fc.constantFrom('parts', 'gamma', 'polar', 'db', 'swr', 'loss', 'parts'),
  unit: fc.constantFrom('Hz', 'kHz', 'MHz'),
  unitIn: fc.constantFrom('heading', 'none'),
  extra: fc.constantFrom('', '', 'count', 'temperature'),
  r0: fc.constantFrom(12, 38, 61, 140),
  ohm: fc.constantFrom(50, 75),
});

test('1,000 tables by habits of eight languages: read right or asked, none silently wrong, all after the right answer, guesses right in nine of ten', () => {
  const tally: Tally = { read: 0, asked: 0, guessedRight: 0 };
  fc.assert(
    fc.property(sweepArb, ({ style, shape, unit, unitIn, extra, r0, ohm: wanted }) => {
      const words = LANGUAGES[style.language];
      // the reference stands in the heading, or it is 50 Ω
      const ohm = (shape === 'swr' || shape === 'loss') && style.heading ? wanted : 50;
      const named = ohm === 50 ? '' : ` (${ohm} Ohm)`;
      const scale = { Hz: 1, kHz: 1e3, MHz: 1e6 }[unit];
      const z = (f: number) => impedance(f, r0);
      const g = (f: number) => gamma(z(f), ohm);
      const size = (f: number): number => Math.hypot(g(f).re, g(f).im);
      const deg = (im: number, re: number): number => (Math.atan2(im, re) * 180) / Math.PI;
      const columns: Record<string, readonly [string, (f: number) => number, number]> = {
        r: [`${words.r} (Ohm)`, (f) => z(f).r, 3],
        x: [`${words.x} (Ohm)`, (f) => z(f).x, 3],
        'gamma-re': ['S11 re', (f) => g(f).re, 6],
        'gamma-im': ['S11 im', (f) => g(f).im, 6],
        'z-magnitude': [`|${words.z}|`, (f) => Math.hypot(z(f).r, z(f).x), 3],
        'z-degrees': [`${words.ph} Z (°)`, (f) => deg(z(f).x, z(f).r), 3],
        'gamma-db': ['S11 (dB)', (f) => 20 * Math.log10(size(f)), 4],
        'gamma-degrees': [`S11 ${words.ph} (°)`, (f) => deg(g(f).im, g(f).re), 3],
        swr: [`${words.swr}${named}`, (f) => (1 + size(f)) / (1 - size(f)), 4],
        'return-loss-db': [`${words.rl}${named} (dB)`, (f) => -20 * Math.log10(size(f)), 4],
      };
      const chosen = SHAPES[shape].map((name) => [name, ...columns[name]] as const);
      const freqHeading = unitIn === 'heading' ? `${words.f} (${unit})` : words.f;
      const junk = extra === '' ? [] : [extra === 'count' ? 'No.' : 'Temp (C)'];
      const list = style.falling ? [...FREQS].reverse() : FREQS;
      const rows = list.map((f, i) => [
        ...(extra === 'count' ? [String(i + 1)] : []),
        written(f / scale, unit === 'MHz' ? 3 : 0, style),
        ...chosen.map(([, , of, digits]) => written(of(f), digits, style)),
        ...(extra === 'temperature' ? [written(18.5 + (i % 3) / 10, 1, style)] : []),
      ]);
      const count = extra === 'count' ? junk : [];
      const text = textOf(
        style,
        [...count, freqHeading, ...chosen.map(([, name]) => name), ...(extra === 'temperature' ? junk : [])],
        rows,
      );
      const phaseless = shape === 'swr' || shape === 'loss';
      judge(
        text,
        readSweepText,
        (sweep) =>
          sweep.freqHz.length === FREQS.length &&
          Math.abs(sweep.referenceOhm - ohm) < 1e-9 &&
          FREQS.every((f, i) => {
            const is = Math.hypot(sweep.re[i], sweep.im[i]);
            const same = phaseless
              ? Math.abs(is - size(f)) < 2e-3
              : Math.hypot(sweep.re[i] - g(f).re, sweep.im[i] - g(f).im) < 2e-3;
            return same && Math.abs(sweep.freqHz[i] - f) < 1;
          }),
        ({ decimal }) => ({
          columns: [
            ...count.map(() => 'ignore'),
            'frequency',
            ...SHAPES[shape],
            ...(extra === 'temperature' ? ['ignore'] : []),
          ],
          unit,
          ...(decimal === undefined ? {} : { decimal: style.comma ? ',' : '.' }),
        }),
        tally,
      );
    }),
    { numRuns: 500, seed: 20261202 },
  );
  fc.assert(
    fc.property(
      fc.record({
        style: styleArb,
        kind: fc.constantFrom('log', 'log', 'spectrum'),
        scale: fc.constantFrom('dBm', 'dBm', 'dBµV', 'dBuV (75 Ohm)', 'µV', 'S', ''),
        time: fc.constantFrom('iso', 'epoch', 'epoch-ms', 'basic', 'words', 'two', 'european'),
        extra: fc.constantFrom('', '', 'count'),
        start: fc.integer({ min: 1_700_000_000, max: 1_790_000_000 }),
      }),
      ({ style, kind, scale, time, extra, start }) => {
        const words = LANGUAGES[style.language];
        const dbm = Array.from({ length: 30 }, (_, i) => Math.round(10 * (-88 + 9 * Math.sin(i / 4))) / 10);
        const ohm = scale.includes('75') ? 75 : 50;
        const plus = 90 + 10 * Math.log10(ohm);
        const level = (value: number): string => {
          if (scale.startsWith('dBµV') || scale.startsWith('dBuV')) return written(value + plus, 3, style);
          if (scale === 'µV') return written(10 ** ((value + plus) / 20), 4, style);
          // S9 is −73 dBm below 30 MHz, 6 dB a unit (IARU R.1)
          if (scale === 'S') return `S${Math.max(0, Math.round(9 + (value + 73) / 6))}`;
          return written(value, 1, style);
        };
        const truth = (value: number): number =>
          scale === 'S' ? -73 + 6 * (Math.max(0, Math.round(9 + (value + 73) / 6)) - 9) : value;
        const levelHeading = scale === '' || scale === 'S' ? words.level : `${words.level} (${scale})`;
        if (kind === 'spectrum') {
          if (scale === 'S') return;
          const freqs = dbm.map((_, i) => 9_400_000 + 1000 * i);
          const rows = freqs.map((f, i) => [written(f, 0, style), level(dbm[i])]);
          if (style.falling) rows.reverse();
          judge(
            textOf(style, [`${words.f} (Hz)`, levelHeading], rows),
            readSpectrumCsv,
            // only differences count in a spectrum
            ({ freqHz, levelDb }) =>
              freqs.every((f, i) => freqHz[i] === f) &&
              dbm.every((value, i) => Math.abs(levelDb[i] - levelDb[0] - (value - dbm[0])) < 0.05),
            ({ decimal }) => ({
              ...{ columns: ['frequency', 'level'], unit: 'Hz', level: scale === 'µV' ? 'uV' : 'dBm' },
              ...(decimal === undefined ? {} : { decimal: style.comma ? ',' : '.' }),
            }),
            tally,
          );
          return;
        }
        const at = dbm.map((_, i) => (start + 300 * i) * 1000);
        const iso = (ms: number): string => new Date(ms).toISOString();
        const inWords = (ms: number): string =>
          `${new Intl.DateTimeFormat(style.language, { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' }).format(ms)} ${iso(ms).slice(11, 19)}`;
        const moment = (ms: number): readonly string[] => {
          if (time === 'epoch') return [String(ms / 1000)];
          if (time === 'epoch-ms') return [String(ms)];
          if (time === 'basic') return [`${iso(ms).slice(0, 19).replaceAll(/[-:]/g, '')}Z`];
          if (time === 'words') return [inWords(ms)];
          if (time === 'two') return [iso(ms).slice(0, 10), iso(ms).slice(11, 19)];
          if (time === 'european')
            return [`${iso(ms).slice(8, 10)}.${iso(ms).slice(5, 7)}.${iso(ms).slice(0, 4)} ${iso(ms).slice(11, 19)}`];
          return [iso(ms).slice(0, 19)];
        };
        const timeHeadings = time === 'two' ? [words.date, words.time] : [words.time];
        const count = extra === 'count' ? ['No.'] : [];
        const rows = at.map((ms, i) => [...count.map(() => String(i + 1)), ...moment(ms), level(dbm[i])]);
        if (style.falling) rows.reverse();
        judge(
          // a time without its heading is asked only where the cells say what it is: numbers alone do not
          textOf(
            time.startsWith('epoch') ? { ...style, heading: true } : style,
            [...count, ...timeHeadings, levelHeading],
            rows,
          ),
          (text, answer) => readFloorCsv(text, { ...answer, day: '2026-12-02' }),
          (readings) =>
            readings.length === at.length &&
            readings.every((one, i) => one.atMs === at[i] && Math.abs(one.levelDbm - truth(dbm[i])) < 0.06),
          ({ decimal, zoneMin, dateOrder, level: scaleOpen, ohm: ohmOpen, zeroDbm }) => ({
            columns: [...count.map(() => 'ignore'), ...(time === 'two' ? ['date', 'time'] : ['time']), 'level'],
            ...(decimal === undefined ? {} : { decimal: style.comma ? ',' : '.' }),
            ...(zoneMin === undefined ? {} : { zoneMin: 0 }),
            ...(dateOrder === undefined ? {} : { dateOrder: 'dmy' as const }),
            ...(scaleOpen === undefined
              ? {}
              : {
                  level:
                    scale === 'S'
                      ? 's-below'
                      : scale === 'µV'
                        ? 'uV'
                        : scale.startsWith('dBm') || scale === ''
                          ? 'dBm'
                          : 'dBuV',
                }),
            ...(ohmOpen === undefined ? {} : { ohm }),
            ...(zeroDbm === undefined ? {} : { zeroDbm: 0 }),
          }),
          tally,
        );
      },
    ),
    { numRuns: 500, seed: 20261203 },
  );
  expect(tally.read + tally.asked).toBeGreaterThan(950);
  expect(tally.guessedRight / tally.asked).toBeGreaterThanOrEqual(0.9);
});

const DAY = { day: '2026-12-02' };
const questionOf = (read: () => unknown): TableQuestion => {
  try {
    read();
  } catch (error) {
    if (error instanceof TableQuestionError) return error.question;
    throw error;
  }
  throw new Error('it was not asked');
};

test('a log in dB over a microvolt is never taken for dBm: converted across the stated impedance, or asked', () => {
  const log = (heading: string): string => `time UTC;${heading}\n2026-08-04 09:00;34\n2026-08-04 09:05;35\n`;
  // 34 dBµV across 50 Ω is −73 dBm, S9 (handbook figure); across 75 Ω 1.76 dB less
  expect(readFloorCsv(log('level (dBµV, 50 Ohm)'), DAY)[0].levelDbm).toBeCloseTo(-72.99, 2);
  expect(readFloorCsv(log('level dBuV 75 Ohm'), DAY)[0].levelDbm).toBeCloseTo(-74.75, 2);
  expect(questionOf(() => readFloorCsv(log('level (dBuV)'), DAY))).toMatchObject({ ohm: 50 });
  expect(readFloorCsv(log('level (dBuV)'), { ...DAY, ohm: 50 })[0].levelDbm).toBeCloseTo(-72.99, 2);
  // 50 µV across 50 Ω is S9 as well (IARU R.1)
  expect(readFloorCsv(log('level (µV)').replaceAll(';34', ';50'), { ...DAY, ohm: 50 })[0].levelDbm).toBeCloseTo(
    -73.01,
    2,
  );
  expect(questionOf(() => readFloorCsv(log('level'), DAY))).toMatchObject({ level: 'dBuV', ohm: 50, zeroDbm: 0 });
  const s = 'time UTC;level\n2026-08-04 09:00;S9+10\n2026-08-04 09:05;S7\n';
  expect(questionOf(() => readFloorCsv(s, DAY)).level).toBe('s-below');
  expect(readFloorCsv(s, { ...DAY, level: 's-below' }).map((one) => one.levelDbm)).toEqual([-63, -85]);
  expect(readFloorCsv(s, { ...DAY, level: 's-above' }).map((one) => one.levelDbm)).toEqual([-83, -105]);
});

test('a spectrum in microvolts becomes dB; ten times the voltage is 20 dB', () => {
  const { levelDb } = readSpectrumCsv('Frequency (MHz);Level (µV)\n9.4;1\n9.5;10\n');
  expect(levelDb[1] - levelDb[0]).toBeCloseTo(20, 9);
});

test('times as seconds and milliseconds since 1970, in the basic format, and in words', () => {
  const at = Date.UTC(2026, 9, 24, 9, 13);
  const read = (time: string, zone = {}): number =>
    readFloorCsv(`time;level (dBm)\n${time};-93\n`, { ...DAY, ...zone })[0].atMs;
  expect(read(String(at / 1000))).toBe(at);
  expect(read(String(at))).toBe(at);
  expect(read('20261024T091300Z')).toBe(at);
  expect(read('20261024T1113+0200')).toBe(at);
  for (const text of [
    '24 Oct 2026 09:13',
    'Oct 24, 2026 9:13 AM',
    '24. Oktober 2026 09:13',
    '24 octobre 2026 09:13',
    '24 de outubro de 2026 09:13',
  ])
    expect(read(text, { zoneMin: 0 })).toBe(at);
});

test('a clock that is set back is asked, not told to be sorted; both readings are told, and each answer reads the file', () => {
  const log = ['01:30', '02:30', '02:00', '02:30'].map((time) => `2026-10-25 ${time};-93`).join('\n');
  const text = `time;level (dBm)\n${log}\n`;
  expect(questionOf(() => readFloorCsv(text, { ...DAY, zoneMin: 120 })).clockBack).toEqual({
    line: 4,
    from: '02:30',
    to: '02:00',
  });
  const minutes = (answer: TableAnswer): number[] =>
    readFloorCsv(text, { ...DAY, zoneMin: 120, ...answer }).map(
      ({ atMs }) => (atMs - Date.UTC(2026, 9, 24, 23, 30)) / 60_000,
    );
  expect(minutes({ clock: 'set-back' })).toEqual([0, 60, 90, 120]);
  // in disorder 02:30 would stand twice
  expect(() => minutes({ clock: 'disorder' })).toThrow(/stands twice/);
  const once = text.replace(/\n[^\n]*\n$/, '\n');
  expect(
    readFloorCsv(once, { ...DAY, zoneMin: 120, clock: 'disorder' }).map(({ atMs }) => new Date(atMs).getUTCHours()),
  ).toEqual([23, 0, 0]);
});

test('the reference in the heading of the SWR counts; R and X without a heading are known by signs and sizes', () => {
  expect(readSweepText('MHz;SWR (75 Ohm)\n7.0;2\n7.1;1.5\n').referenceOhm).toBe(75);
  const rows = FREQS.map((f) => `${f / 1e6};${impedance(f, 38).r.toFixed(2)};${impedance(f, 38).x.toFixed(2)}`);
  expect(questionOf(() => readSweepText(rows.join('\n'))).columns).toEqual(['frequency', 'r', 'x']);
});

test('7.000.000 is a whole number whatever the decimals are; decimal commas in quotes are decimals', () => {
  expect([...readSweepText('Hz;SWR\n7.000.000;1.5\n7.100.000;1.6\n').freqHz]).toEqual([7e6, 7.1e6]);
  expect([...readSweepText('Hz;SWR\n7.000.000;1,5\n7.100.000;1,6\n').freqHz]).toEqual([7e6, 7.1e6]);
  expect([...readSweepText('MHz,SWR\n"7,0","1,5"\n"7,1","1,6"\n').freqHz]).toEqual([7e6, 7.1e6]);
});
