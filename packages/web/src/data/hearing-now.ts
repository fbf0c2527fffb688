import type { StationHearing } from '@velvet-reed/station/record';

const store: { now: StationHearing | undefined; readonly listeners: Set<() => void> } = {
  now: undefined,
  listeners: new Set(),
};

/** What was told last; another object with every answer. */
export const hearingNow = (): StationHearing | undefined => store.now;

export const listenToHearing = (listener: () => void): (() => void) => {
  store.listeners.add(listener);
  return () => void store.listeners.delete(listener);
};

/** Tells every view what is known by now. */
export function tellHearing(hearing: StationHearing): void {
  store.now = hearing;
  store.listeners.forEach((listener) => listener());
}
