import {
  RESOURCES,
  stationSchema,
  type Change,
  type Saved,
  type Station,
  type StationValues,
  type Values,
} from '@velvet-reed/contract';
import { isStationData, type StationData, type StationHearing } from '@velvet-reed/station/record';
import { useCallback, useEffect, useSyncExternalStore } from 'react';
import { useLocation, useParams } from 'react-router';
import { toast } from 'sonner';
import useSWR, { preload, useSWRConfig } from 'swr';
import { getJson, isAway, isOtherFile, mayHavePassed, RefusedError, sendFile, sendJson } from './api';
import { fileId } from './data-file';
import { hearingNow, listenToHearing } from './hearing-now';
import { keepSeen, lastSeen } from './last-seen';
import { deviceName, newUuid, underOneName } from './names';
import { allWaiting, isWaitingFor, keepWaiting, useWaiting } from './outbox';
import { onlyChanged, withWaiting, type Waiting } from './outbox-queue';
import { mergedStation, misfit, wholeStation } from './station-cache';
import { withAnswers } from './table-answers';

/** Readers of tables load with the first file. */
const previews = () => import('./table-previews');

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const isStation = (value: unknown): value is Station =>
  isRecord(value) && typeof value.id === 'number' && stationSchema.isValidSync(value, { strict: true });

/** Stations, and how many of them cannot be read. */
interface StationList {
  readonly stations: readonly Station[];
  readonly unreadable: number;
}

const readStations = async (path: string): Promise<StationList> => {
  const value = await getJson(path).catch(async (error: unknown) => {
    const seen = isAway(error) ? await lastSeen(path) : undefined;
    if (seen === undefined) throw error;
    return seen;
  });
  keepSeen(path, value);
  if (!Array.isArray(value)) return misfit();
  const stations = value.filter(isStation);
  return { stations, unreadable: value.length - stations.length };
};

/** The latest that is known of each station, by its address: the one copy that answers are merged into. */
const known = new Map<string, StationData>();

/** Keeps what is known now; an older answer that arrives late changes nothing. */
function keep(path: string, data: StationData): StationData {
  const before = known.get(path);
  if (before && before.run === data.run && before.revision > data.revision) return before;
  known.set(path, data);
  keepSeen(path, data);
  return data;
}

const sinceOf = ({ run, revision }: StationData): string => `since=${revision}&run=${run}`;

/** Reads a station whole the first time, and after that only what has changed since. */
const readStationData = async (path: string): Promise<StationData> => {
  const before = known.get(path);
  let value: unknown;
  try {
    value = await getJson(`${path}?packed=1&device=${deviceName()}${before ? `&${sinceOf(before)}` : ''}`);
  } catch (error) {
    // another folder is served here: what is shown and typed stays to be copied, and a line says so
    if (before && isOtherFile(error)) return before;
    // while the server is away the page shows what it told last, and says so
    const seen = isAway(error) ? (known.get(path) ?? (await lastSeen(path))) : undefined;
    if (!isStationData(seen)) throw error;
    return keep(path, seen);
  }
  if (!isRecord(value)) return misfit();
  const latest = known.get(path);
  if (value.delta === undefined) return keep(path, wholeStation(value));
  return latest ? keep(path, mergedStation(latest, value.delta)) : misfit();
};

export const useStations = () => useSWR<StationList, Error>('/api/stations', readStations);

/** Id of the station in the address. */
export const useStationId = (): number => Number(useParams().station);

const keyOf = (stationId: number): string => `/api/stations/${stationId}`;

/** One revision is one object: nothing is compared record by record. */
const sameStation = (a: StationData | undefined, b: StationData | undefined): boolean => a === b;

/** Asks for a station ahead of the first view. */
export function preloadStation(stationId: number): void {
  // what goes wrong is told where the station is shown
  void preload(keyOf(stationId), readStationData).catch(() => undefined);
}

/** A station by its number, as the list of stations shows it. */
export function useStationById(stationId: number) {
  const answer = useSWR<StationData, Error>(keyOf(stationId), readStationData, { compare: sameStation });
  const waiting = useWaiting();
  const hearing = useSyncExternalStore(listenToHearing, hearingNow);
  return { ...answer, data: answer.data && heardOf(reckoned(answer.data, waiting), hearing) };
}

