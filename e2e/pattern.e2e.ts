import { expect, test } from '@playwright/test';
import { accessible, enter, watch } from './helpers';

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

test('a Yagi of a made-up world on the stand-in turntable: home, step, a lost link, gone on after a reload, and over its model', async ({
  page,
}) => {
  test.setTimeout(180_000);
  const faults = await watch(page);
  await page.goto('/s/1/draft/model');
  await page.getByRole('button', { name: 'New antenna' }).click();
  await page.getByLabel('Kind').selectOption({ label: 'Yagi' });
  await page.getByLabel('Cut for').fill('145.8 MHz');
  await page.getByRole('button', { name: 'Begin this antenna' }).click();
  await expect(page.getByText('Yagi for 146 MHz is on the Draft.')).toBeVisible();
  await enter(page, 'trials', 'pattern');
  const turn = page.getByRole('region', { name: 'Turn it here' });
  await turn.getByLabel('Antenna under test').selectOption({ label: 'Yagi for 146 MHz' });
  await turn.getByLabel('Frequency').fill('145.8 MHz');
  await turn.getByLabel('Settling').fill('0 s');
  await turn.getByLabel('Readings at each').fill('2');
  await turn.getByLabel('Step').fill('7°');
  await expect(turn.getByRole('alert')).toContainText('Steps of 7° do not close a circle');
  await turn.getByLabel('Step').fill('10°');
  await turn.getByLabel('Cable limit, on').fill('300°');
  await expect(turn.getByRole('alert')).toContainText(
    'The cable lets it turn through 300°, a circle in steps of 10° needs 350°',
  );
  await expect(turn.getByRole('button', { name: 'Start the turn' })).toBeDisabled();
  await turn.getByLabel('Cable limit, on').fill('360°');
  await expect(turn).toContainText('the table keeps between 0° and 350°');
  await turn.getByRole('button', { name: 'To its mark' }).click();
  await expect(turn).toContainText('The table is at its mark.');
  // what the table was asked: never past its limit
  const sent: number[] = [];
  page.on('request', (request) => {
    if (!request.url().endsWith('/turn')) return;
    const body: { toDeg: number | null } = JSON.parse(request.postData() ?? '{"toDeg":null}');
    if (body.toDeg !== null) sent.push(body.toDeg);
  });
  // the link to the meter is lost in the middle
  let readings = 0;
  await page.route('**/reading', async (route) => {
    readings += 1;
    if (readings === 25) await route.abort('connectionreset');
    else await route.continue();
  });
  await turn.getByRole('button', { name: 'Start the turn' }).click();
  await expect(turn.getByRole('alert')).toContainText('What was read is kept', { timeout: 60_000 });
  await expect(turn).toContainText('12 of 37 directions');
  await page.reload();
  await expect(turn).toContainText('12 of 37 directions');
  await turn.getByRole('button', { name: 'Go on, 25 to go' }).click();
  // and stopped by hand
  await expect(turn).toContainText(/1[5-9] of 37 directions/, { timeout: 60_000 });
  await turn.getByRole('button', { name: 'Stop', exact: true }).click();
  await turn.getByRole('button', { name: /^Go on, \d+ to go$/ }).click();
  const verdict = page.locator('.verdict');
  await expect(verdict).toContainText(/Yagi for 146 MHz, 145.8.* MHz.csv: 3[67] angles \(measured\)/, {
    timeout: 90_000,
  });
  expect(Math.min(...sent)).toBe(0);
  expect(Math.max(...sent)).toBe(350);
  expect(sent.at(-1)).toBe(350);
  await expect(verdict).toContainText(/agrees with its model, [01]\.\d dB rms in front/, { timeout: 30_000 });
  const figures = page.getByRole('region', { name: 'What it comes to' });
  await expect(figures.getByTestId('agreement')).toContainText(
    /Against the model of Yagi for 146 MHz: [01]\.\d dB rms within 10 dB of the peak.* 3[456] of 3[56] directions/,
  );
  await expect(page.getByRole('img', { name: /over its model/ })).toBeVisible();
  // another antenna does not agree, and is told so
  await figures.getByText('Model and stated error').click();
  await figures.getByLabel('Model of').selectOption({ label: 'V dipole for the satellites' });
  await expect(verdict).toContainText('differs from its model', { timeout: 30_000 });
  const saved = page.waitForEvent('download');
  await figures.getByRole('button', { name: 'JSON of the pattern' }).click();
  const file: { format: string; levelDb: number[]; model: { antenna: string } } = JSON.parse(
    await (await (await saved).createReadStream()).toArray().then((parts) => Buffer.concat(parts).toString()),
  );
  expect([file.format, file.levelDb.length, file.model.antenna]).toEqual([
    'velvet-reed-pattern',
    expect.closeTo(36, 0),
    'V dipole for the satellites',
  ]);
  await accessible(page, 'trials/pattern');
  expect(faults).toEqual([]);
});
