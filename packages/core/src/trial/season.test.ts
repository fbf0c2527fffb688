import { describe, expect, test } from '@jest/globals';
import { dipCauses, sameWeeks, seasonName, seasonShift } from './season';

const day = (text: string): number => Date.parse(`${text}T12:00:00Z`);
const DAY = 86_400_000;

describe('seasons', () => {
  test('names by the months of the hemisphere (meteorological seasons, World Meteorological Organization)', () => {
    expect(
      ['2026-01-10', '2026-02-28', '2026-03-01', '2026-06-01', '2026-09-01', '2026-12-01'].map((one) =>
        seasonName(day(one), 50),
      ),
    ).toEqual([...['winter 2026', 'winter 2026', 'spring 2026', 'summer 2026', 'autumn 2026', 'winter 2027']]);
    expect(['2026-01-10', '2026-07-10'].map((one) => seasonName(day(one), -39.7))).toEqual([
      'summer 2026',
      'winter 2026',
    ]);
  });
  test('the same weeks of an earlier year are found over the turn of the year, and nothing else', () => {
    const at = (text: string, value: number) => ({ atMs: day(text), value });
    const found = sameWeeks([at('2024-12-20', 1), at('2025-06-01', 2), at('2025-12-28', 3), at('2026-01-05', 4)]);
    expect(found?.now.map(({ value }) => value)).toEqual([3, 4]);
    expect(found?.then.map(({ value }) => value)).toEqual([1]);
    expect(sameWeeks([at('2025-06-01', 2), at('2026-01-05', 4)])).toBeUndefined();
    expect(sameWeeks([])).toBeUndefined();
  });
  test("Welch's interval: the worked example of two samples (NIST/SEMATECH handbook 7.3.1 gives the formula; figures by hand)", () => {
    // then 10, 12, 14 (mean 12, variance 4); now 20, 21, 22, 23 (mean 21.5, variance 5/3)
    const list = (start: string, values: readonly number[]) =>
      values.map((value, i) => ({ atMs: day(start) + i * DAY, value }));
    const { shift, low, high, moved, days } = seasonShift({
      now: list('2026-03-01', [20, 21, 22, 23]),
      then: list('2025-03-01', [10, 12, 14]),
    });
    // sum = 5/12 + 4/3 = 1.75, dof = 1.75² / ((5/12)²/3 + (4/3)²/2) = 3.236, t(0.975; 3.236) = 3.055 (tables: 3.182 at 3, 2.776 at 4)
    expect(shift).toBeCloseTo(9.5, 12);
    expect(((high ?? 0) - (low ?? 0)) / 2 / Math.sqrt(1.75)).toBeGreaterThan(2.776);
    expect(((high ?? 0) - (low ?? 0)) / 2 / Math.sqrt(1.75)).toBeLessThan(3.182);
    expect([moved, days]).toEqual([true, { now: 4, then: 3 }]);
  });
  test('readings of one day are one; a single day on each side has its resolution as interval, or none', () => {
    const then = [{ atMs: day('2025-03-10'), value: 9.52e6 }];
    const now = [0, 1, 2].map((k) => ({ atMs: day('2026-03-10') + k * 60_000, value: 9.4e6 }));
    expect(seasonShift({ now, then }, 10e3)).toMatchObject({ shift: -120e3, moved: true, days: { now: 1, then: 1 } });
    expect(seasonShift({ now, then }, 100e3).moved).toBe(false);
    expect(seasonShift({ now, then })).toMatchObject({ low: null, high: null, moved: false });
    expect(dipCauses(-120e3).means).toBe('electrically longer');
  });
  test('2,000 made-up pairs of seasons without a change: the interval holds zero in 93 to 97 %', () => {
    let state = 1;
    const uniform = (): number => {
      state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
      return (state + 0.5) / 2 ** 32;
    };
    const gauss = (): number => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform());
    let held = 0;
    for (let i = 0; i < 2000; i += 1) {
      const season = (start: string, count: number, sd: number) =>
        Array.from({ length: count }, (_, k) => ({ atMs: day(start) + k * DAY, value: sd * gauss() }));
      const { moved } = seasonShift({ now: season('2026-03-01', 4 + (i % 5), 1), then: season('2025-03-01', 6, 2) });
      if (!moved) held += 1;
    }
    expect(held / 2000).toBeGreaterThan(0.93);
    expect(held / 2000).toBeLessThan(0.97);
  });
});
