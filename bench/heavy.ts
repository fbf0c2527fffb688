// A station that has grown: 200 sweeps of 401 points, 5,000 readings and 100,000 decodes, in the real browser beside an empty station on the same server.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import type { Browser, Page } from '@playwright/test';
import { launchBrowser, startServer } from './browser';
import { median, printLine } from './print';

const SWEEPS = 200;
const SWEEP_POINTS = 401;
const READINGS = 5000;
const DECODES = 100_000;
const RUNS = 5;
const STATION = {
  ...{ name: 'Grown', latDeg: 50.2, lonDeg: -19.3, environment: 'rural', noiseOffsetDb: 0, spanM: 38, heightM: 9 },
  ...{ cableId: 'pe5', lineLengthM: 25, groundId: 'average', ownCableDb10: null, ownCableDb100: null },
  ...{ nothingVisible: false, lawnAllowed: true, noDrilling: false, noTransmitting: false, noStakes: false },
  ...{ askFirst: false, windLimitMPerS: null, windForecastMPerS: null, priceWeight: 1, effortWeight: 1 },
  ...{ sightWeight: 1, adapterBox: '' },
};

async function post(address: string, body: unknown): Promise<unknown> {
  const reply = await fetch(address, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  if (!reply.ok) throw new Error(`${address}: ${reply.status} ${await reply.text()}`);
  return reply.json();
}
const field = (value: unknown, name: string): unknown =>
  typeof value === 'object' && value !== null ? new Map<string, unknown>(Object.entries(value)).get(name) : undefined;

/** A dip of its own for each sweep, so that no two files are alike. */
function sweepText(i: number): string {
  const rows = Array.from({ length: SWEEP_POINTS }, (_, k) => {
    const f = 8 + (3 * k) / (SWEEP_POINTS - 1);
    const x = 462 * (f / (9.3 + i / 1000) - (9.3 + i / 1000) / f);
    const den = 92 ** 2 + x ** 2;
    return `${f.toFixed(6)} ${(42 ** 2 - 2500 + x ** 2) / den} ${(100 * x) / den}`;
  });
  return ['# MHz S RI R 50', ...rows].join('\n');
}

const decodesText = (): string =>
  [
    'Time UTC;Frequency (MHz);SNR;Heard;Locator',
    ...Array.from({ length: DECODES }, (_, i) => {
      const at = new Date(Date.UTC(2026, 2, 10) + i * 15_000).toISOString().slice(0, 19).replace('T', ' ');
      return `${at};7.04;${-20 + (i % 17)};beacon ${i % 90};JO${10 + (i % 80)}`;
    }),
  ].join('\n');

const RECEIVER = {
  ...{ name: 'R', bits: 14, fullScaleDbm: 0, sampleRateHz: 125e6, complexSamples: false, noiseFigureDb: 18 },
  ...{ iip2Dbm: 60, iip3Dbm: 25, minHz: 1e4, maxHz: 60e6 },
};
/** What both stations have, so that no room is empty in one and full in the other for its kind alone. */
const SAME = [
  {
    op: 'create',
    resource: 'targets',
    values: { name: '31 m', lowHz: 9.4e6, highHz: 9.9e6, bandwidthHz: 5000, weight: 5 },
  },
  { op: 'create', resource: 'receivers', values: RECEIVER },
  ...['a', 'b'].flatMap((as) => [
    { op: 'create', resource: 'antennas', as, values: { name: `Dipole ${as}`, targetId: null } },
    {
      op: 'create',
      resource: 'revisions',
      values: {
        ...{ antennaId: { new: as }, number: 1, kind: 'half-wave-dipole', freqHz: 9.65e6, diameterM: 0.0015 },
        ...{ insulated: false, allowance: 0.03, dimensions: {} },
      },
    },
  ]),
  {
    op: 'create',
    resource: 'trials',
    as: 'trial',
    values: {
      ...{ name: 'T', antennaAId: { new: 'a' }, antennaBId: { new: 'b' }, freqHz: 9.65e6, worthDb: 3 },
      conditions: '',
    },
  },
];

async function makeStation(address: string): Promise<{ id: number; antenna: number; trial: number }> {
  const id = Number(field(await post(`${address}/api/stations`, STATION), 'id'));
  const saved = field(await post(`${address}/api/stations/${id}/changes`, { changes: SAME }), 'saved');
  const ids = Array.isArray(saved) ? saved.map((one) => Number(field(one, 'id'))) : [];
  return { id, antenna: ids[2], trial: ids[6] };
}

async function grow(address: string, { id, antenna, trial }: { id: number; antenna: number; trial: number }) {
  for (let i = 0; i < SWEEPS; i += 1) {
    const form = new FormData();
    form.append('antennaId', String(antenna));
    form.append('file', new Blob([sweepText(i)]), `sweep ${i}.s1p`);
    const reply = await fetch(`${address}/api/stations/${id}/sweeps`, { method: 'POST', body: form });
    if (!reply.ok) throw new Error(await reply.text());
  }
  const decodes = new FormData();
  decodes.append('kind', 'decodes');
  decodes.append('file', new Blob([decodesText()]), 'nights.csv');
  const taken = await fetch(`${address}/api/stations/${id}/logs`, { method: 'POST', body: decodes });
  if (!taken.ok) throw new Error(await taken.text());
  for (let round = 0; round < READINGS; round += 500) {
    const changes = Array.from({ length: 500 }, (_, k) => {
      const off = Math.sin((round + k) * 1.7) * 3;
      const levels = { levelADbm: -80 + off, noiseADbm: -110, levelBDbm: -79 + off + Math.sin(k) * 2, noiseBDbm: -111 };
      return { op: 'create', resource: 'readings', values: { trialId: trial, round: round + k, ...levels } };
    });
    await post(`${address}/api/stations/${id}/changes`, { changes });
  }
}

const ROOMS = ['listen', 'plot', 'choose', 'draft', 'bench', 'trials', 'noise', 'path', 'guard', 'notebook'];

/** Time until the room's first sentence stands, in a browser that has nothing in its cache, ms. */
async function firstView(browser: Browser, address: string): Promise<number> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.goto(address, { waitUntil: 'commit' });
  await page.locator('.verdict').waitFor();
  const ms = await page.evaluate<number>('performance.now()');
  await context.close();
  return ms;
}

