import type { CableLimit } from '@velvet-reed/core/bearing';
import { localStore } from './browser-store';

const STORE = 'velvet-reed.cable-limit';
/** From the mark once round: what any cable that was put on for a turntable bears. */
const USUAL: CableLimit = { lowDeg: 0, highDeg: 360 };

/** How far a turntable's cable lets it turn, as it was entered on this device. */
export function keptCableLimit(instrumentId: string): CableLimit {
  try {
    const [low, high] = (localStore.getItem(`${STORE}.${instrumentId}`) ?? '').split(' ').map(Number);
    return Number.isFinite(low) && Number.isFinite(high) && low <= 0 && high > 0
      ? { lowDeg: low, highDeg: high }
      : USUAL;
  } catch {
    return USUAL;
  }
}

export function keepCableLimit(instrumentId: string, { lowDeg, highDeg }: CableLimit): void {
  localStore.setItem(`${STORE}.${instrumentId}`, `${lowDeg} ${highDeg}`);
}
