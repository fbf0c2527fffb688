import { requirePositive, ShapeError } from '../errors';
import { median } from '../numeric/statistics';
import { pairedDifferences } from '../trial/paired';
import { levelOver, type BandLevel, type BandSeries } from './band-levels';
import { dbfs } from './frames';

/** One antenna's turn in a recording that was switched between two. */
export interface Turn extends BandLevel {
  readonly antenna: 'A' | 'B';
  readonly startS: number;
  readonly stopS: number;
}

/** What a switched recording says. */
export interface Switched {
  readonly turns: readonly Turn[];
  /** SNR of B less that of A, dB, of each pair A then B that has both. */
  readonly differencesDb: readonly number[];
  readonly pairs: {
    readonly n: number;
    readonly meanSnrDb: number | null;
    readonly sdDb: number | null;
    readonly lowDb: number | null;
    readonly highDb: number | null;
  };
  /** Whether level or noise jump where the turns change; if not, the times rest on the plan alone. */
  readonly seen: boolean;
}

/** Turns are this share of the period long at least and at most; the first and the last may be cut short. */
const SHORTEST = 0.6;
const LONGEST = 1.4;
/** Usual scatter of a turn's length, as a share of the period: a hand at the switch. Common practice, no source. */
const JITTER = 0.1;
/** What one more turn must save in squared scatters. Source: Schwarz, Ann. Stat. 6 (1978) 461, for five values in a few hundred. */
const TURN_COST = 30;
/** Values in which a period is looked at first. */
const COARSE_PER_PERIOD = 60;
/** Least scatter that is believed, dB: below it a meter's steps stand. */
const LEAST_SCATTER_DB = 0.15;
/** Time of a switch that belongs to no antenna, s, each side; longer clicks are seen. */
const GUARD_S = 0.08;
/** A plan made by hand is kept to this, s. */
const PLAN_S = 0.5;
/** A click lasts no longer, s. */
const LONGEST_CLICK_S = 0.6;

/** Means over `size` neighbours, dB. */
function coarse(power: Float64Array, size: number): Float64Array {
  return Float64Array.from({ length: Math.floor(power.length / size) }, (_, i) => {
    let sum = 0;
    for (let k = i * size; k < (i + 1) * size; k += 1) sum += power[k];
    return dbfs(sum / size);
  });
}

/** Middle one of nine, of sixty in a turn: clicks go, edges stay. */
const unclicked = (values: Float64Array): Float64Array =>
  values.map((_, i) => median(values.slice(Math.max(0, i - 4), i + 5)));

/** Scatter from one value to the next: a jump here and there does not count. */
const scatterOf = (values: Float64Array): number =>
  Math.max(
    LEAST_SCATTER_DB,
    (1.4826 * median(values.slice(1).map((value, i) => Math.abs(value - values[i])))) / Math.SQRT2,
  );

/** Mean square about one level within half a turn: half of these stretches hold no edge, so their median tells of drift alone. */
function misfitOf(values: Float64Array, fit: (from: number, to: number) => number, period: number): number {
  const span = Math.max(3, Math.floor(period / 2));
  const stretches = Array.from({ length: Math.max(0, values.length - span) }, (_, i) => fit(i, i + span) / span);
  return Math.max(scatterOf(values) ** 2, stretches.length > 0 ? median(stretches) : 0);
}

/** Value that a straight line through `count` values has half a step beyond one of their ends. */
function lineEnd(values: Float64Array, from: number, count: number, end: 'first' | 'last'): number {
  let [sum, slope] = [0, 0];
  for (let i = 0; i < count; i += 1) {
    sum += values[from + i];
    slope += values[from + i] * (i - (count - 1) / 2);
  }
  const perStep = slope / ((count * (count * count - 1)) / 12);
  return sum / count + ((end === 'last' ? 1 : -1) * perStep * count) / 2;
}

/** Jumps of a level over what a steady fade leads to, at places where they are largest around, else zero; and their usual size. */
function jumpsOf(level: Float64Array, period: number): { readonly jumps: Float64Array; readonly usual: number } {
  const reach = Math.max(4, Math.round(JUMP_SHARE * period));
  const raw = level.map((_, at) =>
    at < reach || at + reach > level.length
      ? 0
      : lineEnd(level, at, reach, 'first') - lineEnd(level, at - reach, reach, 'last'),
  );
  const sizes = raw.map(Math.abs);
  const usual = Math.max(LEAST_SCATTER_DB, 1.4826 * median(sizes));
  // around an edge the lines of both sides are bent by it: only the largest jump of a neighbourhood is one
  const jumps = raw.map((jump, at) =>
    sizes.subarray(Math.max(0, at - reach), at + reach + 1).every((one) => one <= sizes[at]) ? jump : 0,
  );
  return { jumps, usual };
}

