import { OutOfRangeError, requireRange } from '../errors';
import { powerDb, powerRatio } from '../units/decibel';
import { noisePowerDbm } from '../site/external-noise';
import { productsInBand, type ProductKind } from './intermod';
import type { PathQuestion, PathReceiver, PathSignal } from './question';
import { effectiveNoiseFigureDb, peakRoomDb, preselectionDb } from './receiver';
import { atWorkingGains } from './receiver-kinds';
import { compressionDbm, stageGainDb, stageIntercepts, stageNoise, type PathStage } from './stages';

/** A part from the shelf. */
export interface ShelfPart {
  readonly stage: PathStage;
  /** It must be used (the line into the house); others may be left out. */
  readonly needed: boolean;
  /** In any one unit; decides only between sequences that hear alike. */
  readonly cost: number;
}

/** A wanted band as the search judges it. */
export interface SearchGoal extends Omit<PathQuestion, 'signals'> {
  readonly name: string;
}

/** A sequence of parts and what it does for the worst goal. */
export interface FoundOrder {
  /** Indices into the shelf, antenna first. */
  readonly order: readonly number[];
  /** SNR lost to the chain, products counted as noise, at each goal, dB. */
  readonly lossesDb: readonly number[];
  readonly worstGoal: number;
  readonly cost: number;
  /** The receiver at the gain that suits each goal. */
  readonly gains: readonly string[];
}

export interface SearchResult {
  readonly best?: FoundOrder;
  readonly runnerUp?: FoundOrder;
  /** Why the winner wins, or why nothing does. */
  readonly sentence: string;
  /** Sequences looked at, and those that a bound spared. */
  readonly visited: number;
  readonly pruned: number;
}

export const MOST_PARTS = 14;
/** Sequences within this of each other hear alike: then the cheaper one wins, dB. */
const ALIKE_DB = 0.1;
/** Stands for an intercept that is out of reach, dBm. */
const NEVER_DBM = 300;
/** Nodes between two reports of progress. */
const REPORT_EVERY = 20_000;

/** What is known of every part before the search, so that a node costs a few sums. */
interface Plan {
  readonly goals: readonly SearchGoal[];
  readonly signals: readonly PathSignal[];
  /** [part][goal], dB and noise factor. */
  readonly goalGainDb: readonly (readonly number[])[];
  readonly factor: readonly (readonly number[])[];
  /** [part][signal], dB. */
  readonly signalGainDb: readonly (readonly number[])[];
  readonly intercepts: readonly (readonly [iip2Dbm: number, iip3Dbm: number] | undefined)[];
  /** Most total power at the input, dBm. */
  readonly mostDbm: readonly number[];
  readonly products: readonly (readonly ProductKind[])[];
  /** Noise at the antenna with a noiseless chain, dBm per goal; and as a ratio to 290 K. */
  readonly external: readonly number[];
}

function planOf(shelf: readonly ShelfPart[], goals: readonly SearchGoal[], signals: readonly PathSignal[]): Plan {
  const centre = (goal: SearchGoal): number => (goal.lowHz + goal.highHz) / 2;
  const goalGainDb = shelf.map(({ stage }) => goals.map((goal) => stageGainDb(stage, centre(goal))));
  return {
    goals,
    signals,
    goalGainDb,
    factor: shelf.map(({ stage }) => goals.map((goal) => stageNoise(stage, centre(goal)).noiseFactor)),
    signalGainDb: shelf.map(({ stage }) => signals.map(({ freqHz }) => stageGainDb(stage, freqHz))),
    intercepts: shelf.map(({ stage }) => {
      const found = stageIntercepts(stage);
      // an intercept that nobody stated counts as out of reach
      return found && ([found.iip2Dbm ?? NEVER_DBM, found.iip3Dbm ?? NEVER_DBM] as const);
    }),
    mostDbm: shelf.map(({ stage }) => compressionDbm(stage) ?? Infinity),
    products: goals.map((goal) =>
      productsInBand(
        signals.map(({ freqHz }) => freqHz),
        goal.lowHz,
        goal.highHz,
        goal.bandwidthHz / 2,
      ),
    ),
    external: goals.map(({ externalFaDb }) => powerRatio(externalFaDb)),
  };
}

