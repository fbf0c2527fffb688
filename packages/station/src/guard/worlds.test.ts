import { expect, test } from '@jest/globals';
import { guardVerdict, judgedGuard } from './judge';
import { EDITS, madeWorld, walkWorld } from './worlds';
import { plannedTransmitters } from '../transmitters';

/** Stations and edits of each; all of 2,000 in the bench. */
const WORLDS = 300;
const EACH = 20;

test(`${WORLDS} made-up stations, ${EACH} edits of each: no verdict is better than the referee's, undo is as before, no level out of this world`, () => {
  const faults: string[] = [];
  for (let seed = 1; seed <= WORLDS && faults.length < 5; seed += 1) faults.push(...walkWorld(seed, EACH));
  expect(faults).toEqual([]);
}, 900_000);

test('the made-up stations are of all kinds, and every kind of edit can be done', () => {
  const seen = new Set<string>();
  const done = new Set<string>();
  for (let seed = 1; seed <= 100; seed += 1) {
    const { data } = madeWorld(seed);
    for (const plan of plannedTransmitters(data)) {
      const judged = judgedGuard(data, plan);
      seen.add(guardVerdict(judged).colour);
      for (const { colour } of judged.proof.cells) seen.add(`cell ${colour}`);
    }
    const chance = { uniform: () => 0.3, normal: () => 0 };
    for (const [name, edit] of EDITS) if (edit(data, chance)) done.add(name);
  }
  for (const colour of ['proven', 'computed', 'assumed', 'unknown', 'danger']) expect(seen).toContain(`cell ${colour}`);
  expect([...done].sort()).toEqual(
    EDITS.map(([name]) => name)
      .filter((name) => name !== 'gain of the Path')
      .sort(),
  );
});
