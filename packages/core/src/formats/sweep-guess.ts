/** Columns of a table of a sweep as numbers; a gap is NaN. */
type Columns = readonly (readonly number[])[];

/** What an uncertain column may be. */
type Meaning = string;

const finite = (values: readonly number[]): readonly number[] => values.filter(Number.isFinite);
const every = (values: readonly number[], fits: (value: number) => boolean): boolean =>
  finite(values).length > 0 && finite(values).every(fits);
const changesSign = (values: readonly number[]): boolean =>
  finite(values).some((v) => v < 0) && finite(values).some((v) => v > 0);
const largest = (values: readonly number[]): number => Math.max(...finite(values).map(Math.abs));

/** How much a list scatters about its middle: rough steps from row to row against its whole size. */
function roughness(values: readonly number[]): number {
  const list = finite(values);
  const steps = list.slice(1).map((value, i) => Math.abs(value - list[i]));
  const second = steps.slice(1).map((step, i) => Math.abs(step - steps[i]));
  const size = largest(list);
  return size === 0 ? 0 : second.reduce((sum, step) => sum + step, 0) / size + spread(list);
}
const spread = (list: readonly number[]): number =>
  (Math.max(...list) - Math.min(...list)) / Math.max(1e-9, largest(list));

/** Whether a column rises or falls from row to row without a break. */
function isScale(values: readonly number[]): boolean {
  const steps = values.slice(1).map((value, i) => value - values[i]);
  return values.every(Number.isFinite) && steps.length > 0 && (steps.every((s) => s > 0) || steps.every((s) => s < 0));
}
/** Row numbers: 0, 1, 2 or 1, 2, 3, or the same from the end. */
const isCount = (values: readonly number[]): boolean =>
  values.every(Number.isInteger) &&
  values.slice(1).every((value, i) => Math.abs(value - values[i]) === 1) &&
  Math.min(...values) <= 1 &&
  largest(values) <= values.length + 1;

/** Column that can be the frequency by its numbers: it follows a scale, is never below zero and does not merely count the rows. */
export const frequencyByNumbers = (columns: Columns): number =>
  columns.findIndex((values) => isScale(values) && every(values, (v) => v >= 0) && !isCount(values));

/** Γ's size of R + jX across 50 Ω is at most one where R is not below zero. */
const isResistance = (values: readonly number[]): boolean =>
  every(values, (v) => v >= 0 && v < 1e6) && largest(values) > 1.5;

/** Meanings of two columns that give a reflection, by their signs and sizes, the likelier first. */
function pairByNumbers(a: readonly number[], b: readonly number[]): readonly (readonly [Meaning, Meaning])[] {
  const found: [number, readonly [Meaning, Meaning]][] = [];
  const sizes = a.map((value, i) => Math.hypot(value, b[i]));
  if (every(sizes, (v) => v <= 1.05) && largest(b) <= 1.05 && (changesSign(a) || changesSign(b) || largest(sizes) <= 1))
    found.push([changesSign(a) || changesSign(b) ? 0 : 2, ['gamma-re', 'gamma-im']]);
  const turns = largest(b) <= 360 && largest(b) > 3.2;
  const inRadians = largest(b) <= Math.PI + 0.01;
  if (every(a, (v) => v >= 0 && v <= 1.05)) {
    if (turns) found.push([1, ['gamma-magnitude', 'gamma-degrees']]);
    else if (inRadians && largest(b) > 1.05) found.push([1, ['gamma-magnitude', 'gamma-radians']]);
  }
  if (every(a, (v) => v <= 0.3 && v > -100) && largest(a) > 1.05 && turns)
    found.push([1, ['gamma-db', 'gamma-degrees']]);
  if (isResistance(a)) {
    // R and X, or |Z| and its phase: what is R of the two, changes least along the sweep
    const cosine = (deg: number): number => Math.cos((deg * Math.PI) / 180);
    const asPolar = largest(b) <= 90.5 ? roughness(a.map((z, i) => z * cosine(b[i]))) : Infinity;
    const asParts = roughness(a);
    found.push([asPolar < asParts ? 2 : 1, ['r', 'x']]);
    if (asPolar < Infinity) found.push([asPolar < asParts ? 1 : 2, ['z-magnitude', 'z-degrees']]);
  }
  return found.sort(([one], [other]) => one - other).map(([, pair]) => pair);
}

/** Meaning of one column that gives a reflection without phase. */
function singleByNumbers(values: readonly number[]): Meaning | undefined {
  if (every(values, (v) => v >= 0.99) && largest(values) > 1) return 'swr';
  if (every(values, (v) => v >= 0 && v <= 1.05)) return 'gamma-magnitude';
  if (every(values, (v) => v <= 0.3 && v > -100)) return 'gamma-db';
  return undefined;
}

/**
 * What the columns of a table without a heading may be, the likeliest first: by signs, sizes, and how they run along the sweep.
 * @returns lists of meanings, one for each column, that can give a reflection; none where nothing fits.
 */
export function guessByNumbers(columns: Columns): readonly (readonly Meaning[])[] {
  const frequency = frequencyByNumbers(columns);
  if (frequency < 0) return [];
  const rest = columns.flatMap((_, k) => (k === frequency || isCount(columns[k]) ? [] : [k]));
  const named = (pairs: Readonly<Record<number, Meaning>>): readonly Meaning[] =>
    columns.map((_, k) => (k === frequency ? 'frequency' : (pairs[k] ?? 'ignore')));
  const pairs = rest
    .slice(0, -1)
    .flatMap((a, i) =>
      pairByNumbers(columns[a], columns[rest[i + 1]]).map((pair) => named({ [a]: pair[0], [rest[i + 1]]: pair[1] })),
    );
  const singles = rest.flatMap((k) => {
    const one = singleByNumbers(columns[k]);
    return one === undefined ? [] : [named({ [k]: one })];
  });
  return [...pairs, ...singles];
}
