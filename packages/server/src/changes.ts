import { RESOURCES, SCHEMAS, type ArrivedChange, type ResourceName } from '@velvet-reed/contract';
import type { Transaction } from 'sequelize';
import type { Database, Row } from './database';
import { deletionPlan, type DeletionPlan } from './deleting';
import { knownBatch, noteEdit, type Author } from './history';
import { findStation, present, STRICT, valuesOf } from './records';
import { EvidenceError, InUseError, NotFoundError, RequestError, StaleWriteError } from './refusals';
import { deltaWithin, type Delta } from './station-answer';
import { withTakenOn } from './taken-on';
import { countText, evidenceOf, referencesOf } from './resources';

type Values = Record<string, unknown>;

/** A batch of changes and what comes with it. */
export interface Batch {
  readonly changes: readonly ArrivedChange[];
  readonly author: Author;
  /** Rows of photos that the changes refer to as { "new": "photo" }, { "new": "photo2" } and so on. */
  readonly photos?: readonly Values[];
}

/** What a batch did. */
export interface Applied {
  /** The records after the change, in order; null for a deleted one. */
  readonly saved: readonly (Values | null)[];
  /** What changed since the revision that the client knew; absent when it named none, or too much did. */
  readonly delta?: Delta;
}

/** Saves a batch of changes, all or none. */
export function applyChanges(db: Database, stationId: number, batch: Batch, since?: number): Promise<Applied> {
  return db.write(async (transaction) => {
    const saved = await applyWithin(db, transaction, stationId, batch);
    const { device } = batch.author;
    const delta = since === undefined ? undefined : await deltaWithin(db, transaction, stationId, { since, device });
    return { saved, ...(delta ? { delta } : {}) };
  });
}

/** Where a batch works. */
interface Place {
  readonly db: Database;
  readonly transaction: Transaction;
  readonly stationId: number;
  readonly author: Author;
  /** Ids of what the batch made, by the name it gave them. */
  readonly made: Map<string, number>;
}

/** The same inside a transaction that the caller owns. */
export async function applyWithin(
  db: Database,
  transaction: Transaction,
  stationId: number,
  { changes, author, photos = [] }: Batch,
): Promise<(Values | null)[]> {
  await findStation(db, stationId, transaction);
  // the same batch again: its answer was lost on the way; it is answered again, not carried out twice
  const known = await knownBatch(db, transaction, { stationId, batch: author.key });
  if (known) return answerAgain(db, transaction, changes, known);
  const place: Place = { db, transaction, stationId, author, made: new Map() };
  for (const [i, photo] of photos.entries()) {
    const row = await db.tables.attachments.create({ ...photo, stationId }, { transaction });
    const recordId = Number(row.get('id'));
    place.made.set(i === 0 ? 'photo' : `photo${i + 1}`, recordId);
    await note(place, 'attachments', recordId, { op: 'create', before: null, after: { name: photo.name ?? null } });
  }
  const results: (Values | null)[] = [];
  for (const change of changes) results.push(await applyOne(place, change));
  return results;
}

const note = (
  { db, transaction, stationId, author }: Place,
  resource: ResourceName,
  recordId: number,
  edit: { readonly op: 'create' | 'update' | 'delete'; readonly before: Values | null; readonly after: Values | null },
): Promise<unknown> => noteEdit(db, transaction, { ...author, ...edit, stationId, resource, recordId });

/** What the batch answered when it was carried out; records deleted or changed since are answered as they are now. */
async function answerAgain(
  db: Database,
  transaction: Transaction,
  changes: readonly ArrivedChange[],
  edits: readonly Row[],
): Promise<(Values | null)[]> {
  const created = edits.filter((edit) => edit.get('op') === 'create');
  const results: (Values | null)[] = [];
  for (const change of changes) {
    const id =
      change.op === 'create'
        ? created
            .splice(
              created.findIndex((edit) => edit.get('resource') === change.resource),
              1,
            )[0]
            ?.get('recordId')
        : change.id;
    const row = change.op === 'delete' ? null : await db.tables[change.resource].findByPk(Number(id), { transaction });
    results.push(row ? present(row, change.resource) : null);
  }
  return results;
}

async function applyOne(place: Place, change: ArrivedChange): Promise<Values | null> {
  const { db, transaction, stationId } = place;
  const { resource } = change;
  if (change.op === 'create') return createOne(place, resource, change.values, change.as);
  const row = await db.tables[resource].findOne({ where: { id: change.id, stationId }, transaction });
  if (!row) throw new NotFoundError(RESOURCES[resource].label);
  if (row.get('version') !== change.version) throw new StaleWriteError(RESOURCES[resource].label);
  if (change.op === 'update') return updateOne(place, resource, row, change.values);
  const plan = await deletionPlan(db, transaction, { resource, row });
  if (
    change.along !== true &&
    (plan.goes.some((one) => one.row !== row && one.resource !== 'attachments') || plan.released.length > 0)
  )
    throw new InUseError(RESOURCES[resource].label, alongText(plan, row));
  await deleteAlong(place, plan);
  return null;
}

