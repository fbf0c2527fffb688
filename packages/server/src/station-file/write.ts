import { STATION_FORMAT, STATION_VERSION } from '@velvet-reed/station/file/archive';
import { createHash } from 'node:crypto';
import { RESOURCE_NAMES, RESOURCES, type ResourceName } from '@velvet-reed/contract';
import { writeCsv } from '@velvet-reed/core/formats';
import { zip, type Zippable } from 'fflate';
import type { Transaction } from 'sequelize';
import type { Database, Row } from '../database';
import { sha256 } from '../file-store';
import { MIGRATION_NAMES } from '../migrate';
import { findStation, valuesOf } from '../records';
import { bytesName, type FileRecord, renumbered, type StationContents, type Values } from './contents';

/** The same moment in every file, so that the same station gives the same bytes. */
const ZIP_EPOCH = '1980-01-01T00:00:00';

/** Same values, same fingerprint, whatever the order of the fields. */
export function fingerprint(values: Values): string {
  const sorted = (value: unknown): unknown =>
    Array.isArray(value)
      ? value.map(sorted)
      : typeof value === 'object' && value !== null
        ? Object.fromEntries(
            Object.entries(value)
              .sort(([a], [b]) => (a < b ? -1 : 1))
              .map(([key, one]) => [key, sorted(one)]),
          )
        : value;
  return createHash('sha256')
    .update(JSON.stringify(sorted(values)))
    .digest('hex')
    .slice(0, 24);
}

const stamp = (row: Row): string => new Date(String(row.get('createdAt'))).toISOString();
/** A sequelize date keeps its own type when it is read by name. */
const createdOf = (row: Row): string => {
  const at = row.get('createdAt');
  return at instanceof Date ? at.toISOString() : stamp(row);
};

/** Uuids of all records of a station, deleted ones too, by kind and number. */
export async function uuidsOf(db: Database, transaction: Transaction, stationId: number) {
  const all = new Map<ResourceName, Map<number, string>>();
  for (const name of RESOURCE_NAMES) {
    const rows = await db.tables[name].findAll({
      ...{ where: { stationId }, attributes: ['id', 'uuid'], paranoid: false, transaction },
    });
    all.set(name, new Map(rows.map((row) => [Number(row.get('id')), String(row.get('uuid'))])));
  }
  return (resource: ResourceName, id: number): string | undefined => all.get(resource)?.get(id);
}

/** Fingerprints of what records were before their last change, by uuid. */
export async function earlierOf(db: Database, transaction: Transaction, stationId: number) {
  const uuid = await uuidsOf(db, transaction, stationId);
  const edits = await db.edits.findAll({ where: { stationId, op: 'update' }, order: [['id', 'ASC']], transaction });
  const earlier: Record<string, string[]> = {};
  for (const edit of edits) {
    const resource = RESOURCE_NAMES.find((name) => name === edit.get('resource'));
    const own = resource && uuid(resource, Number(edit.get('recordId')));
    const before = edit.get('before');
    if (!resource || !own || typeof before !== 'object' || before === null) continue;
    const print = fingerprint(renumbered(resource, { ...before }, uuid));
    const known = (earlier[own] ??= []);
    if (!known.includes(print)) known.push(print);
  }
  return earlier;
}

/** Everything of a station, numbered from 1 in the order in which it was made. */
export async function stationContents(
  db: Database,
  transaction: Transaction,
  stationId: number,
): Promise<StationContents> {
  const station = await findStation(db, stationId, transaction);
  const rows = new Map<ResourceName, readonly Row[]>();
  for (const name of RESOURCE_NAMES)
    rows.set(name, await db.tables[name].findAll({ where: { stationId }, order: [['id', 'ASC']], transaction }));
  const numbers = new Map(
    [...rows].map(([name, all]) => [name, new Map(all.map((row, i) => [Number(row.get('id')), i + 1]))]),
  );
  const number = (resource: ResourceName, id: number): number | undefined => numbers.get(resource)?.get(id);
  const bytes = new Map<string, Uint8Array>();
  const records: Partial<Record<ResourceName, FileRecord[]>> = {};
  for (const name of RESOURCE_NAMES)
    records[name] = (rows.get(name) ?? []).map((row, i): FileRecord => {
      const uuid = String(row.get('uuid'));
      const own = RESOURCES[name].bytes;
      const stored = own ? row.get(own) : undefined;
      if (Buffer.isBuffer(stored)) bytes.set(bytesName(name, uuid), stored);
      return { id: i + 1, uuid, createdAt: createdOf(row), ...renumbered(name, valuesOf(row, name), number) };
    });
  return {
    station: { id: 1, uuid: String(station.get('uuid')), createdAt: createdOf(station), ...valuesOf(station) },
    records: records as StationContents['records'],
    earlier: await earlierOf(db, transaction, stationId),
    bytes,
  };
}

const json = (value: unknown): Uint8Array => Buffer.from(`${JSON.stringify(value, undefined, 1)}\n`);
/** A cell of a table: lists and groups as JSON. */
const cell = (value: unknown): string | number | null =>
  typeof value === 'number' || typeof value === 'string'
    ? value
    : value === null || value === undefined
      ? null
      : typeof value === 'boolean'
        ? String(value)
        : JSON.stringify(value);

/**
 * A station as one ZIP: JSON by kind for programs, CSV beside it for people, bytes of samples and files as they came, checksums of all (SHA-256).
 * The same station gives the same bytes.
 */
export async function writeStationFile(contents: StationContents): Promise<Uint8Array> {
  const { station, records, earlier, bytes } = contents;
  const files = new Map<string, Uint8Array>();
  const head = { format: STATION_FORMAT, version: STATION_VERSION, release: MIGRATION_NAMES.at(-1) };
  files.set('station.json', json({ ...head, station }));
  for (const name of RESOURCE_NAMES) {
    if (records[name].length === 0) continue;
    files.set(`records/${name}.json`, json(records[name]));
    const columns = Object.keys(records[name][0]);
    const rows = records[name].map((record) => columns.map((column) => cell(record[column])));
    files.set(`tables/${name}.csv`, Buffer.from(writeCsv(columns, rows)));
  }
  files.set('earlier.json', json(earlier));
  for (const [name, one] of bytes) files.set(name, one);
  files.set('checksums.json', json(Object.fromEntries([...files].map(([name, one]) => [name, sha256(one)]))));
  const entries: Zippable = Object.fromEntries(
    [...files].map(([name, one]) => [name, [one, { level: name.startsWith('bytes/') ? 1 : 6, mtime: ZIP_EPOCH }]]),
  );
  return new Promise((resolve, reject) => zip(entries, {}, (error, data) => (error ? reject(error) : resolve(data))));
}
