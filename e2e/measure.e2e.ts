import { readFile } from 'node:fs/promises';
import { createServer, type Server, type Socket } from 'node:net';
import { expect, test, type Page } from '@playwright/test';
import { accessible, enter, freshBench, seriesDipFile, watch } from './helpers';

const ANALYSER_PORT = Number(process.env.E2E_PORT ?? 4601) + 40;

/** An analyser of somebody else's at the allowed address; each line is answered as told. */
async function analyserAt(answer: (line: string, socket: Socket) => void): Promise<Server> {
  const server = createServer((socket) => {
    socket.on('error', () => socket.destroy());
    socket.on('data', (chunk) =>
      String(chunk)
        .split('\n')
        .filter(Boolean)
        .forEach((line) => answer(line, socket)),
    );
  });
  await new Promise<void>((resolve) => server.listen(ANALYSER_PORT, '127.0.0.1', () => resolve()));
  return server;
}

test('calibrate, sweep live, keep it, take the line off, fit the model; another analyser that misbehaves is refused', async ({
  page,
}) => {
  const faults = await watch(page);
  const base = await freshBench(page, [50.2, -19.3], 'half-wave-dipole', 9.65e6);
  await page.goto(`${base}/bench/sweep`);
  await page.getByRole('button', { name: 'Measure with an analyser' }).click();
  const panel = page.getByRole('region', { name: 'Measure with an analyser' });
  await panel.getByLabel('Analyser').selectOption({ label: 'Stand-in analyser (made up, for practice)' });
  await panel.getByLabel('Points').fill('1');
  await expect(panel.getByRole('alert')).toContainText('Points: 2 to 20,001.');
  await panel.getByLabel('Points').fill('401');
  await panel.getByRole('button', { name: 'Sweep', exact: true }).click();
  await expect(panel.getByRole('status').first()).toContainText('1 pass of 401 points');
  await expect(panel.getByRole('status').first()).toContainText('raw: the analyser’s own errors are still in it');

  await panel.getByRole('button', { name: 'Calibrate with open, short and load' }).click();
  for (const name of ['load', 'open', 'short']) {
    await panel.getByRole('button', { name: `Read the ${name}` }).click();
    await expect(panel.getByRole('button', { name: `The ${name} is read: again` })).toBeVisible();
  }
  await panel.getByRole('button', { name: 'Use this calibration' }).click();
  await panel.getByRole('button', { name: 'Check with the load' }).click();
  await expect(panel.getByText(/The load reads as it should/)).toBeVisible();
  await panel.getByRole('button', { name: 'Done: plug the antenna on again' }).click();
  await panel.getByLabel('Passes to average').fill('3');
  await panel.getByRole('button', { name: 'Sweep', exact: true }).click();
  await expect(panel.getByRole('status').first()).toContainText('3 passes of 401 points');
  await expect(panel.getByRole('status').first()).toContainText(
    'corrected by the calibration. One pass scatters ±0.00',
  );
  await expect(panel.getByText(/^Dip/)).toContainText('MHz');

  // another span than the calibrated one is doubtful, beyond it stays raw
  await panel.getByLabel('From', { exact: true }).fill('9 MHz');
  await expect(panel.getByText(/corrections are interpolated between its points/)).toBeVisible();
  await panel.getByLabel('From', { exact: true }).fill('5 MHz');
  await expect(panel.getByText(/goes beyond the calibration/)).toBeVisible();
  await panel.getByLabel('From', { exact: true }).fill('8.203 MHz');

  await panel.getByRole('button', { name: 'Hold this curve' }).click();
  await panel.getByRole('button', { name: 'Keep this sweep' }).click();
  const kept = page.getByRole('rowheader', { name: /^sweep 20.*corrected/ });
  await expect(kept).toBeVisible();
  await panel.getByRole('button', { name: 'Repeat' }).click();
  await expect(panel.getByRole('status').first()).toContainText(/([3-9]|\d\d) passes of/);
  await panel.getByRole('button', { name: 'Stop' }).click();
  await expect(panel.getByRole('button', { name: 'Sweep', exact: true })).not.toHaveAttribute('aria-disabled', 'true');

  // markers set themselves; the plane; zoom by wheel and keyboard
  const markers = page.getByRole('table', { name: 'Markers' });
  for (const name of ['target', 'dip', '31 m broadcast, lower edge', '31 m broadcast, upper edge'])
    await expect(markers.getByRole('rowheader', { name: new RegExp(`^M\\d ${name}`) })).toBeVisible();
  const chart = page.getByTestId('sweep-chart');
  const heading = page.getByRole('heading', { name: /over .* MHz$/ });
  const wide = await heading.innerText();
  // the wheel alone scrolls the page, over a chart as anywhere; with Ctrl it zooms
  await chart.hover();
  await page.mouse.wheel(0, 200);
  await expect.poll(() => page.evaluate(() => scrollY)).toBeGreaterThan(100);
  await expect(heading).toHaveText(wide);
  await chart.hover();
  await page.keyboard.down('Control');
  await page.mouse.wheel(0, -600);
  await page.keyboard.up('Control');
  await expect(heading).not.toHaveText(wide);
  await chart.focus();
  await page.keyboard.press('Home');
  await expect(heading).toHaveText(wide);
  await page.getByRole('button', { name: 'reflection plane' }).click();
  await expect(page.getByRole('img', { name: /Reflections in their plane/ })).toBeVisible();
  await page.getByRole('button', { name: 'SWR', exact: true }).click();
  // a line hides mismatch: taken off, the SWR at the target rises
  const swrAtTarget = async (): Promise<number> =>
    Number(/SWR\s*([\d.]+)/.exec(await markers.getByRole('row', { name: /target/ }).innerText())?.[1]);
  const atShack = await swrAtTarget();
  await page.getByLabel('Readings hold at').selectOption('antenna');
  await expect.poll(swrAtTarget).toBeGreaterThan(atShack);
  await page.getByLabel('Readings hold at').selectOption('analyser');

  await accessible(page, 'bench with an analyser');
  await enter(page, 'bench', 'as-built');
  const built = page.getByRole('region', { name: 'As built' });
  await built.getByRole('button', { name: 'Fit the model' }).click();
  // the stand-in is cut wrong by a hidden 1.2 % (one sigma) on a line as stated: the fit explains it with wires or line, and leaves little
  await expect(built.getByRole('list', { name: 'Fits' })).toBeVisible({ timeout: 60_000 });
  await expect(built.getByRole('status')).toContainText(/What explains the measurement best is|agree as drafted/);
  await expect(built.getByRole('listitem').first()).toContainText(/leaves 0\.0\d\d in/);
  await enter(page, 'bench');
  await page.getByRole('button', { name: 'Measure with an analyser' }).click();

  // a real analyser at the allowed address: half an answer, then gone, then sound again
  const stored = await page.getByRole('rowheader', { name: /^sweep 20/ }).count();
  await panel.getByLabel('Analyser').selectOption({ label: `analyser at 127.0.0.1:${ANALYSER_PORT}` });
  await panel.getByLabel('Points').fill('11');
  await panel.getByRole('button', { name: 'Sweep', exact: true }).click();
  await expect(panel.getByRole('alert')).toContainText('cannot be reached. See whether it is switched on');
  const healthy = `${Array.from({ length: 11 }, () => '0.5,0.1').join(',')}\n`;
  let reply = '0.5,0.1,0.4\n';
  const server = await analyserAt((line, socket) => {
    if (line === ':SYST:ERR?') socket.write('0,"No error"\n');
    else if (line === '*OPC?') socket.write('1\n');
    else if (line.endsWith('READ?')) {
      if (reply === 'gone') socket.destroy();
      else socket.write(reply);
    }
  });
  await panel.getByRole('button', { name: 'Sweep', exact: true }).click();
  await expect(panel.getByRole('alert')).toContainText('sent 3 numbers where 22 were due. Nothing was stored');
  reply = 'gone';
  await panel.getByRole('button', { name: 'Sweep', exact: true }).click();
  await expect(panel.getByRole('alert')).toContainText('vanished. Nothing was stored');
  reply = healthy;
  await panel.getByRole('button', { name: 'Sweep', exact: true }).click();
  await expect(panel.getByRole('status').first()).toContainText('1 pass of 11 points');
  await expect(panel.getByRole('alert')).toHaveCount(0);
  expect(await page.getByRole('rowheader', { name: /^sweep 20/ }).count()).toBe(stored);
  server.close();
  expect(faults).toEqual([]);
});

