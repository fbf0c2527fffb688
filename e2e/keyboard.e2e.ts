import { expect, test, type Locator, type Page } from '@playwright/test';
import { seriesDipFile, watch } from './helpers';

/** Presses Tab, or Shift+Tab where it lies behind, until `wanted` has the focus; fails when a whole round of the page does not reach it. */
async function tabTo(page: Page, wanted: Locator): Promise<void> {
  await wanted.waitFor();
  // where nothing has the focus the round begins at the top
  const behind = await wanted.evaluate(
    (element) =>
      document.activeElement !== null &&
      document.activeElement !== document.body &&
      (element.compareDocumentPosition(document.activeElement) & Node.DOCUMENT_POSITION_FOLLOWING) > 0,
  );
  for (let presses = 0; presses < 250; presses += 1) {
    if (await wanted.evaluate((element) => element === document.activeElement)) return;
    await page.keyboard.press(behind ? 'Shift+Tab' : 'Tab');
  }
  throw new Error(`Tab never reached ${wanted.toString()}`);
}

const press = async (page: Page, name: string | RegExp, key = 'Enter'): Promise<void> => {
  await tabTo(page, page.getByRole('button', { name, exact: typeof name === 'string' }));
  await page.keyboard.press(key);
};

/** Tabs to a field, replaces what stands there. */
const type = async (page: Page, label: string | RegExp, text: string): Promise<void> => {
  await tabTo(page, page.getByRole('textbox', { name: label, exact: typeof label === 'string' }));
  await page.keyboard.press('Control+A');
  await page.keyboard.type(text);
};

/** Brackets go to the room behind or ahead. */
const room = async (page: Page, forward: number, title: string): Promise<void> => {
  await page.keyboard.press('Escape');
  const heading = page.getByRole('heading', { level: 1 });
  for (let i = 0; i < forward; i += 1) {
    const before = await heading.textContent();
    await page.keyboard.press(']');
    await expect(heading).not.toHaveText(before ?? '');
  }
  await expect(page.getByRole('heading', { level: 1, name: title, exact: true })).toBeAttached();
};

/** Number keys change the step only while no field has the focus: Escape out of it first, as the shortcuts sheet says. */
const step = async (page: Page, key: string, title: string): Promise<void> => {
  await page.keyboard.press('Escape');
  await page.keyboard.press(key);
  await expect(page.getByRole('heading', { level: 1, name: title, exact: true })).toBeAttached();
};

