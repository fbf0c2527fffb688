import { usualSignal } from '../spectrum/usual-signal';
import { powerDb } from '../units/decibel';
import { type ForecastTarget, signalOf } from './forecast';

/** Loud broadcasts at once in each pair of bands on a winter evening. Common practice, no source: 10 to 40, and by region. */
const LOUD = 20;
/** They come by one long hop, degrees over the horizon. Assumed. */
const ARRIVAL_DEG = 20;

const bands = (id: string, name: string, lowHz: number, highHz: number): ForecastTarget => ({
  ...{ id, name, lowHz, highHz, bandwidthHz: 9000, weight: 0, arrivalDeg: ARRIVAL_DEG, time: 'night' },
  signal: usualSignal({ lowHz, highHz, bandwidthHz: 9000, id: 'b31' }, { time: 'night' }),
});

/**
 * What fills a receiver on short wave in the evening though nobody entered it: all broadcasts of two bands each, taken for one carrier in their middle.
 * About −29 dBm from an isotropic antenna in all (assumed, ±12 dB); a wide-open antenna in a dense region brings −25 to −10 dBm (common practice, no source).
 */
export const EVENING: readonly ForecastTarget[] = [
  bands('evening-41', 'evening broadcasts on 49 and 41 m', 7.2e6, 7.45e6),
  bands('evening-31', 'evening broadcasts on 31 and 25 m', 9.4e6, 9.9e6),
];

/** All of them together from an isotropic antenna, dBm. */
export const eveningDbm = (band: ForecastTarget): number => signalOf(band).isotropicDbm + powerDb(LOUD);

/** Short wave: what is wanted above it stands behind a tuner that keeps these off. */
const SHORT_WAVE_MOST_HZ = 30e6;
/** Whether they count for a target: on short wave and below, unless it is only listened to by day. */
export const hasEvening = ({ highHz, time }: ForecastTarget): boolean => highHz <= SHORT_WAVE_MOST_HZ && time !== 'day';
