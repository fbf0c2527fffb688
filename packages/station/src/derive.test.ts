import { describe, expect, test } from '@jest/globals';
import { BLANK } from '@velvet-reed/contract';
import { expectedNoise, measuredFaDb, noisePowerDbm } from '@velvet-reed/core/site';
import {
  boughtCandidates,
  designOf,
  forecastPlace,
  laidHeightM,
  laidLayout,
  outsideNoise,
  ownCandidates,
  ownDimensions,
  roomOf,
  targetChoices,
} from './derive';
import { stateOfAntenna } from './guard/evidence';
import { firstOrder } from './path/orders';
import { spotsOf } from './spots';
import type { StationData } from './record';
import { placed, TEST_STATION } from './testing/test-station';

const stored = (id: number) => ({ id, version: 1, stationId: 1, createdAt: '' });
const feature = (
  id: number,
  values: Partial<StationData['plotFeatures'][number]>,
): StationData['plotFeatures'][number] => ({
  ...stored(id),
  ...BLANK.plotFeatures,
  name: `feature ${id}`,
  kind: 'support',
  points: [[0, 0]],
  heightM: 0,
  endHeightM: 0,
  clearanceM: 0,
  widthM: 0,
  antennaId: null,
  attachmentId: null,
  ...values,
});
const withPlan = (...plotFeatures: StationData['plotFeatures'][number][]): StationData => ({
  ...TEST_STATION,
  plotFeatures,
});
const LAID = feature(3, {
  kind: 'antenna',
  antennaId: 1,
  points: [
    [0, 0],
    [0, 20],
  ],
  heightM: 9,
  endHeightM: 5,
});

describe('the plan decides where it knows', () => {
  test('room: as entered without two supports, measured with them', () => {
    expect(roomOf(TEST_STATION)).toMatchObject({ spanM: 38, heightM: 9, from: 'as entered for the station' });
    const data = withPlan(feature(1, { heightM: 7 }), feature(2, { points: [[30, 40]], heightM: 4 }));
    expect(roomOf(data)).toMatchObject({ spanM: 50, heightM: 7, from: 'Plot: feature 1 to feature 2' });
  });
  test('the height of a laid antenna, unless it was set by hand', () => {
    const data = withPlan(LAID);
    const revision = data.revisions[0];
    expect(laidHeightM(data, revision)).toBe(7);
    expect(designOf(data, revision).dimensions.heightM).toBe(7);
    const byHand = { ...revision, dimensions: { heightM: 4 } };
    expect(laidHeightM(data, byHand)).toBeUndefined();
    expect(designOf(data, byHand).dimensions.heightM).toBe(4);
    expect(designOf(TEST_STATION, revision)).toBe(revision);
  });
  test('what only follows the plan is not written into a revision; what was typed is', () => {
    const data = withPlan(LAID);
    const revision = data.revisions[0];
    const design = designOf(data, revision);
    expect(ownDimensions(data, revision, design)).toEqual({});
    expect(ownDimensions(data, revision, { ...design, dimensions: { heightM: 6, angleDeg: 120 } })).toEqual({
      heightM: 6,
      angleDeg: 120,
    });
  });
  test('a loop lying in the grass stays there', () => {
    const data = withPlan(LAID);
    const loop = { ...data.revisions[0], kind: 'ground-loop' as const };
    expect(laidHeightM(data, loop)).toBeUndefined();
  });
  test('a laid wire faces across the way it lies, and the ranking knows it', () => {
    const data = withPlan(LAID);
    expect(laidLayout(data, 1)?.facingDeg).toBeCloseTo(90, 9);
    expect(ownCandidates(data)).toMatchObject([{ source: 'own', headingDeg: 90 }]);
    expect(ownCandidates(TEST_STATION)[0]).not.toHaveProperty('headingDeg');
  });
  test('a line that names a cable run takes its length', () => {
    const run = feature(9, {
      kind: 'cable',
      points: [
        [0, 0],
        [3, 4],
      ],
      heightM: 6,
      endHeightM: 1,
    });
    const stage: StationData['pathStages'][number] = {
      ...stored(1),
      ...BLANK.pathStages,
      ...{ pathId: 1, name: 'coax', kind: 'line', lengthM: 99, plotFeatureId: 9 },
    };
    const data = { ...withPlan(run), ...placed([{ ...stage, at: [0, 0] }]) };
    expect(firstOrder(data, 1)[0].lengthM).toBe(12);
    expect(firstOrder({ ...data, plotFeatures: [] }, 1)[0].lengthM).toBe(99);
  });
});

