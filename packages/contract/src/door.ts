/** What can happen at the door. */
export const EVENT_KINDS = [
  ...[
    'FOREIGN_HOST',
    'FOREIGN_ORIGIN',
    'FOREIGN_PAGE',
    'NOT_LOCAL',
    'UNPAIRED',
    'REVOKED',
    'DESK_ONLY',
    'TOO_OFTEN',
    'QUOTA',
  ],
  ...['DOOR_OPENED', 'CODE_WRONG', 'CODE_SPENT', 'ASKED_IN', 'LET_IN', 'TURNED_AWAY', 'DEVICE_REVOKED', 'DEVICE_LEFT'],
] as const;
export type EventKind = (typeof EVENT_KINDS)[number];

/** Something that happened at the door: never a code, a token or what somebody typed as one. */
export interface DoorEvent {
  readonly atMs: number;
  readonly kind: EventKind;
  /** Address that it came from; empty for this computer itself. */
  readonly from: string;
  /** What it was about, in a few words. */
  readonly what: string;
}

/** A phone that was let in. */
export interface Device {
  readonly id: string;
  readonly name: string;
  readonly madeMs: number;
  readonly lastMs: number;
  readonly from: string;
  readonly revokedMs: number | null;
}

/** By which door a page came in. */
export interface Me {
  readonly place: 'desk' | 'network';
  readonly device: Pick<Device, 'id' | 'name' | 'madeMs'> | null;
  /** Whether the local network is listened to. */
  readonly open: boolean;
  /** SHA-256 of the certificate of this computer's authority. */
  readonly fingerprint: string | null;
}

/** The door as the desk sees it. */
export interface DoorState {
  readonly network: { readonly addresses: readonly string[]; readonly fingerprint: string } | null;
  readonly devices: readonly Device[];
  /** Latest last. */
  readonly events: readonly DoorEvent[];
}

/** A code for one phone. */
export interface PhoneCode {
  readonly code: string;
  readonly untilMs: number;
  readonly pictures: readonly { readonly address: string; readonly svg: string }[];
}

/** A phone that gave the right code and waits to be let in. */
export interface Asking {
  readonly name: string;
  readonly from: string;
  /** Four digits that the phone shows as well. */
  readonly check: string;
  readonly untilMs: number;
}

/** Who asks to be let in, and whether the code is still good. */
export interface DoorBell {
  readonly open: { readonly untilMs: number; readonly triesLeft: number } | null;
  readonly asking: Asking | null;
}
