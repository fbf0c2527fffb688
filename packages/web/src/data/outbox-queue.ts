import { RESOURCES, type Change, type Columns, type ResourceName } from '@velvet-reed/contract';
import type { StationData } from '@velvet-reed/station/record';

/** A batch that waits in this browser until the server is back. */
export interface Waiting {
  /** Its name: however often it is sent, the server carries it out once. */
  readonly key: string;
  /** Id of the file of stations that it was written for; absent in what an earlier release kept. */
  readonly file?: string;
  readonly stationId: number;
  readonly changes: readonly Change[];
  /** The changes refer to them as { "new": "photo" }, { "new": "photo2" } and so on. */
  readonly photos?: readonly File[];
  /** As earlier releases kept a single one. */
  readonly photo?: File;
  /** What it is, for the person. */
  readonly what: string;
  readonly atMs: number;
  /** Numbers that its new records have until the server gives them theirs, in the order of the changes; 0 for what is not new. */
  readonly ids: readonly number[];
  /** Why the server refused it, when it did. */
  readonly refused?: { readonly code: string; readonly message: string };
}

/** All that waits, in the order in which it was written, and which numbers became which. */
export interface Queue {
  readonly batches: readonly Waiting[];
  /** Number given by the server, by the number that a record had here. */
  readonly real: Readonly<Record<string, number>>;
  readonly next: number;
}

/** Records that wait have numbers from here on: no server counts so far. */
const FIRST_TEMPORARY = 2 ** 50;
export const isTemporary = (id: number): boolean => id >= FIRST_TEMPORARY;
export const EMPTY_QUEUE: Queue = { batches: [], real: {}, next: FIRST_TEMPORARY };

/** Puts a batch at the end of the line; one that stands there already is left alone. */
export function queued(queue: Queue, batch: Omit<Waiting, 'ids' | 'refused'>): Queue {
  if (queue.batches.some(({ key }) => key === batch.key)) return queue;
  let { next } = queue;
  const ids = batch.changes.map((change) => (change.op === 'create' ? next++ : 0));
  return { ...queue, next, batches: [...queue.batches, { ...batch, ids }] };
}

type Fields = Readonly<Record<string, unknown>>;
const asFields = (values: object): Fields => Object.fromEntries(Object.entries(values));

/** Fields of a kind of record that point at others. */
function references(resource: ResourceName): readonly string[] {
  const { columns }: { readonly columns: Columns } = RESOURCES[resource];
  return Object.entries(columns).flatMap(([name, { to }]) => (to === undefined ? [] : [name]));
}

/** A batch as it can be sent now: numbers given here are those of the server; undefined while it stands on something that was not saved. */
export function sendable({ real }: Queue, { changes }: Waiting): readonly Change[] | undefined {
  let missing = false;
  const known = (id: number): number => {
    if (!isTemporary(id)) return id;
    const found = real[String(id)];
    if (found === undefined) missing = true;
    return found ?? id;
  };
  const resolved = changes.map((change): Change => {
    const own = change.op === 'create' ? {} : { id: known(change.id) };
    if (change.op === 'delete') return { ...change, ...own };
    const values = asFields(change.values);
    const pointed = references(change.resource).flatMap((name) => {
      const value = values[name];
      return typeof value === 'number' ? [[name, known(value)] as const] : [];
    });
    return Object.assign({}, change, own, { values: { ...values, ...Object.fromEntries(pointed) } });
  });
  return missing ? undefined : resolved;
}

/** The line after the server saved a batch. @param ids what it numbered the records of the batch, in order */
export function answered(queue: Queue, key: string, ids: readonly number[]): Queue {
  const batch = queue.batches.find((one) => one.key === key);
  if (!batch) return queue;
  const learnt = batch.ids.flatMap((id, i) => (id !== 0 && ids[i] ? [[String(id), ids[i]] as const] : []));
  return {
    ...queue,
    real: { ...queue.real, ...Object.fromEntries(learnt) },
    batches: queue.batches.filter((one) => one !== batch),
  };
}

const changedBatch = (queue: Queue, key: string, change: (batch: Waiting) => Waiting): Queue => ({
  ...queue,
  batches: queue.batches.map((batch) => (batch.key === key ? change(batch) : batch)),
});

/** The line after the server said no: the batch stays, with the reason. */
export const refusedBy = (queue: Queue, key: string, refused: NonNullable<Waiting['refused']>): Queue =>
  changedBatch(queue, key, (batch) => ({ ...batch, refused }));

/** A refused batch back in the line, perhaps with other changes, under a new name where those differ. */
export const retried = (
  queue: Queue,
  key: string,
  again: { readonly key: string; readonly changes: readonly Change[] },
): Queue => changedBatch(queue, key, ({ refused: _refused, ...batch }) => ({ ...batch, ...again }));

