import { describe, expect, test } from '@jest/globals';
import { TEST_STATION } from './test-station';
import { sortOut } from './station';

const station = (lists: Readonly<Record<string, readonly unknown[]>>): Record<string, unknown> => ({
  ...TEST_STATION,
  ...lists,
});
const target = (over: Record<string, unknown>): Record<string, unknown> => ({ ...TEST_STATION.targets[0], ...over });

describe('a station with records that cannot be read', () => {
  test('the bad one is put aside with its reason, every other record stays', () => {
    const read = sortOut(
      station({
        targets: [target({}), target({ id: 2, lowHz: 'nine' }), 'rubbish'],
        emitters: [{ text: 'no number' }],
      }),
    );
    expect(read.targets.map(({ id }) => id)).toEqual([1]);
    expect(read.setAside.map(({ resource, why }) => [resource, why.length > 5])).toEqual([
      ['targets', true],
      ['targets', true],
      ['emitters', true],
    ]);
    expect(read.setAside[0]?.record.lowHz).toBe('nine');
  });
  test('a reply that is no station at all is refused with what to do', () => {
    expect(() => sortOut({ station: 'x' })).toThrow(/Reload the page/);
  });
});
