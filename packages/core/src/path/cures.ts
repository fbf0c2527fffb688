import { filtersAgainst, USUAL_PREAMPLIFIER } from './usual-parts';
import type { FilterSpec } from '../filter/response';
import { passesDcByShape } from './kinds/filter';
import { type OrderState, orderState, SEVERITY } from './order-state';
import type { PathQuestion, PathReceiver, PathSignal } from './question';
import { type PathStage, stageGainDb, stageIntercepts } from './stages';
import { type AtGain, atWorkingGain } from './working-gain';

/** What can be done about a chain, in the order in which a practitioner tries it. */
type CureKind = 'leave out' | 'stop' | 'move' | 'amplify' | 'pad';

/** Something that is done to a chain. */
interface Step {
  readonly kind: CureKind;
  /** As an order without its full stop: "leave booster out". */
  readonly does: string;
  readonly stages: readonly PathStage[];
}

/** What was tried, applied and found to help. */
export interface Cure {
  readonly kinds: readonly CureKind[];
  /** "leave booster out and put an FM notch ahead of dongle". */
  readonly does: string;
  readonly stages: readonly PathStage[];
  /** The chain afterwards, with the receiver at the gain that suits it then. */
  readonly after: AtGain;
  readonly state: OrderState;
}

/** A chain that is to be cured. */
export interface Patient {
  readonly stages: readonly PathStage[];
  readonly receiver: PathReceiver;
  readonly question: PathQuestion;
  /** Name of the antenna's own amplifier, the first stage, which nothing stands ahead of. */
  readonly headName?: string;
}

/** Carriers by name are tried for so many of the strongest. */
const GUILTY = 3;
const VHF_FROM_HZ = 30e6;
const MOST_PAD_DB = 40;
/** A cure that takes less off the loss is none, dB. */
const WORTH_DB = 1;

const isActive = (stage: PathStage): boolean =>
  stage.kind === 'amplifier' || stage.kind === 'converter' || stageIntercepts(stage) !== undefined;
const inserted = (stages: readonly PathStage[], at: number, stage: PathStage): readonly PathStage[] => [
  ...stages.slice(0, at),
  stage,
  ...stages.slice(at),
];

/** The strongest carriers where it goes wrong: at the stage that is overloaded, or those that make the product. */
function guilty({ analysis }: AtGain, state: OrderState): readonly PathSignal[] {
  const at = analysis.reports.findIndex(({ name }) => name === state.culprit);
  const byLevel = [...analysis.walks].sort(
    (a, b) => (b.levelsDbm[Math.max(0, at)] ?? 0) - (a.levelsDbm[Math.max(0, at)] ?? 0),
  );
  const product = state.state === 'product' ? (analysis.worstProduct?.signals ?? []) : [];
  const named = byLevel.filter(({ signal }) => product.includes(signal.name));
  return [...named, ...byLevel.filter((one) => !named.includes(one))].slice(0, GUILTY).map(({ signal }) => signal);
}

/**
 * Where something goes in: ahead of the first thing that can be driven too far; what stops DC only behind the feed of the antenna's own amplifier, because
 * nothing may come between the two.
 */
function entranceOf({ stages, receiver, headName }: Patient, stopsDc = false) {
  const first = headName === undefined ? 0 : 1;
  const active = stages.findIndex((stage, i) => i >= first && isActive(stage));
  const feed = headName === undefined ? -1 : stages.findLastIndex(({ kind }) => kind === 'bias feed');
  const ahead = active < 0 ? stages.length : active;
  const at = stopsDc ? Math.max(ahead, feed + 1) : ahead;
  return { first, at, behind: at === stages.length ? receiver.name : stages[at].name };
}

