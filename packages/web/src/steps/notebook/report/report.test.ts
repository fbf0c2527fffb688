import { describe, expect, test } from '@jest/globals';
import { BLANK } from '@velvet-reed/contract';
import { type CandidateSpec, choiceVerdict, rankCandidates, readyCandidate } from '@velvet-reed/core/choose';
import { forecastPlace, targetChoices } from '@velvet-reed/station/derive';
import { TEST_STATION } from '@velvet-reed/station/testing/test-station';
import { periodFault, reportOf, SECTIONS, WHOLE_REPORT } from './report';
import { swrChart } from './report-chart';
import { reportCharts, reportCsv, reportHtml, reportPieces } from './report-parts';

const boughtLoop: CandidateSpec = {
  id: 'bought-1',
  name: 'Loop to 30 MHz',
  source: 'bought',
  sizeM: 1,
  burden: { price: 250, hours: 2, sight: 1 },
  bought: {
    gains: [{ freqHz: 9.6e6, gainDbi: -28 }],
    head: { gainDb: 20, noiseFigureDb: 4, iip2Dbm: 35, iip3Dbm: 15 },
  },
};

/** A ranking of one candidate, so that the report has something to print. */
const TARGET_CHOICES = targetChoices(TEST_STATION, 0);
const ranked = rankCandidates(
  [readyCandidate(boughtLoop, TARGET_CHOICES, { type: 'free' }, () => undefined)],
  TARGET_CHOICES,
  forecastPlace(TEST_STATION),
  {
    view: 'quiet',
    weights: { price: 1, effort: 1, sight: 1 },
    restrictions: TEST_STATION.station,
    room: TEST_STATION.station,
  },
);

const SOURCE = { data: TEST_STATION, samples: new Map(), ranked, patterns: new Map(), summaries: new Map() };
const sweep = {
  freqHz: Float64Array.of(9e6, 9.4e6, 9.8e6),
  re: Float64Array.of(0.6, 0.05, 0.6),
  im: Float64Array.of(-0.3, 0, 0.3),
  referenceOhm: 50,
};

test('the report holds every step, computed from the records', () => {
  const withSweep = {
    ...TEST_STATION,
    sweeps: [
      {
        id: 7,
        version: 1,
        stationId: 1,
        createdAt: '',
        ...BLANK.sweeps,
        name: 'before.s1p',
        antennaId: 1,
        points: 3,
        startHz: 9e6,
        stopHz: 9.8e6,
        referenceOhm: 50,
        phaseKnown: true,
        shown: true,
        correction: 'file' as const,
        attachmentId: 1,
      },
    ],
  };
  const text = JSON.stringify(reportOf({ ...SOURCE, data: withSweep, samples: new Map([[7, sweep]]) }, 0));
  for (const part of [
    'Ferrin Point',
    'IO00ie',
    '31 m broadcast',
    '3 kW FM',
    'Draft and Bench: V',
    'before.s1p',
    '9.400 MHz',
    '0.22 dB',
    'Path: P',
    'Ω and λ survive',
    'SHA-256',
    'abab',
    'Loop to 30 MHz',
  ])
    expect(text).toContain(part);
  expect(text).not.toMatch(/NaN|undefined|Infinity/);
});

test('the same report as CSV and as charts: cells with commas are quoted, every chart is a drawing', () => {
  const report = reportOf(SOURCE, 0);
  const csv = reportCsv(report);
  expect(csv).toMatch(/^Ferrin Point\r\n/);
  expect(csv).toContain('Wanted,From (MHz),To (MHz),Weight\r\n31 m broadcast,9.4,9.9,5');
  // a sentence with a comma is one cell
  expect(csv).toContain('"IO00ie, ITU Region 1.');
  expect(reportCharts({ content: [{ svg: '<svg/>' }, 'text', { text: 'x' }] })).toEqual(['<svg/>']);
});

