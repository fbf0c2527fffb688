import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, test } from '@jest/globals';
import { openDatabase } from './database';
import { migrator } from './migrate';
import { undo } from './history';
import { stationRecords } from './station-answer';

/** A station as releases two to five stored it, in a version. */
const hut = (version: number): string =>
  `INSERT INTO stations (id, version, createdAt, updatedAt, name, latDeg, lonDeg, environment, noiseOffsetDb, spanM, heightM, cableId, lineLengthM, groundId)
    VALUES (1, ${version}, ${STAMP}, ${STAMP}, 'Hut', 50, -19, 'rural', 0, 38, 9, 'pe5', 40, 'average')`;
const STAMP = "'2026-03-10 10:00:00.000 +00:00'";

test('a file of the first release keeps its antennas, and what was undoable stays so', async () => {
  const db = openDatabase(path.join(mkdtempSync(path.join(tmpdir(), 'reed-up-')), 'old.sqlite'));
  const sql = (text: string): Promise<unknown> => db.sequelize.query(text);
  await migrator(db.sequelize).up({ to: '0001-first-station' });
  await sql(`INSERT INTO stations (id, version, createdAt, updatedAt, name, latDeg, lonDeg, environment, noiseOffsetDb, spanM, heightM, cableId, lineLengthM)
    VALUES (1, 1, ${STAMP}, ${STAMP}, 'Hut', 50, -19, 'rural', 0, 38, 9, 'pe5', 25)`);
  await sql(
    `INSERT INTO antennas (id, stationId, version, createdAt, updatedAt, name) VALUES (1, 1, 1, ${STAMP}, ${STAMP}, 'V')`,
  );
  await sql(`INSERT INTO revisions (id, stationId, version, createdAt, updatedAt, antennaId, number, kind, freqHz, diameterM, angleDeg, radials, droopDeg,
    loopDiameterM, insulated, allowance, gates, done)
    VALUES (1, 1, 2, ${STAMP}, ${STAMP}, 1, 1, 'v-dipole', 9650000, 0.002, 110, 4, 45, 1, 0, 0.03, '["collar-on"]', '[]')`);
  const before = JSON.stringify({
    antennaId: 1,
    number: 1,
    kind: 'v-dipole',
    freqHz: 9650000,
    diameterM: 0.002,
    angleDeg: 130,
    radials: 4,
    droopDeg: 45,
    loopDiameterM: 1,
    insulated: false,
    allowance: 0.03,
    gates: [],
    done: [],
  });
  await sql(`INSERT INTO edits (stationId, batch, resource, recordId, op, "before", "after", createdAt)
    VALUES (1, 'b', 'revisions', 1, 'update', '${before}', '${before}', ${STAMP})`);

  await migrator(db.sequelize).up();
  const now = await stationRecords(db, 1);
  expect(now.station).toMatchObject({ name: 'Hut', groundId: 'average' });
  expect(now.revisions).toMatchObject([{ kind: 'v-dipole', dimensions: { angleDeg: 110 }, gates: ['collar-on'] }]);
  await undo(db, 1, { device: 'any' });
  expect((await stationRecords(db, 1)).revisions).toMatchObject([{ dimensions: { angleDeg: 130 }, gates: [] }]);

  await migrator(db.sequelize).down({ to: '0002-dimensions-by-name' });
  const [rows] = await db.sequelize.query('SELECT angleDeg FROM revisions');
  expect(rows).toEqual([{ angleDeg: 130 }]);
  await db.sequelize.close();
});

test('a file of the second release keeps its targets; a change of a station made before is still undoable', async () => {
  const db = openDatabase(path.join(mkdtempSync(path.join(tmpdir(), 'reed-up-')), 'second.sqlite'));
  const sql = (text: string): Promise<unknown> => db.sequelize.query(text);
  await migrator(db.sequelize).up({ to: '0002-dimensions-by-name' });
  await sql(hut(2));
  await sql(`INSERT INTO targets (id, stationId, version, createdAt, updatedAt, name, lowHz, highHz, bandwidthHz, weight)
    VALUES (1, 1, 1, ${STAMP}, ${STAMP}, '31 m', 9400000, 9900000, 5000, 5)`);
  const station = {
    name: 'Hut',
    latDeg: 50,
    lonDeg: -19,
    environment: 'rural',
    noiseOffsetDb: 0,
    spanM: 38,
    heightM: 9,
    cableId: 'pe5',
    lineLengthM: 25,
    groundId: 'average',
  };
  await sql(`INSERT INTO edits (stationId, batch, resource, recordId, op, "before", "after", createdAt)
    VALUES (1, 'b', 'stations', 1, 'update', '${JSON.stringify(station)}', '${JSON.stringify({ ...station, lineLengthM: 40 })}', ${STAMP})`);

  await migrator(db.sequelize).up();
  const now = await stationRecords(db, 1);
  expect(now.station).toMatchObject({ lineLengthM: 40, nothingVisible: false, lawnAllowed: true, priceWeight: 1 });
  expect(now.targets).toMatchObject([{ name: '31 m', latDeg: null, arrivalDeg: null, fromMin: null }]);
  expect(now.plotFeatures).toEqual([]);
  await undo(db, 1, { device: 'any' });
  expect((await stationRecords(db, 1)).station).toMatchObject({
    lineLengthM: 25,
    lawnAllowed: true,
    windLimitMPerS: null,
  });

  await migrator(db.sequelize).down({ to: '0003-place-and-wishes' });
  const [rows] = await db.sequelize.query('SELECT name FROM targets');
  expect(rows).toEqual([{ name: '31 m' }]);
  const [tables] = await db.sequelize.query("SELECT name FROM sqlite_master WHERE name = 'plotFeatures'");
  expect(tables).toEqual([]);
  await db.sequelize.close();
});

