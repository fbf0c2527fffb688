import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { createOf, type Change } from '@velvet-reed/contract';
import { chanceOf } from '@velvet-reed/core/recording';
import { unzipSync, zipSync } from 'fflate';
import { applyChanges } from '../changes';
import { openDatabase, type Database } from '../database';
import { loadDemo } from '../demo/load';
import { undo } from '../history';
import { MIGRATION_NAMES, migrator } from '../migrate';
import { madeUpStation } from './made-up-station';
import type { StationContents } from './contents';
import { partsOf as unpacked } from '@velvet-reed/station/file/archive';
import { readStationFile } from './read';
import { compareStation, takeAsNew, takeBeside } from './take';
import { stationContents, writeStationFile } from './write';

const partsOf = (file: Uint8Array, most?: number) =>
  unpacked(file, () => new Promise((resolve) => setImmediate(resolve)), most);

const DEVICE = randomUUID();
const author = () => ({ key: randomUUID(), device: DEVICE });
async function fresh(): Promise<Database> {
  const db = openDatabase(path.join(mkdtempSync(path.join(tmpdir(), 'reed-file-')), 'stations.sqlite'));
  await migrator(db.sequelize).up();
  return db;
}
const saved = (db: Database, id: number): Promise<Uint8Array> =>
  db.read((transaction) => stationContents(db, transaction, id)).then(writeStationFile);
const change = (db: Database, id: number, changes: readonly Change[]): Promise<unknown> =>
  applyChanges(db, id, { changes: JSON.parse(JSON.stringify(changes)) as never, author: author() });

let one: Database;
let other: Database;
beforeAll(async () => {
  [one, other] = [await fresh(), await fresh()];
});
afterAll(async () => {
  await one.sequelize.close();
  await other.sequelize.close();
});

test('12 made-up stations: taken into another database and saved again, equal to the byte; taken once more, nothing changes', async () => {
  for (let seed = 1; seed <= 12; seed += 1) {
    const file = await saved(one, await madeUpStation(one, seed));
    const contents = await readStationFile(file);
    const { stationId: id } = await takeAsNew(other, contents, author());
    expect(Buffer.compare(await saved(other, id), file)).toBe(0);
    const compared = await other.read((transaction) => compareStation(other, transaction, id, contents));
    expect(compared.differences).toEqual([]);
    const everything = new Set(Object.values(contents.records).flatMap((list) => list.map(({ uuid }) => uuid)));
    expect(await takeBeside(other, id, contents, { take: everything, author: author() })).toEqual({
      ...{ added: 0, changed: 0, left: [] },
    });
    // as new once more: another station, with names of its own for every record
    const { stationId: twin } = await takeAsNew(other, contents, author());
    expect(twin).not.toBe(id);
    expect(await other.tables.entries.count({ where: { stationId: twin } })).toBe(contents.records.entries.length);
  }
}, 60_000);

test('the demo with its sweeps, logs, recording and drawing goes round whole', async () => {
  const [from, into] = [await fresh(), await fresh()];
  await loadDemo(from);
  const file = await saved(from, 1);
  const { stationId: id } = await takeAsNew(into, await readStationFile(file), author());
  expect(Buffer.compare(await saved(into, id), file)).toBe(0);
  await from.sequelize.close();
  await into.sequelize.close();
}, 60_000);

