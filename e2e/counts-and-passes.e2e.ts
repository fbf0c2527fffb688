import { appendFile, mkdir, rm, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { wavOf, chanceOf } from '../packages/core/src/recording';
import { enter, watch } from './helpers';

/** The folder that the server under test was started with. */
const FOLDER = path.join(import.meta.dirname, 'test-results/decodes');
const HEAD = 'Time UTC;Frequency (MHz);SNR;Heard;Locator';
const row = (minute: number, snr: number, sender: string, locator: string): string =>
  `2026-08-04 ${String(10 + Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}:00;0.1375;${snr};${sender};${locator}\n`;

/** Fifteen decodes of one sender, as in a worked example: mean −4.40, SD 1.45, median −4. */
const FIFTEEN = [-4, -5, -3, -6, -4, -5, -7, -1, -4, -5, -4, -6, -5, -3, -4];
// 38.2 S 126.4 E, and 20 S 158 E; a single one from another region
const [NEAR, FAR, ELSEWHERE] = ['PF31et', 'QH90aa', 'JO22aa'];

/** Answers what a table does not say for certain, where it is asked. */
async function importDecodes(page: Page, name: string, text: string): Promise<void> {
  const decodes = page.getByRole('region', { name: 'Decodes', exact: true });
  await decodes.getByLabel('Heard on').first().selectOption({ label: 'none of these' });
  await decodes.getByLabel(/Import a table/).setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });
  await expect(decodes.getByText(name).first()).toBeVisible();
}

test('a night of decodes by its figures, one that looks false flagged; a table followed while it grows', async ({
  page,
}) => {
  const faults = await watch(page);
  await mkdir(FOLDER, { recursive: true });
  await page.goto('/s/1/trials/decodes');
  const one = FIFTEEN.map((snr, i) => row(2 * i, snr, 'near', NEAR)).join('');
  await importDecodes(page, 'fifteen.csv', `${HEAD}\n${one}`);
  const nights = page.getByRole('region', { name: 'Nights', exact: true });
  const first = nights.getByRole('row').filter({ hasText: 'fifteen.csv' });
  await expect(first).toContainText('15');
  await expect(first).toContainText('−4.4');
  await expect(first).toContainText('1.45');
  await expect(first).toContainText('−4.0');
  // a single decode of −32 dB from another region is flagged; those of −33 and −34 that repeat are not
  const doubted =
    one +
    [
      row(31, -33, 'far', FAR),
      row(33, -34, 'far', FAR),
      row(35, -33, 'far', FAR),
      row(37, -32, 'once', ELSEWHERE),
    ].join('');
  await importDecodes(page, 'doubted.csv', `${HEAD}\n${doubted}`);
  const reach = page.getByRole('region', { name: 'Reach and doubts' });
  await expect(reach).toContainText('1 decode looks false');
  await expect(reach).toContainText(/once JO22aa, −32 dB/);
  await expect(reach.getByRole('img', { name: /^Map of 2 places heard/ })).toBeVisible();
  // what is no table is refused, and nothing is taken
  const decodes = page.getByRole('region', { name: 'Decodes', exact: true });
  await decodes
    .getByLabel(/Import a table/)
    .setInputFiles({ name: 'broken.csv', mimeType: 'text/csv', buffer: Buffer.from([0, 1, 2, 3]) });
  await expect(decodes.getByRole('alert')).toContainText('Nothing was taken');

  // a program writes; the page follows, and keeps a night when asked
  const file = path.join(FOLDER, 'growing.csv');
  await writeFile(file, `${HEAD}\n${row(0, -10, 'near', NEAR)}${row(2, -12, 'near', NEAR)}`);
  const follow = page.getByRole('region', { name: 'Follow a decoding program' });
  await expect(follow.getByLabel('Table').getByRole('option', { name: /growing\.csv/ })).toBeAttached();
  const option = await follow.getByRole('option', { name: /growing\.csv/ }).getAttribute('value');
  await follow.getByLabel('Table').selectOption(option ?? '');
  await expect(follow.getByRole('status')).toContainText('2 decodes of 1, median −11 dB');
  await appendFile(file, row(4, -14, 'other', FAR));
  await expect(follow.getByRole('status')).toContainText('3 decodes of 2', { timeout: 15_000 });
  await follow.getByRole('button', { name: 'Keep what is there as a night' }).click();
  await expect(page.getByText('growing.csv is kept as a night.')).toBeVisible();
  await page.reload();
  await expect(nights.getByRole('row').filter({ hasText: 'growing.csv' })).toContainText('3');
  await rm(file);

  // modes by their figures, worked by hand: gain by 10·log(T/120 s), limits in their own bandwidths, chances of six hours
  const modes = page.getByRole('region', { name: 'Threshold and mode' });
  for (const [name, figures] of [
    ['2 minutes', ['0.00', '−5.7 dB', '180']],
    ['5 minutes', ['3.98', '−5.4 dB', '72']],
    ['15 minutes', ['8.75', '−5.6 dB', '24']],
    ['30 minutes', ['11.76', '−5.6 dB', '12']],
  ] as const)
    for (const figure of figures)
      await expect(
        modes.getByRole('row').filter({ has: page.getByRole('rowheader', { name, exact: true }) }),
      ).toContainText(figure);
  expect(faults).toEqual([]);
});

