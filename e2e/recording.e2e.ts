import { readFile } from 'node:fs/promises';
import { expect, test, type Page } from '@playwright/test';
import { madeSwitched, wavOf } from '../packages/core/src/recording';
import { enter, watch } from './helpers';

const RATE_HZ = 4000;
const MADE = madeSwitched({
  ...{ seed: 3, sampleRateHz: RATE_HZ, turns: 16, periodS: 5, carrierHz: 700, bandwidthHz: 300 },
  ...{ levelDbfs: [-44, -58], noiseDbfs: [-62, -82], fadingDb: 2, fadingS: 31, jitter: 0.04, clickS: 0.12 },
});
/** SNR of B less A over the pairs that were put in, dB. */
const TRUTH =
  MADE.turns.reduce(
    (sum, { antenna, levelDbfs, noiseDbfs }) => sum + (antenna === 'B' ? 1 : -1) * (levelDbfs - noiseDbfs),
    0,
  ) /
  (MADE.turns.length / 2);
const WAV = { name: 'dusk.wav', mimeType: 'audio/wav', buffer: Buffer.from(wavOf(MADE.iq, RATE_HZ, 2)) };

/** Drags over the picture between two shares of its width. */
async function drag(page: Page, from: number, to: number): Promise<void> {
  const box = await page.getByRole('application', { name: /^Waterfall/ }).boundingBox();
  if (!box) throw new Error('No waterfall on the page.');
  await page.mouse.move(box.x + from * box.width, box.y + 60);
  await page.mouse.down();
  await page.mouse.move(box.x + ((from + to) / 2) * box.width, box.y + 70);
  await page.mouse.move(box.x + to * box.width, box.y + 80);
  await page.mouse.up();
}
const share = (offsetHz: number): number => 0.5 + offsetHz / RATE_HZ;

test('a recording is opened, measured, kept by its checksum, and its pairs go into a trial', async ({ page }) => {
  const faults = await watch(page);
  await page.goto('/s/1/trials/recording');
  await expect(page.locator('.verdict')).toContainText('4 pairs from one recording');
  const files = page.getByLabel('Recording files');

  // what is no recording says so; what is not certain is asked
  await files.setInputFiles({ name: 'levels.wav', mimeType: 'audio/wav', buffer: Buffer.from('freq,level\n1,2\n') });
  await expect(page.locator('.verdict')).toContainText('This is no WAV file');
  await files.setInputFiles([{ name: 'alone.sigmf-meta', mimeType: 'application/json', buffer: Buffer.from('{}') }]);
  await expect(page.locator('.verdict')).toContainText('choose .sigmf-meta and .sigmf-data together');
  await files.setInputFiles(WAV);
  await expect(page.getByText('does not say what they are.').first()).toBeVisible();
  await page.getByRole('button', { name: 'I and Q of one receiver' }).click();
  await expect(page.locator('.verdict')).toContainText('nothing is measured yet');

  // the signal by the mouse; the pointer by keys tells frequency, time and level
  await drag(page, share(550), share(850));
  await page.getByRole('radio', { name: 'a quiet band' }).check();
  await drag(page, share(-1050), share(-750));
  await expect(page.locator('.verdict')).toContainText('8 pairs from one recording');
  const waterfall = page.getByRole('application', { name: /^Waterfall/ });
  await waterfall.focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByTestId('pointer')).toContainText('dBFS');
  await page.keyboard.press('+');
  await page.keyboard.press('Home');

  // a plan made by hand gives the same; what is no list of seconds says so
  const plan = page.getByLabel('Switched at, s');
  await plan.fill('six');
  await expect(page.getByRole('alert')).toContainText('Type seconds from the start');
  await plan.fill(
    MADE.turns
      .slice(1)
      .map(({ startS }) => startS.toFixed(2))
      .join(', '),
  );
  await expect(page.getByRole('region', { name: 'Turns of the antennas' })).toContainText('as you say');
  await expect(page.locator('.verdict')).toContainText('8 pairs from one recording');
  await plan.fill('');

  // kept with its checksum, and the pairs go where pairs are judged
  const settings = page.getByRole('region', { name: 'What it is, and what was set' });
  await settings.getByLabel('Centre frequency').fill('nine');
  await settings.getByRole('button', { name: 'Keep the settings' }).click();
  await expect(settings.getByRole('alert')).toContainText('Type it like');
  await settings.getByLabel('Centre frequency').fill('0 MHz');
  await settings.getByLabel('Antenna heard first').selectOption({ label: 'Old dipole between mast and hedge' });
  await settings.getByLabel('Antenna in turn with it').selectOption({ label: 'Loop on the hut wall' });
  await settings.getByRole('button', { name: 'Keep the settings' }).click();
  await expect(settings.getByText(/kept; SHA-256/)).toBeVisible();
  await page.getByRole('button', { name: 'Put 8 pairs into it' }).click();
  await expect(page.getByText(/8 pairs put into/).first()).toBeVisible();
  await enter(page, 'trials', 'pairs');
  await expect(page.getByRole('region', { name: 'Pairs logged' }).first()).toContainText('dBFS');

  // after a reload the settings stand; the same file gives the same numbers again, and they are those that were put in
  await page.goto('/s/1/trials/recording');
  await expect(page.locator('.verdict')).toContainText('Only the settings of this recording are kept here');
  await page.getByLabel('Recording files').setInputFiles(WAV);
  await page.getByRole('button', { name: 'I and Q of one receiver' }).click();
  await expect(page.locator('.verdict')).toContainText(
    '8 pairs from one recording: loop on the hut wall is better on SNR',
  );
  const told = Number(/by (\d+\.\d) dB/.exec((await page.locator('.verdict').textContent()) ?? '')?.[1]);
  expect(Math.abs(told - TRUTH)).toBeLessThan(0.4);

  // a description with its data says all of itself; the bands leave as marks
  await page.getByLabel('Recording files').setInputFiles([
    {
      ...{ name: 'dusk.sigmf-meta', mimeType: 'application/json' },
      buffer: Buffer.from(
        JSON.stringify({
          global: { 'core:datatype': 'cf32_le', 'core:sample_rate': RATE_HZ, 'core:version': '1.0.0' },
          captures: [{ 'core:sample_start': 0, 'core:frequency': 9_650_000, 'core:datetime': '2026-03-10T18:40:00Z' }],
          annotations: [],
        }),
      ),
    },
    { name: 'dusk.sigmf-data', mimeType: 'application/octet-stream', buffer: Buffer.from(MADE.iq.buffer) },
  ]);
  await expect(page.locator('.verdict')).toContainText('nothing is measured yet');
  await drag(page, share(550), share(850));
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save the bands as marks' }).click();
  const marks = await readFile(await (await saved).path(), 'utf8');
  expect(marks).toContain('"core:label": "signal"');
  expect(marks).toMatch(/"core:freq_lower_edge": 9650\d{3}/);
  await waterfall.focus();
  await expect(page.getByTestId('pointer')).toContainText('UTC');

  // the noise of the whole band
  const noise = page.getByRole('region', { name: 'Noise, ticks and combs' });
  await noise.getByRole('button', { name: 'Read the noise' }).click();
  await expect(noise).toContainText('in the middle of the time (measured)');
  expect(faults).toEqual([]);
});
