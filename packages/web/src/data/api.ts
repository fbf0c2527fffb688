import type { Refusal } from '@velvet-reed/contract';
import { noteAway } from './away';
import { FILE_HEADER, metFile, noteFile } from './data-file';

/** The server said no, with a sentence for the person at the screen. */
export class RefusedError extends Error {
  constructor(
    readonly status: number,
    readonly refusal: Refusal,
  ) {
    super(refusal.message);
    this.name = 'RefusedError';
  }
}

/** Nobody answered: the request may be repeated when the server is back. */
export const isAway = (error: unknown): boolean => error instanceof RefusedError && error.refusal.code === 'OFFLINE';

/** The computer does not let this device in, or not any more. */
export const isOutside = (error: unknown): boolean => error instanceof RefusedError && error.status === 401;

/** The server holds the stations of another data folder than this was meant for. */
export const isOtherFile = (error: unknown): boolean =>
  error instanceof RefusedError && error.refusal.code === 'OTHER_FILE';

/** Nobody knows whether it was carried out, or the same may pass later: worth sending again under the same name. */
export const mayHavePassed = (error: unknown): boolean =>
  error instanceof RefusedError && (error.status === 0 || error.status === 429 || error.status >= 500);

const isRefusal = (value: unknown): value is Refusal =>
  typeof value === 'object' &&
  value !== null &&
  'code' in value &&
  'message' in value &&
  typeof value.message === 'string';

async function refusalOf(response: Response): Promise<Refusal> {
  const body: unknown = await response.json().catch(() => undefined);
  return isRefusal(body)
    ? body
    : { code: 'HTTP', message: `The server answered ${response.status}. Reload the page and try again.` };
}

/** Said by the page when the computer does not let this device in. */
export const OUTSIDE = 'velvet-reed-outside';

const OTHER_FILE =
  'Another data folder is served at this address now. Copy what you typed, then reload the page to see what is here.';

/** Sends a request; anything but success becomes a RefusedError. */
async function send(path: string, init?: RequestInit): Promise<Response> {
  const headers = new Headers(init?.headers);
  const met = metFile();
  if (met !== undefined && !headers.has(FILE_HEADER)) headers.set(FILE_HEADER, met);
  const response = await fetch(path, { ...init, headers }).catch((error: unknown) => {
    // a question that was withdrawn says nothing of the server
    if (error instanceof DOMException && error.name === 'AbortError') throw error;
    noteAway(true);
    throw new RefusedError(0, {
      code: 'OFFLINE',
      message:
        'The server does not answer. See whether it still runs ("npm start"), then try again. What you typed is still here.',
    });
  });
  noteAway(false);
  // bytes by their checksum may come from a cache, which another file filled: they are the same bytes
  const isOurs = path.includes('sum=') || noteFile(response.headers.get(FILE_HEADER));
  if (response.ok && isOurs) return response;
  if (response.ok) throw new RefusedError(409, { code: 'OTHER_FILE', message: OTHER_FILE });
  const error = new RefusedError(response.status, await refusalOf(response));
  if (isOutside(error)) window.dispatchEvent(new Event(OUTSIDE));
  throw error;
}

export const getJson = async (path: string): Promise<unknown> => (await send(path)).json();

export const sendJson = async (
  method: 'POST' | 'PATCH',
  path: string,
  body: unknown,
  {
    signal,
    file,
  }: {
    readonly signal?: AbortSignal;
    /** Data file that it is meant for, when it waited. */ readonly file?: string;
  } = {},
): Promise<unknown> =>
  (
    await send(path, {
      method,
      headers: { 'content-type': 'application/json', ...(file === undefined ? {} : { [FILE_HEADER]: file }) },
      body: JSON.stringify(body),
      ...(signal ? { signal } : {}),
    })
  ).json();

export const getBytes = async (path: string): Promise<Uint8Array> =>
  new Uint8Array(await (await send(path)).arrayBuffer());

/** Asks with a body and takes bytes back, and what the other end could not do. */
export async function askBytes(
  path: string,
  body: unknown,
  signal?: AbortSignal,
): Promise<{ readonly bytes: Uint8Array; readonly told: string; readonly bandwidthHz?: number }> {
  const response = await send(path, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
    ...(signal ? { signal } : {}),
  });
  const bandwidth = response.headers.get('X-Bandwidth');
  return {
    bytes: new Uint8Array(await response.arrayBuffer()),
    told: response.headers.get('X-Told') ?? '',
    ...(bandwidth === null ? {} : { bandwidthHz: Number(bandwidth) }),
  };
}

export const sendFile = (path: string, file: File, fields: Readonly<Record<string, string>>): Promise<unknown> =>
  sendFiles(path, [file], fields);

export const sendFiles = async (
  path: string,
  files: readonly File[],
  fields: Readonly<Record<string, string>>,
  meantFor?: string,
): Promise<unknown> => {
  const form = new FormData();
  Object.entries(fields).forEach(([name, value]) => form.append(name, value));
  for (const file of files) form.append('file', file);
  const headers = meantFor === undefined ? undefined : { [FILE_HEADER]: meantFor };
  return (await send(path, { method: 'POST', body: form, headers })).json();
};
