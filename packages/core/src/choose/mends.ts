import type { ForecastPlace, ForecastTarget } from './forecast';
import { forecasterAt } from './forecast';
import { noiseAskOf, type ReadyCandidate } from './candidate';
import { CABLE_DB, type NoiseAsk, type Ranged } from './house-noise';

/** Something that a listener can do about the noise, and what it would bring. */
export interface Mend {
  readonly what: 'choke' | 'devices' | 'farther';
  readonly sentence: string;
  /** What it brings, dB. */
  readonly brings: Ranged;
  readonly price: number;
}

/** How much farther from the house is tried, m. */
const FARTHER_M = 20;
/** What is not worth the trouble, dB. */
const LEAST_DB = 1;
const CHOKE_PRICE = 25;

/**
 * What would bring most against the noise with one antenna, cheapest first. Only what a listener can change at home; where nothing was measured the
 * measurement comes first, because all other figures hang on it.
 */
export function mendsFor(
  one: ReadyCandidate,
  targets: readonly ForecastTarget[],
  place: ForecastPlace,
): readonly Mend[] {
  const weight = targets.reduce((sum, target) => sum + target.weight, 0);
  const { noise } = place;
  if (!noise || weight === 0) return [];
  const ask = noiseAskOf(one.spec);
  const forecast = forecasterAt(place)((freqHz) => one.fromTransmitter(freqHz), {
    ...(one.head ? { head: one.head } : {}),
    noise: ask,
  });
  // by the share that outside noise has in all noise: quieter surroundings help a deaf chain little
  const mean = (value: (target: ForecastTarget) => number): number =>
    targets.reduce((sum, target) => sum + target.weight * value(target), 0) / weight;
  const heardWith = (changed: Omit<NoiseAsk, 'freqHz' | 'time'>): number =>
    mean((target) => {
      const f = forecast(target, one.toward(target));
      if (f.marginDb === undefined) return 0;
      const freqHz = (target.lowHz + target.highHz) / 2;
      const time = target.time ? { time: target.time } : {};
      const at = { freqHz, elevationDeg: target.arrivalDeg, ...time };
      const now = noise({ ...ask, ...at }).middle;
      const then = noise({ ...changed, ...at }).middle;
      const own = 10 ** (-f.marginDb / 10);
      return 10 * Math.log10((1 + own) / (10 ** ((then - now) / 10) + own));
    });
  const houseDb = mean((target) => {
    const f = forecast(target, one.toward(target));
    return f.noise.houseDb;
  });
  const range = (middle: number, low: number, high: number): Ranged => ({ low: Math.max(0, low), middle, high });
  const mends: Mend[] = [];
  const { spot, choked } = one.spec;
  if (choked !== true) {
    const middle = heardWith({ ...ask, choked: true });
    if (middle >= LEAST_DB)
      mends.push({
        ...{ what: 'choke', price: CHOKE_PRICE, brings: range(middle, 0, CABLE_DB.high) },
        sentence: `a common-mode choke at both ends of the cable: ${dbRange(range(middle, 0, CABLE_DB.high))}`,
      });
  }
  if (houseDb >= LEAST_DB) {
    const open = heardWith({ ...ask, spot: FAR });
    if (open >= LEAST_DB)
      mends.push({
        ...{ what: 'devices', price: 0, brings: range(open, 0, 2 * open) },
        sentence: `the devices of the house off one by one, the receiver on a battery: ${dbRange(range(open, open / 2, 2 * open))}`,
      });
    if (spot && (spot.kind === 'garden' || spot.kind === 'trees') && spot.distanceM !== undefined) {
      const middle = heardWith({ ...ask, spot: { ...spot, distanceM: spot.distanceM + FARTHER_M } });
      if (middle >= LEAST_DB)
        mends.push({
          ...{ what: 'farther', price: 20, brings: range(middle, middle / 2, 2 * middle) },
          sentence: `${FARTHER_M} m farther from the house: about ${middle.toFixed(0)} dB`,
        });
    }
  }
  return mends.sort((a, b) => a.price - b.price || b.brings.middle - a.brings.middle);
}

/** So far from any house that nothing of it counts. */
const FAR = { id: 'far', name: 'far', kind: 'garden', spanM: 1, widthM: 1, heightM: 1, distanceM: 1000 } as const;

const dbRange = ({ low, high }: Ranged): string => `${low.toFixed(0)} to ${high.toFixed(0)} dB`;
