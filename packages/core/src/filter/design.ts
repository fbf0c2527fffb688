import type { TransferPoint } from '../formats/two-port';
import { OutOfRangeError, requirePositive, requireRange } from '../errors';
import { preferredCapacitors, type PreferredSeries } from '../resonator/preferred';
import { ellipticLadder } from './elliptic';
import { partScatter, scattered, type Tolerance } from './spread';
import { coilResistance, ladder, ladderLossDb, qFrequencyHz, type Branch, type LadderSpec } from './ladder';
import { LEAKAGE_DB, type FilterFamily, type FilterShape } from './response';

/** Least attenuation wanted at a frequency. */
export interface StopGoal {
  readonly name: string;
  readonly freqHz: number;
  readonly leastDb: number;
}
/** Most loss allowed at a frequency. */
export interface PassGoal {
  readonly name: string;
  readonly freqHz: number;
  readonly mostDb: number;
}

/** What a filter is to do. */
export interface FilterQuestion {
  readonly shape: FilterShape;
  readonly family: FilterFamily | 'elliptic';
  readonly rippleDb: number;
  /** Elliptic: attenuation that the whole stop band keeps, dB. */
  readonly stopDb?: number;
  readonly edgesHz: readonly number[];
  readonly lineOhm: number;
  readonly first: 'series' | 'shunt';
  /** Order to take; undefined: the least that reaches the goals. */
  readonly order?: number;
  readonly stops: readonly StopGoal[];
  /** The first is the wanted band: an order that keeps it is preferred to every order that does not. */
  readonly passes: readonly PassGoal[];
  /** Q of the coils at the edge or middle. */
  readonly coilQ: number;
  readonly series: PreferredSeries;
}

/** A capacitor as it can be bought: one or two in parallel. */
interface RealCapacitor {
  readonly wantedF: number;
  readonly parts: readonly number[];
  readonly sumF: number;
}

/** A goal and what the filter does there. */
export interface GoalResult {
  readonly name: string;
  readonly freqHz: number;
  readonly wantedDb: number;
  readonly lossDb: number;
  readonly met: boolean;
}

/** A filter with ideal and with real parts. */
export interface FilterDesign {
  readonly spec: Omit<LadderSpec, 'family'> & { readonly family: FilterQuestion['family'] };
  readonly ideal: readonly Branch[];
  readonly real: readonly Branch[];
  readonly capacitors: readonly RealCapacitor[];
  readonly stops: readonly GoalResult[];
  readonly passes: readonly GoalResult[];
  readonly met: boolean;
  /** Loss of ideal parts and of real ones at a frequency, dB. */
  readonly idealLossDb: (freqHz: number) => number;
  readonly realLossDb: (freqHz: number) => number;
}

const MOST_ORDER = 15;

/** Branches with capacitors that shops have, a single one if it lies within 2 %, else two in parallel. */
const NEAR = 0.02;
function withRealCapacitors(branches: readonly Branch[], series: PreferredSeries) {
  const capacitors: RealCapacitor[] = [];
  const real = branches.map((branch): Branch => {
    if (branch.farad === undefined) return branch;
    const { single, pair } = preferredCapacitors(branch.farad, series);
    const chosen = single.error <= NEAR ? single : pair;
    capacitors.push({ wantedF: branch.farad, parts: chosen.parts, sumF: chosen.sumF });
    return { ...branch, farad: chosen.sumF };
  });
  return { real, capacitors };
}

/** Attenuation of the stop band that an elliptic filter keeps when nobody said, dB. */
const USUAL_STOP_DB = 50;
const MOST_ELLIPTIC = 11;

/** All orders of a list. */
const permutations = (list: readonly number[]): readonly number[][] =>
  list.length === 0
    ? [[]]
    : list.flatMap((one) => permutations(list.filter((other) => other !== one)).map((tail) => [one, ...tail]));

