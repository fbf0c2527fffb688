import { describe, expect, test } from '@jest/globals';
import { filterLossDb, type FilterSpec } from '../filter/response';
import { activeStage, cascadeIntercepts, cascadeNoiseFactor, InvalidStageError, passiveStage } from './cascade';
import { intermodAtAntenna, productsInBand } from './intermod';
import { analysePath } from './plan';
import type { PathReceiver } from './question';
import {
  amplifierAdvice,
  attenuatorTest,
  converterFloor,
  foldAlias,
  directInput,
  fullScaleHeadroom,
  noiseRise,
  requiredPreampGain,
} from './receiver';
import { type PathStage, stageGainDb } from './stages';
import { powerDb, powerRatio } from '../units/decibel';

describe('cascade', () => {
  // Worked chain: filter −1 dB, amplifier 20 dB / 0.8 dB, line −6.5 dB, receiver 7.5 dB: 2.59 dB at the mast, 8.46 in the shack, 14.0 without.
  const [filter, amplifier, line, receiver] = [
    passiveStage(1),
    activeStage(20, 0.8),
    passiveStage(6.5),
    activeStage(0, 7.5),
  ];
  test.each([
    ['at the mast', [filter, amplifier, line, receiver], 2.59],
    ['amplifier before the filter', [amplifier, filter, line, receiver], 1.79],
    ['in the shack', [line, filter, amplifier, receiver], 8.46],
    ['without', [line, receiver], 14.0],
  ])('%s', (_, stages, figure) => {
    expect(Math.abs(powerDb(cascadeNoiseFactor(stages)) - figure)).toBeLessThan(0.06);
  });
  test('an empty chain adds nothing; impossible stages are named', () => {
    expect(cascadeNoiseFactor([])).toBe(1);
    expect(() => cascadeNoiseFactor([amplifier, { gain: 0, noiseFactor: 1 }])).toThrow(InvalidStageError);
    expect(() => cascadeNoiseFactor([{ gain: 1, noiseFactor: 0.5 }])).toThrow(
      /Stage 1: its noise figure is below 0 dB/,
    );
  });
  test('a loss costs its dB once, also for the intercept ahead of it', () => {
    // Published example of the field: +8 dBm amplifier behind 1 dB and −5 dBm receiver behind 1 − 20 + 6.5 dB give −17.5 dBm.
    const sum = cascadeIntercepts([
      { gainDb: -1 },
      { gainDb: 20, iip3Dbm: 8 },
      { gainDb: -6.5 },
      { gainDb: 0, iip3Dbm: -5 },
    ]);
    expect(Math.abs((sum.iip3CoherentDbm ?? 0) + 17.5)).toBeLessThan(0.06);
    expect(cascadeIntercepts([{ gainDb: 3 }]).iip3CoherentDbm).toBeNull();
  });
});

describe('products', () => {
  const amplifier = { gainF1Db: 20, gainF2Db: 20, gainProductDb: 20, iip2Dbm: 35 };
  test('a filter ahead removes a second-order product twice, behind not at all', () => {
    const filter = { gainF1Db: -40, gainF2Db: -40, gainProductDb: 0 };
    const plain = intermodAtAntenna(2, -21, -21.6, [amplifier]).coherentDbm ?? 0;
    expect(plain).toBeCloseTo(-77.6, 1); // worked example: 104.9 − 95.3 MHz at −21.0 and −21.6 dBm
    expect((intermodAtAntenna(2, -21, -21.6, [filter, amplifier]).coherentDbm ?? 0) - plain).toBeCloseTo(-80, 9);
    expect((intermodAtAntenna(2, -21, -21.6, [amplifier, filter]).coherentDbm ?? 0) - plain).toBeCloseTo(0, 9);
  });
  test('the pair that makes 9.6 MHz from three FM stations is 104.9 − 95.3', () => {
    const found = productsInBand([91.7e6, 95.3e6, 104.9e6], 9.5e6, 9.7e6);
    expect(found).toHaveLength(1);
    expect(found[0]).toMatchObject({ order: 2, label: 'f2−f1', first: 1, second: 2 });
  });
  test('harmonics and third-order products are found with their order', () => {
    expect(productsInBand([3.2e6, 5e6], 1.3e6, 1.5e6).map((one) => one.label)).toEqual(['2f1−f2']);
    expect(productsInBand([3.2e6], 9.5e6, 9.7e6)).toMatchObject([{ label: '3f', order: 3, offsetDb: -9.5424 }]);
  });
});

