import type { TrialResult } from '../trial/verdict';
import { requireRange } from '../errors';

/** What a proven dB of SNR costs: nothing is said of a difference that is not proven. */
export type Worth =
  | { readonly state: 'not proven' }
  /** The antenna that hears more costs no more. */
  | { readonly state: 'not dearer'; readonly better: 'A' | 'B'; readonly gainDb: number }
  | {
      readonly state: 'priced';
      readonly better: 'A' | 'B';
      readonly gainDb: number;
      readonly perDb: number;
      /** By the ends of the interval that decides. */
      readonly lowest: number;
      readonly highest: number;
    };

/**
 * Extra price of the better antenna of a trial over its gain in SNR. Prices in one currency.
 * @throws OutOfRangeError for a negative price.
 */
export function pricePerProvenDb(snr: TrialResult, priceA: number, priceB: number): Worth {
  requireRange(priceA, 'Price of A', 0);
  requireRange(priceB, 'Price of B', 0);
  const { result, proven, interval } = snr;
  if (!proven || !result || !interval) return { state: 'not proven' };
  const better = result.mean > 0 ? 'B' : 'A';
  const gainDb = Math.abs(result.mean);
  const extra = better === 'B' ? priceB - priceA : priceA - priceB;
  if (extra <= 0) return { state: 'not dearer', better, gainDb };
  const [least, most] = [Math.abs(interval.low), Math.abs(interval.high)].sort((a, b) => a - b);
  return { state: 'priced', better, gainDb, perDb: extra / gainDb, lowest: extra / most, highest: extra / least };
}
