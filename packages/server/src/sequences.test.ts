import { expect, test } from '@jest/globals';
import { openWorld, playSequence, type Tally } from './referee';

/** Seed of the first sequence; the bench plays 2,000 from the same one on. */
const SEED = 33_000;

test('random sequences by three devices against a referee: nothing lost, nothing doubled, no dangling reference, every station file is taken in again', async () => {
  const tally: Tally = { done: 0, refused: 0, kinds: {} };
  const world = await openWorld();
  for (let i = 0; i < 12; i += 1)
    await playSequence(world, SEED + i, 24, tally).catch((error: unknown) => {
      throw new Error(`sequence ${SEED + i}: ${error instanceof Error ? error.message : String(error)}`, {
        cause: error,
      });
    });
  await world.close();
  // every sort of move was made, and some were refused
  expect(Object.keys(tally.kinds).sort()).toEqual(
    expect.arrayContaining([
      'bring back',
      'create',
      'delete',
      'empty the bin',
      'import beside',
      'restore',
      'undo',
      'update',
    ]),
  );
  expect(tally.refused).toBeGreaterThan(10);
}, 300_000);
