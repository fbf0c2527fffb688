import { requireRange, ShapeError } from '../errors';
import { fixed } from '../units/format';

/** What a figure rests on, the weakest last. */
export type Footing = 'measured' | 'model' | 'assumed';
export const FOOTINGS: readonly Footing[] = ['measured', 'model', 'assumed'];

/** A loss, isolation or gain, dB above zero; undefined db: nobody knows it at this frequency. */
export interface Known {
  readonly db?: number;
  readonly footing?: Footing;
  /** Why it is not known, or how far it was stretched to this frequency. */
  readonly because?: string;
}

/** How a switch is driven: by the key line, by a supply that is always on, by hand. */
export type Drive = 'key' | 'supply' | 'hand';

/** A node of a station as the transmitter sees it. A port is named by a word; every node but a switch and a splitter has "a" and "b", or one port. */
export type GuardNode =
  | {
      readonly id: string;
      readonly name: string;
      readonly kind: 'transmitter';
      readonly dbm: number;
      readonly neighbour?: boolean;
    }
  | { readonly id: string; readonly name: string; readonly kind: 'receiver'; readonly limitDbm: number }
  | { readonly id: string; readonly name: string; readonly kind: 'antenna' }
  /** A line, a pad, a filter at the transmit frequency: one loss. */
  | { readonly id: string; readonly name: string; readonly kind: 'line' | 'pad' | 'filter'; readonly loss: Known }
  | {
      readonly id: string;
      readonly name: string;
      readonly kind: 'limiter';
      readonly loss: Known;
      /** What it lets through at most, dBm, and what it survives. */
      readonly leakDbm: number;
      readonly surviveDbm: number;
    }
  | {
      readonly id: string;
      readonly name: string;
      readonly kind: 'amplifier';
      /** From "a" to "b". The loss from "b" back to "a" counts as none where nobody knows it. */
      readonly gain: Known;
      readonly reverse: Known;
      /** What it delivers at most, dBm; absent: nobody knows. */
      readonly mostDbm?: number;
      /** What its input survives, dBm; assumed where nobody entered it. */
      readonly limitDbm: number;
      readonly limitAssumed?: boolean;
    }
  | {
      readonly id: string;
      readonly name: string;
      readonly kind: 'splitter';
      /** Outputs "1", "2", …; the common port is "c". */
      readonly outputs: number;
      readonly loss: Known;
      /** From output to output. */
      readonly isolation: Known;
    }
  | {
      readonly id: string;
      readonly name: string;
      readonly kind: 'switch';
      /** Throws "1", "2", …; the common port is "c". */
      readonly throws: number;
      readonly drive: Drive;
      /** Throw that the common port is at while receiving and while transmitting; "": none. */
      readonly receive: string;
      readonly transmit: string;
      /** Throw without power or key; of a switch by hand it stays. */
      readonly rest: string;
      readonly loss: Known;
      /** From a throw to the common port, or to another throw, while it is not chosen. */
      readonly isolation: Known;
    };

export interface Port {
  readonly node: string;
  readonly port: string;
}
/** A plug in a socket: no loss. */
interface GuardLink {
  readonly from: Port;
  readonly to: Port;
}
/** Two antennas hear each other over the air. */
interface GuardCoupling {
  readonly a: string;
  readonly b: string;
  readonly loss: Known;
  /** From a to b alone: what arrives from far away does not leave that way again. */
  readonly oneWay?: boolean;
}

/** A station as what transmitting can reach. */
export interface GuardGraph {
  readonly nodes: readonly GuardNode[];
  readonly links: readonly GuardLink[];
  readonly couplings: readonly GuardCoupling[];
}

/** Positions of switches by id: the throw that the common port is at; "": none. */
export type Positions = ReadonlyMap<string, string>;

/** Ports of a node. */
export function portsOf(node: GuardNode): readonly string[] {
  switch (node.kind) {
    case 'transmitter':
    case 'receiver':
    case 'antenna':
      return ['a'];
    case 'splitter':
      return ['c', ...Array.from({ length: node.outputs }, (_, i) => String(i + 1))];
    case 'switch':
      return ['c', ...Array.from({ length: node.throws }, (_, i) => String(i + 1))];
    default:
      return ['a', 'b'];
  }
}

