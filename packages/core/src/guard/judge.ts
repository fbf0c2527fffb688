import { fixed } from '../units/format';
import {
  checkGraph,
  countsFrom,
  type Evidence,
  EVIDENCE,
  type GuardGraph,
  type GuardNode,
  type Route,
  strongestRoutes,
  wiredTogether,
} from './graph';
import { guardStates, type GuardState, type SequenceKnown } from './states';

/** What is known of one receiver in one state. Proven: by what was measured alone. */
export type Colour = 'proven' | 'computed' | 'assumed' | 'unknown' | 'danger';
/** The worse one later. */
export const COLOURS: readonly Colour[] = ['proven', 'computed', 'assumed', 'unknown', 'danger'];

/** One receiver in one state. */
export interface Cell {
  readonly receiver: string;
  readonly state: GuardState;
  readonly colour: Colour;
  /** It stays below the limit, by less than the margin that is asked for. */
  readonly thin: boolean;
  /** The strongest route as far as the figures are known; absent where nothing reaches the receiver. */
  readonly route?: Route;
  readonly marginDb?: number;
  /** Antennas that hang on it without any switch between, where nobody knows what they bring. */
  readonly uncovered?: readonly string[];
  readonly sentence: string;
}

/** The whole way from a transmitter to a receiver input as it was measured with the key down. */
export interface MeasuredWay {
  readonly receiver: string;
  readonly lossDb: number;
  readonly evidence: Evidence;
}

export interface GuardQuestion {
  readonly graph: GuardGraph;
  readonly sequence: SequenceKnown;
  readonly marginToKeepDb: number;
  /** Antennas of the station that are not in the drawing. */
  readonly undrawn: readonly string[];
  /** Ways that were measured as a whole; they count with the key down alone. */
  readonly measured: readonly MeasuredWay[];
  /** Nodes that are pulled apart before a storm. */
  readonly pulled: ReadonlySet<string>;
}

/** Every receiver in every state, and what it comes to. */
export interface GuardProof {
  readonly states: readonly GuardState[];
  readonly receivers: readonly Extract<GuardNode, { kind: 'receiver' }>[];
  readonly cells: readonly Cell[];
  readonly worst?: Cell;
  readonly undrawn: readonly string[];
  readonly colour: Colour;
  readonly sentence: string;
  readonly next: string;
}

const dbm = (value: number): string => `${fixed(value, 1)} dBm`;
const OF_EVIDENCE: Readonly<Record<Evidence, Colour>> = { measured: 'proven', model: 'computed', assumed: 'assumed' };
/** How far over a limit: what rounds to nothing is still over. */
const overText = (marginDb: number): string => (marginDb > -0.05 ? 'just over' : `${fixed(-marginDb, 1)} dB over`);
/** Nothing so weak harms anything: a level from afar that nobody wrote down. */
const NOTHING_DBM = -300;

/**
 * One receiver in one state. What it rests on is the weakest evidence that is needed: with everything weaker counted as no loss at all, the level
 * must still stay below the limit. So an unknown part far off the way does no harm, and one in the way is never green.
 */
function judgeLevel(
  graph: GuardGraph,
  state: GuardState,
  receiver: Extract<GuardNode, { kind: 'receiver' }>,
  routes: Readonly<Record<Evidence, ReadonlyMap<string, Route>>>,
): { readonly colour: Colour; readonly route?: Route; readonly levelDbm: number } {
  const levels = EVIDENCE.map((weakest) => routes[weakest].get(receiver.id)?.dbm ?? NOTHING_DBM);
  const route = strongestKnown(graph, state, receiver.id) ?? routes.assumed.get(receiver.id);
  const founded = EVIDENCE.find((_, i) => levels[i] <= receiver.limitDbm);
  if (founded)
    return { colour: OF_EVIDENCE[founded], levelDbm: levels[EVIDENCE.indexOf('assumed')], ...(route ? { route } : {}) };
  // over the limit with what is known: danger if by known figures alone, else nobody knows
  const known = strongestKnown(graph, state, receiver.id);
  const danger = known !== undefined && known.dbm > receiver.limitDbm;
  return {
    colour: danger ? 'danger' : 'unknown',
    levelDbm: danger ? known.dbm : levels[EVIDENCE.indexOf('assumed')],
    ...(danger ? { route: known } : { route: routes.assumed.get(receiver.id) }),
  };
}

/** The strongest route on which everything is known. */
function strongestKnown(graph: GuardGraph, state: GuardState, receiver: string): Route | undefined {
  // what is unknown does not pass here
  return strongestRoutes(graph, state.positions, state.on, ({ db }) => db ?? 1000).get(receiver);
}

