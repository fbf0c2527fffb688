import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import type { Browser } from '@playwright/test';
import { ROOMS } from '../packages/web/src/shell/rooms';
import { STEPS } from '@velvet-reed/station/steps';
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

/** Runs in the page: a dimension is slid a little each frame. @returns answers of the model on the page per second. */
const SLIDE_FOR_THREE_SECONDS = `new Promise((resolve) => {
  const slider = document.querySelector('#sheet input[type="range"]');
  const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set;
  // what the model says of the dimensions: its patterns
  const shown = () => [...document.querySelectorAll('#sheet svg path[data-curve]')].map((one) => one.getAttribute('d')).join();
  const begun = performance.now();
  const from = Number(slider.value), span = (Number(slider.max) - Number(slider.min)) / 20;
  let seen = shown(), pictures = 0, frame = 0;
  const step = () => {
    frame += 1;
    set.call(slider, String(from + span * Math.sin(frame / 9)));
    slider.dispatchEvent(new Event('input', { bubbles: true }));
    const now = shown();
    if (now !== seen) pictures += 1;
    seen = now;
    if (performance.now() - begun < 3000) requestAnimationFrame(step);
    else resolve((1000 * pictures) / (performance.now() - begun));
  };
  requestAnimationFrame(step);
})`;

/** Runs in the page before anything of it: notes when the first evidence stands, so that no polling is measured along. */
const NOTE_FIRST_EVIDENCE = `(() => {
  const look = () => {
    if (window.evidenceAt !== undefined || !document.querySelector('[data-evidence]')) return;
    requestAnimationFrame(() => (window.evidenceAt ??= performance.now()));
    watch.disconnect();
  };
  const watch = new MutationObserver(look);
  watch.observe(document, { childList: true, subtree: true, attributes: true, attributeFilter: ['data-evidence'] });
})()`;

/** Opens an address with nothing cached. @returns ms until the frame in which the evidence stands. */
async function firstEvidenceMs(browser: Browser, address: string): Promise<number> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  await context.addInitScript(NOTE_FIRST_EVIDENCE);
  const page = await context.newPage();
  await page.goto(address, { waitUntil: 'commit' });
  await page.locator('[data-evidence]').first().waitFor();
  const ms = await page.evaluate<number>(
    'new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(() => done(window.evidenceAt))))',
  );
  await context.close();
  return ms;
}

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

/** Every room by its address with nothing cached, until its evidence stands. */
async function roomsCold(browser: Browser, address: string): Promise<void> {
  const seen: (readonly [room: string, ms: number])[] = [];
  for (const { id } of STEPS)
    for (const room of ROOMS[id])
      seen.push([`${id}/${room.id}`, await firstEvidenceMs(browser, `${address}/s/1/${id}/${room.id}`)]);
  const [slowest] = seen.sort((a, b) => b[1] - a[1]);
  printLine(
    `slowest of ${seen.length} rooms, cold: ${slowest[0]}`,
    `${(slowest[1] / 1000).toFixed(2)} s`,
    '2.5 s',
    slowest[1] <= 2500,
  );
}

/** First view, script size, and a long sweep imported and panned, in the real browser on the built application. */
export async function interfaceBench(): Promise<void> {
  const kilobytes = initialScriptBytes() / 1000;
  printLine('initial JavaScript, gzip', `${kilobytes.toFixed(0)} kB`, '200 kB', kilobytes <= 200);

  const dataDir = mkdtempSync(path.join(tmpdir(), 'velvet-reed-bench-'));
  const { address, stop } = await startServer(dataDir);
  const browser = await launchBrowser();
  try {
    const times: number[] = [];
    for (let run = 0; run < 5; run += 1) times.push(await firstEvidenceMs(browser, `${address}/s/1/listen/wanted`));
    printLine(
      'first view (median of 5, cold cache)',
      `${(median(times) / 1000).toFixed(2)} s`,
      '1.0 s',
      median(times) <= 1000,
    );
    await roomsCold(browser, address);

    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${address}/s/1/draft/model?antenna=1`);
    await page.locator('[data-testid="model-swr"] path.recharts-curve').first().waitFor({ state: 'attached' });
    const pictures = await page.evaluate<number>(SLIDE_FOR_THREE_SECONDS);
    printLine('model while a dimension slides', `${pictures.toFixed(0)} answers/s`, '30 a second', pictures >= 30);
    await page.goto(`${address}/s/1/bench/sweep`);
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
