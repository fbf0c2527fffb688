import type { Migration } from '../migrate';
import { additions, rewriteEdits } from './additions';

const columns = additions(
  '0028-gains-of-receivers',
  {},
  {
    receivers: [
      ['superhet', 'INTEGER NOT NULL DEFAULT 0', 'false'],
      ['gains', "TEXT NOT NULL DEFAULT '[]'", '[]'],
    ],
  },
);

/** The figures with which earlier releases entered a superhet by its kind. */
const BY_KIND = `bits = 24 AND fullScaleDbm = 10 AND sampleRateHz = 1000000 AND name LIKE 'Superhet with an S meter%'`;

/** What other gains make of a receiver, and receivers with a dial and no samples. */
export const gainsOfReceivers: Migration = {
  name: '0028-gains-of-receivers',
  async up(context) {
    await columns.up(context);
    await context.context.sequelize.query(`UPDATE receivers SET superhet = 1 WHERE ${BY_KIND}`);
    await rewriteEdits(
      context.context,
      'receivers',
      (side) =>
        `CASE WHEN json_extract(${side}, '$.bits') = 24 AND json_extract(${side}, '$.name') LIKE 'Superhet with an S meter%'
          THEN json_set(${side}, '$.superhet', json('true')) ELSE ${side} END`,
    );
  },
  async down(context) {
    await columns.down?.(context);
  },
};