test('a file of the third release keeps its trim steps; a step deleted before can still be brought back', async () => {
  const db = openDatabase(path.join(mkdtempSync(path.join(tmpdir(), 'reed-up-')), 'third.sqlite'));
  const sql = (text: string): Promise<unknown> => db.sequelize.query(text);
  await migrator(db.sequelize).up({ to: '0003-place-and-wishes' });
  await sql(hut(1));
  await sql(
    `INSERT INTO antennas (id, stationId, version, createdAt, updatedAt, name) VALUES (1, 1, 1, ${STAMP}, ${STAMP}, 'V')`,
  );
  const step = { antennaId: 1, lengthM: 7.5, freqHz: 9.4e6, note: 'as found' };
  await sql(`INSERT INTO trimSteps (id, stationId, version, createdAt, updatedAt, deletedAt, antennaId, lengthM, freqHz, note)
    VALUES (1, 1, 1, ${STAMP}, ${STAMP}, NULL, 1, 7.5, 9400000, 'as found'), (2, 1, 2, ${STAMP}, ${STAMP}, ${STAMP}, 1, 7.5, 9400000, 'as found')`);
  await sql(`INSERT INTO edits (stationId, batch, resource, recordId, op, "before", "after", createdAt)
    VALUES (1, 'b', 'trimSteps', 2, 'delete', '${JSON.stringify(step)}', NULL, ${STAMP})`);
  await migrator(db.sequelize).up();
  expect((await stationRecords(db, 1)).trimSteps).toMatchObject([{ ...step, undoNote: '', photoId: null }]);
  await undo(db, 1, { device: 'any' });
  expect((await stationRecords(db, 1)).trimSteps).toMatchObject([{ id: 1 }, { id: 2, undoNote: '', photoId: null }]);
  await migrator(db.sequelize).down({ to: '0004-bench-records' });
  const [rows] = await db.sequelize.query('SELECT note FROM trimSteps');
  expect(rows).toEqual([{ note: 'as found' }, { note: 'as found' }]);
  await db.sequelize.close();
});

test('a file of the fifth release keeps its path; a changed stage is still undoable, and a file goes back', async () => {
  const db = openDatabase(path.join(mkdtempSync(path.join(tmpdir(), 'reed-up-')), 'fifth.sqlite'));
  const sql = (text: string): Promise<unknown> => db.sequelize.query(text);
  await migrator(db.sequelize).up({ to: '0005-noise-log-and-shelf' });
  await sql(hut(1));
  await sql(`INSERT INTO targets (id, stationId, version, createdAt, updatedAt, name, lowHz, highHz, bandwidthHz, weight)
    VALUES (1, 1, 1, ${STAMP}, ${STAMP}, '31 m', 9400000, 9900000, 5000, 5)`);
  await sql(`INSERT INTO receivers (id, stationId, version, createdAt, updatedAt, name, bits, fullScaleDbm, sampleRateHz, complexSamples, noiseFigureDb, iip2Dbm, iip3Dbm, minHz, maxHz)
    VALUES (1, 1, 1, ${STAMP}, ${STAMP}, 'R', 14, 0, 125000000, 0, 15, 50, 10, 10000, 30000000)`);
  await sql(`INSERT INTO paths (id, stationId, version, createdAt, updatedAt, name, receiverId, targetId, antennaId)
    VALUES (1, 1, 1, ${STAMP}, ${STAMP}, 'P', 1, 1, NULL)`);
  const stage = {
    ...{ pathId: 1, name: 'Pad', kind: 'pad', firstPlace: 0, secondPlace: 0, cableId: 'pe5', lengthM: 0, gainDb: 0 },
    ...{ noiseFigureDb: 0, iip2Dbm: 40, iip3Dbm: 10, lossDb: 6, shape: 'lowpass', family: 'chebyshev', order: 5 },
    ...{ rippleDb: 0.1, edgeLowHz: 1e6, edgeHighHz: 3e7, plotFeatureId: null, partId: null },
  };
  const columns = Object.keys(stage).map((name) => `"${name}"`);
  const values = Object.values({ ...stage, lossDb: 20 }).map((value) =>
    value === null ? 'NULL' : typeof value === 'string' ? `'${value}'` : value,
  );
  await sql(`INSERT INTO pathStages (id, stationId, version, createdAt, updatedAt, ${columns.join(', ')})
    VALUES (1, 1, 2, ${STAMP}, ${STAMP}, ${values.join(', ')})`);
  await sql(`INSERT INTO edits (stationId, batch, resource, recordId, op, "before", "after", createdAt)
    VALUES (1, 'b', 'pathStages', 1, 'update', '${JSON.stringify(stage)}', '${JSON.stringify({ ...stage, lossDb: 20 })}', ${STAMP})`);

  await migrator(db.sequelize).up();
  const now = await stationRecords(db, 1);
  expect(now.station).toMatchObject({ adapterBox: '' });
  expect(now.paths).toMatchObject([{ name: 'P', antennaConnector: '', receiverConnector: '' }]);
  expect(now.pathStages).toMatchObject([{ lossDb: 20, figures: {}, connectorIn: '', connectorOut: '' }]);
  await undo(db, 1, { device: 'any' });
  expect((await stationRecords(db, 1)).pathStages).toMatchObject([{ lossDb: 6, figures: {}, connectorOut: '' }]);

  await migrator(db.sequelize).down({ to: '0006-stages-and-plugs' });
  const [rows] = await db.sequelize.query('SELECT * FROM pathStages');
  expect(rows).toMatchObject([{ name: 'Pad', lossDb: 6 }]);
  expect(rows).not.toHaveProperty('0.figures');
  await db.sequelize.close();
});

