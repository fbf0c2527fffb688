import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { rectangularGuide } from '../antenna/aperture';
import { downConversion } from '../path/converter';
import { arrivalOf, hopElevationDeg, hopModes, midpoint } from './arrival';
import { noisePowerDbm } from './external-noise';
import { floorNear, measuredFaDb } from './measured-floor';
import { circularOrbit, freeSpaceLossDb, geostationaryLook, radioHorizonKm } from './orbit';
import { elementsEpochMs, ElementsError, readElements, satelliteAt, satellitePasses } from './passes';
import { listeningWindows, type ScheduledTarget, withinHours } from './schedule';
import { lightAt, sunElevationDeg } from './sun';

const HERE = { latDeg: 50.2, lonDeg: -19.3 };
const NIGHT = Date.UTC(2026, 2, 10, 0, 0);
const NOON = Date.UTC(2026, 2, 10, 13, 0);

describe('arrival by hops', () => {
  // the distance at which a wave leaving along the horizon comes down: 2R·acos(R/(R+h)); 250 km: θ = 15.80°, 3513 km, by hand
  test('a wave along the horizon reaches 3513 km by a layer at 250 km', () => {
    const distanceKm = 2 * 6371.0088 * Math.acos(6371.0088 / 6621.0088);
    expect(distanceKm).toBeCloseTo(3513, -1);
    expect(hopElevationDeg(distanceKm, 250, 1)).toBeCloseTo(0, 6);
  });
  test('straight overhead at no distance, and two hops are two of half the length', () => {
    expect(hopElevationDeg(1, 300, 1)).toBeGreaterThan(89.5);
    expect(hopElevationDeg(4000, 300, 2)).toBeCloseTo(hopElevationDeg(2000, 300, 1), 12);
  });
  // flat earth near the station: tan Δ = 2h/d (Davies ch. 6)
  test('near by, the flat-earth triangle', () => {
    expect(hopElevationDeg(100, 250, 1)).toBeCloseTo((Math.atan(500 / 100) * 180) / Math.PI, 0);
  });
  test('the lowest mode that clears the horizon comes first, and more hops arrive steeper', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 100, max: 18000, noNaN: true }),
        fc.double({ min: 200, max: 450, noNaN: true }),
        (d, h) => {
          const modes = hopModes(d, h);
          expect(modes).toHaveLength(2);
          expect(modes[0].elevationDeg).toBeGreaterThanOrEqual(4);
          expect(modes[1].elevationDeg).toBeGreaterThan(modes[0].elevationDeg);
        },
      ),
      { seed: 3 },
    );
  });
  const target = { lowHz: 9.4e6, highHz: 9.9e6, latDeg: 38, lonDeg: -60, arrivalDeg: null };
  test('typed before computed before assumed', () => {
    expect(arrivalOf({ ...target, arrivalDeg: 22 }, HERE, NIGHT)).toMatchObject({
      elevationDeg: 22,
      why: 'typed by you',
    });
    expect(arrivalOf(target, HERE, NIGHT)).toMatchObject({
      origin: 'model',
      why: '2 hops, F2 layer at 350 km by night',
    });
    expect(arrivalOf({ ...target, latDeg: null, lonDeg: null }, HERE, NIGHT)).toMatchObject({
      elevationDeg: 15,
      origin: 'assumed',
    });
    expect(arrivalOf({ ...target, lowHz: 137e6, highHz: 138e6 }, HERE, NIGHT).why).toMatch(/above 50 MHz/);
    expect(arrivalOf({ ...target, latDeg: 50.3, lonDeg: -19.5 }, HERE, NIGHT).why).toMatch(/along the ground/);
  });
  // 3469 km at 262.8°, back 53.7° (spherical great circle, worked out independently)
  test('a target with a place knows its way', () => {
    const { distanceKm, bearingDeg, backBearingDeg } = arrivalOf(target, HERE, NOON);
    expect(distanceKm).toBeCloseTo(3469, 0);
    expect(bearingDeg).toBeCloseTo(262.8, 1);
    expect(backBearingDeg).toBeCloseTo(53.7, 1);
  });
  test('the middle of a path on the equator, and over the pole', () => {
    expect(midpoint({ latDeg: 0, lonDeg: 10 }, { latDeg: 0, lonDeg: 50 }).lonDeg).toBeCloseTo(30, 9);
    expect(midpoint({ latDeg: 60, lonDeg: 0 }, { latDeg: 60, lonDeg: 180 }).latDeg).toBeCloseTo(90, 6);
  });
});

