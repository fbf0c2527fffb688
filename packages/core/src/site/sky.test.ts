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
