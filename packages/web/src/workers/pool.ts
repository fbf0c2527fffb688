import type { JobMessage, JobReply } from './job.worker';
import type { AnswerOf, JobName, QuestionOf, StepOf } from './jobs';

/** As many workers as the machine has cores, but not more than this. */
const MOST_WORKERS = 4;
const mostWorkers = (): number => Math.max(1, Math.min(MOST_WORKERS, navigator.hardwareConcurrency));
/** A job that takes longer than this is worth a worker that waits beside it, ms. */
const AHEAD_MS = 30;
/** A worker that was asked to leave its job and does not within this time is ended, ms. */
const PATIENCE_MS = 200;

/** What a job came to, and how long it took. */
export interface Finished<A> {
  readonly answer: A;
  readonly ms: number;
}

interface Options<S> {
  readonly onStep?: (step: S) => void;
  /** Leaves the job: its promise is rejected at once. */
  readonly signal?: AbortSignal;
  /** One of hundreds that nobody waits for alone: others go first. */
  readonly background?: boolean;
}

interface Job {
  readonly id: number;
  readonly message: JobMessage;
  readonly onStep: (step: unknown) => void;
  readonly resolve: (finished: Finished<unknown>) => void;
  readonly reject: (error: Error) => void;
  readonly background: boolean;
  left: boolean;
}

interface Slot {
  readonly worker: Worker;
  job?: Job;
  ending?: ReturnType<typeof setTimeout>;
}

/** The computation said what is wrong with the question: asked again, it says the same. Every other error is a fault of the moment. */
export class JobRefused extends Error {}
/** The person left the job, or asked for another one. */
export class JobLeft extends Error {}

const slots: Slot[] = [];
const waiting: Job[] = [];
let numbers = 0;
let opened = 0;

function openSlot(): Slot {
  opened += 1;
  // by page and number: workers of one page tell each other what they computed
  const name = `${performance.timeOrigin} ${1 + ((opened - 1) % MOST_WORKERS)}`;
  const worker = new Worker(new URL('./job.worker.ts', import.meta.url), { type: 'module', name });
  const slot: Slot = { worker };
  worker.onmessage = ({ data }: MessageEvent<JobReply>) => {
    const { job } = slot;
    if (job?.id !== data.id) return;
    if (data.say === 'step') {
      if (!job.left) job.onStep(data.step);
      return;
    }
    clearTimeout(slot.ending);
    slot.job = undefined;
    if (data.say === 'answer') job.resolve({ answer: data.answer, ms: data.ms });
    else if (data.say === 'fault') job.reject(data.refused ? new JobRefused(data.message) : new Error(data.message));
    feed();
  };
  worker.onerror = () => {
    const { job } = slot;
    close(slot);
    job?.reject(new Error('The computation could not start. Reload the page.'));
    feed();
  };
  slots.push(slot);
  return slot;
}

function close(slot: Slot): void {
  clearTimeout(slot.ending);
  slot.worker.terminate();
  slots.splice(slots.indexOf(slot), 1);
}

/** Gives waiting jobs to workers that have none: first come first served, those in the background last. */
function feed(): void {
  while (waiting.length > 0) {
    const slot = slots.find(({ job }) => job === undefined) ?? (slots.length < mostWorkers() ? openSlot() : undefined);
    if (!slot) return;
    const next = waiting.findIndex(({ background }) => !background);
    [slot.job] = waiting.splice(Math.max(0, next), 1);
    slot.worker.postMessage(slot.job?.message);
    clearTimeout(ahead);
    ahead = setTimeout(openAhead, AHEAD_MS);
  }
}

let ahead: ReturnType<typeof setTimeout> | undefined;
/** Opens one worker more than there are jobs: it helps with the ground, and the next job finds it open. */
function openAhead(): void {
  if (slots.length < mostWorkers() && slots.every(({ job }) => job !== undefined)) openSlot();
}

function leave(job: Job): void {
  job.left = true;
  job.reject(new JobLeft());
  const place = waiting.indexOf(job);
  if (place >= 0) waiting.splice(place, 1);
  const slot = slots.find((one) => one.job === job);
  if (!slot) return;
  slot.worker.postMessage({ leave: job.id } satisfies JobMessage);
  slot.ending = setTimeout(() => {
    close(slot);
    feed();
  }, PATIENCE_MS);
}

/**
 * Runs a job in one of the workers.
 * @throws JobLeft when the signal came; JobRefused with a sentence for the person when the computation refused; Error for a fault of the moment.
 */
export function runJob<N extends JobName>(
  name: N,
  question: QuestionOf<N>,
  { onStep, signal, background = false }: Options<StepOf<N>> = {},
): Promise<Finished<AnswerOf<N>>> {
  return new Promise<Finished<AnswerOf<N>>>((resolve, reject) => {
    if (signal?.aborted) return reject(new JobLeft());
    numbers += 1;
    // what crosses the border to a worker has lost its type: the table of jobs gives it back
    const job: Job = {
      id: numbers,
      message: { id: numbers, name, question: question as never },
      onStep: (step) => onStep?.(step as StepOf<N>),
      resolve: (finished) => resolve(finished as Finished<AnswerOf<N>>),
      reject,
      background,
      left: false,
    };
    signal?.addEventListener('abort', () => leave(job), { once: true });
    waiting.push(job);
    feed();
  });
}
