import { randomUUID } from 'node:crypto';
import { RESOURCE_NAMES, SCHEMAS, stationSchema, type Change, type ResourceName } from '@velvet-reed/contract';
import type { Transaction } from 'sequelize';
import { BYTE_COLUMNS, type Database, type Row } from './database';
import { InUseError, NotFoundError, NothingToUndoError, RequestError, StaleWriteError } from './refusals';

const LABELS: Readonly<Record<ResourceName, string>> = {
  targets: 'target',
  bandEdits: 'band',
  emitters: 'transmitter',
  receivers: 'receiver',
  antennas: 'antenna',
  revisions: 'revision',
  sweeps: 'sweep',
  calibrations: 'calibration',
  spectra: 'spectrum',
  trimSteps: 'trim step',
  trials: 'trial',
  readings: 'reading',
  noiseChecks: 'noise reading',
  paths: 'path',
  pathStages: 'stage',
  guardPlans: 'guard plan',
  guardInputs: 'receiver input',
  entries: 'entry',
  attachments: 'file',
  plotFeatures: 'feature of the plan',
  satellites: 'satellite',
  noiseFloors: 'noise floor',
  boughtAntennas: 'antenna to buy',
  surveyReadings: 'survey reading',
  floorReadings: 'floor reading',
  parts: 'part',
  deviceSwitchings: 'switching',
};

/** Which fields point at which table; they must point inside the same station. */
const REFERENCES: Readonly<Record<string, ResourceName>> = {
  targetId: 'targets',
  antennaId: 'antennas',
  antennaAId: 'antennas',
  antennaBId: 'antennas',
  receiverId: 'receivers',
  attachmentId: 'attachments',
  photoId: 'attachments',
  trialId: 'trials',
  pathId: 'paths',
  guardPlanId: 'guardPlans',
  plotFeatureId: 'plotFeatures',
  partId: 'parts',
};

type Values = Record<string, unknown>;
const STRICT = { strict: true, abortEarly: false, stripUnknown: false } as const;

/** A record as JSON: no bytes, no bookkeeping that clients do not need. */
export function present(row: Row, resource?: ResourceName): Values {
  const { updatedAt: _updated, deletedAt: _deleted, ...values } = row.get({ plain: true });
  const hidden = resource ? BYTE_COLUMNS[resource] : undefined;
  return Object.fromEntries(Object.entries(values).filter(([key]) => key !== hidden));
}

const valuesOf = (row: Row, resource: ResourceName): Values => {
  const { id: _id, version: _version, stationId: _station, createdAt: _created, ...values } = present(row, resource);
  return values;
};

/** All records of one kind at a station, oldest first, without their bytes. */
async function listRecords(db: Database, stationId: number, resource: ResourceName): Promise<Values[]> {
  const hidden = BYTE_COLUMNS[resource];
  const rows = await db.tables[resource].findAll({
    where: { stationId },
    order: [['id', 'ASC']],
    ...(hidden ? { attributes: { exclude: [hidden] } } : {}),
  });
  return rows.map((row) => present(row, resource));
}

/** Everything a station holds, by resource; the client keeps one copy. */
export async function stationRecords(db: Database, stationId: number): Promise<Record<string, unknown>> {
  const station = await findStation(db, stationId);
  const lists = await Promise.all(
    RESOURCE_NAMES.map(async (name) => [name, await listRecords(db, stationId, name)] as const),
  );
  const undoable = await db.edits.count({ where: { stationId, undoneAt: null } });
  return { station: present(station), canUndo: undoable > 0, ...Object.fromEntries(lists) };
}

export async function findStation(db: Database, id: number): Promise<Row> {
  const station = await db.stations.findByPk(id);
  if (!station) throw new NotFoundError('station');
  return station;
}

export async function createStation(db: Database, body: unknown): Promise<Values> {
  const values = await stationSchema.noUnknown().required('The request has no body.').validate(body, STRICT);
  return db.write(async (transaction) => present(await db.stations.create(values, { transaction })));
}

