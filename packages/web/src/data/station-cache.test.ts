import { describe, expect, test } from '@jest/globals';
import { mergedStation, wholeStation } from './station-cache';
import { TEST_STATION } from '@velvet-reed/station/testing/test-station';

const [target] = TEST_STATION.targets;
const delta = (over: Readonly<Record<string, unknown>>) => ({
  ...{ revision: 2, undo: { batch: 'b', what: 'target changed' }, changed: {}, gone: {}, setAside: [] },
  ...over,
});

describe('the one copy of a station', () => {
  test('a changed record takes its place, a new one comes last, what went is gone; other lists stay the same objects', () => {
    const before = { ...TEST_STATION, targets: [target, { ...target, id: 4 }] };
    const changed = {
      targets: [
        { ...target, version: 2, weight: 1 },
        { ...target, id: 9 },
      ],
    };
    const after = mergedStation(before, delta({ changed, gone: { targets: [4] } }));
    expect(after.targets.map(({ id, weight }) => [id, weight])).toEqual([
      [1, 1],
      [9, 5],
    ]);
    expect(after.receivers).toBe(before.receivers);
    expect([after.revision, after.undo?.batch]).toEqual([2, 'b']);
  });
  test('a record that is brought back stands between its neighbours, in the order of their numbers', () => {
    const before = { ...TEST_STATION, targets: [target, { ...target, id: 4 }] };
    const after = mergedStation(before, delta({ changed: { targets: [{ ...target, id: 2, version: 3 }] } }));
    expect(after.targets.map(({ id }) => id)).toEqual([1, 2, 4]);
  });
  test('an answer older than what is known changes nothing; the same revision may bring a new undo', () => {
    const known = { ...TEST_STATION, revision: 7 };
    expect(mergedStation(known, delta({ revision: 6, gone: { targets: [1] } }))).toBe(known);
    expect(mergedStation(known, delta({ revision: 7, undo: null })).targets).toBe(known.targets);
  });
  test('what was set aside and was mended or deleted since is no longer told', () => {
    const bad = { resource: 'targets' as const, record: { id: 4, version: 1 }, why: 'No frequency.' };
    const known = { ...TEST_STATION, setAside: [bad] };
    expect(mergedStation(known, delta({ changed: { transmitters: [] } })).setAside).toEqual([bad]);
    expect(mergedStation(known, delta({ changed: { targets: [{ ...target, id: 4 }] } })).setAside).toEqual([]);
    expect(
      mergedStation(known, delta({ gone: { targets: [4] }, setAside: [{ ...bad, why: 'Worse.' }] })).setAside,
    ).toEqual([{ ...bad, why: 'Worse.' }]);
  });
  test('an answer that is no station, or no change of one, is refused with what to do', () => {
    expect(() => wholeStation({ station: 'x' })).toThrow(/Reload the page/);
    expect(() => wholeStation({ ...TEST_STATION, targets: ['rubbish'] })).toThrow(/Reload the page/);
    expect(() => mergedStation(TEST_STATION, { revision: 'three' })).toThrow(/Reload the page/);
  });
});