test('a file of the ninth release gets names, checksums of its samples, and no more than four curves an antenna on the screen', async () => {
  const db = openDatabase(path.join(mkdtempSync(path.join(tmpdir(), 'reed-up-')), 'ninth.sqlite'));
  const sql = (text: string): Promise<unknown> => db.sequelize.query(text);
  await migrator(db.sequelize).up({ to: '0009-coil-tests' });
  await sql(`${hut(1)}`);
  await sql(
    `INSERT INTO antennas (id, stationId, version, createdAt, updatedAt, name) VALUES (1, 1, 1, ${STAMP}, ${STAMP}, 'V')`,
  );
  await sql(`INSERT INTO attachments (id, stationId, version, createdAt, updatedAt, name, size, sha256, bytes)
    VALUES (1, 1, 1, ${STAMP}, ${STAMP}, 'a.s1p', 3, '${'ab'.repeat(32)}', x'616263')`);
  for (let i = 1; i <= 6; i += 1)
    await sql(`INSERT INTO sweeps (id, stationId, version, createdAt, updatedAt, name, antennaId, points, startHz, stopHz, referenceOhm, phaseKnown, shown, correction, attachmentId, samples)
      VALUES (${i}, 1, 1, ${STAMP}, ${STAMP}, 's${i}', 1, 1, 1e6, 2e6, 50, 1, 1, 'file', 1, x'616263')`);
  await migrator(db.sequelize).up();
  const now = await stationRecords(db, 1);
  expect(now.setAside).toEqual([]);
  // SHA-256 of "abc": FIPS 180-4, appendix
  expect(now.sweeps).toMatchObject(
    [false, false, true, true, true, true].map((shown) => ({
      shown,
      checksum: 'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad',
      measuredMs: null,
    })),
  );
  const [rows] = await db.sequelize.query('SELECT uuid FROM sweeps UNION ALL SELECT uuid FROM antennas');
  const uuids = Array.isArray(rows) ? rows.map((row: unknown) => JSON.stringify(row)) : [];
  expect(new Set(uuids).size).toBe(7);
  for (const uuid of uuids) expect(uuid).toMatch(/[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}/);
  await migrator(db.sequelize).down({ to: '0010-names-times-and-checksums' });
  const [back] = await db.sequelize.query('SELECT * FROM sweeps WHERE id = 6');
  expect(back).toMatchObject([{ name: 's6', shown: 1 }]);
  expect(back).not.toHaveProperty('0.checksum');
  await db.sequelize.close();
});

test('a file of the tenth release: receiver inputs point at the antenna and receiver that they name', async () => {
  const db = openDatabase(path.join(mkdtempSync(path.join(tmpdir(), 'reed-up-')), 'tenth.sqlite'));
  const sql = (text: string): Promise<unknown> => db.sequelize.query(text);
  await migrator(db.sequelize).up({ to: '0010-names-times-and-checksums' });
  await sql(hut(1));
  const stamps = `1, 1, ${STAMP}, ${STAMP}`;
  await sql(`INSERT INTO antennas (id, stationId, version, createdAt, updatedAt, deletedAt, name)
    VALUES (1, ${stamps}, ${STAMP}, 'Loop'), (2, ${stamps}, NULL, ' loop'), (3, ${stamps}, NULL, 'Wire')`);
  await sql(`INSERT INTO guardPlans (id, stationId, version, createdAt, updatedAt, name, powerW, freqHz, wishedMarginDb, meterResolutionW)
    VALUES (1, ${stamps}, 'Mine', 100, 29700000, 10, 0.1)`);
  await sql(`INSERT INTO guardInputs (id, stationId, version, createdAt, updatedAt, guardPlanId, name, antennaName, disconnects, isolationDb, limitDbm)
    VALUES (1, ${stamps}, 1, 'HF', 'Loop', 1, 62, 0), (2, ${stamps}, 1, 'VHF', 'discone', 1, 62, 0)`);
  await migrator(db.sequelize).up();
  const now = await stationRecords(db, 1);
  expect(now.setAside).toEqual([]);
  // the one of that name that still stands, however it is written; another is known by its name alone
  expect(now.guardInputs).toMatchObject([
    { antennaId: 2, antennaName: 'Loop', receiverId: null },
    { antennaId: null, antennaName: 'discone' },
  ]);
  await migrator(db.sequelize).down({ to: '0011-guard-points-at-records' });
  const [back] = await db.sequelize.query('SELECT * FROM guardInputs WHERE id = 1');
  expect(back).not.toHaveProperty('0.antennaId');
  await db.sequelize.close();
});

