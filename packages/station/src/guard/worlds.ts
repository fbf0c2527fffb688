import { BLANK, type ResourceName } from '@velvet-reed/contract';
import { chanceOf } from '@velvet-reed/core/recording';
import { badness, type Cell } from '@velvet-reed/core/guard';
import { runsOnPlan, severityOf } from '../derive';
import { guardVerdict, judgedGuard } from './judge';
import { drawnStation, transmitFrequencies } from './drawing';
import { type Memory, pretendedLoss, type Rank, referee } from './referee';
import { couplingKey, keepCoupling, knownCoupling } from './couplings';
import { type StationData, stationOf } from '../record';
import { antennaHolding } from '../taken-on';
import { plannedTransmitters } from '../transmitters';
import { judgedTrial } from '../verdicts';

/*
 * Made-up stations with an own transmitter, and edits of them; after every edit the referee is asked. For tests and the bench.
 */

const STAMP = '2026-03-08T12:00:00.000Z';
const AT_MS = Date.parse(STAMP);
const base = (id: number) => ({ id, version: 1, stationId: 1, createdAt: STAMP });

type Chance = ReturnType<typeof chanceOf>;
interface World {
  readonly data: StationData;
  readonly memory: Memory;
}

const round = (value: number, to = 0.1): number => Math.round(value / to) * to;

/** Records by kind without what the server adds; the list's order gives the numbers. */
function stationWith(lists: Readonly<Partial<Record<ResourceName, readonly object[]>>>): StationData {
  const names = Object.keys(BLANK);
  const made = stationOf({
    ...{ run: 'test', revision: 1, undo: null },
    station: { ...base(1), ...STATION },
    ...Object.fromEntries(names.map((name) => [name, []])),
    ...Object.fromEntries(
      Object.entries(lists).map(([name, list]) => [name, list.map((one, i) => ({ ...base(i + 1), ...one }))]),
    ),
  });
  if (!made) throw new Error('The made-up station is none.');
  return made;
}
const STATION = {
  ...{ name: 'Made up', latDeg: 50, lonDeg: -19, environment: 'rural', noiseOffsetDb: 0, spanM: 30, heightM: 8 },
  ...{ cableId: 'pe5', lineLengthM: 20, groundId: 'average', ownCableDb10: null, ownCableDb100: null },
};

const FREQS = [1.85e6, 3.65e6, 7.1e6, 14.1e6, 28.5e6] as const;

