import { packCalibration, RESOURCES, SCHEMAS, unpackCalibration } from '@velvet-reed/contract';
import type { TableAnswer } from '@velvet-reed/core/formats';
import type { Transaction } from 'sequelize';
import { checkReferences, validated } from './changes';
import type { Database, Row } from './database';
import { readFileApart } from './file-reader';
import { fileValues, sha256, type ArrivedFile } from './file-store';
import type { FileContent } from './file-work';
import { batchWriter, knownBatch, noteEdit, type Author } from './history';
import { findStation, present, STRICT, valuesOf } from './records';
import { NotFoundError, RequestError } from './refusals';

/** What is said of a sweep beside its file. */
export interface SweepOrigin {
  readonly antennaId: number | null;
  readonly correction: string;
  /** When it was measured, as far as the client knows. */
  readonly measuredMs: number | null;
  readonly calibrationId: number | null;
  /** What the person said of the table. */
  readonly answer?: TableAnswer;
}

/** Reads a sweep's file in the thread for files; nothing is written. @throws FileRefusedError with the line number. */
export async function readSweepFile(
  db: Database,
  stationId: number,
  file: ArrivedFile,
  { antennaId, answer }: Pick<SweepOrigin, 'antennaId' | 'answer'>,
): Promise<FileContent> {
  const last =
    antennaId === null
      ? null
      : await db.tables.sweeps.findOne({ where: { stationId, antennaId }, order: [['id', 'DESC']] });
  const samples = last?.get('samples');
  return readFileApart({
    kind: 'sweep',
    bytes: file.bytes,
    answer,
    ...(last && Buffer.isBuffer(samples)
      ? { last: { name: String(last.get('name')), samples, referenceOhm: Number(last.get('referenceOhm')) } }
      : {}),
  });
}

/** What a batch made once before, when its answer was lost on the way. */
export async function madeBefore(
  db: Database,
  transaction: Transaction,
  stationId: number,
  {
    author,
    resource,
  }: { readonly author: Author; readonly resource: 'sweeps' | 'spectra' | 'calibrations' | 'logs' | 'recordings' },
): Promise<Row | undefined> {
  const known = await knownBatch(db, transaction, { stationId, batch: author.key });
  const edit = known?.find((one) => one.get('resource') === resource);
  return (edit && (await db.tables[resource].findByPk(Number(edit.get('recordId')), { transaction }))) ?? undefined;
}

/** A line of the notebook that the bench writes. */
const ENTRY = { ...RESOURCES.entries.blank, step: 'bench', room: 'bench/sweep' };

/** So many curves of an antenna stand on the screen by themselves. */
const MOST_SHOWN = 4;

/** Makes room on the screen for a new curve: the oldest of those shown are hidden, and can be shown again. */
async function hideOlder(
  db: Database,
  transaction: Transaction,
  { stationId, antennaId, author }: { stationId: number; antennaId: number | null; author: Author },
): Promise<void> {
  const older = await db.tables.sweeps.findAll({
    where: { stationId, antennaId, shown: true },
    attributes: { exclude: ['samples'] },
    order: [['id', 'DESC']],
    offset: MOST_SHOWN - 1,
    limit: 1000,
    transaction,
  });
  for (const row of older) {
    const before = valuesOf(row, 'sweeps');
    await row.update({ shown: false, version: Number(row.get('version')) + 1 }, { transaction });
    await noteEdit(db, transaction, {
      ...{ ...author, stationId, resource: 'sweeps', recordId: Number(row.get('id')), op: 'update' },
      ...{ before, after: { ...before, shown: false } },
    });
  }
}

/** Stores a sweep that was read with its raw file and a notebook entry, inside a transaction; checked by the schema that will read it. */
export async function storeSweep(
  db: Database,
  transaction: Transaction,
  stationId: number,
  {
    file,
    content,
    origin,
    author,
  }: {
    readonly file: ArrivedFile;
    readonly content: FileContent;
    readonly origin: SweepOrigin;
    readonly author: Author;
  },
): Promise<Record<string, unknown>> {
  const before = await madeBefore(db, transaction, stationId, { author, resource: 'sweeps' });
  if (before) return present(before, 'sweeps');
  const { samples, story, points, startHz, stopHz, referenceOhm, phaseKnown } = content;
  const { antennaId, correction, measuredMs, calibrationId } = origin;
  const header = {
    ...RESOURCES.sweeps.blank,
    name: file.name,
    antennaId,
    points,
    startHz,
    stopHz,
    referenceOhm,
    phaseKnown,
    shown: true,
    correction,
    measuredMs,
    calibrationId,
    checksum: sha256(samples),
  };
  await SCHEMAS.sweeps.omit(['attachmentId']).validate(header, STRICT);
  await requireAntenna(db, transaction, stationId, antennaId);
  await checkReferences({ db, transaction, stationId }, 'sweeps', header);
  await hideOlder(db, transaction, { stationId, antennaId, author });
  const revisionId: unknown =
    antennaId === null ? null : await db.tables.revisions.max('id', { where: { stationId, antennaId }, transaction });
  const write = batchWriter(db, transaction, stationId, author);
  const attachment = await write('attachments', fileValues(file));
  const row = await write('sweeps', {
    ...header,
    revisionId,
    attachmentId: Number(attachment.get('id')),
    samples: Buffer.from(samples),
  });
  const text = `${correction === 'file' ? 'Imported' : 'Swept'} ${file.name}: ${story}`;
  await write('entries', { ...ENTRY, text, atMs: Date.now(), antennaId });
  return present(row, 'sweeps');
}

