import { existsSync, statSync } from 'node:fs';
import { isIP } from 'node:net';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { pino } from 'pino';
import { createApp } from './app';
import { openBackups } from './backups';
import { DataFileError, dataFileFault, openDataFolder, type DataFolder } from './data-file';
import { loadDemo } from './demo/load';
import { openDoor } from './door/door';
import { impatient, isLocalAddress, openNetwork, ownLocalAddresses } from './door/network';
import { HABITS, readHabits } from '@velvet-reed/instruments';
import { openBench, readAllowed, type AllowedInstrument } from './instruments/bench';
import { standIns } from './instruments/stand-ins';

/** What may be said at the start; everything has a value to begin with. */
const OPTIONS = {
  empty: { type: 'boolean' },
  port: { type: 'string' },
  host: { type: 'string' },
  /** Also listens on the local network, by TLS, for phones that were let in. */
  lan: { type: 'boolean' },
  /** Address of this computer in the local network; may be given several times. Without it all local ones. */
  'lan-address': { type: 'string', multiple: true },
  'lan-port': { type: 'string' },
  data: { type: 'string' },
  /** A real instrument that may be reached: kind=address:port or kind=serial port@speed; may be given several times. */
  instrument: { type: 'string', multiple: true },
  /** A folder in which a decoding program writes its tables; may be given several times. */
  decodes: { type: 'string', multiple: true },
  /** Surprises of the stand-ins, as real instruments have them: a list between commas. */
  habits: { type: 'string' },
  /** Seed of the stand-ins' world. */
  seed: { type: 'string' },
  help: { type: 'boolean', short: 'h' },
} as const;

/** The start's options in a few lines. */
const HELP = `Velvet Reed: npm start -- [options]
  --port 4600               port of this computer's page
  --data FOLDER             where the stations are kept
  --empty                   begin without the demo station
  --lan                     let phones in from the local network, by TLS
  --lan-address ADDRESS     at this address only; may be given several times
  --lan-port 4601           port for phones
  --instrument KIND=HOST:PORT    an instrument that may be reached; several times
  --instrument KIND=PORT@SPEED   the same at a serial port, /dev/ttyUSB0@9600 or COM3
  --decodes FOLDER          where a decoding program writes; several times
  --seed 1                  seed of the simulated instruments
  --habits LIST             surprises of the simulated instruments: ${HABITS.join(',')}`;

/** Reads the options. A mistyped one is told in a sentence. */
function optionsOf() {
  try {
    return parseArgs({ options: OPTIONS }).values;
  } catch (error) {
    console.error(
      `Velvet Reed: ${error instanceof Error ? error.message.split('. ')[0] : String(error)}. See npm start -- --help`,
    );
    process.exit(1);
  }
}
const values = optionsOf();
if (values.help) {
  console.log(HELP);
  process.exit(0);
}
process.umask(0o077); // what is kept here is the listener's own
const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../../..');
const dataDir = path.resolve(values.data ?? process.env.VELVET_REED_DATA ?? path.join(root, 'data'));
const host = values.host ?? process.env.VELVET_REED_HOST ?? '127.0.0.1';
const port = Number(values.port ?? process.env.VELVET_REED_PORT ?? 4600);
const logger = pino({ level: process.env.VELVET_REED_LOG_LEVEL ?? 'warn' });

/** Says what is wrong and leaves; nothing was changed. */
function leave(sentence: string): never {
  console.error(`Velvet Reed: ${sentence}`);
  process.exit(1);
}
if (!/^(127(\.\d{1,3}){3}|localhost|::1|\[::1\])$/.test(host))
  leave(
    `"${host}" is not an address of this computer alone. Pages at this computer need no sign-in, so they are served on 127.0.0.1, localhost or ::1 only; phones come in by TLS: npm start -- --lan`,
  );
if (!Number.isInteger(port) || port < 0 || port > 65535)
  leave(
    `"${values.port ?? process.env.VELVET_REED_PORT}" is not a port. Choose a number from 1 to 65535: npm start -- --port 4601`,
  );

