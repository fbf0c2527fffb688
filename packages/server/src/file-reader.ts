import { Worker } from 'node:worker_threads';
import { CoreError } from '@velvet-reed/core/errors';
import type { TableQuestion } from '@velvet-reed/core/formats';
import type { Contents, FileAnswer, FileJob } from './file-work';

/** A file that its reader refused; the code and sentence are the reader's. */
export class FileRefusedError extends CoreError {
  constructor(
    readonly code: string,
    message: string,
    /** What has to be answered before it can be read. */
    readonly question?: TableQuestion,
  ) {
    super(message);
  }
}

/** Longest that one file may take: 200,001 points take about one second, a million rows of a log about twenty. */
const LONGEST_MS = 20_000;
const LONGEST_LOG_MS = 120_000;

interface Waiting {
  readonly done: (answer: FileAnswer) => void;
  readonly timer: NodeJS.Timeout;
}

/** One thread for files, started at the first need; no request waits for another's file. */
let worker: Worker | undefined;
let next = 0;
const waiting = new Map<number, Waiting>();

const TOO_LONG: FileAnswer = {
  fault: {
    code: 'FILE_TOO_SLOW',
    message: 'Reading this file takes too long. Nothing was stored; export fewer points, or another format.',
  },
};

function endAll(answer: FileAnswer): void {
  const ended = [...waiting.values()];
  waiting.clear();
  for (const { done, timer } of ended) {
    clearTimeout(timer);
    done(answer);
  }
  worker = undefined;
}

function start(): Worker {
  const here = import.meta.url;
  // run from its TypeScript source (development, tests), the thread needs a loader before it can read the rest
  const source = here.endsWith('.ts');
  const program = source
    ? `import('tsx/esm/api').then(({ register }) => { register(); return import(${JSON.stringify(new URL('./file-worker.ts', here).href)}); })`
    : new URL('./file-worker.js', here);
  const made = new Worker(program, {
    eval: source,
    // a file that would fill the memory ends its thread, not the server
    resourceLimits: { maxOldGenerationSizeMb: 1024 },
  });
  made.on('message', ({ id, answer }: { readonly id: number; readonly answer: FileAnswer }) => {
    const one = waiting.get(id);
    if (!one) return;
    waiting.delete(id);
    clearTimeout(one.timer);
    if (waiting.size === 0) made.unref();
    one.done(answer);
  });
  const broke = (): void => {
    if (worker === made)
      endAll({
        fault: {
          code: 'UNREADABLE',
          message: 'This file cannot be read: it needs more memory than there is. Export fewer points.',
        },
      });
  };
  made.on('error', broke);
  made.on('exit', broke);
  made.unref();
  return made;
}

/** Reads a file in the thread for files. @throws FileRefusedError with the reader's sentence. */
export async function readFileApart<K extends FileJob['kind']>(
  job: Extract<FileJob, { readonly kind: K }>,
): Promise<Contents[K]>;
export async function readFileApart(job: FileJob): Promise<Contents[FileJob['kind']]> {
  const answer = await new Promise<FileAnswer>((done) => {
    worker ??= start();
    const used = worker;
    const id = (next += 1);
    const timer = setTimeout(
      () => {
        if (worker === used) endAll(TOO_LONG);
        void used.terminate();
      },
      job.kind === 'log' ? LONGEST_LOG_MS : LONGEST_MS,
    );
    waiting.set(id, { done, timer });
    used.ref();
    used.postMessage({ id, job });
  });
  if ('fault' in answer) throw new FileRefusedError(answer.fault.code, answer.fault.message, answer.fault.question);
  return answer.content;
}
