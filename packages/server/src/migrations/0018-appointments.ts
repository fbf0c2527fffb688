import type { Migration } from '../migrate';
import { createTable } from './additions';

/** Hours kept free to listen. */
export const appointments: Migration = {
  name: '0018-appointments',
  async up({ context }) {
    await createTable(
      context,
      'appointments',
      `name TEXT NOT NULL, atMs REAL NOT NULL, minutes REAL NOT NULL, repeats TEXT NOT NULL, freqHz REAL,
       receiverId INTEGER REFERENCES receivers(id), antennaId INTEGER REFERENCES antennas(id), slotMinutes REAL`,
    );
  },
  async down({ context }) {
    await context.sequelize.query(`DELETE FROM edits WHERE resource = 'appointments'`);
    await context.sequelize.query('DROP TABLE appointments');
  },
};
