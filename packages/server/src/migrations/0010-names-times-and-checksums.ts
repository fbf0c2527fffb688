import { createHash } from 'node:crypto';
import type { Migration, MigrationContext } from '../migrate';
import { addColumn, NEW_UUID } from './additions';

/** Every table of records as this release found it. */
const TABLES = [
  'stations',
  'targets',
  'bandEdits',
  'emitters',
  'receivers',
  'antennas',
  'revisions',
  'sweeps',
  'calibrations',
  'coilTests',
  'spectra',
  'trimSteps',
  'trials',
  'readings',
  'noiseChecks',
  'paths',
  'pathStages',
  'guardPlans',
  'guardInputs',
  'entries',
  'attachments',
  'plotFeatures',
  'satellites',
  'noiseFloors',
  'boughtAntennas',
  'surveyReadings',
  'floorReadings',
  'parts',
  'deviceSwitchings',
];

/** When something was observed, and with what; none of it is known of older records. */
const OBSERVED: Readonly<Record<string, readonly (readonly [string, string])[]>> = {
  sweeps: [
    ['measuredMs', 'REAL'],
    ['revisionId', 'INTEGER'],
    ['calibrationId', 'INTEGER'],
  ],
  trimSteps: [
    ['atMs', 'REAL'],
    ['revisionId', 'INTEGER'],
  ],
  readings: [
    ['atMs', 'REAL'],
    ['receiverId', 'INTEGER'],
    ['bandwidthHz', 'REAL'],
    ['conditions', "TEXT NOT NULL DEFAULT ''"],
  ],
};

/** Tables whose samples are fetched by their checksum. */
const SAMPLED = ['sweeps', 'spectra', 'calibrations'];

/** So many curves of an antenna stay on the screen; the others wait to be asked for. */
const MOST_SHOWN = 4;

async function addChecksums({ sequelize, rows }: MigrationContext, table: string): Promise<void> {
  for (const { id } of await rows(`SELECT id FROM ${table} WHERE checksum = ''`)) {
    const [{ samples }] = await rows(`SELECT samples FROM ${table} WHERE id = ${Number(id)}`);
    const sum = createHash('sha256')
      .update(Buffer.isBuffer(samples) ? samples : '')
      .digest('hex');
    await sequelize.query(`UPDATE ${table} SET checksum = '${sum}' WHERE id = ${Number(id)}`);
  }
}

/** A name for every record that holds in any file, checksums of samples, times of observation, and no more than four curves shown. */
export const namesTimesAndChecksums: Migration = {
  name: '0010-names-times-and-checksums',
  async up({ context }) {
    const { sequelize } = context;
    for (const table of TABLES) {
      await addColumn(context, table, 'uuid', "TEXT NOT NULL DEFAULT ''");
      await sequelize.query(`UPDATE ${table} SET uuid = ${NEW_UUID} WHERE uuid = ''`);
    }
    for (const [table, columns] of Object.entries(OBSERVED))
      for (const [name, sql] of columns) await addColumn(context, table, name, sql);
    for (const table of SAMPLED) {
      await addColumn(context, table, 'checksum', "TEXT NOT NULL DEFAULT ''");
      await addChecksums(context, table);
    }
    await sequelize.query(`UPDATE sweeps SET shown = 0 WHERE shown = 1 AND deletedAt IS NULL AND (
      SELECT COUNT(*) FROM sweeps AS later WHERE later.stationId = sweeps.stationId AND later.antennaId IS sweeps.antennaId
        AND later.deletedAt IS NULL AND later.shown = 1 AND later.id > sweeps.id) >= ${MOST_SHOWN}`);
    await sequelize.query('CREATE INDEX IF NOT EXISTS edits_station ON edits(stationId, id)');
  },
  async down({ context: { sequelize } }) {
    await sequelize.query('DROP INDEX edits_station');
    for (const table of SAMPLED) await sequelize.query(`ALTER TABLE ${table} DROP COLUMN checksum`);
    for (const [table, columns] of Object.entries(OBSERVED))
      for (const [name] of [...columns].reverse()) await sequelize.query(`ALTER TABLE ${table} DROP COLUMN ${name}`);
    for (const table of TABLES) await sequelize.query(`ALTER TABLE ${table} DROP COLUMN uuid`);
  },
};
