import { useSyncExternalStore } from 'react';

let away = false;
const listeners = new Set<() => void>();

/** Notes whether the server answered the last request of this page. */
export function noteAway(now: boolean): void {
  if (now === away) return;
  away = now;
  for (const listener of listeners) listener();
}

export const isAwayNow = (): boolean => away;

const subscribe = (onChange: () => void): (() => void) => {
  listeners.add(onChange);
  return () => void listeners.delete(onChange);
};

/** Whether the server answers nothing at present. */
export const useAway = (): boolean => useSyncExternalStore(subscribe, isAwayNow);