/** Changes a station's own values; its predecessor stays in the history. */
export async function updateStation(db: Database, id: number, version: number, changes: Values): Promise<Values> {
  return db.write(async (transaction) => {
    const row = await db.stations.findByPk(id, { transaction });
    if (!row) throw new NotFoundError('station');
    if (row.get('version') !== version) throw new StaleWriteError('station');
    const { id: _id, version: _version, createdAt: _created, ...before } = present(row);
    const after = await stationSchema.noUnknown().validate({ ...before, ...changes }, STRICT);
    await row.update({ ...after, version: version + 1 }, { transaction });
    await note(db, transaction, {
      stationId: id,
      batch: randomUUID(),
      resource: 'stations',
      recordId: id,
      op: 'update',
      before,
      after,
    });
    return present(row);
  });
}

interface EditNote {
  readonly stationId: number;
  readonly batch: string;
  readonly resource: string;
  readonly recordId: number;
  readonly op: string;
  readonly before: Values | null;
  readonly after: Values | null;
}

const note = (db: Database, transaction: Transaction, edit: EditNote): Promise<unknown> =>
  db.edits.create({ ...edit, createdAt: new Date(), undoneAt: null }, { transaction });

/** Saves a batch of changes, all or none. @returns the records after the change, in order; null for a deleted one. */
export function applyChanges(
  db: Database,
  stationId: number,
  changes: readonly Change[],
  { key, photo }: BatchExtras = {},
): Promise<(Values | null)[]> {
  return db.write(async (transaction) => {
    // the same batch again: its answer was lost on the way, it is not carried out twice
    if (key && (await db.edits.count({ where: { stationId, batch: key }, transaction })) > 0) return [];
    return applyWithin(db, transaction, stationId, changes, { key, photo });
  });
}

/** What may come with a batch. */
interface BatchExtras {
  /** Name of the batch, made by the client. */
  readonly key?: string;
  /** Row of a photo that the changes refer to as { "new": "photo" }. */
  readonly photo?: Values;
}

/** The same inside a transaction that the caller owns. */
async function applyWithin(
  db: Database,
  transaction: Transaction,
  stationId: number,
  changes: readonly Change[],
  { key, photo }: BatchExtras,
): Promise<(Values | null)[]> {
  if (!(await db.stations.findByPk(stationId, { transaction }))) throw new NotFoundError('station');
  const batch = key ?? randomUUID();
  const made = new Map<string, number>();
  if (photo) {
    const row = await db.tables.attachments.create({ ...photo, stationId }, { transaction });
    const recordId = Number(row.get('id'));
    made.set('photo', recordId);
    const after = { name: photo.name ?? null };
    await note(db, transaction, {
      stationId,
      batch,
      resource: 'attachments',
      recordId,
      op: 'create',
      before: null,
      after,
    });
  }
  const results: (Values | null)[] = [];
  for (const change of changes) {
    const { resource } = change;
    if (change.op === 'create') {
      if (BYTE_COLUMNS[resource])
        throw new RequestError(`A ${LABELS[resource]} comes from a file. Import the file instead.`);
      const values = await validated(resource, resolveNew(change.values, made));
      await checkReferences(db, transaction, stationId, values);
      const row = await db.tables[resource].create({ ...values, stationId }, { transaction });
      const recordId = Number(row.get('id'));
      if (change.as) made.set(change.as, recordId);
      await note(db, transaction, { stationId, batch, resource, recordId, op: 'create', before: null, after: values });
      results.push(present(row, resource));
      continue;
    }
    const row = await db.tables[resource].findOne({ where: { id: change.id, stationId }, transaction });
    if (!row) throw new NotFoundError(LABELS[resource]);
    if (row.get('version') !== change.version) throw new StaleWriteError(LABELS[resource]);
    const before = valuesOf(row, resource);
    if (change.op === 'delete') {
      await refuseIfUsed(db, transaction, resource, change.id);
      await row.update({ version: change.version + 1 }, { transaction });
      await row.destroy({ transaction });
      await note(db, transaction, {
        stationId,
        batch,
        resource,
        recordId: change.id,
        op: 'delete',
        before,
        after: null,
      });
      results.push(null);
      continue;
    }
    const after = await validated(resource, { ...before, ...resolveNew(change.values, made) });
    await checkReferences(db, transaction, stationId, after);
    await row.update({ ...after, version: change.version + 1 }, { transaction });
    await note(db, transaction, { stationId, batch, resource, recordId: change.id, op: 'update', before, after });
    results.push(present(row, resource));
  }
  return results;
}

