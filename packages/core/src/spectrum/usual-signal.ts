import { fieldDbuv, freeSpaceFieldVPerM, receivedDbm } from '../site/field';
import type { TimeOfDay } from '../site/external-noise';
import { powerDb, powerRatio } from '../units/decibel';
import { wavelengthM } from '../units/wavelength';

/** How a wave comes. */
type SignalWay = 'ground wave' | 'sky wave' | 'in sight' | 'satellite' | 'sky noise';

/** How a wave is polarised on arrival; the ionosphere turns what it sends back at random. */
export type Polarisation = 'vertical' | 'horizontal' | 'circular' | 'random';

/** A usual transmitter of a service: assumed, order of magnitude, to be replaced by what is measured. */
interface UsualSender {
  readonly way: SignalWay;
  /** Fed to its antenna, W; of a ground wave referred to a short vertical, of the others with `gainDbi`. */
  readonly powerW: number;
  readonly gainDbi?: number;
  /** To the listener, or to the satellite, km. */
  readonly distanceKm: number;
  readonly polarisation: Polarisation;
  /** Houses, hills and the curve of the earth beyond free space, dB. */
  readonly clutterDb?: number;
}

/** What a usual station of a service brings here. */
export interface UsualSignal {
  readonly way: SignalWay;
  readonly polarisation: Polarisation;
  /** What an isotropic lossless antenna of the right polarisation takes from it, dBm. */
  readonly isotropicDbm: number;
  /** Stated error of the rule by which it is computed, dB either way. */
  readonly errorDb: number;
  /** What is assumed, one clause. */
  readonly assumed: string;
}

const sky = (powerW: number, gainDbi: number, distanceKm: number): UsualSender => ({
  ...{ way: 'sky wave', powerW, gainDbi, distanceKm, polarisation: 'random' },
});
const ground = (powerW: number, distanceKm: number): UsualSender => ({
  ...{ way: 'ground wave', powerW, distanceKm, polarisation: 'vertical' },
});
const inSight = (
  powerW: number,
  distanceKm: number,
  clutterDb = 0,
  polarisation: Polarisation = 'vertical',
): UsualSender => ({ ...{ way: 'in sight', powerW, gainDbi: 2, distanceKm, polarisation, clutterDb } });

/** Most stations beam elsewhere: what comes off their beam is some 8 dB less than in it. */
const BROADCAST = sky(100e3, 4, 1500);
const AMATEUR = sky(100, 2, 1000);

/** Senders that are usual for the services of the catalogue. Common practice, no source. */
const USUAL: Readonly<Record<string, UsualSender>> = {
  time60: ground(15e3, 500),
  time77: ground(30e3, 400),
  a2200: ground(1, 300),
  lw: ground(500e3, 600),
  a630: ground(5, 200),
  ndt490: ground(1e3, 300),
  ndt518: ground(1e3, 300),
  mw: sky(100e3, 2, 800),
  a160: AMATEUR,
  dsc2187: sky(250, 0, 300),
  vol55: sky(5e3, 3, 1500),
  vol66: sky(5e3, 3, 1500),
  vol89: sky(5e3, 3, 1500),
  fax8: sky(5e3, 3, 1000),
  time10: sky(5e3, 2, 2000),
  a6: inSight(50, 30, 10, 'horizontal'),
  fm: { ...inSight(10e3, 40, 12), polarisation: 'random' },
  air: inSight(16, 100),
  wxsat: { way: 'satellite', powerW: 5, gainDbi: 0, distanceKm: 1500, polarisation: 'circular' },
  a2: inSight(25, 20, 12),
  marine: inSight(25, 20, 12),
  ais1: inSight(12.5, 20, 12),
  ais2: inSight(12.5, 20, 12),
  a70: inSight(25, 20, 15),
  squitter: inSight(200, 150),
};

/** Elevations that stand for a pass of a satellite over the sky, degrees. Assumed. */
export const PASS_ELEVATIONS_DEG = [15, 30, 50, 75] as const;

/** Where no hours are said: below this the far stations come by night, above it by day, Hz. Common practice, no source. */
const NIGHT_BELOW_HZ = 10e6;
/** Half of the day in which a frequency is usually listened to. */
export const usualTime = (freqHz: number): TimeOfDay => (freqHz < NIGHT_BELOW_HZ ? 'night' : 'day');

/** Errors of the rules, dB either way. Common practice, no source. */
const ERROR_DB: Readonly<Record<SignalWay, number>> = {
  'ground wave': 10,
  'sky wave': 12,
  'in sight': 10,
  satellite: 5,
  'sky noise': 5,
};

/** Height at which the ionosphere sends back, km, for the length of a hop. */
const LAYER_KM = 300;
/** What a hop costs beyond free space: absorption, the mirror, focusing and fading together. By the bracketed total of the field figures in practice; no source. */
const HOP_LOSS_DB: Readonly<Record<TimeOfDay, number>> = { night: 14, day: 22 };

/** Conductivity along the way, S/m: average ground. */
const CONDUCTIVITY = 0.005;

