import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import type { JobMessage, JobReply } from './job.worker';
import { JobLeft, runJob } from './pool';

/** A worker that does what the test says. */
class PretendedWorker {
  static readonly all: PretendedWorker[] = [];
  onmessage?: (event: { data: JobReply }) => void;
  onerror?: () => void;
  readonly told: JobMessage[] = [];
  ended = false;
  constructor() {
    PretendedWorker.all.push(this);
  }
  postMessage(message: JobMessage): void {
    this.told.push(message);
  }
  terminate(): void {
    this.ended = true;
  }
  say(reply: JobReply): void {
    this.onmessage?.({ data: reply });
  }
  /** Number of the job that it was given last. */
  get job(): number {
    const last = this.told.filter((message) => 'id' in message).at(-1);
    return last && 'id' in last ? last.id : 0;
  }
}
const alive = (): PretendedWorker[] => PretendedWorker.all.filter(({ ended }) => !ended);
const holding = (id: number): PretendedWorker | undefined => alive().find(({ job }) => job === id);
const question = {
  on: { freqHz: new Float64Array(1), levelDb: new Float64Array(1) },
  off: { freqHz: new Float64Array(1), levelDb: new Float64Array(1) },
};
const answerAll = (): void => {
  for (let round = 0; round < 20; round += 1)
    for (const worker of alive()) worker.say({ id: worker.job, say: 'answer', answer: worker.job, ms: 5 });
};

beforeEach(() => {
  jest.useFakeTimers();
  Object.assign(globalThis, { Worker: PretendedWorker });
  Object.defineProperty(navigator, 'hardwareConcurrency', { value: 2, configurable: true });
});
afterEach(() => {
  answerAll();
  jest.useRealTimers();
});

describe('the pool of workers', () => {
  test('as many workers as cores; what waits goes to the first that is free, in order', async () => {
    const jobs = [0, 1, 2, 3].map(() => runJob('noisePeak', question));
    expect(alive()).toHaveLength(2);
    const [a, b] = alive();
    const [first, second] = [a.job, b.job];
    b.say({ id: second, say: 'answer', answer: 'b', ms: 3 });
    expect(b.job).toBe(second + 1);
    a.say({ id: first, say: 'fault', refused: true, message: 'No resonance.' });
    await expect(jobs[0]).rejects.toThrow('No resonance.');
    await expect(jobs[1]).resolves.toEqual({ answer: 'b', ms: 3 });
    expect(a.job).toBe(second + 2);
    answerAll();
    await Promise.all(jobs.slice(2));
    expect(alive()).toHaveLength(2);
  });
  test('a job that is left while it waits is never begun; one under way is asked to end, and its late words are not heard', async () => {
    const leaving = new AbortController();
    const steps: unknown[] = [];
    const running = runJob('noisePeak', question, { signal: leaving.signal, onStep: (step) => steps.push(step) });
    const other = runJob('noisePeak', question);
    const waiting = runJob('noisePeak', question, { signal: leaving.signal });
    const worker = alive().find((one) => one.job > 0 && one.told.some((message) => 'id' in message)) ?? alive()[0];
    const id = Math.min(...alive().map(({ job }) => job));
    leaving.abort();
    await expect(running).rejects.toBeInstanceOf(JobLeft);
    await expect(waiting).rejects.toBeInstanceOf(JobLeft);
    const its = holding(id) ?? worker;
    expect(its.told.at(-1)).toEqual({ leave: id });
    its.say({ id, say: 'step', step: 'late' });
    its.say({ id, say: 'left' });
    expect(steps).toEqual([]);
    answerAll();
    await other;
  });
  test('a worker that does not leave its job in time is ended, and the next job gets a new one', async () => {
    const leaving = new AbortController();
    const stuck = runJob('noisePeak', question, { signal: leaving.signal });
    const other = runJob('noisePeak', question);
    const id = Math.min(...alive().map(({ job }) => job));
    const its = holding(id);
    leaving.abort();
    await expect(stuck).rejects.toBeInstanceOf(JobLeft);
    const next = runJob('noisePeak', question);
    expect(its?.ended).toBe(false);
    jest.advanceTimersByTime(1000);
    expect(its?.ended).toBe(true);
    answerAll();
    await Promise.all([other, next]);
  });
  test('what runs in the background lets others go first', async () => {
    const held = [runJob('noisePeak', question), runJob('noisePeak', question)];
    const slow = runJob('noisePeak', question, { background: true });
    const quick = runJob('noisePeak', question);
    const [worker] = alive();
    const before = worker.job;
    worker.say({ id: before, say: 'answer', answer: 1, ms: 1 });
    expect(worker.job).toBe(Math.max(...alive().map(({ job }) => job)));
    worker.say({ id: worker.job, say: 'answer', answer: 'quick', ms: 1 });
    await expect(quick).resolves.toMatchObject({ answer: 'quick' });
    answerAll();
    await Promise.all([...held, slow]);
  });
  test('a worker that fails to start says so to its job alone', async () => {
    const one = runJob('noisePeak', question);
    const two = runJob('noisePeak', question);
    const id = Math.min(...alive().map(({ job }) => job));
    holding(id)?.onerror?.();
    await expect(one).rejects.toThrow(/could not start/);
    answerAll();
    await expect(two).resolves.toMatchObject({ ms: 5 });
  });
  test('a job that takes a moment has a worker opened beside it, which waits for the next', async () => {
    // workers of the tests before end as stuck ones do
    for (const worker of alive()) worker.onerror?.();
    const slow = runJob('noisePeak', question);
    expect(alive()).toHaveLength(1);
    jest.advanceTimersByTime(20);
    expect(alive()).toHaveLength(1);
    jest.advanceTimersByTime(20);
    expect(alive()).toHaveLength(2);
    const [busy, waiting] = alive();
    expect(waiting.told).toEqual([]);
    const next = runJob('noisePeak', question);
    expect(waiting.job).toBe(busy.job + 1);
    jest.advanceTimersByTime(1000);
    // there are as many as cores, and no more
    expect(alive()).toHaveLength(2);
    answerAll();
    await Promise.all([slow, next]);
  });
});