const validated = (resource: ResourceName, values: Values): Promise<Values> =>
  SCHEMAS[resource]
    .noUnknown(true, ({ unknown }) => `The field "${unknown}" is not known here. Leave it out.`)
    .validate(values, STRICT);

function resolveNew(values: Values, made: ReadonlyMap<string, number>): Values {
  return Object.fromEntries(
    Object.entries(values).map(([key, value]) => {
      if (typeof value !== 'object' || value === null || !('new' in value)) return [key, value];
      const id = made.get(String(value.new));
      if (id === undefined)
        throw new RequestError(`Nothing named "${String(value.new)}" was made earlier in this batch.`);
      return [key, id];
    }),
  );
}

async function checkReferences(
  db: Database,
  transaction: Transaction,
  stationId: number,
  values: Values,
): Promise<void> {
  for (const [field, resource] of Object.entries(REFERENCES)) {
    const id = values[field];
    if (typeof id !== 'number') continue;
    const found = await db.tables[resource].count({ where: { id, stationId }, transaction });
    if (found === 0)
      throw new RequestError(`The ${LABELS[resource]} chosen is not at this station any more. Choose another.`, field);
  }
}

/** Soft-deleted records keep no one waiting; living ones that point here do. Parts (stages, readings) go with their whole. */
async function refuseIfUsed(db: Database, transaction: Transaction, resource: ResourceName, id: number): Promise<void> {
  for (const user of RESOURCE_NAMES) {
    for (const [field, target] of Object.entries(REFERENCES)) {
      if (target !== resource || !(field in db.tables[user].getAttributes())) continue;
      const count = await db.tables[user].count({ where: { [field]: id }, transaction });
      if (count > 0) throw new InUseError(LABELS[resource], `${count} ${LABELS[user]}${count === 1 ? '' : 's'}`);
    }
  }
}

/** Takes the latest batch of edits back; works after a restart, because the history is in the file. */
export function undoLast(db: Database, stationId: number): Promise<{ undone: number; what: string }> {
  return db.write(async (transaction) => {
    const last = await db.edits.findOne({ where: { stationId, undoneAt: null }, order: [['id', 'DESC']], transaction });
    if (!last) throw new NothingToUndoError();
    const edits = await db.edits.findAll({
      where: { stationId, batch: last.get('batch'), undoneAt: null },
      order: [['id', 'DESC']],
      transaction,
    });
    for (const edit of edits) {
      const resource = RESOURCE_NAMES.find((name) => name === edit.get('resource'));
      const table = resource ? db.tables[resource] : db.stations;
      const row = await table.findByPk(Number(edit.get('recordId')), { paranoid: false, transaction });
      if (!row) throw new NotFoundError('record');
      const version = Number(row.get('version')) + 1;
      const before = edit.get('before');
      if (edit.get('op') === 'create') await row.destroy({ transaction });
      else if (typeof before === 'object' && before !== null) {
        if (edit.get('op') === 'delete') await row.restore({ transaction });
        await row.update({ ...before, version }, { transaction });
      }
      await edit.update({ undoneAt: new Date() }, { transaction });
    }
    const name = RESOURCE_NAMES.find((candidate) => candidate === last.get('resource'));
    const verb = { create: 'added', update: 'changed', delete: 'deleted' }[String(last.get('op'))] ?? 'edited';
    return { undone: edits.length, what: `${name ? LABELS[name] : 'station'} ${verb}` };
  });
}
