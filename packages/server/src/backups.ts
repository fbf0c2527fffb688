import {
  chmodSync,
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sqlite3 from 'sqlite3';
import { dataFileFault, plainConnection } from './data-file';
import { openDatabase, type Database } from './database';
import { mendReferences } from './mend';
import { migrator } from './migrate';
import { NotFoundError, RequestError } from './refusals';
import { renewRun } from './station-answer';

/** A copy of all stations, made while the server runs. */
interface Backup {
  readonly name: string;
  readonly madeMs: number;
  readonly bytes: number;
  /** By the schedule, by hand, or before another one was restored. */
  readonly kind: 'daily' | 'asked' | 'before';
}

/** What a check of the database found; nothing: it is sound. */
interface DatabaseCheck {
  readonly faults: readonly string[];
  readonly bytes: number;
}

export interface Backups {
  readonly folder: string;
  list(): readonly Backup[];
  /** @param spared is not taken away to make room. */
  make(kind: Backup['kind'], spared?: string): Promise<Backup>;
  /** Puts all stations back as they were then; what is here now is kept as a backup first. */
  restore(name: string): Promise<void>;
  check(): Promise<DatabaseCheck>;
  /** Makes the daily one when it is due; never rejects. */
  makeDue(): Promise<void>;
  /** Why the last daily one could not be made; undefined when it was. */
  fault(): string | undefined;
  /** Makes the daily one when it is due, now and every hour from now on. */
  schedule(): void;
  close(): void;
}

const NAME = /^velvet-reed-(daily|asked|before)-(\d{4}-\d{2}-\d{2}T\d{2}-\d{2}-\d{2}-\d{3})\.sqlite$/;
const DAY_MS = 86_400_000;
const HOUR_MS = 3_600_000;
/** So many of each kind are kept. */
const KEPT = 7;

const stamped = (ms: number): string => new Date(ms).toISOString().slice(0, 23).replaceAll(':', '-').replace('.', '-');
function momentOf(stamp: string): number {
  const [day, time] = stamp.split('T');
  const [h, m, s, ms] = time.split('-');
  return Date.parse(`${day}T${h}:${m}:${s}.${ms}Z`);
}
const quoted = (name: string): string => `'${name.replaceAll("'", "''")}'`;
const column = (name: string): string => `"${name.replaceAll('"', '""')}"`;

/** @param file the database; backups lie in a folder of their own beside it. */
export function openBackups(db: Database, file: string): Backups {
  const folder = path.join(path.dirname(file), 'backups');
  let timer: NodeJS.Timeout | undefined;
  const list = (): readonly Backup[] =>
    !existsSync(folder) || !statSync(folder).isDirectory()
      ? []
      : readdirSync(folder)
          .flatMap((name): Backup[] => {
            const found = NAME.exec(name);
            const kind = (['daily', 'asked', 'before'] as const).find((one) => one === found?.[1]);
            if (!found || !kind) return [];
            return [{ name, kind, madeMs: momentOf(found[2]), bytes: statSync(path.join(folder, name)).size }];
          })
          .sort((a, b) => b.madeMs - a.madeMs);
  const make = async (kind: Backup['kind'], spared?: string): Promise<Backup> => {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    // what an ended process left half
    for (const name of readdirSync(folder))
      if (name.includes('.part')) rmSync(path.join(folder, name), { force: true });
    const name = `velvet-reed-${kind}-${stamped(Date.now())}.sqlite`;
    const half = path.join(folder, `${name}.part`);
    try {
      // one moment of the whole file, whatever is written meanwhile (SQLite, VACUUM INTO)
      await db.sequelize.query(`VACUUM INTO ${quoted(half)}`);
    } catch (error) {
      rmSync(half, { force: true });
      throw dataFileFault(half, error) ?? error;
    }
    chmodSync(half, 0o600);
    renameSync(half, path.join(folder, name));
    // what is dated in the future was made while a clock stood wrong: such ones are counted apart, and push nothing else out
    const now = momentOf(NAME.exec(name)?.[2] ?? stamped(Date.now()));
    for (const isAhead of [false, true])
      list()
        .filter((one) => one.kind === kind && one.madeMs > now === isAhead)
        .slice(KEPT)
        .filter((one) => one.name !== spared)
        .forEach((old) => rmSync(path.join(folder, old.name), { force: true }));
    const made = list().find((one) => one.name === name);
    if (!made) throw new NotFoundError('backup');
    return made;
  };
  let fault: string | undefined;
  const makeDue = async (): Promise<void> => {
    try {
      // one that is dated in the future was made while the clock stood wrong: it says nothing of today
      const last = list().find(({ kind, madeMs }) => kind === 'daily' && madeMs <= Date.now());
      if (!last || Date.now() - last.madeMs > DAY_MS) await make('daily');
      fault = undefined;
    } catch (error) {
      fault = `The daily backup of ${new Date().toISOString().slice(0, 10)} could not be made: ${error instanceof Error ? error.message : String(error)}`;
    }
  };
  const due = (): void => void makeDue();
  return {
    folder,
    list,
    make,
    makeDue,
    fault: () => fault,
    async restore(name) {
      if (!list().some((one) => one.name === name)) throw new NotFoundError('backup');
      await make('before', name);
      const work = mkdtempSync(path.join(tmpdir(), 'velvet-reed-restore-'));
      const copy = path.join(work, 'backup.sqlite');
      try {
        // a copy is brought up to this release; the backup stays as it is
        copyFileSync(path.join(folder, name), copy);
        const old = openDatabase(copy);
        try {
          await migrator(old.sequelize).up();
          await mendReferences(old);
        } finally {
          await old.sequelize.close();
        }
        await putBack(db, copy);
        renewRun();
      } finally {
        rmSync(work, { recursive: true, force: true });
      }
    },
    async check() {
      const [health] = await db.sequelize.query('PRAGMA integrity_check(20)');
      const [orphans] = await db.sequelize.query('PRAGMA foreign_key_check');
      const faults = (Array.isArray(health) ? health : [])
        .flatMap((row) => (typeof row === 'object' && row !== null ? Object.values(row).map(String) : []))
        .filter((line) => line !== 'ok');
      const lost = Array.isArray(orphans) ? orphans.length : 0;
      return {
        faults: lost > 0 ? [...faults, `${lost} records point at something that is not there.`] : faults,
        bytes: statSync(file).size,
      };
    },
    schedule() {
      due();
      timer = setInterval(due, HOUR_MS);
      timer.unref();
    },
    close() {
      clearInterval(timer);
    },
  };
}

/** All tables as they stand in another file of the same release, in one transaction: all or none. */
async function putBack(db: Database, file: string): Promise<void> {
  const from = await plainConnection(file, sqlite3.OPEN_READONLY);
  try {
    const [health] = await from.all('PRAGMA quick_check(1)');
    if (Object.values(health ?? {})[0] !== 'ok')
      throw new RequestError('This backup is damaged. Nothing was changed; choose another one.');
    const tables = (
      await from.all("SELECT name FROM sqlite_master WHERE type = 'table' AND sql NOT LIKE 'CREATE VIRTUAL%'")
    )
      .map(({ name }) => String(name))
      // a file keeps its own id, whatever is put into it
      .filter((name) => name !== 'migrations' && name !== 'data_file' && !name.startsWith('sqlite_'));
    await db.write(async (transaction) => {
      // rows point at each other across tables: what must hold, holds at the end
      await db.sequelize.query('PRAGMA defer_foreign_keys = ON', { transaction });
      // a change that was begun on what is here now must not fit what comes back: versions go on from the highest of both
      const versioned: string[] = [];
      let highest = 0;
      for (const table of tables) {
        const names = (await from.all(`PRAGMA table_info(${column(table)})`)).map(({ name }) => String(name));
        if (!names.includes('version')) continue;
        versioned.push(table);
        const [rows] = await db.sequelize.query(`SELECT MAX(version) AS most FROM ${column(table)}`, { transaction });
        const [row] = Array.isArray(rows) ? rows : [];
        const most = typeof row === 'object' && row !== null && 'most' in row ? Number(row.most) : 0;
        highest = Math.max(highest, most);
      }
      for (const table of tables) await db.sequelize.query(`DELETE FROM ${column(table)}`, { transaction });
      for (const table of tables) {
        const names = (await from.all(`PRAGMA table_info(${column(table)})`)).map(({ name }) => String(name));
        const into = `INSERT INTO ${column(table)} (${names.map(column).join(', ')}) VALUES (${names.map((_, i) => `$${i + 1}`).join(', ')})`;
        for (const row of await from.all(`SELECT * FROM ${column(table)}`))
          await db.sequelize.query(into, { bind: names.map((name) => row[name]), transaction });
      }
      for (const table of versioned)
        await db.sequelize.query(`UPDATE ${column(table)} SET version = version + ${highest}`, { transaction });
    });
  } finally {
    await from.close();
  }
}
