import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { placeLabels } from '../ui/place-labels';
import { nudgeBand, panView, reedScale, WHOLE_REED, zoomView } from './reed-scale';

const view = fc
  .tuple(fc.double({ min: 3.1, max: 9, noNaN: true }), fc.double({ min: 0.02, max: 1, noNaN: true }))
  .map(([low, wide]) => ({ lowHz: 10 ** low, highHz: 10 ** (low + wide) }));

test('zoom and pan never leave the Reed nor turn it over', () => {
  fc.assert(
    fc.property(
      view,
      fc.double({ min: 0.05, max: 20, noNaN: true }),
      fc.double({ min: -3, max: 3, noNaN: true }),
      (start, factor, share) => {
        for (const next of [zoomView(start, factor, Math.sqrt(start.lowHz * start.highHz)), panView(start, share)]) {
          expect(next.lowHz).toBeGreaterThanOrEqual(WHOLE_REED.lowHz * 0.999999);
          expect(next.highHz).toBeLessThanOrEqual(WHOLE_REED.highHz * 1.000001);
          expect(next.highHz).toBeGreaterThan(next.lowHz);
        }
      },
    ),
    { seed: 51 },
  );
});

test('zooming keeps the frequency under the pointer where it was', () => {
  const start = { lowHz: 1e6, highHz: 1e8 };
  const next = zoomView(start, 0.5, 7e6);
  expect(reedScale(next, 1000)(7e6)).toBeCloseTo(reedScale(start, 1000)(7e6), 6);
});

test('the axis is the logarithm: a tenfold step is as wide everywhere, ends lie at the ends, and the way back agrees', () => {
  const scale = reedScale({ lowHz: 1e5, highHz: 1e9 }, 800);
  expect([scale(1e5), scale(1e6), scale(1e9)].map((px) => Math.round(px * 1e6) / 1e6)).toEqual([0, 200, 800]);
  expect(scale.invert(400) / 1e7).toBeCloseTo(1, 9);
  expect(scale.ticks.map((hz) => Math.log10(hz))).toEqual([5, 6, 7, 8, 9]);
  expect(reedScale({ lowHz: 9.4e6, highHz: 9.95e6 }, 800).ticks.map((hz) => Math.round(hz / 1e3))).toEqual([
    9400, 9500, 9600, 9700, 9800, 9900,
  ]);
});

test('nudging moves and widens in log frequency', () => {
  const moved = nudgeBand({ lowHz: 9.4e6, highHz: 9.9e6 }, 0.01, 1);
  expect(moved.highHz / moved.lowHz).toBeCloseTo(9.9 / 9.4, 9);
  expect(moved.lowHz / 9.4e6).toBeCloseTo(Math.exp(0.01), 9);
});

test('labels never touch; the heavier one stays', () => {
  const label = fc.record({
    id: fc.uuid(),
    text: fc.string({ minLength: 1, maxLength: 14 }),
    x: fc.double({ min: -50, max: 950, noNaN: true }),
    priority: fc.integer({ min: 0, max: 9 }),
  });
  fc.assert(
    fc.property(fc.array(label, { maxLength: 20 }), (labels) => {
      const placed = [...placeLabels(labels, 900)].sort((a, b) => a.x - b.x);
      placed
        .slice(1)
        .forEach((next, i) =>
          expect(next.x - placed[i].x).toBeGreaterThanOrEqual(3.3 * (next.text.length + placed[i].text.length)),
        );
    }),
    { seed: 52 },
  );
  const two = [
    { id: 'a', text: '49 m', x: 100, priority: 1 },
    { id: 'b', text: '31 m', x: 110, priority: 5 },
  ];
  expect(placeLabels(two, 900).map((one) => one.id)).toEqual(['b']);
});

test('a name that would lie over the mark of another is left out', () => {
  const one = { id: 'a', text: 'long name', x: 200, priority: 1 };
  expect(placeLabels([one], 900, [120, 300])).toHaveLength(1);
  expect(placeLabels([one], 900, [120, 210])).toHaveLength(0);
});
