import type { FloorReading } from '../noise/floor-log';
import { SweepFileError } from './touchstone';

/** "09:13" or "9:13:30", minutes of the day. */
function clockMs(text: string): number | undefined {
  const match = /^(\d{1,2}):(\d{2})(?::(\d{2}))?$/.exec(text);
  if (!match) return undefined;
  const [hour, minute, second] = [Number(match[1]), Number(match[2]), Number(match[3] ?? 0)];
  return hour < 24 && minute < 60 && second < 60 ? ((hour * 60 + minute) * 60 + second) * 1000 : undefined;
}

/** A moment in UTC: "2026-08-04T09:13Z", "2026-08-04 09:13", or a clock time of a given day. @returns undefined for anything else. */
export function readMoment(text: string, day: string): number | undefined {
  const trimmed = text.trim();
  const clock = clockMs(trimmed);
  if (clock !== undefined) {
    const begin = Date.parse(`${day}T00:00:00Z`);
    return Number.isFinite(begin) ? begin + clock : undefined;
  }
  const iso = /^(\d{4}-\d{2}-\d{2})[T ](\d{2}:\d{2}(?::\d{2}(?:\.\d+)?)?)Z?$/.exec(trimmed);
  const value = iso ? Date.parse(`${iso[1]}T${iso[2]}Z`) : NaN;
  return Number.isFinite(value) ? value : undefined;
}

/**
 * Reads a noise log: time (UTC) and level in dBm a row, separated by comma, semicolon or tab; a heading is skipped. Clock times without a date belong to
 * `day` ("2026-08-04"). Rows must ascend in time.
 * @throws SweepFileError with the line number.
 */
export function readFloorCsv(text: string, day: string): readonly FloorReading[] {
  const readings: FloorReading[] = [];
  text
    .replace(/^\uFEFF/, '')
    .split(/\r\n|\n|\r/)
    .forEach((line, i) => {
      const trimmed = line.trim();
      if (trimmed === '' || /^[#!]/.test(trimmed)) return;
      const [time = '', level = ''] = trimmed.split(/[;,\t]/).map((cell) => cell.trim());
      const atMs = readMoment(time, day);
      if (atMs === undefined && readings.length === 0 && /[a-z]/i.test(time)) return; // heading
      const levelDbm = level === '' ? NaN : Number(level.replace('−', '-'));
      if (atMs === undefined)
        throw new SweepFileError(i + 1, `"${time}" is no time. Write it as 09:13 or 2026-08-04 09:13, in UTC.`);
      if (!Number.isFinite(levelDbm))
        throw new SweepFileError(i + 1, 'a row needs a time and a level in dBm. Correct or delete it.');
      const last = readings[readings.length - 1];
      if (last && atMs <= last.atMs) throw new SweepFileError(i + 1, 'the times must ascend. Sort the rows.');
      readings.push({ atMs, levelDbm });
    });
  if (readings.length === 0) throw new SweepFileError(1, 'the file holds no reading. It needs rows of time and level.');
  return readings;
}
