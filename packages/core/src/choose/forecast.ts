import type { HeadAmplifier, Reception } from '../antenna/kind';
import { transmitterField, type PowerKind } from '../site/field';
import { noisePowerDbm, type TimeOfDay } from '../site/external-noise';
import { type UsualSignal, usualSignal } from '../spectrum/usual-signal';
import { intermodAtAntenna, productFinder, type ProductKind } from '../path/intermod';
import { preselectionDb, fullScaleHeadroom } from '../path/receiver';
import { powerDb, powerRatio } from '../units/decibel';
import type { Addition } from './additions';
import type { NoiseAsk, Ranged, SpotNoise } from './house-noise';
import { remembered, rememberedOf } from './remembered';

/** A registered transmitter as far as a forecast needs it. */
export interface ForecastTransmitter {
  readonly name: string;
  readonly freqHz: number;
  readonly powerW: number;
  readonly powerKind: PowerKind;
  readonly distanceM: number;
}

/** The receiver and line behind an antenna at one frequency. */
export interface ReceiveEnd {
  readonly name: string;
  readonly noiseFigureDb: number;
  readonly iip2Dbm: number;
  readonly iip3Dbm: number;
  readonly fullScaleDbm: number;
  readonly minHz: number;
  readonly maxHz: number;
  /** Real samples a second, where it samples the antenna directly; absent or null: it does not fold. */
  readonly realSampleRateHz?: number | null;
}

export interface ForecastTarget {
  readonly id: string;
  readonly name: string;
  readonly lowHz: number;
  readonly highHz: number;
  readonly bandwidthHz: number;
  readonly weight: number;
  /** Elevation at which it arrives, degrees. */
  readonly arrivalDeg: number;
  /** Further elevations at which it comes: a satellite crosses the sky. All count alike. */
  readonly alsoDeg?: readonly number[];
  /** Clockwise from true north; absent when nobody said where it is. */
  readonly bearingDeg?: number;
  /** Half of the day in which it is listened to; absent: the quieter counts. */
  readonly time?: TimeOfDay;
  /** What a usual station of it brings here; absent: by its frequency alone. */
  readonly signal?: UsualSignal;
}

/** What a usual station of a target brings. */
export const signalOf = rememberedOf(
  (target: ForecastTarget): UsualSignal =>
    target.signal ?? usualSignal(target, target.time ? { time: target.time } : {}),
);

/** The strongest product that falls on a target, and who makes it. */
export interface WorstProduct {
  readonly label: string;
  readonly freqHz: number;
  readonly transmitters: readonly string[];
  /** At the input of the stage that makes it. */
  readonly levelDbm: number;
  readonly madeIn: 'head amplifier' | 'preamplifier' | 'receiver';
  readonly order: 2 | 3;
  /** Levels of the transmitters that make it, at the input of that stage, dBm. */
  readonly tonesDbm: readonly number[];
  /** Over the noise in the target's bandwidth at the same place, dB. */
  readonly overNoiseDb: number;
}

/** Whether a filter helps against a product, and where: the attenuation at both transmitters that brings it down to the noise. */
export function filterAdvice(product: WorstProduct): string {
  const needed = Math.ceil(Math.max(0, product.overNoiseDb) / product.order);
  if (needed === 0) return 'No filter is needed: the product stays under the noise.';
  const where =
    product.madeIn === 'head amplifier'
      ? 'only ahead of the head amplifier, at its input; behind it a filter changes nothing'
      : 'anywhere ahead of the receiver';
  return `A filter helps ${where}: ${needed} dB at ${product.transmitters.join(' and ')} bring it down to the noise.`;
}