describe('beside what is here', () => {
  test('new, newer, older, both changed, deleted: each told, each by choice; undo takes what was taken back', async () => {
    const home = await madeUpStation(one, 100);
    const before = await saved(one, home);
    const { stationId: away } = await takeAsNew(other, await readStationFile(before), author());
    const rows = async (db: Database, id: number) =>
      db.tables.targets.findAll({ where: { stationId: id }, order: [['id', 'ASC']] });
    const antennas = async (db: Database, id: number) =>
      db.tables.antennas.findAll({ where: { stationId: id }, order: [['id', 'ASC']] });
    const rename = async (db: Database, id: number, which: 'targets' | 'antennas', name: string): Promise<void> => {
      const [row] = which === 'targets' ? await rows(db, id) : await antennas(db, id);
      await change(db, id, [
        {
          op: 'update',
          resource: which,
          id: Number(row.get('id')),
          version: Number(row.get('version')),
          values: { name },
        },
      ] as Change[]);
    };
    // away: a target renamed, an entry added; home: an antenna renamed
    await rename(other, away, 'targets', 'renamed away');
    await change(other, away, [createOf('entries', { step: 'notebook', text: 'written away', atMs: 5 })] as Change[]);
    await rename(one, home, 'antennas', 'renamed at home');
    const contents = await readStationFile(await saved(other, away));
    const look = () => one.read((transaction) => compareStation(one, transaction, home, contents));
    const standings = (await look()).differences.map(({ resource, standing }) => `${resource}: ${standing}`).sort();
    expect(standings).toEqual([
      'antennas: older in the file',
      'entries: only in the file',
      'targets: newer in the file',
    ]);
    const take = new Set(
      (await look()).differences.flatMap(({ uuid, standing }) => (standing === 'older in the file' ? [] : [uuid])),
    );
    const taking = author();
    expect(await takeBeside(one, home, contents, { take, author: taking })).toEqual({
      ...{ added: 1, changed: 1, left: [] },
    });
    expect((await rows(one, home))[0].get('name')).toBe('renamed away');
    expect((await antennas(one, home))[0].get('name')).toBe('renamed at home');
    expect((await look()).differences.map(({ standing }) => standing)).toEqual(['older in the file']);
    await undo(one, home, { device: DEVICE });
    expect((await rows(one, home))[0].get('name')).not.toBe('renamed away');
    // both sides rename the same target differently: nobody wins by itself
    await rename(one, home, 'targets', 'renamed at home');
    expect((await look()).differences.find(({ resource }) => resource === 'targets')).toMatchObject({
      standing: 'both changed',
      values: [{ label: 'Name', here: 'renamed at home', file: 'renamed away' }],
    });
    const [target] = await rows(one, home);
    await change(one, home, [
      {
        op: 'delete',
        resource: 'targets',
        id: Number(target.get('id')),
        version: Number(target.get('version')),
        along: true,
      },
    ] as Change[]);
    expect((await look()).differences.find(({ resource }) => resource === 'targets')?.standing).toBe('deleted here');
  });
});

describe('files that are refused, with a sentence and nothing taken', () => {
  let file: Uint8Array;
  let parts: Record<string, Uint8Array>;
  beforeAll(async () => {
    file = await saved(one, await madeUpStation(one, 200));
    parts = unzipSync(file);
  });
  const text = (value: unknown): Uint8Array => Buffer.from(JSON.stringify(value));
  const packed = (change: Record<string, Uint8Array | undefined>): Uint8Array =>
    zipSync(
      Object.fromEntries(
        Object.entries({ ...parts, ...change }).flatMap(([name, part]) => (part ? [[name, part]] : [])),
      ),
    );
  const head = (values: object): Uint8Array =>
    text({ ...JSON.parse(Buffer.from(parts['station.json']).toString()), ...values });
  test('cut off anywhere', async () => {
    for (let share = 0; share < 1; share += 0.07)
      await expect(readStationFile(file.subarray(0, Math.floor(share * file.length)))).rejects.toThrow(
        /Nothing was taken in/,
      );
  });
  test('a byte turned over anywhere is refused, or makes no difference', async () => {
    const whole = JSON.stringify(await readStationFile(file).then(({ records }) => records));
    const chance = chanceOf(9);
    for (let round = 0; round < 60; round += 1) {
      const broken = Uint8Array.from(file);
      broken[Math.floor(broken.length * chance.uniform())] ^= 1 + Math.floor(250 * chance.uniform());
      const read = await readStationFile(broken).then(
        ({ records }) => JSON.stringify(records),
        (error: Error) => error.message,
      );
      expect(read === whole || /Nothing was taken in/.test(read)).toBe(true);
    }
  });
  test.each([
    ['a path that leaves the archive', () => packed({ '../../evil.json': text(1) }), /does not belong/],
    ['an absolute path', () => packed({ '/etc/passwd': text(1) }), /does not belong/],
    ['a path with a drive', () => packed({ 'C:\\x.json': text(1) }), /does not belong/],
    ['a part that no station has', () => packed({ 'bytes/sweeps/run.exe': text(1) }), /does not belong/],
    ['no archive', () => text('hello'), /no station file/],
    ['an archive of something else', () => zipSync({ 'station.json': text({ format: 'else' }) }), /no station file/],
    ['no checksums', () => packed({ 'checksums.json': undefined }), /checksums is missing/],
    ['a part that was taken out', () => packed({ 'earlier.json': undefined }), /missing/],
    ['a part that was changed', () => packed({ 'records/targets.json': text([]) }), /not what was saved/],
    ['a newer release', () => packed({ 'station.json': head({ release: '9999-later' }) }), /newer release/],
    ['a newer format', () => packed({ 'station.json': head({ version: 2 }) }), /newer release/],
  ] as const)('%s', async (_name, make, sentence) => {
    const stations = await one.stations.count();
    await expect(readStationFile(make())).rejects.toThrow(sentence);
    expect(await one.stations.count()).toBe(stations);
  });
  test('a record that no table takes leaves nothing half: the station is not there', async () => {
    const contents = await readStationFile(file);
    const bad = {
      ...contents,
      records: { ...contents.records, entries: [{ ...contents.records.targets[0], step: 'no step' }] },
    };
    const stations = await one.stations.count();
    await expect(takeAsNew(one, bad, author())).rejects.toThrow();
    expect(await one.stations.count()).toBe(stations);
  });
  test('a file of an older release gets what newer ones added, as it begins there', async () => {
    const contents = await readStationFile(file);
    const { withoutNew } = {
      withoutNew: contents.records.guardPlans.map(({ limitSource: _gone, times: _times, ...rest }) => rest),
    };
    const older = {
      ...parts,
      'records/guardPlans.json': text(withoutNew),
      'station.json': head({ release: MIGRATION_NAMES[19] }),
    };
    const { createHash } = await import('node:crypto');
    const sum = (part: Uint8Array): string => createHash('sha256').update(part).digest('hex');
    const sums = Object.fromEntries(
      Object.entries(older)
        .filter(([name]) => name !== 'checksums.json')
        .map(([name, part]) => [name, sum(part)]),
    );
    const read = await readStationFile(zipSync({ ...older, 'checksums.json': text(sums) }));
    const { stationId: id } = await takeAsNew(other, read, author());
    const plan = await other.tables.guardPlans.findOne({ where: { stationId: id } });
    expect(plan?.get('limitSource')).toBe('');
  });
});

