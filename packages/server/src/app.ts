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
import { importPicture, sha256, type ArrivedFile } from './file-store';
import { importSweep } from './sweep-import';

export interface AppOptions {
  readonly db: Database;
  readonly logger: Logger;
  /** Built interface; absent while developing. */
  readonly webDir?: string;
  /** Host names (without port) that requests may be addressed to. */
  readonly allowedHosts: readonly string[];
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
        { NOT_FOUND: 404, STALE_WRITE: 409, IN_USE: 409, NOTHING_TO_UNDO: 409, REQUEST: 400 }[error.code] ?? 422;
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
export function createApp({ db, logger, webDir, allowedHosts }: AppOptions): express.Express {
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
    const { changes } = await batchSchema.validate(req.body, { strict: true, abortEarly: false });
    res.json(await applyChanges(db, numberParam(req, 'station'), changes));
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
    limits: { fileSize: MAX_UPLOAD_BYTES, files: 1, fields: 4, fieldSize: 200 },
  });
  app.post('/api/stations/:station/sweeps', upload.single('file'), async (req, res) => {
    const file = arrived(req, 'Choose a Touchstone or CSV file.');
    const { antennaId } = asRecord(req.body ?? {});
    const saved = await importSweep(db, numberParam(req, 'station'), file, antennaId ? Number(antennaId) : null);
    res.status(201).json(saved);
  });
  app.post('/api/stations/:station/pictures', upload.single('file'), async (req, res) => {
    const file = arrived(req, 'Choose a PNG or JPEG picture.');
    res.status(201).json(await importPicture(db, numberParam(req, 'station'), file));
  });
  app.get('/api/sweeps/:sweep/samples', async (req, res) => {
    const row = await db.tables.sweeps.findByPk(numberParam(req, 'sweep'));
    if (!row) throw new NotFoundError('sweep');
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
