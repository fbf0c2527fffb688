import type { Migration } from '../migrate';
import { NEW_UUID } from './additions';

/** Each file of stations has an id of its own: what a browser keeps for one file never goes into another. */
export const idOfTheDataFile: Migration = {
  name: '0029-id-of-the-data-file',
  async up({ context: { sequelize } }) {
    await sequelize.query('CREATE TABLE data_file (id TEXT NOT NULL)');
    await sequelize.query(`INSERT INTO data_file (id) VALUES (${NEW_UUID})`);
  },
  async down({ context: { sequelize } }) {
    await sequelize.query('DROP TABLE data_file');
  },
};
