import { parentPort } from 'node:worker_threads';
import { workOn, type FileJob } from './file-work';

/** The worker's only message: a numbered job. */
parentPort?.on('message', ({ id, job }: { readonly id: number; readonly job: FileJob }) => {
  parentPort?.postMessage({ id, answer: workOn(job) });
});
