import { expect, test } from '@playwright/test';
import { accessible, ROOM_ADDRESSES, watch } from './helpers';

test('every room at 390 px: nothing runs off the page, day and night @demo', async ({ page }) => {
  const faults = await watch(page);
  await page.setViewportSize({ width: 390, height: 844 });
  for (const { path } of ROOM_ADDRESSES) {
    await page.goto(`/s/1/${path}`);
    await expect(page.locator('.verdict')).toBeVisible();
    const width = await page.evaluate(() => document.documentElement.scrollWidth);
    expect(width, `${path}: page width`).toBeLessThanOrEqual(390);
    await accessible(page, `${path}, day, 390 px`);
    // night changes colours and nothing else
    await page.getByRole('button', { name: 'Night theme' }).click();
    await accessible(page, `${path}, night, 390 px`, ['color-contrast']);
    await page.getByRole('button', { name: 'Day theme' }).click();
  }
  expect(faults).toEqual([]);
});
