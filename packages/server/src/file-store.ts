import { createHash } from 'node:crypto';
import { RESOURCES } from '@velvet-reed/contract';
import type { Database } from './database';
import { batchWriter, knownBatch, type Author } from './history';
import { findStation, present } from './records';
import { withoutMetadata } from './picture-metadata';
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

/** First bytes of the picture formats that browsers draw. */
const PICTURES = [
  { type: 'image/png', start: [0x89, 0x50, 0x4e, 0x47] },
  { type: 'image/jpeg', start: [0xff, 0xd8, 0xff] },
] as const;

/** Content type by what the bytes are, not by what the file is called. */
export const pictureType = (bytes: Uint8Array): string =>
  PICTURES.find(({ start }) => start.every((byte, i) => bytes[i] === byte))?.type ?? 'application/octet-stream';

/** Refuses what browsers cannot draw. @throws RequestError for a file that is neither PNG nor JPEG. */
export function requirePicture(file: ArrivedFile, remedy: string): void {
  if (pictureType(file.bytes) === 'application/octet-stream')
    throw new RequestError(`This file is not a PNG or JPEG picture. ${remedy}`);
}

/** Row of a stored picture: what it tells beside the picture, such as where it was taken, is not kept, whatever way it came in. */
export const pictureValues = ({ name, bytes }: ArrivedFile) => fileValues({ name, bytes: withoutMetadata(bytes) });

/** Width that a picture is laid out with until it is scaled, m. */
const START_WIDTH_M = 60;

/**
 * Stores a picture and lays it under the plan, all or none.
 * @throws RequestError for a file that is neither PNG nor JPEG.
 */
export async function importPicture(db: Database, stationId: number, file: ArrivedFile, author: Author) {
  await findStation(db, stationId);
  requirePicture(file, 'Save the aerial picture as one of these.');
  return db.write(async (transaction) => {
    if (await knownBatch(db, transaction, { stationId, batch: author.key })) return {};
    const write = batchWriter(db, transaction, stationId, author);
    const attachment = await write('attachments', pictureValues(file));
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
    const text = `Laid ${file.name} under the plan.`;
    await write('entries', { ...RESOURCES.entries.blank, step: 'plot', room: 'plot/plan', text, atMs: Date.now() });
    return present(row, 'plotFeatures');
  });
}