describe('outside noise', () => {
  const floor: StationData['levels'][number] = {
    ...{ ...stored(1), ...BLANK.levels, kind: 'floor' },
    ...{ freqHz: 9e6, levelDbm: -95, bandwidthHz: 2400 },
  };
  test('a floor of one’s own counts before the class, within half an octave, and shows its difference', () => {
    const data = { ...TEST_STATION, levels: [floor] };
    const here = outsideNoise(data, 9e6);
    const expected = expectedNoise('rural', 9e6).faDb;
    // 25 m of cable between: more noise arrives at the antenna than was read behind the line
    expect(here.faDb).toBeGreaterThan(-95 - noisePowerDbm(0, 2400));
    expect(here.measured?.overClassDb).toBeCloseTo(here.faDb - expected, 9);
    expect(outsideNoise(data, 9.65e6).measured).toBeDefined();
    expect(outsideNoise(data, 20e6).measured).toBeUndefined();
  });
  test('a floor measured through the probe was laid on every antenna: it counts for its own, and for no other spot', () => {
    const spot = (id: number, name: string): StationData['spots'][number] => ({
      ...{ ...stored(id), name, kind: 'garden' as const },
      ...{ spanM: 30, widthM: 10, heightM: 9, distanceM: 15 },
    });
    const [wire] = TEST_STATION.antennas;
    const data: StationData = {
      ...TEST_STATION,
      spots: [spot(1, 'near'), spot(2, 'far')],
      antennas: [{ ...wire, spotId: 1 }],
      levels: [{ ...floor, antennaId: wire.id }],
    };
    const asked = { freqHz: 9e6, answersTo: 'balanced', turns: false } as const;
    const at = (more: object) => forecastPlace(data).noise?.({ ...asked, ...more });
    const [near, far] = spotsOf(data);
    expect(at({ antenna: `own-${wire.id}`, spot: near })).toMatchObject({
      measured: true,
      from: 'its own measured floor',
    });
    expect(at({ spot: near })).toMatchObject({ measured: true });
    expect(at({ spot: far })?.measured).toBeUndefined();
    const quieter = { ...data, levels: [{ ...floor, antennaId: wire.id, levelDbm: floor.levelDbm - 10 }] };
    const [loud, quiet] = [data, quieter].map(
      (one) => forecastPlace(one).noise?.({ ...asked, antenna: `own-${wire.id}`, spot: near }).middle ?? NaN,
    );
    expect(loud - quiet).toBeGreaterThan(9);
    expect(loud - quiet).toBeLessThan(12);
  });
  test('a floor read through an antenna that was changed since counts no more', () => {
    const [wire] = TEST_STATION.antennas;
    const state = stateOfAntenna(TEST_STATION, wire.id);
    const read = { ...floor, antennaId: wire.id, takenOn: { antennas: state ? [state] : [] } };
    const data: StationData = { ...TEST_STATION, levels: [read] };
    expect(outsideNoise(data, 9e6).measured).toBeDefined();
    const [revision] = TEST_STATION.revisions.filter(({ antennaId }) => antennaId === wire.id);
    const changed = { ...data, revisions: [...data.revisions, { ...revision, id: 99, number: revision.number + 1 }] };
    expect(outsideNoise(changed, 9e6).measured).toBeUndefined();
    const asked = { freqHz: 9e6, answersTo: 'balanced', turns: false, antenna: `own-${wire.id}` } as const;
    const measured = (one: StationData) => forecastPlace(one).noise?.(asked).measured;
    expect([measured(data), measured(changed)]).toEqual([true, undefined]);
  });
  test('the hours of a target decide its noise: medium wave by night is not judged at noon', () => {
    const mw = { ...TEST_STATION.targets[0], lowHz: 990e3, highHz: 1010e3, bandwidthHz: 9000 };
    const at = (fromMin: number | null, toMin: number | null) =>
      targetChoices({ ...TEST_STATION, targets: [{ ...mw, fromMin, toMin }] }, Date.UTC(2026, 2, 10))[0];
    // 19.3° W: noon is at 13:17 UTC
    expect([at(60, 240).time, at(700, 900).time, at(null, null).time]).toEqual(['night', 'day', 'night']);
  });
  test('a reading that is the receiver’s own noise is not used', () => {
    const quiet = { ...floor, levelDbm: noisePowerDbm(18, 2400) };
    expect(
      measuredFaDb({ ...quiet, bandwidthHz: 2400 }, { transfer: 1, lineLossDb: 0, noiseFigureDb: 18 }),
    ).toBeUndefined();
    expect(outsideNoise({ ...TEST_STATION, levels: [quiet] }, 9e6).measured).toBeUndefined();
  });
});

test('an own cable by its loss at two frequencies; without the figures a class stands in', () => {
  const own = { ...TEST_STATION.station, cableId: 'own', ownCableDb10: 3.933, ownCableDb100: 12.95, lineLengthM: 20 };
  // 1.22·√f + 0.0075·f dB per 100 m over 20 m: 0.47, 0.77 and 0.94 dB at 3.6, 9.6 and 14.1 MHz, worked by hand
  const { lineLossDb } = {
    lineLossDb: (hz: number) => forecastPlace({ ...TEST_STATION, station: own }).lineLossDb(hz),
  };
  for (const [mhz, db] of [
    [3.6, 0.47],
    [9.6, 0.77],
    [14.1, 0.94],
  ])
    expect(lineLossDb(mhz * 1e6)).toBeCloseTo(db, 2);
});

test('targets carry their bearing and arrival; bought antennas their figures', () => {
  const data = {
    ...TEST_STATION,
    targets: [{ ...TEST_STATION.targets[0], latDeg: 38, lonDeg: -60 }],
    boughtAntennas: [
      {
        ...stored(1),
        name: 'loop',
        gains: [{ freqHz: 1e7, gainDbi: -28 }],
        amplified: false,
        gainDb: 20,
        noiseFigureDb: 4,
        iip2Dbm: 35,
        iip3Dbm: 15,
        inputFilterHz: 30e6,
        sizeM: 1,
        price: 250,
        hours: 2,
        sight: 1,
      },
    ],
  };
  const [target] = targetChoices(data, Date.UTC(2026, 2, 10));
  expect(target.bearingDeg).toBeCloseTo(262.8, 1);
  expect(target.arrivalDeg).toBeGreaterThan(10);
  const [loop] = boughtCandidates(data);
  expect(loop.source === 'bought' && loop.bought).toEqual({
    gains: [{ freqHz: 1e7, gainDbi: -28 }],
    inputFilterHz: 30e6,
  });
});
