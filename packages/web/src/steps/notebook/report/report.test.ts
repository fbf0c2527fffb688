import { expect, test } from '@jest/globals';
import { BLANK } from '@velvet-reed/contract';
import { type CandidateSpec, rankCandidates, readyCandidate } from '@velvet-reed/core/choose';
import { forecastPlace, targetChoices } from '../../../data/derive';
import { TEST_STATION } from '../../../data/test-station';
import { reportOf } from './report';
import { swrChart } from './report-chart';
import { reportCharts, reportCsv } from './report-parts';

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
  const text = JSON.stringify(reportOf(withSweep, new Map([[7, sweep]]), ranked, 0));
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
  const report = reportOf(TEST_STATION, new Map(), ranked, 0);
  const csv = reportCsv(report);
  expect(csv).toMatch(/^Ferrin Point\r\n/);
  expect(csv).toContain('Wanted,Band,Weight\r\n31 m broadcast,9.4 to 9.9 MHz,5');
  // a sentence with a comma is one cell
  expect(csv).toContain('"IO00ie, ITU Region 1.');
  expect(reportCharts(report)).toEqual([]);
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
