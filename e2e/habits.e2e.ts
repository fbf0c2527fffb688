import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import { enter, watch } from './helpers';

/** A server of its own, whose stand-ins have all the habits. */
const port = Number(process.env.E2E_PORT ?? 4601) + 80;
const address = `http://127.0.0.1:${port}`;
let server: ChildProcess | undefined;
let folder = '';

test.beforeAll(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'velvet-reed-habits-'));
  const main = path.resolve(import.meta.dirname, '../packages/server/dist/main.js');
  const habits = ['--habits', 'watts,rounds,units,greeting,wraps'];
  server = spawn(process.execPath, [main, '--port', String(port), '--data', folder, ...habits], { stdio: 'ignore' });
  const status = (): Promise<number> =>
    fetch(`${address}/api/health`).then(
      (reply) => reply.status,
      () => 0,
    );
  await expect.poll(status, { timeout: 20_000 }).toBe(200);
});
test.afterAll(async () => {
  if (server && server.exitCode === null) {
    const gone = once(server, 'exit');
    server.kill('SIGTERM');
    await gone;
  }
  rmSync(folder, { recursive: true });
});

test('instruments that answer in watts, with units, rounded and after a greeting: levels in dBm, and what was measured is told', async ({
  page,
}) => {
  const faults = await watch(page);
  await page.goto(`${address}/s/1/bench/instruments`);
  const single = page.getByRole('region', { name: 'Single readings' });
  await single.getByRole('button', { name: 'Read the power' }).click();
  await expect(single).toContainText(/−\d+\.\d+\sdBm/);
  await single.getByRole('button', { name: 'Read the coil' }).click();
  await expect(single).toContainText(/(9|10)\.\d+\smH/);
  await enter(page, 'bench');
  await page.getByRole('button', { name: 'Measure with an analyser' }).click();
  const panel = page.getByRole('region', { name: 'Measure with an analyser' });
  await panel.getByLabel('From').fill('9.03 MHz');
  await panel.getByLabel('To', { exact: true }).fill('9.97 MHz');
  await panel.getByLabel('Points').fill('37');
  await panel.getByRole('button', { name: 'Sweep', exact: true }).click();
  await expect(panel).toContainText('It measured 9 MHz to 10 MHz in 51 points, not 9.03 MHz to 9.97 MHz in 37');
  await expect(panel.getByRole('status').first()).toContainText('1 pass of 51 points');
  expect(faults).toEqual([]);
});
