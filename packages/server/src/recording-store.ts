import { RESOURCES } from '@velvet-reed/contract';
import type { Transaction } from 'sequelize';
import { checkReferences, validated } from './changes';
import type { Database } from './database';
import { fileValues, type ArrivedFile } from './file-store';
import { batchWriter, type Author } from './history';
import { findStation, present } from './records';
import { madeBefore } from './sweep-import';

/** A recording with its file, and what was said of it. */
interface KeptRecording {
  readonly file: ArrivedFile;
  readonly said: Readonly<Record<string, unknown>>;
  readonly author: Author;
}

/** Stores a recording with its file inside a transaction; size and checksum are the file's own, whatever was said. */
export async function storeRecording(
  db: Database,
  transaction: Transaction,
  stationId: number,
  { file, said, author }: KeptRecording,
): Promise<Record<string, unknown>> {
  const before = await madeBefore(db, transaction, stationId, { author, resource: 'recordings' });
  if (before) return present(before, 'recordings');
  const write = batchWriter(db, transaction, stationId, author);
  const stored = fileValues(file);
  const attachment = await write('attachments', stored);
  const whole = await validated('recordings', {
    ...RESOURCES.recordings.blank,
    ...said,
    ...{ fileBytes: stored.size, checksum: stored.sha256, attachmentId: Number(attachment.get('id')) },
  });
  await checkReferences({ db, transaction, stationId }, 'recordings', whole);
  return present(await write('recordings', whole), 'recordings');
}

/** Keeps a recording with its file, all or none. */
export async function keepRecording(
  db: Database,
  stationId: number,
  kept: KeptRecording,
): Promise<Record<string, unknown>> {
  await findStation(db, stationId);
  return db.write((transaction) => storeRecording(db, transaction, stationId, kept));
}
