/** A typed value that looks like a slip of the decimal point, of the unit's prefix or of the sign. */
export interface Slip {
  /** What was probably meant. */
  readonly meant: number;
  readonly kind: 'tenfold' | 'hundredfold' | 'thousandfold' | 'sign';
}

/** How close to a power of ten a ratio must lie to look like a slip, in decades: a factor of 2 either way. */
const NEAR = 0.3;
/** Values within a factor of 4 of their neighbours are nobody's slip. */
const CALM = 0.6;
/** Levels below this are expected to be negative, dB. */
const CLEARLY_NEGATIVE = -20;

const middle = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1];

/**
 * Whether a positive quantity is a factor of ten, a hundred or a thousand off its neighbours. It is asked back, never refused: the listener may be right.
 * @param neighbours earlier values, or what the context expects; empty: nothing to compare with.
 */
export function slipOf(value: number, neighbours: readonly number[]): Slip | undefined {
  const known = neighbours.filter((one) => one > 0);
  if (!(value > 0) || known.length === 0) return undefined;
  const decades = Math.log10(value / middle(known));
  if (Math.abs(decades) < CALM) return undefined;
  for (const [power, kind] of [
    [1, 'tenfold'],
    [2, 'hundredfold'],
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

const POWERS = [1000, 1 / 1000, 10, 1 / 10, 100, 1 / 100];

/** A value outside every span given that lies inside one after a factor of ten, a hundred or a thousand: what was probably meant. */
export const spanSlipOf = (
  value: number,
  spans: readonly { readonly low: number; readonly high: number }[],
): number | undefined => {
  const inside = (one: number): boolean => spans.some(({ low, high }) => one >= low && one <= high);
  return inside(value) ? undefined : POWERS.map((power) => value * power).find(inside);
};

/**
 * Whether a band fits a listed one only after a factor of ten, a hundred or a thousand: "0.5 to 1.7 kHz" where medium wave is meant. Bands that touch a
 * listed one as they are need no question. The digits must fit: times the factor, half of what the two cover together is common to both.
 * @returns the listed band that was probably meant.
 */
export function bandSlipOf<B extends { readonly lowHz: number; readonly highHz: number }>(
  lowHz: number,
  highHz: number,
  listed: readonly B[],
): B | undefined {
  if (!(lowHz > 0) || !(highHz > lowHz) || listed.some((one) => lowHz <= one.highHz && highHz >= one.lowHz))
    return undefined;
  for (const factor of POWERS) {
    const [low, high] = [lowHz * factor, highHz * factor];
    const found = listed.find((one) => {
      const commonHz = Math.min(high, one.highHz) - Math.max(low, one.lowHz);
      const togetherHz = Math.max(high, one.highHz) - Math.min(low, one.lowHz);
      return commonHz >= LEAST_COMMON * togetherHz;
    });
    if (found) return found;
  }
  return undefined;
}
/** Bands that have this share of what they cover together in common are the same band, as a person rounds it. */
const LEAST_COMMON = 0.5;