/** Everything that may be tried against a state, in order. */
function steps(patient: Patient, now: AtGain, state: OrderState): readonly Step[] {
  const { stages, question } = patient;
  const { first, at: entrance } = entranceOf(patient);
  const entranceFor = (filter: FilterSpec) => entranceOf(patient, !passesDcByShape(filter.shape));
  const centreHz = (question.lowHz + question.highHz) / 2;
  const found: Step[] = [];
  stages.forEach((stage, i) => {
    const optional =
      stage.kind === 'amplifier' || stage.kind === 'filter' || stage.kind === 'pad' || stage.kind === 'part';
    if (i < first || !optional) return;
    // what loses is left out against noise, what amplifies against overload
    const helps =
      state.state === 'noise' || state.state === 'blocked'
        ? stageGainDb(stage, centreHz) < 0
        : stageGainDb(stage, centreHz) > 0;
    if (helps)
      found.push({ kind: 'leave out', does: `leave ${stage.name} out`, stages: stages.filter((_, at) => at !== i) });
  });
  if (state.state !== 'blocked') {
    const tried = new Set<string>();
    for (const carrier of guilty(now, state))
      for (const { id, name, filter } of filtersAgainst(carrier, question)) {
        if (tried.has(id) || stages.some((stage) => stage.name === name)) continue;
        const { at, behind } = entranceFor(filter);
        tried.add(id);
        found.push({
          kind: 'stop',
          does: `put ${name} ahead of ${behind}`,
          stages: inserted(stages, at, { kind: 'filter', name, filter }),
        });
      }
    stages.forEach((stage, i) => {
      if (stage.kind !== 'filter') return;
      const { at, behind } = entranceFor(stage.filter);
      if (i <= at) return;
      found.push({
        kind: 'move',
        does: `move ${stage.name} ahead of ${behind}`,
        stages: inserted(
          stages.filter((_, one) => one !== i),
          at,
          stage,
        ),
      });
    });
  }
  if (state.state === 'noise' || state.state === 'blocked') {
    const amplifier: PathStage = {
      ...{ kind: 'amplifier', name: 'amplifier at the antenna' },
      ...USUAL_PREAMPLIFIER[centreHz < VHF_FROM_HZ ? 'hf' : 'vhf'],
    };
    found.push({
      ...{ kind: 'amplify', does: 'put an amplifier at the antenna' },
      stages: inserted(stages, first, amplifier),
    });
    // beside strong carriers it stands behind the filter that stops them
    const filter = stages.findLast((stage, i) => i >= first && i < entrance && stage.kind === 'filter');
    if (filter)
      found.push({
        ...{ kind: 'amplify', does: `put an amplifier behind ${filter.name}` },
        stages: inserted(stages, stages.indexOf(filter) + 1, { ...amplifier, name: 'amplifier' }),
      });
  }
  return found;
}

/** The least pad that ends an overload or a product, in whole dB. */
function padStep(patient: Patient): Step | undefined {
  const { at, behind } = entranceOf(patient, true);
  const padded = (lossDb: number): readonly PathStage[] =>
    inserted(patient.stages, at, { kind: 'pad', name: 'pad', lossDb });
  const ends = (lossDb: number): boolean => isCured(judgedAt({ ...patient, stages: padded(lossDb) }).state);
  if (!ends(MOST_PAD_DB)) return undefined;
  let [low, high] = [0, MOST_PAD_DB];
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (ends(middle)) high = middle;
    else low = middle;
  }
  return { kind: 'pad', does: `put a pad of ${high} dB ahead of ${behind}`, stages: padded(high) };
}

/** What was wrong is gone: at most noise remains. */
const isCured = ({ state }: OrderState): boolean => SEVERITY[state] <= SEVERITY.noise;

/** A chain with its receiver at its working gain, and how it stands. */
export function judgedAt({ stages, receiver, question, headName }: Patient): {
  readonly now: AtGain;
  readonly state: OrderState;
} {
  const now = atWorkingGain(stages, receiver, question);
  return { now, state: orderState({ stages, analysis: now.analysis }, now.receiver.name, headName) };
}

/**
 * The first thing that a practitioner would do and that ends what is wrong, tried in the computation: a stage left out, a carrier stopped by the filter of
 * its band, a filter moved ahead, an amplifier against noise, and only then a pad; two of them where one is not enough. The receiver works at the gain that
 * suits each. Where nothing brings the loss under 3 dB, that which leaves least.
 * @returns undefined where nothing is wrong, or nothing tried helps.
 */
export function cureFor(patient: Patient): Cure | undefined {
  const { now, state } = judgedAt(patient);
  if (!['overload', 'product', 'blocked', 'noise'].includes(state.state)) return undefined;
  const helps = (after: OrderState): boolean =>
    isCured(after) && (state.state !== 'noise' || after.snrLossDb < state.snrLossDb - WORTH_DB);
  const applied = (step: Step, before?: Cure): Cure => {
    const { now: after, state: then } = judgedAt({ ...patient, stages: step.stages });
    return {
      kinds: [...(before?.kinds ?? []), step.kind],
      does: before ? `${before.does}, then ${step.does}` : step.does,
      ...{ stages: step.stages, after, state: then },
    };
  };
  const singles = steps(patient, now, state).map((step) => applied(step));
  const good = ({ state: then }: Cure): boolean => then.state === 'fine';
  const single = singles.find(good);
  if (single) return single;
  const pairs: Cure[] = [];
  for (const one of singles) {
    // going on from what made it worse leads nowhere
    if (SEVERITY[one.state.state] > SEVERITY[state.state]) continue;
    for (const step of steps({ ...patient, stages: one.stages }, one.after, one.state)) {
      if (step.stages.length === patient.stages.length && one.kinds[0] === 'leave out') continue;
      const both = applied(step, one);
      if (good(both)) return both;
      pairs.push(both);
    }
  }
  const pad = state.state === 'overload' || state.state === 'product' ? padStep(patient) : undefined;
  const all = [...singles, ...(pad ? [applied(pad)] : []), ...pairs].filter((one) => helps(one.state));
  return all.reduce<Cure | undefined>(
    (best, one) => (best && best.state.snrLossDb <= one.state.snrLossDb + WORTH_DB ? best : one),
    undefined,
  );
}
