import { type Columns, RESOURCES, stationSchema, type ResourceName } from '@velvet-reed/contract';
import { randomUUID } from 'node:crypto';
import type { Transaction } from 'sequelize';
import type { Database, Row } from '../database';
import { validated } from '../changes';
import { knownBatch, noteEdit, type Author } from '../history';
import { STRICT, valuesOf } from '../records';
import { RequestError } from '../refusals';
import { referencesOf } from '../resources';
import { bytesName, type FileRecord, IN_ORDER, renumbered, type StationContents, type Values } from './contents';
import { earlierOf, fingerprint, uuidsOf } from './write';

/** What a record of the file is against the one here. */
type Standing = 'only in the file' | 'newer in the file' | 'older in the file' | 'both changed' | 'deleted here';

/** One value that is another here and in the file: a number, a flag, null for none, or a text; what is long is cut. */
interface DifferentValue {
  /** As forms call it, with its unit. */
  readonly label: string;
  readonly here: string | number | boolean | null;
  readonly file: string | number | boolean | null;
}

/** A record that differs. */
interface Difference {
  readonly resource: ResourceName;
  readonly uuid: string;
  readonly label: string;
  /** Its name, or the words of an entry. */
  readonly name: string;
  readonly standing: Standing;
  /** What differs, where the record is in both. */
  readonly values: readonly DifferentValue[];
}

/** What a file would change in the station of the same name for ever. */
interface Comparison {
  readonly same: number;
  readonly onlyHere: number;
  readonly differences: readonly Difference[];
}

/** What a file says of a record beside its values: its number, name and time are read on their own, and what belongs to a database is given here. */
const BOOKKEEPING = new Set(['id', 'uuid', 'createdAt']);
const valuesIn = (record: FileRecord): Values =>
  Object.fromEntries(Object.entries(record).filter(([field]) => !BOOKKEEPING.has(field)));
const nameOf = (values: Values): string => {
  const named = values.name ?? values.text ?? values.word ?? '';
  return (typeof named === 'string' ? named : '').slice(0, 80);
};

/** A longer text is cut for the eye. */
const LONGEST_TOLD = 80;

/** Values that differ between two sides, references told by name. */
function differentValues(
  resource: ResourceName,
  own: Values,
  theirs: Values,
  named: (resource: ResourceName, uuid: string) => string,
): readonly DifferentValue[] {
  const columns: Columns = RESOURCES[resource].columns;
  const targets = new Map(referencesOf(resource).map(({ field, to }) => [field, to]));
  const told = (field: string, value: unknown): DifferentValue['here'] => {
    const target = targets.get(field);
    if (target && typeof value === 'string') return named(target, value);
    if (typeof value === 'number' || typeof value === 'boolean' || value === null) return value;
    const text = typeof value === 'string' ? value : (JSON.stringify(value) ?? '');
    return text.length > LONGEST_TOLD ? `${text.slice(0, LONGEST_TOLD)}…` : text;
  };
  return Object.entries(columns)
    .filter(([field]) => fingerprint({ value: own[field] }) !== fingerprint({ value: theirs[field] }))
    .map(([field, { label }]) => ({ label, here: told(field, own[field]), file: told(field, theirs[field]) }));
}

/** Values of a file's records with their references told by uuid, so that they can be held against those here. */
function byUuid(contents: StationContents) {
  const uuids = new Map(
    IN_ORDER.map((name) => [name, new Map(contents.records[name].map(({ id, uuid }) => [id, uuid]))]),
  );
  return (resource: ResourceName, id: number): string | undefined => uuids.get(resource)?.get(id);
}

