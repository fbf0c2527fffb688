import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { dcPath, type DcStage } from './dc-path';
import { STAGE_KINDS, stageKind } from './stage-kinds';
import { switchedBy } from './switching';
import { stageValues } from './stage-values';

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
  test('a line whose resistance nobody entered has that of its class, and says that it is assumed', () => {
    const coax = stageKind('line').dc({ ...stageValues('line'), cableId: 'pe5', lengthM: 25 });
    const [one] = dcPath([load('a', 4, 0.1), coax, feed(5)]).loads;
    // 39 Ω/km of centre and 14 of shield (a data sheet of a 5 mm cable, from memory): 25 m · 0.053 Ω/m · 0.1 A = 0.13 V
    expect(one.volts).toBeCloseTo(5 - 0.1325, 2);
    expect(one.lineCounted).toBe(true);
    expect(one.warnings.join()).toMatch(/1\.3 Ω there and back are usual for its class \(assumed/);
    expect(dcPath([load('a', 4, 0.1), line(10), feed(5)]).loads[0].lineCounted).toBe(false);
  });
  test('a stored stage of any kind meets the DC in some way', () => {
    fc.assert(
      fc.property(fc.constantFrom(...STAGE_KINDS), fc.double({ min: 0, max: 40, noNaN: true }), (kind, lossDb) => {
        const dc = stageKind(kind).dc({ ...stageValues(kind), lossDb });
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
    const highPass = { ...stageValues('s'), shape: 'highpass' as const };
    expect(stageKind('filter').dc(highPass).dc).toBe('blocked');
    expect(stageKind('filter').dc(stageValues('s')).dc).toBe('through');
    expect(stageKind('filter').dc({ ...highPass, choices: { passesDc: 'passes' } }).dc).toBe('through');
    const shelf = { transfer: [], iip2Dbm: null, iip3Dbm: null, p1Dbm: null };
    const partOf = (supplyV: number | null, noiseFigureDb: number | null) =>
      stageKind('part').dc({ ...stageValues('s'), part: { ...shelf, supplyV, currentA: 0.1, noiseFigureDb } });
    expect(partOf(12, 2)).toMatchObject({ leastV: 10.8 });
    expect(partOf(null, null).dc).toBe('unknown');
    expect(partOf(null, 2)).toMatchObject({ own: true });
    const figures = { supplyV: 12, limitMA: 300, headV: 9, headMA: 150 };
    expect(dcPath([line(20, 0.1), stageKind('bias feed').dc({ ...stageValues('s'), figures })]).loads[0]).toMatchObject(
      {
        ...{ name: 'the amplifier in the antenna', volts: 11.7, errors: [] },
      },
    );
  });
});

describe('what volts and a tone switch', () => {
  // EN 61319-1, from memory: vertical 11.5 to 14 V, horizontal 16 to 19 V
  test.each([
    [13, 'vertical'],
    [11.4, undefined],
    [14.5, undefined],
    [18, 'horizontal'],
    [15.9, undefined],
    [20, undefined],
  ])('%d V: %s', (volts, polarisation) => {
    const found = switchedBy(volts, 9.75e9);
    expect(found.polarisation).toBe(polarisation);
    expect(found.doubt).toBe(polarisation === undefined);
  });
  test('18 V behind 60 m of thin cable say neither: 18 − 60 · 0.2 Ω/m · 0.2 A = 15.6 V (by hand); 10.6 GHz want a tone that a plain feed does not give', () => {
    const load: DcStage = {
      ...{ dc: 'load', name: 'Converter', leastV: 11, currentA: 0.2, wantsPositive: true, switchedHz: 10.6e9 },
    };
    const line: DcStage = { dc: 'line', name: 'Cable', lengthM: 60, ohmPerM: 0.2 };
    const feed: DcStage = { dc: 'feed', name: 'Feed', supplyV: 18, limitA: 1, positive: true };
    const [found] = dcPath([load, line, feed]).loads;
    expect(found.errors).toEqual([]);
    expect(found.switched).toMatchObject({ doubt: true, tone: true });
    expect(found.switched?.sentence).toMatch(/^15\.6 V say neither/);
    expect(switchedBy(18, 10.6e9).sentence).toMatch(
      /18\.0 V make it horizontal; its oscillator of 10\.6 GHz wants a tone of 22 kHz/,
    );
    // a converter of one band has nothing to switch
    expect(switchedBy(13, 5.15e9)).toEqual({
      polarisation: 'vertical',
      sentence: '13.0 V make it vertical.',
      doubt: false,
    });
  });
});