describe('light', () => {
  // equinox: the sun passes within a degree of the zenith on the equator near noon
  test('noon at the equinox on the equator', () => {
    expect(sunElevationDeg({ latDeg: 0, lonDeg: 0 }, Date.UTC(2026, 2, 20, 12, 7))).toBeGreaterThan(89);
  });
  test('day, twilight and night around a sunset at 19:14 UTC', () => {
    const at = (h: number, m: number) => lightAt(HERE, Date.UTC(2026, 2, 10, h, m));
    expect([at(19, 5), at(19, 30), at(22, 0)]).toEqual(['day', 'twilight', 'night']);
  });
});

/** Object 5 of the verification set of Vallado, Crawford, Hujsak & Kelso, Revisiting Spacetrack Report #3 (AIAA 2006-6753). */
const OBJECT_5 = `1 00005U 58002B   00179.78495062  .00000023  00000-0  28098-4 0  4753
2 00005  34.2682 348.7242 1859667 331.7664  19.3264 10.82419157413667`;

describe('satellites', () => {
  test('published positions of object 5 at 0 and 360 minutes, to the metres that a millisecond is worth', () => {
    const elements = readElements(OBJECT_5);
    const epoch = elementsEpochMs(elements);
    const off = (minutes: number, [x, y, z]: readonly number[]): number => {
      const { positionKm } = satelliteAt(elements, epoch + minutes * 60_000);
      return Math.hypot(positionKm.x - x, positionKm.y - y, positionKm.z - z);
    };
    expect(off(0, [7022.465, -1400.083, 0.04])).toBeLessThan(0.01);
    expect(off(360, [-7154.031, -3783.177, -3536.194])).toBeLessThan(0.01);
  });
  test.each([
    ['', /Paste the two lines/],
    [OBJECT_5.replace('58002B ', '58002B'), /has 68 characters; it must have 69/],
    [OBJECT_5.replace('34.2682', '34.2683'), /checksum of line 2 is 7, its digits give 8/],
    [`${OBJECT_5.split('\n')[0]}\n2 00006${OBJECT_5.split('\n')[1].slice(7, 68)}8`, /different satellites/],
  ])('elements %# are refused with what is wrong', (text, sentence) => {
    expect(() => readElements(text)).toThrow(ElementsError);
    expect(() => readElements(text)).toThrow(sentence);
  });
  test('a name line is taken', () => {
    expect(readElements(`0 TEST\n${OBJECT_5}`).name).toBe('TEST');
    expect(readElements(OBJECT_5).name).toBe('Satellite 00005');
  });
  // made-up circular orbit of 14.2 revolutions a day, 98.7° inclination
  const polar = readElements(`Polar
1 90001U 26001A   26330.50000000  .00000000  00000-0  00000-0 0  9998
2 90001  98.7000  20.0000 0010000  90.0000 270.0000 14.20000000  1005`);
  const fromMs = Date.UTC(2026, 10, 26);
  const passes = satellitePasses(polar, HERE, { fromMs, toMs: fromMs + 86_400_000, leastDeg: 10 });
  test('passes are above the least elevation between rise and set, highest in between, in order', () => {
    expect(passes.length).toBeGreaterThanOrEqual(4);
    passes.forEach((pass, i) => {
      expect(pass.riseMs).toBeLessThan(pass.highestMs);
      expect(pass.highestMs).toBeLessThan(pass.setMs);
      expect(pass.highestDeg).toBeGreaterThan(10);
      if (i > 0) expect(pass.riseMs).toBeGreaterThan(passes[i - 1].setMs);
      expect(pass.riseDopplerRatio).toBeGreaterThan(0); // it comes nearer
    });
  });
  test('a pass near the zenith lasts as long as the circular orbit says, within the earth’s turning', () => {
    // 14.2 revolutions a day: a = 7204 km by Kepler's third law, 826 km high
    const best = passes.reduce((a, b) => (b.highestDeg > a.highestDeg ? b : a));
    const model = circularOrbit(826, 137.5e6, {
      elevationDeg: 10,
      leastDeg: 10,
      highestDeg: Math.min(90, best.highestDeg),
    });
    expect(Math.abs((best.setMs - best.riseMs) / 1000 / model.durationS - 1)).toBeLessThan(0.08);
    expect(Math.abs((best.riseDopplerRatio * 137.5e6) / model.dopplerHz - 1)).toBeLessThan(0.12);
  });
  // worked by hand: 420 km, 145.8 MHz: 92.9 min, 10.4 min overhead, ±3.50 kHz at the horizon
  test('a circular orbit of 420 km', () => {
    const orbit = circularOrbit(420, 145.8e6, { elevationDeg: 0, leastDeg: 0, highestDeg: 90 });
    expect(orbit.periodS / 60).toBeCloseTo(92.97, 1);
    expect(Math.abs(orbit.durationS / 60 - 10.4)).toBeLessThan(0.1);
    expect(Math.abs(orbit.dopplerHz / 1000 - 3.5)).toBeLessThan(0.02);
    expect(circularOrbit(420, 1e8, { elevationDeg: 0, leastDeg: 30, highestDeg: 20 }).durationS).toBe(0);
  });
  test('a geostationary satellite stands overhead on its own meridian, south from the north, and not beyond 81°', () => {
    expect(geostationaryLook({ latDeg: 0, lonDeg: 20 }, 20)).toMatchObject({ visible: true, elevationDeg: 90 });
    const north = geostationaryLook({ latDeg: 50, lonDeg: 20 }, 20);
    expect(north.visible && north.azimuthDeg).toBeCloseTo(180, 9);
    expect(north.visible && north.skewDeg).toBeCloseTo(0, 9);
    const south = geostationaryLook({ latDeg: -50, lonDeg: 179 }, -179);
    expect(south.visible && south.azimuthDeg).toBeLessThan(20);
    expect(geostationaryLook({ latDeg: 82, lonDeg: 0 }, 0).visible).toBe(false);
  });
});

