import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { accessible, enter, keptIn, watch } from './helpers';

/** The desk and the door of a server of its own: the others listen at the loopback address alone. */
const deskPort = Number(process.env.E2E_PORT ?? 4601) + 60;
const desk = `http://127.0.0.1:${deskPort}`;
const door = `https://127.0.0.2:${deskPort + 1}`;
let server: ChildProcess | undefined;
let folder = '';

async function start(args: readonly string[] = ['--lan', '--lan-address', '127.0.0.2']): Promise<void> {
  const main = path.resolve(import.meta.dirname, '../packages/server/dist/main.js');
  server = spawn(process.execPath, [main, '--port', String(deskPort), '--data', folder, ...args], { stdio: 'ignore' });
  await expect
    .poll(
      () =>
        fetch(`${desk}/api/health`).then(
          ({ status }) => status,
          () => 0,
        ),
      { timeout: 20_000 },
    )
    .toBe(200);
}
async function stop(): Promise<void> {
  // a server that has ended says so only once
  if (!server || server.exitCode !== null || server.signalCode !== null) return;
  const gone = once(server, 'exit');
  server.kill('SIGTERM');
  await gone;
}
test.beforeAll(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'velvet-reed-phone-'));
  await start();
});
test.afterAll(async () => {
  await stop();
  rmSync(folder, { recursive: true });
});

const write = async (page: Page, text: string): Promise<void> => {
  await page.getByLabel('What you did or saw').last().fill(text);
  await page.getByRole('button', { name: 'Write it down' }).click();
};

/** Lets a phone that stands before the door in, as both sides do it. */
async function letIn(atDesk: Page, phone: Page, name: string): Promise<void> {
  await atDesk.goto(`${desk}/s/1/notebook/phone`);
  await atDesk.getByRole('button', { name: 'Let a phone in' }).click();
  const code = (await atDesk.locator('[data-code]').innerText()).trim();
  await phone.getByLabel('What this device is called').fill(name);
  await phone.getByLabel(/^Six digits/).fill(code);
  await phone.getByRole('button', { name: 'Ask to be let in' }).click();
  const check = (await phone.getByRole('status').locator('p').nth(1).innerText()).trim();
  await expect(atDesk.getByText(check, { exact: true })).toBeVisible();
  await atDesk.getByRole('button', { name: 'Same digits: let it in' }).click();
  await expect(phone).toHaveURL(`${door}/`);
}

/** How many answers of the computer a phone has kept. */
const keptAnswers = (phone: Page): Promise<number> => keptIn(phone, 'velvet-reed-seen', 'answers');

