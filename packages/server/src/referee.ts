import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { BLANK, RESOURCE_NAMES, RESOURCES, type ArrivedChange, type ResourceName } from '@velvet-reed/contract';
import { CoreError } from '@velvet-reed/core/errors';
import { randomFrom } from '@velvet-reed/instruments';
import { type Backups, openBackups } from './backups';
import { binOf, bringBack, emptyBin } from './bin';
import { applyChanges } from './changes';
import { type Database, openDatabase } from './database';
import { undo } from './history';
import { migrator } from './migrate';
import { valuesOf } from './records';
import { referencesOf } from './resources';
import type { StationContents } from './station-file/contents';
import { readStationFile } from './station-file/read';
import { compareStation, takeAsNew, takeBeside } from './station-file/take';
import { stationContents, writeStationFile } from './station-file/write';
import { HUT } from './test-server';

type Values = Readonly<Record<string, unknown>>;
interface Known {
  readonly uuid: string;
  readonly alive: boolean;
  readonly values: Values;
}
/** All records of a station, living ones and those in the bin, by kind and number. */
type State = ReadonlyMap<string, Known>;

/** Kinds that hang on each other three deep, and one that merely points. */
const KINDS = ['antennas', 'trials', 'readings', 'coilTests', 'entries'] as const satisfies readonly ResourceName[];
const DEVICES = ['desk', 'phone', 'tablet'].map((name) => ({ name, device: randomUUID() }));

/** Text of a value, whatever the order of its fields. */
const textOf = (value: unknown): string =>
  JSON.stringify(value, (_name, one: unknown) =>
    typeof one === 'object' && one !== null && !Array.isArray(one)
      ? Object.fromEntries(Object.entries(one).sort(([a], [b]) => (a < b ? -1 : 1)))
      : one,
  ) ?? '';
const same = (a: unknown, b: unknown): boolean => textOf(a) === textOf(b);
const keyOf = (resource: string, id: unknown): string => `${resource} ${Number(id)}`;

async function stateOf(db: Database, stationId: number): Promise<State> {
  const state = new Map<string, Known>();
  for (const resource of KINDS)
    for (const row of await db.tables[resource].findAll({
      where: { stationId },
      order: [['id', 'ASC']],
      paranoid: false,
    }))
      state.set(keyOf(resource, row.get('id')), {
        ...{
          uuid: String(row.get('uuid')),
          alive: row.get('deletedAt') === null,
          values: valuesOf(row, resource),
        },
      });
  return state;
}

/** Keys of records that differ between two states. */
const changedBetween = (before: State, after: State): readonly string[] =>
  [...new Set([...before.keys(), ...after.keys()])].filter((key) => !same(before.get(key), after.get(key)));

/** What the referee holds against the database. @throws Error that names what is wrong */
function must(holds: boolean, what: string): void {
  if (!holds) throw new Error(what);
}

/** No record twice, and no living one that points at one that is not there. */
function checkWhole(state: State): void {
  const uuids = [...state.values()].map(({ uuid }) => uuid);
  must(new Set(uuids).size === uuids.length, 'a record stands twice');
  for (const [key, { alive, values }] of state) {
    if (!alive) continue;
    const resource = RESOURCE_NAMES.find((name) => key.startsWith(`${name} `));
    for (const { field, to } of resource ? referencesOf(resource) : []) {
      const id = values[field];
      if (typeof id !== 'number' || !KINDS.some((kind) => kind === to)) continue;
      must(state.get(keyOf(to, id))?.alive === true, `${key} points at ${to} ${id}, which is not there`);
    }
  }
}

/** What must go with a record by the rules of the tables, found by the referee itself. */
function closureOf(state: State, first: string): ReadonlySet<string> {
  const gone = new Set([first]);
  for (let grew = true; grew;) {
    grew = false;
    for (const [key, { alive, values }] of state) {
      const resource = KINDS.find((name) => key.startsWith(`${name} `));
      if (!alive || gone.has(key) || !resource) continue;
      if (referencesOf(resource).some(({ field, to, along }) => along && gone.has(keyOf(to, values[field])))) {
        gone.add(key);
        grew = true;
      }
    }
  }
  return gone;
}

