import { describe, expect, test } from '@jest/globals';
import {
  combinedDecilesDb,
  expectedNoise,
  faExceededDb,
  medianFaDb,
  noisePowerDbm,
  roughAtmosphericFaDb,
} from './external-noise';
import { transmitterField } from './field';
import { greatCircle, locatorOf, parsePosition, positionOf } from './place';
import { nextSunEvent, sunTimes } from './sun';
import { catalogueFor } from '../spectrum/catalogue';
import { ituRegionOf } from '../spectrum/itu-region';

const minutes = (ms: number | undefined): number => (ms === undefined ? NaN : (ms % 86_400_000) / 60_000);

describe('place', () => {
  test('locators and back', () => {
    expect(locatorOf({ latDeg: 50.2, lonDeg: -19.3 })).toBe('IO00ie');
    expect(locatorOf({ latDeg: -39.7, lonDeg: 120.6 })).toBe('PF00hh');
    expect(locatorOf({ latDeg: 90, lonDeg: 180 })).toBe('RR99xx');
    const middle = positionOf('IO00ie');
    expect(Math.abs(middle.latDeg - 50.1875)).toBeLessThan(1e-9);
  });
  test.each(['50.2 N 19.3 W', '50.2, -19.3', "50°12' N 19°18' W", '50.2N, 19.3W', '50.2 −19.3'])(
    '%s is one place',
    (text) => {
      const { latDeg, lonDeg } = parsePosition(text);
      expect(latDeg).toBeCloseTo(50.2, 9);
      expect(lonDeg).toBeCloseTo(-19.3, 9);
    },
  );
  test.each(['here', '95 N 10 E', 'ZZ99', '50.2'])('%s is refused with examples', (text) => {
    expect(() => parsePosition(text)).toThrow(/Type it like|between -90 and 90/);
  });
  // Spherical great circles, worked out independently: 3469 km at 262.8° (back 53.7°), 9691 km at 155.7°, 11035 km at 9.4°.
  test.each([
    [38, -60, 3469, 262.8, 53.7],
    [-33, 10, 9691, 155.7, 341.7],
    [30, 150, 11035, 9.4, 353.1],
  ])('to %d, %d', (latDeg, lonDeg, km, bearing, back) => {
    const path = greatCircle({ latDeg: 50.2, lonDeg: -19.3 }, { latDeg, lonDeg });
    expect(Math.abs(path.distanceKm / km - 1)).toBeLessThan(0.003);
    expect(path.bearingDeg).toBeCloseTo(bearing, 0);
    expect(Math.abs(path.backBearingDeg - back)).toBeLessThan(0.1);
  });
  // Published solar positions: 50.2 N 19.3 W on 10 March 2026 rise 07:42, set 19:14; 39.7 S 120.6 E on 4 August 2026 rise 22:59, set 09:09 UTC, ±2 min.
  test('sun times of the UTC day', () => {
    const north = sunTimes({ latDeg: 50.2, lonDeg: -19.3 }, Date.UTC(2026, 2, 10, 3));
    expect(Math.abs(minutes(north.riseMs) - (7 * 60 + 42))).toBeLessThan(2);
    expect(Math.abs(minutes(north.setMs) - (19 * 60 + 14))).toBeLessThan(2);
    const south = sunTimes({ latDeg: -39.7, lonDeg: 120.6 }, Date.UTC(2026, 7, 4, 12));
    expect(Math.abs(minutes(south.riseMs) - (22 * 60 + 59))).toBeLessThan(2);
    expect(Math.abs(minutes(south.setMs) - (9 * 60 + 9))).toBeLessThan(2);
  });
  test('polar night has no sunrise', () => {
    expect(sunTimes({ latDeg: 80, lonDeg: 10 }, Date.UTC(2026, 11, 21)).riseMs).toBeUndefined();
    expect(nextSunEvent({ latDeg: 80, lonDeg: 10 }, Date.UTC(2026, 11, 21))).toBeUndefined();
    expect(nextSunEvent({ latDeg: 50.2, lonDeg: -19.3 }, Date.UTC(2026, 2, 10, 12))?.kind).toBe('sunset');
  });
});

