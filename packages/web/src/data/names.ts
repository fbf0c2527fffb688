import { localStore } from './browser-store';
/** A UUID; where the page is not served securely the browser offers no ready-made one. */
export function newUuid(): string {
  if (typeof crypto.randomUUID === 'function') return crypto.randomUUID();
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = (bytes[6] & 0x0f) | 0x40; // version 4
  bytes[8] = (bytes[8] & 0x3f) | 0x80; // RFC 4122 variant
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('');
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join('-');
}

const DEVICE = 'velvet-reed-device';
let remembered: string | undefined;

/** Name of this browser, made once and kept: undo takes back only what was saved here. */
export function deviceName(): string {
  if (remembered) return remembered;
  remembered = localStore.getItem(DEVICE) ?? newUuid();
  localStore.setItem(DEVICE, remembered);
  return remembered;
}

/** Names of batches whose answer was lost: pressing again sends the same batch, and the server carries it out once. */
const unanswered = new Map<string, string>();

/** What makes two batches the same to a person: everything but the moment at which a note was written. */
const contentOf = (path: string, body: unknown): string =>
  `${path} ${JSON.stringify(body, (name, value: unknown) => (name === 'atMs' ? undefined : value))}`;

/**
 * Sends something under a name of its own; after a lost answer the same content goes out under the same name.
 * @param work gets the name and rejects when the answer did not arrive or was no.
 * @param lost whether an error leaves open what became of it.
 */
export async function underOneName<T>(
  path: string,
  body: unknown,
  work: (key: string) => Promise<T>,
  lost: (error: unknown) => boolean,
): Promise<{ readonly key: string; readonly reply: T }> {
  const content = contentOf(path, body);
  const key = unanswered.get(content) ?? newUuid();
  try {
    const reply = await work(key);
    unanswered.delete(content);
    return { key, reply };
  } catch (error) {
    if (lost(error)) unanswered.set(content, key);
    else unanswered.delete(content);
    throw error;
  }
}
