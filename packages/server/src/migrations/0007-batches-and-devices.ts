import type { Migration } from '../migrate';
import { addColumn } from './additions';

/** Which device saved a batch, so that undo takes back only its own; batches found by name. */
export const batchesAndDevices: Migration = {
  name: '0007-batches-and-devices',
  async up({ context }) {
    await addColumn(context, 'edits', 'device', "TEXT NOT NULL DEFAULT ''");
    await context.sequelize.query('CREATE INDEX IF NOT EXISTS edits_batch ON edits(stationId, batch)');
    await context.sequelize.query('CREATE INDEX IF NOT EXISTS edits_record ON edits(resource, recordId, id)');
  },
  async down({ context: { sequelize } }) {
    await sequelize.query('DROP INDEX edits_record');
    await sequelize.query('DROP INDEX edits_batch');
    await sequelize.query('ALTER TABLE edits DROP COLUMN device');
  },
};
