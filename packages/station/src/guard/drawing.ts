import type { Saved } from '@velvet-reed/contract';
import { type PlacedAntenna, startDesign } from '@velvet-reed/core/antenna';
import type { AntennaState, PartState } from '@velvet-reed/core/evidence';
import {
  type Drive,
  type GuardGraph,
  type GuardNode,
  type Known,
  linkedNodes,
  type Port,
  portsOf,
} from '@velvet-reed/core/guard';
import { stageGainDb } from '@velvet-reed/core/path';
import { transmitterField } from '@velvet-reed/core/site';
import { parseQuantity, wattsToDbm } from '@velvet-reed/core/units';
import { designOf, laidLayouts, latestRevision } from '../derive';
import { gainToward } from '../path/question';
import { couplingAt, figureAt, partStates, stateOfAntenna } from './evidence';
import type { CouplingAsk } from './couplings';
import { firstOrder } from '../path/orders';
import { toPathStage } from '../path/stages';
import type { StationData } from '../record';
import { type FieldKnown, othersTransmitters, type PlannedTransmitter } from '../transmitters';

type Input = Saved<'guardInputs'>;
type Part = Saved<'guardParts'>;
interface Link {
  readonly from: Port;
  readonly to: Port;
}

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
const idOf = (node: string): number => Number(node.slice(node.indexOf(':') + 1));
const sameName = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

const frequencyOf = (text: string): number | undefined => {
  try {
    return parseQuantity(text, 'frequency', { bareUnit: 'MHz' });
  } catch {
    return undefined;
  }
};

/** Frequencies as typed, with commas between; a band by its edges, such as 7.0 to 7.2. @returns also the pieces that are no frequency. */
export function typedBands(text: string): { readonly freqsHz: readonly number[]; readonly unread: readonly string[] } {
  const pieces = text
    .split(/[,;]/)
    .map((part) => part.trim())
    .filter(Boolean)
    .map((piece) => ({ piece, edges: piece.split(/\s*(?:–|-|\bto\b)\s*/).map(frequencyOf) }));
  return {
    freqsHz: pieces.flatMap(({ edges }) => (edges.includes(undefined) ? [] : edges.flatMap((edge) => edge ?? []))),
    unread: pieces.flatMap(({ piece, edges }) => (edges.includes(undefined) ? [piece] : [])),
  };
}

/** Frequencies at which a plan transmits, Hz: its transmitter's, its highest, and those typed. */
export function transmitFrequencies(data: StationData, plan: PlannedTransmitter): readonly number[] {
  const own = data.transmitters.find(({ id }) => id === plan.transmitterId);
  const all = [...(own ? [own.freqHz] : []), ...typedBands(plan.bands).freqsHz, plan.freqHz];
  return [...new Set(all)].sort((a, b) => a - b);
}

const isDrive = (word: string | undefined): word is Drive => word === 'key' || word === 'supply' || word === 'hand';