/** Squared misfit of a stretch to one level, and its mean, in constant time from running sums. */
function misfits(values: Float64Array) {
  const sums = new Float64Array(values.length + 1);
  const squares = new Float64Array(values.length + 1);
  values.forEach((value, i) => {
    sums[i + 1] = sums[i] + value;
    squares[i + 1] = squares[i] + value * value;
  });
  const mean = (from: number, to: number): number => (sums[to] - sums[from]) / (to - from);
  const level = (from: number, to: number): number =>
    Math.max(0, squares[to] - squares[from] - (to - from) * mean(from, to) ** 2);
  return { level, mean };
}

/** Stretch on each side from which the jump of a fading level is told, as a share of the period. */
const JUMP_SHARE = 0.13;
/** No single jump outweighs two turns in the wrong place. */
const MOST_GAIN = 60;

/** What a turn costs for what it is heard as: state 0 or 1, places of its first value and behind its last. */
type TurnCost = (state: 0 | 1, from: number, to: number) => number;

/** Best edges by dynamic programming over turns of about a period, whose states alternate. */
function bestEdges(n: number, period: number, costOf: TurnCost): readonly number[] {
  const [shortest, longest] = [Math.max(2, Math.floor(SHORTEST * period)), Math.ceil(LONGEST * period)];
  const best = [0, 1].map(() => new Float64Array(n + 1).fill(Infinity));
  const from = [0, 1].map(() => new Int32Array(n + 1));
  best[0][0] = best[1][0] = 0;
  for (let to = 2; to <= n; to += 1)
    for (let start = Math.max(0, to - longest); start < to - 1; start += 1) {
      const count = to - start;
      const atEnd = start === 0 || to === n;
      if (count < shortest && !atEnd) continue;
      // an end may be cut short, but not drawn out
      const off = atEnd ? Math.max(0, count - period) : count - period;
      const length = TURN_COST + (off / (JITTER * period)) ** 2;
      for (const state of [0, 1] as const) {
        // the turn ahead was of the other state
        const before = best[1 - state][start];
        if (before === Infinity) continue;
        const cost = before + length + costOf(state, start, to);
        if (cost < best[state][to]) {
          best[state][to] = cost;
          from[state][to] = start;
        }
      }
    }
  const edges: number[] = [];
  let state = best[0][n] <= best[1][n] ? 0 : 1;
  for (let at = from[state][n]; at > 0; at = from[state][at]) {
    edges.unshift(at);
    state = 1 - state;
  }
  return edges;
}

/** Two groups of values with a wide gap between them: the middle of each; undefined where they are one. */
function twoGroups(values: readonly number[], scatter: number): readonly [number, number] | undefined {
  const sorted = [...values].sort((a, b) => a - b);
  const gaps = sorted.slice(1).map((value, i) => value - sorted[i]);
  const at = gaps.indexOf(Math.max(...gaps));
  if (gaps.length < 3 || gaps[at] < 2 * scatter) return undefined;
  return [median(sorted.slice(0, at + 1)), median(sorted.slice(at + 1))];
}

/** What a jump explains when one of this height is expected, in squared scatters: less than nothing where there is none. */
const jumpGain = (jump: number, expected: number, usual: number): number =>
  Math.max(-MOST_GAIN, Math.min(MOST_GAIN, (jump * jump - (jump - expected) ** 2) / (2 * usual * usual)));

/** Edges where the level jumps and the noise changes; looked at twice: the second look knows what the one antenna is to the other. */
function coarseEdges(level: Float64Array, noise: Float64Array, period: number): readonly number[] {
  const n = level.length;
  const ofNoise = misfits(noise);
  const scale = misfitOf(noise, ofNoise.level, period);
  const { jumps, usual } = jumpsOf(level, period);
  const first = bestEdges(
    n,
    period,
    (_, from, to) => (from === 0 ? 0 : -jumpGain(jumps[from], jumps[from], usual)) + ofNoise.level(from, to) / scale,
  );
  const places = [0, ...first, n];
  const heard = places.slice(1).map((to, i) => median(noise.slice(places[i], to)));
  const noises = twoGroups(heard, Math.sqrt(scale));
  // into state 1 the level jumps by this, out of it by as much back
  const height = median(
    first.map((at, i) => (noises ? Math.sign(heard[i + 1] - heard[i]) * jumps[at] : Math.abs(jumps[at]))),
  );
  return bestEdges(n, period, (state, from, to) => {
    const jump = from === 0 ? 0 : jumpGain(jumps[from], state === 1 ? height : -height, usual);
    const off = noises ? ofNoise.mean(from, to) - noises[state] : 0;
    return (ofNoise.level(from, to) + (to - from) * off * off) / scale - jump;
  });
}

