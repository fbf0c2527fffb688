import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import { launchBrowser, startServer } from './browser';
import { median, printLine } from './print';

const DIST = path.resolve(import.meta.dirname, '../packages/web/dist');
const POINTS = 20_001;
/** Runs in the page (as text: the bundler's helpers do not exist there): a pan step each frame. @returns frames per second. */
const PAN_FOR_THREE_SECONDS = `new Promise((resolve) => {
  const chart = document.querySelector('[data-testid="sweep-chart"]');
  const begun = performance.now();
  let count = 0;
  const step = () => {
    count += 1;
    const key = count % 20 < 10 ? 'ArrowRight' : 'ArrowLeft';
    chart.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
    if (performance.now() - begun < 3000) requestAnimationFrame(step);
    else resolve((1000 * count) / (performance.now() - begun));
  };
  requestAnimationFrame(step);
})`;

/** Bytes of script that the first view loads before anything lazy: the entry and what it imports statically. */
function initialScriptBytes(): number {
  const seen = new Set<string>();
  const visit = (file: string): number => {
    if (seen.has(file)) return 0;
    seen.add(file);
    const text = readFileSync(path.join(DIST, 'assets', file), 'utf8');
    const next = [...text.matchAll(/(?:from|import)\s*["']\.\/([\w.-]+\.js)["']/g)].map(([, name]) => name);
    return gzipSync(text).length + next.reduce((sum, name) => sum + visit(name), 0);
  };
  const html = readFileSync(path.join(DIST, 'index.html'), 'utf8');
  return [...html.matchAll(/(?:src|href)="\/assets\/([\w.-]+\.js)"/g)].reduce((sum, [, name]) => sum + visit(name), 0);
}

/** A dip with ripple, so that decimation has something to lose. */
function sweepText(): string {
  const rows = Array.from({ length: POINTS }, (_, i) => {
    const f = 8 + (3 * i) / (POINTS - 1);
    const x = 462 * (f / 9.5 - 9.5 / f) + 3 * Math.sin(i / 7);
    const den = 92 ** 2 + x ** 2;
    return `${f.toFixed(7)} ${(42 ** 2 - 2500 + x ** 2) / den} ${(100 * x) / den}`;
  });
  return ['# MHz S RI R 50', ...rows].join('\n');
}

/** First view, script size, and a long sweep imported and panned, in the real browser on the built application. */
export async function interfaceBench(): Promise<void> {
  const kilobytes = initialScriptBytes() / 1000;
  printLine('initial JavaScript, gzip', `${kilobytes.toFixed(0)} kB`, '250 kB', kilobytes <= 250);

  const dataDir = mkdtempSync(path.join(tmpdir(), 'velvet-reed-bench-'));
  const { address, stop } = await startServer(dataDir);
  const browser = await launchBrowser();
  try {
    const times: number[] = [];
    for (let run = 0; run < 5; run += 1) {
      const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
      const page = await context.newPage();
      await page.goto(`${address}/s/1/listen`, { waitUntil: 'commit' });
      await page.getByRole('button', { name: 'Add a transmitter' }).click();
      await page.getByRole('button', { name: 'Add the transmitter' }).waitFor();
      times.push(await page.evaluate(() => performance.now()));
      await context.close();
    }
    printLine(
      'first view answers a click (median of 5, cold cache)',
      `${(median(times) / 1000).toFixed(2)} s`,
      '2 s',
      median(times) <= 2000,
    );

    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${address}/s/1/bench`);
    const started = Date.now();
    await page
      .getByLabel('Sweep files')
      .setInputFiles({ name: 'long.s1p', mimeType: 'text/plain', buffer: Buffer.from(sweepText()) });
    await page.getByRole('rowheader', { name: 'long.s1p' }).waitFor();
    await page.getByTestId('sweep-chart').locator('path.recharts-curve').nth(1).waitFor({ state: 'attached' });
    printLine(
      `${POINTS}-point sweep: file to curve on screen`,
      `${((Date.now() - started) / 1000).toFixed(2)} s`,
      '2 s',
      Date.now() - started <= 2000,
    );

    await page.getByRole('button', { name: 'Measure with an analyser' }).click();
    const panel = page.getByRole('region', { name: 'Measure with an analyser' });
    await panel.getByLabel('Points').fill('11');
    await panel.getByRole('button', { name: 'Sweep', exact: true }).click(); // starts the stand-ins, solves the wires
    await panel.getByText('1 pass of 11 points').waitFor();
    await panel.getByLabel('Points').fill('10001');
    const swept = Date.now();
    await panel.getByRole('button', { name: 'Sweep', exact: true }).click();
    await panel.getByText('1 pass of 10001 points').waitFor();
    await page.getByTestId('sweep-chart').locator('path.recharts-curve').nth(2).waitFor({ state: 'attached' });
    printLine(
      '10001-point sweep: instrument to curve on screen',
      `${((Date.now() - swept) / 1000).toFixed(2)} s`,
      '2 s',
      Date.now() - swept <= 2000,
    );

    await page.getByTestId('sweep-chart').focus();
    await page.keyboard.press('+');
    const frames = await page.evaluate<number>(PAN_FOR_THREE_SECONDS);
    printLine('panning it, a step every frame', `${frames.toFixed(0)} frames/s`, '30 frames/s', frames >= 30);
  } finally {
    await browser.close();
    await stop();
    rmSync(dataDir, { recursive: true, force: true });
  }
}