test('the whole path by keyboard alone', async ({ page }) => {
  const faults = await watch(page);
  const verdict = page.locator('.verdict');
  await page.goto('/');
  await type(page, 'Coordinates or grid locator', 'IO00ie');
  await page.keyboard.press('Enter');
  await type(page, 'Name', 'By keys');
  await page.keyboard.press('Enter');
  await expect(verdict).toContainText('By keys lies in ITU Region 1');

  // Listen
  await press(page, 'Add your own frequency');
  await type(page, 'Name', '31 m broadcast');
  await type(page, 'From', '9.4');
  await type(page, 'To', '9.9 MHz');
  await page.keyboard.press('Enter');
  await expect(verdict).toContainText('one target');
  await expect(page.getByRole('button', { name: 'Add this target' })).toBeHidden();
  await room(page, 4, 'Receivers, Listen');
  await press(page, 'Add a receiver by its data sheet');
  await type(page, 'Name', 'HF receiver');
  await page.keyboard.press('Enter');
  await expect(page.getByText('HF receiver')).toBeVisible();

  // the focus band on the Reed moves by arrow keys, once the form is shut and no field has the focus
  await expect(page.getByRole('button', { name: 'Add the receiver' })).toBeHidden();
  await page.keyboard.press('Escape');
  await page.keyboard.press('f');
  const slider = page.getByRole('slider', { name: 'Focus band' });
  await expect(slider).toBeFocused();
  const before = await slider.getAttribute('aria-valuetext');
  await page.keyboard.press('ArrowRight');
  await expect(slider).not.toHaveAttribute('aria-valuetext', before ?? '');
  await page.keyboard.press('ArrowLeft');

  // the sheet of keys, the palette, the theme
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys and marks' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('t');
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'night');
  await page.keyboard.press('/');
  await expect(page.getByRole('combobox', { name: 'Do anything' })).toBeFocused();
  await page.keyboard.type('which antenna');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1, name: 'Ranking, Choose' })).toBeAttached();

  // Choose and Draft
  await press(page, /^Draft the Half-wave dipole/);
  await expect(verdict).toContainText('Cut two arms to');
  await room(page, 1, 'Cut and build, Draft');
  await tabTo(page, page.getByRole('checkbox', { name: /Are collar, sleeve and heat-shrink on the cable/ }));
  await page.keyboard.press('Space');
  await expect(page.getByRole('checkbox', { name: /Crimp or solder/ })).toBeEnabled();

  // Bench: the file chooser opens by Enter; the next cut follows
  await step(page, '4', 'Sweep, Bench');
  const chooser = page.waitForEvent('filechooser');
  await press(page, 'Import sweep file');
  await (
    await chooser
  ).setFiles({
    name: 'keys.s1p',
    mimeType: 'text/plain',
    buffer: Buffer.from(seriesDipFile(42, 11, 9.31, 8.6, 10.2, 161)),
  });
  await expect(verdict).toContainText(/The dip sits at 9\.3\d+\sMHz/);
  await room(page, 1, 'Trim, Bench');
  await type(page, /Length of each arm now/, '7.62 m');
  await type(page, 'Dip measured at', '9.31 MHz');
  await page.keyboard.press('Enter');
  await expect(verdict).toContainText(/Next: cut \d+\smm/);

  // a second antenna, then Trials
  await step(page, '2', 'Ranking, Choose');
  await press(page, /^Draft the Small amplified loop/);
  await expect(verdict).toContainText('loop conductor');
  await step(page, '5', 'Pairs, Trials');
  await press(page, 'New trial');
  await type(page, 'Name', 'Two by keys');
  await page.keyboard.press('Enter');
  for (const [round, noise] of ['-85', '-84'].entries()) {
    await expect(page.getByRole('heading', { name: `Round ${round + 1}` })).toBeVisible();
    await type(page, /^Level, Half-wave/, '-73');
    await type(page, /^Noise, Half-wave/, noise);
    await type(page, /^Level, Small/, '-95');
    await type(page, /^Noise, Small/, '-110');
    await page.keyboard.press('Enter');
  }
  await expect(verdict).toContainText(/Not proven/);

  // Noise
  await step(page, '6', 'Floor, Noise');
  await type(page, 'Frequency', '9.6 MHz');
  await type(page, 'Noise, antenna off', '-119');
  await type(page, 'Noise, antenna on', '-106');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('row', { name: /9\.600 MHz/ })).toContainText('0.22 dB');

  // Path: two stages, one moved by keys
  await step(page, '7', 'Chain, Path');
  await press(page, 'New path');
  await type(page, 'Name', 'By keys');
  await page.keyboard.press('Enter');
  await press(page, 'Add a filter');
  await press(page, 'Add this stage');
  await expect(page.getByRole('button', { name: 'Add this stage' })).toHaveCount(0);
  await press(page, 'Add an amplifier');
  await press(page, 'Add this stage');
  const second = page.getByRole('list', { name: 'Stages in order 2' }).getByRole('listitem');
  await expect(second).toHaveText([/pass/, /Amplifier/]);
  await tabTo(page, page.getByRole('button', { name: 'Move Amplifier in order 2' }));
  await page.keyboard.press('Space');
  await page.waitForTimeout(300);
  await page.keyboard.press('ArrowUp');
  await page.waitForTimeout(300);
  await page.keyboard.press('Space');
  await expect(second).toHaveText([/Amplifier/, /pass/]);

  // Guard
  await step(page, '8', 'Inputs, Guard');
  await press(page, 'Plan for this transmitter');
  await press(page, 'Add a receiver input');
  await type(page, 'Receiver input', 'Receiver B');
  await type(page, 'Fed by antenna', 'Antenna 2');
  await page.keyboard.press('Enter');
  await expect(verdict).toContainText(/Antenna 2/);

  // Notebook: write, save the report, undo
  await step(page, '9', 'Diary, Notebook');
  await type(page, 'What you did or saw', 'No mouse was used.');
  await press(page, 'Write it down');
  await expect(page.getByRole('listitem').filter({ hasText: 'No mouse was used.' })).toBeVisible();
  // saved: the field is empty and has the focus, for the next entry
  await expect(page.getByRole('textbox', { name: 'What you did or saw' })).toHaveValue('');
  await room(page, 1, 'Report, Notebook');
  const download = page.waitForEvent('download');
  await press(page, 'Save the report as PDF');
  expect((await download).suggestedFilename()).toBe('by-keys-report.pdf');
  await page.keyboard.press('Escape'); // out of whatever field has the focus
  await page.keyboard.press('[');
  await page.keyboard.press('Control+Z');
  await expect(page.getByRole('listitem').filter({ hasText: 'No mouse was used.' })).toHaveCount(0);
  expect(faults).toEqual([]);
});

test('by keys and with large letters: a new station begins at its sheet, the import is near, the band has a landmark', async ({
  page,
}) => {
  const faults = await watch(page);
  await page.goto('/');
  await page.locator('#position').fill('50.2 N 19.3 W');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Create station' }).focus();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/s\/\d+\/listen/);
  await expect(page.locator('#sheet')).toBeFocused();

  await page.goto('/s/1/bench/sweep');
  await expect(page.locator('.verdict')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Reed' }).getByRole('slider', { name: 'Focus band' })).toBeVisible();
  await page.locator('#sheet').focus();
  const wanted = page.getByRole('button', { name: 'Import sweep file' });
  for (let tabs = 0; tabs < 8 && !(await wanted.evaluate((one) => one === document.activeElement)); tabs += 1)
    await page.keyboard.press('Tab');
  await expect(wanted).toBeFocused();

  // letters of twice the size (WCAG 2.2, 1.4.4): nothing leaves the page at the side
  for (const one of ['noise/two-antennas', 'bench/sweep', 'bench/as-built']) {
    await page.goto(`/s/1/${one}`);
    await expect(page.locator('.verdict')).toBeVisible();
    await page.evaluate(() => (document.documentElement.style.fontSize = '200%'));
    await expect
      .poll(() => page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth))
      .toBeLessThanOrEqual(0);
  }
  expect(faults).toEqual([]);
});
