import type { Saved } from '@velvet-reed/contract';
import { type PlacedAntenna, receptionOf, startDesign } from '@velvet-reed/core/antenna';
import {
  type Cell,
  COLOURS,
  type Drive,
  type Evidence,
  type GuardGraph,
  type GuardNode,
  type GuardProof,
  guardProof,
  type GuardQuestion,
  type Known,
  type MeasuredWay,
  portsOf,
  powerTest,
  sequenceChance,
  sequenceOf,
  sequenceRemarks,
  type SequenceTimes,
} from '@velvet-reed/core/guard';
import { chanceOf } from '@velvet-reed/core/recording';
import { transmitterField } from '@velvet-reed/core/site';
import { parseQuantity, wattsToDbm } from '@velvet-reed/core/units';
import { type CouplingAsk, couplingsVersion, knownCoupling } from './couplings';
import { designOf, laidFeature, laidLayout, latestRevision } from './derive';
import type { StationData } from './station';
import { othersTransmitters, type PlannedTransmitter } from './transmitters';

type Input = Saved<'guardInputs'>;
type Part = Saved<'guardParts'>;

const TRANSMITTER = 'tx';
/** The transmit antenna, while no antenna of the station is drawn behind the transmitter. */
const MAST = 'mast';
export const inputNode = (id: number): string => `input:${id}`;
export const partNode = (id: number): string => `part:${id}`;
const antennaNode = (id: number): string => `antenna:${id}`;
const NAMED = 'named:';
/** A link holds so many letters of it. */
const NAMED_LETTERS = 50;
const namedNode = (name: string): string => `${NAMED}${name.trim().toLowerCase().slice(0, NAMED_LETTERS)}`;

/** Frequencies at which a plan transmits, Hz: its transmitter's, its highest, and those typed. */
export function transmitFrequencies(data: StationData, plan: PlannedTransmitter): readonly number[] {
  const own = data.transmitters.find(({ id }) => id === plan.transmitterId);
  const typed = plan.bands
    .split(/[,;]/)
    .map((part) => part.trim())
    .filter(Boolean)
    .flatMap((part) => {
      try {
        return [parseQuantity(part, 'frequency', { bareUnit: 'MHz' })];
      } catch {
        return [];
      }
    });
  return [...new Set([...(own ? [own.freqHz] : []), ...typed, plan.freqHz])].sort((a, b) => a - b);
}

const isEvidence = (word: string | undefined): word is Evidence =>
  word === 'measured' || word === 'model' || word === 'assumed';
const isDrive = (word: string | undefined): word is Drive => word === 'key' || word === 'supply' || word === 'hand';

/** A figure of a part with what it rests on. */
function figureOf({ figures, evidence }: Part, name: string): Known {
  const word = evidence[name];
  return name in figures ? { db: figures[name], evidence: isEvidence(word) ? word : 'assumed' } : {};
}

function partOf(part: Part): GuardNode {
  const common = { id: partNode(part.id), name: part.name };
  const loss = figureOf(part, 'lossDb');
  switch (part.kind) {
    case 'limiter':
      return {
        ...{ ...common, kind: 'limiter', loss },
        ...{ leakDbm: part.figures.leakDbm ?? Infinity, surviveDbm: part.figures.surviveDbm ?? -Infinity },
      };
    case 'splitter':
      return {
        ...{ ...common, kind: 'splitter', loss, isolation: figureOf(part, 'isolationDb') },
        outputs: part.figures.outputs ?? 2,
      };
    case 'switch':
      return {
        ...{ ...common, kind: 'switch', loss, isolation: figureOf(part, 'isolationDb') },
        throws: part.figures.throws ?? 1,
        drive: isDrive(part.choices.drive) ? part.choices.drive : 'key',
        ...{
          receive: part.choices.receive ?? '1',
          transmit: part.choices.transmit ?? '',
          rest: part.choices.rest ?? '',
        },
      };
    default:
      return { ...common, kind: part.kind, loss };
  }
}

