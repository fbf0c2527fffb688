import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { cableClass } from '../line/coax';
import { joinRow, readAdapters } from './connectors';
import { dcPath, type DcStage } from './dc-path';
import { searchOrder } from './order-search';
import { analysePath } from './plan';
import type { PathReceiver, PathSignal } from './question';
import {
  figuredStage,
  figureFaults,
  lineStage,
  splitterLossDb,
  STAGE_FIGURES,
  STAGE_KINDS,
  stageDc,
} from './stage-kinds';
import { limiterFigures } from './limiter';
import { frequencyPlan, type PathStage, stageGainDb } from './stages';
import { parseQuantity } from '../units/quantity';

const receiver: PathReceiver = {
  ...{ name: 'receiver', noiseFigureDb: 6, iip2Dbm: 50, iip3Dbm: 0, fullScaleDbm: -10, bits: 16 },
  ...{ sampleRateHz: 20e6, complexSamples: true, minHz: 24e6, maxHz: 1.8e9 },
};
const active = { gainDb: 60, noiseFigureDb: 0.5, iip2Dbm: 10, iip3Dbm: -40 };
const converter = (figures: Record<string, number> = {}): PathStage =>
  figuredStage('converter', 'converter', { oscillatorHz: 9.75e9, mixing: 0, imageRejectionDb: 40, ...figures }, active);
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
    expect(analysePath([pad], receiver, question()).outOfReach).toMatch(/11\.00? GHz arrives at receiver.*converter/);
  });
  test('an oscillator above the signal mirrors, a sum has no image here', () => {
    expect(frequencyPlan([converter({ oscillatorHz: 12e9, mixing: 1 })], 11e9)[0]).toMatchObject({
      ...{ outHz: 1e9, mirrored: true, imageHz: 13e9 },
    });
    const up = frequencyPlan([converter({ oscillatorHz: 120e6, mixing: 2 })], 5e6)[0];
    expect(up).toMatchObject({ outHz: 125e6, mirrored: false });
    expect(up).not.toHaveProperty('imageHz');
  });
  test('a product of the third order stays one behind it, in the same place, also mirrored', () => {
    // 2·11.01 − 11.02 = 11.00 GHz; made where the intercept is least against the level
    const carriers = [signal('a', 11.01, -90), signal('b', 11.02, -90)];
    for (const stage of [converter(), converter({ oscillatorHz: 12e9, mixing: 1 })]) {
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

describe('kinds of stages by their figures', () => {
  test('splitters: hybrid 3.01 + excess, star 6.02, plain T 3.52 and 6.02 dB (power division)', () => {
    expect(splitterLossDb('hybrid', 2, 0.5)).toBeCloseTo(3.51, 2);
    expect(splitterLossDb('hybrid', 4)).toBeCloseTo(6.02, 2);
    expect(splitterLossDb('star', 2, 9)).toBeCloseTo(6.02, 2);
    expect([splitterLossDb('tee', 2), splitterLossDb('tee', 3)].map((db) => db.toFixed(2))).toEqual(['3.52', '6.02']);
  });
  test('a bias feed is a high-pass: 3 dB and more under its corners, nothing far above', () => {
    const feed = figuredStage('bias feed', 'feed', { chokeUH: 100, capacitorNF: 100 }, active);
    expect(stageGainDb(feed, 10e6)).toBeGreaterThan(-0.01);
    expect(stageGainDb(feed, 10e3)).toBeLessThan(-3);
  });
  test('diodes: twice as many with twice the saturation current limit 6.02 dB later (similitude of the equation)', () => {
    const [one, two] = [limiterFigures(1, 2.5e-9, 1.75), limiterFigures(2, 5e-9, 1.75)];
    expect(two.p1Dbm - one.p1Dbm).toBeCloseTo(6.02, 1);
    expect(two.iip3Dbm - one.iip3Dbm).toBeCloseTo(6.02, 1);
    // a silicon pair clips at some 0.6 V: 0.6²/100 W is 5.6 dBm
    expect(one.p1Dbm).toBeGreaterThan(2);
    expect(one.p1Dbm).toBeLessThan(9);
  });
  test('a line of known loss: twice the loss at four times the frequency, whatever cable and length stand beside it', () => {
    // skin effect: loss goes with the root of frequency
    const known = lineStage('run', cableClass('pe5'), 0, { knownLossDb: 3, knownAtHz: 10e6 });
    expect(stageGainDb(known, 10e6)).toBeCloseTo(-3, 12);
    expect(stageGainDb(known, 40e6)).toBeCloseTo(-6, 12);
    expect(stageGainDb(lineStage('run', cableClass('pe5'), 35, { knownLossDb: 3, knownAtHz: 10e6 }), 10e6)).toBeCloseTo(
      -3,
      12,
    );
    expect(figureFaults('line', { knownLossDb: 3 })).toMatchObject([{ id: 'knownAtHz' }]);
    expect(figureFaults('line', { knownAtHz: 1e7 })).toMatchObject([{ id: 'knownLossDb' }]);
  });
  test('every kind begins with figures that it accepts; others are named', () => {
    for (const kind of STAGE_KINDS) {
      const start = STAGE_FIGURES[kind].flatMap(({ id, start: text, dimension, bareUnit }) =>
        text === '' ? [] : [[id, parseQuantity(text, dimension, bareUnit ? { bareUnit } : {})] as const],
      );
      expect(figureFaults(kind, Object.fromEntries(start))).toEqual([]);
    }
    expect(figureFaults('switch', { lossDb: 0.3, flux: 1 })[0]).toMatchObject({ id: 'flux' });
    expect(figureFaults('splitter', { outputs: 99, excessDb: 0, form: 3 }).map(({ id }) => id)).toEqual([
      'form',
      'outputs',
    ]);
    expect(figureFaults('limiter', {}).map(({ id }) => id)).toContain('perLeg');
  });
});

describe('DC along a path', () => {
  const line = (lengthM: number, ohmPerM?: number): DcStage => ({
    ...{ dc: 'line', name: 'coax', lengthM },
    ...(ohmPerM === undefined ? {} : { ohmPerM }),
  });
  const load = (name: string, leastV: number, currentA: number, wantsPositive = true): DcStage => ({
    ...{ dc: 'load', name, leastV, currentA, wantsPositive },
  });
  const feed = (supplyV: number, limitA = 1): DcStage => ({
    ...{ dc: 'feed', name: 'feed', supplyV, limitA, positive: true },
  });
  test('5 V, 120 mA, 35 m of 0.12 Ω/m: 4.50 V; the same as the single feed says (Ohm, by hand)', () => {
    const { loads, errors } = dcPath([load('amplifier', 4.3, 0.12), line(35, 0.12), feed(5)]);
    expect(loads[0].volts).toBeCloseTo(4.496, 6);
    expect([loads[0].errors, errors]).toEqual([[], []]);
  });
  test('a line carries the current of all that hangs beyond it', () => {
    // near line: 10 m · 0.1 Ω · 0.3 A = 0.3 V; far line: 10 m · 0.1 Ω · 0.1 A = 0.1 V
    const { loads } = dcPath([load('far', 5, 0.1), line(10, 0.1), load('near', 5, 0.2), line(10, 0.1), feed(12)]);
    expect(loads.map(({ name, volts }) => [name, Number(volts?.toFixed(6))])).toEqual([
      ['far', 11.6],
      ['near', 11.7],
    ]);
  });
  test.each<[DcStage, RegExp]>([
    [{ dc: 'pad', name: '20 dB pad', lossDb: 20 }, /3\.31 W/],
    [{ dc: 'resistive splitter', name: 'star' }, /star: a resistive splitter/],
    [{ dc: 'leg without DC', name: 'hub' }, /hub: this output blocks DC/],
    [{ dc: 'diodes', name: 'limiter' }, /limiter: limiter diodes across the coax short/],
    [{ dc: 'blocked', name: 'high-pass' }, /high-pass: no DC gets through/],
    [{ dc: 'blocked', name: 'booster', own: true }, /booster: it has a supply of its own/],
  ])('%j stands in the way', (stage, sentence) => {
    // 13 V: U²/(R1 + R2) of a 20 dB T is 3.31 W (by hand: 169/51.0)
    expect(dcPath([load('amplifier', 10, 0.1), stage, feed(13)]).loads[0].errors.join()).toMatch(sentence);
  });
  test('too much current, wrong pole, no feed, no load, unknowns: each is told', () => {
    expect(dcPath([load('a', 4, 0.5), feed(5, 0.2)]).errors[0]).toMatch(/500 mA are drawn, it gives 200 mA/);
    expect(dcPath([load('a', 4, 0.1, false), feed(5)]).loads[0].errors[0]).toMatch(/polarity is wrong/);
    expect(dcPath([load('a', 4, 0.1)]).loads[0].errors[0]).toMatch(/no bias feed/);
    expect(dcPath([feed(5)]).warnings[0]).toMatch(/nothing on its antenna side/);
    const doubts = dcPath([load('a', 4, 0.1), { dc: 'unknown', name: 'box' }, line(10), feed(5)]).loads[0].warnings;
    expect(doubts.join()).toMatch(/box: nobody said.*coax: without its loop resistance|coax.*box/);
  });
  test('a stored stage of any kind meets the DC in some way', () => {
    fc.assert(
      fc.property(fc.constantFrom(...STAGE_KINDS), fc.double({ min: 0, max: 40, noNaN: true }), (kind, lossDb) => {
        const dc = stageDc({ kind, name: kind, lengthM: 1, lossDb, shape: 'lowpass', figures: {} });
        expect(dc.name).toBe(kind);
        expect(
          dcPath([dc, { ...feed(12), name: 'f' }]).loads.every(
            (one) => one.volts !== undefined || one.errors.length > 0,
          ),
        ).toBe(true);
      }),
    );
  });
  test('filters by their shape, parts by their supply, an active antenna by its feed', () => {
    const stage = { name: 's', lengthM: 0, lossDb: 0, shape: 'highpass', figures: {} } as const;
    expect(stageDc({ ...stage, kind: 'filter' }).dc).toBe('blocked');
    expect(stageDc({ ...stage, kind: 'filter', shape: 'lowpass' }).dc).toBe('through');
    expect(stageDc({ ...stage, kind: 'filter', figures: { passesDc: 1 } }).dc).toBe('through');
    expect(stageDc({ ...stage, kind: 'part', part: { supplyV: 12, currentA: 0.1, noiseFigureDb: 2 } })).toMatchObject({
      leastV: 10.8,
    });
    const bare = { supplyV: null, currentA: null };
    expect(stageDc({ ...stage, kind: 'part', part: { ...bare, noiseFigureDb: null } }).dc).toBe('unknown');
    expect(stageDc({ ...stage, kind: 'part', part: { ...bare, noiseFigureDb: 2 } })).toMatchObject({ own: true });
    const head = { supplyV: 12, limitMA: 300, polarity: 1, headV: 9, headMA: 150 };
    expect(dcPath([line(20, 0.1), stageDc({ ...stage, kind: 'bias feed', figures: head })]).loads[0]).toMatchObject({
      ...{ name: 'the amplifier in the antenna', volts: 11.7, errors: [] },
    });
  });
});

describe('plugs of a row', () => {
  const row = [
    { name: 'antenna', antennaSide: '', receiverSide: 'N-f' },
    { name: 'coax', antennaSide: 'N-m', receiverSide: 'SMA-m' },
    { name: 'box', antennaSide: 'N-f', receiverSide: 'N-f' },
    { name: 'receiver', antennaSide: 'SMA-f', receiverSide: '' },
  ];
  test('what mates, what needs an adapter, what is missing; an adapter serves once', () => {
    const box = readAdapters('SMA-f to N-m\n\n');
    const { joints, missing } = joinRow(row, box);
    expect(joints.map(({ fits, adapters }) => [fits, adapters])).toEqual([
      [true, []],
      [true, ['SMA-f to N-m']],
      [false, []],
    ]);
    expect(missing).toEqual(['an adapter N-m to SMA-m']);
  });
  test('a plug that nobody entered is not judged; a line that is no adapter is refused', () => {
    expect(
      joinRow(
        row.map((one) => ({ ...one, antennaSide: '' })),
        [],
      ).joints.every(({ known }) => !known),
    ).toBe(true);
    expect(() => readAdapters('N-m')).toThrow(/two ends, such as SMA-m to N-f/);
    expect(() => readAdapters('N-m to cheese')).toThrow(/names no connector/);
  });
});