/** What one antenna does for one target. */
export interface TargetForecast {
  readonly target: ForecastTarget;
  readonly receiver?: ReceiveEnd;
  /** Outside noise as this antenna meets it, dB over kT₀. */
  readonly externalFaDb: number;
  /** The same with its range, and what stands behind it. */
  readonly noise: SpotNoise;
  /** How far a usual station of the target stands over everything that is heard as noise, in the target's bandwidth, dB; undefined where the model does not hold. */
  readonly heard?: Ranged;
  /** External noise through the antenna over everything that the chain adds, dB; undefined where the model does not hold. */
  readonly marginDb?: number;
  /** SNR lost against a noiseless chain without overload, dB; undefined with the margin. */
  readonly snrLossDb?: number;
  /** Gain toward it over the average in all directions, dB: what the pattern wins against evenly spread noise. */
  readonly patternDb?: number;
  /** SNR lost against a lossless antenna without direction over the same ground, in the open here, nothing added, dB; negative: it hears better. */
  readonly lostDb?: number;
  /** Signal at the receiver over what an isotropic lossless antenna without a line would hand it, dB. */
  readonly signalDb?: number;
  readonly reception: Reception;
  readonly worstProduct?: WorstProduct;
  /** Every product that falls on the target, pair by pair, strongest first. */
  readonly products: readonly WorstProduct[];
  /** Total power of all registered transmitters below the converter's full scale, dB; negative: it clips. */
  readonly headroomDb?: number;
  readonly remarks: readonly string[];
}

/** Conditions shared by all candidates. */
export interface ForecastPlace {
  readonly transmitters: readonly ForecastTransmitter[];
  readonly receivers: readonly ReceiveEnd[];
  /** Line loss at a frequency, dB. */
  lineLossDb(freqHz: number): number;
  /** Outside noise of the place in the open, dB over kT₀. */
  externalFaDb(freqHz: number, time?: TimeOfDay): number;
  /** The same as an antenna at its spot meets it; absent: as in the open. */
  readonly noise?: (ask: NoiseAsk) => SpotNoise;
  /** The listener's own transmitters: never heard, but they must not destroy what is connected. */
  readonly ownTransmitters?: readonly (ForecastTransmitter & { readonly name: string })[];
}

/** Noise of a place as an antenna meets it, where nothing is known of spots: that of the open. */
const openNoise = (place: ForecastPlace, { freqHz, time }: NoiseAsk): SpotNoise => {
  const faDb = place.externalFaDb(freqHz, time);
  return { ...{ low: faDb, middle: faDb, high: faDb, openDb: faDb, houseDb: 0 }, from: 'the place in the open' };
};
/** Balanced, nothing turned, as in the open. */
const PLAIN: Omit<NoiseAsk, 'freqHz' | 'time'> = { answersTo: 'balanced', turns: false, choked: true };

/** Noise from outside as an antenna meets it at a target. @param as what the antenna is to the noise; absent: balanced, in the open. */
export function noiseMet(
  place: ForecastPlace,
  { lowHz, highHz, time, arrivalDeg }: ForecastTarget,
  as: Omit<NoiseAsk, 'freqHz' | 'time'> = PLAIN,
): SpotNoise {
  const ask = { ...as, freqHz: (lowHz + highHz) / 2, elevationDeg: arrivalDeg, ...(time ? { time } : {}) };
  return place.noise?.(ask) ?? openNoise(place, ask);
}

/** Whether a receiver that samples the antenna directly shows a frequency only as its alias. */
const foldsAt = ({ realSampleRateHz }: Pick<ReceiveEnd, 'realSampleRateHz'>, freqHz: number): boolean =>
  typeof realSampleRateHz === 'number' && freqHz >= realSampleRateHz / 2;

/** The receivers that tune the target and do not fold it, the lowest noise figure first. */
const receiversFor = (receivers: readonly ReceiveEnd[], freqHz: number): readonly ReceiveEnd[] =>
  receivers
    .filter((receiver) => freqHz >= receiver.minHz && freqHz <= receiver.maxHz && !foldsAt(receiver, freqHz))
    .sort((a, b) => a.noiseFigureDb - b.noiseFigureDb);

/** The forecast with the receiver that a listener would take: one that is not overdriven before one that is, then the least SNR lost. */
const betterOf = (a: TargetForecast, b: TargetForecast): TargetForecast => {
  const [roomA, roomB] = [a, b].map(({ headroomDb = Infinity }) => Math.min(0, headroomDb));
  if (roomA !== roomB) return roomA > roomB ? a : b;
  return (b.snrLossDb ?? Infinity) < (a.snrLossDb ?? Infinity) ? b : a;
};

