import { randomUUID } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { pino } from 'pino';
import request from 'supertest';
import { createApp } from './app';
import { openDatabase, type Database } from './database';
import { mendReferences } from './mend';
import { migrator } from './migrate';
import { HUT } from './test-server';

let db: Database;
let app: ReturnType<typeof createApp>;
let address: string;
beforeAll(async () => {
  db = openDatabase(path.join(mkdtempSync(path.join(tmpdir(), 'reed-search-')), 'stations.sqlite'));
  await migrator(db.sequelize).up();
  app = createApp({ db, logger: pino({ level: 'silent' }), allowedHosts: ['127.0.0.1'] });
  const made: { body: { id: number } } = await request(app).post('/api/stations').send(HUT).expect(201);
  address = `/api/stations/${made.body.id}`;
});
afterAll(() => db.sequelize.close());
const change = (...changes: object[]) => request(app).post(`${address}/changes`).send({ changes });
const entry = (text: string) => ({ op: 'create', resource: 'entries', values: { step: 'notebook', text, atMs: 1 } });
const target = (name: string, as: string) => ({
  ...{ op: 'create', resource: 'targets', as },
  values: { name, lowHz: 9.4e6, highHz: 9.65e6, bandwidthHz: 5000, weight: 5 },
});
type Found = { resource: string; id: number; snippet: string };
const search = async (text: string): Promise<Found[]> => {
  const reply: { body: Found[] } = await request(app).get(`${address}/search`).query({ q: text }).expect(200);
  return reply.body;
};
const now = async (): Promise<Record<string, { id: number; version: number; targetId?: number | null }[]>> => {
  const reply: { body: Record<string, { id: number; version: number; targetId?: number | null }[]> } = await request(
    app,
  )
    .get(address)
    .expect(200);
  return reply.body;
};

describe('search', () => {
  test('words and numbers in any record, accents or not, the last word half; never behind what was saved', async () => {
    await change(
      entry('The charger hums at 9.65 MHz'),
      target('31 m broadcast', 't'),
      entry('Réception à Bréhat'),
    ).expect(200);
    expect((await search('charger')).map(({ resource }) => resource)).toEqual(['entries']);
    expect((await search('9.65 MHz')).map(({ resource }) => resource).sort()).toEqual(['entries', 'targets']);
    expect((await search('brehat'))[0].snippet).toContain('«Bréhat»');
    expect(await search('charg')).toHaveLength(1);
    expect(await search('charger broadcast')).toEqual([]);
    await change(entry('a second charger')).expect(200);
    expect(await search('charger')).toHaveLength(2);
  });
  test('what the index has a meaning for is only words here', async () => {
    for (const odd of [
      '"',
      'NOT',
      'a" OR text:*',
      '* ( ) ^ : -',
      'NEAR(a b)',
      "'; DROP TABLE entries; --",
      '',
      '   ',
      'ω'.repeat(500),
    ])
      expect(Array.isArray(await search(odd))).toBe(true);
    expect((await now()).entries.length).toBeGreaterThan(0);
  });
});

describe('bin', () => {
  const bin = async (): Promise<{ batch: string; what: string; along: string[] }[]> => {
    const reply: { body: { batch: string; what: string; along: string[] }[] } = await request(app)
      .get(`${address}/bin`)
      .expect(200);
    return reply.body;
  };
  test('a record comes back with its parts and with what had let go of it, by any device; then the bin is emptied', async () => {
    await change(target('49 m', 'goal'), {
      op: 'create',
      resource: 'antennas',
      as: 'wire',
      values: { name: 'Wire', targetId: { new: 'goal' } },
    }).expect(200);
    const before = await now();
    const [antenna] = before.antennas;
    expect(antenna).toBeDefined();
    const goal = before.targets.at(-1);
    // deleted from another device, with what means nothing without it
    await request(app)
      .post(`${address}/changes`)
      .send({
        device: '01234567-89ab-4def-8123-456789abcdef',
        changes: [{ op: 'delete', resource: 'targets', id: goal?.id, version: goal?.version, along: true }],
      })
      .expect(200);
    expect((await now()).antennas[0].targetId).toBeNull();
    const [first] = await bin();
    expect(first.what).toBe('target 49 m');
    await request(app).post(`${address}/bin/back`).send({ batch: first.batch }).expect(200);
    const after = await now();
    expect(after.targets.at(-1)?.id).toBe(goal?.id);
    expect(after.antennas[0].targetId).toBe(goal?.id);
    expect(await bin()).toEqual([]);
    // emptied: gone for good, and the rest stays
    const [entryRow] = after.entries;
    await change({ op: 'delete', resource: 'entries', id: entryRow.id, version: entryRow.version, along: true }).expect(
      200,
    );
    expect(await bin()).toHaveLength(1);
    const emptied: { body: { records: number } } = await request(app).post(`${address}/bin/empty`).send({}).expect(200);
    expect(emptied.body.records).toBe(1);
    expect(await bin()).toEqual([]);
    expect(await db.tables.entries.count({ where: { id: entryRow.id }, paranoid: false })).toBe(0);
    expect((await now()).targets).toHaveLength(after.targets.length);
    await request(app).post(`${address}/bin/back`).send({ batch: first.batch }).expect(404);
  });
});

