import { describe, expect, test } from '@jest/globals';
import { ANTENNA_KINDS } from './kinds';
import { dutiesFor, dutyState } from './upkeep';

const DAY = 86_400_000;
describe('upkeep', () => {
  test('every kind has duties, sooner by the sea; what hangs has ropes, what stands has rods, what lies neither', () => {
    for (const { id } of ANTENNA_KINDS) {
      const [inland, salty] = [dutiesFor(id, false), dutiesFor(id, true)];
      expect(inland.length).toBeGreaterThan(0);
      inland.forEach((duty, i) => expect(salty[i].everyDays).toBeLessThan(duty.everyDays));
    }
    const kinds = (id: string) => dutiesFor(id, false).map(({ kind }) => kind);
    expect(kinds('half-wave-dipole')).toContain('ropes');
    expect(kinds('yagi')).toContain('rods');
    expect(kinds('ground-loop')).not.toContain('ropes');
  });
  test('counted from the last time or from the beginning; told two weeks ahead; a storm brings it forward', () => {
    const duty = { kind: 'ropes', everyDays: 180, sinceMs: 0, doneMs: null };
    expect(dutyState(duty, 100 * DAY)).toEqual({ dueMs: 180 * DAY, state: 'later' });
    expect(dutyState(duty, 170 * DAY).state).toBe('due');
    expect(dutyState(duty, 181 * DAY).state).toBe('late');
    expect(dutyState({ ...duty, doneMs: 100 * DAY }, 120 * DAY).dueMs).toBe(280 * DAY);
    const storm = { kind: 'storm', everyDays: 3, sinceMs: 100 * DAY, doneMs: null };
    expect(dutyState(storm, 101 * DAY)).toEqual({ dueMs: 103 * DAY, state: 'due' });
    expect(dutyState({ ...storm, doneMs: 102 * DAY }, 500 * DAY).state).toBe('finished');
  });
});