/** A station of a seed: antennas, receivers, parts, couplings and tests, each known in one of the ways that there are. */
export function madeWorld(seed: number): World {
  const chance = chanceOf(seed);
  const { uniform } = chance;
  const upTo = (n: number): number => Math.floor(uniform() * n);
  const maybe = (share: number): boolean => uniform() < share;
  const antennas = 2 + upTo(2);
  const receivers = 1 + upTo(2);
  const revisions = Array.from({ length: antennas }, (_, i) => ({
    ...{ antennaId: i + 1, number: 1, kind: 'half-wave-dipole', freqHz: 7.1e6, diameterM: 0.002 },
    ...{ insulated: false, allowance: 0.03, dimensions: {}, gates: [], done: [] },
  }));
  const laid = Array.from({ length: antennas }, (_, i) => i).filter(() => maybe(0.85));
  const plotFeatures = [
    ...laid.map((i) => {
      const [x, y] = [round(20 * uniform() - 10), round(20 * uniform() - 10)];
      return {
        ...BLANK.plotFeatures,
        ...{ name: `wire ${i + 1}`, kind: 'antenna', antennaId: i + 1, heightM: 7, endHeightM: 7 },
        ...{
          points: [
            [x, y],
            [x + 18, y + round(6 * uniform())],
          ],
          clearanceM: 0,
          widthM: 0,
        },
      };
    }),
    {
      ...BLANK.plotFeatures,
      ...{
        name: 'line',
        kind: 'keepout',
        points: [
          [-60, -45],
          [60, -45],
        ],
        heightM: 8,
        endHeightM: 8,
      },
      ...{ clearanceM: 3, widthM: 0 },
    },
    ...(maybe(0.6)
      ? [
          {
            ...BLANK.plotFeatures,
            ...{ name: 'mast', kind: 'transmitter', transmitterId: 1, points: [[round(25 + 5 * uniform()), 12]] },
            ...{ heightM: 9, endHeightM: 9, clearanceM: 0, widthM: 0 },
          },
        ]
      : []),
  ];
  const freqHz = FREQS[upTo(FREQS.length)];
  const transmitters = [
    {
      ...{ ...BLANK.transmitters, name: 'own', freqHz, powerW: round(5 + 100 * uniform(), 1) },
      ...{ powerKind: 'output', distanceM: null, own: true },
    },
  ];
  const guardPlans = [
    {
      ...{ ...BLANK.guardPlans, name: 'own', transmitterId: 1, freqHz, marginToKeepDb: 6, meterResolutionW: 0.1 },
      bands: maybe(0.3) ? '14.1' : '',
    },
  ];
  const guardInputs = Array.from({ length: receivers }, (_, i) => {
    const antenna = 1 + upTo(antennas);
    return {
      ...BLANK.guardInputs,
      ...{ guardPlanId: 1, name: `input ${i + 1}`, antennaName: `antenna ${antenna}`, antennaId: antenna },
      ...{ receiverId: i + 1, disconnects: maybe(0.4), limitDbm: round(20 * uniform() - 10) },
      isolationDb: maybe(0.4) ? round(30 + 60 * uniform()) : null,
    };
  });
  const word = (): string => (['measured', 'model', 'assumed'] as const)[upTo(3)];
  const guardParts: object[] = [];
  const guardLinks: object[] = [];
  const link = (fromNode: string, fromPort: string, toNode: string, toPort: string): void =>
    void guardLinks.push({ ...BLANK.guardLinks, guardPlanId: 1, fromNode, fromPort, toNode, toPort });
  if (maybe(0.4)) link('tx', 'a', `antenna:${1 + upTo(antennas)}`, 'a');
  guardInputs.forEach((input, i) => {
    if (!maybe(0.6)) return;
    const id = guardParts.length + 1;
    const kind = (['switch', 'limiter', 'filter', 'amplifier'] as const)[upTo(4)];
    const curve = maybe(0.5);
    const figure = kind === 'switch' ? 'isolationDb' : kind === 'amplifier' ? 'gainDb' : 'lossDb';
    const db = kind === 'switch' ? 30 + 50 * uniform() : kind === 'filter' ? 40 * uniform() : 20 * uniform();
    guardParts.push({
      ...{ ...BLANK.guardParts, guardPlanId: 1, name: `part ${id}`, kind, x: 10, y: 10 },
      figures: {
        ...(kind === 'switch' ? { throws: 1, lossDb: 0.2 } : {}),
        ...(kind === 'limiter' ? { leakDbm: round(20 * uniform() - 10), surviveDbm: 30, lossDb: 0.5 } : {}),
        ...(kind === 'amplifier' ? { limitDbm: 0, ...(maybe(0.5) ? { mostDbm: 15 } : {}) } : {}),
        ...(curve ? {} : { [figure]: round(db) }),
        ...(!curve && maybe(0.6) ? { [`${figure}Hz`]: freqHz } : {}),
      },
      choices: kind === 'switch' ? { drive: 'key', receive: '1', transmit: '', rest: maybe(0.5) ? '' : '1' } : {},
      evidence: { [figure]: word(), lossDb: 'assumed' },
      points: curve
        ? [
            { figure, freqHz: 3e6, db: round(db) },
            { figure, freqHz: 15e6, db: round(0.8 * db) },
          ]
        : [],
    });
    const [near, far] = kind === 'switch' ? ['c', '1'] : ['b', 'a'];
    link(`antenna:${input.antennaId}`, 'a', `part:${id}`, far);
    link(`part:${id}`, near, `input:${i + 1}`, 'a');
  });
  const guardCouplings = maybe(0.5)
    ? [
        {
          ...{ ...BLANK.guardCouplings, guardPlanId: 1, aNode: 'mast', bNode: `antenna:${1 + upTo(antennas)}` },
          ...{
            freqHz: maybe(0.8) ? freqHz : null,
            lossDb: round(20 + 40 * uniform()),
            origin: maybe(0.6) ? 'measured' : 'assumed',
          },
        },
      ]
    : [];
  const whole = stationWith({
    ...{ revisions, plotFeatures, transmitters, guardPlans, guardInputs, guardParts, guardLinks, guardCouplings },
    antennas: Array.from({ length: antennas }, (_, i) => ({ ...BLANK.antennas, name: `antenna ${i + 1}` })),
    receivers: Array.from({ length: receivers }, (_, i) => ({
      ...BLANK.receivers,
      ...RECEIVER,
      name: `receiver ${i + 1}`,
    })),
    targets: [{ ...BLANK.targets, name: 'target', lowHz: 9.4e6, highHz: 9.9e6, bandwidthHz: 5000, weight: 3 }],
    paths: [{ ...BLANK.paths, name: 'path', receiverId: 1, targetId: 1, antennaId: null }],
    trials: [
      { ...BLANK.trials, name: 'trial', antennaAId: 1, antennaBId: 2, freqHz: 9.6e6, worthDb: 1, conditions: '' },
    ],
    boughtAntennas: [],
  });
  return taken({ data: whole, memory: new Map() }, chance);
}
const RECEIVER = {
  ...{ bits: 14, fullScaleDbm: 0, sampleRateHz: 125e6, complexSamples: false, noiseFigureDb: 18 },
  ...{ iip2Dbm: 60, iip3Dbm: 25, minHz: 1e4, maxHz: 60e6 },
};

