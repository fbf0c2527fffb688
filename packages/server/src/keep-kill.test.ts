import { randomUUID } from 'node:crypto';
import { mkdirSync, mkdtempSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { openBackups } from './backups';
import { applyChanges } from './changes';
import { openDatabase, type Database } from './database';
import { migrator } from './migrate';
import { createStation } from './records';
import { stationRecords } from './station-answer';
import { madeUpStation } from './station-file/made-up-station';
import { readStationFile } from './station-file/read';
import { takeAsNew, takeBeside } from './station-file/take';
import { stationContents, writeStationFile } from './station-file/write';
import { HUT, killNow, startServer, stopServer, type ServerProcess } from './test-server';

/** Entries that a station gets, so that what is moved takes a while. */
const MANY = 400;

let dir: string;
let file: Uint8Array<ArrayBuffer>;
/** The real server, started anew after each kill. */
let server: ServerProcess | undefined;
const author = () => ({ key: randomUUID(), device: '' });
const saved = (db: Database, id: number) =>
  db.read((transaction) => stationContents(db, transaction, id)).then(writeStationFile);

beforeAll(async () => {
  dir = mkdtempSync(path.join(tmpdir(), 'velvet-reed-keep-'));
  const db = openDatabase(path.join(dir, 'source.sqlite'));
  await migrator(db.sequelize).up();
  const id = await madeUpStation(db, 3);
  const changes = Array.from({ length: MANY }, (_, i) => ({
    ...{ op: 'create' as const, resource: 'entries' as const },
    values: { step: 'notebook', text: `line ${i} ${'x'.repeat(400)}`, atMs: i },
  }));
  await applyChanges(db, id, { changes, author: author() });
  file = Uint8Array.from(await saved(db, id));
  await db.sequelize.close();
}, 60_000);
afterAll(async () => {
  if (server) await killNow(server);
  rmSync(dir, { recursive: true, force: true });
});

interface Listed {
  readonly id: number;
  readonly name: string;
}
const json = async (address: string, method = 'GET', body?: unknown): Promise<unknown> => {
  const init =
    body === undefined
      ? { method }
      : { method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) };
  return (await fetch(address, init)).json();
};
const isListed = (value: unknown): value is Listed => typeof value === 'object' && value !== null && 'name' in value;
const listOf = (value: unknown): readonly Listed[] => (Array.isArray(value) ? value.filter(isListed) : []);
const entriesOf = (value: unknown): number => {
  const list = typeof value === 'object' && value !== null && 'entries' in value ? value.entries : undefined;
  return Array.isArray(list) ? list.length : -1;
};
const take = (address: string): Promise<Response> => {
  const form = new FormData();
  form.append('how', 'new');
  form.append('file', new Blob([file]), 'x.station.zip');
  return fetch(`${address}/api/station-files/take`, { method: 'POST', body: form });
};

describe('killed in the middle', () => {
  test('export, import, backup and restore: what was there before or all of what comes after, nothing between; the next start is sound', async () => {
    const data = path.join(dir, 'killed');
    server = startServer(['--empty', '--data', data]);
    let address = await server.address;
    await json(`${address}/api/stations`, 'POST', { ...HUT, name: 'Kept' });
    await take(address);
    const [, taken] = listOf(await json(`${address}/api/stations`));
    const whole = entriesOf(await json(`${address}/api/stations/${taken.id}`));
    expect(whole).toBeGreaterThanOrEqual(MANY);
    await json(`${address}/api/backups`, 'POST', {});
    // what came after the backup, and goes when it is put back
    await json(`${address}/api/stations`, 'POST', { ...HUT, name: 'Later' });
    const works = [
      (at: string) => fetch(`${at}/api/stations/${taken.id}/file`).then((reply) => reply.arrayBuffer()),
      take,
      (at: string) => json(`${at}/api/backups`, 'POST', {}),
      async (at: string) => {
        const told = await json(`${at}/api/backups`);
        const backups = typeof told === 'object' && told !== null && 'backups' in told ? listOf(told.backups) : [];
        const [first] = backups.filter(({ name }) => name.includes('asked')).slice(-1);
        return json(`${at}/api/backups/restore`, 'POST', { name: first.name });
      },
    ];
    for (const [round, delayMs] of [15, 150].entries())
      for (const work of works) {
        const under: Promise<unknown> = work(address).catch(() => undefined);
        await new Promise((resolve) => setTimeout(resolve, delayMs + 7 * round));
        await killNow(server);
        await under;
        server = startServer(['--empty', '--data', data]);
        address = await server.address;
        expect(await json(`${address}/api/backups/check`, 'POST', {})).toMatchObject({ faults: [] });
        const stations = listOf(await json(`${address}/api/stations`));
        expect(stations.some(({ name }) => name === 'Kept')).toBe(true);
        for (const { id, name } of stations)
          if (name !== 'Kept' && name !== 'Later')
            expect(entriesOf(await json(`${address}/api/stations/${id}`))).toBe(whole);
        for (const name of readdirSync(path.join(data, 'backups')))
          if (!name.includes('.part')) expect(statSync(path.join(data, 'backups', name)).size).toBeGreaterThan(4096);
      }
    expect(await stopServer(server)).toBe(0);
  }, 180_000);
});