/** A figure of a drawing by what it is of: a part, or a pair of antennas. */
export interface FigureName {
  readonly what: 'loss' | 'isolation' | 'gain' | 'coupling';
  /** The part, or both antennas with a blank between. */
  readonly node: string;
  /** What a person calls it, where the step has another name. */
  readonly name?: string;
}

/** One step of a route. */
interface RouteStep {
  /** What is passed: "T/R switch, open", "over the air to Loop". */
  readonly name: string;
  /** Negative for a gain. */
  readonly lossDb: number;
  readonly footing: Footing | 'unknown';
  readonly figure?: FigureName;
  readonly because?: string;
  /** Level behind it, dBm. */
  readonly dbm: number;
  /** Passes over the air. */
  readonly air?: boolean;
}

/** The strongest way from a transmitter to a receiver, or to the input of an amplifier. */
export interface Route {
  readonly transmitter: string;
  readonly dbm: number;
  readonly steps: readonly RouteStep[];
  /** A limiter on the way that gets more than it survives: what it lets through then is not known, and it counts as not there. */
  readonly broken?: { readonly name: string; readonly dbm: number; readonly surviveDbm: number };
}

/** A way from one port to another inside a node or between nodes. */
interface Edge {
  readonly to: string;
  readonly name: string;
  readonly known: Known;
  readonly figure?: FigureName;
  readonly air?: boolean;
  /** Number of the amplifier that this goes through, forward: what is known is a gain, up to a level. */
  readonly amplifier?: { readonly bit: number; readonly mostDbm: number | undefined };
  readonly limiter?: { readonly leakDbm: number; readonly surviveDbm: number; readonly name: string };
}

const key = ({ node, port }: Port): string => `${node} ${port}`;

/** @throws ShapeError, OutOfRangeError for a link to nowhere or a gain where a loss should stand. */
export function checkGraph({ nodes, links, couplings }: GuardGraph): void {
  const byId = new Map(nodes.map((node) => [node.id, node]));
  for (const { from, to } of links)
    for (const end of [from, to]) {
      const node = byId.get(end.node);
      if (!node || !portsOf(node).includes(end.port))
        throw new ShapeError(`A link ends at ${end.node} ${end.port}, which is not there. Draw it again.`);
    }
  const losses: readonly (readonly [string, Known])[] = [
    ...nodes.flatMap((node) => [
      ...('loss' in node ? [[`Loss of ${node.name} (dB)`, node.loss] as const] : []),
      ...('isolation' in node ? [[`Isolation of ${node.name} (dB)`, node.isolation] as const] : []),
      ...('gain' in node ? [[`Gain of ${node.name} (dB)`, node.gain] as const] : []),
      ...('reverse' in node ? [[`Reverse loss of ${node.name} (dB)`, node.reverse] as const] : []),
    ]),
    ...couplings.map(({ a, b, loss }) => [`Loss over the air from ${a} to ${b} (dB)`, loss] as const),
  ];
  for (const [what, { db }] of losses) if (db !== undefined) requireRange(db, what, 0, 300);
  const amplifiers = nodes.filter(({ kind }) => kind === 'amplifier').length;
  if (amplifiers > MOST_AMPLIFIERS)
    throw new ShapeError(
      `${amplifiers} amplifiers are drawn; ${MOST_AMPLIFIERS} can be followed. Draw those in a row as one.`,
    );
}
/** No amplifier of a receive path gives more than this, dBm, whatever its gain; what comes in stronger goes on as it came. Common practice, no source. */
const MOST_OUTPUT_DBM = 40;
/** Ways are followed once for each set of amplifiers that they may have passed. */
const MOST_AMPLIFIERS = 8;

