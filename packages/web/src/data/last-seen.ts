import { RESOURCE_NAMES, RESOURCES } from '@velvet-reed/contract';
import { ofThisFile } from './data-file';
import { clear, createStore, get, set } from 'idb-keyval';

/** What the server told last, for a page that opens while it is away. */
const store = createStore('velvet-reed-seen', 'answers');
/** Kept answers of a release with other columns are not read. */
const SHAPE = RESOURCE_NAMES.map((name) => `${name}:${Object.keys(RESOURCES[name].columns).join()}`).join(';');
/** Writes wait for a pause this long, ms. */
const PAUSE_MS = 800;

/** A browser that blocks its store says so by throwing, wherever it is touched: then nothing is kept, and the page works on. */
async function orNothing<T>(work: () => Promise<T>): Promise<T | undefined> {
  try {
    return await work();
  } catch {
    return undefined;
  }
}

const waiting = new Map<string, { readonly timer: ReturnType<typeof setTimeout> }>();

/** Keeps an answer under its address, once things are quiet. */
export function keepSeen(address: string, value: unknown): void {
  const path = ofThisFile(address);
  const before = waiting.get(path);
  if (before) clearTimeout(before.timer);
  const timer = setTimeout(() => {
    waiting.delete(path);
    void orNothing(() => set(path, { shape: SHAPE, value }, store));
  }, PAUSE_MS);
  waiting.set(path, { timer });
}

/** What was kept under an address; undefined when nothing was, or by another release. */
export async function lastSeen(path: string): Promise<unknown> {
  const kept: unknown = await orNothing(() => get<unknown>(ofThisFile(path), store));
  return typeof kept === 'object' && kept !== null && 'shape' in kept && kept.shape === SHAPE && 'value' in kept
    ? kept.value
    : undefined;
}

/** Forgets all of it: this device is not let in any more. What waits to be sent stays. */
export async function forgetSeen(): Promise<void> {
  for (const { timer } of waiting.values()) clearTimeout(timer);
  waiting.clear();
  await orNothing(() => clear(store));
  if (typeof caches !== 'undefined')
    for (const name of await caches.keys()) if (name.includes('records')) await caches.delete(name);
}
