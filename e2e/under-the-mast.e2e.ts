import { readFile } from 'node:fs/promises';
import { expect, test, type Page } from '@playwright/test';
import { accessible, enter, seriesDipFile, watch } from './helpers';

/** Fills a form's fields by their labels. */
async function fill(page: Page, fields: Readonly<Record<string, string>>): Promise<void> {
  for (const [label, text] of Object.entries(fields)) await page.getByLabel(label, { exact: true }).fill(text);
}

const TARGETS = [
  { name: 'First area', mhz: 3.6, place: '38 N 60 W', km: 3469, bearing: 262.8, back: 53.7, lossDb: 0.47 },
  { name: 'Second area', mhz: 9.6, place: '33 S 10 E', km: 9691, bearing: 155.7, back: 341.7, lossDb: 0.77 },
  { name: 'Third area', mhz: 14.1, place: '30 N 150 E', km: 11035, bearing: 9.4, back: 353.1, lossDb: 0.94 },
] as const;

/** Power against a dipole; field in V/m and isotropic level in dBm worked by hand. */
const FM = [
  { mhz: 91.7, kw: 2, km: 2.5, field: 0.125, dbm: -14.5 },
  { mhz: 95.3, kw: 4, km: 1.8, field: 0.246, dbm: -9.0 },
  { mhz: 104.9, kw: 8, km: 2.5, field: 0.251, dbm: -9.6 },
] as const;

const numbers = (text: string): readonly number[] =>
  (text.replaceAll('−', '-').match(/-?\d+(?:\.\d+)?/g) ?? []).map(Number);

