import type { Migration } from '../migrate';
import { addColumn, CARRIED, createTable, NEW_UUID, rewriteEdits } from './additions';

const VALUES = 'name, freqHz, powerW, powerKind, distanceM, own';
/** The transmitter of a Guard plan, as its history needs it. */
const OF_PLAN = '(SELECT transmitterId FROM guardPlans WHERE guardPlans.id = edits.recordId)';
const POWER_OF_PLAN = '(SELECT powerW FROM transmitters WHERE transmitters.id = guardPlans.transmitterId)';

/** One table of transmitters that Listen, the plan and Guard point at; a Guard plan without its own transmitter on the list gets one. */
export const oneTableOfTransmitters: Migration = {
  name: '0012-one-table-of-transmitters',
  async up({ context }) {
    const { sequelize, rows } = context;
    await createTable(
      context,
      'transmitters',
      'name TEXT NOT NULL, freqHz REAL NOT NULL, powerW REAL NOT NULL, powerKind TEXT NOT NULL, distanceM REAL, own INTEGER NOT NULL',
    );
    await sequelize.query(
      `INSERT INTO transmitters (id, ${CARRIED}, ${VALUES}) SELECT id, ${CARRIED}, ${VALUES} FROM emitters`,
    );
    await sequelize.query('DROP TABLE emitters');
    await sequelize.query("UPDATE edits SET resource = 'transmitters' WHERE resource = 'emitters'");
    await addColumn(context, 'guardPlans', 'transmitterId', 'INTEGER');
    for (const { id } of await rows('SELECT id FROM guardPlans ORDER BY id')) {
      const plan = Number(id);
      // the own transmitter of that power, if it is the only one; two of one power could be either
      await sequelize.query(`UPDATE guardPlans SET transmitterId = (SELECT MIN(id) FROM transmitters AS t
        WHERE t.stationId = guardPlans.stationId AND t.deletedAt IS NULL AND t.own = 1 AND t.powerW = guardPlans.powerW
        HAVING COUNT(*) = 1) WHERE id = ${plan} AND deletedAt IS NULL`);
      await sequelize.query(`INSERT INTO transmitters (${CARRIED}, ${VALUES})
        SELECT stationId, 1, createdAt, updatedAt, deletedAt, ${NEW_UUID}, name, freqHz, powerW, 'output', NULL, 1
        FROM guardPlans WHERE id = ${plan} AND transmitterId IS NULL`);
      await sequelize.query(
        `UPDATE guardPlans SET transmitterId = last_insert_rowid() WHERE id = ${plan} AND transmitterId IS NULL`,
      );
    }
    await rewriteEdits(
      context,
      'guardPlans',
      (side) => `json_set(json_remove(${side}, '$.powerW'), '$.transmitterId', ${OF_PLAN})`,
    );
    await sequelize.query('ALTER TABLE guardPlans DROP COLUMN powerW');
    await addColumn(context, 'plotFeatures', 'transmitterId', 'INTEGER');
    // where there is one of each, they are the same
    await sequelize.query(`UPDATE plotFeatures SET transmitterId = (SELECT MIN(id) FROM transmitters AS t
      WHERE t.stationId = plotFeatures.stationId AND t.deletedAt IS NULL AND t.own = 1 HAVING COUNT(*) = 1)
      WHERE kind = 'transmitter' AND deletedAt IS NULL AND (SELECT COUNT(*) FROM plotFeatures AS other
        WHERE other.stationId = plotFeatures.stationId AND other.kind = 'transmitter' AND other.deletedAt IS NULL) = 1`);
    await rewriteEdits(context, 'plotFeatures', (side) => `json_set(${side}, '$.transmitterId', json('null'))`);
  },
  async down({ context }) {
    const { sequelize } = context;
    await sequelize.query('ALTER TABLE plotFeatures DROP COLUMN transmitterId');
    await sequelize.query('ALTER TABLE guardPlans ADD COLUMN powerW REAL NOT NULL DEFAULT 100');
    await sequelize.query(`UPDATE guardPlans SET powerW = ${POWER_OF_PLAN} WHERE ${POWER_OF_PLAN} IS NOT NULL`);
    await sequelize.query('ALTER TABLE guardPlans DROP COLUMN transmitterId');
    await createTable(
      context,
      'emitters',
      'name TEXT NOT NULL, freqHz REAL NOT NULL, powerW REAL NOT NULL, powerKind TEXT NOT NULL, distanceM REAL NOT NULL, own INTEGER NOT NULL',
    );
    // this release knew no transmitter without a distance, nor its output alone
    await sequelize.query(
      `INSERT INTO emitters (id, ${CARRIED}, ${VALUES}) SELECT id, ${CARRIED}, ${VALUES} FROM transmitters
       WHERE distanceM IS NOT NULL AND powerKind <> 'output'`,
    );
    await sequelize.query('DROP TABLE transmitters');
    await sequelize.query("UPDATE edits SET resource = 'emitters' WHERE resource = 'transmitters'");
  },
};
