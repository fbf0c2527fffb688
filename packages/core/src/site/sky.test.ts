import { converterChain } from '../path/converter';
import { expectedNoise } from './external-noise';
import { skyTemperatureK, surroundings } from './sky-temperature';
import { describe, expect, test } from '@jest/globals';
import { satellitePasses } from './passes';
import { horizonAt, readHorizon } from './horizon';
import { clearSeconds, ratingsByHeight, skyTrack, wholePictures } from './sky';

/** A made-up polar orbit. */
const ELEMENTS = {
  name: 'made-up',
  line1: '1 90001U 26001A   26330.50000000  .00000000  00000-0  00000-0 0  9998',
  line2: '2 90001  98.7000  20.0000 0010000  90.0000 270.0000 14.20000000  1005',
};
const SITE = { latDeg: 54, lonDeg: 7 };
const FROM = Date.UTC(2026, 10, 26, 12);

describe('whole pictures', () => {
  // worked example: pictures of 126 s, pauses of 210 s, 600 s in view: at least one, two with 41 %
  test('the chance of one more is the fraction of a round', () => {
    const found = wholePictures(600, 126, 210);
    expect(found.least).toBe(1);
    expect(found.chanceOfMore).toBeCloseTo(0.4107, 3);
    expect(wholePictures(100, 126, 210)).toEqual({ least: 0, chanceOfMore: 0 });
  });
  test('counting them at every second of the round gives the same', () => {
    for (const [windowS, pictureS, pauseS] of [
      [600, 126, 210],
      [900, 100, 30],
      [200, 126, 210],
    ]) {
      const round = pictureS + pauseS;
      let more = 0;
      const { least, chanceOfMore } = wholePictures(windowS, pictureS, pauseS);
      for (let phase = 0; phase < round; phase += 1) {
        let whole = 0;
        for (let start = phase - round; start < windowS; start += round)
          if (start >= 0 && start + pictureS <= windowS) whole += 1;
        expect(whole - least === 0 || whole - least === 1).toBe(true);
        if (whole > least) more += 1;
      }
      expect(Math.abs(more / round - chanceOfMore)).toBeLessThan(2 / round);
    }
    expect(() => wholePictures(600, 0, 10)).toThrow('Time of a picture');
  });
});

describe('horizon', () => {
  test('it runs straight between its points, across north too', () => {
    const points = readHorizon('0 5, 90 15, 270: 25°');
    expect([0, 45, 90, 180, 315].map((azimuth) => horizonAt(points, azimuth))).toEqual([5, 10, 15, 20, 15]);
    expect(horizonAt([], 77)).toBe(0);
    expect(horizonAt(readHorizon('120 9'), 300)).toBe(9);
  });
  test('what is no direction with its height is refused', () => {
    for (const text of ['north 5', '400 5', '10', '10 95'])
      expect(() => readHorizon(text)).toThrow('azimuth and elevation');
  });
});

describe('ratings', () => {
  test('low and high passes are told apart; one sort alone says nothing', () => {
    const of = (highestDeg: number, rating: number) => ({ highestDeg, rating });
    expect(ratingsByHeight([of(10, 1), of(29, 2), of(30, 4), of(80, 5)])).toEqual({
      low: { count: 2, mean: 1.5 },
      high: { count: 2, mean: 4.5 },
    });
    expect(ratingsByHeight([of(10, 1)])).toBeUndefined();
  });
});

