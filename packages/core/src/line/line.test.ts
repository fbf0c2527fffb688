import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  antennaToShack,
  attenuationDbPer100m,
  cableClass,
  chokeRejection,
  fitLineLoss,
  type LineSection,
  lossUnderSwr,
  shackToAntenna,
  swrThroughLoss,
} from './coax';
import {
  gammaOfSwr,
  impedanceOf,
  mismatchUncertainty,
  reflectionOf,
  renormalise,
  returnLossDb,
  swrOf,
} from './reflection';
import { complex, magnitude } from '../numeric/complex';
import { correctReading, solveErrorTerms } from '../sweep/calibration';

const LINE: LineSection = { impedanceOhm: 50, lengthM: 25, velocityFactor: 0.66, lossDbPer100m: 4.8, freqHz: 14.1e6 };
const passive = fc.record({
  re: fc.double({ min: 0.5, max: 5000, noNaN: true }),
  im: fc.double({ min: -5000, max: 5000, noNaN: true }),
});

describe('reflection', () => {
  // Pozar, Microwave Engineering, definitions; pocket values of return loss.
  test.each([
    [1.5, 13.98],
    [2, 9.54],
    [3, 6.02],
    [5, 3.52],
    [10, 1.74],
  ])('SWR %d has %d dB return loss', (swr, loss) => {
    expect(returnLossDb(gammaOfSwr(swr))).toBeCloseTo(loss, 2);
  });
  test('total reflection has no finite SWR', () => {
    expect(swrOf(magnitude(reflectionOf(complex(0, 30), 50)))).toBeNull();
    expect(impedanceOf(complex(1), 50)).toBeUndefined();
  });
  test('changing the reference and back changes nothing', () => {
    fc.assert(
      fc.property(passive, fc.double({ min: 5, max: 900, noNaN: true }), (z, to) => {
        const gamma = reflectionOf(z, 50);
        const back = renormalise(renormalise(gamma, 50, to), to, 50);
        expect(magnitude({ re: back.re - gamma.re, im: back.im - gamma.im })).toBeLessThan(1e-9);
      }),
      { seed: 11 },
    );
  });
  // An SWR of 1.5 on 50 Ω is anything from 1.0 to 2.25 on 75 Ω: the two extremes are 75 and 33.3 Ω.
  test('SWR alone cannot be renormalised', () => {
    expect(swrOf(magnitude(reflectionOf(complex(75), 75)))).toBeCloseTo(1, 9);
    expect(swrOf(magnitude(reflectionOf(complex(50 / 1.5), 75)))).toBeCloseTo(2.25, 9);
  });
  test('gain error between two mismatched ports', () => {
    const { maxDb, minDb } = mismatchUncertainty(0.33, 0.2); // −20 log(1 ∓ 0.066)
    expect(maxDb).toBeCloseTo(0.593, 3);
    expect(minDb).toBeCloseTo(-0.555, 3);
    expect(mismatchUncertainty(1, 1).maxDb).toBeNull();
  });
});

describe('line', () => {
  test('going to the shack and back finds the antenna again', () => {
    fc.assert(
      fc.property(passive, (z) => {
        const shack = antennaToShack(z, LINE);
        const { impedanceAntenna, physical } = shackToAntenna(shack.gammaShack, LINE);
        expect(physical).toBe(true);
        expect(Math.hypot((impedanceAntenna?.re ?? 0) - z.re, (impedanceAntenna?.im ?? 0) - z.im)).toBeLessThan(
          1e-6 * (1 + Math.hypot(z.re, z.im)) ** 2,
        );
      }),
      { seed: 12 },
    );
  });
  test('more return loss than the line can hide is called not physical', () => {
    expect(shackToAntenna(complex(0.8), { ...LINE, lossDbPer100m: 10 }).physical).toBe(false);
    expect(swrThroughLoss(10, 6)).toBeNull();
  });
  // Acceptance of the field: SWR 2.0 at the shack through 1.2 dB is 2.57 at the antenna.
  test('a lossy line makes an antenna look better than it is', () => {
    expect(swrThroughLoss(2, 1.2)).toBeCloseTo(2.57, 2);
  });
  // ARRL Antenna Book formula for total loss; 1.62 dB for SWR 2 at the shack through 1.2 dB matched loss.
  test('loss under SWR exceeds the matched loss', () => {
    const swrLoad = swrThroughLoss(2, 1.2) ?? 0;
    expect(lossUnderSwr(1.2, complex(50 * swrLoad), 50).totalLossDb).toBeCloseTo(1.62, 2);
    expect(lossUnderSwr(1.2, complex(50), 50).additionalLossDb).toBeCloseTo(0, 12);
  });
  test('the fit finds the constants that made the table, and never goes below zero', () => {
    const f = [1e6, 10e6, 100e6, 1e9];
    const fit = fitLineLoss(
      f,
      f.map((hz) => attenuationDbPer100m({ k1: 0.62, k2: 0.0062 }, hz)),
    );
    expect(fit.k1).toBeCloseTo(0.62, 9);
    expect(fit.k2).toBeCloseTo(0.0062, 9);
    const copper = fitLineLoss([10e6, 100e6], [2, 6]); // steeper than the root: k2 > 0
    expect(Math.min(copper.k1, copper.k2)).toBeGreaterThanOrEqual(0);
    const flat = fitLineLoss([10e6, 100e6], [2, 3]); // flatter than the root: k2 must stay 0
    expect(flat.k2).toBe(0);
  });
  test('a choke that is inductive can make a capacitive path worse', () => {
    const choke = { parallelOhm: 1e6, inductanceH: 9e-6, capacitanceF: 0 };
    expect(chokeRejection(choke, complex(50, -400), 7.1e6).rejectionDb).toBeLessThan(-10);
  });
  test('an unknown cable is refused by name', () => {
    expect(() => cableClass('hemp')).toThrow(/no cable class "hemp"/);
  });
});

describe('calibration', () => {
  test('three standards remove any linear one-port error', () => {
    const [a, b, c] = [complex(0.05, 0.02), complex(-0.1, 0.07), complex(0.9, 0.1)]; // directivity, source match, tracking
    const raw = (g: { re: number; im: number }) => {
      const den = complex(1 - (b.re * g.re - b.im * g.im), -(b.re * g.im + b.im * g.re));
      const num = complex(c.re * g.re - c.im * g.im, c.re * g.im + c.im * g.re);
      const size = den.re ** 2 + den.im ** 2;
      return complex(
        a.re + (num.re * den.re + num.im * den.im) / size,
        a.im + (num.im * den.re - num.re * den.im) / size,
      );
    };
    const truth = { open: complex(1), short: complex(-1), load: complex(0) };
    const terms = solveErrorTerms({ open: raw(truth.open), short: raw(truth.short), load: raw(truth.load) }, truth);
    const found = correctReading(raw(complex(0.3, -0.4)), terms);
    expect(found.re).toBeCloseTo(0.3, 12);
    expect(found.im).toBeCloseTo(-0.4, 12);
  });
  test('two standards that read alike are refused', () => {
    const same = { open: complex(0.9), short: complex(0.9), load: complex(0) };
    expect(() => solveErrorTerms(same, { open: complex(1), short: complex(1), load: complex(0) })).toThrow(
      /read the same/,
    );
  });
});