/** An antenna as the wire model wants it; undefined where it does not lie on the Plot. */
export function placedAntenna(data: StationData, antennaId: number): PlacedAntenna | undefined {
  const feature = laidFeature(data, antennaId);
  const revision = latestRevision(data, antennaId);
  const layout = laidLayout(data, antennaId);
  if (!feature || !revision || !layout) return undefined;
  const mean = (axis: 0 | 1): number =>
    feature.points.reduce((sum, point) => sum + point[axis], 0) / feature.points.length;
  return {
    name: data.antennas.find(({ id }) => id === antennaId)?.name ?? '',
    ...{ design: designOf(data, revision), at: [mean(0), mean(1)], facingDeg: layout.facingDeg },
  };
}

/** A transmit antenna that is on the Plot and not among the antennas: taken for a quarter-wave vertical at the frequency. */
function mastAt(data: StationData, plan: PlannedTransmitter, freqHz: number): PlacedAntenna | undefined {
  const feature = data.plotFeatures.find(
    ({ kind, transmitterId }) => kind === 'transmitter' && transmitterId === plan.transmitterId,
  );
  const place = feature?.points[0];
  return feature && place
    ? { name: feature.name, design: startDesign('quarter-wave', freqHz), at: [place[0], place[1]], facingDeg: 0 }
    : undefined;
}

/** What is drawn of a plan: the nodes, the links that were drawn and those that go without saying. */
export interface DrawnStation {
  readonly graph: GuardGraph;
  readonly undrawn: readonly Saved<'antennas'>[];
  /** Couplings that the wire model can compute, by "a b" of their nodes, one for each frequency. */
  readonly asks: ReadonlyMap<string, readonly CouplingAsk[]>;
  readonly pulled: ReadonlySet<string>;
  /** Links that end at something that is gone. */
  readonly loose: number;
}

const sameName = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();
const antennaOf = (data: StationData, input: Input): Saved<'antennas'> | undefined =>
  data.antennas.find(({ id }) => id === input.antennaId) ??
  data.antennas.find(({ name }) => input.antennaId === null && sameName(name, input.antennaName));

const idOf = (node: string): number => Number(node.slice(node.indexOf(':') + 1));

/** The least loss of a pair over all frequencies, less what the other antenna's own amplifier adds, with what it rests on. */
function couplingOf(
  data: StationData,
  plan: PlannedTransmitter,
  [a, b]: readonly [string, string],
  asks: readonly CouplingAsk[],
): Known {
  const typed = data.guardCouplings.filter(
    ({ guardPlanId, aNode, bNode }) =>
      guardPlanId === plan.id && ((aNode === a && bNode === b) || (aNode === b && bNode === a)),
  );
  for (const origin of ['measured', 'assumed'] as const) {
    const own = typed.filter((one) => one.origin === origin);
    if (own.length > 0) return { db: Math.min(...own.map(({ lossDb }) => lossDb)), evidence: origin };
    if (origin === 'measured') {
      const computed = asks.map(knownCoupling);
      const losses = computed.flatMap((one) =>
        one && 'coupling' in one ? [Math.max(0, one.coupling.lossDb - one.coupling.amplifierDb)] : [],
      );
      // one frequency that nobody knows leaves the pair unknown
      if (losses.length > 0 && losses.length === asks.length)
        return { db: Math.min(...losses), evidence: a === MAST || b === MAST ? 'assumed' : 'model' };
    }
  }
  return {};
}

