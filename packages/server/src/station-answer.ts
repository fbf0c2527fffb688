import { randomUUID } from 'node:crypto';
import {
  IN_CALENDARS,
  packRecords,
  RESOURCE_NAMES,
  RESOURCES,
  type Columns,
  type ResourceName,
} from '@velvet-reed/contract';
import { misfitOf } from '@velvet-reed/station/misfit';
import { Op, type Transaction } from 'sequelize';
import type { Database } from './database';
import { lastBatch } from './history';
import { findStation, present } from './records';
import { storedJson } from './stored-json';

type Values = Record<string, unknown>;

/** A stored record that no longer fits its own rules: kept, and told apart from those that can be computed with. */
interface SetAside {
  readonly resource: ResourceName;
  readonly record: Values;
  readonly why: string;
}

/** What a client needs to bring its copy up to date. */
export interface Delta {
  /** Of the station after this; asked with `since` it gives what changed later. */
  readonly revision: number;
  readonly undo: unknown;
  /** The station's own values, when they changed. */
  readonly station?: Values;
  /** Records made or changed, by kind. */
  readonly changed: Readonly<Record<string, readonly Values[]>>;
  /** Numbers of records that are gone, by kind; a record set aside is gone as well. */
  readonly gone: Readonly<Record<string, readonly number[]>>;
  readonly setAside: readonly SetAside[];
}

/** Which records were found to fit, by kind, number and version: a record is judged once, not at every question. */
const judged = new WeakMap<Database, Map<string, string | null>>();

/** Why a record does not fit its schema; null when it does. */
function knownMisfit(db: Database, resource: ResourceName, record: Values): string | null {
  const known = judged.get(db) ?? new Map<string, string | null>();
  judged.set(db, known);
  const key = `${resource} ${String(record.id)} ${String(record.version)}`;
  const before = known.get(key);
  if (before !== undefined) return before;
  const why = misfitOf(resource, record) ?? null;
  known.set(key, why);
  return why;
}

const isRecord = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null;

/** What the server adds to every record and tells. */
const TOLD = ['id', 'stationId', 'version', 'createdAt'];

/** Names of the columns that travel, and how a row of the file becomes a record. */
function reader(resource: ResourceName): {
  readonly names: readonly string[];
  readonly record: (row: Readonly<Record<string, unknown>>) => Values;
} {
  const columns: Columns = RESOURCES[resource].columns;
  const told = IN_CALENDARS.includes(resource) ? [...TOLD, 'uuid'] : TOLD;
  const turned = Object.entries(columns).map(([name, { store }]) => [name, store] as const);
  return {
    names: [...told, ...Object.keys(columns)],
    record(row) {
      const record: Values = {};
      for (const name of told) record[name] = row[name];
      for (const [name, store] of turned) {
        const value = row[name];
        if (store === 'flag') record[name] = value === 1 || value === true;
        else record[name] = store === 'json' ? storedJson(value) : value;
      }
      return record;
    },
  };
}

/** Records of one kind, oldest first, without their bytes; what does not fit is handed to `aside`. */
async function fitting(
  db: Database,
  transaction: Transaction,
  resource: ResourceName,
  { where, aside }: { readonly where: Values; readonly aside: SetAside[] },
): Promise<Values[]> {
  const read = reader(resource);
  // plain rows: a model for each of 5,000 readings would take longer than all the rest
  const found: unknown = await db.tables[resource].findAll({
    where,
    order: [['id', 'ASC']],
    attributes: [...read.names],
    transaction,
    raw: true,
  });
  const fit: Values[] = [];
  const rows: readonly unknown[] = Array.isArray(found) ? found : [];
  for (const row of rows.filter(isRecord)) {
    const record = read.record(row);
    const why = knownMisfit(db, resource, record);
    if (why === null) fit.push(record);
    else aside.push({ resource, record, why });
  }
  return fit;
}

/** How many edits the station's history holds: it only grows, and tells one state from another. */
async function revisionOf(db: Database, stationId: number, transaction: Transaction): Promise<number> {
  const last: unknown = await db.edits.max('id', { where: { stationId }, transaction });
  return typeof last === 'number' ? last : 0;
}

