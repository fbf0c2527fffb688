import { useSyncExternalStore } from 'react';
import { STEPS } from '@velvet-reed/station/steps';
import { localStore } from '../data/browser-store';

/** One thing that a single character does. */
interface KeyAction {
  readonly id: string;
  readonly key: string;
  readonly does: string;
}

/** What single characters do as delivered; a listener may choose others, or switch them all off. */
export const KEY_ACTIONS: readonly KeyAction[] = [
  ...STEPS.map(({ id, name, key }) => ({ id, key, does: `go to ${name}` })),
  { id: 'room-before', key: '[', does: 'the room before' },
  { id: 'room-after', key: ']', does: 'the room after' },
  { id: 'palette', key: '/', does: 'do anything by name' },
  { id: 'shortcuts', key: '?', does: 'this sheet' },
  { id: 'theme', key: 't', does: 'day or night theme' },
  { id: 'numbers', key: 'v', does: 'from the picture to its numbers, and back' },
  { id: 'focus-band', key: 'f', does: 'jump to the focus band on the Reed' },
];

/** Which characters answer; chosen on this device. */
export interface Keys {
  readonly on: boolean;
  /** By action, where it differs from what is delivered. */
  readonly chosen: Readonly<Record<string, string>>;
}
const STORAGE = 'velvet-reed.keys';
export const DELIVERED: Keys = { on: true, chosen: {} };

function stored(): Keys {
  try {
    const value: unknown = JSON.parse(localStore.getItem(STORAGE) ?? 'null');
    if (typeof value !== 'object' || value === null) return DELIVERED;
    const chosen: unknown = 'chosen' in value ? value.chosen : {};
    const pairs = typeof chosen === 'object' && chosen !== null ? Object.entries(chosen) : [];
    return {
      on: !('on' in value) || value.on !== false,
      chosen: Object.fromEntries(
        pairs.flatMap(([id, key]: [string, unknown]) =>
          typeof key === 'string' && key.length === 1 ? [[id, key]] : [],
        ),
      ),
    };
  } catch {
    return DELIVERED; // what another program wrote there
  }
}

let current: Keys | undefined;
const listeners = new Set<() => void>();
const snapshot = (): Keys => (current ??= stored());

/** Keeps which characters answer. */
export function chooseKeys(keys: Keys): void {
  current = keys;
  localStore.setItem(STORAGE, JSON.stringify(keys));
  for (const listener of listeners) listener();
}

export const useKeys = (): Keys =>
  useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, snapshot);

/** The character of an action. */
export const keyOf = ({ id, key }: KeyAction, { chosen }: Keys): string => chosen[id] ?? key;

/** The action that a character stands for; none when single characters are switched off. */
export const actionOf = (character: string, keys: Keys): string | undefined =>
  keys.on ? KEY_ACTIONS.find((action) => keyOf(action, keys).toLowerCase() === character.toLowerCase())?.id : undefined;

/** Another character for an action, or why it cannot have that one. */
export function withKey(keys: Keys, id: string, character: string): Keys | string {
  const key = character.trim();
  if ([...key].length !== 1) return 'One character, please: a letter, a digit or a sign.';
  const taken = KEY_ACTIONS.find(
    (action) => action.id !== id && keyOf(action, keys).toLowerCase() === key.toLowerCase(),
  );
  if (taken) return `“${key}” already means: ${taken.does}. Give that another character first.`;
  return { ...keys, chosen: { ...keys.chosen, [id]: key } };
}