/** One object for one state of a station and one of what was heard. */
const withHearing = new WeakMap<StationData, StationData>();
function heardOf(data: StationData, hearing: StationHearing | undefined): StationData {
  if (!hearing) return data;
  const known = withHearing.get(data);
  if (known?.hearing === hearing) return known;
  const heard = { ...data, hearing };
  withHearing.set(data, heard);
  return heard;
}

/** One object for one state of the station and one of what waits. */
let reckonedLast:
  { readonly data: StationData; readonly waiting: readonly Waiting[]; readonly result: StationData } | undefined;
function reckoned(data: StationData, waiting: readonly Waiting[]): StationData {
  if (waiting.length === 0) return data;
  if (reckonedLast?.data !== data || reckonedLast.waiting !== waiting)
    reckonedLast = { data, waiting, result: withWaiting(data, waiting) };
  return reckonedLast.result;
}

export const useStation = () => useStationById(useStationId());

/** Follows what other tabs and devices save at the station in the address, while this tab is seen. */
export function useFollow(): void {
  const path = keyOf(useStationId());
  const { mutate } = useSWRConfig();
  useEffect(() => {
    let events: EventSource | undefined;
    const follow = (): void => {
      events?.close();
      events = undefined;
      // a hidden tab holds no connection: a browser has six of them for all its tabs
      if (document.visibilityState !== 'visible') return;
      events = new EventSource(`${path}/events`);
      events.onmessage = ({ data }: MessageEvent<string>) => {
        const before = known.get(path);
        const [run, revision] = data.split(' ');
        if (before && (run !== before.run || Number(revision) > before.revision)) void mutate(path);
      };
    };
    follow();
    document.addEventListener('visibilitychange', follow);
    return () => {
      document.removeEventListener('visibilitychange', follow);
      events?.close();
    };
  }, [path, mutate]);
}

/** Address that saves a batch and answers what changed since this page last knew. */
function changesPath(stationId: number): string {
  const before = known.get(keyOf(stationId));
  return `${keyOf(stationId)}/changes${before ? `?${sinceOf(before)}` : ''}`;
}

/** Merges an answer to a batch; undefined when it does not say what changed, and the station must be asked. */
function mergeAnswer(stationId: number, reply: unknown): StationData | undefined {
  const path = keyOf(stationId);
  const before = known.get(path);
  if (!before || !isRecord(reply) || reply.delta === undefined) return undefined;
  return keep(path, mergedStation(before, reply.delta));
}

/** Ids of what a batch made, in order; 0 for a deleted record. */
const idsOf = (value: unknown): number[] =>
  isRecord(value) && Array.isArray(value.saved)
    ? value.saved.map((item) => (isRecord(item) && typeof item.id === 'number' ? item.id : 0))
    : [];

/** Tells what went wrong at the foot of the screen. */
export const showTrouble = (error: unknown): void => {
  toast.error(error instanceof Error ? error.message : 'Something went wrong. Try again.', { duration: 9000 });
};

