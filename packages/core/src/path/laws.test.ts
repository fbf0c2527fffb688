import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { diodeLimiter } from './pads';
import { analyseBands, analysePath } from './plan';
import type { PathQuestion, PathReceiver, PathSignal } from './question';
import { converter as converterKind } from './kinds/converter';
import { stageValues } from './stage-values';
import { frequenciesAlong, gainsAlong, type PathStage, stageGainDb } from './stages';
import { noisePowerDbm } from '../site/external-noise';

const receiver: PathReceiver = {
  ...{ name: 'receiver', noiseFigureDb: 8, iip2Dbm: 45, iip3Dbm: 5, fullScaleDbm: -5, bits: 16 },
  ...{ sampleRateHz: 100e6, complexSamples: false, minHz: 1e5, maxHz: 60e6 },
};
const signals: readonly PathSignal[] = [
  { name: 'a', freqHz: 0.9e6, levelDbm: -25 },
  { name: 'b', freqHz: 6.1e6, levelDbm: -30 },
  { name: 'c', freqHz: 95.3e6, levelDbm: -12 },
  { name: 'd', freqHz: 104.9e6, levelDbm: -14 },
];
const question: PathQuestion = { lowHz: 9.5e6, highHz: 9.7e6, bandwidthHz: 2500, externalFaDb: 40, signals };

const line: fc.Arbitrary<PathStage> = fc
  .double({ min: 1, max: 60, noNaN: true })
  .map((lengthM) => ({ kind: 'line', name: 'line', cable: { k1: 1.3, k2: 0.03 }, lengthM }));
const pad: fc.Arbitrary<PathStage> = fc
  .double({ min: 0, max: 20, noNaN: true })
  .map((lossDb) => ({ kind: 'pad', name: 'pad', lossDb }));
const filter: fc.Arbitrary<PathStage> = fc
  .record({ edge: fc.double({ min: 12e6, max: 80e6, noNaN: true }), order: fc.integer({ min: 2, max: 7 }) })
  .map(({ edge, order }) => ({
    ...{ kind: 'filter', name: 'filter' },
    filter: { shape: 'lowpass', family: 'butterworth', order, rippleDb: 0.1, edgeHighHz: edge, insertionLossDb: 0.3 },
  }));
const amplifier: fc.Arbitrary<PathStage> = fc
  .record({
    gainDb: fc.double({ min: 3, max: 25, noNaN: true }),
    noiseFigureDb: fc.double({ min: 0.5, max: 9, noNaN: true }),
    iip3Dbm: fc.double({ min: -10, max: 25, noNaN: true }),
  })
  .map((figures) => ({ kind: 'amplifier', name: 'amplifier', iip2Dbm: 40, ...figures }));
const chain = fc.array(fc.oneof(line, pad, filter, amplifier), { maxLength: 7 });
const RUNS = { numRuns: 60 };

/** What a listener would notice of a chain. */
const heard = (stages: readonly PathStage[]) => {
  const { gainDb, noiseFigureDb, snrLossDb, snrLossWithProductsDb, totalDbm, worstProduct } = analysePath(
    stages,
    receiver,
    question,
  );
  return [gainDb, noiseFigureDb, snrLossDb, snrLossWithProductsDb, totalDbm ?? 0, worstProduct?.antennaDbm ?? 0];
};
const alike = (a: readonly number[], b: readonly number[]): void => {
  a.forEach((value, i) => expect(value).toBeCloseTo(b[i], 6));
};

