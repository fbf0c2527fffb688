import { describe, expect, test } from '@jest/globals';
import { converter as converterKind } from './kinds/converter';
import { searchOrder } from './order-search';
import { analysePath } from './plan';
import type { PathReceiver, PathSignal } from './question';
import { frequencyPlan, type PathStage } from './stages';
import { stageValues } from './stage-values';

const receiver: PathReceiver = {
  ...{ name: 'receiver', noiseFigureDb: 6, iip2Dbm: 50, iip3Dbm: 0, fullScaleDbm: -10, bits: 16 },
  ...{ sampleRateHz: 20e6, complexSamples: true, minHz: 24e6, maxHz: 1.8e9 },
};
const active = { gainDb: 60, noiseFigureDb: 0.5, iip2Dbm: 10, iip3Dbm: -40 };
const converter = (figures: Record<string, number> = {}, mixing = 'above'): PathStage =>
  converterKind.stage({
    ...stageValues('converter'),
    ...{ ...active, choices: { mixing }, figures: { oscillatorHz: 9.75e9, imageRejectionDb: 40, ...figures } },
  });
const pad: PathStage = { kind: 'pad', name: 'pad', lossDb: 20 };
const question = (signals: readonly PathSignal[] = []) => ({
  ...{ lowHz: 10.9995e9, highHz: 11.0005e9, bandwidthHz: 1e6, externalFaDb: 0 },
  signals,
});
const signal = (name: string, ghz: number, levelDbm = -70): PathSignal => ({ name, freqHz: ghz * 1e9, levelDbm });

describe('behind a converter everything has another frequency', () => {
  test('11.000 GHz over 9.750 lands at 1250 MHz; converter, 20 dB pad and 6 dB receiver have 0.502 dB (Friis by hand)', () => {
    const found = analysePath([converter(), pad], receiver, question());
    // F = 1.12202 + 99/1e6 + (3.98107 − 1)·100/1e6 = 1.12242
    expect(found.noiseFigureDb).toBeCloseTo(0.502, 3);
    expect(found.landsAtHz).toBeCloseTo(1.25e9, 0);
    expect(found.outOfReach).toBeUndefined();
    expect(frequencyPlan([converter(), pad], 11e9)).toEqual([
      { name: 'converter', oscillatorHz: 9.75e9, inHz: 11e9, outHz: 1.25e9, mirrored: false, imageHz: 8.5e9 },
    ]);
  });
  test('without it the receiver is told that it does not tune there', () => {
    expect(analysePath([pad], receiver, question()).outOfReach).toMatch(/converter.*between 24\.00 MHz and 1\.800 GHz/);
  });
  test('an oscillator above the signal mirrors, a sum has no image here', () => {
    expect(frequencyPlan([converter({ oscillatorHz: 12e9 }, 'below')], 11e9)[0]).toMatchObject({
      ...{ outHz: 1e9, mirrored: true, imageHz: 13e9 },
    });
    const up = frequencyPlan([converter({ oscillatorHz: 120e6 }, 'sum')], 5e6)[0];
    expect(up).toMatchObject({ outHz: 125e6, mirrored: false });
    expect(up).not.toHaveProperty('imageHz');
  });
  test('a product of the third order stays one behind it, in the same place, also mirrored', () => {
    // 2·11.01 − 11.02 = 11.00 GHz; made where the intercept is least against the level
    const carriers = [signal('a', 11.01, -90), signal('b', 11.02, -90)];
    for (const stage of [converter(), converter({ oscillatorHz: 12e9 }, 'below')]) {
      const { worstProduct, reports } = analysePath([stage, pad], receiver, question(carriers));
      expect(worstProduct).toMatchObject({ label: '2f1−f2', signals: ['a', 'b'] });
      // converter: 3·(−90) − 2·(−40) = −190; receiver: level −90 + 40 = −50, 3·(−50) − 0 = −150, less 40 = −190: in phase −184
      expect(reports[0].product?.antennaDbm).toBeCloseTo(-190, 1);
      expect(reports[2].product?.antennaDbm).toBeCloseTo(-190, 1);
      expect(worstProduct?.antennaDbm).toBeCloseTo(-184, 1);
    }
  });
  test('a sum of two carriers behind the converter is none ahead of it', () => {
    // at the intermediate frequency 0.75 + 0.50 = 1.25 GHz; at the antenna 10.5 + 10.25 is far away
    const found = analysePath([converter(), pad], receiver, question([signal('a', 10.5), signal('b', 10.25)]));
    expect(found.worstProduct).toMatchObject({ label: 'f1+f2', madeIn: 'receiver' });
    // −70 + 40 = −30 each: −30 − 30 − 50 = −110, referred to the antenna −150
    expect(found.worstProduct?.antennaDbm).toBeCloseTo(-150, 1);
    expect(found.reports[0].product).toBeUndefined();
  });
  test('a carrier on the image comes through, less the rejection', () => {
    const found = analysePath([converter(), pad], receiver, question([signal('radar', 8.5)]));
    expect(found.worstProduct).toMatchObject({ label: 'image', signals: ['radar'], madeIn: 'converter' });
    expect(found.worstProduct?.antennaDbm).toBeCloseTo(-110, 6);
    const strict = analysePath([converter({ imageRejectionDb: 80 })], receiver, question([signal('radar', 8.5)]));
    expect(strict.worstProduct?.antennaDbm).toBeCloseTo(-150, 6);
  });
  test('the search for an order says why it leaves a converter alone', () => {
    const shelf = [{ stage: converter(), needed: false, cost: 1 }];
    const goal = { name: 'g', lowHz: 11e9, highHz: 11.001e9, bandwidthHz: 1e6, externalFaDb: 0 };
    expect(() => searchOrder(shelf, receiver, [goal], []).next()).toThrow(/Behind a converter/);
  });
});

