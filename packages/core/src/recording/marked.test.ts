import { expect, test } from '@jest/globals';
import { fitNull } from '../bearing/null-log';
import { chanceOf } from './made';
import { directionsIn, levelsAtMarks, typedMarks } from './marked';

/** A series of powers of a loop that stands 4 s at each of 12 directions, with crashes; its null at 52°. */
function series(seed: number) {
  const chance = chanceOf(seed);
  const stepS = 0.1;
  const signal = Float64Array.from({ length: 480 }, (_, i) => {
    const deg = 15 * Math.floor(i / 40);
    const power = 1e-6 * (Math.sin(((deg - 52) * Math.PI) / 180) ** 2 + 10 ** -2.8) * 10 ** (0.05 * chance.normal());
    return chance.uniform() < 0.05 ? power * 100 : power;
  });
  return { startS: 0.05, stepS, signal, noise: signal };
}
const TEXT = Array.from({ length: 12 }, (_, i) => `${4 * i} ${15 * i}`).join('\n');

test('marked directions of a recording give the null of the loop that made it, crashes or not', () => {
  for (const seed of [1, 2, 3, 4, 5]) {
    const read = levelsAtMarks(series(seed), typedMarks(TEXT, 48));
    expect(read).toHaveLength(12);
    const fit = fitNull(read.map(([axisDeg, levelDbm]) => ({ axisDeg, levelDbm })));
    expect(Math.abs(fit.axisDeg - 52)).toBeLessThan(1.5);
  }
});
test('labels of marks that are directions count, others do not', () => {
  const mark = (text: string) => ({ startS: 0, stopS: 1, text });
  expect(directionsIn([mark('15°'), mark(' -30 '), mark('shed'), mark('45 dB')]).map(({ deg }) => deg)).toEqual([
    15, -30,
  ]);
});
test('lines that are none, out of order or too short are told', () => {
  expect(() => typedMarks('here 15', 40)).toThrow(/no second with its direction/);
  expect(() => typedMarks('8 15\n4 30', 40)).toThrow(/in order/);
  expect(() => typedMarks('50 15', 40)).toThrow(/within the recording/);
  expect(() => levelsAtMarks(series(1), [{ startS: 1, stopS: 1.2, deg: 0 }])).toThrow(/too short/);
});
