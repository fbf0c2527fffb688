import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { CoreError } from '../errors';
import { writeCsv } from './csv-out';
import { readFloorCsv } from './floor-csv';
import { readSpectrumCsv } from './spectrum-csv';
import { readSweepText } from './sweep-csv';
import { type TableAnswer, TableQuestionError } from './table-question';
import { SweepFileError } from './touchstone';
import { readTwoPort, thinTransfer } from './two-port';

/** The true antenna behind every table here: a series circuit, R + j(ωL − 1/ωC). */
const truth = (freqHz: number): { r: number; x: number; re: number; im: number; swr: number } => {
  const r = 42;
  const x = 180 * (freqHz / 7.1e6 - 7.1e6 / freqHz);
  // Γ = (Z − 50)/(Z + 50)
  const d = (r + 50) ** 2 + x ** 2;
  const re = ((r - 50) * (r + 50) + x * x) / d;
  const im = (100 * x) / d;
  const size = Math.hypot(re, im);
  return { r, x, re, im, swr: (1 + size) / (1 - size) };
};
const FREQS = Array.from({ length: 11 }, (_, i) => 7e6 + i * 20e3);

/** Ways in which programs write a quantity of the sweep. */
const QUANTITIES: Readonly<Record<string, (freqHz: number) => number>> = {
  r: (f) => truth(f).r,
  x: (f) => truth(f).x,
  re: (f) => truth(f).re,
  im: (f) => truth(f).im,
  mag: (f) => Math.hypot(truth(f).re, truth(f).im),
  db: (f) => 20 * Math.log10(Math.hypot(truth(f).re, truth(f).im)),
  loss: (f) => -20 * Math.log10(Math.hypot(truth(f).re, truth(f).im)),
  deg: (f) => (Math.atan2(truth(f).im, truth(f).re) * 180) / Math.PI,
  rad: (f) => Math.atan2(truth(f).im, truth(f).re),
  zmag: (f) => Math.hypot(truth(f).r, truth(f).x),
  zdeg: (f) => (Math.atan2(truth(f).x, truth(f).r) * 180) / Math.PI,
  swr: (f) => truth(f).swr,
  index: (f) => Math.round((f - 7e6) / 20e3),
};
/** Column names as found in the field, with what stands below them and what they mean. */
const COLUMNS: readonly { readonly name: string; readonly is: string; readonly means: string }[] = [
  { name: 'R', is: 'r', means: 'r' },
  { name: 'Rs (ohm)', is: 'r', means: 'r' },
  { name: 'Resistance [Ω]', is: 'r', means: 'r' },
  { name: 'Re(Z)', is: 'r', means: 'r' },
  { name: 'X', is: 'x', means: 'x' },
  { name: 'Xs (ohm)', is: 'x', means: 'x' },
  { name: 'Reactance', is: 'x', means: 'x' },
  { name: 'Im(Z)', is: 'x', means: 'x' },
  { name: 'Re', is: 're', means: 'gamma-re' },
  { name: 'S11 real', is: 're', means: 'gamma-re' },
  { name: 'Im', is: 'im', means: 'gamma-im' },
  { name: 'S11 imag', is: 'im', means: 'gamma-im' },
  { name: '|S11|', is: 'mag', means: 'gamma-magnitude' },
  { name: 'Rho', is: 'mag', means: 'gamma-magnitude' },
  { name: 'S11', is: 'db', means: 'gamma-db' },
  { name: 'S11', is: 'mag', means: 'gamma-magnitude' },
  { name: 'S11 (dB)', is: 'db', means: 'gamma-db' },
  { name: 'dB(S11)', is: 'db', means: 'gamma-db' },
  { name: 'Return Loss (dB)', is: 'loss', means: 'return-loss-db' },
  { name: 'RL', is: 'db', means: 'return-loss-db' },
  { name: 'S11 phase (deg)', is: 'deg', means: 'gamma-degrees' },
  { name: 'Phase', is: 'deg', means: 'gamma-degrees' },
  { name: 'Phase', is: 'zdeg', means: 'z-degrees' },
  { name: 'Phase', is: 'rad', means: 'gamma-radians' },
  { name: '|Z|', is: 'zmag', means: 'z-magnitude' },
  { name: 'Z', is: 'zmag', means: 'z-magnitude' },
  { name: 'Phase(Z) °', is: 'zdeg', means: 'z-degrees' },
  { name: 'SWR', is: 'swr', means: 'swr' },
  { name: 'VSWR', is: 'swr', means: 'swr' },
  { name: 'Point', is: 'index', means: 'ignore' },
  { name: 'No.', is: 'index', means: 'ignore' },
];
const UNITS = { Hz: 1, kHz: 1e3, MHz: 1e6 } as const;

