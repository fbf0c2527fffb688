import {
  chmodSync,
  cpSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import sqlite3 from 'sqlite3';
import { applyChanges } from './changes';
import { DataFileError, openDataFolder } from './data-file';
import { openDatabase } from './database';
import { loadDemo } from './demo/load';
import { MIGRATION_NAMES, migrator } from './migrate';
import { createStation } from './records';
import { stationRecords } from './station-answer';
import { fileState, HUT, killNow, logSize, startServer, stopServer } from './test-server';

const made: string[] = [];
const folder = (): string => {
  const dir = mkdtempSync(path.join(tmpdir(), 'velvet-reed-file-'));
  made.push(dir);
  return dir;
};
afterAll(() => made.forEach((dir) => rmSync(dir, { recursive: true, force: true })));
const author = (n: number) => ({ key: `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`, device: '' });
const MiB = 2 ** 20;

/** A file as the release that ended with a migration wrote it, with some antennas. */
async function released(file: string, to: string, antennas = 3): Promise<void> {
  const db = openDatabase(file);
  await migrator(db.sequelize).up({ to });
  const stamp = "'2026-03-10 10:00:00.000 +00:00'";
  await db.sequelize
    .query(`INSERT INTO stations (id, version, createdAt, updatedAt, name, latDeg, lonDeg, environment, noiseOffsetDb, spanM, heightM, cableId, lineLengthM)
    VALUES (1, 1, ${stamp}, ${stamp}, 'Hut', 50, -19, 'rural', 0, 38, 9, 'pe5', 40)`);
  for (let i = 1; i <= antennas; i += 1) {
    await db.sequelize.query(
      `INSERT INTO antennas (id, stationId, version, createdAt, updatedAt, name) VALUES (${i}, 1, 1, ${stamp}, ${stamp}, 'Wire ${i}')`,
    );
    await db.sequelize.query(`INSERT INTO edits (stationId, batch, resource, recordId, op, "before", "after", createdAt)
      VALUES (1, 'b${i}', 'stations', 1, 'update', '{"name":"Hut ${i}","latDeg":50}', '{"name":"Hut"}', ${stamp})`);
  }
  await db.sequelize.close();
}

describe('a file that cannot be used is refused with its name, the fault and the way out, and stays as it is', () => {
  const refusal = async (dir: string): Promise<string> => {
    try {
      await (await openDataFolder(dir)).close();
      return 'opened';
    } catch (error) {
      expect(error).toBeInstanceOf(DataFileError);
      return error instanceof Error ? error.message : '';
    }
  };
  const template = folder();
  beforeAll(async () => {
    const opened = await openDataFolder(template);
    await loadDemo(opened.db);
    await opened.close();
  });
  const whole = (): { dir: string; file: string } => {
    const dir = folder();
    cpSync(template, dir, { recursive: true });
    return { dir, file: path.join(dir, 'velvet-reed.sqlite') };
  };
  test.each<[string, (file: string) => void, RegExp]>([
    [
      'garbage',
      (file) => writeFileSync(file, 'not a database at all, but long enough to look at'),
      /is not a database/,
    ],
    ['cut in the middle', (file) => truncateSync(file, statSync(file).size / 2), /is damaged/],
    [
      'overwritten in the middle',
      (file) => {
        const bytes = readFileSync(file);
        bytes.fill(0x5a, 8192, bytes.length - 8192);
        writeFileSync(file, bytes);
      },
      /is damaged/,
    ],
    ['read-only', (file) => chmodSync(file, 0o444), /read-only/],
  ])('%s', async (_, spoil, sentence) => {
    const { dir, file } = whole();
    spoil(file);
    const before = fileState(file);
    const said = await refusal(dir);
    expect(said).toContain(file);
    expect(said).toMatch(sentence);
    expect(said).toMatch(/Nothing was changed\..*(copy|Allow)/);
    expect(fileState(file)).toBe(before);
    expect(readdirSync(dir).filter((name) => name.endsWith('.part'))).toEqual([]);
  });
  test('one of another program', async () => {
    const dir = folder();
    const file = path.join(dir, 'velvet-reed.sqlite');
    const db = openDatabase(file);
    await db.sequelize.query('CREATE TABLE recipes (name TEXT)');
    await db.sequelize.close();
    expect(await refusal(dir)).toMatch(/belongs to another program/);
  });
  test('one of a newer release: neither read nor written', async () => {
    const { dir, file } = whole();
    const db = openDatabase(file);
    await db.sequelize.query("INSERT INTO migrations (name) VALUES ('0099-of-the-future')");
    await db.sequelize.close();
    const before = fileState(file);
    expect(await refusal(dir)).toMatch(/newer release \(it knows "0099-of-the-future".*Nothing was changed/);
    expect(fileState(file)).toBe(before);
  });
  test('one that another program holds', async () => {
    const { dir, file } = whole();
    const holder = new sqlite3.Database(file);
    await new Promise((done) => holder.exec('PRAGMA locking_mode=EXCLUSIVE; BEGIN EXCLUSIVE;', done));
    expect(await refusal(dir)).toMatch(/locked by another program/);
    await new Promise((done) => holder.close(done));
    expect(await refusal(dir)).toBe('opened');
  }, 30_000);
  test('the real server says it in one sentence and leaves with 1; two of them do not share a folder', async () => {
    const { dir, file } = whole();
    const first = startServer(['--empty', '--data', dir]);
    await first.address;
    const second = startServer(['--empty', '--data', dir]);
    expect(await second.ended).toBe(1);
    expect(second.said()).toMatch(/^Velvet Reed: Another Velvet Reed already uses /);
    expect(await stopServer(first)).toBe(0);
    writeFileSync(file, 'garbage garbage garbage');
    const third = startServer(['--data', dir]);
    expect(await third.ended).toBe(1);
    expect(third.said().trim().split('\n')).toHaveLength(1);
    expect(third.said()).not.toMatch(/ at .*\.ts|SQLITE/);
  }, 60_000);
});

describe('upgrades', () => {
  test('a copy is kept once before the first new step, with what the file held; the file is for its owner only', async () => {
    const dir = folder();
    const file = path.join(dir, 'velvet-reed.sqlite');
    await released(file, MIGRATION_NAMES[2]);
    const opened = await openDataFolder(dir);
    const [copy, ...more] = opened.copies();
    expect(more).toEqual([]);
    expect(path.basename(copy.file)).toMatch(/^velvet-reed-before-0004-/);
    await opened.close();
    const old = openDatabase(copy.file);
    const [rows] = await old.sequelize.query('SELECT name FROM migrations');
    expect(rows).toHaveLength(3);
    const [antennas] = await old.sequelize.query('SELECT name FROM antennas');
    expect(antennas).toHaveLength(3);
    await old.sequelize.close();
    for (const one of [file, copy.file, path.join(dir, 'velvet-reed.lock')]) expect(statSync(one).mode & 0o077).toBe(0);
    const again = await openDataFolder(dir);
    expect(again.copies()).toHaveLength(1);
    await again.close();
  });
  test('a step that runs out of disk leaves the file at the step before, and the next start finishes', async () => {
    const outcomes: string[] = [];
    // every sixth release: more would take minutes
    for (const to of MIGRATION_NAMES.slice(0, -1).filter((_, i) => i % 6 === 0)) {
      const file = path.join(folder(), 'velvet-reed.sqlite');
      await released(file, to, 40);
      const db = openDatabase(file);
      // a full disk, as SQLite sees it: no page more than there are
      const full = openDatabase(file, { mostPages: Math.ceil(statSync(file).size / 4096) });
      outcomes.push(
        await migrator(full.sequelize)
          .up()
          .then(
            () => 'done',
            (error: unknown) => String(error),
          ),
      );
      await full.sequelize.close();
      const [list] = await db.sequelize.query('SELECT name FROM migrations ORDER BY name');
      const done = list.map((row) => (typeof row === 'object' && row !== null && 'name' in row ? row.name : ''));
      expect(done).toEqual(MIGRATION_NAMES.slice(0, done.length));
      await migrator(db.sequelize).up();
      expect((await stationRecords(db, 1)).antennas).toHaveLength(40);
      await db.sequelize.close();
    }
    // a step that gives pages back may find room in the pages there are; from an early release none gets through
    expect(outcomes.filter((one) => !/full/.test(one) && one !== 'done')).toEqual([]);
    expect(outcomes.filter((one) => /full/.test(one)).length).toBeGreaterThanOrEqual(3);
  }, 60_000);
  // one kill for every sixth release, each at another place; `npm run bench -- crash` kills many times over
  test.each(MIGRATION_NAMES.slice(0, -1).flatMap((to, i) => (i % 6 === 0 ? [[to, i / 6] as const] : [])))(
    'a file that %s ended is upgraded although the process is killed on the way',
    async (to, place) => {
      const dir = folder();
      const file = path.join(dir, 'velvet-reed.sqlite');
      await released(file, to, 30);
      const server = startServer(['--empty', '--data', dir]);
      const limit = ((place % 4) + 1) * 30_000;
      const seen = setInterval(() => logSize(file) > limit && server.child.kill('SIGKILL'), 1);
      await Promise.race([server.address, server.ended]).catch(() => undefined);
      clearInterval(seen);
      await killNow(server);
      const opened = await openDataFolder(dir);
      const data = await stationRecords(opened.db, 1);
      expect(data.antennas).toHaveLength(30);
      expect(data.station).toMatchObject({ name: 'Hut', adapterBox: '', groundId: 'average' });
      await opened.close();
    },
    60_000,
  );
  test('a file that an earlier release left half-way between two steps is finished', async () => {
    for (const statements of [
      ['ALTER TABLE pathStages ADD COLUMN partId INTEGER REFERENCES parts(id)'],
      ['CREATE TABLE parts (id INTEGER PRIMARY KEY)', 'DROP TABLE parts'],
    ]) {
      const dir = folder();
      const file = path.join(dir, 'velvet-reed.sqlite');
      await released(file, MIGRATION_NAMES[3]);
      const db = openDatabase(file);
      for (const statement of statements) await db.sequelize.query(statement);
      await db.sequelize.close();
      const opened = await openDataFolder(dir);
      expect((await stationRecords(opened.db, 1)).antennas).toHaveLength(3);
      await opened.close();
    }
    // the second release moved dimensions column by column: values must not be lost whichever is already gone
    const dir = folder();
    const file = path.join(dir, 'velvet-reed.sqlite');
    await released(file, MIGRATION_NAMES[0]);
    const db = openDatabase(file);
    const stamp = "'2026-03-10 10:00:00.000 +00:00'";
    await db.sequelize
      .query(`INSERT INTO revisions (id, stationId, version, createdAt, updatedAt, antennaId, number, kind, freqHz, diameterM, angleDeg, radials, droopDeg, loopDiameterM, insulated, allowance, gates, done)
      VALUES (1, 1, 1, ${stamp}, ${stamp}, 1, 1, 'v-dipole', 9650000, 0.002, 110, 4, 45, 1, 0, 0.03, '[]', '[]')`);
    await db.sequelize.query("ALTER TABLE stations ADD COLUMN groundId TEXT NOT NULL DEFAULT 'average'");
    await db.sequelize.query("ALTER TABLE revisions ADD COLUMN dimensions JSON NOT NULL DEFAULT '{}'");
    await db.sequelize.query("UPDATE revisions SET dimensions = json_object('angleDeg', angleDeg, 'radials', radials)");
    await db.sequelize.query('ALTER TABLE revisions DROP COLUMN angleDeg');
    await db.sequelize.close();
    const opened = await openDataFolder(dir);
    expect((await stationRecords(opened.db, 1)).revisions).toMatchObject([
      { dimensions: { angleDeg: 110, radials: 4 } },
    ]);
    await opened.close();
  });
});

test('a process killed while the demo is loaded leaves nothing of it or all of it, and the next start has it whole', async () => {
  const dir = folder();
  const file = path.join(dir, 'velvet-reed.sqlite');
  for (let kill = 0; kill < 3; kill += 1) {
    const server = startServer(['--data', dir]);
    const limit = 200_000 + kill * 80_000;
    const seen = setInterval(() => logSize(file) > limit && server.child.kill('SIGKILL'), 1);
    await Promise.race([server.address, server.ended]).catch(() => undefined);
    clearInterval(seen);
    await killNow(server);
    const opened = await openDataFolder(dir);
    const stations = await opened.db.stations.count();
    if (stations > 0) {
      const data = await stationRecords(opened.db, 1);
      expect(data.sweeps).toHaveLength(3);
      expect(data).toHaveProperty('targets.5');
    } else expect(await opened.db.tables.targets.count()).toBe(0);
    await opened.close();
  }
  const last = startServer(['--data', dir]);
  await last.address;
  expect(await stopServer(last)).toBe(0);
  const opened = await openDataFolder(dir);
  expect((await stationRecords(opened.db, 1)).sweeps).toHaveLength(3);
  await opened.close();
}, 120_000);

test('a disk that runs full while saving: the batch is refused whole, what was saved before stays', async () => {
  const dir = folder();
  const opened = await openDataFolder(dir);
  await createStation(opened.db, HUT, author(1));
  await opened.close();
  const file = path.join(dir, 'velvet-reed.sqlite');
  const db = openDatabase(file, { mostPages: Math.ceil(statSync(file).size / 4096) + 20 });
  let saved = 0;
  const fill = async (): Promise<void> => {
    for (let i = 2; i < 400; i += 1) {
      const values = { step: 'notebook', text: 'x'.repeat(5000), atMs: i };
      await applyChanges(db, 1, { changes: [{ op: 'create', resource: 'entries', values }], author: author(i) });
      saved += 1;
    }
  };
  await expect(fill()).rejects.toThrow(/full/);
  expect(saved).toBeGreaterThan(2);
  expect((await stationRecords(db, 1)).entries).toHaveLength(saved);
  await db.sequelize.close();
  expect(statSync(file).size).toBeLessThan(MiB * 4);
  expect(existsSync(file)).toBe(true);
});
