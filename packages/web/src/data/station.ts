import {
  RESOURCE_NAMES,
  SCHEMAS,
  stationSchema,
  unpackSamples,
  type Change,
  type ResourceName,
  type Saved,
  type Station,
  type StationValues,
  type Values,
} from '@velvet-reed/contract';
import type { SweepData } from '@velvet-reed/core';
import { useCallback } from 'react';
import { useParams } from 'react-router';
import { toast } from 'sonner';
import useSWR, { useSWRConfig } from 'swr';
import { getBytes, getJson, RefusedError, sendFile, sendJson } from './api';

/** Everything a station holds. */
export type StationData = { readonly station: Station; readonly canUndo: boolean } & {
  readonly [R in ResourceName]: readonly Saved<R>[];
};

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const isStation = (value: unknown): value is Station =>
  isRecord(value) && typeof value.id === 'number' && stationSchema.isValidSync(value, { strict: true });

function isSavedList(resource: ResourceName, value: unknown): boolean {
  return (
    Array.isArray(value) &&
    value.every(
      (item) => isRecord(item) && typeof item.id === 'number' && SCHEMAS[resource].isValidSync(item, { strict: true }),
    )
  );
}

const isStationData = (value: unknown): value is StationData =>
  isRecord(value) && isStation(value.station) && RESOURCE_NAMES.every((name) => isSavedList(name, value[name]));

/** A reply that does not fit the contract: client and server of different versions. */
const misfit = (): never => {
  throw new RefusedError(0, {
    code: 'MISFIT',
    message:
      'The server sent something that this page does not understand. Reload the page; if it stays, restart the server.',
  });
};

const readStations = async (path: string): Promise<readonly Station[]> => {
  const value = await getJson(path);
  return Array.isArray(value) && value.every(isStation) ? value : misfit();
};

const readStationData = async (path: string): Promise<StationData> => {
  const value = await getJson(path);
  return isStationData(value) ? value : misfit();
};

export const useStations = () => useSWR<readonly Station[], Error>('/api/stations', readStations);

/** Id of the station in the address. */
export const useStationId = (): number => Number(useParams().station);

const keyOf = (stationId: number): string => `/api/stations/${stationId}`;

export const useStation = () => useSWR<StationData, Error>(keyOf(useStationId()), readStationData);

/** Samples of a sweep; kept for good, because a sweep never changes. */
export const useSamples = (sweeps: readonly Saved<'sweeps'>[]) =>
  useSWR<ReadonlyMap<number, SweepData>, Error>(
    sweeps.length > 0 ? ['samples', ...sweeps.map((sweep) => sweep.id)] : null,
    async (): Promise<ReadonlyMap<number, SweepData>> => {
      const pairs = await Promise.all(
        sweeps.map(
          async (sweep) =>
            [sweep.id, unpackSamples(await getBytes(`/api/sweeps/${sweep.id}/samples`), sweep.referenceOhm)] as const,
        ),
      );
      return new Map(pairs);
    },
    // SWR takes any two Maps for equal and would keep showing the first
    { keepPreviousData: true, revalidateOnFocus: false, compare: Object.is },
  );

/** Ids of what a batch made, in order; 0 for a deleted record. */
const idsOf = (value: unknown): number[] =>
  Array.isArray(value) ? value.map((item) => (isRecord(item) && typeof item.id === 'number' ? item.id : 0)) : [];

/** Tells what went wrong at the foot of the screen. */
export const showTrouble = (error: unknown): void => {
  toast.error(error instanceof Error ? error.message : 'Something went wrong. Try again.', { duration: 9000 });
};

/** Writes at the station in the address. Every write can be undone, also after a restart. */
export function useWrite() {
  const stationId = useStationId();
  const { mutate } = useSWRConfig();
  const reload = useCallback(() => mutate(keyOf(stationId)), [mutate, stationId]);

  const undo = useCallback(async () => {
    try {
      const reply = await sendJson('POST', `${keyOf(stationId)}/undo`, {});
      await reload();
      toast.success(`Undone: ${isRecord(reply) ? String(reply.what) : 'last change'}.`);
    } catch (error) {
      showTrouble(error);
    }
  }, [stationId, reload]);

  /** Saves all changes or none. @throws RefusedError; a stale write reloads first, so that the person sees the other's values. */
  const save = useCallback(
    async (changes: readonly Change[], done?: string): Promise<number[]> => {
      try {
        const reply = await sendJson('POST', `${keyOf(stationId)}/changes`, { changes });
        await reload();
        if (done) toast.success(done, { action: { label: 'Undo', onClick: () => void undo() } });
        return idsOf(reply);
      } catch (error) {
        if (error instanceof RefusedError && error.status === 409) await reload();
        throw error;
      }
    },
    [stationId, reload, undo],
  );

  /** The same for buttons: trouble becomes a toast. */
  const trySave = useCallback(
    async (changes: readonly Change[], done?: string): Promise<number[] | undefined> => {
      try {
        return await save(changes, done);
      } catch (error) {
        showTrouble(error);
        return undefined;
      }
    },
    [save],
  );

  const saveStation = useCallback(
    async (version: number, values: Partial<StationValues>) => {
      await sendJson('PATCH', keyOf(stationId), { version, ...values });
      await reload();
      await mutate('/api/stations');
      toast.success('Station saved.', { action: { label: 'Undo', onClick: () => void undo() } });
    },
    [stationId, reload, mutate, undo],
  );

  /** Sends a file to one of the station's addresses, with fields beside it. @returns what was stored. */
  const sendTo = useCallback(
    async (address: string, file: File, fields: Readonly<Record<string, string>>) => {
      const reply = await sendFile(`${keyOf(stationId)}/${address}`, file, fields);
      await reload();
      return reply;
    },
    [stationId, reload],
  );

  const importSweep = useCallback(
    (file: File, antennaId: number | undefined, correction: Saved<'sweeps'>['correction'] = 'file') =>
      sendTo('sweeps', file, { correction, ...(antennaId === undefined ? {} : { antennaId: String(antennaId) }) }),
    [sendTo],
  );

  const importSpectrum = useCallback(
    (file: File, source: Saved<'spectra'>['source'], antennaId: number | undefined) =>
      sendTo('spectra', file, {
        source,
        atMs: String(Date.now()),
        ...(antennaId === undefined ? {} : { antennaId: String(antennaId) }),
      }),
    [sendTo],
  );

  const storeCalibration = useCallback(
    (bytes: Uint8Array<ArrayBuffer>, values: Omit<Values<'calibrations'>, 'points' | 'startHz' | 'stopHz'>) =>
      sendTo('calibrations', new File([bytes], 'calibration.bin'), { values: JSON.stringify(values) }),
    [sendTo],
  );

  const importPicture = useCallback(
    async (file: File) => {
      await sendFile(`${keyOf(stationId)}/pictures`, file, {});
      await reload();
    },
    [stationId, reload],
  );

  return { save, trySave, saveStation, importSweep, importSpectrum, storeCalibration, importPicture, undo };
}

/** A change that adds a notebook entry; put it into the batch it tells about. */
export const entry = (stage: Saved<'entries'>['stage'], text: string): Change => ({
  op: 'create',
  resource: 'entries',
  values: { stage, text, atMs: Date.now() },
});

/** Makes a station. @returns its id. */
export async function createStation(values: StationValues): Promise<number> {
  const reply = await sendJson('POST', '/api/stations', values);
  return isStation(reply) ? reply.id : misfit();
}
