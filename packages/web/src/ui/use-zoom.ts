import { useCallback, useEffect, useRef } from 'react';

type Span = readonly [number, number];

/** A span after panning by a share of its width. */
export const panned = ([low, high]: Span, share: number): Span => [
  low + share * (high - low),
  high + share * (high - low),
];

/** Narrowest half span, Hz. */
const LEAST_HALF = 1e3;

/** A span made wider by a factor about a place (0 left, 1 right), which stays where it is. */
export function zoomed([low, high]: Span, factor: number, place: number): Span {
  const width = Math.max(2 * LEAST_HALF, (high - low) * factor);
  const fixed = low + place * (high - low);
  const from = Math.max(0, fixed - place * width);
  return [from, from + width];
}

/** One notch of a wheel. */
const NOTCH = 1.15;

/**
 * Zoom by wheel and by two fingers over an element: a ref for it. The wheel zooms about the pointer, fingers about their middle; a sideways
 * wheel pans. Needs listeners of its own: the page's wheel listeners may not keep it from scrolling.
 */
export function useZoom(act: {
  readonly zoom: (factor: number, place: number) => void;
  readonly pan: (share: number) => void;
}) {
  const acting = useRef(act);
  useEffect(() => {
    acting.current = act;
  });
  return useCallback((element: HTMLElement | null) => {
    if (!element) return undefined;
    const place = (x: number): number => {
      const { left, width } = element.getBoundingClientRect();
      return Math.min(1, Math.max(0, (x - left) / Math.max(1, width)));
    };
    const onWheel = (event: WheelEvent): void => {
      event.preventDefault();
      if (Math.abs(event.deltaX) > Math.abs(event.deltaY)) acting.current.pan(event.deltaX / 800);
      else acting.current.zoom(event.deltaY > 0 ? NOTCH : 1 / NOTCH, place(event.clientX));
    };
    const fingers = new Map<number, number>();
    const spread = (): number => {
      const [a = 0, b = 0] = [...fingers.values()];
      return Math.max(20, Math.abs(a - b));
    };
    const onDown = (event: PointerEvent): void => {
      if (event.pointerType === 'touch') fingers.set(event.pointerId, event.clientX);
    };
    const onMove = (event: PointerEvent): void => {
      if (!fingers.has(event.pointerId)) return;
      const before = spread();
      const last = fingers.get(event.pointerId) ?? event.clientX;
      fingers.set(event.pointerId, event.clientX);
      if (fingers.size === 1) acting.current.pan((last - event.clientX) / Math.max(1, element.clientWidth));
      if (fingers.size !== 2) return;
      const [a, b] = [...fingers.values()];
      acting.current.zoom(before / spread(), place((a + b) / 2));
    };
    const onUp = (event: PointerEvent): void => void fingers.delete(event.pointerId);
    element.addEventListener('wheel', onWheel, { passive: false });
    element.addEventListener('pointerdown', onDown);
    element.addEventListener('pointermove', onMove);
    element.addEventListener('pointerup', onUp);
    element.addEventListener('pointercancel', onUp);
    return () => {
      element.removeEventListener('wheel', onWheel);
      element.removeEventListener('pointerdown', onDown);
      element.removeEventListener('pointermove', onMove);
      element.removeEventListener('pointerup', onUp);
      element.removeEventListener('pointercancel', onUp);
    };
  }, []);
}
