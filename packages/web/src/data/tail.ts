import type { LogSummary, TableAnswer } from '@velvet-reed/core/formats';
import type { DecodeReport } from '@velvet-reed/core/trial';
import useSWR from 'swr';
import { getJson, sendJson } from './api';
import { useStationId } from './station';
import { withAnswers } from './table-answers';

/** A table in a folder that the server may read. */
export interface WatchedFile {
  readonly folder: number;
  readonly name: string;
  readonly bytes: number;
  readonly changedMs: number;
}
interface Folders {
  readonly folders: readonly string[];
  readonly files: readonly WatchedFile[];
}
/** What a growing table says by now, and how it was read. */
export interface Tail {
  readonly rows: number;
  readonly last: readonly (readonly (number | string | null)[])[];
  readonly summary: LogSummary;
  readonly report: DecodeReport;
}
interface ReadTail {
  readonly tail: Tail;
  readonly answer?: TableAnswer;
}

/** Looked at again so often, ms: decoding programs write every 15 s at most. */
const AGAIN_MS = 5000;

const isFolders = (value: unknown): value is Folders =>
  typeof value === 'object' && value !== null && 'files' in value && Array.isArray(value.files);
const isTail = (value: unknown): value is Tail =>
  typeof value === 'object' && value !== null && 'last' in value && Array.isArray(value.last) && 'report' in value;

/** Tables in the folders that were named at the start of the server. */
export const useWatchedFiles = () =>
  useSWR<Folders, Error>(
    '/api/folders',
    async (address: string) => {
      const answer = await getJson(address);
      return isFolders(answer) ? answer : { folders: [], files: [] };
    },
    { refreshInterval: AGAIN_MS },
  );

/** A table as it grows: read again when its size has changed. What it does not say for certain is asked once. @param file absent: none is followed */
export function useTail(file: WatchedFile | undefined) {
  const stationId = useStationId();
  return useSWR<ReadTail, Error>(
    file ? ['tail', stationId, file.folder, file.name, file.bytes] : null,
    () =>
      withAnswers(
        file?.name ?? '',
        async (answer): Promise<ReadTail> => {
          const body = {
            folder: file?.folder,
            name: file?.name,
            ...(answer ? { answer: JSON.stringify(answer) } : {}),
          };
          const tail = await sendJson('POST', `/api/stations/${stationId}/tail`, body);
          if (!isTail(tail)) throw new Error('The server and this page do not understand each other. Reload the page.');
          return { tail, ...(answer ? { answer } : {}) };
        },
        () => ({ label: 'The table is read as you say.', points: [] }),
      ),
    { keepPreviousData: true, shouldRetryOnError: false, revalidateOnFocus: false },
  );
}
