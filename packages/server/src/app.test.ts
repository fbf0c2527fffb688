import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { pino } from 'pino';
import { QueryTypes } from 'sequelize';
import request from 'supertest';
import { STATION_BLANK, BLANK } from '@velvet-reed/contract';
import { createApp } from './app';
import { openDatabase, type Database } from './database';
import { loadDemo } from './demo/load';
import { migrator } from './migrate';

const STATION = {
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
  ...STATION_BLANK,
};
const TARGET = { name: '31 m', lowHz: 9.4e6, highHz: 9.9e6, bandwidthHz: 5000, weight: 3, ...BLANK.targets };
const SWEEP = '# MHz S RI R 50\n9.0 0.6 -0.3\n9.4 0.05 0\n9.8 0.6 0.3\n';

let dir: string;
let db: Database;
let app: ReturnType<typeof createApp>;
const open = async (): Promise<void> => {
  db = openDatabase(path.join(dir, 'test.sqlite'));
  await migrator(db.sequelize).up();
  app = createApp({ db, logger: pino({ level: 'silent' }), allowedHosts: ['127.0.0.1', 'localhost'] });
};
beforeAll(async () => {
  dir = mkdtempSync(path.join(tmpdir(), 'velvet-reed-'));
  await open();
});
afterAll(async () => {
  await db.sequelize.close();
  rmSync(dir, { recursive: true });
});

interface Reply {
  readonly id: number;
  readonly version: number;
}
const newStation = async (): Promise<number> => {
  const reply: { body: Reply } = await request(app).post('/api/stations').send(STATION).expect(201);
  return reply.body.id;
};
const write = (station: number, changes: unknown) =>
  request(app).post(`/api/stations/${station}/changes`).send({ changes });
const create = (resource: string, values: unknown) => ({ op: 'create', resource, values });
const made = async (station: number, resource: string, values: unknown): Promise<Reply> => {
  const reply: { body: { saved: Reply[] } } = await write(station, [create(resource, values)]).expect(200);
  return reply.body.saved[0];
};
const load = async (station: number): Promise<Record<string, unknown[]>> => {
  const reply: { body: Record<string, unknown[]> } = await request(app).get(`/api/stations/${station}`).expect(200);
  return reply.body;
};

describe('database', () => {
  test('write-ahead log, foreign keys, busy timeout, full synchronisation, also inside a transaction', async () => {
    const read = (name: string) =>
      db.write((transaction) =>
        db.sequelize.query<Record<string, unknown>>(`PRAGMA ${name}`, { type: QueryTypes.SELECT, transaction }),
      );
    const values = [];
    for (const name of ['journal_mode', 'foreign_keys', 'busy_timeout', 'synchronous'])
      values.push(Object.values((await read(name))[0])[0]);
    expect(values).toEqual(['wal', 1, 5000, 2]);
  });
  test('migrated tables and models name the same columns', async () => {
    for (const table of [...Object.values(db.tables), db.stations, db.edits]) {
      const columns = await db.sequelize.query<{ name: string }>(`PRAGMA table_info("${table.name}")`, {
        type: QueryTypes.SELECT,
      });
      expect(columns.map((column) => column.name).sort()).toEqual(Object.keys(table.getAttributes()).sort());
    }
  });
  test('arrays are bytes: no sample stands in a text column', async () => {
    const [type] = await db.sequelize.query<{ type: string }>(
      `SELECT type FROM pragma_table_info('sweeps') WHERE name = 'samples'`,
      { type: QueryTypes.SELECT },
    );
    expect(type.type).toBe('BLOB');
  });
});

