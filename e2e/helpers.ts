import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';
import { CAUTIONS } from '../packages/core/src/safety';
import { ROOMS } from '../packages/web/src/shell/rooms';
import { SCHOOLS } from '../packages/web/src/shell/schools';
import { STEPS, type StepId } from '@velvet-reed/station/steps';

/** Collects what a healthy page never does: console errors, page errors, policy violations. */
export async function watch(page: Page): Promise<string[]> {
  const faults: string[] = [];
  page.on('console', (message) => {
    // a refused request (4xx) is part of the tests of bad input; the browser logs it by itself
    if (message.type() === 'error' && !message.text().startsWith('Failed to load resource'))
      faults.push(message.text());
  });
  page.on('pageerror', (error) => faults.push(error.message));
  await page.addInitScript(() => {
    addEventListener('securitypolicyviolation', (event) =>
      console.error(`policy ${event.violatedDirective} ${event.blockedURI}`),
    );
  });
  return faults;
}

/** How many entries the browser keeps in a store of its own. */
export const keptIn = (page: Page, database: string, store: string): Promise<number> =>
  page.evaluate(
    ([name, table]) =>
      new Promise<number>((resolve) => {
        const open = indexedDB.open(name);
        open.onsuccess = () => {
          const all = open.result.transaction(table).objectStore(table).count();
          all.onsuccess = () => resolve(all.result);
        };
      }),
    [database, store],
  );

/** No serious or critical finding on what is shown now; `rules`: only these are asked. */
export async function accessible(page: Page, where: string, rules: readonly string[] = []): Promise<void> {
  // a toast that is fading in has the contrast of its middle; what moves for ever (a working button) is not waited for
  await page.waitForFunction(() =>
    document
      .getAnimations()
      .every((one) => one.playState !== 'running' || one.effect?.getComputedTiming().endTime === Infinity),
  );
  // there are no frames, so no second page is opened for what is found in them; what passes is not listed
  const axe = new AxeBuilder({ page }).setLegacyMode(true).options({ resultTypes: ['violations'] });
  const { violations } = await (
    rules.length > 0
      ? axe.withRules([...rules])
      : axe.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
  ).analyze();
  const serious = violations.filter((violation) => violation.impact === 'serious' || violation.impact === 'critical');
  expect(
    serious.map(
      (violation) => `${violation.id}: ${violation.nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`,
    ),
    `${where}: accessibility`,
  ).toEqual([]);
}

/** Every room by its address, in the order of the rail. */
export const ROOM_ADDRESSES = STEPS.flatMap(({ id, name }) =>
  ROOMS[id].map((room) => ({
    path: `${id}/${room.id}`,
    title: `${room.name}, ${name}`,
    told: [...(room.cautions ?? []).map((id) => CAUTIONS[id]), ...(room.schools ?? []).map((id) => SCHOOLS[id][1])],
  })),
);

/** Goes to a room through the rail, as a listener does, and waits until it stands there. */
export async function enter(page: Page, stepId: StepId, roomId: string = ROOMS[stepId][0].id): Promise<void> {
  const step = STEPS.find(({ id }) => id === stepId);
  const room = ROOMS[stepId].find(({ id }) => id === roomId);
  if (!step || !room) throw new Error(`There is no room ${stepId}/${roomId}.`);
  const rail = page.getByRole('navigation', { name: 'Steps and rooms' });
  const here = page.getByRole('heading', { level: 1, name: `${room.name}, ${step.name}`, exact: true });
  await rail.getByRole('link', { name: new RegExp(`^\\W*${step.name}\\b`) }).click();
  if (room !== ROOMS[stepId][0]) await rail.getByRole('link', { name: room.name, exact: true }).click();
  await expect(here).toBeAttached();
}

/** Touchstone text of a series resonance R + jRQ(f/f0 − f0/f) on 50 Ω: a dip whose place and depth follow in closed form. */
export function seriesDipFile(
  rOhm: number,
  q: number,
  f0MHz: number,
  startMHz: number,
  stopMHz: number,
  points: number,
): string {
  const rows = Array.from({ length: points }, (_, i) => {
    const f = startMHz + ((stopMHz - startMHz) * i) / (points - 1);
    const x = rOhm * q * (f / f0MHz - f0MHz / f);
    const den = (rOhm + 50) ** 2 + x ** 2;
    return `${f} ${(rOhm ** 2 - 2500 + x ** 2) / den} ${(100 * x) / den}`;
  });
  return ['! made for a test', '# MHz S RI R 50', ...rows].join('\n');
}

