import type { Saved } from '@velvet-reed/contract';
import { tryDraft } from '@velvet-reed/core/antenna';
import { noiseVerdict, type NoiseVerdict, ORDINARY_FROM_HZ, type StrongCarrier } from '@velvet-reed/core/noise';
import {
  atWorkingGain,
  dcPath,
  type DcPath,
  type DcStage,
  type PathAnalysis,
  type PathReceiver,
  type PathStage,
  pathVerdict,
  type PathVerdict,
} from '@velvet-reed/core/path';
import { benchVerdict, type BenchVerdict, nextCut, type NextCut, type Resonance } from '@velvet-reed/core/sweep';
import { median } from '@velvet-reed/core/numeric';
import { trialVerdict, type TrialVerdict } from '@velvet-reed/core/trial';
import { designOf, latestRevision } from './derive';
import { type Levels, levelsOf, type OffOn } from './levels';
import { askPath, type AskedPath, carriersHere, chokeHint, ownThreat } from './path/question';
import { ordersOf, type StageOrder } from './path/orders';
import { toDcStage, toPathReceiver, toPathStage } from './path/stages';
import type { StationData } from './record';
import { antennaHolding, type AntennaHolding, staleLevel } from './taken-on';

/** One order of a path, analysed: what is heard, and the DC on its coax. */
export interface OrderView {
  /** Its number. */
  readonly order: number;
  /** The records behind it; absent: nobody put the stages in order yet, they stand as they were made. */
  readonly kept?: StageOrder;
  readonly stored: readonly Saved<'pathStages'>[];
  readonly stages: readonly PathStage[];
  readonly analysis: PathAnalysis;
  /** The receiver at the gain that suits this order; its name says which where it has several. */
  readonly receiver: PathReceiver;
  readonly dc: DcPath;
  /** The same stages as DC meets them. */
  readonly dcStages: readonly DcStage[];
}

/** A path judged in both orders; page, report and rail read the same. */
export interface JudgedPath {
  readonly path: Saved<'paths'>;
  readonly receiver: Saved<'receivers'>;
  readonly target: Saved<'targets'>;
  readonly asked: AskedPath;
  readonly orders: readonly OrderView[];
  readonly verdict: PathVerdict;
}

/** Why something in this order does not get its supply; undefined when everything does. */
const supplyFault = ({ dc }: OrderView): string | undefined => dc.loads.flatMap(({ errors }) => errors)[0];

const judged = new WeakMap<StationData, Map<number, JudgedPath | undefined>>();

/** Judges a path on its own target, once for these records; undefined when its receiver or target is gone, or its antenna cannot be judged. */
export function judgedPath(data: StationData, path: Saved<'paths'>): JudgedPath | undefined {
  const known = judged.get(data) ?? new Map<number, JudgedPath | undefined>();
  judged.set(data, known);
  if (!known.has(path.id)) known.set(path.id, judgePath(data, path));
  return known.get(path.id);
}

/** Why a path cannot be judged, and what to do about it; undefined where it can, or its receiver or target is gone. */
export function unjudgedPath(
  data: StationData,
  path: Saved<'paths'>,
): { readonly waiting: boolean; readonly sentence: string; readonly next: string } | undefined {
  const target = data.targets.find((one) => one.id === path.targetId);
  const asked = target && askPath(data, path, target);
  if (!asked || asked.state === 'judged') return undefined;
  const antenna = data.antennas.find(({ id }) => id === path.antennaId)?.name ?? 'the antenna';
  return asked.state === 'waiting'
    ? {
        waiting: true,
        sentence: `${path.name}: what ${antenna} hands on is being computed.`,
        next: 'wait a moment; the figures appear by themselves.',
      }
    : {
        waiting: false,
        sentence: `${path.name} is not judged: nobody can say what ${antenna} hands on at ${target.name}. ${asked.because}`,
        next: 'give the path another antenna or target, or draft this one for the target.',
      };
}

function judgePath(data: StationData, path: Saved<'paths'>): JudgedPath | undefined {
  const receiver = data.receivers.find((one) => one.id === path.receiverId);
  const target = data.targets.find((one) => one.id === path.targetId);
  if (!receiver || !target) return undefined;
  const asked = askPath(data, path, target);
  if (asked.state !== 'judged') return undefined;
  const kept = ordersOf(data, path.id);
  const standing =
    kept.length > 0
      ? kept.map((one) => ({ order: one.record.number, stored: one.stages, kept: one }))
      : [{ order: 1, stored: data.pathStages.filter(({ pathId }) => pathId === path.id) }];
  const orders = standing.map(({ stored, ...one }): OrderView => {
    const stages = [...(asked.head ? [asked.head] : []), ...stored.map((stage) => toPathStage(data, stage))];
    const dcStages = stored.map((stage) => toDcStage(data, stage));
    const working = atWorkingGain(stages, toPathReceiver(receiver), asked.question);
    return { ...one, stored, stages, ...working, dc: dcPath(dcStages), dcStages };
  });
  const threat = ownThreat(data, path);
  const choke = chokeHint(data, path, target);
  const verdict = pathVerdict(
    orders.map((view) => ({
      order: view.order,
      stages: view.stages,
      analysis: view.analysis,
      receiver: view.receiver,
      supplyFault: supplyFault(view),
    })),
    {
      targetName: target.name,
      receiver: toPathReceiver(receiver),
      question: asked.question,
      ...(threat?.destroys ? { threat } : {}),
      ...(choke === undefined ? {} : { choke }),
      ...(asked.head ? { headName: asked.head.name } : {}),
      transmits: !data.station.noTransmitting && data.transmitters.some(({ own }) => own),
    },
  );
  return { path, receiver, target, asked, orders, verdict };
}

