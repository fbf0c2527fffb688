import type { SolverJob, SolverReply } from './solver.worker';

type WithoutJob<J> = J extends SolverJob ? Omit<J, 'job'> : never;
export type SolverAsk = WithoutJob<SolverJob>;

/** A worker of its own; answers of replaced jobs are dropped. */
export function startSolver(onReply: (reply: SolverReply) => void): {
  readonly ask: (job: SolverAsk) => void;
  readonly end: () => void;
} {
  const worker = new Worker(new URL('./solver.worker.ts', import.meta.url), { type: 'module' });
  let current = 0;
  worker.onmessage = ({ data }: MessageEvent<SolverReply>) => {
    if (data.job === current) onReply(data);
  };
  worker.onerror = () =>
    onReply({ job: current, reply: 'trouble', message: 'The solver could not start. Reload the page.' });
  return {
    ask(job) {
      current += 1;
      worker.postMessage({ ...job, job: current });
    },
    end: () => worker.terminate(),
  };
}
