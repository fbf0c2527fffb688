import { existsSync, mkdirSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { pino } from 'pino';
import { createApp } from './app';
import { openDatabase } from './database';
import { loadDemo } from './demo/load';
import { openBench, readAllowed, type AllowedInstrument } from './instruments/bench';
import { standIns } from './instruments/stand-ins';
import { migrator } from './migrate';

const { values } = parseArgs({
  options: {
    empty: { type: 'boolean' },
    port: { type: 'string' },
    host: { type: 'string' },
    data: { type: 'string' },
    /** A real instrument that may be reached: kind=address:port; may be given several times. */
    instrument: { type: 'string', multiple: true },
    /** Seed of the stand-ins' world. */
    seed: { type: 'string' },
  },
});
const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../../..');
const dataDir = path.resolve(values.data ?? process.env.VELVET_REED_DATA ?? path.join(root, 'data'));
const host = values.host ?? process.env.HOST ?? '127.0.0.1';
const port = Number(values.port ?? process.env.PORT ?? 4600);
const logger = pino({ level: process.env.LOG_LEVEL ?? 'warn' });

let allowed: readonly AllowedInstrument[] = [];
try {
  allowed = (values.instrument ?? []).map(readAllowed);
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
}
const bench = openBench(
  allowed,
  standIns(path.join(root, 'packages/instruments/dist/main.js'), Number(values.seed ?? 1)),
);

mkdirSync(dataDir, { recursive: true });
const db = openDatabase(path.join(dataDir, 'velvet-reed.sqlite'));
await migrator(db.sequelize).up();
if (!values.empty && (await loadDemo(db))) logger.info('demo station loaded');

const webDir = path.join(root, 'packages/web/dist');
const app = createApp({
  db,
  logger,
  bench,
  allowedHosts: [...new Set(['127.0.0.1', 'localhost', '[::1]', host])],
  ...(existsSync(webDir) ? { webDir } : {}),
});
const server = app.listen(port, host, (error?: Error) => {
  if (error) {
    console.error(
      `Velvet Reed cannot listen on ${host}:${port}: ${error.message}. Choose another port: npm start -- --port 4601`,
    );
    process.exit(1);
  }
  const address = server.address();
  const actual = typeof address === 'object' && address ? address.port : port;
  console.log(`Velvet Reed is at http://${host}:${actual}`);
});

/** Answers what is under way, closes the database, then leaves. */
function shutdown(): void {
  bench.close();
  server.close(() => {
    void db
      .write(() => Promise.resolve())
      .finally(() => {
        void db.sequelize.close().finally(() => process.exit(0));
      });
  });
  server.closeIdleConnections();
  setTimeout(() => server.closeAllConnections(), 2000).unref();
}
process.once('SIGTERM', shutdown);
process.once('SIGINT', shutdown);
