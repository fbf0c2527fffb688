import type { ResourceName, Station } from '@velvet-reed/contract';
import useSWR from 'swr';
import { getJson, mayHavePassed, sendJson } from './api';
import { deviceName, underOneName } from './names';

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const texts = (value: unknown): readonly string[] => (Array.isArray(value) ? value.map(String) : []);

/** What deleting a record takes along, and what lets go of it. */
export interface DeletionPreview {
  readonly goes: readonly string[];
  readonly released: readonly string[];
}

export async function previewDeletion(stationId: number, resource: ResourceName, id: number): Promise<DeletionPreview> {
  const reply = await getJson(`/api/stations/${stationId}/deletion/${resource}/${id}`);
  return isRecord(reply) ? { goes: texts(reply.goes), released: texts(reply.released) } : { goes: [], released: [] };
}

/** Deletes a station; it can be brought back. @returns the batch that does so. */
export async function deleteStation(station: Pick<Station, 'id' | 'version'>): Promise<string> {
  const path = `/api/stations/${station.id}/delete`;
  const body = { version: station.version };
  const { key } = await underOneName(
    path,
    body,
    (name) => sendJson('POST', path, { ...body, key: name, device: deviceName() }),
    mayHavePassed,
  );
  return key;
}

/** Brings a deleted station back. */
export const restoreStation = (id: number, batch: string): Promise<unknown> =>
  sendJson('POST', `/api/stations/${id}/undo`, { batch, device: deviceName() });

/** A station in the bin. */
interface DeletedStation {
  readonly id: number;
  readonly name: string;
  readonly batch: string;
}
const isDeleted = (value: unknown): value is DeletedStation =>
  isRecord(value) && typeof value.id === 'number' && typeof value.batch === 'string' && typeof value.name === 'string';

/** @param atDesk a phone does not ask. */
export const useDeletedStations = (atDesk: boolean) =>
  useSWR<readonly DeletedStation[], Error>(atDesk ? '/api/stations/deleted' : null, async (path: string) => {
    const value = await getJson(path);
    return Array.isArray(value) ? value.filter(isDeleted) : [];
  });

/** Where the stations are kept, and copies made before upgrades. */
interface ServerState {
  readonly file: string;
  readonly copies: readonly { readonly file: string; readonly madeMs: number }[];
}
const isServerState = (value: unknown): value is ServerState =>
  isRecord(value) && typeof value.file === 'string' && Array.isArray(value.copies);

/** @param atDesk a phone does not ask. */
export const useServerState = (atDesk: boolean) =>
  useSWR<ServerState | undefined, Error>(atDesk ? '/api/server' : null, async (path: string) => {
    const value = await getJson(path);
    return isServerState(value) ? value : undefined;
  });
