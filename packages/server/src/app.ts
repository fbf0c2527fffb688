import { existsSync } from 'node:fs';
import path from 'node:path';
import compression from 'compression';
import express from 'express';
import expressStaticGzip from 'express-static-gzip';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { answerError } from './answer-error';
import { backupRoutes } from './backup-routes';
import type { Backups } from './backups';
import { requireModest } from './body-limits';
import type { KeptCopy } from './data-file';
import type { Database } from './database';
import { openDoor, type Door } from './door/door';
import { bounded, pairedOnly, sameOriginOnly } from './door/gate';
import { doorRoutes } from './door/routes';
import { forThisFile } from './file-identity';
import { fileRoutes } from './file-routes';
import type { Bench } from './instruments/bench';
import { folderRoutes } from './folder-routes';
import { instrumentRoutes } from './instruments/routes';
import { otherMethods } from './other-methods';
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
  /** Who of the local network is let in; absent in tests that need none: then nobody is. */
  readonly door?: Door;
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
  door = openDoor(undefined),
  folders = [],
}: AppOptions): express.Express {
  const app = express();
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
  app.use(sameOriginOnly(door, allowedHosts));
  app.use(
    helmet({
      contentSecurityPolicy: { useDefaults: false, directives: CONTENT_SECURITY },
      strictTransportSecurity: false, // plain http on the loopback interface; an address without a name in the network
      crossOriginOpenerPolicy: { policy: 'same-origin' },
      crossOriginEmbedderPolicy: { policy: 'require-corp' },
    }),
  );
  // on this machine bytes cost nothing and pressing them does: a first view would wait for it
  app.use(compression({ level: 1, filter: (req, res) => !isLoopback(req) && compression.filter(req, res) }));
  // nothing of a body is read before it is known who sends it
  app.use('/api', pairedOnly(door), ...bounded(door), forThisFile(db));
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
    res.json({ file: place?.file ?? '', copies: place?.copies() ?? [] });
  });
  doorRoutes(app, door);
  if (backups) backupRoutes(app, backups);
  stationRoutes(app, db);
  fileRoutes(app, db);
  folderRoutes(app, db, folders);
  if (bench) instrumentRoutes(app, bench);
  app.use('/api', otherMethods(app));
  if (webDir && existsSync(webDir)) serveInterface(app, webDir);
  app.use((_req, _res, next) => next(new NoSuchAddressError()));
  app.use(answerError(logger, place?.file ?? 'The database'));
  return app;
}

function serveInterface(app: express.Express, webDir: string): void {
  app.use(
    '/assets',
    // pressed when they were built
    expressStaticGzip(path.join(webDir, 'assets'), {
      serveStatic: { immutable: true, maxAge: '1y', fallthrough: false },
    }),
  );
  app.use(express.static(webDir, { index: 'index.html', maxAge: 0 }));
  app.get('/{*path}', (_req, res) => {
    res.sendFile(path.join(webDir, 'index.html'));
  });
}
