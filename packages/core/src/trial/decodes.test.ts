import { describe, expect, test } from '@jest/globals';
import { readLogCsv } from '../formats/log-csv';
import { chanceOf } from '../recording/made';
import { locatorOf } from '../site/place';
import { compareSlots, decodeReport, planModes } from './decodes';

const HOME = { latDeg: -39.7, lonDeg: 120.6 };
const MODES = [
  { name: 'W2', seconds: 120, bandwidthHz: 5.9, limitDb: -32 },
  { name: 'W5', seconds: 300, bandwidthHz: 2.2, limitDb: -36 },
  { name: 'W15', seconds: 900, bandwidthHz: 0.72, limitDb: -41 },
  { name: 'W30', seconds: 1800, bandwidthHz: 0.36, limitDb: -44 },
];
type Row = readonly [minute: number, sender: string, locator: string, snrDb: number, mode?: string];
const logOf = (rows: readonly Row[]) =>
  readLogCsv(
    'decodes',
    [
      'time_UTC,freq_Hz,snr_dB,sender,locator,mode',
      ...rows.map(
        ([minute, sender, locator, snr, mode = 'W2']) =>
          `${new Date(Date.UTC(2026, 2, 10, 12, minute)).toISOString().slice(0, 19).replace('T', ' ')},474200,${snr},${sender},${locator},${mode}`,
      ),
    ].join('\n'),
  );

describe('modes', () => {
  // worked example: 10·log(T/120) = 0, 3.98, 8.75, 11.76 dB; limits in the own bandwidth by 10·log(2500/B); 6 h hold 180, 72, 24, 12
  test('longer transmissions gain decibels and cost chances', () => {
    const planned = planModes(MODES, 6, -35);
    expect(planned.map(({ gainDb }) => gainDb.toFixed(2))).toEqual(['0.00', '3.98', '8.75', '11.76']);
    expect(planned.map(({ ownLimitDb }) => ownLimitDb.toFixed(1))).toEqual(['-5.7', '-5.4', '-5.6', '-5.6']);
    expect(planned.map(({ chances }) => chances)).toEqual([180, 72, 24, 12]);
    expect(planned.map(({ marginDb }) => marginDb)).toEqual([-3, 1, 6, 9]);
    expect(() => planModes(MODES, 0)).toThrow('Night');
  });
});

describe('a night of decodes', () => {
  const NEAR = locatorOf({ latDeg: -38.2, lonDeg: 126.4 });
  const FAR = locatorOf({ latDeg: -20, lonDeg: 158 });
  const ODD = locatorOf({ latDeg: 52, lonDeg: 10 });
  const SNR = [-4, -5, -3, -6, -4, -5, -7, -1, -4, -5, -4, -6, -5, -3, -4];
  const near = SNR.map((db, i): Row => [2 * i, 'beacon 1', NEAR, db]);
  // worked example: n 15, mean −4.40, SD 1.45, median −4, range −7 to −1; 528 km at 73.4°
  test('its figures, and how far and whence', () => {
    const report = decodeReport(logOf(near), HOME);
    expect(report.all?.n).toBe(15);
    expect(report.all?.meanDb).toBeCloseTo(-4.4, 2);
    expect(report.all?.sdDb).toBeCloseTo(1.45, 2);
    expect([report.all?.medianDb, report.all?.leastDb, report.all?.mostDb]).toEqual([-4, -7, -1]);
    // a locator's middle lies some km from the place
    expect(Math.abs((report.farthestKm ?? 0) - 528)).toBeLessThan(6);
    expect(report.sectors.find(({ decodes }) => decodes > 0)?.name).toBe('E');
    expect(report.consistency).toBe(1);
  });
  test('one weak decode from a region where nobody else is heard is doubted; repeated ones are not', () => {
    const rows: readonly Row[] = [
      ...near,
      [31, 'beacon 2', FAR, -33],
      [35, 'beacon 2', FAR, -34],
      [40, 'odd one', ODD, -32],
    ];
    const { doubtful, farthestKm } = decodeReport(logOf(rows), HOME, MODES);
    expect(doubtful.map(({ sender }) => sender)).toEqual(['odd one']);
    expect(doubtful[0].why).toMatch(/heard once, within 2 dB .*nobody else heard within 1500 km/);
    // worked example: 4175 km; the doubted one does not count for the reach
    expect(Math.abs((farthestKm ?? 0) - 4175)).toBeLessThan(12);
  });
  test('a single strong decode from where others are heard is not doubted; a log without anything has no figures', () => {
    const close = locatorOf({ latDeg: -38, lonDeg: 127 });
    expect(decodeReport(logOf([...near, [50, 'beacon 3', close, -12]]), HOME, MODES).doubtful).toEqual([]);
    const empty = logOf([[0, 'x', '', -3]]);
    expect(decodeReport(empty, HOME).farthestKm).toBeNull();
  });
  test('a hundred thousand rows are looked through in seconds', () => {
    const { uniform, normal } = chanceOf(8);
    const n = 100_000;
    const log = {
      kind: 'decodes' as const,
      numbers: {
        atMs: Float64Array.from({ length: n }, (_, i) => Date.UTC(2026, 2, 10) + 15_000 * i),
        freqHz: new Float64Array(n).fill(7.04e6),
        snrDb: Float64Array.from({ length: n }, () => Math.round(-12 + 6 * normal())),
      },
      words: {
        sender: Array.from({ length: n }, () => `s${Math.floor(500 * uniform())}`),
        locator: Array.from({ length: n }, () => NEAR),
        mode: Array.from({ length: n }, () => 'W2'),
      },
    };
    const begun = performance.now();
    expect(decodeReport(log, HOME).all?.n).toBe(n);
    expect(performance.now() - begun).toBeLessThan(5000);
  });
});