interface Batch {
  readonly device: string;
  /** Of every record that it changed, as it was before. */
  readonly before: ReadonlyMap<string, Known | undefined>;
  /** Those that it deleted: others may be deleted by a later batch, and stay so when this one is brought back. */
  readonly deleted: ReadonlySet<string>;
  undone: boolean;
}

export interface Tally {
  done: number;
  refused: number;
  readonly kinds: Record<string, number>;
}

/** A data folder in which sequences are played, each at a station of its own. */
interface World {
  readonly db: Database;
  readonly backups: Backups;
  close(): Promise<void>;
}
export async function openWorld(): Promise<World> {
  const dir = mkdtempSync(path.join(tmpdir(), 'velvet-reed-referee-'));
  const file = path.join(dir, 'velvet-reed.sqlite');
  const db = openDatabase(file);
  await migrator(db.sequelize).up();
  const backups = openBackups(db, file);
  return {
    ...{ db, backups },
    async close() {
      backups.close();
      await db.sequelize.close();
      rmSync(dir, { recursive: true, force: true });
    },
  };
}

/**
 * A random sequence of saves, deletions, undos, restores, bins and imports by three devices, with a referee in memory that knows what each may change.
 * @throws Error for anything lost, doubled, dangling, or changed that nobody asked for.
 */