describe('laws of chains', () => {
  test('a pad of 0 dB anywhere changes nothing', () => {
    fc.assert(
      fc.property(chain, fc.nat(7), (stages, where) => {
        const at = Math.min(where, stages.length);
        alike(
          heard([...stages.slice(0, at), { kind: 'pad', name: '0', lossDb: 0 }, ...stages.slice(at)]),
          heard(stages),
        );
      }),
      RUNS,
    );
  });
  test('two halves of a line are the line, two pads their sum (losses add, and so does their noise at 290 K)', () => {
    fc.assert(
      fc.property(chain, line, (stages, whole) => {
        if (whole.kind !== 'line') return;
        const half = { ...whole, lengthM: whole.lengthM / 2 };
        alike(heard([...stages, half, half]), heard([...stages, whole]));
      }),
      RUNS,
    );
  });
  test('passive stages side by side commute', () => {
    fc.assert(
      fc.property(chain, filter, line, chain, (ahead, one, other, behind) => {
        alike(heard([...ahead, one, other, ...behind]), heard([...ahead, other, one, ...behind]));
      }),
      RUNS,
    );
  });
  test('a stage more is never less noise; a loss ahead costs its own size at most', () => {
    fc.assert(
      fc.property(chain, pad, (stages, loss) => {
        const [, bare] = heard(stages);
        const [, behind] = heard([loss, ...stages]);
        const lossDb = loss.kind === 'pad' ? loss.lossDb : 0;
        // Friis: a matched loss at 290 K ahead of everything adds its decibels to the noise figure, exactly
        expect(behind - bare).toBeCloseTo(lossDb, 6);
      }),
      RUNS,
    );
  });
  test('shares of the noise sum to one; the noise at the receiver is that of the whole chain', () => {
    fc.assert(
      fc.property(chain, (stages) => {
        const found = analysePath(stages, receiver, question);
        expect(found.reports.reduce((sum, { noiseShare }) => sum + noiseShare, 0)).toBeCloseTo(1, 6);
        const last = found.reports[found.reports.length - 1];
        // what reaches the receiver, and what it adds itself, referred to the antenna, is the system's noise
        const system = 10 ** ((noisePowerDbm(question.externalFaDb + found.snrLossDb, 2500) + found.gainDb) / 10);
        const own = 10 ** ((noisePowerDbm(0, 2500) + 10 * Math.log10(10 ** 0.8 - 1)) / 10);
        expect(10 * Math.log10(10 ** (last.noiseDbm / 10) + own)).toBeCloseTo(10 * Math.log10(system), 4);
      }),
      RUNS,
    );
  });
  test('several bands at once are the bands one by one', () => {
    fc.assert(
      fc.property(chain, (stages) => {
        const bands = [question, { ...question, lowHz: 3e6, highHz: 3.1e6 }];
        const together = analyseBands(stages, receiver, bands, signals);
        expect(together).toEqual(bands.map((band) => analysePath(stages, receiver, { ...band, signals })));
      }),
      { numRuns: 20 },
    );
  });
  test('carriers 1 dB stronger make products 2 or 3 dB stronger (power series)', () => {
    fc.assert(
      fc.property(chain, (stages) => {
        const louder = signals.map((one) => ({ ...one, levelDbm: one.levelDbm + 1 }));
        const [now, then] = [question, { ...question, signals: louder }].map(
          (one) => analysePath(stages, receiver, one).worstProduct,
        );
        if (!now || !then || now.label !== then.label) return;
        const order = /^2f1|^3f/.test(now.label) ? 3 : 2;
        expect(then.antennaDbm - now.antennaDbm).toBeCloseTo(order, 6);
      }),
      RUNS,
    );
  });
});

describe('laws of conversion', () => {
  // intercepts as far away as to be none
  const active = { gainDb: 0, noiseFigureDb: 0, iip2Dbm: 1000, iip3Dbm: 1000 };
  const converter = (oscillatorHz: number, mixing: 'above' | 'below' | 'sum'): PathStage =>
    converterKind.stage({
      ...{ ...stageValues('c'), ...active, choices: { mixing } },
      figures: { oscillatorHz, imageRejectionDb: 0 },
    });
  test('up and down again is where it began, with the same gain on the way', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1e6, max: 30e6, noNaN: true }),
        fc.double({ min: 100e6, max: 400e6, noNaN: true }),
        (freqHz, lo) => {
          const there = [converter(lo, 'sum'), converter(lo, 'above')];
          expect(frequenciesAlong(there, freqHz)[2]).toBeCloseTo(freqHz, 3);
          expect(gainsAlong(there, freqHz)).toEqual([0, 0]);
        },
      ),
      RUNS,
    );
  });
  test('without gain, noise and distortion of its own a converter up and one down change nothing', () => {
    fc.assert(
      fc.property(chain, (stages) => {
        alike(heard([converter(120e6, 'sum'), converter(120e6, 'above'), ...stages]), heard(stages));
      }),
      { numRuns: 30 },
    );
  });
  test('a mirrored band and its mirror are the band', () => {
    fc.assert(
      fc.property(chain, (stages) => {
        alike(heard([converter(1e9, 'below'), converter(1e9, 'below'), ...stages]), heard(stages));
      }),
      { numRuns: 30 },
    );
  });
});

describe('limiter and feed by closed forms', () => {
  test('the third harmonic of faint signals follows the cubic term of the hyperbolic sine', () => {
    // i = 2·Is·sinh(v/Vt): v³ term Is/(3·Vt³); across 25 Ω the harmonic is 25·Is·A²/(12·Vt³) of the carrier (series of Shockley's equation, by hand)
    const vt = (1.75 * 1.380649e-23 * 300.15) / 1.602176634e-19;
    for (const share of [0.05, 0.1, 0.2]) {
      const peakV = share * vt;
      const availableDbm = 10 * Math.log10(((peakV * peakV) / 100) * 1000);
      const found = diodeLimiter({ availableDbm, saturationA: 1e-6, emission: 1.75, perLeg: 1, lineOhm: 50 });
      const expected = 20 * Math.log10((25 * 1e-6 * peakV * peakV) / (12 * vt ** 3));
      expect(found.thirdDbc).toBeCloseTo(expected, 0);
    }
  });
  test('a bias feed is 3.01 dB down at the corner of its capacitor when the choke is out of the way (high-pass of the first order)', () => {
    // 1/(2π·2·50 Ω·C): 100 nF gives 15.9 kHz; the choke of 1 H is far above 25 Ω there
    const cornerHz = 1 / (2 * Math.PI * 100 * 100e-9);
    expect(stageGainDb({ kind: 'bias feed', name: 'f', henry: 1, farad: 100e-9 }, cornerHz)).toBeCloseTo(-3.01, 2);
  });
});
