import type { GuardGraph, GuardNode, Positions } from './graph';

/** What a station does, or what has failed in it. */
type StateKind =
  | 'receive'
  | 'key down'
  | 'relay moving'
  | 'hang'
  | 'supply off'
  | 'key line unplugged'
  | 'switch stuck'
  | 'wrong antenna'
  | 'neighbour on'
  | 'thunderstorm';

/** A state with the positions that its switches have then. */
export interface GuardState {
  /** "switch stuck tr1 1": what it is, which switch and where it stands then. */
  readonly id: string;
  readonly kind: StateKind;
  readonly name: string;
  readonly positions: Positions;
  /** Transmitters that are on. */
  readonly on: ReadonlySet<string>;
  /** Nothing is on by times whose scatter nobody measured. */
  readonly assumed?: boolean;
}

/** Whether RF never meets a moving relay: by measured times and scatters, by assumed ones, or not. */
export type InOrder = 'measured' | 'assumed' | 'no';
export interface SequenceKnown {
  /** The key line leads by enough at the beginning. */
  readonly leads: InOrder;
  /** The switch stays until RF has gone. */
  readonly hangs: InOrder;
}

type Switch = Extract<GuardNode, { kind: 'switch' }>;
const isSwitch = (node: GuardNode): node is Switch => node.kind === 'switch';

/** Every state of a station, single faults included. @param sequence what the timing proves. */
export function guardStates({ nodes }: GuardGraph, sequence: SequenceKnown): readonly GuardState[] {
  const switches = nodes.filter(isSwitch);
  const own = new Set(
    nodes.flatMap((node) => (node.kind === 'transmitter' && node.neighbour !== true ? [node.id] : [])),
  );
  const neighbours = new Set(
    nodes.flatMap((node) => (node.kind === 'transmitter' && node.neighbour === true ? [node.id] : [])),
  );
  const none: ReadonlySet<string> = new Set();
  const at = (where: (one: Switch) => string): Positions => new Map(switches.map((one) => [one.id, where(one)]));
  const receiving = at(({ receive }) => receive);
  const sending = at(({ transmit }) => transmit);
  const unpowered = at((one) => (one.drive === 'hand' ? one.transmit : one.rest));
  // without the key line a switch on it stays as in receive
  const unplugged = at((one) => (one.drive === 'key' ? one.receive : one.transmit));
  const keyed = switches.filter(({ drive }) => drive === 'key');
  const throwsOf = ({ throws }: Switch): readonly string[] => Array.from({ length: throws }, (_, i) => String(i + 1));
  const moved = (one: Switch, where: string): Positions => new Map([...sending, [one.id, where]]);
  return [
    { id: 'receive', kind: 'receive', name: 'Receive', positions: receiving, on: none },
    { id: 'key down', kind: 'key down', name: 'Key down', positions: sending, on: own },
    ...(keyed.length > 0
      ? [
          {
            ...{ id: 'relay moving', kind: 'relay moving' as const, name: 'Relay moving' },
            ...{ positions: unplugged, on: sequence.leads === 'no' ? own : none },
            assumed: sequence.leads === 'assumed',
          },
          {
            ...{ id: 'hang', kind: 'hang' as const, name: 'Key up, RF still there' },
            ...{ positions: unplugged, on: sequence.hangs === 'no' ? own : none },
            assumed: sequence.hangs === 'assumed',
          },
        ]
      : []),
    ...(switches.some(({ drive }) => drive !== 'hand')
      ? [{ id: 'supply off', kind: 'supply off' as const, name: 'Supply off', positions: unpowered, on: own }]
      : []),
    ...(keyed.length > 0
      ? [
          {
            ...{ id: 'key line unplugged', kind: 'key line unplugged' as const, name: 'Key line unplugged' },
            ...{ positions: unplugged, on: own },
          },
        ]
      : []),
    ...switches
      .filter(({ drive }) => drive !== 'hand')
      .flatMap((one) =>
        [...throwsOf(one), '']
          .filter((where) => where !== one.transmit)
          .map((where) => ({
            ...{ id: `switch stuck ${one.id} ${where}`, kind: 'switch stuck' as const },
            name: `${one.name} stuck ${where === '' ? 'between' : `at ${where}`}`,
            ...{ positions: moved(one, where), on: own },
          })),
      ),
    ...switches
      .filter(({ drive }) => drive === 'hand')
      .flatMap((one) =>
        throwsOf(one)
          .filter((where) => where !== one.transmit)
          .map((where) => ({
            ...{ id: `wrong antenna ${one.id} ${where}`, kind: 'wrong antenna' as const },
            ...{ name: `${one.name} left at ${where}`, positions: moved(one, where), on: own },
          })),
      ),
    ...(neighbours.size > 0
      ? [
          {
            ...{ id: 'neighbour on', kind: 'neighbour on' as const, name: 'A neighbour’s transmitter on' },
            ...{ positions: receiving, on: neighbours },
          },
        ]
      : []),
    { id: 'thunderstorm', kind: 'thunderstorm', name: 'Thunderstorm', positions: receiving, on: none },
  ];
}