// Radio Regulations, Article 5: places well inside each region, and the states that the article names.
test.each([
  ['western Europe', 48, 2, 1],
  ['southern Africa', -30, 25, 1],
  ['Siberia', 60, 100, 1],
  ['Kamchatka', 56, 160, 1],
  ['Mongolia', 47, 104, 1],
  ['Kazakhstan', 48, 68, 1],
  ['Arabia', 24, 45, 1],
  ['Brazil', -15, -50, 2],
  ['Greenland', 70, -40, 2],
  ['Hawaii', 20.8, -156.5, 2],
  ['California', 37, -120, 2],
  ['Alaska', 64, -150, 2],
  ['Iran', 32, 54, 3],
  ['India', 20, 78, 3],
  ['Japan', 36, 138, 3],
  ['Australia', -25, 134, 3],
  ['New Zealand', -41, 174, 3],
  ['northern China', 40, 116, 3],
  ['Fiji', -17.8, 178, 3],
  ['Iceland', 65, -18, 1],
  ['the demo headland', 50.2, -19.3, 1],
])('%s lies in Region %d', (_, latDeg, lonDeg, region) => {
  expect(ituRegionOf({ latDeg, lonDeg })).toBe(region);
});

test('40 m ends at 7.2 MHz in Regions 1 and 3, 7.3 in Region 2', () => {
  const end = (region: 1 | 2 | 3): number | undefined => catalogueFor(region).find((band) => band.id === 'a40')?.highHz;
  expect([end(1), end(2), end(3)]).toEqual([7.2e6, 7.3e6, 7.2e6]);
  for (const region of [1, 2, 3] as const)
    for (const band of catalogueFor(region)) expect(band.lowHz).toBeLessThan(band.highHz);
});

describe('noise from outside', () => {
  // ITU-R P.372 constants: 7.1 MHz in 2.5 kHz −86.8 / −91.1 / −96.4 / −110.8 dBm, ±0.5.
  test.each([
    ['city', -86.8],
    ['residential', -91.1],
    ['rural', -96.4],
    ['quiet_rural', -110.8],
  ] as const)('%s', (environment, dbm) => {
    expect(Math.abs(noisePowerDbm(medianFaDb(environment, 7.1e6), 2500) - dbm)).toBeLessThan(0.5);
  });
  test('deciles combine as a root of squares; quiet rural has none', () => {
    expect(combinedDecilesDb('rural')?.upDb).toBeCloseTo(11.44, 2);
    expect(faExceededDb('rural', 14e6, 50)).toBeCloseTo(medianFaDb('rural', 14e6), 9);
    expect(faExceededDb('quiet_rural', 14e6, 5)).toBeUndefined();
  });
  test('parts add as powers, rough ones are marked, and nothing is claimed outside the stated range', () => {
    const low = expectedNoise('quiet_rural', 0.518e6);
    expect(low.parts.map((part) => part.origin)).toEqual(['catalogue', 'assumed']);
    expect(low.faDb).toBeGreaterThan(Math.max(...low.parts.map((part) => part.faDb)));
    const vhf = expectedNoise('quiet_rural', 137.5e6);
    expect(vhf.parts.map((part) => part.source)).toEqual(['galactic', 'warm surroundings']);
    expect(vhf.remarks.join(' ')).toMatch(/not counted/);
    expect(roughAtmosphericFaDb(50e6, 'day')).toBeUndefined();
  });
});

describe('transmitters', () => {
  // Worked example: 4 kW against a dipole at 1.8 km gives 0.246 V/m, 107.8 dBµV/m, −9.0 dBm isotropic at 95.3 MHz.
  test.each([
    [91.7e6, 2000, 2500, 0.125, 102.0, -14.5],
    [95.3e6, 4000, 1800, 0.246, 107.8, -9.0],
    [104.9e6, 8000, 2500, 0.251, 108.0, -9.6],
  ])('%d Hz, %d W at %d m', (freqHz, powerW, distanceM, volts, dbuv, dbm) => {
    const field = transmitterField({ freqHz, powerW, powerKind: 'ERP', distanceM });
    expect(field.fieldVPerM).toBeCloseTo(volts, 3);
    expect(Math.abs(field.fieldDbuv - dbuv)).toBeLessThan(0.1);
    expect(Math.abs(field.isotropicDbm - dbm)).toBeLessThan(0.3);
    expect(field.caution).toBeUndefined();
  });
  // ITU-R BS.561: 1 kW EMRP gives 300 mV/m at 1 km.
  test('1 kW EMRP gives 300 mV/m at 1 km, and medium wave says what is not modelled', () => {
    const field = transmitterField({ freqHz: 909e3, powerW: 1000, powerKind: 'EMRP', distanceM: 1000 });
    expect(field.fieldVPerM).toBeCloseTo(0.3, 3);
    expect(field.caution).toMatch(/comes as a ground wave/);
    expect(transmitterField({ freqHz: 909e3, powerW: 1, powerKind: 'EIRP', distanceM: 10 }).caution).toMatch(
      /Inside λ\/2π/,
    );
  });
});
