import { describe, expect, test } from '@jest/globals';
import { chanceOf } from '../recording/made';
import { levelOf, nullTargets, turnTargets } from './turn-plan';

describe('a turn on the table', () => {
  test('72 directions of 5° and the first again, from the mark, both ways round', () => {
    const sender = turnTargets(5, { lowDeg: 0, highDeg: 360 }, 'sender');
    expect(sender).toHaveLength(73);
    expect([sender[0], sender[71], sender[72]]).toEqual([
      { tableDeg: 0, patternDeg: 0 },
      { tableDeg: 355, patternDeg: 355 },
      { tableDeg: 0, patternDeg: 360 },
    ]);
    // an antenna turned clockwise by 10° shows what lies 10° to its left
    const antenna = turnTargets(5, { lowDeg: 0, highDeg: 360 }, 'antenna');
    expect([antenna[0], antenna[71], antenna[72]]).toEqual([
      { tableDeg: 355, patternDeg: -355 },
      { tableDeg: 0, patternDeg: 0 },
      { tableDeg: 355, patternDeg: 5 },
    ]);
  });
  test('2,000 cables: never past the limit, a whole circle once, azimuths ascend; or a sentence says what is missing', () => {
    const chance = chanceOf(161);
    let refused = 0;
    for (let round = 0; round < 2000; round += 1) {
      const limit = { lowDeg: -400 * chance.uniform(), highDeg: 400 * chance.uniform() };
      const step = [1, 2, 5, 7.5, 10, 15, 30, 45][Math.floor(8 * chance.uniform())];
      const turned = chance.uniform() < 0.5 ? 'antenna' : 'sender';
      if (limit.highDeg - limit.lowDeg < 360 - step) {
        expect(() => turnTargets(step, limit, turned)).toThrow(/more slack/);
        refused += 1;
        continue;
      }
      const targets = turnTargets(step, limit, turned);
      const within = ({ tableDeg }: (typeof targets)[number]): boolean =>
        tableDeg >= limit.lowDeg - 1e-9 && tableDeg <= limit.highDeg + 1e-9;
      expect(targets.filter((one) => !within(one))).toEqual([]);
      expect(targets.slice(1).filter(({ patternDeg }, i) => patternDeg <= targets[i].patternDeg)).toEqual([]);
      const wrapped = targets
        .slice(0, -1)
        .map(({ patternDeg }) => Math.round(((patternDeg % 360) + 360) * 1000) % 360000);
      expect(new Set(wrapped).size).toBe(360 / step);
      expect(targets.at(-1)?.tableDeg).toBe(targets[0].tableDeg);
    }
    expect(refused).toBeGreaterThan(500);
  });
  test('half a circle for a null, within the cable or a sentence', () => {
    expect(nullTargets(15, { lowDeg: 0, highDeg: 360 }).map(({ tableDeg }) => tableDeg)).toEqual(
      Array.from({ length: 12 }, (_, i) => 15 * i),
    );
    const back = nullTargets(15, { lowDeg: -120, highDeg: 60 }).map(({ tableDeg }) => tableDeg);
    expect([Math.min(...back), Math.max(...back)]).toEqual([-105, 60]);
    expect(() => nullTargets(15, { lowDeg: -60, highDeg: 60 })).toThrow(/half a circle in steps of 15° needs 165°/);
  });
  test('a step that does not close the circle, or none, is refused', () => {
    expect(() => turnTargets(7, { lowDeg: -180, highDeg: 180 })).toThrow(/do not close/);
    expect(() => turnTargets(0, { lowDeg: -180, highDeg: 180 })).toThrow();
    expect(() => turnTargets(90, { lowDeg: -180, highDeg: 180 })).toThrow();
  });
  test('what the meter dropped is left out of the mean; nothing left is no level', () => {
    expect(levelOf([-20, 9.91e37, -22, NaN])).toBe(-21);
    expect(levelOf([9.91e37, -Infinity])).toBeUndefined();
    expect(levelOf([])).toBeUndefined();
  });
});
