/** Records as one list for each of their fields: all records of a list have the same fields. */
export interface PackedRecords {
  readonly count: number;
  readonly fields: Readonly<Record<string, readonly unknown[]>>;
}

/** Turns records into lists by field. */
export function packRecords(records: readonly Readonly<Record<string, unknown>>[]): PackedRecords {
  const names = Object.keys(records[0] ?? {});
  return {
    count: records.length,
    fields: Object.fromEntries(names.map((name) => [name, records.map((record) => record[name])])),
  };
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Turns them back; undefined for what is no packed list. */
export function unpackRecords(value: unknown): readonly Record<string, unknown>[] | undefined {
  if (!isRecord(value) || !isRecord(value.fields) || typeof value.count !== 'number') return undefined;
  const { count } = value;
  const fields = Object.entries(value.fields).flatMap(([name, list]: [string, unknown]) =>
    Array.isArray(list) && list.length === count ? [[name, list] as const] : [],
  );
  if (fields.length !== Object.keys(value.fields).length) return undefined;
  return Array.from({ length: count }, (_, i) => {
    const record: Record<string, unknown> = {};
    for (const [name, list] of fields) record[name] = list[i];
    return record;
  });
}
