import { spawn, type ChildProcess } from 'node:child_process';
import path from 'node:path';
import { openDatabase } from '../packages/server/src/database';

const MAIN = path.join(process.cwd(), 'packages/server/dist/main.js');

/** A server of its own folder. */
export interface Running {
  readonly child: ChildProcess;
  readonly address: Promise<string>;
  readonly ended: Promise<void>;
}

/** Starts the built server on a folder; its address comes when it listens. */
export function start(dir: string, args: readonly string[]): Running {
  const child = spawn(process.execPath, [MAIN, '--port', '0', '--data', dir, ...args], {
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  const ended = new Promise<void>((resolve) => child.once('close', () => resolve()));
  let said = '';
  child.stderr?.on('data', (chunk: Buffer) => (said += chunk.toString()));
  const address = new Promise<string>((resolve, reject) => {
    void ended.then(() => reject(new Error(said)));
    child.stdout?.on('data', (chunk: Buffer) => {
      const found = /http:\/\/\S+/.exec(chunk.toString());
      if (found) resolve(found[0]);
    });
  });
  address.catch(() => undefined);
  return { child, address, ended };
}
/** As a power cut does. */
export async function kill({ child, ended }: Running): Promise<void> {
  child.kill('SIGKILL');
  await ended;
}
export const wait = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));
export const get = async (address: string): Promise<unknown> => (await fetch(address)).json();
export const post = (address: string, body: unknown): Promise<Response> =>
  fetch(address, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });

/** What SQLite itself says of a file, nobody else having it open. */
export async function integrity(file: string): Promise<string> {
  const db = openDatabase(file);
  try {
    const [rows] = await db.sequelize.query('PRAGMA integrity_check');
    return JSON.stringify(rows).includes('"ok"') ? 'ok' : JSON.stringify(rows).slice(0, 200);
  } catch (error) {
    return String(error);
  } finally {
    await db.sequelize.close();
  }
}

/** How many records of each resource a station has. */
export const shape = (value: unknown): string =>
  Object.entries(value ?? {})
    .flatMap(([name, list]) => (Array.isArray(list) ? [`${name} ${list.length}`] : []))
    .sort()
    .join();
