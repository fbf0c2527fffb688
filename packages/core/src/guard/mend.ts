import { requireRange } from '../errors';
import type { GuardGraph, GuardNode, Known } from './graph';
import { badness, type Cell, type GuardBand, type GuardProof, guardProof, type GuardQuestion } from './judge';

/** A part that could be put in. */
export type Offer =
  | {
      readonly kind: 'switch';
      readonly name: string;
      readonly price: number;
      readonly lossDb: number;
      readonly isolationDb: number;
    }
  | {
      readonly kind: 'limiter';
      readonly name: string;
      readonly price: number;
      readonly lossDb: number;
      readonly leakDbm: number;
      readonly surviveDbm: number;
    }
  | {
      readonly kind: 'filter';
      readonly name: string;
      readonly price: number;
      /** At the wanted frequencies, and at the transmit frequency. */
      readonly lossDb: number;
      readonly stopDb: number;
    };

/** One change of a station. */
interface Change {
  readonly sentence: string;
  readonly price: number;
  /** What it loses on the way to a receiver, dB. */
  readonly receiver?: string;
  readonly lossDb: number;
  readonly apply: (graph: GuardGraph) => GuardGraph;
}

/** Changes that turn everything green, and what they cost. */
export interface Mending {
  readonly changes: readonly Change[];
  readonly price: number;
  /** SNR lost at the receiver that loses most, dB. */
  readonly snrCostDb: number;
  readonly proof: GuardProof;
}

/** Loss over the air that twice the distance adds, as far as the far field goes, dB. */
const TWICE_DB = 6.02;
/** Changes of one answer at most. */
const MOST_CHANGES = 3;
/** Candidates that are combined at most: those that help most by themselves. */
const MOST_CANDIDATES = 14;

const assumed = (db: number): Known => ({ db, footing: 'assumed' });

/** A graph with a part put in at a receiver's own socket, or at an antenna's. */
function inserted(graph: GuardGraph, at: string, part: GuardNode, [near, far]: readonly [string, string]): GuardGraph {
  return {
    ...graph,
    nodes: [...graph.nodes, part],
    links: [
      ...graph.links.map(({ from, to }) => ({
        from: from.node === at ? { node: part.id, port: far } : from,
        to: to.node === at ? { node: part.id, port: far } : to,
      })),
      { from: { node: part.id, port: near }, to: { node: at, port: 'a' } },
    ],
  };
}

function partOf(offer: Offer, id: string): { readonly node: GuardNode; readonly ports: readonly [string, string] } {
  const common = { id, name: offer.name, loss: assumed(offer.lossDb) };
  switch (offer.kind) {
    case 'switch':
      // it closes only while a supply and the key line say so: whatever fails, it is open
      return {
        node: {
          ...{ ...common, kind: 'switch', throws: 1, drive: 'key', receive: '1', transmit: '', rest: '' },
          isolation: assumed(offer.isolationDb),
        },
        ports: ['c', '1'],
      };
    case 'limiter':
      return {
        node: { ...common, kind: 'limiter', leakDbm: offer.leakDbm, surviveDbm: offer.surviveDbm },
        ports: ['a', 'b'],
      };
    case 'filter':
      return { node: { ...common, kind: 'filter', loss: assumed(offer.stopDb) }, ports: ['a', 'b'] };
  }
}

const isBad = (cell: Cell): boolean => cell.state.kind !== 'thunderstorm' && badness(cell) >= 30;

