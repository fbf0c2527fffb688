import type { Database } from '../database';
import { applyChanges, createStation } from '../records';
import { importSweep } from '../sweep-import';
import { dipoleSweepFile } from './dipole-sweep';
import { FERRIN_POINT, FERRIN_POINT_RECORDS } from './ferrin-point';

/** Loads the demo into a database without any station, deleted ones included; never over a user's data. */
export async function loadDemo(db: Database): Promise<boolean> {
  if ((await db.stations.count({ paranoid: false })) > 0) return false;
  const station = await createStation(db, FERRIN_POINT);
  const stationId = Number(station.id);
  await applyChanges(db, stationId, FERRIN_POINT_RECORDS);
  const old = await db.tables.antennas.findOne({ where: { stationId } });
  const file = dipoleSweepFile(15.06, 8e6, 11e6, 301);
  await importSweep(
    db,
    stationId,
    { name: 'old-dipole-before-trimming.s1p', bytes: Buffer.from(file) },
    Number(old?.get('id')),
  );
  await db.edits.destroy({ where: { stationId } }); // a newcomer's first undo must not take the demo apart
  return true;
}
