import { expect, test } from '@jest/globals';
import type { GroundNeed, KeptCells } from '@velvet-reed/core/solver';
import { type GroundWord, talkOfGround } from './ground-talk';

const need = (...freqsHz: readonly number[]): GroundNeed => ({
  ground: { type: 'real', relPermittivity: 13, conductivitySPerM: 0.005 },
  range: { leastM: 1, mostM: 20, leastHeightM: 1, mostHeightM: 18 },
  logStep: 0.16,
  freqsHz,
});
const CELLS: KeptCells = { key: 'a ground', rows: new Map() };

/** A worker that hears what the test says to it, and lets messages in when the test does. */
function worker(busy = false, number = 1) {
  const said: GroundWord[] = [];
  const computed: number[] = [];
  const taken: string[] = [];
  const fresh: KeptCells[] = [];
  const state = { busy, kept: 0 };
  let goOn: () => void = () => undefined;
  const talk = talkOfGround({
    number,
    say: (word) => said.push(word),
    idle: () => !state.busy,
    fresh: () => fresh.splice(0),
    breathe: () => new Promise((resolve) => (goOn = resolve)),
    compute(asked, index) {
      computed.push(asked.freqsHz[index]);
      fresh.push(CELLS);
    },
    takeIn: ({ key }) => taken.push(key),
    keep: () => state.kept++,
  });
  const breath = async (): Promise<void> => {
    goOn();
    await Promise.resolve();
    await Promise.resolve();
  };
  return { ...talk, said, computed, taken, breath, state };
}

test('a worker without a job begins at the end, tells each table, and leaves the first to the one that asked', async () => {
  const { hear, breath, said, computed, state } = worker();
  hear({ need: need(1, 2, 3) });
  expect(computed).toEqual([3]);
  await breath();
  expect(computed).toEqual([3, 2]);
  await breath();
  await breath();
  expect(computed).toEqual([3, 2]);
  expect(said).toEqual([{ cells: [CELLS] }, { cells: [CELLS] }]);
  // what it computed it also writes down: the one that asked only took it in
  expect(state.kept).toBe(1);
});

test('as the one that asked goes on, the list gets shorter; when it has done all, nothing is computed any more', async () => {
  const { hear, breath, computed } = worker();
  hear({ need: need(1, 2, 3, 4, 5) });
  await breath();
  expect(computed).toEqual([5, 4]);
  // it has done 1 and 2, and knows 4 and 5
  hear({ need: need(3) });
  await breath();
  expect(computed).toEqual([5, 4]);
  hear({ need: undefined });
  hear({ need: need(7, 8) });
  expect(computed).toEqual([5, 4, 8]);
});

test('of two that help each begins with another table, and both come to the same end', async () => {
  const [one, two] = [worker(), worker(false, 2)];
  for (const { hear } of [one, two]) hear({ need: need(1, 2, 3, 4) });
  expect([one.computed, two.computed]).toEqual([[4], [3]]);
  for (const { breath } of [one, two, one, two, one, two]) await breath();
  expect(new Set(one.computed)).toEqual(new Set([2, 3, 4]));
  expect(new Set(two.computed)).toEqual(new Set([2, 3, 4]));
});

test('a worker with a job does not help, and one that gets a job stops', async () => {
  const one = worker(true);
  one.hear({ need: need(1, 2, 3) });
  expect(one.computed).toEqual([]);
  expect(one.state.kept).toBe(0);
  const other = worker();
  other.hear({ need: need(1, 2, 3) });
  other.state.busy = true;
  await other.breath();
  expect(other.computed).toEqual([3]);
});

test('what others computed is taken in; nothing is said where nothing was computed', () => {
  const { hear, tell, ask, taken, said } = worker(true);
  hear({ cells: [CELLS, { ...CELLS, key: 'another' }] });
  expect(taken).toEqual(['a ground', 'another']);
  tell();
  ask(need(1, 2));
  expect(said).toEqual([{ need: need(1, 2) }]);
});