/** What one antenna does for a target, given what it receives there. */
type Forecaster = (target: ForecastTarget, reception?: Reception) => TargetForecast;

/** What is the same for every antenna at a place. */
interface PlaceFigures {
  readonly place: ForecastPlace;
  /** What an isotropic antenna would take from each transmitter, dBm. */
  readonly isotropicDbm: readonly number[];
  readonly productsOn: (target: ForecastTarget) => readonly ProductKind[];
  readonly receiversFor: (freqHz: number) => readonly ReceiveEnd[];
}

/** What makes one antenna's forecast its own, beside what it receives. */
export interface ForecastMeans {
  readonly head?: HeadAmplifier;
  readonly noise?: Omit<NoiseAsk, 'freqHz' | 'time'>;
  /** What is put between it and the line. */
  readonly additions?: readonly Addition[];
}

/** Forecasts at a place: what all antennas share there is worked out once. */
export function forecasterAt(
  given: ForecastPlace,
): (receptionAt: (freqHz: number) => Reception, means?: ForecastMeans) => Forecaster {
  const place: ForecastPlace = {
    ...given,
    lineLossDb: remembered((freqHz: number) => given.lineLossDb(freqHz)),
  };
  const products = productFinder(place.transmitters.map(({ freqHz }) => freqHz));
  const figures: PlaceFigures = {
    place,
    isotropicDbm: place.transmitters.map((transmitter) => transmitterField(transmitter).isotropicDbm),
    productsOn: remembered(({ lowHz, highHz, bandwidthHz }: ForecastTarget) =>
      products(lowHz, highHz, bandwidthHz / 2),
    ),
    receiversFor: remembered((freqHz: number) => receiversFor(place.receivers, freqHz)),
  };
  return (receptionAt, means = {}) => {
    const front = remembered((receiver: ReceiveEnd) => frontEnd(receptionAt, means, receiver, figures));
    return (target, reception = receptionAt((target.lowHz + target.highHz) / 2)) =>
      forecast(figures, front, means, target, reception);
  };
}

/** What a lossless antenna without direction takes over ground of a wave of the right polarisation, over an isotropic one, dB: half of the sphere is ground; a random wave is half of one polarisation. */
const referenceDb = ({ polarisation }: UsualSignal): number => (polarisation === 'random' ? 0 : powerDb(2));

/**
 * Noise-limited margin and overload of one antenna on one target.
 * Passive: margin = τη·fa / (f_c − τη), with τη the share of external noise that arrives and f_c the noise factor of line and
 * receiver. Active: own noise as an equivalent fa plus what stands behind its gain. SNR loss = 10 log(1 + 1/margin + product/noise).
 */
function forecast(
  figures: PlaceFigures,
  front: (receiver: ReceiveEnd) => FrontEnd,
  means: ForecastMeans,
  target: ForecastTarget,
  reception: Reception,
): TargetForecast {
  const { place } = figures;
  const centreHz = (target.lowHz + target.highHz) / 2;
  const noise = noiseMet(place, target, means.noise);
  const remarks = reception.remark ? [reception.remark] : [];
  const receivers = figures.receiversFor(centreHz);
  if (receivers.length === 0)
    return {
      target,
      externalFaDb: noise.middle,
      noise,
      reception,
      products: [],
      remarks: [
        place.receivers.some((one) => centreHz >= one.minHz && centreHz <= one.maxHz)
          ? 'The receiver that tunes it shows it only as an alias, beyond half its sample rate.'
          : 'No receiver of this station tunes it. Add one in Listen.',
        ...remarks,
      ],
    };
  return receivers
    .map((receiver) => withReceiver(receiver, front(receiver), { figures, means, target, reception, noise, remarks }))
    .reduce(betterOf);
}

/** What additions take at a frequency before the first amplifier, dB. */
const addedLossDb = (additions: readonly Addition[], freqHz: number): number =>
  additions.reduce((sum, one) => sum + one.lossDb + one.stopDb(freqHz), 0);

