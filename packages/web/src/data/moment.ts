import { useSyncExternalStore } from 'react';
import { sessionStore } from './browser-store';

/** The moment that sun, arrival angles and timetable are shown for: chosen by the listener, or the present hour. */
export interface Moment {
  readonly atMs: number;
  /** The chosen UTC day as typed, "2026-03-10"; absent: now. */
  readonly day?: string;
}

const STORAGE = 'velvet-reed.day';
const HOUR_MS = 3_600_000;
const EVENT = 'velvet-reed:day';

const subscribe = (onChange: () => void): (() => void) => {
  window.addEventListener(EVENT, onChange);
  window.addEventListener('storage', onChange);
  return () => {
    window.removeEventListener(EVENT, onChange);
    window.removeEventListener('storage', onChange);
  };
};

const storedDay = (): string | null => sessionStore.getItem(STORAGE);

/** Whole hours: a ranking of this hour stays the same while it lasts. */
function momentOf(day: string | null): Moment {
  const hour = Math.floor(Date.now() / HOUR_MS) * HOUR_MS;
  if (!day) return { atMs: hour };
  const begin = Date.parse(`${day}T00:00:00Z`);
  return Number.isFinite(begin) ? { atMs: begin + (hour % (24 * HOUR_MS)), day } : { atMs: hour };
}

/** The moment, and how to choose another day ("" for now). */
export function useMoment(): Moment & { readonly choose: (day: string) => void } {
  const day = useSyncExternalStore(subscribe, storedDay);
  return {
    ...momentOf(day),
    choose(next) {
      if (next === '') sessionStore.removeItem(STORAGE);
      else sessionStore.setItem(STORAGE, next);
      window.dispatchEvent(new Event(EVENT));
    },
  };
}
