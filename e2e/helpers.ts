import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

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

/** No serious or critical finding on what is shown now. */
export async function accessible(page: Page, where: string): Promise<void> {
  // a toast that is fading in has the contrast of its middle; what moves for ever (a working button) is not waited for
  await page.waitForFunction(() =>
    document
      .getAnimations()
      .every((one) => one.playState !== 'running' || one.effect?.getComputedTiming().endTime === Infinity),
  );
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
    .analyze();
  const serious = violations.filter((violation) => violation.impact === 'serious' || violation.impact === 'critical');
  expect(
    serious.map(
      (violation) => `${violation.id}: ${violation.nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`,
    ),
    `${where}: accessibility`,
  ).toEqual([]);
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
