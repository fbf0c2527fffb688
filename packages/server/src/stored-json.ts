/**
 * What a column of JSON holds: tables of some releases declare it as text, and one of them wrote a text of a text when a deletion was undone.
 * What is no JSON stays as it is, and is set aside by its schema.
 */
export function storedJson(value: unknown): unknown {
  if (typeof value !== 'string') return value;
  try {
    return storedJson(JSON.parse(value));
  } catch {
    return value;
  }
}
