import { fixed, levelSlipOf } from '@velvet-reed/core/units';

/** Levels that a listener's receiver shows; nothing else is known before the first reading. */
const USUAL_DBM = [-120, -95, -73];

/**
 * What to ask about levels that look like a slip: a lost minus sign, or ten or a thousand times what was read before.
 * @param fields names of the level fields with what the screen calls them. @param earlier levels read before, dBm.
 */
export function levelDoubt(
  values: Readonly<Record<string, unknown>>,
  fields: Readonly<Record<string, string>>,
  earlier: readonly number[],
): string | undefined {
  const known = earlier.length > 0 ? earlier : USUAL_DBM;
  for (const [name, label] of Object.entries(fields)) {
    const value = values[name];
    if (typeof value !== 'number') continue;
    const slip = levelSlipOf(value, known);
    if (slip)
      return `${label}: ${fixed(value, 1).replace('-', '−')} dBm is far from what a receiver shows here (${slip.kind === 'sign' ? 'a minus sign may be missing' : `about ${slip.kind} off`}). Did you mean ${fixed(slip.meant, 1).replace('-', '−')} dBm?`;
  }
  return undefined;
}