test('a file of the eleventh release: one table of transmitters, and the plan of Guard points at its own', async () => {
  const db = openDatabase(path.join(mkdtempSync(path.join(tmpdir(), 'reed-up-')), 'eleventh.sqlite'));
  const sql = (text: string): Promise<unknown> => db.sequelize.query(text);
  await migrator(db.sequelize).up({ to: '0011-guard-points-at-records' });
  await sql(hut(1));
  const stamps = `1, 1, ${STAMP}, ${STAMP}`;
  await sql(`INSERT INTO emitters (id, stationId, version, createdAt, updatedAt, name, freqHz, powerW, powerKind, distanceM, own)
    VALUES (4, ${stamps}, 'FM', 97400000, 3000, 'ERP', 7000, 0), (7, ${stamps}, 'Own', 7100000, 100, 'ERP', 22, 1)`);
  await sql(`INSERT INTO guardPlans (id, stationId, version, createdAt, updatedAt, name, powerW, freqHz, wishedMarginDb, meterResolutionW)
    VALUES (1, ${stamps}, 'Mine', 100, 29700000, 10, 0.1), (2, ${stamps}, 'Portable', 5, 29700000, 10, 0.1)`);
  await sql(`INSERT INTO plotFeatures (id, stationId, version, createdAt, updatedAt, name, kind, points, heightM, endHeightM, clearanceM, widthM)
    VALUES (1, ${stamps}, 'Vertical', 'transmitter', '[[20,-17]]', 8, 0, 0, 0)`);
  const plan = { name: 'Mine', freqHz: 28e6, wishedMarginDb: 6, meterResolutionW: 0.1 };
  await sql(`INSERT INTO edits (stationId, batch, resource, recordId, op, "before", "after", createdAt)
    VALUES (1, 'a', 'emitters', 4, 'create', NULL, '{"name":"FM"}', ${STAMP}),
      (1, 'b', 'guardPlans', 1, 'update', '${JSON.stringify({ ...plan, powerW: 100 })}', '{}', ${STAMP})`);
  await migrator(db.sequelize).up();
  const now = await stationRecords(db, 1);
  expect(now.setAside).toEqual([]);
  expect(now.transmitters).toMatchObject([
    { id: 4, name: 'FM', powerKind: 'ERP', distanceM: 7000 },
    { id: 7, name: 'Own', distanceM: 22 },
    { name: 'Portable', powerW: 5, powerKind: 'output', distanceM: null, own: true },
  ]);
  // SQLite counts on from the highest number there was
  expect(now.guardPlans).toMatchObject([{ transmitterId: 7 }, { transmitterId: 8 }]);
  // two own ones: which of them the vertical belongs to is not guessed
  expect(now.plotFeatures).toMatchObject([{ transmitterId: null }]);
  await undo(db, 1, { device: 'any' });
  expect((await stationRecords(db, 1)).guardPlans).toMatchObject([
    { freqHz: 28e6, marginToKeepDb: 6, transmitterId: 7 },
    {},
  ]);
  await undo(db, 1, { device: 'any' });
  expect((await stationRecords(db, 1)).transmitters).toMatchObject([{ id: 7 }, { name: 'Portable' }]);
  await migrator(db.sequelize).down({ to: '0012-one-table-of-transmitters' });
  const [back] = await db.sequelize.query('SELECT name, powerW FROM guardPlans ORDER BY id');
  expect(back).toEqual([
    { name: 'Mine', powerW: 100 },
    { name: 'Portable', powerW: 5 },
  ]);
  await db.sequelize.close();
});

