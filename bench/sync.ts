import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { readBatch, STATION_BLANK, type Change } from '@velvet-reed/contract';
import { applyChanges } from '../packages/server/src/changes';
import { openDatabase, type Database } from '../packages/server/src/database';
import { migrator } from '../packages/server/src/migrate';
import { createStation } from '../packages/server/src/records';
import { StaleWriteError } from '../packages/server/src/refusals';
import { stationRecords } from '../packages/server/src/station-answer';
import {
  answered,
  EMPTY_QUEUE,
  queued,
  refusedBy,
  retried,
  sendable,
  type Queue,
} from '../packages/web/src/data/outbox-queue';
import { printLine } from './print';

const INTERLEAVINGS = 1000;
const STEPS = 24;
const HUT = {
  ...{ name: 'Hut', latDeg: 50, lonDeg: -19, environment: 'rural', noiseOffsetDb: 0, spanM: 38, heightM: 9 },
  ...{ cableId: 'pe5', lineLengthM: 25, groundId: 'average', ...STATION_BLANK },
};

/** A generator of numbers from 0 up to 1 that a seed repeats (mulberry32). */
function random(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}

/** A browser with its line of what waits, and what it last saw of the one record that both change. */
interface Browser {
  readonly device: string;
  queue: Queue;
  online: boolean;
  seen: { readonly id: number; readonly version: number };
  /** Texts of its entries in the order in which they were written. */
  readonly written: string[];
}

interface Outcome {
  lost: number;
  doubled: number;
  outOfOrder: number;
  wrongTime: number;
  strayed: number;
  conflicts: number;
}

interface Held {
  readonly id: number;
  readonly version: number;
  readonly name: string;
}
const isHeld = (value: unknown): value is Held & Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && 'id' in value && 'version' in value;
const listOf = (
  records: Readonly<Record<string, unknown>>,
  name: string,
): readonly (Held & Readonly<Record<string, unknown>>)[] => {
  const list = records[name];
  return Array.isArray(list) ? list.filter(isHeld) : [];
};

