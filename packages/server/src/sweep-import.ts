import {
  packCalibration,
  packSamples,
  packSpectrum,
  SCHEMAS,
  unpackCalibration,
  unpackSamples,
} from '@velvet-reed/contract';
import {
  dipShiftHz,
  findResonances,
  frequencyText,
  readSpectrumCsv,
  readSweepText,
  shiftText,
  summariseSweep,
  type SweepData,
} from '@velvet-reed/core';
import type { Transaction } from 'sequelize';
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
  correction = 'file',
) {
  await findStation(db, stationId);
  if (file.bytes.includes(0))
    throw new RequestError('This file is not text. Export the sweep as Touchstone (.s1p) or CSV.');
  const sweep = readSweepText(file.bytes.toString('utf8'));
  const { points, startHz, stopHz, resonances } = summariseSweep(sweep);
  const dip = resonances[0];
  const story = `${correction === 'file' ? 'Imported' : 'Swept'} ${file.name}: ${points} points, ${frequencyText(startHz)} to ${frequencyText(stopHz)}; ${
    dip ? `dip at ${frequencyText(dip.freqHz, 4)}, SWR ${dip.swr?.toFixed(2) ?? 'infinite'}` : 'no resonance inside'
  }.`;
  return db.write(async (transaction) => {
    await requireAntenna(db, transaction, stationId, antennaId);
    const moved = await movement(db, transaction, { stationId, antennaId, sweep });
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
      correction,
      attachmentId: Number(attachment.get('id')),
      samples: Buffer.from(packSamples(sweep)),
    });
    await write('entries', { stage: 'bench', text: story + moved, atMs: Date.now() });
    return present(row, 'sweeps');
  });
}

/** How far the dip moved since the antenna's last sweep, as a sentence; empty when there is nothing to compare. */
async function movement(
  db: Database,
  transaction: Transaction,
  {
    stationId,
    antennaId,
    sweep,
  }: { readonly stationId: number; readonly antennaId: number | null; readonly sweep: SweepData },
): Promise<string> {
  if (antennaId === null) return '';
  const last = await db.tables.sweeps.findOne({
    where: { stationId, antennaId },
    order: [['id', 'DESC']],
    transaction,
  });
  const bytes = last?.get('samples');
  if (!last || !Buffer.isBuffer(bytes)) return '';
  const shiftHz = dipShiftHz(
    findResonances(unpackSamples(bytes, Number(last.get('referenceOhm')))),
    findResonances(sweep),
  );
  return shiftHz === undefined ? '' : ` Since ${String(last.get('name'))}: ${shiftText(shiftHz)}.`;
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

/** Stores a recorded spectrum with its raw file, all or none. @throws SweepFileError with the line number. */
export async function importSpectrum(
  db: Database,
  stationId: number,
  file: { name: string; bytes: Buffer },
  { antennaId, source, atMs }: { readonly antennaId: number | null; readonly source: string; readonly atMs: number },
) {
  await findStation(db, stationId);
  if (file.bytes.includes(0)) throw new RequestError('This file is not text. Export the spectrum as CSV.');
  const spectrum = readSpectrumCsv(file.bytes.toString('utf8'));
  const n = spectrum.freqHz.length;
  const values = {
    name: file.name,
    antennaId,
    points: n,
    startHz: spectrum.freqHz[0],
    stopHz: spectrum.freqHz[n - 1],
    source,
    atMs,
    attachmentId: 1,
  };
  await SCHEMAS.spectra.validate(values, { strict: true });
  return db.write(async (transaction) => {
    await requireAntenna(db, transaction, stationId, antennaId);
    const write = batchWriter(db, transaction, stationId);
    const attachment = await write('attachments', fileValues(file));
    const row = await write('spectra', {
      ...values,
      attachmentId: Number(attachment.get('id')),
      samples: Buffer.from(packSpectrum(spectrum)),
    });
    const where = `${frequencyText(values.startHz)} to ${frequencyText(values.stopHz)}`;
    const state = source === 'none' ? '' : `, noise source ${source}`;
    await write('entries', { stage: 'bench', text: `Recorded ${file.name}: ${n} points, ${where}${state}.`, atMs });
    return present(row, 'spectra');
  });
}

/** Stores a calibration; its readings come as bytes. @throws ShapeError for bytes that are no whole calibration. */
export async function storeCalibration(db: Database, stationId: number, bytes: Buffer, named: Record<string, unknown>) {
  await findStation(db, stationId);
  const { freqHz, readings } = unpackCalibration(bytes);
  const n = freqHz.length;
  const ascends = freqHz.every((freq, i) => i === 0 || freq > freqHz[i - 1]);
  if (n < 2 || !ascends) throw new RequestError('The readings of the standards are incomplete. Calibrate again.');
  const values = await SCHEMAS.calibrations
    .noUnknown()
    .validate({ ...named, points: n, startHz: freqHz[0], stopHz: freqHz[n - 1] }, { strict: true, abortEarly: false });
  return db.write(async (transaction) => {
    const write = batchWriter(db, transaction, stationId);
    const row = await write('calibrations', { ...values, samples: Buffer.from(packCalibration({ freqHz, readings })) });
    return present(row, 'calibrations');
  });
}