describe('stage by stage', () => {
  const amplifier: PathStage = {
    ...{ kind: 'amplifier', name: 'amplifier', gainDb: 20, noiseFigureDb: 3, iip2Dbm: 40, iip3Dbm: 10 },
  };
  const wanted = { lowHz: 9.9e6, highHz: 10.1e6, bandwidthHz: 1000, externalFaDb: 20 };
  const near = { ...receiver, minHz: 1e5, maxHz: 30e6, noiseFigureDb: 10, sampleRateHz: 61e6 };
  const found = analysePath([{ kind: 'pad', name: 'pad', lossDb: 3 }, amplifier], near, {
    ...wanted,
    signals: [signal('strong', 0.0101, 5)],
  });
  test('shares of the noise add up and are Friis terms (by hand)', () => {
    // F − 1 = 0.99526 + (1.99526 − 1)·1.99526 + (10 − 1)/50.119 = 0.99526 + 1.98581 + 0.17957
    const terms = [0.99526, 1.98581, 0.17957];
    const sum = 3.16064;
    found.reports.forEach(({ noiseShare }, i) => expect(noiseShare).toBeCloseTo(terms[i] / sum, 4));
    expect(found.reports.reduce((total, { noiseShare }) => total + noiseShare, 0)).toBeCloseTo(1, 9);
  });
  test('noise at an input is what comes from outside and from ahead (kT₀B, by hand)', () => {
    // kT₀ −173.975 dBm/Hz + 30 dB; at the antenna F_a 20 dB; behind the pad (100 + 0.99526)/1.99526 = 50.617: 17.043 dB
    expect(found.reports[0].noiseDbm).toBeCloseTo(-123.975, 2);
    expect(found.reports[1].noiseDbm).toBeCloseTo(-143.975 + 17.043, 2);
  });
  test('room runs out where the carrier is too strong, and says where first', () => {
    // 5 − 3 = +2 dBm at an amplifier that compresses at 10 − 10 = 0 dBm
    expect(found.reports[1].roomDb).toBeCloseTo(-2, 6);
    expect(found.firstOverload?.name).toBe('amplifier');
  });
});
