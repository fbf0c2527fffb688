import { type Hearing, hearingKey, type HearingQuestion, type Unheard } from '@velvet-reed/core/choose';
import { SOLVER_VERSION, wireLengthM } from '@velvet-reed/core/solver';
import { clear, createStore, getMany, keys, setMany, type UseStore } from 'idb-keyval';
import { createContext, useContext } from 'react';
import { JobLeft, runJob } from '../workers/pool';

type Answer = Hearing | Unheard;

/** Answers of the wire model, kept by the content of their question: in memory, and in the browser across reloads. */
export interface Hearings {
  readonly known: ReadonlyMap<string, Answer>;
  /** Finds or solves all questions; `onProgress` counts those answered. Ends early when the signal comes. */
  ask(
    questions: readonly HearingQuestion[],
    onProgress: (answered: number) => void,
    signal: AbortSignal,
  ): Promise<void>;
}

/** Answers kept across reloads at most; beyond that all are dropped and solved anew. */
const MOST_KEPT = 6000;
/** Answers are written in lots: one transaction each would cost more than the solving. */
const LOT = 40;

const isAnswer = (value: unknown): value is Answer =>
  typeof value === 'object' && value !== null && ('why' in value || ('gains' in value && 'radiated' in value));

/** About what a question takes: the segments of a wire model go with its length in wavelengths, its equations with their square. */
const effortOf = ({ model, freqHz }: HearingQuestion): number =>
  (model.wires.reduce((sum, wire) => sum + wireLengthM(wire), 0) * freqHz) ** 2;

/**
 * Questions of one antenna together, so that antennas become comparable one after the other; those with little effort first, which are most, so that a
 * first answer soon stands and the long ones only refine it.
 */
function lotsOf(questions: readonly HearingQuestion[]): readonly (readonly HearingQuestion[])[] {
  const byAntenna = new Map<string, HearingQuestion[]>();
  for (const question of questions) {
    const name = JSON.stringify(question.model);
    byAntenna.set(name, [...(byAntenna.get(name) ?? []), question]);
  }
  const effort = (lot: readonly HearingQuestion[]): number => lot.reduce((sum, one) => sum + effortOf(one), 0);
  // every second lot begins with its later half: two workers do not compute the ground of one frequency at the same time, but find what the other told
  return [...byAntenna.values()]
    .sort((one, other) => effort(one) - effort(other))
    .map((lot, i) => {
      const turned = i % 2 === 0 ? 0 : Math.floor(lot.length / 2);
      return [...lot.slice(turned), ...lot.slice(0, turned)];
    });
}

function makeHearings(): Hearings {
  const known = new Map<string, Answer>();
  // faults of a moment: shown until they are asked again, never kept
  const faults = new Set<string>();
  let store: UseStore | undefined;
  const kept = (): UseStore => (store ??= createStore('velvet-reed', `hearings-solver-${SOLVER_VERSION}`));

  /** What an earlier visit solved; a browser without storage just solves again. */
  async function recall(wanted: readonly string[]): Promise<void> {
    try {
      const found = await getMany<unknown>([...wanted], kept());
      found.forEach((value, i) => {
        if (isAnswer(value)) known.set(wanted[i], value);
      });
    } catch {
      // private windows may refuse storage: nothing is lost but time
    }
  }
  async function keep(lot: readonly [string, Answer][]): Promise<void> {
    try {
      if ((await keys(kept())).length > MOST_KEPT) await clear(kept());
      await setMany([...lot], kept());
    } catch {
      // see recall
    }
  }

  return {
    known,
    async ask(questions, onProgress, signal) {
      faults.forEach((key) => known.delete(key));
      faults.clear();
      const byKey = new Map(questions.map((question) => [hearingKey(question), question] as const));
      const absent = (): string[] => [...byKey.keys()].filter((key) => !known.has(key));
      if (absent().length > 0) await recall(absent());
      const open = absent();
      if (signal.aborted) return;
      let answered = byKey.size - open.length;
      onProgress(answered);
      let lot: [string, Answer][] = [];
      const take = (key: string, answer: Answer): void => {
        known.set(key, answer);
        lot.push([key, answer]);
        if (lot.length >= LOT) {
          void keep(lot);
          lot = [];
        }
        answered += 1;
        onProgress(answered);
      };
      await Promise.all(
        lotsOf(open.flatMap((key) => byKey.get(key) ?? [])).map((questions) =>
          runJob('hearings', questions, {
            ...{ signal, background: true },
            onStep: ({ index, answer }) => take(hearingKey(questions[index]), answer),
          }).catch((error: unknown) => {
            if (!(error instanceof JobLeft))
              questions
                .map(hearingKey)
                .filter((key) => !known.has(key))
                .forEach((key) => {
                  faults.add(key);
                  known.set(key, { why: 'The computation met a fault here. Open the room again to repeat it.' });
                  answered += 1;
                  onProgress(answered);
                });
          }),
        ),
      );
      if (lot.length > 0) void keep(lot);
    },
  };
}

/** One for the whole page, made when a room first asks. */
const ofThisPage = ((): (() => Hearings) => {
  let made: Hearings | undefined;
  return () => (made ??= makeHearings());
})();

/** Puts other ones in their place. */
export const HearingsContext = createContext<Hearings | undefined>(undefined);

export const useHearings = (): Hearings => useContext(HearingsContext) ?? ofThisPage();
