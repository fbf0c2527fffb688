import { randomBytes, randomInt } from 'node:crypto';
import { CoreError } from '@velvet-reed/core/errors';
import type { Asking, Device } from '@velvet-reed/contract';
import { MOST_DEVICES, sameSecret, type Devices } from './devices';
import { quiet, type EventLog } from './events';

/** A code, a ticket or a name at the door that is not taken. */
class PairingError extends CoreError {
  readonly code = 'PAIRING';
}

const MINUTE_MS = 60_000;
/** A code is good for so long, and the answer of the desk is waited for as long again. */
export const CODE_MS = 2 * MINUTE_MS;
/** So many wrong codes make the right one void. */
export const MOST_TRIES = 5;

/** What the desk shows while a phone is awaited. */
interface OpenCode {
  /** Six digits, to be typed. */
  readonly code: string;
  /** 256 random bits, to be read from the picture. */
  readonly secret: string;
  readonly untilMs: number;
}

interface Ticket extends Asking {
  readonly ticket: string;
  readonly answer: 'waits' | 'in' | 'out';
}

export interface Pairing {
  /** Makes a new code; an older one is void. */
  open(): OpenCode;
  close(): void;
  state(): {
    readonly open: { readonly code: OpenCode; readonly triesLeft: number } | null;
    readonly asking: Asking | null;
  };
  /** A phone says the code or the secret, and its name. @throws PairingError */
  ask(
    said: { readonly code?: string; readonly secret?: string; readonly name: string },
    from: string,
  ): { readonly ticket: string; readonly check: string };
  /** The desk lets the phone in, or not. @throws PairingError when nobody asks under that check number. */
  answer(check: string, letIn: boolean): void;
  /** A phone takes its token, once. @throws PairingError */
  claim(
    ticket: string,
    from: string,
  ): { readonly state: 'waits' } | { readonly state: 'in'; readonly device: Device; readonly token: string };
}

const VOID =
  'This code is not good, or not any more. Ask the computer for a new one: Notebook, Phone, "Let a phone in".';
const digits = (count: number): string => String(randomInt(10 ** count)).padStart(count, '0');

/**
 * Lets phones in: a code from the screen of the computer, then a yes at the computer. The yes is what a code that was photographed or guessed does not
 * have. Nothing of this survives a restart.
 */
export function openPairing({
  devices,
  events,
  now,
}: {
  readonly devices: Devices;
  readonly events: EventLog;
  readonly now: () => number;
}): Pairing {
  let open: { readonly code: OpenCode; tries: number } | undefined;
  let asking: Ticket | undefined;
  const current = () => {
    if (open && now() > open.code.untilMs) open = undefined;
    return open;
  };
  const waiting = () => {
    if (asking && now() > asking.untilMs) asking = undefined;
    return asking;
  };
  return {
    open() {
      const code: OpenCode = {
        code: digits(6),
        secret: randomBytes(32).toString('base64url'),
        untilMs: now() + CODE_MS,
      };
      open = { code, tries: 0 };
      asking = undefined;
      events.note('DOOR_OPENED', '', 'a code for a phone');
      return code;
    },
    close() {
      open = undefined;
      asking = undefined;
    },
    state() {
      const code = current();
      const { ticket: _ticket, answer, ...told } = waiting() ?? { answer: undefined };
      return {
        open: code ? { code: code.code, triesLeft: MOST_TRIES - code.tries } : null,
        asking: answer === 'waits' && 'check' in told ? told : null,
      };
    },
    ask({ code, secret, name }, from) {
      const known = quiet(name).trim().slice(0, 40);
      if (known === '')
        throw new PairingError('Say what this phone is called, so that the computer can show it.', 'name');
      const here = current();
      const right =
        here !== undefined &&
        (secret !== undefined
          ? sameSecret(secret, here.code.secret)
          : code !== undefined && sameSecret(code, here.code.code));
      if (!right) {
        if (here) {
          here.tries += 1;
          if (here.tries >= MOST_TRIES) open = undefined;
        }
        events.note(here && open ? 'CODE_WRONG' : 'CODE_SPENT', from, known);
        throw new PairingError(VOID, 'code');
      }
      if (devices.list().filter(({ revokedMs }) => revokedMs === null).length >= MOST_DEVICES)
        throw new PairingError(`${MOST_DEVICES} devices are let in already. Revoke one at the computer first.`);
      open = undefined; // good for one phone
      const asked: Ticket = {
        ...{ name: known, from: quiet(from), check: digits(4), untilMs: now() + CODE_MS },
        ...{ ticket: randomBytes(32).toString('base64url'), answer: 'waits' },
      };
      asking = asked;
      events.note('ASKED_IN', from, known);
      return { ticket: asked.ticket, check: asked.check };
    },
    answer(check, letIn) {
      const here = waiting();
      if (!here || here.answer !== 'waits' || !sameSecret(check, here.check))
        throw new PairingError('No phone waits to be let in any more. Make a new code.');
      asking = { ...here, answer: letIn ? 'in' : 'out' };
      events.note(letIn ? 'LET_IN' : 'TURNED_AWAY', here.from, here.name);
    },
    claim(ticket, from) {
      const here = waiting();
      if (!here || !sameSecret(ticket, here.ticket)) {
        events.note('CODE_SPENT', from, 'a ticket');
        throw new PairingError(VOID);
      }
      if (here.answer === 'waits') return { state: 'waits' };
      asking = undefined; // taken once, whoever asks again
      if (here.answer === 'out') throw new PairingError('The computer said no. Ask whoever sits at it.');
      return { state: 'in', ...devices.add(here.name, from) };
    },
  };
}