/** The amplifier that comes first behind the antenna: its own, else one that is added. */
const firstAmplifier = ({ head, additions = [] }: ForecastMeans): HeadAmplifier | undefined =>
  head ?? additions.find(({ amplifier }) => amplifier)?.amplifier;

function withReceiver(
  receiver: ReceiveEnd,
  front: FrontEnd,
  {
    figures,
    means,
    target,
    reception,
    noise,
    remarks,
  }: {
    readonly figures: PlaceFigures;
    readonly means: ForecastMeans;
    readonly target: ForecastTarget;
    readonly reception: Reception;
    readonly noise: SpotNoise;
    readonly remarks: readonly string[];
  },
): TargetForecast {
  const { place } = figures;
  const { head, additions = [] } = means;
  const externalFaDb = noise.middle;
  const centreHz = (target.lowHz + target.highHz) / 2;
  const behind = powerRatio(receiver.noiseFigureDb + Math.min(MOST_LINE_DB, place.lineLossDb(centreHz))); // matched line at 290 K
  const addedDb = addedLossDb(additions, centreHz);
  const added = powerRatio(Math.min(MOST_LINE_DB, addedDb));
  const preamplifier = head ? undefined : additions.find(({ amplifier }) => amplifier)?.amplifier;
  // all that stands behind a passive antenna, as a noise factor: filters are warm losses, a preamplifier hides what follows
  const chain =
    added *
    (preamplifier ? powerRatio(preamplifier.noiseFigureDb) + (behind - 1) / powerRatio(preamplifier.gainDb) : behind);
  const ownFa = head
    ? added * (powerRatio(reception.ownFaDb ?? 0) + (behind - 1) / (powerRatio(head.gainDb) * reception.transfer))
    : (chain - reception.transfer) / reception.transfer;
  const counted = reception.validity !== 'outside';
  const marginDb = counted ? externalFaDb - powerDb(ownFa) : undefined;
  const totalFaDb = counted ? powerDb(powerRatio(externalFaDb) + ownFa) : externalFaDb;
  const atInputDbm =
    noisePowerDbm(totalFaDb, target.bandwidthHz) + powerDb(Math.max(reception.transfer, 1e-12)) - addedDb;
  const amplifier = firstAmplifier(means);
  const noiseDbm = amplifier
    ? atInputDbm
    : counted
      ? atInputDbm - place.lineLossDb(centreHz)
      : noisePowerDbm(receiver.noiseFigureDb, target.bandwidthHz);
  const products = productsOn(front, figures.productsOn(target), noiseDbm, place.transmitters);
  const worstProduct = products.at(0);
  const snrLossDb =
    marginDb === undefined
      ? undefined
      : powerDb((1 + powerRatio(-marginDb)) * (1 + (worstProduct ? powerRatio(worstProduct.overNoiseDb) : 0)));
  const patternDb =
    counted && reception.transfer > 0 ? reception.realisedGainDbi - powerDb(reception.transfer) : undefined;
  const signal = signalOf(target);
  const overDb = (faDb: number, wonDb: number): number =>
    signal.isotropicDbm + wonDb - noisePowerDbm(faDb, target.bandwidthHz);
  const known =
    patternDb === undefined || snrLossDb === undefined
      ? undefined
      : { patternDb, heardDb: overDb(externalFaDb, patternDb) - snrLossDb };
  // where the chain decides, the scatter of the outside noise counts only by its share
  const outsideShare = snrLossDb === undefined ? 1 : Math.min(1, powerRatio(-snrLossDb));
  const headroom = fullScaleHeadroom(front.converterDbm, receiver.fullScaleDbm);
  return {
    target,
    receiver,
    externalFaDb,
    noise,
    marginDb,
    snrLossDb,
    reception,
    ...(known
      ? {
          patternDb: known.patternDb,
          heard: {
            low: known.heardDb - Math.hypot(signal.errorDb, outsideShare * (noise.high - noise.middle)),
            middle: known.heardDb,
            high: known.heardDb + Math.hypot(signal.errorDb, outsideShare * (noise.middle - noise.low)),
          },
          lostDb: overDb(noise.openDb, referenceDb(signal)) - known.heardDb,
        }
      : {}),
    ...(counted
      ? {
          signalDb: reception.realisedGainDbi - addedDb + (amplifier?.gainDb ?? 0) - place.lineLossDb(centreHz),
        }
      : {}),
    ...(worstProduct ? { worstProduct } : {}),
    products,
    headroomDb: headroom.headroomTotalDb ?? undefined,
    remarks,
  };
}

