import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { openDatabase } from '../packages/server/src/database';
import { migrator } from '../packages/server/src/migrate';
import { madeUpStation } from '../packages/server/src/station-file/made-up-station';
import { readStationFile } from '../packages/server/src/station-file/read';
import { takeAsNew, takeBeside } from '../packages/server/src/station-file/take';
import { stationContents, writeStationFile } from '../packages/server/src/station-file/write';
import { printLine } from './print';

const STATIONS = 1000;

/** Made-up stations out of one database into another and out again: every byte the same, and taken once more nothing changes. */
export async function stationFileBench(): Promise<void> {
  const dir = mkdtempSync(path.join(tmpdir(), 'reed-bench-'));
  const [from, into] = ['from', 'into'].map((name) => openDatabase(path.join(dir, `${name}.sqlite`)));
  await migrator(from.sequelize).up();
  await migrator(into.sequelize).up();
  const author = () => ({ key: randomUUID(), device: '' });
  const saved = (db: typeof from, id: number) =>
    db.read((transaction) => stationContents(db, transaction, id)).then(writeStationFile);
  let [differing, doubled] = [0, 0];
  const begun = performance.now();
  for (let seed = 1; seed <= STATIONS; seed += 1) {
    const file = await saved(from, await madeUpStation(from, seed));
    const contents = await readStationFile(file);
    const { stationId: id } = await takeAsNew(into, contents, author());
    if (Buffer.compare(await saved(into, id), file) !== 0) differing += 1;
    const take = new Set(Object.values(contents.records).flatMap((list) => list.map(({ uuid }) => uuid)));
    const { added, changed } = await takeBeside(into, id, contents, { take, author: author() });
    if (added + changed > 0) doubled += 1;
  }
  printLine('stations that came back otherwise', `${differing} of ${STATIONS}`, 'none', differing === 0);
  printLine('stations that a second taking changed', `${doubled} of ${STATIONS}`, 'none', doubled === 0);
  console.log(`  one round: ${((performance.now() - begun) / STATIONS).toFixed(0)} ms`);
  await from.sequelize.close();
  await into.sequelize.close();
  rmSync(dir, { recursive: true });
}
