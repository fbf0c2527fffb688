import { frequencyText } from '../units/format';
import type { Resonance } from './analyse';
import type { SweepData } from '../formats/touchstone';

/** A marker that set itself. */
export interface AutoMarker {
  readonly name: string;
  readonly freqHz: number;
}

/** A band that markers can stand in. */
interface MarkedBand {
  readonly name: string;
  readonly lowHz: number;
  readonly highHz: number;
}

/** Dips that get a marker, deepest first. */
const MOST_DIPS = 3;

/**
 * Markers at the dips, and at edges and middle of the band that matters: the narrowest one that holds the target, else the one that holds the
 * deepest dip. Only what lies
 * inside the sweep and is not the target itself, which has its own marker.
 * @param found the sweep's resonances, deepest first.
 */
export function autoMarkers(
  sweep: SweepData,
  found: readonly Resonance[],
  bands: readonly MarkedBand[],
  targetHz?: number,
): readonly AutoMarker[] {
  const [low, high] = [sweep.freqHz[0], sweep.freqHz[sweep.freqHz.length - 1]];
  const dips = found.slice(0, MOST_DIPS);
  const holding = (freqHz: number | undefined): MarkedBand | undefined =>
    freqHz === undefined
      ? undefined
      : bands
          .filter((band) => band.lowHz <= freqHz && band.highHz >= freqHz)
          .sort((a, b) => a.highHz - a.lowHz - (b.highHz - b.lowHz))[0];
  const band = holding(targetHz) ?? holding(dips[0]?.freqHz);
  const marks: readonly AutoMarker[] = [
    ...dips.map((dip, i) => ({ name: i === 0 ? 'dip' : `dip ${i + 1}`, freqHz: dip.freqHz })),
    ...(band
      ? [
          { name: `${band.name}, lower edge`, freqHz: band.lowHz },
          { name: `${band.name}, middle`, freqHz: (band.lowHz + band.highHz) / 2 },
          { name: `${band.name}, upper edge`, freqHz: band.highHz },
        ]
      : []),
  ];
  const near = (a: number, b: number | undefined): boolean => b !== undefined && Math.abs(a - b) < 1e-6 * a;
  return marks.filter(({ freqHz }) => freqHz >= low && freqHz <= high && !near(freqHz, targetHz));
}

/** Two dips farther apart than this are not the same one, ratio. */
const SAME_DIP = 0.28;

/**
 * How far the deepest dip moved between two sweeps, Hz (after minus before), from the resonances of both; undefined when either has none or
 * they are not the same.
 */
export function dipShiftHz(before: readonly Resonance[], after: readonly Resonance[]): number | undefined {
  const now: Resonance | undefined = after[0];
  if (!now) return undefined;
  const then = before.map(({ freqHz }) => now.freqHz - freqHz).sort((a, b) => Math.abs(a) - Math.abs(b))[0];
  return then !== undefined && Math.abs(then) < SAME_DIP * now.freqHz ? then : undefined;
}

/** A shift in words: "12 kHz up", "no shift". */
export const shiftText = (shiftHz: number): string =>
  Math.abs(shiftHz) < 0.5 ? 'no shift' : `${frequencyText(Math.abs(shiftHz), 3)} ${shiftHz > 0 ? 'up' : 'down'}`;
