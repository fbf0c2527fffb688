import { requirePositive } from '../errors';
import type { Draft } from './kind';

/** Farther off than this an antenna is not called on frequency, ratio: what a careful builder holds with a tape. Common practice, no source. */
const ON_FREQUENCY_RATIO = 0.005;

/** Whether a drafted length is on frequency by its wire model, and how far off it is. */
interface OnFrequency {
  readonly on: boolean;
  /** Dip of the model over the frequency wanted, less one: −0.016 is 1.6 % low. */
  readonly offRatio: number;
  /** The piece that is trimmed, as drafted. */
  readonly draftedM: number;
}

/** @param dipHz dip of the drafted antenna's wire model, as long as the draft says. */
export function onFrequency(draft: Pick<Draft, 'trimLengthM'>, freqHz: number, dipHz: number): OnFrequency {
  requirePositive(freqHz, 'Frequency wanted (Hz)');
  requirePositive(dipHz, 'Dip of the model (Hz)');
  const ratio = dipHz / freqHz;
  return {
    on: Math.abs(ratio - 1) <= ON_FREQUENCY_RATIO,
    offRatio: ratio - 1,
    draftedM: draft.trimLengthM,
  };
}