test('five differences of two converters are judged at their end; gain by substitution agrees with the model', async ({
  page,
}) => {
  const faults = await watch(page);
  // two that were never compared before
  await page.goto('/s/1/draft/model');
  await page.getByRole('button', { name: 'New antenna' }).click();
  await page.getByLabel('Kind').selectOption({ label: 'Ferrite rod loop' });
  await page.getByLabel('Cut for').fill('77.5 kHz');
  await page.getByRole('button', { name: 'Begin this antenna' }).click();
  await expect(page.getByText('Ferrite rod loop for 77.5 kHz is on the Draft.')).toBeVisible();
  await enter(page, 'trials', 'pairs');
  await page.getByRole('button', { name: 'New trial' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Card and dongle');
  await page.getByLabel('Antenna B (the new one)').selectOption({ label: 'Ferrite rod loop for 77.5 kHz' });
  await page.getByLabel('Pairs fixed beforehand').fill('5');
  await page.getByRole('button', { name: 'Begin the trial' }).click();
  for (const [i, db] of [22, 19, 25, 23, 21].entries()) {
    const round = page.getByRole('region', { name: `Round ${i + 1}`, exact: true });
    await round.getByLabel('or SNR, B less A').fill(`${db} dB`);
    await round.getByRole('button', { name: 'Log this pair' }).click();
    await expect(page.getByRole('heading', { name: `Round ${i + 2}`, exact: true })).toBeVisible();
  }
  await expect(page.locator('.verdict')).toContainText('better on SNR by 22.0 dB, proven');
  await expect(page.getByRole('region', { name: 'Results' }).getByRole('row').filter({ hasText: 'SNR' })).toContainText(
    '19.2 to 24.8 dB',
  );

  await enter(page, 'trials', 'pattern');
  const gain = page.getByRole('region', { name: 'Gain by substitution' });
  // worked by hand: 868 MHz over 6 m loses 46.8 dB; 14 + 2.15 + 2.15 − 46.8 = −28.5 dBm; 2.15 + 4.3 = 6.45 dBi
  await gain.getByLabel('Frequency').fill('868 MHz');
  await gain.getByLabel('Distance').fill('6 m');
  await gain.getByLabel('Power sent').fill('14 dBm');
  await gain.getByLabel('Gain of the sender').fill('2.15 dBi');
  await gain.getByLabel('Level with the reference').fill('-26.5 dBm');
  await gain.getByLabel('Level with the antenna').fill('-22.2 dBm');
  await gain.getByLabel('Gain by the model').fill('6.1 dBi');
  await expect(gain).toContainText('Gain 6.45');
  await expect(gain).toContainText('Free space loses 46.8 dB here: the reference should show −28.5 dBm');
  await expect(gain).toContainText(/0\.[34] dB over the model: agrees within the scatter/);
  // an antenna 6.0 dB over a dipole
  await gain.getByLabel('Level with the antenna').fill('-20.5 dBm');
  await expect(gain).toContainText('Gain 8.15');
  await gain.getByLabel('SWR of the antenna').fill('0.5');
  await expect(gain.getByRole('alert')).toContainText('SWR');
  await gain.getByLabel('Distance').fill('far');
  await expect(gain.getByRole('alert').first()).toContainText('Type it like');
  expect(faults).toEqual([]);
});

test('a pass at best, whole pictures, and a horizon that is none; two receivers in one recording, heard and held against each other', async ({
  page,
}) => {
  const faults = await watch(page);
  await page.goto('/s/1/trials/passes');
  const best = page.getByRole('region', { name: 'At best' });
  await best.getByLabel('Height of the orbit, km').fill('420');
  await best.getByLabel('Frequency').fill('145.8 MHz');
  // a circular orbit at 420 km, worked from Kepler's law: 92.9 min, 10.4 min overhead, ±3.50 kHz
  await expect(best).toContainText(/Round in (92\.[89]|93\.0) min, in view for 10\.[45] min, Doppler ±3\.(49|50) kHz/);
  const pictures = page.getByRole('region', { name: 'Whole pictures' });
  await pictures.getByLabel('Heard for').fill('600 s');
  await expect(pictures).toContainText('At least 1 whole picture, and a 41 % chance of 2');
  const horizon = page.getByRole('region', { name: 'Horizon' });
  await horizon.getByLabel('Horizon', { exact: true }).fill('behind the barn');
  await horizon.getByRole('button', { name: 'Keep the horizon' }).click();
  await expect(horizon.getByRole('alert').first()).toContainText('azimuth and elevation');
  await horizon.getByRole('button', { name: 'Take the horizon from the Plot' }).click();
  await expect(page.getByText('Station saved.')).toBeVisible();

  // A on the first receiver, B on the second and 4 dB better; the second reads 5 dB more; exchanged halfway
  const RATE_HZ = 4000;
  const chance = chanceOf(5);
  const values = new Float32Array(2 * 60 * RATE_HZ);
  for (let i = 0; i < values.length / 2; i += 1) {
    const carrier = 0.02 * Math.cos((2 * Math.PI * 1000 * i) / RATE_HZ);
    const a = carrier + 0.01 * chance.normal();
    const b = carrier * 10 ** (4 / 20) + 0.01 * chance.normal();
    const gain = 10 ** (5 / 20);
    values.set(i < values.length / 4 ? [a, gain * b] : [b, gain * a], 2 * i);
  }
  await enter(page, 'trials', 'recording');
  await page
    .getByLabel('Recording files')
    .setInputFiles({ name: 'both.wav', mimeType: 'audio/wav', buffer: Buffer.from(wavOf(values, RATE_HZ, 2)) });
  await page.getByRole('button', { name: 'Two receivers at once' }).click();
  await expect(page.locator('.verdict')).toContainText('nothing is measured yet');
  const box = await page.getByRole('application', { name: /^Waterfall/ }).boundingBox();
  if (!box) throw new Error('No waterfall on the page.');
  for (const [from, to] of [
    [0.45, 0.55],
    [0.7, 0.8],
  ]) {
    await page.mouse.move(box.x + from * box.width, box.y + 60);
    await page.mouse.down();
    await page.mouse.move(box.x + to * box.width, box.y + 80, { steps: 3 });
    await page.mouse.up();
  }
  await expect(page.locator('.verdict')).toContainText('Next: compare the channels');
  const both = page.getByRole('region', { name: 'Both receivers at once' });
  await both.getByLabel('Antennas exchanged at').fill('90 s');
  await both.getByRole('button', { name: 'Compare the channels' }).click();
  await expect(both.getByRole('alert')).toContainText('Moment of the exchange');
  await both.getByLabel('Antennas exchanged at').fill('30 s');
  await both.getByLabel('Blocks of').fill('3 s');
  await both.getByRole('button', { name: 'Compare the channels' }).click();
  await expect(both).toContainText(/The second receiver reads (4\.[89]|5\.[012]) dB of signal/);
  await expect(both).toContainText(/B is better on SNR by (3\.[89]|4\.[012]) dB, proven/);

  const list = page.getByRole('region', { name: 'SNR at a list of frequencies' });
  await list.getByLabel('Bandwidth of each').fill('100 Hz');
  await list.getByLabel(/^Frequencies/).fill('1, 9');
  await list.getByRole('button', { name: 'Read the list' }).click();
  await expect(list.getByRole('alert')).toContainText('9.000 kHz with its bandwidth does not lie in this recording');
  await list.getByLabel(/^Frequencies/).fill('1, 0.5');
  await list.getByRole('button', { name: 'Read the list' }).click();
  await expect(list.getByRole('row').filter({ hasText: '500' })).toContainText('not heard');

  await page.getByLabel('Listen as').selectOption('CW');
  await page.getByRole('button', { name: 'Listen', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Listen', exact: true })).toBeVisible();
  expect(faults).toEqual([]);
});
