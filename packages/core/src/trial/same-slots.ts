import { requireRange, ShapeError } from '../errors';
import { logGamma } from '../numeric/special';

/** Probability of at most k of n at even odds, both sides together: exact, not above 1. */
function evenOddsTwoSided(k: number, n: number): number {
  if (n === 0) return 1;
  const least = Math.min(k, n - k);
  let tail = 0;
  for (let i = 0; i <= least; i += 1)
    tail += Math.exp(logGamma(n + 1) - logGamma(i + 1) - logGamma(n - i + 1) - n * Math.LN2);
  return Math.min(1, 2 * tail);
}

const requireCount = (value: number, what: string): void => {
  requireRange(value, what, 0, 1e7);
  if (!Number.isInteger(value)) throw new ShapeError(`${what} is ${value}; it must be a whole number. Correct it.`);
};

/** Which of two was better more often, ties left out: exact two-sided binomial test. Source: Dixon & Mood, JASA 41 (1946) 557. */
export function signTest(winsA: number, winsB: number) {
  requireCount(winsA, 'Wins of A');
  requireCount(winsB, 'Wins of B');
  const n = winsA + winsB;
  return { pTwoSided: evenOddsTwoSided(winsA, n), shareA: n === 0 ? null : winsA / n };
}

/** The same transmissions on two receivers or antennas at once. */
export interface SameSlots {
  readonly both: number;
  readonly onlyA: number;
  readonly onlyB: number;
  readonly none: number;
}

/**
 * Who heard more of the same transmissions: only those heard by one alone tell. Exact two-sided test.
 * Source: McNemar, Psychometrika 12 (1947) 153, with binomial probabilities.
 */
export function sameSlotsTest({ both, onlyA, onlyB, none }: SameSlots) {
  requireCount(both, 'Heard by both');
  requireCount(onlyA, 'Heard by A alone');
  requireCount(onlyB, 'Heard by B alone');
  requireCount(none, 'Heard by none');
  const n = both + onlyA + onlyB + none;
  if (n === 0) throw new ShapeError('There are no slots to compare. Count at least one.');
  return {
    rateA: (both + onlyA) / n,
    rateB: (both + onlyB) / n,
    differencePercent: (100 * (onlyA - onlyB)) / n,
    pTwoSided: evenOddsTwoSided(onlyA, onlyA + onlyB),
  };
}
