import { antennaKind } from '../antenna/kinds';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { PlotFileError, readPlot, toLonLat, toPlan, writePlot } from '../formats/geojson';
import {
  featureDistance,
  insideArea,
  planBearingDeg,
  type PlanPoint,
  type PlotFeature,
  type PlotKind,
  snapped,
} from './feature';
import { horizonAt, horizonText, readHorizon } from '../site/horizon';
import { plotHorizon } from './horizon';
import { cableRunM, earthDistance, laidLengthM, layoutOf, plotRoom, sagM, supportFindings } from './layout';

const feature = (kind: PlotKind, points: readonly PlanPoint[], more: Partial<PlotFeature> = {}): PlotFeature => ({
  id: `${kind} ${points.join(' ')}`,
  kind,
  name: kind,
  points,
  heightM: 0,
  endHeightM: 0,
  clearanceM: 0,
  ...more,
});
const SQUARE: readonly PlanPoint[] = [
  [0, 0],
  [10, 0],
  [10, 10],
  [0, 10],
];

describe('horizon of the houses', () => {
  test('a wall 10 m away and 10 m above the antenna stands 45° high ahead, 35.3° at 45° beside, and nothing behind', () => {
    const house = feature(
      'house',
      [
        [-50, 10],
        [50, 10],
        [50, 20],
        [-50, 20],
      ],
      { heightM: 12 },
    );
    const points = plotHorizon([house], [0, 0], 2);
    expect(horizonAt(points, 0)).toBeCloseTo(45, 9);
    // atan(1/√2): the wall is √2 as far there
    expect(horizonAt(points, 45)).toBeCloseTo(35.264, 3);
    expect(horizonAt(points, 180)).toBe(0);
    expect(plotHorizon([house], [0, 0], 12)).toEqual([]);
    expect(plotHorizon([house], [0, 15], 2)).toEqual([]);
    // what the page keeps is read again as it was written
    expect(readHorizon(horizonText(points)).map(({ azimuthDeg }) => azimuthDeg)).toEqual(
      points.map(({ azimuthDeg }) => azimuthDeg),
    );
  });
});

describe('distances on the plan', () => {
  test('3-4-5 triangle, and the foot of a perpendicular', () => {
    expect(featureDistance(feature('support', [[0, 0]]), feature('support', [[3, 4]]))).toBe(5);
    const line = feature('cable', [
      [0, 5],
      [10, 5],
    ]);
    expect(featureDistance(feature('support', [[4, 0]]), line)).toBe(5);
    expect(featureDistance(feature('support', [[13, 9]]), line)).toBe(5);
  });
  test('what crosses or lies inside is at no distance', () => {
    const house = feature('house', SQUARE);
    expect(featureDistance(feature('support', [[5, 5]]), house)).toBe(0);
    const across = feature('antenna', [
      [-5, 5],
      [15, 5],
    ]);
    expect(featureDistance(across, house)).toBe(0);
    expect(insideArea(SQUARE, [5, 5])).toBe(true);
    expect(insideArea(SQUARE, [11, 5])).toBe(false);
  });
  test.each([
    [[0, 1], 0],
    [[1, 0], 90],
    [[0, -1], 180],
    [[-1, 0], 270],
  ] as const)('bearing toward %p is %d°, clockwise from north', (to, bearing) => {
    expect(planBearingDeg([0, 0], to)).toBeCloseTo(bearing, 9);
  });
  test('snapping to half metres, and not at all', () => {
    expect(snapped([1.26, -0.24], 0.5)).toEqual([1.5, -0]);
    expect(snapped([1.26, -0.24], 0)).toEqual([1.26, -0.24]);
  });
  test('distance is the same both ways', () => {
    const point = fc.tuple(
      fc.double({ min: -50, max: 50, noNaN: true }),
      fc.double({ min: -50, max: 50, noNaN: true }),
    );
    fc.assert(
      fc.property(fc.tuple(point, point), fc.tuple(point, point), (a, b) => {
        const [s, t] = [feature('cable', a), feature('antenna', b)];
        expect(featureDistance(s, t)).toBeCloseTo(featureDistance(t, s), 9);
      }),
      { seed: 20261125 },
    );
  });
});

