import type { HeadAmplifier } from '../antenna/kind';

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
  stopDb(freqHz: number): number;
  readonly amplifier?: HeadAmplifier & { readonly noiseFigureDb: number };
}

const none = (): number => 0;

/** An ordinary preamplifier at the antenna, below and above 30 MHz. Assumed figures and prices. */
const PREAMPLIFIERS: readonly Addition[] = [
  {
    ...{ id: 'preamp-hf', name: 'preamplifier at the antenna', why: 'what the line and the receiver add counts less' },
    ...{ price: 50, hours: 1, lossDb: 0, stopDb: none },
    amplifier: { gainDb: 15, noiseFigureDb: 3, iip2Dbm: 55, iip3Dbm: 20 },
  },
  {
    ...{ id: 'preamp-vhf', name: 'preamplifier at the antenna', why: 'what the line and the receiver add counts less' },
    ...{ price: 45, hours: 1, lossDb: 0, stopDb: none },
    amplifier: { gainDb: 20, noiseFigureDb: 1, iip2Dbm: 35, iip3Dbm: 10 },
  },
];

interface Span {
  readonly lowHz: number;
  readonly highHz: number;
}

/** Filters as they are sold or wound, each with where it may be used. Assumed figures and prices. */
const FILTERS: readonly (Omit<Addition, 'stopDb' | 'hours'> & {
  readonly passes: (target: Span) => boolean;
  stopDb(freqHz: number): number;
})[] = [
  {
    ...{ id: 'low-pass', name: 'low-pass filter at 30 MHz', why: 'keeps VHF stations off', price: 25, lossDb: 0.5 },
    passes: ({ highHz }) => highHz <= 30e6,
    stopDb: (freqHz) => (freqHz > 60e6 ? 60 : freqHz > 40e6 ? 25 : 0),
  },
  {
    ...{ id: 'fm-notch', name: 'FM notch filter', why: 'keeps FM stations off', price: 30, lossDb: 1 },
    passes: ({ lowHz, highHz }) => highHz < 80e6 || lowHz > 112e6,
    stopDb: (freqHz) => (freqHz >= 87.5e6 && freqHz <= 108e6 ? 40 : 0),
  },
  {
    ...{
      id: 'high-pass',
      name: 'high-pass filter at 3 MHz',
      why: 'keeps medium-wave stations off',
      price: 30,
      lossDb: 0.5,
    },
    passes: ({ lowHz }) => lowHz >= 3e6,
    stopDb: (freqHz) => (freqHz < 1.8e6 ? 50 : 0),
  },
];
/** A band filter passes targets within this ratio of their middle, and stops what lies this ratio off. */
const BAND_RATIO = 1.06;
const STOP_RATIO = 1.15;

/** The band filter that all targets would pass. */
function bandFilter(targets: readonly Span[]): Addition | undefined {
  const low = Math.min(...targets.map(({ lowHz }) => lowHz));
  const high = Math.max(...targets.map(({ highHz }) => highHz));
  const middle = Math.sqrt(low * high);
  if (high / low > BAND_RATIO ** 2) return undefined;
  return {
    ...{ id: 'band-filter', name: 'band filter', why: 'passes only what is wanted', price: 60, hours: 1, lossDb: 1.5 },
    stopDb: (freqHz) => (freqHz > middle * STOP_RATIO || freqHz < middle / STOP_RATIO ? 40 : 0),
  };
}

/** Filters that let all targets pass and stop one of the transmitters at least. */
export const filtersFor = (targets: readonly Span[], transmittersHz: readonly number[]): readonly Addition[] => {
  const band = bandFilter(targets);
  const ready: readonly Addition[] = [
    ...FILTERS.filter(({ passes }) => targets.every((target) => passes(target))).map((one) => ({ ...one, hours: 0.5 })),
    ...(band ? [band] : []),
  ];
  return ready.filter((one) => transmittersHz.some((freqHz) => one.stopDb(freqHz) > 0));
};

/** The preamplifier for what is wanted; undefined where the targets lie on both sides of 30 MHz. */
export const preamplifierFor = (targets: readonly Span[]): Addition | undefined => {
  if (targets.every(({ highHz }) => highHz <= 30e6)) return PREAMPLIFIERS[0];
  return targets.every(({ lowHz }) => lowHz >= 30e6) ? PREAMPLIFIERS[1] : undefined;
};
