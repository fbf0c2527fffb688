import { expect, test } from '@playwright/test';
import { accessible, watch } from './helpers';

const STAGES = ['listen', 'plot', 'choose', 'draft', 'bench', 'trials', 'noise', 'path', 'guard', 'notebook'];

test('every view of the demo station at 390 px: nothing runs off the page, day and night', async ({ page }) => {
  const faults = await watch(page);
  await page.setViewportSize({ width: 390, height: 844 });
  for (const stage of STAGES) {
    await page.goto(`/s/1/${stage}`);
    await expect(page.locator('.verdict')).toBeVisible();
    const width = await page.evaluate(() => document.documentElement.scrollWidth);
    expect(width, `${stage}: page width`).toBeLessThanOrEqual(390);
    await accessible(page, `${stage}, day, 390 px`);
    // night changes colours and nothing else
    await page.getByRole('button', { name: 'Night theme' }).click();
    await accessible(page, `${stage}, night, 390 px`, ['color-contrast']);
    await page.getByRole('button', { name: 'Day theme' }).click();
  }
  expect(faults).toEqual([]);
});

test('a failing server: the sentence, and a way to try again', async ({ page }) => {
  await page.route(/\/api\/stations\/1(\?|$)/, (route) => route.abort());
  await page.goto('/s/1/listen');
  await expect(page.getByRole('alert')).toContainText('That did not work.');
  await page.unroute(/\/api\/stations\/1(\?|$)/);
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.locator('.verdict')).toContainText('Ferrin Point');
  await page.goto('/s/1/nowhere');
  await expect(page.getByRole('alert')).toContainText('There is no page at this address');
});

test('another browser edits the same record: the second is told, nothing is merged', async ({ page, context }) => {
  await page.goto('/s/1/listen');
  const other = await context.newPage();
  await other.goto('/s/1/listen');
  for (const one of [page, other]) await one.getByRole('button', { name: 'Change 31 m broadcast' }).click();
  await other.getByLabel('How much it matters, 1 to 5').fill('1');
  await page.getByLabel('How much it matters, 1 to 5').fill('4');
  await page.getByRole('button', { name: 'Save the wish' }).click();
  await expect(page.getByText('Wish changed.')).toBeVisible();
  // the other hears of it by itself, and what was typed there stays
  await expect(
    other.getByRole('region', { name: 'Wanted' }).getByRole('listitem').filter({ hasText: '31 m broadcast' }),
  ).toContainText('weight 4', { timeout: 2000 });
  await expect(other.getByLabel('How much it matters, 1 to 5')).toHaveValue('1');
  await other.getByRole('button', { name: 'Save the wish' }).click();
  await expect(other.getByRole('alert')).toContainText(/changed|elsewhere|meanwhile/i);
  await page.keyboard.press('Control+Z');
  await expect(page.getByText('Undone: target changed.')).toBeVisible();
});
