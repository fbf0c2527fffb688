import { describe, expect, test } from '@jest/globals';
import { OutOfRangeError } from '../errors';
import { biasTee, diodeLimiter, minimumLossPad, resistiveSplitter, symmetricPad, wilkinson } from './pads';

const parallel = (a: number, b: number): number => (a * b) / (a + b);

describe('pads and splitters', () => {
  // Source: handbook pad tables for 50 Ω (from memory): 3 dB 8.55/141.9, 6 dB 16.61/66.93, 10 dB 25.97/35.14, 20 dB 40.91/10.10.
  test.each([
    [3, 8.55, 141.9],
    [6, 16.61, 66.93],
    [10, 25.97, 35.14],
    [20, 40.91, 10.1],
  ])('%i dB T pad', (lossDb, series, shunt) => {
    const pad = symmetricPad(lossDb, 50);
    expect(pad.teeSeriesOhm).toBeCloseTo(series, 1);
    expect(pad.teeShuntOhm).toBeCloseTo(shunt, 1);
    // both forms look like 50 Ω into 50 Ω, and the shares with what arrives make the whole power
    expect(pad.teeSeriesOhm + parallel(pad.teeShuntOhm, pad.teeSeriesOhm + 50)).toBeCloseTo(50, 9);
    expect(parallel(pad.piShuntOhm, pad.piSeriesOhm + parallel(pad.piShuntOhm, 50))).toBeCloseTo(50, 9);
    expect(pad.teePowers.reduce((sum, one) => sum + one, 10 ** (-lossDb / 10))).toBeCloseTo(1, 9);
  });
  // Source: textbook value 43.3 / 86.6 Ω, 5.72 dB.
  test('least loss from 75 to 50 Ω, matched on both sides', () => {
    const pad = minimumLossPad(75, 50);
    expect(pad.seriesOhm).toBeCloseTo(43.3, 1);
    expect(pad.shuntOhm).toBeCloseTo(86.6, 1);
    expect(pad.lossDb).toBeCloseTo(5.72, 2);
    expect(parallel(pad.shuntOhm, pad.seriesOhm + 75)).toBeCloseTo(50, 9);
    expect(() => minimumLossPad(50, 75)).toThrow('Exchange the two');
  });
  // Source: textbook: Z₀/3 in each leg of a three-port star, 6.02 dB between any two.
  test('a star of resistors: half the voltage to each, more to one when the other is open', () => {
    const star = resistiveSplitter(2, 50);
    expect(star.ohm).toBeCloseTo(50 / 3, 9);
    expect(star.lossDb).toBeCloseTo(6.02, 2);
    // other open: 100/3 Ω more in the way of 50 Ω to 50 Ω: 20 log(1 + (100/3)/100)
    expect(star.otherOpenDb).toBeCloseTo(20 * Math.log10(4 / 3), 9);
    expect(star.otherShortDb).toBeGreaterThan(star.lossDb);
  });
  // Source: Wilkinson 1960: at the middle matched on all ports, isolated, 3.01 dB. Its arms are √2·Z₀, so at even multiples it is no divider.
  test('a Wilkinson is perfect at its middle and symmetric about it', () => {
    const middle = wilkinson(100e6, 100e6);
    expect(middle.lossDb).toBeCloseTo(3.0103, 4);
    expect(middle.isolationDb === null || middle.isolationDb > 200).toBe(true);
    const [low, high] = [wilkinson(100e6, 70e6), wilkinson(100e6, 130e6)];
    expect(low.isolationDb).toBeCloseTo(high.isolationDb ?? 0, 6);
    expect(low.inputReturnLossDb).toBeCloseTo(high.inputReturnLossDb ?? 0, 6);
    expect(() => wilkinson(0, 1)).toThrow(OutOfRangeError);
  });
});

describe('bias and limiting', () => {
  const tee = { lineOhm: 50, freqHz: 30e6, henry: 100e-6, farad: 100e-9, ampere: 0.15, chokeOhm: 1, cableOhm: 2 };
  // Source: R/(2πL) with both 50 Ω ends across the choke, 1/(2πRC) with both in series.
  test('a bias tee has its corners and drops by Ohm’s law', () => {
    const result = biasTee(tee);
    expect(result.chokeCornerHz).toBeCloseTo(39_789, 0);
    expect(result.capacitorCornerHz).toBeCloseTo(15_915, 0);
    expect(result.dropV).toBeCloseTo(0.45, 9);
    expect(result.lossDb).toBeLessThan(1e-4);
    // at the corner of a choke alone (a large capacitor) the loss is 3.01 dB
    expect(biasTee({ ...tee, farad: 1, freqHz: result.chokeCornerHz }).lossDb).toBeCloseTo(3.0103, 3);
  });
  // Limits of any clipper: nothing at a small level; a square wave (third harmonic 1/3, −9.54 dB; fundamental 4/π of its height) at a great one.
  test('a diode limiter passes what is weak and squares what is strong', () => {
    const diode = { saturationA: 2.5e-9, emission: 1.75, perLeg: 1, lineOhm: 50 };
    const weak = diodeLimiter({ ...diode, availableDbm: -40 });
    expect(weak.lossDb).toBeLessThan(0.001);
    const strong = diodeLimiter({ ...diode, availableDbm: 60 });
    expect(strong.thirdDbc).toBeGreaterThan(-11);
    expect(strong.thirdDbc).toBeLessThan(-9.5);
    const square = 10 * Math.log10((((4 / Math.PI) * strong.peakV) ** 2 / 100) * 1000);
    expect(Math.abs(strong.outDbm - square)).toBeLessThan(0.6);
    // two diodes in each leg let twice the voltage by
    const two = diodeLimiter({ ...diode, perLeg: 2, availableDbm: 40 });
    expect(two.outDbm - diodeLimiter({ ...diode, availableDbm: 40 }).outDbm).toBeCloseTo(6, 0);
  });
});