describe('what points at something that is not there', () => {
  const trimStep = (antennaId: number | { new: string }) => ({
    ...{ op: 'create', resource: 'trimSteps' },
    values: { antennaId, lengthM: 20.1, freqHz: 7.02e6 },
  });
  const antenna = (name: string, as: string) => ({
    ...{ op: 'create', resource: 'antennas', as, values: { name, targetId: null } },
  });
  const gone = async (resource: string, id: number, version: number): Promise<string> => {
    const key = randomUUID();
    await request(app)
      .post(`${address}/changes`)
      .send({ key, changes: [{ op: 'delete', resource, id, version }] })
      .expect(200);
    return key;
  };
  const undoBatch = (batch: string) => request(app).post(`${address}/undo`).send({ batch });
  test('undo left a trim step at a deleted antenna: it is refused, naming what must come back first', async () => {
    await change(antenna('Wire', 'a'), trimStep({ new: 'a' })).expect(200);
    const { antennas, trimSteps } = await now();
    const [step, whole] = [trimSteps.at(-1), antennas.at(-1)];
    if (!step || !whole) throw new Error('nothing was made');
    const first = await gone('trimSteps', step.id, step.version);
    const second = await gone('antennas', whole.id, whole.version);
    const refused: { body: { message: string } } = await undoBatch(first).expect(409);
    expect(refused.body.message).toMatch(/trim step belongs to something that is in the bin itself \(antenna\)/);
    await undoBatch(second).expect(200);
    await undoBatch(first).expect(200);
    expect((await now()).trimSteps.map(({ id }) => id)).toContain(step.id);
  });
  test('a COMMIT that fails left every later write waiting: it is rolled back, and the next one works at once', async () => {
    await change(antenna('Gone', 'a'), trimStep({ new: 'a' })).expect(200);
    const { antennas } = await now();
    const whole = antennas.at(-1);
    if (!whole) throw new Error('nothing was made');
    // as a release before could leave it: the antenna is in the bin, its step is not
    await db.sequelize.query(`UPDATE antennas SET deletedAt = '2026-01-01' WHERE id = ${whole.id}`);
    const kept = (await now()).entries.length;
    await request(app).post(`${address}/bin/empty`).send({}).expect(500);
    const began = Date.now();
    await change(entry('after the failure')).expect(200);
    expect(Date.now() - began).toBeLessThan(5000);
    expect((await now()).entries).toHaveLength(kept + 1);
  });
  test('at the start it is mended and told in the diary; then the bin can be emptied, and nothing is left to mend', async () => {
    await change(antenna('Kept', 'a'), target('T', 't')).expect(200);
    const { antennas, targets } = await now();
    const [kept, wanted] = [antennas.at(-1), targets.at(-1)];
    await db.sequelize.query(`UPDATE antennas SET targetId = ${wanted?.id} WHERE id = ${kept?.id}`);
    await db.sequelize.query(`UPDATE targets SET deletedAt = '2026-01-01' WHERE id = ${wanted?.id}`);
    const told = await mendReferences(db);
    expect(told).toEqual([
      expect.stringMatching(/^1 antenna whose target is not there: kept\.$/),
      expect.stringMatching(/^1 trim step whose antenna is not there: moved to the bin\.$/),
    ]);
    expect((await now()).antennas.find(({ id }) => id === kept?.id)?.targetId).toBeNull();
    expect(await search('Mended at the start')).toHaveLength(1);
    expect(await mendReferences(db)).toEqual([]);
    await request(app).post(`${address}/bin/empty`).send({}).expect(200);
  });
  test('undo of a change that took a record away from what is gone for good is refused by name, not by the database (found by sequence 33057)', async () => {
    await change(target('to be gone for good', 'g')).expect(200);
    const goal = (await now()).targets.at(-1);
    const [antenna] = (await now()).antennas;
    const point = await change({
      ...{ op: 'update', resource: 'antennas', id: antenna.id, version: antenna.version },
      values: { targetId: goal?.id },
    });
    expect(point.status).toBe(200);
    const key = randomUUID();
    const moved = { op: 'update', resource: 'antennas', id: antenna.id, version: antenna.version + 1 };
    await request(app)
      .post(`${address}/changes`)
      .send({ changes: [{ ...moved, values: { targetId: null } }], key })
      .expect(200);
    await gone('targets', goal?.id ?? 0, goal?.version ?? 1);
    await request(app).post(`${address}/bin/empty`).send({}).expect(200);
    const refused: { body: { message: string } } = await request(app)
      .post(`${address}/undo`)
      .send({ batch: key })
      .expect(409);
    expect(refused.body.message).toContain('thrown away for good (target)');
  });
  test('"for good" left the words in the history: they are gone from it', async () => {
    const secret = 'a word that shall go for good';
    await change(entry(secret)).expect(200);
    const found = await search('shall go for good');
    await change({
      op: 'update',
      resource: 'entries',
      id: found[0].id,
      version: 1,
      values: { text: `${secret}, too` },
    }).expect(200);
    await gone('entries', found[0].id, 2);
    await request(app).post(`${address}/bin/empty`).send({}).expect(200);
    const [rows] = await db.sequelize.query(
      `SELECT COUNT(*) AS n FROM edits WHERE "before" LIKE '%shall go for good%' OR "after" LIKE '%shall go for good%'`,
    );
    expect(rows).toEqual([{ n: 0 }]);
    expect(await search('shall go for good')).toEqual([]);
  });
});
