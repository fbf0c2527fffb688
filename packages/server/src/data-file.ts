import {
  chmodSync,
  closeSync,
  existsSync,
  mkdirSync,
  openSync,
  readdirSync,
  readSync,
  renameSync,
  rmSync,
  statSync,
} from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { CoreError } from '@velvet-reed/core/errors';
import sqlite3 from 'sqlite3';
import { openDatabase, type Database } from './database';
import { mendReferences } from './mend';
import { MIGRATION_NAMES, migrator } from './migrate';

/** The file with the stations cannot be used: which one, what is wrong, what to do. Nothing was changed. */
export class DataFileError extends CoreError {
  readonly code = 'DATA_FILE';
}

/** A copy made before an upgrade, kept for good. */
export interface KeptCopy {
  readonly file: string;
  readonly madeMs: number;
}

/** An open data folder: nobody else writes in it until it is closed. */
export interface DataFolder {
  readonly db: Database;
  readonly file: string;
  /** Made now, or by earlier upgrades. */
  copies(): readonly KeptCopy[];
  close(): Promise<void>;
}

const FILE_NAME = 'velvet-reed.sqlite';
const COPY_NAME = /^velvet-reed-before-\d{4}-.*\.sqlite$/;
const MAGIC = 'SQLite format 3\u0000';
const RECOVER =
  'If there is a copy (velvet-reed-before-….sqlite beside it, or one of your own), move the broken file elsewhere and put the copy in its place; or start with another folder: npm start -- --data FOLDER.';

export interface Connection {
  all(sql: string, values?: readonly unknown[]): Promise<readonly Record<string, unknown>[]>;
  close(): Promise<void>;
}

/** One plain connection, without the pragmas that write. */
export function plainConnection(address: string, mode: number): Promise<Connection> {
  return new Promise((resolve, reject) => {
    const raw = new sqlite3.Database(address, mode, (error) => {
      if (error) return reject(error);
      resolve({
        all: (sql, values = []) =>
          new Promise((found, failed) =>
            raw.all(sql, [...values], (fault: Error | null, rows: Record<string, unknown>[]) =>
              fault ? failed(fault) : found(rows),
            ),
          ),
        close: () => new Promise((done) => raw.close(() => done())),
      });
    });
  });
}

const codeOf = (error: unknown): string => {
  if (typeof error !== 'object' || error === null) return '';
  if ('code' in error && typeof error.code === 'string' && error.code !== 'ERR_INVALID_ARG_TYPE') return error.code;
  return 'parent' in error ? codeOf(error.parent) : '';
};

/** Turns what the library or the file system said into a sentence for the person at the keyboard. */
export function dataFileFault(file: string, error: unknown): DataFileError | undefined {
  if (error instanceof DataFileError) return error;
  const code = codeOf(error);
  const message = error instanceof Error ? error.message : String(error);
  const say = (what: string): DataFileError => new DataFileError(`${file} ${what}`);
  if (/^SQLITE_(CORRUPT|NOTADB)/.test(code) || /malformed|not a database/i.test(message))
    return say(`is damaged: it cannot be read as a database. Nothing was changed. ${RECOVER}`);
  if (/^SQLITE_(BUSY|LOCKED)/.test(code))
    return say(
      'is locked by another program. Nothing was changed. Close whatever has it open (another Velvet Reed, a database viewer, a backup), then start again.',
    );
  if (/^(SQLITE_FULL|ENOSPC|EDQUOT)/.test(code) || /disk is full|No space left/i.test(message))
    return say(
      'cannot be written: the disk is full. What was saved before is unharmed. Make room on it, then start again.',
    );
  if (/^(SQLITE_READONLY|EROFS)/.test(code))
    return say(
      'cannot be written: it, its folder or its disk is read-only. Nothing was changed. Allow writing, or copy it to another folder and start with --data FOLDER.',
    );
  if (/^(SQLITE_CANTOPEN|SQLITE_PERM|SQLITE_AUTH|EACCES|EPERM)/.test(code))
    return say(
      'cannot be opened. Nothing was changed. See that the file and its folder belong to you and may be written, then start again.',
    );
  if (/^SQLITE_IOERR/.test(code))
    return say(
      'cannot be read or written: the disk reports a fault. Copy the folder to another disk, then start with --data FOLDER.',
    );
  return undefined;
}