const styleArb = fc.record({
  columns: fc.shuffledSubarray([...COLUMNS], { minLength: 1, maxLength: 5 }),
  unit: fc.constantFrom('Hz', 'kHz', 'MHz'),
  freqName: fc.constantFrom('Frequency (U)', 'freq_U', 'f/U', 'Freq. [U]', 'Frequency', 'U', 'freq'),
  delimiter: fc.constantFrom(',', ';', '\t'),
  comma: fc.boolean(),
  falling: fc.boolean(),
  quotes: fc.boolean(),
  minus: fc.constantFrom('-', '−'),
  end: fc.constantFrom('\n', '\r\n', '\r'),
  before: fc.constantFrom(
    '',
    '! made by hand\n',
    '# Date: today\n# Z0 = 50\n',
    'Instrument, model 3\nSweep 2\n\n',
    '\uFEFF',
  ),
  after: fc.constantFrom('', '\n', 'END\n', '\n\n'),
});

describe('tables of sweeps in every habit', () => {
  test('2,000 tables: read as they are, or asked; never read wrong; one right answer reads them', () => {
    let read = 0;
    let asked = 0;
    fc.assert(
      fc.property(
        styleArb,
        ({ columns, unit, freqName, delimiter, comma, falling, quotes, minus, end, before, after }) => {
          const decimalComma = comma && delimiter !== ',';
          const number = (value: number): string => {
            const text = String(Number(value.toPrecision(9))).replace('-', minus);
            return decimalComma ? text.replace('.', ',') : text;
          };
          const quoted = (text: string): string => (quotes ? `"${text}"` : text);
          const head = [freqName.replace('U', unit), ...columns.map(({ name }) => name)].map(quoted).join(delimiter);
          const rows = FREQS.map((f) =>
            [number(f / UNITS[unit]), ...columns.map(({ is }) => number(QUANTITIES[is](f)))]
              .map(quoted)
              .join(delimiter),
          );
          const text = before + [head, ...(falling ? rows.reverse() : rows)].join(end) + end + after;
          const check = (answer?: TableAnswer): 'read' | 'asked' | 'refused' => {
            try {
              const sweep = readSweepText(text, answer);
              expect([...sweep.freqHz].map((f) => Math.round(f))).toEqual(FREQS);
              sweep.freqHz.forEach((f, i) => {
                const { re, im } = truth(Math.round(f));
                if (sweep.phaseKnown) expect(Math.hypot(sweep.re[i] - re, sweep.im[i] - im)).toBeLessThan(1e-5);
                else expect(Math.hypot(sweep.re[i], sweep.im[i])).toBeCloseTo(Math.hypot(re, im), 5);
              });
              return 'read';
            } catch (error) {
              if (error instanceof TableQuestionError) return 'asked';
              if (error instanceof SweepFileError) return 'refused';
              throw error;
            }
          };
          const first = check();
          if (first === 'read') read += 1;
          if (first !== 'asked') return;
          asked += 1;
          const means = columns.map(({ means: one }) => one);
          const enough =
            means.some((one) => /swr|db|magnitude/.test(one)) &&
            new Set(means).size === means.length &&
            !means.includes('z-magnitude');
          const told = check({ columns: ['frequency', ...means], unit, decimal: decimalComma ? ',' : '.' });
          if (enough) expect(told).toBe('read');
        },
      ),
      { seed: 110, numRuns: 2000 },
    );
    expect(read).toBeGreaterThan(400);
    expect(asked).toBeGreaterThan(400);
  });
  // each of these was read wrong in silence once
  test.each<[string, string]>([
    ['Re and Im without a word of what', 'freq MHz,Re,Im\n7,30,10\n7.1,40,0'],
    ['S11 without dB', 'freq MHz,S11\n7,-3\n7.1,-10'],
    ['a phase beside |Z| and return loss', 'freq MHz,RL,|Z|,Phase\n7,3,60,10\n7.1,10,50,0'],
    ['kHz without the unit', 'freq,SWR\n7000,3\n7100,1.2'],
    ['no heading at all', '7.0,3\n7.1,1.2'],
    ['commas that may group thousands', 'freq kHz;SWR\n7,100;2\n7,200;1'],
  ])('%s is asked', (_, text) => {
    expect(() => readSweepText(text)).toThrow(TableQuestionError);
  });
  test('R and X under Re(Z), Im(Z) are ohms', () => {
    const { re, im } = readSweepText('freq MHz,Re(Z),Im(Z)\n7,50,0\n7.1,150,0');
    expect([re[0], im[0], re[1]]).toEqual([0, 0, 0.5]);
  });
  test('return loss alone and S11 in dB alone are read, either sign, without a phase', () => {
    for (const text of ['MHz,Return loss dB\n7,20\n7.1,6.0206', 'MHz,S11 dB\n7,-20\n7.1,-6.0206']) {
      const sweep = readSweepText(text);
      expect(sweep.phaseKnown).toBe(false);
      expect(sweep.re[0]).toBeCloseTo(0.1, 9);
      expect(sweep.re[1]).toBeCloseTo(0.5, 5);
    }
  });
  test('a phase of S21 is not one of S11', () => {
    const sweep = readSweepText('freq Hz,S11 dB,S21 dB,S21 phase deg\n7000000,-20,-3,45\n7100000,-20,-3,50');
    expect(sweep.phaseKnown).toBe(false);
  });
  test('a comment in front of the heading, or the heading in a comment, changes nothing', () => {
    for (const text of ['# exported\n# twice\nfreq MHz,SWR\n7,2', '# freq MHz,SWR\n7,2', '! note\nfreq MHz\tSWR\n7\t2'])
      expect(readSweepText(text).freqHz[0]).toBe(7e6);
  });
  test('units in a row of their own or in the cells', () => {
    expect(readSweepText('Freq;R;X\nMHz;ohm;ohm\n7,1;50;0\n7,2;50;1').freqHz[0]).toBe(7.1e6);
    expect(readSweepText('Freq,SWR\n7.1 MHz,2\n7100.5 kHz,2').freqHz[1]).toBe(7.1005e6);
  });
  test('a reference that the lines ahead name is the one', () => {
    expect(readSweepText('Z0 = 75 ohm\nfreq MHz,R,X\n7,75,0\n7.1,75,0').re[0]).toBeCloseTo(0, 12);
  });
  test.each<[string, string, RegExp]>([
    ['a word in a row', 'freq MHz,R,X\n7,50,0\n7.1,bad,0\n7.2,50,0', /Line 3: "bad" in column 2 is not a number/],
    ['a missing value', 'freq MHz,R,X\n7,,3\n7.1,1,1', /Line 2: "" in column 2/],
    ['rows out of order', 'freq MHz,R,X\n7,1,3\n7.2,1,3\n7.1,1,3', /Line 4: the frequency does not rise/],
    ['SWR below one', 'freq MHz,SWR\n7,0.9\n7.1,2', /SWR 0.9 is below 1/],
    ['more reflection than arrives', 'freq MHz,S11 real,S11 imag\n7,30,5\n7.1,30,4', /no antenna does/],
    ['commas for both', 'freq MHz,SWR\n7,1,1,5\n7,2,1,3', /commas separate both/],
    ['nothing', '', /holds no table/],
    ['text', 'apples\npears', /holds no table/],
    ['frequencies that cannot be', 'freq MHz,SWR\n1e308,2\n7,3', /Line 2/],
    ['hertz without an option line', '14000000 0.5 90\n14100000 0.4 80', /count in GHz.*# Hz S MA R 50/],
  ])('%s is refused with its line and the mend', (_, text, sentence) => {
    expect(() => readSweepText(text)).toThrow(sentence);
  });
  test('no text ends a reader, and nothing that is not finite comes out', () => {
    const piece = fc.oneof(
      fc.string({ maxLength: 12 }),
      fc.constantFrom(
        'freq',
        'MHz',
        'R',
        'X',
        'SWR',
        ';',
        ',',
        '\t',
        '\n',
        '\r\n',
        '"',
        '1e999',
        '-0',
        'NaN',
        '7,1',
        '7.1',
        '1.234,5',
        '−3',
        '# ',
        '! ',
        'S11 dB',
      ),
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 40 }), (pieces) => {
        const text = pieces.join('');
        for (const read of [
          () => readSweepText(text),
          () => readSpectrumCsv(text),
          () => readFloorCsv(text, { day: '2026-08-04' }),
          () => readTwoPort(text),
          () => readSweepText(text, { columns: ['frequency', 'swr'], unit: 'MHz' }),
        ])
          try {
            const value: object = read();
            for (const list of Object.values(value))
              if (list instanceof Float64Array) expect(list.every(Number.isFinite)).toBe(true);
          } catch (error) {
            if (!(error instanceof CoreError)) throw error;
          }
      }),
      { seed: 111, numRuns: 3000 },
    );
  });
});

