import type { Migration } from '../migrate';

const STORED = `
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  stationId INTEGER NOT NULL REFERENCES stations(id) ON DELETE CASCADE,
  version INTEGER NOT NULL DEFAULT 1,
  createdAt TEXT NOT NULL,
  updatedAt TEXT NOT NULL,
  deletedAt TEXT`;

const NEW_TABLES: Readonly<Record<string, string>> = {
  plotFeatures: `name TEXT NOT NULL, kind TEXT NOT NULL, points JSON NOT NULL, heightM REAL NOT NULL, endHeightM REAL NOT NULL,
    clearanceM REAL NOT NULL, widthM REAL NOT NULL, antennaId INTEGER REFERENCES antennas(id), attachmentId INTEGER REFERENCES attachments(id)`,
  satellites: `name TEXT NOT NULL, line1 TEXT NOT NULL, line2 TEXT NOT NULL, freqHz REAL NOT NULL, leastDeg REAL NOT NULL`,
  surveyReadings: `antennaId INTEGER NOT NULL REFERENCES antennas(id), name TEXT NOT NULL, freqHz REAL NOT NULL, levelDbm REAL NOT NULL,
    noiseDbm REAL NOT NULL, atMs REAL NOT NULL`,
  noiseFloors: `freqHz REAL NOT NULL, levelDbm REAL NOT NULL, bandwidthHz REAL NOT NULL, antennaId INTEGER REFERENCES antennas(id)`,
  boughtAntennas: `name TEXT NOT NULL, gains JSON NOT NULL, amplified INTEGER NOT NULL, gainDb REAL NOT NULL, noiseFigureDb REAL NOT NULL,
    iip2Dbm REAL NOT NULL, iip3Dbm REAL NOT NULL, inputFilterHz REAL, sizeM REAL NOT NULL, price REAL NOT NULL, hours REAL NOT NULL, sight INTEGER NOT NULL`,
};

/** New columns: their SQL type with default, and the same default as JSON for predecessors in the history. */
const NEW_COLUMNS: Readonly<Record<string, readonly (readonly [name: string, sql: string, json: string])[]>> = {
  stations: [
    ['ownCableDb10', 'REAL', 'null'],
    ['ownCableDb100', 'REAL', 'null'],
    ['nothingVisible', 'INTEGER NOT NULL DEFAULT 0', 'false'],
    ['lawnAllowed', 'INTEGER NOT NULL DEFAULT 1', 'true'],
    ['noDrilling', 'INTEGER NOT NULL DEFAULT 0', 'false'],
    ['noTransmitting', 'INTEGER NOT NULL DEFAULT 0', 'false'],
    ['windLimitMPerS', 'REAL', 'null'],
    ['windForecastMPerS', 'REAL', 'null'],
    ['priceWeight', 'INTEGER NOT NULL DEFAULT 1', '1'],
    ['effortWeight', 'INTEGER NOT NULL DEFAULT 1', '1'],
    ['sightWeight', 'INTEGER NOT NULL DEFAULT 1', '1'],
  ],
  targets: ['latDeg', 'lonDeg', 'arrivalDeg', 'fromMin', 'toMin'].map((name) => [name, 'REAL', 'null'] as const),
  pathStages: [['plotFeatureId', 'INTEGER REFERENCES plotFeatures(id)', 'null']],
};

/** The plan, positions and hours of wishes, satellites, measured floors, antennas to buy, restrictions. */
export const placeAndWishes: Migration = {
  name: '0003-place-and-wishes',
  async up({ context: { sequelize } }) {
    for (const [table, columns] of Object.entries(NEW_TABLES)) {
      await sequelize.query(`CREATE TABLE ${table} (${STORED}, ${columns})`);
      await sequelize.query(`CREATE INDEX ${table}_station ON ${table}(stationId, deletedAt)`);
    }
    for (const [table, columns] of Object.entries(NEW_COLUMNS)) {
      for (const [name, sql] of columns) await sequelize.query(`ALTER TABLE ${table} ADD COLUMN ${name} ${sql}`);
      // predecessors in the history must fit the new table, or undo would lose them
      const added = columns.map(([name, , json]) => `'$.${name}', json('${json}')`).join(', ');
      for (const side of ['"before"', '"after"'])
        await sequelize.query(
          `UPDATE edits SET ${side} = json_set(${side}, ${added}) WHERE resource = '${table}' AND ${side} IS NOT NULL`,
        );
    }
  },
  async down({ context: { sequelize } }) {
    for (const [table, columns] of Object.entries(NEW_COLUMNS)) {
      for (const [name] of columns) await sequelize.query(`ALTER TABLE ${table} DROP COLUMN ${name}`);
      const removed = columns.map(([name]) => `'$.${name}'`).join(', ');
      for (const side of ['"before"', '"after"'])
        await sequelize.query(
          `UPDATE edits SET ${side} = json_remove(${side}, ${removed}) WHERE resource = '${table}' AND ${side} IS NOT NULL`,
        );
    }
    for (const table of Object.keys(NEW_TABLES).reverse()) {
      await sequelize.query(`DELETE FROM edits WHERE resource = '${table}'`);
      await sequelize.query(`DROP TABLE ${table}`);
    }
  },
};
