import { describe, expect, test } from '@jest/globals';
import { heardDays, withHeard } from './heard';
import { criticalHz, openingAt, secantFactor } from './opening';
import { listeningWindows } from './schedule';
import type { Position } from './place';

const HERE: Position = { latDeg: 52, lonDeg: 5 };
/** A place so far to the east or west on the same parallel, about. */
const off = (km: number): Position => ({ latDeg: 52, lonDeg: 5 + km / 68.5 });
const WINTER = Date.UTC(2026, 0, 15);
const SUMMER = Date.UTC(2026, 5, 20);
const SPRING = Date.UTC(2026, 2, 20);
const at = (freqMHz: number, km: number | undefined, dayMs: number, hourUtc: number) =>
  openingAt(
    {
      ...{ lowHz: freqMHz * 1e6, highHz: freqMHz * 1e6, arrivalDeg: null },
      ...(km === undefined ? { latDeg: null, lonDeg: null } : off(km)),
    },
    HERE,
    dayMs + hourUtc * 3_600_000,
  ).quality;

describe('what every listener knows', () => {
  // General knowledge of bands, hours, seasons and distances at 52° N. Common practice, no source, unless said.
  test.each<readonly [string, number, number | undefined, number, number, readonly string[]]>([
    ['49 m at 500 km in a winter night: skip', 6.05, 500, WINTER, 22, ['poor']],
    ['49 m at 500 km after midnight in winter: skip', 6.05, 500, WINTER, 2, ['poor']],
    ['49 m at 1500 km in a winter night', 6.05, 1500, WINTER, 21, ['good']],
    ['49 m at 500 km at noon in winter', 6.05, 500, WINTER, 12, ['good']],
    ['49 m at 500 km in a summer night', 6.05, 500, SUMMER, 22, ['good', 'fair']],
    ['49 m at 2500 km at noon in summer: absorbed', 6.05, 2500, SUMMER, 12, ['poor']],
    ['41 m at 2000 km in a spring night', 7.3, 2000, SPRING, 22, ['good']],
    ['40 m at 500 km at noon in summer', 7.1, 500, SUMMER, 12, ['good']],
    ['40 m at 500 km at midnight in winter: skip', 7.1, 500, WINTER, 0, ['poor']],
    ['80 m at 400 km in a winter evening', 3.65, 300, WINTER, 18, ['good', 'fair']],
    ['80 m at 1500 km at noon in summer: absorbed', 3.65, 1500, SUMMER, 12, ['poor']],
    ['80 m at 1500 km in a winter night', 3.65, 1500, WINTER, 22, ['good']],
    ['160 m at 1000 km at noon: absorbed', 1.85, 1000, SPRING, 12, ['poor']],
    ['160 m at 1000 km in a winter night', 1.85, 1000, WINTER, 23, ['good']],
    ['31 m at 2000 km by night in summer', 9.65, 2000, SUMMER, 23, ['good']],
    ['31 m at 2000 km by day in winter', 9.65, 2000, WINTER, 11, ['good']],
    ['25 m at 2500 km by day', 11.8, 2500, SPRING, 11, ['good']],
    ['25 m at 2500 km on a summer evening', 11.8, 2500, SUMMER, 20, ['good']],
    ['25 m at 2500 km late in a winter night: gone', 11.8, 2500, WINTER, 3, ['poor']],
    ['20 m at 2000 km by day', 14.2, 2000, SPRING, 12, ['good']],
    ['20 m at 2000 km at midnight in winter: closed', 14.2, 2000, WINTER, 0, ['poor']],
    ['16 m at 3000 km by day', 17.7, 3000, SPRING, 12, ['good', 'fair']],
    ['16 m at 3000 km in a winter night: closed', 17.7, 3000, WINTER, 22, ['poor']],
    ['11 m at 300 km by day: too near', 27.2, 300, SPRING, 12, ['poor']],
    ['10 m at 3000 km at night: closed', 28.5, 3000, WINTER, 23, ['poor']],
    ['10 m at 1500 km on a summer day: sporadic E, on some days', 28.5, 1500, SUMMER, 11, ['fair']],
    ['10 m at 1500 km on a winter day: seldom', 28.5, 1500, WINTER, 12, ['poor']],
    ['6 m on a winter evening: silent', 50.2, undefined, WINTER, 19, ['poor']],
    ['6 m on a summer day: sporadic E', 50.2, 1500, SUMMER, 10, ['fair']],
    ['medium wave at 100 km at noon: ground wave', 0.9, 100, SPRING, 12, ['good']],
    ['medium wave at 1500 km at noon: never', 0.9, 1500, SUMMER, 12, ['poor']],
    ['medium wave at 1500 km at night', 0.9, 1500, WINTER, 22, ['good']],
    ['77.5 kHz at 500 km at any hour: noon', 0.0775, 500, SUMMER, 12, ['good']],
    ['77.5 kHz at 500 km at any hour: midnight', 0.0775, 500, WINTER, 0, ['good']],
    ['aircraft at any hour', 127, undefined, WINTER, 3, ['good']],
    ['2 m at 800 km: beyond the horizon', 145, 800, SPRING, 12, ['poor']],
    ['weather satellites: by their passes', 137.5, undefined, SPRING, 12, ['poor']],
    ['short wave at 30 km: along the ground, at any hour', 3.7, 30, SUMMER, 12, ['good']],
  ])('%s', (_, freqMHz, km, dayMs, hour, expected) => {
    expect(expected).toContain(at(freqMHz, km, dayMs, hour));
  });
});