const lanPort = Number(values['lan-port'] ?? (port === 0 ? 0 : port + 1));
if (!Number.isInteger(lanPort) || lanPort < 0 || lanPort > 65535)
  leave(`"${values['lan-port']}" is not a port. Choose a number from 1 to 65535: npm start -- --lan --lan-port 4701`);
const lanAddresses = values.lan ? (values['lan-address'] ?? ownLocalAddresses()) : [];
const outside = lanAddresses.find((one) => isIP(one) === 0 || !isLocalAddress(one));
if (outside !== undefined)
  leave(
    `"${outside}" is not an address of a local network. Name one of these: ${ownLocalAddresses().join(', ') || 'none is up'}.`,
  );
if (values.lan && lanAddresses.length === 0)
  leave(
    'this computer has no address in a local network. Connect it, then start again with --lan; or start without it.',
  );

let allowed: readonly AllowedInstrument[] = [];
try {
  allowed = (values.instrument ?? []).map(readAllowed);
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
}
const folders = (values.decodes ?? []).map((folder) => path.resolve(folder));
const noFolder = folders.find((folder) => !statSync(folder, { throwIfNoEntry: false })?.isDirectory());
if (noFolder !== undefined)
  leave(
    `"${noFolder}" is not a folder. Name the folder in which the decoding program writes: npm start -- --decodes ~/decodes`,
  );
if (readHabits(values.habits ?? '') === undefined)
  leave(`"${values.habits}" names a habit that no simulated instrument has. Choose of ${HABITS.join(',')}.`);
const bench = openBench(
  allowed,
  standIns(path.join(root, 'packages/instruments/dist/main.js'), Number(values.seed ?? 1), values.habits),
);

/** Everything that can go wrong with the file is told in one sentence. */
async function openData(): Promise<DataFolder> {
  try {
    const folder = await openDataFolder(dataDir);
    try {
      if (!values.empty && (await loadDemo(folder.db))) logger.info('demo station loaded');
      return folder;
    } catch (error) {
      await folder.close();
      throw dataFileFault(folder.file, error) ?? error;
    }
  } catch (error) {
    if (error instanceof DataFileError) leave(error.message);
    throw error;
  }
}
const data = await openData();
const { db } = data;

const backups = openBackups(db, data.file);
backups.schedule();

const doorFolder = path.join(dataDir, 'door');
const door = openDoor(doorFolder);
const webDir = path.join(root, 'packages/web/dist');
const app = createApp({
  db,
  logger,
  bench,
  place: data,
  ...{ backups, door, folders },
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

// a peer that sends a byte now and then does not hold a connection for ever
impatient(server);

const network = await (async () => {
  if (lanAddresses.length === 0) return [];
  try {
    const servers = await openNetwork(door, app, { addresses: lanAddresses, port: lanPort, folder: doorFolder });
    console.log(
      `The door to the local network is open, by TLS, for phones that you let in: ${door.network?.addresses.join(', ')}`,
    );
    console.log(`Fingerprint (SHA-256) of its authority: ${door.network?.fingerprint}`);
    return servers;
  } catch (error) {
    return leave(
      `cannot listen on ${lanAddresses.join(', ')}:${lanPort}: ${error instanceof Error ? error.message : String(error)}. Choose another port: npm start -- --lan --lan-port 4701`,
    );
  }
})();

/** Answers what is under way, closes the database, then leaves. */
function shutdown(): void {
  bench.close();
  backups.close();
  db.commits.emit('end'); // pages that follow are let go
  server.close(() => {
    void db
      .write(() => Promise.resolve())
      .finally(() => {
        void data.close().finally(() => process.exit(0));
      });
  });
  for (const one of network) one.close();
  for (const one of [server, ...network]) one.closeIdleConnections();
  setTimeout(() => [server, ...network].forEach((one) => one.closeAllConnections()), 2000).unref();
}
process.once('SIGTERM', shutdown);
process.once('SIGINT', shutdown);
