import { requirePositive } from '../errors';

export type PreferredSeries = 'E12' | 'E24';

/** Values of a decade, IEC 60063. */
const DECADES: Readonly<Record<PreferredSeries, readonly number[]>> = {
  E12: [1, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2],
  E24: [
    1, 1.1, 1.2, 1.3, 1.5, 1.6, 1.8, 2, 2.2, 2.4, 2.7, 3, 3.3, 3.6, 3.9, 4.3, 4.7, 5.1, 5.6, 6.2, 6.8, 7.5, 8.2, 9.1,
  ],
};

/** Capacitors that shops have, F, ascending: 1 pF to 910 nF (E24) or 820 nF (E12). */
const preferredFarads = (series: PreferredSeries): readonly number[] =>
  [-12, -11, -10, -9, -8, -7].flatMap((power) => DECADES[series].map((value) => Number(`${value}e${power}`)));

/** Capacitors that make a value: which, their sum, and how far it is off as a ratio. */
export interface CapacitorChoice {
  readonly parts: readonly number[];
  readonly sumF: number;
  readonly error: number;
}

const choice = (parts: readonly number[], targetF: number): CapacitorChoice => {
  // summed in units of 0.01 pF: 470 pF and 0.47 nF must be one number
  const sumF = Number((parts.reduce((sum, value) => sum + value, 0) * 1e14).toFixed(0)) / 1e14;
  return { parts, sumF, error: Math.abs(sumF - targetF) / targetF };
};

/**
 * Nearest single preferred value and best pair side by side, larger first; both by relative error, exhaustively.
 * @param targetF wanted capacitance, F.
 */
export function preferredCapacitors(targetF: number, series: PreferredSeries) {
  requirePositive(targetF, 'Capacitance (F)');
  const values = preferredFarads(series);
  const better = (a: CapacitorChoice, b: CapacitorChoice): CapacitorChoice => (b.error < a.error - 1e-12 ? b : a);
  const single = values.map((value) => choice([value], targetF)).reduce(better);
  const pair = values
    .flatMap((large, i) => values.slice(0, i + 1).map((small) => choice([large, small], targetF)))
    .reduce(better);
  return { single, pair };
}

/**
 * Combinations of up to three preferred values side by side, best first, for padding a circuit; fewer parts before more at equal error.
 */
export function paddingChoices(targetF: number, series: PreferredSeries, most = 5): readonly CapacitorChoice[] {
  requirePositive(targetF, 'Capacitance (F)');
  const values = preferredFarads(series).filter((value) => value <= targetF * 1.2);
  const singles = values.map((value) => choice([value], targetF));
  const pairs = values.flatMap((large, i) => values.slice(0, i + 1).map((small) => choice([large, small], targetF)));
  // a third part only makes sense within the last decade and a half
  const near = values.filter((value) => value > targetF / 300);
  // for every pair only the values beside what is still missing can be among the best
  const triples = near.flatMap((a, i) =>
    near.slice(0, i + 1).flatMap((b, j) => {
      const at = firstFrom(near, targetF - a - b);
      return near.slice(Math.max(0, at - most), Math.min(j + 1, at + most)).map((c) => choice([a, b, c], targetF));
    }),
  );
  return [...singles, ...pairs, ...triples]
    .sort((a, b) => a.error - b.error || a.parts.length - b.parts.length)
    .slice(0, most);
}

/** Place of the first value in a rising list that is not below another, by halving. */
function firstFrom(rising: readonly number[], value: number): number {
  let [low, high] = [0, rising.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (rising[middle] < value) low = middle + 1;
    else high = middle;
  }
  return low;
}
