import { type Design, wireModel } from '@velvet-reed/core/antenna';
import { USUAL_ARRIVAL_DEG } from '@velvet-reed/core/site';
import {
  groundClass,
  type ModelQuestion,
  type ModelSweep,
  type PatternSurface,
  type SpotAnalysis,
  type WireModel,
} from '@velvet-reed/core/solver';
import { useEffect, useMemo, useRef, useState } from 'react';
import { startSolver } from '../workers/solver';
import type { FocusBand } from './focus';

/** A model's answers as far as they have come; an older answer stays until a newer one replaces it. */
export interface ModelState {
  readonly spot?: SpotAnalysis;
  readonly sweep?: ModelSweep;
  readonly surface?: PatternSurface;
  readonly movement?: number;
  readonly trouble?: string;
  readonly busy: boolean;
  /** Time of the last whole analysis, ms. */
  readonly ms?: number;
}

const SWEEP_POINTS = 301;
/** Around the design frequency, where the focus band lies elsewhere. */
const AROUND = 0.12;

/** The band that a design is swept over: the focus band if it holds the design frequency, else a stretch around that. */
export function sweepBand(freqHz: number, band: FocusBand): FocusBand {
  const holds = freqHz >= band.lowHz && freqHz <= band.highHz && band.highHz / band.lowHz < 40;
  return holds ? band : { lowHz: freqHz * (1 - AROUND), highHz: freqHz * (1 + AROUND) };
}

export const modelOf = (design: Design, groundId: string): WireModel => wireModel(design, groundClass(groundId).ground);

export const questionOf = (
  model: WireModel,
  freqHz: number,
  band: FocusBand,
  arrivalDeg = USUAL_ARRIVAL_DEG,
): ModelQuestion => ({
  model,
  freqHz,
  ...sweepBand(freqHz, band),
  points: SWEEP_POINTS,
  arrivalDeg,
});

/** Solves a model in a worker whenever the question changes; undefined asks nothing. */
export function useModel(question: ModelQuestion | undefined): ModelState {
  const [state, setState] = useState<ModelState>({ busy: false });
  const solver = useRef<ReturnType<typeof startSolver>>(undefined);
  useEffect(() => {
    solver.current = startSolver((reply) => {
      switch (reply.reply) {
        case 'begun':
          setState((old) => ({ ...old, busy: true }));
          return;
        case 'answer': {
          const { answer } = reply;
          if (answer.part === 'spot') setState((old) => ({ ...old, spot: answer.spot, trouble: undefined }));
          if (answer.part === 'sweep') setState((old) => ({ ...old, sweep: answer.sweep }));
          if (answer.part === 'surface') setState((old) => ({ ...old, surface: answer.surface }));
          if (answer.part === 'settled') setState((old) => ({ ...old, movement: answer.movement }));
          return;
        }
        case 'trouble':
          setState({ busy: false, trouble: reply.message });
          return;
        case 'done':
          setState((old) => ({ ...old, busy: false, ms: reply.ms }));
      }
    });
    return () => solver.current?.end();
  }, []);
  const key = JSON.stringify(question);
  useEffect(() => {
    if (!question) {
      solver.current?.ask({ do: 'stop' });
      return;
    }
    solver.current?.ask({ do: 'analyse', question });
    // a question is a value: equal text asks the same
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  return state;
}

/** A question with the name of its curve. */
export interface NamedQuestion {
  readonly name: string;
  readonly question: ModelQuestion;
}

type NamedState = ModelState & { readonly name: string };

/** Solves several models one after the other. */
export function useModels(questions: readonly NamedQuestion[]): readonly NamedState[] {
  const key = JSON.stringify(questions);
  const [answers, setAnswers] = useState<{ readonly key: string; readonly states: readonly ModelState[] }>();
  useEffect(() => {
    if (questions.length === 0) return;
    let at = 0;
    const states: ModelState[] = questions.map(() => ({ busy: true }));
    const change = (patch: Partial<ModelState>): void => {
      states[at] = { ...states[at], ...patch };
      setAnswers({ key, states: [...states] });
    };
    const next = (): void => {
      at += 1;
      if (at < questions.length) solver.ask({ do: 'analyse', question: questions[at].question });
    };
    const solver = startSolver((reply) => {
      if (reply.reply === 'trouble') change({ busy: false, trouble: reply.message });
      if (reply.reply === 'done') change({ busy: false });
      if (reply.reply === 'trouble' || reply.reply === 'done') next();
      if (reply.reply !== 'answer') return;
      if (reply.answer.part === 'spot') change({ spot: reply.answer.spot });
      if (reply.answer.part === 'sweep') change({ sweep: reply.answer.sweep });
    });
    solver.ask({ do: 'analyse', question: questions[0].question });
    return () => solver.end();
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  return useMemo(() => {
    // answers to other questions are not shown
    const known = answers?.key === key ? answers.states : [];
    return questions.map(({ name }, i): NamedState => ({ ...(known[i] ?? { busy: true }), name }));
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [answers, key]);
}