describe('sky track', () => {
  const [pass] = satellitePasses(ELEMENTS, SITE, { fromMs: FROM, toMs: FROM + 86_400_000, leastDeg: 10 });
  test('it begins and ends at the pass’s own edges, and its Doppler passes through zero near the top', () => {
    const track = skyTrack(ELEMENTS, SITE, pass);
    expect(track[0].elevationDeg).toBeCloseTo(10, 1);
    expect(track[track.length - 1].elevationDeg).toBeCloseTo(10, 1);
    expect(track[0].azimuthDeg).toBeCloseTo(pass.riseAzimuthDeg, 1);
    expect(track[0].dopplerRatio).toBeCloseTo(pass.riseDopplerRatio, 9);
    const top = track.reduce((best, one) => (one.elevationDeg > best.elevationDeg ? one : best));
    expect(Math.abs(top.atMs - pass.highestMs)).toBeLessThan((pass.setMs - pass.riseMs) / 50);
    expect(Math.abs(top.dopplerRatio)).toBeLessThan(Math.abs(track[0].dopplerRatio) / 4);
    expect(clearSeconds(track)).toBeCloseTo((pass.setMs - pass.riseMs) / 1000, 0);
  });
  test('a horizon hides what lies under it', () => {
    const half = skyTrack(ELEMENTS, SITE, pass, readHorizon('0 20'));
    expect(half[0].clear).toBe(false);
    expect(clearSeconds(half)).toBeLessThan((pass.setMs - pass.riseMs) / 1000);
    expect(clearSeconds(skyTrack(ELEMENTS, SITE, pass, readHorizon('0 89')))).toBe(0);
  });
});

describe('temperature of the sky', () => {
  // Penzias and Wilson, Astrophysical Journal 142 (1965) 419: 2.3 ± 0.3 K of atmosphere straight up at 4.08 GHz
  test('air straight up at 4 GHz gives the 2.3 K that were measured, within 0.7 K', () => {
    expect(Math.abs(skyTemperatureK(4.08e9, 90) - 2.7 - 2.3)).toBeLessThan(0.7);
  });
  // brightness curves of ITU-R P.372 for 7.5 g/m³, from memory: a fifth or 5 K
  test.each([
    [12e9, 90, 6],
    [12e9, 10, 25],
    [12e9, 5, 45],
    [4e9, 5, 30],
    [20e9, 90, 20],
    [30e9, 90, 18],
  ])('%d Hz at %d degrees: about %d K', (freqHz, elevationDeg, kelvin) => {
    expect(Math.abs(skyTemperatureK(freqHz, elevationDeg) - kelvin)).toBeLessThan(Math.max(5, kelvin / 5));
  });
  test('a lower look is never colder, an opaque sky is as warm as the air, and the line of vapour stands out at 22 GHz', () => {
    for (let mhz = 300; mhz <= 30_000; mhz += 150)
      for (let deg = 1; deg <= 90; deg += 1)
        expect(skyTemperatureK(mhz * 1e6, deg - 1)).toBeGreaterThanOrEqual(skyTemperatureK(mhz * 1e6, deg));
    expect(skyTemperatureK(30e9, 0)).toBeLessThan(275);
    expect(skyTemperatureK(22.2e9, 90)).toBeGreaterThan(1.5 * skyTemperatureK(19e9, 90));
  });
  // by hand: 0.65 · 290 K and 0.35 of some 6 K; a tenth of 290 K and 0.9 of 10 K
  test('a low antenna sees mostly warm earth, a dish a tenth of it; Path, Outside noise and Converter count the same', () => {
    expect(Math.abs(surroundings(435e6).antennaK - 190.6)).toBeLessThan(2);
    expect(surroundings(12e9, { elevationDeg: 30 }).antennaK).toBeCloseTo(38.3, 0);
    // what lies under 5 degrees is no sky that anybody aims at
    expect(surroundings(12e9, { elevationDeg: 1 })).toEqual(surroundings(12e9, {}));
    const { faDb } = expectedNoise('quiet_rural', 11e9, 0, { seesSky: true, elevationDeg: 30 });
    const chain = converterChain({
      ...{ rfHz: 11e9, oscillatorHz: 9.75e9, oscillatorPpm: 0, gainDb: 60, noiseFigureDb: 0.5 },
      ...{ padDb: 20, receiverNoiseFigureDb: 6, elevationDeg: 30, environment: 'quiet_rural' },
    });
    expect(chain.antennaK).toBeCloseTo(290 * 10 ** (faDb / 10), 6);
    // 0.502 dB are 35.5 K: 10 log((37.8 + 35.5) / 37.8) = 2.9 dB, where "32 dB lost" was said of a sound dish
    expect(chain.snrLossDb).toBeCloseTo(2.9, 1);
    expect(expectedNoise('city', 11e9, 0, { seesSky: true }).faDb).toBeGreaterThan(-9.5);
  });
});