/** All ways of a graph with its switches in their positions. */
function edgesOf({ nodes, links, couplings }: GuardGraph, positions: Positions): ReadonlyMap<string, readonly Edge[]> {
  const edges = new Map<string, Edge[]>();
  const add = (from: string, edge: Edge): void => {
    const known = edges.get(from);
    if (known) known.push(edge);
    else edges.set(from, [edge]);
  };
  const both = (from: Port, to: Port, edge: Omit<Edge, 'to'>): void => {
    add(key(from), { ...edge, to: key(to) });
    add(key(to), { ...edge, to: key(from) });
  };
  const byId = new Map(nodes.map((node) => [node.id, node]));
  const amplifiers = nodes.filter(({ kind }) => kind === 'amplifier').map(({ id }) => id);
  for (const node of nodes) {
    const port = (name: string): Port => ({ node: node.id, port: name });
    const figure = (what: FigureName['what']): { readonly figure: FigureName } => ({ figure: { what, node: node.id } });
    const outer = portsOf(node).filter((name) => name !== 'c');
    if (node.kind === 'switch') {
      const at = positions.get(node.id) ?? node.receive;
      for (const name of outer)
        both(
          port('c'),
          port(name),
          name === at
            ? { name: `${node.name}, through ${name}`, known: node.loss, ...figure('loss') }
            : { name: `${node.name}, ${name} not chosen`, known: node.isolation, ...figure('isolation') },
        );
      outer.forEach((name, i) =>
        outer.slice(i + 1).forEach((other) =>
          both(port(name), port(other), {
            ...{ name: `${node.name}, ${name} to ${other}`, known: node.isolation },
            ...figure('isolation'),
          }),
        ),
      );
    } else if (node.kind === 'splitter') {
      for (const name of outer) both(port('c'), port(name), { name: node.name, known: node.loss, ...figure('loss') });
      outer.forEach((name, i) =>
        outer.slice(i + 1).forEach((other) =>
          both(port(name), port(other), {
            ...{ name: `${node.name}, output to output`, known: node.isolation },
            ...figure('isolation'),
          }),
        ),
      );
    } else if (node.kind === 'limiter') {
      const { leakDbm, surviveDbm, name } = node;
      both(port('a'), port('b'), {
        ...{ name, known: node.loss, limiter: { leakDbm, surviveDbm, name } },
        ...figure('loss'),
      });
    } else if (node.kind === 'amplifier') {
      add(key(port('a')), {
        ...{ to: key(port('b')), name: node.name, known: node.gain, ...figure('gain') },
        amplifier: { bit: 1 << amplifiers.indexOf(node.id), mostDbm: node.mostDbm },
      });
      add(key(port('b')), {
        to: key(port('a')),
        name: `${node.name}, backward`,
        known: node.reverse,
        ...figure('loss'),
      });
    } else if ('loss' in node) both(port('a'), port('b'), { name: node.name, known: node.loss, ...figure('loss') });
  }
  for (const { from, to } of links) both(from, to, { name: '', known: { db: 0, footing: 'measured' } });
  for (const { a, b, loss, oneWay } of couplings) {
    const [one, other] = [byId.get(a), byId.get(b)];
    if (one?.kind !== 'antenna' || other?.kind !== 'antenna') continue;
    const figure: FigureName = { what: 'coupling', node: `${a} ${b}`, name: `${one.name} to ${other.name}` };
    add(`${a} a`, { to: `${b} a`, name: `over the air to ${other.name}`, known: loss, air: true, figure });
    if (!oneWay) add(`${b} a`, { to: `${a} a`, name: `over the air to ${one.name}`, known: loss, air: true, figure });
  }
  return edges;
}

/** What counts of a figure, dB; undefined: nothing passes here. */
interface Counts {
  readonly loss: (known: Known) => number | undefined;
  readonly gain: (known: Known) => number | undefined;
}
const counted = ({ db, footing = 'assumed' }: Known, weakest: Footing): number | undefined =>
  db !== undefined && FOOTINGS.indexOf(footing) <= FOOTINGS.indexOf(weakest) ? db : undefined;
/** Only what is at least so well founded counts; the rest is the worst that can be: a loss of nothing, a gain without end. */
export const countsFrom = (weakest: Footing): Counts => ({
  loss: (known) => counted(known, weakest) ?? 0,
  gain: (known) => counted(known, weakest) ?? Infinity,
});
/** Ways on which everything is known: what is not known is not passed. */
export const KNOWN_ALONE: Counts = { loss: ({ db }) => db, gain: ({ db }) => db };