describe('writing', () => {
  test('a batch is saved whole, with references to what it made', async () => {
    const station = await newStation();
    const reply: { body: { saved: { id: number; targetId?: number }[] } } = await write(station, [
      { ...create('targets', TARGET), as: 'target' },
      create('antennas', { name: 'wire', targetId: { new: 'target' } }),
    ]).expect(200);
    expect(reply.body.saved[1].targetId).toBe(reply.body.saved[0].id);
  });
  test('one bad change in a batch leaves nothing behind', async () => {
    const station = await newStation();
    const refused = await write(station, [
      create('targets', TARGET),
      create('targets', { ...TARGET, name: '' }),
    ]).expect(400);
    expect(refused.body).toMatchObject({
      code: 'VALIDATION',
      message: 'Name is empty. Give it a name that you will recognise.',
      fields: [{ field: 'name' }],
    });
    expect((await load(station)).targets).toEqual([]);
  });
  test('unknown fields, text for numbers and foreign references are refused, not swallowed', async () => {
    const [station, other] = [await newStation(), await newStation()];
    expect((await write(station, [create('targets', { ...TARGET, colour: 'red' })]).expect(400)).body).toMatchObject({
      message: expect.stringMatching(/"colour" is not known/),
    });
    await write(station, [create('targets', { ...TARGET, lowHz: '9400000' })]).expect(400);
    const foreign = await made(other, 'targets', TARGET);
    expect(
      (await write(station, [create('antennas', { name: 'x', targetId: foreign.id })]).expect(400)).body,
    ).toMatchObject({ code: 'REQUEST' });
    await write(station, [{ op: 'delete', resource: 'targets', id: foreign.id, version: 1 }]).expect(404);
  });
  test('a stale write is told with 409 and overwrites nothing', async () => {
    const station = await newStation();
    const { id } = await made(station, 'targets', TARGET);
    const update = (version: number, name: string) =>
      write(station, [{ op: 'update', resource: 'targets', id, version, values: { name } }]);
    await update(1, 'first device').expect(200);
    expect((await update(1, 'second device').expect(409)).body).toMatchObject({
      code: 'STALE_WRITE',
      message: expect.stringMatching(/changed elsewhere/),
    });
    expect((await load(station)).targets).toMatchObject([{ name: 'first device', version: 2 }]);
  });
  test('what is still used cannot be deleted, and the sentence says by what', async () => {
    const station = await newStation();
    const target = await made(station, 'targets', TARGET);
    await made(station, 'antennas', { name: 'wire', targetId: target.id });
    expect(
      (await write(station, [{ op: 'delete', resource: 'targets', id: target.id, version: 1 }]).expect(409)).body,
    ).toMatchObject({
      code: 'IN_USE',
      message:
        'This target is still used by 1 antenna. Delete it together with them, or let them point elsewhere first.',
    });
  });
  test('twenty parallel writers lose nothing', async () => {
    const station = await newStation();
    await Promise.all(
      Array.from({ length: 20 }, (_, i) =>
        write(station, [create('entries', { step: 'notebook', text: `line ${i}`, atMs: i })]).expect(200),
      ),
    );
    expect((await load(station)).entries).toHaveLength(20);
  });
  test('station values are versioned too', async () => {
    const station = await newStation();
    await request(app).patch(`/api/stations/${station}`).send({ version: 1, spanM: 20 }).expect(200);
    await request(app).patch(`/api/stations/${station}`).send({ version: 1, spanM: 30 }).expect(409);
    await request(app).patch(`/api/stations/${station}`).send({ version: 2, spanM: -1 }).expect(400);
  });
});

describe('undo', () => {
  test('create, change and delete are taken back in turn, after a restart', async () => {
    const station = await newStation();
    const { id } = await made(station, 'targets', TARGET);
    await write(station, [{ op: 'update', resource: 'targets', id, version: 1, values: { name: 'renamed' } }]).expect(
      200,
    );
    await write(station, [{ op: 'delete', resource: 'targets', id, version: 2 }]).expect(200);
    await db.sequelize.close();
    await open();
    const undo = () => request(app).post(`/api/stations/${station}/undo`).send({});
    expect((await undo().expect(200)).body).toMatchObject({ undone: 1, what: 'target deleted' });
    expect((await load(station)).targets).toMatchObject([{ name: 'renamed' }]);
    await undo().expect(200);
    expect((await load(station)).targets).toMatchObject([{ name: '31 m' }]);
    await undo().expect(200);
    expect((await load(station)).targets).toEqual([]);
    expect((await undo().expect(409)).body).toMatchObject({ code: 'NOTHING_TO_UNDO' });
  });
  test('a batch is undone as one, lists included', async () => {
    const station = await newStation();
    const antenna = await made(station, 'antennas', { name: 'wire', targetId: null });
    const revision = {
      antennaId: antenna.id,
      number: 1,
      kind: 'v-dipole',
      freqHz: 9.65e6,
      diameterM: 0.002,
      dimensions: { heightM: 9 },
      insulated: false,
      allowance: 0.03,
      gates: ['collar-on'],
      done: [],
    };
    const { id } = await made(station, 'revisions', revision);
    await write(station, [
      { op: 'update', resource: 'revisions', id, version: 1, values: { gates: ['collar-on', 'tested'] } },
      create('entries', { step: 'draft', text: 'tested', atMs: 1 }),
    ]).expect(200);
    await request(app).post(`/api/stations/${station}/undo`).send({}).expect(200);
    const data = await load(station);
    expect(data.revisions).toMatchObject([{ gates: ['collar-on'] }]);
    expect(data.entries).toEqual([]);
  });
});

