import { requirePositive, requireRange } from '../errors';
import { normalQuantile } from '../numeric/special';
import { THERMAL_NOISE_DBM_PER_HZ } from '../units/constants';
import { powerDb, powerRatio } from '../units/decibel';
import { receivedDbm } from './field';
import { surroundings } from './sky-temperature';

export type Environment = 'city' | 'residential' | 'rural' | 'quiet_rural';
export const ENVIRONMENTS: readonly Environment[] = ['city', 'residential', 'rural', 'quiet_rural'];

/** Fam = c − d·log10(f/MHz); deciles in dB; range in Hz. */
interface NoiseClass {
  readonly c: number;
  readonly d: number;
  readonly minHz: number;
  readonly maxHz: number;
  readonly deciles?: {
    readonly timeUp: number;
    readonly timeDown: number;
    readonly placeUp: number;
    readonly placeDown: number;
  };
}

/** Source: Recommendation ITU-R P.372, man-made noise table (constants from memory). */
const CLASSES: Readonly<Record<Environment | 'galactic', NoiseClass>> = {
  city: {
    c: 76.8,
    d: 27.7,
    minHz: 0.3e6,
    maxHz: 250e6,
    deciles: { timeUp: 11, timeDown: 6.7, placeUp: 8.4, placeDown: 8.4 },
  },
  residential: {
    c: 72.5,
    d: 27.7,
    minHz: 0.3e6,
    maxHz: 250e6,
    deciles: { timeUp: 10.6, timeDown: 5.3, placeUp: 5.8, placeDown: 5.8 },
  },
  rural: {
    c: 67.2,
    d: 27.7,
    minHz: 0.3e6,
    maxHz: 250e6,
    deciles: { timeUp: 9.2, timeDown: 4.6, placeUp: 6.8, placeDown: 6.8 },
  },
  quiet_rural: { c: 53.6, d: 28.6, minHz: 0.3e6, maxHz: 30e6 },
  galactic: { c: 52, d: 23, minHz: 10e6, maxHz: 100e6 },
};

/** Median noise figure of a noise class, dB above kT₀, without regard to its stated range. */
export function medianFaDb(environment: Environment | 'galactic', freqHz: number): number {
  requirePositive(freqHz, 'Frequency (Hz)');
  const row = CLASSES[environment];
  return row.c - row.d * Math.log10(freqHz / 1e6);
}

/** Whether the recommendation states the class at this frequency. */
export const insideStatedRange = (environment: Environment | 'galactic', freqHz: number): boolean =>
  freqHz >= CLASSES[environment].minHz && freqHz <= CLASSES[environment].maxHz;

/** Noise power of a lossless antenna in a bandwidth, dBm. */
export const noisePowerDbm = (faDb: number, bandwidthHz: number): number =>
  THERMAL_NOISE_DBM_PER_HZ + faDb + powerDb(bandwidthHz);

/** Noise field strengths, dBµV/m. Constants −95.5 / −99.0 / −96.8 as published in ITU-R P.372 (rounded there). */
export function noiseFieldDbuv(faDb: number, freqHz: number, bandwidthHz: number) {
  const common = faDb + 20 * Math.log10(freqHz / 1e6) + powerDb(bandwidthHz);
  return { monopole: common - 95.5, dipole: common - 99, isotropic: common - 96.8 };
}

/** A decile deviation is 1.2816 standard deviations of a normal distribution. */
const DECILE_SIGMA = 1.2815515655446004;

/** Combined time and place deciles: root of the sum of squares; undefined for a class without them. */
export function combinedDecilesDb(environment: Environment): { upDb: number; downDb: number } | undefined {
  const deciles = CLASSES[environment].deciles;
  if (!deciles) return undefined;
  return { upDb: Math.hypot(deciles.timeUp, deciles.placeUp), downDb: Math.hypot(deciles.timeDown, deciles.placeDown) };
}

/**
 * Noise figure exceeded in a share of times and places (percent), half-normal on each side of the median.
 * @returns undefined where the class has no deciles.
 */
export function faExceededDb(environment: Environment, freqHz: number, exceededPercent: number): number | undefined {
  requireRange(exceededPercent, 'Percentage', 0.0001, 99.9999);
  const deciles = combinedDecilesDb(environment);
  if (!deciles) return undefined;
  const z = normalQuantile(1 - exceededPercent / 100);
  return medianFaDb(environment, freqHz) + (z / DECILE_SIGMA) * (z >= 0 ? deciles.upDb : deciles.downDb);
}

