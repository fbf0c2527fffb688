import { expect, test } from '@jest/globals';
import { TEST_STATION } from '../../data/test-station';
import { reportOf } from './report';
import { swrChart } from './report-chart';

const sweep = {
  freqHz: Float64Array.of(9e6, 9.4e6, 9.8e6),
  re: Float64Array.of(0.6, 0.05, 0.6),
  im: Float64Array.of(-0.3, 0, 0.3),
  referenceOhm: 50,
};

test('the report holds every stage, computed from the records', () => {
  const withSweep = {
    ...TEST_STATION,
    sweeps: [
      {
        id: 7,
        version: 1,
        stationId: 1,
        createdAt: '',
        name: 'before.s1p',
        antennaId: 1,
        points: 3,
        startHz: 9e6,
        stopHz: 9.8e6,
        referenceOhm: 50,
        phaseKnown: true,
        shown: true,
        attachmentId: 1,
      },
    ],
  };
  const text = JSON.stringify(reportOf(withSweep, new Map([[7, sweep]]), 0));
  for (const part of [
    'Ferrin Point',
    'IO00ie',
    '31 m broadcast',
    '3 kW FM',
    'V dipole',
    'before.s1p',
    '9.400 MHz',
    '0.22 dB',
    'Path: P',
    'Ω and λ survive',
    'SHA-256',
    'abab',
  ])
    expect(text).toContain(part);
  expect(text).not.toMatch(/NaN|undefined|Infinity/);
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