interface FrontEnd {
  readonly levelsDbm: readonly number[];
  readonly iip2Dbm: number;
  readonly iip3Dbm: number;
  readonly madeIn: WorstProduct['madeIn'];
  readonly converterDbm: readonly number[];
}

/** Levels of every transmitter at the first stage that can distort, and at the converter. */
function frontEnd(
  receptionAt: (freqHz: number) => Reception,
  means: ForecastMeans,
  receiver: ReceiveEnd,
  { place, isotropicDbm }: PlaceFigures,
): FrontEnd {
  const { additions = [] } = means;
  const amplifier = firstAmplifier(means);
  const atAntenna = place.transmitters.map(
    ({ freqHz }, i) => isotropicDbm[i] + receptionAt(freqHz).realisedGainDbi - addedLossDb(additions, freqHz),
  );
  const converterDbm = place.transmitters.map(
    ({ freqHz }, i) =>
      atAntenna[i] + (amplifier?.gainDb ?? 0) - place.lineLossDb(freqHz) - preselectionDb(receiver, freqHz),
  );
  return amplifier
    ? {
        ...{ levelsDbm: atAntenna, iip2Dbm: amplifier.iip2Dbm, iip3Dbm: amplifier.iip3Dbm, converterDbm },
        madeIn: means.head ? 'head amplifier' : 'preamplifier',
      }
    : {
        ...{ levelsDbm: converterDbm, iip2Dbm: receiver.iip2Dbm, iip3Dbm: receiver.iip3Dbm, converterDbm },
        madeIn: 'receiver',
      };
}

function productsOn(
  front: FrontEnd,
  kinds: readonly ProductKind[],
  noiseDbm: number,
  transmitters: readonly ForecastTransmitter[],
): readonly WorstProduct[] {
  const flat = { gainF1Db: 0, gainF2Db: 0, gainProductDb: 0, iip2Dbm: front.iip2Dbm, iip3Dbm: front.iip3Dbm };
  return kinds
    .flatMap((kind): WorstProduct[] => {
      const made = intermodAtAntenna(kind.order, front.levelsDbm[kind.first], front.levelsDbm[kind.second], [
        flat,
      ]).coherentDbm;
      if (made === null) return [];
      const levelDbm = made + kind.offsetDb;
      const names = kind.first === kind.second ? [kind.first] : [kind.first, kind.second];
      return [
        {
          label: kind.label,
          freqHz: kind.freqHz,
          transmitters: names.map((i) => transmitters[i].name),
          levelDbm,
          madeIn: front.madeIn,
          order: kind.order,
          tonesDbm: names.map((i) => front.levelsDbm[i]),
          overNoiseDb: levelDbm - noiseDbm,
        },
      ];
    })
    .sort((a, b) => b.levelDbm - a.levelDbm);
}

/** Behind more loss than this nothing is heard; kilometres of cable at microwaves would leave the range of numbers. */
const MOST_LINE_DB = 300;

/** A product so far over the noise spoils a target, dB. */
export const UNUSABLE_DB = 20;
/** From here a usual station is heard well, dB over the noise. Common practice, no source: 10 dB for speech and codes. */
export const WELL_DB = 10;

/** What one antenna makes of one target, as a state that every sentence reads: heard well, heard weakly, under the noise or spoilt, overloaded, or not judged. */
export type HearingState = 'served' | 'weak' | 'unusable' | 'overloads' | 'not judged';