/**
 * Rough atmospheric noise of mid latitudes, dB above kT₀, ±15 dB. Order of magnitude only: these anchors are NOT values of
 * ITU-R P.372, whose world maps are not carried here. Linear in dB over log f. undefined above 30 MHz.
 */
const ATMOSPHERE: Readonly<Record<'day' | 'night', readonly (readonly [number, number])[]>> = {
  night: [
    [0.01, 155],
    [0.1, 105],
    [0.3, 86],
    [1, 68],
    [3, 52],
    [10, 35],
    [20, 15],
    [30, 0],
  ],
  day: [
    [0.01, 150],
    [0.1, 85],
    [0.3, 55],
    [1, 30],
    [2, 25],
    [5, 33],
    [10, 32],
    [20, 18],
    [30, 5],
  ],
};

export function roughAtmosphericFaDb(freqHz: number, time: TimeOfDay): number | undefined {
  const anchors = ATMOSPHERE[time];
  const mhz = freqHz / 1e6;
  if (mhz < anchors[0][0] || mhz > 30) return undefined;
  const upper = Math.max(
    1,
    anchors.findIndex(([f]) => f >= mhz),
  );
  const [f1, fa1] = anchors[upper - 1];
  const [f2, fa2] = anchors[upper];
  return fa1 + ((fa2 - fa1) * Math.log(mhz / f1)) / Math.log(f2 / f1);
}

/** One part of the external noise and what stands behind it. */
interface NoisePart {
  readonly source: 'man-made' | 'galactic' | 'atmospheric' | 'warm surroundings';
  readonly faDb: number;
  readonly origin: 'catalogue' | 'assumed' | 'measured';
  readonly remark?: string;
}

/** External noise to expect, with its parts. */
export interface ExpectedNoise {
  readonly faDb: number;
  readonly parts: readonly NoisePart[];
  /** Sentences about parts used outside their stated range. */
  readonly remarks: readonly string[];
}

/** Half of the day: what arrives from far depends on it. */
export type TimeOfDay = 'day' | 'night';

/** Above this frequency the warmth of what the antenna sees counts. */
const WARM_FROM_HZ = 30e6;
const REFERENCE_K = 290;

/** How an antenna is meant where its noise is asked for. */
export interface NoiseView {
  /** Half of the day whose atmospheric noise counts; absent: the quieter. */
  readonly time?: TimeOfDay;
  /** It looks up, away from the warm earth. */
  readonly seesSky?: boolean;
  /** How high it then looks, degrees; absent: not said. */
  readonly elevationDeg?: number;
}

/**
 * External noise figure to expect: man-made median (plus the listener's own offset), galactic from 10 MHz up, atmospheric up to 30 MHz, and sky and warm
 * earth above it. Parts add as powers.
 */