/** What a click may cost a value in either band, in squared scatters: more than chance, less than a jump. */
const CLICK_COST = 6;
const MOST_COST = 16;

/** Where around a coarse edge the turn ends, and where the click behind it does, as places in the series. */
function fineEdge(
  bands: readonly Float64Array[],
  around: number,
  reach: number,
  click: number,
): { readonly end: number; readonly clear: number } {
  const n = bands[0].length;
  const [low, high] = [Math.max(1, around - reach), Math.min(n - 1, around + reach)];
  const costs = bands.map((values) => {
    const before = values.slice(Math.max(0, low - 2 * reach), low);
    const after = values.slice(high, Math.min(n, high + 2 * reach));
    const [a, b] = [before, after].map((part) => {
      const middle = median(part);
      return { middle, scale: Math.max(0.5, 1.4826 * median(part.map((one) => Math.abs(one - middle)))) };
    });
    const cost = ({ middle, scale }: typeof a, at: number): number =>
      Math.min(MOST_COST, ((values[at] - middle) / scale) ** 2);
    return { before: (at: number) => cost(a, at), after: (at: number) => cost(b, at) };
  });
  const sumOf = (side: 'before' | 'after', at: number): number => costs.reduce((sum, one) => sum + one[side](at), 0);
  const size = high - low;
  // what the turn before explains up to each place, and the turn behind from there on
  const before = new Float64Array(size + 1);
  const after = new Float64Array(size + 1);
  for (let i = 0; i < size; i += 1) before[i + 1] = before[i] + sumOf('before', low + i);
  for (let i = size - 1; i >= 0; i -= 1) after[i] = after[i + 1] + sumOf('after', low + i);
  let found = { end: around, clear: around };
  let least = Infinity;
  for (let end = 0; end <= size; end += 1)
    for (let clear = end; clear <= Math.min(size, end + click); clear += 1) {
      const cost = before[end] + after[clear] + (clear - end) * CLICK_COST * bands.length;
      if (cost < least) {
        least = cost;
        found = { end: low + end, clear: low + clear };
      }
    }
  return found;
}

/** Jumps at the edges, in their standard errors, must reach this for the switching to count as seen. */
const SEEN = 5;

function jumpsSeen(turns: readonly Turn[], bands: readonly Float64Array[], places: readonly number[]): boolean {
  if (turns.length < 2) return false;
  return bands.some((values) => {
    const jumps = places.slice(1, -1).map((at, i) => {
      const span = Math.max(2, Math.floor(Math.min(at - places[i], places[i + 2] - at) / 3));
      const mean = (from: number, to: number): number => median(values.slice(Math.max(0, from), to));
      return (i % 2 === 0 ? 1 : -1) * (mean(at + 2, at + 2 + span) - mean(at - 2 - span, at - 2));
    });
    const typical = Math.abs(median(jumps));
    const wobble = Math.max(0.1, 1.4826 * median(jumps.map((one) => Math.abs(one - median(jumps)))));
    return (typical / wobble) * Math.sqrt(jumps.length) > SEEN;
  });
}

/** An edge changes the level this many times as much as other moments do. */
const LEAST_CHANGE = 4;
/** Turns whose lengths differ by more than this share, in the middle, are no switching. */
const MOST_UNEVEN = 0.15;

/** The period that jumps of level or noise show, s; undefined when they show none. */
export function switchingPeriodS(series: BandSeries): number | undefined {
  const size = Math.max(1, Math.round(0.1 / series.stepS));
  const stepS = size * series.stepS;
  const reach = Math.max(3, Math.round(1 / stepS));
  const bands = [series.signal, series.noise].map((power) => unclicked(coarse(power, size)));
  const n = bands[0].length;
  const score = new Float64Array(n);
  for (const values of bands) {
    const change = values.map((_, i) =>
      i < reach || i + reach > n
        ? 0
        : Math.abs(median(values.slice(i, i + reach)) - median(values.slice(i - reach, i))),
    );
    // most moments hold no edge: what changes there is fading
    const usual = Math.max(scatterOf(values) / Math.sqrt(reach), median(change));
    change.forEach((one, i) => (score[i] = Math.max(score[i], one / usual)));
  }
  const strongest = Math.max(...score.filter((one) => Number.isFinite(one)), 0);
  const least = Math.max(LEAST_CHANGE, strongest / 4);
  const peaks: number[] = [];
  for (let i = 0; i < n; i += 1) {
    if (score[i] < least) continue;
    const last = peaks[peaks.length - 1];
    if (last === undefined || i - last > reach) peaks.push(i);
    else if (score[i] > score[last]) peaks[peaks.length - 1] = i;
  }
  if (peaks.length < 4) return undefined;
  const turns = peaks.slice(1).map((at, i) => at - peaks[i]);
  const usual = median(turns);
  const uneven = median(turns.map((one) => Math.abs(one - usual))) / usual;
  return uneven > MOST_UNEVEN ? undefined : usual * stepS;
}

