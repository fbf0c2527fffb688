import { requirePositive, requireRange } from '../errors';
import { erfc } from '../numeric/special';
import { powerDb, sumPowersDb } from '../units/decibel';

/**
 * Noise that a strong carrier brings through a receiver's own oscillator or sample clock.
 * @param interfererDbm its level at the receiver. @param noiseDbcPerHz phase noise at its offset, flat over the bandwidth.
 * @param mdsDbm floor without it, in the same bandwidth.
 * Source: Robins, Phase Noise in Signal Sources (1982), reciprocal mixing: P + L + 10·log B.
 */
export function reciprocalMixing(input: {
  readonly interfererDbm: number;
  readonly noiseDbcPerHz: number;
  readonly bandwidthHz: number;
  readonly mdsDbm: number;
}) {
  requirePositive(input.bandwidthHz, 'Bandwidth (Hz)');
  requireRange(input.noiseDbcPerHz, 'Phase noise (dBc/Hz)', -220, 0);
  const perDbm = input.noiseDbcPerHz + powerDb(input.bandwidthHz);
  const noiseDbm = input.interfererDbm + perDbm;
  const floorDbm = sumPowersDb([noiseDbm, input.mdsDbm]);
  return {
    ...{ noiseDbm, floorDbm, riseDb: floorDbm - input.mdsDbm },
    // as much again as the floor doubles it: 3 dB
    interfererFor3Dbm: input.mdsDbm - perDbm,
  };
}

/**
 * Many unrelated signals in a converter: their sum is Gaussian, and its tails clip.
 * @param powerDbm power of all together. @param fullScaleDbm level of a sine that just fills the converter.
 * @returns room for peaks over the mean (dB, and as a ratio to one sigma) and the share of samples that clip.
 */
export function gaussianClipping(powerDbm: number, fullScaleDbm: number) {
  requireRange(powerDbm, 'Power (dBm)', -300, 100);
  requireRange(fullScaleDbm, 'Full scale (dBm)', -300, 100);
  const crestDb = fullScaleDbm - powerDbm + powerDb(2);
  const sigmas = 10 ** (crestDb / 20);
  return { crestDb, sigmas, clippedShare: erfc(sigmas / Math.SQRT2) };
}

/** A signal and a third-order product on one frequency, before and behind a pad: the product falls three times as much. */
export function mixedBehindPad(realDbm: number, productDbm: number, padDb: number) {
  requireRange(padDb, 'Pad (dB)', 0, 200);
  const beforeDbm = sumPowersDb([realDbm, productDbm]);
  const afterDbm = sumPowersDb([realDbm - padDb, productDbm - 3 * padDb]);
  return { beforeDbm, afterDbm, dropDb: beforeDbm - afterDbm };
}
