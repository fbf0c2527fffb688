import { expect, test } from '@playwright/test';

/** Rooms of the demo whose verdicts rest on what is computed while the page loads. */
const ROOMS = [
  ...['guard/inputs', 'guard/states', 'guard/routes', 'guard/coupling', 'guard/power-test', 'guard/timing'],
  ...['choose/ranking', 'choose/every-target', 'choose/coverage', 'draft/model', 'draft/build', 'bench/sweep'],
  ...['trials/pairs', 'trials/pattern', 'trials/recording', 'noise/floor', 'noise/direction', 'path/chain'],
  ...['path/every-target', 'notebook/seasons', 'notebook/report', 'plot/plan', 'listen/wanted', 'listen/when'],
];
/** What says of itself that it is not the last word. */
const PROVISIONAL =
  /…|still|So far|being computed|No verdict yet|Asking|at work|is computed|laid side by side|is read|are read|Loading|opened/i;
const STEP_MS = 200;
/** A verdict that stood so long is the last one. */
const STEADY_MS = 2600;
const MOST_MS = 30_000;

/** Sentences of a verdict without its next step. */
const sentences = (text: string): readonly string[] =>
  (text.replaceAll(/\s+/g, ' ').split(/\bNext: /)[0] ?? '')
    .split(/(?<=[.!?:;]) /)
    .map((one) => one.trim())
    .filter(Boolean);

test('what the demo says while it is computed, it does not take back afterwards @demo', async ({ page }) => {
  test.setTimeout(600_000);
  for (const room of ROOMS) {
    await page.goto(`/s/1/${room}`);
    const verdict = page.locator('.verdict').first();
    await verdict.waitFor();
    const said: string[] = [];
    let steady = 0;
    for (let waited = 0; waited < MOST_MS && steady < STEADY_MS; waited += STEP_MS) {
      const text = await verdict.innerText().catch(() => said.at(-1) ?? '');
      steady = text === said.at(-1) ? steady + STEP_MS : 0;
      if (text !== said.at(-1)) said.push(text);
      await page.waitForTimeout(STEP_MS);
    }
    const last = sentences(said.at(-1) ?? '');
    const refuses = last.some((one) => one.startsWith('Do not transmit'));
    for (const text of said.slice(0, -1))
      for (const one of sentences(text)) {
        // a danger may turn out worse, and stays one
        if (PROVISIONAL.test(text) || (refuses && text.startsWith('Do not transmit'))) continue;
        expect(last, `${room} said “${text}” and takes it back: “${said.at(-1)}”`).toContain(one);
      }
  }
});
