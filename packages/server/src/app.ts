import { existsSync } from 'node:fs';
import path from 'node:path';
import type { Refusal } from '@velvet-reed/contract';
import compression from 'compression';
import express, { type RequestHandler } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { answerError } from './answer-error';
import { backupRoutes } from './backup-routes';
import type { Backups } from './backups';
import { requireModest } from './body-limits';
import type { KeptCopy } from './data-file';
import type { Database } from './database';
import { fileRoutes } from './file-routes';
import type { Bench } from './instruments/bench';
import { folderRoutes } from './folder-routes';
import { instrumentRoutes } from './instruments/routes';
import { NoSuchAddressError } from './refusals';
import { stationRoutes } from './station-routes';

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
  /** Copies of all stations; absent in tests that need none. */
  readonly backups?: Backups;
  /** Instruments within reach; absent in tests that need none. */
  readonly bench?: Bench;
  /** Folders in which other programs write tables that may be read. */
  readonly folders?: readonly string[];
}

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

/** Whether the asker is this machine itself. */
const isLoopback = ({ socket: { remoteAddress = '' } }: express.Request): boolean =>
  remoteAddress === '::1' || /^(::ffff:)?127\./.test(remoteAddress);

/** The whole HTTP application, without a listener. */
export function createApp({
  db,
  logger,
  webDir,
  allowedHosts,
  bench,
  place,
  backups,
  folders = [],
}: AppOptions): express.Express {
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
  // on this machine bytes cost nothing and pressing them does: a first view would wait for it
  app.use(compression({ level: 1, filter: (req, res) => !isLoopback(req) && compression.filter(req, res) }));
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
  if (backups) backupRoutes(app, backups);
  stationRoutes(app, db);
  fileRoutes(app, db);
  folderRoutes(app, db, folders);
  if (bench) instrumentRoutes(app, bench);
  app.use('/api', (_req, _res, next) => next(new NoSuchAddressError()));
  if (webDir && existsSync(webDir)) serveInterface(app, webDir);
  app.use((_req, _res, next) => next(new NoSuchAddressError()));
  app.use(answerError(logger, place?.file ?? 'The database'));
  return app;
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
