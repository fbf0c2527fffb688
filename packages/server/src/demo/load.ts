import { randomUUID } from 'node:crypto';
import { applyWithin } from '../changes';
import type { Database } from '../database';
import { makeStation } from '../records';
import { readSweepFile, storeSweep } from '../sweep-import';
import { dipoleSweepFile } from './dipole-sweep';
import { EVENING_MS, FERRIN_POINT, FERRIN_POINT_RECORDS } from './ferrin-point';

const DAY_MS = 86_400_000;

/**
 * Loads the demo into a database without any station, deleted ones included; never over a user's data. One transaction: a process killed in the
 * middle leaves no half of it, and the next start loads it anew.
 */
export async function loadDemo(db: Database): Promise<boolean> {
  if ((await db.stations.count({ paranoid: false })) > 0) return false;
  const name = 'old-dipole-before-trimming.s1p';
  const file = { name, bytes: Buffer.from(dipoleSweepFile(15.06, 8e6, 11e6, 301)) };
  const content = await readSweepFile(db, 0, file, { antennaId: null });
  const author = () => ({ key: randomUUID(), device: '' });
  return db.write(async (transaction) => {
    if ((await db.stations.count({ paranoid: false, transaction })) > 0) return false;
    const station = await makeStation(db, transaction, FERRIN_POINT, author());
    const stationId = Number(station.id);
    await applyWithin(db, transaction, stationId, { changes: FERRIN_POINT_RECORDS, author: author() });
    const old = await db.tables.antennas.findOne({ where: { stationId }, transaction });
    const origin = {
      ...{ antennaId: Number(old?.get('id')), correction: 'file', calibrationId: null },
      measuredMs: EVENING_MS - DAY_MS,
    };
    await storeSweep(db, transaction, stationId, { file, content, origin, author: author() });
    await db.edits.destroy({ where: { stationId }, transaction }); // a newcomer's first undo must not take the demo apart
    return true;
  });
}