/** An elliptic filter with its traps in the first order that has no negative element. */
function ellipticBranches(question: FilterQuestion, order: number): readonly Branch[] {
  const pairs = Array.from({ length: (order - 1) / 2 }, (_, i) => i + 1);
  let fault: unknown;
  for (const trapOrder of permutations(pairs))
    try {
      return ellipticLadder({
        ...{ shape: question.shape, edgesHz: question.edgesHz, lineOhm: question.lineOhm },
        ...{ order, trapOrder, rippleDb: question.rippleDb, stopDb: question.stopDb ?? USUAL_STOP_DB },
      });
    } catch (error) {
      if (!(error instanceof OutOfRangeError)) throw error;
      fault = error;
    }
  throw fault;
}

function designOfOrder(question: FilterQuestion, order: number): FilterDesign {
  const { shape, family, rippleDb, edgesHz, lineOhm, first } = question;
  const spec = { shape, family, order, rippleDb, edgesHz, lineOhm, first };
  const ideal = family === 'elliptic' ? ellipticBranches(question, order) : ladder({ ...spec, family });
  const { real, capacitors } = withRealCapacitors(ideal, question.series);
  const coilOhm = coilResistance(question.coilQ, qFrequencyHz(spec));
  const idealLossDb = (freqHz: number): number => ladderLossDb(ideal, freqHz, lineOhm);
  const realLossDb = (freqHz: number): number => ladderLossDb(real, freqHz, lineOhm, coilOhm);
  const stops = question.stops.map(({ name, freqHz, leastDb }): GoalResult => {
    const lossDb = realLossDb(freqHz);
    return { name, freqHz, wantedDb: leastDb, lossDb, met: lossDb >= leastDb };
  });
  const passes = question.passes.map(({ name, freqHz, mostDb }): GoalResult => {
    const lossDb = realLossDb(freqHz);
    return { name, freqHz, wantedDb: mostDb, lossDb, met: lossDb <= mostDb };
  });
  return {
    ...{ spec, ideal, real, capacitors, stops, passes, idealLossDb, realLossDb },
    met: [...stops, ...passes].every(({ met }) => met),
  };
}

/** By how much goals are missed together, dB. */
const missed = (goals: readonly GoalResult[]): number =>
  goals.reduce((sum, goal) => sum + (goal.met ? 0 : Math.abs(goal.wantedDb - goal.lossDb)), 0);

/**
 * A ladder filter that reaches its goals with the fewest branches: orders are tried upwards with real capacitors and coils of finite Q. When no order
 * does, the one that misses the wanted band by least is returned, and of these the one that misses the other goals by least; it is marked as not met.
 * @throws OutOfRangeError for edges that do not fit the shape, or an order that the family cannot have.
 */
export function designFilter(question: FilterQuestion): FilterDesign {
  requirePositive(question.coilQ, 'Q of the coils');
  requirePositive(question.lineOhm, 'Line (ohm)');
  const needed = question.shape === 'lowpass' || question.shape === 'highpass' ? 1 : 2;
  if (question.edgesHz.length < needed)
    throw new OutOfRangeError(
      `A ${question.shape} filter needs ${needed === 1 ? 'one edge' : 'two edges'}. Enter ${needed === 1 ? 'it' : 'both'}.`,
      'edges',
    );
  if (question.order !== undefined) {
    requireRange(question.order, 'Order', 1, MOST_ORDER);
    return designOfOrder(question, question.order);
  }
  const step = question.family === 'butterworth' ? 1 : 2; // even orders of the others would need unequal ends
  const most = question.family === 'elliptic' ? MOST_ELLIPTIC : MOST_ORDER;
  let best: FilterDesign | undefined;
  let least: readonly [number, number] = [Infinity, Infinity];
  for (let order = question.family === 'butterworth' ? 2 : 3; order <= most; order += step) {
    const design = designOfOrder(question, order);
    if (design.met) return design;
    const miss = [missed(design.passes.slice(0, 1)), missed([...design.passes.slice(1), ...design.stops])] as const;
    if (miss[0] < least[0] || (miss[0] === least[0] && miss[1] < least[1])) {
      least = miss;
      best = design;
    }
  }
  if (!best) throw new OutOfRangeError('No order can be built from these edges. Change an edge.', 'edges');
  return best;
}

