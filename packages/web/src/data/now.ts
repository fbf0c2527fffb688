import { useEffect, useState } from 'react';

const TICK_MS = 20_000;

/** The present moment, Unix time in ms, kept to within twenty seconds, or as asked. */
export function useNow(tickMs = TICK_MS): number {
  const [nowMs, setNow] = useState(Date.now);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), tickMs);
    return () => clearInterval(timer);
  }, [tickMs]);
  return nowMs;
}
