import { createHash, randomBytes, randomUUID, timingSafeEqual } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import type { Device } from '@velvet-reed/contract';
import { writeWhole } from './whole-file';

/** As it is kept: of the token only its hash. */
interface KeptDevice extends Device {
  readonly hash: string;
}

const DAY_MS = 86_400_000;
/** A token that was not used for so long is void. */
const IDLE_DAYS = 90;
/** A token is void after so long whatever happens. */
const LONGEST_DAYS = 365;
/** The last use is written down at most this often, ms. */
const NOTE_MS = 60_000;
export const MOST_DEVICES = 20;

const hashOf = (secret: string): string => createHash('sha256').update(secret).digest('hex');
/** Compares two texts in a time that tells nothing of where they differ. */
export const sameSecret = (a: string, b: string): boolean => {
  const [left, right] = [createHash('sha256').update(a).digest(), createHash('sha256').update(b).digest()];
  return timingSafeEqual(left, right);
};

const isDevice = (value: unknown): value is KeptDevice =>
  typeof value === 'object' &&
  value !== null &&
  ['id', 'name', 'hash', 'from'].every((key) => typeof Reflect.get(value, key) === 'string') &&
  ['madeMs', 'lastMs'].every((key) => typeof Reflect.get(value, key) === 'number');

/** What was kept; a file that cannot be read lets nobody in. */
function readDevices(file: string): readonly KeptDevice[] {
  try {
    const kept: unknown = JSON.parse(readFileSync(file, 'utf8'));
    return Array.isArray(kept) ? kept.filter(isDevice) : [];
  } catch {
    return [];
  }
}

/** What a token turned out to be. */
type Known = { readonly state: 'in'; readonly device: Device } | { readonly state: 'unknown' | 'revoked' | 'expired' };

export interface Devices {
  list(): readonly Device[];
  /** @returns the device and its token, which is told once and kept nowhere here. */
  add(name: string, from: string): { readonly device: Device; readonly token: string };
  know(token: string | undefined, from: string): Known;
  /** @returns whether there was such a device. */
  revoke(id: string): boolean;
}

/**
 * The devices that were let in, in a file of their own beside the database: a backup that is put back does not bring a revoked phone back.
 * A token is `id.secret` with 256 random bits; after 90 days without use, or a year, it is void.
 */
export function openDevices(folder: string | undefined, now: () => number): Devices {
  const file = folder === undefined ? undefined : path.join(folder, 'devices.json');
  if (folder !== undefined) mkdirSync(folder, { recursive: true, mode: 0o700 });
  let devices: readonly KeptDevice[] = [];
  if (file !== undefined && existsSync(file)) {
    devices = readDevices(file);
  }
  const keep = (next: readonly KeptDevice[]): void => {
    if (file !== undefined) writeWhole(file, JSON.stringify(next, null, 1));
    devices = next;
  };
  const shown = ({ hash: _hash, ...device }: KeptDevice): Device => device;
  return {
    list: () => devices.map(shown),
    add(name, from) {
      const secret = randomBytes(32).toString('base64url');
      const atMs = now();
      const device: KeptDevice = {
        ...{ id: randomUUID(), name, from, madeMs: atMs, lastMs: atMs, revokedMs: null },
        hash: hashOf(secret),
      };
      keep([...devices, device]);
      return { device: shown(device), token: `${device.id}.${secret}` };
    },
    know(token, from) {
      const [id, secret = ''] = (token ?? '').split('.');
      const device = devices.find((one) => sameSecret(one.id, id));
      // the same work is done for a device that is not there
      const same = sameSecret(device?.hash ?? '', hashOf(secret));
      if (!device || !same) return { state: 'unknown' };
      if (device.revokedMs !== null) return { state: 'revoked' };
      const atMs = now();
      if (atMs - device.lastMs > IDLE_DAYS * DAY_MS || atMs - device.madeMs > LONGEST_DAYS * DAY_MS)
        return { state: 'expired' };
      if (atMs - device.lastMs > NOTE_MS)
        keep(devices.map((one) => (one === device ? { ...one, lastMs: atMs, from } : one)));
      return { state: 'in', device: shown(device) };
    },
    revoke(id) {
      const there = devices.some((one) => one.id === id && one.revokedMs === null);
      if (there) keep(devices.map((one) => (one.id === id ? { ...one, revokedMs: now() } : one)));
      return there;
    },
  };
}
