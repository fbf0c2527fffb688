import type { Migration, MigrationContext } from '../migrate';
import { rewriteEdits } from './additions';

/** Columns that get the glossary's word: table, the word before, the word now. "Stage" is a part of a signal chain alone. */
const RENAMED = [
  ['entries', 'stage', 'step'],
  ['trials', 'wishedDb', 'worthDb'],
  ['guardPlans', 'wishedMarginDb', 'marginToKeepDb'],
] as const;

/** Renames a column, and its value in every side of the edits, so that undo still fits. */
async function rename(context: MigrationContext, table: string, from: string, to: string): Promise<void> {
  await context.sequelize.query(`ALTER TABLE ${table} RENAME COLUMN ${from} TO ${to}`);
  await rewriteEdits(
    context,
    table,
    (side) => `json_remove(json_set(${side}, '$.${to}', json_extract(${side}, '$.${from}')), '$.${from}')`,
  );
}

/** One word for one thing, in the file too. */
export const wordsOfTheGlossary: Migration = {
  name: '0017-words-of-the-glossary',
  async up({ context }) {
    for (const [table, from, to] of RENAMED) await rename(context, table, from, to);
  },
  async down({ context }) {
    for (const [table, from, to] of RENAMED) await rename(context, table, to, from);
  },
};