/** An empty station of its own; other walks keep the demo as it is. @returns its address. */
export async function freshStation(page: Page, latLon: readonly [number, number]): Promise<string> {
  await page.goto('/');
  await page.getByLabel('Coordinates or grid locator').fill(`${latLon[0]}, ${latLon[1]}`);
  await page.getByRole('button', { name: 'Find region' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Bench for a test');
  await page.getByRole('button', { name: 'Create station' }).click();
  await expect(page.locator('.verdict')).toContainText('Bench for a test lies in ITU Region');
  return new URL(page.url()).pathname.replace(/\/listen.*/, '');
}

/** A station of its own with one antenna. @returns its address. */
export async function freshBench(
  page: Page,
  latLon: readonly [number, number],
  kind: string,
  freqHz: number,
): Promise<string> {
  const base = await freshStation(page, latLon);
  await beginAntenna(page, base, kind, freqHz);
  return base;
}

/** An antenna as the interface would store it. */
export async function beginAntenna(page: Page, base: string, kind: string, freqHz: number): Promise<void> {
  const revision = {
    antennaId: { new: 'a' },
    number: 1,
    kind,
    freqHz,
    diameterM: 0.0015,
    insulated: false,
    allowance: 0.03,
    dimensions: {},
    gates: [],
    done: [],
  };
  const changes = [
    { op: 'create', resource: 'antennas', values: { name: 'Under test', targetId: null }, as: 'a' },
    { op: 'create', resource: 'revisions', values: revision },
  ];
  const reply = await page.request.post(`/api/stations/${base.split('/').at(-1)}/changes`, { data: { changes } });
  expect(reply.status()).toBe(200);
}

/** Texts of drawings that lie over each other, or that the edge of their drawing cuts (where it cannot be scrolled). */
const clashingLabels = (page: Page): Promise<readonly string[]> =>
  page.evaluate(() => {
    const found: string[] = [];
    const seen: { text: string; left: number; right: number; top: number; bottom: number }[] = [];
    for (const label of document.querySelectorAll<SVGTextElement>('svg text')) {
      const text = label.textContent?.trim() ?? '';
      const { left, right, top, bottom } = label.getBoundingClientRect();
      if (text === '' || right - left < 1) continue;
      const box = { text, left, right, top, bottom };
      let scrolls = false;
      for (let one = label.parentElement; one; one = one.parentElement) {
        const { overflowX } = getComputedStyle(one);
        if (one instanceof SVGElement || overflowX === 'visible') continue;
        if (one === document.body || one === document.documentElement) continue;
        if (overflowX === 'auto' || overflowX === 'scroll') scrolls = true;
        const frame = one.getBoundingClientRect();
        box.left = Math.max(box.left, frame.left);
        box.right = Math.min(box.right, frame.right);
      }
      if (box.right - box.left < 1) continue;
      if (!scrolls && box.right - box.left < right - left - 2) found.push(`cut: ${text}`);
      for (const other of seen) {
        const wide = Math.min(box.right, other.right) - Math.max(box.left, other.left);
        const tall = Math.min(box.bottom, other.bottom) - Math.max(box.top, other.top);
        if (wide > 1.5 && tall > 4) found.push(`over: ${text} | ${other.text}`);
      }
      seen.push(box);
    }
    return [...new Set(found)];
  });

/** Looks at rooms by their address: verdict, evidence whole on the first screen, nothing serious for axe, nothing off the page on a phone, contrast at night. */
export async function lookAtRooms(page: Page, rooms: typeof ROOM_ADDRESSES): Promise<void> {
  const faults = await watch(page);
  for (const { path, title, told } of rooms) {
    await page.setViewportSize({ width: 1280, height: 800 });
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
    expect(lines, `${path}: lines of the verdict`).toBeLessThan(2.5);
    for (const text of told)
      await expect(page.getByRole('complementary').getByText(text), `${path}: margin`).toBeVisible();
    await accessible(page, path);
    // drawings settle a moment after their room
    await expect.poll(() => clashingLabels(page), { message: `${path}: labels at 1280 px` }).toEqual([]);
    // 400 % zoom of 1280 by 1024
    await page.setViewportSize({ width: 320, height: 256 });
    await expect
      .poll(() => page.evaluate(() => document.documentElement.scrollWidth), { message: `${path}: width at 400 %` })
      .toBeLessThanOrEqual(320);
    await page.setViewportSize({ width: 390, height: 844 });
    // drawings follow the new width a moment later
    await expect
      .poll(() => page.evaluate(() => document.documentElement.scrollWidth), { message: `${path}: page width` })
      .toBeLessThanOrEqual(390);
    await expect.poll(() => clashingLabels(page), { message: `${path}: labels at 390 px` }).toEqual([]);
    // wider text spacing (WCAG 1.4.12)
    const spacing = (letter: string, word: string): Promise<number> =>
      page.evaluate(
        ([letterSpacing, wordSpacing]) => {
          Object.assign(document.documentElement.style, { letterSpacing, wordSpacing });
          return document.documentElement.scrollWidth;
        },
        [letter, word],
      );
    expect(await spacing('0.12em', '0.16em'), `${path}: width with text spacing`).toBeLessThanOrEqual(390);
    await spacing('', '');
    // night changes colours and nothing else
    await page.getByRole('button', { name: 'Night theme' }).click();
    await accessible(page, `${path}, night, 390 px`, ['color-contrast', 'target-size', 'scrollable-region-focusable']);
    await page.getByRole('button', { name: 'Day theme' }).click();
  }
  expect(faults).toEqual([]);
}
