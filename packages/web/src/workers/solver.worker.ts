import {
  type Design,
  type DesignGoals,
  optimiseDesign,
  type TrimProgress,
  trimToResonance,
  wireSensitivities,
} from '@velvet-reed/core/antenna';
import { CoreError } from '@velvet-reed/core/errors';
import {
  designFilter,
  type FilterQuestion,
  filterYield,
  type FilterYield,
  type Tolerance,
} from '@velvet-reed/core/filter';
import type { Spectrum } from '@velvet-reed/core/formats';
import {
  type PathReceiver,
  type PathSignal,
  type PathStage,
  type SearchGoal,
  searchOrder,
  type SearchResult,
  type ShelfPart,
} from '@velvet-reed/core/path';
import { analyseModel, groundClass, type ModelAnswer, type ModelQuestion } from '@velvet-reed/core/solver';
import { type AsBuilt, type AsBuiltQuestion, fitAsBuilt, noisePeak, type NoisePeak } from '@velvet-reed/core/sweep';

/** What the page asks of the worker. A new job replaces the one under way; so does `stop`. */
export type SolverJob =
  | { readonly job: number; readonly do: 'analyse'; readonly question: ModelQuestion }
  | { readonly job: number; readonly do: 'trim'; readonly design: Design; readonly groundId: string }
  | {
      readonly job: number;
      readonly do: 'optimise';
      readonly design: Design;
      readonly groundId: string;
      readonly ids: readonly string[];
      readonly goals: DesignGoals;
    }
  | {
      readonly job: number;
      readonly do: 'fit';
      readonly question: Omit<AsBuiltQuestion, 'ground'>;
      readonly groundId: string;
    }
  | { readonly job: number; readonly do: 'sensitivities'; readonly design: Design; readonly groundId: string }
  | { readonly job: number; readonly do: 'yield'; readonly question: FilterQuestion; readonly tolerance: Tolerance }
  | {
      readonly job: number;
      readonly do: 'order';
      readonly shelf: readonly ShelfPart[];
      readonly receiver: PathReceiver;
      readonly goals: readonly SearchGoal[];
      readonly signals: readonly PathSignal[];
      readonly head?: PathStage;
    }
  | { readonly job: number; readonly do: 'noise-peak'; readonly on: Spectrum; readonly off: Spectrum }
  | { readonly job: number; readonly do: 'stop' };

/** What it answers; `trouble` ends a job, as `done` does. */
export type SolverReply =
  | { readonly job: number; readonly reply: 'begun' }
  | { readonly job: number; readonly reply: 'answer'; readonly answer: ModelAnswer }
  | { readonly job: number; readonly reply: 'step'; readonly step: TrimProgress }
  | { readonly job: number; readonly reply: 'design'; readonly design: Design }
  | { readonly job: number; readonly reply: 'yield'; readonly found: FilterYield }
  | { readonly job: number; readonly reply: 'peak'; readonly peak: NoisePeak }
  | { readonly job: number; readonly reply: 'searched'; readonly visited: number }
  | { readonly job: number; readonly reply: 'found'; readonly found: SearchResult }
  | { readonly job: number; readonly reply: 'fit-step'; readonly done: number }
  | { readonly job: number; readonly reply: 'fitted'; readonly fit: AsBuilt }
  | { readonly job: number; readonly reply: 'sensitivities'; readonly jacobian: readonly (readonly number[])[] }
  | { readonly job: number; readonly reply: 'trouble'; readonly message: string }
  | { readonly job: number; readonly reply: 'done'; readonly ms: number };

let current = 0;
const post = (reply: SolverReply): void => self.postMessage(reply);
/** Lets messages in: a newer job or a stop is seen before the next step. */
const breathe = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 0));

async function run<S, T>(job: number, steps: Generator<S, T>, onStep: (step: S) => void, onEnd: (end: T) => void) {
  const begun = performance.now();
  post({ job, reply: 'begun' });
  try {
    for (;;) {
      const step = steps.next();
      if (current !== job) return;
      if (step.done) {
        onEnd(step.value);
        post({ job, reply: 'done', ms: performance.now() - begun });
        return;
      }
      onStep(step.value);
      await breathe();
      if (current !== job) return;
    }
  } catch (error) {
    const message =
      error instanceof CoreError ? error.message : 'The computation met a fault. Change a dimension and try again.';
    post({ job, reply: 'trouble', message });
  }
}

/** One step: ten thousand filters take less than the time between two looks at the messages would cost. */
function* yieldOf(question: FilterQuestion, tolerance: Tolerance): Generator<undefined, FilterYield> {
  yield undefined;
  return filterYield(designFilter(question), question.coilQ, tolerance);
}

/** One step as well: a hundred thousand points take a second. */
function* peakOf(on: Spectrum, off: Spectrum): Generator<undefined, NoisePeak> {
  yield undefined;
  return noisePeak(on, off);
}

self.onmessage = ({ data }: MessageEvent<SolverJob>): void => {
  const { job } = data;
  current = job;
  switch (data.do) {
    case 'stop':
      return;
    case 'analyse':
      void run(
        job,
        analyseModel(data.question),
        (answer) => post({ job, reply: 'answer', answer }),
        () => undefined,
      );
      return;
    case 'trim':
      void run(
        job,
        trimToResonance(data.design, groundClass(data.groundId).ground),
        (step) => post({ job, reply: 'step', step }),
        (design) => post({ job, reply: 'design', design }),
      );
      return;
    case 'fit':
      void run(
        job,
        fitAsBuilt({ ...data.question, ground: groundClass(data.groundId).ground }),
        ({ done }) => post({ job, reply: 'fit-step', done }),
        (fit) => post({ job, reply: 'fitted', fit }),
      );
      return;
    case 'yield':
      void run(
        job,
        yieldOf(data.question, data.tolerance),
        () => undefined,
        (found) => post({ job, reply: 'yield', found }),
      );
      return;
    case 'noise-peak':
      void run(
        job,
        peakOf(data.on, data.off),
        () => undefined,
        (peak) => post({ job, reply: 'peak', peak }),
      );
      return;
    case 'order':
      void run(
        job,
        searchOrder(data.shelf, data.receiver, data.goals, data.signals, data.head),
        ({ visited }) => post({ job, reply: 'searched', visited }),
        (found) => post({ job, reply: 'found', found }),
      );
      return;
    case 'sensitivities':
      void run(
        job,
        wireSensitivities(data.design, groundClass(data.groundId).ground),
        () => undefined,
        ({ jacobian }) => post({ job, reply: 'sensitivities', jacobian }),
      );
      return;
    case 'optimise':
      void run(
        job,
        optimiseDesign(data.design, groundClass(data.groundId).ground, data.ids, data.goals),
        (step) => post({ job, reply: 'step', step }),
        (design) => post({ job, reply: 'design', design }),
      );
  }
};
