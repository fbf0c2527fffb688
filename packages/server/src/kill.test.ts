import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, expect, test } from '@jest/globals';
import { HUT, killNow, startServer, stopServer, type ServerProcess } from './test-server';

const dir = mkdtempSync(path.join(tmpdir(), 'velvet-reed-kill-'));
let server: ServerProcess;
afterAll(async () => {
  await killNow(server);
  rmSync(dir, { recursive: true, force: true });
});

/** Starts the real server on a free port and waits for the address that it prints. */
function start(): Promise<string> {
  server = startServer(['--empty', '--data', dir]);
  return server.address;
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
  await post(`${address}/api/stations`, HUT);
  const acknowledged: string[] = [];
  for (let round = 0; round < 3; round += 1) {
    let stop = false;
    const writers = Array.from({ length: 4 }, async (_, writer) => {
      for (let i = 0; !stop; i += 1) {
        const text = `round ${round} writer ${writer} line ${i}`;
        try {
          const reply = await post(`${address}/api/stations/1/changes`, {
            changes: [{ op: 'create', resource: 'entries', values: { step: 'notebook', text, atMs: i } }],
          });
          if (reply.ok) acknowledged.push(text);
        } catch {
          return; // the server is gone: this one was not acknowledged
        }
      }
    });
    const wanted = acknowledged.length + 8 + 3 * round;
    while (acknowledged.length < wanted) await new Promise((resolve) => setTimeout(resolve, 7));
    await killNow(server);
    stop = true;
    await Promise.all(writers);
    address = await start();
  }
  const found = new Set(listOf(await (await fetch(`${address}/api/stations/1`)).json()));
  expect(acknowledged.length).toBeGreaterThanOrEqual(33);
  expect(acknowledged.filter((text) => !found.has(text))).toEqual([]);
}, 60_000);

test('SIGTERM ends it cleanly', async () => {
  expect(await stopServer(server)).toBe(0);
}, 20_000);

test('a mistyped option was answered by a raw stack trace: one sentence, and --help names them all', async () => {
  const wrong = startServer(['--prot', '4601']);
  await expect(wrong.address).rejects.toThrow(
    /^the server ended with 1: Velvet Reed: .*--prot.* See npm start -- --help\s*$/,
  );
  expect(wrong.said()).not.toMatch(/\n\s+at /);
  const asked = startServer(['--help']);
  await expect(asked.address).rejects.toThrow(/ended with 0/);
});
