import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, expect, test } from '@jest/globals';
import { STATION_DEFAULTS } from '@velvet-reed/contract';

const dir = mkdtempSync(path.join(tmpdir(), 'velvet-reed-kill-'));
let child: ChildProcess | undefined;
afterAll(() => {
  child?.kill('SIGKILL');
  rmSync(dir, { recursive: true, force: true });
});

/** Starts the real server on a free port and waits for the address that it prints. */
function start(): Promise<string> {
  const main = path.join(process.cwd(), 'packages/server/src/main.ts');
  child = spawn(process.execPath, ['--import', 'tsx', main, '--empty', '--port', '0', '--data', dir], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  return new Promise((resolve, reject) => {
    child?.once('exit', (code) => reject(new Error(`the server ended with ${code}`)));
    child?.stdout?.on('data', (chunk: Buffer) => {
      const address = /http:\/\/\S+/.exec(chunk.toString());
      if (address) resolve(address[0]);
    });
  });
}
const post = (address: string, body: unknown): Promise<Response> =>
  fetch(address, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });
const listOf = (value: unknown): string[] => {
  const entries =
    typeof value === 'object' && value !== null && 'entries' in value && Array.isArray(value.entries)
      ? value.entries
      : [];
  return entries.map((entry: { text: string }) => entry.text);
};

test('a server killed in the middle of writing has lost nothing that it acknowledged, and starts again', async () => {
  let address = await start();
  await post(`${address}/api/stations`, {
    name: 'Hut',
    latDeg: 50,
    lonDeg: -19,
    environment: 'rural',
    noiseOffsetDb: 0,
    spanM: 38,
    heightM: 9,
    cableId: 'pe5',
    lineLengthM: 25,
    groundId: 'average',
    ...STATION_DEFAULTS,
  });
  const acknowledged: string[] = [];
  for (let round = 0; round < 3; round += 1) {
    let stop = false;
    const writers = Array.from({ length: 4 }, async (_, writer) => {
      for (let i = 0; !stop; i += 1) {
        const text = `round ${round} writer ${writer} line ${i}`;
        try {
          const reply = await post(`${address}/api/stations/1/changes`, {
            changes: [{ op: 'create', resource: 'entries', values: { stage: 'notebook', text, atMs: i } }],
          });
          if (reply.ok) acknowledged.push(text);
        } catch {
          return; // the server is gone: this one was not acknowledged
        }
      }
    });
    const wanted = acknowledged.length + 8 + 3 * round;
    while (acknowledged.length < wanted) await new Promise((resolve) => setTimeout(resolve, 7));
    child?.removeAllListeners('exit');
    child?.kill('SIGKILL');
    stop = true;
    await Promise.all(writers);
    address = await start();
  }
  const found = new Set(listOf(await (await fetch(`${address}/api/stations/1`)).json()));
  expect(acknowledged.length).toBeGreaterThanOrEqual(33);
  expect(acknowledged.filter((text) => !found.has(text))).toEqual([]);
}, 60_000);

test('SIGTERM ends it cleanly', async () => {
  child?.removeAllListeners('exit');
  const ended = new Promise((resolve) => child?.once('exit', (code) => resolve(code)));
  child?.kill('SIGTERM');
  expect(await ended).toBe(0);
}, 20_000);
