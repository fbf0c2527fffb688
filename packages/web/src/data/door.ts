import type { DoorBell, DoorState, Me, PhoneCode } from '@velvet-reed/contract';
import useSWR from 'swr';
import { getJson, sendJson } from './api';

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const isMe = (value: unknown): value is Me => isRecord(value) && (value.place === 'desk' || value.place === 'network');

const isDoor = (value: unknown): value is DoorState =>
  isRecord(value) && Array.isArray(value.devices) && Array.isArray(value.events);

const isCode = (value: unknown): value is PhoneCode =>
  isRecord(value) && typeof value.code === 'string' && Array.isArray(value.pictures);

const isBell = (value: unknown): value is DoorBell => isRecord(value) && 'open' in value && 'asking' in value;

const read =
  <T>(fits: (value: unknown) => value is T) =>
  async (path: string): Promise<T> => {
    const value = await getJson(path);
    if (!fits(value)) throw new Error('The server sent something that this page does not understand. Reload the page.');
    return value;
  };

export const useMe = () => useSWR<Me, Error>('/api/door/me', read(isMe));
/** @param atDesk only the desk may look. */
export const useDoor = (atDesk: boolean) =>
  useSWR<DoorState, Error>(atDesk ? '/api/door' : null, read(isDoor), { refreshInterval: 5000 });
/** Looks for a phone at the door, once a second while a code is shown. */
export const useDoorBell = (looking: boolean) =>
  useSWR<DoorBell, Error>(looking ? '/api/door/code' : null, read(isBell), { refreshInterval: 1000 });

export async function newCode(): Promise<PhoneCode> {
  const value = await sendJson('POST', '/api/door/code', {});
  if (!isCode(value)) throw new Error('The server sent no code. Reload the page and try again.');
  return value;
}
export const closeCode = (): Promise<unknown> => sendJson('POST', '/api/door/code/close', {});
export const answerPhone = (check: string, letIn: boolean): Promise<unknown> =>
  sendJson('POST', '/api/door/answer', { check, letIn });
export const revokeDevice = (id: string): Promise<unknown> => sendJson('POST', '/api/door/revoke', { id });
export const leaveDoor = (): Promise<unknown> => sendJson('POST', '/api/door/leave', {});

/** Asks to be let in with what the screen of the computer showed. @returns a ticket, and the number that both screens show. */
export async function askIn(
  said: { readonly code?: string; readonly secret?: string },
  name: string,
): Promise<{ readonly ticket: string; readonly check: string }> {
  const value = await sendJson('POST', '/api/door/ask', { ...said, name });
  if (!isRecord(value) || typeof value.ticket !== 'string' || typeof value.check !== 'string')
    throw new Error('The computer sent something that this page does not understand. Reload the page.');
  return { ticket: value.ticket, check: value.check };
}
/** Asks whether the computer said yes. @returns whether this device is in now. */
export async function claimIn(ticket: string): Promise<boolean> {
  const value = await sendJson('POST', '/api/door/claim', { ticket });
  return isRecord(value) && value.state === 'in';
}
