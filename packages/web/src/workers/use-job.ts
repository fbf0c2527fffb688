import { useCallback, useEffect, useRef, useState } from 'react';
import type { AnswerOf, JobName, QuestionOf, StepOf } from './jobs';
import { JobLeft, runJob } from './pool';

/** Where a job of this name stands; steps and answer are of the question asked last. */
export interface JobState<N extends JobName> {
  readonly busy: boolean;
  readonly step?: StepOf<N>;
  readonly answer?: AnswerOf<N>;
  /** Why there is no answer. */
  readonly fault?: string;
  /** Time that the answer took, ms. */
  readonly ms?: number;
}

/** Long work in a worker: a new question leaves the one before, and so does going away. */
export function useJob<N extends JobName>(
  name: N,
  onAnswer?: (answer: AnswerOf<N>) => void,
): JobState<N> & { readonly start: (question: QuestionOf<N>) => void; readonly stop: () => void } {
  const [state, setState] = useState<JobState<N>>({ busy: false });
  const running = useRef<AbortController>(undefined);
  const deliver = useRef(onAnswer);
  useEffect(() => {
    deliver.current = onAnswer;
  });
  useEffect(() => () => running.current?.abort(), []);
  const stop = useCallback((): void => {
    running.current?.abort();
    setState((old) => ({ ...old, busy: false }));
  }, []);
  const start = useCallback(
    (question: QuestionOf<N>): void => {
      running.current?.abort();
      const own = new AbortController();
      running.current = own;
      setState({ busy: true });
      const onStep = (step: StepOf<N>): void => setState((old) => ({ ...old, step }));
      runJob(name, question, { onStep, signal: own.signal }).then(
        ({ answer, ms }) => {
          setState({ busy: false, answer, ms });
          deliver.current?.(answer);
        },
        (error: unknown) => {
          if (error instanceof JobLeft) return;
          setState({ busy: false, fault: error instanceof Error ? error.message : 'The computation met a fault.' });
        },
      );
    },
    [name],
  );
  return { ...state, start, stop };
}
