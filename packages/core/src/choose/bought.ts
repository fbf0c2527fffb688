import { OutOfRangeError, requireRange } from '../errors';
import type { HeadAmplifier, Reception } from '../antenna/kind';
import { filterLossDb } from '../filter/response';
import { powerDb, powerRatio } from '../units/decibel';

/** Gain of an antenna at one frequency, as a data sheet or a measurement gives it. */
export interface GainPoint {
  readonly freqHz: number;
  readonly gainDbi: number;
}

/** An antenna that is bought, not drafted: what its maker or a measurement says of it. */
export interface BoughtAntenna {
  /** Effective gain into its amplifier (or into the line without one), lowest frequency first. */
  readonly gains: readonly GainPoint[];
  readonly head?: HeadAmplifier & { readonly noiseFigureDb: number };
  /** Upper edge of a low-pass ahead of the amplifier: 5 poles, Chebyshev, 0.1 dB. */
  readonly inputFilterHz?: number;
}

/** The usual guard filter of a wideband receive antenna. */
const INPUT_FILTER = { shape: 'lowpass', family: 'chebyshev', order: 5, rippleDb: 0.1, insertionLossDb: 0 } as const;

/** Reads "9.6 MHz −28, 97 MHz −12" into points, lowest first. @throws OutOfRangeError with an example. */
export function readGains(text: string): readonly GainPoint[] {
  const parts = text
    .split(/[,;\n]/)
    .map((part) => part.trim())
    .filter(Boolean);
  const points = parts.map((part): GainPoint => {
    const match = /^(\d+(?:\.\d+)?)\s*(kHz|MHz|GHz)?\s*[:=]?\s+([+-]?\d+(?:\.\d+)?)\s*(?:dBi)?$/i.exec(
      part.replaceAll('−', '-'),
    );
    if (!match)
      throw new OutOfRangeError(
        `"${part}" is not a frequency with a gain. Type it like 9.6 MHz -28, 97 MHz -12.`,
        'gains',
      );
    const scale = { khz: 1e3, mhz: 1e6, ghz: 1e9 }[(match[2] ?? 'MHz').toLowerCase()] ?? 1e6;
    return { freqHz: Number(match[1]) * scale, gainDbi: Number(match[3]) };
  });
  if (points.length === 0)
    throw new OutOfRangeError('Give the gain for at least one frequency, like 9.6 MHz -28, 97 MHz -12.', 'gains');
  points.forEach(({ freqHz, gainDbi }) => {
    requireRange(freqHz, 'Frequency (Hz)', 1e3, 300e9);
    requireRange(gainDbi, 'Gain (dBi)', -120, 60);
  });
  return [...points].sort((a, b) => a.freqHz - b.freqHz);
}

/** The same as text: "9.6 MHz -28, 97 MHz -12". */
export const gainsText = (gains: readonly GainPoint[]): string =>
  gains.map(({ freqHz, gainDbi }) => `${Number((freqHz / 1e6).toPrecision(7))} MHz ${gainDbi}`).join(', ');

/** Gain between the points, in dB over the logarithm of the frequency; the nearest point outside them. */
function gainAt(gains: readonly GainPoint[], freqHz: number): { gainDbi: number; outside: boolean } {
  const next = gains.findIndex((point) => point.freqHz >= freqHz);
  if (next === 0) return { gainDbi: gains[0].gainDbi, outside: gains[0].freqHz > freqHz };
  if (next < 0) return { gainDbi: gains[gains.length - 1].gainDbi, outside: true };
  const [a, b] = [gains[next - 1], gains[next]];
  const share = Math.log(freqHz / a.freqHz) / Math.log(b.freqHz / a.freqHz);
  return { gainDbi: a.gainDbi + share * (b.gainDbi - a.gainDbi), outside: false };
}

/** Less than this reaches nobody; a deep stop band would leave the range of numbers. */
const LEAST_DBI = -200;

/**
 * What a bought antenna hands on. Evenly spread noise arrives by the same effective gain, but never by more than an isotropic antenna’s; its amplifier's own noise is (F − 1) referred to
 * the field by that gain. Outside the given points the nearest one stands, marked rough.
 */
export function boughtReception({ gains, head, inputFilterHz }: BoughtAntenna): (freqHz: number) => Reception {
  return (freqHz) => {
    const { gainDbi, outside } = gainAt(gains, freqHz);
    const filterDb = inputFilterHz ? filterLossDb({ ...INPUT_FILTER, edgeHighHz: inputFilterHz }, freqHz) : 0;
    const realisedGainDbi = Math.max(LEAST_DBI, gainDbi - filterDb);
    // more than isotropic is direction, and evenly spread noise has none
    const transfer = powerRatio(Math.max(LEAST_DBI, Math.min(0, gainDbi) - filterDb));
    return {
      realisedGainDbi,
      transfer,
      ...(head ? { ownFaDb: powerDb(Math.max(1e-9, (powerRatio(head.noiseFigureDb) - 1) / transfer)) } : {}),
      validity: outside ? 'rough' : 'holds',
      ...(outside ? { remark: 'Outside the frequencies whose gain was given: the nearest figure stands for it.' } : {}),
    };
  };
}
