import { useSyncExternalStore } from 'react';
import { localStore } from './browser-store';

/** Header with the id of the file of stations, in answers and in requests. */
export const FILE_HEADER = 'X-Data-File';
const STORE = 'velvet-reed.file';

let shown: string | undefined;
let isOther = false;
const listeners = new Set<() => void>();

/** Id of the file of stations that this page shows: the one it met first, else the one that was here at the last visit; '' while none is known. */
export const fileId = (): string => shown ?? localStore.getItem(STORE) ?? '';
/** The one that the server told this page; undefined before its first answer. */
export const metFile = (): string | undefined => shown;

/** Takes in which file an answer comes from. @returns whether it is the one that this page shows */
export function noteFile(id: string | null): boolean {
  if (id === null || id === '') return true;
  if (shown === undefined) {
    shown = id;
    localStore.setItem(STORE, id);
  }
  const other = id !== shown;
  if (other !== isOther) {
    isOther = other;
    for (const listener of listeners) listener();
  }
  return !other;
}

/** A name under which this browser keeps something of the stations of this file, and of no other. */
export const ofThisFile = (name: string): string => `${name}@${fileId()}`;

const subscribe = (onChange: () => void): (() => void) => {
  listeners.add(onChange);
  return () => void listeners.delete(onChange);
};
/** Whether another data folder answers at this address than the one that this page shows. */
export const useOtherFile = (): boolean => useSyncExternalStore(subscribe, () => isOther);

/** A stored file as the station lists it. */
interface StoredFile {
  readonly id: number;
  readonly sha256: string;
}
/** Address of the bytes of a stored file: with its checksum it names these very bytes, wherever the number came from. */
export const bytesPath = ({ id, sha256 }: StoredFile): string => `/api/attachments/${id}/bytes?sum=${sha256}`;

/** The same for a record that points at a file; undefined while the file waits to be sent. */
export function pathOfFile(files: readonly StoredFile[], id: number | null): string | undefined {
  const found = files.find((file) => file.id === id);
  return found && bytesPath(found);
}
