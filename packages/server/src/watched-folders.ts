import { open, readdir, realpath, stat } from 'node:fs/promises';
import path from 'node:path';
import type { LogSummary, TableAnswer } from '@velvet-reed/core/formats';
import type { DecodeReport } from '@velvet-reed/core/trial';
import { logPage, unpackLog } from '@velvet-reed/contract';
import type { Database } from './database';
import { readFileApart } from './file-reader';
import type { ArrivedFile } from './file-store';
import { findStation } from './records';
import { NotFoundError, RequestError } from './refusals';

/** A table that another program writes, in a folder that was named when the server was started. */
export interface WatchedFile {
  /** Number of the folder in that list. */
  readonly folder: number;
  readonly name: string;
  readonly bytes: number;
  readonly changedMs: number;
}

/** Tables only; whatever else lies in such a folder is nobody's business. */
const TABLE = /\.(csv|tsv|txt|log)$/i;
/** Files that are listed, the last changed first. */
const MOST_FILES = 200;
/** Largest that is read, as of an imported log. */
const MOST_BYTES = 80_000_000;
/** Rows of the end that are shown. */
const LAST_ROWS = 8;

/** Tables in the named folders, last changed first. A folder that cannot be read has none. */
export async function watchedFiles(folders: readonly string[]): Promise<readonly WatchedFile[]> {
  const lists = await Promise.all(
    folders.map(async (folder, number) => {
      const entries = await readdir(folder, { withFileTypes: true }).catch(() => []);
      const tables = entries.filter((entry) => entry.isFile() && TABLE.test(entry.name));
      return Promise.all(
        tables.map(async ({ name }) => {
          const found = await stat(path.join(folder, name)).catch(() => undefined);
          return found ? [{ folder: number, name, bytes: found.size, changedMs: found.mtimeMs }] : [];
        }),
      );
    }),
  );
  return lists
    .flat(2)
    .sort((a, b) => b.changedMs - a.changedMs)
    .slice(0, MOST_FILES);
}

/**
 * Whole rows of a watched table: a row that is still being written waits for the next look.
 * @throws NotFoundError for what is no table of a named folder, whatever its name pretends; RequestError for one too large.
 */
export async function watchedRows(folders: readonly string[], number: unknown, name: unknown): Promise<ArrivedFile> {
  const folder = typeof number === 'number' ? folders[number] : undefined;
  if (folder === undefined || typeof name !== 'string' || name !== path.basename(name) || !TABLE.test(name))
    throw new NotFoundError('file');
  const file = path.join(folder, name);
  // a link that leads out of the folder is none of its tables
  const [real, home] = await Promise.all([realpath(file).catch(() => ''), realpath(folder).catch(() => '-')]);
  if (path.dirname(real) !== home) throw new NotFoundError('file');
  const handle = await open(real, 'r').catch(() => {
    throw new NotFoundError('file');
  });
  try {
    const { size } = await handle.stat();
    if (size > MOST_BYTES)
      throw new RequestError('This file is larger than 80 MB. Let the program that writes it begin a new one.');
    const bytes = Buffer.alloc(size);
    const { bytesRead } = await handle.read(bytes, 0, size, 0);
    const end = bytes.subarray(0, bytesRead).lastIndexOf(10);
    return { name: name.slice(0, 120), bytes: bytes.subarray(0, end + 1) };
  } finally {
    await handle.close();
  }
}

/** The state of a table that grows. */
export interface Tail {
  readonly rows: number;
  readonly last: readonly (readonly (number | string | null)[])[];
  readonly summary: LogSummary;
  readonly report: DecodeReport;
}

/** What a growing table of decodes says by now, judged from the place of a station. @throws FileRefusedError with what has to be answered. */
export async function tailOf(
  db: Database,
  stationId: number,
  { bytes }: ArrivedFile,
  answer: TableAnswer | undefined,
): Promise<Tail> {
  const station = await findStation(db, stationId);
  const home = { latDeg: Number(station.get('latDeg')), lonDeg: Number(station.get('lonDeg')) };
  const { rows, samples } = await readFileApart({ kind: 'log', of: 'decodes', bytes, answer });
  const report = await readFileApart({ kind: 'decodes', bytes: samples, home });
  const summary = await readFileApart({ kind: 'summary', of: 'decodes', bytes: samples });
  const from = Math.max(0, rows - LAST_ROWS);
  return { rows, summary, report, last: logPage(unpackLog('decodes', samples, from, LAST_ROWS), from).rows };
}