/** Two browsers write, go away, come back, lose answers; at the end everything must be there once, in order, at its time, under its antenna. */
async function interleave(db: Database, seed: number, outcome: Outcome): Promise<void> {
  const next = random(seed);
  const station = await createStation(db, HUT, { key: randomUUID(), device: '' });
  const stationId = Number(station.id);
  const save = async (changes: readonly Change[], key: string, device: string) => {
    const batch = await readBatch({ changes, key, device });
    return applyChanges(db, stationId, { changes: batch.changes, author: { key, device } });
  };
  const target = (name: string): Change => ({
    op: 'create',
    resource: 'targets',
    as: 't',
    values: { name, lowHz: 9.4e6, highHz: 9.9e6, bandwidthHz: 5000, weight: 3 },
  });
  const shared = await save([target('shared')], randomUUID(), randomUUID());
  const sharedId = Number(shared.saved[0]?.id);
  const browsers = [0, 1].map((): Browser => ({
    device: randomUUID(),
    queue: EMPTY_QUEUE,
    online: true,
    seen: { id: sharedId, version: 1 },
    written: [],
  }));
  let clock = 1_700_000_000_000;
  const times = new Map<string, number>();
  const names = new Map<string, string>();

  /** Sends what can be sent; an answer is lost now and then, and the batch goes out again under its name. */
  const flush = async (browser: Browser, steady: boolean): Promise<void> => {
    for (const { key } of browser.queue.batches) {
      const batch = browser.queue.batches.find((one) => one.key === key);
      if (!batch || batch.refused) continue;
      const changes = sendable(browser.queue, batch);
      if (!changes) {
        browser.queue = refusedBy(browser.queue, key, { code: 'STANDS_ON', message: '' });
        continue;
      }
      if (!steady && next() < 0.15) return; // the request did not arrive
      try {
        const { saved } = await save(changes, key, browser.device);
        if (!steady && next() < 0.25) return; // it did, and its answer was lost
        browser.queue = answered(
          browser.queue,
          key,
          saved.map((one) => Number(one?.id ?? 0)),
        );
      } catch (error) {
        if (!(error instanceof StaleWriteError)) throw error;
        outcome.conflicts += 1;
        browser.queue = refusedBy(browser.queue, key, { code: 'STALE_WRITE', message: '' });
      }
    }
  };
  const look = async (browser: Browser): Promise<void> => {
    const found = await db.tables.targets.findByPk(sharedId);
    browser.seen = { id: sharedId, version: Number(found?.get('version')) };
  };
  /** The person looks at what both wrote and keeps their own, until it is saved. */
  const settle = async (browser: Browser): Promise<void> => {
    await look(browser);
    for (const { key, refused, changes } of browser.queue.batches)
      if (refused)
        browser.queue = retried(browser.queue, key, {
          key: randomUUID(),
          changes: changes.map((change) =>
            change.op === 'update' && change.id === sharedId ? { ...change, version: browser.seen.version } : change,
          ),
        });
  };
  const write = (browser: Browser, changes: readonly Change[]): void => {
    browser.queue = queued(browser.queue, { key: randomUUID(), stationId, changes, what: '', atMs: clock });
  };
  const entry = (browser: Browser): Change => {
    const text = `${seed} ${browsers.indexOf(browser)} ${browser.written.length}`;
    browser.written.push(text);
    clock += 1 + Math.floor(1000 * next());
    times.set(text, clock);
    return { op: 'create', resource: 'entries', values: { step: 'bench', text, atMs: clock } };
  };

  for (let step = 0; step < STEPS; step += 1) {
    const browser = browsers[next() < 0.5 ? 0 : 1];
    const what = next();
    if (what < 0.25) browser.online = !browser.online;
    else if (what < 0.7) write(browser, [entry(browser)]);
    else if (what < 0.85) {
      // a target made out there, and an antenna for it in a batch of its own
      const name = `t ${seed} ${step}`;
      write(browser, [target(name), entry(browser)]);
      const made = browser.queue.batches.at(-1)?.ids[0] ?? 0;
      names.set(`a ${seed} ${step}`, name);
      write(browser, [{ op: 'create', resource: 'antennas', values: { name: `a ${seed} ${step}`, targetId: made } }]);
    } else {
      write(browser, [
        {
          op: 'update',
          resource: 'targets',
          id: sharedId,
          version: browser.seen.version,
          values: { name: `shared ${step}` },
        },
        entry(browser),
      ]);
      browser.seen = { ...browser.seen, version: browser.seen.version + 1 };
    }
    if (browser.online) {
      await flush(browser, false);
      if (next() < 0.5) await settle(browser);
    }
  }
  for (let round = 0; browsers.some(({ queue }) => queue.batches.length > 0) && round < 50; round += 1)
    for (const browser of browsers) {
      await settle(browser);
      await flush(browser, true);
    }

  const records = await stationRecords(db, stationId, '');
  const entries = listOf(records, 'entries');
  for (const browser of browsers) {
    const found = browser.written.map((text) => entries.filter((one) => one.text === text));
    outcome.lost += found.filter((list) => list.length === 0).length;
    outcome.doubled += found.filter((list) => list.length > 1).length;
    outcome.wrongTime += found.filter(([one]) => one && one.atMs !== times.get(String(one.text))).length;
  }
  // what never met a conflict stands in the order in which it was written
  const targets = listOf(records, 'targets');
  for (const antenna of listOf(records, 'antennas'))
    if (targets.find(({ id }) => id === antenna.targetId)?.name !== names.get(antenna.name)) outcome.strayed += 1;
  outcome.lost += names.size - listOf(records, 'antennas').length;
  const byTime = [...entries].sort((a, b) => Number(a.atMs) - Number(b.atMs)).map(({ text }) => text);
  for (const browser of browsers) {
    const own = byTime.filter((text) => browser.written.includes(String(text)));
    if (own.some((text, i) => text !== browser.written[i])) outcome.outOfOrder += 1;
  }
}

/** Random interleavings of two browsers against the server's own writing: nothing lost, nothing doubled, times and order kept. */
export async function syncBench(): Promise<void> {
  const dir = mkdtempSync(path.join(tmpdir(), 'reed-bench-'));
  const db = openDatabase(path.join(dir, 'sync.sqlite'));
  await migrator(db.sequelize).up();
  const outcome: Outcome = { lost: 0, doubled: 0, outOfOrder: 0, wrongTime: 0, strayed: 0, conflicts: 0 };
  const begun = performance.now();
  for (let seed = 1; seed <= INTERLEAVINGS; seed += 1) await interleave(db, seed, outcome);
  const none = (what: string, count: number): void => printLine(what, String(count), 'none', count === 0);
  none(`records lost in ${INTERLEAVINGS} interleavings`, outcome.lost);
  none('records doubled', outcome.doubled);
  none('entries at another time', outcome.wrongTime);
  none('browsers whose entries changed their order', outcome.outOfOrder);
  none('antennas under another target', outcome.strayed);
  printLine('conflicts told and settled', String(outcome.conflicts), 'more than none', outcome.conflicts > 0);
  console.log(`  one interleaving: ${((performance.now() - begun) / INTERLEAVINGS).toFixed(0)} ms`);
  await db.sequelize.close();
  rmSync(dir, { recursive: true });
}
