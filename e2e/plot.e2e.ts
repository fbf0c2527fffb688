import { readFile } from 'node:fs/promises';
import { expect, test, type Page } from '@playwright/test';
import { accessible, watch } from './helpers';

const list = (page: Page) => page.getByRole('region', { name: 'On the plan' });
const row = (page: Page, name: string) => list(page).getByRole('listitem').filter({ hasText: name });

/** A station of its own, so that other tests keep the demo as it is; with one dipole to lay. */
async function freshStation(page: Page): Promise<string> {
  const made = await page.request.post('/api/stations', {
    data: {
      name: 'Plan for a test',
      latDeg: 50.2,
      lonDeg: -19.3,
      environment: 'rural',
      noiseOffsetDb: 0,
      spanM: 20,
      heightM: 6,
      cableId: 'pe5',
      lineLengthM: 25,
      groundId: 'average',
      ownCableDb10: null,
      ownCableDb100: null,
      nothingVisible: false,
      lawnAllowed: true,
      noDrilling: false,
      noTransmitting: false,
      noStakes: false,
      askFirst: false,
      windLimitMPerS: null,
      windForecastMPerS: null,
      priceWeight: 1,
      effortWeight: 1,
      sightWeight: 1,
      adapterBox: '',
      routes: '',
    },
  });
  expect(made.status()).toBe(201);
  const id = /"id":(\d+)/.exec(await made.text())?.[1] ?? '';
  const revision = {
    antennaId: { new: 'a' },
    number: 1,
    kind: 'half-wave-dipole',
    freqHz: 9.65e6,
    diameterM: 0.002,
    insulated: false,
    allowance: 0.03,
    dimensions: {},
    gates: [],
    done: [],
  };
  const target = {
    name: '31 m',
    lowHz: 9.4e6,
    highHz: 9.9e6,
    bandwidthHz: 5000,
    weight: 3,
    latDeg: 38,
    lonDeg: -60,
    arrivalDeg: null,
    fromMin: null,
    toMin: null,
  };
  const changes = [
    { op: 'create', resource: 'targets', values: target, as: 't' },
    { op: 'create', resource: 'antennas', values: { name: 'Dipole', targetId: { new: 't' } }, as: 'a' },
    { op: 'create', resource: 'revisions', values: revision },
  ];
  expect((await page.request.post(`/api/stations/${id}/changes`, { data: { changes } })).status()).toBe(200);
  return `/s/${id}`;
}

async function type(page: Page, kind: string, fields: Readonly<Record<string, string>>): Promise<void> {
  await page.getByRole('combobox', { name: 'Add', exact: true }).selectOption({ label: kind });
  await page.getByRole('button', { name: 'Type it' }).click();
  for (const [label, text] of Object.entries(fields)) await page.getByLabel(label, { exact: true }).fill(text);
  await page.getByRole('button', { name: 'Put it on the plan' }).click();
  await expect(row(page, fields.Name)).toBeVisible();
}