function sentenceOf(
  cell: Omit<Cell, 'sentence'>,
  { name, limitDbm }: Extract<GuardNode, { kind: 'receiver' }>,
  marginToKeepDb: number,
): string {
  const { colour, route, marginDb = 0, thin, state, uncovered } = cell;
  if (uncovered)
    return `${uncovered.join(', ')} ${uncovered.length === 1 ? 'is' : 'are'} not disconnected while transmitting, and nobody knows what comes over the air. The protection inside the radio does not cover ${name}: put a switch on the key line, or compute or measure the coupling.`;
  if (!route) return state.on.size === 0 ? 'No transmitter is on.' : `Nothing leads to ${name}.`;
  const way = route.steps.map((step) => step.name).join(', ') || 'straight into it';
  const unknown = route.steps.find(({ evidence }) => evidence === 'unknown');
  const broken = route.broken
    ? ` ${route.broken.name} gets ${dbm(route.broken.dbm)} and survives ${dbm(route.broken.surviveDbm)}: it counts as not there.`
    : '';
  switch (colour) {
    case 'danger':
      return `${dbm(route.dbm)}, ${overText(marginDb)} the limit of ${dbm(limitDbm)}: ${way}.${broken}`;
    case 'unknown':
      return `Nobody knows: ${unknown ? `“${unknown.name}” has no figure` : 'a part has no figure'}; without it ${dbm(route.dbm)} would arrive: ${way}.${broken}`;
    default:
      return `${dbm(route.dbm)}, ${fixed(marginDb, 1)} dB below the limit${thin ? `, less than the ${fixed(marginToKeepDb, 0)} dB asked for` : ''}: ${way}.${broken}`;
  }
}

/** The state of a storm: an antenna that still hangs on a receiver. */
function stormCell(
  graph: GuardGraph,
  state: GuardState,
  receiver: Extract<GuardNode, { kind: 'receiver' }>,
  pulled: ReadonlySet<string>,
): Cell {
  const together = wiredTogether(graph, receiver.id, pulled);
  const antennas = graph.nodes.filter(({ kind, id }) => kind === 'antenna' && together.has(id) && !pulled.has(id));
  const common = { receiver: receiver.id, state, thin: false };
  return antennas.length === 0
    ? { ...common, colour: 'assumed', sentence: 'No antenna hangs on it once the plugs are pulled that you marked.' }
    : {
        ...common,
        colour: 'unknown',
        sentence: `${antennas.map(({ name }) => name).join(', ')} still ${antennas.length === 1 ? 'hangs' : 'hang'} on it: pull the plug before a storm, and mark where.`,
      };
}

/** Every receiver input in every state, judged. @throws ShapeError, OutOfRangeError for a graph that cannot be. */
export function guardProof(question: GuardQuestion): GuardProof {
  const { graph, sequence, marginToKeepDb, undrawn, measured, pulled } = question;
  checkGraph(graph);
  const receivers = graph.nodes.filter(
    (node): node is Extract<GuardNode, { kind: 'receiver' }> => node.kind === 'receiver',
  );
  const states = guardStates(graph, sequence);
  const cells = states.flatMap((state): Cell[] => {
    if (state.kind === 'thunderstorm') return receivers.map((receiver) => stormCell(graph, state, receiver, pulled));
    const through = (weakest: Evidence): ReadonlyMap<string, Route> =>
      strongestRoutes(graph, state.positions, state.on, countsFrom(weakest));
    const routes = { measured: through('measured'), model: through('model'), assumed: through('assumed') };
    return receivers.map((receiver): Cell => {
      const whole = state.kind === 'key down' ? measuredCell(graph, state, receiver, measured) : undefined;
      const { colour, route, levelDbm } = whole ?? judgeLevel(graph, state, receiver, routes);
      const marginDb = receiver.limitDbm - levelDbm;
      const thin = route !== undefined && colour !== 'danger' && colour !== 'unknown' && marginDb < marginToKeepDb;
      const bare = colour === 'unknown' ? unswitched(graph, receiver.id) : [];
      const cell = {
        ...{ receiver: receiver.id, state, colour, thin },
        ...(bare.length > 0 ? { uncovered: bare } : {}),
        ...(route ? { route, marginDb } : {}),
      };
      return { ...cell, sentence: sentenceOf(cell, receiver, marginToKeepDb) };
    });
  });
  return { states, receivers, cells, undrawn, ...summary(cells, receivers, undrawn) };
}

/** Antennas that hang on a receiver without a switch between. */
function unswitched(graph: GuardGraph, receiver: string): readonly string[] {
  const switches = new Set(graph.nodes.flatMap(({ kind, id }) => (kind === 'switch' ? [id] : [])));
  const together = wiredTogether(graph, receiver, switches);
  return graph.nodes.flatMap(({ kind, id, name }) => (kind === 'antenna' && together.has(id) ? [name] : []));
}

