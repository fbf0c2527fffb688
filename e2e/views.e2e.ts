import { expect, test } from '@playwright/test';

test('rooms by keys, by address and by the way back; an old address of a stage opens its first room', async ({
  page,
}) => {
  const heading = (name: string) => page.getByRole('heading', { level: 1, name, exact: true });
  await page.goto('/s/1/bench?antenna=2');
  await expect(heading('Sweep, Bench')).toBeAttached();
  expect(new URL(page.url()).search).toBe('?antenna=2');
  await page.keyboard.press(']');
  await expect(heading('Trim, Bench')).toBeAttached();
  // what is looked at goes along
  expect(new URL(page.url()).search).toBe('?antenna=2');
  await expect(page).toHaveTitle('Trim, Bench · Velvet Reed');
  await page.keyboard.press('[');
  await page.keyboard.press('[');
  await expect(heading('At the mast, Bench')).toBeAttached();
  await page.goBack();
  await expect(heading('Sweep, Bench')).toBeAttached();
  await page.keyboard.press('/');
  await expect(page.getByRole('combobox', { name: 'Do anything' })).toBeFocused();
  await page.keyboard.type('windings');
  await expect(page.getByRole('option').first()).toContainText('Windings');
  await page.keyboard.press('Enter');
  await expect(heading('Windings, Draft')).toBeAttached();
});

test('a failing server: the sentence, and a way to try again', async ({ page }) => {
  await page.route(/\/api\/stations\/1(\?|$)/, (route) => route.abort());
  await page.goto('/s/1/listen/wanted');
  await expect(page.getByRole('alert')).toContainText('That did not work.');
  await page.unroute(/\/api\/stations\/1(\?|$)/);
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.locator('.verdict')).toContainText('Ferrin Point');
  await page.goto('/s/1/nowhere');
  await expect(page.getByRole('alert')).toContainText('There is no page at this address');
});

test('another browser edits the same record: the second is told, nothing is merged', async ({ page, context }) => {
  await page.goto('/s/1/listen/wanted');
  const other = await context.newPage();
  await other.goto('/s/1/listen/wanted');
  for (const one of [page, other]) await one.getByRole('button', { name: 'Change 31 m broadcast' }).click();
  await other.getByLabel('How much it matters, 1 to 5').fill('1');
  await page.getByLabel('How much it matters, 1 to 5').fill('4');
  await page.getByRole('button', { name: 'Save the target' }).click();
  await expect(page.getByText('Target changed.')).toBeVisible();
  // the other hears of it by itself, and what was typed there stays
  await expect(
    other.getByRole('region', { name: 'Wanted' }).getByRole('listitem').filter({ hasText: '31 m broadcast' }),
  ).toContainText('weight 4', { timeout: 2000 });
  await expect(other.getByLabel('How much it matters, 1 to 5')).toHaveValue('1');
  await other.getByRole('button', { name: 'Save the target' }).click();
  await expect(other.getByRole('alert')).toContainText(/changed|elsewhere|meanwhile/i);
  await page.keyboard.press('Control+Z');
  await expect(page.getByText('Undone: target changed.')).toBeVisible();
});

test('a first visit asks for fewer than thirty files, and scripts come compressed', async ({ page }) => {
  const answers: { readonly address: string; readonly encoding: string | undefined }[] = [];
  page.on('response', (response) =>
    answers.push({ address: response.url(), encoding: response.headers()['content-encoding'] }),
  );
  await page.goto('/s/1/listen/wanted');
  await expect(page.locator('.verdict')).toBeVisible();
  // what comes behind the first view belongs to the visit
  await page.waitForTimeout(2000);
  expect(answers.length).toBeLessThan(30);
  const scripts = answers.filter(({ address }) => /shared|libraries/.test(address) && address.endsWith('.js'));
  expect(scripts.length).toBeGreaterThan(0);
  expect(scripts.map(({ encoding }) => encoding)).toEqual(scripts.map(() => 'gzip'));
});
