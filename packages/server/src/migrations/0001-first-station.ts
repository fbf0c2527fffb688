import type { Migration } from '../migrate';

const STORED = `
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  stationId INTEGER NOT NULL REFERENCES stations(id) ON DELETE CASCADE,
  version INTEGER NOT NULL DEFAULT 1,
  createdAt TEXT NOT NULL,
  updatedAt TEXT NOT NULL,
  deletedAt TEXT`;

/** Frozen: later migrations alter these tables, this text stays as released. */
const TABLES: Readonly<Record<string, string>> = {
  targets: `name TEXT NOT NULL, lowHz REAL NOT NULL, highHz REAL NOT NULL, bandwidthHz REAL NOT NULL, weight INTEGER NOT NULL`,
  bandEdits: `bandId TEXT NOT NULL, name TEXT NOT NULL, lowHz REAL NOT NULL, highHz REAL NOT NULL, bandwidthHz REAL NOT NULL, hidden INTEGER NOT NULL`,
  emitters: `name TEXT NOT NULL, freqHz REAL NOT NULL, powerW REAL NOT NULL, powerKind TEXT NOT NULL, distanceM REAL NOT NULL, own INTEGER NOT NULL`,
  receivers: `name TEXT NOT NULL, bits REAL NOT NULL, fullScaleDbm REAL NOT NULL, sampleRateHz REAL NOT NULL, complexSamples INTEGER NOT NULL,
    noiseFigureDb REAL NOT NULL, iip2Dbm REAL NOT NULL, iip3Dbm REAL NOT NULL, minHz REAL NOT NULL, maxHz REAL NOT NULL`,
  antennas: `name TEXT NOT NULL, targetId INTEGER REFERENCES targets(id)`,
  revisions: `antennaId INTEGER NOT NULL REFERENCES antennas(id), number INTEGER NOT NULL, kind TEXT NOT NULL, freqHz REAL NOT NULL,
    diameterM REAL NOT NULL, angleDeg REAL NOT NULL, radials INTEGER NOT NULL, droopDeg REAL NOT NULL, loopDiameterM REAL NOT NULL,
    insulated INTEGER NOT NULL, allowance REAL NOT NULL, gates JSON NOT NULL, done JSON NOT NULL`,
  attachments: `name TEXT NOT NULL, size INTEGER NOT NULL, sha256 TEXT NOT NULL, bytes BLOB NOT NULL`,
  sweeps: `name TEXT NOT NULL, antennaId INTEGER REFERENCES antennas(id), points INTEGER NOT NULL, startHz REAL NOT NULL, stopHz REAL NOT NULL,
    referenceOhm REAL NOT NULL, phaseKnown INTEGER NOT NULL, shown INTEGER NOT NULL, attachmentId INTEGER NOT NULL REFERENCES attachments(id), samples BLOB NOT NULL`,
  trimSteps: `antennaId INTEGER NOT NULL REFERENCES antennas(id), lengthM REAL NOT NULL, freqHz REAL NOT NULL, note TEXT NOT NULL`,
  trials: `name TEXT NOT NULL, antennaAId INTEGER NOT NULL REFERENCES antennas(id), antennaBId INTEGER NOT NULL REFERENCES antennas(id),
    freqHz REAL NOT NULL, wishedDb REAL NOT NULL, conditions TEXT NOT NULL`,
  readings: `trialId INTEGER NOT NULL REFERENCES trials(id), round INTEGER NOT NULL, levelADbm REAL, noiseADbm REAL, levelBDbm REAL, noiseBDbm REAL`,
  noiseChecks: `antennaId INTEGER REFERENCES antennas(id), freqHz REAL NOT NULL, offDbm REAL NOT NULL, onDbm REAL NOT NULL`,
  paths: `name TEXT NOT NULL, receiverId INTEGER NOT NULL REFERENCES receivers(id), targetId INTEGER NOT NULL REFERENCES targets(id), antennaId INTEGER REFERENCES antennas(id)`,
  pathStages: `pathId INTEGER NOT NULL REFERENCES paths(id), name TEXT NOT NULL, kind TEXT NOT NULL, firstPlace INTEGER NOT NULL, secondPlace INTEGER NOT NULL,
    cableId TEXT NOT NULL, lengthM REAL NOT NULL, gainDb REAL NOT NULL, noiseFigureDb REAL NOT NULL, iip2Dbm REAL NOT NULL, iip3Dbm REAL NOT NULL,
    lossDb REAL NOT NULL, shape TEXT NOT NULL, family TEXT NOT NULL, "order" INTEGER NOT NULL, rippleDb REAL NOT NULL, edgeLowHz REAL NOT NULL, edgeHighHz REAL NOT NULL`,
  guardPlans: `name TEXT NOT NULL, powerW REAL NOT NULL, freqHz REAL NOT NULL, wishedMarginDb REAL NOT NULL, meterResolutionW REAL NOT NULL`,
  guardInputs: `guardPlanId INTEGER NOT NULL REFERENCES guardPlans(id), name TEXT NOT NULL, antennaName TEXT NOT NULL, disconnects INTEGER NOT NULL, isolationDb REAL NOT NULL, limitDbm REAL NOT NULL`,
  entries: `stage TEXT NOT NULL, text TEXT NOT NULL, atMs REAL NOT NULL`,
};

export const firstStation: Migration = {
  name: '0001-first-station',
  async up({ context }) {
    await context.sequelize.query(`CREATE TABLE IF NOT EXISTS stations (
      id INTEGER PRIMARY KEY AUTOINCREMENT, version INTEGER NOT NULL DEFAULT 1, createdAt TEXT NOT NULL, updatedAt TEXT NOT NULL, deletedAt TEXT,
      name TEXT NOT NULL, latDeg REAL NOT NULL, lonDeg REAL NOT NULL, environment TEXT NOT NULL, noiseOffsetDb REAL NOT NULL,
      spanM REAL NOT NULL, heightM REAL NOT NULL, cableId TEXT NOT NULL, lineLengthM REAL NOT NULL)`);
    for (const [table, columns] of Object.entries(TABLES)) {
      await context.sequelize.query(`CREATE TABLE IF NOT EXISTS ${table} (${STORED}, ${columns})`);
      await context.sequelize.query(`CREATE INDEX IF NOT EXISTS ${table}_station ON ${table}(stationId, deletedAt)`);
    }
    await context.sequelize.query(`CREATE TABLE IF NOT EXISTS edits (
      id INTEGER PRIMARY KEY AUTOINCREMENT, stationId INTEGER NOT NULL REFERENCES stations(id) ON DELETE CASCADE, batch TEXT NOT NULL,
      resource TEXT NOT NULL, recordId INTEGER NOT NULL, op TEXT NOT NULL, "before" JSON, "after" JSON, createdAt TEXT NOT NULL, undoneAt TEXT)`);
    await context.sequelize.query('CREATE INDEX IF NOT EXISTS edits_station ON edits(stationId, undoneAt, id)');
  },
  async down({ context }) {
    for (const table of ['edits', ...Object.keys(TABLES).reverse(), 'stations'])
      await context.sequelize.query(`DROP TABLE IF EXISTS ${table}`);
  },
};