/** The station as its plan draws it. */
export function drawnStation(data: StationData, plan: PlannedTransmitter): DrawnStation {
  const inputs = data.guardInputs.filter(({ guardPlanId }) => guardPlanId === plan.id);
  const parts = data.guardParts.filter(({ guardPlanId }) => guardPlanId === plan.id);
  const stored = data.guardLinks.filter(({ guardPlanId }) => guardPlanId === plan.id);
  const nodes = new Map<string, GuardNode>();
  const add = (node: GuardNode): void => void nodes.set(node.id, node);
  add({ id: TRANSMITTER, name: plan.name, kind: 'transmitter', dbm: wattsToDbm(plan.powerW) });
  for (const part of parts) add(partOf(part));
  for (const { id, name } of data.antennas) add({ id: antennaNode(id), name, kind: 'antenna' });
  for (const input of inputs)
    add({ id: inputNode(input.id), name: input.name, kind: 'receiver', limitDbm: input.limitDbm });
  const touched = new Set(stored.flatMap(({ fromNode, toNode }) => [fromNode, toNode]));
  const links = stored.map(({ fromNode, fromPort, toNode, toPort }) => ({
    from: { node: fromNode, port: fromPort },
    to: { node: toNode, port: toPort },
  }));
  // an antenna that is not the station's own is known by the name that it was entered under
  for (const id of touched)
    if (id.startsWith(NAMED)) {
      const typed = inputs.find(({ antennaName }) => namedNode(antennaName) === id);
      add({ id, name: typed?.antennaName ?? id.slice(NAMED.length), kind: 'antenna' });
    }
  if (!touched.has(TRANSMITTER) || touched.has(MAST))
    add({ id: MAST, name: mastAt(data, plan, plan.freqHz)?.name ?? 'Transmit antenna', kind: 'antenna' });
  if (!touched.has(TRANSMITTER)) links.push({ from: { node: TRANSMITTER, port: 'a' }, to: { node: MAST, port: 'a' } });
  for (const input of inputs) {
    if (touched.has(inputNode(input.id))) continue;
    const antenna = antennaOf(data, input);
    const feeder = antenna ? antennaNode(antenna.id) : namedNode(input.antennaName);
    if (!antenna) add({ id: feeder, name: input.antennaName, kind: 'antenna' });
    const end = { node: inputNode(input.id), port: 'a' };
    if (!input.disconnects) {
      links.push({ from: { node: feeder, port: 'a' }, to: end });
      continue;
    }
    const implied = `implied:${input.id}`;
    add({
      ...{ id: implied, name: `Disconnect of ${input.name}`, kind: 'switch', throws: 1, drive: 'key' },
      // nobody said how it rests nor what it isolates: the worse counts
      ...{ receive: '1', transmit: '', rest: '1', loss: { db: 0, evidence: 'assumed' }, isolation: {} },
    });
    links.push({ from: { node: feeder, port: 'a' }, to: { node: implied, port: '1' } });
    links.push({ from: { node: implied, port: 'c' }, to: end });
  }
  const whole = links.filter(({ from, to }) =>
    [from, to].every(({ node, port }) => {
      const found = nodes.get(node);
      return found !== undefined && portsOf(found).includes(port);
    }),
  );
  const used = new Set(whole.flatMap(({ from, to }) => [from.node, to.node]));
  const nothing = new Set(plan.hangingOnNothing.split(',').map(Number));
  const undrawn = data.antennas.filter(({ id }) => !used.has(antennaNode(id)) && !nothing.has(id));
  const sending = reachedFrom(TRANSMITTER, whole);
  const antennas = [...nodes.values()].filter(({ kind, id }) => kind === 'antenna' && used.has(id));
  const frequencies = transmitFrequencies(data, plan);
  const asks = new Map<string, readonly CouplingAsk[]>();
  const couplings: { a: string; b: string; loss: Known }[] = [];
  for (const a of antennas)
    for (const b of antennas) {
      // from those that the transmitter reaches to every other; between two of them once
      if (a.id === b.id || !sending.has(a.id) || (sending.has(b.id) && a.id > b.id)) continue;
      const placed = ({ id }: GuardNode, freqHz: number): PlacedAntenna | undefined =>
        id === MAST
          ? mastAt(data, plan, freqHz)
          : id.startsWith('antenna:')
            ? placedAntenna(data, idOf(id))
            : undefined;
      const own = frequencies.flatMap((freqHz): CouplingAsk[] => {
        const [sender, other] = [placed(a, freqHz), placed(b, freqHz)];
        return sender && other ? [{ sender, other, groundId: data.station.groundId, freqHz }] : [];
      });
      if (own.length > 0) asks.set(`${a.id} ${b.id}`, own);
      couplings.push({ a: a.id, b: b.id, loss: couplingOf(data, plan, [a.id, b.id], own) });
    }
  const neighbours = neighboursOf(data, antennas);
  return {
    graph: {
      nodes: [...[...nodes.values()].filter(({ kind, id }) => kind !== 'antenna' || used.has(id)), ...neighbours.nodes],
      links: [...whole, ...neighbours.links],
      couplings: [...couplings, ...neighbours.couplings],
    },
    ...{ undrawn, asks, loose: links.length - whole.length },
    pulled: new Set(parts.flatMap(({ id, pulled }) => (pulled ? [partNode(id)] : []))),
  };
}

