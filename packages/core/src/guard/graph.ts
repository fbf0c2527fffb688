import { requireRange, ShapeError } from '../errors';

/** What a figure rests on, the weakest last. */
export type Evidence = 'measured' | 'model' | 'assumed';
export const EVIDENCE: readonly Evidence[] = ['measured', 'model', 'assumed'];

/** A loss or isolation, dB above zero; undefined db: nobody knows it. */
export interface Known {
  readonly db?: number;
  readonly evidence?: Evidence;
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

/** One step of a route. */
interface RouteStep {
  /** What is passed: "T/R switch, open", "over the air to Loop". */
  readonly name: string;
  readonly lossDb: number;
  readonly evidence: Evidence | 'unknown';
  /** Level behind it, dBm. */
  readonly dbm: number;
  /** Passes over the air. */
  readonly air?: boolean;
}

/** The strongest way from a transmitter to a receiver. */
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
  readonly air?: boolean;
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
    ]),
    ...couplings.map(({ a, b, loss }) => [`Loss over the air from ${a} to ${b} (dB)`, loss] as const),
  ];
  for (const [what, { db }] of losses) if (db !== undefined) requireRange(db, what, 0, 300);
}

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
  for (const node of nodes) {
    const port = (name: string): Port => ({ node: node.id, port: name });
    const outer = portsOf(node).filter((name) => name !== 'c');
    if (node.kind === 'switch') {
      const at = positions.get(node.id) ?? node.receive;
      for (const name of outer)
        both(
          port('c'),
          port(name),
          name === at
            ? { name: `${node.name}, through ${name}`, known: node.loss }
            : { name: `${node.name}, ${name} not chosen`, known: node.isolation },
        );
      outer.forEach((name, i) =>
        outer
          .slice(i + 1)
          .forEach((other) =>
            both(port(name), port(other), { name: `${node.name}, ${name} to ${other}`, known: node.isolation }),
          ),
      );
    } else if (node.kind === 'splitter') {
      for (const name of outer) both(port('c'), port(name), { name: node.name, known: node.loss });
      outer.forEach((name, i) =>
        outer
          .slice(i + 1)
          .forEach((other) =>
            both(port(name), port(other), { name: `${node.name}, output to output`, known: node.isolation }),
          ),
      );
    } else if (node.kind === 'limiter') {
      const { leakDbm, surviveDbm, name } = node;
      both(port('a'), port('b'), { name, known: node.loss, limiter: { leakDbm, surviveDbm, name } });
    } else if ('loss' in node) both(port('a'), port('b'), { name: node.name, known: node.loss });
  }
  for (const { from, to } of links) both(from, to, { name: '', known: { db: 0, evidence: 'measured' } });
  for (const { a, b, loss, oneWay } of couplings) {
    const [one, other] = [byId.get(a), byId.get(b)];
    if (one?.kind !== 'antenna' || other?.kind !== 'antenna') continue;
    add(`${a} a`, { to: `${b} a`, name: `over the air to ${other.name}`, known: loss, air: true });
    if (!oneWay) add(`${b} a`, { to: `${a} a`, name: `over the air to ${one.name}`, known: loss, air: true });
  }
  return edges;
}

/** What counts of a figure: everything known, or only what is at least so well founded. What does not count loses nothing: the worst that can be. */
type Counts = (known: Known) => number;
export const countsFrom =
  (weakest: Evidence): Counts =>
  ({ db, evidence = 'assumed' }) =>
    db !== undefined && EVIDENCE.indexOf(evidence) <= EVIDENCE.indexOf(weakest) ? db : 0;

interface Reached {
  dbm: number;
  from?: string;
  edge?: Edge;
  broken?: Route['broken'];
}

/** Level behind an edge; never above the level before it, and never falling when that rises: the strongest route can be found port by port. */
function behind(dbm: number, edge: Edge, counts: Counts): { readonly dbm: number; readonly broken?: Route['broken'] } {
  const passed = dbm - counts(edge.known);
  const { limiter } = edge;
  if (!limiter) return { dbm: passed };
  if (dbm > limiter.surviveDbm)
    return { dbm: passed, broken: { name: limiter.name, dbm, surviveDbm: limiter.surviveDbm } };
  return { dbm: Math.min(passed, limiter.leakDbm) };
}