/** Holds a file against the station that has the same uuid here, record by record. */
export async function compareStation(
  db: Database,
  transaction: Transaction,
  stationId: number,
  contents: StationContents,
): Promise<Comparison> {
  const [here, there] = [await uuidsOf(db, transaction, stationId), byUuid(contents)];
  const earlierHere = await earlierOf(db, transaction, stationId);
  const differences: Difference[] = [];
  const names = new Map<string, string>();
  let [same, onlyHere] = [0, 0];
  const standingOf = (uuid: string, known: boolean, own: Values | undefined, theirs: Values): Standing | undefined => {
    if (!known) return 'only in the file';
    if (!own) return 'deleted here';
    const [mine, inFile] = [fingerprint(own), fingerprint(theirs)];
    if (mine === inFile) return undefined;
    if (contents.earlier[uuid]?.includes(mine)) return 'newer in the file';
    return earlierHere[uuid]?.includes(inFile) ? 'older in the file' : 'both changed';
  };
  for (const resource of IN_ORDER) {
    const rows = await db.tables[resource].findAll({ where: { stationId }, paranoid: false, transaction });
    const known = new Map(rows.map((row) => [String(row.get('uuid')), row]));
    const inFile = new Set(contents.records[resource].map(({ uuid }) => uuid));
    onlyHere += rows.filter((row) => row.get('deletedAt') === null && !inFile.has(String(row.get('uuid')))).length;
    for (const record of contents.records[resource]) {
      const row = known.get(record.uuid);
      const theirs = renumbered(resource, valuesIn(record), there);
      const own =
        row && row.get('deletedAt') === null ? renumbered(resource, valuesOf(row, resource), here) : undefined;
      const standing = standingOf(record.uuid, row !== undefined, own, theirs);
      if (standing === undefined) {
        same += 1;
        continue;
      }
      differences.push({
        ...{ resource, uuid: record.uuid, label: RESOURCES[resource].label, name: nameOf(record), standing },
        values: own ? differentValues(resource, own, theirs, (of, uuid) => names.get(uuid) ?? RESOURCES[of].label) : [],
      });
    }
    // what is pointed at comes before what points at it
    for (const row of rows) names.set(String(row.get('uuid')), nameOf(valuesOf(row, resource)));
    for (const record of contents.records[resource])
      if (!known.has(record.uuid)) names.set(record.uuid, nameOf(record));
  }
  return { same, onlyHere, differences };
}

/** A record of a file that means nothing without what it points at, and whose number of that is in no part of the file. */
interface Lost {
  readonly resource: ResourceName;
  readonly field: string;
  readonly to: ResourceName;
}

/** "revision: its antenna is not there". */
const lostText = ({ resource, to }: Lost, record: FileRecord): string =>
  `${RESOURCES[resource].label} ${nameOf(record)}`.trim() + `: its ${RESOURCES[to].label} is not there`;

/** Values of a record in this database, its references as the numbers here; or what it cannot be without. */
function here(
  resource: ResourceName,
  record: FileRecord,
  numbers: (resource: ResourceName, id: number) => number | undefined,
): { readonly values: Values; readonly lost?: Lost } {
  const values = renumbered(resource, valuesIn(record), numbers);
  const lost = referencesOf(resource).find(
    ({ field, along }) => along && typeof record[field] === 'number' && values[field] === null,
  );
  return { values, ...(lost ? { lost: { resource, field: lost.field, to: lost.to } } : {}) };
}

async function put(
  db: Database,
  transaction: Transaction,
  stationId: number,
  {
    resource,
    record,
    uuid,
    values,
    contents,
  }: {
    readonly resource: ResourceName;
    readonly record: FileRecord;
    readonly uuid: string;
    readonly values: Values;
    readonly contents: StationContents;
  },
): Promise<Row> {
  const own = RESOURCES[resource].bytes;
  const bytes = contents.bytes.get(bytesName(resource, record.uuid));
  return db.tables[resource].create(
    {
      ...(await validated(resource, values)),
      ...{ stationId, uuid, createdAt: new Date(record.createdAt) },
      ...(own && bytes ? { [own]: Buffer.from(bytes) } : {}),
    },
    { transaction },
  );
}

/**
 * A file as a station of its own, in one transaction. Where a station of the same uuid is here (even deleted), everything gets new uuids.
 * @throws ValidationError, RequestError; nothing is half taken.
 */