/** Writes at the station in the address. Every write can be undone, also after a restart. */
export function useWrite() {
  const stationId = useStationId();
  const { mutate } = useSWRConfig();
  const reload = useCallback(() => mutate(keyOf(stationId)), [mutate, stationId]);

  /** Takes one batch back, by its name; the server refuses what was undone already or built upon since. */
  const undo = useCallback(
    async (batch: string | undefined) => {
      try {
        const device = deviceName();
        const body = batch === undefined ? { device } : { batch, device };
        const reply = await sendJson('POST', `${keyOf(stationId)}/undo`, body);
        await reload();
        toast.success(`Undone: ${isRecord(reply) ? String(reply.what) : 'last change'}.`);
      } catch (error) {
        showTrouble(error);
        await reload();
      }
    },
    [stationId, reload],
  );

  /** Says that it is saved, and offers to take just this back. */
  const told = useCallback(
    (done: string, batch: string): void => {
      toast.success(done, { action: { label: 'Undo', onClick: () => void undo(batch) } });
    },
    [undo],
  );

  /** The room in which something was begun, wherever the person is when it is saved. */
  const { pathname: writtenAt } = useLocation();

  /** Saves all changes or none. @throws RefusedError; a stale write reloads first, so that the person sees the other's values. */
  const save = useCallback(
    async (batch: readonly Change[], done?: string): Promise<number[]> => {
      const changes = linked(batch, writtenAt);
      const path = `${keyOf(stationId)}/changes`;
      // what takes something away is not put off: nobody sees then what goes along
      const maybeLater = changes.every(({ op }) => op !== 'delete');
      const putOff = async (key: string): Promise<readonly number[]> => {
        const seen = known.get(keyOf(stationId));
        const differ = seen ? onlyChanged(reckoned(seen, allWaiting()), changes) : changes;
        const ids = await keepWaiting({
          ...{ key, file: fileId(), stationId },
          changes: differ,
          what: done ?? storyOf(changes),
          atMs: Date.now(),
        });
        toast.info('Kept in this browser until the server is back.');
        return ids;
      };
      if (maybeLater && (await isWaitingFor(stationId))) return [...(await putOff(newUuid()))];
      let later: readonly number[] | undefined;
      try {
        const { key, reply } = await underOneName(
          path,
          changes,
          async (name) => {
            try {
              return await sendJson('POST', changesPath(stationId), { changes, key: name, device: deviceName() });
            } catch (error) {
              if (!isAway(error) || !maybeLater) throw error;
              later = await putOff(name);
              return undefined;
            }
          },
          mayHavePassed,
        );
        if (later) return [...later];
        const merged = mergeAnswer(stationId, reply);
        if (merged) await mutate(keyOf(stationId), merged, { revalidate: false });
        else await reload();
        if (done) told(done, key);
        return idsOf(reply);
      } catch (error) {
        if (error instanceof RefusedError && error.status === 409) await reload();
        throw error;
      }
    },
    [stationId, reload, mutate, told, writtenAt],
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
      const path = keyOf(stationId);
      const { key } = await underOneName(
        path,
        { version, ...values },
        (name) => sendJson('PATCH', path, { version, ...values, key: name, device: deviceName() }),
        mayHavePassed,
      );
      await reload();
      await mutate('/api/stations');
      told('Station saved.', key);
    },
    [stationId, reload, mutate, told],
  );

  /** Sends a file to one of the station's addresses, with fields beside it. @returns what was stored. */
  const sendTo = useCallback(
    async (address: string, file: File, fields: Readonly<Record<string, string>>, more = false) => {
      const path = `${keyOf(stationId)}/${address}`;
      const { name, size, lastModified } = file;
      const { reply } = await underOneName(
        path,
        { ...fields, name, size, lastModified },
        (key) => sendFile(path, file, { ...fields, key, device: deviceName() }),
        mayHavePassed,
      );
      if (!more) await reload();
      return reply;
    },
    [stationId, reload],
  );

  const importSweep = useCallback(
    async (
      file: File,
      antennaId: number | undefined,
      correction: Saved<'sweeps'>['correction'] = 'file',
      more = false,
      calibrationId?: number,
    ): Promise<unknown> => {
      const own: Readonly<Record<string, string>> = antennaId === undefined ? {} : { antennaId: String(antennaId) };
      const { fileText, sweepPreview } = await previews();
      const text = await fileText(file);
      return withAnswers(
        file.name,
        (answer) =>
          sendTo(
            'sweeps',
            file,
            {
              correction,
              measuredMs: String(file.lastModified),
              ...own,
              ...(calibrationId === undefined ? {} : { calibrationId: String(calibrationId) }),
              ...(answer ? { answer: JSON.stringify(answer) } : {}),
            },
            more,
          ),
        sweepPreview(text),
      );
    },
    [sendTo],
  );

  const importSpectrum = useCallback(
    async (file: File, source: Saved<'spectra'>['source'], antennaId: number | undefined): Promise<unknown> => {
      const own: Readonly<Record<string, string>> = antennaId === undefined ? {} : { antennaId: String(antennaId) };
      const atMs = String(Date.now());
      const { fileText, spectrumPreview } = await previews();
      const text = await fileText(file);
      return withAnswers(
        file.name,
        (answer) =>
          sendTo('spectra', file, { source, atMs, ...own, ...(answer ? { answer: JSON.stringify(answer) } : {}) }),
        spectrumPreview(text),
      );
    },
    [sendTo],
  );

  const importLog = useCallback(
    (file: File, kind: Saved<'logs'>['kind'], antennaId: number | undefined): Promise<unknown> =>
      withAnswers(
        file.name,
        (answer) =>
          sendTo('logs', file, {
            kind,
            values: JSON.stringify(antennaId === undefined ? {} : { antennaId }),
            ...(answer ? { answer: JSON.stringify(answer) } : {}),
          }),
        () => ({ label: 'The table is read as you say.', points: [] }),
      ),
    [sendTo],
  );

  /** A table that the server follows, as a log. */
  const keepTail = useCallback(
    async (
      { folder, name }: { readonly folder: number; readonly name: string },
      antennaId: number | undefined,
      answer: unknown,
    ): Promise<void> => {
      const path = `${keyOf(stationId)}/tail/keep`;
      const said = {
        ...{ folder, name, values: antennaId === undefined ? {} : { antennaId } },
        ...(answer === undefined ? {} : { answer: JSON.stringify(answer) }),
      };
      try {
        const { key: batch } = await underOneName(
          path,
          { ...said, atMs: Date.now() },
          (key) => sendJson('POST', path, { ...said, key, device: deviceName() }),
          mayHavePassed,
        );
        await reload();
        told(`${name} is kept as a night.`, batch);
      } catch (error) {
        showTrouble(error);
      }
    },
    [stationId, reload, told],
  );

  const storeCalibration = useCallback(
    (
      bytes: Uint8Array<ArrayBuffer>,
      values: Omit<Values<'calibrations'>, 'points' | 'startHz' | 'stopHz' | 'checksum'>,
    ) => sendTo('calibrations', new File([bytes], 'calibration.bin'), { values: JSON.stringify(values) }),
    [sendTo],
  );

  const keepRecording = useCallback(
    (file: File, values: Values<'recordings'>) => sendTo('recordings', file, { values: JSON.stringify(values) }),
    [sendTo],
  );

  const importPicture = useCallback((file: File) => sendTo('pictures', file, {}), [sendTo]);

  return {
    save,
    trySave,
    saveStation,
    importSweep,
    importSpectrum,
    importLog,
    keepTail,
    storeCalibration,
    keepRecording,
    importPicture,
    undo,
    reload,
  };
}

