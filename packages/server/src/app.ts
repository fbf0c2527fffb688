import { randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import path from 'node:path';
import { answerSchema, readBatch, RESOURCE_NAMES, undoSchema, type Refusal } from '@velvet-reed/contract';
import { CoreError } from '@velvet-reed/core/errors';
import type { TableAnswer } from '@velvet-reed/core/formats';
import compression from 'compression';
import express, { type ErrorRequestHandler, type Request, type RequestHandler } from 'express';
import helmet from 'helmet';
import multer, { MulterError } from 'multer';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { ValidationError } from 'yup';
import { requireModest } from './body-limits';
import { applyChanges, deletionPreview } from './changes';
import { dataFileFault, type KeptCopy } from './data-file';
import type { Database } from './database';
import { FileRefusedError } from './file-reader';
import { fileValues, importPicture, pictureType, requirePicture, sha256, type ArrivedFile } from './file-store';
import { undo, type Author } from './history';
import type { Bench } from './instruments/bench';
import { instrumentRoutes } from './instruments/routes';
import { createStation, deletedStations, deleteStation, present, updateStation } from './records';
import { NoSuchAddressError, NotFoundError, RequestError } from './refusals';
import { stationDelta, stationRecords, stationTag } from './station-answer';
import { importSpectrum, importSweep, storeCalibration } from './sweep-import';
import { watchStation } from './watchers';

/** Where the stations are kept, for the page that tells it. */
interface DataPlace {
  readonly file: string;
  copies(): readonly KeptCopy[];
}

export interface AppOptions {
  readonly db: Database;
  readonly logger: Logger;
  /** Built interface; absent while developing. */
  readonly webDir?: string;
  /** Host names (without port) that requests may be addressed to. */
  readonly allowedHosts: readonly string[];
  /** The data folder; absent in tests that need none. */
  readonly place?: DataPlace;
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

/** A request that was turned away, for the list of refused requests. */
interface RefusedRequest {
  readonly atMs: number;
  readonly code: string;
  readonly from: string;
  readonly host: string;
  readonly origin: string;
}
/** So many are kept; older ones are in the log. */
const MOST_REFUSED = 100;

/** A foreign page must not read or write here: the Host must be ours (DNS rebinding), and so must the Origin where one is sent. */
function sameOriginOnly(allowedHosts: readonly string[], refused: RefusedRequest[], logger: Logger): RequestHandler {
  const allowed = (host: string | undefined): boolean => {
    if (!host) return false;
    try {
      return allowedHosts.includes(new URL(`http://${host}`).hostname);
    } catch {
      return false;
    }
  };
  return (req, res, next) => {
    const { origin, host } = req.headers;
    const refuse = (code: string, message: string): void => {
      const event = {
        atMs: Date.now(),
        code,
        from: String(req.socket.remoteAddress),
        host: String(host).slice(0, 200),
        origin: String(origin ?? '').slice(0, 200),
      };
      refused.push(event);
      if (refused.length > MOST_REFUSED) refused.shift();
      logger.warn(event, 'request refused');
      res.status(403).json({ code, message } satisfies Refusal);
    };
    if (!allowed(host))
      refuse('FOREIGN_HOST', 'This address is not served here. Open the address that the server printed.');
    else if (origin !== undefined && origin !== `http://${host}`)
      refuse('FOREIGN_ORIGIN', 'Another page tried to reach this server. Open the address that the server printed.');
    else next();
  };
}

const numberParam = (req: Request, name: string): number => {
  const id = Number(req.params[name]);
  if (!Number.isSafeInteger(id) || id < 1) throw new NoSuchAddressError();
  return id;
};

/** The revision of the station that the client knows; undefined when it knows none. */
function revisionParam(req: Request): number | undefined {
  const since = Number(req.query.since);
  return typeof req.query.since === 'string' && Number.isSafeInteger(since) && since >= 0 ? since : undefined;
}

const asRecord = (value: unknown): Record<string, unknown> => {
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    throw new RequestError('The request has no body. Send named values.');
  return Object.fromEntries(Object.entries(value));
};

/** JSON inside a field of a form. @throws RequestError */
function readJson(text: unknown): unknown {
  let value: unknown;
  try {
    value = JSON.parse(String(text));
  } catch {
    throw new RequestError('A field of the request is not valid JSON. Reload the page and try again.');
  }
  requireModest(value);
  return value;
}

const UUID = /^[0-9a-f-]{36}$/;
const uuidOf = (value: unknown): string | undefined =>
  typeof value === 'string' && UUID.test(value) ? value : undefined;
/** Names that the client gave to what it saves and to itself; a request without a name gets one, and cannot be asked for again. */
const authorOf = (named: Readonly<Record<string, unknown>>): Author => ({
  key: uuidOf(named.key) ?? randomUUID(),
  device: uuidOf(named.device) ?? '',
});

/** An id in a field of a form; empty: none. @throws RequestError for anything else. */
function optionalId(value: unknown, field: string): number | null {
  if (value === undefined || value === '') return null;
  const id = typeof value === 'string' ? Number(value) : NaN;
  if (!Number.isSafeInteger(id) || id < 1)
    throw new RequestError(
      `The ${field === 'antennaId' ? 'antenna' : 'calibration'} must be named once, by its number. Choose it again, or none.`,
      field,
    );
  return id;
}

/** What a person said of a table. @throws ValidationError */
async function answerOf(text: unknown): Promise<TableAnswer | undefined> {
  if (text === undefined || text === '') return undefined;
  return answerSchema.validate(readJson(text), { strict: true });
}

const CORE_STATUS: Readonly<Record<string, number>> = {
  ...{ NOT_FOUND: 404, NO_SUCH_ADDRESS: 404, STALE_WRITE: 409, IN_USE: 409, NOTHING_TO_UNDO: 409, UNDO_REFUSED: 409 },
  ...{ BATCH_UNDONE: 409, REQUEST: 400, READ_ONLY: 400, TOO_LARGE: 413, INSTRUMENT: 502, DATA_FILE: 507 },
};
/** Faults of the request that the libraries name by their status. */
const CLIENT_FAULTS: Readonly<Record<number, Refusal>> = {
  400: { code: 'BAD_REQUEST', message: 'The request cannot be read. Reload the page and try again.' },
  404: { code: 'NO_SUCH_ADDRESS', message: new NoSuchAddressError().message },
  405: { code: 'METHOD', message: 'This address does not do that. Reload the page and try again.' },
  413: { code: 'TOO_LARGE', message: 'This is too much at once. Save in parts.' },
  415: {
    code: 'ENCODING',
    message: 'The request is written in a way that is not read here. Send UTF-8 without compression.',
  },
};
/** Longest sentence and most fields of one answer. */
const LONGEST_SENTENCE = 600;
const MOST_FIELDS = 20;

const statusOf = (error: unknown): number | undefined => {
  if (error instanceof URIError) return 400;
  const named = typeof error === 'object' && error !== null && 'status' in error ? Number(error.status) : NaN;
  return named >= 400 && named < 500 ? named : undefined;
};

/** The one place that turns an error into a status. */
const answerError =
  (logger: Logger, file: string): ErrorRequestHandler =>
  (error: unknown, req, res, next) => {
    if (res.headersSent) return next(error);
    const answer = (status: number, refusal: Refusal): void => {
      // what was still to come of the request is not read
      if (!req.complete) res.set('Connection', 'close');
      res.status(status).json({ ...refusal, message: refusal.message.slice(0, LONGEST_SENTENCE) });
    };
    if (error instanceof ValidationError) {
      const all = (error.inner.length > 0 ? error.inner : [error]).slice(0, MOST_FIELDS);
      return answer(400, {
        code: 'VALIDATION',
        message: all[0].message,
        fields: all.map((one) => ({
          field: (one.path ?? '').slice(0, 80),
          message: one.message.slice(0, LONGEST_SENTENCE),
        })),
      });
    }
    if (error instanceof CoreError)
      return answer(CORE_STATUS[error.code] ?? 422, {
        code: error.code,
        message: error.message,
        ...(error instanceof FileRefusedError && error.question ? { question: error.question } : {}),
        ...(error.field ? { fields: [{ field: error.field, message: error.message }] } : {}),
      });
    if (error instanceof MulterError)
      return error.code === 'LIMIT_FILE_SIZE'
        ? answer(413, { code: 'FILE_TOO_LARGE', message: 'This file is larger than 16 MB. Export fewer points.' })
        : answer(400, {
            code: 'FORM',
            message: 'The request is not a form with one file and a few short fields. Choose one file and try again.',
          });
    if (error instanceof SyntaxError && 'body' in error)
      return answer(400, { code: 'JSON', message: 'The request is not valid JSON. Reload the page and try again.' });
    const status = statusOf(error);
    if (status !== undefined) return answer(status, CLIENT_FAULTS[status] ?? CLIENT_FAULTS[400]);
    const disk = dataFileFault(file, error);
    logger.error(error);
    if (disk) return answer(507, { code: disk.code, message: disk.message });
    return answer(500, {
      code: 'INTERNAL',
      message: 'The server met a fault that it did not expect. Nothing was saved. Try again; the log says more.',
    });
  };

/** The whole HTTP application, without a listener. */
export function createApp({ db, logger, webDir, allowedHosts, bench, place }: AppOptions): express.Express {
  const app = express();
  const refused: RefusedRequest[] = [];
  app.set('query parser', 'simple');
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
  app.use(sameOriginOnly(allowedHosts, refused, logger));
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
  app.use((req, _res, next) => {
    requireModest(req.body);
    next();
  });
  app.use('/api', (_req, res, next) => {
    res.set('Cache-Control', 'no-store');
    next();
  });
  app.get('/api/server', (_req, res) => {
    res.json({ file: place?.file ?? '', copies: place?.copies() ?? [], refused });
  });
  stationRoutes(app, db);
  fileRoutes(app, db);
  if (bench) instrumentRoutes(app, bench);
  app.use('/api', (_req, _res, next) => next(new NoSuchAddressError()));
  if (webDir && existsSync(webDir)) serveInterface(app, webDir);
  app.use((_req, _res, next) => next(new NoSuchAddressError()));
  app.use(answerError(logger, place?.file ?? 'The database'));
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
  app.get('/api/stations/deleted', async (_req, res) => {
    res.json(await deletedStations(db));
  });
  app.post('/api/stations', async (req, res) => {
    const { key, device, ...values } = asRecord(req.body);
    res.status(201).json(await createStation(db, values, authorOf({ key, device })));
  });
  app.get('/api/stations/:station', async (req, res) => {
    const id = numberParam(req, 'station');
    const device = uuidOf(req.query.device) ?? '';
    const tag = await stationTag(db, id, device);
    // kept by the browser, but asked for again each time: unchanged, only the tag travels
    res.set({ 'Cache-Control': 'private, no-cache', ETag: tag });
    if (req.headers['if-none-match'] === tag) return void res.status(304).end();
    const since = revisionParam(req);
    const delta = since === undefined ? undefined : await stationDelta(db, id, { since, device });
    res.json(delta ? { delta } : await stationRecords(db, id, device, req.query.packed === '1'));
  });
  app.get('/api/stations/:station/events', async (req, res) => {
    const id = numberParam(req, 'station');
    await stationTag(db, id, ''); // a station that is not there is told before anything is opened
    watchStation(db, id, req, res);
  });
  app.patch('/api/stations/:station', async (req, res) => {
    const { key, device, ...changes } = asRecord(req.body);
    const version = requireVersion(changes);
    delete changes.version;
    const author = authorOf({ key, device });
    res.json(await updateStation(db, numberParam(req, 'station'), { version, changes, author }));
  });
  app.post('/api/stations/:station/delete', async (req, res) => {
    const body = asRecord(req.body);
    res.json(await deleteStation(db, numberParam(req, 'station'), requireVersion(body), authorOf(body)));
  });
  app.post('/api/stations/:station/changes', async (req, res) => {
    const { changes, ...names } = await readBatch(req.body);
    const batch = { changes, author: authorOf(names) };
    res.json(await applyChanges(db, numberParam(req, 'station'), batch, revisionParam(req)));
  });
  app.get('/api/stations/:station/deletion/:resource/:record', async (req, res) => {
    const resource = RESOURCE_NAMES.find((name) => name === req.params.resource);
    if (!resource) throw new NoSuchAddressError();
    res.json(await deletionPreview(db, numberParam(req, 'station'), resource, numberParam(req, 'record')));
  });
  app.post('/api/stations/:station/undo', async (req, res) => {
    const { batch, device = '' } = await undoSchema.validate(req.body ?? {}, { strict: true });
    res.json(await undo(db, numberParam(req, 'station'), { batch, device }));
  });
}

/** Which state of a record a change is meant for. @throws RequestError */
function requireVersion({ version }: Readonly<Record<string, unknown>>): number {
  if (typeof version !== 'number' || !Number.isSafeInteger(version))
    throw new RequestError(
      'The version is missing: say which state of the station is changed. Reload the page.',
      'version',
    );
  return version;
}

// eslint-disable-next-line no-control-regex -- they are what is taken out
const CONTROL = /[\u0000-\u001f\u007f]/g;

/** The uploaded file; multer reads its name as latin-1, browsers send utf-8. */
function arrived(req: Request, remedy: string): ArrivedFile {
  if (!req.file) throw new RequestError(`No file arrived. ${remedy}`);
  const told = Buffer.from(req.file.originalname, 'latin1').toString('utf8');
  // control characters, a NUL among them, are no part of a name
  const name = path.basename(told).replace(CONTROL, '').trim().slice(0, 120);
  return { name: name === '' ? 'file' : name, bytes: req.file.buffer };
}

function fileRoutes(app: express.Express, db: Database): void {
  const taken = multer({
    storage: multer.memoryStorage(),
    limits: { fileSize: MAX_UPLOAD_BYTES, files: 1, fields: 8, fieldSize: 200_000, parts: 10 },
  }).single('file');
  /** A form that ends in the middle is the sender's fault, whatever the parser calls it. */
  const upload: RequestHandler = (req, res, next) =>
    taken(req, res, (error: unknown) => {
      if (error === undefined || error === null) next();
      else if (error instanceof MulterError) next(error);
      else next(new RequestError('The file did not arrive whole. Choose it again.'));
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
    res.status(201).json(await importSweep(db, numberParam(req, 'station'), file, origin, authorOf(names)));
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
    res.status(201).json(await importSpectrum(db, numberParam(req, 'station'), file, origin, authorOf(names)));
  });
  app.post('/api/stations/:station/calibrations', upload, async (req, res) => {
    const { bytes } = arrived(req, 'Measure open, short and load first.');
    const { values, ...names } = fields(req);
    const named = asRecord(readJson(values));
    const saved = await storeCalibration(db, numberParam(req, 'station'), { bytes, named, author: authorOf(names) });
    res.status(201).json(saved);
  });
  app.post('/api/stations/:station/photo-changes', upload, async (req, res) => {
    const photo = arrived(req, 'Take a photo, or save without one.');
    requirePicture(photo, 'Take the photo as JPEG.');
    const { changes, ...names } = await readBatch(readJson(fields(req).batch));
    const batch = { changes, author: authorOf(names), photo: fileValues(photo) };
    res.json(await applyChanges(db, numberParam(req, 'station'), batch, revisionParam(req)));
  });
  app.post('/api/stations/:station/pictures', upload, async (req, res) => {
    const file = arrived(req, 'Choose a PNG or JPEG picture.');
    res.status(201).json(await importPicture(db, numberParam(req, 'station'), file, authorOf(fields(req))));
  });
  for (const resource of ['sweeps', 'spectra', 'calibrations'] as const)
    app.get(`/api/${resource}/:record/samples`, async (req, res) => {
      const row = await db.tables[resource].findByPk(numberParam(req, 'record'));
      if (!row) throw new NotFoundError('record');
      const sum = String(row.get('checksum'));
      // by its checksum an address names these very bytes for ever; without it the browser has to ask
      res.set('Cache-Control', req.query.sum === sum ? 'private, max-age=31536000, immutable' : 'private, no-cache');
      res.type('application/octet-stream').send(row.get('samples'));
    });
  app.get('/api/attachments/:file/bytes', async (req, res) => {
    const row = await db.tables.attachments.findByPk(numberParam(req, 'file'));
    if (!row) throw new NotFoundError('file');
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
