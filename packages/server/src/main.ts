import { existsSync, mkdirSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { pino } from 'pino';
import { createApp } from './app';
import { openDatabase } from './database';
import { loadDemo } from './demo/load';
import { migrator } from './migrate';

const { values } = parseArgs({
  options: { empty: { type: 'boolean' }, port: { type: 'string' }, host: { type: 'string' }, data: { type: 'string' } },
});
const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../../..');
const dataDir = path.resolve(values.data ?? process.env.VELVET_REED_DATA ?? path.join(root, 'data'));
const host = values.host ?? process.env.HOST ?? '127.0.0.1';
const port = Number(values.port ?? process.env.PORT ?? 4600);
const logger = pino({ level: process.env.LOG_LEVEL ?? 'warn' });

mkdirSync(dataDir, { recursive: true });
const db = openDatabase(path.join(dataDir, 'velvet-reed.sqlite'));
await migrator(db.sequelize).up();
if (!values.empty && (await loadDemo(db))) logger.info('demo station loaded');

const webDir = path.join(root, 'packages/web/dist');
const app = createApp({
  db,
  logger,
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