/** What was typed and tested is taken on the station as it stands: stamped as the application stamps it, and remembered whole by the referee. */
function taken({ data, memory }: World, { uniform }: Chance): World {
  const [plan] = plannedTransmitters(data);
  const remember = new Map(memory);
  const drawn = drawnStation(data, plan);
  const guardCouplings = data.guardCouplings.map((one) => {
    remember.set(`coupling ${one.id}`, data);
    return { ...one, takenOn: { antennas: [drawn.stateOf(one.aNode), drawn.stateOf(one.bNode)] } };
  });
  const trials = data.trials.map((one) => ({
    ...one,
    takenOn: { antennas: [`antenna:${one.antennaAId}`, `antenna:${one.antennaBId}`].map(drawn.stateOf) },
  }));
  const tested = data.guardInputs.filter(() => uniform() < 0.5);
  const powerTests = tested.map((input, i) => {
    remember.set(`test ${i + 1}`, data);
    return {
      ...{ ...base(i + 1), ...BLANK.powerTests, guardPlanId: plan.id, guardInputId: input.id, atMs: AT_MS + i },
      ...{ freqHz: transmitFrequencies(data, plan)[0], lowestW: 0.5, attenuatorDb: 40, backgroundDbm: -120 },
      ...{ expectedLossDb: null, conditions: '', takenOn: drawn.scopeOf(input) },
    };
  });
  const powerRungs = powerTests.flatMap((test, i) => {
    const loss = 30 + 40 * uniform();
    const upTo = plan.powerW * (uniform() < 0.5 ? 1 : 0.3);
    return [upTo / 16, upTo / 4, upTo].map((powerW, k) => ({
      ...{ ...base(3 * i + k + 1), powerTestId: test.id, round: k, powerW },
      readingDbm: 10 * Math.log10(1000 * powerW) - loss - test.attenuatorDb,
    }));
  });
  return { data: { ...data, guardCouplings, trials, powerTests, powerRungs }, memory: remember };
}

type Edit = readonly [name: string, edit: (data: StationData, chance: Chance) => StationData | undefined];
const pickOf = <T>(list: readonly T[], { uniform }: Chance): T | undefined => list[Math.floor(uniform() * list.length)];
const without = <T extends { readonly id: number }>(list: readonly T[], gone: T): readonly T[] =>
  list.filter((one) => one !== gone);
const changed = <T extends { readonly id: number }>(list: readonly T[], one: T, values: Partial<T>): readonly T[] =>
  list.map((other) => (other === one ? { ...one, ...values } : other));
const newId = (list: readonly { readonly id: number }[]): number => 1 + Math.max(0, ...list.map(({ id }) => id));

