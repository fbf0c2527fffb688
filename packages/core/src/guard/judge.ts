import { fixed, frequencyText, listText } from '../units/format';
import {
  checkGraph,
  countsFrom,
  type FigureName,
  type Footing,
  FOOTINGS,
  type GuardGraph,
  type GuardNode,
  isVictim,
  KNOWN_ALONE,
  type Route,
  strongestRoutes,
  type Victim,
  wiredTogether,
} from './graph';
import { guardStates, type GuardState, type SequenceKnown } from './states';

/** What is known of one receiver in one state. Proven: by what was measured alone. */
export type Colour = 'proven' | 'computed' | 'assumed' | 'unknown' | 'danger';
/** The worse one later. */
export const COLOURS: readonly Colour[] = ['proven', 'computed', 'assumed', 'unknown', 'danger'];

/** A figure that nobody knows, and how many cells wait for it. */
export interface MissingFigure extends FigureName {
  /** "T/R switch, 1 to 2". */
  readonly name: string;
  readonly because?: string;
  readonly waiting: number;
}

/** One receiver, or the input of an amplifier, in one state at one frequency. */
export interface Cell {
  readonly receiver: string;
  readonly state: GuardState;
  readonly colour: Colour;
  /** It stays below the limit, by less than the margin that is asked for. */
  readonly thin: boolean;
  /** Frequency of the transmitter, Hz. */
  readonly freqHz: number;
  /** The strongest route, with levels; absent where nothing reaches the receiver, and where nobody knows the level. */
  readonly route?: Route;
  readonly marginDb?: number;
  /** The way on which figures are missing, and those figures. */
  readonly way?: readonly string[];
  readonly missing?: readonly Omit<MissingFigure, 'waiting'>[];
  /** Antennas that hang on it without any switch between, where nobody knows what they bring. */
  readonly uncovered?: readonly string[];
  /** Why the drawing does not decide it at all. */
  readonly undecided?: string;
  readonly sentence: string;
}

/** The whole way from a transmitter to a receiver input as it was measured with the key down, or typed. */
export interface MeasuredWay {
  readonly receiver: string;
  readonly lossDb: number;
  readonly footing: Footing;
  /** "the whole way, by the stepwise test". */
  readonly name: string;
}

/** One frequency at which is transmitted: the drawing with its figures there, and what was measured there as a whole. */
export interface GuardBand {
  readonly freqHz: number;
  readonly graph: GuardGraph;
  /** Ways that were measured as a whole; they count wherever all switches stand as with the key down. */
  readonly measured: readonly MeasuredWay[];
  /** Tests that do not hold for this frequency and drawing, in a sentence each, by receiver. */
  readonly refused: ReadonlyMap<string, string>;
}

export interface GuardQuestion {
  /** Frequencies of one's own transmitter, one at least; those of neighbours have a band each, with nothing on but the neighbour. */
  readonly bands: readonly GuardBand[];
  readonly sequence: SequenceKnown;
  readonly marginToKeepDb: number;
  /** Antennas and receivers of the station that are not in the drawing. */
  readonly undrawn: readonly string[];
  /** Nodes with a link that ends at something that is gone. */
  readonly loose: ReadonlySet<string>;
  /** Nodes that are pulled apart before a storm. */
  readonly pulled: ReadonlySet<string>;
}

/** Every receiver in every state, and what it comes to. */
export interface GuardProof {
  readonly states: readonly GuardState[];
  readonly receivers: readonly Victim[];
  /** The worst of all frequencies for each receiver and state. */
  readonly cells: readonly Cell[];
  /** Every frequency by itself, in the order asked. */
  readonly bands: readonly { readonly freqHz: number; readonly cells: readonly Cell[] }[];
  readonly worst?: Cell;
  readonly undrawn: readonly string[];
  /** What nobody knows, that for which most cells wait first. */
  readonly missing: readonly MissingFigure[];
  readonly colour: Colour;
  readonly sentence: string;
  readonly next: string;
}

const dbm = (value: number): string => `${fixed(value, 1)} dBm`;
const OF_FOOTING: Readonly<Record<Footing, Colour>> = { measured: 'proven', model: 'computed', assumed: 'assumed' };
/** How far over a limit: what rounds to nothing is still over. */
const overText = (marginDb: number): string => (marginDb > -0.05 ? 'just over' : `${fixed(-marginDb, 1)} dB over`);
/** How far below a limit, rounded so that it is never called more than it is. */
const below = (marginDb: number): string => fixed(toldMarginDb(marginDb), 1);
/** A margin as it is told, dB: what is left is rounded down, so that no figure promises more than there is. */
export const toldMarginDb = (marginDb: number): number =>
  marginDb < 0 ? marginDb : Math.floor(10 * marginDb + 1e-6) / 10;