describe('what a file may say', () => {
  const contentsOf = async (): Promise<StationContents> =>
    readStationFile(await saved(one, await madeUpStation(one, 77)));
  test('a station or version of its own moved an antenna to another station, or made the station unopenable: refused, naming the field', async () => {
    const contents = await contentsOf();
    const [antenna] = contents.records.antennas;
    for (const more of [{ stationId: 1 }, { version: 'abc' }, { nonsense: 1 }]) {
      const records = { ...contents.records, antennas: [{ ...antenna, ...more }] };
      const stations = await other.stations.count();
      await expect(takeAsNew(other, { ...contents, records }, author())).rejects.toThrow(Object.keys(more)[0]);
      expect(await other.stations.count()).toBe(stations);
    }
    const station = { ...contents.station, version: 'abc' };
    await expect(takeAsNew(other, { ...contents, station }, author())).rejects.toThrow(/version/);
  });
  test('the same file twice with one key made two stations: it is one', async () => {
    const contents = await contentsOf();
    const who = author();
    const first = await takeAsNew(other, contents, who);
    expect((await takeAsNew(other, contents, who)).stationId).toBe(first.stationId);
    expect(await other.stations.count({ where: { uuid: contents.station.uuid } })).toBe(1);
  });
  test('a file with a record whose antenna is missing was refused whole: the rest is taken, and it is named', async () => {
    const contents = await contentsOf();
    const [gone, ...antennas] = contents.records.antennas;
    const records = { ...contents.records, antennas };
    const lone = contents.records.revisions.filter(({ antennaId }) => antennaId === gone.id);
    expect(lone.length).toBeGreaterThan(0);
    const { stationId, left } = await takeAsNew(other, { ...contents, records }, author());
    expect(left).toHaveLength(lone.length);
    expect(left[0]).toMatch(/: its antenna is not there$/);
    expect(await other.tables.entries.count({ where: { stationId } })).toBe(contents.records.entries.length);
  });
  test('what an archive says of its size is not believed: the bytes are counted, and others get their turn meanwhile', async () => {
    // 30 MB of nothing in 30 kB; its stated size is written over with 10 bytes
    const bomb = zipSync({ 'station.json': new Uint8Array(30_000_000) });
    const sizes = new DataView(bomb.buffer, bomb.byteOffset);
    sizes.setUint32(22, 10, true);
    await expect(partsOf(bomb, 1_000_000)).rejects.toThrow(/unpacks to more/);
    let [turns, counting] = [0, true];
    const count = (): void => {
      turns += 1;
      if (counting) setImmediate(count);
    };
    setImmediate(count);
    const plain = Uint8Array.from({ length: 8_000_000 }, (_, i) => (i * 2654435761) >>> 13);
    const parts = await partsOf(zipSync({ 'station.json': plain }, { level: 0 }));
    counting = false;
    // 8 MB in pieces of a quarter: 31 of them
    expect(Buffer.compare(parts['station.json'], plain)).toBe(0);
    expect(turns).toBeGreaterThan(25);
    await expect(partsOf(bomb.subarray(0, 20_000), 100_000_000)).rejects.toThrow(/cut off/);
  });
});
