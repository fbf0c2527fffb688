// Pictures of the main rooms from the demo data, for docs/screenshots:
//   npm start -- --port 4610 --data /tmp/pictures     (in another terminal)
//   node e2e/pictures.mjs http://127.0.0.1:4610 docs/screenshots [room …] [--night] [--phone]
import { mkdirSync } from 'node:fs';
import { chromium } from '@playwright/test';

const [address = 'http://127.0.0.1:4610', out = 'docs/screenshots', ...rest] = process.argv.slice(2);
const views = rest.filter((word) => !word.startsWith('--'));
const night = rest.includes('--night');
const phone = rest.includes('--phone');
const all = [
  'listen/wanted',
  'listen/when',
  'plot/plan',
  'choose/ranking',
  'choose/every-target',
  'draft/model?antenna=1',
  'bench/sweep',
  'bench/trim',
  'trials/pairs',
  'trials/recording',
  'trials/pattern',
  'noise/floor',
  'path/chain',
  'guard/routes',
  'guard/states',
  'notebook/report',
  'notebook/seasons',
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
  const [room, query = ''] = view.split('?');
  await page.goto(`${address}/s/1/${room}${query ? `?${query}` : ''}`);
  await page.locator('.verdict').waitFor();
  await page.waitForTimeout(room.startsWith('choose') || room.startsWith('draft') ? 9000 : 1500);
  await page.screenshot({
    path: `${out}/${room.replace('/', '-')}${night ? '-night' : ''}${phone ? '-phone' : ''}.png`,
  });
}
await browser.close();