const isGreen = ({ colour }: Judged): boolean => colour === 'proven' || colour === 'computed';

type Judged = Pick<Cell, 'colour' | 'route' | 'way' | 'missing'>;

/**
 * One receiver in one state. What it rests on is the weakest figure that is needed: with everything weaker counted as no loss at all, the level
 * must still stay below the limit, and that level is the one that is told. So an unknown part far off the way does no harm, and one in the way is never green.
 */
function judgeLevel(
  { id, limitDbm }: Victim,
  routes: Readonly<Record<Footing | 'known', ReadonlyMap<string, Route>>>,
): Judged {
  const founded = FOOTINGS.find((footing) => (routes[footing].get(id)?.dbm ?? -Infinity) <= limitDbm);
  const route = founded && routes[founded].get(id);
  if (founded) return { colour: OF_FOOTING[founded], ...(route ? { route } : {}) };
  // over the limit with what is known: danger if by known figures alone, else nobody knows
  const known = routes.known.get(id);
  if (known && known.dbm > limitDbm) return { colour: 'danger', route: known };
  const steps = routes.assumed.get(id)?.steps ?? [];
  return {
    ...{ colour: 'unknown', way: steps.map(({ name }) => name) },
    missing: steps.flatMap(({ footing, figure, name, because }) =>
      footing === 'unknown' && figure
        ? [{ ...figure, name: figure.name ?? name, ...(because === undefined ? {} : { because }) }]
        : [],
    ),
  };
}

function sentenceOf(cell: Omit<Cell, 'sentence'>, victim: Victim, marginToKeepDb: number): string {
  const { name, limitDbm } = victim;
  const assumed = victim.kind === 'amplifier' && victim.limitAssumed ? ' (assumed)' : '';
  const { colour, route, marginDb = 0, thin, state, uncovered, way, missing = [] } = cell;
  if (uncovered)
    return `${listText(uncovered)} ${uncovered.length === 1 ? 'is' : 'are'} not disconnected while transmitting, and nobody knows what comes over the air. The protection inside the radio does not cover ${name}: put a switch on the key line, or compute or measure the coupling.`;
  if (colour === 'unknown') {
    const [first] = missing;
    return first
      ? `Not known: “${first.name}” has no figure${first.because === undefined ? '' : ` (${first.because})`}. Way: ${(way ?? []).join(', ')}.`
      : `Not known: figures are missing on the way ${(way ?? []).join(', ')}.`;
  }
  if (!route) return state.on.size === 0 ? 'No transmitter is on.' : `Nothing leads to ${name}.`;
  const steps = route.steps.map((step) => step.name).join(', ') || 'straight into it';
  const broken = route.broken
    ? ` ${route.broken.name} gets ${dbm(route.broken.dbm)} and survives ${dbm(route.broken.surviveDbm)}: it counts as not there.`
    : '';
  return colour === 'danger'
    ? `${dbm(route.dbm)}, ${overText(marginDb)} the limit of ${dbm(limitDbm)}${assumed}: ${steps}.${broken}`
    : `${dbm(route.dbm)}, ${below(marginDb)} dB below the limit${assumed}${thin ? `, less than the ${fixed(marginToKeepDb, 0)} dB asked for` : ''}: ${steps}.${broken}`;
}

/** The state of a storm: an antenna that still hangs on a receiver. */
function stormCell(
  graph: GuardGraph,
  state: GuardState,
  victim: Victim,
  { pulled, freqHz }: { readonly pulled: ReadonlySet<string>; readonly freqHz: number },
): Cell {
  const together = wiredTogether(graph, victim.id, pulled);
  const antennas = graph.nodes.filter(({ kind, id }) => kind === 'antenna' && together.has(id) && !pulled.has(id));
  const common = { receiver: victim.id, state, freqHz, thin: false };
  return antennas.length === 0
    ? { ...common, colour: 'assumed', sentence: 'With the marked plugs pulled, no antenna is connected.' }
    : {
        ...common,
        colour: 'unknown',
        sentence: `${listText(antennas.map(({ name }) => name))} still ${antennas.length === 1 ? 'hangs' : 'hang'} on it: pull the plug before a storm, and mark where.`,
      };
}