export function expectedNoise(
  environment: Environment,
  freqHz: number,
  offsetDb = 0,
  { time, seesSky = false, elevationDeg }: NoiseView = {},
): ExpectedNoise {
  const parts: NoisePart[] = [];
  const remarks: string[] = [];
  const manMadeStated = insideStatedRange(environment, freqHz);
  if (manMadeStated || environment !== 'quiet_rural') {
    parts.push({ source: 'man-made', faDb: medianFaDb(environment, freqHz) + offsetDb, origin: 'catalogue' });
    if (!manMadeStated) remarks.push('The man-made class is stated for 0.3 to 250 MHz; here it is extended.');
  } else if (freqHz < 0.3e6) {
    parts.push({ source: 'man-made', faDb: medianFaDb(environment, freqHz) + offsetDb, origin: 'catalogue' });
    remarks.push('The quiet rural class is stated for 0.3 to 30 MHz; here it is extended.');
  } else remarks.push('Quiet rural man-made noise is not stated above 30 MHz and not counted.');
  if (freqHz >= 10e6) {
    parts.push({ source: 'galactic', faDb: medianFaDb('galactic', freqHz), origin: 'catalogue' });
    if (freqHz > 100e6) remarks.push('Galactic noise is stated to about 100 MHz; here it is extended.');
  }
  const day = roughAtmosphericFaDb(freqHz, 'day');
  const night = roughAtmosphericFaDb(freqHz, 'night');
  if (day !== undefined && night !== undefined) {
    parts.push({
      source: 'atmospheric',
      faDb: time === undefined ? Math.min(day, night) : { day, night }[time],
      origin: 'assumed',
      remark: `rough, ±15 dB (day ${day.toFixed(0)}, night ${night.toFixed(0)} dB)`,
    });
  }
  if (freqHz > WARM_FROM_HZ) {
    const view = surroundings(
      freqHz,
      seesSky ? { ...(elevationDeg === undefined ? {} : { elevationDeg }) } : undefined,
    );
    const kelvin = view.antennaK.toFixed(0);
    parts.push({
      source: 'warm surroundings',
      faDb: powerDb(view.antennaK / REFERENCE_K),
      origin: 'assumed',
      remark: seesSky
        ? `a sky of ${view.skyK.toFixed(0)} K at ${view.elevationDeg.toFixed(0)}°, and ${(100 * view.earthShare).toFixed(0)} % of its view on warm earth: ${kelvin} K`
        : `mostly warm earth in its view: ${kelvin} K, 100 to 290 K`,
    });
  }
  return { faDb: powerDb(parts.reduce((sum, part) => sum + powerRatio(part.faDb), 0)), parts, remarks };
}

/**
 * Smallest antenna efficiency that keeps the loss of SNR within a limit: η = fs/(fa(D−1)+1). Antenna loss heats at 290 K.
 * @param systemFactor noise factor behind the antenna terminals (feed and receiver), ratio.
 */
export function minimumEfficiency(faDb: number, systemFactor: number, limitDb: number) {
  requirePositive(limitDb, 'Allowed loss (dB)');
  const fa = powerRatio(faDb);
  const efficiency = systemFactor / (fa * (powerRatio(limitDb) - 1) + 1);
  return {
    possible: efficiency <= 1,
    snrLossAtFullEfficiencyDb: powerDb((fa + systemFactor - 1) / fa),
    minEfficiencyDb: efficiency <= 1 ? powerDb(efficiency) : null,
  };
}

/** An antenna as noise sees it. `directivityDb` is toward the signal. */
export interface NoisyAntenna {
  readonly efficiencyDb: number;
  readonly directivityDb: number;
}

/**
 * Signal, noise and SNR of an antenna in a field: external noise through its efficiency, its own loss and the receiver's noise at 290 K.
 * @param fieldDbuvPerM of the wanted signal. @param faDb external noise. @param systemNoiseFigureDb behind the antenna.
 */
export function snrFromField(input: {
  readonly fieldDbuvPerM: number;
  readonly freqHz: number;
  readonly bandwidthHz: number;
  readonly antenna: NoisyAntenna;
  readonly faDb: number;
  readonly systemNoiseFigureDb: number;
}) {
  const { efficiencyDb, directivityDb } = input.antenna;
  const efficiency = powerRatio(efficiencyDb);
  const factor = efficiency * powerRatio(input.faDb) + (1 - efficiency) + powerRatio(input.systemNoiseFigureDb) - 1;
  const signalDbm = receivedDbm(input.fieldDbuvPerM, input.freqHz, efficiencyDb + directivityDb);
  const noiseDbm = noisePowerDbm(powerDb(factor), input.bandwidthHz);
  return { signalDbm, noiseDbm, snrDb: signalDbm - noiseDbm };
}

/** SNR of A over B in one external noise field, and the difference of signal level that an S meter would show. */
export function compareAntennas(a: NoisyAntenna, b: NoisyAntenna, faDb: number, systemNoiseFigureDb: number) {
  const fs = powerRatio(systemNoiseFigureDb);
  const snr = (antenna: NoisyAntenna): number => {
    const efficiency = powerRatio(antenna.efficiencyDb);
    const noise = efficiency * powerRatio(faDb) + (1 - efficiency) + fs - 1;
    return powerDb((efficiency * powerRatio(antenna.directivityDb)) / noise);
  };
  return {
    snrAdvantageDb: snr(a) - snr(b),
    levelDifferenceDb: a.efficiencyDb + a.directivityDb - b.efficiencyDb - b.directivityDb,
  };
}
