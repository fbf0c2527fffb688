import { logPage, RESOURCES, unpackLog, type LogPage } from '@velvet-reed/contract';
import { LOG_KINDS, type LogKind, type LogSummary, type TableAnswer } from '@velvet-reed/core/formats';
import type { Transaction } from 'sequelize';
import { checkReferences, validated } from './changes';
import type { Database, Row } from './database';
import { readFileApart } from './file-reader';
import { fileValues, sha256, type ArrivedFile } from './file-store';
import type { LogContent } from './file-work';
import { batchWriter, type Author } from './history';
import { findStation, present } from './records';
import { NotFoundError, RequestError } from './refusals';
import { madeBefore } from './sweep-import';

/** What is said of a log beside its file. */
interface LogOrigin {
  readonly kind: LogKind;
  /** Antenna, receiver, frequency, bandwidth, conditions, as far as they are known. */
  readonly values: Readonly<Record<string, unknown>>;
  readonly answer?: TableAnswer;
}

/** @throws RequestError */
export function logKind(value: unknown): LogKind {
  const kind = LOG_KINDS.find((one) => one === value);
  if (kind === undefined) throw new RequestError(`Say what the log holds: ${LOG_KINDS.join(', ')}.`, 'kind');
  return kind;
}

const MOST_PAGE = 1000;
/** A number of an address. @throws RequestError */
export function pageNumber(value: unknown, missing: number): number {
  if (value === undefined) return missing;
  const number = typeof value === 'string' && /^\d{1,7}$/.test(value) ? Number(value) : NaN;
  if (!Number.isFinite(number)) throw new RequestError('A page is asked for by whole numbers: ?from=0&count=100.');
  return number;
}

const FIELDS = ['name', 'antennaId', 'receiverId', 'freqHz', 'bandwidthHz', 'conditions', 'cut'];

/** Reads a long log in the thread for files; nothing is written. @throws FileRefusedError with the line number. */
export const readLogFile = (file: ArrivedFile, { kind, answer }: Pick<LogOrigin, 'kind' | 'answer'>) =>
  readFileApart({ kind: 'log', of: kind, bytes: file.bytes, answer });

/** Stores a long log that was read with its raw file, inside a transaction. */
export async function storeLog(
  db: Database,
  transaction: Transaction,
  stationId: number,
  {
    file,
    content: { rows, first, last, samples, cut },
    origin: { kind, values },
    author,
  }: {
    readonly file: ArrivedFile;
    readonly content: LogContent;
    readonly origin: LogOrigin;
    readonly author: Author;
  },
): Promise<Record<string, unknown>> {
  const before = await madeBefore(db, transaction, stationId, { author, resource: 'logs' });
  if (before) return present(before, 'logs');
  const said = Object.fromEntries(Object.entries(values).filter(([name]) => FIELDS.includes(name)));
  const header = {
    ...{ ...RESOURCES.logs.blank, name: file.name, ...(cut ? { cut } : {}), ...said },
    ...{ kind, rows, first, last, checksum: sha256(samples) },
  };
  const write = batchWriter(db, transaction, stationId, author);
  const attachment = await write('attachments', fileValues(file));
  const whole = await validated('logs', { ...header, attachmentId: Number(attachment.get('id')) });
  await checkReferences({ db, transaction, stationId }, 'logs', whole);
  return present(await write('logs', { ...whole, samples: Buffer.from(samples) }), 'logs');
}

/** Stores a long log with its raw file, all or none; it is read before anything is written. @throws FileRefusedError with the line number. */
export async function importLog(
  db: Database,
  stationId: number,
  file: ArrivedFile,
  origin: LogOrigin,
  author: Author,
): Promise<Record<string, unknown>> {
  await findStation(db, stationId);
  const content = await readLogFile(file, origin);
  return db.write((transaction) => storeLog(db, transaction, stationId, { file, content, origin, author }));
}

/** A stored log. @throws NotFoundError */
async function storedLog(
  db: Database,
  id: number,
): Promise<{ readonly row: Row; readonly kind: LogKind; readonly bytes: Buffer }> {
  const row = await db.tables.logs.findByPk(id);
  const bytes = row?.get('samples');
  if (!row || !Buffer.isBuffer(bytes)) throw new NotFoundError('log');
  return { row, kind: logKind(row.get('kind')), bytes };
}

/** A page of a log. */
export async function logRows(db: Database, id: number, from: number, count: number): Promise<LogPage> {
  const { kind, bytes } = await storedLog(db, id);
  return logPage(unpackLog(kind, bytes, from, Math.min(count, MOST_PAGE)), from);
}

/** Summaries by checksum: the rows of one never change. */
const summaries = new Map<string, LogSummary>();
const MOST_SUMMARIES = 100;

/** A log at a glance, worked out in the thread for files. */
export async function logSummary(db: Database, id: number): Promise<LogSummary> {
  const { row, kind, bytes } = await storedLog(db, id);
  const sum = String(row.get('checksum'));
  const known = summaries.get(sum);
  if (known) return known;
  const made = await readFileApart({ kind: 'summary', of: kind, bytes });
  const [oldest] = summaries.keys();
  if (summaries.size >= MOST_SUMMARIES && oldest !== undefined) summaries.delete(oldest);
  summaries.set(sum, made);
  return made;
}

/** A stored log of decodes. @throws NotFoundError, RequestError for a log of another kind */
async function storedDecodes(db: Database, id: number) {
  const log = await storedLog(db, id);
  if (log.kind !== 'decodes') throw new RequestError('This log holds no decodes. Choose one that does.');
  return log;
}

/** Statistics, reach and doubts of a log of decodes, from the place of its station. */
export async function decodesOf(db: Database, id: number) {
  const { row, bytes } = await storedDecodes(db, id);
  const station = await findStation(db, Number(row.get('stationId')));
  const home = { latDeg: Number(station.get('latDeg')), lonDeg: Number(station.get('lonDeg')) };
  return readFileApart({ kind: 'decodes', bytes, home });
}

/** Two logs of decodes, slot by slot. */
export async function slotsOf(db: Database, id: number, otherId: number, slotS: number) {
  const [one, other] = await Promise.all([storedDecodes(db, id), storedDecodes(db, otherId)]);
  return readFileApart({ kind: 'slots', bytes: one.bytes, other: other.bytes, slotS });
}
