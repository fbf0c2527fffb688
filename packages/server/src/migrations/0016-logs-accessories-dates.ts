import type { Migration } from '../migrate';
import { addColumn, createTable, rewriteEdits } from './additions';

/** Dates of what stands at the station, by table. */
const DATES: Readonly<Record<string, readonly string[]>> = {
  stations: ['lineSinceMs', 'lineMeasuredMs'],
  antennas: ['sinceMs'],
  receivers: ['sinceMs', 'measuredMs'],
  transmitters: ['measuredMs'],
  parts: ['sinceMs', 'measuredMs'],
};

/** Long logs as typed bytes, accessories, and dates of what stands there. */
export const logsAccessoriesDates: Migration = {
  name: '0016-logs-accessories-dates',
  async up({ context }) {
    await createTable(
      context,
      'logs',
      `name TEXT NOT NULL, kind TEXT NOT NULL, rows INTEGER NOT NULL, first REAL NOT NULL, last REAL NOT NULL,
       antennaId INTEGER REFERENCES antennas(id), receiverId INTEGER REFERENCES receivers(id), freqHz REAL, bandwidthHz REAL,
       conditions TEXT NOT NULL DEFAULT '', attachmentId INTEGER NOT NULL REFERENCES attachments(id), checksum TEXT NOT NULL, samples BLOB NOT NULL`,
    );
    await createTable(
      context,
      'accessories',
      `name TEXT NOT NULL, kind TEXT NOT NULL, antennaId INTEGER REFERENCES antennas(id), property TEXT NOT NULL DEFAULT '',
       sinceMs REAL, measuredMs REAL`,
    );
    for (const [table, columns] of Object.entries(DATES)) {
      for (const column of columns) await addColumn(context, table, column, 'REAL');
      const nothing = columns.map((column) => `'$.${column}', json('null')`).join(', ');
      await rewriteEdits(context, table, (side) => `json_set(${side}, ${nothing})`);
    }
  },
  async down({ context }) {
    for (const [table, columns] of Object.entries(DATES)) {
      for (const column of columns) await context.sequelize.query(`ALTER TABLE ${table} DROP COLUMN ${column}`);
      const gone = columns.map((column) => `'$.${column}'`).join(', ');
      await rewriteEdits(context, table, (side) => `json_remove(${side}, ${gone})`);
    }
    for (const table of ['accessories', 'logs']) {
      await context.sequelize.query(`DELETE FROM edits WHERE resource = '${table}'`);
      await context.sequelize.query(`DROP TABLE ${table}`);
    }
  },
};