interface Reached {
  readonly dbm: number;
  readonly from?: Reached;
  readonly edge?: Edge;
  readonly broken?: Route['broken'];
}

/** Level behind an edge; it never falls when the level before it rises: the strongest route can be found port by port. */
function behind(
  dbm: number,
  edge: Edge,
  counts: Counts,
): { readonly dbm: number; readonly broken?: Route['broken'] } | undefined {
  const { limiter, amplifier } = edge;
  if (amplifier) {
    const gain = counts.gain(edge.known);
    if (gain === undefined) return undefined;
    // what nobody knows of a gain is not known of its output either, unless that was entered
    const mostDbm = amplifier.mostDbm ?? (Number.isFinite(gain) ? MOST_OUTPUT_DBM : Infinity);
    return { dbm: Math.min(dbm + gain, Math.max(dbm, mostDbm)) };
  }
  const loss = counts.loss(edge.known);
  if (loss === undefined) return undefined;
  const passed = dbm - loss;
  if (!limiter) return { dbm: passed };
  if (dbm > limiter.surviveDbm)
    return { dbm: passed, broken: { name: limiter.name, dbm, surviveDbm: limiter.surviveDbm } };
  return { dbm: Math.min(passed, limiter.leakDbm) };
}

/** Levels at all ports from one transmitter, the strongest at each by whatever amplifiers it came. */
function levelsFrom(
  start: string,
  dbm: number,
  edges: ReadonlyMap<string, readonly Edge[]>,
  {
    counts,
    endsHere,
    inputs,
  }: {
    readonly counts: Counts;
    readonly endsHere: (port: string) => boolean;
    /** Numbers of amplifiers by the port of their input. */
    readonly inputs: ReadonlyMap<string, number>;
  },
): ReadonlyMap<string, Reached> {
  // one layer for each set of amplifiers passed: inside a layer no level rises along a way
  const layers = new Map<number, Map<string, Reached>>([[0, new Map([[start, { dbm }]])]]);
  const strongest = new Map<string, Reached>();
  for (let set = 0; set <= Math.max(...layers.keys()); set += 1) {
    const reached = layers.get(set);
    if (!reached) continue;
    const done = new Set<string>();
    for (;;) {
      let next: string | undefined;
      for (const [port, one] of reached)
        if (!done.has(port) && (next === undefined || one.dbm > (reached.get(next)?.dbm ?? -Infinity))) next = port;
      const here = next === undefined ? undefined : reached.get(next);
      if (next === undefined || !here) break;
      done.add(next);
      if (here.dbm > (strongest.get(next)?.dbm ?? -Infinity)) strongest.set(next, here);
      // what reaches a receiver or another transmitter ends there
      if (next !== start && endsHere(next)) continue;
      for (const edge of edges.get(next) ?? []) {
        // once through an amplifier, no way leads to its input again
        const passed = set & (inputs.get(edge.to) ?? edge.amplifier?.bit ?? 0);
        const to = set | (edge.amplifier?.bit ?? 0);
        const level = passed === 0 ? behind(here.dbm, edge, counts) : undefined;
        if (!level || (to === set && done.has(edge.to))) continue;
        const layer = layers.get(to) ?? new Map<string, Reached>();
        layers.set(to, layer);
        const old = layer.get(edge.to);
        if (!old || level.dbm > old.dbm)
          layer.set(edge.to, { dbm: level.dbm, from: here, edge, broken: level.broken ?? here.broken });
      }
    }
  }
  return strongest;
}

/** What transmitting may harm: receivers, and amplifiers at their inputs. */
export type Victim = Extract<GuardNode, { kind: 'receiver' | 'amplifier' }>;
export const isVictim = (node: GuardNode): node is Victim => node.kind === 'receiver' || node.kind === 'amplifier';

