import { randomUUID } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, test } from '@jest/globals';
import { createOf, updateOf, type Change } from '@velvet-reed/contract';
import { applyChanges } from './changes';
import { type Database, openDatabase } from './database';
import { migrator } from './migrate';
import { createStation } from './records';
import { stationRecords } from './station-answer';
import { HUT } from './test-server';
import { requireModest } from './body-limits';

const author = () => ({ key: randomUUID(), device: randomUUID() });
const opened = async (name: string, to?: string): Promise<Database> => {
  const db = openDatabase(path.join(mkdtempSync(path.join(tmpdir(), 'reed-taken-')), name));
  await migrator(db.sequelize).up(to === undefined ? undefined : { to });
  return db;
};
const REVISION = {
  ...{ number: 1, kind: 'v-dipole', freqHz: 9.65e6, diameterM: 0.002, insulated: false, allowance: 0.03 },
  ...{ dimensions: {}, gates: [], done: [] },
} as const;
const RUN = {
  points: [
    [0, 0],
    [10, 0],
  ],
  heightM: 6,
  endHeightM: 6,
};

test('a record is stamped with its antennas as they stand; what is stamped stays when they are moved, and another antenna is not known', async () => {
  const db = await opened('stamped.sqlite');
  const { id } = await createStation(db, HUT, author());
  const save = async (...changes: readonly Change[]) =>
    (await applyChanges(db, Number(id), { changes: changes.map((one) => ({ ...one })), author: author() })).saved.map(
      (one) => ({ id: Number(one?.id), version: Number(one?.version), takenOn: one?.takenOn }),
    );
  const [a, b, , feature] = await save(
    createOf('antennas', { name: 'A', targetId: null }, 'a'),
    createOf('antennas', { name: 'B', targetId: null }),
    createOf('revisions', { ...REVISION, antennaId: { new: 'a' } }),
    createOf('plotFeatures', {
      ...{
        name: 'A',
        kind: 'antenna',
        antennaId: { new: 'a' },
        ...RUN,
        points: [
          [0, 0],
          [10, 0],
        ],
      },
      ...{ clearanceM: 0, widthM: 0 },
    }),
  );
  const stamp = { antennas: [{ id: `antenna:${a.id}`, name: 'A', revision: 1, runs: [RUN] }] };
  const [level] = await save(
    createOf('levels', { kind: 'off and on', antennaId: a.id, freqHz: 9.65e6, levelDbm: -90, againstDbm: -110 }),
  );
  expect(level.takenOn).toEqual(stamp);
  await save(
    updateOf('plotFeatures', feature, {
      points: [
        [5, 0],
        [15, 0],
      ],
    }),
  );
  expect((await stationRecords(db, Number(id))).levels).toMatchObject([{ takenOn: stamp }]);
  const [other] = await save(updateOf('levels', level, { antennaId: b.id }));
  expect(other.takenOn).toEqual({});
  await db.sequelize.close();
});

test('a test with its whole scope is not too deep to be taken in', () => {
  const scope = {
    antennas: [{ id: 'antenna:1', name: 'A', runs: [RUN] }],
    parts: [{ id: 'tx', name: 'T', state: '' }],
  };
  expect(() =>
    requireModest({ changes: [{ op: 'create', resource: 'powerTests', values: { takenOn: scope } }] }),
  ).not.toThrow();
});

const [EARLY, THEN, LATE] = ['2026-03-01', '2026-03-05', '2026-03-09'].map((day) => `'${day} 10:00:00.000 +00:00'`);
test('a file of the release before: records know the revision that was valid then, and the place where nothing was moved since', async () => {
  const db = await opened('before.sqlite', '0023-diary-and-upkeep');
  const sql = (text: string): Promise<unknown> => db.sequelize.query(text);
  await sql(`INSERT INTO stations (id, version, createdAt, updatedAt, name, latDeg, lonDeg, environment, noiseOffsetDb, spanM, heightM, cableId, lineLengthM, groundId)
    VALUES (1, 1, ${EARLY}, ${EARLY}, 'Hut', 50, -19, 'rural', 0, 38, 9, 'pe5', 40, 'average')`);
  for (const [antenna, moved] of [
    [1, EARLY],
    [2, LATE],
  ] as const) {
    await sql(
      `INSERT INTO antennas (id, stationId, version, createdAt, updatedAt, name) VALUES (${antenna}, 1, 1, ${EARLY}, ${EARLY}, 'it’s ${antenna}')`,
    );
    for (const [number, at] of [
      [1, EARLY],
      [2, LATE],
    ])
      await sql(`INSERT INTO revisions (stationId, version, createdAt, updatedAt, antennaId, number, kind, freqHz, diameterM, insulated, allowance, dimensions, gates, done)
        VALUES (1, 1, ${at}, ${at}, ${antenna}, ${number}, 'v-dipole', 9650000, 0.002, 0, 0.03, '{}', '[]', '[]')`);
    await sql(`INSERT INTO plotFeatures (stationId, version, createdAt, updatedAt, name, kind, points, heightM, endHeightM, clearanceM, widthM, antennaId)
      VALUES (1, 1, ${EARLY}, ${moved}, 'run', 'antenna', '[[0,0],[10,0]]', 6, 6, 0, 0, ${antenna})`);
    await sql(`INSERT INTO levels (stationId, version, createdAt, updatedAt, kind, freqHz, levelDbm, againstDbm, antennaId)
      VALUES (1, 1, ${THEN}, ${THEN}, 'off and on', 9650000, -90, -110, ${antenna})`);
  }
  await migrator(db.sequelize).up();
  const { levels, setAside } = await stationRecords(db, 1);
  expect(setAside).toEqual([]);
  expect(levels).toMatchObject([
    { takenOn: { antennas: [{ id: 'antenna:1', name: 'it’s 1', revision: 1, runs: [RUN] }] } },
    // it was moved since, and where it hung then nobody knows
    { takenOn: {} },
  ]);
  await migrator(db.sequelize).down({ to: '0024-taken-on' });
  const [rows] = await db.sequelize.query('SELECT * FROM levels');
  expect(rows).toHaveLength(2);
  expect(rows).not.toHaveProperty('0.takenOn');
  await db.sequelize.close();
});
