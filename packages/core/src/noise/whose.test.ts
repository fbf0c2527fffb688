import { describe, expect, test } from '@jest/globals';
import { NOISE_TESTS, type NoiseTestId, type TestReading, testFindings, whoseNoise } from './whose';

const read = (id: NoiseTestId, fellDb: number, freqHz = 7.1e6): TestReading => ({
  ...{ test: id, freqHz, beforeDbm: -90, afterDbm: -90 - fellDb },
});
const blames = (...readings: readonly TestReading[]) => testFindings(readings).map((one) => one.blames);

describe('whose noise it is', () => {
  test('a pad of 10 dB: products fall by more, outside noise by as much, the receiver’s own by less (powers, by hand)', () => {
    // third order falls 30 dB; outside noise 10 dB over the receiver's own: 10 log(11/2) = 7.4 dB; own noise alone: 0
    expect(blames(read('pad in', 30), read('pad in', 7.4), read('pad in', 0))).toEqual([
      'overload',
      'outside',
      'receiver',
    ]);
  });
  test('a dummy at either end tells antenna, cable and receiver apart', () => {
    expect(blames(read('dummy at the receiver', 0.4))).toEqual(['receiver']);
    // 12 dB come down the cable, 11.6 of them by the antenna: the cable is clean; 5 of 12: it is not
    expect(blames(read('dummy at the receiver', 12), read('dummy at the antenna’s end', 11.6))[1]).toBe('outside');
    const [, cable] = testFindings([read('dummy at the receiver', 12), read('dummy at the antenna’s end', 5)]);
    expect(cable.blames).toBe('cable');
    expect(cable.proves).toContain('7.0 dB over the receiver');
    // another band says nothing of this one
    expect(blames(read('dummy at the receiver', 12, 3.5e6), read('dummy at the antenna’s end', 5))[1]).toBe('outside');
    expect(blames(read('dummy at the antenna’s end', 0.2))).toEqual(['cable']);
  });
  test('a remedy that brings something says how much here; one that brings less than 1 dB is none', () => {
    const { sentence } = whoseNoise([
      read('computer on battery', 3),
      read('choke on', 8),
      read('main switch off', 0.5),
    ]);
    expect(sentence).toMatch(/screen of the cable.*That brings 8\.0 dB here/);
    expect(testFindings([read('main switch off', 0.5)])[0]).not.toHaveProperty('bringsDb');
  });
  test('overload comes before every other finding; the next test is the first that was not made', () => {
    const verdict = whoseNoise([read('choke on', 8), read('pad in', 25)]);
    expect(verdict.sentence).toMatch(/made in the receiver by strong carriers/);
    expect(verdict.next).toMatch(/stop the strong carrier/);
    expect(whoseNoise([]).next).toMatch(/^the test “pad in”/);
    expect(whoseNoise([read('pad in', 10)]).next).toMatch(/^the test “dummy at the receiver”/);
    expect(whoseNoise(NOISE_TESTS.map(({ id }) => read(id, 10))).next).toMatch(/repeat the test/);
  });
  test('what was mended since, and what was heard on another band, says nothing of this noise', () => {
    // the carrier was stopped, and the same test made again: no overload any more
    const mended = whoseNoise([read('pad in', 25), read('pad in', 9.6)]);
    expect(mended.sentence).toMatch(/comes down the cable/);
    expect(mended.findings).toHaveLength(1);
    const other = whoseNoise([read('pad in', 25, 3.6e6), read('choke on', 8)]);
    expect(other.findings.map(({ test: id }) => id)).toEqual(['choke on']);
  });
  test('a noise that rose while a test was made proves nothing', () => {
    for (const { id } of NOISE_TESTS) {
      const [{ blames: whom, proves }] = testFindings([read(id, -6)]);
      expect([whom, proves]).toEqual(['nobody', expect.stringMatching(/rose by 6\.0 dB.*Make the test again/)]);
    }
  });
  test('no sentence of any test is nonsense, whatever was read', () => {
    for (const { id } of NOISE_TESTS)
      for (const fellDb of [-20, -0.5, 0, 0.9, 3, 9, 12, 60])
        for (const { proves } of testFindings([read(id, fellDb)])) expect(proves).toMatch(/^[A-Z0-9].*\.$/);
  });
});