test('the chart shades bands and escapes names', () => {
  const svg = swrChart(
    [{ name: 'x', sweep }],
    [
      { name: '<31 m>', lowHz: 9.4e6, highHz: 9.9e6 },
      { name: 'elsewhere', lowHz: 1e6, highHz: 2e6 },
    ],
  );
  expect(svg).toContain('&lt;31 m');
  expect(svg).not.toContain('elsewhere');
  expect(new DOMParser().parseFromString(svg, 'image/svg+xml').querySelector('parsererror')).toBeNull();
});

describe('a report of chosen parts', () => {
  const scripted = '<script>alert(1)</script>';
  test('sections, antennas and days that are left out are not in it, and a caption stands at its head', () => {
    expect(periodFault({ from: '2026-05-01', to: '2026-04-01' })).toMatch(/Exchange the two dates/);
    for (const period of [{ from: '', to: '2026-04-01' }, { from: '2026-05-01', to: '' }, WHOLE_REPORT])
      expect(periodFault(period)).toBeUndefined();
    const text = (choice: Partial<typeof WHOLE_REPORT>) =>
      JSON.stringify(reportOf(SOURCE, 0, { ...WHOLE_REPORT, ...choice }).content);
    expect(text({})).toContain('31 m broadcast');
    expect(text({ without: ['listen', 'choose'] })).not.toContain('Listen: wanted');
    expect(text({ captions: { listen: 'As heard from the hut.' } })).toContain('As heard from the hut.');
    expect(text({ withoutAntennas: TEST_STATION.antennas.map(({ id }) => id) })).not.toContain('Draft and Bench');
    expect(text({ to: '1969-12-31' })).not.toContain('Ω and λ survive');
    expect(text({ without: SECTIONS.map(({ id }) => id) })).not.toContain('heading');
  });
  test('the same station gives the same document, tables and page; a day later only the date differs', () => {
    const [once, again, later] = [0, 0, 86_400_000].map((ms) => reportHtml(reportOf(SOURCE, ms)));
    expect(again).toBe(once);
    expect(later.replaceAll('1970-01-02', '1970-01-01')).toBe(once);
    expect(reportPieces(reportOf(SOURCE, 0))).toEqual(reportPieces(reportOf(SOURCE, 86_400_000)));
  });
  test('one page of HTML: whatever was typed is text, tables have heads, nothing is fetched', () => {
    const page = reportHtml(
      reportOf({ ...SOURCE, data: { ...TEST_STATION, station: { ...TEST_STATION.station, name: scripted } } }, 0, {
        ...WHOLE_REPORT,
        captions: { listen: scripted },
      }),
    );
    const read = new DOMParser().parseFromString(page, 'text/html');
    expect(read.querySelectorAll('script, img, link, iframe, object')).toHaveLength(0);
    expect(read.querySelector('h1')?.textContent).toBe(scripted);
    expect(read.querySelectorAll('table').length).toBeGreaterThan(3);
    for (const one of read.querySelectorAll('table')) expect(one.querySelector('thead th[scope="col"]')).not.toBeNull();
    expect(page).not.toMatch(/https?:\/\/(?!www\.w3\.org\/2000\/svg)/);
  });
  test('each table and drawing is a file of its own, numbered in order', () => {
    const pieces = reportPieces({
      content: [
        { text: 'Listen: wanted', style: 'heading' },
        {
          table: {
            body: [
              ['A', 'B'],
              ['=1+1', '2 m'],
            ],
          },
        },
        { svg: '<svg/>' },
      ],
    });
    expect(pieces.map(({ name }) => name)).toEqual(['001-listen-wanted.csv', '002-listen-wanted.svg']);
    expect(pieces[0].text).not.toMatch(/^=/m);
  });
});

test('a ranking that is not computed to its end: the report says so in its place and names no choice', () => {
  const unfinished = { answered: 3, asked: 40 };
  const text = JSON.stringify(reportOf({ ...SOURCE, unfinished }, 0));
  expect(text).toContain('the wire model had answered 3 of 40 questions');
  expect(text).not.toContain(choiceVerdict(ranked).sentence);
  expect(JSON.stringify(reportOf(SOURCE, 0))).toContain(choiceVerdict(ranked).sentence);
});