/** The chain so far. Arrays belong to one depth and are written anew when that depth is entered again. */
interface Prefix {
  readonly gainDb: Float64Array;
  readonly noise: Float64Array;
  readonly levels: Float64Array;
  /** Amplitude of each product referred to the antenna, summed in phase, [goal] → values. */
  readonly made: readonly Float64Array[];
}

const emptyPrefix = (plan: Plan): Prefix => ({
  gainDb: new Float64Array(plan.goals.length),
  noise: new Float64Array(plan.goals.length).fill(1),
  levels: Float64Array.from(plan.signals, ({ levelDbm }) => levelDbm),
  made: plan.products.map((kinds) => new Float64Array(kinds.length)),
});

/** Adds what a stage with intercepts makes of the carriers at its input. */
function addProducts(plan: Plan, prefix: Prefix, [iip2, iip3]: readonly [number, number]): void {
  plan.products.forEach((kinds, goal) => {
    kinds.forEach((kind, k) => {
      const [p1, p2] = [prefix.levels[kind.first], prefix.levels[kind.second]];
      const dbm = (kind.order === 3 ? 2 * p1 + p2 - 2 * iip3 : p1 + p2 - iip2) + kind.offsetDb - prefix.gainDb[goal];
      prefix.made[goal][k] += 10 ** (dbm / 20);
    });
  });
}

const totalDbm = (levels: Float64Array): number => {
  let sum = 0;
  for (const level of levels) sum += 10 ** (level / 10);
  return sum === 0 ? -Infinity : 10 * Math.log10(sum);
};

/** SNR lost at each goal with the strongest product counted as noise, dB. */
function losses(plan: Plan, prefix: Prefix): number[] {
  return plan.goals.map((goal, g) => {
    const noise = plan.external[g] + (goal.antennaNoise ?? 0) + prefix.noise[g] - 1;
    const lossDb = powerDb(noise / plan.external[g]);
    let strongest = 0;
    for (const value of prefix.made[g]) strongest = Math.max(strongest, value);
    if (strongest === 0) return lossDb;
    const overDb = 20 * Math.log10(strongest) - noisePowerDbm(powerDb(noise), goal.bandwidthHz);
    return lossDb + powerDb(1 + powerRatio(overDb));
  });
}

/**
 * The best set and order of parts: the one whose worst goal loses least, without overload, then the cheapest. Exhaustive with a bound: a chain only gets
 * noisier and only gains products as parts and the receiver are added, so a beginning that is already worse than the best whole is left. Two passive parts
 * side by side commute and are tried in one order only. A generator: it yields its progress and can be stopped.
 * @throws OutOfRangeError for more than 14 parts or no goal.
 */
