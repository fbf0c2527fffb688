import { RESOURCE_NAMES, type ResourceName } from '@velvet-reed/contract';
import useSWR from 'swr';
import { getJson, sendJson } from './api';
import { deviceName } from './names';
import { useStationId } from './station';

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** A record that holds what was looked for. */
export interface Found {
  readonly resource: ResourceName;
  readonly id: number;
  readonly label: string;
  /** Text with « and » about the words. */
  readonly snippet: string;
}

const isFound = (value: unknown): value is Found =>
  isRecord(value) &&
  typeof value.id === 'number' &&
  typeof value.snippet === 'string' &&
  RESOURCE_NAMES.some((name) => name === value.resource);

/** Records of the station that hold all the words; the last one may be half typed. @param revision anything that changes with the station. */
export function useSearch(text: string, revision: unknown) {
  const stationId = useStationId();
  return useSWR<readonly Found[], Error>(
    text.trim() === '' ? null : ['search', stationId, text, revision],
    async () => {
      const reply = await getJson(`/api/stations/${stationId}/search?q=${encodeURIComponent(text)}`);
      return Array.isArray(reply) ? reply.filter(isFound) : [];
    },
    { keepPreviousData: true },
  );
}

/** What was deleted at once. */
export interface Binned {
  readonly batch: string;
  readonly atMs: number;
  readonly what: string;
  readonly along: readonly string[];
}

const isBinned = (value: unknown): value is Binned =>
  isRecord(value) && typeof value.batch === 'string' && typeof value.what === 'string' && Array.isArray(value.along);

/** What of a station was deleted and can come back, latest first. */
export function useBin(revision: unknown) {
  const stationId = useStationId();
  return useSWR<readonly Binned[], Error>(['bin', stationId, revision], async () => {
    const reply = await getJson(`/api/stations/${stationId}/bin`);
    return Array.isArray(reply) ? reply.filter(isBinned) : [];
  });
}

export const bringBack = (stationId: number, batch: string): Promise<unknown> =>
  sendJson('POST', `/api/stations/${stationId}/bin/back`, { batch, device: deviceName() });
export const emptyBin = (stationId: number): Promise<unknown> =>
  sendJson('POST', `/api/stations/${stationId}/bin/empty`, {});
