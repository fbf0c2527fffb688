// Random sequences of saves, deletions, undos, restores, bins and imports by three devices, held against a referee in memory. `SEQUENCES=2000` is the default;
// a sequence that fails is named by its seed.
import { openWorld, playSequence, type Tally } from '../packages/server/src/referee';
import { printLine } from './print';

const SEQUENCES = Number(process.env.SEQUENCES ?? 2000);
const SEED = 33_000;
const STEPS = 24;
/** A folder holds so many stations before a new one is begun. */
const PER_FOLDER = 25;

export async function sequencesBench(): Promise<void> {
  const tally: Tally = { done: 0, refused: 0, kinds: {} };
  const faults: string[] = [];
  for (let i = 0; i < SEQUENCES; i += PER_FOLDER) {
    const world = await openWorld();
    for (let k = i; k < Math.min(SEQUENCES, i + PER_FOLDER); k += 1)
      await playSequence(world, SEED + k, STEPS, tally).catch((error: unknown) =>
        faults.push(`${SEED + k}: ${error instanceof Error ? error.message : String(error)}`),
      );
    await world.close();
  }
  const moves = Object.entries(tally.kinds).map(([kind, count]) => `${kind} ${count}`);
  console.log(`  moves: ${moves.join(', ')}; ${tally.refused} of them refused`);
  for (const fault of faults) console.log(`  ${fault}`);
  const what = `${SEQUENCES} sequences by three devices: lost, doubled, dangling, or changed unasked`;
  printLine(what, String(faults.length), '0', faults.length === 0);
}
