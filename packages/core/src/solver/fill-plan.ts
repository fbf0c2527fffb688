import { finenessOf, groundLimitsOf, isLevel, limitsOf, middlesOf, mirrored } from './images';
import type { Mesh } from './mesh';
import type { Fineness, Placed } from './pair';

// named once: hot loops must not look them up on a global
const { abs, ceil, hypot, log2, max, min, round } = Math;

/** Segments that follow each other on one straight wire, all of one length. */
export interface Run {
  readonly first: number;
  readonly count: number;
}

/** How the interactions of two runs repeat: by the difference of the places, by their sum, or not at all. */
type Shape = 'difference' | 'sum' | 'none';

/** A pair of segments to be integrated: p, q, and the slot that its block belongs to; three numbers each. */
type PairList = Int32Array;
export const PER_PAIR = 3;

/** Two runs whose blocks are those of a task, perhaps with one or both counted from their other end. */
interface Use {
  readonly a: Run;
  readonly b: Run;
  readonly flipA: boolean;
  readonly flipB: boolean;
}

/** Interactions of two runs that are computed once, and all pairs of runs that lie to each other in the same way. */
export interface FillTask {
  readonly uses: readonly Use[];
  /** Equal for tasks of any mesh whose blocks are the same at one frequency over one ground; absent where parts were not compared. */
  readonly key?: string;
  readonly shape: Shape;
  /** A run with itself: only places i ≤ j are meant. */
  readonly self: boolean;
  /** Places on the first run that this task covers. */
  readonly from: number;
  readonly to: number;
  readonly slots: number;
  /** What is integrated through e^{−jkR}/R, and through the ground's own terms. */
  readonly lists: Readonly<Record<Fineness, PairList>>;
  readonly groundLists: Readonly<Record<Fineness, PairList>>;
}

/** What a fill computes for a mesh: once for the waves that go straight, once for those that come from below. It does not depend on the frequency. */
export interface FillPlan {
  readonly runs: readonly Run[];
  /** Run of each segment. */
  readonly runOf: Int32Array;
  readonly direct: readonly FillTask[];
  readonly below: readonly FillTask[];
  readonly image: Placed;
  /** Pairs of segments that are integrated, and how many there are. */
  readonly integrated: number;
  readonly pairs: number;
}

/** Lengths and places that differ by less than this share of the antenna are the same: far below what changes a digit, far above rounding. */
const SAME = 1e-11;
/** A task has at most so many slots: its blocks stay in the cache. */
const MOST_SLOTS = 16_384;
/** Beyond so many runs looking for equal pairs costs more than it saves. */
const MOST_COMPARED = 120;

function runsOf(mesh: Mesh, tolerance: number): Run[] {
  const runs: { first: number; count: number }[] = [];
  for (let i = 0; i < mesh.segments; i += 1) {
    const last = runs[runs.length - 1];
    const same =
      i > 0 &&
      mesh.wireOf[i] === mesh.wireOf[i - 1] &&
      abs(mesh.lengthM[i] - mesh.lengthM[last.first]) * (last.count + 1) < tolerance;
    if (same) last.count += 1;
    else runs.push({ first: i, count: 1 });
  }
  return runs;
}

type Point = readonly number[];
/** Step from one segment of a run to the next, m. */
const stepOf = ({ lengthM }: Mesh, { direction }: Placed, i: number): Point =>
  [0, 1, 2].map((axis) => lengthM[i] * direction[3 * i + axis]);

/** Both ends of a run. */
function endsOf(mesh: Mesh, { first, count }: Run): readonly [Point, Point] {
  const from = [0, 1, 2].map((axis) => mesh.start[3 * first + axis]);
  const step = stepOf(mesh, mesh, first);
  return [from, from.map((value, axis) => value + count * step[axis])];
}
const apart = (a: Point, b: Point): number => hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

interface Kept {
  readonly uses: Use[];
  readonly flipA: boolean;
  readonly flipB: boolean;
}

const FLIPS = [
  [false, false],
  [true, true],
  [true, false],
  [false, true],
] as const;

/**
 * What two runs are to each other: equal numbers mean congruent, so that all integrals are the same. With the ground below, heights count too.
 * Of the ways in which either can be counted from its other end the one with the smallest numbers is taken.
 */