/** The line without a batch: the person gave it up. */
export const discarded = (queue: Queue, key: string): Queue => ({
  ...queue,
  batches: queue.batches.filter((batch) => batch.key !== key),
});

/** What a batch would send over what is there now: the fields on which both sides differ, for a record that was changed elsewhere. */
export interface Conflict {
  readonly resource: ResourceName;
  readonly id: number;
  readonly version: number;
  readonly fields: readonly { readonly label: string; readonly here: unknown; readonly there: unknown }[];
}

/** Where a refused batch and the station differ; a record that is gone there has no conflict to show. */
export function conflictsOf(data: StationData, { changes }: Waiting): readonly Conflict[] {
  return changes.flatMap((change): Conflict[] => {
    if (change.op !== 'update') return [];
    const there = data[change.resource].find(({ id }) => id === change.id);
    if (!there || there.version === change.version) return [];
    const now = asFields(there);
    const { columns }: { readonly columns: Columns } = RESOURCES[change.resource];
    const fields = Object.entries(asFields(change.values)).flatMap(([name, here]) =>
      JSON.stringify(here) === JSON.stringify(now[name])
        ? []
        : [{ label: columns[name]?.label ?? name, here, there: now[name] }],
    );
    return [{ resource: change.resource, id: change.id, version: there.version, fields }];
  });
}

/** Changes of records with only the fields that differ from what the page shows: what somebody else changes meanwhile in other fields stays theirs. */
export const onlyChanged = (data: StationData, changes: readonly Change[]): readonly Change[] =>
  changes.map((change): Change => {
    if (change.op !== 'update') return change;
    const shown = data[change.resource].find(({ id }) => id === change.id);
    if (!shown || shown.version !== change.version) return change;
    const now = asFields(shown);
    const differ = Object.entries(asFields(change.values)).filter(
      ([name, value]) => JSON.stringify(value) !== JSON.stringify(now[name]),
    );
    return Object.assign({}, change, { values: Object.fromEntries(differ) });
  });

/** The changes of a batch, meant for the records as they are now: what the person said of them counts. */
export const overTheirs = (changes: readonly Change[], conflicts: readonly Conflict[]): readonly Change[] =>
  changes.map((change) => {
    const met =
      change.op === 'update' && conflicts.find(({ resource, id }) => resource === change.resource && id === change.id);
    return met ? { ...change, version: met.version } : change;
  });

/** The line after somebody gave up what conflicts in a batch: its other changes go on under a new name; a batch of nothing else goes. */
export function yielded(queue: Queue, key: string, newKey: string, conflicts: readonly Conflict[]): Queue {
  const batch = queue.batches.find((one) => one.key === key);
  if (!batch) return queue;
  const stays = batch.changes.map(
    (change) =>
      change.op !== 'update' || !conflicts.some(({ resource, id }) => resource === change.resource && id === change.id),
  );
  const changes = batch.changes.filter((_, i) => stays[i]);
  if (changes.length === 0) return discarded(queue, key);
  const ids = batch.ids.filter((_, i) => stays[i]);
  return changedBatch(queue, key, ({ refused: _refused, ...rest }) => ({ ...rest, key: newKey, changes, ids }));
}

/** A station as it will be when what waits is saved: rooms reckon with what was written down at the mast. */
export function withWaiting(data: StationData, waiting: readonly Waiting[]): StationData {
  const lists = new Map<ResourceName, Fields[]>();
  const listOf = (resource: ResourceName): Fields[] => {
    const list = lists.get(resource) ?? [...data[resource]].map(asFields);
    lists.set(resource, list);
    return list;
  };
  for (const { changes, ids, atMs, refused, stationId } of waiting) {
    if (refused || stationId !== data.station.id) continue;
    const made = new Map<string, number>();
    changes.forEach((change, i) => {
      if (change.op === 'delete') return;
      const values = Object.fromEntries(
        Object.entries(asFields(change.values)).map(([name, value]) => [
          name,
          typeof value === 'object' && value !== null && 'new' in value ? (made.get(String(value.new)) ?? null) : value,
        ]),
      );
      const list = listOf(change.resource);
      if (change.op === 'create') {
        if (change.as !== undefined) made.set(change.as, ids[i]);
        const own = { id: ids[i], version: 1, stationId, createdAt: new Date(atMs).toISOString() };
        list.push({ ...asFields(RESOURCES[change.resource].blank), ...values, ...own });
        return;
      }
      const at = list.findIndex(({ id }) => id === change.id);
      if (at >= 0) list[at] = { ...list[at], ...values, version: change.version + 1 };
    });
  }
  return lists.size === 0 ? data : Object.assign({}, data, Object.fromEntries(lists));
}