/** A way that was measured as a whole is worth more than the sum of its parts. */
function measuredCell(
  graph: GuardGraph,
  state: GuardState,
  receiver: Extract<GuardNode, { kind: 'receiver' }>,
  measured: readonly MeasuredWay[],
): { readonly colour: Colour; readonly route: Route; readonly levelDbm: number } | undefined {
  const way = measured.find((one) => one.receiver === receiver.id);
  const [source] = graph.nodes.flatMap((node) => (node.kind === 'transmitter' && state.on.has(node.id) ? [node] : []));
  if (!way || !source) return undefined;
  const level = source.dbm - way.lossDb;
  const name = way.evidence === 'measured' ? 'the whole way, by the stepwise test' : 'the whole way, as typed';
  return {
    levelDbm: level,
    colour: level > receiver.limitDbm ? 'danger' : OF_EVIDENCE[way.evidence],
    route: {
      ...{ transmitter: source.id, dbm: level },
      steps: [{ name, lossDb: way.lossDb, evidence: way.evidence, dbm: level }],
    },
  };
}

function summary(
  cells: readonly Cell[],
  receivers: GuardProof['receivers'],
  undrawn: readonly string[],
): Pick<GuardProof, 'worst' | 'colour' | 'sentence' | 'next'> {
  const nameOf = (cell: Cell): string => receivers.find(({ id }) => id === cell.receiver)?.name ?? '';
  // a storm is a matter of plugs, not of power: it decides only when nothing else does
  const order = (cell: Cell): number =>
    10 * COLOURS.indexOf(cell.colour) +
    (cell.thin || cell.uncovered ? 5 : 0) -
    (cell.state.kind === 'thunderstorm' ? 1 : 0);
  const [worst] = [...cells].sort((a, b) => order(b) - order(a) || (a.marginDb ?? 999) - (b.marginDb ?? 999));
  if (!worst || receivers.length === 0)
    return {
      colour: 'unknown',
      sentence: 'No receiver is drawn, so nothing is known.',
      next: 'Draw every receiver input and what it hangs on.',
    };
  const state = worst.state.name.charAt(0).toLowerCase() + worst.state.name.slice(1);
  if (worst.colour === 'danger')
    return {
      ...{ worst, colour: 'danger' },
      sentence: `Do not transmit: ${nameOf(worst)} gets ${dbm(worst.route?.dbm ?? 0)} (${state}), ${overText(worst.marginDb ?? 0)} its limit.`,
      next: 'Make the cheapest change that States names.',
    };
  if (worst.uncovered)
    return {
      ...{ worst, colour: 'danger' },
      sentence: `Do not transmit yet: ${worst.uncovered.join(', ')} ${worst.uncovered.length === 1 ? 'is' : 'are'} not disconnected; what ${nameOf(worst)} would get is not known.`,
      next: 'Put a switch into it, or compute the coupling.',
    };
  if (undrawn.length > 0)
    return {
      ...{ worst, colour: 'danger' },
      sentence: `Do not transmit yet: ${undrawn.slice(0, 3).join(', ')}${undrawn.length > 3 ? ` and ${undrawn.length - 3} more` : ''} of this station ${undrawn.length === 1 ? 'is' : 'are'} not in the drawing.`,
      next: 'Draw what each hangs on, or say that it hangs on nothing.',
    };
  if (worst.colour === 'unknown')
    return {
      ...{ worst, colour: 'unknown' },
      sentence:
        worst.state.kind === 'thunderstorm'
          ? `Transmitting is covered; before a storm ${nameOf(worst)} is not.`
          : `Unknown: ${nameOf(worst)} (${state}) rests on a part that has no figure.`,
      next:
        worst.state.kind === 'thunderstorm'
          ? 'Mark the plug that you pull.'
          : 'Enter it, compute it, or test it step by step.',
    };
  const room = `the closest is ${nameOf(worst)} (${state}), ${fixed(worst.marginDb ?? 0, 1)} dB below its limit`;
  return {
    ...{ worst, colour: worst.colour },
    sentence: `Every receiver stays below its limit in every state, ${WORDS[worst.colour]}; ${room}.`,
    next: worst.thin
      ? 'It is less than the margin you asked for: add isolation, or lower the power.'
      : worst.colour === 'proven'
        ? 'Repeat the test when anything is changed.'
        : 'Prove it by the stepwise test, from the lowest power up.',
  };
}

/** A cell in a word. */
export const COLOUR_WORDS: Readonly<Record<Colour, string>> = {
  ...{ proven: 'proven', computed: 'computed', assumed: 'assumed', unknown: 'unknown', danger: 'danger' },
};

const WORDS: Readonly<Record<Colour, string>> = {
  proven: 'as measured',
  computed: 'as computed',
  assumed: 'by figures that were typed',
  unknown: 'as far as anybody knows',
  danger: 'but for one',
};
