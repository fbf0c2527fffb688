import { CoreError } from '@velvet-reed/core/errors';
import { computeGround, type GroundNeed, takeCells } from '@velvet-reed/core/solver';
import { freshGround, keepGround, recallGround } from './ground-store';
import { type GroundWord, talkOfGround } from './ground-talk';
import { JOBS, type JobName } from './jobs';

/** A job to begin, or the number of one to leave. */
export type JobMessage =
  { readonly id: number; readonly name: JobName; readonly question: never } | { readonly leave: number };

/** What a job says; `answer`, `fault` and `left` are its last words. */
export type JobReply =
  | { readonly id: number; readonly say: 'step'; readonly step: unknown }
  | { readonly id: number; readonly say: 'answer'; readonly answer: unknown; readonly ms: number }
  /** Refused: the computation says what is wrong with the question; else it met a fault of the moment. */
  | { readonly id: number; readonly say: 'fault'; readonly message: string; readonly refused: boolean }
  | { readonly id: number; readonly say: 'left' };

const left = new Set<number>();
const post = (reply: JobReply): void => self.postMessage(reply);
/** Lets messages in at least this often, ms: a job that was left is seen before its next step. */
const BREATH_MS = 20;
const breathe = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 0));

let running = 0;
/** Named by the pool: the page that it belongs to, and its number there. Workers of other pages have enough to do. */
const [page, number] = self.name.split(' ');
const others = new BroadcastChannel(`velvet-reed-ground ${page}`);
const ground = talkOfGround({
  number: Number(number),
  say: (word) => others.postMessage(word),
  idle: () => running === 0,
  fresh: freshGround,
  breathe,
  compute: computeGround,
  takeIn: takeCells,
  keep: () => void keepGround(),
});
others.onmessage = ({ data }: MessageEvent<GroundWord>) => ground.hear(data);

/** A step that tells which tables of the ground come next; it is for the other workers, not for the page. */
const needOf = (step: unknown): GroundNeed | undefined =>
  typeof step === 'object' && step !== null && 'part' in step && step.part === 'ground' && 'need' in step
    ? (step.need as GroundNeed)
    : undefined;

async function run(id: number, name: JobName, question: never): Promise<void> {
  const begun = performance.now();
  running += 1;
  let asked = false;
  try {
    await recallGround(question);
    const start: (asked: never) => Generator<unknown, unknown> = JOBS[name];
    const steps = start(question);
    let breathed = begun;
    for (;;) {
      const { done, value } = steps.next();
      ground.tell();
      if (done) {
        post({ id, say: 'answer', answer: value, ms: performance.now() - begun });
        return void keepGround();
      }
      const need = needOf(value);
      if (need && (asked || need.freqsHz.length > 1)) {
        asked = need.freqsHz.length > 1;
        ground.ask(asked ? need : undefined);
      } else if (value !== undefined) post({ id, say: 'step', step: value });
      if (performance.now() - breathed > BREATH_MS) {
        await breathe();
        breathed = performance.now();
      }
      if (left.delete(id)) return post({ id, say: 'left' });
    }
  } catch (error) {
    const message =
      error instanceof CoreError ? error.message : 'The computation met a fault. Change a figure and try again.';
    post({ id, say: 'fault', message, refused: error instanceof CoreError });
  } finally {
    running -= 1;
    if (asked) ground.ask(undefined);
  }
}

self.onmessage = ({ data }: MessageEvent<JobMessage>): void => {
  if ('leave' in data) left.add(data.leave);
  else void run(data.id, data.name, data.question);
};