describe('the same slots on two antennas', () => {
  test('those that one missed count: the difference of what both heard alone is too small', () => {
    const { normal } = chanceOf(5);
    // B is 4 dB better; below −30 dB nothing is decoded
    const rows = Array.from({ length: 600 }, (_, i) => {
      const a = -27 + 4 * normal();
      return { minute: 2 * i, a, b: a + 4 + 1.5 * normal() };
    });
    const heard = (which: 'a' | 'b') =>
      logOf(
        rows.flatMap((one): Row[] =>
          one[which] >= -30 ? [[one.minute, `s${one.minute}`, '', Math.round(one[which])]] : [],
        ),
      );
    const found = compareSlots(heard('a'), heard('b'), 120);
    expect(found.onlyB).toBeGreaterThan(found.onlyA);
    expect(found.pTwoSided).toBeLessThan(0.001);
    expect(Math.abs((found.censoredDb ?? 0) - 4)).toBeLessThan(0.4);
    expect(found.both + found.onlyA + found.onlyB).toBe(rows.filter(({ a, b }) => a >= -30 || b >= -30).length);
  });
  test('nothing in common, or everything', () => {
    const one = logOf([[0, 'x', '', -3]]);
    expect(compareSlots(one, one, 120)).toMatchObject({ both: 1, onlyA: 0, onlyB: 0, pTwoSided: null });
    expect(compareSlots(one, logOf([[9, 'y', '', -3]]), 120)).toMatchObject({
      both: 0,
      meanDb: null,
      censoredDb: null,
    });
  });
  test('a night against its own copy is refused, and one that agrees by chance is not', () => {
    const { uniform } = chanceOf(5);
    const rows = Array.from({ length: 40 }, (_, k): Row => [2 * k, `s${k % 9}`, '', -5 - Math.floor(20 * uniform())]);
    const night = logOf(rows);
    expect(() => compareSlots(night, night, 120)).toThrow(/one night that was kept twice/);
    // a copy that was kept earlier holds its beginning
    expect(() => compareSlots(logOf(rows.slice(0, 25)), night, 120)).toThrow(/kept twice/);
    const other = logOf(rows.map(([minute, sender, locator, snr], k): Row => [minute, sender, locator, snr + (k % 3)]));
    expect(compareSlots(night, other, 120).both).toBeGreaterThan(30);
  });
});

test('a locator of no place on earth counts in no figure, however often it comes, and is named', () => {
  const rows: readonly Row[] = [
    [0, 'a', 'IO00ie', -10],
    [2, 'a', 'IO00ie', -12],
    [4, 'odd', 'XX99zz', 20],
    [6, 'odd', 'XX99zz', 20],
  ];
  const found = decodeReport(logOf(rows), HOME, MODES);
  expect(found.all).toMatchObject({ n: 2, meanDb: -11 });
  expect(found.doubtful.map(({ sender, why }) => `${sender}: ${why}`)).toEqual([
    'odd: its locator is of no place on earth',
    'odd: its locator is of no place on earth',
  ]);
});
