/**
 * Quantile of values, linear between order statistics (type 7 of Hyndman & Fan 1996).
 * @param share 0 to 1; NaN for no values.
 */
export function quantile(values: readonly number[] | Float64Array, share: number): number {
  const sorted = Float64Array.from(values).sort();
  if (sorted.length === 0) return NaN;
  const place = share * (sorted.length - 1);
  const below = Math.floor(place);
  const above = Math.min(sorted.length - 1, below + 1);
  return sorted[below] + (place - below) * (sorted[above] - sorted[below]);
}

/** The middle value, or the mean of the two in the middle; NaN for no values. */
export const median = (values: readonly number[] | Float64Array): number => quantile(values, 0.5);
