import { spawn } from 'node:child_process';
import path from 'node:path';
import { chromium, type Browser } from '@playwright/test';

const SERVER = path.resolve(import.meta.dirname, '../packages/server/dist/main.js');
const CHROMIUM_FLAGS = [
  '--headless',
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

/** Debian's Chromium, without its own traffic. */
export const launchBrowser = (): Promise<Browser> =>
  chromium.launch({ executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium', args: CHROMIUM_FLAGS });

/** The built application on a free port with its demo data. */
export async function startServer(dataDir: string): Promise<{ address: string; stop: () => Promise<void> }> {
  const child = spawn(process.execPath, [SERVER, '--port', '0', '--data', dataDir], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const address = await new Promise<string>((resolve, reject) => {
    child.stdout.on('data', (chunk: Buffer) => {
      const found = /http:\S+/.exec(chunk.toString());
      if (found) resolve(found[0]);
    });
    child.once('exit', () => reject(new Error('The server ended before it listened.')));
  });
  const ended = new Promise<void>((resolve) => child.once('exit', () => resolve()));
  const stop = (): Promise<void> => {
    child.kill('SIGTERM');
    return ended;
  };
  return { address, stop };
}
