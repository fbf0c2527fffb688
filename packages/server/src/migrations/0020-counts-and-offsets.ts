import type { Migration } from '../migrate';
import { addColumn, createTable, rewriteEdits } from './additions';

/** Counts by blocks become records, and a receiver keeps how far its scale is off. */
export const countsAndOffsets: Migration = {
  name: '0020-counts-and-offsets',
  async up({ context }) {
    await createTable(
      context,
      'blockCounts',
      `name TEXT NOT NULL, atMs REAL NOT NULL, blockMinutes REAL NOT NULL, antennaAId INTEGER REFERENCES antennas(id),
       antennaBId INTEGER REFERENCES antennas(id), countsA TEXT NOT NULL, countsB TEXT NOT NULL, conditions TEXT NOT NULL DEFAULT ''`,
    );
    await addColumn(context, 'receivers', 'offsetPpm', 'REAL');
    await rewriteEdits(context, 'receivers', (side) => `json_set(${side}, '$.offsetPpm', json('null'))`);
  },
  async down({ context }) {
    await context.sequelize.query('ALTER TABLE receivers DROP COLUMN offsetPpm');
    await rewriteEdits(context, 'receivers', (side) => `json_remove(${side}, '$.offsetPpm')`);
    await context.sequelize.query(`DELETE FROM edits WHERE resource = 'blockCounts'`);
    await context.sequelize.query('DROP TABLE blockCounts');
  },
};