/**
 * Levels at every receiver with the switches in given positions: the strongest route from any transmitter that is on.
 * @param on ids of transmitters that are on. @param counts what of the figures counts; everything that is known by default.
 * @returns routes by receiver id; a receiver that nothing reaches is not in it.
 * Source: Dijkstra, Numer. Math. 1 (1959) 269, on levels that never rise along a way.
 */
export function strongestRoutes(
  graph: GuardGraph,
  positions: Positions,
  on: ReadonlySet<string>,
  counts: Counts = countsFrom('assumed'),
): ReadonlyMap<string, Route> {
  const edges = edgesOf(graph, positions);
  const routes = new Map<string, Route>();
  const byId = new Map(graph.nodes.map((node) => [node.id, node]));
  const endsHere = (port: string): boolean => {
    const kind = byId.get(port.slice(0, port.lastIndexOf(' ')))?.kind;
    return kind === 'receiver' || kind === 'transmitter';
  };
  for (const source of graph.nodes) {
    if (source.kind !== 'transmitter' || !on.has(source.id)) continue;
    const start = `${source.id} a`;
    const reached = new Map<string, Reached>([[start, { dbm: source.dbm }]]);
    const done = new Set<string>();
    for (;;) {
      let next: string | undefined;
      for (const [port, { dbm }] of reached)
        if (!done.has(port) && (next === undefined || dbm > (reached.get(next)?.dbm ?? -Infinity))) next = port;
      if (next === undefined) break;
      done.add(next);
      const here = reached.get(next);
      // what reaches a receiver or another transmitter ends there
      if (!here || (next !== start && endsHere(next))) continue;
      for (const edge of edges.get(next) ?? []) {
        if (done.has(edge.to)) continue;
        const { dbm, broken } = behind(here.dbm, edge, counts);
        const old = reached.get(edge.to);
        if (!old || dbm > old.dbm) reached.set(edge.to, { dbm, from: next, edge, broken: broken ?? here.broken });
      }
    }
    for (const receiver of graph.nodes) {
      if (receiver.kind !== 'receiver') continue;
      const port = `${receiver.id} a`;
      const end = reached.get(port);
      if (!end || (routes.get(receiver.id)?.dbm ?? -Infinity) >= end.dbm) continue;
      routes.set(receiver.id, {
        ...{ transmitter: source.id, dbm: end.dbm, steps: stepsTo(reached, port) },
        ...(end.broken ? { broken: end.broken } : {}),
      });
    }
  }
  return routes;
}

function stepsTo(reached: ReadonlyMap<string, Reached>, port: string): readonly RouteStep[] {
  const steps: RouteStep[] = [];
  for (let at: string | undefined = port; at !== undefined;) {
    const here: Reached | undefined = reached.get(at);
    if (here?.edge && here.edge.name !== '') {
      const { name, known, air } = here.edge;
      const before = here.from === undefined ? here.dbm : (reached.get(here.from)?.dbm ?? here.dbm);
      steps.unshift({
        ...{ name, lossDb: before - here.dbm, dbm: here.dbm, ...(air ? { air } : {}) },
        evidence: known.db === undefined ? 'unknown' : (known.evidence ?? 'assumed'),
      });
    }
    at = here?.from;
  }
  return steps;
}

/** Receivers and antennas that hang together by plugs and switches, whatever their positions: what a flash can take. */
export function wiredTogether({ nodes, links }: GuardGraph, id: string, cut: ReadonlySet<string>): ReadonlySet<string> {
  const seen = new Set([id]);
  const byId = new Map(nodes.map((node) => [node.id, node]));
  const queue = [id];
  for (let at = queue.pop(); at !== undefined; at = queue.pop()) {
    const node = byId.get(at);
    if (cut.has(at) || (node?.kind === 'transmitter' && at !== id)) continue;
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
