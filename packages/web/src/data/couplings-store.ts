import { couplingsToKeep, listenToCouplings, takeKeptCouplings } from '@velvet-reed/station/guard/couplings';
import { localStore } from './browser-store';

const STORE = 'velvet-reed-couplings';

try {
  takeKeptCouplings(JSON.parse(localStore.getItem(STORE) ?? '[]'));
} catch {
  // what cannot be read is computed again
}
listenToCouplings(() => localStore.setItem(STORE, JSON.stringify(couplingsToKeep())));
