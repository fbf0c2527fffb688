import { describe, expect, test } from '@jest/globals';
import { deviceEffects } from './device-survey';
import { floorPattern, floorSteps } from './floor-log';

const at = (minute: number): number => Date.UTC(2026, 7, 4, 9, minute);
const NESS = { latDeg: -39.7, lonDeg: 120.6 };
const LOG = [-88.4, -87.9, -88.7, -88.1, -89.0, -88.3, -101.2, -101.9, -101.4, -101.6, -101.1, -101.8].map(
  (levelDbm, i) => ({ atMs: at(7 + i), levelDbm }),
);

describe('noise log', () => {
  test('a step of −13.1 dB at 09:13 UTC, four minutes after sunset (means worked by hand; sunset 09:09 by the almanac)', () => {
    const [step, ...more] = floorSteps(LOG, NESS);
    expect(more).toEqual([]);
    expect(step.atMs).toBe(at(13));
    expect(step.stepDb).toBeCloseTo(-13.1, 1);
    expect(step.sun?.event).toBe('sunset');
    expect(Math.abs((step.sun?.minutesAfter ?? 0) - 4)).toBeLessThan(2);
    expect(step.hint).toMatch(/photovoltaic or lighting; only a hint/);
  });
  test('a single crash is no step; two steps are two; a log out of order is refused', () => {
    const crash = LOG.slice(0, 6).map((one, i) => (i === 3 ? { ...one, levelDbm: -60 } : one));
    expect(floorSteps(crash, NESS)).toEqual([]);
    const back = [...LOG, ...LOG.slice(0, 6).map(({ levelDbm }, i) => ({ atMs: at(19 + i), levelDbm }))];
    expect(floorSteps(back).map(({ stepDb }) => Math.sign(stepDb))).toEqual([-1, 1]);
    expect(() => floorSteps([LOG[1], LOG[0]])).toThrow(/Sort the log by time/);
  });
  test('medians by light and by weekday (4 August 2026 is a Tuesday)', () => {
    const { light, weekdays } = floorPattern(LOG, NESS);
    expect(weekdays).toMatchObject([{ name: 'Tuesday', count: 12 }]);
    expect(light.map(({ name }) => name)).toContain('twilight');
  });
});

test('devices: the inverter is proven by two switchings, single ones prove nothing, a small one is not worth hunting', () => {
  const effects = deviceEffects([
    { device: 'heater', onDbm: -88, offDbm: -88.4 },
    { device: 'lamp', onDbm: -88, offDbm: -88.2 },
    { device: 'inverter', onDbm: -88, offDbm: -100.8 },
    { device: 'inverter', onDbm: -88, offDbm: -101.3 },
    { device: 'clock', onDbm: -88, offDbm: -88.1 },
    { device: 'clock', onDbm: -88, offDbm: -88.12 },
  ]);
  expect(effects[0]).toMatchObject({ device: 'inverter', verdict: 'proven' });
  // mean −13.05, SD 0.354, t(1; 0.975) = 12.706: ±3.18 (Student's table)
  expect(effects[0].low).toBeCloseTo(-16.23, 1);
  expect(effects.find(({ device }) => device === 'heater')?.reason).toMatch(/lucky coincidence/);
  expect(effects.find(({ device }) => device === 'clock')?.reason).toMatch(/not worth hunting/);
});
