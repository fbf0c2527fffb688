import { expect, test, type Page } from '@playwright/test';
import { EIGHT_PAIRS } from '../packages/contract/src/testing/eight-pairs';
import { enter, watch } from './helpers';

/** Another evening: A better by 3 dB in six pairs that scatter by 1 dB. */
const SIX = [-2, -4, -3, -4.2, -1.8, -3] as const;

const SECOND = 'Loop on the ground for 9.65 MHz';

async function begin(page: Page, name: string, b: string, more: Readonly<Record<string, string>>): Promise<void> {
  await page.getByRole('button', { name: 'New trial' }).click();
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByLabel('Antenna A (the old one)').selectOption({ label: 'Old dipole between mast and hedge' });
  await page.getByLabel('Antenna B (the new one)').selectOption({ label: b });
  for (const [label, text] of Object.entries(more)) await page.getByLabel(label, { exact: true }).last().fill(text);
  await page.getByRole('button', { name: 'Begin the trial' }).click();
  await expect(page.getByRole('combobox', { name: 'Trial', exact: true })).toHaveValue(/\d+/);
  await expect(page.getByRole('heading', { name: 'Round 1', exact: true })).toBeVisible();
}

test('pairs that were planned are judged at their end; another evening turns them round, and the rule is the headline', async ({
  page,
}) => {
  const faults = await watch(page);
  // a second antenna to compare with
  await page.goto('/s/1/draft/model');
  await page.getByRole('button', { name: 'New antenna' }).click();
  await page.getByLabel('Kind').selectOption({ label: 'Loop on the ground' });
  await page.getByLabel('Cut for').fill('9.65 MHz');
  await page.getByRole('button', { name: 'Begin this antenna' }).click();
  await expect(page.getByText('Loop on the ground for 9.65 MHz is on the Draft.')).toBeVisible();
  await enter(page, 'trials', 'pairs');

  // the plan: 2.08 dB of scatter need 11 pairs for 2 dB (worked example), more when they are watched
  const plan = page.getByRole('region', { name: 'Plan', exact: true });
  await plan.getByLabel('Scatter of a pair').fill('2.08 dB');
  await plan.getByLabel('Difference worth proving').fill('2 dB');
  await expect(plan).toContainText('Fixed beforehand and judged once: 11 pairs');
  await expect(plan).toContainText(/Looked at after every pair: about \d\d pairs/);
  await plan.getByLabel('Fading time').fill('20 s');
  await expect(plan).toContainText('then fading makes them nearly independent');
  await plan.getByLabel('Scatter of a pair').fill('much');
  await expect(plan.getByRole('alert')).toContainText('Type it like');

  // eight pairs, one antenna's levels after the other's
  await begin(page, 'Eight at dusk', SECOND, {
    'Pairs fixed beforehand': '8',
  });
  for (const [i, [la, na, lb, nb]] of EIGHT_PAIRS.entries()) {
    const round = page.getByRole('region', { name: `Round ${i + 1}`, exact: true });
    await round.getByLabel('Level, Old dipole').fill(`${la} dBm`);
    await round.getByLabel('Noise, Old dipole').fill(`${na} dBm`);
    await round.getByLabel('Level, Loop on the ground').fill(`${lb} dBm`);
    await round.getByLabel('Noise, Loop on the ground').fill(`${nb} dBm`);
    await round.getByRole('button', { name: 'Log this pair' }).click();
    await expect(page.getByRole('heading', { name: `Round ${i + 2}`, exact: true })).toBeVisible();
    if (i === 4) await expect(page.locator('.verdict')).toContainText('Not judged yet: 5 of the 8 pairs');
  }
  await expect(page.locator('.verdict')).toContainText('better on SNR by 4.0 dB, proven');
  const results = page.getByRole('region', { name: 'Results' });
  await expect(results.getByRole('row').filter({ hasText: 'SNR' })).toContainText('1.8 to 6.2 dB');
  await expect(results.getByRole('row').filter({ hasText: 'Level' })).toContainText('−22.0');
  await expect(results.getByRole('row').filter({ hasText: 'Noise' })).toContainText('−26.0');
  await expect(
    page.locator('main, aside').filter({ hasText: 'A lower level does not mean worse' }).first(),
  ).toBeVisible();

  // differences alone, under another condition: two verdicts, and a rule instead of one pooled number
  await begin(page, 'Shed lit', SECOND, { Conditions: 'shed lights on' });
  for (const [i, db] of SIX.entries()) {
    const round = page.getByRole('region', { name: `Round ${i + 1}`, exact: true });
    await round.getByLabel('or SNR, B less A').fill(`${db} dB`);
    await round.getByRole('button', { name: 'Log this pair' }).click();
    await expect(page.getByRole('heading', { name: `Round ${i + 2}`, exact: true })).toBeVisible();
  }
  await expect(page.locator('.verdict')).toContainText('Next: switch by this rule');
  await enter(page, 'trials', 'conditions');
  await page.reload();
  await expect(page.locator('.verdict')).toContainText('by 4.0 dB without “shed lights on”');
  await expect(page.locator('.verdict')).toContainText('by 3.0 dB with “shed lights on”');
  await expect(page.getByRole('region', { name: 'Pairs by trial' })).toContainText('Eight at dusk: 8 pairs');

  // one antenna after the other, by hand
  await enter(page, 'trials', 'pairs');
  await begin(page, 'By hand', SECOND, {});
  await page.getByRole('button', { name: 'Record one after the other' }).click();
  await page.getByRole('button', { name: /^Begin with Old dipole/ }).click();
  const recorder = page.getByTestId('recorder');
  await expect(recorder.getByRole('status')).toContainText('Now: Old dipole');
  await recorder.getByLabel('Level').fill('loud');
  await recorder.getByRole('button', { name: /^Next/ }).click();
  await expect(recorder.getByRole('alert')).toContainText('Type it like');
  await recorder.getByLabel('Level').fill('S7');
  await recorder.getByLabel('Noise').fill('-100');
  await recorder.getByRole('button', { name: /^Next/ }).click();
  await expect(recorder.getByRole('status')).toContainText('Now: Loop on the ground');
  await recorder.getByLabel('Level').fill('-90');
  await recorder.getByLabel('Noise').fill('-112');
  await recorder.getByRole('button', { name: 'Log the pair' }).click();
  await expect(recorder.getByRole('status')).toContainText('Now: Loop on the ground'); // ABBA: the second pair begins with B
  await recorder.getByRole('button', { name: 'Stop' }).click();

  // receiver and switch by themselves
  await page.getByRole('button', { name: 'Let receiver and switch log' }).click();
  const automatic = page.getByTestId('automatic');
  await automatic.getByLabel('Pairs').fill('3');
  await automatic.getByLabel('Settling after a switch').fill('0.1 s');
  await automatic.getByRole('button', { name: 'Log by itself' }).click();
  await expect(automatic.getByRole('status')).toContainText('All pairs are logged', { timeout: 60_000 });
  await page.reload();
  await page.getByRole('combobox', { name: 'Trial', exact: true }).selectOption({ label: 'By hand' });
  await expect(page.getByRole('region', { name: 'Pairs logged' }).first().getByRole('row')).toHaveCount(5);
  expect(faults).toEqual([]);
});
