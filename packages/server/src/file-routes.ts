import path from 'node:path';
import { readBatch } from '@velvet-reed/contract';
import type { Express, Request, RequestHandler, Response } from 'express';
import multer, { MulterError } from 'multer';
import { applyChanges } from './changes';
import type { Database } from './database';
import { requireSum } from './file-identity';
import { importPicture, pictureType, pictureValues, requirePicture, sha256, type ArrivedFile } from './file-store';
import { FileTooLargeError, NotFoundError, RequestError } from './refusals';
import { answerOf, asRecord, authorOf, numberParam, optionalId, readJson, revisionParam } from './request-values';
import { keepRecording } from './recording-store';
import { decodesOf, importLog, logKind, logRows, logSummary, pageNumber, slotsOf } from './log-import';
import { stationFileRoutes } from './station-file/routes';
import { importSpectrum, importSweep, storeCalibration } from './sweep-import';

/** Largest file taken: a 200,001-point Touchstone file is about 12 MB. */
const MAX_UPLOAD_BYTES = 16_000_000;
// eslint-disable-next-line no-control-regex -- they are what is taken out
const CONTROL = /[\u0000-\u001f\u007f]/g;

/** The uploaded files; multer reads their names as latin-1, browsers send utf-8. */
function arrivedFiles(req: Request, remedy: string): readonly ArrivedFile[] {
  if (!Array.isArray(req.files) || req.files.length === 0) throw new RequestError(`No file arrived. ${remedy}`);
  return req.files.map(({ originalname, buffer }) => {
    const told = Buffer.from(originalname, 'latin1').toString('utf8');
    // control characters, a NUL among them, are no part of a name
    const name = path.basename(told).replace(CONTROL, '').trim().slice(0, 120);
    return { name: name === '' ? 'file' : name, bytes: buffer };
  });
}
const arrived = (req: Request, remedy: string): ArrivedFile => arrivedFiles(req, remedy)[0];

/** A long log has up to a million rows. */
const MAX_LOG_BYTES = 80_000_000;

/** A recording is kept up to this; a longer one stays where it is and only its settings are kept. */
const MAX_RECORDING_BYTES = 64_000_000;

/** Photos of one entry, each with a small one beside it. */
const MOST_PHOTOS = 12;

/** A station with years of recordings. */
const MAX_STATION_BYTES = 800_000_000;

/** By its checksum an address names these very bytes for ever; without it the browser has to ask. @throws OtherBytesError */
const keepBySum = (req: Request, res: Response, checksum: unknown): void => {
  res.set('Cache-Control', requireSum(req, checksum) ? 'private, max-age=31536000, immutable' : 'private, no-cache');
};