/** Two pairs nearer than this in time were written down at once: their times say nothing, ms. */
const AT_ONCE_MS = 1000;

/** What was settled of a trial: pairs close in fading time count for fewer. */
function termsOf(trial: Saved<'trials'>, readings: readonly Saved<'readings'>[]) {
  const times = readings.flatMap(({ atMs }) => (atMs === null ? [] : [atMs])).sort((a, b) => a - b);
  const gaps = times.slice(1).map((at, i) => at - times[i]);
  const spacingMs = gaps.length > 0 ? median(gaps) : 0;
  const rhoLeast = trial.fadingS === null || spacingMs < AT_ONCE_MS ? 0 : Math.exp(-spacingMs / 1000 / trial.fadingS);
  const { worthDb, plannedPairs, primary } = trial;
  return { worthDb, plannedPairs, primary, rhoLeast };
}

/** A trial judged, with the names of its antennas. */
export function judgedTrial(
  data: StationData,
  trial: Saved<'trials'>,
): {
  readonly names: { readonly a: string; readonly b: string };
  readonly readings: readonly Saved<'readings'>[];
  readonly verdict: TrialVerdict;
  /** Whether it still speaks for the two antennas as they stand. */
  readonly holding: AntennaHolding;
} {
  const name = (id: number): string => data.antennas.find((antenna) => antenna.id === id)?.name ?? 'deleted antenna';
  const names = { a: name(trial.antennaAId), b: name(trial.antennaBId) };
  const readings = data.readings.filter((reading) => reading.trialId === trial.id);
  const holding = antennaHolding(data, trial.takenOn, [trial.antennaAId, trial.antennaBId]);
  return { names, readings, holding, verdict: trialVerdict(readings, names, termsOf(trial, readings)) };
}

/** Off/on checks that do not hold for their antenna as it stands, by their numbers. */
export const staleChecks = (data: StationData): ReadonlyMap<number, string> =>
  new Map(
    data.levels.flatMap((level) => {
      const stale = level.kind === 'off and on' ? staleLevel(data, level) : undefined;
      return stale === undefined ? [] : [[level.id, stale] as const];
    }),
  );

/** The transmitter of others that brings most to the antenna of a path; undefined where none is entered, or no antenna is judged yet. */
export function strongestCarrier(data: StationData): StrongCarrier | undefined {
  const { antenna, signals } = carriersHere(data);
  const counted = antenna === undefined ? signals.filter(({ freqHz }) => freqHz >= ORDINARY_FROM_HZ) : signals;
  return [...counted].sort((x, y) => y.levelDbm - x.levelDbm)[0];
}

/** Tests of the noise that hold for their antenna as it stands, oldest first. */
export const standingTests = (data: StationData): Levels['tests'] =>
  levelsOf(data).tests.filter(({ record }) => staleLevel(data, record) === undefined);

/** The noise of a station judged: readings with the antenna off and on decide, other floors are counted. */
export const judgedNoise = (data: StationData): NoiseVerdict<OffOn> => {
  const { offOn, floors, log, devices, tests } = levelsOf(data);
  // a check of another state of its antenna says nothing of this one
  const gone = staleChecks(data);
  return noiseVerdict(
    offOn.filter(({ id }) => !gone.has(id)),
    floors.length + log.length + devices.length + tests.length + gone.size,
    strongestCarrier(data),
  );
};

/** An antenna on the Bench judged. @param dips of the sweep that counts, deepest first. */
export function judgedBench(
  data: StationData,
  antenna: Saved<'antennas'> | undefined,
  dips: readonly Resonance[] | undefined,
  fault?: string,
  sweep?: Saved<'sweeps'>,
): {
  readonly verdict: BenchVerdict;
  readonly steps: readonly Saved<'trimSteps'>[];
  readonly cut?: NextCut;
  readonly targetHz?: number;
  readonly trimName: string;
} {
  const revision = antenna && latestRevision(data, antenna.id);
  const design = revision && designOf(data, revision);
  const steps = data.trimSteps.filter((step) => step.antennaId === antenna?.id);
  const cut = design && steps.length > 0 ? nextCut(steps, design.freqHz) : undefined;
  const trimName = (design && tryDraft(design).draft?.trimName) ?? 'the element';
  const holding = sweep && antenna ? antennaHolding(data, sweep.takenOn, [antenna.id]) : undefined;
  const verdict = benchVerdict({
    dips,
    ...(holding?.state === 'not' ? { stale: holding.sentence } : {}),
    targetHz: design?.freqHz,
    cut,
    trimName,
    lastReadingHz: steps.at(-1)?.freqHz,
    fault,
  });
  return { verdict, steps, cut, targetHz: design?.freqHz, trimName };
}
