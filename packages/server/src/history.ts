import { RESOURCE_NAMES, RESOURCES, type ResourceName } from '@velvet-reed/contract';
import { randomUUID } from 'node:crypto';
import { Op, type Transaction } from 'sequelize';
import type { Database, Row } from './database';
import { BatchUndoneError, InUseError, NotFoundError, NothingToUndoError, UndoRefusedError } from './refusals';
import { countText, referencesOf } from './resources';
import { withTakenOn } from './taken-on';

type Values = Record<string, unknown>;

/** Who saves, under which name: the client makes both up, and an answer lost on the way can be asked for again. */
export interface Author {
  /** Name of the batch, a UUID. */
  readonly key: string;
  /** The browser that saves, a UUID; empty: not told. */
  readonly device: string;
}

interface EditNote extends Author {
  readonly stationId: number;
  readonly resource: string;
  readonly recordId: number;
  readonly op: 'create' | 'update' | 'delete';
  readonly before: Values | null;
  readonly after: Values | null;
  /** Kept only so that its name is known; undo passes it by. */
  readonly final?: boolean;
}

/** Writes one edit into the history, in the transaction of the edit itself. */
export const noteEdit = (
  db: Database,
  transaction: Transaction,
  { key, final = false, ...edit }: EditNote,
): Promise<unknown> => {
  const createdAt = new Date();
  return db.edits.create({ ...edit, batch: key, createdAt, undoneAt: final ? createdAt : null }, { transaction });
};

const isResource = (db: Database, name: string): name is ResourceName => name in db.tables;

/** Edits of a batch, oldest first; undefined when the name is new here. @throws BatchUndoneError when they were taken back since. */
export async function knownBatch(
  db: Database,
  transaction: Transaction,
  where: { readonly stationId?: number; readonly batch: string },
): Promise<readonly Row[] | undefined> {
  const edits = await db.edits.findAll({ where: { ...where }, order: [['id', 'ASC']], transaction });
  if (edits.length === 0) return undefined;
  if (edits.every((edit) => edit.get('undoneAt') !== null && edit.get('resource') !== 'stations'))
    throw new BatchUndoneError();
  return edits;
}

/** What a batch did, in a few words. */
function storyOf(db: Database, edit: Row): string {
  const name = String(edit.get('resource'));
  const verb = { create: 'added', update: 'changed', delete: 'deleted' }[String(edit.get('op'))] ?? 'edited';
  return `${isResource(db, name) ? RESOURCES[name].label : 'station'} ${verb}`;
}

const takenBack = { undoneAt: null };
/** Edits that this device made; those of releases that did not keep the device count as everybody's. */
const own = (device: string) => ({ device: { [Op.in]: ['', device] } });

/** The batch that undo would take back for a device, if there is one. */
export async function lastBatch(
  db: Database,
  stationId: number,
  device: string,
  transaction?: Transaction,
): Promise<{ readonly batch: string; readonly what: string } | null> {
  const last = await db.edits.findOne({
    where: { stationId, ...takenBack, ...own(device) },
    order: [['id', 'DESC']],
    transaction,
  });
  return last ? { batch: String(last.get('batch')), what: storyOf(db, last) } : null;
}

/** Living records that point at one, beside those of the same batch. */
async function usersOf(db: Database, transaction: Transaction, resource: ResourceName, id: number, batch: string) {
  for (const user of RESOURCE_NAMES)
    for (const { field, to } of referencesOf(user)) {
      if (to !== resource) continue;
      const rows = await db.tables[user].findAll({ where: { [field]: id }, attributes: ['id'], transaction });
      const ids = rows.map((row) => Number(row.get('id')));
      const made = await db.edits.count({
        where: { batch, resource: user, recordId: { [Op.in]: ids }, op: 'create', ...takenBack },
        transaction,
      });
      if (ids.length > made) return countText(user, ids.length - made);
    }
  return undefined;
}

/** What records that came back point at must be there. @throws UndoRefusedError naming what must come back first. */
export async function requireParents(db: Database, transaction: Transaction, edits: readonly Row[]): Promise<void> {
  for (const edit of edits) {
    const resource = String(edit.get('resource'));
    if (!isResource(db, resource)) continue;
    const row = await db.tables[resource].findByPk(Number(edit.get('recordId')), { transaction });
    if (!row) continue;
    for (const { field, to } of referencesOf(resource)) {
      const id = row.get(field);
      if (typeof id !== 'number' || (await db.tables[to].count({ where: { id }, transaction })) > 0) continue;
      throw new UndoRefusedError(
        `This ${RESOURCES[resource].label} belongs to something that is in the bin itself (${RESOURCES[to].label}). Bring that back first. Nothing was changed.`,
      );
    }
  }
}

