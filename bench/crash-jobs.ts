import { copyFileSync, cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { openDatabase } from '../packages/server/src/database';
import { loadDemo } from '../packages/server/src/demo/load';
import { MIGRATION_NAMES, migrator } from '../packages/server/src/migrate';
import { printLine } from './print';
import { get, integrity, kill, post, shape, start, wait } from './server-process';

const CUTS = Number(process.env.CUTS ?? 40);
/** Restarts that are cut, one behind the other. */
const IN_A_ROW = 3;
const FILE = 'velvet-reed.sqlite';

interface Station {
  readonly id: number;
  readonly name: string;
}
const stationsAt = async (address: string): Promise<readonly Station[]> =>
  (await get(`${address}/api/stations`)) as readonly Station[];
/** Everything that a listener has: each station by its name with how many records of each kind. */
async function contentAt(address: string): Promise<string> {
  const parts: string[] = [];
  for (const { id, name } of await stationsAt(address))
    parts.push(`${name}: ${shape(await get(`${address}/api/stations/${id}`))}`);
  return parts.join('; ');
}
const binAt = async (address: string): Promise<number> =>
  ((await get(`${address}/api/stations/1/bin`)) as readonly unknown[]).length;

/** What may be cut: it is begun at a server with the demo, and afterwards one of the contents that it may leave must be there. */
interface Job {
  readonly name: string;
  /** Makes ready, once. */
  readonly before?: (address: string) => Promise<void>;
  readonly run: (address: string) => Promise<unknown>;
}

async function deleteSome(address: string): Promise<void> {
  const { entries } = (await get(`${address}/api/stations/1`)) as {
    readonly entries: readonly { readonly id: number; readonly version: number }[];
  };
  for (const { id, version } of entries.slice(0, 12))
    await post(`${address}/api/stations/1/changes`, {
      changes: [{ op: 'delete', resource: 'entries', id, version }],
      key: crypto.randomUUID(),
    });
}
async function newestBackup(address: string): Promise<string> {
  const { backups } = (await get(`${address}/api/backups`)) as {
    readonly backups: readonly { readonly name: string }[];
  };
  return backups[0].name;
}
async function importWhole(address: string): Promise<unknown> {
  const file = await (await fetch(`${address}/api/stations/1/file`)).blob();
  const form = new FormData();
  form.set('how', 'new');
  form.set('key', crypto.randomUUID());
  form.set('file', file, 'demo.station.zip');
  return fetch(`${address}/api/station-files/take`, { method: 'POST', body: form });
}

const JOBS: readonly Job[] = [
  {
    name: 'restore',
    before: async (address) => {
      await post(`${address}/api/backups`, {});
      await deleteSome(address);
    },
    run: async (address) => post(`${address}/api/backups/restore`, { name: await newestBackup(address) }),
  },
  { name: 'import', run: importWhole },
  { name: 'bin', before: deleteSome, run: (address) => post(`${address}/api/stations/1/bin/empty`, {}) },
  { name: 'backup', run: (address) => post(`${address}/api/backups`, {}) },
];

/** Backups in a folder that SQLite does not call sound. */
async function brokenBackups(dir: string): Promise<number> {
  const folder = path.join(dir, 'backups');
  if (!existsSync(folder)) return 0;
  let broken = 0;
  for (const name of readdirSync(folder).filter((one) => one.endsWith('.sqlite')))
    if ((await integrity(path.join(folder, name))) !== 'ok') broken += 1;
  return broken;
}

/** Ends the server in the middle of large jobs: afterwards what was before stands, or all of what was asked for. */
export async function jobs(uniform: () => number): Promise<void> {
  const home = mkdtempSync(path.join(tmpdir(), 'velvet-reed-jobs-'));
  for (const job of JOBS) {
    const ready = path.join(home, `${job.name}-ready`);
    const first = start(ready, []);
    const at = await first.address;
    await job.before?.(at);
    await kill(first);
    const whole = path.join(home, `${job.name}-whole`);
    cpSync(ready, whole, { recursive: true });
    const untouched = start(whole, []);
    const address = await untouched.address;
    const state = async (of: string): Promise<string> => `${await contentAt(of)}; bin ${await binAt(of)}`;
    const allowed = new Set([await state(address)]);
    const began = performance.now();
    await job.run(address);
    const lasts = performance.now() - began;
    allowed.add(await state(address));
    await kill(untouched);
    let [wrong, broken, inside] = [0, 0, 0];
    for (let cut = 0; cut < CUTS; cut += 1) {
      const dir = path.join(home, `${job.name}-${cut}`);
      cpSync(ready, dir, { recursive: true });
      const running = start(dir, []);
      const doing = job.run(await running.address).then(
        () => true,
        () => false,
      );
      await wait(lasts * 1.1 * uniform());
      await kill(running);
      if (!(await doing)) inside += 1;
      const again = start(dir, []);
      try {
        const now = await state(await again.address);
        if (!allowed.has(now)) {
          wrong += 1;
          console.log(`    ${job.name}, cut ${cut}: ${now.slice(0, 400)}`);
        }
      } catch (error) {
        wrong += 1;
        console.log(`    ${job.name}, cut ${cut}: ${String(error).slice(0, 300)}`);
      }
      await kill(again);
      if ((await integrity(path.join(dir, FILE))) !== 'ok') broken += 1;
      broken += await brokenBackups(dir);
      rmSync(dir, { recursive: true, force: true });
    }
    printLine(
      `${CUTS} power cuts in ${job.name} (${inside} inside it): half done or lost`,
      String(wrong),
      '0',
      wrong === 0,
    );
    printLine('files or backups that SQLite calls broken', String(broken), '0', broken === 0);
  }
  rmSync(home, { recursive: true, force: true });
}

/** A file of each released format with the demo's content as far as that format can hold it, and how it looks when it is upgraded in peace. */
async function releases(home: string): Promise<readonly { readonly name: string; readonly file: string }[]> {
  const newest = path.join(home, 'newest.sqlite');
  const db = openDatabase(newest);
  await migrator(db.sequelize).up();
  await loadDemo(db);
  const made: { name: string; file: string }[] = [];
  for (const name of MIGRATION_NAMES.slice(1).reverse()) {
    await migrator(db.sequelize).down({ to: name });
    await db.sequelize.query('PRAGMA wal_checkpoint(TRUNCATE)');
    const file = path.join(home, `before-${name}.sqlite`);
    copyFileSync(newest, file);
    made.push({ name: `before ${name}`, file });
  }
  await db.sequelize.close();
  return made;
}

/** Ends three starts in a row while a file of an earlier release is upgraded; the fourth must have all that an upgrade in peace has. */
export async function upgrades(uniform: () => number): Promise<void> {
  const home = mkdtempSync(path.join(tmpdir(), 'velvet-reed-upgrades-'));
  const files = await releases(home);
  let [wrong, broken, cuts, empty] = [0, 0, 0, 0];
  const folderOf = (name: string, file: string): string => {
    const dir = path.join(home, name.replaceAll(/\W/g, '-'));
    mkdirSync(dir);
    copyFileSync(file, path.join(dir, FILE));
    return dir;
  };
  for (const { name, file } of files) {
    const peace = folderOf(`${name} in peace`, file);
    const began = performance.now();
    const quiet = start(peace, ['--empty']);
    const whole = await contentAt(await quiet.address);
    const lasts = performance.now() - began;
    await kill(quiet);
    if (!/antennas [1-9]/.test(whole)) empty += 1;
    for (let run = 0; run < Math.max(1, Math.round(CUTS / 10)); run += 1) {
      const dir = folderOf(`${name} ${run}`, file);
      for (let cut = 0; cut < IN_A_ROW; cut += 1) {
        const running = start(dir, ['--empty']);
        await wait(lasts * uniform());
        await kill(running);
        cuts += 1;
      }
      const last = start(dir, ['--empty']);
      try {
        const now = await contentAt(await last.address);
        if (now !== whole) {
          wrong += 1;
          console.log(`    ${name}, run ${run}: ${now.slice(0, 300)} instead of ${whole.slice(0, 300)}`);
        }
      } catch (error) {
        wrong += 1;
        console.log(`    ${name}, run ${run}: ${String(error).slice(0, 300)}`);
      }
      await kill(last);
      if ((await integrity(path.join(dir, FILE))) !== 'ok') broken += 1;
      broken += await brokenBackups(dir);
      rmSync(dir, { recursive: true, force: true });
    }
    rmSync(peace, { recursive: true, force: true });
  }
  rmSync(home, { recursive: true, force: true });
  printLine(
    `${cuts} power cuts in upgrades from ${files.length} formats: not as in peace`,
    String(wrong),
    '0',
    wrong === 0,
  );
  printLine('formats whose file had no antennas', String(empty), '0', empty === 0);
  printLine('files or backups that SQLite calls broken', String(broken), '0', broken === 0);
}
