import { readFileSync, writeFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { accessible, freshStation, watch } from './helpers';

test('a station leaves as a file, comes back beside what is here and as a new one; a cut file is told', async ({
  page,
}, info) => {
  const faults = await watch(page);
  const base = await freshStation(page, [51.1, -7.3]);
  const diary = async (text: string): Promise<void> => {
    await page.goto(`${base}/notebook/diary`);
    await page.getByLabel('What you did or saw').fill(text);
    await page.getByRole('button', { name: 'Write it down' }).click();
    await expect(page.getByRole('listitem').filter({ hasText: text })).toBeVisible();
  };
  await diary('charger at 9.65 MHz; =SUM(A1)');
  await diary('far end at 6 m');
  await page.goto(`${base}/notebook/station-file`);
  const saving = page.waitForEvent('download');
  await page.getByRole('link', { name: /^Save / }).click();
  const download = await saving;
  const file = info.outputPath('kept.station.zip');
  await download.saveAs(file);
  expect(download.suggestedFilename()).toMatch(/\.station\.zip$/);

  // what was written since stays; what was deleted since is told, and taken only when ticked
  await page.goto(`${base}/notebook/diary`);
  const charger = page.getByRole('listitem').filter({ hasText: 'charger at 9.65 MHz' });
  await charger.getByRole('button', { name: /^Delete/ }).click();
  await expect(charger).toHaveCount(0);
  await diary('written later');
  const end = page.getByRole('listitem').filter({ hasText: 'far end at 6 m' });
  await end.getByRole('button', { name: /^Change/ }).click();
  const form = page.locator('form').filter({ has: page.getByRole('button', { name: 'Cancel' }) });
  await form.getByRole('textbox').first().fill('far end at 7 m');
  await form.getByRole('button', { name: /^Save|^Keep/ }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'far end at 7 m' })).toBeVisible();
  await page.goto(`${base}/notebook/station-file`);
  const open = page.getByRole('region', { name: 'Open a station file' });
  await open.getByLabel(/Station file/).setInputFiles(file);
  await expect(open).toContainText('It is here already:');
  await expect(open.getByRole('row', { name: /charger at 9.65 MHz/ })).toContainText('deleted here');
  const changed = open.getByRole('row', { name: /entry far end/ });
  await expect(changed).toContainText('older in the file');
  await expect(changed).toContainText('Text: far end at 7 m here, far end at 6 m in the file');
  await open.getByRole('checkbox', { name: /charger/ }).check();
  await open.getByRole('button', { name: /^Take (1|one) record in$/ }).click();
  await expect(open.getByRole('status')).toContainText(/(no|0) records added, 1 changed; undo takes that back/);
  await page.goto(`${base}/notebook/diary`);
  await expect(page.getByRole('listitem').filter({ hasText: 'charger at 9.65 MHz; =SUM(A1)' })).toBeVisible();
  await expect(page.getByRole('listitem').filter({ hasText: 'written later' })).toBeVisible();

  // as a station of its own
  await page.goto(`${base}/notebook/station-file`);
  await open.getByLabel(/Station file/).setInputFiles(file);
  await open.getByRole('button', { name: 'Take it in as a station of its own' }).click();
  await open.getByRole('link', { name: 'Open it' }).click();
  await expect(page).not.toHaveURL(new RegExp(`${base}/`));
  await page.goto(`${new URL(page.url()).pathname.split('/').slice(0, 3).join('/')}/notebook/diary`);
  await expect(page.getByRole('listitem').filter({ hasText: 'charger at 9.65 MHz; =SUM(A1)' })).toBeVisible();

  // cut off, and something else
  const whole = readFileSync(file);
  const cut = info.outputPath('cut.station.zip');
  writeFileSync(cut, whole.subarray(0, whole.length / 2));
  await page.goto(`${base}/notebook/station-file`);
  await open.getByLabel(/Station file/).setInputFiles(cut);
  await expect(open.getByRole('alert')).toContainText('it is cut off. Copy it again');
  await open.getByLabel(/Station file/).setInputFiles({
    ...{ name: 'holiday.zip', mimeType: 'application/zip', buffer: Buffer.from('no archive') },
  });
  await expect(open.getByRole('alert')).toContainText('holiday.zip: This is no station file');
  await accessible(page, 'notebook/station-file');

  // a backup, and the database looked over; putting back stands in a walk of its own, it takes all stations along
  const backups = page.getByRole('region', { name: 'Backups', exact: true });
  await backups.getByRole('button', { name: 'Make one now' }).click();
  await expect(backups.getByRole('status')).toContainText('A backup is made.');
  await expect(page.locator('.verdict')).toContainText(/All stations are in .* backups?, the newest just made/);
  await backups.getByRole('button', { name: 'Check the database' }).click();
  await expect(backups.getByRole('status')).toContainText('The database is sound.');
  expect(faults).toEqual([]);
});

test('the diary is searched with everything else; what was deleted comes back out of the bin, or goes for good', async ({
  page,
}) => {
  const faults = await watch(page);
  const base = await freshStation(page, [51.2, -7.4]);
  await page.goto(`${base}/notebook/diary`);
  await page.getByLabel('What you did or saw').fill('the charger hums at 9.65 MHz again');
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'charger hums' })).toBeVisible();
  const search = page.getByRole('region', { name: 'Search' });
  await search.getByLabel('Look for').fill('9.65 mh');
  await expect(search.getByRole('listitem')).toHaveCount(1);
  await expect(search).toContainText('the charger hums at 9.65 MHz again');
  await search.getByLabel('Look for').fill('"; nowhere *');
  await expect(search).toContainText('Nothing holds these words.');
  await page.goto(`${base}/notebook/diary`);
  await page
    .getByRole('listitem')
    .filter({ hasText: 'charger' })
    .getByRole('button', { name: /^Delete/ })
    .click();
  await expect(page.getByRole('listitem').filter({ hasText: 'charger' })).toHaveCount(0);
  await page.goto(`${base}/notebook/bin`);
  await expect(page.locator('.verdict')).toContainText('can be taken back, the latest entry the charger hums');
  await accessible(page, 'notebook/bin');
  await page.getByRole('button', { name: /^Bring back entry the charger/ }).click();
  await expect(page.locator('.verdict')).toContainText('Nothing was deleted that could come back');
  await page.goto(`${base}/notebook/diary`);
  await page
    .getByRole('listitem')
    .filter({ hasText: 'charger' })
    .getByRole('button', { name: /^Delete/ })
    .click();
  await expect(page.getByRole('listitem').filter({ hasText: 'charger' })).toHaveCount(0);
  await page.goto(`${base}/notebook/bin`);
  await page.getByRole('button', { name: 'Empty the bin…' }).click();
  await page.getByRole('button', { name: 'Empty it for good' }).click();
  await expect(page.locator('.verdict')).toContainText('Nothing was deleted that could come back');
  expect(faults).toEqual([]);
});
