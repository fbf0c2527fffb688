import type { Migration } from '../migrate';
import { rewriteEdits } from './additions';

/** An entry names the step of the work it was written at; "stage" is a part of a signal chain alone. */
export const stepsByName: Migration = {
  name: '0017-steps-by-name',
  async up({ context }) {
    if ((await context.columns('entries')).includes('stage'))
      await context.sequelize.query('ALTER TABLE entries RENAME COLUMN stage TO step');
    await rewriteEdits(
      context,
      'entries',
      (side) => `json_remove(json_set(${side}, '$.step', json_extract(${side}, '$.stage')), '$.stage')`,
    );
  },
  async down({ context }) {
    await context.sequelize.query('ALTER TABLE entries RENAME COLUMN step TO stage');
    await rewriteEdits(
      context,
      'entries',
      (side) => `json_remove(json_set(${side}, '$.stage', json_extract(${side}, '$.step')), '$.step')`,
    );
  },
};