/**
 * Loss of a ground wave over average ground beyond 1/d, dB: (2 + 0.3p)/(2 + p + 0.6p²) with the numerical distance p = πd f/(c · 60σλ). Source: Norton
 * (1941) as given by Terman, Radio Engineers' Handbook (from memory); flat earth, so an upper bound beyond some 100 km above 1 MHz.
 */
export function groundWaveLossDb(freqHz: number, distanceKm: number): number {
  const lambdaM = wavelengthM(freqHz);
  const p = (Math.PI * distanceKm * 1e3) / (lambdaM * 60 * CONDUCTIVITY * lambdaM);
  return powerDb(((2 + p + 0.6 * p * p) / (2 + 0.3 * p)) ** 2);
}

/** Field of a sender where it is heard, dBµV/m. */
function fieldDbuvOf(
  { way, powerW, gainDbi = 0, distanceKm, clutterDb = 0 }: UsualSender,
  freqHz: number,
  time: TimeOfDay,
): number {
  if (way === 'ground wave')
    return fieldDbuv(freeSpaceFieldVPerM(powerW, 'EMRP', 1000 * distanceKm)) - groundWaveLossDb(freqHz, distanceKm);
  const pathKm = way === 'sky wave' ? Math.hypot(distanceKm, 2 * LAYER_KM) : distanceKm;
  const lossDb = way === 'sky wave' ? HOP_LOSS_DB[time] : clutterDb;
  return fieldDbuv(freeSpaceFieldVPerM(powerW * powerRatio(gainDbi), 'EIRP', 1000 * pathKm)) - lossDb;
}

/** Between these no ground or sky wave is usual any more: what is heard is in sight. */
const SIGHT_FROM_HZ = 30e6;

/** Where the catalogue says nothing: what stations of that part of the spectrum usually are. */
const usualBy = (freqHz: number, distanceKm = 0): UsualSender => {
  if (freqHz < 300e3) return ground(10e3, 500);
  if (freqHz < 1.7e6) return distanceKm > 300 ? sky(10e3, 0, 800) : ground(10e3, 100);
  if (freqHz < SIGHT_FROM_HZ) return sky(1e3, 2, 1000);
  return inSight(10, 30, 10);
};

/** Hydrogen in the plane of the galaxy, K over the cold sky, and what a minute of averaging over 10 kHz wins, dB: √(B·t). */
const HYDROGEN_K = 60;
const AVERAGING_DB = 29;
const BOLTZMANN_DBM = -198.6;

/**
 * What a usual station brings: free space in sight and from satellites, a simple rule along the ground and by the sky. Assumed throughout.
 * @param id of the catalogue; absent or unknown: by the frequency alone. @param distanceKm of the station wanted, where its place is known.
 */
export function usualSignal(
  {
    id,
    lowHz,
    highHz,
    bandwidthHz,
  }: { readonly id?: string; readonly lowHz: number; readonly highHz: number; readonly bandwidthHz: number },
  {
    time = usualTime((lowHz + highHz) / 2),
    distanceKm,
  }: { readonly time?: TimeOfDay; readonly distanceKm?: number } = {},
): UsualSignal {
  const freqHz = (lowHz + highHz) / 2;
  if (id === 'hline')
    return {
      way: 'sky noise',
      polarisation: 'random',
      // a beam of some 20 dBi is filled by it; what is narrower sees no more
      isotropicDbm: BOLTZMANN_DBM + powerDb(HYDROGEN_K) + powerDb(bandwidthHz) - 20 + AVERAGING_DB,
      errorDb: ERROR_DB['sky noise'],
      assumed: `hydrogen of ${HYDROGEN_K} K fills the beam, averaged over a minute`,
    };
  const named = id === undefined ? undefined : (USUAL[id] ?? byService(id));
  const usual = named ?? usualBy(freqHz, distanceKm);
  // medium wave by day comes along the ground
  const byHour = id === 'mw' && time === 'day' ? ground(50e3, 100) : usual;
  const sender =
    distanceKm !== undefined && byHour.way !== 'satellite'
      ? { ...byHour, distanceKm: Math.max(1, distanceKm) }
      : byHour;
  return {
    way: sender.way,
    polarisation: sender.polarisation,
    isotropicDbm: receivedDbm(fieldDbuvOf(sender, freqHz, time), freqHz, 0),
    errorDb: ERROR_DB[sender.way],
    assumed: `${powerText(sender.powerW)} ${WAY_WORDS[sender.way]} ${Math.round(sender.distanceKm)} km`,
  };
}

const WAY_WORDS: Readonly<Record<SignalWay, string>> = {
  'ground wave': 'along the ground over',
  'sky wave': 'by the sky over',
  'in sight': 'in sight at',
  satellite: 'from a satellite at',
  'sky noise': 'from the sky at',
};
const powerText = (watts: number): string =>
  watts >= 1000 ? `${Number((watts / 1000).toPrecision(3))} kW` : `${watts} W`;

/** Short-wave broadcast and amateur bands by the first letter of their id. */
const byService = (id: string): UsualSender | undefined =>
  /^b\d/.test(id) ? BROADCAST : /^a\d/.test(id) ? AMATEUR : undefined;
