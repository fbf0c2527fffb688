import type { Saved } from '@velvet-reed/contract';
import {
  badness,
  type Cell,
  type Colour,
  type GuardBand,
  type GuardProof,
  guardProof,
  type GuardQuestion,
  type InOrder,
  type MeasuredWay,
  sequenceChance,
  sequenceOf,
  sequenceRemarks,
  type SequenceTimes,
  TIMES_NEEDED,
} from '@velvet-reed/core/guard';
import { chanceOf } from '@velvet-reed/core/recording';
import { drawnStation, type DrawnStation, inputNode, transmitFrequencies } from './drawing';
import { testFor } from './evidence';
import { couplingsVersion, knownCoupling } from './couplings';
import type { StationData } from '../record';
import { othersTransmitters, type PlannedTransmitter } from '../transmitters';

type Input = Saved<'guardInputs'>;
type TimeName = 'rf' | 'switch' | 'sense' | 'tail' | 'hang';

/** A plan's sequence as far as it was said. */
export interface GivenTimes {
  readonly by: SequenceTimes['by'];
  readonly times: SequenceTimes;
  /** Times that this way of switching needs and nobody entered. */
  readonly missing: readonly TimeName[];
  /** Times without a scatter. */
  readonly unscattered: readonly TimeName[];
}

/** Times of a plan as its sequence; undefined while nobody chose how it is switched. */
function givenTimes(plan: PlannedTransmitter): GivenTimes | undefined {
  if (plan.sequenceBy === 'not said') return undefined;
  const time = (name: TimeName) => ({ s: plan.times[name] ?? 0, scatterS: plan.times[`${name}Scatter`] ?? 0 });
  const needed: readonly TimeName[] = TIMES_NEEDED[plan.sequenceBy];
  return {
    by: plan.sequenceBy,
    times: {
      by: plan.sequenceBy,
      ...{ rf: time('rf'), switch: time('switch'), sense: time('sense'), tail: time('tail'), hang: time('hang') },
    },
    missing: needed.filter((name) => !(name in plan.times)),
    unscattered: needed.filter((name) => name in plan.times && !(`${name}Scatter` in plan.times)),
  };
}

/** Seed of the scatter: the same times give the same answer. */
const SEED = 11;
/** A plan's sequence with what chance makes of it and what is to be said; while times are missing only which. */
export function judgedSequence(plan: PlannedTransmitter) {
  const given = givenTimes(plan);
  if (!given) return undefined;
  const { times, missing, unscattered } = given;
  if (missing.length > 0) return { ...given, known: undefined };
  const through = plan.throughDb ?? 0;
  const sequence = sequenceOf(times, plan.powerW, through);
  const chance = sequenceChance(times, plan.powerW, through, chanceOf(SEED).normal);
  const { leads, hangs, remarks } = sequenceRemarks(times, sequence, chance, plan.energyJ);
  const inOrder = (so: boolean): InOrder => (!so ? 'no' : unscattered.length > 0 ? 'assumed' : 'measured');
  return { ...given, known: { sequence, chance, remarks, leads: inOrder(leads), hangs: inOrder(hangs) } };
}

/** A plan judged at every receiver input in every state at every frequency. */
export interface JudgedGuard {
  readonly rows: readonly Input[];
  readonly drawn: DrawnStation;
  readonly question: GuardQuestion;
  readonly proof: GuardProof;
  /** Couplings that are still being computed: until then nothing is said but what they cannot better. */
  readonly pending: number;
}

const judgedBefore = new WeakMap<StationData, Map<string, JudgedGuard>>();

export function judgedGuard(data: StationData, plan: PlannedTransmitter): JudgedGuard {
  const key = `${plan.id} ${couplingsVersion()}`;
  const known = judgedBefore.get(data) ?? new Map<string, JudgedGuard>();
  judgedBefore.set(data, known);
  const before = known.get(key);
  if (before) return before;
  const judged = judgeGuard(data, plan);
  known.set(key, judged);
  return judged;
}