/** What a batch is, in a few words: its line in the notebook, or the kinds of records that it touches. */
function storyOf(changes: readonly Change[]): string {
  const told = changes.find((change) => change.op === 'create' && change.resource === 'entries');
  const text: unknown = told && 'values' in told && 'text' in told.values ? told.values.text : undefined;
  return typeof text === 'string'
    ? text
    : changes
        .map(({ op, resource }) => `${RESOURCES[resource].label} ${op === 'create' ? 'added' : 'changed'}`)
        .join(', ');
}

/** Lines of the notebook say what they speak of: the room they were written in, and the antenna that the same batch is about. */
function linked(changes: readonly Change[], pathname: string): readonly Change[] {
  const [, , , step, room] = pathname.split('/');
  const antennaId = changes
    .flatMap((change): unknown[] => {
      if (change.op === 'delete') return [];
      if (change.op === 'update' && change.resource === 'antennas') return [change.id];
      return 'antennaId' in change.values ? [change.values.antennaId] : [];
    })
    .find((id) => typeof id === 'number');
  return changes.map((change): Change => {
    if (change.op !== 'create' || change.resource !== 'entries') return change;
    const about = typeof antennaId === 'number' && change.values.antennaId === undefined ? { antennaId } : {};
    const where = change.values.room === undefined && step && room ? { room: `${step}/${room}` } : {};
    return { ...change, values: { ...change.values, ...about, ...where } };
  });
}

/** Makes a station. @returns its id. */
export async function createStation(values: StationValues): Promise<number> {
  const { reply } = await underOneName(
    '/api/stations',
    values,
    (key) => sendJson('POST', '/api/stations', { ...values, key, device: deviceName() }),
    mayHavePassed,
  );
  return isStation(reply) ? reply.id : misfit();
}
