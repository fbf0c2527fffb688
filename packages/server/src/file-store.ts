import { createHash, randomUUID } from 'node:crypto';
import type { ResourceName } from '@velvet-reed/contract';
import type { Transaction } from 'sequelize';
import type { Database, Row } from './database';
import { findStation, present } from './records';
import { RequestError } from './refusals';

/** A file as it arrived. */
export interface ArrivedFile {
  readonly name: string;
  readonly bytes: Buffer;
}

export const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** Row of a stored file. */
export const fileValues = ({ name, bytes }: ArrivedFile) => ({
  name,
  size: bytes.length,
  sha256: sha256(bytes),
  bytes,
});

/** Writes records of one batch with their place in the history, so that one undo takes them all back. */
export function batchWriter(db: Database, transaction: Transaction, stationId: number) {
  const batch = randomUUID();
  return async (resource: ResourceName, values: Record<string, unknown>): Promise<Row> => {
    const row = await db.tables[resource].create({ ...values, stationId }, { transaction });
    await db.edits.create(
      {
        stationId,
        batch,
        resource,
        recordId: Number(row.get('id')),
        op: 'create',
        before: null,
        after: { name: values.name ?? null },
        createdAt: new Date(),
        undoneAt: null,
      },
      { transaction },
    );
    return row;
  };
}

/** Refuses what browsers cannot draw. @throws RequestError for a file that is neither PNG nor JPEG. */
export function requirePicture(file: ArrivedFile, remedy: string): void {
  if (!PICTURE_STARTS.some((start) => start.every((byte, i) => file.bytes[i] === byte)))
    throw new RequestError(`This file is no PNG or JPEG picture. ${remedy}`);
}

/** First bytes of the picture formats that browsers draw. */
const PICTURE_STARTS: readonly (readonly number[])[] = [
  [0x89, 0x50, 0x4e, 0x47],
  [0xff, 0xd8, 0xff],
];
/** Width that a picture is laid out with until it is scaled, m. */
const START_WIDTH_M = 60;

/**
 * Stores a picture and lays it under the plan, all or none.
 * @throws RequestError for a file that is neither PNG nor JPEG.
 */
export async function importPicture(db: Database, stationId: number, file: ArrivedFile) {
  await findStation(db, stationId);
  requirePicture(file, 'Save the aerial picture as one of these.');
  return db.write(async (transaction) => {
    const write = batchWriter(db, transaction, stationId);
    const attachment = await write('attachments', fileValues(file));
    const row = await write('plotFeatures', {
      name: file.name.slice(0, 80),
      kind: 'picture',
      points: [[0, 0]],
      heightM: 0,
      endHeightM: 0,
      clearanceM: 0,
      widthM: START_WIDTH_M,
      antennaId: null,
      attachmentId: Number(attachment.get('id')),
    });
    await write('entries', { stage: 'plot', text: `Laid ${file.name} under the plan.`, atMs: Date.now() });
    return present(row, 'plotFeatures');
  });
}