function congruence(
  mesh: Mesh,
  a: Run,
  b: Run,
  self: boolean,
  heights: boolean,
  tolerance: number,
): { readonly key: string; readonly flipA: boolean; readonly flipB: boolean } {
  const [endsA, endsB] = [endsOf(mesh, a), endsOf(mesh, b)];
  const whole = (value: number): number => round(value / tolerance);
  const distances = [0, 1].map((i) => [0, 1].map((j) => whole(apart(endsA[i], endsB[j]))));
  let best: number[] | undefined;
  let chosen: (typeof FLIPS)[number] = FLIPS[0];
  for (const flips of self ? FLIPS.slice(0, 2) : FLIPS) {
    const [f, g] = flips.map(Number);
    const numbers = [
      ...[distances[f][g], distances[f][1 - g], distances[1 - f][g], distances[1 - f][1 - g]],
      ...(heights ? [whole(endsA[f][2]), whole(endsA[1 - f][2]), whole(endsB[g][2]), whole(endsB[1 - g][2])] : []),
    ];
    const at = best ? numbers.findIndex((value, i) => value !== best?.[i]) : 0;
    if (best && (at < 0 || numbers[at] > best[at])) continue;
    best = numbers;
    chosen = flips;
  }
  const own = [
    ...[a.count, b.count, whole(mesh.lengthM[a.first]), whole(mesh.lengthM[b.first])],
    (mesh.radiusM[a.first] ** 2 + mesh.radiusM[b.first] ** 2).toPrecision(12),
  ];
  return { key: [tolerance, Number(self), ...own, ...(best ?? [])].join(), flipA: chosen[0], flipB: chosen[1] };
}

/** Visits places i and j of two runs, and their slot: all pairs, or one of those that repeat. */
function visitPairs(
  { shape, self, from, to }: Pick<FillTask, 'shape' | 'self' | 'from' | 'to'>,
  countA: number,
  countB: number,
  visit: (i: number, j: number, slot: number) => void,
): void {
  if (shape === 'difference') {
    for (let d = self ? 0 : 1 - countA; d < countB; d += 1) {
      const i = max(0, -d);
      if (i < countA) visit(i, i + d, self ? d : d + countA - 1);
    }
    return;
  }
  if (shape === 'sum') {
    for (let s = 0; s <= countA + countB - 2; s += 1) {
      const i = self ? s >> 1 : min(s, countA - 1);
      visit(i, s - i, s);
    }
    return;
  }
  for (let i = from; i < to; i += 1)
    for (let j = self ? i : 0; j < countB; j += 1) visit(i, j, (i - from) * countB + j);
}

/** Pairs by fineness, in lists with room for as many as were asked for. */
class Lists {
  private readonly room: Readonly<Record<Fineness, Int32Array>>;
  private readonly used: Record<Fineness, number> = { near: 0, middle: 0, far: 0 };
  constructor(most: number) {
    const list = (): Int32Array => new Int32Array(PER_PAIR * (most + 1));
    this.room = { near: list(), middle: list(), far: list() };
  }
  clear(): void {
    this.used.near = this.used.middle = this.used.far = 0;
  }
  add(fineness: Fineness, p: number, q: number, slot: number): void {
    const list = this.room[fineness];
    const at = this.used[fineness];
    list[at] = p;
    list[at + 1] = q;
    list[at + 2] = slot;
    this.used[fineness] = at + PER_PAIR;
  }
  /** Copies of the lists. One more is added to an odd one, into a slot that nobody reads: the kernel takes two at a time. */
  finished(spare: number): Readonly<Record<Fineness, PairList>> {
    const even = (fineness: Fineness): PairList => {
      const list = this.room[fineness];
      if ((this.used[fineness] / PER_PAIR) % 2 === 1) this.add(fineness, list[0], list[1], spare);
      return list.slice(0, this.used[fineness]);
    };
    return { near: even('near'), middle: even('middle'), far: even('far') };
  }
}

