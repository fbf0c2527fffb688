import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { BLANK } from '@velvet-reed/contract';
import { pino } from 'pino';
import request from 'supertest';
import { createApp } from './app';
import { openDatabase, type Database } from './database';
import { migrator } from './migrate';
import { storedJson } from './stored-json';
import { HUT } from './test-server';

let db: Database;
beforeAll(async () => {
  db = openDatabase(path.join(mkdtempSync(path.join(tmpdir(), 'reed-json-')), 'stations.sqlite'));
  await migrator(db.sequelize).up();
});
afterAll(() => db.sequelize.close());

const TURN = {
  ...{ name: 'Turn', atMs: 1, xM: 0, yM: 0, declinationDeg: 0, meaning: 'null', sigmaDeg: 2 },
  ...BLANK.nullLogs,
  readings: [
    [0, -60],
    [45, -70],
    [90, -80],
  ],
};

test('columns of JSON that a release declared as text: one other column changed, deleted and brought back, all as it was', async () => {
  const app = createApp({ db, logger: pino({ level: 'silent' }), allowedHosts: ['127.0.0.1'] });
  const made: { body: { id: number } } = await request(app).post('/api/stations').send(HUT).expect(201);
  const address = `/api/stations/${made.body.id}`;
  const send = (...changes: object[]) => request(app).post(`${address}/changes`).send({ changes });
  const now = async (): Promise<Record<string, { id: number; version: number }[]>> => {
    const reply: { body: Record<string, { id: number; version: number }[]> } = await request(app)
      .get(address)
      .expect(200);
    return reply.body;
  };
  await send(
    {
      op: 'create',
      resource: 'transmitters',
      as: 'tx',
      values: { name: 'Own', freqHz: 7.1e6, powerW: 100, powerKind: 'output', distanceM: 22, own: true },
    },
    {
      ...{ op: 'create', resource: 'guardPlans' },
      values: {
        ...BLANK.guardPlans,
        name: 'Plan',
        transmitterId: { new: 'tx' },
        freqHz: 7e6,
        marginToKeepDb: 10,
        meterResolutionW: 0.1,
        times: { keyS: 0.01 },
      },
    },
    { op: 'create', resource: 'nullLogs', values: TURN },
  ).expect(200);
  for (const [resource, values, kept] of [
    ['guardPlans', { limitSource: 'local rule' }, { times: { keyS: 0.01 } }],
    ['nullLogs', { name: 'Turn by the hut' }, { readings: TURN.readings }],
  ] as const) {
    const [before] = (await now())[resource];
    await send({ op: 'update', resource, id: before.id, version: before.version, values }).expect(200);
    const [changed] = (await now())[resource];
    expect(changed).toMatchObject({ ...values, ...kept });
    await send({ op: 'delete', resource, id: changed.id, version: changed.version, along: true }).expect(200);
    expect((await now())[resource]).toEqual([]);
    await request(app).post(`${address}/undo`).send({}).expect(200);
    expect((await now())[resource]).toMatchObject([{ ...values, ...kept }]);
    expect((await now()).setAside ?? []).toEqual([]);
  }
});

test('a text of a text is read as what it says; what is no JSON stays', () => {
  expect(storedJson('"{\\"a\\":1}"')).toEqual({ a: 1 });
  expect(storedJson('{"a":1}')).toEqual({ a: 1 });
  expect(storedJson({ a: 1 })).toEqual({ a: 1 });
  expect(storedJson('broken')).toBe('broken');
});