export async function playSequence({ db, backups }: World, seed: number, steps: number, tally: Tally): Promise<void> {
  const random = randomFrom(seed);
  const pick = <T>(list: readonly T[]): T | undefined => list[Math.floor(random.uniform() * list.length)];
  const stationId = Number((await db.stations.create({ ...HUT })).get('id'));
  const batches = new Map<string, Batch>();
  let state = await stateOf(db, stationId);
  let file1: StationContents | undefined;
  let backup: { readonly name: string; readonly state: State } | undefined;
  let counter = 0;

  const living = (kind: ResourceName): readonly string[] =>
    [...state].flatMap(([key, one]) => (one.alive && key.startsWith(`${kind} `) ? [key] : []));
  const idOf = (key: string): number => Number(key.split(' ')[1]);
  const fresh = (kind: (typeof KINDS)[number]): Values | undefined => {
    counter += 1;
    const [a, b] = [pick(living('antennas')), pick(living('antennas'))];
    const name = `${kind} ${counter}`;
    if (kind === 'antennas') return { ...BLANK.antennas, name };
    if (kind === 'entries')
      return {
        ...BLANK.entries,
        step: 'notebook',
        text: name,
        atMs: counter,
        antennaId: a && random.uniform() < 0.6 ? idOf(a) : null,
      };
    if (kind === 'coilTests') return a ? { antennaId: idOf(a), typed: {} } : undefined;
    if (kind === 'trials')
      return a && b && a !== b
        ? { ...BLANK.trials, name, antennaAId: idOf(a), antennaBId: idOf(b), freqHz: 7e6, worthDb: 3 }
        : undefined;
    const trial = pick(living('trials'));
    return trial ? { ...BLANK.readings, trialId: idOf(trial), round: counter, levelADbm: -90 } : undefined;
  };

  /** Does something and holds what changed against what may. A refusal changes nothing. */
  const step = async (
    kind: string,
    work: () => Promise<unknown>,
    fits: (after: State, changed: readonly string[]) => void,
  ): Promise<boolean> => {
    const before = state;
    let refused = false;
    try {
      await work();
    } catch (error) {
      if (!(error instanceof CoreError) && !(error instanceof Error && error.name === 'ValidationError')) throw error;
      refused = true;
    }
    state = await stateOf(db, stationId);
    const changed = changedBetween(before, state);
    if (refused) must(changed.length === 0, `${kind} was refused and changed ${changed.join(', ')}`);
    else fits(state, changed);
    checkWhole(state);
    tally[refused ? 'refused' : 'done'] += 1;
    tally.kinds[kind] = (tally.kinds[kind] ?? 0) + 1;
    return !refused;
  };
  const only = (changed: readonly string[], allowed: ReadonlySet<string>, what: string): void => {
    const other = changed.find((key) => !allowed.has(key));
    must(other === undefined, `${what} changed ${other}`);
  };
  const versionOf = async (key: string): Promise<number> => {
    const [resource] = key.split(' ');
    const row = await db.tables[resource as ResourceName].findByPk(idOf(key), { paranoid: false });
    return Number(row?.get('version'));
  };
  const save = async (
    kind: string,
    device: string,
    changes: readonly ArrivedChange[],
    fits: Parameters<typeof step>[2],
  ) => {
    const key = randomUUID();
    const before = state;
    const batch = { changes, author: { key, device } };
    const done = await step(kind, () => applyChanges(db, stationId, batch), fits);
    if (!done) return;
    batches.set(key, {
      ...{ device, undone: false },
      before: new Map(changedBetween(before, state).map((one) => [one, before.get(one)])),
      deleted: new Set(changedBetween(before, state).filter((one) => state.get(one)?.alive !== true)),
    });
    // an answer that was lost: the same again is carried out once
    if (random.uniform() < 0.1)
      await step(
        `${kind} again`,
        () => applyChanges(db, stationId, batch),
        (_after, changed) => must(changed.length === 0, 'a batch was carried out twice'),
      );
  };

  const create = async (kind: (typeof KINDS)[number]): Promise<void> => {
    const values = fresh(kind);
    if (!values) return;
    await save(
      'create',
      pick(DEVICES)?.device ?? '',
      [{ op: 'create', resource: kind, values: { ...values } }],
      (after, changed) => {
        must(changed.length === 1 && changed[0].startsWith(kind), `create changed ${changed.join(', ')}`);
        const made = after.get(changed[0]);
        must(
          made?.alive === true &&
            Object.entries(values).every(([name, value]) => name === 'takenOn' || same(made.values[name], value)),
          'what was saved is not what was sent',
        );
      },
    );
  };

  const moves: readonly (() => Promise<void>)[] = [
    ...Array.from({ length: 5 }, () => () => create(pick(KINDS) ?? 'antennas')),
    ...Array.from({ length: 2 }, () => async () => {
      const key = pick([...living('antennas'), ...living('entries')]);
      if (!key) return;
      const resource = key.startsWith('antennas') ? 'antennas' : 'entries';
      const stale = random.uniform() < 0.2;
      const field = resource === 'antennas' ? 'name' : 'text';
      counter += 1;
      const values = { [field]: `changed ${counter}` };
      const version = (await versionOf(key)) - (stale ? 1 : 0);
      await save(
        'update',
        pick(DEVICES)?.device ?? '',
        [{ op: 'update', resource, id: idOf(key), version, values }],
        (after, changed) => {
          must(!stale, 'a change of a version that was gone was taken');
          must(
            same(changed, [key]) && same(after.get(key)?.values[field], values[field]),
            `update changed ${changed.join(', ')}`,
          );
        },
      );
    }),
    ...Array.from({ length: 2 }, () => async () => {
      const key = pick(KINDS.flatMap((kind) => living(kind)));
      if (!key) return;
      const resource = KINDS.find((kind) => key.startsWith(`${kind} `)) ?? 'antennas';
      const gone = closureOf(state, key);
      const before = state;
      const change: ArrivedChange = {
        op: 'delete',
        resource,
        id: idOf(key),
        version: await versionOf(key),
        along: true,
      };
      await save('delete', pick(DEVICES)?.device ?? '', [change], (after, changed) => {
        for (const one of gone) must(after.get(one)?.alive === false, `${one} hangs on ${key} and stayed`);
        for (const one of changed) {
          if (gone.has(one)) continue;
          const [was, is] = [before.get(one), after.get(one)];
          const loose = referencesOf('entries').map(({ field }) => field);
          const apart = Object.keys(is?.values ?? {}).filter((name) => !same(was?.values[name], is?.values[name]));
          must(
            is?.alive === true && apart.every((name) => loose.includes(name) && is.values[name] === null),
            `deleting ${key} changed ${one}`,
          );
        }
      });
    }),
    ...Array.from({ length: 3 }, () => async () => {
      const device = pick(DEVICES)?.device ?? '';
      const theirs = [...batches].filter(([, one]) => !one.undone && (one.device === device || random.uniform() < 0.1));
      const named = random.uniform() < 0.7 ? pick(theirs)?.[0] : undefined;
      let told: string | undefined;
      await step(
        'undo',
        async () => {
          told = (await undo(db, stationId, { device, ...(named === undefined ? {} : { batch: named }) })).batch;
        },
        (after, changed) => {
          const batch = told === undefined ? undefined : batches.get(told);
          // what an import did is undone as well; its records are known by what they were
          if (!batch) return;
          must(!batch.undone && batch.device === device, 'undone twice, or by another device');
          only(changed, new Set(batch.before.keys()), 'undo');
          for (const [key, was] of batch.before) {
            const is = after.get(key);
            must(
              was === undefined ? is?.alive !== true : same({ ...is, uuid: '' }, { ...was, uuid: '' }),
              `undo left ${key} otherwise than it was`,
            );
          }
          batch.undone = true;
        },
      );
    }),
    async () => {
      const binned = pick(await binOf(db, stationId));
      if (!binned) return;
      const batch = batches.get(binned.batch);
      const done = await step(
        'bring back',
        () => bringBack(db, stationId, binned.batch, pick(DEVICES)?.device ?? ''),
        (after, changed) => {
          if (!batch) return;
          only(changed, new Set(batch.before.keys()), 'bringing back');
          for (const [key, was] of batch.before)
            if (was?.alive && batch.deleted.has(key) && !changed.includes(key))
              must(after.get(key)?.alive === true, `${key} did not come back`);
        },
      );
      if (done && batch) batch.undone = true;
    },
    async () => {
      if (random.uniform() > 0.3) return;
      const before = state;
      await step(
        'empty the bin',
        () => emptyBin(db, stationId),
        (after, changed) => {
          for (const key of changed)
            must(before.get(key)?.alive === false && !after.has(key), `emptying the bin changed ${key}`);
          must(
            [...after.values()].every(({ alive }) => alive),
            'something stayed in the bin',
          );
        },
      );
    },
    async () => {
      file1 = await readStationFile(
        await writeStationFile(await db.read((transaction) => stationContents(db, transaction, stationId))),
      );
    },
    async () => {
      if (!file1) return;
      const contents = file1;
      const { differences } = await db.read((transaction) => compareStation(db, transaction, stationId, contents));
      const take = new Set(differences.filter(() => random.uniform() < 0.8).map(({ uuid }) => uuid));
      const key = randomUUID();
      const before = state;
      await step(
        'import beside',
        () => takeBeside(db, stationId, contents, { take, author: { key, device: DEVICES[0].device } }),
        (after, changed) => {
          for (const one of changed)
            must(take.has(after.get(one)?.uuid ?? ''), `the import changed ${one}, which was not taken`);
          for (const one of before.keys()) must(after.has(one), `the import lost ${one}`);
        },
      );
    },
    async () => {
      if (!backup || random.uniform() < 0.5) {
        backup = { name: (await backups.make('asked')).name, state };
        return;
      }
      const kept = backup;
      await step(
        'restore',
        () => backups.restore(kept.name),
        (after) => {
          must(changedBetween(kept.state, after).length === 0, 'the restored backup is not what it was');
        },
      );
      batches.clear();
      backup = undefined;
    },
  ];
  // something that hangs together, by any of the devices
  for (const kind of ['antennas', 'antennas', 'trials', 'readings', 'readings', 'coilTests', 'entries'] as const)
    await create(kind);
  for (let i = 0; i < steps; i += 1) await pick(moves)?.();
  // whatever came of it, its file is taken in whole, as a station of its own
  const last = await readStationFile(
    await writeStationFile(await db.read((transaction) => stationContents(db, transaction, stationId))),
  );
  const taken = await takeAsNew(db, last, { key: randomUUID(), device: '' });
  must(taken.left.length === 0, `the file left ${taken.left.join(', ')}`);
  const copy = await db.read((transaction) => stationContents(db, transaction, taken.stationId));
  for (const resource of KINDS) {
    const bare = (one: StationContents) =>
      one.records[resource].map(({ uuid: _uuid, createdAt: _at, ...values }) => values);
    must(same(bare(copy), bare(last)), `the ${RESOURCES[resource].plural} of the file came in otherwise`);
  }
}
