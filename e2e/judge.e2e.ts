import { execFile } from 'node:child_process';
import { promisify } from 'node:util';
import { expect, test } from '@playwright/test';
import { watch } from './helpers';

interface Judged {
  readonly steps: readonly { readonly step: string; readonly stands: string }[];
  readonly verdicts: readonly { readonly step: string; readonly about: string; readonly text: string }[];
}

/** Text with every space alike. */
const plain = (text: string): string => text.replace(/\s+/g, ' ').trim();

test('a station file is judged on the command line as its pages judge it', async ({ page }, info) => {
  test.setTimeout(240_000);
  const faults = await watch(page);
  // a station of this walk's own: the demo as a file, taken in as another one
  await page.goto('/s/1/notebook/station-file');
  const saving = page.waitForEvent('download');
  await page.getByRole('link', { name: /^Save / }).click();
  const file = info.outputPath('demo.station.zip');
  await (await saving).saveAs(file);
  const open = page.getByRole('region', { name: 'Open a station file' });
  await open.getByLabel(/Station file/).setInputFiles(file);
  await open.getByRole('button', { name: 'Take it in as a station of its own' }).click();
  await open.getByRole('link', { name: 'Open it' }).click();
  await expect(page).toHaveURL(/\/s\/\d+\/(?!notebook)/);
  const base = new URL(page.url()).pathname.split('/').slice(0, 3).join('/');

  const { stdout } = await promisify(execFile)('npx', ['--no-install', 'reed', 'judge', file, '--json']);
  const judged = JSON.parse(stdout) as Judged;
  const said = (step: string): string => plain(judged.verdicts.filter((one) => one.step === step).at(-1)?.text ?? '');
  const rooms = { trials: 'trials/pairs', noise: 'noise/floor', path: 'path/chain', guard: 'guard/states' } as const;
  for (const [step, room] of Object.entries(rooms)) {
    await page.goto(`${base}/${room}`);
    await expect
      .poll(async () => plain(await page.locator('.verdict').first().innerText()), { message: room, timeout: 90_000 })
      .toBe(said(step));
  }
  // the first antenna of the demo has a sweep and a trim diary
  await page.goto(`${base}/bench/sweep`);
  const bench = judged.verdicts.find(({ step, text }) => step === 'bench' && text.includes('too low'));
  await expect
    .poll(async () => plain(await page.locator('.verdict').first().innerText()), { message: 'bench/sweep' })
    .toBe(plain(bench?.text ?? 'no verdict'));
  // where each step stands is the same in the rail
  await page.goto(`${base}/notebook/diary`);
  for (const { step, stands } of judged.steps)
    await expect(
      page.getByRole('link', { name: new RegExp(`${step[0].toUpperCase()}${step.slice(1)} ?, ${stands}`) }).first(),
    ).toBeAttached({ timeout: 60_000 });
  expect(faults).toEqual([]);
});
