import { packSamples } from '@velvet-reed/contract';
import { frequencyText, readSweepText, summariseSweep } from '@velvet-reed/core';
import type { Database } from './database';
import { batchWriter, fileValues } from './file-store';
import { findStation, present } from './records';
import { NotFoundError, RequestError } from './refusals';

/**
 * Stores a sweep with its raw file and a notebook entry, all or none. The text is parsed before anything is written.
 * @throws SweepFileError with the line number; RequestError for bytes that are not text.
 */
export async function importSweep(
  db: Database,
  stationId: number,
  file: { name: string; bytes: Buffer },
  antennaId: number | null,
) {
  await findStation(db, stationId);
  if (file.bytes.includes(0))
    throw new RequestError('This file is not text. Export the sweep as Touchstone (.s1p) or CSV.');
  const sweep = readSweepText(file.bytes.toString('utf8'));
  const { points, startHz, stopHz, resonances } = summariseSweep(sweep);
  const dip = resonances[0];
  const story = `Imported ${file.name}: ${points} points, ${frequencyText(startHz)} to ${frequencyText(stopHz)}; ${
    dip ? `dip at ${frequencyText(dip.freqHz, 4)}, SWR ${dip.swr?.toFixed(2) ?? 'infinite'}` : 'no resonance inside'
  }.`;
  return db.write(async (transaction) => {
    if (
      antennaId !== null &&
      (await db.tables.antennas.count({ where: { id: antennaId, stationId }, transaction })) === 0
    )
      throw new NotFoundError('antenna');
    const write = batchWriter(db, transaction, stationId);
    const attachment = await write('attachments', fileValues(file));
    const row = await write('sweeps', {
      name: file.name,
      antennaId,
      points,
      startHz,
      stopHz,
      referenceOhm: sweep.referenceOhm,
      phaseKnown: sweep.phaseKnown,
      shown: true,
      attachmentId: Number(attachment.get('id')),
      samples: Buffer.from(packSamples(sweep)),
    });
    await write('entries', { stage: 'bench', text: story, atMs: Date.now() });
    return present(row, 'sweeps');
  });
}
