import type { Migration } from '../migrate';
import { CARRIED, createTable } from './additions';

/** One of the five tables that kept levels: what its records are from now on, and from which of its columns each value comes. */
interface Former {
  readonly kind: string;
  readonly sql: string;
  /** New column by old one. */
  readonly from: Readonly<Record<string, string>>;
}
const ANTENNA = 'antennaId INTEGER REFERENCES antennas(id)';
const FORMER: Readonly<Record<string, Former>> = {
  noiseChecks: {
    kind: 'off and on',
    sql: `${ANTENNA}, freqHz REAL NOT NULL, offDbm REAL NOT NULL, onDbm REAL NOT NULL`,
    from: { antennaId: 'antennaId', freqHz: 'freqHz', levelDbm: 'onDbm', againstDbm: 'offDbm' },
  },
  noiseFloors: {
    kind: 'floor',
    sql: `freqHz REAL NOT NULL, levelDbm REAL NOT NULL, bandwidthHz REAL NOT NULL, ${ANTENNA}`,
    from: { freqHz: 'freqHz', levelDbm: 'levelDbm', bandwidthHz: 'bandwidthHz', antennaId: 'antennaId' },
  },
  floorReadings: {
    kind: 'log',
    sql: 'atMs REAL NOT NULL, freqHz REAL NOT NULL, levelDbm REAL NOT NULL',
    from: { atMs: 'atMs', freqHz: 'freqHz', levelDbm: 'levelDbm' },
  },
  deviceSwitchings: {
    kind: 'device',
    sql: 'device TEXT NOT NULL, freqHz REAL NOT NULL, onDbm REAL NOT NULL, offDbm REAL NOT NULL, atMs REAL NOT NULL',
    from: { subject: 'device', freqHz: 'freqHz', levelDbm: 'onDbm', againstDbm: 'offDbm', atMs: 'atMs' },
  },
  surveyReadings: {
    kind: 'survey',
    sql: `${ANTENNA}, name TEXT NOT NULL, freqHz REAL NOT NULL, levelDbm REAL NOT NULL, noiseDbm REAL NOT NULL, atMs REAL NOT NULL`,
    from: {
      ...{ antennaId: 'antennaId', subject: 'name', freqHz: 'freqHz', levelDbm: 'levelDbm' },
      ...{ againstDbm: 'noiseDbm', atMs: 'atMs' },
    },
  },
};
/** Columns of a level with what they hold where the old record knew nothing of the kind. */
const VALUES: Readonly<Record<string, string>> = {
  ...{ atMs: 'NULL', freqHz: 'NULL', levelDbm: 'NULL', againstDbm: 'NULL', bandwidthHz: 'NULL' },
  ...{ antennaId: 'NULL', receiverId: 'NULL', subject: "''", conditions: "''" },
};
const NAMES = Object.keys(VALUES).join(', ');
const SIDES = ['"before"', '"after"'];
const KEEP =
  '(SELECT levels.id FROM levels WHERE levels.formerTable = edits.resource AND levels.formerId = edits.recordId)';

/** Off/on checks, floors, logs, devices and surveys become kinds of one record; their history comes along. */
export const oneTableOfLevels: Migration = {
  name: '0013-one-table-of-levels',
  async up({ context }) {
    const { sequelize } = context;
    await createTable(
      context,
      'levels',
      `kind TEXT NOT NULL, atMs REAL, freqHz REAL NOT NULL, levelDbm REAL NOT NULL, againstDbm REAL, bandwidthHz REAL,
       antennaId INTEGER REFERENCES antennas(id), receiverId INTEGER REFERENCES receivers(id), subject TEXT NOT NULL DEFAULT '',
       conditions TEXT NOT NULL DEFAULT '', formerTable TEXT, formerId INTEGER`,
    );
    await sequelize.query('CREATE UNIQUE INDEX levels_former ON levels(formerTable, formerId)');
    for (const [table, { kind, from }] of Object.entries(FORMER)) {
      const values = Object.entries(VALUES).map(([name, none]) => from[name] ?? none);
      await sequelize.query(`INSERT INTO levels (${CARRIED}, kind, ${NAMES}, formerTable, formerId)
        SELECT ${CARRIED}, '${kind}', ${values.join(', ')}, '${table}', id FROM ${table} ORDER BY id`);
      for (const side of SIDES) {
        const parts = Object.entries(VALUES).map(([name, none]) => {
          const old = from[name] as string | undefined;
          return `'${name}', ${old === undefined ? (none === 'NULL' ? "json('null')" : none) : `json_extract(${side}, '$.${old}')`}`;
        });
        await sequelize.query(`UPDATE edits SET ${side} = json_object('kind', '${kind}', ${parts.join(', ')})
          WHERE resource = '${table}' AND ${side} IS NOT NULL`);
      }
      await sequelize.query(
        `UPDATE edits SET recordId = ${KEEP}, resource = 'levels' WHERE resource = '${table}' AND ${KEEP} IS NOT NULL`,
      );
      await sequelize.query(`DROP TABLE ${table}`);
    }
    await sequelize.query('DROP INDEX levels_former');
    await sequelize.query('ALTER TABLE levels DROP COLUMN formerTable');
    await sequelize.query('ALTER TABLE levels DROP COLUMN formerId');
  },
  async down({ context }) {
    const { sequelize } = context;
    for (const [table, { kind, sql, from }] of Object.entries(FORMER)) {
      await createTable(context, table, sql);
      await sequelize.query(`INSERT INTO ${table} (${CARRIED}, ${Object.values(from).join(', ')})
        SELECT ${CARRIED}, ${Object.keys(from).join(', ')} FROM levels WHERE kind = '${kind}' ORDER BY id`);
    }
    // numbers of the records begin anew: what was undoable of them is not any more
    await sequelize.query("DELETE FROM edits WHERE resource = 'levels'");
    await sequelize.query('DROP TABLE levels');
  },
};
