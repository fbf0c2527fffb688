import { randomUUID } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import { get } from 'node:http';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { RESOURCE_NAMES } from '@velvet-reed/contract';
import type { Express } from 'express';
import { pino } from 'pino';
import request from 'supertest';
import { createApp } from './app';
import { openDatabase, type Database } from './database';
import { migrator } from './migrate';
import { currentRun } from './station-answer';
import { HUT } from './test-server';

let db: Database;
let app: Express;
const DEVICE = randomUUID();
const TARGET = { name: '31 m', lowHz: 9.4e6, highHz: 9.9e6, bandwidthHz: 5000, weight: 5 };

beforeAll(async () => {
  db = openDatabase(path.join(mkdtempSync(path.join(tmpdir(), 'reed-answer-')), 'stations.sqlite'));
  await migrator(db.sequelize).up();
  app = createApp({ db, logger: pino({ level: 'silent' }), allowedHosts: ['127.0.0.1'] });
});
afterAll(() => db.sequelize.close());

type Item = Record<string, unknown> & { id: number; version: number };
type Copy = Record<string, Item[]>;
interface Told {
  readonly revision: number;
  readonly changed: Record<string, Item[]>;
  readonly gone: Record<string, number[]>;
  readonly setAside: unknown[];
  readonly undo: { batch: string } | null;
  readonly station?: Item;
}
interface Whole {
  readonly body: Copy & { readonly revision: number; readonly setAside: readonly { why: string }[] };
  readonly headers: Record<string, string>;
}

const newStation = async (): Promise<number> => {
  const reply: { body: { id: number } } = await request(app).post('/api/stations').send(HUT).expect(201);
  return reply.body.id;
};
const whole = async (station: number): Promise<Whole['body']> => {
  const reply: Whole = await request(app).get(`/api/stations/${station}?device=${DEVICE}`).expect(200);
  return reply.body;
};
const since = async (station: number, revision: number): Promise<Told> => {
  const reply: { body: { delta: Told } } = await request(app)
    .get(`/api/stations/${station}?device=${DEVICE}&since=${revision}&run=${currentRun()}`)
    .expect(200);
  return reply.body.delta;
};
const write = async (
  station: number,
  changes: unknown[],
  revision: number,
): Promise<{ saved: Item[]; delta: Told }> => {
  const reply: { body: { saved: Item[]; delta: Told } } = await request(app)
    .post(`/api/stations/${station}/changes?since=${revision}&run=${currentRun()}`)
    .send({ changes, key: randomUUID(), device: DEVICE })
    .expect(200);
  return reply.body;
};

/** Lists of a copy after what the server says has changed. */
function brought(lists: Map<string, Map<number, Item>>, told: Told): void {
  for (const name of RESOURCE_NAMES) {
    const list = lists.get(name) ?? new Map<number, Item>();
    lists.set(name, list);
    for (const item of told.changed[name] ?? []) list.set(item.id, item);
    for (const id of told.gone[name] ?? []) list.delete(id);
  }
}
const listsOf = (copy: Copy): Map<string, Map<number, Item>> =>
  new Map(RESOURCE_NAMES.map((name) => [name, new Map(copy[name].map((item) => [item.id, item]))]));
const plain = (lists: Map<string, Map<number, Item>>) =>
  [...lists].map(([name, list]) => [name, [...list.values()].sort((a, b) => a.id - b.id)]);

describe('what changed since a revision', () => {
  test('a copy that follows the answers equals the whole, through 120 random saves, deletions and undos (seed 5)', async () => {
    const station = await newStation();
    const first = await whole(station);
    const lists = listsOf(first);
    let revision: number = first.revision;
    let state = 5;
    const next = (below: number): number => {
      state = (Math.imul(state, 1103515245) + 12345) >>> 0;
      return (state >>> 8) % below;
    };
    for (let step = 0; step < 120; step += 1) {
      const antennas = [...(lists.get('antennas')?.values() ?? [])];
      const any = antennas.length > 0 ? antennas[next(antennas.length)] : undefined;
      const what = next(6);
      let told: Told;
      if (what === 0 && any)
        told = (
          await write(
            station,
            [{ op: 'delete', resource: 'antennas', id: any.id, version: any.version, along: true }],
            revision,
          )
        ).delta;
      else if (what === 1 && any) {
        const values = { name: `renamed ${step}` };
        told = (
          await write(
            station,
            [{ op: 'update', resource: 'antennas', id: any.id, version: any.version, values }],
            revision,
          )
        ).delta;
      } else if (what === 2) {
        const undone = await request(app).post(`/api/stations/${station}/undo`).send({ device: DEVICE });
        expect([200, 409]).toContain(undone.status);
        told = await since(station, revision);
      } else {
        const values = { name: `target ${step}`, lowHz: 1e6, highHz: 2e6, bandwidthHz: 3000, weight: 2 };
        const step1 = { lengthM: 7.5, freqHz: 9.4e6, antennaId: { new: 'a' } };
        told = (
          await write(
            station,
            [
              { op: 'create', resource: 'targets', as: 't', values },
              { op: 'create', resource: 'antennas', as: 'a', values: { name: `wire ${step}`, targetId: { new: 't' } } },
              { op: 'create', resource: 'trimSteps', values: step1 },
            ],
            revision,
          )
        ).delta;
      }
      brought(lists, told);
      revision = told.revision;
    }
    const now = await whole(station);
    expect(revision).toBe(now.revision);
    expect(plain(lists)).toEqual(plain(listsOf(now)));
  }, 120_000);
  test('what another client saved comes along; a revision that is not known here is answered with the whole', async () => {
    const station = await newStation();
    const { revision } = await whole(station);
    await write(station, [{ op: 'create', resource: 'targets', values: TARGET }], revision);
    const mine = await write(station, [{ op: 'create', resource: 'antennas', values: { name: 'V' } }], revision);
    expect(mine.delta.changed.targets).toHaveLength(1);
    expect(mine.delta.changed.antennas).toMatchObject([{ id: mine.saved[0].id, targetId: null }]);
    const reply: { body: Record<string, unknown> } = await request(app)
      .get(`/api/stations/${station}?since=${mine.delta.revision + 1000}&run=${currentRun()}`)
      .expect(200);
    expect(reply.body).toHaveProperty('antennas');
    // a revision that another run of the server told may be of another file
    const other: { body: Record<string, unknown> } = await request(app)
      .get(`/api/stations/${station}?since=${mine.delta.revision}&run=another`)
      .expect(200);
    expect(other.body).toHaveProperty('antennas');
  });
  test('unchanged, the tag alone travels; after a change, and for a device with another undo, it does not match', async () => {
    const station = await newStation();
    const address = `/api/stations/${station}?device=${DEVICE}`;
    const reply: Whole = await request(app).get(address).expect(200);
    await request(app).get(address).set('If-None-Match', reply.headers.etag).expect(304);
    await write(station, [{ op: 'create', resource: 'targets', values: TARGET }], 0);
    await request(app).get(address).set('If-None-Match', reply.headers.etag).expect(200);
  });
  test('the values of the station itself come along when they change', async () => {
    const station = await newStation();
    const { revision } = await whole(station);
    await request(app).patch(`/api/stations/${station}`).send({ version: 1, heightM: 12 }).expect(200);
    expect((await since(station, revision)).station).toMatchObject({ heightM: 12, version: 2 });
  });
});

