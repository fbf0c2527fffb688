import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { BLANK } from '@velvet-reed/contract';
import { screen, within } from '@testing-library/react';
import { renderPage, verdictText } from '../../../data/page-harness';
import type { StationData } from '@velvet-reed/station/record';
import { TEST_STATION } from '@velvet-reed/station/testing/test-station';
import { keptBetween, slotsOf } from './appointments';
import WhenRoom from './page';

const stored = (id: number) => ({ id, version: 1, stationId: 1, createdAt: '2026-03-10' });
const at = (text: string): number => Date.parse(`${text}:00Z`);
const appointment = (id: number, more: Partial<StationData['appointments'][number]>) => ({
  ...stored(id),
  ...BLANK.appointments,
  ...{ name: `Net ${id}`, atMs: at('2026-03-10T18:00'), minutes: 60, repeats: 'daily' as const, receiverId: 1 },
  ...more,
});
const station = (...appointments: StationData['appointments']): StationData => ({ ...TEST_STATION, appointments });

beforeEach(() => {
  jest.useFakeTimers({ now: at('2026-03-10T12:00'), doNotFake: ['setTimeout', 'queueMicrotask', 'nextTick'] });
  sessionStorage.clear();
});
afterEach(() => void jest.useRealTimers());

test('two that one receiver cannot hear at once are a clash: in the verdict, in the list, in the lanes', () => {
  const [receiver] = TEST_STATION.receivers;
  const wide = { ...receiver, sampleRateHz: 2.4e6, complexSamples: true };
  const data = {
    ...station(
      appointment(1, { freqHz: 5.5e6, receiverId: wide.id }),
      appointment(2, { freqHz: 9.6e6, atMs: at('2026-03-10T18:30'), receiverId: wide.id }),
    ),
    receivers: [wide],
  };
  renderPage(WhenRoom, 'listen/when', data);
  expect(verdictText()).toContain(
    `Clash: Net 1 and Net 2 overlap 03-10 18:30 to 19:00 UTC on the ${wide.name}, 4.10 MHz apart`,
  );
  expect(verdictText()).toContain('Next: move one of them');
  expect(within(screen.getByRole('list', { name: 'Clashes' })).getAllByRole('listitem')).toHaveLength(1);
  expect(screen.getByRole('img', { name: /Net 1: kept from 18:00 to 19:00, clash at 18:30/ })).toBeTruthy();
});

test('chances of a timed mode stand beside it, and its transmissions begin at whole multiples of their length', () => {
  const slow = appointment(1, { minutes: 360, slotMinutes: 30 });
  renderPage(WhenRoom, 'listen/when', station(slow));
  expect(screen.getByText(/12 chances of 30 min each time/)).toBeTruthy();
  const { occurrences, clashes } = keptBetween(station(slow), at('2026-03-10T12:00'), at('2026-03-11T12:00'));
  expect(clashes).toEqual([]);
  expect(slotsOf(occurrences[0])?.slice(0, 2)).toEqual([at('2026-03-10T18:00'), at('2026-03-10T18:30')]);
});

test('elements that cannot be followed spoil nothing: the appointment stands, without passes', () => {
  const satellite = {
    ...stored(1),
    ...BLANK.satellites,
    name: 'Lost',
    line1: 'no',
    line2: 'elements',
    freqHz: 137.5e6,
    leastDeg: 10,
  };
  const data = { ...station(appointment(1, {})), satellites: [satellite] };
  expect(keptBetween(data, at('2026-03-10T12:00'), at('2026-03-11T12:00')).occurrences).toHaveLength(1);
});
