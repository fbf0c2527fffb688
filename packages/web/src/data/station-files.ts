import { getJson, sendFile, sendJson } from './api';
import { deviceName } from './names';
import useSWR from 'swr';

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const STANDINGS = [
  'only in the file',
  'newer in the file',
  'older in the file',
  'both changed',
  'deleted here',
] as const;
export type Standing = (typeof STANDINGS)[number];

export type Told = string | number | boolean | null;
/** One value that is another here and in the file. */
interface DifferentValue {
  readonly label: string;
  readonly here: Told;
  readonly file: Told;
}

/** A record of a station file that differs from the one here. */
interface FileDifference {
  readonly uuid: string;
  readonly label: string;
  readonly name: string;
  readonly standing: Standing;
  /** What differs, where the record is in both. */
  readonly values: readonly DifferentValue[];
}

/** What a station file holds, against what is here. */
export interface LookedAt {
  readonly name: string;
  /** The station that has the same name for ever here; null: none. */
  readonly stationId: number | null;
  readonly records: number;
  readonly same: number;
  readonly onlyHere: number;
  readonly differences: readonly FileDifference[];
}

const misfit = (): never => {
  throw new Error('The server and this page do not understand each other. Reload the page.');
};
const isDifference = (value: unknown): value is FileDifference =>
  isRecord(value) &&
  Array.isArray(value.values) &&
  typeof value.uuid === 'string' &&
  STANDINGS.some((one) => one === value.standing);

/** Looks into a station file without taking anything. @throws RefusedError with what is wrong with it. */
export async function lookInto(file: File): Promise<LookedAt> {
  const reply = await sendFile('/api/station-files/look', file, {});
  if (!isRecord(reply) || typeof reply.name !== 'string' || typeof reply.records !== 'number') return misfit();
  const compared = isRecord(reply.compared) ? reply.compared : {};
  const differences = Array.isArray(compared.differences) ? compared.differences.filter(isDifference) : [];
  return {
    ...{ name: reply.name, records: reply.records, differences },
    stationId: typeof reply.stationId === 'number' ? reply.stationId : null,
    ...{ same: Number(compared.same ?? 0), onlyHere: Number(compared.onlyHere ?? 0) },
  };
}

/** What was taken in. */
export interface TakenIn {
  readonly stationId: number;
  readonly added: number;
  readonly changed: number;
  /** Records that stayed outside, each by its name and what it lacks. */
  readonly left: readonly string[];
}

/** Takes a file in: as a station of its own, or chosen records beside the one that is here. @param key one for a file: pressed twice, it is taken once. */
export async function takeIn(
  file: File,
  how: { readonly as: 'new' } | { readonly as: 'beside'; readonly take: readonly string[] },
  key: string,
): Promise<TakenIn> {
  const reply = await sendFile('/api/station-files/take', file, {
    ...{ how: how.as, key, device: deviceName() },
    ...(how.as === 'beside' ? { take: JSON.stringify(how.take) } : {}),
  });
  return isRecord(reply) && typeof reply.stationId === 'number'
    ? {
        ...{ stationId: reply.stationId, added: Number(reply.added ?? 0), changed: Number(reply.changed ?? 0) },
        left: Array.isArray(reply.left) ? reply.left.map(String) : [],
      }
    : misfit();
}

/** A copy of all stations that the server keeps. */
export interface BackupRow {
  readonly name: string;
  readonly kind: 'daily' | 'asked' | 'before';
  readonly madeMs: number;
  readonly bytes: number;
}

const isBackup = (value: unknown): value is BackupRow =>
  isRecord(value) &&
  typeof value.name === 'string' &&
  typeof value.madeMs === 'number' &&
  typeof value.bytes === 'number';

/** Backups, newest first, where they lie, and why the last daily one could not be made. */
export interface KeptBackups {
  readonly folder: string;
  readonly backups: readonly BackupRow[];
  readonly fault: string;
}

/** Copies of all stations. */
export const useBackups = () =>
  useSWR<KeptBackups, Error>('/api/backups', async (path: string) => {
    const reply = await getJson(path);
    if (!isRecord(reply) || !Array.isArray(reply.backups)) return misfit();
    return {
      folder: String(reply.folder),
      backups: reply.backups.filter(isBackup),
      fault: typeof reply.fault === 'string' ? reply.fault : '',
    };
  });
export const makeBackup = (): Promise<unknown> => sendJson('POST', '/api/backups', {});
export const restoreBackup = (name: string): Promise<unknown> => sendJson('POST', '/api/backups/restore', { name });

/** What a check of the database found; nothing: it is sound. */
export async function checkDatabase(): Promise<readonly string[]> {
  const reply = await sendJson('POST', '/api/backups/check', {});
  return isRecord(reply) && Array.isArray(reply.faults) ? reply.faults.map(String) : misfit();
}
