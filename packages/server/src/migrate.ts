import { QueryTypes, Transaction, type Sequelize } from 'sequelize';
import { Umzug, type RunnableMigration, type UmzugStorage } from 'umzug';
import { firstStation } from './migrations/0001-first-station';
import { dimensionsByName } from './migrations/0002-dimensions-by-name';
import { placeAndWishes } from './migrations/0003-place-and-wishes';
import { benchRecords } from './migrations/0004-bench-records';
import { noiseLogAndShelf } from './migrations/0005-noise-log-and-shelf';
import { stagesAndPlugs } from './migrations/0006-stages-and-plugs';
import { batchesAndDevices } from './migrations/0007-batches-and-devices';
import { rulesOfThePlace } from './migrations/0008-rules-of-the-place';
import { coilTests } from './migrations/0009-coil-tests';
import { guardPointsAtRecords } from './migrations/0011-guard-points-at-records';
import { namesTimesAndChecksums } from './migrations/0010-names-times-and-checksums';
import { oneTableOfLevels } from './migrations/0013-one-table-of-levels';
import { ordersAsRows } from './migrations/0014-orders-as-rows';
import { choicesInWords } from './migrations/0015-choices-in-words';
import { logsAccessoriesDates } from './migrations/0016-logs-accessories-dates';
import { appointments } from './migrations/0018-appointments';
import { recordings } from './migrations/0019-recordings';
import { countsAndOffsets } from './migrations/0020-counts-and-offsets';
import { guardByProof } from './migrations/0021-guard-by-proof';
import { nullLogs } from './migrations/0022-null-logs';
import { diaryAndUpkeep } from './migrations/0023-diary-and-upkeep';
import { takenOn } from './migrations/0024-taken-on';
import { audioRoutes } from './migrations/0025-audio-routes';
import { patternCuts } from './migrations/0026-pattern-cuts';
import { spots } from './migrations/0027-spots';
import { gainsOfReceivers } from './migrations/0028-gains-of-receivers';
import { idOfTheDataFile } from './migrations/0029-id-of-the-data-file';
import { clocksOfAppointments } from './migrations/0030-clocks-of-appointments';
import { wordsOfTheGlossary } from './migrations/0017-words-of-the-glossary';
import { oneTableOfTransmitters } from './migrations/0012-one-table-of-transmitters';

/** What a migration works with: every statement goes into the one transaction that also keeps its bookkeeping. */
export interface MigrationContext {
  readonly sequelize: { query(sql: string): Promise<unknown> };
  /** What a SELECT gives. */
  readonly rows: (sql: string) => Promise<readonly Readonly<Record<string, unknown>>[]>;
  /** Names of a table's columns; empty where there is no such table. */
  columns(table: string): Promise<readonly string[]>;
}
export type Migration = RunnableMigration<MigrationContext>;

/** A static list, not a glob: it survives bundling. */
const MIGRATIONS: readonly Migration[] = [
  firstStation,
  dimensionsByName,
  placeAndWishes,
  benchRecords,
  noiseLogAndShelf,
  stagesAndPlugs,
  batchesAndDevices,
  rulesOfThePlace,
  coilTests,
  namesTimesAndChecksums,
  guardPointsAtRecords,
  oneTableOfTransmitters,
  oneTableOfLevels,
  ordersAsRows,
  choicesInWords,
  logsAccessoriesDates,
  wordsOfTheGlossary,
  appointments,
  recordings,
  countsAndOffsets,
  guardByProof,
  nullLogs,
  diaryAndUpkeep,
  takenOn,
  audioRoutes,
  patternCuts,
  spots,
  gainsOfReceivers,
  idOfTheDataFile,
  clocksOfAppointments,
];
/** All names that this release knows, in order. */
export const MIGRATION_NAMES: readonly string[] = MIGRATIONS.map(({ name }) => name);

/** Names in a column of rows that SQLite gave. */
const namesIn = (rows: unknown): string[] =>
  Array.isArray(rows)
    ? rows.map((row: unknown) => (typeof row === 'object' && row !== null && 'name' in row ? String(row.name) : ''))
    : [];

/** The list of migrations done, in the table that earlier releases began. */
const storage: UmzugStorage<MigrationContext> = {
  async executed({ context }) {
    if ((await context.columns('migrations')).length === 0) return [];
    const answer = await context.sequelize.query('SELECT name FROM migrations ORDER BY name');
    return namesIn(Array.isArray(answer) ? answer[0] : []);
  },
  async logMigration({ name, context }) {
    await context.sequelize.query(
      'CREATE TABLE IF NOT EXISTS `migrations` (`name` VARCHAR(255) NOT NULL UNIQUE PRIMARY KEY)',
    );
    await context.sequelize.query(`INSERT INTO migrations (name) VALUES ('${name}')`);
  },
  async unlogMigration({ name, context }) {
    await context.sequelize.query(`DELETE FROM migrations WHERE name = '${name}'`);
  },
};

/** Where a run of migrations ends: that one included. */
interface UpTo {
  readonly to?: string;
}

/**
 * Steps between the releases' tables. Each migration and its place on the list are one transaction: a process killed in the middle, or a disk that
 * runs full, leaves the file as it was before that step, and the next start goes on from there.
 */
export function migrator(sequelize: Sequelize) {
  const context = (transaction: Transaction): MigrationContext => ({
    sequelize: { query: (sql) => sequelize.query(sql, { transaction }) },
    rows: (sql) => sequelize.query<Record<string, unknown>>(sql, { transaction, type: QueryTypes.SELECT }),
    async columns(table) {
      const [rows] = await sequelize.query(`PRAGMA table_info("${table}")`, { transaction });
      return namesIn(rows);
    },
  });
  const within = <T>(work: (umzug: Umzug<MigrationContext>) => Promise<T>): Promise<T> =>
    sequelize.transaction({ type: Transaction.TYPES.IMMEDIATE }, (transaction) =>
      work(new Umzug({ migrations: [...MIGRATIONS], context: context(transaction), storage, logger: undefined })),
    );
  const done = (): Promise<readonly string[]> =>
    within(async (umzug) => (await umzug.executed()).map(({ name }) => name));
  return {
    async up({ to }: UpTo = {}): Promise<void> {
      const finished = new Set(await done());
      const last = to === undefined ? MIGRATION_NAMES.length - 1 : MIGRATION_NAMES.indexOf(to);
      const open = MIGRATION_NAMES.slice(0, last + 1).filter((name) => !finished.has(name));
      // a new file has nothing to lose between two steps: all of them at once take half the time
      if (finished.size === 0) await within((umzug) => umzug.up({ migrations: [...open] }));
      else for (const name of open) await within((umzug) => umzug.up({ migrations: [name] }));
    },
    async down({ to }: UpTo = {}): Promise<void> {
      const finished = new Set(await done());
      const first = to === undefined ? finished.size - 1 : MIGRATION_NAMES.indexOf(to);
      for (const name of MIGRATION_NAMES.slice(first).reverse())
        if (finished.has(name)) await within((umzug) => umzug.down({ migrations: [name] }));
    },
  };
}