describe('sweeps', () => {
  const upload = (station: number, text: string | Buffer, name = 'a.s1p') =>
    request(app).post(`/api/stations/${station}/sweeps`).attach('file', Buffer.from(text), name);
  test('file, samples, checksum and entry arrive together and leave together', async () => {
    const station = await newStation();
    const reply: { body: { id: number; points: number; attachmentId: number } } = await upload(station, SWEEP).expect(
      201,
    );
    const { body } = reply;
    expect(body.points).toBe(3);
    const samples = await request(app)
      .get(`/api/sweeps/${body.id}/samples`)
      .buffer(true)
      .parse((res, done) => {
        const parts: Buffer[] = [];
        res.on('data', (part: Buffer) => parts.push(part));
        res.on('end', () => done(null, Buffer.concat(parts)));
      })
      .expect(200);
    expect(Buffer.isBuffer(samples.body) ? samples.body.length : 0).toBe(72);
    expect((await request(app).get(`/api/attachments/${body.attachmentId}/check`).expect(200)).body).toMatchObject({
      same: true,
    });
    expect((await load(station)).entries).toHaveLength(1);
    await request(app).post(`/api/stations/${station}/undo`).send({}).expect(200);
    const after = await load(station);
    expect([after.sweeps, after.attachments, after.entries]).toEqual([[], [], []]);
  });
  test('bytes altered behind the server’s back are noticed', async () => {
    const station = await newStation();
    const reply: { body: { attachmentId: number } } = await upload(station, SWEEP).expect(201);
    const { body } = reply;
    await db.sequelize.query(`UPDATE attachments SET bytes = X'00' WHERE id = ${body.attachmentId}`);
    expect((await request(app).get(`/api/attachments/${body.attachmentId}/check`).expect(200)).body).toMatchObject({
      same: false,
    });
  });
  test.each([
    ['# MHz S RI R 50\n1 2', 422, 'SWEEP_FILE'],
    [Buffer.from([1, 0, 2]), 400, 'REQUEST'],
    [Buffer.alloc(16_000_001, 32), 413, 'FILE_TOO_LARGE'],
  ])('a bad file is refused and leaves nothing (%#)', async (content, status, code) => {
    const station = await newStation();
    expect((await upload(station, content).expect(status)).body).toMatchObject({ code });
    expect((await load(station)).attachments).toEqual([]);
  });
  test('a picture is laid under the plan with its bytes, and one undo takes it back; a text is refused', async () => {
    const station = await newStation();
    const lay = (bytes: Buffer) =>
      request(app).post(`/api/stations/${station}/pictures`).attach('file', bytes, { filename: 'aerial.png' });
    expect((await lay(Buffer.from('no picture')).expect(400)).body).toMatchObject({
      code: 'REQUEST',
      message: expect.stringMatching(/not a PNG or JPEG/),
    });
    expect((await load(station)).plotFeatures).toEqual([]);
    const png = Buffer.from([0x89, 0x50, 0x4e, 0x47, 1, 2, 3]);
    const reply: { body: { attachmentId: number } } = await lay(png).expect(201);
    expect(reply.body).toMatchObject({ kind: 'picture', points: [[0, 0]], widthM: 60 });
    const bytes = await request(app).get(`/api/attachments/${reply.body.attachmentId}/bytes`).expect(200);
    expect(bytes.headers['content-type']).toMatch(/image\/png/);
    await request(app).post(`/api/stations/${station}/undo`).send({}).expect(200);
    const after = await load(station);
    expect([after.plotFeatures, after.attachments, after.entries]).toEqual([[], [], []]);
  });
  test('no file at all, and an antenna that is gone', async () => {
    const station = await newStation();
    await request(app).post(`/api/stations/${station}/sweeps`).field('antennaId', '1').expect(400);
    await upload(station, SWEEP).field('antennaId', '99999').expect(404);
    expect((await load(station)).sweeps).toEqual([]);
  });
});

