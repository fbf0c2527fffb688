import { CABLE_CLASSES } from '@velvet-reed/core/line';
import { GROUND_CLASSES } from '@velvet-reed/core/solver';
import { boolean, object, string, type InferType } from 'yup';
import { choice, namedNumbers, optionalQuantity, quantity, wholeNumber } from './fields';

/** Kinds of instruments that the bench talks to. */
export const INSTRUMENT_KINDS = [
  'analyser',
  'receiver',
  'turntable',
  'power-meter',
  'lcr-meter',
  'antenna-switch',
] as const;
export type InstrumentKind = (typeof INSTRUMENT_KINDS)[number];

/** An instrument as lists show it. */
export interface InstrumentCard {
  readonly id: string;
  readonly kind: InstrumentKind;
  readonly address: string;
  /** Ships with the application; its world is made up. */
  readonly standIn: boolean;
}

const span = {
  startHz: quantity('Start (Hz)', 1, 1e12),
  stopHz: quantity('Stop (Hz)', 1, 1e12),
  points: wholeNumber('Points', 2, 20_001),
  /** Longest silence to wait for, s. */
  waitS: quantity('Wait at most (s)', 1, 3600).optional(),
};
const ordered = (value: { readonly startHz: number; readonly stopHz: number }): boolean => value.startHz < value.stopHz;
const ORDER = 'The start must lie below the stop. Exchange the two.';

/** What a sweep asks of an analyser. */
export const sweepRequestSchema = object({ ...span, averages: wholeNumber('Averages', 1, 999) })
  .noUnknown()
  .test('order', ORDER, ordered)
  .required('The request has no body. Send start, stop, points and averages.');

/** What a spectrum asks of a receiver. */
export const spectrumRequestSchema = object({ ...span, bandwidthHz: quantity('Bandwidth (Hz)', 1, 1e6) })
  .noUnknown()
  .test('order', ORDER, ordered)
  .required('The request has no body. Send start, stop, points and bandwidth.');

/** A single reading: what, and at which frequency. */
export const readingRequestSchema = object({
  what: choice('Reading', ['power', 'inductance', 'capacitance', 'azimuth'] as const),
  freqHz: optionalQuantity('Frequency (Hz)', 1, 300e9),
})
  .noUnknown()
  .required('The request has no body. Say what to read.');

/** Where a turntable is to go, degrees from its mark, not wrapped; null: to its mark, which it then calls zero. And how far its cable lets it. */
export const turnRequestSchema = object({
  toDeg: optionalQuantity('Direction (degrees)', -3600, 3600),
  lowDeg: quantity('Cable limit (degrees)', -3600, 0),
  highDeg: quantity('Cable limit (degrees)', 0, 3600),
})
  .noUnknown()
  .required('The request has no body. Say where to turn.');

/** Which antenna a switch closes onto the receiver. */
export const routeRequestSchema = object({ channel: wholeNumber('Channel', 1, 99) })
  .noUnknown()
  .required('The request has no body. Say which channel to close.');

/** What a person's hands do at a stand-in: each part is optional. */
export const handsRequestSchema = object({
  connect: string()
    .oneOf(['antenna', 'open', 'short', 'load'], 'Connect the antenna, the open, the short or the load.')
    .optional(),
  noise: boolean().optional(),
  /** Power sent next door, W, and the pad before the meter, dB. */
  transmit: object({ powerW: quantity('Power sent (W)', 0, 1e4), padDb: quantity('Pad (dB)', 0, 120) })
    .noUnknown()
    .optional()
    .default(undefined),
  /** Carries the loop on the table to a place, m east and north of the middle. */
  loopAt: object({ eastM: quantity('East (m)', -1e4, 1e4), northM: quantity('North (m)', -1e4, 1e4) })
    .noUnknown()
    .optional()
    .default(undefined),
  /** Sets the box that adds two antennas. */
  box: object({
    through: choice('Let through', ['first', 'second', 'both'] as const),
    gainDb: quantity('Gain on the second (dB)', -60, 60),
    phaseDeg: quantity('Phase on the second (degrees)', -360, 360),
  })
    .noUnknown()
    .optional()
    .default(undefined),
  /** A distant station to tune to, Hz. */
  distantHz: quantity('Distant station (Hz)', 1e3, 300e9).optional().default(undefined),
  exercise: wholeNumber('Exercise', 0, 1e9).optional().default(undefined),
  state: string().oneOf(['before', 'after'], 'The state is before or after.').optional(),
  design: object({
    kind: string()
      .matches(/^[a-z-]+$/, 'The kind of antenna is not known.')
      .required('The kind of antenna is missing.'),
    freqHz: quantity('Frequency (Hz)', 1e4, 300e9),
    diameterM: quantity('Conductor diameter (m)', 1e-5, 0.2),
    dimensions: namedNumbers('Dimensions'),
    groundId: choice(
      'Ground',
      GROUND_CLASSES.map((one) => one.id),
    ),
    cableId: choice(
      'Cable',
      CABLE_CLASSES.map((one) => one.id),
    ),
    lineLengthM: quantity('Line length (m)', 0, 2000),
  })
    .optional()
    .default(undefined),
})
  .noUnknown()
  .required('The request has no body. Say what to connect.');

export type SweepRequest = InferType<typeof sweepRequestSchema>;
export type SpectrumRequest = InferType<typeof spectrumRequestSchema>;
export type ReadingRequest = InferType<typeof readingRequestSchema>;
export type TurnRequest = InferType<typeof turnRequestSchema>;
export type RouteRequest = InferType<typeof routeRequestSchema>;
export type HandsRequest = InferType<typeof handsRequestSchema>;

/** Truth of an exercise, told after the listener's finding. */
export interface ExerciseTruth {
  readonly fault: string;
  readonly lengthFactor: number;
  readonly lossFactor: number;
  readonly lineLengthM: number;
  /** Where the hidden source of noise is, m east and north of the middle. */
  readonly sourceEastM: number;
  readonly sourceNorthM: number;
}
