import { antennaState, type LaidRun } from '@velvet-reed/core/evidence';
import type { Migration, MigrationContext } from '../migrate';
import { storedJson } from '../stored-json';
import { addColumn, rewriteEdits } from './additions';

/** Tables that say now what each record was taken on, with their columns that name antennas. */
const TAKEN: Readonly<Record<string, readonly string[]>> = {
  ...{ sweeps: ['antennaId'], spectra: ['antennaId'], levels: ['antennaId'], logs: ['antennaId'] },
  ...{ nullLogs: ['antennaId'], passes: ['antennaId'] },
  ...{ trials: ['antennaAId', 'antennaBId'], blockCounts: ['antennaAId', 'antennaBId'] },
  ...{ recordings: ['antennaAId', 'antennaBId'], guardCouplings: [], powerTests: [] },
};
const PLAN_COLUMNS = ['receiversOnNothing', 'powerSteps'] as const;

type Row = Readonly<Record<string, unknown>>;
const runOf = ({ points, heightM, endHeightM }: Row): LaidRun => {
  const corners = storedJson(points);
  return {
    points: Array.isArray(corners)
      ? corners.flatMap((one: unknown) => (Array.isArray(one) ? [[Number(one[0]), Number(one[1])] as const] : []))
      : [],
    ...{ heightM: Number(heightM), endHeightM: Number(endHeightM) },
  };
};

/**
 * What old records know: the revision that an antenna had when the record was made, and its place where nothing of it on the plan was touched since.
 * The rest stays unknown.
 */
async function fill(context: MigrationContext, table: string, columns: readonly string[]): Promise<void> {
  if (columns.length === 0) return;
  const ids = columns.map((column) => `SELECT ${column} FROM ${table} WHERE ${column} IS NOT NULL`).join(' UNION ');
  for (const antenna of await context.rows(`SELECT id, name FROM antennas WHERE id IN (${ids})`)) {
    const id = Number(antenna.id);
    const revisions = await context.rows(
      `SELECT number, createdAt FROM revisions WHERE antennaId = ${id} AND deletedAt IS NULL ORDER BY createdAt`,
    );
    const laid = await context.rows(
      `SELECT points, heightM, endHeightM, updatedAt FROM plotFeatures WHERE kind = 'antenna' AND antennaId = ${id} AND deletedAt IS NULL ORDER BY id`,
    );
    const where = columns.map((column) => `${column} = ${id}`).join(' OR ');
    for (const record of await context.rows(`SELECT id, createdAt, takenOn FROM ${table} WHERE ${where}`)) {
      const before = (one: Row, stamp: string): boolean => String(one[stamp]) <= String(record.createdAt);
      const known = revisions.filter((one) => before(one, 'createdAt')).map(({ number }) => Number(number));
      // a place that was touched since is not known, and without it the state would be another one
      if (known.length === 0 || laid.some((one) => !before(one, 'updatedAt'))) continue;
      const state = antennaState({ id, name: String(antenna.name) }, known, laid.map(runOf));
      const scope = storedJson(record.takenOn);
      const others: readonly unknown[] =
        typeof scope === 'object' && scope !== null && 'antennas' in scope && Array.isArray(scope.antennas)
          ? scope.antennas
          : [];
      const taken = JSON.stringify({ antennas: [...others, state] }).replaceAll("'", "''");
      await context.sequelize.query(`UPDATE ${table} SET takenOn = '${taken}' WHERE id = ${Number(record.id)}`);
    }
  }
}

/** Records say what they were taken on; an isolation may be unknown; parts have figures over frequency; receivers may hang on nothing. */
export const takenOn: Migration = {
  name: '0024-taken-on',
  async up({ context }) {
    for (const [table, columns] of Object.entries(TAKEN)) {
      await addColumn(context, table, 'takenOn', `TEXT NOT NULL DEFAULT '{}'`);
      await rewriteEdits(context, table, (side) => `json_set(${side}, '$.takenOn', json('{}'))`);
      await fill(context, table, columns);
    }
    for (const column of PLAN_COLUMNS) {
      await addColumn(context, 'guardPlans', column, `TEXT NOT NULL DEFAULT ''`);
      await rewriteEdits(context, 'guardPlans', (side) => `json_set(${side}, '$.${column}', '')`);
    }
    await addColumn(context, 'guardParts', 'points', `TEXT NOT NULL DEFAULT '[]'`);
    await rewriteEdits(context, 'guardParts', (side) => `json_set(${side}, '$.points', json('[]'))`);
    // the same column, which may be empty now
    await context.sequelize.query('ALTER TABLE guardInputs ADD COLUMN isolation REAL');
    await context.sequelize.query('UPDATE guardInputs SET isolation = isolationDb');
    await context.sequelize.query('ALTER TABLE guardInputs DROP COLUMN isolationDb');
    await context.sequelize.query('ALTER TABLE guardInputs RENAME COLUMN isolation TO isolationDb');
  },
  async down({ context }) {
    await context.sequelize.query('ALTER TABLE guardInputs ADD COLUMN isolation REAL NOT NULL DEFAULT 0');
    await context.sequelize.query('UPDATE guardInputs SET isolation = coalesce(isolationDb, 0)');
    await context.sequelize.query('ALTER TABLE guardInputs DROP COLUMN isolationDb');
    await context.sequelize.query('ALTER TABLE guardInputs RENAME COLUMN isolation TO isolationDb');
    await context.sequelize.query(
      `DELETE FROM edits WHERE resource = 'guardParts' AND "after" LIKE '%"kind":"amplifier"%'`,
    );
    await context.sequelize.query(`DELETE FROM guardParts WHERE kind = 'amplifier'`);
    const gone: Readonly<Record<string, readonly string[]>> = {
      ...Object.fromEntries(Object.keys(TAKEN).map((table) => [table, ['takenOn']])),
      ...{ guardPlans: PLAN_COLUMNS, guardParts: ['points'] },
    };
    for (const [table, columns] of Object.entries(gone)) {
      for (const column of columns) await context.sequelize.query(`ALTER TABLE ${table} DROP COLUMN ${column}`);
      const paths = columns.map((column) => `'$.${column}'`).join(', ');
      await rewriteEdits(context, table, (side) => `json_remove(${side}, ${paths})`);
    }
  },
};