/** @returns `not judged` where no receiver tunes it, the antenna's formulas do not hold, or nothing is computed yet. */
export function hearingState({ receiver, heard, headroomDb, worstProduct }: TargetForecast): HearingState {
  if (!receiver || !heard) return 'not judged';
  if (headroomDb !== undefined && headroomDb < 0) return 'overloads';
  if (heard.middle < 0 || (worstProduct?.overNoiseDb ?? -Infinity) > UNUSABLE_DB) return 'unusable';
  return heard.middle >= WELL_DB ? 'served' : 'weak';
}

/** Weighted mean of what is lost against a lossless antenna in the open here, on what could be judged, dB; undefined where nothing could be. */
export const overallLossDb = (forecasts: readonly TargetForecast[]): number | undefined =>
  weightedMean(judged(forecasts), ({ lostDb }) => lostDb ?? 0);

/**
 * How far usual stations stand over the noise, weighted mean over what a receiver tunes, with its range: the first part of the sum that orders a ranking.
 * @returns undefined where nothing could be judged.
 */
export function overallHeard(forecasts: readonly TargetForecast[]): Ranged | undefined {
  if (judged(forecasts).length === 0) return undefined;
  const list = forecasts.filter(({ receiver }) => receiver);
  const mean = (side: keyof Ranged): number =>
    weightedMean(list, (forecast) => {
      const middle = countedDb(forecast, 'quiet');
      const off = forecast.heard ? forecast.heard[side] - forecast.heard.middle : 0;
      return isHeard(forecast) ? Math.max(COUNTS_FROM_DB, Math.min(COUNTS_TO_DB, middle + off)) : middle;
    }) ?? COUNTS_FROM_DB;
  return { low: mean('low'), middle: mean('middle'), high: mean('high') };
}
const isHeard = (forecast: TargetForecast): boolean => ['served', 'weak'].includes(hearingState(forecast));

/** Weighted mean of the signal missing at the receiver on what could be judged, dB, at most 60 per target: what counts when the receiver's noise decides. */
export const overallWeaknessDb = (forecasts: readonly TargetForecast[]): number | undefined =>
  weightedMean(judged(forecasts), ({ signalDb }) => Math.max(-60, Math.min(60, -(signalDb ?? -60))));

const judged = (forecasts: readonly TargetForecast[]): readonly TargetForecast[] =>
  forecasts.filter((forecast) => hearingState(forecast) !== 'not judged');

/** What is not heard, not judged or spoilt counts as so far under the noise, dB; above the other end nobody hears a difference. Common practice, no source. */
export const COUNTS_FROM_DB = -10;
export const COUNTS_TO_DB = 40;
/** The same for the level alone, dB against an isotropic antenna. */
const WEAKEST_DB = -60;

/** What one target counts in the sum that orders a ranking, dB. */
export function countedDb(forecast: TargetForecast, view: 'quiet' | 'signal'): number {
  const state = hearingState(forecast);
  const [least, most] = view === 'quiet' ? [COUNTS_FROM_DB, COUNTS_TO_DB] : [WEAKEST_DB, -WEAKEST_DB];
  if (state === 'not judged' || state === 'unusable' || state === 'overloads') return least;
  const value = view === 'quiet' ? forecast.heard?.middle : forecast.signalDb;
  return Math.max(least, Math.min(most, value ?? least));
}

/** Weighted mean of what the targets count that a receiver tunes: the first part of the sum that orders a ranking, dB. */
export const orderDb = (forecasts: readonly TargetForecast[], view: 'quiet' | 'signal'): number =>
  weightedMean(
    forecasts.filter(({ receiver }) => receiver),
    (forecast) => countedDb(forecast, view),
  ) ?? COUNTS_FROM_DB;

function weightedMean(
  forecasts: readonly TargetForecast[],
  value: (forecast: TargetForecast) => number,
): number | undefined {
  const weight = forecasts.reduce((sum, forecast) => sum + forecast.target.weight, 0);
  if (weight === 0) return undefined;
  return forecasts.reduce((sum, forecast) => sum + forecast.target.weight * value(forecast), 0) / weight;
}
