import type { Migration } from '../migrate';
import { addColumn, createTable, rewriteEdits } from './additions';

/** New columns of entries: SQL type with default, and the same default as JSON. */
const ADDED = [
  ['antennaId', 'INTEGER REFERENCES antennas(id)', 'null'],
  ['room', `TEXT NOT NULL DEFAULT ''`, '""'],
  ['pinned', 'INTEGER NOT NULL DEFAULT 0', 'false'],
] as const;

/** Entries say what they speak of and keep photos; duties of upkeep. */
export const diaryAndUpkeep: Migration = {
  name: '0023-diary-and-upkeep',
  async up({ context }) {
    for (const [column, sql] of ADDED) await addColumn(context, 'entries', column, sql);
    const values = ADDED.map(([column, , json]) => `'$.${column}', json('${json}')`).join(', ');
    await rewriteEdits(context, 'entries', (side) => `json_set(${side}, ${values})`);
    await createTable(
      context,
      'photos',
      `entryId INTEGER NOT NULL REFERENCES entries(id), attachmentId INTEGER NOT NULL REFERENCES attachments(id),
       smallId INTEGER NOT NULL REFERENCES attachments(id), caption TEXT NOT NULL DEFAULT ''`,
    );
    await createTable(
      context,
      'upkeep',
      `name TEXT NOT NULL, kind TEXT NOT NULL, everyDays REAL NOT NULL, sinceMs REAL NOT NULL, doneMs REAL,
       antennaId INTEGER REFERENCES antennas(id), note TEXT NOT NULL DEFAULT ''`,
    );
  },
  async down({ context }) {
    for (const table of ['upkeep', 'photos']) {
      await context.sequelize.query(`DELETE FROM edits WHERE resource = '${table}'`);
      await context.sequelize.query(`DROP TABLE ${table}`);
    }
    for (const [column] of ADDED) await context.sequelize.query(`ALTER TABLE entries DROP COLUMN ${column}`);
    const gone = ADDED.map(([column]) => `'$.${column}'`).join(', ');
    await rewriteEdits(context, 'entries', (side) => `json_remove(${side}, ${gone})`);
  },
};