function judgeGuard(data: StationData, plan: PlannedTransmitter): JudgedGuard {
  const drawn = drawnStation(data, plan);
  const rows = data.guardInputs.filter(({ guardPlanId }) => guardPlanId === plan.id);
  const sequence = judgedSequence(plan)?.known;
  const question: GuardQuestion = {
    bands: [
      ...transmitFrequencies(data, plan).map((freqHz) => ownBand(data, plan, { drawn, rows, freqHz })),
      ...othersTransmitters(data).map((one): GuardBand => ({
        ...{ freqHz: one.freqHz, graph: drawn.graphAt(one.freqHz, one), measured: [], refused: new Map() },
      })),
    ],
    sequence: { leads: sequence?.leads ?? 'no', hangs: sequence?.hangs ?? 'no' },
    marginToKeepDb: plan.marginToKeepDb,
    undrawn: drawn.undrawn.map(({ name }) => name),
    ...{ loose: drawn.loose, pulled: drawn.pulled },
  };
  const pending = [...drawn.asks.values()].flat().filter((ask) => !knownCoupling(ask)).length;
  return { rows, drawn, question, proof: guardProof(question), pending };
}

/** One transmit frequency with the tests that hold there, and why others do not. */
function ownBand(
  data: StationData,
  plan: PlannedTransmitter,
  { drawn, rows, freqHz }: { readonly drawn: DrawnStation; readonly rows: readonly Input[]; readonly freqHz: number },
): GuardBand {
  const measured: MeasuredWay[] = [];
  const refused = new Map<string, string>();
  for (const input of rows) {
    const receiver = inputNode(input.id);
    const tests = data.powerTests.filter(
      ({ guardPlanId, guardInputId }) => guardPlanId === plan.id && guardInputId === input.id,
    );
    const held = testFor(data, plan, tests, { freqHz, powerW: plan.powerW, ...drawn.scopeOf(input) });
    if (held?.state === 'holds') measured.push({ receiver, lossDb: held.lossDb, footing: 'measured', name: held.name });
    else if (input.isolationDb !== null && !isDrawn(data, plan, receiver))
      measured.push({ receiver, lossDb: input.isolationDb, footing: 'assumed', name: 'the whole way, as typed' });
    if (held?.state === 'refused') refused.set(receiver, held.sentence);
  }
  return { freqHz, graph: drawn.graphAt(freqHz, 'own'), measured, refused };
}

/** Whether what an input hangs on was drawn: then what was typed of the whole way says nothing. */
export const isDrawn = (data: StationData, plan: PlannedTransmitter, node: string): boolean =>
  data.guardLinks.some(
    ({ guardPlanId, fromNode, toNode }) => guardPlanId === plan.id && [fromNode, toNode].includes(node),
  );

/** What a plan comes to, said once: page, rail, card and report read this. */
export interface GuardVerdict {
  readonly colour: Colour;
  readonly sentence: string;
  readonly next: string;
  /** Couplings are still being computed. */
  readonly pending: boolean;
}
export function guardVerdict({ proof, pending }: JudgedGuard): GuardVerdict {
  // a danger by known figures stays one, whatever else is computed; everything else may still change
  if (pending === 0 || proof.worst?.colour === 'danger')
    return { colour: proof.colour, sentence: proof.sentence, next: proof.next, pending: false };
  return {
    ...{ colour: 'unknown', pending: true, next: 'Wait for it, or type in Coupling what was measured.' },
    sentence: `No verdict yet: ${pending} ${pending === 1 ? 'coupling is' : 'couplings are'} still being computed.`,
  };
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
    (a, b) => badness(b) - badness(a) || (a.marginDb ?? Infinity) - (b.marginDb ?? Infinity),
  );
  return { down: own.find(({ state }) => state.kind === 'key down'), worst };
}
