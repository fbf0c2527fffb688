// Power cuts: the built server is ended by SIGKILL in the middle of writes, of its first start, of the demo, of a restore, an import, an emptying of the bin,
// a backup, and of upgrades from every released format, and must have lost nothing it acknowledged. `CRASHES=1000 STARTS=200 CUTS=40` are the defaults; the
// seed of the moments is printed.
import { copyFileSync, existsSync, mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { openDatabase } from '../packages/server/src/database';
import { migrator } from '../packages/server/src/migrate';
import { HUT } from '../packages/server/src/test-server';
import { randomFrom } from '@velvet-reed/instruments';
import { upgrades, jobs } from './crash-jobs';
import { printLine } from './print';
import { get, integrity, kill, post, shape, start, wait } from './server-process';

const CRASHES = Number(process.env.CRASHES ?? 1000);
const STARTS = Number(process.env.STARTS ?? 200);
/** Ends the server in the middle of writes; everything acknowledged must be there, once. */
async function writes(uniform: () => number): Promise<void> {
  const dir = mkdtempSync(path.join(tmpdir(), 'velvet-reed-crash-'));
  const file = path.join(dir, 'velvet-reed.sqlite');
  let running = start(dir, ['--empty']);
  let address = await running.address;
  await post(`${address}/api/stations`, HUT);
  let [lost, twice, half, broken, acknowledged] = [0, 0, 0, 0, 0];
  for (let crash = 0; crash < CRASHES; crash += 1) {
    let stop = false;
    const told: string[] = [];
    const writers = [0, 1].map(async (writer) => {
      for (let i = 0; !stop; i += 1) {
        const text = `${crash} ${writer} ${i}`;
        const changes = ['first', 'second'].map((part) => ({
          op: 'create',
          resource: 'entries',
          values: { step: 'notebook', text: `${text} ${part}`, atMs: crash },
        }));
        try {
          if ((await post(`${address}/api/stations/1/changes`, { changes, key: crypto.randomUUID() })).ok)
            told.push(text);
        } catch {
          return;
        }
      }
    });
    await wait(30 + 300 * uniform()); // long enough that most cuts fall behind some acknowledged batches
    await kill(running);
    stop = true;
    await Promise.all(writers);
    running = start(dir, ['--empty']);
    address = await running.address;
    const now = (await get(`${address}/api/stations/1`)) as {
      entries: { id: number; version: number; text: string }[];
    };
    const seen = new Map<string, number>();
    for (const { text } of now.entries) seen.set(text, (seen.get(text) ?? 0) + 1);
    for (const text of told) {
      const parts = ['first', 'second'].map((part) => seen.get(`${text} ${part}`) ?? 0);
      if (parts[0] === 0) lost += 1;
    }
    for (const [text, n] of seen) {
      if (n > 1) twice += 1;
      const other = text.endsWith('first') ? text.replace(/first$/, 'second') : text.replace(/second$/, 'first');
      if (!seen.has(other)) half += 1;
    }
    acknowledged += told.length;
    // the notebook is emptied now and then, so that reading it stays quick
    if (now.entries.length > 800) {
      for (let i = 0; i < now.entries.length; i += 400)
        await post(`${address}/api/stations/1/changes`, {
          changes: now.entries
            .slice(i, i + 400)
            .map(({ id, version }) => ({ op: 'delete', resource: 'entries', id, version })),
        });
    }
    if (crash % 50 === 49) {
      await kill(running);
      if ((await integrity(file)) !== 'ok') broken += 1;
      running = start(dir, ['--empty']);
      address = await running.address;
    }
  }
  await kill(running);
  if ((await integrity(file)) !== 'ok') broken += 1;
  rmSync(dir, { recursive: true, force: true });
  const what = `${CRASHES} power cuts in writes, ${acknowledged} batches acknowledged`;
  printLine(`${what}: lost`, String(lost), '0', lost === 0);
  printLine('written twice', String(twice), '0', twice === 0);
  printLine('half a batch', String(half), '0', half === 0);
  printLine('files that SQLite calls broken', String(broken), '0', broken === 0);
}

/** Ends the server while it starts on an empty folder, with the demo, or on a file of an earlier release; the next start must come up whole. */
async function starts(uniform: () => number): Promise<void> {
  const home = mkdtempSync(path.join(tmpdir(), 'velvet-reed-starts-'));
  const old = path.join(home, 'old.sqlite');
  const db = openDatabase(old);
  await migrator(db.sequelize).up({ to: '0001-first-station' });
  await db.sequelize
    .query(`INSERT INTO stations (id, version, createdAt, updatedAt, name, latDeg, lonDeg, environment, noiseOffsetDb, spanM, heightM, cableId, lineLengthM)
    VALUES (1, 1, '2026-03-10 10:00:00.000 +00:00', '2026-03-10 10:00:00.000 +00:00', 'Hut', 50, -19, 'rural', 0, 38, 9, 'pe5', 25)`);
  await db.sequelize.close();
  const whole = await (async (): Promise<string> => {
    const dir = path.join(home, 'whole');
    mkdirSync(dir);
    const running = start(dir, []);
    const text = shape(await get(`${await running.address}/api/stations/1`));
    await kill(running);
    return text;
  })();
  let [refused, wrong] = [0, 0];
  for (let i = 0; i < STARTS; i += 1) {
    const kind = (['empty', 'demo', 'upgrade'] as const)[i % 3];
    const dir = path.join(home, String(i));
    mkdirSync(dir);
    const file = path.join(dir, 'velvet-reed.sqlite');
    if (kind === 'upgrade') copyFileSync(old, file);
    const args = kind === 'demo' ? [] : ['--empty'];
    for (let cut = 0; cut < 2; cut += 1) {
      const running = start(dir, args);
      await wait(1200 * uniform());
      await kill(running);
    }
    const running = start(dir, args);
    try {
      const address = await running.address;
      const stations = (await get(`${address}/api/stations`)) as { id: number; name: string }[];
      const fine =
        kind === 'empty'
          ? stations.length === 0
          : kind === 'upgrade'
            ? stations.map(({ name }) => name).join() === 'Hut'
            : stations.length === 0 || shape(await get(`${address}/api/stations/${stations[0].id}`)) === whole;
      if (!fine) {
        wrong += 1;
        console.log(`    start ${i} (${kind}): ${JSON.stringify(stations).slice(0, 200)}`);
      }
    } catch (error) {
      refused += 1;
      console.log(`    start ${i} (${kind}): ${String(error).slice(0, 300)}`);
    }
    await kill(running);
    if (existsSync(file) && (await integrity(file)) !== 'ok') wrong += 1;
    rmSync(dir, { recursive: true, force: true });
  }
  rmSync(home, { recursive: true, force: true });
  printLine(`${2 * STARTS} power cuts in ${STARTS} starts: no start afterwards`, String(refused), '0', refused === 0);
  printLine('started with half of what was there', String(wrong), '0', wrong === 0);
}

export async function crashBench(): Promise<void> {
  const seed = Number(process.env.SEED ?? 77);
  console.log(`  seed ${seed}`);
  const { uniform } = randomFrom(seed);
  await writes(uniform);
  await starts(uniform);
  await jobs(uniform);
  await upgrades(uniform);
}