describe('spectra', () => {
  test('decimal commas, an index column, descending rows', () => {
    const spectrum = readSpectrumCsv('freq_MHz;dB\n8,2;-91,0\n7,1;-90,5');
    expect([[...spectrum.freqHz], [...spectrum.levelDb]]).toEqual([
      [7.1e6, 8.2e6],
      [-90.5, -91],
    ]);
    expect(readSpectrumCsv('index,freq Hz,level dBm\n1,7e6,-90\n2,7.1e6,-91').freqHz[0]).toBe(7e6);
  });
  test('what the columns are and the unit are asked where the file does not say', () => {
    for (const text of [
      '7000,-90\n7100,-91',
      '1,7e6,-90\n2,7.1e6,-91',
      'freq,level\n7000,-90\n7100,-91',
      'freq Hz,peak dB,mean dB\n1e7,-90,-95\n2e7,-91,-96',
    ])
      expect(() => readSpectrumCsv(text)).toThrow(TableQuestionError);
    const answered = readSpectrumCsv('7000,-90\n7100,-91', { columns: ['frequency', 'level'], unit: 'kHz' });
    expect(answered.freqHz[0]).toBe(7e6);
  });
});

describe('noise logs', () => {
  const day = '2026-08-04';
  const at = (text: string): number => Date.parse(text);
  test('decimals survive commas, semicolons and tabs', () => {
    for (const text of ['UTC;dBm\n09:13;-118,4\n09:14;-88,1', 'UTC\tdBm\n09:13\t-118,4\n09:14\t-88,1'])
      expect(readFloorCsv(text, { day })).toEqual([
        { atMs: at('2026-08-04T09:13Z'), levelDbm: -118.4 },
        { atMs: at('2026-08-04T09:14Z'), levelDbm: -88.1 },
      ]);
  });
  test('a zone in the cell, in the heading or in the answer', () => {
    const expected = at('2026-08-04T07:13Z');
    expect(readFloorCsv('time,dBm\n2026-08-04T09:13+02:00,-90', { day })[0].atMs).toBe(expected);
    expect(readFloorCsv('time UTC+2,dBm\n2026-08-04 09:13,-90', { day })[0].atMs).toBe(expected);
    expect(readFloorCsv('time,dBm\n2026-08-04 09:13,-90', { day, zoneMin: 120 })[0].atMs).toBe(expected);
    expect(() => readFloorCsv('time,dBm\n2026-08-04 09:13,-90', { day })).toThrow(/time zone/);
  });
  test('midnight passes to the next day, and a log with the latest row first is turned round', () => {
    const over = readFloorCsv('UTC,dBm\n23:58,-90\n23:59,-91\n00:01,-92', { day });
    expect(over.map(({ atMs }) => new Date(atMs).toISOString().slice(8, 16))).toEqual([
      '04T23:58',
      '04T23:59',
      '05T00:01',
    ]);
    const back = readFloorCsv('UTC,dBm\n10:02,-90\n10:01,-91\n10:00,-92', { day });
    expect(back.map(({ levelDbm }) => levelDbm)).toEqual([-92, -91, -90]);
  });
  test('day and month that could be exchanged are asked; the thirteenth tells them apart', () => {
    expect(() => readFloorCsv('UTC,dBm\n04/08/2026 09:13,-90', { day })).toThrow(/day and which the month/);
    expect(readFloorCsv('UTC,dBm\n04/08/2026 09:13,-90', { day, dateOrder: 'mdy' })[0].atMs).toBe(
      at('2026-04-08T09:13Z'),
    );
    expect(readFloorCsv('UTC,dBm\n13/08/2026 09:13,-90', { day })[0].atMs).toBe(at('2026-08-13T09:13Z'));
  });
  test('date and time in two columns, the level in the third', () => {
    const text = 'Date;Time UTC;Level dBm\n2026-08-05;23:59;-90,5\n2026-08-06;00:00;-91';
    expect(readFloorCsv(text, { day }).map(({ atMs }) => atMs)).toEqual([
      at('2026-08-05T23:59Z'),
      at('2026-08-06T00:00Z'),
    ]);
  });
  test('a level that is none is told with its line', () => {
    expect(() => readFloorCsv('UTC,dBm\n09:13,-90\n09:14,loud', { day })).toThrow(/Line 3/);
    expect(() => readFloorCsv('UTC,dBm\n09:13,-9000\n09:14,-90', { day })).toThrow(/Line 2/);
  });
});

