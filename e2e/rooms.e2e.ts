import { expect, test } from '@playwright/test';
import { accessible, ROOM_ADDRESSES, watch } from './helpers';

test('every room of the demo station: its verdict, its evidence whole on the first screen, nothing serious for axe @demo', async ({
  page,
}) => {
  const faults = await watch(page);
  for (const { path, title } of ROOM_ADDRESSES) {
    await page.goto(`/s/1/${path}`);
    await expect(page.getByRole('heading', { level: 1, name: title, exact: true })).toBeAttached();
    const verdict = page.locator('.verdict');
    await expect(verdict).toContainText(/\w/);
    const evidence = page.locator('[data-evidence]').first();
    await expect(evidence, `${path}: evidence`).toBeVisible({ timeout: 30_000 });
    // pictures grow into their place: what counts is where they stand in the end
    await expect
      .poll(async () => (await evidence.boundingBox())?.height ?? 0, { message: `${path}: height of the evidence` })
      .toBeGreaterThanOrEqual(150);
    const box = await evidence.boundingBox();
    expect((box?.y ?? 0) + (box?.height ?? 800), `${path}: lower edge of the evidence`).toBeLessThanOrEqual(800);
    const lines = await verdict.evaluate(
      (element) => element.getBoundingClientRect().height / parseFloat(getComputedStyle(element).lineHeight),
    );
    // at the mast the verdict is one large line that may break
    expect(lines, `${path}: lines of the verdict`).toBeLessThan(2.5);
    await accessible(page, path);
  }
  expect(faults).toEqual([]);
});
