import { existsSync } from 'node:fs';
import path from 'node:path';
import { batchSchema, type Refusal } from '@velvet-reed/contract';
import { CoreError } from '@velvet-reed/core';
import compression from 'compression';
import express, { type ErrorRequestHandler, type Request, type RequestHandler } from 'express';
import helmet from 'helmet';
import multer, { MulterError } from 'multer';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { ValidationError } from 'yup';
import type { Database } from './database';
import { applyChanges, createStation, present, stationRecords, undoLast, updateStation } from './records';
import { NotFoundError, RequestError } from './refusals';
import { fileValues, importPicture, requirePicture, sha256, type ArrivedFile } from './file-store';
import type { Bench } from './instruments/bench';
import { instrumentRoutes } from './instruments/routes';
import { importSpectrum, importSweep, storeCalibration } from './sweep-import';

export interface AppOptions {
  readonly db: Database;
  readonly logger: Logger;
  /** Built interface; absent while developing. */
  readonly webDir?: string;
  /** Host names (without port) that requests may be addressed to. */
  readonly allowedHosts: readonly string[];
  /** Instruments within reach; absent in tests that need none. */
  readonly bench?: Bench;
}

/** Largest file taken: a 200,001-point Touchstone file is about 12 MB. */
const MAX_UPLOAD_BYTES = 16_000_000;
const CONTENT_SECURITY = {
  defaultSrc: ["'self'"],
  scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
  workerSrc: ["'self'"],
  connectSrc: ["'self'", 'data:', 'blob:'], // pdf fonts are fetched by address; exported blobs are read back
  styleSrc: ["'self'", "'unsafe-inline'"], // toasts and popovers place themselves by inline style
  imgSrc: ["'self'", 'data:', 'blob:'],
  fontSrc: ["'self'"],
  objectSrc: ["'none'"],
  baseUri: ["'none'"],
  formAction: ["'self'"],
  frameAncestors: ["'none'"],
};

/** A foreign page must not read or write here: the Host must be ours (DNS rebinding), and so must the Origin where one is sent. */
function sameOriginOnly(allowedHosts: readonly string[]): RequestHandler {
  const allowed = (host: string | undefined): boolean => {
    if (!host) return false;
    try {
      return allowedHosts.includes(new URL(`http://${host}`).hostname);
    } catch {
      return false;
    }
  };
  return (req, res, next) => {
    const { origin } = req.headers;
    const refuse = (code: string, message: string): void => {
      res.status(403).json({ code, message } satisfies Refusal);
    };
    if (!allowed(req.headers.host))
      refuse('FOREIGN_HOST', 'This address is not served here. Open the address that the server printed.');
    else if (origin !== undefined && (!URL.canParse(origin) || new URL(origin).host !== req.headers.host))
      refuse('FOREIGN_ORIGIN', 'Another page tried to reach this server. Open the address that the server printed.');
    else next();
  };
}

const numberParam = (req: Request, name: string): number => {
  const id = Number(req.params[name]);
  if (!Number.isInteger(id) || id < 1) throw new NotFoundError('page');
  return id;
};

const asRecord = (value: unknown): Record<string, unknown> => {
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    throw new RequestError('The request has no body. Send named values.');
  return Object.fromEntries(Object.entries(value));
};

/** JSON inside a field of a form. @throws RequestError */
function readJson(text: unknown): unknown {
  try {
    return JSON.parse(String(text));
  } catch {
    throw new RequestError('A field of the request is not valid JSON. Reload the page and try again.');
  }
}

