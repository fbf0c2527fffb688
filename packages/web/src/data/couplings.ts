import type { PlacedAntenna } from '@velvet-reed/core/antenna';
import type { AntennaCoupling } from '@velvet-reed/core/guard';
import { useEffect, useMemo, useSyncExternalStore } from 'react';
import { JobLeft, runJob } from '../workers/pool';

/** What is asked of the wire model: two antennas as they stand, over a ground, at a frequency. */
export interface CouplingAsk {
  readonly sender: PlacedAntenna;
  readonly other: PlacedAntenna;
  readonly groundId: string;
  readonly freqHz: number;
}
/** What came of it. */
export type CouplingAnswer = { readonly coupling: AntennaCoupling } | { readonly fault: string };

const STORE = 'velvet-reed-couplings';
const MOST_KEPT = 400;

/** By its content: the same antennas in the same places give the same numbers, whatever they are called. */
const keyOf = ({ sender, other, groundId, freqHz }: CouplingAsk): string =>
  JSON.stringify([
    ...[sender, other].map(({ design, at, facingDeg }) => [
      ...[design.kind, design.freqHz, design.diameterM, design.insulated, design.dimensions],
      ...[at, Math.round(10 * facingDeg) / 10],
    ]),
    ...[groundId, freqHz],
  ]);

const isAnswer = (value: unknown): value is CouplingAnswer =>
  typeof value === 'object' && value !== null && ('coupling' in value || 'fault' in value);

function fromStore(): Map<string, CouplingAnswer> {
  try {
    const value: unknown = JSON.parse(localStorage.getItem(STORE) ?? '[]');
    return new Map(
      Array.isArray(value)
        ? value.flatMap((one: unknown): [string, CouplingAnswer][] =>
            Array.isArray(one) && typeof one[0] === 'string' && isAnswer(one[1]) ? [[one[0], one[1]]] : [],
          )
        : [],
    );
  } catch {
    return new Map();
  }
}

interface Kept {
  readonly answers: Map<string, CouplingAnswer>;
  readonly asked: Set<string>;
  readonly listeners: Set<() => void>;
  version: number;
}
const kept: Kept = { answers: fromStore(), asked: new Set(), listeners: new Set(), version: 0 };

/** What is known of a coupling already; undefined while nobody computed it. */
export const knownCoupling = (ask: CouplingAsk): CouplingAnswer | undefined => kept.answers.get(keyOf(ask));
/** Rises with every answer: what was judged before is judged anew. */
export const couplingsVersion = (): number => kept.version;

function keep(key: string, answer: CouplingAnswer): void {
  const [oldest] = kept.answers.keys();
  if (kept.answers.size >= MOST_KEPT && oldest !== undefined) kept.answers.delete(oldest);
  kept.answers.set(key, answer);
  kept.version += 1;
  try {
    localStorage.setItem(STORE, JSON.stringify([...kept.answers]));
  } catch {
    // a browser that keeps nothing computes again
  }
  kept.listeners.forEach((listener) => listener());
}

async function compute(ask: CouplingAsk): Promise<void> {
  const key = keyOf(ask);
  if (kept.answers.has(key) || kept.asked.has(key)) return;
  kept.asked.add(key);
  try {
    const { answer } = await runJob('coupling', ask, { background: true });
    keep(key, { coupling: answer });
  } catch (error) {
    if (!(error instanceof JobLeft))
      keep(key, { fault: error instanceof Error ? error.message : 'The computation met a fault.' });
  } finally {
    kept.asked.delete(key);
  }
}

const subscribe = (listener: () => void): (() => void) => {
  kept.listeners.add(listener);
  return () => kept.listeners.delete(listener);
};

/** Has the wire model compute what is missing, and draws again with each answer. @returns how many are still to come. */
export function useCouplings(asks: readonly CouplingAsk[]): number {
  useSyncExternalStore(subscribe, couplingsVersion);
  const keys = useMemo(() => asks.map(keyOf).join('\n'), [asks]);
  useEffect(() => {
    for (const ask of asks) void compute(ask);
    // asked anew when what is asked for has changed, not with every drawing
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [keys]);
  return asks.filter((ask) => !knownCoupling(ask)).length;
}
