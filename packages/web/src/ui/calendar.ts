import { clockShows } from '@velvet-reed/core/site';

/** A thing with a date, as calendar programs keep it. */
export interface CalendarEvent {
  /** The same in every file that it leaves in, so that a calendar knows it again. */
  readonly uuid: string;
  /** How often it was changed: the newer one replaces the older. */
  readonly sequence: number;
  readonly title: string;
  readonly text: string;
  readonly atMs: number;
  /** Length; undefined: the whole day in which `atMs` lies, UTC. */
  readonly minutes?: number;
  /** Zone whose clock it keeps; empty: UTC. */
  readonly zone: string;
  readonly repeats?: { readonly every: 'DAILY' | 'WEEKLY'; readonly interval: number };
  /** Minutes from its beginning to its alarm, before it negative; undefined: none. */
  readonly alarmMinutes?: number;
}

/** Events as iCalendar (RFC 5545): in UTC or in their zone, whose rules stand in the file, with alarms. @param nowMs of writing */
export async function calendarText(events: readonly CalendarEvent[], nowMs: number): Promise<string> {
  const [{ default: ICAL }, { tzlib_get_ical_block: rulesOf }] = await Promise.all([
    import('ical.js'),
    import('timezones-ical-library'),
  ]);
  // a folded line begins with a space, which the package does not count
  ICAL.foldLength = 74;
  const { Component, Property, Time, Duration, Recur } = ICAL;
  const calendar = new Component('vcalendar');
  calendar.addPropertyWithValue('prodid', '-//Velvet Reed//EN');
  calendar.addPropertyWithValue('version', '2.0');
  for (const zone of new Set(events.map((one) => one.zone).filter((zone) => zone !== ''))) {
    const rules = rulesOf(zone);
    if (!Array.isArray(rules))
      throw new Error(
        `The rules of the clock of "${zone}" are not known here. Change its appointments to UTC or to the clock of this device.`,
      );
    calendar.addSubcomponent(Component.fromString(rules[0]));
  }
  const utc = (ms: number) => Time.fromJSDate(new Date(ms), true);
  const dayOf = (ms: number) => Time.fromDateString(new Date(ms).toISOString().slice(0, 10));
  for (const { uuid, sequence, title, text, atMs, minutes, zone, repeats, alarmMinutes } of events) {
    const event = new Component('vevent');
    event.addPropertyWithValue('uid', uuid);
    event.addPropertyWithValue('sequence', sequence);
    event.addPropertyWithValue('dtstamp', utc(nowMs));
    if (minutes === undefined) {
      event.addPropertyWithValue('dtstart', dayOf(atMs));
      event.addPropertyWithValue('dtend', dayOf(atMs + 86_400_000));
    } else if (zone !== '') {
      const start = new Property('dtstart', event);
      start.setParameter('tzid', zone);
      start.setValue(Time.fromString(new Date(clockShows(zone, atMs)).toISOString().slice(0, 19), start));
      event.addProperty(start);
    } else event.addPropertyWithValue('dtstart', utc(atMs));
    if (minutes !== undefined)
      event.addPropertyWithValue('duration', Duration.fromSeconds(Math.max(1, Math.round(minutes * 60))));
    if (repeats)
      event.addPropertyWithValue('rrule', Recur.fromData({ freq: repeats.every, interval: repeats.interval }));
    event.addPropertyWithValue('summary', title);
    event.addPropertyWithValue('description', text);
    if (alarmMinutes !== undefined) {
      const alarm = new Component('valarm');
      alarm.addPropertyWithValue('action', 'DISPLAY');
      alarm.addPropertyWithValue('trigger', Duration.fromSeconds(Math.round(alarmMinutes * 60)));
      alarm.addPropertyWithValue('description', title);
      event.addSubcomponent(alarm);
    }
    calendar.addSubcomponent(event);
  }
  // a file ends its last line too (RFC 5545, 3.1)
  return `${calendar.toString()}\r\n`;
}
