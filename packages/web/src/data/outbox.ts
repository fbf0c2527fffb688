import type { Change } from '@velvet-reed/contract';
import { createStore, entries as storedEntries, del, set } from 'idb-keyval';
import { useCallback, useEffect, useState } from 'react';
import { toast } from 'sonner';
import { useSWRConfig } from 'swr';
import { mayHavePassed, sendFile, sendJson } from './api';
import { deviceName, newUuid } from './names';
import { changesPath, mergeAnswer } from './station';

/** A batch that waits in this browser until the server is back. */
export interface Waiting {
  readonly key: string;
  readonly stationId: number;
  readonly changes: readonly Change[];
  /** Refers to it as { "new": "photo" }. */
  readonly photo?: File;
  /** What it is, for the person. */
  readonly what: string;
  readonly atMs: number;
  /** Why the server refused it, when it did. */
  readonly refused?: string;
}

const CHANGED = 'velvet-reed-outbox';
const store = createStore('velvet-reed', 'outbox');
const tell = (): boolean => window.dispatchEvent(new Event(CHANGED));

const isWaiting = (value: unknown): value is Waiting =>
  typeof value === 'object' && value !== null && 'key' in value && 'changes' in value && 'stationId' in value;

async function waitingBatches(stationId: number): Promise<readonly Waiting[]> {
  const all = await storedEntries<string, unknown>(store);
  return all
    .map(([, value]) => value)
    .filter(isWaiting)
    .filter((one) => one.stationId === stationId)
    .sort((a, b) => a.atMs - b.atMs);
}

/** One request for a batch; its name lets the server carry it out once, however often it is sent. */
async function sendBatch({ stationId, key, changes, photo }: Waiting): Promise<unknown> {
  const path = `/api/stations/${stationId}`;
  const batch = { key, changes, device: deviceName() };
  if (photo) return sendFile(`${path}/photo-changes`, photo, { batch: JSON.stringify(batch) });
  return sendJson('POST', changesPath(stationId), batch);
}

/** Saves at once, or keeps the batch in this browser while the server is away. */
export function useOutbox(stationId: number) {
  const { mutate } = useSWRConfig();
  return useCallback(
    async (changes: readonly Change[], what: string, photo?: File): Promise<'saved' | 'waits'> => {
      const batch: Waiting = {
        key: newUuid(),
        stationId,
        changes,
        what,
        atMs: Date.now(),
        ...(photo ? { photo } : {}),
      };
      try {
        const merged = mergeAnswer(stationId, await sendBatch(batch));
        const path = `/api/stations/${stationId}`;
        await (merged ? mutate(path, merged, { revalidate: false }) : mutate(path));
        return 'saved';
      } catch (error) {
        if (!mayHavePassed(error)) throw error;
        await set(batch.key, batch, store);
        tell();
        return 'waits';
      }
    },
    [stationId, mutate],
  );
}

/** What waits in this browser, oldest first. */
export function useWaiting(stationId: number): readonly Waiting[] {
  const [waiting, setWaiting] = useState<readonly Waiting[]>([]);
  useEffect(() => {
    let gone = false;
    const look = (): void =>
      void waitingBatches(stationId).then((batches) => {
        if (!gone) setWaiting(batches);
      });
    look();
    window.addEventListener(CHANGED, look);
    return () => {
      gone = true;
      window.removeEventListener(CHANGED, look);
    };
  }, [stationId]);
  return waiting;
}

/** Takes a batch out of the line for good: the person gave it up. */
export async function discardWaiting(key: string): Promise<void> {
  await del(key, store);
  tell();
}

/** Puts a refused batch back into the line: what stood in its way may be gone. */
export async function retryWaiting(batch: Waiting): Promise<void> {
  const { refused: _refused, ...again } = batch;
  await set(batch.key, again, store);
  tell();
}

/** How often the server is looked for while something waits, ms. */
const AGAIN_MS = 4000;

/** Sends what waits, in order, as soon as the server answers. What the server refuses stays, with its sentence. One of these per page. */
export function useSender(stationId: number): void {
  const { mutate } = useSWRConfig();
  useEffect(() => {
    let busy = false;
    const send = async (): Promise<void> => {
      const batches = (await waitingBatches(stationId)).filter(({ refused }) => refused === undefined);
      for (const batch of batches) {
        try {
          await sendBatch(batch);
          await del(batch.key, store);
        } catch (error) {
          if (mayHavePassed(error)) return; // it stays in the line and goes out again by itself
          const refused = error instanceof Error ? error.message : 'The server refused it.';
          await set(batch.key, { ...batch, refused }, store);
        }
      }
      if (batches.length === 0) return;
      await mutate(`/api/stations/${stationId}`);
      tell();
      if ((await waitingBatches(stationId)).length === 0) toast.success('What waited in this browser is saved.');
    };
    const wake = (): void => {
      if (busy) return;
      busy = true;
      void send().finally(() => {
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