test('a file of the twelfth release: five kinds of levels in one table, each with its history', async () => {
  const db = openDatabase(path.join(mkdtempSync(path.join(tmpdir(), 'reed-up-')), 'twelfth.sqlite'));
  const sql = (text: string): Promise<unknown> => db.sequelize.query(text);
  await migrator(db.sequelize).up({ to: '0012-one-table-of-transmitters' });
  await sql(hut(1));
  const stored = 'id, stationId, version, createdAt, updatedAt, deletedAt, uuid';
  const row = (id: number, uuid: string, deleted = 'NULL'): string =>
    `${id}, 1, 3, ${STAMP}, ${STAMP}, ${deleted}, '${uuid}'`;
  await sql(`INSERT INTO antennas (${stored}, name) VALUES (${row(1, 'a')}, 'V')`);
  await sql(`INSERT INTO noiseChecks (${stored}, antennaId, freqHz, offDbm, onDbm)
    VALUES (${row(1, 'c1')}, 1, 9650000, -119, -106), (${row(5, 'c5', STAMP)}, NULL, 5580000, -118, -101)`);
  await sql(
    `INSERT INTO noiseFloors (${stored}, freqHz, levelDbm, bandwidthHz) VALUES (${row(1, 'f')}, 9000000, -95, 2400)`,
  );
  await sql(
    `INSERT INTO floorReadings (${stored}, atMs, freqHz, levelDbm) VALUES (${row(1, 'l')}, 1000, 9650000, -118.2)`,
  );
  await sql(`INSERT INTO deviceSwitchings (${stored}, device, freqHz, onDbm, offDbm, atMs)
    VALUES (${row(1, 'd')}, 'it''s a lamp', 9650000, -108, -117.5, 2000)`);
  await sql(`INSERT INTO surveyReadings (${stored}, antennaId, name, freqHz, levelDbm, noiseDbm, atMs)
    VALUES (${row(1, 's')}, 1, 'time signal', 5000000, -80, -110, 3000)`);
  const check = { antennaId: null, freqHz: 5.58e6, offDbm: -118, onDbm: -101 };
  const lamp = { device: "it''s a lamp", freqHz: 9.65e6, onDbm: -100, offDbm: -117, atMs: 2000 };
  await sql(`INSERT INTO edits (stationId, batch, resource, recordId, op, "before", "after", createdAt)
    VALUES (1, 'a', 'noiseChecks', 5, 'delete', '${JSON.stringify(check)}', NULL, ${STAMP}),
      (1, 'b', 'deviceSwitchings', 1, 'update', '${JSON.stringify(lamp)}', '${JSON.stringify(lamp)}', ${STAMP})`);
  await migrator(db.sequelize).up();
  const now = await stationRecords(db, 1);
  expect(now.setAside).toEqual([]);
  expect(now.levels).toMatchObject([
    { kind: 'off and on', antennaId: 1, levelDbm: -106, againstDbm: -119, atMs: null, version: 3 },
    { kind: 'floor', levelDbm: -95, bandwidthHz: 2400, againstDbm: null },
    { kind: 'log', atMs: 1000, levelDbm: -118.2 },
    { kind: 'device', subject: "it's a lamp", levelDbm: -108, againstDbm: -117.5, atMs: 2000 },
    { kind: 'survey', subject: 'time signal', levelDbm: -80, againstDbm: -110, antennaId: 1 },
  ]);
  const [uuids] = await db.sequelize.query('SELECT uuid FROM levels ORDER BY id');
  expect(JSON.stringify(uuids)).toBe(JSON.stringify(['c1', 'c5', 'f', 'l', 'd', 's'].map((uuid) => ({ uuid }))));
  await undo(db, 1, { device: 'any' });
  expect((await stationRecords(db, 1)).levels).toMatchObject([
    {},
    {},
    {},
    { subject: "it's a lamp", levelDbm: -100 },
    {},
  ]);
  await undo(db, 1, { device: 'any' });
  expect((await stationRecords(db, 1)).levels).toMatchObject([
    {},
    { kind: 'off and on', levelDbm: -101, againstDbm: -118, antennaId: null },
    ...[{}, {}, {}, {}],
  ]);
  await migrator(db.sequelize).down({ to: '0013-one-table-of-levels' });
  const [back] = await db.sequelize.query('SELECT onDbm, offDbm, uuid FROM noiseChecks ORDER BY id');
  expect(back).toEqual([
    { onDbm: -106, offDbm: -119, uuid: 'c1' },
    { onDbm: -101, offDbm: -118, uuid: 'c5' },
  ]);
  await db.sequelize.close();
});