async function createOne(place: Place, resource: ResourceName, typed: Values, as?: string): Promise<Values> {
  const { db, transaction, stationId, made } = place;
  if (RESOURCES[resource].bytes)
    throw new RequestError(`A ${RESOURCES[resource].label} comes from a file. Import the file instead.`);
  const asked = await validated(resource, { ...RESOURCES[resource].blank, ...resolveNew(typed, made) });
  await checkReferences(place, resource, asked);
  const values = await withTakenOn(place, resource, asked);
  const row = await db.tables[resource].create({ ...values, stationId }, { transaction });
  const recordId = Number(row.get('id'));
  if (as) made.set(as, recordId);
  await note(place, resource, recordId, { op: 'create', before: null, after: values });
  return present(row, resource);
}

/** Another antenna than before: what was written down of the one is not true of the other, and how that one stood then nobody wrote down. */
const outdated = (resource: ResourceName, before: Values, changed: Values): Values =>
  'takenOn' in before &&
  !('takenOn' in changed) &&
  referencesOf(resource).some(
    ({ field, to }) => to === 'antennas' && field in changed && changed[field] !== before[field],
  )
    ? { takenOn: {} }
    : {};

async function updateOne(place: Place, resource: ResourceName, row: Row, typed: Values): Promise<Values> {
  const { transaction, made } = place;
  const before = valuesOf(row, resource);
  const touched = evidenceOf(resource).find((field) => field in typed && typed[field] !== before[field]);
  if (touched !== undefined) throw new EvidenceError(RESOURCES[resource].label, touched);
  const changed = resolveNew(typed, made);
  const after = await validated(resource, { ...before, ...changed, ...outdated(resource, before, changed) });
  await checkReferences(place, resource, after);
  await row.update({ ...after, version: Number(row.get('version')) + 1 }, { transaction });
  await note(place, resource, Number(row.get('id')), { op: 'update', before, after });
  return present(row, resource);
}

/** Lets go what stays, then deletes part by part, the record itself last; undo goes the same way back. */
async function deleteAlong(place: Place, { goes, released }: DeletionPlan): Promise<void> {
  const { transaction } = place;
  const version = (row: Row): number => Number(row.get('version')) + 1;
  for (const { resource, row, fields } of released) {
    const before = valuesOf(row, resource);
    const freed = Object.fromEntries(fields.map((field) => [field, null]));
    await row.update({ ...freed, version: version(row) }, { transaction });
    await note(place, resource, Number(row.get('id')), { op: 'update', before, after: { ...before, ...freed } });
  }
  for (const { resource, row } of goes) {
    const before = valuesOf(row, resource);
    await row.update({ version: version(row) }, { transaction });
    await row.destroy({ transaction });
    await note(place, resource, Number(row.get('id')), { op: 'delete', before, after: null });
  }
}

/** Counts by kind: "2 readings, 1 sweep". */
function countsOf(members: readonly { readonly resource: ResourceName }[]): readonly string[] {
  const counts = new Map<ResourceName, number>();
  for (const { resource } of members) counts.set(resource, (counts.get(resource) ?? 0) + 1);
  return [...counts].map(([resource, count]) => countText(resource, count));
}

const alongText = ({ goes, released }: DeletionPlan, itself: Row): string =>
  countsOf([...goes.filter((one) => one.row !== itself && one.resource !== 'attachments'), ...released]).join(', ');

/** What deleting a record would take along and what would let go of it, for the question before. */
export async function deletionPreview(
  db: Database,
  stationId: number,
  resource: ResourceName,
  id: number,
): Promise<{ goes: readonly string[]; released: readonly string[] }> {
  return db.read(async (transaction) => {
    const row = await db.tables[resource].findOne({ where: { id, stationId }, transaction });
    if (!row) throw new NotFoundError(RESOURCES[resource].label);
    const plan = await deletionPlan(db, transaction, { resource, row });
    return {
      goes: countsOf(plan.goes.filter((one) => one.row !== row && !RESOURCES[one.resource].joins)),
      released: countsOf(plan.released),
    };
  });
}

/** @throws ValidationError with the sentence of the schema that will also read the record. */
export const validated = (resource: ResourceName, values: Values): Promise<Values> =>
  SCHEMAS[resource]
    .noUnknown(true, ({ unknown }) => `The field "${String(unknown).slice(0, 80)}" is not known here. Leave it out.`)
    .validate(values, STRICT);

function resolveNew(values: Values, made: ReadonlyMap<string, number>): Values {
  return Object.fromEntries(
    Object.entries(values).map(([key, value]) => {
      if (typeof value !== 'object' || value === null || !('new' in value)) return [key, value];
      const id = made.get(String(value.new));
      if (id === undefined)
        throw new RequestError(`Nothing named "${String(value.new).slice(0, 40)}" was made earlier in this batch.`);
      return [key, id];
    }),
  );
}

/** Whatever a record points at must be at the same station. @throws RequestError */
export async function checkReferences(
  { db, transaction, stationId }: Pick<Place, 'db' | 'transaction' | 'stationId'>,
  resource: ResourceName,
  values: Values,
): Promise<void> {
  for (const { field, to } of referencesOf(resource)) {
    const id = values[field];
    if (typeof id !== 'number') continue;
    const found = await db.tables[to].count({ where: { id, stationId }, transaction });
    if (found === 0)
      throw new RequestError(
        `The ${RESOURCES[to].label} chosen is not at this station any more. Choose another.`,
        field,
      );
  }
}