/** Nodes that hang together by links. */
export function reachedFrom(start: string, links: GuardGraph['links']): ReadonlySet<string> {
  const seen = new Set([start]);
  const queue = [start];
  for (let at = queue.pop(); at !== undefined; at = queue.pop())
    for (const { from, to } of links)
      for (const [one, other] of [
        [from.node, to.node],
        [to.node, from.node],
      ])
        if (one === at && !seen.has(other)) {
          seen.add(other);
          queue.push(other);
        }
  return seen;
}

/** Gain at most that an antenna has toward a neighbour, dBi: what it has less is a loss. */
const MOST_GAIN_DBI = 6;

/** Transmitters of others as what an isotropic antenna would take from them. */
function neighboursOf(data: StationData, antennas: readonly GuardNode[]): GuardGraph {
  const near = othersTransmitters(data);
  return {
    nodes: near.flatMap((one): GuardNode[] => [
      {
        ...{ id: `neighbour:${one.id}`, name: one.name, kind: 'transmitter', neighbour: true },
        dbm: transmitterField(one).isotropicDbm + MOST_GAIN_DBI,
      },
      { id: `away:${one.id}`, name: `the antenna of ${one.name}`, kind: 'antenna' },
    ]),
    links: near.map(({ id }) => ({
      from: { node: `neighbour:${id}`, port: 'a' },
      to: { node: `away:${id}`, port: 'a' },
    })),
    couplings: near.flatMap(({ id, freqHz }) =>
      antennas.map((antenna) => {
        const revision = antenna.id.startsWith('antenna:') ? latestRevision(data, idOf(antenna.id)) : undefined;
        const gain = revision ? receptionOf(designOf(data, revision))?.(freqHz).realisedGainDbi : undefined;
        return {
          ...{ a: `away:${id}`, b: antenna.id, oneWay: true },
          loss: {
            db: Math.max(0, MOST_GAIN_DBI - (gain ?? 0)),
            evidence: gain === undefined ? ('assumed' as const) : ('model' as const),
          },
        };
      }),
    ),
  };
}

type TimeName = 'rf' | 'switch' | 'sense' | 'tail' | 'hang';

/** Times of a plan as its sequence; undefined while nobody said how it is switched. */
function sequenceTimes(plan: PlannedTransmitter): SequenceTimes | undefined {
  if (plan.sequenceBy === 'not said') return undefined;
  const time = (name: TimeName) => ({
    s: plan.times[name] ?? 0,
    scatterS: plan.times[`${name}Scatter`] ?? 0,
  });
  return {
    by: plan.sequenceBy,
    ...{ rf: time('rf'), switch: time('switch'), sense: time('sense'), tail: time('tail'), hang: time('hang') },
  };
}

/** Seed of the scatter: the same times give the same answer. */
const SEED = 11;
/** A plan's sequence with what chance makes of it and what is to be said. */
export function judgedSequence(plan: PlannedTransmitter) {
  const times = sequenceTimes(plan);
  if (!times) return undefined;
  const through = plan.throughDb ?? 0;
  const sequence = sequenceOf(times, plan.powerW, through);
  const chance = sequenceChance(times, plan.powerW, through, chanceOf(SEED).normal);
  return { times, sequence, chance, ...sequenceRemarks(times, sequence, chance, plan.energyJ) };
}

/** A stepwise test with its steps, judged. */
export function judgedTest(data: StationData, test: Saved<'powerTests'>, plan: PlannedTransmitter) {
  const limitDbm = data.guardInputs.find(({ id }) => id === test.guardInputId)?.limitDbm ?? 0;
  const rungs = data.powerRungs.filter(({ powerTestId }) => powerTestId === test.id).sort((a, b) => a.round - b.round);
  const terms = {
    ...{ fullW: plan.powerW, lowestW: test.lowestW, limitDbm, marginDb: plan.marginToKeepDb },
    ...{ attenuatorDb: test.attenuatorDb, backgroundDbm: test.backgroundDbm },
    ...(test.expectedLossDb === null ? {} : { expectedLossDb: test.expectedLossDb }),
  };
  return { rungs, judged: powerTest(terms, rungs) };
}

