/** A typed value that looks like a slip of the decimal point, of the unit's prefix or of the sign. */
export interface Slip {
  /** What was probably meant. */
  readonly meant: number;
  readonly kind: 'tenfold' | 'thousandfold' | 'sign';
}

/** How close to a power of ten a ratio must lie to look like a slip, in decades: a factor of 2 either way. */
const NEAR = 0.3;
/** Values within a factor of 4 of their neighbours are nobody's slip. */
const CALM = 0.6;
/** Levels below this are expected to be negative, dB. */
const CLEARLY_NEGATIVE = -20;

const middle = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1];

/**
 * Whether a positive quantity is a factor of ten or a thousand off its neighbours. It is asked back, never refused: the listener may be right.
 * @param neighbours earlier values, or what the context expects; empty: nothing to compare with.
 */
export function slipOf(value: number, neighbours: readonly number[]): Slip | undefined {
  const known = neighbours.filter((one) => one > 0);
  if (!(value > 0) || known.length === 0) return undefined;
  const decades = Math.log10(value / middle(known));
  if (Math.abs(decades) < CALM) return undefined;
  for (const [power, kind] of [
    [1, 'tenfold'],
    [3, 'thousandfold'],
  ] as const)
    if (Math.abs(Math.abs(decades) - power) <= NEAR) return { meant: value / 10 ** (Math.sign(decades) * power), kind };
  return undefined;
}

/** The same for a level in dB or dBm: a lost minus sign, or a factor of ten among neighbours that lie far below zero. */
export function levelSlipOf(levelDb: number, neighbours: readonly number[]): Slip | undefined {
  if (neighbours.length === 0) return undefined;
  const expected = middle(neighbours);
  if (expected > CLEARLY_NEGATIVE) return undefined;
  if (levelDb > -CLEARLY_NEGATIVE) return { meant: -levelDb, kind: 'sign' };
  const off = slipOf(-levelDb, [-expected]);
  return off ? { meant: -off.meant, kind: off.kind } : undefined;
}
