import { type Design, wireModel } from '@velvet-reed/core/antenna';
import { USUAL_ARRIVAL_DEG } from '@velvet-reed/core/site';
import {
  groundClass,
  type ModelAnswer,
  type ModelQuestion,
  type ModelSweep,
  type PatternSurface,
  type SpotAnalysis,
  type WireModel,
} from '@velvet-reed/core/solver';
import { useEffect, useMemo, useRef, useState } from 'react';
import { JobLeft, runJob } from '../workers/pool';
import type { FocusBand } from './focus';

/** A model's answers as far as they have come; an older answer stays until a newer one replaces it. */
export interface ModelState {
  readonly spot?: SpotAnalysis;
  readonly sweep?: ModelSweep;
  readonly surface?: PatternSurface;
  readonly movement?: number;
  /** How large the model is that is being computed. */
  readonly size?: { readonly segments: number; readonly bytes: number };
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

/** One part of an answer put beside those that came before. */
function withPart<S extends Partial<ModelState>>(old: S, answer: ModelAnswer): S {
  switch (answer.part) {
    case 'size':
      return { ...old, size: { segments: answer.segments, bytes: answer.bytes } };
    case 'spot':
      return { ...old, spot: answer.spot, trouble: undefined };
    case 'sweep':
      return { ...old, sweep: answer.sweep };
    case 'surface':
      return { ...old, surface: answer.surface };
    case 'settled':
      return { ...old, movement: answer.movement };
    // for other workers
    case 'ground':
    case 'progress':
      return old;
  }
}

/** From here on a model takes long enough, and memory enough, to be told before, bytes. */
const LARGE_BYTES = 55e6;
/** What a large model will take, for one who waits for it; nothing for one that is there at once. */
export const largeModelText = ({ size }: ModelState): string =>
  size && size.bytes >= LARGE_BYTES ? `${size.segments} segments, about ${Math.round(size.bytes / 1e6)} MB` : '';

const troubleOf = (error: unknown): string =>
  error instanceof Error ? error.message : 'The computation met a fault. Change a dimension and try again.';

/**
 * While a dimension is dragged the patterns follow every question, and the curve, which costs more, so often: a question that replaces another lets
 * it draw its curve first when none was drawn for this long, and waits no longer than that, ms.
 */
const CURVE_EVERY_MS = 200;

/** Solves a model in a worker whenever the question changes; undefined asks nothing. */
export function useModel(question: ModelQuestion | undefined): ModelState {
  const [state, setState] = useState<Omit<ModelState, 'busy'> & { readonly finished?: string }>({});
  const key = JSON.stringify(question);
  const turn = useRef<Promise<unknown>>(Promise.resolve());
  const drawnAt = useRef(-Infinity);
  useEffect(() => {
    if (!question) return;
    const own = new AbortController();
    let asked = true;
    const begin = (): void => {
      if (!asked) return;
      turn.current = new Promise<void>((drawn) => {
        const wantsCurve = performance.now() - drawnAt.current > CURVE_EVERY_MS;
        setTimeout(drawn, CURVE_EVERY_MS);
        const onStep = (answer: ModelAnswer): void => {
          setState((old) => withPart(old, answer));
          if (answer.part === 'sweep') drawnAt.current = performance.now();
          if (answer.part === 'sweep' || (answer.part === 'spot' && !wantsCurve)) drawn();
        };
        runJob('analyse', question, { onStep, signal: own.signal }).then(
          ({ ms }) => setState((old) => ({ ...old, finished: key, ms })),
          (error: unknown) => {
            drawn();
            if (!(error instanceof JobLeft)) setState({ finished: key, trouble: troubleOf(error) });
          },
        );
      });
    };
    void turn.current.then(begin);
    return () => {
      asked = false;
      void turn.current.then(() => own.abort());
    };
    // a question is a value: equal text asks the same
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  const { finished, ...answers } = state;
  return { ...answers, busy: question !== undefined && finished !== key };
}

/** A question with the name of its curve. */
export interface NamedQuestion {
  readonly name: string;
  readonly question: ModelQuestion;
}

type NamedState = ModelState & { readonly name: string };

/** Solves several models, side by side as far as the machine can. */
export function useModels(questions: readonly NamedQuestion[]): readonly NamedState[] {
  const key = JSON.stringify(questions);
  const [answers, setAnswers] = useState<{ readonly key: string; readonly states: readonly ModelState[] }>();
  useEffect(() => {
    if (questions.length === 0) return;
    const own = new AbortController();
    const states: ModelState[] = questions.map(() => ({ busy: true }));
    const change = (at: number, state: ModelState): void => {
      states[at] = state;
      setAnswers({ key, states: [...states] });
    };
    questions.forEach(({ question }, at) => {
      const onStep = (answer: ModelAnswer): void => change(at, withPart(states[at], answer));
      runJob('analyse', question, { onStep, signal: own.signal }).then(
        () => change(at, { ...states[at], busy: false }),
        (error: unknown) => {
          if (!(error instanceof JobLeft)) change(at, { ...states[at], busy: false, trouble: troubleOf(error) });
        },
      );
    });
    return () => own.abort();
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  return useMemo(() => {
    // answers to other questions are not shown
    const known = answers?.key === key ? answers.states : [];
    return questions.map(({ name }, i): NamedState => ({ ...(known[i] ?? { busy: true }), name }));
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [answers, key]);
}
