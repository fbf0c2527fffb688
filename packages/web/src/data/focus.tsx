import { createContext, useContext, useMemo, useState, type ReactNode } from 'react';
import { localStore } from './browser-store';

/** The band that every view follows. */
export interface FocusBand {
  readonly lowHz: number;
  readonly highHz: number;
}

interface Focus {
  readonly band: FocusBand;
  readonly setBand: (band: FocusBand) => void;
}

const STORAGE = 'velvet-reed.focus';
const FIRST: FocusBand = { lowHz: 9.4e6, highHz: 9.9e6 };
/** Ends of the Reed. */
export const REED_LOW_HZ = 1e3;
export const REED_HIGH_HZ = 30e9;

function remembered(): FocusBand {
  try {
    const value: unknown = JSON.parse(localStore.getItem(STORAGE) ?? 'null');
    if (typeof value === 'object' && value !== null && 'lowHz' in value && 'highHz' in value) {
      const [lowHz, highHz] = [Number(value.lowHz), Number(value.highHz)];
      if (lowHz >= REED_LOW_HZ && highHz > lowHz && highHz <= REED_HIGH_HZ) return { lowHz, highHz };
    }
  } catch {
    // a damaged preference is no reason to stop: the first band stands in
  }
  return FIRST;
}

const Context = createContext<Focus>({ band: FIRST, setBand: () => undefined });

export function FocusProvider({ children }: { readonly children: ReactNode }) {
  const [band, setState] = useState(remembered);
  const focus = useMemo<Focus>(
    () => ({
      band,
      setBand(next) {
        const lowHz = Math.max(REED_LOW_HZ, Math.min(next.lowHz, REED_HIGH_HZ / 1.0002));
        const highHz = Math.min(REED_HIGH_HZ, Math.max(next.highHz, lowHz * 1.0001));
        setState({ lowHz, highHz });
        localStore.setItem(STORAGE, JSON.stringify({ lowHz, highHz }));
      },
    }),
    [band],
  );
  return <Context value={focus}>{children}</Context>;
}

export const useFocus = (): Focus => useContext(Context);
