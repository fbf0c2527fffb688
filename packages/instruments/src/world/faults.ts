import type { Wire, WireModel } from '@velvet-reed/core/solver';
import type { HiddenFeed } from './feed';
import type { Random } from './random';

/** What can go wrong between two measurements. */
export const FAULT_KINDS = [
  'none',
  'open',
  'shorted',
  'wire-down',
  'broken',
  'water',
  'stretched',
  'longer',
  'all',
] as const;
export type FaultKind = (typeof FAULT_KINDS)[number];

/** How much a fault changes. */
export interface Fault {
  readonly kind: FaultKind;
  /** Factor on the length of one wire (broken, stretched, longer) or of all (all). */
  readonly lengthFactor: number;
  /** Wire or branch it happens to, 0-based. */
  readonly branch: number;
  /** Water: factor on the loss of the cable, and on its speed. */
  readonly lossFactor: number;
  readonly speedFactor: number;
}

export const SOUND: Fault = { kind: 'none', lengthFactor: 1, branch: 0, lossFactor: 1, speedFactor: 1 };

/** A fault of a kind, as large as such faults are. */
export function drawFault(kind: FaultKind, branches: number, random: Random): Fault {
  const branch = Math.floor(random.uniform() * branches);
  switch (kind) {
    case 'broken':
      return { ...SOUND, kind, branch, lengthFactor: random.between(0.8, 0.94) };
    case 'longer':
      return { ...SOUND, kind, branch, lengthFactor: random.between(1.06, 1.2) };
    case 'stretched':
      return {
        ...SOUND,
        kind,
        branch,
        lengthFactor: random.pick([random.between(0.972, 0.993), random.between(1.007, 1.028)]),
      };
    case 'all':
      return { ...SOUND, kind, lengthFactor: random.pick([random.between(0.93, 0.985), random.between(1.015, 1.07)]) };
    case 'water':
      return { ...SOUND, kind, lossFactor: random.between(3, 8), speedFactor: random.between(0.88, 0.97) };
    case 'none':
    case 'open':
    case 'shorted':
    case 'wire-down':
      return { ...SOUND, kind, branch };
  }
}

/** The cable as a fault leaves it. */
export function faultyFeed(feed: HiddenFeed, fault: Fault): HiddenFeed {
  if (fault.kind === 'open') return { ...feed, joint: 'open' };
  if (fault.kind === 'shorted') return { ...feed, joint: 'shorted' };
  return {
    ...feed,
    k1: feed.k1 * fault.lossFactor,
    k2: feed.k2 * fault.lossFactor,
    velocityFactor: feed.velocityFactor * fault.speedFactor,
  };
}

const scaled = (wire: Wire, from: Wire['from'], factor: number): Wire => ({
  ...wire,
  from: [
    from[0] + factor * (wire.from[0] - from[0]),
    from[1] + factor * (wire.from[1] - from[1]),
    from[2] + factor * (wire.from[2] - from[2]),
  ],
  to: [
    from[0] + factor * (wire.to[0] - from[0]),
    from[1] + factor * (wire.to[1] - from[1]),
    from[2] + factor * (wire.to[2] - from[2]),
  ],
});

/** All wires longer or shorter by a factor, about the feed. */
export function stretchedModel(model: WireModel, factor: number): WireModel {
  const port = model.ports[0];
  const { from, to } = model.wires[port.wire];
  const feed: Wire['from'] = [
    from[0] + port.position * (to[0] - from[0]),
    from[1] + port.position * (to[1] - from[1]),
    from[2] + port.position * (to[2] - from[2]),
  ];
  return { ...model, wires: model.wires.map((wire) => scaled(wire, feed, factor)) };
}
