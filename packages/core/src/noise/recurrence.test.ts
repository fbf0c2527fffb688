import { expect, test } from '@jest/globals';
import { chanceOf } from '../recording/made';
import { byMonth, recurringHour } from './recurrence';

const DAY_MS = 86_400_000;
const HOUR_MS = 3_600_000;

test('what comes at dusk is found; several on one day count once', () => {
  const dusk = Array.from({ length: 6 }, (_, day) => day * DAY_MS + 18.2 * HOUR_MS);
  expect(recurringHour(dusk)).toMatchObject({ days: 6, count: 6, of: 6 });
  expect([17, 18]).toContain(recurringHour(dusk)?.fromHour);
  const oneDay = Array.from({ length: 6 }, (_, i) => 18 * HOUR_MS + i * 60_000);
  expect(recurringHour(oneDay)).toBeUndefined();
});
test('over midnight', () => {
  const late = Array.from({ length: 5 }, (_, day) => day * DAY_MS + (23.5 + (day % 2)) * HOUR_MS);
  expect(recurringHour(late)?.days).toBe(5);
});
test('2,000 logs of events at any hour: called recurring in less than 5 %; one at an hour with a third astray is found in 90 %', () => {
  const chance = chanceOf(166);
  let called = 0;
  let found = 0;
  for (let round = 0; round < 2000; round += 1) {
    const days = 3 + Math.floor(20 * chance.uniform());
    const any = Array.from({ length: days }, (_, day) => day * DAY_MS + 24 * chance.uniform() * HOUR_MS);
    if (recurringHour(any)) called += 1;
    const at = 24 * chance.uniform();
    const most = Array.from(
      { length: 12 },
      (_, day) =>
        day * DAY_MS +
        (chance.uniform() < 0.33 ? 24 * chance.uniform() : (at + 0.5 * chance.normal() + 24) % 24) * HOUR_MS,
    );
    if (recurringHour(most)) found += 1;
  }
  expect(called / 2000).toBeLessThan(0.05);
  expect(found / 2000).toBeGreaterThan(0.9);
});
test('months in order, empty ones left out', () => {
  expect(byMonth([Date.UTC(2026, 10, 3), Date.UTC(2025, 0, 9), Date.UTC(2026, 0, 2)])).toEqual([
    { month: 'January', count: 2 },
    { month: 'November', count: 1 },
  ]);
});