export function* searchOrder(
  shelf: readonly ShelfPart[],
  receiver: PathReceiver,
  goals: readonly SearchGoal[],
  signals: readonly PathSignal[],
  head?: PathStage,
): Generator<{ readonly visited: number; readonly best?: FoundOrder }, SearchResult> {
  requireRange(shelf.length, 'Parts', 0, MOST_PARTS);
  if (shelf.some(({ stage }) => stage.kind === 'converter'))
    throw new OutOfRangeError(
      'Behind a converter everything has another frequency, so its place is not searched. Take it out, or order its stages by hand.',
    );
  if (goals.length === 0) throw new OutOfRangeError('There is nothing to listen to. Enter a target in Listen.');
  const all = head ? [...shelf, { stage: head, needed: true, cost: 0 }] : shelf;
  const plan = planOf(all, goals, signals);
  const settings = atWorkingGains(receiver).map((one) => ({
    ...{ name: one.name, fullScaleDbm: one.fullScaleDbm, intercepts: [one.iip2Dbm, one.iip3Dbm] as const },
    factor: powerRatio(effectiveNoiseFigureDb(one)),
  }));
  const receiverFactor = Math.min(...settings.map(({ factor }) => factor));
  const levels = Array.from({ length: all.length + 2 }, () => emptyPrefix(plan));
  const copy = (from: Prefix, to: Prefix): void => {
    to.gainDb.set(from.gainDb);
    to.noise.set(from.noise);
    to.levels.set(from.levels);
    from.made.forEach((values, g) => to.made[g].set(values));
  };
  /** Appends a part to a prefix in place; false when it is overloaded. */
  const append = (prefix: Prefix, part: number): boolean => {
    const intercepts = plan.intercepts[part];
    if (plan.mostDbm[part] < Infinity && totalDbm(prefix.levels) > plan.mostDbm[part]) return false;
    if (intercepts) addProducts(plan, prefix, intercepts);
    for (let g = 0; g < goals.length; g += 1) {
      prefix.noise[g] += (plan.factor[part][g] - 1) / powerRatio(prefix.gainDb[g]);
      prefix.gainDb[g] += plan.goalGainDb[part][g];
    }
    for (let s = 0; s < signals.length; s += 1) prefix.levels[s] += plan.signalGainDb[part][s];
    return true;
  };
  const closing = emptyPrefix(plan);
  /** The chain with the receiver behind it, at each goal with the gain that suits it there; undefined when that is overloaded at every gain. */
  const closed = (
    prefix: Prefix,
  ): { readonly lossesDb: readonly number[]; readonly gains: readonly string[] } | undefined => {
    let best: { readonly lossesDb: readonly number[]; readonly gains: readonly string[] } | undefined;
    for (const { name, fullScaleDbm, intercepts, factor } of settings) {
      copy(prefix, closing);
      for (let s = 0; s < signals.length; s += 1) closing.levels[s] -= preselectionDb(receiver, signals[s].freqHz);
      if ((peakRoomDb([...closing.levels], fullScaleDbm) ?? 0) < 0) continue;
      addProducts(plan, closing, intercepts);
      for (let g = 0; g < goals.length; g += 1) closing.noise[g] += (factor - 1) / powerRatio(closing.gainDb[g]);
      const found = losses(plan, closing);
      const before = best;
      best = {
        lossesDb: found.map((lossDb, g) => Math.min(lossDb, before?.lossesDb[g] ?? Infinity)),
        gains: found.map((lossDb, g) =>
          lossDb < (before?.lossesDb[g] ?? Infinity) ? name : (before?.gains[g] ?? name),
        ),
      };
    }
    return best;
  };
  let best: (FoundOrder & { readonly worst: number }) | undefined;
  let second: (FoundOrder & { readonly worst: number }) | undefined;
  let visited = 0;
  let pruned = 0;
  let overloaded = 0;
  const used: number[] = [];
  const needed = shelf.flatMap((part, i) => (part.needed ? [i] : []));
  const better = (a: { worst: number; cost: number }, b: { worst: number; cost: number } | undefined): boolean =>
    !b ||
    a.worst < b.worst - ALIKE_DB ||
    (a.worst < b.worst + ALIKE_DB && (a.cost < b.cost || (a.cost === b.cost && a.worst < b.worst)));
  /** What any end of a beginning loses and costs at least: what must still be used costs, and the receiver adds its noise behind all gain that is left. */
  const atBest = (prefix: Prefix): { worst: number; cost: number } => {
    const left = shelf.map((_, part) => part).filter((part) => !used.includes(part));
    for (let g = 0; g < goals.length; g += 1) {
      const mostDb = left.reduce((sum, part) => sum + Math.max(0, plan.goalGainDb[part][g]), prefix.gainDb[g]);
      closing.noise[g] = prefix.noise[g] + (receiverFactor - 1) / powerRatio(mostDb);
      closing.made[g].set(prefix.made[g]);
    }
    const cost = [...used, ...left.filter((part) => shelf[part].needed)].reduce((sum, i) => sum + shelf[i].cost, 0);
    return { worst: Math.max(...losses(plan, closing)), cost };
  };
  const consider = (prefix: Prefix): void => {
    if (needed.some((part) => !used.includes(part))) return;
    const end = closed(prefix);
    if (!end) {
      overloaded += 1;
      return;
    }
    const { lossesDb, gains } = end;
    const worst = Math.max(...lossesDb);
    const found = {
      order: [...used],
      ...{ lossesDb, gains },
      worstGoal: lossesDb.indexOf(worst),
      cost: used.reduce((sum, part) => sum + shelf[part].cost, 0),
      worst,
    };
    if (better(found, best)) {
      second = best;
      best = found;
    } else if (better(found, second)) second = found;
  };
  const passive = (part: number): boolean => {
    const { stage } = all[part];
    return (
      stage.kind !== 'amplifier' &&
      !(stage.kind === 'part' && (stage.noiseFigureDb !== undefined || plan.intercepts[part]))
    );
  };
  const descend = function* (depth: number): Generator<{ readonly visited: number; readonly best?: FoundOrder }> {
    const prefix = levels[depth];
    visited += 1;
    if (visited % REPORT_EVERY === 0) yield { visited, ...(best ? { best } : {}) };
    consider(prefix);
    const last = used[used.length - 1];
    for (let part = 0; part < shelf.length; part += 1) {
      if (used.includes(part)) continue;
      if (last !== undefined && part < last && passive(part) && passive(last)) continue;
      const next = levels[depth + 1];
      copy(prefix, next);
      if (!append(next, part)) {
        overloaded += 1;
        continue;
      }
      used.push(part);
      // the runner-up must be found too: a beginning is left when no end of it can be better than either
      if (second && !better(atBest(next), best) && !better(atBest(next), second)) pruned += 1;
      else yield* descend(depth + 1);
      used.pop();
    }
  };
  if (!head || append(levels[0], shelf.length)) yield* descend(0);
  else overloaded += 1;
  const strip = (found: typeof best): FoundOrder | undefined => {
    if (!found) return undefined;
    const { worst: _worst, ...rest } = found;
    return rest;
  };
  const [winner, runnerUp] = [strip(best), strip(second)];
  return {
    ...(winner ? { best: winner } : {}),
    ...(runnerUp ? { runnerUp } : {}),
    sentence: decided(winner, runnerUp, shelf, goals, overloaded, receiver.name),
    visited,
    pruned,
  };
}

