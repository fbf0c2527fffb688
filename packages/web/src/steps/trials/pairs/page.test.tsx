import { describe, expect, test } from '@jest/globals';
import { BLANK } from '@velvet-reed/contract';
import { EIGHT_PAIRS } from '@velvet-reed/contract/testing';
import { screen } from '@testing-library/react';
import { renderPage, verdictText } from '../../../data/page-harness';
import type { StationData } from '@velvet-reed/station/record';
import { TEST_STATION } from '@velvet-reed/station/testing/test-station';
import { loggedText } from './logged-text';
import TrialsPage from './page';

const stored = (id: number) => ({ id, version: 1, stationId: 1, createdAt: '' });
const [antenna] = TEST_STATION.antennas;
const ANTENNAS = [
  { ...antenna, ...stored(1), name: 'old wire' },
  { ...antenna, ...stored(2), name: 'loop' },
];
const TRIAL: StationData['trials'] = [
  {
    ...BLANK.trials,
    ...stored(1),
    name: 'Dusk',
    antennaAId: 1,
    antennaBId: 2,
    freqHz: 9.6e6,
    worthDb: 3,
    conditions: '',
  },
];
const readings = (pairs: readonly (readonly [number, number, number, number])[]): StationData['readings'] =>
  pairs.map(([levelADbm, noiseADbm, levelBDbm, noiseBDbm], round) => ({
    ...stored(round + 1),
    ...BLANK.readings,
    ...{ trialId: 1, round, levelADbm, noiseADbm, levelBDbm, noiseBDbm },
  }));
const shown = (
  pairs: readonly (readonly [number, number, number, number])[],
  plannedPairs: number | null = null,
): void => {
  renderPage(TrialsPage, 'trials', {
    ...TEST_STATION,
    ...{ antennas: ANTENNAS, trials: TRIAL.map((one) => ({ ...one, plannedPairs })), readings: readings(pairs) },
  });
};

describe('the verdict of a comparison', () => {
  test('eight pairs, SNR better by 4.00 dB from 1.77 to 6.23: proven, though the level fell by 22 dB (paired t, by hand)', () => {
    // SNR of A 12 8 15 4 7 9 2 9 dB, of B 15 15 14 8 12 11 9 14
    shown(EIGHT_PAIRS, 8);
    expect(verdictText()).toMatch(/better on SNR by 4\.0 dB, proven/);
    expect(verdictText()).toMatch(/Next: keep it, and repeat under other conditions/);
    expect(document.body.textContent).toMatch(/Level and SNR disagree/);
  });
  test('two pairs prove nothing, and it says which antenna is read next', () => {
    shown([
      [-73, -85, -95, -110],
      [-76, -84, -97, -112],
    ]);
    expect(verdictText()).toMatch(/Next: read (loop|old wire) first\./);
  });
  test('nothing compared yet', () => {
    renderPage(TrialsPage, 'trials', TEST_STATION);
    expect(verdictText()).toMatch(/^No comparison yet\. Next: say which two antennas/);
    expect(screen.getByRole('heading', { level: 1, name: 'Pairs, Trials' })).toBeTruthy();
  });
});

test('what was logged is called what it is: a pair, a part of one, half of one, nothing heard', () => {
  const labels = { levelADbm: 'Level, A', noiseADbm: 'Noise, A', levelBDbm: 'Level, B', noiseBDbm: 'Noise, B' };
  const none = { levelADbm: null, noiseADbm: null, levelBDbm: null, noiseBDbm: null };
  const text = (more: Partial<Parameters<typeof loggedText>[0]>): string => loggedText({ ...none, ...more }, labels);
  const a = { levelADbm: -70, noiseADbm: -100 };
  expect(text({ ...a, levelBDbm: -73, noiseBDbm: -110 })).toBe('Pair logged: it counts for SNR, level and noise.');
  expect(text({ differenceDb: 3 })).toBe('Pair logged: it counts for SNR.');
  expect(text({ ...a, levelBDbm: -73 })).toBe('Part of a pair logged: it counts for level only. Missing: Noise, B.');
  expect(text(a)).toBe(
    'Half a pair logged: it counts for no result. Missing: Level, B; Noise, B. Change it in the list when you have read that.',
  );
  expect(text({})).toBe('Logged that neither was heard: it counts for no result.');
});