/** Why a receiver cannot be judged by the drawing at all: a link that ends nowhere, or no antenna that leads to it. */
function undecided(graph: GuardGraph, victim: Victim, loose: ReadonlySet<string>): string | undefined {
  const together = wiredTogether(graph, victim.id, new Set());
  const sources = graph.nodes.filter(({ kind }) => kind === 'transmitter');
  const sending = sources.flatMap(({ id }) => [...wiredTogether(graph, id, new Set())]);
  const broken = [...together, ...sending].find((id) => loose.has(id));
  const nameOf = (id: string): string => graph.nodes.find((node) => node.id === id)?.name ?? victim.name;
  if (broken !== undefined)
    return `a link of ${nameOf(broken)} ends at a part that is gone. Draw in Routes what it is connected to.`;
  return graph.nodes.some(({ kind, id }) => (kind === 'antenna' || kind === 'transmitter') && together.has(id))
    ? undefined
    : `no antenna leads to ${victim.name}. Draw in Routes what it is connected to, or say that it hangs on nothing.`;
}

const isOwn = (node: GuardNode): boolean => node.kind === 'transmitter' && node.neighbour !== true;

/** All cells of one frequency. */
function cellsOfBand(question: GuardQuestion, band: GuardBand): readonly Cell[] {
  const { sequence, marginToKeepDb, loose, pulled } = question;
  const { graph, freqHz } = band;
  checkGraph(graph);
  const own = graph.nodes.some(isOwn);
  const all = guardStates(graph, sequence);
  const down = all.find(({ kind }) => kind === 'key down');
  const victims = graph.nodes.filter(isVictim);
  const undecidedOf = new Map(victims.map((one) => [one.id, undecided(graph, one, loose)]));
  const states = all.filter(({ kind }) => (kind === 'neighbour on') !== own);
  return states.flatMap((state): Cell[] => {
    if (state.kind === 'thunderstorm')
      return victims
        .filter(({ kind }) => kind === 'receiver')
        .map((victim) => stormCell(graph, state, victim, { pulled, freqHz }));
    const through = (counts: ReturnType<typeof countsFrom>): ReadonlyMap<string, Route> =>
      strongestRoutes(graph, state.positions, state.on, counts);
    const routes = {
      ...{ measured: through(countsFrom('measured')), model: through(countsFrom('model')) },
      ...{ assumed: through(countsFrom('assumed')), known: through(KNOWN_ALONE) },
    };
    return victims.map((victim): Cell => {
      const common = { receiver: victim.id, state, freqHz };
      const why = undecidedOf.get(victim.id);
      if (why !== undefined && state.on.size > 0)
        return { ...common, colour: 'unknown', thin: false, undecided: why, sentence: `Not known: ${why}` };
      const whole = down && measuredCell(band, state, { victim, down });
      const byParts = judgeLevel(victim, routes);
      // a figure that was typed for the whole way speaks only where the drawing does not
      const judged = whole && (whole.footing === 'measured' || byParts.colour === 'unknown') ? whole.judged : byParts;
      const byTimes = state.on.size === 0 && state.assumed === true;
      // below a limit that nobody gave, a measured level proves nothing
      const byLimit =
        victim.kind === 'amplifier' && victim.limitAssumed === true && judged.route !== undefined && isGreen(judged);
      const colour = byTimes || byLimit ? 'assumed' : judged.colour;
      const marginDb = judged.route && victim.limitDbm - judged.route.dbm;
      const thin = marginDb !== undefined && colour !== 'danger' && colour !== 'unknown' && marginDb < marginToKeepDb;
      const bare = colour === 'unknown' ? unswitched(graph, victim) : [];
      const cell = {
        ...{ ...common, ...judged, colour, thin },
        ...(bare.length > 0 ? { uncovered: bare } : {}),
        ...(marginDb === undefined ? {} : { marginDb }),
      };
      const refused =
        whole?.footing !== 'measured' && state.kind === 'key down' ? band.refused.get(victim.id) : undefined;
      const said = byTimes
        ? 'By the times as typed the receiver is off while RF is there; their scatter was not measured.'
        : sentenceOf(cell, victim, marginToKeepDb);
      return { ...cell, sentence: refused === undefined ? said : `${said} ${refused}` };
    });
  });
}

