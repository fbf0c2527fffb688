import { falling, type GainSetting } from './gain-settings';

/** Figures of a receiver as records keep them, without its name. */
export interface ReceiverFigures {
  readonly bits: number;
  readonly fullScaleDbm: number;
  readonly sampleRateHz: number;
  readonly complexSamples: boolean;
  /** A dial and no samples: nothing folds, and no converter clips ahead of its filters. Absent: it samples. */
  readonly superhet?: boolean;
  readonly noiseFigureDb: number;
  readonly iip2Dbm: number;
  readonly iip3Dbm: number;
  readonly minHz: number;
  readonly maxHz: number;
}

/** A kind of receiver with figures that are usual for it. */
export interface ReceiverKind {
  readonly id: string;
  readonly name: string;
  /** At its lowest gain, where it bears most. */
  readonly figures: ReceiverFigures;
  /** The same at higher gains: less noise, less that it bears. */
  readonly gains?: readonly GainSetting[];
}

/**
 * Usual figures by kind of receiver, for somebody who has no data sheet: assumed, common practice, no source. Each set is consistent in itself: the converter's
 * own floor does not lie above the noise figure.
 */
export const RECEIVER_KINDS: readonly ReceiverKind[] = [
  {
    id: 'dongle',
    name: '8-bit wide-range dongle',
    figures: {
      ...{ bits: 7, fullScaleDbm: -32, sampleRateHz: 2.4e6, complexSamples: true, noiseFigureDb: 35 },
      ...{ iip2Dbm: 15, iip3Dbm: -15, minHz: 24e6, maxHz: 1766e6 },
    },
    gains: [
      { name: 'middle gain', noiseFigureDb: 17, fullScaleDbm: -50, iip2Dbm: 5, iip3Dbm: -25 },
      { name: 'high gain', noiseFigureDb: 6, fullScaleDbm: -62, iip2Dbm: -5, iip3Dbm: -32 },
    ],
  },
  {
    // the converter of the dongle itself, past its tuner
    id: 'dongle-direct',
    name: '8-bit dongle by its direct input',
    figures: {
      ...{ bits: 7, fullScaleDbm: -20, sampleRateHz: 28.8e6, complexSamples: false, noiseFigureDb: 39 },
      ...{ iip2Dbm: 20, iip3Dbm: 0, minHz: 500e3, maxHz: 14.4e6 },
    },
  },
  {
    id: 'wideband',
    name: '12-bit wideband receiver',
    figures: {
      ...{ bits: 10.5, fullScaleDbm: -25, sampleRateHz: 10e6, complexSamples: true, noiseFigureDb: 16 },
      ...{ iip2Dbm: 35, iip3Dbm: -5, minHz: 1e6, maxHz: 6e9 },
    },
    gains: [{ name: 'high gain', noiseFigureDb: 7, fullScaleDbm: -45, iip2Dbm: 20, iip3Dbm: -20 }],
  },
  {
    id: 'direct-14',
    name: '14-bit direct-sampling HF receiver',
    figures: {
      ...{ bits: 12, fullScaleDbm: -10, sampleRateHz: 122.88e6, complexSamples: false, noiseFigureDb: 15 },
      ...{ iip2Dbm: 60, iip3Dbm: 25, minHz: 10e3, maxHz: 30e6 },
    },
  },
  {
    id: 'direct-16',
    name: '16-bit direct-sampling HF receiver',
    figures: {
      ...{ bits: 13, fullScaleDbm: -4, sampleRateHz: 122.88e6, complexSamples: false, noiseFigureDb: 13 },
      ...{ iip2Dbm: 70, iip3Dbm: 30, minHz: 10e3, maxHz: 54e6 },
    },
  },
  {
    id: 'sound-card',
    name: 'Sound card, for the lowest bands',
    figures: {
      ...{ bits: 15, fullScaleDbm: 5, sampleRateHz: 192e3, complexSamples: false, noiseFigureDb: 45 },
      ...{ iip2Dbm: 60, iip3Dbm: 30, minHz: 1e3, maxHz: 90e3 },
    },
  },
  {
    id: 'superhet',
    name: 'Superhet with an S meter',
    figures: {
      // no converter ahead of its filters: what overloads it is its mixer, told by the intercepts
      ...{ bits: 24, fullScaleDbm: 10, sampleRateHz: 1e6, complexSamples: true, noiseFigureDb: 12, superhet: true },
      ...{ iip2Dbm: 60, iip3Dbm: 10, minHz: 100e3, maxHz: 30e6 },
    },
  },
];

/** The kind whose figures a record holds unchanged; undefined once somebody measured or typed others. */
const kindOfFigures = (figures: ReceiverFigures): ReceiverKind | undefined =>
  RECEIVER_KINDS.find((kind) => KEYS.every((key) => kind.figures[key] === figures[key]));
const KEYS = ['bits', 'fullScaleDbm', 'sampleRateHz', 'noiseFigureDb', 'iip2Dbm', 'iip3Dbm', 'minHz', 'maxHz'] as const;

/**
 * A receiver at each gain that is known of it, as entered first: those that its owner typed, else those that are usual for its kind. A listener works at the
 * one that suits the antenna.
 */
export const atWorkingGains = <
  R extends ReceiverFigures & { readonly name: string; readonly gains?: readonly GainSetting[] },
>(
  receiver: R,
): readonly R[] => {
  const own = receiver.gains ?? [];
  const gains = own.length > 0 ? own : (kindOfFigures(receiver)?.gains ?? []);
  return [
    receiver,
    ...gains.map((gain) => ({ ...receiver, ...falling(receiver, gain), name: `${receiver.name} at ${gain.name}` })),
  ];
};