/** All that may be done to a station in one step. */
export const EDITS: readonly Edit[] = [
  [
    'frequency',
    (data, chance) => ({
      ...data,
      guardPlans: data.guardPlans.map((one) => ({ ...one, freqHz: pickOf(FREQS, chance) ?? 7.1e6 })),
    }),
  ],
  [
    'band added',
    (data) => ({ ...data, guardPlans: data.guardPlans.map((one) => ({ ...one, bands: '28.5, 7.0 to 7.2' })) }),
  ],
  [
    'power',
    (data, { uniform }) => ({
      ...data,
      transmitters: data.transmitters.map((one) => ({
        ...one,
        powerW: round(one.powerW * (0.3 + 4 * uniform()), 0.1),
      })),
    }),
  ],
  [
    'part taken out and bridged',
    (data, chance) => {
      const part = pickOf(data.guardParts, chance);
      if (!part) return undefined;
      const own = data.guardLinks.filter((one) => [one.fromNode, one.toNode].includes(`part:${part.id}`));
      const [into, out] = [own[0], own[1]];
      const rest = data.guardLinks.filter((one) => !own.includes(one));
      const bridged =
        into && out && into.toNode === `part:${part.id}` && out.fromNode === `part:${part.id}`
          ? [...rest, { ...into, toNode: out.toNode, toPort: out.toPort }]
          : rest;
      return { ...data, guardParts: without(data.guardParts, part), guardLinks: bridged };
    },
  ],
  [
    'part deleted',
    (data, chance) => {
      const part = pickOf(data.guardParts, chance);
      return part && { ...data, guardParts: without(data.guardParts, part) };
    },
  ],
  [
    'part put in',
    (data, chance) => {
      const one = pickOf(data.guardLinks, chance);
      if (!one) return undefined;
      // numbers are never given twice: links of a part that is gone may still name it
      const named = data.guardLinks.flatMap(({ fromNode, toNode }) =>
        [fromNode, toNode].filter((node) => node.startsWith('part:')).map((node) => ({ id: Number(node.slice(5)) })),
      );
      const id = newId([...data.guardParts, ...named]);
      const part = {
        ...base(id),
        ...BLANK.guardParts,
        guardPlanId: 1,
        name: `pad ${id}`,
        kind: 'pad' as const,
        pulled: false,
        x: 1,
        y: 1,
      };
      return {
        ...data,
        guardParts: [...data.guardParts, { ...part, figures: { lossDb: 10 }, evidence: { lossDb: 'measured' } }],
        guardLinks: [
          ...without(data.guardLinks, one),
          { ...one, toNode: `part:${id}`, toPort: 'a' },
          { ...one, id: newId(data.guardLinks), fromNode: `part:${id}`, fromPort: 'b' },
        ],
      };
    },
  ],
  [
    'relay turned',
    (data, chance) => {
      const part = pickOf(
        data.guardParts.filter(({ kind }) => kind === 'switch'),
        chance,
      );
      return (
        part && {
          ...data,
          guardParts: changed(data.guardParts, part, {
            choices: { ...part.choices, rest: part.choices.rest === '' ? '1' : '' },
          }),
        }
      );
    },
  ],
  [
    'link cut',
    (data, chance) => {
      const one = pickOf(data.guardLinks, chance);
      return one && { ...data, guardLinks: without(data.guardLinks, one) };
    },
  ],
  ...([0.2, 0.6, 6] as const).map((byM): Edit => [
    `antenna moved by ${byM} m`,
    (data, chance) => {
      const one = pickOf(
        data.plotFeatures.filter(({ kind }) => kind === 'antenna'),
        chance,
      );
      const points = one?.points.map(([x, y]) => [x + byM, y] as const);
      return one && points && { ...data, plotFeatures: changed(data.plotFeatures, one, { points }) };
    },
  ]),
  [
    'antenna swapped',
    (data, chance) => {
      const [input, antenna] = [pickOf(data.guardInputs, chance), pickOf(data.antennas, chance)];
      return (
        input &&
        antenna && {
          ...data,
          guardInputs: changed(data.guardInputs, input, { antennaId: antenna.id, antennaName: antenna.name }),
        }
      );
    },
  ],
  [
    'antenna revised',
    (data, chance) => {
      const one = pickOf(data.revisions, chance);
      return (
        one && {
          ...data,
          revisions: [
            ...data.revisions,
            { ...one, id: newId(data.revisions), number: one.number + 1, dimensions: { spanM: 11 } },
          ],
        }
      );
    },
  ],
  [
    'antenna deleted',
    (data, chance) => {
      const gone = pickOf(data.antennas, chance);
      if (!gone || data.antennas.length < 2) return undefined;
      const free = <T extends { readonly antennaId: number | null }>(list: readonly T[]): readonly T[] =>
        list.map((one) => (one.antennaId === gone.id ? { ...one, antennaId: null } : one));
      return {
        ...{ ...data, antennas: without(data.antennas, gone) },
        revisions: data.revisions.filter(({ antennaId }) => antennaId !== gone.id),
        trials: data.trials.filter((one) => ![one.antennaAId, one.antennaBId].includes(gone.id)),
        guardInputs: free(data.guardInputs),
        plotFeatures: free(data.plotFeatures),
      };
    },
  ],
  [
    'receiver added',
    (data) => ({
      ...data,
      receivers: [
        ...data.receivers,
        { ...data.receivers[0], id: newId(data.receivers), name: `receiver ${newId(data.receivers)}` },
      ],
    }),
  ],
  [
    'limit',
    (data, chance) => {
      const one = pickOf(data.guardInputs, chance);
      return (
        one && { ...data, guardInputs: changed(data.guardInputs, one, { limitDbm: round(40 * chance.uniform() - 20) }) }
      );
    },
  ],
  [
    'amplifier in the Path',
    (data) => ({
      ...data,
      pathStages: [
        ...data.pathStages,
        {
          ...{ ...base(newId(data.pathStages)), ...BLANK.pathStages, pathId: 1, name: 'preamplifier' },
          ...{ kind: 'amplifier' as const, gainDb: 15, noiseFigureDb: 3 },
        },
      ],
    }),
  ],
  [
    'gain of the Path',
    (data, chance) => {
      const one = pickOf(data.pathStages, chance);
      return one && { ...data, pathStages: changed(data.pathStages, one, { gainDb: round(30 * chance.uniform()) }) };
    },
  ],
  [
    'ground',
    (data) => ({
      ...data,
      station: { ...data.station, groundId: data.station.groundId === 'dry' ? 'average' : 'dry' },
    }),
  ],
  [
    'run moved onto a line',
    (data, chance) => {
      const one = pickOf(
        data.plotFeatures.filter(({ kind }) => kind === 'antenna'),
        chance,
      );
      return (
        one && {
          ...data,
          plotFeatures: changed(data.plotFeatures, one, {
            points: [
              [0, -50],
              [0, -40],
            ],
          }),
        }
      );
    },
  ],
  ['clock', (data) => ({ ...data, powerTests: data.powerTests.map((one) => ({ ...one, atMs: one.atMs + 4e11 })) })],
  [
    'typed isolation',
    (data, chance) => {
      const one = pickOf(data.guardInputs, chance);
      return (
        one && { ...data, guardInputs: changed(data.guardInputs, one, { isolationDb: round(120 * chance.uniform()) }) }
      );
    },
  ],
];

