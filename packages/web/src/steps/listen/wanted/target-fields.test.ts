import { describe, expect, test } from '@jest/globals';
import { BLANK } from '@velvet-reed/contract';
import { TEST_STATION } from '@velvet-reed/station/testing/test-station';
import { hoursText, TARGET_FIELDS, targetStart } from './target-fields';

const reader = (name: string) => {
  const field = TARGET_FIELDS.find((one) => one.name === name);
  if (field?.kind !== 'read') throw new Error(`${name} is not read`);
  return field.read;
};
const target = { ...TEST_STATION.targets[0], ...BLANK.targets };

describe('hours of a target', () => {
  test.each([
    ['18:00-23:00', 1080, 1380],
    ['5-9', 300, 540],
    ['22:30 to 02:15', 1350, 135],
    ['6:00–24:00', 360, 0],
  ])('%s', (text, fromMin, toMin) => {
    expect(reader('fromMin')(text)).toEqual({ values: { fromMin, toMin } });
  });
  test.each(['evening', '25:00-26:00', '10:75-11:00', '18:00'])('"%s" is asked back with an example', (text) => {
    const found = reader('fromMin')(text);
    expect('fault' in found && found.fault).toMatch(/Type it like 18:00-23:00/);
  });
  test('empty is always; what was read is shown the same', () => {
    expect(reader('fromMin')(' ')).toEqual({ values: { fromMin: null, toMin: null } });
    expect(hoursText({ fromMin: 1080, toMin: 1380 })).toBe('18:00-23:00');
    expect(hoursText(target)).toBe('');
  });
});

describe('where from', () => {
  test('coordinates and locators; empty is not said', () => {
    expect(reader('latDeg')('38 N 60 W')).toEqual({ values: { latDeg: 38, lonDeg: -60 } });
    expect(reader('latDeg')('')).toEqual({ values: { latDeg: null, lonDeg: null } });
    const wrong = reader('latDeg')('over there');
    expect('fault' in wrong && wrong.fault).toMatch(/Type it like/);
  });
  test('a target as it would be typed again reads back to itself', () => {
    const start = targetStart({ ...target, latDeg: -33, lonDeg: 10, fromMin: 60, toMin: 120, arrivalDeg: 12 });
    expect(start).toMatchObject({ latDeg: '33 S 10 E', fromMin: '01:00-02:00', arrivalDeg: '12°' });
    expect(reader('latDeg')(start.latDeg)).toEqual({ values: { latDeg: -33, lonDeg: 10 } });
    expect(targetStart(target)).toMatchObject({ latDeg: '', fromMin: '', arrivalDeg: '' });
  });
});