describe('a record that cannot be read', () => {
  test('it is put aside with its reason, and every other record stays', async () => {
    const station = await newStation();
    const { revision } = await whole(station);
    const { saved } = await write(
      station,
      [1, 2].map((weight) => ({ op: 'create', resource: 'targets', values: { ...TARGET, weight } })),
      revision,
    );
    await db.sequelize.query(`UPDATE targets SET lowHz = -5 WHERE id = ${saved[1].id}`);
    await db.sequelize.query(`UPDATE targets SET version = 7 WHERE id = ${saved[1].id}`);
    const now = await whole(station);
    expect(now.targets.map(({ id }) => id)).toEqual([saved[0].id]);
    expect(now.setAside).toMatchObject([{ resource: 'targets', record: { lowHz: -5 } }]);
    expect(now.setAside[0].why.length).toBeGreaterThan(5);
  });
});

test('a page that follows hears of a change within two seconds, without asking', async () => {
  const station = await newStation();
  const listener = app.listen(0, '127.0.0.1');
  await new Promise((resolve) => listener.once('listening', resolve));
  const address = listener.address();
  const port = typeof address === 'object' && address ? address.port : 0;
  const heard: number[] = [];
  const following = get({ port, host: '127.0.0.1', path: `/api/stations/${station}/events` }, (reply) => {
    expect(reply.headers['content-type']).toMatch('text/event-stream');
    reply.on('data', (chunk: Buffer) => {
      for (const found of chunk.toString().matchAll(/data: \S+ (\d+)/g)) heard.push(Number(found[1]));
    });
    reply.on('error', () => undefined);
  });
  following.on('error', () => undefined);
  const until = async (count: number): Promise<void> => {
    const begun = Date.now();
    while (heard.length < count && Date.now() - begun < 2000) await new Promise((resolve) => setTimeout(resolve, 10));
  };
  await until(1);
  const { delta } = await write(station, [{ op: 'create', resource: 'targets', values: TARGET }], heard[0]);
  await until(2);
  expect(heard).toEqual([heard[0], delta.revision]);
  following.destroy();
  await request(app).get('/api/stations/999999/events').expect(404);
  await new Promise((resolve) => listener.close(resolve));
});

test('records that leave as a calendar tell their name, the same one after each change; others do not', async () => {
  const station = await newStation();
  const net = { name: 'Net', atMs: 0, minutes: 60, repeats: 'daily' };
  const made = [
    { op: 'create', resource: 'appointments', values: net },
    { op: 'create', resource: 'targets', values: TARGET },
  ];
  await request(app).post(`/api/stations/${station}/changes`).send({ changes: made, device: DEVICE }).expect(200);
  const before = await whole(station);
  const [{ id, version, uuid }] = before.appointments;
  expect(uuid).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
  expect(before.targets[0]).not.toHaveProperty('uuid');
  const changes = [{ op: 'update', resource: 'appointments', id, version, values: { zone: 'Europe/Lisbon' } }];
  await request(app).post(`/api/stations/${station}/changes`).send({ changes, device: DEVICE }).expect(200);
  const { changed } = await since(station, Number(before.revision));
  expect(changed.appointments).toMatchObject([{ uuid, zone: 'Europe/Lisbon', version: version + 1 }]);
  const wrong = [{ ...changes[0], version: version + 1, values: { zone: 'Atlantis' } }];
  const refused: { body: unknown } = await request(app)
    .post(`/api/stations/${station}/changes`)
    .send({ changes: wrong, device: DEVICE })
    .expect(400);
  expect(JSON.stringify(refused.body)).toContain('Type a zone like Europe/Lisbon');
});