/** Series in bands of which the places of the turns are already known: a plan made by hand, or a second look. */
function judgeTurns(
  series: BandSeries,
  cuts: readonly { readonly end: number; readonly clear: number }[],
  seenIn: readonly Float64Array[],
): Switched {
  const { startS, stepS, signal } = series;
  const guard = Math.ceil(GUARD_S / stepS);
  const timeOf = (place: number): number => startS + (place - 0.5) * stepS;
  const ends = [...cuts.map(({ end }) => end), signal.length];
  const starts = [0, ...cuts.map(({ clear }) => clear)];
  const turns = ends.map((end, i): Turn => ({
    antenna: i % 2 === 0 ? 'A' : 'B',
    startS: i === 0 ? 0 : timeOf(ends[i - 1]),
    stopS: timeOf(end),
    ...levelOver(series, starts[i] + (i === 0 ? 0 : guard), Math.max(starts[i] + guard + 1, end - guard)),
  }));
  const differencesDb = turns.flatMap((a, i) => {
    const b = turns[i + 1];
    return i % 2 === 0 && a.snrDb !== null && b && b.snrDb !== null ? [b.snrDb - a.snrDb] : [];
  });
  const result = differencesDb.length > 0 ? pairedDifferences(differencesDb) : undefined;
  return {
    turns,
    differencesDb,
    pairs: {
      n: differencesDb.length,
      meanSnrDb: result?.mean ?? null,
      sdDb: result?.sd ?? null,
      lowDb: result?.ciLow ?? null,
      highDb: result?.ciHigh ?? null,
    },
    seen: jumpsSeen(turns, seenIn, [0, ...ends]),
  };
}

/**
 * The turns of a recording that was switched between two antennas in about even time: edges from jumps of level and noise, clicks left out; the
 * pairs A then B.
 * @param periodS time of one turn, s, as planned or as `switchingPeriodS` found it.
 * @throws ShapeError when the recording is shorter than two turns.
 */
export function switchedTurns(series: BandSeries, periodS: number): Switched {
  requirePositive(periodS, 'Time of one turn (s)');
  const lengthS = series.signal.length * series.stepS;
  if (lengthS < 1.5 * periodS || periodS < 10 * series.stepS)
    throw new ShapeError(
      `The recording is ${lengthS.toFixed(1)} s long, too short for turns of ${periodS} s, or these are too short for its bandwidth. Change the time of a turn.`,
    );
  const size = Math.max(1, Math.round(periodS / COARSE_PER_PERIOD / series.stepS));
  const [level, noise] = [series.signal, series.noise].map((power) => unclicked(coarse(power, size)));
  const edges = coarseEdges(level, noise, periodS / (size * series.stepS));
  const fine = [series.signal, series.noise].map((power) => power.map(dbfs));
  const reach = Math.max(4, Math.round(Math.min(0.6, periodS / 8) / series.stepS));
  const click = Math.round(Math.min(LONGEST_CLICK_S, periodS / 10) / series.stepS);
  return judgeTurns(
    series,
    edges.map((edge) => fineEdge(fine, edge * size, reach, click)),
    [level, noise].map((values) =>
      Float64Array.from(
        { length: fine[0].length },
        (_, i) => values[Math.min(values.length - 1, Math.floor(i / size))],
      ),
    ),
  );
}

/** The turns of a recording whose switching times are known, s from its start. */
export function plannedTurns(series: BandSeries, switchedAtS: readonly number[]): Switched {
  const places = switchedAtS.map((at) => Math.round((at - series.startS) / series.stepS + 0.5));
  places.forEach((place, i) => {
    if (place <= (places[i - 1] ?? 0) || place >= series.signal.length)
      throw new ShapeError(
        `Switching ${i + 1}, at ${switchedAtS[i]} s, lies outside the recording or before the one ahead. Correct the list of times.`,
      );
  });
  const fine = [series.signal, series.noise].map((power) => power.map(dbfs));
  return judgeTurns(
    series,
    // a plan is kept to within a part of a second, and a switch may click
    places.map((place) =>
      fineEdge(fine, place, Math.max(4, Math.round(PLAN_S / series.stepS)), Math.round(LONGEST_CLICK_S / series.stepS)),
    ),
    fine,
  );
}