/** From the end of the answer to the first frame that shows what was saved, ms. */
async function savedOnScreen(page: Page, act: () => Promise<void>, shown: string): Promise<number> {
  // as text: the bundler's helpers do not exist in the page
  const watched = page.evaluate<number>(`new Promise((resolve) => {
    const look = () => {
      const saves = performance.getEntriesByType('resource').filter(({ name }) => name.includes('/changes'));
      const last = saves[saves.length - 1];
      if (last && last.responseEnd > begun && document.body.innerText.includes(${JSON.stringify(shown)}))
        resolve(performance.now() - last.responseEnd);
      else requestAnimationFrame(look);
    };
    const begun = performance.now();
    look();
  })`);
  await act();
  return watched;
}

async function heap(page: Page): Promise<number> {
  const session = await page.context().newCDPSession(page);
  await session.send('HeapProfiler.collectGarbage');
  const { usedSize } = await session.send('Runtime.getHeapUsage');
  return usedSize / 1e6;
}

/** Requests and memory of a room that is opened with an empty cache. */
async function opened(browser: Browser, address: string): Promise<{ requests: number; megabytes: number }> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  let requests = 0;
  page.on('request', (request) => {
    if (request.url().includes('/api/')) requests += 1;
  });
  await page.goto(address);
  await page.locator('.verdict').waitFor();
  await page.waitForTimeout(3000);
  const megabytes = await heap(page);
  await context.close();
  return { requests, megabytes };
}

/** How a grown station feels beside an empty one. */
export async function heavyBench(): Promise<void> {
  const dataDir = mkdtempSync(path.join(tmpdir(), 'velvet-reed-heavy-'));
  const { address, stop } = await startServer(dataDir);
  const browser = await launchBrowser();
  try {
    const [light, heavy] = [await makeStation(address), await makeStation(address)];
    await grow(address, heavy);
    const answer = await (await fetch(`${address}/api/stations/${heavy.id}?packed=1`)).text();
    const kilobytes = gzipSync(answer, { level: 1 }).length / 1000;
    printLine('station answer, gzip', `${kilobytes.toFixed(0)} kB`, '200 kB', kilobytes <= 200);

    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const page = await context.newPage();
    await page.goto(`${address}/s/${heavy.id}/trials`);
    const saves: number[] = [];
    for (let run = 0; run < RUNS; run += 1) {
      const form = page.getByRole('button', { name: 'Log this pair' }).locator('xpath=ancestor::form');
      await form.locator('input').nth(0).fill(`-8${run}.25`);
      await form.locator('input').nth(1).fill('-110');
      await form.locator('input').nth(2).fill('-79');
      await form.locator('input').nth(3).fill('-111');
      const act = () => page.getByRole('button', { name: 'Log this pair' }).click();
      saves.push(await savedOnScreen(page, act, `Round ${READINGS + run + 2}`));
    }
    printLine(
      'a pair saved: answer to screen (median)',
      `${median(saves).toFixed(0)} ms`,
      '100 ms',
      median(saves) <= 100,
    );
    const second = await context.newPage();
    await second.goto(`${address}/s/${heavy.id}/trials`);
    await second.locator('.verdict').waitFor();
    const begun = Date.now();
    await post(`${address}/api/stations/${heavy.id}/changes`, {
      changes: [
        {
          op: 'create',
          resource: 'readings',
          values: { trialId: heavy.trial, round: READINGS + RUNS, levelADbm: -80 },
        },
      ],
    });
    await second.getByText(`Round ${READINGS + RUNS + 2}`).waitFor();
    printLine('another tab sees a change', `${Date.now() - begun} ms`, '2000 ms', Date.now() - begun <= 2000);
    await context.close();

    for (const room of ['bench', 'notebook']) {
      const { requests, megabytes } = await opened(browser, `${address}/s/${heavy.id}/${room}`);
      printLine(`${room}: requests`, String(requests), '8', requests <= 8);
      printLine(`${room}: heap after collection`, `${megabytes.toFixed(0)} MB`, '60 MB', megabytes <= 60);
    }
    for (const room of ROOMS) {
      const times = { light: [] as number[], heavy: [] as number[] };
      for (let run = 0; run < RUNS; run += 1) {
        times.light.push(await firstView(browser, `${address}/s/${light.id}/${room}`));
        times.heavy.push(await firstView(browser, `${address}/s/${heavy.id}/${room}`));
      }
      const ratio = median(times.heavy) / median(times.light);
      printLine(`${room}: first view against the empty station`, ratio.toFixed(2), '1.3', ratio <= 1.3);
    }
  } finally {
    await browser.close();
    await stop();
    rmSync(dataDir, { recursive: true, force: true });
  }
}
