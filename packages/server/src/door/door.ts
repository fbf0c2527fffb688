import type { Socket } from 'node:net';
import { openDevices, type Devices } from './devices';
import { openEvents, type EventLog } from './events';
import { openPairing, type Pairing } from './pairing';

/** Where the network reaches this computer, once it is asked to be reached. */
interface OpenNetwork {
  readonly addresses: readonly string[];
  /** Hosts that requests may be addressed to. */
  readonly hosts: readonly string[];
  readonly fingerprint: string;
  readonly authorityPem: string;
}

/** Who is let in, who asks, and what happened. */
export interface Door {
  readonly devices: Devices;
  readonly events: EventLog;
  readonly pairing: Pairing;
  readonly now: () => number;
  /** Connections under way, by device: a revoked one is hung up on. */
  readonly connections: Map<string, Set<Socket>>;
  /** Set while the local network is listened to. */
  network: OpenNetwork | null;
}

/** @param folder where devices and events are kept; without one they last as long as the process. */
export function openDoor(folder: string | undefined, now: () => number = Date.now): Door {
  const events = openEvents(folder, now);
  const devices = openDevices(folder, now);
  return {
    devices,
    events,
    pairing: openPairing({ devices, events, now }),
    now,
    connections: new Map(),
    network: null,
  };
}

/** Lets a device in no more, and closes what it has open. @returns whether it was let in. */
export function shutOut({ devices, connections }: Door, id: string): boolean {
  const there = devices.revoke(id);
  for (const socket of connections.get(id) ?? []) socket.destroy();
  connections.delete(id);
  return there;
}
