import { CoreError } from '@velvet-reed/core/errors';
import { keepGround, recallGround } from './ground-store';
import { JOBS, type JobName } from './jobs';

/** A job to begin, or the number of one to leave. */
export type JobMessage =
  { readonly id: number; readonly name: JobName; readonly question: never } | { readonly leave: number };

/** What a job says; `answer`, `fault` and `left` are its last words. */
export type JobReply =
  | { readonly id: number; readonly say: 'step'; readonly step: unknown }
  | { readonly id: number; readonly say: 'answer'; readonly answer: unknown; readonly ms: number }
  | { readonly id: number; readonly say: 'fault'; readonly message: string }
  | { readonly id: number; readonly say: 'left' };

const left = new Set<number>();
const post = (reply: JobReply): void => self.postMessage(reply);
/** Lets messages in at least this often, ms: a job that was left is seen before its next step. */
const BREATH_MS = 20;
const breathe = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 0));

async function run(id: number, name: JobName, question: never): Promise<void> {
  const begun = performance.now();
  try {
    await recallGround(question);
    const start: (asked: never) => Generator<unknown, unknown> = JOBS[name];
    const steps = start(question);
    let breathed = begun;
    for (;;) {
      const { done, value } = steps.next();
      if (done) {
        post({ id, say: 'answer', answer: value, ms: performance.now() - begun });
        return void keepGround();
      }
      if (value !== undefined) post({ id, say: 'step', step: value });
      if (performance.now() - breathed > BREATH_MS) {
        await breathe();
        breathed = performance.now();
      }
      if (left.delete(id)) return post({ id, say: 'left' });
    }
  } catch (error) {
    const message =
      error instanceof CoreError ? error.message : 'The computation met a fault. Change a figure and try again.';
    post({ id, say: 'fault', message });
  }
}

self.onmessage = ({ data }: MessageEvent<JobMessage>): void => {
  if ('leave' in data) left.add(data.leave);
  else void run(data.id, data.name, data.question);
};
