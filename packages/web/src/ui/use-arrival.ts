import { useEffect } from 'react';

/** Whether a room was shown before in this page: then it was changed on purpose, and the new one is told. */
let arrived = false;

/** Begins at the top of a room, says in the title where one is, and hands the focus to it. */
export function useArrival(title: string): void {
  useEffect(() => {
    document.title = `${title} · Velvet Reed`;
    if (arrived) {
      scrollTo(0, 0);
      document.getElementById('sheet')?.focus({ preventScroll: true });
    }
    arrived = true;
  }, [title]);
}
