import { expect, test } from '@playwright/test';
import { randomStation } from '../packages/contract/src/testing/random-station';
import { ROOMS } from '../packages/web/src/shell/rooms';
import { STEPS } from '@velvet-reed/station/steps';
import { enter, watch } from './helpers';

const WORLDS = 5;
/** So many of them in every room. */
const WHOLE = 1;
/** Text that no listener may ever read. */
const NONSENSE = /\bNaN\b|\bundefined\b|\bInfinity\b|\[object|This page failed|That did not work/;
const OF: Readonly<Record<string, string>> = {
  ...{ targetId: 'targets', antennaId: 'antennas', antennaAId: 'antennas', antennaBId: 'antennas' },
  ...{
    receiverId: 'receivers',
    trialId: 'trials',
    pathId: 'paths',
    guardPlanId: 'guardPlans',
    transmitterId: 'transmitters',
    orderId: 'pathOrders',
    stageId: 'pathStages',
  },
};

test(`${WORLDS} made-up stations: every page opens, says something, and nothing that is nonsense`, async ({ page }) => {
  const faults = await watch(page);
  for (let seed = 1; seed <= WORLDS; seed += 1) {
    const { station, lists, sweeps } = randomStation(7000 + seed);
    const made = await page.request.post('/api/stations', { data: station });
    expect(made.status(), `station ${seed}: ${await made.text()}`).toBe(201);
    const id = Number(/"id":(\d+)/.exec(await made.text())?.[1]);
    const ids = new Map<string, number[]>();
    for (const [resource, records] of Object.entries(lists)) {
      if (records.length === 0) continue;
      const changes = records.map((record) => ({
        op: 'create',
        resource,
        values: Object.fromEntries(
          Object.entries(record).map(([name, value]) => [
            name,
            name in OF && typeof value === 'number' ? ids.get(OF[name])?.[value - 1] : value,
          ]),
        ),
      }));
      const answer = await page.request.post(`/api/stations/${id}/changes`, { data: { changes } });
      expect(answer.status(), `${resource} of station ${seed}: ${await answer.text()}`).toBe(200);
      const reply: unknown = await answer.json();
      const saved: unknown = typeof reply === 'object' && reply !== null && 'saved' in reply ? reply.saved : [];
      ids.set(
        resource,
        (Array.isArray(saved) ? saved : []).map((one: unknown) =>
          typeof one === 'object' && one !== null && 'id' in one ? Number(one.id) : 0,
        ),
      );
    }
    await page.goto(`/s/${id}/listen/wanted`);
    await expect(page.locator('.verdict')).toContainText(`Made up ${7000 + seed}`);
    if (seed <= 4 && sweeps.length > 0) {
      await page.goto(`/s/${id}/bench/sweep`);
      const [{ name, touchstone }] = sweeps;
      await page
        .getByLabel('Sweep files')
        .setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(touchstone) });
      await expect(page.getByText(name).first()).toBeVisible();
    }
    // the first stations are walked through room by room, the others by one room of each step in turn
    const rooms = STEPS.flatMap((step) => {
      const all = ROOMS[step.id].map((room) => ({ step, room }));
      return seed <= WHOLE ? all : [all[seed % all.length]];
    });
    for (const { step, room } of rooms) {
      const where = `${room.name} of ${step.name}, station ${seed}`;
      await enter(page, step.id, room.id);
      await expect(page.locator('.verdict'), where).toContainText(/\w/);
      expect(await page.locator('body').innerText(), where).not.toMatch(NONSENSE);
      const sideways = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
      expect(sideways, `${where} runs off the page`).toBeLessThanOrEqual(0);
    }
    expect(faults, `station ${seed}`).toEqual([]);
  }
});
