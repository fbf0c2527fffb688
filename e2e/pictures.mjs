// Pictures of every main view from the demo data, for docs/screenshots:
//   npm start -- --port 4610 --data /tmp/pictures     (in another terminal)
//   node e2e/pictures.mjs http://127.0.0.1:4610 docs/screenshots [view …] [--night] [--phone]
import { mkdirSync } from 'node:fs';
import { chromium } from '@playwright/test';

const [address = 'http://127.0.0.1:4610', out = 'docs/screenshots', ...rest] = process.argv.slice(2);
const views = rest.filter((word) => !word.startsWith('--'));
const night = rest.includes('--night');
const phone = rest.includes('--phone');
const all = [
  'listen',
  'timetable',
  'plot',
  'choose',
  'draft?antenna=1',
  'bench',
  'trials',
  'noise',
  'path',
  'guard',
  'notebook',
];
mkdirSync(out, { recursive: true });
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: [
    '--headless',
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
});
const page = await browser.newPage({ viewport: phone ? { width: 390, height: 844 } : { width: 1280, height: 800 } });
await page.addInitScript((theme) => localStorage.setItem('velvet-reed.theme', theme), night ? 'night' : 'day');
for (const view of views.length > 0 ? views : all) {
  const [name, query = ''] = view.split('?');
  // the timetable is the second half of Listen
  const stage = name === 'timetable' ? 'listen' : name;
  await page.goto(`${address}/s/1/${stage}${query ? `?${query}` : ''}`);
  await page.locator('#sheet').waitFor();
  await page.waitForTimeout(stage === 'choose' || stage === 'draft' ? 9000 : 1500);
  if (name === 'timetable')
    await page.getByRole('heading', { name: 'Next good windows' }).evaluate((heading) => heading.scrollIntoView());
  await page.screenshot({ path: `${out}/${name}${night ? '-night' : ''}${phone ? '-phone' : ''}.png` });
}
await browser.close();
