import { useEffect, useState } from 'react';

/** Where a device points, as far as it tells. */
export interface Compass {
  /** Clockwise from magnetic north, degrees. */
  readonly headingDeg?: number;
  /** Asks the device, where it wants to be asked; the heading then follows. */
  readonly start: () => void;
  readonly listening: boolean;
  /** Why there is none. */
  readonly trouble?: string;
}

/** Some devices must be asked first, and only after a press. */
const mustBeAsked = (device: object): device is { readonly requestPermission: () => Promise<string> } =>
  'requestPermission' in device && typeof device.requestPermission === 'function';
/** One maker's browsers tell a heading of their own. */
type OwnHeading = { readonly webkitCompassHeading?: number };

const NONE =
  'This device tells no heading here. Read a compass and type the direction; on a phone open the application over its own address with TLS.';
/** Silence for so long means that there is no compass, ms. */
const PATIENCE_MS = 3000;

/** Heading by the device's own compass (Device Orientation, W3C): a phone held flat, its upper edge forward. */
export function useCompass(): Compass {
  const [listening, setListening] = useState(false);
  const [headingDeg, setHeading] = useState<number>();
  const [trouble, setTrouble] = useState<string>();
  useEffect(() => {
    if (!listening) return;
    const onTurn = (event: DeviceOrientationEvent & OwnHeading): void => {
      const own = event.webkitCompassHeading;
      // alpha counts against the clock, and from north only where the event says so
      const heading = own ?? (event.absolute && event.alpha !== null ? 360 - event.alpha : undefined);
      if (heading === undefined || !Number.isFinite(heading)) return;
      setHeading(((heading % 360) + 360) % 360);
      setTrouble(undefined);
    };
    // the absolute event is not yet known to the types of windows everywhere
    const names = ['deviceorientationabsolute', 'deviceorientation'] as const;
    names.forEach((name) => window.addEventListener(name, onTurn as EventListener));
    const timer = setTimeout(() => setTrouble((old) => old ?? NONE), PATIENCE_MS);
    return () => {
      names.forEach((name) => window.removeEventListener(name, onTurn as EventListener));
      clearTimeout(timer);
    };
  }, [listening]);
  const start = (): void => {
    if (!('DeviceOrientationEvent' in window)) return setTrouble(NONE);
    const device = window.DeviceOrientationEvent;
    if (!mustBeAsked(device)) return setListening(true);
    device.requestPermission().then(
      (said) =>
        said === 'granted' ? setListening(true) : setTrouble('The heading was not allowed. Type the direction.'),
      () => setTrouble(NONE),
    );
  };
  return {
    ...{ start, listening },
    ...(headingDeg === undefined ? {} : { headingDeg }),
    ...(trouble === undefined || headingDeg !== undefined ? {} : { trouble }),
  };
}