const named = (order: readonly number[], shelf: readonly ShelfPart[]): string =>
  order.length === 0 ? 'nothing in between' : order.map((part) => shelf[part].stage.name).join(', then ');

function decided(
  best: FoundOrder | undefined,
  second: FoundOrder | undefined,
  shelf: readonly ShelfPart[],
  goals: readonly SearchGoal[],
  overloaded: number,
  receiverName: string,
): string {
  if (!best)
    return overloaded > 0
      ? 'Every set and order of these parts is overloaded at every gain. Put a filter on the shelf that stops the strongest carrier.'
      : 'No set of these parts holds all that must be used.';
  const { name } = goals[best.worstGoal];
  const own = `${named(best.order, shelf)}: ${name} loses ${best.lossesDb[best.worstGoal].toFixed(1)} dB at worst${best.gains[best.worstGoal] === receiverName ? '' : `, with ${best.gains[best.worstGoal]}`}`;
  if (!second) return `${own}. Nothing else works.`;
  const theirs = second.lossesDb[second.worstGoal];
  const gap = theirs - best.lossesDb[best.worstGoal];
  return gap <= ALIKE_DB
    ? `${own}. ${named(second.order, shelf)} hears alike, at ${second.cost > best.cost ? 'more cost' : 'the same cost'}.`
    : `${own}. Next best: ${named(second.order, shelf)}, ${gap.toFixed(1)} dB worse on ${goals[second.worstGoal].name}.`;
}
