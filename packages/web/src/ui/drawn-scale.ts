import { useEffect, useState, type RefObject } from 'react';

/** Least size of a letter in a drawing, px on the screen. */
const LEAST_PX = 11;

/**
 * Font sizes of a drawing that is scaled to its place: in its own units, never under 11 px on the screen. @param ofUnits width of the drawing in its units.
 */
export function useReadable(host: RefObject<Element | null>, ofUnits: number): (size: number) => number {
  const [px, setPx] = useState(ofUnits);
  useEffect(() => {
    const element = host.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => setPx(Math.max(40, entry.contentRect.width)));
    observer.observe(element);
    return () => observer.disconnect();
  }, [host]);
  return (size) => Math.max(size, (LEAST_PX * ofUnits) / px);
}
