import { RESOURCE_NAMES, type ResourceName } from '@velvet-reed/contract';
import { referencesOf } from '../resources';

export type Values = Record<string, unknown>;

/** A record as it stands in a station file: a number of its own file, its name for ever, when it was made, and its values. */
export interface FileRecord extends Values {
  readonly id: number;
  readonly uuid: string;
  readonly createdAt: string;
}

/** What a station file holds, beside the bytes of samples and files. */
export interface StationContents {
  readonly station: FileRecord;
  readonly records: Readonly<Record<ResourceName, readonly FileRecord[]>>;
  /** Fingerprints of what a record was before, by its uuid: whether a difference is older or newer follows from it. */
  readonly earlier: Readonly<Record<string, readonly string[]>>;
  /** Bytes by resource and uuid. */
  readonly bytes: ReadonlyMap<string, Uint8Array>;
}

export const bytesName = (resource: ResourceName, uuid: string): string => `bytes/${resource}/${uuid}`;

/** Kinds of records so that each comes after those that it points at. */
export const IN_ORDER: readonly ResourceName[] = (() => {
  const done: ResourceName[] = [];
  const left = new Set<ResourceName>(RESOURCE_NAMES);
  while (left.size > 0) {
    const next = [...left].find((name) => referencesOf(name).every(({ to }) => to === name || done.includes(to)));
    if (!next) throw new Error(`The tables ${[...left].join(', ')} point at each other.`);
    done.push(next);
    left.delete(next);
  }
  return done;
})();

/** Columns whose text names nodes of Guard's drawing, such as antenna:3, and those that list numbers of antennas. */
const NODE_COLUMNS = new Set(['fromNode', 'toNode', 'aNode', 'bNode']);
const NODE_KINDS: Readonly<Record<string, ResourceName>> = {
  ...{ antenna: 'antennas', part: 'guardParts', input: 'guardInputs', away: 'transmitters', receiver: 'receivers' },
};
const NUMBER_LISTS: Readonly<Record<string, ResourceName>> = {
  hangingOnNothing: 'antennas',
  receiversOnNothing: 'receivers',
};
/** Nodes within the text of a part's state. */
const NODES_WITHIN = /\b(antenna|part|input|away|receiver):(\d+)\b/g;

/** How a number of a kind of record is told elsewhere; undefined: the record is not there. */
export type Renumbering = (resource: ResourceName, id: number) => string | number | undefined;

const nodeIn = (text: string, to: Renumbering): string =>
  text.replaceAll(
    NODES_WITHIN,
    (_, kind: string, id: string) => `${kind}:${String(to(NODE_KINDS[kind], Number(id)) ?? 0)}`,
  );

/** What a record was taken on, with its nodes told anew; names stay as they were. */
const scopeIn = (value: unknown, to: Renumbering): unknown =>
  JSON.parse(
    JSON.stringify(value, (key, one: unknown) =>
      (key === 'id' || key === 'state') && typeof one === 'string' ? nodeIn(one, to) : one,
    ),
  );

/** Values with everything that points at a record told anew. What points at nothing becomes null, or is left out of a list. */
export function renumbered(resource: ResourceName, values: Values, to: Renumbering): Values {
  const references = new Map(referencesOf(resource).map(({ field, to: target }) => [field, target]));
  return Object.fromEntries(
    Object.entries(values).map(([field, value]) => {
      const target = references.get(field);
      if (target) return [field, typeof value === 'number' ? (to(target, value) ?? null) : value];
      if (NODE_COLUMNS.has(field) && typeof value === 'string') return [field, nodeIn(value, to)];
      if (field === 'takenOn') return [field, scopeIn(value, to)];
      if (Object.hasOwn(NUMBER_LISTS, field) && typeof value === 'string')
        return [
          field,
          value
            .split(',')
            .filter(Boolean)
            .flatMap((id) => to(NUMBER_LISTS[field], Number(id)) ?? [])
            .join(','),
        ];
      return [field, value];
    }),
  );
}