/** All that could be changed where something is red. */
function candidatesFor(question: GuardQuestion, proof: GuardProof, offers: readonly Offer[]): readonly Change[] {
  const [{ graph }] = question.bands;
  const bad = proof.cells.filter(isBad);
  const receivers = proof.receivers.filter(
    ({ id, kind }) => kind === 'receiver' && bad.some(({ receiver }) => receiver === id),
  );
  const insertions = receivers.flatMap(({ id, name }) =>
    offers.map((offer, k): Change => {
      const { node, ports } = partOf(offer, `new ${id} ${k}`);
      return {
        ...{ price: offer.price, receiver: id, lossDb: offer.lossDb },
        sentence: `${offer.name} at the input of ${name}`,
        apply: (one) => inserted(one, id, node, ports),
      };
    }),
  );
  const turned = graph.nodes.flatMap((node): Change[] =>
    node.kind === 'switch' && node.drive !== 'hand' && node.rest === node.receive && node.transmit !== node.receive
      ? [
          {
            ...{ price: 0, lossDb: 0 },
            sentence: `turn ${node.name} round, so that it rests as in transmit`,
            apply: (one) => ({
              ...one,
              nodes: one.nodes.map((other) => (other.id === node.id ? { ...node, rest: node.transmit } : other)),
            }),
          },
        ]
      : [],
  );
  const names = new Map(graph.nodes.map(({ id, name }) => [id, name]));
  // what was measured stands where it stood: moved, it is measured no more
  const moved = graph.couplings.flatMap((coupling, i): Change[] =>
    coupling.loss.db === undefined || coupling.loss.footing === 'measured' || coupling.oneWay
      ? []
      : [
          {
            ...{ price: 0, lossDb: 0 },
            sentence: `twice the distance between ${names.get(coupling.a) ?? ''} and ${names.get(coupling.b) ?? ''} (6 dB in the far field)`,
            apply: (one) => ({
              ...one,
              couplings: one.couplings.map((other, k) =>
                k === i && other.loss.db !== undefined ? { ...other, loss: assumed(other.loss.db + TWICE_DB) } : other,
              ),
            }),
          },
        ],
  );
  return [...turned, ...moved, ...insertions];
}

/**
 * The cheapest changes after which no receiver is in danger, unknown or short of its margin in any state: parts put in, relays turned round, antennas
 * moved apart, alone or up to three together. Of equal price the one that costs least SNR.
 * @param snrCostDb SNR that so much loss costs a receiver.
 * @returns undefined where no such change is enough.
 */
export function cheapestMending(
  question: GuardQuestion,
  offers: readonly Offer[],
  snrCostDb: (receiver: string, lossDb: number) => number,
): Mending | undefined {
  for (const { price, lossDb, name } of offers) {
    requireRange(price, `Price of ${name}`, 0);
    requireRange(lossDb, `Loss of ${name} (dB)`, 0, 100);
  }
  const now = guardProof(question);
  const badCells = (proof: GuardProof): number => proof.cells.filter(isBad).length;
  if (badCells(now) === 0) return { changes: [], price: 0, snrCostDb: 0, proof: now };
  // a test of a whole way does not outlive a change on it
  const outlives = (changes: readonly Change[], receiver: string): boolean =>
    changes.every((change) => change.receiver !== undefined && change.receiver !== receiver);
  const changed = (band: GuardBand, changes: readonly Change[]): GuardBand => ({
    ...band,
    graph: changes.reduce((graph, change) => change.apply(graph), band.graph),
    measured: band.measured.filter(({ receiver }) => outlives(changes, receiver)),
  });
  const proofWith = (changes: readonly Change[]): GuardProof =>
    guardProof({ ...question, bands: question.bands.map((band) => changed(band, changes)) });
  const ranked = candidatesFor(question, now, offers)
    .map((change) => ({ change, left: badCells(proofWith([change])) }))
    .sort((a, b) => a.left - b.left || a.change.price - b.change.price)
    .slice(0, MOST_CANDIDATES)
    .map(({ change }) => change);
  const costOf = (changes: readonly Change[]): { readonly price: number; readonly snrCostDb: number } => {
    const losses = new Map<string, number>();
    for (const { receiver, lossDb } of changes)
      if (receiver !== undefined) losses.set(receiver, (losses.get(receiver) ?? 0) + lossDb);
    return {
      price: changes.reduce((sum, { price }) => sum + price, 0),
      snrCostDb: Math.max(0, ...[...losses].map(([receiver, lossDb]) => snrCostDb(receiver, lossDb))),
    };
  };
  let best: Mending | undefined;
  const look = (changes: readonly Change[], from: number): void => {
    if (changes.length > 0) {
      const cost = costOf(changes);
      const cheaper =
        !best ||
        cost.price < best.price ||
        (cost.price === best.price &&
          (cost.snrCostDb < best.snrCostDb - 1e-9 ||
            (cost.snrCostDb <= best.snrCostDb && changes.length < best.changes.length)));
      if (!cheaper) return;
      const proof = proofWith(changes);
      if (badCells(proof) === 0) {
        best = { changes, ...cost, proof };
        return;
      }
    }
    if (changes.length < MOST_CHANGES)
      for (let i = from; i < ranked.length; i += 1) look([...changes, ranked[i]], i + 1);
  };
  look([], 0);
  return best;
}