describe('room and lengths', () => {
  const mast = feature('support', [[0, 0]], { name: 'mast', heightM: 9 });
  const hedge = feature('support', [[30, 40]], { name: 'hedge', heightM: 3 });
  test('the longest run lies between two supports; one support gives none', () => {
    expect(plotRoom([mast])).toBeUndefined();
    expect(plotRoom([mast, hedge, feature('support', [[10, 0]], { name: 'post', heightM: 4 })])).toEqual({
      spanM: 50,
      heightM: 9,
      between: ['mast', 'hedge'],
    });
  });
  test('a cable run counts its plan length and the drops at both ends', () => {
    const run = feature(
      'cable',
      [
        [0, 0],
        [3, 4],
        [3, 10],
      ],
      { heightM: 6, endHeightM: 1 },
    );
    expect(cableRunM(run)).toBe(5 + 6 + 6 + 1);
  });
  test('a sloping wire is as long as its hypotenuse', () => {
    expect(
      laidLengthM(
        feature(
          'antenna',
          [
            [0, 0],
            [12, 0],
          ],
          { heightM: 9, endHeightM: 4 },
        ),
      ),
    ).toBe(13);
  });
  // ρ g L² / (8 σ) by hand: 8960 · 9.81 · 38² / (8 · 22e6) = 0.721 m
  test('38 m of copper at a tenth of its breaking stress sags 0.72 m, four times that at twice the span', () => {
    expect(sagM(38)).toBeCloseTo(0.721, 3);
    expect(sagM(76) / sagM(38)).toBeCloseTo(4, 12);
  });
});

describe('what fits', () => {
  const wire = feature(
    'antenna',
    [
      [0, 0],
      [20, 0],
    ],
    { name: 'dipole', heightM: 8, endHeightM: 8 },
  );
  const needs = { spanM: 16, heightM: 3, across: true };
  const line = (y: number): PlotFeature =>
    feature(
      'keepout',
      [
        [-50, y],
        [50, y],
      ],
      { name: 'power line', heightM: 6, clearanceM: 5 },
    );
  test('an antenna that hears across faces at right angles to the way it lies', () => {
    const layout = layoutOf(wire, needs, []);
    expect(layout.bearingDeg).toBeCloseTo(90, 9);
    expect(layout.facingDeg).toBeCloseTo(180, 9);
    expect(layoutOf(wire, { ...needs, across: false }, []).facingDeg).toBeCloseTo(90, 9);
    expect(antennaKind('half-wave-dipole').hearsAlong).toBeUndefined();
    expect(antennaKind('ground-laid-wire').hearsAlong).toBe(true);
  });
  test('too long by four metres is said with the number', () => {
    const [finding] = layoutOf(wire, { ...needs, spanM: 24 }, []).findings;
    expect(finding.state).toBe('caution');
    expect(finding.sentence).toMatch(/^Too long by 4\.00 m/);
  });
  test.each([
    [4, 'danger', /comes within 4\.0 m of power line; 5\.0 m must stay free/],
    [9, 'caution', /If it falls, dipole can reach power line/],
    [20, 'good', /farther than it can fall/],
  ] as const)('a power line %d m away is a case of %s', (y, state, sentence) => {
    const finding = layoutOf(wire, needs, [line(y)]).findings[1];
    expect(finding.state).toBe(state);
    expect(finding.sentence).toMatch(sentence);
  });
  test('a wire over the boundary is told; one inside is not', () => {
    const garden = feature('boundary', [
      [-1, -5],
      [15, -5],
      [15, 5],
      [-1, 5],
    ]);
    expect(
      layoutOf(wire, needs, [garden])
        .findings.map(({ sentence }) => sentence)
        .join(),
    ).toMatch(/over the boundary/);
    const inside = {
      ...wire,
      points: [
        [0, 0],
        [10, 0],
      ] as const,
    };
    expect(
      layoutOf(inside, needs, [garden])
        .findings.map(({ sentence }) => sentence)
        .join(),
    ).not.toMatch(/boundary/);
  });
  test('a mast that can fall onto a line is found, a short one is not', () => {
    const mast = (heightM: number): PlotFeature => feature('support', [[0, 0]], { name: 'mast', heightM });
    expect(supportFindings([mast(9), line(12)])).toMatchObject([{ state: 'caution' }]);
    expect(supportFindings([mast(4), line(12)])).toEqual([]);
  });
  // common practice: λ/10; 4.22 m at 7.1 MHz, 8.6 m at 3.5 MHz, 2.1 m at 14.1 MHz (worked by hand from c/f)
  test.each([
    [7.1e6, 4.22, true],
    [3.5e6, 8.57, true],
    [14.1e6, 2.13, false],
  ])('3 m from an earth at %d Hz: limit %f m', (freqHz, limitM, near) => {
    const found = earthDistance([0, 0], [feature('earth', [[3, 0]])], freqHz);
    expect(found?.limitM).toBeCloseTo(limitM, 2);
    expect((found?.distanceM ?? 99) <= (found?.limitM ?? 0)).toBe(near);
    expect(earthDistance([0, 0], [], freqHz)).toBeUndefined();
  });
});

