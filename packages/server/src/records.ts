import { type Columns, RESOURCES, stationSchema, type ResourceName } from '@velvet-reed/contract';
import type { Transaction } from 'sequelize';
import type { Database, Row } from './database';
import { knownBatch, noteEdit, type Author } from './history';
import { NotFoundError, StaleWriteError } from './refusals';
import { storedJson } from './stored-json';

type Values = Record<string, unknown>;
/** First fault ends it: a request with a hundred faults is answered as quickly as one with one. */
export const STRICT = { strict: true, abortEarly: true, stripUnknown: false } as const;
const strictStation = stationSchema
  .noUnknown(true, ({ unknown }) => `The field "${String(unknown).slice(0, 80)}" is not known here. Leave it out.`)
  .required('The request has no body. Send the values of the station.');

/** A record as JSON: no bytes, no bookkeeping that clients do not need. */
export function present(row: Row, resource?: ResourceName): Values {
  const { updatedAt: _updated, deletedAt: _deleted, uuid: _uuid, ...values } = row.get({ plain: true });
  const hidden = resource ? RESOURCES[resource].bytes : undefined;
  const columns: Columns = resource ? RESOURCES[resource].columns : {};
  return Object.fromEntries(
    Object.entries(values)
      .filter(([key]) => key !== hidden)
      .map(([key, value]) => [key, columns[key]?.store === 'json' ? storedJson(value) : value]),
  );
}

/** The values alone, as a form would send them. */
export const valuesOf = (row: Row, resource?: ResourceName): Values => {
  const { id: _id, version: _version, stationId: _station, createdAt: _created, ...values } = present(row, resource);
  return values;
};

export async function findStation(db: Database, id: number, transaction?: Transaction): Promise<Row> {
  const station = await db.stations.findByPk(id, { transaction });
  if (!station) throw new NotFoundError('station');
  return station;
}

/** Makes a station inside a transaction that the caller owns; the same name of a batch makes it once. */
export async function makeStation(
  db: Database,
  transaction: Transaction,
  body: unknown,
  author: Author,
): Promise<Values> {
  const values: Values = await strictStation.validate(body, STRICT);
  const known = await knownBatch(db, transaction, { batch: author.key });
  if (known) return present(await findStation(db, Number(known[0].get('recordId')), transaction));
  const row = await db.stations.create(values, { transaction });
  const recordId = Number(row.get('id'));
  // a station is deleted, not undone: the note only makes its name known
  await noteEdit(db, transaction, {
    ...author,
    stationId: recordId,
    resource: 'stations',
    recordId,
    op: 'create',
    before: null,
    after: { name: values.name ?? null },
    final: true,
  });
  return present(row);
}

export const createStation = (db: Database, body: unknown, author: Author): Promise<Values> =>
  db.write((transaction) => makeStation(db, transaction, body, author));

/** Changes a station's own values; its predecessor stays in the history. */
export function updateStation(
  db: Database,
  id: number,
  { version, changes, author }: { readonly version: number; readonly changes: Values; readonly author: Author },
): Promise<Values> {
  return db.write(async (transaction) => {
    const row = await findStation(db, id, transaction);
    if (await knownBatch(db, transaction, { stationId: id, batch: author.key })) return present(row);
    if (row.get('version') !== version) throw new StaleWriteError('station');
    const before = valuesOf(row);
    const after: Values = await strictStation.validate({ ...before, ...changes }, STRICT);
    await row.update({ ...after, version: version + 1 }, { transaction });
    await noteEdit(db, transaction, {
      ...author,
      stationId: id,
      resource: 'stations',
      recordId: id,
      op: 'update',
      before,
      after,
    });
    return present(row);
  });
}

/** Deletes a station with all that it holds; its records stay in the file behind it, so that it can be brought back whole. */
export function deleteStation(db: Database, id: number, version: number, author: Author): Promise<{ batch: string }> {
  return db.write(async (transaction) => {
    const row = await db.stations.findByPk(id, { transaction, paranoid: false });
    if (!row) throw new NotFoundError('station');
    if (await knownBatch(db, transaction, { stationId: id, batch: author.key })) return { batch: author.key };
    if (row.get('deletedAt') !== null) throw new NotFoundError('station');
    if (row.get('version') !== version) throw new StaleWriteError('station');
    const before = valuesOf(row);
    await row.update({ version: version + 1 }, { transaction });
    await row.destroy({ transaction });
    await noteEdit(db, transaction, {
      ...author,
      stationId: id,
      resource: 'stations',
      recordId: id,
      op: 'delete',
      before,
      after: null,
    });
    return { batch: author.key };
  });
}

/** Stations that were deleted, with the batch that brings each back. */
export async function deletedStations(db: Database): Promise<readonly Values[]> {
  const edits = await db.edits.findAll({
    where: { resource: 'stations', op: 'delete', undoneAt: null },
    order: [['id', 'DESC']],
  });
  return edits.map((edit) => {
    const before = edit.get('before');
    const name = typeof before === 'object' && before !== null && 'name' in before ? String(before.name) : 'Station';
    return {
      id: edit.get('stationId'),
      name,
      batch: edit.get('batch'),
      atMs: new Date(String(edit.get('createdAt'))).getTime(),
    };
  });
}
