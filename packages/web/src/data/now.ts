import { useEffect, useState } from 'react';

const TICK_MS = 20_000;

/** The present moment, Unix time in ms, kept to within twenty seconds. */
export function useNow(): number {
  const [nowMs, setNow] = useState(Date.now);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), TICK_MS);
    return () => clearInterval(timer);
  }, []);
  return nowMs;
}