describe('filters', () => {
  const lowpass: FilterSpec = {
    shape: 'lowpass',
    family: 'chebyshev',
    order: 5,
    rippleDb: 0.1,
    edgeHighHz: 30e6,
    insertionLossDb: 0,
  };
  // Matthaei, Young & Jones ch. 4; worked example: 56.8 dB at 95.3 MHz, 61.2 dB at 104.9 MHz.
  test('five poles of 0.1 dB at 30 MHz', () => {
    expect(filterLossDb(lowpass, 95.3e6)).toBeCloseTo(56.8, 1);
    expect(filterLossDb(lowpass, 104.9e6)).toBeCloseTo(61.2, 1);
    expect(filterLossDb(lowpass, 30e6)).toBeCloseTo(0.1, 9); // the edge is the ripple point, not 3 dB
  });
  test('a Butterworth edge is 3.01 dB, and a high-pass mirrors a low-pass', () => {
    const butterworth: FilterSpec = { ...lowpass, family: 'butterworth' };
    expect(filterLossDb(butterworth, 30e6)).toBeCloseTo(3.0103, 4);
    expect(filterLossDb({ ...butterworth, shape: 'highpass', edgeLowHz: 30e6 }, 15e6)).toBeCloseTo(
      filterLossDb(butterworth, 60e6),
      9,
    );
  });
  test('a band-pass is symmetric about its geometric mean', () => {
    const band: FilterSpec = { ...lowpass, shape: 'bandpass', edgeLowHz: 88e6, edgeHighHz: 108e6 };
    const centre = Math.sqrt(88e6 * 108e6);
    expect(filterLossDb(band, centre * 1.3)).toBeCloseTo(filterLossDb(band, centre / 1.3), 9);
    expect(filterLossDb({ ...band, shape: 'bandstop' }, centre)).toBe(80);
    expect(() => filterLossDb({ ...band, edgeLowHz: 200e6 }, centre)).toThrow(/Exchange the two/);
  });
});

describe('receiver', () => {
  // Bennett: 6.02 N + 1.76 dB.
  test.each([
    [8, 49.9],
    [12, 74],
    [24, 146.2],
  ])('%d bits give %d dB', (bits, snr) => {
    // 6.02 and 1.76 are rounded in the source: 24 bits differ by 0.02
    expect(
      Math.abs(converterFloor({ bits, fullScaleDbm: 0, sampleRateHz: 2e6, bandwidthHz: 200 }).snrDb - snr),
    ).toBeLessThan(0.07);
  });
  test('10.8 effective bits at 2 MS/s in 200 Hz reach −103.8 dB below full scale; I and Q samples 3 dB more', () => {
    const real = converterFloor({ bits: 10.8, fullScaleDbm: 0, sampleRateHz: 2e6, bandwidthHz: 200 });
    expect(real.mdsDbm).toBeCloseTo(-103.8, 1);
    expect(
      converterFloor({ bits: 10.8, fullScaleDbm: 0, sampleRateHz: 2e6, bandwidthHz: 200, complexSamples: true }).mdsDbm,
    ).toBeCloseTo(real.mdsDbm - 3.01, 2);
  });
  test('21.7 MHz at 28.8 MS/s appears mirrored at 7.1 MHz; the edge itself is undefined', () => {
    expect(foldAlias(21.7e6, 28.8e6, 50e6)).toMatchObject({ zone: 2, mirrored: true });
    expect(foldAlias(21.7e6, 28.8e6, 50e6).appearsAtHz).toBeCloseTo(7.1e6, 3);
    expect(foldAlias(14.4e6, 28.8e6, 50e6).appearsAtHz).toBeUndefined();
    expect(foldAlias(14.1e6, 28.8e6, 43e6).sameBinHz.map((hz) => Math.round(hz / 1e5) / 10)).toEqual([
      14.1, 14.7, 42.9,
    ]);
  });
  // k = 4 standard deviations: 6.3e-5 of the samples clip when the total is 9.0 dB below full scale.
  test('Gaussian sums clip by their peaks, not by their power', () => {
    const many = fullScaleHeadroom(
      Array.from({ length: 100 }, () => -29.03),
      0,
    );
    expect(many.totalDbm).toBeCloseTo(-9.03, 2);
    expect(many.clippedFraction).toBeCloseTo(6.3e-5, 6);
    expect(fullScaleHeadroom([], 0).totalDbm).toBeNull();
  });
  test.each([
    [10, 'real'],
    [20, 'second_order'],
    [30, 'third_order'],
    [0, 'internal_or_after_attenuator'],
    [15, 'mixed'],
    [40, 'higher_order'],
    [34, 'higher_order'],
  ])('a spur that falls %d dB behind a 10 dB pad is %s', (drop, verdict) => {
    expect(attenuatorTest(-61, -61 - drop, 10).verdict).toBe(verdict);
  });
  test.each([
    [10, 0.46],
    [2, 4.33],
    [20, 0.04],
  ])('a rise of %d dB costs %d dB of SNR', (rise, loss) => {
    expect(noiseRise(rise).snrLossDb).toBeCloseTo(loss, 2);
  });
  test('no rise says nothing, and the advice follows the rise', () => {
    expect(noiseRise(0)).toMatchObject({ snrLossDb: null, externalOverInternalDb: null, externalLimited: false });
    expect([12, 5, 1].map(amplifierAdvice)).toEqual(['none_needed', 'little', 'at_antenna_helps']);
  });
  test('an amplifier that is noisier than allowed is called impossible', () => {
    const hopeless = requiredPreampGain({
      externalFaDb: 3,
      lossBeforeDb: 6,
      preampNoiseFigureDb: 8,
      cableLossDb: 3,
      receiverNoiseFigureDb: 10,
      limitDb: 0.5,
    });
    expect(hopeless).toMatchObject({ needed: true, possible: false, minGainDb: null });
  });
});