/** How bad a cell is: a storm is a matter of plugs, not of power, and stands behind a margin that is too small. */
export const badness = ({ colour, thin, uncovered, state }: Cell): number => {
  if (colour === 'danger') return 60;
  if (uncovered) return 50;
  if (colour === 'unknown') return state.kind === 'thunderstorm' ? 20 : 40;
  return (thin ? 30 : 0) + COLOURS.indexOf(colour);
};
/** Worse first; of equal ones that with less margin. */
const worseFirst = (a: Cell, b: Cell): number =>
  badness(b) - badness(a) || (a.marginDb ?? Infinity) - (b.marginDb ?? Infinity);

/** Every receiver input in every state at every frequency, judged. @throws ShapeError, OutOfRangeError for a graph that cannot be. */
export function guardProof(question: GuardQuestion): GuardProof {
  const { bands, sequence, undrawn } = question;
  const [first] = bands;
  const receivers = first.graph.nodes.filter(isVictim);
  const judged = bands.map((band) => ({ freqHz: band.freqHz, cells: cellsOfBand(question, band) }));
  const worst = new Map<string, Cell>();
  const states = new Map<string, GuardState>();
  for (const cell of judged.flatMap(({ cells }) => cells)) {
    const key = `${cell.receiver} ${cell.state.id}`;
    const before = worst.get(key);
    if (!before || worseFirst(cell, before) < 0) worst.set(key, cell);
    states.set(cell.state.id, states.get(cell.state.id) ?? cell.state);
  }
  for (const state of guardStates(first.graph, sequence))
    if (state.kind !== 'neighbour on') states.set(state.id, states.get(state.id) ?? state);
  const cells = [...worst.values()];
  const missing = missingOf(judged.flatMap((one) => one.cells));
  const ownBands = bands.filter(({ graph }) => graph.nodes.some(isOwn)).length;
  return {
    ...{ states: [...states.values()], receivers, cells, bands: judged, undrawn, missing },
    ...summary(cells, { receivers, undrawn, missing, severalBands: ownBands > 1 }),
  };
}

function missingOf(cells: readonly Cell[]): readonly MissingFigure[] {
  const found = new Map<string, MissingFigure>();
  for (const { missing = [] } of cells)
    for (const one of missing) {
      const key = `${one.what} ${one.node}`;
      found.set(key, { ...one, waiting: (found.get(key)?.waiting ?? 0) + 1 });
    }
  return [...found.values()].sort((a, b) => b.waiting - a.waiting);
}

/** Antennas that hang on a receiver without a switch between. */
function unswitched(graph: GuardGraph, { id: victim }: Victim): readonly string[] {
  const switches = new Set(graph.nodes.flatMap(({ kind, id }) => (kind === 'switch' ? [id] : [])));
  const together = wiredTogether(graph, victim, switches);
  return graph.nodes.flatMap(({ kind, id, name }) => (kind === 'antenna' && together.has(id) ? [name] : []));
}

/** A way that was measured as a whole is worth more than the sum of its parts, while every switch on it stands as it stood. */
function measuredCell(
  { graph, measured }: GuardBand,
  state: GuardState,
  { victim, down }: { readonly victim: Victim; readonly down: GuardState },
): { readonly footing: Footing; readonly judged: Judged } | undefined {
  const way = measured.find((one) => one.receiver === victim.id);
  const [source] = graph.nodes.flatMap((node) =>
    node.kind === 'transmitter' && isOwn(node) && state.on.has(node.id) ? [node] : [],
  );
  if (!way || !source) return undefined;
  const near = [source.id, victim.id].flatMap((id) => [...wiredTogether(graph, id, new Set())]);
  if (near.some((id) => state.positions.get(id) !== down.positions.get(id))) return undefined;
  const level = source.dbm - way.lossDb;
  const steps = [{ name: way.name, lossDb: way.lossDb, footing: way.footing, dbm: level }];
  return {
    footing: way.footing,
    judged: {
      colour: level > victim.limitDbm ? 'danger' : OF_FOOTING[way.footing],
      route: { ...{ transmitter: source.id, dbm: level }, steps },
    },
  };
}

