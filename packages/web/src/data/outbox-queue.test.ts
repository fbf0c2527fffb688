import { describe, expect, test } from '@jest/globals';
import type { Change } from '@velvet-reed/contract';
import fc from 'fast-check';
import {
  answered,
  conflictsOf,
  discarded,
  EMPTY_QUEUE,
  isTemporary,
  onlyChanged,
  overTheirs,
  queued,
  refusedBy,
  retried,
  sendable,
  withWaiting,
  yielded,
  type Queue,
} from './outbox-queue';
import { TEST_STATION } from '@velvet-reed/station/testing/test-station';

const stationId = TEST_STATION.station.id;
const batch = (key: string, changes: readonly Change[]) => ({ key, stationId, changes, what: key, atMs: 1000 });
const note = (text: string): Change => ({
  op: 'create',
  resource: 'entries',
  values: { step: 'bench', text, atMs: 1 },
});
const trial: Change = {
  op: 'create',
  resource: 'targets',
  as: 't',
  values: { name: 'dusk', lowHz: 9e6, highHz: 9.1e6, bandwidthHz: 5000, weight: 1 },
};
const pointing = (targetId: number | { readonly new: string }): Change => ({
  op: 'create',
  resource: 'antennas',
  values: { name: 'wire', targetId },
});

describe('the line of what waits', () => {
  test('records made here are shown at once, with numbers that no server gives, and rooms reckon with them', () => {
    const queue = queued(EMPTY_QUEUE, batch('a', [trial, pointing({ new: 't' }), note('made')]));
    const shown = withWaiting(TEST_STATION, queue.batches);
    const [made] = shown.targets.slice(-1);
    expect([made.name, isTemporary(made.id)]).toEqual(['dusk', true]);
    expect(shown.antennas.at(-1)).toMatchObject({ name: 'wire', targetId: made.id });
    expect(shown.targets).toHaveLength(TEST_STATION.targets.length + 1);
    // untouched lists stay the same objects: nothing is reckoned anew for them
    expect(shown.sweeps).toBe(TEST_STATION.sweeps);
  });
  test('what points at a record that was made here waits for its number, and is sent with it', () => {
    let queue = queued(EMPTY_QUEUE, batch('a', [trial]));
    const [made] = queue.batches[0].ids;
    queue = queued(
      queue,
      batch('b', [
        pointing(made),
        { op: 'update', resource: 'targets', id: made, version: 1, values: { name: 'dawn' } },
      ]),
    );
    expect(sendable(queue, queue.batches[1])).toBeUndefined();
    queue = answered(queue, 'a', [77]);
    expect(sendable(queue, queue.batches[0])).toMatchObject([
      { values: { targetId: 77 } },
      { id: 77, version: 1, values: { name: 'dawn' } },
    ]);
  });
  test('the same batch twice stands once; an answer that comes twice changes nothing', () => {
    const once = queued(EMPTY_QUEUE, batch('a', [note('x')]));
    expect(queued(once, batch('a', [note('x')]))).toBe(once);
    const done = answered(once, 'a', [5]);
    expect(answered(done, 'a', [5])).toBe(done);
  });
  test('a refused one stays and is not shown as saved; given up it is gone; tried again it goes out as it was', () => {
    const queue = refusedBy(queued(EMPTY_QUEUE, batch('a', [note('x')])), 'a', { code: 'STALE_WRITE', message: 'no' });
    expect(withWaiting(TEST_STATION, queue.batches)).toBe(TEST_STATION);
    expect(discarded(queue, 'a').batches).toEqual([]);
    expect(retried(queue, 'a', { key: 'a', changes: [note('x')] }).batches[0].refused).toBeUndefined();
  });
  test('where both sides wrote, the fields that differ are told, and only what was changed here is put over theirs', () => {
    const [target] = TEST_STATION.targets;
    const { id, version } = target;
    const whole: Change = {
      op: 'update',
      resource: 'targets',
      id,
      version,
      values: { name: 'mine', weight: target.weight, lowHz: target.lowHz },
    };
    const [mine] = onlyChanged(TEST_STATION, [whole]);
    expect(mine).toMatchObject({ values: { name: 'mine' } });
    expect('values' in mine && Object.keys(mine.values)).toEqual(['name']);
    const theirs = {
      ...TEST_STATION,
      targets: TEST_STATION.targets.map((one) =>
        one.id === id ? { ...one, name: 'theirs', weight: 9, version: version + 1 } : one,
      ),
    };
    const conflicts = conflictsOf(theirs, { ...batch('a', [mine]), ids: [0] });
    expect(conflicts).toMatchObject([{ id, version: version + 1, fields: [{ here: 'mine', there: 'theirs' }] }]);
    expect(overTheirs([mine], conflicts)).toMatchObject([{ version: version + 1, values: { name: 'mine' } }]);
  });
  test('"keep what is written elsewhere" dropped the new entries of the batch too: it gives up what conflicts, and nothing else', () => {
    const [{ id, version }] = TEST_STATION.targets;
    const mine: Change = { op: 'update', resource: 'targets', id, version, values: { name: 'mine' } };
    const line = queued(EMPTY_QUEUE, batch('a', [note('first'), mine, trial, pointing({ new: 't' })]));
    const refused = refusedBy(line, 'a', { code: 'STALE_WRITE', message: 'no' });
    const theirs = {
      ...TEST_STATION,
      targets: TEST_STATION.targets.map((one) => (one.id === id ? { ...one, name: 'theirs', version: 9 } : one)),
    };
    const conflicts = conflictsOf(theirs, refused.batches[0]);
    const [left] = yielded(refused, 'a', 'b', conflicts).batches;
    expect(left).toMatchObject({ key: 'b', changes: [note('first'), trial, pointing({ new: 't' })] });
    expect(left.refused).toBeUndefined();
    // numbers stay with their records
    const { ids } = line.batches[0];
    expect(left.ids).toEqual([ids[0], ids[2], ids[3]]);
    // one that was nothing but the conflict goes
    const alone = refusedBy(queued(EMPTY_QUEUE, batch('c', [mine])), 'c', { code: 'STALE_WRITE', message: 'no' });
    expect(yielded(alone, 'c', 'd', conflictsOf(theirs, alone.batches[0])).batches).toEqual([]);
  });
  test('whatever is lost on the way: each batch is answered once, in order, and nothing is left (seeds kept by the library)', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ size: fc.integer({ min: 1, max: 3 }), fails: fc.integer({ min: 0, max: 3 }) }), {
          maxLength: 12,
        }),
        (plan) => {
          let queue: Queue = EMPTY_QUEUE;
          plan.forEach(({ size }, i) => {
            queue = queued(
              queue,
              batch(
                String(i),
                Array.from({ length: size }, (_, k) => note(`${i} ${k}`)),
              ),
            );
          });
          // a server that carries out what it gets once by name; answers are lost as planned
          const kept = new Map<string, number[]>();
          const log: string[] = [];
          let next = 1;
          for (let round = 0; queue.batches.length > 0; round += 1) {
            expect(round).toBeLessThan(100);
            const [first] = queue.batches;
            const ids = kept.get(first.key) ?? first.changes.map(() => next++);
            if (!kept.has(first.key)) log.push(first.key);
            kept.set(first.key, ids);
            if (round % 4 >= plan[Number(first.key)].fails) queue = answered(queue, first.key, ids);
          }
          expect(log).toEqual(plan.map((_, i) => String(i)));
          expect(Object.keys(queue.real)).toHaveLength(plan.reduce((sum, { size }) => sum + size, 0));
        },
      ),
      { seed: 17, numRuns: 300 },
    );
  });
});