test('a file of the thirteenth release: orders become rows, codes become words, and each batch is still undone as one', async () => {
  const db = openDatabase(path.join(mkdtempSync(path.join(tmpdir(), 'reed-up-')), 'thirteenth.sqlite'));
  const sql = (text: string): Promise<unknown> => db.sequelize.query(text);
  await migrator(db.sequelize).up({ to: '0013-one-table-of-levels' });
  await sql(hut(1));
  const stored = 'id, stationId, version, createdAt, updatedAt, deletedAt';
  const row = (id: number, deleted = 'NULL'): string => `${id}, 1, 1, ${STAMP}, ${STAMP}, ${deleted}`;
  await sql(
    `INSERT INTO targets (${stored}, name, lowHz, highHz, bandwidthHz, weight) VALUES (${row(1)}, '31 m', 9400000, 9900000, 5000, 5)`,
  );
  await sql(`INSERT INTO receivers (${stored}, name, bits, fullScaleDbm, sampleRateHz, complexSamples, noiseFigureDb, iip2Dbm, iip3Dbm, minHz, maxHz)
    VALUES (${row(1)}, 'R', 14, 0, 125000000, 0, 15, 50, 10, 10000, 30000000)`);
  await sql(`INSERT INTO paths (${stored}, name, receiverId, targetId) VALUES (${row(1)}, 'P', 1, 1)`);
  const base = {
    ...{ pathId: 1, cableId: 'pe5', lengthM: 0, gainDb: 0, noiseFigureDb: 0, iip2Dbm: 40, iip3Dbm: 10, lossDb: 6 },
    ...{ shape: 'lowpass', family: 'chebyshev', order: 5, rippleDb: 0.1, edgeLowHz: 1e6, edgeHighHz: 3e7 },
    ...{ plotFeatureId: null, partId: null, connectorIn: '', connectorOut: '' },
  };
  const splitter = {
    ...base,
    name: 'Hub',
    kind: 'splitter',
    figures: { form: 1, outputs: 4, excessDb: 0.5, passesDc: 0 },
  };
  const pad = { ...base, name: 'Pad', kind: 'pad', figures: {} };
  const stage = async (id: number, values: object, places: object, deleted = 'NULL'): Promise<void> => {
    const all = Object.entries({ ...values, ...places });
    const text = (value: unknown): string =>
      value === null
        ? 'NULL'
        : typeof value === 'number'
          ? String(value)
          : `'${typeof value === 'string' ? value : JSON.stringify(value)}'`;
    await sql(`INSERT INTO pathStages (${stored}, ${all.map(([name]) => `"${name}"`).join(', ')})
      VALUES (${row(id, deleted)}, ${all.map(([, value]) => text(value)).join(', ')})`);
  };
  await stage(1, splitter, { firstPlace: 0, secondPlace: 1 });
  await stage(2, pad, { firstPlace: 1, secondPlace: 0 });
  await stage(3, { ...pad, name: 'Gone' }, { firstPlace: 2, secondPlace: 2 }, STAMP);
  const note = (
    batch: string,
    id: number,
    op: string,
    before: object | null,
    after: object | null,
  ): Promise<unknown> => {
    const json = (value: object | null): string => (value ? `'${JSON.stringify(value)}'` : 'NULL');
    return sql(`INSERT INTO edits (stationId, batch, resource, recordId, op, "before", "after", createdAt)
      VALUES (1, '${batch}', 'pathStages', ${id}, '${op}', ${json(before)}, ${json(after)}, ${STAMP})`);
  };
  await note('make', 2, 'create', null, { ...pad, firstPlace: 1, secondPlace: 1 });
  await note('turn', 2, 'update', { ...pad, firstPlace: 1, secondPlace: 1 }, { ...pad, firstPlace: 1, secondPlace: 0 });
  await note('drop', 3, 'delete', { ...pad, name: 'Gone', firstPlace: 2, secondPlace: 2 }, null);

  await migrator(db.sequelize).up();
  const now = await stationRecords(db, 1);
  expect(now.setAside).toEqual([]);
  expect(now.pathStages).toMatchObject([
    { name: 'Hub', figures: { outputs: 4, excessDb: 0.5 }, choices: { form: 'star', passesDc: 'blocked' } },
    { name: 'Pad', figures: {}, choices: {} },
  ]);
  /** Ids of the stages in each order. */
  const orders = async (): Promise<unknown> => {
    const [rows] = await db.sequelize.query(`SELECT number, group_concat(stageId) AS stages FROM
      (SELECT * FROM orderPlaces WHERE deletedAt IS NULL ORDER BY place) JOIN pathOrders ON pathOrders.id = orderId GROUP BY number`);
    return rows;
  };
  expect(await orders()).toEqual([
    { number: 1, stages: '1,2' },
    { number: 2, stages: '2,1' },
  ]);
  // the deleted stage comes back with its places, then the turned order turns back, then the pad was never there
  await undo(db, 1, { device: 'any' });
  expect(await orders()).toEqual([
    { number: 1, stages: '1,2,3' },
    { number: 2, stages: '2,1,3' },
  ]);
  await undo(db, 1, { device: 'any' });
  const turned = (await stationRecords(db, 1)).orderPlaces;
  expect(turned).toMatchObject([
    { place: 0 },
    { place: 1 },
    { place: 2 },
    { place: 1 },
    { stageId: 2, place: 1 },
    { place: 2 },
  ]);
  await undo(db, 1, { device: 'any' });
  expect((await stationRecords(db, 1)).pathStages).toMatchObject([{ name: 'Hub' }, { name: 'Gone' }]);
  expect(await orders()).toEqual([
    { number: 1, stages: '1,3' },
    { number: 2, stages: '1,3' },
  ]);
  await migrator(db.sequelize).down({ to: '0014-orders-as-rows' });
  const [back] = await db.sequelize.query('SELECT name, figures, firstPlace, secondPlace FROM pathStages WHERE id = 1');
  expect(back).toEqual([
    {
      name: 'Hub',
      figures: JSON.stringify({ outputs: 4, excessDb: 0.5, form: 1, passesDc: 0 }),
      firstPlace: 0,
      secondPlace: 1,
    },
  ]);
  await db.sequelize.close();
});

test('a file of the fifteenth release: dates that nobody said are empty, and a change made before is still undoable', async () => {
  const db = openDatabase(path.join(mkdtempSync(path.join(tmpdir(), 'reed-up-')), 'fifteenth.sqlite'));
  const sql = (text: string): Promise<unknown> => db.sequelize.query(text);
  await migrator(db.sequelize).up({ to: '0015-choices-in-words' });
  await sql(hut(1));
  await sql(
    `INSERT INTO antennas (id, stationId, version, createdAt, updatedAt, name) VALUES (1, 1, 2, ${STAMP}, ${STAMP}, 'Wire')`,
  );
  await sql(`INSERT INTO edits (stationId, batch, resource, recordId, op, "before", "after", createdAt)
    VALUES (1, 'b', 'antennas', 1, 'update', '{"name":"Loop","targetId":null}', '{"name":"Wire","targetId":null}', ${STAMP})`);
  await migrator(db.sequelize).up();
  const now = await stationRecords(db, 1);
  expect(now.setAside).toEqual([]);
  expect(now.antennas).toMatchObject([{ name: 'Wire', sinceMs: null }]);
  expect(now.station).toMatchObject({ lineSinceMs: null, lineMeasuredMs: null });
  expect([now.logs, now.accessories]).toEqual([[], []]);
  await undo(db, 1, { device: 'any' });
  expect((await stationRecords(db, 1)).antennas).toMatchObject([{ name: 'Loop', sinceMs: null }]);
  await migrator(db.sequelize).down({ to: '0016-logs-accessories-dates' });
  const [back] = await db.sequelize.query('SELECT * FROM antennas');
  expect(back).not.toHaveProperty('0.sinceMs');
  await db.sequelize.close();
});

