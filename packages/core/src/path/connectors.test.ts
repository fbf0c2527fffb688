import { describe, expect, test } from '@jest/globals';
import { joinRow, readAdapters } from './connectors';

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