/**
 * Stores a sweep with its raw file and a notebook entry, all or none. The text is parsed before anything is written.
 * @throws FileRefusedError with the line number, or for bytes that are not text.
 */
export async function importSweep(
  db: Database,
  stationId: number,
  file: ArrivedFile,
  origin: SweepOrigin,
  author: Author,
): Promise<Record<string, unknown>> {
  await findStation(db, stationId);
  const content = await readSweepFile(db, stationId, file, origin);
  return db.write((transaction) => storeSweep(db, transaction, stationId, { file, content, origin, author }));
}

async function requireAntenna(
  db: Database,
  transaction: Transaction,
  stationId: number,
  antennaId: number | null,
): Promise<void> {
  if (antennaId === null) return;
  if ((await db.tables.antennas.count({ where: { id: antennaId, stationId }, transaction })) === 0)
    throw new NotFoundError('antenna');
}

/** What is said of a spectrum beside its file. */
export interface SpectrumOrigin {
  readonly antennaId: number | null;
  readonly source: string;
  readonly atMs: number;
  readonly answer?: TableAnswer;
}

/** Stores a recorded spectrum with its raw file, all or none. @throws FileRefusedError with the line number. */
export async function importSpectrum(
  db: Database,
  stationId: number,
  file: ArrivedFile,
  { antennaId, source, atMs, answer }: SpectrumOrigin,
  author: Author,
): Promise<Record<string, unknown>> {
  await findStation(db, stationId);
  const { points, startHz, stopHz, samples, story } = await readFileApart({
    kind: 'spectrum',
    bytes: file.bytes,
    answer,
  });
  const checksum = sha256(samples);
  const header = {
    ...RESOURCES.spectra.blank,
    name: file.name,
    antennaId,
    points,
    startHz,
    stopHz,
    source,
    atMs,
    checksum,
  };
  await SCHEMAS.spectra.omit(['attachmentId']).validate(header, STRICT);
  return db.write(async (transaction) => {
    const before = await madeBefore(db, transaction, stationId, { author, resource: 'spectra' });
    if (before) return present(before, 'spectra');
    await requireAntenna(db, transaction, stationId, antennaId);
    const write = batchWriter(db, transaction, stationId, author);
    const attachment = await write('attachments', fileValues(file));
    const row = await write('spectra', {
      ...header,
      attachmentId: Number(attachment.get('id')),
      samples: Buffer.from(samples),
    });
    const state = source === 'none' ? '' : `, noise source ${source}`;
    await write('entries', {
      ...ENTRY,
      text: `Recorded ${file.name}: ${story}${state}.`,
      atMs,
      antennaId,
    });
    return present(row, 'spectra');
  });
}

/** Stores a calibration; its readings come as bytes. @throws ShapeError for bytes that are no whole calibration. */
export async function storeCalibration(
  db: Database,
  stationId: number,
  {
    bytes,
    named,
    author,
  }: { readonly bytes: Buffer; readonly named: Record<string, unknown>; readonly author: Author },
): Promise<Record<string, unknown>> {
  await findStation(db, stationId);
  const { freqHz, readings } = unpackCalibration(bytes);
  const n = freqHz.length;
  const ascends = freqHz.every((freq, i) => i === 0 || freq > freqHz[i - 1]);
  const finite = Object.values(readings).every(({ re, im }) => re.every(Number.isFinite) && im.every(Number.isFinite));
  if (n < 2 || !ascends || !finite)
    throw new RequestError('The readings of the standards are incomplete. Calibrate again.');
  const packed = Buffer.from(packCalibration({ freqHz, readings }));
  const read = { points: n, startHz: freqHz[0], stopHz: freqHz[n - 1], checksum: sha256(packed) };
  const values = await validated('calibrations', { ...named, ...read });
  return db.write(async (transaction) => {
    const before = await madeBefore(db, transaction, stationId, { author, resource: 'calibrations' });
    if (before) return present(before, 'calibrations');
    await checkReferences({ db, transaction, stationId }, 'calibrations', values);
    const write = batchWriter(db, transaction, stationId, author);
    const row = await write('calibrations', { ...values, samples: packed });
    return present(row, 'calibrations');
  });
}
