// What docs/changing.md says: a column of a table stands in schema, blank record, model, answer and published format without further words.
import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { BLANK, RESOURCES, SCHEMAS, stationFileSchema } from '@velvet-reed/contract';
import { maybeReal, tableOf } from '@velvet-reed/contract/testing';
import { pino } from 'pino';
import request from 'supertest';
import { createApp } from './app';
import { openDatabase, type Database } from './database';
import { migrator } from './migrate';
import { HUT } from './test-server';

const TARGET = { name: '31 m', lowHz: 9.4e6, highHz: 9.9e6, bandwidthHz: 5000, weight: 5 };
let db: Database;

beforeAll(async () => {
  const { label, columns } = RESOURCES.targets;
  const made = tableOf({ label, columns: { ...columns, moonDeg: maybeReal('Moon (degrees)', -90, 90) } });
  Object.assign(RESOURCES, { targets: made });
  Object.assign(SCHEMAS, { targets: made.schema });
  Object.assign(BLANK, { targets: made.blank });
  db = openDatabase(path.join(mkdtempSync(path.join(tmpdir(), 'reed-column-')), 'stations.sqlite'));
  await migrator(db.sequelize).up();
  await db.sequelize.query('ALTER TABLE targets ADD COLUMN moonDeg REAL'); // what its migration would do
});
afterAll(() => db.sequelize.close());

describe('a column that was put into a table', () => {
  test('is stored, told, left out, refused out of range, undone and published', async () => {
    const app = createApp({ db, logger: pino({ level: 'silent' }), allowedHosts: ['127.0.0.1'] });
    const made: { body: { id: number } } = await request(app).post('/api/stations').send(HUT).expect(201);
    const address = `/api/stations/${made.body.id}`;
    const save = (values: object) =>
      request(app)
        .post(`${address}/changes`)
        .send({ changes: [{ op: 'create', resource: 'targets', values }] });
    await save({ ...TARGET, moonDeg: 12.5 }).expect(200);
    await save(TARGET).expect(200);
    const refused: { body: { fields: unknown } } = await save({ ...TARGET, moonDeg: 500 }).expect(400);
    expect(refused.body.fields).toMatchObject([{ field: 'moonDeg', message: expect.stringMatching(/at most 90/) }]);
    const now: { body: { targets: unknown[] } } = await request(app).get(address).expect(200);
    expect(now.body.targets).toMatchObject([{ moonDeg: 12.5 }, { moonDeg: null }]);
    await request(app).post(`${address}/undo`).send({}).expect(200);
    expect(JSON.stringify(stationFileSchema())).toContain('Moon (degrees)');
  });
});

test('every file that docs/changing.md names is there, and no change names more than four', () => {
  const root = path.resolve(import.meta.dirname, '../../..');
  const rows = readFileSync(path.join(root, 'docs/changing.md'), 'utf8')
    .split('\n')
    .filter((line) => line.startsWith('|') && line.includes('`'));
  expect(rows).toHaveLength(13);
  for (const row of rows) {
    const names = [...row.matchAll(/`((?:packages|docs)\/[^`]*)`/g)].map(([, name]) => name);
    expect(names.length).toBeGreaterThan(0);
    expect(names.length).toBeLessThanOrEqual(4);
    for (const name of names.filter((one) => !one.includes('<')))
      expect([name, existsSync(path.join(root, name))]).toEqual([name, true]);
  }
});