describe('a disk that runs full in the middle', () => {
  test('import as new and beside, and restore: refused, and everything as it was', async () => {
    const own = path.join(dir, 'full.sqlite');
    const made = openDatabase(own);
    await migrator(made.sequelize).up();
    await createStation(made, { ...HUT, name: 'Kept' }, author());
    const contents = await readStationFile(file);
    const small = {
      ...contents,
      records: { ...contents.records, entries: (contents.records.entries ?? []).slice(0, 3) },
    };
    const { stationId: id } = await takeAsNew(made, small, author());
    const before = JSON.stringify(await stationRecords(made, id));
    const backup = await openBackups(made, own).make('asked');
    await made.sequelize.close();
    const tight = openDatabase(own, { mostPages: Math.ceil(statSync(own).size / 4096) + 6 });
    const uuids = Object.values(contents.records).flatMap((list) => list.map(({ uuid }) => uuid));
    await expect(takeBeside(tight, id, contents, { take: new Set(uuids), author: author() })).rejects.toThrow(/full/);
    const again = { ...contents, station: { ...contents.station, uuid: randomUUID() } };
    await expect(takeAsNew(tight, again, author())).rejects.toThrow(/full|UNIQUE|already/);
    expect(JSON.stringify({ ...(await stationRecords(tight, id)), run: '' })).toBe(
      JSON.stringify({ ...JSON.parse(before), run: '' }),
    );
    expect(await tight.stations.count()).toBe(2);
    // a backup that is larger than what the disk takes
    const big = openDatabase(own);
    await takeBeside(big, id, contents, { take: new Set(uuids), author: author() });
    const large = await openBackups(big, own).make('asked');
    await openBackups(big, own).restore(backup.name);
    await big.sequelize.query('VACUUM');
    await big.sequelize.close();
    const narrow = openDatabase(own, { mostPages: Math.ceil(statSync(own).size / 4096) + 6 });
    await expect(openBackups(narrow, own).restore(large.name)).rejects.toThrow(/full/);
    expect((await stationRecords(narrow, id)).entries).toHaveLength(3);
    await Promise.all([tight.sequelize.close(), narrow.sequelize.close()]);
  }, 60_000);
  test('a backup that cannot be written is told, and nothing half lies in its folder', async () => {
    const own = path.join(dir, 'silent');
    mkdirSync(own);
    const db = openDatabase(path.join(own, 'velvet-reed.sqlite'));
    await migrator(db.sequelize).up();
    writeFileSync(path.join(own, 'backups'), 'a file where the folder should be');
    const backups = openBackups(db, path.join(own, 'velvet-reed.sqlite'));
    await expect(backups.make('asked')).rejects.toThrow();
    await backups.makeDue();
    expect(backups.fault()).toMatch(/daily backup/);
    rmSync(path.join(own, 'backups'));
    await backups.makeDue();
    expect(backups.fault()).toBeUndefined();
    expect(backups.list()).toHaveLength(1);
    backups.close();
    await db.sequelize.close();
  });
});