/** What a record pointed at before may be gone for good. @throws UndoRefusedError naming what it was */
async function requireTargets(
  db: Database,
  transaction: Transaction,
  resource: ResourceName,
  before: Readonly<Record<string, unknown>>,
): Promise<void> {
  for (const { field, to } of referencesOf(resource)) {
    const id = before[field];
    if (typeof id !== 'number') continue;
    if ((await db.tables[to].count({ where: { id }, paranoid: false, transaction })) > 0) continue;
    throw new UndoRefusedError(
      `This ${RESOURCES[resource].label} pointed at something that was thrown away for good (${RESOURCES[to].label}). Nothing was taken back: change it by hand.`,
    );
  }
}

/** One edit back to what was before. */
export async function takeBack(db: Database, transaction: Transaction, edit: Row): Promise<void> {
  const name = String(edit.get('resource'));
  const recordId = Number(edit.get('recordId'));
  const batch = String(edit.get('batch'));
  const later = await db.edits.count({
    where: { resource: name, recordId, id: { [Op.gt]: edit.get('id') }, batch: { [Op.ne]: batch }, ...takenBack },
    transaction,
  });
  if (later > 0)
    throw new UndoRefusedError(
      `The ${isResource(db, name) ? RESOURCES[name].label : 'station'} was changed again afterwards. Nothing was taken back: undo the later change first, on the device that made it.`,
    );
  const table = isResource(db, name) ? db.tables[name] : db.stations;
  const row = await table.findByPk(recordId, { paranoid: false, transaction });
  if (!row) throw new NotFoundError('record');
  const version = Number(row.get('version')) + 1;
  const before = edit.get('before');
  if (edit.get('op') === 'create') {
    const users = isResource(db, name) ? await usersOf(db, transaction, name, recordId, batch) : undefined;
    if (users !== undefined && isResource(db, name)) throw new InUseError(RESOURCES[name].label, users);
    await row.destroy({ transaction });
  } else if (typeof before === 'object' && before !== null) {
    if (isResource(db, name)) await requireTargets(db, transaction, name, { ...before });
    if (edit.get('op') === 'delete') await row.restore({ transaction });
    await row.update({ ...before, version }, { transaction });
  }
}

const editedRecord = (edit: Row) => ({
  resource: String(edit.get('resource')),
  recordId: Number(edit.get('recordId')),
});

/** What to take back: a batch by its name, or the latest of the device. */
export interface UndoRequest {
  readonly batch?: string;
  readonly device: string;
}

/**
 * Takes one batch of edits back; works after a restart, because the history is in the file.
 * @throws NothingToUndoError, UndoRefusedError when the batch is another device's or was built upon since.
 */
export function undo(
  db: Database,
  stationId: number,
  { batch, device }: UndoRequest,
): Promise<{ undone: number; what: string; batch: string }> {
  return db.write(async (transaction) => {
    const name = batch ?? (await lastBatch(db, stationId, device, transaction))?.batch;
    if (name === undefined) throw new NothingToUndoError();
    const all = await db.edits.findAll({ where: { stationId, batch: name }, order: [['id', 'DESC']], transaction });
    if (all.length === 0) throw new NothingToUndoError('What should be undone is not in the history of this station.');
    if (all.some((edit) => !['', device].includes(String(edit.get('device')))))
      throw new UndoRefusedError('Another device saved this. Undo it there; here it can be changed or deleted.');
    const edits = all.filter((edit) => edit.get('undoneAt') === null);
    if (edits.length === 0) throw new NothingToUndoError('This has been undone already. Nothing more was taken back.');
    for (const edit of edits) {
      await takeBack(db, transaction, edit);
      await edit.update({ undoneAt: new Date() }, { transaction });
      // what was taken back changed as well: those who ask what is new since a revision must hear of it
      const { resource, recordId } = editedRecord(edit);
      await noteEdit(db, transaction, {
        ...{ key: randomUUID(), device, stationId, resource, recordId },
        ...{ op: 'update', before: null, after: null, final: true },
      });
    }
    await requireParents(db, transaction, edits);
    return { undone: edits.length, what: storyOf(db, edits[0]), batch: name };
  });
}

/** Writes records of one batch with their place in the history, so that one undo takes them all back. */
export function batchWriter(db: Database, transaction: Transaction, stationId: number, author: Author) {
  return async (resource: ResourceName, values: Values): Promise<Row> => {
    const taken = await withTakenOn({ db, transaction, stationId }, resource, {
      ...RESOURCES[resource].blank,
      ...values,
    });
    const row = await db.tables[resource].create({ ...taken, stationId }, { transaction });
    const recordId = Number(row.get('id'));
    const after = { name: values.name ?? null };
    await noteEdit(db, transaction, { ...author, stationId, resource, recordId, op: 'create', before: null, after });
    return row;
  };
}
