import { expect, test } from '@playwright/test';
import { accessible, enter, freshStation, watch } from './helpers';

/** Levels of a worked example, axis bearings 0, 15, … 165. */
const TURN = [-66.4, -70.5, -79.9, -78.9, -70.1, -66.2, -63.9, -62.7, -62.1, -62.1, -62.7, -64.1];
const lines = (levels: readonly number[]): string => levels.map((level, i) => `${15 * i} ${level}`).join('\n');
/** A figure of eight with its null at a direction and a floor 29 dB down. */
const eight = (axisDeg: number): readonly number[] =>
  TURN.map((_, i) =>
    Number((-62 + 10 * Math.log10(Math.sin(((15 * i - axisDeg) * Math.PI) / 180) ** 2 + 10 ** -2.9)).toFixed(1)),
  );

test('the null of a turn, a second place, the ellipse; then a source is cancelled and two antennas are added', async ({
  page,
}) => {
  const faults = await watch(page);
  const verdict = page.locator('.verdict');
  await page.goto(`${await freshStation(page, [-39.7, 120.6])}/noise/direction`);
  await expect(verdict).toContainText('No turn is logged');
  const log = async (name: string, east: string, north: string, text: string): Promise<void> => {
    await page.getByRole('button', { name: 'Log a turn' }).click();
    await page.getByLabel('Place', { exact: true }).fill(name);
    await page.getByLabel('East of the middle').fill(east);
    await page.getByLabel('North of the middle').fill(north);
    await page.getByLabel('Direction and level, a line each').fill(text);
    await page.getByRole('button', { name: 'Keep this turn' }).click();
  };
  await log('Hut', '0 m', '0 m', 'north -66.4');
  await expect(page.getByRole('alert').first()).toContainText('is no direction with its level');
  await page.getByLabel('Direction and level, a line each').fill(lines(TURN.slice(0, 4)));
  await page.getByRole('button', { name: 'Keep this turn' }).click();
  await expect(page.getByText('5 directions at least; here are 4').first()).toBeVisible();
  await page.getByRole('button', { name: 'Delete Hut' }).click();
  await expect(verdict).toContainText('No turn is logged');

  // worked example: axis 37.0 ± 0.5° or 217°, floor near −91, about 29 dB deep, the lowest sample 7° off
  await log('Hut', '0 m', '0 m', lines(TURN));
  await expect(verdict).toContainText(/The null points to (36\.[5-9]|37\.[0-5])° or 21[67]\.\d°/);
  const turns = page.getByRole('region', { name: 'Turns', exact: true });
  await expect(turns).toContainText(/floor −9[0-2] dBm, (28|29|30) dB deep/);
  await expect(turns).toContainText('The lowest sample, 30°, is 7° off');
  // the second place: near (78.8, 104.5) m, 8.4 by 4.6 m with errors of 3°
  await log('Field', '120 m', '20 m', lines(eight(334)));
  await expect(verdict).toContainText(
    /It comes from (78|79|80) m east, 10[345] m north, within 8\.[3-9] m by 4\.[5-9] m/,
  );
  await expect(page.getByRole('img', { name: /^Plan with 2 turns and the region/ })).toBeVisible();
  await page.reload();
  await expect(verdict).toContainText('turn once more at');
  await accessible(page, 'noise/direction');
  const silent = page.getByRole('region', { name: 'Silence between two edges' });
  await silent.getByLabel('It vanishes at').fill('170°');
  await silent.getByLabel('and comes back at').fill('10°');
  await expect(silent).toContainText('Axis 0.0° or 180.0°, the middle of 20° of silence');

  // worked by hand: −4.5 dB and 63° are met by +4.5 dB and 117°; 0.5 dB and 4° leave −20.6 dB, 0.1 dB and 0.5° −36.8 dB
  await enter(page, 'noise', 'two-antennas');
  const cancel = page.getByRole('region', { name: 'Cancel one source' });
  await expect(cancel).toContainText('Set 4.5 dB and 117° on antenna 2. So exact, −20.6 dB is left.');
  await cancel.getByLabel('Set within').fill('0.1 dB');
  await cancel.getByLabel('and within').fill('0.5°');
  await expect(cancel).toContainText('−36.8 dB is left');
  const add = page.getByRole('region', { name: 'Add what both hear' });
  await expect(add).toContainText('By the best weights 13.2 dB');
  // the null begins at the source that was found; a spacing that is none is told
  const steer = page.getByRole('region', { name: 'Steer a null' });
  await expect(steer.getByLabel('Null toward')).toHaveValue('37°');
  await steer.getByLabel('Spacing').fill('wide');
  await expect(steer.getByRole('alert')).toContainText('Type it like');
  await accessible(page, 'noise/two-antennas');
  expect(faults).toEqual([]);
});

test('at the antenna with a phone: heading by its compass, a level a press, kept over a reload, its place by coordinates', async ({
  page,
}) => {
  const faults = await watch(page);
  await page.setViewportSize({ width: 390, height: 780 });
  await page.goto(`${await freshStation(page, [-39.7, 120.6])}/noise/direction`);
  await page.getByRole('button', { name: 'Read it as you turn' }).click();
  const hand = page.getByTestId('turn-by-hand');
  await hand.getByRole('button', { name: /compass/ }).click();
  await hand.getByLabel('Declination, east plus').fill('3°');
  const levels = eight(34); // 37° true: the compass of this place shows 3° less
  for (const [i, level] of levels.entries()) {
    await page.evaluate(
      (alpha) =>
        window.dispatchEvent(new DeviceOrientationEvent('deviceorientationabsolute', { alpha, absolute: true })),
      (360 - 15 * i) % 360,
    );
    await hand.getByLabel('Level', { exact: true }).fill(`${level} dBm`);
    await hand.getByRole('button', { name: `Log ${15 * i}°` }).click();
    if (i === 5) {
      await page.reload();
      await page.getByRole('button', { name: 'Read it as you turn' }).click();
      await expect(hand).toContainText('6 readings');
      await hand.getByRole('button', { name: /compass/ }).click();
      await hand.getByLabel('Declination, east plus').fill('3°');
    }
  }
  await expect(hand).toContainText(/12 readings; null at 34° ± \d°/);
  await hand.getByLabel('or by coordinates or locator').fill('somewhere');
  await expect(hand.getByRole('alert')).toContainText('is not a position');
  await hand.getByLabel('or by coordinates or locator').fill('39.68 S 120.62 E');
  await hand.getByLabel('Place', { exact: true }).fill('Field');
  await hand.getByRole('button', { name: 'Keep this turn' }).click();
  const verdict = page.locator('.verdict');
  await expect(verdict).toContainText(/The null points to (36\.[5-9]|37\.[0-5])°/);
  // 0.02° of each: 1.7 km east, 2.2 km north
  await expect(page.getByRole('region', { name: 'Turns', exact: true })).toContainText(/17\d\d m east, 22\d\d m north/);
  await expect(page.getByRole('img', { name: /^Map with 1 turns/ })).toBeVisible();
  expect(faults).toEqual([]);
});
