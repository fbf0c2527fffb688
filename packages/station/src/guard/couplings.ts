import type { PlacedAntenna } from '@velvet-reed/core/antenna';
import type { AntennaCoupling } from '@velvet-reed/core/guard';
import { SOLVER_VERSION } from '@velvet-reed/core/solver';

/** What is asked of the wire model: two antennas as they stand, over a ground, at a frequency. */
export interface CouplingAsk {
  readonly sender: PlacedAntenna;
  readonly other: PlacedAntenna;
  readonly groundId: string;
  readonly freqHz: number;
}
/** What came of it: a coupling, a refusal that says what is wrong with the question, or a fault of the moment. */
export type CouplingAnswer =
  { readonly coupling: AntennaCoupling } | { readonly refusal: string } | { readonly fault: string };

const MOST_KEPT = 400;

/** By its content, and by the solver that answered: the same antennas in the same places give the same numbers, whatever they are called. */
export const couplingKey = ({ sender, other, groundId, freqHz }: CouplingAsk): string =>
  JSON.stringify([
    SOLVER_VERSION,
    ...[sender, other].map(({ design, at, facingDeg }) => [
      ...[design.kind, design.freqHz, design.diameterM, design.insulated, design.dimensions],
      ...[at, Math.round(10 * facingDeg) / 10],
    ]),
    ...[groundId, freqHz],
  ]);

/** A fault of the moment is never kept: the next visit asks again. */
const isKept = (value: unknown): value is Exclude<CouplingAnswer, { readonly fault: string }> =>
  typeof value === 'object' &&
  value !== null &&
  (('refusal' in value && typeof value.refusal === 'string') ||
    ('coupling' in value &&
      typeof value.coupling === 'object' &&
      value.coupling !== null &&
      'safeDb' in value.coupling &&
      typeof value.coupling.safeDb === 'number'));

const ofThisSolver = (key: unknown): key is string => typeof key === 'string' && key.startsWith(`[${SOLVER_VERSION},`);

/** Answers of an earlier visit, as they were kept; those of another solver, and what is none, are left out. */
export function takeKeptCouplings(value: unknown): void {
  if (!Array.isArray(value)) return;
  for (const one of value as readonly unknown[])
    if (Array.isArray(one) && ofThisSolver(one[0]) && isKept(one[1])) kept.answers.set(one[0], one[1]);
}
/** What is worth keeping for the next visit. */
export const couplingsToKeep = (): readonly (readonly [string, CouplingAnswer])[] =>
  [...kept.answers].filter(([, one]) => isKept(one));

interface Kept {
  readonly answers: Map<string, CouplingAnswer>;
  readonly listeners: Set<() => void>;
  version: number;
}
const kept: Kept = { answers: new Map(), listeners: new Set(), version: 0 };

/** What is known of a coupling already; undefined while nobody computed it. */
export const knownCoupling = (ask: CouplingAsk): CouplingAnswer | undefined => kept.answers.get(couplingKey(ask));
/** Rises with every answer: what was judged before is judged anew. */
export const couplingsVersion = (): number => kept.version;

export const listenToCouplings = (listener: () => void): (() => void) => {
  kept.listeners.add(listener);
  return () => kept.listeners.delete(listener);
};

/** Takes an answer in; all but a fault of the moment stays for the next visit. */
export function keepCoupling(key: string, answer: CouplingAnswer): void {
  const [oldest] = kept.answers.keys();
  if (kept.answers.size >= MOST_KEPT && oldest !== undefined) kept.answers.delete(oldest);
  kept.answers.set(key, answer);
  kept.version += 1;
  kept.listeners.forEach((listener) => listener());
}

/** Lets go of a fault, so that it is asked again. */
export function forgetFault(ask: CouplingAsk): void {
  const known = knownCoupling(ask);
  if (!known || !('fault' in known)) return;
  kept.answers.delete(couplingKey(ask));
  kept.version += 1;
  kept.listeners.forEach((listener) => listener());
}
