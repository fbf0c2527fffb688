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

/** Where a gesture is on its element, px, and how large the element is. */
export interface GesturePlace {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/**
 * Zoom and pan over a drawing: a ref for its element. The page scrolls over it as everywhere: the wheel zooms with Ctrl alone, a sideways wheel (or Shift)
 * pans, two fingers zoom and pan, and one finger pans only where `oneFinger` says so. Needs listeners of its own: the page's wheel listeners may not
 * keep it from scrolling. The element says by `touch-action` which way one finger scrolls.
 */
export function useGestures(act: {
  /** Makes what is shown wider by a factor (narrower under 1), about a place. */
  readonly zoom: (factor: number, at: GesturePlace) => void;
  /** Moves what is shown by px, to the right and down. */
  readonly pan: (dx: number, dy: number, at: GesturePlace) => void;
  readonly oneFinger?: boolean;
}) {
  const acting = useRef(act);
  useEffect(() => {
    acting.current = act;
  });
  return useCallback((element: HTMLElement | null) => {
    if (!element) return undefined;
    const placeOf = ([x, y]: readonly [number, number]): GesturePlace => {
      const { left, top, width, height } = element.getBoundingClientRect();
      return { x: x - left, y: y - top, width: Math.max(1, width), height: Math.max(1, height) };
    };
    const onWheel = (event: WheelEvent): void => {
      const at = placeOf([event.clientX, event.clientY]);
      if (event.ctrlKey || event.metaKey) {
        event.preventDefault();
        acting.current.zoom(event.deltaY > 0 ? NOTCH : 1 / NOTCH, at);
      } else if (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)) {
        event.preventDefault();
        acting.current.pan(-(event.deltaX || event.deltaY), 0, at);
      }
    };
    const fingers = new Map<number, readonly [number, number]>();
    const pinch = (): { spread: number; middle: readonly [number, number] } => {
      const [[ax, ay] = [0, 0], [bx, by] = [0, 0]] = [...fingers.values()];
      return { spread: Math.max(20, Math.hypot(ax - bx, ay - by)), middle: [(ax + bx) / 2, (ay + by) / 2] };
    };
    const onDown = (event: PointerEvent): void => {
      if (event.pointerType === 'touch') fingers.set(event.pointerId, [event.clientX, event.clientY]);
    };
    const onMove = (event: PointerEvent): void => {
      const last = fingers.get(event.pointerId);
      if (!last) return;
      const before = pinch();
      fingers.set(event.pointerId, [event.clientX, event.clientY]);
      if (fingers.size === 1 && acting.current.oneFinger)
        acting.current.pan(event.clientX - last[0], 0, placeOf([event.clientX, event.clientY]));
      if (fingers.size !== 2) return;
      const { spread, middle } = pinch();
      acting.current.pan(middle[0] - before.middle[0], middle[1] - before.middle[1], placeOf(middle));
      acting.current.zoom(before.spread / spread, placeOf(middle));
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