describe('wave guides, converters, free space', () => {
  // standard X-band guide 22.86 × 10.16 mm: cut-off 6.557 GHz, 39.7 mm at 10 GHz (Pozar, appendix, from memory)
  test('an X-band guide above and below its cut-off', () => {
    const above = rectangularGuide(0.02286, 0.01016, 10e9);
    expect(above.cutoffHz / 1e9).toBeCloseTo(6.557, 3);
    expect(above.propagates && above.guideWavelengthM * 1000).toBeCloseTo(39.7, 1);
    const below = rectangularGuide(0.02286, 0.01016, 5e9);
    // α = √((π/a)² − k²) = √(137.43² − 104.79²) = 88.9 Np/m = 772 dB/m, by hand
    expect(!below.propagates && below.attenuationDbPerM).toBeCloseTo(772, -1);
  });
  test('a converter below and above the signal: mirrored only above, errors of opposite sign', () => {
    const base = {
      rfHz: 11e9,
      oscillatorPpm: 1,
      systemK: 290,
      gainDb: 60,
      bandwidthHz: 1e6,
      cableLossDb: 0,
      wantedDbm: -200,
    };
    const low = downConversion({ ...base, oscillatorHz: 9.75e9 });
    expect(low).toMatchObject({ outputHz: 1.25e9, mirrored: false });
    expect(low.outputErrorHz).toBeCloseTo(-9750, 6);
    expect(low.noiseDbmPerHz).toBeCloseTo(-173.975 + 60, 3);
    const high = downConversion({ ...base, oscillatorHz: 12.25e9 });
    expect(high.mirrored).toBe(true);
    expect(high.outputErrorHz).toBeCloseTo(12250, 6);
  });
  // 868 MHz over 6 m: 46.8 dB; horizon of 9 m and 10.7 km: 438.5 km (worked by hand)
  test('free-space loss and radio horizon', () => {
    expect(freeSpaceLossDb(6, 868e6)).toBeCloseTo(46.8, 1);
    expect(radioHorizonKm(9, 10_700)).toBeCloseTo(438.5, 1);
  });
});