/** The one place that turns an error into a status. */
const answerError =
  (logger: Logger): ErrorRequestHandler =>
  (error: unknown, _req, res, next) => {
    if (res.headersSent) return next(error);
    const answer = (status: number, refusal: Refusal): void => void res.status(status).json(refusal);
    if (error instanceof ValidationError) {
      const all = error.inner.length > 0 ? error.inner : [error];
      return answer(400, {
        code: 'VALIDATION',
        message: all[0].message,
        fields: all.map((one) => ({ field: one.path ?? '', message: one.message })),
      });
    }
    if (error instanceof CoreError) {
      const status =
        { NOT_FOUND: 404, STALE_WRITE: 409, IN_USE: 409, NOTHING_TO_UNDO: 409, REQUEST: 400, INSTRUMENT: 502 }[
          error.code
        ] ?? 422;
      return answer(status, {
        code: error.code,
        message: error.message,
        ...(error.field ? { fields: [{ field: error.field, message: error.message }] } : {}),
      });
    }
    if (error instanceof MulterError)
      return answer(413, {
        code: 'FILE_TOO_LARGE',
        message: `This file cannot be taken (${error.message}). Send one file of at most 16 MB; export fewer points.`,
      });
    if (error instanceof Error && 'type' in error && error.type === 'entity.too.large')
      return answer(413, { code: 'TOO_LARGE', message: 'This is too much at once. Save in parts.' });
    if (error instanceof SyntaxError && 'body' in error)
      return answer(400, { code: 'JSON', message: 'The request is not valid JSON. Reload the page and try again.' });
    logger.error(error);
    return answer(500, {
      code: 'INTERNAL',
      message: 'The server met a fault that it did not expect. Nothing was saved. Try again; the log says more.',
    });
  };

/** The whole HTTP application, without a listener. */
export function createApp({ db, logger, webDir, allowedHosts, bench }: AppOptions): express.Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(
    pinoHttp({
      logger,
      serializers: {
        req: (req: { method: string; url: string }) => ({ method: req.method, url: req.url }),
        res: (res: { statusCode: number }) => ({ statusCode: res.statusCode }),
      },
      customLogLevel: (_req, res, error) => (error || res.statusCode >= 500 ? 'error' : 'debug'),
    }),
  );
  app.use(sameOriginOnly(allowedHosts));
  app.use(
    helmet({
      contentSecurityPolicy: { useDefaults: false, directives: CONTENT_SECURITY },
      strictTransportSecurity: false, // plain http on the loopback interface
      crossOriginOpenerPolicy: { policy: 'same-origin' },
      crossOriginEmbedderPolicy: { policy: 'require-corp' },
    }),
  );
  app.use(compression({ level: 1 })); // mostly loopback: a tighter level costs more time than its bytes
  app.use(express.json({ limit: '1mb' }));
  app.use('/api', (_req, res, next) => {
    res.set('Cache-Control', 'no-store');
    next();
  });
  stationRoutes(app, db);
  fileRoutes(app, db);
  if (bench) instrumentRoutes(app, bench);
  app.use('/api', (_req, _res, next) => next(new NotFoundError('address')));
  if (webDir && existsSync(webDir)) serveInterface(app, webDir);
  app.use(answerError(logger));
  return app;
}

function stationRoutes(app: express.Express, db: Database): void {
  app.get('/api/health', async (_req, res) => {
    await db.sequelize.query('SELECT 1');
    res.json({ ok: true });
  });
  app.get('/api/stations', async (_req, res) => {
    const rows = await db.stations.findAll({ order: [['id', 'ASC']] });
    res.json(rows.map((row) => present(row)));
  });
  app.post('/api/stations', async (req, res) => {
    res.status(201).json(await createStation(db, req.body));
  });
  app.get('/api/stations/:station', async (req, res) => {
    res.json(await stationRecords(db, numberParam(req, 'station')));
  });
  app.patch('/api/stations/:station', async (req, res) => {
    const { version, ...changes } = asRecord(req.body);
    res.json(await updateStation(db, numberParam(req, 'station'), Number(version), changes));
  });
  app.post('/api/stations/:station/changes', async (req, res) => {
    const { changes, key } = await batchSchema.validate(req.body, { strict: true, abortEarly: false });
    res.json(await applyChanges(db, numberParam(req, 'station'), changes, { key }));
  });
  app.post('/api/stations/:station/undo', async (req, res) => {
    res.json(await undoLast(db, numberParam(req, 'station')));
  });
}

