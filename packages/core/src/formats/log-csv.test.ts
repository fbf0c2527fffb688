import { describe, expect, test } from '@jest/globals';
import { LOG_COLUMNS, readLogCsv, summariseLog } from './log-csv';
import { TableQuestionError, type TableQuestion } from './table-question';

const asked = (read: () => unknown): TableQuestion => {
  try {
    read();
  } catch (error) {
    if (error instanceof TableQuestionError) return error.question;
    throw error;
  }
  throw new Error('Nothing was asked.');
};

describe('decodes', () => {
  const HEAD = 'Time UTC;Frequency (MHz);SNR;Message;Locator;Mode';
  test('each row with what it holds, in the order of time, words as they stand', () => {
    const log = readLogCsv(
      'decodes',
      [
        HEAD,
        '2026-03-10 18:42:00;7.0401;-12;first;JO22;beacon',
        '2026-03-10 18:40:00;7.0400;-9;second;IN11ab;beacon',
      ].join('\n'),
    );
    expect([...log.numbers.atMs]).toEqual([Date.UTC(2026, 2, 10, 18, 40), Date.UTC(2026, 2, 10, 18, 42)]);
    expect([...log.numbers.freqHz]).toEqual([7_040_000, 7_040_100]);
    expect([...log.numbers.snrDb]).toEqual([-9, -12]);
    expect(log.words).toMatchObject({
      sender: ['second', 'first'],
      locator: ['IN11ab', 'JO22'],
      mode: ['beacon', 'beacon'],
    });
  });
  test('a unit, a zone and an unknown column are asked, never guessed; the answer is taken', () => {
    const text = ['when,f,x', '2026-03-10 18:40,7.04,-9', '2026-03-10 18:42,7.04,-12'].join('\n');
    const question = asked(() => readLogCsv('decodes', text));
    expect(question.columns).toHaveLength(3);
    const log = readLogCsv('decodes', text, { columns: ['time', 'frequency', 'snr'], unit: 'MHz', zoneMin: 60 });
    // a clock an hour ahead of UTC
    expect(log.numbers.atMs[0]).toBe(Date.UTC(2026, 2, 10, 17, 40));
    expect(
      asked(() => readLogCsv('decodes', text, { columns: ['time', 'frequency', 'snr'], unit: 'MHz' })).zoneMin,
    ).toBe(0);
  });
  test.each([
    ['2026-03-10 18:40;7.04;loud;x;JO22;m', /Line 3.*"loud".*is not a number/],
    ['2026-03-10 18:40;7.04;900;x;JO22;m', /900 lies outside/],
    ['18:40;7.04;-9;x;JO22;m', /is no time with its date/],
  ])('%s is told with its line', (row, sentence) => {
    expect(() => readLogCsv('decodes', [HEAD, '2026-03-10 18:39;7.04;-9;x;JO22;m', row].join('\n'))).toThrow(sentence);
  });
});

test('a pattern is angle and level; a column that gives neither is refused', () => {
  const log = readLogCsv('pattern', 'angle;level dB\n0;-3\n90;-20\n-90;-18');
  expect([...log.numbers.angleDeg]).toEqual([-90, 0, 90]);
  expect([...log.numbers.levelDb]).toEqual([-18, -3, -20]);
  expect(() => readLogCsv('pattern', 'a;b\n1;2\n2;3', { columns: ['angle', 'ignore'] })).toThrow(
    /one column each for angle and level/,
  );
});

describe('a summary', () => {
  test('counts every row once, and its figures are those of the rows (by hand)', () => {
    const rows = ['time utc;level dBm'];
    for (let i = 0; i < 1000; i += 1) {
      const at = new Date(Date.UTC(2026, 2, 10) + i * 60_000).toISOString().slice(0, 16).replace('T', ' ');
      rows.push(`${at};${-120 + (i % 10)}`);
    }
    const summary = summariseLog(readLogCsv('levels', rows.join('\n')), 100);
    // −120 to −111 equally often: the middle two are −116 and −115
    expect(summary).toMatchObject({ rows: 1000, least: -120, median: -115.5, most: -111, value: 'levelDbm' });
    expect(summary.buckets.reduce((sum, { count }) => sum + count, 0)).toBe(1000);
    expect(summary.buckets).toHaveLength(100);
  });
  test('one row alone is one stretch', () => {
    const summary = summariseLog(readLogCsv('pattern', 'angle;level dB\n10;-3\n10;-5'));
    expect(summary.buckets).toEqual([expect.objectContaining({ count: 2, least: -5, most: -3, median: -4 })]);
  });
  test('every kind has its first column, and no column twice', () => {
    for (const columns of Object.values(LOG_COLUMNS)) {
      expect(columns[0].words).toBe(false);
      expect(new Set(columns.map(({ id }) => id)).size).toBe(columns.length);
    }
  });
});

test('a table headed "zenith angle" was taken for azimuth: what its angles count comes with it, and "angle" alone says nothing', () => {
  const of = (heading: string) => readLogCsv('pattern', `${heading},level dB\n0,-20\n45,-3\n90,0\n135,-3\n`).cut;
  expect(of('zenith angle')).toBe('zenith');
  expect(of('theta')).toBe('zenith');
  expect(of('elevation')).toBe('elevation');
  expect(of('azimuth_deg')).toBe('azimuth');
  expect(of('angle_deg')).toBe('not said');
});