/** This run of the server: what an earlier one answered, perhaps of another release or file, is not taken for this one's. */
let run = randomUUID();
export const currentRun = (): string => run;
/** All that was answered before is of another file: every page loads anew. */
export function renewRun(): void {
  run = randomUUID();
}

/** Where a station stands for a device, in short: two equal answers mean that nothing changed. */
export function stationTag(db: Database, stationId: number, device: string): Promise<string> {
  return db.read(async (transaction) => {
    await findStation(db, stationId, transaction);
    const undo = await lastBatch(db, stationId, device, transaction);
    return `"${run}.${stationId}.${await revisionOf(db, stationId, transaction)}.${undo?.batch ?? ''}"`;
  });
}

export const stationRevision = (db: Database, stationId: number): Promise<number> =>
  db.read((transaction) => revisionOf(db, stationId, transaction));

/**
 * Everything a station holds, by kind, as it was at one moment; the client keeps one copy.
 * @param packed lists as columns: half the bytes, and a quarter of the time to read them.
 */
export function stationRecords(
  db: Database,
  stationId: number,
  device = '',
  packed = false,
): Promise<Record<string, unknown>> {
  return db.read(async (transaction) => {
    const station = await findStation(db, stationId, transaction);
    const revision = await revisionOf(db, stationId, transaction);
    const setAside: SetAside[] = [];
    const lists: [string, unknown][] = [];
    for (const name of RESOURCE_NAMES) {
      const list = await fitting(db, transaction, name, { where: { stationId }, aside: setAside });
      lists.push([name, packed ? packRecords(list) : list]);
    }
    const undo = await lastBatch(db, stationId, device, transaction);
    return { station: present(station), run, revision, undo, setAside, ...Object.fromEntries(lists) };
  });
}

/** More changes than this are not told one by one: the client asks for the whole. */
const MOST_TOLD = 3000;

/** What changed at a station since a revision, within a transaction; undefined when that is too much to tell, or not known here. */
export async function deltaWithin(
  db: Database,
  transaction: Transaction,
  stationId: number,
  { since, device }: { readonly since: number; readonly device: string },
): Promise<Delta | undefined> {
  const revision = await revisionOf(db, stationId, transaction);
  if (since > revision) return undefined;
  const edits = await db.edits.findAll({
    where: { stationId, id: { [Op.gt]: since } },
    attributes: ['resource', 'recordId'],
    group: ['resource', 'recordId'],
    limit: MOST_TOLD + 1,
    transaction,
  });
  if (edits.length > MOST_TOLD) return undefined;
  const touched = new Map<string, number[]>();
  for (const edit of edits) {
    const name = String(edit.get('resource'));
    touched.set(name, [...(touched.get(name) ?? []), Number(edit.get('recordId'))]);
  }
  const setAside: SetAside[] = [];
  const changed: [string, Values[]][] = [];
  const gone: [string, number[]][] = [];
  for (const name of RESOURCE_NAMES) {
    const ids = touched.get(name);
    if (!ids) continue;
    const where = { stationId, id: { [Op.in]: ids } };
    const records = await fitting(db, transaction, name, { where, aside: setAside });
    const there = new Set(records.map(({ id }) => id));
    changed.push([name, records]);
    gone.push([name, ids.filter((id) => !there.has(id))]);
  }
  const own = touched.has('stations') ? { station: present(await findStation(db, stationId, transaction)) } : {};
  const undo = await lastBatch(db, stationId, device, transaction);
  return { revision, undo, ...own, changed: Object.fromEntries(changed), gone: Object.fromEntries(gone), setAside };
}

/** The same, with a look of its own at the file. */
export function stationDelta(
  db: Database,
  stationId: number,
  asked: { readonly since: number; readonly device: string },
): Promise<Delta | undefined> {
  return db.read(async (transaction) => {
    await findStation(db, stationId, transaction);
    return deltaWithin(db, transaction, stationId, asked);
  });
}