/**
 * Levels at every receiver and amplifier with the switches in given positions: the strongest route from any transmitter that is on.
 * @param on ids of transmitters that are on. @param counts what of the figures counts; everything that is known by default.
 * @returns routes by id of the receiver or amplifier; one that nothing reaches is not in it.
 * Source: Dijkstra, Numer. Math. 1 (1959) 269, once for each set of amplifiers on the way; an amplifier is passed once.
 */
export function strongestRoutes(
  graph: GuardGraph,
  positions: Positions,
  on: ReadonlySet<string>,
  counts: Counts = countsFrom('assumed'),
): ReadonlyMap<string, Route> {
  const edges = edgesOf(graph, positions);
  const routes = new Map<string, Route>();
  const amplifiers = graph.nodes.filter(({ kind }) => kind === 'amplifier');
  const inputs = new Map(amplifiers.map(({ id }, i) => [`${id} a`, 1 << i]));
  const ends = new Set(
    graph.nodes.flatMap(({ id, kind }) => (kind === 'receiver' || kind === 'transmitter' ? [`${id} a`] : [])),
  );
  for (const source of graph.nodes) {
    if (source.kind !== 'transmitter' || !on.has(source.id)) continue;
    const reached = levelsFrom(`${source.id} a`, source.dbm, edges, {
      counts,
      inputs,
      endsHere: (port) => ends.has(port),
    });
    for (const victim of graph.nodes) {
      if (!isVictim(victim)) continue;
      const end = reached.get(`${victim.id} a`);
      const before = routes.get(victim.id);
      if (!end || (before && before.dbm >= end.dbm)) continue;
      routes.set(victim.id, {
        ...{ transmitter: source.id, dbm: end.dbm, steps: stepsTo(end) },
        ...(end.broken ? { broken: end.broken } : {}),
      });
    }
  }
  return routes;
}

/** Why a step says what it says: a figure that exists and was not counted is told as such. */
function becauseOf({ db, because }: Known, countedDb: number): { readonly because?: string } {
  if (db !== undefined && db > 0 && countedDb === 0)
    return { because: `its ${fixed(db, 1)} dB are not needed here, so they are not counted` };
  return because === undefined ? {} : { because };
}

function stepsTo(end: Reached): readonly RouteStep[] {
  const steps: RouteStep[] = [];
  for (let here: Reached | undefined = end; here; here = here.from) {
    if (!here.edge || here.edge.name === '' || !here.from) continue;
    const { name, known, air, figure } = here.edge;
    const lossDb = here.from.dbm - here.dbm;
    steps.unshift({
      // behind a gain that nobody knows there is no level to take a difference from
      ...{
        name,
        lossDb: Number.isFinite(lossDb) ? lossDb : (known.db ?? 0),
        dbm: here.dbm,
        ...(air ? { air } : {}),
        ...(figure ? { figure } : {}),
      },
      footing: known.db === undefined ? 'unknown' : (known.footing ?? 'assumed'),
      ...becauseOf(known, lossDb),
    });
  }
  return steps;
}

/**
 * Nodes that links join to a first one, itself included, whichever way they are drawn.
 * @param passes whether the walk goes on beyond a node that it has reached; absent: beyond all.
 */
export function linkedNodes(
  links: GuardGraph['links'],
  start: string,
  passes: (id: string) => boolean = () => true,
): ReadonlySet<string> {
  const seen = new Set([start]);
  const queue = [start];
  for (let at = queue.pop(); at !== undefined; at = queue.pop()) {
    if (!passes(at)) continue;
    for (const { from, to } of links)
      for (const [one, other] of [
        [from.node, to.node],
        [to.node, from.node],
      ])
        if (one === at && !seen.has(other)) {
          seen.add(other);
          queue.push(other);
        }
  }
  return seen;
}

/** Receivers and antennas that hang together by plugs and switches, whatever their positions: what a flash can take. */
export function wiredTogether({ nodes, links }: GuardGraph, id: string, cut: ReadonlySet<string>): ReadonlySet<string> {
  const transmitters = new Set(nodes.flatMap((node) => (node.kind === 'transmitter' ? [node.id] : [])));
  return linkedNodes(links, id, (at) => !cut.has(at) && (at === id || !transmitters.has(at)));
}
