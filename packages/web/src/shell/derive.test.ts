import { expect, test } from '@jest/globals';
import { BLANK } from '@velvet-reed/contract';
import { placed, TEST_STATION } from '@velvet-reed/station/testing/test-station';
import { bandsOf, forecastPlace, latestRevision } from '@velvet-reed/station/derive';
import { ordersOf } from '@velvet-reed/station/path/orders';
import { askPath } from '@velvet-reed/station/path/question';
import { judgedPath, unjudgedPath } from '@velvet-reed/station/verdicts';
import { standings } from '@velvet-reed/station/standings';
import { nextStep } from '@velvet-reed/station/steps';

test('the listener’s edit replaces the catalogue row, a hidden one disappears', () => {
  expect(bandsOf(TEST_STATION).find((band) => band.id === 'a40')).toMatchObject({
    name: '40 m amateur, my plan',
    highHz: 7.1e6,
  });
  const hidden = { ...TEST_STATION, bandEdits: TEST_STATION.bandEdits.map((edit) => ({ ...edit, hidden: true })) };
  expect(bandsOf(hidden).find((band) => band.id === 'a40')).toBeUndefined();
});

test('the newest revision counts, whatever order the records came in', () => {
  const [first] = TEST_STATION.revisions;
  const data = {
    ...TEST_STATION,
    revisions: [
      { ...first, id: 9, number: 3 },
      { ...first, id: 8, number: 2 },
    ],
  };
  expect(latestRevision(data, 1)?.id).toBe(9);
  expect(latestRevision(data, 2)).toBeUndefined();
});

test('the own transmitter is left out of forecasts, and a converter floor above the stated figure counts', () => {
  const [transmitter] = TEST_STATION.transmitters;
  const [receiver] = TEST_STATION.receivers;
  const place = forecastPlace({
    ...TEST_STATION,
    transmitters: [transmitter, { ...transmitter, id: 2, own: true }],
    receivers: [{ ...receiver, bits: 8 }],
  });
  expect(place.transmitters).toHaveLength(1);
  expect(place.receivers[0].noiseFigureDb).toBeGreaterThan(40);
});

test('the two orders of a path are independent', () => {
  const base = {
    id: 1,
    version: 1,
    stationId: 1,
    createdAt: '',
    pathId: 1,
    ...BLANK.pathStages,
    kind: 'pad',
  } as const;
  const data = {
    ...TEST_STATION,
    ...placed([
      { ...base, name: 'a', at: [0, 1] },
      { ...base, id: 2, name: 'b', at: [1, 0] },
    ]),
  };
  expect(ordersOf(data, 1).map(({ stages }) => stages.map(({ name }) => name))).toEqual([
    ['a', 'b'],
    ['b', 'a'],
  ]);
});

type Asked = ReturnType<typeof askPath>;
function judgedEnd(asked: Asked): Extract<Asked, { state: 'judged' }> {
  if (asked.state !== 'judged') throw new Error(asked.because);
  return asked;
}

test('carriers reach the path through the antenna’s own gain', () => {
  const [path] = TEST_STATION.paths;
  const [target] = TEST_STATION.targets;
  const asked = judgedEnd(askPath(TEST_STATION, path, target));
  const lossless = judgedEnd(askPath(TEST_STATION, { ...path, antennaId: null }, target));
  // 3 kW ERP at 7 km: 69.1 dBm of EIRP over 89.1 dB of free space at 97.4 MHz, by hand
  expect(lossless.question.signals[0].levelDbm).toBeCloseTo(64.8 + 2.15 - 89.1, 0);
  // a V for 31 m is no good antenna at 97 MHz, and is no lossless one
  expect(asked.question.signals[0].levelDbm).toBeLessThan(lossless.question.signals[0].levelDbm);
  expect(asked.question.antennaNoise).toBeGreaterThan(0);
  expect(lossless.remarks[0]).toMatch(/No antenna is chosen: a lossless one without direction stands in for it/);
  // before the wire model has answered nothing is computed from 0 dBi
  const { hearing: _hearing, ...unheard } = TEST_STATION;
  expect(askPath(unheard, path, target).state).toBe('waiting');
  expect(unjudgedPath(unheard, unheard.paths[0])?.waiting).toBe(true);
  expect(judgedPath(unheard, unheard.paths[0])).toBeUndefined();
});

test('a dish sees the sky, not the warm earth: its path is asked with some 38 K', () => {
  const [path] = TEST_STATION.paths;
  const target = { ...TEST_STATION.targets[0], lowHz: 10.9e9, highHz: 11e9 };
  const [wire] = TEST_STATION.revisions;
  const revision = { ...wire, kind: 'dish', freqHz: 10.95e9, dimensions: {} };
  const data = { ...TEST_STATION, revisions: [revision], targets: [target] };
  // a tenth of 290 K and 0.9 of some 10 K: 10 log(38 / 290) = −8.8 dB, by hand; man-made noise of the class adds next to nothing there
  expect(Math.abs(judgedEnd(askPath(data, path, target)).question.externalFaDb + 8.8)).toBeLessThan(0.3);
  // 1.6 km of its wire in wavelengths: nobody solves that, and nothing is made of it
  const wired = askPath({ ...TEST_STATION, targets: [target] }, path, target);
  expect(wired).toMatchObject({ state: 'not judged', because: expect.stringMatching(/λ of wire here/) });
});

test('steps tell where they stand', () => {
  const { listen, bench, draft, guard } = standings(TEST_STATION);
  expect([listen, bench, draft, guard]).toEqual(['done', 'empty', 'in work', 'empty']);
});

test('a station goes on with what is in doubt, then what was begun, then what is empty; Guard is no duty', () => {
  const all = standings(TEST_STATION);
  const every = (state: 'done' | 'empty') => ({
    ...all,
    ...Object.fromEntries(Object.keys(all).map((id) => [id, state])),
  });
  expect(nextStep(every('empty'))?.id).toBe('listen');
  expect(nextStep({ ...every('done'), guard: 'empty', notebook: 'empty' })).toBeUndefined();
  expect(nextStep({ ...every('done'), draft: 'in work', path: 'doubtful' })?.id).toBe('path');
  expect(nextStep({ ...every('done'), choose: 'empty', draft: 'in work' })?.id).toBe('draft');
});