/** A stored part with its figures at a frequency. */
function partAt(part: Part, freqHz: number): GuardNode {
  const common = { id: partNode(part.id), name: part.name };
  const {
    leakDbm,
    surviveDbm,
    mostDbm,
    limitDbm,
    outputs = 2,
    throws = 1,
  } = part.figures as Partial<typeof part.figures>;
  const loss = figureAt(part, 'lossDb', freqHz);
  switch (part.kind) {
    case 'limiter':
      // what lets through and survives nobody knows how much protects nothing
      return leakDbm === undefined || surviveDbm === undefined
        ? { ...common, kind: 'pad', loss }
        : { ...common, kind: 'limiter', loss, leakDbm, surviveDbm };
    case 'amplifier':
      return {
        ...{ ...common, kind: 'amplifier', gain: figureAt(part, 'gainDb', freqHz) },
        ...{ reverse: figureAt(part, 'isolationDb', freqHz), limitDbm: limitDbm ?? ASSUMED_LIMIT_DBM },
        ...(mostDbm === undefined ? {} : { mostDbm }),
      };
    case 'splitter':
      return { ...common, kind: 'splitter', loss, isolation: figureAt(part, 'isolationDb', freqHz), outputs };
    case 'switch':
      return {
        ...{ ...common, kind: 'switch', loss, isolation: figureAt(part, 'isolationDb', freqHz), throws },
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
/** What the input of an amplifier survives where nobody entered it, dBm: as a receiver without a maker's word. */
const ASSUMED_LIMIT_DBM = 0;

/** An antenna as the wire model wants it, once for each run that is laid of it; empty where it does not lie on the Plot. */
function placedAntennas(data: StationData, antennaId: number): readonly PlacedAntenna[] {
  const revision = latestRevision(data, antennaId);
  if (!revision) return [];
  const name = data.antennas.find(({ id }) => id === antennaId)?.name ?? '';
  return laidLayouts(data, antennaId).map(({ feature, layout }) => {
    const mean = (axis: 0 | 1): number =>
      feature.points.reduce((sum, point) => sum + point[axis], 0) / feature.points.length;
    return {
      ...{ name, design: designOf(data, revision, feature), at: [mean(0), mean(1)], facingDeg: layout.facingDeg },
    };
  });
}

/** The first run of an antenna as laid. */
export const placedAntenna = (data: StationData, antennaId: number): PlacedAntenna | undefined =>
  placedAntennas(data, antennaId)[0];

const mastFeature = (data: StationData, plan: PlannedTransmitter) =>
  data.plotFeatures.find(({ kind, transmitterId }) => kind === 'transmitter' && transmitterId === plan.transmitterId);

/** A transmit antenna that is on the Plot and not among the antennas: taken for a quarter-wave vertical at the frequency. */
function mastAt(data: StationData, plan: PlannedTransmitter, freqHz: number): PlacedAntenna | undefined {
  const feature = mastFeature(data, plan);
  const place = feature?.points[0];
  return feature && place
    ? { name: feature.name, design: startDesign('quarter-wave', freqHz), at: [place[0], place[1]], facingDeg: 0 }
    : undefined;
}

const antennaOf = (data: StationData, input: Input): Saved<'antennas'> | undefined =>
  data.antennas.find(({ id }) => id === input.antennaId) ??
  data.antennas.find(({ name }) => input.antennaId === null && sameName(name, input.antennaName));

/** Amplifiers that the Path of an input's receiver holds between antenna and receiver, as one. */
interface PathAmplifier {
  readonly id: string;
  readonly name: string;
  readonly input: number;
  /** Active stages with their gain at a frequency and what their inputs survive. */
  readonly stages: readonly { readonly gainDb: (freqHz: number) => number; readonly limitDbm?: number }[];
  readonly settings: string;
}

/** The amplifiers of the paths of an input's receiver on its antenna; of several paths that with most stages. */
function pathAmplifier(data: StationData, input: Input): PathAmplifier | undefined {
  if (input.receiverId === null) return undefined;
  const antenna = antennaOf(data, input);
  const active = data.paths
    .filter(
      ({ receiverId, antennaId }) =>
        receiverId === input.receiverId && (antennaId === null || !antenna || antennaId === antenna.id),
    )
    .map((path) => {
      const ordered = firstOrder(data, path.id);
      const stages = ordered.length > 0 ? ordered : data.pathStages.filter(({ pathId }) => pathId === path.id);
      return stages.filter((stage) => {
        const part = data.parts.find(({ id }) => id === stage.partId);
        return stage.kind === 'amplifier' || (stage.kind === 'part' && part?.noiseFigureDb != null);
      });
    })
    .sort((a, b) => b.length - a.length)[0];
  if (!active || active.length === 0) return undefined;
  return {
    ...{ id: `path:${input.id}`, input: input.id, name: `${active[0].name} in the Path of ${input.name}` },
    stages: active.map((stage) => ({
      gainDb: (freqHz) => Math.max(0, stageGainDb(toPathStage(data, stage), freqHz)),
      ...('surviveDbm' in stage.figures ? { limitDbm: stage.figures.surviveDbm } : {}),
    })),
    settings: active.map(({ name, gainDb }) => `${name} ${gainDb}`).join(', '),
  };
}

function amplifierAt({ id, name, stages }: PathAmplifier, freqHz: number): GuardNode {
  let gain = 0;
  let limit = Infinity;
  for (const stage of stages) {
    limit = Math.min(limit, (stage.limitDbm ?? ASSUMED_LIMIT_DBM) - gain);
    gain += stage.gainDb(freqHz);
  }
  // what a chain loses beside is not counted: it may be taken out without a word here
  const limitAssumed = stages.some(({ limitDbm }) => limitDbm === undefined);
  return {
    ...{ id, name, kind: 'amplifier', gain: { db: gain, footing: 'assumed' }, reverse: {} },
    ...{ limitDbm: limit, limitAssumed },
  };
}

/** A plan's drawing without any frequency: what is there, and what leads where. */
export interface DrawnStation {
  /** At the first own frequency, with all neighbours: for pictures. */
  readonly graph: GuardGraph;
  readonly undrawn: readonly { readonly what: 'antenna' | 'receiver'; readonly id: number; readonly name: string }[];
  /** Couplings that the wire model can compute, by "a b" of their nodes: one for each frequency and run. */
  readonly asks: ReadonlyMap<string, readonly CouplingAsk[]>;
  readonly pulled: ReadonlySet<string>;
  /** Nodes with a link that ends at something that is gone, and how many such links. */
  readonly loose: ReadonlySet<string>;
  readonly looseLinks: number;
  readonly amplifiers: readonly PathAmplifier[];
  /** The drawing with its figures at a frequency: with one's own transmitter, or with a neighbour's alone. */
  readonly graphAt: (freqHz: number, on: 'own' | FieldKnown) => GuardGraph;
  /** Parts, and antennas, on which a test of an input depends. */
  readonly scopeOf: (input: Input) => {
    readonly parts: readonly PartState[];
    readonly antennas: readonly AntennaState[];
  };
  /** How an antenna of the drawing stands. */
  readonly stateOf: (node: string) => AntennaState;
}

/** Links as drawn, and those that go without saying while nobody drew an input. */
function linksOf(
  data: StationData,
  plan: PlannedTransmitter,
  inputs: readonly Input[],
): { readonly links: readonly Link[]; readonly implied: readonly GuardNode[]; readonly drawn: ReadonlySet<string> } {
  const stored = data.guardLinks.filter(({ guardPlanId }) => guardPlanId === plan.id);
  const drawn = new Set(stored.flatMap(({ fromNode, toNode }) => [fromNode, toNode]));
  const links: Link[] = stored.map(({ fromNode, fromPort, toNode, toPort }) => ({
    from: { node: fromNode, port: fromPort },
    to: { node: toNode, port: toPort },
  }));
  const implied: GuardNode[] = [];
  const at = (node: string, port = 'a'): Port => ({ node, port });
  if (!drawn.has(TRANSMITTER)) links.push({ from: at(TRANSMITTER), to: at(MAST) });
  for (const input of inputs) {
    if (drawn.has(inputNode(input.id))) continue;
    const antenna = antennaOf(data, input);
    const feeder = antenna ? antennaNode(antenna.id) : namedNode(input.antennaName);
    if (!input.disconnects) {
      links.push({ from: at(feeder), to: at(inputNode(input.id)) });
      continue;
    }
    const id = `implied:${input.id}`;
    implied.push({
      ...{ id, name: `Disconnect of ${input.name}`, kind: 'switch', throws: 1, drive: 'key' },
      // nobody said how it rests nor what it isolates: the worse counts
      ...{ receive: '1', transmit: '', rest: '1', loss: { db: 0, footing: 'assumed' }, isolation: {} },
    });
    links.push({ from: at(feeder), to: at(id, '1') }, { from: at(id, 'c'), to: at(inputNode(input.id)) });
  }
  return { links, implied, drawn };
}

/** Links with an input's amplifier put in ahead of it. */
const withAmplifiers = (links: readonly Link[], amplifiers: readonly PathAmplifier[]): readonly Link[] => {
  const ahead = new Map(amplifiers.map(({ id, input }) => [inputNode(input), id]));
  const moved = (end: Port): Port => ({ node: ahead.get(end.node) ?? end.node, port: end.port });
  return [
    ...links.map(({ from, to }) => ({ from: moved(from), to: moved(to) })),
    ...[...ahead].map(([input, id]) => ({ from: { node: id, port: 'b' }, to: { node: input, port: 'a' } })),
  ];
};

/** The station as its plan draws it. */
export function drawnStation(data: StationData, plan: PlannedTransmitter): DrawnStation {
  const inputs = data.guardInputs.filter(({ guardPlanId }) => guardPlanId === plan.id);
  const parts = data.guardParts.filter(({ guardPlanId }) => guardPlanId === plan.id);
  const { links: plain, implied, drawn } = linksOf(data, plan, inputs);
  // an amplifier that is drawn in Guard stands for the Path's
  const drawnAmplifiers = new Set(parts.flatMap(({ id, kind }) => (kind === 'amplifier' ? [partNode(id)] : [])));
  const amplifiers = inputs.flatMap((input) => {
    const found = pathAmplifier(data, input);
    const near = found ? [...linkedNodes(plain, inputNode(input.id))] : [];
    return found && !near.some((id) => drawnAmplifiers.has(id)) ? [found] : [];
  });
  const links = withAmplifiers(plain, amplifiers);
  const ends = links.flatMap(({ from, to }) => [from.node, to.node]);
  // an antenna that is not the station's own is known by the name that it was entered under
  const named = new Map(
    ends
      .filter((id) => id.startsWith(NAMED))
      .map((id) => [
        id,
        inputs.find(({ antennaName }) => namedNode(antennaName) === id)?.antennaName ?? id.slice(NAMED.length),
      ]),
  );
  const mastName = mastFeature(data, plan)?.name ?? 'Transmit antenna';
  const shell: readonly GuardNode[] = [
    { id: TRANSMITTER, name: plan.name, kind: 'transmitter', dbm: wattsToDbm(plan.powerW) },
    ...parts.map((part) => partAt(part, plan.freqHz)),
    ...implied,
    ...data.antennas.map(({ id, name }): GuardNode => ({ id: antennaNode(id), name, kind: 'antenna' })),
    ...inputs.map(({ id, name, limitDbm }): GuardNode => ({ id: inputNode(id), name, kind: 'receiver', limitDbm })),
    ...[...named].map(([id, name]): GuardNode => ({ id, name, kind: 'antenna' })),
    ...(!drawn.has(TRANSMITTER) || drawn.has(MAST) ? [{ id: MAST, name: mastName, kind: 'antenna' } as const] : []),
    ...amplifiers.map((one) => amplifierAt(one, plan.freqHz)),
  ];
  const byId = new Map(shell.map((node) => [node.id, node]));
  const isThere = ({ node, port }: Port): boolean => {
    const found = byId.get(node);
    return found !== undefined && portsOf(found).includes(port);
  };
  const whole = links.filter(({ from, to }) => isThere(from) && isThere(to));
  const loose = new Set(
    links.flatMap(({ from, to }) => (isThere(from) === isThere(to) ? [] : [isThere(from) ? from.node : to.node])),
  );
  const used = new Set(whole.flatMap(({ from, to }) => [from.node, to.node]));
  const nodes = shell.filter(({ kind, id }) => kind !== 'antenna' || used.has(id));
  const antennas = nodes.filter(({ kind }) => kind === 'antenna');
  const sending = linkedNodes(whole, TRANSMITTER);
  const frequencies = transmitFrequencies(data, plan);
  const placed = ({ id }: GuardNode, freqHz: number): readonly PlacedAntenna[] => {
    if (id !== MAST) return id.startsWith('antenna:') ? placedAntennas(data, idOf(id)) : [];
    const mast = mastAt(data, plan, freqHz);
    return mast ? [mast] : [];
  };
  const asks = new Map<string, readonly CouplingAsk[]>();
  const pairs: (readonly [string, string])[] = [];
  for (const a of antennas)
    for (const b of antennas) {
      // from those that the transmitter reaches to every other; between two of them once
      if (a.id === b.id || !sending.has(a.id) || (sending.has(b.id) && a.id > b.id)) continue;
      pairs.push([a.id, b.id]);
      const own = frequencies.flatMap((freqHz) =>
        placed(a, freqHz).flatMap((sender) =>
          placed(b, freqHz).map((other): CouplingAsk => ({ sender, other, groundId: data.station.groundId, freqHz })),
        ),
      );
      if (own.length > 0) asks.set(`${a.id} ${b.id}`, own);
    }
  const typed = data.guardCouplings.filter(({ guardPlanId }) => guardPlanId === plan.id);
  const stateOf = (node: string): AntennaState => {
    const own = node.startsWith('antenna:') ? stateOfAntenna(data, idOf(node)) : undefined;
    const feature = node === MAST ? mastFeature(data, plan) : undefined;
    return own ?? { id: node, name: byId.get(node)?.name ?? '', ...(feature ? { runs: [runOf(feature)] } : {}) };
  };
  const couplingsAt = (freqHz: number): GuardGraph['couplings'] =>
    pairs.map(([a, b]) => ({
      ...{ a, b },
      loss: couplingAt(
        typed.filter(({ aNode, bNode }) => (aNode === a && bNode === b) || (aNode === b && bNode === a)),
        freqHz,
        [stateOf(a), stateOf(b)],
        {
          asks: (asks.get(`${a} ${b}`) ?? []).filter((ask) => ask.freqHz === freqHz),
          byMast: a === MAST || b === MAST,
        },
      ),
    }));
  const figuresAt = (freqHz: number): readonly GuardNode[] =>
    nodes.map((node) => {
      const part = parts.find(({ id }) => partNode(id) === node.id);
      const amplifier = amplifiers.find(({ id }) => id === node.id);
      return part ? partAt(part, freqHz) : amplifier ? amplifierAt(amplifier, freqHz) : node;
    });
  const graphAt: DrawnStation['graphAt'] = (freqHz, on) => {
    if (on === 'own') return { nodes: figuresAt(freqHz), links: whole, couplings: couplingsAt(freqHz) };
    const neighbour = neighbourGraph(data, on, antennas);
    return {
      nodes: [...figuresAt(freqHz).filter(({ id }) => id !== TRANSMITTER), ...neighbour.nodes],
      links: [...whole.filter(({ from, to }) => ![from.node, to.node].includes(TRANSMITTER)), ...neighbour.links],
      couplings: neighbour.couplings,
    };
  };
  const neighbours = othersTransmitters(data).map((one) => neighbourGraph(data, one, antennas));
  const own = graphAt(frequencies[0], 'own');
  const receiversOff = numbersIn(plan.receiversOnNothing);
  const antennasOff = numbersIn(plan.hangingOnNothing);
  return {
    graph: {
      nodes: [...own.nodes, ...neighbours.flatMap((one) => one.nodes)],
      links: [...own.links, ...neighbours.flatMap((one) => one.links)],
      couplings: [...own.couplings, ...neighbours.flatMap((one) => one.couplings)],
    },
    undrawn: [
      ...data.antennas
        .filter(({ id }) => !used.has(antennaNode(id)) && !antennasOff.includes(id))
        .map(({ id, name }) => ({ what: 'antenna' as const, id, name })),
      ...data.receivers
        .filter(({ id, name }) => !receiversOff.includes(id) && !inputs.some((input) => isInputOf(input, id, name)))
        .map(({ id, name }) => ({ what: 'receiver' as const, id, name })),
    ],
    ...{ asks, loose, looseLinks: links.length - whole.length, amplifiers, graphAt, stateOf },
    scopeOf: (input) => {
      const near = new Set([...sending, ...linkedNodes(whole, inputNode(input.id))]);
      const others = shell.filter(
        ({ id, kind }) => near.has(id) && !['antenna'].includes(kind) && !id.startsWith('part:'),
      );
      return {
        parts: partStates(
          parts.filter(({ id }) => near.has(partNode(id))),
          links,
          others.map(({ id, name }) => ({
            ...{ id, name },
            settings: amplifiers.find((one) => one.id === id)?.settings ?? '',
          })),
        ),
        antennas: antennas.filter(({ id }) => near.has(id)).map(({ id }) => stateOf(id)),
      };
    },
    pulled: new Set(parts.flatMap(({ id, pulled }) => (pulled ? [partNode(id)] : []))),
  };
}

const runOf = ({ points, heightM, endHeightM }: Saved<'plotFeatures'>) => ({ points, heightM, endHeightM });

export const numbersIn = (text: string): readonly number[] => text.split(',').map(Number).filter(Boolean);

/** An input belongs to a receiver that it points at, or whose name it begins with: a receiver may have several inputs. */
const isInputOf = (input: Input, id: number, name: string): boolean =>
  input.receiverId === id || (input.receiverId === null && sameName(input.name, name));

/** Gain at most that an antenna has toward a neighbour, dBi: what it has less is a loss. */
const MOST_GAIN_DBI = 6;

/** A transmitter of somebody else as what an isotropic antenna would take from it. */
function neighbourGraph(data: StationData, one: FieldKnown, antennas: readonly GuardNode[]): GuardGraph {
  const [id, away] = [`neighbour:${one.id}`, `away:${one.id}`];
  const lossOf = (antenna: GuardNode): Known => {
    const gain = antenna.id.startsWith('antenna:') ? gainToward(data, idOf(antenna.id), one.freqHz) : undefined;
    return { db: Math.max(0, MOST_GAIN_DBI - (gain ?? 0)), footing: gain === undefined ? 'assumed' : 'model' };
  };
  return {
    nodes: [
      {
        ...{ id, name: one.name, kind: 'transmitter', neighbour: true },
        dbm: transmitterField(one).isotropicDbm + MOST_GAIN_DBI,
      },
      { id: away, name: `the antenna of ${one.name}`, kind: 'antenna' },
    ],
    links: [{ from: { node: id, port: 'a' }, to: { node: away, port: 'a' } }],
    couplings: antennas.map((antenna) => ({ a: away, b: antenna.id, oneWay: true, loss: lossOf(antenna) })),
  };
}

/** The antenna that the transmitter feeds, as it stands; undefined where it is not on the Plot. */
export function fedAntenna(data: StationData, plan: PlannedTransmitter): PlacedAntenna | undefined {
  const fed = [...linkedNodes(drawnStation(data, plan).graph.links, TRANSMITTER)];
  const own = fed.find((id) => id.startsWith('antenna:'));
  return own ? placedAntenna(data, idOf(own)) : fed.includes(MAST) ? mastAt(data, plan, plan.freqHz) : undefined;
}
