import type { FeedLineAnswer, FeedLineQuestion } from '@velvet-reed/core/antenna';
import { useEffect, useState } from 'react';
import { JobLeft, runJob } from '../../../workers/pool';

/** The study of a cable as far as it has come; what was known of an older question stays until the newer one answers. */
export interface FeedLineState {
  readonly known: Partial<FeedLineAnswer>;
  readonly whole?: FeedLineAnswer;
  readonly busy: boolean;
  readonly fault?: string;
}

/** Asks again whenever the question changes; typing is waited out, ms. */
const SETTLE_MS = 250;

export function useFeedLine(question: FeedLineQuestion | undefined): FeedLineState {
  const key = JSON.stringify(question);
  const [state, setState] = useState<Omit<FeedLineState, 'busy'> & { readonly finished?: string }>({ known: {} });
  useEffect(() => {
    if (key === undefined) return;
    const own = new AbortController();
    // a question is a value: equal text asks the same
    const asked = JSON.parse(key) as FeedLineQuestion;
    const timer = setTimeout(() => {
      const onStep = (known: Partial<FeedLineAnswer>): void =>
        setState((old) => ({ known: { ...old.known, ...known } }));
      runJob('feedLine', asked, { onStep, signal: own.signal }).then(
        ({ answer }) => setState({ known: answer, whole: answer, finished: key }),
        (error: unknown) => {
          if (!(error instanceof JobLeft))
            setState({ known: {}, finished: key, fault: error instanceof Error ? error.message : 'It met a fault.' });
        },
      );
    }, SETTLE_MS);
    return () => {
      clearTimeout(timer);
      own.abort();
    };
  }, [key]);
  const { finished, ...answers } = state;
  return { ...answers, busy: key !== undefined && finished !== key };
}