/** A designed filter with real parts as the gain of a part; no built filter keeps more than its leakage. */
export const builtTransfer = (design: FilterDesign, freqsHz: readonly number[]): readonly TransferPoint[] =>
  [...new Set(freqsHz)]
    .sort((a, b) => a - b)
    .map((freqHz) => ({ freqHz, gainDb: -Math.min(LEAKAGE_DB, design.realLossDb(freqHz)) }));

/** What scatter does to a filter. */
export interface FilterYield {
  readonly samples: number;
  /** Share of samples that meet every goal. */
  readonly yieldShare: number;
  /** The goal that fails most often, with the share that misses it. */
  readonly weakest?: { readonly name: string; readonly freqHz: number; readonly missShare: number };
  /** 5th and 95th percentile of the loss at each goal, stops first, dB. */
  readonly bands: readonly {
    readonly name: string;
    readonly freqHz: number;
    readonly lowDb: number;
    readonly highDb: number;
  }[];
  /** Every part high, and every part low, by its tolerance: whether the goals still hold. */
  readonly allHigh: boolean;
  readonly allLow: boolean;
}

/**
 * Many filters with parts drawn uniformly within their tolerance: the share that meets every goal, and what the goals see. Correlated batches only
 * shift the frequency: the corners with all parts high or low are told beside it.
 * @param seed same seed, same samples.
 */
export function filterYield(
  design: FilterDesign,
  coilQ: number,
  tolerance: Tolerance,
  samples = 100_000,
  seed = 1,
): FilterYield {
  requireRange(samples, 'Samples', 100, 1_000_000);
  requireRange(tolerance.coil, 'Tolerance of the coils (ratio)', 0, 0.5);
  requireRange(tolerance.capacitor, 'Tolerance of the capacitors (ratio)', 0, 0.5);
  const goals = [
    ...design.stops.map((goal) => ({ ...goal, stop: true })),
    ...design.passes.map((goal) => ({ ...goal, stop: false })),
  ];
  const coilOhm = coilResistance(coilQ, qFrequencyHz(design.spec));
  const { lineOhm } = design.spec;
  const lossesOf = (factor: (share: number) => number): readonly number[] => {
    const branches = scattered(design.real, tolerance, factor);
    return goals.map(({ freqHz }) => ladderLossDb(branches, freqHz, lineOhm, coilOhm));
  };
  const holds = (losses: readonly number[], i: number): boolean =>
    goals[i].stop ? losses[i] >= goals[i].wantedDb : losses[i] <= goals[i].wantedDb;
  const all = goals.map(() => new Float64Array(samples));
  const missed = goals.map(() => 0);
  const draw = partScatter(seed);
  let good = 0;
  for (let n = 0; n < samples; n += 1) {
    const losses = lossesOf(draw);
    let fine = true;
    for (let i = 0; i < goals.length; i += 1) {
      all[i][n] = losses[i];
      if (!holds(losses, i)) {
        missed[i] += 1;
        fine = false;
      }
    }
    if (fine) good += 1;
  }
  const worst = missed.indexOf(Math.max(...missed));
  const corner = (sign: 1 | -1): boolean => {
    const losses = lossesOf((share) => 1 + sign * share);
    return goals.every((_, i) => holds(losses, i));
  };
  return {
    samples,
    yieldShare: good / samples,
    ...(worst >= 0 && missed[worst] > 0
      ? { weakest: { name: goals[worst].name, freqHz: goals[worst].freqHz, missShare: missed[worst] / samples } }
      : {}),
    bands: goals.map(({ name, freqHz }, i) => {
      const sorted = all[i].sort();
      return { name, freqHz, lowDb: sorted[Math.floor(0.05 * samples)], highDb: sorted[Math.floor(0.95 * samples)] };
    }),
    allHigh: corner(1),
    allLow: corner(-1),
  };
}
