import type { FilterSpec } from '../filter/response';
import { frequencyText } from '../units/format';

/** A band that is to pass. */
export interface PassBand {
  readonly lowHz: number;
  readonly highHz: number;
}

/** A filter as it is sold or wound, by what it is for. */
export interface NamedFilter {
  readonly id: string;
  /** "an FM notch". */
  readonly name: string;
  readonly filter: FilterSpec;
}

const POLES = { family: 'chebyshev', order: 5, rippleDb: 0.1 } as const;
/** From here up a notch of five poles leaves a band alone, ratio of frequencies. Assumed. */
const NOTCH_HALF = 1.04;
const NOTCH_CLEAR = 1.1;
/** Half of a band filter, ratio of frequencies. Assumed. */
const BAND_HALF = 1.06;

/** Bands of broadcasters whose stops are sold ready made: where they are, and edges of the stop. Common practice, no source. */
const STOPS = [
  { id: 'fm-notch', name: 'an FM notch', fromHz: 87.5e6, toHz: 108e6, lowHz: 78e6, highHz: 116e6 },
  { id: 'dab-notch', name: 'a DAB notch', fromHz: 174e6, toHz: 240e6, lowHz: 165e6, highHz: 255e6 },
] as const;
const MEDIUM_WAVE_TO_HZ = 1.71e6;
const HIGH_PASS_HZ = 3e6;
const SHORT_WAVE_TO_HZ = 30e6;

const clear = (band: PassBand, lowHz: number, highHz: number): boolean => band.highHz < lowHz || band.lowHz > highHz;

/**
 * Filters by name that stop a carrier and pass what is wanted, that of its band before one of its own, a band filter last. Five poles, 0.1 dB of ripple,
 * 0.5 to 1.5 dB lost in real parts (assumed).
 */
export function filtersAgainst(
  carrier: { readonly name: string; readonly freqHz: number },
  wanted: PassBand,
): readonly NamedFilter[] {
  const { freqHz } = carrier;
  const found: NamedFilter[] = [];
  if (freqHz < MEDIUM_WAVE_TO_HZ && wanted.lowHz > 1.3 * MEDIUM_WAVE_TO_HZ)
    found.push({
      ...{ id: 'mw-high-pass', name: 'a medium-wave high-pass' },
      filter: {
        ...POLES,
        ...{ shape: 'highpass', edgeLowHz: Math.min(HIGH_PASS_HZ, 0.95 * wanted.lowHz), insertionLossDb: 0.5 },
      },
    });
  for (const { id, name, fromHz, toHz, lowHz, highHz } of STOPS)
    if (freqHz >= fromHz && freqHz <= toHz && clear(wanted, lowHz, highHz))
      found.push({
        ...{ id, name },
        filter: { ...POLES, shape: 'bandstop', edgeLowHz: lowHz, edgeHighHz: highHz, insertionLossDb: 1 },
      });
  if (freqHz > 1.3 * SHORT_WAVE_TO_HZ && wanted.highHz <= SHORT_WAVE_TO_HZ)
    found.push({
      ...{ id: 'low-pass', name: 'a low-pass at 30 MHz' },
      filter: { ...POLES, shape: 'lowpass', edgeHighHz: SHORT_WAVE_TO_HZ, insertionLossDb: 0.5 },
    });
  if (found.length === 0 && clear(wanted, freqHz / NOTCH_CLEAR, freqHz * NOTCH_CLEAR))
    found.push({
      ...{ id: `notch-${Math.round(freqHz / 1e4)}`, name: `a notch for ${carrier.name} at ${frequencyText(freqHz)}` },
      filter: {
        ...POLES,
        ...{ order: 3, shape: 'bandstop', edgeLowHz: freqHz / NOTCH_HALF, edgeHighHz: freqHz * NOTCH_HALF },
        insertionLossDb: 1,
      },
    });
  const [low, high] = [wanted.lowHz, wanted.highHz];
  if (clear({ lowHz: freqHz, highHz: freqHz }, low / BAND_HALF, high * BAND_HALF))
    found.push({
      ...{ id: 'band-filter', name: `a band filter for ${frequencyText((low + high) / 2)}` },
      filter: {
        ...POLES,
        ...{
          order: 3,
          shape: 'bandpass',
          edgeLowHz: low / BAND_HALF,
          edgeHighHz: high * BAND_HALF,
          insertionLossDb: 1.5,
        },
      },
    });
  return found;
}