test('a plan by typing, drawing, dragging and arrow keys; what is laid there counts in Draft, Choose and Path', async ({
  page,
}) => {
  test.setTimeout(120_000);
  const faults = await watch(page);
  const base = await freshStation(page);
  await page.goto(`${base}/plot/plan`);
  await expect(page.locator('.verdict')).toContainText('The plan is empty');

  // typed in feet and metres; a wrong corner is told apart
  await page.getByRole('combobox', { name: 'Add', exact: true }).selectOption({ label: 'Boundary' });
  await page.getByRole('button', { name: 'Type it' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Garden');
  await page.getByLabel('Corners: east north; …').fill('-20 -10; 20 west; 20 10');
  await page.getByRole('button', { name: 'Put it on the plan' }).click();
  await expect(page.getByRole('alert')).toContainText('Corner 2');
  await page.getByLabel('Corners: east north; …').fill('-20 -10; 20 -10; 20 10; -20 10');
  await page.getByRole('button', { name: 'Put it on the plan' }).click();
  await expect(row(page, 'Garden')).toBeVisible();
  await type(page, 'Support', { Name: 'Mast', 'Position: east north': '-15 0', Height: '30 ft' });
  await expect(row(page, 'Mast')).toContainText('9.1 m high');
  await type(page, 'Support', { Name: 'Post', 'Position: east north': '15 0', Height: '6' });
  await expect(page.locator('.verdict')).toContainText(/The longest run is\s*30\.0\sm/);
  await type(page, 'Keep-out (power line, path)', {
    Name: 'Power line',
    'Corners: east north; …': '-30 -12; 30 -12',
    'To stay free around it': '5 m',
  });
  await expect(page.getByRole('list', { name: 'Supports' })).toContainText('If it falls, Mast can reach Power line');

  // an antenna between the two: height, bearing and length follow
  await type(page, 'Antenna', {
    Name: 'Dipole laid',
    'Corners: east north; …': '-15 0; 5 0',
    'Height at the first end': '9 m',
    'Height at the last end': '5 m',
  });
  const fits = page.getByRole('region', { name: 'What fits' });
  await expect(fits).toContainText('Its length fits');
  await expect(fits).toContainText(/faces\s*180\s*° true/);
  await accessible(page, 'plot');
  await page.goto(`${base}/draft/model`);
  await expect(page.getByText('Its height follows the Plot: 7.00 m')).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Height of the wire' })).toHaveValue('7 m');

  // by keyboard: selected from the list, moved by arrows; too short a span is told, and undone
  await page.goto(`${base}/plot/plan`);
  await row(page, 'Dipole laid')
    .getByRole('button', { name: /^Dipole laid/ })
    .click();
  await page.getByRole('group', { name: /^Plan: arrow keys/ }).focus();
  await page.keyboard.press('ArrowUp');
  await expect(row(page, 'Dipole laid')).toContainText('-15 E 0.5 N');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(row(page, 'Dipole laid')).toContainText('-10 E 0.5 N');
  await page.keyboard.press('Control+Z');
  await expect(row(page, 'Dipole laid')).toContainText('-15 E 0.5 N');

  // drawn by the mouse, dragged, measured
  await page.getByRole('combobox', { name: 'Add', exact: true }).selectOption({ label: 'Noise source' });
  await page.getByRole('button', { name: 'Draw it' }).click();
  const canvas = page.locator('canvas').first();
  await canvas.scrollIntoViewIfNeeded();
  const box = await canvas.boundingBox();
  if (!box) throw new Error('no canvas');
  const [x, y] = [box.x + box.width * 0.5, box.y + box.height * 0.25];
  await page.mouse.click(x, y);
  await page.getByLabel('Name', { exact: true }).fill('Charger');
  await page.getByRole('button', { name: 'Put it on the plan' }).click();
  const before = await row(page, 'Charger').innerText();
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 40, y + 10, { steps: 5 });
  await page.mouse.move(x + 80, y + 20, { steps: 5 });
  await page.mouse.up();
  await expect(row(page, 'Charger')).not.toHaveText(before);
  await page.getByRole('button', { name: 'Measure', exact: true }).click();
  await page.mouse.click(box.x + box.width * 0.3, box.y + box.height * 0.4);
  await page.mouse.click(box.x + box.width * 0.6, box.y + box.height * 0.4);
  await expect(page.getByText(/^\d+(\.\d+)? m apart\.$/)).toBeVisible();
  await page.getByLabel('Units').selectOption('imperial');
  await expect(page.getByText(/ft .*in apart\.$|ft apart\.$/)).toBeVisible();
  await page.getByLabel('Units').selectOption('metric');
  // by keyboard: a cross moves by half metres, Space puts a point
  await page.getByRole('button', { name: 'Measure', exact: true }).click();
  await page.getByRole('button', { name: 'Measure', exact: true }).press('Enter');
  await page.keyboard.press('Space');
  for (let i = 0; i < 3; i += 1) await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowUp');
  await expect(page.getByText(/cross at 1\.50? m east, 5(\.00?)? m north/)).toBeVisible();
  await page.keyboard.press('Space');
  await expect(page.getByText(/^5\.22 m apart\.$/)).toBeVisible();
  await page.keyboard.press('Escape');

  // a cable run gives Path its length
  await page.getByRole('button', { name: 'Measure', exact: true }).click();
  await type(page, 'Cable run', {
    Name: 'Run to the hut',
    'Corners: east north; …': '0 0; 3 4',
    'Height at the first end': '7 m',
    'Height at the last end': '1 m',
  });
  await expect(page.getByRole('region', { name: 'Cable runs' })).toContainText(/Run to the hut:\s*13\.0\sm/);
  expect(faults).toEqual([]);
});

test('the plan leaves as GeoJSON and comes back elsewhere; a broken file changes nothing; a picture is scaled', async ({
  page,
}) => {
  const base = await freshStation(page);
  await page.goto(`${base}/plot/plan`);
  await type(page, 'Support', { Name: 'Mast', 'Position: east north': '-15.2 3.5', Height: '9 m' });
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as GeoJSON' }).click();
  const text = await readFile(await (await saved).path(), 'utf8');
  expect(text.match(/"type": "Feature"/g)).toHaveLength(1);

  const other = await freshStation(page);
  await page.goto(`${other}/plot/plan`);
  const geo = page.getByLabel('GeoJSON file');
  await geo.setInputFiles({ name: 'x.geojson', mimeType: 'application/json', buffer: Buffer.from('{"type":"x"}') });
  await expect(page.getByText('This file holds no features.')).toBeVisible();
  await geo.setInputFiles({ name: 'plan.geojson', mimeType: 'application/json', buffer: Buffer.from(text) });
  await expect(row(page, 'Mast')).toContainText('-15.2 E 3.5 N, 9.0 m high');
  await page.reload();
  await expect(row(page, 'Mast')).toBeVisible();

  // a picture of 2 × 1 points; a text is refused
  const picture = page.getByLabel('Picture file');
  await picture.setInputFiles({ name: 'no.png', mimeType: 'image/png', buffer: Buffer.from('not a picture') });
  await expect(page.getByText('This file is not a PNG or JPEG picture.')).toBeVisible();
  const png = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAIAAAABCAIAAAB7QOjdAAAAD0lEQVR4nGM4ceIEAwMDAAyQAtXXJRmKAAAAAElFTkSuQmCC',
    'base64',
  );
  await picture.setInputFiles({ name: 'aerial.png', mimeType: 'image/png', buffer: png });
  await expect(row(page, 'aerial.png')).toBeVisible();
  await page.getByRole('button', { name: 'Measure', exact: true }).click();
  const box = await page.locator('canvas').first().boundingBox();
  if (!box) throw new Error('no canvas');
  await page.mouse.click(box.x + 200, box.y + 200);
  await page.mouse.click(box.x + 400, box.y + 200);
  await page.getByLabel('On the picture this stretch is really').fill('far');
  await page.getByRole('button', { name: 'Scale the picture' }).click();
  await expect(page.getByRole('alert')).toContainText('Type it like 7.38 m');
  await page.getByLabel('On the picture this stretch is really').fill('100 m');
  await page.getByRole('button', { name: 'Scale the picture' }).click();
  await expect(page.getByText(/Picture scaled: .* wide\./)).toBeVisible();
});
