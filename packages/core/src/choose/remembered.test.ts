import { describe, expect, jest, test } from '@jest/globals';
import fc from 'fast-check';
import type { Reception } from '../antenna/kind';
import { startDesign, wireModel } from '../antenna/kinds';
import { expectedNoise } from '../site/external-noise';
import { groundClass } from '../solver/ground-classes';
import { kindCandidates, readyCandidate } from './candidate';
import { forecasterAt, type ForecastPlace, type ForecastTarget, type TargetForecast } from './forecast';
import { hearingKey } from './hearing';
import { inView, rankCandidates, type RankRules } from './rank';
import type { Spot } from './spot';
import { remembered, rememberedOf } from './remembered';

describe('answers that are remembered', () => {
  test('each argument is answered once; those of equal key are one', () => {
    const answer = jest.fn((asked: { readonly name: string }) => asked.name.length);
    const once = remembered(answer, ({ name }) => name);
    expect([once({ name: 'loop' }), once({ name: 'loop' }), once({ name: 'rhombic' })]).toEqual([4, 4, 7]);
    expect(answer).toHaveBeenCalledTimes(2);
  });
  test('objects are told apart by what they are, not by what they hold; no answer is an answer too', () => {
    const answer = jest.fn((_: { readonly hz: number }): number | undefined => undefined);
    const once = rememberedOf(answer);
    const [one, other] = [{ hz: 7e6 }, { hz: 7e6 }];
    for (const asked of [one, other, one, other]) expect(once(asked)).toBeUndefined();
    expect(answer).toHaveBeenCalledTimes(2);
  });
});

const target = (id: string, mhz: number): ForecastTarget => ({
  ...{ id, name: `${mhz} MHz`, lowHz: mhz * 1e6 - 5e3, highHz: mhz * 1e6 + 5e3 },
  ...{ bandwidthHz: 2400, weight: 3, arrivalDeg: 15 },
});
const mhz = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const receiver = fc.record({
  name: fc.constantFrom('HF', 'dongle', 'wide'),
  noiseFigureDb: mhz(3, 20),
  iip2Dbm: mhz(20, 70),
  iip3Dbm: mhz(-10, 30),
  fullScaleDbm: mhz(-40, 0),
  minHz: fc.constantFrom(1e4, 24e6),
  maxHz: fc.constantFrom(30e6, 2e9),
});
const transmitter = fc.record({
  name: fc.constantFrom('A', 'B', 'C'),
  freqHz: mhz(0.6, 110).map((value) => value * 1e6),
  powerW: mhz(1, 1e5),
  powerKind: fc.constant('ERP' as const),
  distanceM: mhz(200, 5e4),
});

describe('a forecaster that shares what its place has in common', () => {
  test('says of any antennas and targets, in any order, what one made for each alone says', () => {
    fc.assert(
      fc.property(
        fc.array(receiver, { minLength: 1, maxLength: 3 }),
        fc.array(transmitter, { maxLength: 5 }),
        fc.array(mhz(0.3, 150), { minLength: 1, maxLength: 5 }),
        fc.array(mhz(0.05, 1), { minLength: 1, maxLength: 3 }),
        (receivers, transmitters, wanted, shares) => {
          const place: ForecastPlace = {
            ...{ receivers, transmitters },
            lineLossDb: (freqHz) => freqHz / 30e6,
            externalFaDb: (freqHz) => expectedNoise('rural', freqHz).faDb,
          };
          const targets = wanted.map((one, i) => target(String(i), one));
          const shared = forecasterAt(place);
          const antennas = shares.map((share) => {
            const receptionAt = (freqHz: number): Reception => ({
              ...{ realisedGainDbi: 2 - freqHz / 1e8, transfer: share, validity: 'holds' },
            });
            const head = share > 0.5 ? { gainDb: 20, iip2Dbm: 70, iip3Dbm: 35 } : undefined;
            return { receptionAt, head, together: shared(receptionAt, head ? { head } : {}) };
          });
          for (const asked of [...targets, ...[...targets].reverse()])
            for (const { receptionAt, head, together } of antennas) {
              const alone: TargetForecast = forecasterAt(place)(receptionAt, head ? { head } : {})(asked);
              expect(together(asked)).toEqual(alone);
            }
        },
      ),
      { numRuns: 60, seed: 20261128 },
    );
  });

  test('asks of its place only once what is the same for all', () => {
    const lineLossDb = jest.fn(() => 1);
    const place: ForecastPlace = {
      ...{ receivers: [], transmitters: [], lineLossDb },
      externalFaDb: (freqHz) => expectedNoise('rural', freqHz).faDb,
    };
    const hf = {
      ...{ name: 'HF', noiseFigureDb: 18, iip2Dbm: 60, iip3Dbm: 25 },
      fullScaleDbm: 0,
      minHz: 1e4,
      maxHz: 60e6,
    };
    const forecaster = forecasterAt({ ...place, receivers: [hf] });
    for (let antenna = 0; antenna < 20; antenna += 1)
      forecaster(() => ({ realisedGainDbi: antenna, transfer: 1, validity: 'holds' }))(target('a', 9.65));
    expect(lineLossDb).toHaveBeenCalledTimes(1);
  });
});