test('a phone is let in, goes out of reach, both write, and everything is there once, in order; then it is revoked', async ({
  browser,
}) => {
  test.setTimeout(120_000);
  const atDesk = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  const faults = await watch(atDesk);
  const pocket = await browser.newContext({ viewport: { width: 390, height: 844 }, ignoreHTTPSErrors: true });
  const phone = await pocket.newPage();

  // before: nothing of a station, and the way to the door
  await phone.goto(`${door}/s/1/bench/mast`);
  await expect(phone).toHaveURL(`${door}/pair`);
  await accessible(phone, 'the door');
  await atDesk.goto(`${desk}/s/1/notebook/phone`);
  await expect(atDesk.getByRole('link', { name: 'door open' })).toBeVisible();
  await atDesk.getByRole('button', { name: 'Let a phone in' }).click();
  const code = (await atDesk.locator('[data-code]').innerText()).trim();
  await expect(atDesk.getByRole('img', { name: /^Picture for the phone/ })).toBeVisible();
  const wrong = code === '123456' ? '654321' : '123456';
  await phone.getByLabel('What this device is called').fill('Mast phone');
  await phone.getByLabel(/^Six digits/).fill(wrong);
  await phone.getByRole('button', { name: 'Ask to be let in' }).click();
  await expect(phone.getByRole('alert')).toContainText('This code is not good');
  await expect(atDesk.getByText('4 tries left')).toBeVisible();
  await phone.getByLabel(/^Six digits/).fill(`${code.slice(0, 3)} ${code.slice(3)}`);
  await phone.getByRole('button', { name: 'Ask to be let in' }).click();
  const check = (await phone.getByRole('status').locator('p').nth(1).innerText()).trim();
  await expect(atDesk.getByText(check, { exact: true })).toBeVisible();
  await accessible(atDesk, 'a phone asks');
  await atDesk.getByRole('button', { name: 'Same digits: let it in' }).click();
  await expect(phone).toHaveURL(`${door}/`);
  await phone.getByRole('link', { name: 'Ferrin Point' }).click();
  await expect(phone.getByRole('link', { name: 'Mast phone' })).toBeVisible();

  // rooms for outdoors are fetched while the computer is near
  await enter(phone, 'noise', 'floor');
  await enter(phone, 'bench', 'mast');
  await enter(phone, 'notebook', 'diary');
  await write(phone, 'written in reach');
  await expect(phone.locator('[data-evidence]')).toContainText('written in reach');
  await atDesk.goto(`${desk}/s/1/notebook/diary`);
  await expect(atDesk.locator('[data-evidence]')).toContainText('written in reach');

  // out of reach: entries, a trim and a change wait; the desk writes on
  await pocket.setOffline(true);
  await write(phone, 'first at the mast');
  await expect(phone.getByText(/One entry waits in this browser/)).toBeVisible();
  await expect(phone.locator('[data-evidence]')).toContainText('first at the mast');
  await write(phone, 'second at the mast');
  await expect(phone.getByText(/2 entries wait in this browser/)).toBeVisible();
  const changed = async (page: Page, text: string): Promise<void> => {
    const row = page.locator('[data-evidence] li').filter({ hasText: 'written in reach' });
    await row.getByRole('button', { name: /^Change/ }).click();
    await row.getByLabel('What you did or saw').fill(text);
    await row.getByRole('button', { name: 'Save the change' }).click();
    await expect(row.getByRole('button', { name: 'Save the change' })).toHaveCount(0);
  };
  await changed(phone, 'written in reach, as the phone says');
  await expect(phone.getByText(/3 entries wait/)).toBeVisible();
  await write(atDesk, 'meanwhile at the desk');
  await changed(atDesk, 'written in reach, as the desk says');
  await expect(atDesk.locator('[data-evidence]')).toContainText('as the desk says');

  // back: saved by itself, once, in order; what both wrote is shown, and the person chooses
  await pocket.setOffline(false);
  await expect(phone.getByText(/^Not saved:/)).toBeVisible({ timeout: 20_000 });
  const conflict = phone.getByRole('table').filter({ hasText: 'Written elsewhere' });
  await expect(conflict).toContainText('as the phone says');
  await expect(conflict).toContainText('as the desk says');
  await accessible(phone, 'what both wrote');
  await phone.getByRole('button', { name: 'Keep what is written here' }).click();
  await expect(phone.getByText(/^Not saved:/)).toHaveCount(0);
  for (const page of [phone, atDesk]) {
    const entries = page.locator('[data-evidence]');
    for (const text of ['as the phone says', 'first at the mast', 'second at the mast', 'meanwhile at the desk'])
      await expect(entries.getByText(text)).toHaveCount(1);
    const told = await entries.innerText();
    expect(told.indexOf('second at the mast')).toBeLessThan(told.indexOf('first at the mast')); // latest first
  }

  // a lost phone: nothing more comes in, and what it had kept is gone
  await atDesk.goto(`${desk}/s/1/notebook/phone`);
  await atDesk.getByRole('button', { name: 'Revoke Mast phone' }).click();
  await expect(atDesk.getByRole('cell', { name: 'revoked', exact: true }).first()).toBeVisible();
  await phone.goto(`${door}/s/1/notebook/diary`);
  await expect(phone).toHaveURL(`${door}/pair`);
  expect(await keptAnswers(phone)).toBe(0);
  await expect(atDesk.getByRole('cell', { name: 'a revoked device asked' }).first()).toBeVisible({ timeout: 15_000 });

  // let in once more, it leaves by itself: nothing is kept, and the desk has nobody to revoke
  await letIn(atDesk, phone, 'Second phone');
  await phone.getByRole('link', { name: 'Ferrin Point' }).click();
  await enter(phone, 'notebook', 'phone');
  await expect.poll(() => keptAnswers(phone)).toBeGreaterThan(0);
  await expect(atDesk.getByRole('button', { name: 'Revoke Second phone' })).toBeVisible({ timeout: 15_000 });
  await phone.getByRole('button', { name: 'Leave: forget this device' }).click();
  await expect(phone).toHaveURL(`${door}/pair`);
  expect(await keptAnswers(phone)).toBe(0);
  await atDesk.reload();
  await expect(atDesk.getByText('Second phone').first()).toBeVisible();
  await expect(atDesk.getByRole('button', { name: 'Revoke Second phone' })).toHaveCount(0);
  await phone.goto(`${door}/s/1/notebook/diary`);
  await expect(phone).toHaveURL(`${door}/pair`);
  expect(faults).toEqual([]);
});