function summary(
  cells: readonly Cell[],
  {
    receivers,
    undrawn,
    missing,
    severalBands,
  }: Pick<GuardProof, 'receivers' | 'undrawn' | 'missing'> & { readonly severalBands: boolean },
): Pick<GuardProof, 'worst' | 'colour' | 'sentence' | 'next'> {
  const nameOf = (cell: Cell): string => receivers.find(({ id }) => id === cell.receiver)?.name ?? '';
  const [worst] = [...cells].sort(worseFirst);
  const notDrawn = undrawn.length > 0 && {
    colour: 'danger' as const,
    sentence: `Do not transmit yet: ${listText(undrawn.slice(0, 3))}${undrawn.length > 3 ? ` and ${undrawn.length - 3} more` : ''} of this station ${undrawn.length === 1 ? 'is' : 'are'} not in the drawing.`,
    next: 'Draw in Routes what each is connected to, or say that it hangs on nothing.',
  };
  if (!worst || receivers.every(({ kind }) => kind !== 'receiver'))
    return (
      notDrawn || {
        ...{ colour: 'unknown', sentence: 'No receiver is drawn, so nothing is known.' },
        next: 'Draw every receiver input and what it is connected to.',
      }
    );
  const state = worst.state.name.charAt(0).toLowerCase() + worst.state.name.slice(1);
  const when = severalBands && worst.state.kind !== 'thunderstorm' ? `${state}, ${frequencyText(worst.freqHz)}` : state;
  if (worst.colour === 'danger')
    return {
      ...{ worst, colour: 'danger' },
      sentence: `Do not transmit: ${nameOf(worst)} gets ${dbm(worst.route?.dbm ?? 0)} (${when}), ${overText(worst.marginDb ?? 0)} its limit.`,
      next: 'Make the cheapest change named below the table of states.',
    };
  if (worst.uncovered)
    return {
      ...{ worst, colour: 'danger' },
      sentence: `Do not transmit yet: ${listText(worst.uncovered)} ${worst.uncovered.length === 1 ? 'is' : 'are'} not disconnected; what ${nameOf(worst)} would get${severalBands ? ` at ${frequencyText(worst.freqHz)}` : ''} is not known.`,
      next: 'Put a switch into it, or compute the coupling.',
    };
  if (notDrawn) return { worst, ...notDrawn };
  if (badness(worst) === 40) {
    const [first] = missing;
    return {
      ...{ worst, colour: 'unknown' },
      sentence: first
        ? `Not known: ${nameOf(worst)} (${when}). “${first.name}” has no figure${first.because === undefined ? '' : ` (${first.because})`}${missing.length > 1 ? `, and ${missing.length - 1} more` : ''}.`
        : `Not known: ${nameOf(worst)} (${when}): ${worst.undecided ?? worst.sentence}`,
      next: first ? 'Type it, compute it, or test it step by step.' : 'Complete the drawing in Routes.',
    };
  }
  const room = `the closest is ${nameOf(worst)} (${when}), ${below(worst.marginDb ?? 0)} dB below its limit`;
  if (worst.thin)
    return {
      ...{ worst, colour: worst.colour },
      sentence: `Every receiver stays below its limit in every state, ${WORDS[worst.colour]}, but not by the margin that you asked for: ${room}.`,
      next: 'Add isolation, or lower the power.',
    };
  // levels alone: a storm has none
  const [closest] = cells
    .filter(({ marginDb }) => marginDb !== undefined)
    .sort((a, b) => (a.marginDb ?? 0) - (b.marginDb ?? 0));
  const [weakest] = cells.filter(({ state: { kind } }) => kind !== 'thunderstorm').sort(worseFirst);
  const colour = weakest?.colour ?? worst.colour;
  const closestText = closest
    ? `; the closest is ${nameOf(closest)}, ${below(closest.marginDb ?? 0)} dB below its limit`
    : '';
  const covered = `Every receiver stays below its limit in every state, ${WORDS[colour]}${closestText}.`;
  if (worst.state.kind === 'thunderstorm' && worst.colour === 'unknown')
    return {
      ...{ worst, colour: 'unknown' },
      sentence: `Transmitting is covered, ${WORDS[colour]}; before a storm ${nameOf(worst)} is not.`,
      next: 'Mark in Routes the plug that you pull.',
    };
  return {
    ...{ worst: weakest ?? worst, colour, sentence: covered },
    next:
      colour === 'proven'
        ? 'Repeat the test when anything is changed.'
        : 'Prove it by the stepwise test, from the lowest power up.',
  };
}

/** A cell in a word. */
export const COLOUR_WORDS: Readonly<Record<Colour, string>> = {
  ...{ proven: 'proven', computed: 'computed', assumed: 'assumed', unknown: 'not known', danger: 'danger' },
};

const WORDS: Readonly<Record<Colour, string>> = {
  proven: 'as measured',
  computed: 'as computed',
  assumed: 'by assumed figures',
  unknown: 'as far as anybody knows',
  danger: 'but for one',
};
