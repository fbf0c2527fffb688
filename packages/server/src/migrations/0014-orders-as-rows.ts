import type { Migration, MigrationContext } from '../migrate';
import { addColumn, CARRIED, createTable, NEW_UUID, rewriteEdits } from './additions';

/** The two columns that held a stage's place. */
const FORMER = [
  [1, 'firstPlace'],
  [2, 'secondPlace'],
] as const;
/** Room between edits for those that the new records add to a batch. */
const ROOM = 10;

/** The path's order of a number, and a stage's place in it. */
const orderOf = (pathId: string, number: number): string =>
  `(SELECT id FROM pathOrders WHERE pathOrders.pathId = ${pathId} AND number = ${number})`;
const placeOf = (stageId: string, number: number): string =>
  `(SELECT orderPlaces.id FROM orderPlaces JOIN pathOrders ON pathOrders.id = orderId WHERE stageId = ${stageId} AND number = ${number})`;

/** What undo needs: the new records came and went with path and stage, and a changed place was a change of the new record. */
async function writeHistory(context: MigrationContext): Promise<void> {
  const { sequelize } = context;
  // edits keep their sequence, and leave room behind each
  await sequelize.query(`UPDATE edits SET id = -id * ${ROOM}`);
  await sequelize.query('UPDATE edits SET id = -id');
  const copied = 'stationId, batch, createdAt, undoneAt, device';
  for (const [number, column] of FORMER) {
    const order = orderOf('edits.recordId', number);
    await sequelize.query(`INSERT INTO edits (id, ${copied}, resource, recordId, op, "before", "after")
      SELECT id + ${number}, ${copied}, 'pathOrders', ${order}, op,
        CASE WHEN op = 'delete' THEN json_object('pathId', recordId, 'number', ${number}, 'name', '') END,
        CASE WHEN op = 'create' THEN json_object('name', NULL) END
      FROM edits WHERE resource = 'paths' AND op IN ('create', 'delete') AND ${order} IS NOT NULL`);
    const place = placeOf('edits.recordId', number);
    const value = (side: string): string =>
      `json_object('orderId', (SELECT orderId FROM orderPlaces WHERE id = ${place}), 'stageId', recordId, 'place', json_extract(${side}, '$.${column}'))`;
    const changed = `json_extract("before", '$.${column}') <> json_extract("after", '$.${column}')`;
    await sequelize.query(`INSERT INTO edits (id, ${copied}, resource, recordId, op, "before", "after")
      SELECT id + ${number}, ${copied}, 'orderPlaces', ${place}, op,
        CASE WHEN op <> 'create' THEN ${value('"before"')} END, CASE WHEN op <> 'delete' THEN ${value('"after"')} END
      FROM edits WHERE resource = 'pathStages' AND ${place} IS NOT NULL AND (op <> 'update' OR ${changed})`);
  }
  await rewriteEdits(context, 'pathStages', (side) => `json_remove(${side}, '$.firstPlace', '$.secondPlace')`);
}

/** Orders of a path become records, as many as one likes, instead of two numbers in each stage. */
export const ordersAsRows: Migration = {
  name: '0014-orders-as-rows',
  async up({ context }) {
    const { sequelize } = context;
    await createTable(
      context,
      'pathOrders',
      "pathId INTEGER NOT NULL REFERENCES paths(id), number INTEGER NOT NULL, name TEXT NOT NULL DEFAULT ''",
    );
    await createTable(
      context,
      'orderPlaces',
      'orderId INTEGER NOT NULL REFERENCES pathOrders(id), stageId INTEGER NOT NULL REFERENCES pathStages(id), place INTEGER NOT NULL',
    );
    const stamps = 'createdAt, updatedAt, deletedAt';
    for (const [number, column] of FORMER) {
      await sequelize.query(`INSERT INTO pathOrders (${CARRIED}, pathId, number)
        SELECT stationId, 1, ${stamps}, ${NEW_UUID}, id, ${number} FROM paths ORDER BY id`);
      await sequelize.query(`INSERT INTO orderPlaces (${CARRIED}, orderId, stageId, place)
        SELECT stationId, 1, ${stamps}, ${NEW_UUID}, ${orderOf('pathStages.pathId', number)}, id, ${column} FROM pathStages ORDER BY id`);
    }
    await sequelize.query('CREATE INDEX orderPlaces_stage ON orderPlaces(stageId)');
    await writeHistory(context);
    for (const [, column] of FORMER) await sequelize.query(`ALTER TABLE pathStages DROP COLUMN ${column}`);
  },
  async down({ context }) {
    const { sequelize } = context;
    for (const [number, column] of FORMER) {
      await addColumn(context, 'pathStages', column, 'INTEGER NOT NULL DEFAULT 0');
      await sequelize.query(`UPDATE pathStages SET ${column} = COALESCE((SELECT place FROM orderPlaces JOIN pathOrders ON pathOrders.id = orderId
        WHERE stageId = pathStages.id AND number = ${number} ORDER BY orderPlaces.id LIMIT 1), id)`);
      await rewriteEdits(context, 'pathStages', (side) => `json_set(${side}, '$.${column}', 0)`);
    }
    for (const table of ['orderPlaces', 'pathOrders']) {
      await sequelize.query(`DELETE FROM edits WHERE resource = '${table}'`);
      await sequelize.query(`DROP TABLE ${table}`);
    }
  },
};
