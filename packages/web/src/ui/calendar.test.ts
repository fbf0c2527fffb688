import { describe, expect, test } from '@jest/globals';
import { clockShows, occurrencesOf } from '@velvet-reed/core/site';
import ICAL from 'ical.js';
import ical from 'node-ical';
import fc from 'fast-check';
import { convertIcsCalendar } from 'ts-ics';
import { calendarText, type CalendarEvent } from './calendar';

const DAY = 86_400_000;
const NOW = Date.UTC(2026, 10, 2, 12);
const event = (more: Partial<CalendarEvent>): CalendarEvent => ({
  ...{ uuid: '8c1d1d9e-3c2a-4f3e-9a53-0d8a5a1b2c3d', sequence: 0, title: 'Net', text: 'The hut' },
  ...{ atMs: Date.UTC(2026, 2, 10, 18, 30), minutes: 45, zone: '' },
  ...more,
});
/** Begin and end of every event, as two libraries that had no part in writing the file read it. */
async function readTwice(events: readonly CalendarEvent[]) {
  const text = await calendarText(events, NOW);
  const [a] = [convertIcsCalendar(undefined, text)];
  const b = Object.values(ical.sync.parseICS(text)).filter((one) => one?.type === 'VEVENT');
  return { text, a: a.events ?? [], b };
}

describe('a calendar file', () => {
  test('is read by two libraries: title, begin, end, name, turn, alarm', async () => {
    const title = 'Voice; "weather", süd\nsecond line '.repeat(4);
    const { text, a, b } = await readTwice([
      event({ title, alarmMinutes: -15, sequence: 3, repeats: { every: 'WEEKLY', interval: 1 } }),
      event({
        uuid: '0c1d1d9e-3c2a-4f3e-9a53-0d8a5a1b2c3d',
        zone: 'Europe/Lisbon',
        repeats: { every: 'DAILY', interval: 1 },
      }),
    ]);
    expect(a).toHaveLength(2);
    expect(b).toHaveLength(2);
    expect(a[0]).toMatchObject({ uid: event({}).uuid, summary: title, sequence: 3 });
    expect(a[0].start.date.getTime()).toBe(event({}).atMs);
    expect(a[0].alarms?.[0].trigger).toMatchObject({ value: { before: true, minutes: 15 } });
    expect(b[0]).toMatchObject({ uid: event({}).uuid, summary: title, start: new Date(event({}).atMs) });
    expect(b.map((one) => one && 'end' in one && Number(one.end) - Number(one.start))).toEqual([2_700_000, 2_700_000]);
    // 18:30 UTC is 18:30 in Lisbon in winter time
    expect(text).toContain('DTSTART;TZID=Europe/Lisbon:20260310T183000');
    expect(text.match(/BEGIN:VTIMEZONE/g)).toHaveLength(1);
    expect(Number(b[1]?.start)).toBe(event({}).atMs);
  });

  test('keeps to the grammar of RFC 5545: lines of 75 octets at most, CR LF, what every part must have', async () => {
    const text = await calendarText(
      [
        event({ title: `${'ü€𝄞'.repeat(60)} süd\\nord`, alarmMinutes: 0 }),
        event({ uuid: 'b', minutes: undefined, alarmMinutes: 540 }),
      ],
      NOW,
    );
    expect(text.endsWith('END:VCALENDAR\r\n')).toBe(true);
    for (const line of text.split('\r\n')) {
      expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
      expect(line).not.toMatch(/[\r\n]/);
    }
    const calendar = ICAL.Component.fromString(text);
    expect(calendar.getFirstSubcomponent('vevent')?.getFirstPropertyValue('summary')).toMatch(/ süd\\nord$/);
    for (const name of ['prodid', 'version']) expect(calendar.getAllProperties(name)).toHaveLength(1);
    for (const one of calendar.getAllSubcomponents('vevent')) {
      for (const name of ['uid', 'dtstamp', 'dtstart']) expect(one.getAllProperties(name)).toHaveLength(1);
      // 3.6.1: DTEND and DURATION exclude each other; 3.8.7.2: DTSTAMP is UTC
      expect(one.getAllProperties('dtend').length + one.getAllProperties('duration').length).toBe(1);
      expect(String(one.getFirstPropertyValue('dtstamp'))).toBe('2026-11-02T12:00:00Z');
      const alarm = one.getFirstSubcomponent('valarm');
      for (const name of ['action', 'trigger', 'description']) expect(alarm?.getAllProperties(name)).toHaveLength(1);
    }
    // a length of days alone has no T, and a day ends at the next (3.3.6, 3.6.1)
    expect(text).not.toMatch(/P\d*DT\r|P\dDT$/m);
    expect(text).toContain('DTSTART;VALUE=DATE:20260310\r\nDTEND;VALUE=DATE:20260311');
  });

  test('a calendar counts the same days as the room, in every zone, over the change of the clocks (seeded)', async () => {
    const zones = ['', 'Europe/Berlin', 'America/New_York', 'Australia/Lord_Howe', 'America/St_Johns', 'Asia/Kolkata'];
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom(...zones),
        fc.integer({ min: 0, max: 4 * 24 * 365 }),
        fc.constantFrom('daily' as const, 'weekly' as const),
        async (zone, quarters, repeats) => {
          const atMs = Date.UTC(2026, 0, 1) + quarters * 900_000;
          // the hours that a change of clocks leaves out or repeats are reckoned as RFC 5545 says, which this library does not
          fc.pre(new Date(clockShows(zone, atMs)).getUTCHours() >= 4);
          const every = repeats === 'daily' ? ('DAILY' as const) : ('WEEKLY' as const);
          const text = await calendarText([event({ atMs, zone, repeats: { every, interval: 1 } })], NOW);
          const calendar = ICAL.Component.fromString(text);
          const vevent = calendar.getFirstSubcomponent('vevent');
          if (!vevent) throw new Error('no event');
          const iterator = new ICAL.Event(vevent).iterator();
          const theirs = Array.from({ length: 200 }, () => iterator.next().toJSDate().getTime());
          const ours = occurrencesOf({ id: '1', name: '', atMs, minutes: 45, repeats, zone }, atMs, theirs[199] + 1);
          expect(ours.map(({ fromMs }) => fromMs)).toEqual(theirs);
        },
      ),
      { seed: 88, numRuns: 60 },
    );
  });

  test('a clock whose rules are not known is refused by name', async () => {
    await expect(calendarText([event({ zone: '+01:00' })], NOW)).rejects.toThrow('clock of "+01:00"');
  });
  test('every day a whole day', async () => {
    const { b } = await readTwice([event({ minutes: undefined, repeats: { every: 'DAILY', interval: 180 } })]);
    expect(b[0] && 'end' in b[0] && Number(b[0].end) - Number(b[0].start)).toBe(DAY);
  });
});