test('a file of the sixteenth release: an entry names its step, and undo brings one back under that name', async () => {
  const db = openDatabase(path.join(mkdtempSync(path.join(tmpdir(), 'reed-up-')), 'sixteenth.sqlite'));
  const sql = (text: string): Promise<unknown> => db.sequelize.query(text);
  await migrator(db.sequelize).up({ to: '0016-logs-accessories-dates' });
  await sql(hut(1));
  await sql(
    `INSERT INTO entries (id, stationId, version, createdAt, updatedAt, stage, text, atMs) VALUES (1, 1, 2, ${STAMP}, ${STAMP}, 'bench', 'cut 5 mm', 7)`,
  );
  await sql(`INSERT INTO edits (stationId, batch, resource, recordId, op, "before", "after", createdAt)
    VALUES (1, 'b', 'entries', 1, 'update', '{"stage":"draft","text":"cut","atMs":7}', '{"stage":"bench","text":"cut 5 mm","atMs":7}', ${STAMP})`);
  await migrator(db.sequelize).up();
  const now = await stationRecords(db, 1);
  expect(now.setAside).toEqual([]);
  expect(now.entries).toMatchObject([{ step: 'bench', text: 'cut 5 mm' }]);
  await undo(db, 1, { device: 'any' });
  expect((await stationRecords(db, 1)).entries).toMatchObject([{ step: 'draft', text: 'cut' }]);
  await migrator(db.sequelize).down({ to: '0017-words-of-the-glossary' });
  const [back] = await db.sequelize.query('SELECT stage, text FROM entries');
  expect(back).toEqual([{ stage: 'draft', text: 'cut' }]);
  await db.sequelize.close();
});

test('a file of the eighteenth release: trials decide on SNR and are watched, and undo brings back what fits', async () => {
  const db = openDatabase(path.join(mkdtempSync(path.join(tmpdir(), 'reed-up-')), 'eighteenth.sqlite'));
  const sql = (text: string): Promise<unknown> => db.sequelize.query(text);
  await migrator(db.sequelize).up({ to: '0018-appointments' });
  await sql(hut(1));
  await sql(`INSERT INTO antennas (id, stationId, version, createdAt, updatedAt, name) VALUES (1, 1, 1, ${STAMP}, ${STAMP}, 'Wire'),
    (2, 1, 1, ${STAMP}, ${STAMP}, 'Loop')`);
  const trial = { name: 'Dusk', antennaAId: 1, antennaBId: 2, freqHz: 7.1e6, worthDb: 3, conditions: '' };
  await sql(`INSERT INTO trials (id, stationId, version, createdAt, updatedAt, name, antennaAId, antennaBId, freqHz, worthDb, conditions)
    VALUES (1, 1, 2, ${STAMP}, ${STAMP}, 'Dusk again', 1, 2, 7100000, 3, '')`);
  await sql(`INSERT INTO readings (id, stationId, version, createdAt, updatedAt, trialId, round, levelADbm, noiseADbm, levelBDbm, noiseBDbm)
    VALUES (1, 1, 1, ${STAMP}, ${STAMP}, 1, 0, -73, -85, -95, -110)`);
  await sql(`INSERT INTO receivers (id, stationId, version, createdAt, updatedAt, name, bits, fullScaleDbm, sampleRateHz, complexSamples, noiseFigureDb, iip2Dbm, iip3Dbm, minHz, maxHz)
    VALUES (1, 1, 1, ${STAMP}, ${STAMP}, 'Receiver', 12, 0, 2000000, 1, 12, 40, 10, 100000, 30000000)`);
  await sql(`INSERT INTO edits (stationId, batch, resource, recordId, op, "before", "after", createdAt)
    VALUES (1, 'b', 'trials', 1, 'update', '${JSON.stringify(trial)}', '${JSON.stringify({ ...trial, name: 'Dusk again' })}', ${STAMP})`);
  await migrator(db.sequelize).up();
  const now = await stationRecords(db, 1);
  expect(now.setAside).toEqual([]);
  expect(now.station).toMatchObject({ horizon: '' });
  expect(now.trials).toMatchObject([{ name: 'Dusk again', primary: 'snr', plannedPairs: null, fadingS: null }]);
  expect(now.readings).toMatchObject([{ levelADbm: -73, noiseBDbm: -110, scale: 'dBm', differenceDb: null }]);
  expect(now.receivers).toMatchObject([{ name: 'Receiver', offsetPpm: null }]);
  expect([now.recordings, now.passes, now.blockCounts]).toEqual([[], [], []]);
  await undo(db, 1, { device: 'any' });
  expect((await stationRecords(db, 1)).trials).toMatchObject([{ name: 'Dusk', primary: 'snr', plannedPairs: null }]);
  await migrator(db.sequelize).down({ to: '0019-recordings' });
  for (const [table, gone] of [
    ['trials', 'primary'],
    ['readings', 'scale'],
    ['receivers', 'offsetPpm'],
    ['stations', 'horizon'],
  ]) {
    const [rows] = await db.sequelize.query(`SELECT * FROM ${table}`);
    expect(rows).toHaveLength(1);
    expect(rows).not.toHaveProperty(`0.${gone}`);
  }
  const [tables] = await db.sequelize.query(
    "SELECT name FROM sqlite_master WHERE name IN ('recordings', 'passes', 'blockCounts')",
  );
  expect(tables).toEqual([]);
  await db.sequelize.close();
});