/** Looks without writing: the file stays as it is, down to its bytes. @throws DataFileError */
async function inspect(file: string): Promise<readonly string[]> {
  if (!existsSync(file)) return [];
  const found = statSync(file);
  if (!found.isFile())
    throw new DataFileError(
      `${file} is a folder. Rename it, or start with another folder: npm start -- --data FOLDER.`,
    );
  if (found.size === 0) return [];
  const head = Buffer.alloc(16);
  const handle = openSync(file, 'r');
  try {
    readSync(handle, head, 0, 16, 0);
  } finally {
    closeSync(handle);
  }
  if (head.toString('latin1') !== MAGIC)
    throw new DataFileError(`${file} is not a database: something else wrote over it. Nothing was changed. ${RECOVER}`);
  if ((found.mode & 0o222) === 0)
    throw new DataFileError(
      `${file} is marked read-only. Nothing was changed. Allow writing (chmod u+w), or copy it to another folder and start with --data FOLDER.`,
    );
  // with nothing waiting in the log beside it, the file is read as it stands and not even a lock is taken
  const waiting = existsSync(`${file}-wal`) && statSync(`${file}-wal`).size > 0;
  const look = await plainConnection(
    `${pathToFileURL(file).href}?${waiting ? 'mode=ro' : 'immutable=1'}`,
    sqlite3.OPEN_READONLY | sqlite3.OPEN_URI,
  );
  try {
    const [health] = await look.all('PRAGMA quick_check(1)');
    if (Object.values(health ?? {})[0] !== 'ok')
      throw new DataFileError(
        `${file} is damaged: a part of it is missing or overwritten. Nothing was changed. ${RECOVER}`,
      );
    const tables = (await look.all("SELECT name FROM sqlite_master WHERE type = 'table'")).map(({ name }) =>
      String(name),
    );
    if (tables.length > 0 && !tables.includes('migrations') && !tables.includes('stations'))
      throw new DataFileError(
        `${file} belongs to another program. Nothing was changed. Start with another folder: npm start -- --data FOLDER.`,
      );
    const done = tables.includes('migrations')
      ? (await look.all('SELECT name FROM migrations')).map(({ name }) => String(name))
      : [];
    const unknown = done.filter((name) => !MIGRATION_NAMES.includes(name)).sort();
    if (unknown.length > 0)
      throw new DataFileError(
        `${file} was written by a newer release (it knows "${unknown[unknown.length - 1]}", this release ends at "${MIGRATION_NAMES[MIGRATION_NAMES.length - 1]}"). Nothing was changed. Start the newer release, or another folder: npm start -- --data FOLDER.`,
      );
    return done;
  } finally {
    await look.close();
  }
}

const stamp = (ms: number): string => new Date(ms).toISOString().slice(0, 19).replaceAll(':', '').replace('T', '-');

/** Copies the file as it stands before its first new migration; whole or not at all. */
async function keepCopy(file: string, done: readonly string[]): Promise<void> {
  const next = MIGRATION_NAMES.find((name) => !done.includes(name));
  if (done.length === 0 || next === undefined) return;
  const copy = path.join(
    path.dirname(file),
    `velvet-reed-before-${next.slice(0, 4)}-${stamp(statSync(file).mtimeMs)}.sqlite`,
  );
  if (existsSync(copy)) return;
  const half = `${copy}.part`;
  rmSync(half, { force: true });
  const source = await plainConnection(file, sqlite3.OPEN_READWRITE);
  try {
    await source.all(`VACUUM INTO '${half.replaceAll("'", "''")}'`);
  } catch (error) {
    rmSync(half, { force: true });
    throw error;
  } finally {
    await source.close();
  }
  chmodSync(half, 0o600);
  renameSync(half, copy);
}

/** Holds the folder for this process: the operating system lets go when the process ends, however it ends. */
async function holdFolder(folder: string): Promise<Connection> {
  const file = path.join(folder, 'velvet-reed.lock');
  let lock: Connection | undefined;
  try {
    closeSync(openSync(file, 'a', 0o600));
    lock = await plainConnection(file, sqlite3.OPEN_READWRITE);
    await lock.all('BEGIN EXCLUSIVE');
    return lock;
  } catch (error) {
    await lock?.close();
    if (/^SQLITE_(BUSY|LOCKED)/.test(codeOf(error)))
      throw new DataFileError(
        `Another Velvet Reed already uses ${folder}. Use the address that it printed, end it first, or start this one with another folder: npm start -- --data FOLDER.`,
      );
    throw error;
  }
}

/**
 * Opens the folder's file, or makes both: holds the folder, looks the file over, keeps a copy before an upgrade, migrates.
 * @throws DataFileError with the file, what is wrong and what to do; then nothing was changed.
 */
export async function openDataFolder(folder: string): Promise<DataFolder> {
  const file = path.join(folder, FILE_NAME);
  let lock: Connection | undefined;
  let db: Database | undefined;
  try {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    lock = await holdFolder(folder);
    const done = await inspect(file);
    await keepCopy(file, done);
    if (!existsSync(file)) closeSync(openSync(file, 'a', 0o600));
    for (const end of ['', '-wal', '-shm']) if (existsSync(file + end)) chmodSync(file + end, 0o600);
    db = openDatabase(file);
    await migrator(db.sequelize).up();
    await mendReferences(db);
    const held = lock;
    const opened = db;
    return {
      db,
      file,
      copies: () =>
        readdirSync(folder)
          .filter((name) => COPY_NAME.test(name))
          .sort()
          .map((name) => ({ file: path.join(folder, name), madeMs: statSync(path.join(folder, name)).mtimeMs })),
      async close() {
        await opened.sequelize.close();
        await held.close();
      },
    };
  } catch (error) {
    await db?.sequelize.close().catch(() => undefined);
    await lock?.close();
    throw dataFileFault(file, error) ?? error;
  }
}
