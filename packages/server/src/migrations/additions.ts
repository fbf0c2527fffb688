import type { Migration, MigrationContext } from '../migrate';

/** Columns that every table of records has. */
const STORED = `
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  stationId INTEGER NOT NULL REFERENCES stations(id) ON DELETE CASCADE,
  version INTEGER NOT NULL DEFAULT 1,
  createdAt TEXT NOT NULL,
  updatedAt TEXT NOT NULL,
  deletedAt TEXT`;

/** New columns by table: their SQL type with default, and the same default as JSON for predecessors in the history. */
export type NewColumns = Readonly<Record<string, readonly (readonly [name: string, sql: string, json: string])[]>>;

/** Adds a column unless an earlier release was stopped right behind that statement. */
export async function addColumn(context: MigrationContext, table: string, column: string, sql: string): Promise<void> {
  if (!(await context.columns(table)).includes(column))
    await context.sequelize.query(`ALTER TABLE ${table} ADD COLUMN ${column} ${sql}`);
}

/**
 * A migration that only adds: tables by name with their own columns, and columns to tables that are there. Earlier releases ran these statements one by
 * one without a transaction; a file of theirs that was stopped half-way is finished here, so every statement allows for having been done already.
 */
export const additions = (name: string, tables: Readonly<Record<string, string>>, columns: NewColumns): Migration => ({
  name,
  async up({ context }) {
    const { sequelize } = context;
    for (const [table, own] of Object.entries(tables)) {
      await sequelize.query(`CREATE TABLE IF NOT EXISTS ${table} (${STORED}, ${own})`);
      await sequelize.query(`CREATE INDEX IF NOT EXISTS ${table}_station ON ${table}(stationId, deletedAt)`);
    }
    for (const [table, added] of Object.entries(columns)) {
      for (const [column, sql] of added) await addColumn(context, table, column, sql);
      // predecessors in the history must fit the new table, or undo would lose them
      const values = added.map(([column, , json]) => `'$.${column}', json('${json}')`).join(', ');
      for (const side of ['"before"', '"after"'])
        await sequelize.query(
          `UPDATE edits SET ${side} = json_set(${side}, ${values}) WHERE resource = '${table}' AND ${side} IS NOT NULL`,
        );
    }
  },
  async down({ context: { sequelize } }) {
    for (const [table, added] of Object.entries(columns)) {
      for (const [column] of added) await sequelize.query(`ALTER TABLE ${table} DROP COLUMN ${column}`);
      const removed = added.map(([column]) => `'$.${column}'`).join(', ');
      for (const side of ['"before"', '"after"'])
        await sequelize.query(
          `UPDATE edits SET ${side} = json_remove(${side}, ${removed}) WHERE resource = '${table}' AND ${side} IS NOT NULL`,
        );
    }
    for (const table of Object.keys(tables).reverse()) {
      await sequelize.query(`DELETE FROM edits WHERE resource = '${table}'`);
      await sequelize.query(`DROP TABLE ${table}`);
    }
  },
});

/** Makes a table of records, as every release makes them: uuid included. */
export async function createTable({ sequelize }: MigrationContext, table: string, own: string): Promise<void> {
  await sequelize.query(`CREATE TABLE ${table} (${STORED}, uuid TEXT NOT NULL DEFAULT '', ${own})`);
  await sequelize.query(`CREATE INDEX ${table}_station ON ${table}(stationId, deletedAt)`);
}

/** Columns that every record carries over when it moves to another table. */
export const CARRIED = 'stationId, version, createdAt, updatedAt, deletedAt, uuid';

/** A random UUID (RFC 9562, version 4) for each row. */
export const NEW_UUID = `lower(hex(randomblob(4)) || '-' || hex(randomblob(2)) || '-4' || substr(hex(randomblob(2)), 2) || '-' ||
  substr('89ab', 1 + (random() & 3), 1) || substr(hex(randomblob(2)), 2) || '-' || hex(randomblob(6)))`;

/** Changes both sides of the edits of a kind of record, so that undo finds what fits the new table. @param change of the column's JSON */
export async function rewriteEdits(
  { sequelize }: MigrationContext,
  resource: string,
  change: (side: string) => string,
  where = '1',
): Promise<void> {
  for (const side of ['"before"', '"after"'])
    await sequelize.query(
      `UPDATE edits SET ${side} = ${change(side)} WHERE resource = '${resource}' AND ${side} IS NOT NULL AND ${where}`,
    );
}