test('a file of the twentieth release: a plan of Guard keeps its inputs, and undo brings back what fits', async () => {
  const db = openDatabase(path.join(mkdtempSync(path.join(tmpdir(), 'reed-up-')), 'twentieth.sqlite'));
  const sql = (text: string): Promise<unknown> => db.sequelize.query(text);
  await migrator(db.sequelize).up({ to: '0020-counts-and-offsets' });
  await sql(hut(1));
  await sql(`INSERT INTO transmitters (id, stationId, version, createdAt, updatedAt, name, freqHz, powerW, powerKind, own)
    VALUES (1, 1, 1, ${STAMP}, ${STAMP}, 'Mine', 7100000, 100, 'output', 1)`);
  await sql(`INSERT INTO guardPlans (id, stationId, version, createdAt, updatedAt, name, transmitterId, freqHz, marginToKeepDb, meterResolutionW)
    VALUES (1, 1, 2, ${STAMP}, ${STAMP}, 'Mine', 1, 29700000, 10, 0.1)`);
  await sql(`INSERT INTO guardInputs (id, stationId, version, createdAt, updatedAt, guardPlanId, name, antennaName, disconnects, isolationDb, limitDbm)
    VALUES (1, 1, 1, ${STAMP}, ${STAMP}, 1, 'Receiver A', 'Antenna 1', 1, 62, 0)`);
  const plan = { name: 'Mine', transmitterId: 1, freqHz: 29.7e6, marginToKeepDb: 6, meterResolutionW: 0.1 };
  await sql(`INSERT INTO edits (stationId, batch, resource, recordId, op, "before", "after", createdAt)
    VALUES (1, 'b', 'guardPlans', 1, 'update', '${JSON.stringify(plan)}', '${JSON.stringify({ ...plan, marginToKeepDb: 10 })}', ${STAMP})`);
  await migrator(db.sequelize).up();
  const now = await stationRecords(db, 1);
  expect(now.setAside).toEqual([]);
  expect(now.guardPlans).toMatchObject([
    { marginToKeepDb: 10, sequenceBy: 'not said', times: {}, hangingOnNothing: '' },
  ]);
  expect(now.guardInputs).toMatchObject([{ name: 'Receiver A', disconnects: true, isolationDb: 62 }]);
  expect([now.guardParts, now.guardLinks, now.guardCouplings, now.powerTests, now.powerRungs]).toEqual([
    [],
    [],
    [],
    [],
    [],
  ]);
  await undo(db, 1, { device: 'any' });
  expect((await stationRecords(db, 1)).guardPlans).toMatchObject([
    { marginToKeepDb: 6, sequenceBy: 'not said', times: {} },
  ]);
  await migrator(db.sequelize).down({ to: '0021-guard-by-proof' });
  const [rows] = await db.sequelize.query('SELECT * FROM guardPlans');
  expect(rows).toHaveLength(1);
  expect(rows).not.toHaveProperty('0.times');
  const [tables] = await db.sequelize.query(
    "SELECT name FROM sqlite_master WHERE name IN ('guardParts', 'powerRungs', 'nullLogs')",
  );
  expect(tables).toEqual([]);
  await db.sequelize.close();
});

test('a superhet that was taken by its kind is one after the upgrade, in undo too; other receivers sample, and going back loses nothing', async () => {
  const db = openDatabase(path.join(mkdtempSync(path.join(tmpdir(), 'reed-up-')), 'gains.sqlite'));
  const sql = (text: string): Promise<unknown> => db.sequelize.query(text);
  await migrator(db.sequelize).up({ to: '0027-spots' });
  await sql(hut(2));
  const superhet = {
    ...{ name: 'Superhet with an S meter (assumed)', bits: 24, fullScaleDbm: 10, sampleRateHz: 1e6, noiseFigureDb: 12 },
    ...{
      complexSamples: true,
      iip2Dbm: 60,
      iip3Dbm: 10,
      minHz: 1e5,
      maxHz: 3e7,
      sinceMs: null,
      offsetPpm: null,
      measuredMs: null,
    },
  };
  await sql(`INSERT INTO receivers (id, stationId, version, createdAt, updatedAt, uuid, name, bits, fullScaleDbm, sampleRateHz, complexSamples, noiseFigureDb, iip2Dbm, iip3Dbm, minHz, maxHz)
    VALUES (1, 1, 1, ${STAMP}, ${STAMP}, 'u1', 'Renamed', 24, 10, 1000000, 1, 12, 60, 10, 100000, 30000000),
           (2, 1, 1, ${STAMP}, ${STAMP}, 'u2', '${superhet.name}', 24, 10, 1000000, 1, 12, 60, 10, 100000, 30000000)`);
  await sql(`INSERT INTO edits (stationId, batch, resource, recordId, op, "before", "after", createdAt)
    VALUES (1, 'b', 'receivers', 1, 'update', '${JSON.stringify(superhet)}', '${JSON.stringify({ ...superhet, name: 'Renamed' })}', ${STAMP})`);
  await migrator(db.sequelize).up();
  expect((await stationRecords(db, 1)).receivers).toMatchObject([
    { name: 'Renamed', superhet: false, gains: [] },
    { superhet: true, gains: [] },
  ]);
  await undo(db, 1, { device: 'any' });
  expect((await stationRecords(db, 1)).receivers).toMatchObject([
    { name: superhet.name, superhet: true, gains: [] },
    { name: superhet.name },
  ]);
  await migrator(db.sequelize).down({ to: '0028-gains-of-receivers' });
  const [rows] = await db.sequelize.query('SELECT name FROM receivers ORDER BY id');
  expect(rows).toEqual([{ name: superhet.name }, { name: superhet.name }]);
  await db.sequelize.close();
});
