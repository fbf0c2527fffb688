import type { FilterSpec } from '../filter/response';
import { frequencyText } from '../units/format';

/** A band that is to pass. */
interface PassBand {
  readonly lowHz: number;
  readonly highHz: number;
}

/** A filter by what it is for. */
export interface NamedFilter {
  readonly id: string;
  /** "an FM notch". */
  readonly name: string;
  readonly filter: FilterSpec & { readonly edgeLowHz: number; readonly edgeHighHz: number };
}

/** A filter that is sold or wound for many: what it stops, and for whom it is good. */
interface SoldFilter extends NamedFilter {
  readonly passes: (wanted: PassBand) => boolean;
  readonly stops: (freqHz: number) => boolean;
}

const POLES = { family: 'chebyshev', order: 5, rippleDb: 0.1 } as const;
const clear = (band: PassBand, lowHz: number, highHz: number): boolean => band.highHz < lowHz || band.lowHz > highHz;
const within = (lowHz: number, highHz: number) => (freqHz: number) => freqHz >= lowHz && freqHz <= highHz;

/** Filters as they are sold, by id. Common practice for their edges, no source; five poles, 0.1 dB of ripple, 0.5 to 1 dB lost in real parts (assumed). */
export const SOLD_FILTERS = {
  'high-pass': {
    ...{ id: 'high-pass', name: 'a medium-wave high-pass' },
    filter: { ...POLES, shape: 'highpass', edgeLowHz: 3e6, edgeHighHz: 1e9, insertionLossDb: 0.5 },
    passes: ({ lowHz }) => lowHz >= 3e6,
    stops: within(0, 1.71e6),
  },
  'fm-notch': {
    ...{ id: 'fm-notch', name: 'an FM notch' },
    filter: { ...POLES, shape: 'bandstop', edgeLowHz: 78e6, edgeHighHz: 116e6, insertionLossDb: 1 },
    passes: (wanted) => clear(wanted, 75e6, 117e6),
    stops: within(87.5e6, 108e6),
  },
  'dab-notch': {
    ...{ id: 'dab-notch', name: 'a DAB notch' },
    filter: { ...POLES, shape: 'bandstop', edgeLowHz: 165e6, edgeHighHz: 255e6, insertionLossDb: 1 },
    passes: (wanted) => clear(wanted, 160e6, 260e6),
    stops: within(174e6, 240e6),
  },
  'low-pass': {
    ...{ id: 'low-pass', name: 'a low-pass at 30 MHz' },
    filter: { ...POLES, shape: 'lowpass', edgeLowHz: 1e6, edgeHighHz: 30e6, insertionLossDb: 0.5 },
    passes: ({ highHz }) => highHz <= 30e6,
    stops: (freqHz) => freqHz > 39e6,
  },
} as const satisfies Readonly<Record<string, SoldFilter>>;

/** A notch made for one carrier: half of its stop, and how far the wanted band must lie from the carrier, ratios of frequencies. Assumed. */
const NOTCH_HALF = 1.04;
const NOTCH_CLEAR = 1.1;
/** Half of a band filter beside the wanted band, ratio of frequencies. Assumed. */
const BAND_HALF = 1.06;

/** Filters by name that stop a carrier and pass what is wanted: that of its band, else a notch of three poles of its own, and a band filter last. */
export function filtersAgainst(
  { name, freqHz }: { readonly name: string; readonly freqHz: number },
  { lowHz, highHz }: PassBand,
): readonly NamedFilter[] {
  const wanted = { lowHz, highHz };
  const sold: readonly NamedFilter[] = Object.values<SoldFilter>(SOLD_FILTERS).filter(
    (one) => one.stops(freqHz) && one.passes(wanted),
  );
  const own: NamedFilter = {
    ...{ id: `notch-${Math.round(freqHz / 1e4)}`, name: `a notch for ${name} at ${frequencyText(freqHz)}` },
    filter: {
      ...{ ...POLES, order: 3, shape: 'bandstop', insertionLossDb: 1 },
      ...{ edgeLowHz: freqHz / NOTCH_HALF, edgeHighHz: freqHz * NOTCH_HALF },
    },
  };
  const band: NamedFilter = {
    ...{ id: 'band-filter', name: `a band filter for ${frequencyText((lowHz + highHz) / 2)}` },
    filter: {
      ...{ ...POLES, order: 3, shape: 'bandpass', insertionLossDb: 1.5 },
      ...{ edgeLowHz: lowHz / BAND_HALF, edgeHighHz: highHz * BAND_HALF },
    },
  };
  return [
    ...sold,
    ...(sold.length === 0 && clear(wanted, freqHz / NOTCH_CLEAR, freqHz * NOTCH_CLEAR) ? [own] : []),
    ...(freqHz < band.filter.edgeLowHz || freqHz > band.filter.edgeHighHz ? [band] : []),
  ];
}

/** An ordinary preamplifier below 30 MHz, and above. Assumed figures. */
export const USUAL_PREAMPLIFIER = {
  hf: { gainDb: 15, noiseFigureDb: 3, iip2Dbm: 55, iip3Dbm: 20 },
  vhf: { gainDb: 20, noiseFigureDb: 1, iip2Dbm: 35, iip3Dbm: 10 },
} as const;
