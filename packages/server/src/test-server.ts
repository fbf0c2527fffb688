import { spawn, type ChildProcess } from 'node:child_process';
import { readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import { STATION_BLANK } from '@velvet-reed/contract';

/** A station of which only the place is known. */
export const HUT = {
  ...{ name: 'Hut', latDeg: 50, lonDeg: -19, environment: 'rural', noiseOffsetDb: 0, spanM: 38, heightM: 9 },
  ...{ cableId: 'pe5', lineLengthM: 25, groundId: 'average', ...STATION_BLANK },
};

/** The real server as a process of its own. */
export interface ServerProcess {
  readonly child: ChildProcess;
  /** Resolves with the address that it prints; rejects with what it said when it ends first. */
  readonly address: Promise<string>;
  /** Resolves with the exit code, or the signal's name. */
  readonly ended: Promise<number | string>;
  said(): string;
}

/** @param args beside the port, which the system chooses. */
export function startServer(args: readonly string[], env: Readonly<Record<string, string>> = {}): ServerProcess {
  const main = path.join(process.cwd(), 'packages/server/src/main.ts');
  const child = spawn(process.execPath, ['--import', 'tsx', main, '--port', '0', ...args], {
    stdio: ['ignore', 'pipe', 'pipe'],
    env: { ...process.env, ...env },
  });
  let text = '';
  child.stderr?.on('data', (chunk: Buffer) => (text += chunk.toString()));
  const ended = new Promise<number | string>((resolve) =>
    child.once('close', (code, signal) => resolve(code ?? String(signal))),
  );
  const address = new Promise<string>((resolve, reject) => {
    void ended.then((code) => reject(new Error(`the server ended with ${code}: ${text}`)));
    child.stdout?.on('data', (chunk: Buffer) => {
      const found = /http:\/\/\S+/.exec(chunk.toString());
      if (found) resolve(found[0]);
    });
  });
  address.catch(() => undefined);
  return { child, address, ended, said: () => text };
}

/** Ends a process at once, as a power cut would, and waits until it is gone. */
export async function killNow({ child, ended }: ServerProcess): Promise<void> {
  child.kill('SIGKILL');
  await ended;
}

/** Ends a process in order. @returns its exit code. */
export async function stopServer({ child, ended }: ServerProcess): Promise<number | string> {
  child.kill('SIGTERM');
  return ended;
}

/** Bytes and time of last change of a file, to see that nothing touched it. */
export const fileState = (file: string): string => `${statSync(file).mtimeMs} ${readFileSync(file).toString('base64')}`;

/** Size of the write-ahead log beside a database, 0 where there is none. */
export function logSize(file: string): number {
  try {
    return statSync(`${file}-wal`).size;
  } catch {
    return 0;
  }
}
