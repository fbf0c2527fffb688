import type { Hearing, HearingQuestion, Unheard } from '@velvet-reed/core/choose';
import type { HearingReply } from './hearing.worker';

/** One worker per processor, but not more than four: a ranking has a few hundred questions. */
const MOST_WORKERS = 4;

/**
 * Solves questions in workers of their own, in order; each answer is handed over as it comes. Stops at once when the signal says so.
 * @returns when every question was answered, or the signal came.
 */
export function solveHearings(
  questions: readonly HearingQuestion[],
  onAnswer: (index: number, answer: Hearing | Unheard) => void,
  signal: AbortSignal,
): Promise<void> {
  return new Promise((resolve) => {
    if (questions.length === 0) return resolve();
    const count = Math.max(1, Math.min(MOST_WORKERS, navigator.hardwareConcurrency, questions.length));
    let next = 0;
    let left = questions.length;
    const workers = Array.from(
      { length: count },
      () => new Worker(new URL('./hearing.worker.ts', import.meta.url), { type: 'module' }),
    );
    const end = (): void => {
      workers.forEach((worker) => worker.terminate());
      resolve();
    };
    signal.addEventListener('abort', end, { once: true });
    const feed = (worker: Worker): void => {
      if (next >= questions.length) return;
      worker.postMessage({ id: next, question: questions[next] });
      next += 1;
    };
    workers.forEach((worker) => {
      worker.onmessage = ({ data }: MessageEvent<HearingReply>) => {
        onAnswer(data.id, data.answer);
        left -= 1;
        if (left === 0) end();
        else feed(worker);
      };
      worker.onerror = end;
      feed(worker);
    });
  });
}
