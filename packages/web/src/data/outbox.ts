import type { Change } from '@velvet-reed/contract';
import { clear, createStore, entries as storedEntries, get, update } from 'idb-keyval';
import { useCallback, useEffect, useSyncExternalStore } from 'react';
import { toast } from 'sonner';
import { useSWRConfig } from 'swr';
import { getJson, isOtherFile, isOutside, mayHavePassed, RefusedError, sendFiles, sendJson } from './api';
import { isAwayNow } from './away';
import { fileId } from './data-file';
import { deviceName, newUuid } from './names';
import {
  answered,
  discarded,
  EMPTY_QUEUE,
  queued,
  refusedBy,
  retried,
  sendable,
  yielded,
  type Conflict,
  type Queue,
  type Waiting,
} from './outbox-queue';

/** The store has one value, the line as a whole: each change of it is one transaction. */
const QUEUE = 'queue';
const store = createStore('velvet-reed', 'outbox');
let queue: Queue = EMPTY_QUEUE;
const listeners = new Set<() => void>();
/** Other tabs of this browser share the line. */
const channel = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('velvet-reed-outbox');

const isQueue = (value: unknown): value is Queue =>
  typeof value === 'object' && value !== null && 'batches' in value && 'real' in value && 'next' in value;
const queueOf = (value: unknown): Queue => (isQueue(value) ? value : EMPTY_QUEUE);

function show(next: Queue): void {
  queue = next;
  for (const listener of listeners) listener();
}
async function changeQueue(change: (queue: Queue) => Queue): Promise<Queue> {
  let next = queue;
  await update<unknown>(
    QUEUE,
    (kept) => {
      next = change(queueOf(kept));
      return next;
    },
    store,
  );
  show(next);
  channel?.postMessage('changed');
  return next;
}

const isOlderBatch = (value: unknown): value is Omit<Waiting, 'ids'> =>
  typeof value === 'object' &&
  value !== null &&
  'key' in value &&
  'changes' in value &&
  'stationId' in value &&
  'atMs' in value;
let loaded: Promise<void> | undefined;
/** Reads what waits from an earlier visit; what an earlier release kept one by one goes into the line. */
function loadQueue(): Promise<void> {
  loaded ??= (async () => {
    const all = await storedEntries<string, unknown>(store);
    const older = all.flatMap(([name, value]) => (name !== QUEUE && isOlderBatch(value) ? [value] : []));
    if (older.length > 0) {
      let next = queueOf(all.find(([name]) => name === QUEUE)?.[1]);
      for (const batch of older.sort((a, b) => a.atMs - b.atMs)) next = queued(next, batch);
      await clear(store);
      await changeQueue(() => next);
    } else show(queueOf(await get<unknown>(QUEUE, store)));
  })().catch(() => undefined); // a browser that keeps nothing has nothing waiting
  return loaded;
}
channel?.addEventListener('message', () => void get<unknown>(QUEUE, store).then((kept) => show(queueOf(kept))));

const subscribe = (onChange: () => void): (() => void) => {
  listeners.add(onChange);
  void loadQueue();
  return () => void listeners.delete(onChange);
};
// one that was written before any file was known goes to the first that is met
const isForThisFile = ({ file = '' }: Waiting): boolean => file === '' || file === fileId();
/** One list for one state of the line and one file. */
let parted:
  | {
      readonly queue: Queue;
      readonly file: string;
      readonly here: readonly Waiting[];
      readonly other: readonly Waiting[];
    }
  | undefined;
function parts() {
  if (parted?.queue !== queue || parted.file !== fileId())
    parted = {
      ...{ queue, file: fileId() },
      here: queue.batches.filter(isForThisFile),
      other: queue.batches.filter((batch) => !isForThisFile(batch)),
    };
  return parted;
}
export const allWaiting = (): readonly Waiting[] => parts().here;

/** What waits in this browser for the stations of this file, in the order in which it was written. */
export const useWaiting = (): readonly Waiting[] => useSyncExternalStore(subscribe, allWaiting);
/** What waits for another data folder: it stays until that one is served here again. */
export const useWaitingForOthers = (): readonly Waiting[] => useSyncExternalStore(subscribe, () => parts().other);

/** Whether something of a station waits to be sent: what is written after it goes behind it. */
export async function isWaitingFor(stationId: number): Promise<boolean> {
  await loadQueue();
  return allWaiting().some((batch) => batch.stationId === stationId && batch.refused === undefined);
}

/**
 * Keeps a batch in this browser until the server is back. @returns the numbers that its records have until then
 * @throws RefusedError when this browser keeps nothing.
 */
export async function keepWaiting(batch: Omit<Waiting, 'ids' | 'refused'>): Promise<readonly number[]> {
  await loadQueue();
  try {
    const next = await changeQueue((line) => queued(line, batch));
    return next.batches.find(({ key }) => key === batch.key)?.ids ?? [];
  } catch {
    throw new RefusedError(0, {
      code: 'NOT_KEPT',
      message:
        'The server does not answer, and this browser keeps nothing for later (a private window, or no room). What you typed is still here: save it when the server is back.',
    });
  }
}