describe('edges', () => {
  test('foreign hosts and origins are refused, our own pass', async () => {
    await request(app).get('/api/health').set('Host', 'evil.test').expect(403);
    await request(app).get('/api/health').set('Host', '127.0.0.1:4600').set('Origin', 'http://evil.test').expect(403);
    await request(app).get('/api/health').set('Host', '127.0.0.1:4600').set('Origin', 'null').expect(403);
    await request(app).get('/api/health').set('Host', '127.0.0.1:4600').set('Origin', 'not a url').expect(403);
    await request(app)
      .get('/api/health')
      .set('Host', '127.0.0.1:4600')
      .set('Origin', 'http://127.0.0.1:4600')
      .expect(200, { ok: true });
  });
  test('a strict policy, and no script from elsewhere', async () => {
    const { headers } = await request(app).get('/api/health').expect(200);
    expect(headers['content-security-policy']).toMatch(/default-src 'self';script-src 'self' 'wasm-unsafe-eval'/);
    expect(headers['x-powered-by']).toBeUndefined();
  });
  test('wrong addresses, wrong JSON and oversized bodies get a code and a sentence', async () => {
    expect((await request(app).get('/api/nowhere').expect(404)).body).toMatchObject({ code: 'NO_SUCH_ADDRESS' });
    expect((await request(app).get('/api/stations/abc').expect(404)).body).toMatchObject({ code: 'NO_SUCH_ADDRESS' });
    expect(
      (await request(app).post('/api/stations').set('content-type', 'application/json').send('{').expect(400)).body,
    ).toMatchObject({ code: 'JSON' });
    expect(
      (
        await request(app)
          .post('/api/stations')
          .send({ name: 'x'.repeat(2e6) })
          .expect(413)
      ).body,
    ).toMatchObject({ code: 'TOO_LARGE' });
    expect((await request(app).post('/api/stations').expect(400)).body).toMatchObject({ code: 'REQUEST' });
  });
  test('the demo is loaded into an empty database only', async () => {
    expect(await loadDemo(db)).toBe(false);
    const fresh = openDatabase(path.join(dir, 'fresh.sqlite'));
    await migrator(fresh.sequelize).up();
    expect(await loadDemo(fresh)).toBe(true);
    expect(await loadDemo(fresh)).toBe(false);
    expect(await fresh.tables.sweeps.count()).toBe(3);
    await fresh.sequelize.close();
  });
});

test('a request that was meant for the stations of another file, and bytes that are not those of the checksum, are refused', async () => {
  const id = String((await request(app).get('/api/stations').expect(200)).get('x-data-file'));
  expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
  const before: { body: unknown[] } = await request(app).get('/api/stations').set('X-Data-File', id).expect(200);
  const refused = await request(app).post('/api/stations').set('X-Data-File', 'of another folder').send(STATION);
  expect(refused.status).toBe(409);
  expect(refused.body).toMatchObject({ code: 'OTHER_FILE' });
  const after: { body: unknown[] } = await request(app).get('/api/stations').expect(200);
  expect(after.body).toHaveLength(before.body.length);
  const station = await newStation();
  await request(app).post(`/api/stations/${station}/sweeps`).attach('file', Buffer.from(SWEEP), 'a.s1p').expect(201);
  const reply: { body: { attachments: { id: number; sha256: string }[] } } = await request(app).get(
    `/api/stations/${station}`,
  );
  const [{ id: file, sha256 }] = reply.body.attachments;
  await request(app).get(`/api/attachments/${file}/bytes?sum=${sha256}`).expect(200);
  await request(app)
    .get(`/api/attachments/${file}/bytes?sum=${'0'.repeat(64)}`)
    .expect(409);
});
