import {
  RESOURCE_NAMES,
  type Change,
  type ResourceName,
  type Saved,
  type Station,
  unpackRecords,
} from '@velvet-reed/contract';
import type { Heard } from '@velvet-reed/core/choose';

/** A stored record that no longer fits its own rules: kept, named on the page, and out of every computation. */
export interface SetAside {
  readonly resource: ResourceName;
  readonly record: Readonly<Record<string, unknown>>;
  readonly why: string;
}

/** What the wire model has told so far, and the moment that it was asked for. */
export interface StationHearing {
  /** Moment that the waves' angles and the hours are taken for, Unix time in ms. */
  readonly atMs: number;
  readonly heard: Heard;
}

/** Everything a station holds. */
export type StationData = {
  readonly station: Station;
  /** Run of the server that told this; revisions of another are not comparable. */
  readonly run: string;
  /** Grows with every change; two equal ones are the same state. */
  readonly revision: number;
  /** The batch that undo would take back on this device. */
  readonly undo: { readonly batch: string; readonly what: string } | null;
  readonly setAside: readonly SetAside[];
  /** What the wire model has told of the antennas here so far; absent where nothing is asked of it. */
  readonly hearing?: StationHearing;
} & {
  readonly [R in ResourceName]: readonly Saved<R>[];
};

/** A change that adds a notebook entry; put it into the batch it tells about. */
export const entry = (step: Saved<'entries'>['step'], text: string): Change => ({
  op: 'create',
  resource: 'entries',
  values: { step, text, atMs: Date.now() },
});

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** A record as the server made it: it has checked the rest. */
interface Numbered {
  readonly id: number;
  readonly version: number;
}
const isNumbered = (value: unknown): value is Numbered =>
  isRecord(value) && typeof value.id === 'number' && typeof value.version === 'number';
const isList = (value: unknown): value is readonly Numbered[] => Array.isArray(value) && value.every(isNumbered);
const isSetAside = (value: unknown): value is SetAside =>
  isRecord(value) && RESOURCE_NAMES.some((name) => name === value.resource) && isRecord(value.record);
const undoOf = (value: unknown) => (isRecord(value) && typeof value.batch === 'string' ? value : null);
const asideOf = (value: unknown): readonly SetAside[] => (Array.isArray(value) ? value.filter(isSetAside) : []);

/** Whether a value is a whole station. */
export const isStationData = (value: unknown): value is StationData =>
  isRecord(value) &&
  isNumbered(value.station) &&
  typeof value.run === 'string' &&
  typeof value.revision === 'number' &&
  Array.isArray(value.setAside) &&
  RESOURCE_NAMES.every((name) => isList(value[name]));

/** A station as the server tells it whole, its lists packed or not; undefined: it is none. */
export function stationOf(value: Readonly<Record<string, unknown>>): StationData | undefined {
  const lists = RESOURCE_NAMES.map((name) => [name, unpackRecords(value[name]) ?? value[name]]);
  const data: unknown = {
    ...value,
    ...Object.fromEntries(lists),
    undo: undoOf(value.undo),
    setAside: asideOf(value.setAside),
  };
  return isStationData(data) ? data : undefined;
}

/** A list with some records replaced or added and some gone, in the order of their numbers; the very list when nothing of it changed. */
function mergedList(
  list: readonly Numbered[],
  changed: readonly Numbered[],
  gone: readonly number[],
): readonly Numbered[] {
  if (changed.length === 0 && gone.length === 0) return list;
  const fresh = new Map(changed.map((one) => [one.id, one]));
  const away = new Set(gone);
  const kept = list.flatMap((one) => {
    const other = fresh.get(one.id);
    fresh.delete(one.id);
    return away.has(one.id) ? [] : [other ?? one];
  });
  const added = [...fresh.values()];
  const last = kept.at(-1)?.id ?? 0;
  const merged = [...kept, ...added];
  return added.every(({ id }) => id > last) ? merged : merged.sort((a, b) => a.id - b.id);
}

/** A station brought up to date by what changed since; untouched lists stay the same objects. Undefined: the delta is none. */
export function broughtUpToDate(known: StationData, delta: unknown): StationData | undefined {
  if (!isRecord(delta) || typeof delta.revision !== 'number' || !isRecord(delta.changed) || !isRecord(delta.gone))
    return undefined;
  if (delta.revision < known.revision) return known;
  const touched: [ResourceName, readonly Numbered[]][] = [];
  const told = new Set<string>();
  for (const name of RESOURCE_NAMES) {
    const changed = delta.changed[name] ?? [];
    const gone = delta.gone[name] ?? [];
    if (!isList(changed) || !Array.isArray(gone)) return undefined;
    const away = gone.map(Number);
    for (const id of [...changed.map((one) => one.id), ...away]) told.add(`${name} ${id}`);
    const merged = mergedList(known[name], changed, away);
    if (merged !== known[name]) touched.push([name, merged]);
  }
  // what was set aside and is told of again was judged anew
  const still = known.setAside.filter(({ resource, record }) => !told.has(`${resource} ${String(record.id)}`));
  const data: unknown = {
    ...known,
    revision: delta.revision,
    undo: undoOf(delta.undo),
    ...(isNumbered(delta.station) ? { station: delta.station } : {}),
    setAside: [...still, ...asideOf(delta.setAside)],
    ...Object.fromEntries(touched),
  };
  return isStationData(data) ? data : undefined;
}
