import type { Migration } from '../migrate';
import { addColumn } from './additions';

/** Fields that named a record, the table it is in, and the field that points at it from now on. */
const POINTS = [
  ['antennaId', 'antennas', 'antennaName'],
  ['receiverId', 'receivers', 'name'],
] as const;

/** Receiver inputs of Guard point at the antenna and the receiver that they name, where there is one of that name. */
export const guardPointsAtRecords: Migration = {
  name: '0011-guard-points-at-records',
  async up({ context }) {
    for (const [field, table, named] of POINTS) {
      await addColumn(context, 'guardInputs', field, 'INTEGER');
      await context.sequelize.query(`UPDATE guardInputs SET ${field} = (
        SELECT id FROM ${table} WHERE ${table}.stationId = guardInputs.stationId AND ${table}.deletedAt IS NULL
          AND lower(trim(${table}.name)) = lower(trim(guardInputs.${named})) ORDER BY id LIMIT 1) WHERE ${field} IS NULL`);
    }
  },
  async down({ context: { sequelize } }) {
    for (const [field] of POINTS) await sequelize.query(`ALTER TABLE guardInputs DROP COLUMN ${field}`);
  },
};