// Secant law over a layer at 300 km (Davies ch. 6; by hand): 1 straight up, 3.3 for the longest hop
test('a wave aslant may be higher than one straight up', () => {
  expect(secantFactor(10)).toBeCloseTo(1, 2);
  expect(Math.abs(secantFactor(3500) - 3.3)).toBeLessThan(0.2);
  expect(secantFactor(1500)).toBeGreaterThan(secantFactor(500));
});
test('the southern summer is in January', () => {
  const south: Position = { latDeg: -52, lonDeg: 5 };
  expect(criticalHz(south, WINTER + 2 * 3_600_000)).toBeGreaterThan(criticalHz(HERE, WINTER + 2 * 3_600_000));
});

describe('what was heard opens hours', () => {
  const HOUR = 3_600_000;
  const station = { latDeg: 50, lonDeg: 10 };
  const atHour = (day: number, hour: number): number => Date.UTC(2026, 11, day, hour, 20);
  const mark = (day: number, hour: number, freqHz = 11.8e6) => ({ atMs: atHour(day, hour), freqHz });
  const target = {
    ...{ id: 't', name: '25 m', weight: 3, lowHz: 11.6e6, highHz: 12.1e6, latDeg: null, lonDeg: null },
    ...{ arrivalDeg: null, fromMin: null, toMin: null },
  };
  const at3 = (marks: readonly { readonly atMs: number; readonly freqHz: number }[]) =>
    listeningWindows([target], [], station, Date.UTC(2026, 11, 20), 24, marks).filter(
      ({ fromMs, toMs }) => fromMs <= Date.UTC(2026, 11, 20) + 3 * HOUR && toMs > Date.UTC(2026, 11, 20) + 3 * HOUR,
    );
  test('days are counted by hour of the day, once each, and only in the band', () => {
    const days = heardDays([mark(1, 3), mark(1, 3), mark(2, 3), mark(2, 4), mark(3, 3, 15e6)], target);
    expect([days[3], days[4], days.reduce((sum, one) => sum + one, 0)]).toEqual([2, 1, 3]);
  });
  test('25 m at 3 UTC in December is shut by the rule; heard on three days it is fair, with the days; on two it stays shut', () => {
    expect(at3([])).toEqual([]);
    expect(at3([mark(1, 3), mark(2, 3)])).toEqual([]);
    expect(at3([mark(1, 3), mark(2, 3), mark(9, 3)])).toMatchObject([
      { quality: 'fair', why: 'heard here in this hour on 3 days: your own records' },
    ]);
  });
  test('what was heard never shuts an hour, and what comes at any hour stays so', () => {
    const noon = Date.UTC(2026, 11, 20, 12);
    const rule = openingAt(target, station, noon);
    expect(withHeard(rule, heardDays([], target), noon)).toEqual(rule);
    const always = { quality: 'good', always: true, why: 'in sight' } as const;
    expect(
      withHeard(
        always,
        Array.from({ length: 24 }, () => 9),
        noon,
      ),
    ).toBe(always);
  });
});