describe('measured floor', () => {
  test('what is put into the chain comes out again: noise through antenna, line and receiver, and back', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 25, max: 70, noNaN: true }),
        fc.double({ min: 0.01, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 6, noNaN: true }),
        (faDb, transfer, lineLossDb) => {
          const passed = 10 ** (-lineLossDb / 10) * transfer;
          const noise = passed * 10 ** (faDb / 10) + (10 ** 1 - passed); // noise figure 10 dB, losses at 290 K
          const levelDbm = noisePowerDbm(10 * Math.log10(noise), 2400);
          const found = measuredFaDb(
            { freqHz: 7e6, levelDbm, bandwidthHz: 2400 },
            { transfer, lineLossDb, noiseFigureDb: 10 },
          );
          // too near the receiver's own noise nothing is said
          if (found === undefined) expect(passed * 10 ** (faDb / 10)).toBeLessThan(0.3 * 10);
          else expect(found).toBeCloseTo(faDb, 6);
        },
      ),
      { seed: 11 },
    );
  });
  test('a floor counts within half an octave, the nearest one first', () => {
    const floors = [{ freqHz: 5e6 }, { freqHz: 7e6 }];
    expect(floorNear(floors, 6.8e6)).toBe(floors[1]);
    expect(floorNear(floors, 4e6)).toBe(floors[0]);
    expect(floorNear(floors, 14e6)).toBeUndefined();
  });
});

describe('timetable', () => {
  const target: ScheduledTarget = {
    id: '1',
    name: '49 m',
    weight: 3,
    lowHz: 5.9e6,
    highHz: 6.2e6,
    latDeg: 44,
    lonDeg: -4.5,
    arrivalDeg: null,
    fromMin: null,
    toMin: null,
  };
  test('49 m over 1,300 km is open through a night of March, and absorbed at noon in June', () => {
    const goodAt = (fromMs: number, hour: number): boolean =>
      listeningWindows([target], [], HERE, fromMs).some(
        (one) => one.quality === 'good' && one.fromMs <= fromMs + hour * HOUR && one.toMs > fromMs + hour * HOUR,
      );
    const HOUR = 3_600_000;
    expect(goodAt(NOON, 10)).toBe(true); // about 23 h
    expect(goodAt(Date.UTC(2026, 5, 20, 12), 1)).toBe(false); // high sun at both ends
    expect(listeningWindows([target], [], HERE, NOON)[0].why).toMatch(/^(open|at the edge): about \d/);
  });
  test('its own hours cut the window, past midnight too', () => {
    expect(withinHours({ fromMin: 1320, toMin: 120 }, Date.UTC(2026, 0, 1, 23))).toBe(true);
    expect(withinHours({ fromMin: 1320, toMin: 120 }, Date.UTC(2026, 0, 1, 3))).toBe(false);
    expect(withinHours({ fromMin: 60, toMin: 120 }, Date.UTC(2026, 0, 1, 1, 30))).toBe(true);
    const windows = listeningWindows([{ ...target, fromMin: 21 * 60, toMin: 22 * 60 }], [], HERE, NOON);
    expect(windows.map(({ fromMs, toMs }) => (toMs - fromMs) / 60_000)).toEqual([60]);
  });
  test('above 50 MHz the sun does not matter', () => {
    const vhf = { ...target, lowHz: 156e6, highHz: 162e6, latDeg: null, lonDeg: null };
    expect(listeningWindows([vhf], [], HERE, NOON)).toMatchObject([{ toMs: NOON + 86_400_000, quality: 'good' }]);
  });
  test('passes stand among the windows, in time', () => {
    const elements = readElements(`Polar
1 90001U 26001A   26330.50000000  .00000000  00000-0  00000-0 0  9998
2 90001  98.7000  20.0000 0010000  90.0000 270.0000 14.20000000  1005`);
    const list = listeningWindows(
      [],
      [{ ...elements, id: '9', freqHz: 137.5e6, leastDeg: 10 }],
      HERE,
      Date.UTC(2026, 10, 26),
    );
    expect(list.length).toBeGreaterThan(3);
    expect(list[0].why).toMatch(/^pass, \d+° at \d\d:\d\d UTC.*Doppler ±\d\.\d\d kHz$/);
  });
});
