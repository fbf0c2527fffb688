import { appendFileSync, existsSync, mkdirSync, readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import { EVENT_KINDS, type DoorEvent, type EventKind } from '@velvet-reed/contract';
import { writeWhole } from './whole-file';

/** So many are kept; the file is cut back to them when it has twice as many. */
const MOST_EVENTS = 500;
const LONGEST = 160;
// eslint-disable-next-line no-control-regex -- they are what is taken out
const CONTROL = /[\u0000-\u001f\u007f-\u009f\u2028\u2029]/g;

/** A name or address from outside, as it may stand in a log: one line, bounded. */
export const quiet = (text: string): string => text.replace(CONTROL, ' ').slice(0, LONGEST);

export interface EventLog {
  /** Latest last. */
  list(): readonly DoorEvent[];
  note(kind: EventKind, from: string, what?: string): void;
}

const isEvent = (value: unknown): value is DoorEvent =>
  typeof value === 'object' &&
  value !== null &&
  'atMs' in value &&
  'kind' in value &&
  EVENT_KINDS.some((kind) => kind === value.kind);

function readLines(file: string): DoorEvent[] {
  if (!existsSync(file)) return [];
  return readFileSync(file, 'utf8')
    .split('\n')
    .flatMap((line): DoorEvent[] => {
      try {
        const value: unknown = JSON.parse(line);
        return isEvent(value) ? [value] : [];
      } catch {
        return []; // the half of a line that a power cut left
      }
    });
}

/**
 * The log of security events: in memory, and one JSON line each in a file where a folder is named. Several of one kind from one place within a second
 * are one line, so that whoever knocks a thousand times does not push the rest out.
 */
export function openEvents(folder: string | undefined, now: () => number): EventLog {
  const file = folder === undefined ? undefined : path.join(folder, 'events.jsonl');
  if (folder !== undefined) mkdirSync(folder, { recursive: true, mode: 0o700 });
  let events = file === undefined ? [] : readLines(file).slice(-MOST_EVENTS);
  let written = events.length;
  return {
    list: () => events,
    note(kind, from, what = '') {
      const event: DoorEvent = { atMs: now(), kind, from: quiet(from), what: quiet(what) };
      const last = events.at(-1);
      if (
        last &&
        last.kind === kind &&
        last.from === event.from &&
        last.what === event.what &&
        event.atMs - last.atMs < 1000
      )
        return;
      events = [...events, event].slice(-MOST_EVENTS);
      if (file === undefined) return;
      try {
        if (written >= 2 * MOST_EVENTS || (existsSync(file) && statSync(file).size > 1_000_000)) {
          writeWhole(file, events.map((one) => `${JSON.stringify(one)}\n`).join(''));
          written = events.length;
        } else {
          appendFileSync(file, `${JSON.stringify(event)}\n`, { mode: 0o600 });
          written += 1;
        }
      } catch {
        // a full disk does not open the door: the event stands in memory
      }
    },
  };
}
