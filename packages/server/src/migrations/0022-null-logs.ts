import type { Migration } from '../migrate';
import { createTable } from './additions';

/** Turns of an antenna with a null, each at its place. */
export const nullLogs: Migration = {
  name: '0022-null-logs',
  async up({ context }) {
    await createTable(
      context,
      'nullLogs',
      `name TEXT NOT NULL, atMs REAL NOT NULL, xM REAL NOT NULL, yM REAL NOT NULL, freqHz REAL, declinationDeg REAL NOT NULL, meaning TEXT NOT NULL,
       readings TEXT NOT NULL, sense TEXT NOT NULL, sigmaDeg REAL NOT NULL, antennaId INTEGER REFERENCES antennas(id), conditions TEXT NOT NULL DEFAULT ''`,
    );
  },
  async down({ context }) {
    await context.sequelize.query(`DELETE FROM edits WHERE resource = 'nullLogs'`);
    await context.sequelize.query('DROP TABLE nullLogs');
  },
};