test('practice: a hidden fault, measured before and after, judged with its reasons; single readings', async ({
  page,
}) => {
  const faults = await watch(page);
  const base = await freshBench(page, [50.2, -19.3], 'half-wave-dipole', 9.65e6);
  await page.goto(`${base}/bench/practice`);
  const practice = page.getByRole('region', { name: 'Practice' });
  const solve = async (number: string, finding: string): Promise<void> => {
    await practice.getByLabel('Number, to repeat one').fill(number);
    await practice.getByRole('button', { name: /^Begin/ }).click();
    await expect(practice).toContainText(`Exercise ${number}:`);
    await practice.getByRole('button', { name: 'Measure it today' }).click();
    await practice.getByLabel('Your finding').selectOption({ label: finding });
    await practice.getByRole('button', { name: 'Judge it' }).click();
  };
  // exercise 12 hides wires 1.6 % longer: a small shift
  await solve('12', 'nothing changed');
  await expect(practice.getByRole('status')).toContainText('Not so: the wire stretched or sags');
  await expect(practice.getByRole('status')).toContainText('% longer than before');
  await expect(practice.getByRole('list', { name: 'Causes as computed from the sweeps' })).toContainText(
    'was stretched, sags',
  );
  // exercise 3 hides an open feed: the whole wave comes back from the end of its cable
  await solve('3', 'the feed is open');
  await expect(practice.getByRole('status')).toContainText('Right: the feed is open.');
  await practice.getByRole('button', { name: 'Write this into the notebook' }).click();
  await expect(page.getByText('Written into the notebook.')).toBeVisible();

  await enter(page, 'bench', 'instruments');
  const readings = page.getByRole('region', { name: 'Single readings' });
  await readings.getByRole('button', { name: 'Read the coil' }).click();
  await expect(readings).toContainText(/9\.[67]\d\d\smH/);
  await readings.getByLabel('Turn to, degrees').fill('180');
  await readings.getByRole('button', { name: 'Turn and read' }).click();
  await expect(readings).toContainText(/180°/);
  await readings.getByRole('button', { name: 'Read the power' }).click();
  await expect(readings).toContainText(/−[2-9]\d\.\d\sdBm/);
  expect(faults).toEqual([]);
});

