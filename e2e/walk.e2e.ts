import { readFile, writeFile } from 'node:fs/promises';
import { expect, test } from '@playwright/test';
import { EIGHT_PAIRS } from '../packages/contract/src/testing/eight-pairs';
import { accessible, enter, seriesDipFile, watch } from './helpers';

const file = (name: string, text: string) => ({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });

test('from a target to the report: the whole path for one antenna, with a reload in the middle', async ({
  page,
}, info) => {
  const faults = await watch(page);
  const verdict = page.locator('.verdict');
  // a station by grid locator, after a wrong one
  await page.goto('/');
  await accessible(page, 'stations');
  await page.getByLabel('Coordinates or grid locator').fill('ZZ99');
  await page.getByRole('button', { name: 'Find region' }).click();
  await expect(page.getByRole('alert')).toContainText('is not a position. Type it like 50.2 N 19.3 W');
  await page.getByLabel('Coordinates or grid locator').fill('50.2 N 19.3 W');
  await page.getByRole('button', { name: 'Find region' }).click();
  await expect(page.getByText('Locator IO00ie, ITU Region 1.')).toBeVisible();
  await page.getByLabel('Longest straight run').fill('a garden');
  await page.getByLabel('Name').fill('Second hut');
  await page.getByRole('button', { name: 'Create station' }).click();
  await expect(page.getByRole('alert')).toContainText('"a garden" is not a length');
  await expect(page.getByLabel('Name')).toHaveValue('Second hut');
  await page.getByLabel('Longest straight run').fill('124 ft 6 in');
  await page.getByLabel('Support height').fill('9 m');
  await page.getByRole('button', { name: 'Create station' }).click();
  await expect(verdict).toContainText('Second hut lies in ITU Region 1');

  // Listen: a band of the catalogue, edited and wanted; a transmitter; a receiver
  await page.getByRole('button', { name: 'Add from the catalogue' }).click();
  await page.getByLabel(/Search the catalogue/).fill('31 m');
  await page.getByRole('button', { name: 'Edit 31 m broadcast' }).click();
  await page.getByLabel('To', { exact: true }).fill('9.95 MHz');
  await page.getByRole('button', { name: 'Keep this edit' }).click();
  await expect(page.getByText('your edit')).toBeVisible();
  await page.getByRole('button', { name: 'Want 31 m broadcast' }).click();
  await expect(verdict).toContainText('You want to hear one target');
  await page.getByRole('button', { name: 'Close the catalogue' }).click();
  await enter(page, 'listen', 'transmitters');
  await page.getByRole('button', { name: 'Add a transmitter' }).click();
  await page.getByLabel('Name', { exact: true }).fill('FM mast');
  await page.getByRole('textbox', { name: 'Frequency' }).fill('95.3 MHz');
  await page.getByLabel('Power', { exact: true }).fill('4 kW');
  await page.getByRole('textbox', { name: 'Distance', exact: true }).fill('far');
  await page.getByRole('button', { name: 'Add the transmitter' }).click();
  await expect(page.getByRole('alert')).toContainText('"far" is not a length');
  await page.getByRole('textbox', { name: 'Distance', exact: true }).fill('1.8 km');
  await page.getByRole('button', { name: 'Add the transmitter' }).click();
  // 4 kW against a dipole at 1.8 km: 107.8 dBµV/m and −9.0 dBm on an isotropic antenna (worked by hand)
  const row = page.getByRole('row', { name: /FM mast/ });
  await expect(row).toContainText('107.8 dBµV/m');
  await expect(row).toContainText('0.246 V/m');
  await expect(row).toContainText('−9.0 dBm');
  await row.getByRole('button', { name: /107\.8 dBµV/ }).click();
  await expect(page.getByText('E = √(30·EIRP)/d = 0.246 V/m')).toBeVisible();
  await page.keyboard.press('Escape');
  await enter(page, 'listen', 'receivers');
  await page.getByRole('button', { name: 'Add a receiver by its data sheet' }).click();
  await page.getByLabel('Name', { exact: true }).fill('HF receiver');
  await page.getByRole('button', { name: 'Add the receiver' }).click();
  await expect(page.getByText('HF receiver')).toBeVisible();
  await accessible(page, 'listen');

  // Choose: ranked with reasons; a dipole is picked
  await enter(page, 'choose');
  await expect(page.getByText(/computations by the wire model over this ground/)).toBeVisible({ timeout: 60_000 });
  await expect(verdict).toContainText(/Best here (is|are two:) .*/);
  await accessible(page, 'choose');
  await page.getByRole('button', { name: 'Draft the V dipole' }).click();

  // Draft: dimensions follow typing, a gate opens a step, the revision is kept
  await expect(verdict).toContainText('Cut two arms to');
  await page.getByLabel('Resonant at').fill('9.5 MHz');
  await expect(verdict).toContainText('8.');
  const angle = page.getByRole('textbox', { name: 'Angle between the arms' });
  await angle.fill('30°');
  await page.getByRole('button', { name: 'Save as a new revision' }).click();
  await expect(page.getByRole('alert')).toContainText(
    'Angle between the arms is 30°; it must be between 90° and 180°.',
  );
  await angle.fill('120°');
  await page.getByRole('button', { name: 'Save as a new revision' }).click();
  await expect(page.getByText('revision 2', { exact: true })).toBeVisible();
  await expect(page.getByText(/segments, settled within/)).toBeVisible();
  await enter(page, 'draft', 'build');
  const crimp = page.getByRole('checkbox', { name: /Crimp or solder/ });
  await expect(crimp).toBeDisabled();
  await page.getByRole('checkbox', { name: /Are collar, sleeve and heat-shrink on the cable/ }).check();
  await expect(crimp).toBeEnabled();
  await accessible(page, 'draft');

  // Bench: a broken file first, then a real one by the file chooser, another by paste
  await enter(page, 'bench');
  await page.getByLabel('Sweep files').setInputFiles(file('broken.s1p', '# MHz S RI R 50\n9.0 0.1'));
  await expect(page.getByRole('alert')).toContainText(
    'broken.s1p: Line 2: this row has 2 numbers; a one-port row needs 3.',
  );
  await expect(page.getByRole('alert')).toContainText('Nothing was stored.');
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Import sweep file' }).click();
  await (await chooser).setFiles(file('first-cut.s1p', seriesDipFile(42, 11, 9.31, 8.6, 10.2, 321)));
  await expect(verdict).toContainText(/The dip sits at 9\.3\d+\sMHz/);
  await page.getByRole('button', { name: 'Paste a sweep' }).click();
  await page
    .getByLabel('Sweep as text')
    .fill(`freq_MHz,R,X\n${['9.0,42,-33', '9.4,42,-5', '9.6,42,9', '9.9,42,30'].join('\n')}`);
  await page.getByRole('button', { name: 'Import the text' }).click();
  await expect(page.getByRole('rowheader', { name: 'pasted-sweep.txt' })).toBeVisible();
  await page.getByRole('button', { name: 'Hide pasted-sweep.txt' }).click();
  await page.getByLabel('Marker at').fill('9.31 MHz');
  await page.getByRole('button', { name: 'Set marker' }).click();
  await expect(page.getByRole('row', { name: /M\d+\s+9\.3100 MHz/ })).toContainText('1.19'); // 50/42
  await enter(page, 'bench', 'trim');
  await page.getByLabel(/Length of each arm now/).fill('7.62 m');
  await page.getByLabel('Dip measured at').fill('9.31 MHz');
  await page.getByRole('button', { name: 'Record this length' }).click();
  await expect(verdict).toContainText(/Next: cut \d+\smm/);
  await accessible(page, 'bench');

  // a reload loses nothing
  await page.reload();
  await expect(verdict).toContainText(/Next: cut \d+\smm/);
  await enter(page, 'bench');
  await expect(page.getByRole('rowheader', { name: 'first-cut.s1p' })).toBeVisible();

  // Trials needs a second antenna
  await enter(page, 'choose');
  await page.getByRole('button', { name: 'Draft the Small amplified loop' }).click();
  await expect(verdict).toContainText('loop conductor');
  await enter(page, 'trials');
  await page.getByRole('button', { name: 'New trial' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Loop against V at dusk');
  await page.getByLabel('Pairs fixed beforehand').fill('8');
  await page.getByRole('button', { name: 'Begin the trial' }).click();
  for (const [i, [levelA, noiseA, levelB, noiseB]] of EIGHT_PAIRS.entries()) {
    await expect(page.getByRole('heading', { name: `Round ${i + 1}` })).toBeVisible();
    await page.getByLabel(/^Level, V dipole/).fill(`${levelA}`);
    await page.getByLabel(/^Noise, V dipole/).fill(`${noiseA} dBm`);
    await page.getByLabel(/^Level, Small amplified loop/).fill(`${levelB}`);
    await page.getByLabel(/^Noise, Small amplified loop/).fill(`${noiseB}`);
    await page.getByRole('button', { name: 'Log this pair' }).click();
    await expect(page.getByRole('heading', { name: `Round ${i + 2}` })).toBeVisible();
    if (i === 1) await expect(verdict).toContainText('Not judged yet: 2 of the 8 pairs');
  }
  // eight pairs: mean 4.0 dB, 1.8 to 6.2 dB (worked by hand)
  await expect(verdict).toContainText('is better on SNR by 4.0 dB, proven.');
  await expect(page.getByRole('region', { name: 'Results' })).toContainText('1.8 to 6.2 dB');
  await accessible(page, 'trials');

  // Noise: 13 dB of rise cost 0.22 dB of SNR
  await enter(page, 'noise');
  await page.getByRole('textbox', { name: 'Frequency', exact: true }).fill('9.6 MHz');
  await page.getByLabel('Noise, antenna off').fill('-119');
  await page.getByLabel('Noise, antenna on').fill('loud');
  await page.getByRole('button', { name: 'Log this reading' }).click();
  await expect(page.getByRole('alert')).toContainText(
    '"loud" is not a level. Type it like -73 dBm, 12 uV, 34 dBuV, 1 mW or S9+10.',
  );
  await page.getByLabel('Noise, antenna on').fill('-106');
  await page.getByRole('button', { name: 'Log this reading' }).click();
  await expect(page.getByRole('row', { name: /9\.600 MHz/ })).toContainText('0.22 dB');
  await accessible(page, 'noise');

  // Path: filter and amplifier; order 2 is changed by keyboard
  await enter(page, 'path');
  await page.getByRole('button', { name: 'New path' }).click();
  await page.getByLabel('Name', { exact: true }).fill('V to receiver');
  await page.getByLabel('Antenna', { exact: true }).selectOption({ index: 1 });
  await page.getByRole('button', { name: 'Create path' }).click();
  await page.getByRole('button', { name: 'Add a filter' }).click();
  await page.getByLabel('Order', { exact: true }).fill('five');
  await page.getByRole('button', { name: 'Add this stage' }).click();
  await expect(page.getByRole('alert')).toContainText('"five" is not a number');
  await page.getByLabel('Order', { exact: true }).fill('5');
  await page.getByLabel('Upper edge').fill('30 MHz');
  await page.getByLabel('Insertion loss').fill('0 dB');
  await page.getByRole('button', { name: 'Add this stage' }).click();
  // five poles of 0.1 dB at 30 MHz take 56.8 dB at 95.3 MHz (Matthaei, Young & Jones)
  await enter(page, 'path', 'filter');
  await expect(page.getByText('FM mast 56.8 dB')).toBeVisible();
  await enter(page, 'path');
  await page.getByRole('button', { name: 'Add an amplifier' }).click();
  await page.getByRole('button', { name: 'Add this stage' }).click();
  const second = page.getByRole('list', { name: 'Stages in order 2' });
  await expect(second.getByRole('listitem')).toHaveText([/Low-pass/, /Amplifier/]);
  await page.getByRole('button', { name: 'Move Amplifier in order 2' }).focus();
  await page.keyboard.press('Space');
  await page.waitForTimeout(300);
  await page.keyboard.press('ArrowUp');
  await page.waitForTimeout(300);
  await page.keyboard.press('Space');
  await expect(second.getByRole('listitem')).toHaveText([/Amplifier/, /Low-pass/]);
  await expect(page.getByRole('list', { name: 'Stages in order 1' }).getByRole('listitem')).toHaveText([
    /Low-pass/,
    /Amplifier/,
  ]);
  await accessible(page, 'path');

  // Guard: an antenna without a disconnect is red
  await enter(page, 'guard');
  await page.getByRole('button', { name: 'Plan for this transmitter' }).click();
  await page.getByRole('button', { name: 'Add a receiver input' }).click();
  await page.getByRole('textbox', { name: 'Receiver input' }).fill('Receiver B');
  await page.getByLabel('Fed by antenna').fill('Antenna 2');
  await page.getByRole('button', { name: 'Add the input' }).click();
  await expect(verdict).toContainText('Do not transmit yet: Antenna 2 is not disconnected');
  await expect(page.getByText('The protection inside the radio does not cover Receiver B').first()).toBeVisible();
  await expect(page.getByText('Planned.')).toBeHidden({ timeout: 15_000 });
  await accessible(page, 'guard');

  // Notebook: free text, report, checksum
  await enter(page, 'notebook');
  await page.getByRole('textbox', { name: 'What you did or saw' }).fill('Heard 31 m at dusk; λ/4 stub next.');
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'λ/4 stub next' })).toBeVisible();
  await expect(page.getByRole('listitem').filter({ hasText: 'Imported first-cut.s1p' })).toBeVisible();
  await expect(page.getByRole('listitem').filter({ hasText: 'Chose V dipole' })).toBeVisible();
  await enter(page, 'notebook', 'files');
  await page.getByRole('button', { name: 'Check first-cut.s1p' }).click();
  await expect(page.getByText('The stored file is unchanged.')).toBeVisible();
  const altered = info.outputPath('altered.s1p');
  await writeFile(altered, seriesDipFile(43, 11, 9.31, 8.6, 10.2, 321));
  await page
    .getByRole('listitem')
    .filter({ hasText: 'first-cut.s1p' })
    .getByLabel('Compare a copy')
    .setInputFiles(altered);
  await expect(page.getByText(/Checksum mismatch: altered\.s1p was altered/)).toBeVisible();
  await enter(page, 'notebook', 'report');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save the report as PDF' }).click();
  const report = await download;
  expect(report.suggestedFilename()).toBe('second-hut-report.pdf');
  const bytes = await readFile(await report.path());
  expect(bytes.subarray(0, 5).toString()).toBe('%PDF-');
  expect(bytes.length).toBeGreaterThan(30_000);
  await accessible(page, 'notebook');

  // undo takes the last step back, also after a reload
  await enter(page, 'notebook');
  await page.reload();
  await page.getByRole('button', { name: 'Undo the last change' }).click();
  await expect(page.getByText('Undone: entry added.')).toBeVisible();
  await expect(page.getByRole('listitem').filter({ hasText: 'λ/4 stub next' })).toHaveCount(0);
  expect(faults).toEqual([]);
});
