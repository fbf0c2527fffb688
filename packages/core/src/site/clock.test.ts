import { describe, expect, test } from '@jest/globals';
import { occurrencesOf } from './appointments';
import { clockShows, momentShown, readZone } from './clock';

const at = (text: string): number => Date.parse(`${text}:00Z`);

// Directive 2000/84/EC: summer time from 01:00 UTC of the last Sunday of March (29 March 2026) to that of October (25 October 2026)
describe('clocks', () => {
  test('show winter and summer time', () => {
    expect(clockShows('Europe/Berlin', at('2026-03-29T00:59'))).toBe(at('2026-03-29T01:59'));
    expect(clockShows('Europe/Berlin', at('2026-03-29T01:00'))).toBe(at('2026-03-29T03:00'));
    expect(clockShows('', 5)).toBe(5);
    expect(clockShows('Asia/Kolkata', at('2026-01-01T00:00') + 250)).toBe(at('2026-01-01T05:30') + 250);
  });
  test('a time that comes twice is the first, one that never comes is reckoned as before the gap (RFC 5545, 3.3.5)', () => {
    expect(momentShown('Europe/Berlin', at('2026-10-25T02:30'))).toBe(at('2026-10-25T00:30'));
    expect(momentShown('Europe/Berlin', at('2026-03-29T02:30'))).toBe(at('2026-03-29T01:30'));
    // the standard's own example
    expect(momentShown('America/New_York', at('2007-03-11T02:30'))).toBe(at('2007-03-11T07:30'));
    expect(momentShown('', 7)).toBe(7);
  });
  test('there and back, every quarter of an hour of a year but the hours that come twice', () => {
    for (const zone of ['America/New_York', 'Australia/Lord_Howe', 'Pacific/Apia', 'Africa/Casablanca']) {
      let twice = 0;
      for (let ms = at('2026-01-01T00:00'); ms < at('2027-01-01T00:00'); ms += 900_000)
        if (momentShown(zone, clockShows(zone, ms)) !== ms) twice++;
      expect(twice).toBeLessThanOrEqual(4);
    }
  });
  test('an evening by the clock stays at its hour; one by UTC moves', () => {
    const net = { id: '1', name: 'Net', atMs: at('2026-03-27T19:00'), minutes: 60, repeats: 'daily' as const };
    const begun = (zone: string): string[] =>
      occurrencesOf({ ...net, zone }, at('2026-03-28T00:00'), at('2026-03-30T00:00')).map(({ fromMs }) =>
        new Date(fromMs).toISOString().slice(5, 16),
      );
    expect(begun('Europe/Berlin')).toEqual(['03-28T19:00', '03-29T18:00']);
    expect(begun('')).toEqual(['03-28T19:00', '03-29T19:00']);
  });
  test('a name that is none is refused with one that is', () => {
    expect(readZone(' Europe/Lisbon ')).toBe('Europe/Lisbon');
    expect(() => readZone('Middle-earth')).toThrow('Type a zone like Europe/Lisbon');
  });
});