/** A JPEG of a few pixels, made by the page itself. */
const smallPhoto = async (page: Page): Promise<Buffer> => {
  const base64 = await page.evaluate(() => {
    const canvas = document.createElement('canvas');
    canvas.width = canvas.height = 8;
    return canvas.toDataURL('image/jpeg').split(',')[1];
  });
  return Buffer.from(base64, 'base64');
};

test('at the mast on a phone: a slip is asked back, a photo goes along, entries wait while the server is away', async ({
  page,
}) => {
  const faults = await watch(page);
  const base = await freshBench(page, [50.2, -19.3], 'half-wave-dipole', 9.65e6);
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${base}/bench/mast`);
  const save = page.getByRole('button', { name: 'Write it down' });
  await page.getByLabel(/^Length of .* now/).fill('7650 mm');
  await page.getByLabel('Dip now').fill('9.30 GHz');
  await save.click();
  await expect(page.getByRole('alert')).toContainText(
    '9.3000 GHz is about thousandfold off the target. Did you mean 9.3000 MHz?',
  );
  await page.getByLabel('Dip now').fill('9.30 MHz');
  await page.getByLabel('How to undo it').fill('the end is folded back');
  await page.getByLabel(/^Photo of the end/).setInputFiles({
    name: 'end.jpg',
    mimeType: 'image/jpeg',
    buffer: await smallPhoto(page),
  });
  await save.click();
  // 7.65 m at 9.30 MHz: 7.65·(1 − 9.30/9.65) = 277 mm too long, half of it now (worked by hand)
  await expect(page.getByText(/Cut\s*139\smm/)).toBeVisible();

  // the server goes away: what is written down waits in this browser, also over a reload
  await page.route('**/api/stations/*/{changes,photo-changes}*', (route) => route.abort());
  await page.getByLabel('It is cut').check();
  await page.getByLabel('Dip now').fill('9.47 MHz');
  await page.getByLabel('Note').fill('rain');
  await save.click();
  await expect(page.getByText(/One entry waits in this browser/)).toContainText('dip 9.4700 MHz. rain');
  await expect(page.getByRole('list', { name: 'Lengths so far, latest first' })).toContainText('waits here');
  await page.reload();
  await expect(page.getByText(/One entry waits in this browser/)).toBeVisible();
  await expect(page.getByText(/Cut\s*\d+\smm/)).toBeVisible();
  await accessible(page, 'at the mast');
  await page.unroute('**/api/stations/*/{changes,photo-changes}*');
  await expect(page.getByText('What waited in this browser is saved.')).toBeVisible();
  await expect(page.getByText(/One entry waits/)).toHaveCount(0);
  await expect(page.getByRole('list', { name: 'Lengths so far, latest first' })).not.toContainText('waits here');

  // two cuts in a row that made it worse stop the work
  for (const [length, dip] of [
    ['7.40 m', '9.45 MHz'],
    ['7.30 m', '9.40 MHz'],
  ]) {
    if (await page.getByLabel('It is cut').isVisible()) await page.getByLabel('It is cut').check();
    await page.getByLabel(/^Length of .* now/).fill(length);
    await page.getByLabel('Dip now').fill(dip);
    await save.click();
    await expect(page.getByRole('list', { name: 'Lengths so far, latest first' })).toContainText(dip.slice(0, 4));
  }
  await expect(page.getByRole('alert')).toContainText('Two cuts in a row made it worse. Stop');

  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(`${base}/bench/trim`);
  await expect(page.getByRole('img', { name: /^Photo at 7\.65/ })).toBeVisible();
  await expect(page.getByText('undo: the end is folded back')).toBeVisible();
  expect(faults).toEqual([]);
});

test('a ferrite rod is not sealed before three positions agree; the report says how far a dip moved', async ({
  page,
}) => {
  const faults = await watch(page);
  const base = await freshBench(page, [50.2, -19.3], 'ferrite-rod', 77.5e3);
  const seal = page.getByRole('checkbox', { name: /^Fix winding and rod, close the box/ });
  const positions = async (readings: readonly string[]): Promise<void> => {
    await page.goto(`${base}/bench/coil`);
    for (const [i, name] of ['first', 'second', 'third'].entries())
      await page.getByLabel(`Peak, ${name} position`).fill(readings[i]);
  };
  await positions(['78.40', '78.44', '79.10']);
  await page.getByRole('button', { name: 'Record it: not passed, sealing stays locked' }).click();
  await expect(page.getByText('The test stands as not passed: sealing stays locked.')).toBeVisible();
  await page.goto(`${base}/draft/build`);
  await expect(seal).toBeDisabled();
  await expect(page.getByRole('checkbox', { name: /Do three orientations agree/ })).toBeDisabled();
  // alike, but beside the target: no seal either
  await positions(['78.40', '78.44', '78.42']);
  await expect(page.getByText(/The positions agree, but on 78\.42 kHz/)).toBeVisible();
  await positions(['77.48', '77.52', '77.50']);
  await page.getByRole('checkbox', { name: 'Measured inside the tube or box that it will be sealed in' }).check();
  await page.getByRole('button', { name: 'Pass this test in the build plan' }).click();
  await expect(page.getByText('The test is passed in the build plan.')).toBeVisible();
  await page.goto(`${base}/draft/build`);
  await expect(seal).toBeEnabled();

  // both recordings with the receiver: kept as records with their files
  await page.goto(`${base}/bench/coil`);
  const coil = page.getByRole('region', { name: 'Coil and resonance by noise' });
  await coil.getByRole('button', { name: 'Record both with the stand-in receiver' }).click();
  await expect(coil).toContainText(/Peak at\s*7[789]\.\d\d ± 0\.0\d/);
  await page.reload();
  await expect(coil).toContainText(/Peak at\s*7[789]\.\d\d ± 0\.0\d/);

  await enter(page, 'bench');
  for (const [name, f0] of [
    ['autumn.s1p', 14.18],
    ['spring.s1p', 15.6],
  ] as const) {
    await page
      .getByLabel('Sweep files')
      .setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(seriesDipFile(42, 11, f0, 13, 16.5, 351)) });
    await expect(page.getByRole('rowheader', { name })).toBeVisible();
  }
  await expect(page.getByRole('row', { name: /^spring\.s1p/ })).toContainText(/\+1420\skHz/);
  await page.goto(`${base}/notebook/diary`);
  await expect(
    page.getByRole('region', { name: 'Entries' }).getByText(/Imported spring\.s1p.*Since autumn\.s1p: 1\.42 MHz up\./),
  ).toBeVisible();
  await enter(page, 'notebook', 'report');
  const csv = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Tables as CSV' }).click();
  expect(await readFile(await (await csv).path(), 'utf8')).toMatch(
    /Dip \(MHz\),Since the one before \(kHz\)[^]*spring\.s1p,15\.60,\+1420,/,
  );
  const pdf = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save the report as PDF' }).click();
  expect((await readFile(await (await pdf).path())).subarray(0, 5).toString()).toBe('%PDF-');
  expect(faults).toEqual([]);
});
