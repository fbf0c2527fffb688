import { expect, test } from '@playwright/test';
import { watch } from './helpers';

/** V(θ) = 0.05 + 0.95·((1 + cos θ)/2)³ every 5°, a worked example. */
const TABLE = [
  'Angle (deg);Level',
  ...Array.from(
    { length: 72 },
    (_, i) => `${5 * i};${(0.05 + 0.95 * ((1 + Math.cos((5 * i * Math.PI) / 180)) / 2) ** 3).toFixed(5)}`,
  ),
].join('\n');

test('a pattern of amplitudes is asked for its scale, and its figures follow; the plan of a turn and the room it needs', async ({
  page,
}) => {
  const faults = await watch(page);
  await page.goto('/s/1/trials/pattern');
  const patterns = page.getByRole('region', { name: 'Measured patterns' });
  await patterns.getByLabel('Antenna that was turned').selectOption({ label: 'none of these' });
  await patterns
    .getByLabel(/Import a table/)
    .setInputFiles({ name: 'horn.csv', mimeType: 'text/csv', buffer: Buffer.from(TABLE) });
  await expect(page.locator('.verdict')).toContainText('horn.csv: 72 angles (measured)');
  const figures = page.getByRole('region', { name: 'What it comes to' });
  await expect(figures.getByRole('status')).toContainText('are they amplitude, power, or decibels?');
  await figures.getByRole('radio', { name: 'power' }).check();
  await expect(figures).toContainText(/3 dB width 111\.[78]°/);
  await figures.getByRole('radio', { name: 'amplitude (voltage)' }).check();
  await expect(figures).toContainText(/3 dB width 79\.[3-6]°/);
  await expect(figures).toContainText(/Front to back 26\.0 dB.*to the sides 15\.5 dB/);
  await expect(figures).toContainText('Directivity about 8.1 dBi: an estimate');
  await page.reload();
  await expect(figures).toContainText(/3 dB width 79\.[3-6]°/);
  await expect(page.getByRole('region', { name: 'Plan of a turn' })).toContainText('72 points, 9.6 min');
  // 15 cm at 2.4 GHz: 2D²/λ 0.36 m, the largest of the usual criteria 1.5 m; 2.0 dB of ripple betray −18.8 dB
  const far = page.getByRole('region', { name: 'Far enough, and alone?' });
  await expect(far).toContainText(/2D²\/λ is 360 mm; 1\.5 m are recommended/);
  await expect(far).toContainText('a ray −18.8 dB down, and makes every level ±1.0 dB uncertain');
  await far.getByLabel('Distance').fill('1 m');
  await expect(far).toContainText('go farther');
  expect(faults).toEqual([]);
});
