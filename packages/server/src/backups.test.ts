import { mkdtempSync, readdirSync, renameSync, rmSync, statSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { pino } from 'pino';
import request from 'supertest';
import { createApp } from './app';
import { type Backups, openBackups } from './backups';
import { openDatabase, type Database } from './database';
import { migrator } from './migrate';
import { HUT } from './test-server';

let dir: string;
let db: Database;
let backups: Backups;
let app: ReturnType<typeof createApp>;
beforeEach(async () => {
  dir = mkdtempSync(path.join(tmpdir(), 'reed-backup-'));
  const file = path.join(dir, 'velvet-reed.sqlite');
  db = openDatabase(file);
  await migrator(db.sequelize).up();
  backups = openBackups(db, file);
  app = createApp({ db, logger: pino({ level: 'silent' }), allowedHosts: ['127.0.0.1'], backups });
});
afterEach(async () => {
  backups.close();
  await db.sequelize.close();
  rmSync(dir, { recursive: true, force: true });
});
const station = (name: string) =>
  request(app)
    .post('/api/stations')
    .send({ ...HUT, name })
    .expect(201);
const names = async (): Promise<string[]> => {
  const reply: { body: { name: string }[] } = await request(app).get('/api/stations').expect(200);
  return reply.body.map(({ name }) => name);
};

test('a backup made while the server runs, what came after, and one press back; what was there meanwhile is a backup too', async () => {
  await station('before');
  const note = { op: 'create', resource: 'entries', values: { step: 'notebook', text: 'kept', atMs: 1 } };
  await request(app)
    .post('/api/stations/1/changes')
    .send({ changes: [note] })
    .expect(200);
  const made: { body: { name: string } } = await request(app).post('/api/backups').expect(201);
  await station('after');
  await request(app)
    .post('/api/stations/1/changes')
    .send({ changes: [{ ...note, values: { ...note.values, text: 'later' } }] })
    .expect(200);
  await request(app).post('/api/backups/restore').send({ name: made.body.name }).expect(200);
  expect(await names()).toEqual(['before']);
  const texts = (await db.tables.entries.findAll()).map((row) => row.get('text'));
  expect(texts).toEqual(['kept']);
  // and back again to what was there before that
  const meanwhile = backups.list().find(({ kind }) => kind === 'before');
  await backups.restore(meanwhile?.name ?? '');
  expect(await names()).toEqual(['before', 'after']);
  expect((await db.tables.entries.findAll()).map((row) => row.get('text'))).toEqual(['kept', 'later']);
  expect(await backups.check()).toMatchObject({ faults: [] });
});

test('the last seven are kept, halves of an ended process go, nobody else may read them', async () => {
  await station('one');
  for (let i = 0; i < 9; i += 1) await backups.make('daily');
  expect(backups.list().filter(({ kind }) => kind === 'daily')).toHaveLength(7);
  writeFileSync(path.join(backups.folder, 'velvet-reed-daily-x.sqlite.part'), 'half');
  await backups.make('asked');
  expect(readdirSync(backups.folder).filter((name) => name.endsWith('.part'))).toEqual([]);
  expect(statSync(path.join(backups.folder, backups.list()[0].name)).mode & 0o077).toBe(0);
  expect(statSync(backups.folder).mode & 0o077).toBe(0);
});

test('a damaged backup changes nothing; a name that leaves the folder is none', async () => {
  await station('mine');
  const { name } = await backups.make('asked');
  truncateSync(path.join(backups.folder, name), 20_000);
  await expect(backups.restore(name)).rejects.toThrow();
  expect(await names()).toEqual(['mine']);
  for (const bad of ['../velvet-reed.sqlite', '/etc/passwd', '', 'velvet-reed-asked-x.sqlite'])
    await request(app).post('/api/backups/restore').send({ name: bad }).expect(404);
  expect(await names()).toEqual(['mine']);
});

test('the daily one is made when it is due, once', async () => {
  await station('one');
  backups.schedule();
  await new Promise((resolve) => setTimeout(resolve, 400));
  expect(backups.list().map(({ kind }) => kind)).toEqual(['daily']);
  backups.close();
  backups.schedule();
  await new Promise((resolve) => setTimeout(resolve, 200));
  expect(backups.list()).toHaveLength(1);
});

test('restoring the oldest of seven deleted it and answered 500: it is put back, and is still there', async () => {
  await station('first');
  const oldest = await backups.make('before');
  for (let i = 0; i < 6; i += 1) await backups.make('before');
  await station('second');
  await request(app).post('/api/backups/restore').send({ name: oldest.name }).expect(200);
  expect(await names()).toEqual(['first']);
  expect(backups.list().some(({ name }) => name === oldest.name)).toBe(true);
});

test('seven backups dated in the future stopped the dailies and answered 404: one is made, kept and found', async () => {
  await station('here');
  const made = await backups.make('daily');
  for (let i = 1; i <= 7; i += 1)
    renameSync(
      path.join(backups.folder, (await backups.make('daily')).name),
      path.join(backups.folder, `velvet-reed-daily-2099-01-0${i}T00-00-00-000.sqlite`),
    );
  rmSync(path.join(backups.folder, made.name), { force: true });
  await backups.makeDue();
  expect(backups.fault()).toBeUndefined();
  const today = backups.list().filter(({ madeMs }) => madeMs <= Date.now());
  expect(today).toHaveLength(1);
  await request(app).post('/api/backups').expect(201);
  // those of the wrong clock pushed out yesterday's each day
  for (let i = 0; i < 3; i += 1) await backups.make('daily');
  expect(backups.list().filter(({ kind, madeMs }) => kind === 'daily' && madeMs <= Date.now())).toHaveLength(4);
  // made just now, it is not made again
  await backups.makeDue();
  expect(backups.list().filter(({ kind, madeMs }) => kind === 'daily' && madeMs <= Date.now())).toHaveLength(4);
});

test('a change that was begun on a version that a restore took away is a conflict, not taken', async () => {
  const made: { body: { id: number } } = await station('here');
  const address = `/api/stations/${made.body.id}`;
  const entry = { op: 'create', resource: 'entries', values: { step: 'notebook', text: 'as it was', atMs: 1 } };
  await request(app)
    .post(`${address}/changes`)
    .send({ changes: [entry] })
    .expect(200);
  const kept = await backups.make('asked');
  const change = (version: number, text: string) =>
    request(app)
      .post(`${address}/changes`)
      .send({ changes: [{ op: 'update', resource: 'entries', id: 1, version, values: { text } }] });
  await change(1, 'changed').expect(200);
  await request(app).post('/api/backups/restore').send({ name: kept.name }).expect(200);
  await change(1, 'begun before').expect(409);
  await change(2, 'begun after the change').expect(409);
  const now: { body: { entries: { version: number; text: string }[] } } = await request(app).get(address).expect(200);
  expect(now.body.entries[0].text).toBe('as it was');
  await change(now.body.entries[0].version, 'goes on').expect(200);
});