describe('the same ranking in the other view', () => {
  test('has the order that ranking it anew would have', () => {
    const targets = [target('a', 3.65), target('b', 9.65), target('c', 15.45)];
    const room = { spanM: 38, heightM: 9 };
    const { ground } = groundClass('average');
    const place: ForecastPlace = {
      transmitters: [],
      receivers: [
        { ...{ name: 'HF', noiseFigureDb: 18, iip2Dbm: 60, iip3Dbm: 25 }, fullScaleDbm: 0, minHz: 1e4, maxHz: 60e6 },
      ],
      lineLossDb: () => 1,
      externalFaDb: (freqHz) => expectedNoise('rural', freqHz).faDb,
    };
    const garden: Spot = { ...room, ...{ id: 'g', name: 'Garden', kind: 'garden', widthM: 0, distanceM: 100 } };
    const ready = kindCandidates(targets, [garden]).map((spec, i) =>
      // what is heard does not matter here, only that antennas differ in both figures
      readyCandidate(spec, targets, ground, () => ({
        impedance: { re: 30 + 15 * i, im: 40 - 10 * i },
        radiated: 0.2 + 0.03 * i,
        gains: Array.from({ length: 36 }, (_, k) => 1 + ((k * i) % 7) / 3),
        vertical: Array.from({ length: 36 }, (_, k) => ((k * i) % 5) / 10),
        rightHand: Array.from({ length: 36 }, () => 0.5),
        segments: 10,
      })),
    );
    const rules = (view: RankRules['view']): RankRules => ({
      view,
      weights: { price: 1, effort: 1, sight: 1 },
      restrictions: { nothingVisible: false, lawnAllowed: true },
      room,
    });
    const names = (ranked: ReturnType<typeof rankCandidates>): string[] => ranked.map(({ spec }) => spec.name);
    const quiet = rankCandidates(ready, targets, place, rules('quiet'));
    const signal = rankCandidates(ready, targets, place, rules('signal'));
    expect(names(quiet)).not.toEqual(names(signal));
    expect(names(inView(quiet, 'signal'))).toEqual(names(signal));
    expect(inView(signal, 'quiet').map(({ sumDb }) => sumDb)).toEqual(quiet.map(({ sumDb }) => sumDb));
  });
});

test('the text of a question is the one that browsers have kept answers by', () => {
  const model = wireModel(startDesign('delta-loop', 9.65e6), groundClass('average').ground);
  for (const freqHz of [9.65e6, 518e3, 1.4e6 + 1 / 3])
    for (const elevationDeg of [0, 15, 22.5]) {
      const question = { model, freqHz, elevationDeg };
      expect(hearingKey(question)).toBe(JSON.stringify(question));
    }
});