/** Files that come in, samples and bytes that go out. */
export function fileRoutes(app: Express, db: Database): void {
  /** Takes one file. A form that ends in the middle is the sender's fault, whatever the parser calls it. */
  const uploadOf = (fileSize: number, remedy: string, files = 1): RequestHandler => {
    const taken = multer({
      storage: multer.memoryStorage(),
      limits: { fileSize, files, fields: 8, fieldSize: 4_000_000, parts: 9 + files },
    }).array('file', files);
    return (req, res, next) =>
      taken(req, res, (error: unknown) => {
        if (error === undefined || error === null) next();
        else if (error instanceof MulterError)
          next(error.code === 'LIMIT_FILE_SIZE' ? new FileTooLargeError(fileSize, remedy) : error);
        else next(new RequestError('The file did not arrive whole. Choose it again.'));
      });
  };
  const upload = uploadOf(MAX_UPLOAD_BYTES, 'Export fewer points.');
  stationFileRoutes(app, db, {
    upload: uploadOf(MAX_STATION_BYTES, 'Save the station without its recordings.'),
    arrived: (req) => arrived(req, 'Choose a station file.'),
  });
  const fields = (req: Request): Record<string, unknown> => asRecord({ ...(req.body ?? {}) });
  app.post('/api/stations/:station/sweeps', upload, async (req, res) => {
    const file = arrived(req, 'Choose a Touchstone or CSV file.');
    const { antennaId, correction = 'file', answer, measuredMs, calibrationId, ...names } = fields(req);
    const known = ['file', 'raw', 'corrected', 'interpolated'].find((one) => one === correction);
    if (known === undefined)
      throw new RequestError('Say whether the sweep is raw, corrected or interpolated.', 'correction');
    const origin = {
      antennaId: optionalId(antennaId, 'antennaId'),
      correction: known,
      measuredMs: measuredMs === undefined || measuredMs === '' ? null : Number(measuredMs),
      calibrationId: optionalId(calibrationId, 'calibrationId'),
      answer: await answerOf(answer),
    };
    res.status(201).json(await importSweep(db, numberParam(req, 'station'), file, origin, authorOf(req, names)));
  });
  app.post('/api/stations/:station/spectra', upload, async (req, res) => {
    const file = arrived(req, 'Choose a CSV file with frequency and level.');
    const { antennaId, source, atMs, answer, ...names } = fields(req);
    const origin = {
      antennaId: optionalId(antennaId, 'antennaId'),
      source: String(source),
      atMs: Number(atMs),
      answer: await answerOf(answer),
    };
    res.status(201).json(await importSpectrum(db, numberParam(req, 'station'), file, origin, authorOf(req, names)));
  });
  app.post(
    '/api/stations/:station/logs',
    uploadOf(MAX_LOG_BYTES, 'Cut it into parts, by day or by month.'),
    async (req, res) => {
      const file = arrived(req, 'Choose a CSV file with a heading row.');
      const { kind, values, answer, ...names } = fields(req);
      const origin = {
        kind: logKind(kind),
        values: asRecord(readJson(values ?? '{}')),
        answer: await answerOf(answer),
      };
      res.status(201).json(await importLog(db, numberParam(req, 'station'), file, origin, authorOf(req, names)));
    },
  );
  app.post(
    '/api/stations/:station/recordings',
    uploadOf(MAX_RECORDING_BYTES, 'Leave it where it is: its settings and results are kept without it.'),
    async (req, res) => {
      const file = arrived(req, 'Choose a recording.');
      const { values, ...names } = fields(req);
      const said = asRecord(readJson(values ?? '{}'));
      res
        .status(201)
        .json(await keepRecording(db, numberParam(req, 'station'), { file, said, author: authorOf(req, names) }));
    },
  );
  app.get('/api/logs/:record/rows', async (req, res) => {
    const [from, count] = [pageNumber(req.query.from, 0), pageNumber(req.query.count, 100)];
    res.json(await logRows(db, numberParam(req, 'record'), from, count));
  });
  app.get('/api/logs/:record/summary', async (req, res) => {
    res.json(await logSummary(db, numberParam(req, 'record')));
  });
  app.get('/api/logs/:record/decodes', async (req, res) => {
    res.json(await decodesOf(db, numberParam(req, 'record')));
  });
  app.get('/api/logs/:record/slots', async (req, res) => {
    const [other, slotS] = [pageNumber(req.query.with, 0), pageNumber(req.query.slot, 0)];
    res.json(await slotsOf(db, numberParam(req, 'record'), other, slotS));
  });
  app.post('/api/stations/:station/calibrations', upload, async (req, res) => {
    const { bytes } = arrived(req, 'Measure open, short and load first.');
    const { values, ...names } = fields(req);
    const named = asRecord(readJson(values));
    const saved = await storeCalibration(db, numberParam(req, 'station'), {
      bytes,
      named,
      author: authorOf(req, names),
    });
    res.status(201).json(saved);
  });
  app.post(
    '/api/stations/:station/photo-changes',
    uploadOf(MAX_UPLOAD_BYTES, 'Take the photos smaller, or in several entries.', MOST_PHOTOS),
    async (req, res) => {
      const photos = arrivedFiles(req, 'Take a photo, or save without one.').map((photo) => {
        requirePicture(photo, 'Take the photo as JPEG.');
        return pictureValues(photo);
      });
      const { changes, ...names } = await readBatch(readJson(fields(req).batch));
      const batch = { changes, author: authorOf(req, names), photos };
      res.json(await applyChanges(db, numberParam(req, 'station'), batch, revisionParam(req)));
    },
  );
  app.post('/api/stations/:station/pictures', upload, async (req, res) => {
    const file = arrived(req, 'Choose a PNG or JPEG picture.');
    res.status(201).json(await importPicture(db, numberParam(req, 'station'), file, authorOf(req, fields(req))));
  });
  for (const resource of ['sweeps', 'spectra', 'calibrations'] as const)
    app.get(`/api/${resource}/:record/samples`, async (req, res) => {
      const row = await db.tables[resource].findByPk(numberParam(req, 'record'));
      if (!row) throw new NotFoundError('record');
      keepBySum(req, res, row.get('checksum'));
      res.type('application/octet-stream').send(row.get('samples'));
    });
  app.get('/api/attachments/:file/bytes', async (req, res) => {
    const row = await db.tables.attachments.findByPk(numberParam(req, 'file'));
    if (!row) throw new NotFoundError('file');
    keepBySum(req, res, row.get('sha256'));
    const name = String(row.get('name'));
    const bytes = row.get('bytes');
    // pictures are drawn by pages; anything else is only ever saved, whatever its name pretends to be
    res
      .attachment(name)
      .type(Buffer.isBuffer(bytes) ? pictureType(bytes) : 'application/octet-stream')
      .send(bytes);
  });
  app.get('/api/attachments/:file/check', async (req, res) => {
    const row = await db.tables.attachments.findByPk(numberParam(req, 'file'));
    if (!row) throw new NotFoundError('file');
    const bytes = row.get('bytes');
    const found = Buffer.isBuffer(bytes) ? sha256(bytes) : '';
    res.json({ recorded: row.get('sha256'), found, same: found === row.get('sha256') });
  });
}
