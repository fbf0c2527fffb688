import { BLANK } from '@velvet-reed/contract';
import { expect, test } from '@jest/globals';
import { antennaAt, antennaTurns, comparisonsOf, conditionVerdict } from './conditions';
import type { StationData } from '../record';
import { TEST_STATION } from '../testing/test-station';

const stored = (id: number) => ({ id, stationId: 1, version: 1, createdAt: '2026-03-10T10:00:00.000Z' });
const HOUR_MS = 3_600_000;
const DAY_MS = Date.UTC(2026, 2, 10);

/** Two antennas of which the second is better by 4 dB at some hours and worse by 4 dB at the others; readings scatter by 0.5 dB. */
function station(secondIsBetter: (hour: number) => boolean): StationData {
  const hours = Array.from({ length: 24 }, (_, i) => i);
  return {
    ...TEST_STATION,
    antennas: [1, 2].map((id) => ({ ...stored(id), ...BLANK.antennas, name: id === 1 ? 'Wire' : 'Loop' })),
    trials: [{ ...stored(1), ...BLANK.trials, name: 'T', antennaAId: 1, antennaBId: 2, freqHz: 50e6, worthDb: 3 }],
    readings: hours.map((hour) => ({
      ...{ ...stored(hour + 1), ...BLANK.readings, trialId: 1, round: hour, atMs: DAY_MS + (hour + 0.5) * HOUR_MS },
      differenceDb: (secondIsBetter(hour) ? 4 : -4) + 0.5 * ((hour % 3) - 1),
    })),
  };
}

test('a rule by the hour names the antenna of any hour, and the stretches of a day', () => {
  const [comparison] = comparisonsOf(station((hour) => hour >= 14));
  expect(conditionVerdict(comparison).sentence).toMatch(
    /^Wire is better by 4\.\d dB before 14:00 UTC, Loop by [34]\.\d dB after it\./,
  );
  expect(antennaAt(comparison, DAY_MS + 3 * HOUR_MS)).toBe(1);
  expect(antennaAt(comparison, DAY_MS + 20 * HOUR_MS)).toBe(2);
  const turns = antennaTurns(comparison, DAY_MS, DAY_MS + 24 * HOUR_MS);
  expect(turns).toEqual([
    { antennaId: 1, fromMs: DAY_MS, toMs: DAY_MS + 14 * HOUR_MS },
    { antennaId: 2, fromMs: DAY_MS + 14 * HOUR_MS, toMs: DAY_MS + 24 * HOUR_MS },
  ]);
});

test('without a rule no hour has a better antenna', () => {
  const [comparison] = comparisonsOf(station((hour) => hour % 2 === 0));
  expect(antennaAt(comparison, DAY_MS)).toBeUndefined();
  expect(antennaTurns(comparison, DAY_MS, DAY_MS + HOUR_MS)).toEqual([]);
});