/** Ways that were tested as a whole, the last test of each input; else what was typed for a way that is disconnected. */
function measuredWays(data: StationData, plan: PlannedTransmitter): readonly MeasuredWay[] {
  return data.guardInputs
    .filter(({ guardPlanId }) => guardPlanId === plan.id)
    .flatMap((input): MeasuredWay[] => {
      const [last] = data.powerTests
        .filter(({ guardPlanId, guardInputId }) => guardPlanId === plan.id && guardInputId === input.id)
        .sort((a, b) => b.atMs - a.atMs);
      const loss = last && judgedTest(data, last, plan).judged.loss;
      if (loss && loss.rungs >= 2)
        return [{ receiver: inputNode(input.id), lossDb: Math.max(0, loss.lowDb), evidence: 'measured' }];
      const drawn = data.guardLinks.some(
        ({ guardPlanId, fromNode, toNode }) =>
          guardPlanId === plan.id && [fromNode, toNode].includes(inputNode(input.id)),
      );
      return input.disconnects && !drawn
        ? [{ receiver: inputNode(input.id), lossDb: input.isolationDb, evidence: 'assumed' }]
        : [];
    });
}

/** A plan judged at every receiver input in every state. */
export interface JudgedGuard {
  readonly rows: readonly Input[];
  readonly drawn: DrawnStation;
  readonly question: GuardQuestion;
  readonly proof: GuardProof;
}

const judgedBefore = new WeakMap<StationData, Map<string, JudgedGuard>>();

export function judgedGuard(data: StationData, plan: PlannedTransmitter): JudgedGuard {
  const key = `${plan.id} ${couplingsVersion()}`;
  const known = judgedBefore.get(data) ?? new Map<string, JudgedGuard>();
  judgedBefore.set(data, known);
  const before = known.get(key);
  if (before) return before;
  const drawn = drawnStation(data, plan);
  const sequence = judgedSequence(plan);
  const question: GuardQuestion = {
    graph: drawn.graph,
    sequence: { leads: sequence?.leads ?? false, hangs: sequence?.hangs ?? false },
    marginToKeepDb: plan.marginToKeepDb,
    undrawn: drawn.undrawn.map(({ name }) => name),
    ...{ measured: measuredWays(data, plan), pulled: drawn.pulled },
  };
  const judged: JudgedGuard = {
    rows: data.guardInputs.filter(({ guardPlanId }) => guardPlanId === plan.id),
    ...{ drawn, question, proof: guardProof(question) },
  };
  known.set(key, judged);
  return judged;
}

/** The cell of an input with the key down, and its worst of all states but the storm. */
export function cellsOf(
  proof: GuardProof,
  inputId: number,
): { readonly down: Cell | undefined; readonly worst: Cell | undefined } {
  const own = proof.cells.filter(
    ({ receiver, state }) => receiver === inputNode(inputId) && state.kind !== 'thunderstorm',
  );
  const [worst] = [...own].sort(
    (a, b) =>
      COLOURS.indexOf(b.colour) - COLOURS.indexOf(a.colour) || (a.marginDb ?? Infinity) - (b.marginDb ?? Infinity),
  );
  return { down: own.find(({ state }) => state.kind === 'key down'), worst };
}

/** The antenna that the transmitter feeds, as it stands; undefined where it is not on the Plot. */
export function fedAntenna(data: StationData, plan: PlannedTransmitter): PlacedAntenna | undefined {
  const { links } = drawnStation(data, plan).graph;
  const fed = [...reachedFrom(TRANSMITTER, links)];
  const own = fed.find((id) => id.startsWith('antenna:'));
  return own ? placedAntenna(data, idOf(own)) : fed.includes(MAST) ? mastAt(data, plan, plan.freqHz) : undefined;
}