/** One request for a batch; its name lets the server carry it out once, however often it is sent. */
function sendBatch(
  { stationId, key, file, photo, photos = photo ? [photo] : [] }: Waiting,
  changes: readonly Change[],
): Promise<unknown> {
  const path = `/api/stations/${stationId}`;
  const batch = { key, changes, device: deviceName() };
  if (photos.length > 0) return sendFiles(`${path}/photo-changes`, photos, { batch: JSON.stringify(batch) }, file);
  return sendJson('POST', `${path}/changes`, batch, { file });
}

const idsOf = (reply: unknown): readonly number[] => {
  const saved: unknown = typeof reply === 'object' && reply !== null && 'saved' in reply ? reply.saved : [];
  return Array.isArray(saved)
    ? saved.map((one: unknown) =>
        typeof one === 'object' && one !== null && 'id' in one && typeof one.id === 'number' ? one.id : 0,
      )
    : [];
};

/** Saves with photos at once, or keeps all of it in this browser while the server is away. */
export function useOutbox(stationId: number) {
  const { mutate } = useSWRConfig();
  return useCallback(
    async (changes: readonly Change[], what: string, photos: readonly File[] = []): Promise<'saved' | 'waits'> => {
      const batch = {
        key: newUuid(),
        file: fileId(),
        stationId,
        changes,
        what,
        atMs: Date.now(),
        ...(photos.length > 0 ? { photos } : {}),
      };
      if (!(await isWaitingFor(stationId))) {
        try {
          await sendBatch({ ...batch, ids: [] }, changes);
          await mutate(`/api/stations/${stationId}`);
          return 'saved';
        } catch (error) {
          if (!mayHavePassed(error)) throw error;
        }
      }
      await keepWaiting(batch);
      return 'waits';
    },
    [stationId, mutate],
  );
}

/** Takes a batch out of the line for good: the person gave it up. */
export const discardWaiting = (key: string): Promise<unknown> => changeQueue((line) => discarded(line, key));

/** Gives up what conflicts in a batch, and nothing else of it. */
export const yieldWaiting = (key: string, conflicts: readonly Conflict[]): Promise<unknown> =>
  changeQueue((line) => yielded(line, key, newUuid(), conflicts));

/** Puts a refused batch back into the line, as it was or with other changes. */
export const retryWaiting = ({ key, changes }: Waiting, other?: readonly Change[]): Promise<unknown> =>
  changeQueue((line) => retried(line, key, other ? { key: newUuid(), changes: other } : { key, changes }));

/** How often the server is looked for while something waits or it is away, ms. */
const AGAIN_MS = 4000;
const STANDS_ON = 'It belongs to something above that was not saved. Settle that first, then try again.';

/** Sends what waits, in order. What the server refuses stays, with its sentence. @returns the stations whose records changed */
async function sendAll(): Promise<ReadonlySet<number>> {
  const touched = new Set<number>();
  await loadQueue();
  for (const { key } of allWaiting()) {
    const batch = queue.batches.find((one) => one.key === key);
    if (!batch || batch.refused !== undefined) continue;
    const changes = sendable(queue, batch);
    try {
      if (!changes) throw new RefusedError(409, { code: 'STANDS_ON', message: STANDS_ON });
      const reply = await sendBatch(batch, changes);
      await changeQueue((line) => answered(line, key, idsOf(reply)));
    } catch (error) {
      // it stays in the line and goes out again by itself
      if (mayHavePassed(error) || isOutside(error) || isOtherFile(error)) break;
      const refused =
        error instanceof RefusedError
          ? error.refusal
          : { code: 'FAULT', message: error instanceof Error ? error.message : 'The server refused it.' };
      await changeQueue((line) => refusedBy(line, key, { code: refused.code, message: refused.message }));
    }
    touched.add(batch.stationId);
  }
  return touched;
}

/** Sends what waits as soon as the server answers, and looks for the server while it is away. One of these per page. */
export function useSender(stationId: number): void {
  const { mutate } = useSWRConfig();
  useEffect(() => {
    let busy = false;
    const send = async (): Promise<void> => {
      const wasAway = isAwayNow();
      if (wasAway) await getJson('/api/health');
      const touched = await sendAll();
      for (const id of touched) await mutate(`/api/stations/${id}`);
      if (wasAway && touched.size === 0) await mutate(`/api/stations/${stationId}`);
      if (touched.size > 0 && allWaiting().length === 0) toast.success('What waited in this browser is saved.');
    };
    const wake = (): void => {
      if (busy) return;
      busy = true;
      void send()
        .catch(() => undefined) // still away
        .finally(() => {
          busy = false;
        });
    };
    wake();
    const timer = setInterval(wake, AGAIN_MS);
    window.addEventListener('online', wake);
    return () => {
      clearInterval(timer);
      window.removeEventListener('online', wake);
    };
  }, [stationId, mutate]);
}