/** A sheltered flat with a lawn: what to hear, what is allowed, who transmits, which antenna, and the report. */
test('under the mast: from the target to the choice, the loop on the lawn and the report', async ({ page }) => {
  test.setTimeout(240_000);
  const faults = await watch(page);
  const verdict = page.locator('.verdict');
  const note = (title: string) => page.getByRole('complementary').locator('section').filter({ hasText: title });

  // 1: station, locator, region, sun, band plan
  await page.goto('/');
  await page.getByLabel('Coordinates or grid locator').fill('50.2 N 19.3 W');
  await page.getByRole('button', { name: 'Find region' }).click();
  await expect(page.getByText('Locator IO00ie, ITU Region 1.')).toBeVisible();
  await fill(page, { Name: 'Sheltered flat', 'Its length': '20 m' });
  await page.getByLabel('Noise class (ITU-R P.372)').selectOption('residential');
  await page.getByLabel('Cable into the house').selectOption({ label: 'my own, by its loss' });
  await page.getByRole('button', { name: 'Create station' }).click();
  await expect(page.getByRole('alert')).toContainText('needs its loss at 10 MHz and at 100 MHz');
  // 1.22·√f + 0.0075·f dB per 100 m at 10 and 100 MHz
  await fill(page, { 'Own cable, loss at 10 MHz': '3.933', 'Own cable, loss at 100 MHz': '12.95' });
  await page.getByRole('button', { name: 'Create station' }).click();
  await expect(verdict).toContainText('Sheltered flat lies in ITU Region 1');
  await enter(page, 'listen', 'when');
  await page.getByLabel('Day (UTC)').fill('2026-03-10');
  const [rise, set] = (await note('Sun and day').innerText()).match(/\d\d:\d\d/g) ?? [];
  const minutes = (clock: string | undefined): number => Number(clock?.slice(0, 2)) * 60 + Number(clock?.slice(3));
  expect(Math.abs(minutes(rise) - (7 * 60 + 42))).toBeLessThanOrEqual(2);
  expect(Math.abs(minutes(set) - (19 * 60 + 14))).toBeLessThanOrEqual(2);
  await enter(page, 'listen');
  await page.getByRole('button', { name: 'Add from the catalogue' }).click();
  await page.getByLabel(/Search the catalogue of Region 1/).fill('40 m');
  await expect(page.getByRole('listitem').filter({ hasText: '40 m amateur' })).toContainText('7 to 7.2 MHz');
  await page.getByRole('button', { name: 'Close the catalogue' }).click();

  // 2: three areas with distance and both bearings
  for (const target of TARGETS) {
    await page.getByRole('button', { name: 'Add your own frequency' }).click();
    await fill(page, {
      Name: target.name,
      From: `${target.mhz - 0.02} MHz`,
      To: `${target.mhz + 0.02} MHz`,
      'Received bandwidth': '2.5 kHz',
      'From where': target.place,
    });
    await page.getByRole('button', { name: 'Add this target' }).click();
    const row = page.getByRole('region', { name: 'Wanted' }).getByRole('listitem').filter({ hasText: target.name });
    await expect(row).toContainText('km');
    const found = numbers((await row.innerText()).split('\n').find((line) => line.includes('km')) ?? '');
    const near = (wanted: number, within: number): boolean => found.some((one) => Math.abs(one - wanted) <= within);
    expect(near(target.km, 0.003 * target.km), `${target.name}: ${found.join()}`).toBe(true);
    expect(near(target.bearing, 0.5)).toBe(true);
    expect(near(target.back, 0.5)).toBe(true);
  }
  // 20 m of the line
  await enter(page, 'listen', 'place');
  for (const target of TARGETS)
    await expect(note('The line into the house').getByRole('listitem').filter({ hasText: target.name })).toContainText(
      String(target.lossDb),
    );

  // 3: rules of the place, and the wind
  await page.getByRole('button', { name: 'Change the rules' }).click();
  for (const rule of ['Nothing may be visible', 'No drilling', 'No transmitting']) await page.getByLabel(rule).check();
  await expect(page.getByLabel('The lawn may be used')).toBeChecked();
  await fill(page, { 'Wind that the weakest support stands': '35 mph', 'Wind forecast': '36 mph' });
  await page.getByRole('button', { name: 'Save the rules' }).click();
  await expect(note('Rules of the place')).toContainText('mast advice is withdrawn');
  await expect(note('Rules of the place')).toContainText(/Wind warning: the forecast of 16\.1 m\/s \(36 mph\)/);

  // 4: three FM transmitters
  await enter(page, 'listen', 'transmitters');
  for (const one of FM) {
    await page.getByRole('button', { name: 'Add a transmitter' }).click();
    await fill(page, {
      Name: `${one.mhz} MHz`,
      Frequency: `${one.mhz} MHz`,
      Power: `${one.kw} kW`,
      Distance: `${one.km} km`,
    });
    await page.getByRole('button', { name: 'Add the transmitter' }).click();
    const row = page.getByRole('row').filter({ hasText: `${one.mhz} MHz` });
    await row.getByRole('button', { name: /dBµV/ }).click();
    await expect(page.getByText(`= ${one.field} V/m`)).toBeVisible();
    await page.keyboard.press('Escape');
    const level = numbers(await row.getByRole('button', { name: /dBm/ }).innerText())[0];
    expect(Math.abs(level - one.dbm)).toBeLessThan(0.6); // shown without decimals
  }
  await enter(page, 'listen', 'receivers');
  await page.getByRole('button', { name: 'Add a receiver by its data sheet' }).click();
  await fill(page, { Name: 'HF receiver' });
  await page.getByRole('button', { name: 'Add the receiver' }).click();
  await expect(page.getByText('HF receiver')).toBeVisible();
  await accessible(page, 'listen, story');

  // 5: two loops to buy join the loop on the lawn and the wire; the wideband one is named as not usable
  await enter(page, 'choose', 'to-buy');
  for (const [name, filter] of [
    ['Loop to 180 MHz', ''],
    ['Loop to 30 MHz', '30 MHz'],
  ] as const) {
    await page.getByRole('button', { name: 'Add an antenna to buy' }).click();
    await fill(page, {
      Name: name,
      'Effective gain by frequency': 'loud',
      '2nd-order input intercept': '35 dBm',
      'Low-pass at its input': filter,
    });
    await page.getByRole('button', { name: 'Add it to the ranking' }).click();
    await expect(page.getByText(/"loud" is not a frequency with a gain/)).toBeVisible();
    await fill(page, { 'Effective gain by frequency': '9.6 MHz -28, 91 MHz -12, 105 MHz -12' });
    await page.getByRole('button', { name: 'Add it to the ranking' }).click();
    await expect(page.getByText('It is in the ranking.').first()).toBeVisible();
  }
  await enter(page, 'choose');
  await page.getByLabel('Ranked for').selectOption({ label: 'Second area' });
  await expect(page.getByText(/computations by the wire model over this ground/)).toBeVisible({ timeout: 60_000 });
  const ranking = page.getByRole('list', { name: 'Ranking' });
  const names = await ranking.getByRole('heading', { level: 3 }).allInnerTexts();
  const place = (name: string): number => names.findIndex((one) => one.startsWith(name));
  for (const better of ['Loop to 30 MHz', 'Loop on the ground', 'End-fed wire'])
    expect(place(better), `${better} against the wideband loop in ${names.join(' | ')}`).toBeLessThan(
      place('Loop to 180 MHz'),
    );
  const wideband = ranking.getByRole('list').getByRole('listitem').filter({ hasText: 'Loop to 180 MHz' });
  await expect(wideband).toContainText('95.3 MHz and 104.9 MHz (f2−f1) make 9.600 MHz in its head amplifier');
  await expect(wideband).toContainText('not usable on Second area');
  await wideband.getByRole('button', { name: 'Why Loop to 180 MHz' }).click();
  await expect(wideband).toContainText(/−77\.[4-8]\sdBm/);
  await expect(wideband).toContainText(/4[456]\sdB over the noise/);
  await expect(wideband).toContainText('A filter helps only ahead of the head amplifier');
  // a mast is withdrawn and says why, among what is not ranked
  await page.getByText(/antennas not ranked/).click();
  const folded = page.getByRole('list', { name: 'Not ranked' });
  await expect(folded.getByRole('listitem').filter({ hasText: 'Half-wave dipole' })).toContainText(
    'nothing may be visible',
  );
  await accessible(page, 'choose, story');

  // one changed cable length moves every margin, and the view says so
  await enter(page, 'listen', 'place');
  await page.getByRole('button', { name: 'Change the place' }).click();
  await fill(page, { 'Its length': '40 m' });
  await page.getByRole('button', { name: 'Save the place' }).click();
  await expect(note('The line into the house')).toContainText('40.0 m');
  await enter(page, 'choose');
  await page.getByLabel('Ranked for').selectOption({ label: 'Second area' });
  await expect(note('What changed')).toContainText('cable length: 20.0 m → 40.0 m.', { timeout: 30_000 });
  await expect(note('What changed')).toContainText(/\d+ of \d+ margins moved; most: .* dB\./);

  // 7: the loop on the lawn
  await page.getByRole('button', { name: 'Draft the Loop on the ground' }).click();
  await expect(page.getByRole('textbox', { name: 'One side' })).toHaveAttribute('placeholder', '4.5 m');
  const figures = page.getByRole('region', { name: 'Closed-form figures' });
  // c · 0.62 / 18 m, 18 m over 0.62 wavelengths, a staple each half metre: worked by hand
  for (const text of ['10.33', '0.179', '0.349', '0.688', '0.978', '1.37', '36.0'])
    await expect(figures).toContainText(text);
  await expect(page.getByText(/segments, settled within/)).toBeVisible({ timeout: 20_000 });
  await enter(page, 'draft', 'build');
  // 8: what cannot be undone waits; buried cables before anything is driven in; nothing about drilling at a place without
  const plan = page.getByRole('region', { name: 'Build plan' });
  const stepOf = (text: string) => plan.getByRole('listitem').filter({ hasText: text });
  await expect(stepOf('Crimp or solder the feed')).toContainText('Waits for: Are collar, sleeve and heat-shrink on');
  await expect(stepOf('Lay it square, staple it down')).toContainText('Are buried cables and pipes marked');
  await expect(stepOf('Have buried cables and pipes located')).toContainText('If unsure, do not dig');
  await expect(stepOf('Seal the feed point')).toContainText('Continuity yes, short no?');
  await expect(plan).not.toContainText(/drill/i);
  // RF earth within a tenth of a wave at 7.1 MHz: 4.22 m
  await enter(page, 'plot');
  for (const [kind, name, at] of [
    ['Feed entry', 'Cable entry', '0 0'],
    ['RF earth', 'Stake', '3 0'],
  ] as const) {
    await page.getByRole('combobox', { name: 'Add', exact: true }).selectOption({ label: kind });
    await page.getByRole('button', { name: 'Type it' }).click();
    await fill(page, { Name: name, 'Position: east north': at });
    await page.getByRole('button', { name: 'Put it on the plan' }).click();
    await expect(page.getByRole('button', { name: new RegExp(`^${name}`) })).toBeVisible();
  }
  await page.evaluate(() =>
    localStorage.setItem('velvet-reed.focus', JSON.stringify({ lowHz: 7.09e6, highHz: 7.11e6 })),
  );
  await page.reload();
  await expect(page.getByRole('region', { name: 'RF earth' })).toContainText(/4\.22\sm/);
  await expect(page.getByRole('region', { name: 'RF earth' })).toContainText('Near enough.');

  // 13: the report, and a raw file that was altered
  await enter(page, 'bench');
  const sweep = seriesDipFile(42, 11, 9.6, 8.6, 10.2, 81);
  await page.getByLabel('Sweep files').setInputFiles({
    name: 'lawn-loop.s1p',
    mimeType: 'text/plain',
    buffer: Buffer.from(sweep),
  });
  await expect(verdict).toContainText('The dip sits at');
  await enter(page, 'notebook');
  await page.getByLabel('What you did or saw').fill('Loop pressed into the sward, rain.');
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(page.getByText('Written.')).toBeVisible();
  await enter(page, 'notebook', 'report');
  for (const [button, magic] of [
    ['Save the report as PDF', '%PDF-'],
    ['Charts as PNG', '\u0089PNG'],
  ] as const) {
    const saved = page.waitForEvent('download', { timeout: 60_000 });
    await page.getByRole('button', { name: button }).click();
    expect((await readFile(await (await saved).path())).toString('latin1').startsWith(magic)).toBe(true);
  }
  // each picture is a file of its own
  const table = page.waitForEvent('download', (one) => one.suggestedFilename().endsWith('.csv'));
  await page.getByRole('button', { name: 'Tables as CSV' }).click();
  const csv = await readFile(await (await table).path(), 'utf8');
  for (const text of ['Loop to 180 MHz', 'lawn-loop.s1p', 'Loop pressed into the sward, rain.', 'SHA-256'])
    expect(csv).toContain(text);
  await enter(page, 'notebook', 'files');
  const file = page.getByRole('region', { name: 'Raw files' }).getByRole('listitem').filter({ hasText: 'lawn-loop' });
  await file.getByLabel('Compare a copy').setInputFiles({
    name: 'lawn-loop.s1p',
    mimeType: 'text/plain',
    buffer: Buffer.from(sweep.replace('8.6', '8.7')),
  });
  await expect(file.getByRole('status')).toContainText('Checksum mismatch: lawn-loop.s1p was altered');
  expect(faults).toEqual([]);
});
