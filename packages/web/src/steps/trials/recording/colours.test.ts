import { timeText } from './view';
import { expect, test } from '@jest/globals';
import { levelColours, stepOf } from './colours';

/** Relative luminance of WCAG 2.2. */
const luminance = (colours: Uint8ClampedArray, step: number): number =>
  [0.2126, 0.7152, 0.0722].reduce((sum, weight, k) => {
    const part = colours[3 * step + k] / 255;
    return sum + weight * (part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4);
  }, 0);

test.each(['day', 'night'] as const)(
  'by %s lightness runs one way from quiet to loud, whoever sees no colour',
  (theme) => {
    const colours = levelColours(theme);
    const way = theme === 'day' ? -1 : 1;
    for (let step = 1; step < 256; step += 1)
      expect(way * (luminance(colours, step) - luminance(colours, step - 1))).toBeGreaterThanOrEqual(-1e-9);
    // WCAG 2.2: graphics need 3:1; from the quietest to the loudest there is far more
    const [low, high] = [luminance(colours, 0), luminance(colours, 255)].sort((a, b) => a - b);
    expect((high + 0.05) / (low + 0.05)).toBeGreaterThan(10);
  },
);
test('levels beyond the contrast stay at its ends', () => {
  expect([-200, -100, -75, -50, 0].map((db) => stepOf(db, -100, -50))).toEqual([0, 0, 128, 255, 255]);
});

test('119.7 s was "1:60 min"', () => {
  expect(timeText(119.7)).toBe('2:00 min');
  expect(timeText(59.96)).toBe('1:00 min');
  expect(timeText(59.9)).toBe('59.9 s');
  expect(timeText(61)).toBe('1:01 min');
});