/** The wire model's pretended answers to all that is asked; the rest is still being computed. */
function answerAll(data: StationData): void {
  for (const plan of plannedTransmitters(data))
    for (const ask of [...drawnStation(data, plan).asks.values()].flat()) {
      if (knownCoupling(ask)) continue;
      const distanceM = Math.hypot(ask.other.at[0] - ask.sender.at[0], ask.other.at[1] - ask.sender.at[1]);
      const lossDb = pretendedLoss(distanceM, ask.freqHz);
      if (lossDb === undefined) continue;
      keepCoupling(couplingKey(ask), {
        coupling: {
          ...{ freqHz: ask.freqHz, distanceM, lossDb, safeDb: lossDb - 2, farFieldLossDb: 40 },
          ...{ reactiveM: 1, farFieldM: 1, amplifierDb: 0, by: 'wires' },
        },
      });
    }
}

const RANK: Readonly<Record<Cell['colour'], Rank>> = { proven: 0, computed: 1, assumed: 2, unknown: 3, danger: 4 };
const NUMBER = /[−-]?\d+(?:\.\d+)?(?= dBm)/g;

/** Sums in another order. */
const ROUNDING_DB = 1e-6;

/** What is wrong with the judge after an edit; empty: nothing. */
function faultsOf({ data, memory }: World): readonly string[] {
  answerAll(data);
  const faults: string[] = [];
  for (const plan of plannedTransmitters(data)) {
    const judged = judgedGuard(data, plan);
    const rulings = referee(data, plan, plan.powerW, transmitFrequencies(data, plan), memory);
    for (const { input, state, freqHz, rank, dbm } of rulings) {
      const cell = judged.proof.bands
        .find((band) => band.freqHz === freqHz)
        ?.cells.find((one) => one.receiver === `input:${input}` && one.state.id === state);
      const where = `input ${input}, ${state}, ${freqHz} Hz`;
      if (!cell) faults.push(`${where}: no cell`);
      else if (RANK[cell.colour] < rank)
        faults.push(`${where}: ${cell.colour}, the referee says ${rank}: ${cell.sentence}`);
      else if (
        RANK[cell.colour] === rank &&
        dbm !== undefined &&
        Number.isFinite(dbm) &&
        cell.route &&
        cell.route.dbm < dbm - ROUNDING_DB
      )
        faults.push(`${where}: ${cell.route.dbm} dBm, the referee ${dbm}`);
    }
    if (rulings.length > 0 && rulings.some(({ rank }) => rank === 4) && judged.proof.colour !== 'danger')
      faults.push(`a danger is not the verdict: ${judged.proof.sentence}`);
    const text = [guardVerdict(judged).sentence, ...judged.proof.cells.map(({ sentence }) => sentence)].join(' ');
    const levels = [...text.matchAll(NUMBER)].map(([number]) => Number(number.replace('−', '-')));
    levels.push(
      ...judged.proof.cells.flatMap(({ route }) => (route ? [route.dbm, ...route.steps.map(({ dbm }) => dbm)] : [])),
    );
    if (levels.some((level) => !(level >= -300 && level <= 100))) faults.push(`a level out of this world: ${text}`);
    const undrawn = data.receivers.some(
      ({ id, name }) => !data.guardInputs.some((one) => one.receiverId === id || one.name === name),
    );
    if (undrawn && judged.proof.colour !== 'danger') faults.push('a receiver that is not drawn is not noticed');
    const worst = Math.max(0, ...judged.proof.cells.map(badness));
    if (judged.proof.colour === 'proven' && worst >= 40) faults.push(`proven over a cell of ${worst}`);
  }
  // the line at y = −45: whoever comes within 3 m of it is in danger
  const onLine = data.plotFeatures.some(
    ({ kind, points }) =>
      kind === 'antenna' &&
      (points.some(([x, y]) => Math.abs(y + 45) < 3 && Math.abs(x) < 60) ||
        points.some(([, y], i) => i > 0 && (y + 45) * (points[i - 1][1] + 45) < 0)),
  );
  if (onLine && severityOf(runsOnPlan(data)[0].layout) !== 2) faults.push('a run on the line is no danger');
  for (const trial of data.trials) {
    const revised = [trial.antennaAId, trial.antennaBId].some((id) =>
      data.revisions.some(({ antennaId, number }) => antennaId === id && number > 1),
    );
    if (revised && judgedTrial(data, trial).holding.state !== 'not')
      faults.push('a trial outlives a revision of its antenna');
    if (revised && antennaHolding(data, trial.takenOn, [trial.antennaAId, trial.antennaBId], false).state !== 'not')
      faults.push('a pattern outlives a revision of its antenna');
  }
  return faults;
}