describe('two-port files', () => {
  // a resistor of 150 Ω in series: S21 = 2·Z0/(2·Z0 + R), S11 = R/(2·Z0 + R); Pozar, table 4.1 (from memory)
  test('75 Ω parameters are given between 50 Ω: −7.96 dB, not −6.02', () => {
    const { points, referenceOhm } = readTwoPort('# MHz S RI R 75\n1 0.5 0 0.5 0 0.5 0 0.5 0');
    expect(referenceOhm).toBe(75);
    expect(points[0].gainDb).toBeCloseTo(20 * Math.log10(100 / 250), 9);
  });
  test('the same resistor as normalised admittances', () => {
    // Y = 1/150 S: y11 = y22 = 1/3, y21 = y12 = −1/3 against 50 Ω
    const y = 50 / 150;
    expect(readTwoPort(`# MHz Y RI R 50\n1 ${y} 0 ${-y} 0 ${-y} 0 ${y} 0`).points[0].gainDb).toBeCloseTo(
      20 * Math.log10(100 / 250),
      9,
    );
  });
  test('a shunt resistor of 50 Ω as normalised impedances: S21 = 2/3', () => {
    expect(readTwoPort('# MHz Z RI R 50\n1 1 0 1 0 1 0 1 0').points[0].gainDb).toBeCloseTo(20 * Math.log10(2 / 3), 9);
  });
  test('wrapped rows, a row at 0 Hz, noise rows, a second option line', () => {
    const { points, noise } = readTwoPort(
      '# MHz S MA R 50\n# GHz S DB R 75\n0 0 0 1 0 1 0 0 0\n10 0 0\n0.5 0 0.5 0\n0 0\n20 0 0 0.25 0 0.25 0 0 0\n! noise\n10 3 0 0 0.2\n20 4 0.5 180 0.1',
    );
    expect(points.map(({ freqHz }) => freqHz)).toEqual([10e6, 20e6]);
    expect(points[1].gainDb).toBeCloseTo(-12.0412, 4);
    // Γopt = 0 is matched to 50 Ω: the least figure; else 4·rn·|Γopt|²/|1 + Γopt|² comes on top: 4·0.1·0.25/0.25 = 0.4
    expect(noise[0].noiseFigureDb).toBeCloseTo(3, 9);
    expect(noise[1].noiseFigureDb).toBeCloseTo(10 * Math.log10(10 ** 0.4 + 0.4), 9);
  });
  test.each<[string, RegExp]>([
    ['# MHz S RI R 50\n1 0.1 0.2\n2 0.1 0.2\n3 0.1 0.2', /needs 9 numbers and has 3/],
    ['# MHz S RI R 50 loud\n1 0 0 1 0 1 0 0 0', /"loud" is no option/],
    ['# MHz H RI R 50\n1 0 0 1 0 1 0 0 0', /H parameters/],
    ['[Version] 2.0\n1 0 0 1 0 1 0 0 0', /version 2.*Export version 1.1/],
    ['# MHz S RI R 50\n2 0 0 1 0 1 0 0 0\n1 0 0 1 0 1 0 0 0', /must ascend/],
  ])('%j is refused with what to do', (text, sentence) => {
    expect(() => readTwoPort(text)).toThrow(sentence);
  });
  test('all digits of a gain are kept', () => {
    const { points } = readTwoPort('# MHz S DB R 50\n1 -20 0 -3.14159265359 0 -20 0 -20 0');
    expect(points[0].gainDb).toBeCloseTo(-3.14159265359, 11);
  });
  test('200,001 points are thinned, ends, peak and notch kept, in a time that grows no faster than its sorting', () => {
    const pointsOf = (length: number) =>
      Array.from({ length }, (_, i) => ({
        freqHz: 1e6 + i * 1e3,
        gainDb: i === 70_000 ? -60 : i === 150_000 ? 12 : Math.sin(i / 20_000),
      }));
    const timed = (given: ReturnType<typeof pointsOf>) => {
      const begun = performance.now();
      return { thin: thinTransfer(given, 200), ms: performance.now() - begun };
    };
    const fewer = timed(pointsOf(25_001));
    const points = pointsOf(200_001);
    const { thin, ms } = timed(points);
    // eight times as many: 8 to 10 times as long by n·log n, 64 times if every pass went through all of them
    expect(ms / fewer.ms).toBeLessThan(35);
    expect(thin).toHaveLength(200);
    expect([thin[0], thin.at(-1)]).toEqual([points[0], points.at(-1)]);
    expect(thin.map(({ gainDb }) => gainDb)).toEqual(expect.arrayContaining([-60, 12]));
  });
});

describe('tables out', () => {
  test('names with commas and quotes stay one cell, formulas become texts, numbers stay numbers', () => {
    expect(
      writeCsv(
        ['name', 'level_dbm'],
        [
          ['News, evening "late"', -73.5],
          ['=SUM(A1)', '−99.5'],
          ['@home', null],
          ['-dash', Infinity],
        ],
      ),
    ).toBe('name,level_dbm\r\n"News, evening ""late""",-73.5\r\n\'=SUM(A1),-99.5\r\n\'@home,\r\n\'-dash,\r\n');
  });
});
