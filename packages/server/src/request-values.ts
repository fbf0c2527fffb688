import { randomUUID } from 'node:crypto';
import { answerSchema } from '@velvet-reed/contract';
import type { TableAnswer } from '@velvet-reed/core/formats';
import type { Request } from 'express';
import { requireModest } from './body-limits';
import { deviceOf } from './door/gate';
import type { Author } from './history';
import { NoSuchAddressError, RequestError } from './refusals';
import { currentRun } from './station-answer';

export const numberParam = (req: Request, name: string): number => {
  const id = Number(req.params[name]);
  if (!Number.isSafeInteger(id) || id < 1) throw new NoSuchAddressError();
  return id;
};

/** The revision of the station that the client knows; undefined when it knows none, or one that another run of the server told, perhaps of another file. */
export function revisionParam(req: Request): number | undefined {
  const since = Number(req.query.since);
  return req.query.run === currentRun() &&
    typeof req.query.since === 'string' &&
    Number.isSafeInteger(since) &&
    since >= 0
    ? since
    : undefined;
}

export const asRecord = (value: unknown): Record<string, unknown> => {
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    throw new RequestError('The request has no body. Send named values.');
  return Object.fromEntries(Object.entries(value));
};

/** JSON inside a field of a form. @throws RequestError */
export function readJson(text: unknown): unknown {
  let value: unknown;
  try {
    value = JSON.parse(String(text));
  } catch {
    throw new RequestError('A field of the request is not valid JSON. Reload the page and try again.');
  }
  requireModest(value);
  return value;
}

const UUID = /^[0-9a-f-]{36}$/;
const uuidOf = (value: unknown): string | undefined =>
  typeof value === 'string' && UUID.test(value) ? value : undefined;
/** Name of the device that asks: of a phone the one under which it was let in, whatever it says; of a page at the desk the one that it gave itself. */
export const deviceName = (req: Request, said: unknown): string => deviceOf(req)?.id ?? uuidOf(said) ?? '';
/** Names that the client gave to what it saves and to itself; a request without a name gets one, and cannot be asked for again. */
export const authorOf = (req: Request, named: Readonly<Record<string, unknown>>): Author => ({
  key: uuidOf(named.key) ?? randomUUID(),
  device: deviceName(req, named.device),
});

/** An id in a field of a form; empty: none. @throws RequestError for anything else. */
export function optionalId(value: unknown, field: string): number | null {
  if (value === undefined || value === '') return null;
  const id = typeof value === 'string' ? Number(value) : NaN;
  if (!Number.isSafeInteger(id) || id < 1)
    throw new RequestError(
      `The ${field === 'antennaId' ? 'antenna' : 'calibration'} must be named once, by its number. Choose it again, or none.`,
      field,
    );
  return id;
}

/** What a person said of a table. @throws ValidationError */
export async function answerOf(text: unknown): Promise<TableAnswer | undefined> {
  if (text === undefined || text === '') return undefined;
  return answerSchema.validate(readJson(text), { strict: true });
}

/** Which state of a record a change is meant for. @throws RequestError */
export function requireVersion({ version }: Readonly<Record<string, unknown>>): number {
  if (typeof version !== 'number' || !Number.isSafeInteger(version))
    throw new RequestError(
      'The version is missing: say which state of the station is changed. Reload the page.',
      'version',
    );
  return version;
}