/** The uploaded file; multer reads its name as latin-1, browsers send utf-8. */
function arrived(req: Request, remedy: string): ArrivedFile {
  if (!req.file) throw new RequestError(`No file arrived. ${remedy}`);
  const name = path.basename(Buffer.from(req.file.originalname, 'latin1').toString('utf8')).slice(0, 120);
  return { name, bytes: req.file.buffer };
}

function fileRoutes(app: express.Express, db: Database): void {
  const upload = multer({
    storage: multer.memoryStorage(),
    limits: { fileSize: MAX_UPLOAD_BYTES, files: 1, fields: 4, fieldSize: 20_000 },
  });
  app.post('/api/stations/:station/sweeps', upload.single('file'), async (req, res) => {
    const file = arrived(req, 'Choose a Touchstone or CSV file.');
    const { antennaId, correction } = asRecord(req.body ?? {});
    const known = typeof correction === 'string' ? correction : 'file';
    if (!['file', 'raw', 'corrected', 'interpolated'].includes(known))
      throw new RequestError('Say whether the sweep is raw, corrected or interpolated.', 'correction');
    const owner = antennaId ? Number(antennaId) : null;
    res.status(201).json(await importSweep(db, numberParam(req, 'station'), file, owner, known));
  });
  app.post('/api/stations/:station/spectra', upload.single('file'), async (req, res) => {
    const file = arrived(req, 'Choose a CSV file with frequency and level.');
    const { antennaId, source, atMs } = asRecord(req.body ?? {});
    const saved = await importSpectrum(db, numberParam(req, 'station'), file, {
      antennaId: antennaId ? Number(antennaId) : null,
      source: String(source),
      atMs: Number(atMs),
    });
    res.status(201).json(saved);
  });
  app.post('/api/stations/:station/calibrations', upload.single('file'), async (req, res) => {
    const file = arrived(req, 'Measure open, short and load first.');
    const { values } = asRecord(req.body ?? {});
    const named = asRecord(readJson(values));
    res.status(201).json(await storeCalibration(db, numberParam(req, 'station'), file.bytes, named));
  });
  app.post('/api/stations/:station/photo-changes', upload.single('file'), async (req, res) => {
    const photo = arrived(req, 'Take a photo, or save without one.');
    requirePicture(photo, 'Take the photo as JPEG.');
    const body = readJson(asRecord(req.body ?? {}).batch);
    const { changes, key } = await batchSchema.validate(body, { strict: true, abortEarly: false });
    res.json(await applyChanges(db, numberParam(req, 'station'), changes, { key, photo: fileValues(photo) }));
  });
  app.post('/api/stations/:station/pictures', upload.single('file'), async (req, res) => {
    const file = arrived(req, 'Choose a PNG or JPEG picture.');
    res.status(201).json(await importPicture(db, numberParam(req, 'station'), file));
  });
  for (const resource of ['sweeps', 'spectra', 'calibrations'] as const)
    app.get(`/api/${resource}/:record/samples`, async (req, res) => {
      const row = await db.tables[resource].findByPk(numberParam(req, 'record'));
      if (!row) throw new NotFoundError('record');
      res.type('application/octet-stream').send(row.get('samples'));
    });
  app.get('/api/attachments/:file/bytes', async (req, res) => {
    const row = await db.tables.attachments.findByPk(numberParam(req, 'file'));
    if (!row) throw new NotFoundError('file');
    res.attachment(String(row.get('name'))).send(row.get('bytes'));
  });
  app.get('/api/attachments/:file/check', async (req, res) => {
    const row = await db.tables.attachments.findByPk(numberParam(req, 'file'));
    if (!row) throw new NotFoundError('file');
    const bytes = row.get('bytes');
    const found = Buffer.isBuffer(bytes) ? sha256(bytes) : '';
    res.json({ recorded: row.get('sha256'), found, same: found === row.get('sha256') });
  });
}

function serveInterface(app: express.Express, webDir: string): void {
  app.use(
    '/assets',
    express.static(path.join(webDir, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }),
  );
  app.use(express.static(webDir, { index: 'index.html', maxAge: 0 }));
  app.get('/{*path}', (_req, res) => {
    res.sendFile(path.join(webDir, 'index.html'));
  });
}