describe('a path in two orders', () => {
  const amplifier: PathStage = {
    kind: 'amplifier',
    name: 'amplifier',
    gainDb: 20,
    noiseFigureDb: 2,
    iip2Dbm: 35,
    iip3Dbm: 10,
  };
  const filter: PathStage = {
    kind: 'filter',
    name: 'low-pass',
    filter: { shape: 'lowpass', family: 'chebyshev', order: 5, rippleDb: 0.1, edgeHighHz: 30e6, insertionLossDb: 0.3 },
  };
  const receiver: PathReceiver = {
    name: 'receiver',
    noiseFigureDb: 12,
    iip2Dbm: 90,
    iip3Dbm: 40,
    fullScaleDbm: 10,
    bits: 16,
    sampleRateHz: 120e6,
    complexSamples: false,
    minHz: 1e4,
    maxHz: 200e6,
  };
  const question = {
    lowHz: 9.5e6,
    highHz: 9.7e6,
    bandwidthHz: 2500,
    externalFaDb: 45,
    signals: [
      { name: 'FM 1', freqHz: 95.3e6, levelDbm: -21 },
      { name: 'FM 2', freqHz: 104.9e6, levelDbm: -21.6 },
    ],
  };
  const [before, after] = [
    [filter, amplifier],
    [amplifier, filter],
  ].map((stages) => analysePath(stages, receiver, question));
  test('the filter belongs ahead of the amplifier when overload binds', () => {
    expect(before.worstProduct?.overNoiseDb ?? 0).toBeLessThan(-40);
    expect(after.worstProduct).toMatchObject({ madeIn: 'amplifier', signals: ['FM 1', 'FM 2'] });
    expect(after.worstProduct?.overNoiseDb).toBeGreaterThan(0);
    expect(before.snrLossWithProductsDb).toBeLessThan(after.snrLossWithProductsDb);
  });
  test('gain is the same either way, noise a little worse with the filter ahead', () => {
    expect(before.gainDb).toBeCloseTo(after.gainDb, 9);
    expect(before.noiseFigureDb).toBeGreaterThan(after.noiseFigureDb);
  });
  test('carriers are followed stage by stage through the real response of the filter', () => {
    const levels = before.walks[0].levelsDbm;
    expect(levels[0]).toBe(-21);
    expect(levels[1]).toBeCloseTo(-21 - 57.1, 1);
    expect(levels[2] - levels[1]).toBeCloseTo(20, 9);
  });
  test('SNR loss is that of the amplifier section alone when nothing else counts', () => {
    // (fa + F − 1)/fa with F from the Friis formula
    const factor = cascadeNoiseFactor([
      passiveStage(-stageGainDb(filter, 9.6e6)),
      activeStage(20, 2),
      activeStage(0, Math.max(12, before.converterNoiseFigureDb)),
    ]);
    expect(before.snrLossDb).toBeCloseTo(powerDb((powerRatio(45) + factor - 1) / powerRatio(45)), 9);
  });
});

describe('a receiver straight on an antenna', () => {
  const dongle = { minHz: 24e6, maxHz: 1766e6, fullScaleDbm: -32 };
  const fm = { name: 'FM', freqHz: 95.3e6, levelDbm: -9 };
  test('an FM carrier of −9 dBm drives a dongle of −32 dBm full scale 23 dB over it (subtraction)', () => {
    expect(directInput(dongle, [fm])).toMatchObject({ state: 'clips', strongest: 'FM' });
    expect(directInput(dongle, [fm])?.roomDb).toBeCloseTo(-23, 9);
  });
  test('the peaks of two equal carriers are 6.02 dB over one; an octave above its range an input filter takes 18 dB', () => {
    expect(directInput(dongle, [fm, { ...fm, name: 'other' }])?.roomDb).toBeCloseTo(-23 - 6.0206, 3);
    const hf = { minHz: 1e4, maxHz: 30e6, fullScaleDbm: -10 };
    const octave = directInput(hf, [{ ...fm, freqHz: 60e6 }]);
    expect(octave?.totalDbm).toBeCloseTo(-27, 9);
    expect(octave?.state).toBe('fine');
  });
  test('less than 3 dB of room is close; no carrier says nothing', () => {
    expect(directInput(dongle, [{ ...fm, levelDbm: -34 }])?.state).toBe('close');
    expect(directInput(dongle, [{ ...fm, levelDbm: -40 }])?.state).toBe('fine');
    expect(directInput(dongle, [])).toBeUndefined();
  });
});
