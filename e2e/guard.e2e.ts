import { readFile } from 'node:fs/promises';
import { expect, test, type Page } from '@playwright/test';
import { accessible, enter, watch } from './helpers';

/** A club of its own. */
async function club(page: Page): Promise<void> {
  const made = await page.request.post('/api/stations', {
    data: {
      ...{
        name: 'Brannoch Quay',
        latDeg: 52,
        lonDeg: -21,
        environment: 'rural',
        noiseOffsetDb: 0,
        spanM: 40,
        heightM: 12,
      },
      ...{ cableId: 'pe5', lineLengthM: 25, groundId: 'average' },
    },
  });
  const id = /"id":(\d+)/.exec(await made.text())?.[1] ?? '';
  await page.goto(`/s/${id}/guard/inputs`);
}

test('a second antenna without a switch is red until it is mended; states, meter, far field, timing and the card', async ({
  page,
}) => {
  const faults = await watch(page);
  await club(page);
  const verdict = page.locator('.verdict');
  await expect(verdict).toContainText('No transmitter is planned for');
  await page.getByRole('button', { name: 'Plan for this transmitter' }).click();
  for (const [name, antenna, isolation, switched] of [
    ['Receiver A', 'Antenna 1', '62 dB', true],
    ['Receiver B', 'Antenna 2', '20 dB', false],
  ] as const) {
    await page.getByRole('button', { name: 'Add a receiver input' }).click();
    await page.getByRole('textbox', { name: 'Receiver input' }).fill(name);
    await page.getByLabel('Fed by antenna').fill(antenna);
    await page.getByLabel('Isolation while transmitting').fill(isolation);
    if (switched) await page.getByLabel('A switch opens it while transmitting').check();
    await page.getByRole('button', { name: 'Add the input' }).click();
    await expect(page.getByText(`${name} on ${antenna}`)).toBeVisible();
  }
  // worked by hand: 50 dBm − 62 dB = −12 dBm, 12 dB below 0 dBm
  const inputs = page.getByRole('region', { name: 'Receiver inputs while transmitting' });
  await expect(inputs).toContainText('Key down: −12.0 dBm, 12.0 dB below the limit');
  await expect(verdict).toContainText('Do not transmit yet: Antenna 2 is not disconnected');
  await expect(inputs).toContainText('The protection inside the radio does not cover Receiver B');

  // in the drawing: a relay at the input of B, by its own fields; a figure that is none is told
  await enter(page, 'guard', 'routes');
  await page.getByLabel('Where').selectOption({ label: 'at the input of Receiver B' });
  await page.getByRole('button', { name: 'Add a switch or relay' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Relay B');
  await page.getByLabel('Isolation', { exact: true }).fill('plenty');
  await page.getByRole('button', { name: 'Put it in' }).click();
  await expect(page.getByRole('alert').first()).toContainText('Type it like');
  await page.getByLabel('Isolation', { exact: true }).fill('70 dB');
  await page.getByRole('button', { name: 'Put it in' }).click();
  await expect(page.getByText('Put in.')).toBeVisible();
  const drawing = page.getByLabel('The station as it is plugged together');
  await expect(drawing.getByText('Relay B')).toBeVisible();
  await expect(verdict).not.toContainText('not disconnected');
  // a part is moved by keys, and stays there
  const relay = drawing.locator('.react-flow__node').filter({ hasText: 'Relay B' });
  await relay.focus();
  await page.keyboard.press('Enter');
  // the drawing fits itself into its frame: what counts is the place beside its neighbour
  const other = drawing.locator('.react-flow__node').and(page.getByLabel('Receiver A, receiver'));
  const place = async (): Promise<number> =>
    ((await relay.boundingBox())?.x ?? NaN) - ((await other.boundingBox())?.x ?? NaN);
  const before = await place();
  for (let i = 0; i < 8; i += 1) await page.keyboard.press('ArrowRight');
  await page.waitForTimeout(800);
  await page.reload();
  await expect(drawing.getByText('Relay B')).toBeVisible();
  expect((await place()) - before).toBeGreaterThan(10);
  await accessible(page, 'guard/routes');

  // what the air brings is typed as measured: then every state has its colour
  await enter(page, 'guard', 'coupling');
  const far = page.getByRole('region', { name: 'By the far field alone' });
  await far.getByLabel('Frequency').fill('14.2 MHz');
  await far.getByLabel('Gain of the other').fill('-3 dBi');
  // Friis at 14.2 MHz over 25 m, worked by hand: 23.45 dB, +25.7 dBm from 100 W; λ/2π is 3.36 m
  await expect(far).toContainText('23.45 dB of free space: 25.7 dBm arrive from 100 W');
  await expect(far).toContainText('λ/2π is 3.36 m');
  await page.getByRole('region', { name: 'Type a coupling' }).getByLabel('Loss').fill('23.4 dB');
  await page.getByRole('combobox', { name: 'Antennas' }).selectOption({ label: 'Transmit antenna to Antenna 2' });
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('Kept.')).toBeVisible();
  await enter(page, 'guard', 'states');
  const states = page.getByRole('region', { name: 'Every receiver in every state' });
  const state = (name: string) =>
    states.getByRole('row').filter({ has: page.getByRole('rowheader', { name, exact: true }) });
  // 50 − 23.4 − 70 = −43.4 dBm with the relay open; +26.4 dBm (through 0.2 dB) when it is stuck or the key line is unplugged
  await expect(state('Key down')).toContainText(/assumed\s*−43 dBm/);
  await expect(state('Key line unplugged')).toContainText(/danger\s*26 dBm/);
  await expect(state('Relay B stuck at 1')).toContainText(/danger\s*26 dBm/);
  await state('Key line unplugged')
    .getByRole('button', { name: /Receiver B/ })
    .click();
  await expect(page.getByRole('region', { name: 'Receiver B: Key line unplugged' })).toContainText(
    'over the air to Antenna 2: 23.4 dB (measured)',
  );
  await expect(page.getByRole('region', { name: 'The cheapest change' })).toContainText(/limiter|No three changes/);
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Card for the shack (PDF)' }).click();
  const pdf = await readFile(await (await saved).path());
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
  // one page
  expect(pdf.toString('latin1').match(/\/Type \/Page\b(?!s)/g)).toHaveLength(1);
  await accessible(page, 'guard/states');

  // timing, worked by hand: 12 ms at 46.5 dBm are 0.54 J; 15 ms of lead are enough
  await enter(page, 'guard', 'timing');
  await page.getByLabel('Switched by').selectOption('sensing');
  await page.getByLabel('Switch moves within').fill('10 ms');
  await page.getByLabel('Sensing takes').fill('2 ms');
  await page.getByLabel('Switch stays after key up').fill('200 ms');
  await page.getByLabel('Loss to the receiver while connected').fill('3.5 dB');
  await page.getByRole('button', { name: 'Keep these times' }).click();
  await expect(verdict).toContainText('46.5 dBm, 0.54 J at most');
  await expect(page.getByText('shorter than the gap between syllables')).toBeVisible();
  await page.getByLabel('Switched by').selectOption('key line');
  await page.getByLabel('Key to first RF').fill('15 ms');
  await page.getByLabel('Switch stays after key up').fill('500 ms');
  await page.getByRole('button', { name: 'Keep these times' }).click();
  await expect(verdict).toContainText('RF comes after the switch has moved');
  await enter(page, 'guard', 'states');
  await expect(state('Relay moving')).not.toContainText('danger');

  // a wattmeter in steps of 1 W; the field by the formula
  await enter(page, 'guard', 'meter');
  await expect(page.getByRole('row').filter({ hasText: '100 mW' })).toContainText('30.0 dB');
  await enter(page, 'guard', 'people');
  await expect(verdict).toContainText('7.0 V/m');
  expect(faults).toEqual([]);
});

test('a stepwise test finds a hidden coupling, stops at compression, and counts in every verdict', async ({ page }) => {
  const faults = await watch(page);
  await page.goto('/s/1/guard/power-test');
  const verdict = page.locator('.verdict');
  await expect(verdict).toContainText('Nothing of this station was tested');
  // the pad is checked by a steady signal first
  const pad = page.getByRole('region', { name: 'Is the pad what it says?' });
  await pad.getByLabel('Reading without it').fill('-60 dBm');
  await pad.getByLabel('Reading with it').fill('-90.2 dBm');
  await expect(pad).toContainText('This pad takes 30.2 dB, not 40');
  const begin = async (more: Readonly<Record<string, string>>): Promise<void> => {
    await page.getByRole('button', { name: /^Begin a(nother)? test/ }).click();
    await page.getByLabel('Receiver input').selectOption({ label: 'Wideband receiver' });
    await page.getByLabel('Reading into the dummy load').fill('-110 dBm');
    for (const [label, text] of Object.entries(more)) await page.getByLabel(label).fill(text);
    await page.getByRole('button', { name: 'Begin', exact: true }).click();
    await expect(page.getByRole('region', { name: 'Steps of the test' })).toBeHidden();
    await expect(verdict).toContainText('No steps so far');
  };
  // without a pad nothing is sent
  await begin({ 'Pad before the receiver': '0 dB' });
  await expect(verdict).toContainText('Put a pad of at least 37 dB');
  await expect(page.getByRole('button', { name: 'Log this step' })).toBeHidden();

  // a worked example behind 40 dB: −31.0, −20.9, −14.0 dBm at the input for 0.5, 5, 50 W
  await begin({ 'Pad before the receiver': '40 dB' });
  await expect(verdict).toContainText('Transmit 500 mW');
  const log = async (power: string, reading: string): Promise<void> => {
    const rows = await page.getByRole('region', { name: 'Steps of the test' }).getByRole('row').count();
    await page.getByLabel('Power', { exact: true }).fill(power);
    await page.getByLabel('Reading behind the pad').fill(reading);
    await page.getByRole('button', { name: 'Log this step' }).click();
    await expect(page.getByRole('region', { name: 'Steps of the test' }).getByRole('row')).toHaveCount(
      Math.max(2, rows + 1),
    );
  };
  await log('0.5 W', '-71 dBm');
  // a step of 10 dB is larger than the next one should be, and is told so
  await page.getByLabel('Power', { exact: true }).fill('5 W');
  await expect(page.getByRole('alert')).toContainText('is not the next step');
  await log('5 W', '-60.9 dBm');
  await expect(page.getByRole('region', { name: 'Steps of the test' })).toContainText('a step of 10 dB is large');
  await expect(verdict).toContainText('57.9 dB lie between');
  await log('50 W', '-54 dBm');
  await expect(verdict).toContainText('Stop: the reading rose 3.1 dB less than the power');
  await expect(page.getByText(/62(\.\d)? W keep the margin/)).toBeVisible();

  // a slip by a thousand is asked back
  await begin({ 'Pad before the receiver': '40 dB' });
  await log('0.5 W', '-71 dBm');
  await log('1.99 W', '-35 dBm');
  await expect(verdict).toContainText('a thousand times more');
  await page.getByRole('button', { name: '−65.0 dBm was meant' }).click();
  await expect(verdict).toContainText(/Next 7\.9\d W/);

  // the stand-in: a hidden coupling, found without passing the limit
  await begin({ 'Pad before the receiver': '40 dB', 'Reading into the dummy load': '-75 dBm' });
  const rows = page.getByRole('region', { name: 'Steps of the test' }).getByRole('row');
  for (let i = 0; i < 8; i += 1) {
    if (/Full power is reached|are enough/.test(await verdict.innerText())) break;
    await page.getByRole('button', { name: 'Read the stand-in power meter' }).click();
    await expect(rows).toHaveCount(i + 2);
  }
  await expect(verdict).toContainText(/(Full power is reached|steps on the line are enough)/);
  const steps = await page.getByRole('region', { name: 'Steps of the test' }).innerText();
  expect(steps).not.toMatch(/\t[1-9]\d*\.\d dBm\t/);

  // what was tested counts before what was typed
  await enter(page, 'guard', 'states');
  const down = page
    .getByRole('region', { name: 'Every receiver in every state' })
    .getByRole('row')
    .filter({ hasText: 'Key down' });
  await expect(down).toContainText('proven');
  await page.reload();
  await expect(down).toContainText('proven');
  expect(faults).toEqual([]);
});
