import type { HeadAmplifier } from '../antenna/kind';
import { filterLossDb } from '../filter/response';
import { SOLD_FILTERS, USUAL_PREAMPLIFIER } from '../path/usual-parts';

/** Something that is put between antenna and line, or ahead of an antenna's own amplifier. */
export interface Addition {
  readonly id: string;
  readonly name: string;
  /** What it is good for, one clause. */
  readonly why: string;
  readonly price: number;
  readonly hours: number;
  readonly lossDb: number;
  /** What it takes of a frequency beyond its loss, dB. */
  readonly stopDb: (freqHz: number) => number;
  readonly amplifier?: HeadAmplifier & { readonly noiseFigureDb: number };
  /** Of a filter: what it is, with the usual five poles. */
  readonly filter?: {
    readonly shape: 'lowpass' | 'highpass' | 'bandpass' | 'bandstop';
    readonly edgeLowHz: number;
    readonly edgeHighHz: number;
  };
}

/** An ordinary preamplifier at the antenna, below and above 30 MHz. Assumed figures and prices. */
const PREAMPLIFIERS: readonly Addition[] = [
  {
    ...{ id: 'preamp-hf', name: 'preamplifier at the antenna', why: 'what the line and the receiver add counts less' },
    ...{ price: 50, hours: 1, lossDb: 0, stopDb: () => 0 },
    amplifier: USUAL_PREAMPLIFIER.hf,
  },
  {
    ...{ id: 'preamp-vhf', name: 'preamplifier at the antenna', why: 'what the line and the receiver add counts less' },
    ...{ price: 45, hours: 1, lossDb: 0, stopDb: () => 0 },
    amplifier: USUAL_PREAMPLIFIER.vhf,
  },
];

interface Span {
  readonly lowHz: number;
  readonly highHz: number;
}

/** Filters as they are sold or wound, with what they cost here (assumed) and what each is good for. */
const FILTERS: readonly (Pick<Addition, 'name' | 'why' | 'price'> & { readonly is: keyof typeof SOLD_FILTERS })[] = [
  { is: 'low-pass', name: 'low-pass filter at 30 MHz', why: 'keeps VHF stations off', price: 25 },
  { is: 'fm-notch', name: 'FM notch filter', why: 'keeps FM stations off', price: 30 },
  { is: 'high-pass', name: 'high-pass filter at 3 MHz', why: 'keeps medium-wave stations off', price: 30 },
];
const POLES = { family: 'chebyshev', order: 5, rippleDb: 0.1 } as const;
/** Nobody's screening is better, dB. */
const MOST_STOP_DB = 60;
const stopOf =
  (filter: NonNullable<Addition['filter']>) =>
  (freqHz: number): number =>
    Math.min(MOST_STOP_DB, filterLossDb({ ...POLES, ...filter, insertionLossDb: 0 }, freqHz));

/** A band filter passes targets within this ratio of their middle. */
const BAND_RATIO = 1.06;

/** The band filter that all targets would pass. */
function bandFilter(targets: readonly Span[]): Addition | undefined {
  const low = Math.min(...targets.map(({ lowHz }) => lowHz));
  const high = Math.max(...targets.map(({ highHz }) => highHz));
  const middle = Math.sqrt(low * high);
  if (high / low > BAND_RATIO ** 2) return undefined;
  const filter = { shape: 'bandpass', edgeLowHz: middle / BAND_RATIO, edgeHighHz: middle * BAND_RATIO } as const;
  return {
    ...{ id: 'band-filter', name: 'band filter', why: 'passes only what is wanted', price: 60, hours: 1, lossDb: 1.5 },
    ...{ filter, stopDb: stopOf(filter) },
  };
}

/** Filters that let all targets pass and stop one of the transmitters at least. */
export const filtersFor = (targets: readonly Span[], transmittersHz: readonly number[]): readonly Addition[] => {
  const band = bandFilter(targets);
  const ready: readonly Addition[] = [
    ...FILTERS.filter(({ is }) => targets.every((target) => SOLD_FILTERS[is].passes(target))).map(
      ({ is, ...one }): Addition => {
        const { shape, edgeLowHz, edgeHighHz, insertionLossDb } = SOLD_FILTERS[is].filter;
        const filter = { shape, edgeLowHz, edgeHighHz };
        return { ...one, ...{ id: is, hours: 0.5, lossDb: insertionLossDb, filter, stopDb: stopOf(filter) } };
      },
    ),
    ...(band ? [band] : []),
  ];
  return ready.filter((one) => transmittersHz.some((freqHz) => one.stopDb(freqHz) > LEAST_STOP_DB));
};
/** Less than this is no help, dB. */
const LEAST_STOP_DB = 10;

/** The preamplifier for what is wanted; undefined where the targets lie on both sides of 30 MHz. */
export const preamplifierFor = (targets: readonly Span[]): Addition | undefined => {
  if (targets.every(({ highHz }) => highHz <= 30e6)) return PREAMPLIFIERS[0];
  return targets.every(({ lowHz }) => lowHz >= 30e6) ? PREAMPLIFIERS[1] : undefined;
};
