import { expect, test } from '@playwright/test';
import { ROOMS } from '../packages/web/src/shell/rooms';
import { STAGES } from '../packages/web/src/shell/stages';
import { accessible, watch } from './helpers';

/** Every room by its address, in the order of the rail. */
const ADDRESSES = STAGES.flatMap(({ id, name }) =>
  ROOMS[id].map((room) => ({ path: `${id}/${room.id}`, title: `${room.name}, ${name}` })),
);

test('every room of the demo station: its verdict, its evidence whole on the first screen, nothing serious for axe', async ({
  page,
}) => {
  const faults = await watch(page);
  for (const { path, title } of ADDRESSES) {
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

test('every room at 390 px: nothing runs off the page, day and night', async ({ page }) => {
  const faults = await watch(page);
  await page.setViewportSize({ width: 390, height: 844 });
  for (const { path } of ADDRESSES) {
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
