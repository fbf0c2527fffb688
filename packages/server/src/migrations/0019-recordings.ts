import type { Migration } from '../migrate';
import { addColumn, createTable, rewriteEdits } from './additions';

/** New columns of trials and their readings: SQL type with default, and the same default as JSON. */
const ADDED: Readonly<Record<string, readonly (readonly [name: string, sql: string, json: string])[]>> = {
  trials: [
    ['primary', `TEXT NOT NULL DEFAULT 'snr'`, '"snr"'],
    ['plannedPairs', 'REAL', 'null'],
    ['fadingS', 'REAL', 'null'],
  ],
  stations: [['horizon', `TEXT NOT NULL DEFAULT ''`, '""']],
  readings: [
    ['scale', `TEXT NOT NULL DEFAULT 'dBm'`, '"dBm"'],
    ['differenceDb', 'REAL', 'null'],
  ],
};

/** Recordings of receivers, passes as they were heard, the horizon, and what trials are judged by. */
export const recordings: Migration = {
  name: '0019-recordings',
  async up({ context }) {
    await createTable(
      context,
      'recordings',
      `name TEXT NOT NULL, fileBytes INTEGER NOT NULL, checksum TEXT NOT NULL, lengthS REAL NOT NULL, sampleRateHz REAL NOT NULL,
       meaning TEXT NOT NULL, centreHz REAL NOT NULL, startMs REAL, receiverId INTEGER REFERENCES receivers(id),
       antennaAId INTEGER REFERENCES antennas(id), antennaBId INTEGER REFERENCES antennas(id), signalHz REAL, bandwidthHz REAL,
       quietHz REAL, turnS REAL, fullScaleDbm REAL, attachmentId INTEGER REFERENCES attachments(id)`,
    );
    await createTable(
      context,
      'passes',
      `satelliteId INTEGER NOT NULL REFERENCES satellites(id), riseMs REAL NOT NULL, highestDeg REAL NOT NULL,
       rating INTEGER NOT NULL, antennaId INTEGER REFERENCES antennas(id), note TEXT NOT NULL DEFAULT ''`,
    );
    for (const [table, columns] of Object.entries(ADDED)) {
      for (const [column, sql] of columns) await addColumn(context, table, `"${column}"`, sql);
      const values = columns.map(([column, , json]) => `'$.${column}', json('${json}')`).join(', ');
      await rewriteEdits(context, table, (side) => `json_set(${side}, ${values})`);
    }
  },
  async down({ context }) {
    for (const [table, columns] of Object.entries(ADDED)) {
      for (const [column] of columns) await context.sequelize.query(`ALTER TABLE ${table} DROP COLUMN "${column}"`);
      const gone = columns.map(([column]) => `'$.${column}'`).join(', ');
      await rewriteEdits(context, table, (side) => `json_remove(${side}, ${gone})`);
    }
    for (const table of ['passes', 'recordings']) {
      await context.sequelize.query(`DELETE FROM edits WHERE resource = '${table}'`);
      await context.sequelize.query(`DROP TABLE ${table}`);
    }
  },
};
