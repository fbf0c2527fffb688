import { describe, expect, test } from '@jest/globals';
import type { Saved } from '@velvet-reed/contract';
import { act, renderHook } from '@testing-library/react';
import { barLength, fitted, HEIGHT_PX, placedLabels } from './plan-view';
import { cornersText, inSystem, readCorners, typedIn, useUnits } from './units';

const feature = (
  id: number,
  name: string,
  points: [number, number][],
  kind: Saved<'plotFeatures'>['kind'] = 'support',
) => ({
  id,
  version: 1,
  stationId: 1,
  createdAt: '',
  name,
  kind,
  points,
  heightM: 0,
  endHeightM: 0,
  clearanceM: 0,
  widthM: 0,
  antennaId: null,
  transmitterId: null,
  attachmentId: null,
});

describe('corners as text', () => {
  test('numbers, signs, units and separators', () => {
    expect(readCorners('-17 2; 4 3.5', 'metric', 1)).toEqual({
      value: [
        [-17, 2],
        [4, 3.5],
      ],
    });
    expect(readCorners('−17, 2', 'metric', 1)).toEqual({ value: [[-17, 2]] });
    const feet = readCorners('10 20', 'imperial', 1);
    expect('value' in feet && feet.value[0][0]).toBeCloseTo(3.048, 9);
    // a unit beats the system
    const mixed = readCorners('10m 3ft', 'imperial', 1);
    expect('value' in mixed && mixed.value[0]).toEqual([10, 3 * 0.3048]);
  });
  test.each([
    ['here', 1, /Corner 1, "here", is not a pair/],
    ['1 2; 3', 2, /Corner 2/],
    ['1 2', 3, /At least 3 corners are needed/],
    ['', 1, /A position is needed/],
    ['1 2kg', 1, /has the unit/],
  ])('"%s" is refused', (text, least, fault) => {
    const found = readCorners(text, 'metric', least);
    expect('fault' in found && found.fault).toMatch(fault);
  });
  test('what was read is written the same', () => {
    for (const system of ['metric', 'imperial'] as const) {
      const text = cornersText(
        [
          [-1.25, 3],
          [4, 0.5],
        ],
        system,
      );
      const back = readCorners(text, system, 2);
      expect('value' in back && back.value.flat().every((v, i) => Math.abs(v - [-1.25, 3, 4, 0.5][i]) < 0.004)).toBe(
        true,
      );
    }
    expect(typedIn(9.144, 'imperial')).toBe('30 ft');
    expect(inSystem(9.144, 'imperial')).toEqual({ digits: '30 ft 0', unit: 'in' });
  });
  test('the unit system is remembered', () => {
    localStorage.clear();
    const first = renderHook(() => useUnits());
    expect(first.result.current[0]).toBe('metric');
    act(() => first.result.current[1]('imperial'));
    expect(renderHook(() => useUnits()).result.current[0]).toBe('imperial');
    localStorage.clear();
  });
});

describe('the view', () => {
  test('shows everything with a margin, and something when there is nothing', () => {
    const view = fitted([feature(1, 'a', [[-10, 0]]), feature(2, 'b', [[30, 20]])], 800);
    expect(view.centre).toEqual([10, 10]);
    // 40 m across 710 px or 20 m up 370 px: the smaller scale
    expect(view.pxPerM).toBeCloseTo(Math.min(710 / 40, (HEIGHT_PX - 90) / 20), 9);
    expect(fitted([], 600)).toEqual({ centre: [0, 0], pxPerM: 10 });
    // a picture does not count: it may be far larger than the plan
    expect(fitted([feature(1, 'aerial', [[500, 500]], 'picture')], 600).centre).toEqual([0, 0]);
  });
  test.each([
    [7, 5],
    [23, 20],
    [0.13, 0.1],
    [1, 1],
    [99, 50],
  ])('a bar of at most %f m is %f m long', (most, bar) => {
    expect(barLength(most)).toBeCloseTo(bar, 9);
  });
  test('names do not stand on each other; what has no room is left out unless it is selected', () => {
    const toPx = ([x, y]: readonly [number, number]) => [x, -y] as const;
    const crowd = Array.from({ length: 12 }, (_, i) => feature(i, `support number ${i}`, [[0, 0]]));
    const shown = placedLabels(crowd, undefined, toPx);
    expect(shown.size).toBeGreaterThan(1);
    expect(shown.size).toBeLessThan(12);
    const boxes = [...shown.values()];
    const apart = boxes.every((a, i) =>
      boxes.slice(i + 1).every((b) => Math.abs(a.y - b.y) > 14 || Math.abs(a.x - b.x) > 100),
    );
    expect(apart).toBe(true);
    expect(placedLabels(crowd, 11, toPx).has(11)).toBe(true);
  });
});