/** Everything that is said of a station, to be compared. */
function saidOf(data: StationData): string {
  answerAll(data);
  return JSON.stringify(
    plannedTransmitters(data).map((plan) => {
      const judged = judgedGuard(data, plan);
      return [
        guardVerdict(judged),
        judged.proof.cells.map(({ receiver, state, colour, sentence }) => [receiver, state.id, colour, sentence]),
      ];
    }),
  );
}

const copyOf = (data: StationData): StationData => ({ ...data, guardPlans: [...data.guardPlans] });

/** A station with so many edits one after the other, each looked at, taken back and looked at again. @returns faults, with what was done. */
export function walkWorld(seed: number, edits: number): readonly string[] {
  const chance = chanceOf(seed + 1_000_003);
  let world = madeWorld(seed);
  const faults = faultsOf(world).map((fault) => `world ${seed}: ${fault}`);
  for (let i = 0; i < edits && faults.length === 0; i += 1) {
    const [name, edit] = EDITS[Math.floor(chance.uniform() * EDITS.length)];
    const data = edit(world.data, chance);
    if (!data) continue;
    const before = saidOf(world.data);
    const next = { ...world, data };
    faults.push(...faultsOf(next).map((fault) => `world ${seed}, edit ${i} (${name}): ${fault}`));
    // taken back: a copy, so that nothing is found again by being the same object
    if (saidOf(copyOf(world.data)) !== before) faults.push(`world ${seed}, edit ${i} (${name}): undo is not as before`);
    world = next;
  }
  return faults;
}
