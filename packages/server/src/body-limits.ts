import { RequestError, TooMuchError } from './refusals';

/** Bounds that no honest request reaches: 500 changes of 40 fields are 20,000 values. */
const MOST_VALUES = 100_000;
const MOST_KEYS = 100;
const MOST_ITEMS = 2_000;
// a run of an antenna on which a test was made lies eleven levels down
const DEEPEST = 14;
const LONGEST_TEXT = 20_000;

/**
 * Bounds a parsed body before anything looks at its meaning: the walk ends at the first excess, whatever the rest holds.
 * @throws TooMuchError, or RequestError for a number that JSON wrote too large for a computer (1e999 is read as infinite).
 */
export function requireModest(body: unknown): void {
  let values = 0;
  const walk = (value: unknown, depth: number): void => {
    values += 1;
    if (values > MOST_VALUES || depth > DEEPEST) throw new TooMuchError('This is too much at once. Save in parts.');
    if (typeof value === 'number' && !Number.isFinite(value))
      throw new RequestError('A number of the request is too large to be computed with. Correct it and save again.');
    if (typeof value === 'string' && value.length > LONGEST_TEXT)
      throw new TooMuchError(`A text of the request is longer than ${LONGEST_TEXT} characters. Shorten it.`);
    if (typeof value !== 'object' || value === null) return;
    if (Array.isArray(value)) {
      if (value.length > MOST_ITEMS)
        throw new TooMuchError(`A list of the request has more than ${MOST_ITEMS} entries. Save in parts.`);
      for (const item of value) walk(item, depth + 1);
      return;
    }
    const parts: unknown[] = Object.values(value);
    if (parts.length > MOST_KEYS)
      throw new TooMuchError(
        `A group of the request has more than ${MOST_KEYS} fields. Leave out what is not known here.`,
      );
    for (const part of parts) walk(part, depth + 1);
  };
  walk(body, 0);
}