describe('GeoJSON', () => {
  const origin = { latDeg: 50.2, lonDeg: -19.3 };
  // WGS 84 at 50.2° N: one minute of latitude is 1853.9 m (meridian radius 6 373 170 m, from its closed form)
  test('one minute of latitude and of longitude, against the ellipsoid', () => {
    expect(toPlan([-19.3, 50.2 + 1 / 60], origin)[1]).toBeCloseTo(1853.9, 0);
    // a parallel circle is N·cos φ round: 6 390 791 · cos 50.2° · 2π / 21600 = 1190.0 m a minute
    expect(toPlan([-19.3 + 1 / 60, 50.2], origin)[0]).toBeCloseTo(1190, 0);
  });
  test('every feature comes back to a tenth of a millimetre, across the date line too', () => {
    const metres = fc.double({ min: -2000, max: 2000, noNaN: true });
    fc.assert(
      fc.property(
        fc.tuple(metres, metres),
        fc.double({ min: -70, max: 70, noNaN: true }),
        fc.double({ min: -180, max: 180, noNaN: true }),
        (point, latDeg, lonDeg) => {
          const place = { latDeg, lonDeg };
          const [back] = readPlot(writePlot([feature('support', [point], { heightM: 9 })], place), place);
          expect(Math.hypot(back.points[0][0] - point[0], back.points[0][1] - point[1])).toBeLessThan(1e-4);
          expect(back).toMatchObject({ kind: 'support', heightM: 9 });
          const [lon, lat] = toLonLat(point, place);
          expect(Math.hypot(...toPlan([lon, lat], place).map((v, i) => v - point[i]))).toBeLessThan(1e-4);
        },
      ),
      { seed: 7 },
    );
  });
  test('areas are closed rings in the file and open again here', () => {
    const text = writePlot([feature('boundary', SQUARE, { name: 'garden' })], origin);
    // four corners, the first one again at the end: ten numbers
    expect(text.slice(text.indexOf('coordinates'), text.indexOf('properties')).match(/-?\d+\.\d+/g)).toHaveLength(10);
    expect(readPlot(text, origin)[0]).toMatchObject({ kind: 'boundary', name: 'garden' });
    expect(readPlot(text, origin)[0].points).toHaveLength(4);
  });
  test('files of other programs are taken by their shapes', () => {
    const other = JSON.stringify({
      type: 'FeatureCollection',
      features: [{ type: 'Feature', geometry: { type: 'Point', coordinates: [-19.3, 50.2] }, properties: null }],
    });
    expect(readPlot(other, origin)).toMatchObject([{ kind: 'support', name: 'support 1', points: [[0, 0]] }]);
  });
  test.each([
    ['{', /not JSON/],
    ['{"type":"x"}', /holds no features/],
    ['{"features":[{"geometry":{"type":"Point","coordinates":[50.2,-99]}}]}', /longitude first/],
    ['{"features":[{"geometry":{"type":"Point","coordinates":[10,50]}}]}', /km from the station/],
    ['{"features":[{"geometry":{"type":"MultiPoint","coordinates":[]}}]}', /is a MultiPoint/],
    ['{"features":[{"geometry":{"type":"LineString","coordinates":[[-19.3,50.2]]}}]}', /too few points/],
    ['{"features":[{"geometry":{"type":"Point","coordinates":[-19.3,50.2]},"properties":{"heightM":-4}}]}', /0 to 500/],
    ['{"features":[{}]}', /Feature 1 has no geometry/],
  ])('%s is refused whole', (text, sentence) => {
    expect(() => readPlot(text, origin)).toThrow(PlotFileError);
    expect(() => readPlot(text, origin)).toThrow(sentence);
  });
});
