import { expect, test, type Locator, type Page } from '@playwright/test';
import { seriesDipFile, watch } from './helpers';

/** What a newcomer does, counted: every press of a button, every field that is filled. */
function counter(page: Page) {
  let actions = 0;
  return {
    press: async (what: Locator) => {
      actions += 1;
      await what.click();
    },
    fill: async (label: string | RegExp, text: string) => {
      actions += 1;
      await page.getByRole('textbox', { name: label, exact: true }).fill(text);
    },
    button: (name: string | RegExp) => page.getByRole('button', { name, exact: typeof name === 'string' }),
    count: () => actions,
  };
}
type Newcomer = ReturnType<typeof counter>;

/** A station of which only the position is typed. */
async function settle(page: Page, one: Newcomer): Promise<void> {
  await page.goto('/');
  await one.fill('Coordinates or grid locator', 'IO00ie');
  await one.press(one.button('Find region'));
  await one.press(one.button('Create station'));
  await expect(page.locator('.verdict')).toContainText('Station IO00ie lies in ITU Region 1');
}

test('a recommendation for 31 m in eight actions, a cut length in nine, from a sweep to the next cut in six', async ({
  page,
}) => {
  const faults = await watch(page);
  const verdict = page.locator('.verdict');
  const one = counter(page);
  await settle(page, one);
  await one.press(one.button('Add from the catalogue'));
  await one.fill(/Search the catalogue/, '31m');
  await one.press(one.button('Want 31 m broadcast'));
  await one.press(verdict.getByRole('link', { name: /^Next: say which receiver you have/ }));
  await one.press(one.button('Take the 16-bit direct-sampling HF receiver'));
  await expect(verdict).toContainText(
    /Best here is .*: a usual 31 m broadcast station stands \d+ dB (or more )?over your noise/,
    {
      timeout: 60_000,
    },
  );
  await expect(page.getByText(/computations by the wire model over this ground/)).toBeVisible({ timeout: 60_000 });
  expect(one.count()).toBeLessThanOrEqual(8);
  await one.press(page.getByRole('button', { name: /^Draft the Half-wave dipole/ }));
  await expect(verdict).toContainText(/Cut two arms to\s*\d+\.\d+\sm/);
  expect(one.count()).toBeLessThanOrEqual(9);

  // from a sweep file to the next cut
  const before = one.count();
  const rail = page.getByRole('navigation', { name: 'Steps and rooms' });
  await one.press(rail.getByRole('link', { name: /^\W*Bench\b/ }));
  await page.getByLabel('Sweep files').setInputFiles({
    name: 'first.s1p',
    mimeType: 'text/plain',
    buffer: Buffer.from(seriesDipFile(42, 11, 9.31, 8.6, 10.2, 161)),
  });
  await expect(verdict).toContainText(/The dip sits at\s*9\.3\d+\sMHz/);
  await one.press(rail.getByRole('link', { name: 'Trim', exact: true }));
  await one.fill(/Length of each arm now/, '7.62 m');
  await one.press(one.button('Record this length'));
  await expect(verdict).toContainText(/Next: cut\s*\d+\smm/);
  expect(one.count() - before + 1).toBeLessThanOrEqual(6); // the file itself is one more
  expect(faults).toEqual([]);
});

test('does the FM station hurt my dongle: answered in a sentence within twelve actions', async ({ page }) => {
  const faults = await watch(page);
  const verdict = page.locator('.verdict');
  const one = counter(page);
  await settle(page, one);
  const rail = page.getByRole('navigation', { name: 'Steps and rooms' });
  await one.press(rail.getByRole('link', { name: 'Transmitters', exact: true }));
  await one.press(one.button('Add a transmitter'));
  await one.fill('Frequency', '95.3 MHz');
  await one.fill('Power', '4 kW');
  await one.fill('Distance', '1.8 km');
  await one.press(one.button('Add the transmitter'));
  // 4 kW against a dipole at 1.8 km: 107.8 dBµV/m, −9.0 dBm on an isotropic antenna (by hand)
  await expect(page.getByRole('row', { name: /Transmitter 1/ })).toContainText(/−9\.0\sdBm/);
  await one.press(rail.getByRole('link', { name: 'Receivers', exact: true }));
  await one.press(one.button('Add a receiver by kind'));
  await one.press(one.button('Take the 8-bit wide-range dongle'));
  // against its full scale of −32 dBm: 23 dB too much
  await expect(verdict).toContainText(
    /On a lossless antenna with nothing between, Transmitter 1 overloads 8-bit wide-range dongle \(assumed\): 2[23]\.\d dB too strong \(model\)\./,
  );
  expect(one.count()).toBeLessThanOrEqual(12);
  expect(faults).toEqual([]);
});

test('the catalogue finds a band by name, frequency and use', async ({ page }) => {
  await page.goto('/');
  await settle(page, counter(page));
  await page.getByRole('button', { name: 'Add from the catalogue' }).click();
  for (const [typed, found] of [
    ['31m', 'Want 31 m broadcast'],
    ['9.65', 'Want 31 m broadcast'],
    ['9650 kHz', 'Want 31 m broadcast'],
    ['weather', /weather/i],
  ] as const) {
    await page.getByLabel(/Search the catalogue/).fill(typed);
    await expect(page.getByRole('button', { name: found }).first(), typed).toBeVisible();
  }
});