export function takeAsNew(
  db: Database,
  contents: StationContents,
  author: Author,
): Promise<{ readonly stationId: number; readonly left: readonly string[] }> {
  return db.write(async (transaction) => {
    const { station } = contents;
    // the same answer was lost on the way: the station is there already
    const known = await knownBatch(db, transaction, { batch: author.key });
    if (known) return { stationId: Number(known[0].get('stationId')), left: [] };
    const left: string[] = [];
    const taken = await db.stations.count({ where: { uuid: station.uuid }, paranoid: false, transaction });
    const fresh = taken > 0;
    const values: Values = await stationSchema
      .noUnknown(
        true,
        ({ unknown }) =>
          `The station of the file has a field "${String(unknown).slice(0, 80)}" that is not known here. Nothing was taken in.`,
      )
      .validate(valuesIn(station), STRICT);
    const row = await db.stations.create(
      { ...values, uuid: fresh ? randomUUID() : station.uuid, createdAt: new Date(station.createdAt) },
      { transaction },
    );
    const stationId = Number(row.get('id'));
    await noteEdit(db, transaction, {
      ...{ ...author, stationId, resource: 'stations', recordId: stationId, op: 'create', before: null, final: true },
      after: { name: values.name ?? null },
    });
    const numbers = new Map<ResourceName, Map<number, number>>(
      IN_ORDER.map((name) => [name, new Map<number, number>()]),
    );
    for (const resource of IN_ORDER)
      for (const record of contents.records[resource]) {
        const { values: mapped, lost } = here(resource, record, (name, id) => numbers.get(name)?.get(id));
        if (lost) {
          left.push(lostText(lost, record));
          continue;
        }
        const uuid = fresh ? randomUUID() : record.uuid;
        const made = await put(db, transaction, stationId, { resource, record, uuid, values: mapped, contents });
        numbers.get(resource)?.set(record.id, Number(made.get('id')));
      }
    return { stationId, left };
  });
}

/**
 * Takes chosen records of a file into the station of the same uuid: what is new is added, what differs is overwritten, each with its predecessor in the
 * history, so that undo takes all of it back. Never doubled: a record is known by its uuid.
 * @param take uuids that are taken. @returns how many records were added and changed.
 */
export function takeBeside(
  db: Database,
  stationId: number,
  contents: StationContents,
  { take, author }: { readonly take: ReadonlySet<string>; readonly author: Author },
): Promise<{ readonly added: number; readonly changed: number; readonly left: readonly string[] }> {
  return db.write(async (transaction) => {
    const there = byUuid(contents);
    const before = await knownBatch(db, transaction, { stationId, batch: author.key });
    if (before) {
      const count = (op: string): number => before.filter((edit) => edit.get('op') === op).length;
      return { added: count('create'), changed: count('update'), left: [] };
    }
    const known = new Map<string, Row>();
    for (const resource of IN_ORDER)
      for (const row of await db.tables[resource].findAll({ where: { stationId }, paranoid: false, transaction }))
        known.set(`${resource} ${String(row.get('uuid'))}`, row);
    const number = (resource: ResourceName, id: number): number | undefined => {
      const uuid = there(resource, id);
      const row = uuid === undefined ? undefined : known.get(`${resource} ${uuid}`);
      return row && row.get('deletedAt') === null ? Number(row.get('id')) : undefined;
    };
    let [added, changed] = [0, 0];
    const left: string[] = [];
    for (const resource of IN_ORDER)
      for (const record of contents.records[resource]) {
        if (!take.has(record.uuid)) continue;
        const { values, lost } = here(resource, record, number);
        if (lost) {
          if (there(lost.to, Number(record[lost.field])) !== undefined)
            throw new RequestError(
              `A ${RESOURCES[resource].label} of the file belongs to a ${RESOURCES[lost.to].label} that is not taken along. Take that too. Nothing was taken in.`,
            );
          left.push(lostText(lost, record));
          continue;
        }
        const row = known.get(`${resource} ${record.uuid}`);
        if (!row) {
          const made = await put(db, transaction, stationId, { resource, record, uuid: record.uuid, values, contents });
          known.set(`${resource} ${record.uuid}`, made);
          const edit = { resource, recordId: Number(made.get('id')), op: 'create' as const, before: null };
          await noteEdit(db, transaction, { ...author, stationId, ...edit, after: values });
          added += 1;
          continue;
        }
        const gone = row.get('deletedAt') !== null;
        const before = valuesOf(row, resource);
        const after = await validated(resource, values);
        if (gone) await row.restore({ transaction });
        else if (fingerprint(before) === fingerprint(after)) continue;
        await row.update({ ...after, version: Number(row.get('version')) + 1 }, { transaction });
        await noteEdit(db, transaction, {
          ...{ ...author, stationId, resource, recordId: Number(row.get('id')) },
          ...(gone ? { op: 'create' as const, before: null, after } : { op: 'update' as const, before, after }),
        });
        changed += 1;
      }
    return { added, changed, left };
  });
}