/** Plans what a mesh's matrix needs. @param below whether there is ground: images count. @param real whether it has terms of its own */
function makePlan(mesh: Mesh, below: boolean, real: boolean): FillPlan {
  let extent = 0;
  for (const value of mesh.start) extent = max(extent, abs(value));
  // a power of two: the same for the next mesh, of which a part moved a little
  const tolerance = 2 ** ceil(log2(SAME * max(extent, ...mesh.lengthM)));
  const runs = runsOf(mesh, tolerance);
  const runOf = new Int32Array(mesh.segments);
  runs.forEach(({ first, count }, r) => runOf.fill(r, first, first + count));
  const image = mirrored(mesh);
  const compare = runs.length <= MOST_COMPARED;
  const middles = middlesOf(mesh, mesh.lengthM);
  let integrated = 0;
  const most = runs.reduce((largest, { count }) => max(largest, count), 1);
  const room = max(min(MOST_SLOTS, most * most), 2 * most);
  const waves = new Lists(room);
  const none = new Lists(1).finished(0);
  const layer = (placedQ: Placed, fromBelow: boolean): FillTask[] => {
    const middlesQ = fromBelow ? middlesOf(image, mesh.lengthM) : middles;
    const terms = fromBelow && real ? new Lists(room) : waves;
    const known = new Map<string, Kept>();
    const tasks: FillTask[] = [];
    const add = (a: Run, b: Run): void => {
      const self = a === b;
      const { key, flipA, flipB } = compare
        ? congruence(mesh, a, b, self, fromBelow, tolerance)
        : { key: `${a.first},${b.first}`, flipA: false, flipB: false };
      const met = known.get(key);
      if (met) {
        met.uses.push({ a, b, flipA: flipA !== met.flipA, flipB: flipB !== met.flipB });
        return;
      }
      const uses: Use[] = [{ a, b, flipA: false, flipB: false }];
      known.set(key, { uses, flipA, flipB });
      const [stepA, stepB] = [stepOf(mesh, mesh, a.first), stepOf(mesh, placedQ, b.first)];
      const all = (off: (axis: number) => number): boolean =>
        [0, 1, 2].every((axis) => abs(off(axis)) * (a.count + b.count) < tolerance);
      const shape = all((axis) => stepA[axis] - stepB[axis])
        ? 'difference'
        : all((axis) => stepA[axis] + stepB[axis])
          ? 'sum'
          : 'none';
      const limits = limitsOf(mesh.lengthM[a.first], mesh.lengthM[b.first]);
      const upright = !isLevel(mesh.direction[3 * a.first + 2]) || !isLevel(mesh.direction[3 * b.first + 2]);
      const groundLimits = groundLimitsOf(mesh.lengthM[a.first], mesh.lengthM[b.first], upright);
      const rows = shape === 'none' ? max(1, Math.floor(MOST_SLOTS / b.count)) : a.count;
      for (let from = 0; from < a.count; from += rows) {
        const to = min(a.count, from + rows);
        const slots = shape === 'none' ? (to - from) * b.count : a.count + b.count - 1;
        const same = `${key},${Number(flipA)},${Number(flipB)},${shape},${from},${fromBelow ? 'below' : 'direct'}`;
        const task = { uses, ...(compare ? { key: same } : {}), shape, self, from, to, slots } as const;
        waves.clear();
        terms.clear();
        visitPairs(task, a.count, b.count, (i, j, slot) => {
          const p = a.first + i;
          const q = b.first + j;
          integrated += 1;
          waves.add(finenessOf(middles, p, middlesQ, q, limits), p, q, slot);
          if (terms !== waves) terms.add(finenessOf(middles, p, middlesQ, q, groundLimits), p, q, slot);
        });
        tasks.push({
          ...task,
          lists: waves.finished(slots),
          groundLists: terms === waves ? none : terms.finished(slots),
        });
      }
    };
    runs.forEach((a, i) => runs.slice(i).forEach((b) => add(a, b)));
    return tasks;
  };
  const direct = layer(mesh, false);
  const fromBelow = below ? layer(image, true) : [];
  const pairs = ((mesh.segments * (mesh.segments + 1)) / 2) * (below ? 2 : 1);
  return { runs, runOf, direct, below: fromBelow, image, integrated, pairs };
}

/** Plans of meshes that are still in use: a sweep asks for the same mesh at every frequency. */
const kept = new WeakMap<Mesh, Map<string, FillPlan>>();

/** The plan of a mesh over a kind of ground. Made once for each mesh. */
export function fillPlan(mesh: Mesh, ground: 'free' | 'perfect' | 'real'): FillPlan {
  const plans = kept.get(mesh) ?? new Map<string, FillPlan>();
  kept.set(mesh, plans);
  const known = plans.get(ground);
  if (known) return known;
  const plan = makePlan(mesh, ground !== 'free', ground === 'real');
  plans.set(ground, plan);
  return plan;
}
