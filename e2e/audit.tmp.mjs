import { chromium } from '@playwright/test';
import { readFileSync } from 'node:fs';
const rooms = [
  ...readFileSync('/work/main/packages/web/src/shell/rooms.ts', 'utf8').matchAll(
    /^  (\w+): \[([\s\S]*?)\],\n(?=  \w+: \[|\};)/gm,
  ),
].flatMap(([, s, b]) => [...b.matchAll(/\bid: '([\w-]+)'/g)].map((m) => `${s}/${m[1]}`));
console.log(rooms.length);
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--headless', '--no-sandbox', '--disable-gpu'],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' });
for (const r of rooms) {
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(`http://127.0.0.1:4610/s/1/${r}`);
  await page.locator('.verdict').waitFor();
  await page.waitForTimeout(r.startsWith('choose') || r.startsWith('draft') ? 4000 : 900);
  const out = await page.evaluate(() => {
    const out = [];
    const name = (e) => e.getAttribute('aria-label') ?? e.labels?.[0]?.textContent ?? e.textContent ?? '';
    const main = document.getElementById('sheet').parentElement;
    const by = {};
    for (const e of main.querySelectorAll('input:not([type=file]),select,textarea')) {
      const g = e.closest('section,fieldset,form,[role=group],table')?.getAttribute('aria-label') ?? '';
      const n = name(e).trim() + ' @' + g;
      by[n] = (by[n] ?? 0) + 1;
    }
    for (const [n, c] of Object.entries(by)) if (c > 1) out.push(`field x${c}: ${n}`);
    const bb = {};
    for (const e of main.querySelectorAll('button')) {
      if (/show where this comes from/.test(name(e))) continue;
      const n = name(e).trim();
      bb[n] = (bb[n] ?? 0) + 1;
    }
    for (const [n, c] of Object.entries(bb)) if (c > 1) out.push(`button x${c}: ${n}`);
    for (const e of main.querySelectorAll('[role=status],[aria-live]')) {
      if (e.querySelector('button,input,select,a')) out.push(`status holds controls: ${e.textContent.slice(0, 60)}`);
      else if (e.textContent.length > 250)
        out.push(`status long ${e.textContent.length}: ${e.textContent.slice(0, 50)}`);
    }
    for (const e of document.querySelectorAll('svg,canvas')) {
      if (e.closest('[aria-hidden=true],button,a') || e.parentElement.closest('svg')) continue;
      const w = e.getBoundingClientRect().width;
      if (w < 40) continue;
      const own = e.getAttribute('role') && (e.getAttribute('aria-label') || e.getAttribute('aria-labelledby'));
      const up = e.closest('[role=img],[role=group],figure');
      if (!own && !(up && (up.getAttribute('aria-label') || up.getAttribute('aria-labelledby'))))
        out.push(`drawing without name ${w | 0}px in ${e.closest('section')?.getAttribute('aria-label')}`);
    }
    const sizes = new Map();
    for (const t of document.querySelectorAll('svg text')) {
      if (!t.textContent.trim() || t.closest('button')) continue;
      const m = t.getScreenCTM();
      const px = parseFloat(getComputedStyle(t).fontSize) * Math.hypot(m.a, m.b);
      if (px < 9.5)
        sizes.set(
          px.toFixed(1) + ' ' + (t.closest('section')?.getAttribute('aria-label') ?? 'reed'),
          t.textContent.slice(0, 12),
        );
    }
    for (const [k, v] of sizes) out.push(`text ${k}: ${v}`);
    return out;
  });
  for (const w of [320, 390]) {
    await page.setViewportSize({ width: w, height: 800 });
    await page.waitForTimeout(350);
    const o = await page.evaluate((w) => {
      const sw = document.documentElement.scrollWidth;
      if (sw <= w) return;
      const who = [...document.querySelectorAll('#sheet *')]
        .filter((e) => e.getBoundingClientRect().right > w + 1 && !e.closest('.overflow-x-auto,[data-scrolls]'))
        .slice(0, 3)
        .map(
          (e) =>
            e.tagName +
            '.' +
            String(e.className.baseVal ?? e.className).slice(0, 40) +
            ':' +
            e.textContent.slice(0, 30),
        );
      return `overflow ${sw} at ${w}: ${who.join(' | ')}`;
    }, w);
    if (o) out.push(o);
    if (w === 320) {
      const t = await page.evaluate(() => {
        const o = new Map();
        for (const t of document.querySelectorAll('svg text')) {
          if (!t.textContent.trim()) continue;
          const m = t.getScreenCTM();
          if (!m) continue;
          const px = parseFloat(getComputedStyle(t).fontSize) * Math.hypot(m.a, m.b);
          if (px < 8.9)
            o.set(
              px.toFixed(1) + ' ' + (t.closest('section')?.getAttribute('aria-label') ?? 'reed'),
              t.textContent.slice(0, 12),
            );
        }
        return [...o].map(([k, v]) => 'text320 ' + k + ': ' + v);
      });
      out.push(...t);
    }
  }
  console.log(r);
  for (const o of out) console.log('   ', o);
}
await browser.close();