test('the installed application opens with the station last seen while the server is away, and takes entries', async ({
  browser,
}) => {
  test.setTimeout(90_000);
  const context = await browser.newContext({ serviceWorkers: 'allow', viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.goto(`${desk}/s/1/notebook/diary`);
  await expect(page.locator('[data-evidence]')).toBeVisible();
  await page.waitForFunction(
    () => navigator.serviceWorker.ready.then((one) => one.active?.state === 'activated'),
    undefined,
    { timeout: 30_000 },
  );
  await page.waitForTimeout(1500); // what was seen is written down in a pause
  await stop();
  await page.goto(`${desk}/s/1/notebook/diary`);
  await expect(page.getByText('The server is away: what you see was loaded before.')).toBeVisible({ timeout: 15_000 });
  await write(page, 'with the server off');
  await expect(page.getByText(/One entry waits in this browser/)).toBeVisible({ timeout: 15_000 });
  await page.reload();
  await expect(page.getByText(/One entry waits in this browser/)).toBeVisible({ timeout: 15_000 });
  await expect(page.locator('[data-evidence]')).toContainText('with the server off');
  await start();
  await expect(page.getByText(/One entry waits/)).toHaveCount(0, { timeout: 20_000 });
  await page.reload();
  await expect(page.locator('[data-evidence]').getByText('with the server off')).toHaveCount(1);
});

test('another data folder on the same port: what waits for the first stays out of it, and is saved when the first is back', async ({
  page,
}) => {
  test.setTimeout(120_000);
  const first = folder;
  const other = mkdtempSync(path.join(tmpdir(), 'velvet-reed-other-'));
  await page.goto(`${desk}/s/1/notebook/diary`);
  await expect(page.locator('[data-evidence]')).toBeVisible();
  await stop();
  await write(page, 'meant for the first folder');
  await expect(page.getByText(/One entry waits in this browser/)).toBeVisible({ timeout: 15_000 });
  folder = other;
  await start();
  const told = page.getByRole('alert').filter({ hasText: 'Another data folder is served at this address now.' });
  await expect(told).toBeVisible({ timeout: 20_000 });
  await told.getByRole('button', { name: 'Reload the page' }).click();
  await expect(page.getByText('One entry waits for another data folder')).toBeVisible({ timeout: 15_000 });
  await expect(page.locator('[data-evidence]')).not.toContainText('meant for the first folder');
  await write(page, 'written in the other folder');
  await expect(page.locator('[data-evidence]')).toContainText('written in the other folder');
  expect(await (await page.request.get(`${desk}/api/stations/1`)).text()).not.toContain('meant for the first folder');
  await stop();
  folder = first;
  rmSync(other, { recursive: true });
  await start();
  await page.goto(`${desk}/s/1/notebook/diary`);
  await expect(page.locator('[data-evidence]')).toContainText('meant for the first folder', { timeout: 20_000 });
  await expect(page.locator('[data-evidence]')).not.toContainText('written in the other folder');
  await expect(page.getByText(/One entry waits/)).toHaveCount(0, { timeout: 20_000 });
});
