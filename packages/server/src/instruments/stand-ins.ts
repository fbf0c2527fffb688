import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync } from 'node:fs';
import { INSTRUMENT_KINDS, type InstrumentKind } from '@velvet-reed/contract';
import { InstrumentError } from './scpi-error';

/** Ports of the stand-ins, by what they are. */
type StandInPorts = Readonly<Partial<Record<InstrumentKind, number>>>;

const START_MS = 10_000;

/** The stand-ins as a child process: started at the first need, again after it went. */
export interface StandIns {
  ports(): Promise<StandInPorts>;
  close(): void;
}

function readPorts(line: string): StandInPorts | undefined {
  try {
    const value: unknown = JSON.parse(line);
    if (typeof value !== 'object' || value === null) return undefined;
    const named = new Map<string, unknown>(Object.entries(value));
    return Object.fromEntries(INSTRUMENT_KINDS.map((kind) => [kind, Number(named.get(kind))]));
  } catch {
    return undefined;
  }
}

/** @param program path of the stand-ins' program; @param seed of their world; @param habits list between commas. */
export function standIns(program: string, seed: number, habits = ''): StandIns {
  let child: ChildProcess | undefined;
  let known: Promise<StandInPorts> | undefined;
  const start = (): Promise<StandInPorts> =>
    new Promise((resolve, reject) => {
      if (!existsSync(program))
        return reject(
          new InstrumentError('The stand-in instruments are not built. Start the server with "npm start".'),
        );
      const made = spawn(process.execPath, [program, String(seed), habits], { stdio: ['pipe', 'pipe', 'ignore'] });
      child = made;
      const failed = (): void => {
        known = undefined;
        reject(
          new InstrumentError('The stand-in instruments did not start. Try again; if it stays, restart the server.'),
        );
      };
      const timer = setTimeout(() => {
        made.kill();
        failed();
      }, START_MS);
      let text = '';
      made.stdout.setEncoding('utf8').on('data', (chunk: string) => {
        text += chunk;
        if (!text.includes('\n')) return;
        clearTimeout(timer);
        const ports = readPorts(text.slice(0, text.indexOf('\n')));
        if (ports) resolve(ports);
        else failed();
      });
      made.stdin.on('error', () => undefined);
      made.once('error', failed);
      made.once('exit', () => {
        known = undefined;
        clearTimeout(timer);
        failed();
      });
    });
  return {
    ports() {
      known ??= start();
      return known;
    },
    close() {
      child?.stdin?.end();
      child?.kill();
    },
  };
}
