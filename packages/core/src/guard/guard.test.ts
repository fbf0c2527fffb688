import { describe, expect, test } from '@jest/globals';
import {
  exposureFieldVPerM,
  friisCoupling,
  leakLevel,
  meterZeroProves,
  parallelDipoleCoupling,
  rampUp,
  switchingExposure,
} from './coupling';

describe('levels while transmitting', () => {
  // Worked example: 100 W behind 62 dB leave −12 dBm, 12 dB below a limit of 0 dBm.
  test('100 W behind 62 dB', () => {
    expect(leakLevel(100, 62, 0)).toMatchObject({ leakDbm: -12, marginDb: 12, safe: true });
  });
  test('a wattmeter at zero proves its resolution only', () => {
    const proof = meterZeroProves(100, 0.1);
    expect(proof.isolationAtLeastDb).toBeCloseTo(30, 9);
    expect(proof.receiverCouldSeeDbm).toBeCloseTo(20, 9);
    expect(meterZeroProves(0.05, 0.1)).toMatchObject({ isolationAtLeastDb: 0 }); // a power below the step proves nothing
  });
  test('exposure reminder: 100 W, half-wave dipole, 10 m: 7.0 V/m', () => {
    expect(exposureFieldVPerM(100, 2.15, 10)).toBeCloseTo(7, 1);
  });
});

describe('timing', () => {
  const timing = {
    mode: 'rf_sense',
    rfDelayS: 0,
    senseDelayS: 0.002,
    switchS: 0.01,
    rfTailS: 0,
    releaseS: 0.3,
  } as const;
  test('RF sensing is always hot for sense and switch time, a key line with enough lead never', () => {
    // 100 W through 3.5 dB for 12 ms: 0.54 J (worked example)
    expect(switchingExposure(timing, 100, 3.5).energyJ).toBeCloseTo(0.536, 3);
    expect(switchingExposure({ ...timing, mode: 'key_line', rfDelayS: 0.015 }, 100, 3.5)).toMatchObject({
      hotStartS: 0,
      energyJ: 0,
      safeSequence: true,
    });
  });
});

describe('coupling', () => {
  // Worked example: 14.2 MHz, 25 m, 2.15 and −3 dBi, 100 W: 23.45 dB loss, +25.7 dBm.
  test('second antenna in the far field', () => {
    const result = friisCoupling({
      freqHz: 14.2e6,
      distanceM: 25,
      transmitGainDbi: 2.15,
      receiveGainDbi: -3,
      powerW: 100,
      apertureM: 10.5,
    });
    expect(result.pathLossDb).toBeCloseTo(23.45, 2);
    expect(result.receivedDbm).toBeCloseTo(25.7, 1);
    expect(result.valid).toBe(true);
    expect(
      friisCoupling({
        freqHz: 14.2e6,
        distanceM: 3,
        transmitGainDbi: 2.15,
        receiveGainDbi: 2.15,
        powerW: 100,
        apertureM: 0,
      }).valid,
    ).toBe(false);
  });
  // Induced EMF against Friis: −4.7 dB at 0.1 λ where Friis would exceed 0 dB; equal from 5 λ.
  test.each([
    [0.1, -4.7],
    [0.25, -9.1],
    [1, -18.2],
    [5, -31.7],
  ])('parallel dipoles %d wavelengths apart couple %d dB', (wavelengths, db) => {
    const lambda = 299_792_458 / 14e6;
    expect(parallelDipoleCoupling(14e6, wavelengths * lambda, 100).couplingDb).toBeCloseTo(db, 1);
  });
});

test('a ramp test extrapolates dB for dB, flags readings in the background, and lets the worst band rule', () => {
  const result = rampUp({
    testW: 1,
    fullW: 100,
    limitDbm: 0,
    limiterDbm: 5,
    bands: [
      { name: '40 m', readingDbm: -30, backgroundDbm: -90 },
      { name: '20 m', readingDbm: -25, backgroundDbm: -26 },
      { name: '10 m', readingDbm: -50, backgroundDbm: -49 },
    ],
  });
  expect(result.bands.map((band) => band.valid)).toEqual([true, false, false]);
  expect(result.bands[0].predictedDbm).toBeCloseTo(-10, 5);
  expect(result.bands[2].predictedDbm).toBeNull();
  expect(result.worstBand).toBe('40 m');
});
