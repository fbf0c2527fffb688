import type { HeadAmplifier, Reception } from '../antenna/kind';
import { transmitterField, type PowerKind } from '../site/field';
import { noisePowerDbm } from '../site/external-noise';
import { intermodAtAntenna, productFinder, type ProductKind } from '../path/intermod';
import { preselectionDb, fullScaleHeadroom } from '../path/receiver';
import { powerDb, powerRatio } from '../units/decibel';
import { remembered } from './remembered';

/** A registered transmitter as far as a forecast needs it. */
interface ForecastTransmitter {
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
  /** Clockwise from true north; absent when nobody said where it is. */
  readonly bearingDeg?: number;
}

/** The strongest product that falls on a target, and who makes it. */
export interface WorstProduct {
  readonly label: string;
  readonly freqHz: number;
  readonly transmitters: readonly string[];
  /** At the input of the stage that makes it. */
  readonly levelDbm: number;
  readonly madeIn: 'head amplifier' | 'receiver';
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
  readonly externalFaDb: number;
  /** External noise through the antenna over everything that the chain adds, dB; undefined where the model does not hold. */
  readonly marginDb?: number;
  /** SNR lost against a noiseless chain without overload, dB; undefined with the margin. */
  readonly snrLossDb?: number;
  /** Gain toward it over the average in all directions, dB: what the pattern wins against evenly spread noise. */
  readonly patternDb?: number;
  /** SNR lost against an ideal antenna (lossless, without direction, nothing added), dB; negative: the pattern wins more than the chain loses. */
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

/** SNR loss beyond which a target counts as not heard at all. */
const LOST_DB = 30;
/** Conditions shared by all candidates. */
export interface ForecastPlace {
  readonly transmitters: readonly ForecastTransmitter[];
  readonly receivers: readonly ReceiveEnd[];
  /** Line loss at a frequency, dB. */
  lineLossDb(freqHz: number): number;
  externalFaDb(freqHz: number): number;
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

/** Forecasts at a place: what all antennas share there is worked out once. */
export function forecasterAt(
  given: ForecastPlace,
): (receptionAt: (freqHz: number) => Reception, head?: HeadAmplifier) => Forecaster {
  const place: ForecastPlace = {
    ...given,
    lineLossDb: remembered((freqHz: number) => given.lineLossDb(freqHz)),
    externalFaDb: remembered((freqHz: number) => given.externalFaDb(freqHz)),
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
  return (receptionAt, head) => {
    const front = remembered((receiver: ReceiveEnd) => frontEnd(receptionAt, head, receiver, figures));
    return (target, reception = receptionAt((target.lowHz + target.highHz) / 2)) =>
      forecast(figures, front, head, target, reception);
  };
}

/**
 * Noise-limited margin and overload of one antenna on one target.
 * Passive: margin = τη·fa / (f_c − τη), with τη the share of external noise that arrives and f_c the noise factor of line and
 * receiver. Active: own noise as an equivalent fa plus what stands behind its gain. SNR loss = 10 log(1 + 1/margin + product/noise).
 */
function forecast(
  figures: PlaceFigures,
  front: (receiver: ReceiveEnd) => FrontEnd,
  head: HeadAmplifier | undefined,
  target: ForecastTarget,
  reception: Reception,
): TargetForecast {
  const { place } = figures;
  const centreHz = (target.lowHz + target.highHz) / 2;
  const externalFaDb = place.externalFaDb(centreHz);
  const remarks = reception.remark ? [reception.remark] : [];
  const receivers = figures.receiversFor(centreHz);
  if (receivers.length === 0)
    return {
      target,
      externalFaDb,
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
    .map((receiver) =>
      withReceiver(receiver, front(receiver), { figures, head, target, reception, externalFaDb, remarks }),
    )
    .reduce(betterOf);
}

function withReceiver(
  receiver: ReceiveEnd,
  front: FrontEnd,
  {
    figures,
    head,
    target,
    reception,
    externalFaDb,
    remarks,
  }: {
    readonly figures: PlaceFigures;
    readonly head: HeadAmplifier | undefined;
    readonly target: ForecastTarget;
    readonly reception: Reception;
    readonly externalFaDb: number;
    readonly remarks: readonly string[];
  },
): TargetForecast {
  const { place } = figures;
  const centreHz = (target.lowHz + target.highHz) / 2;
  const behind = powerRatio(receiver.noiseFigureDb + Math.min(MOST_LINE_DB, place.lineLossDb(centreHz))); // matched line at 290 K
  const ownFa = head
    ? powerRatio(reception.ownFaDb ?? 0) + (behind - 1) / (powerRatio(head.gainDb) * reception.transfer)
    : (behind - reception.transfer) / reception.transfer;
  const counted = reception.validity !== 'outside';
  const marginDb = counted ? externalFaDb - powerDb(ownFa) : undefined;
  const totalFaDb = counted ? powerDb(powerRatio(externalFaDb) + ownFa) : externalFaDb;
  const atInputDbm = noisePowerDbm(totalFaDb, target.bandwidthHz) + powerDb(Math.max(reception.transfer, 1e-12));
  const noiseDbm = head
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
  const headroom = fullScaleHeadroom(front.converterDbm, receiver.fullScaleDbm);
  return {
    target,
    receiver,
    externalFaDb,
    marginDb,
    snrLossDb,
    reception,
    ...(patternDb !== undefined && snrLossDb !== undefined ? { patternDb, lostDb: snrLossDb - patternDb } : {}),
    ...(counted ? { signalDb: reception.realisedGainDbi + (head?.gainDb ?? 0) - place.lineLossDb(centreHz) } : {}),
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
  head: HeadAmplifier | undefined,
  receiver: ReceiveEnd,
  { place, isotropicDbm }: PlaceFigures,
): FrontEnd {
  const atAntenna = place.transmitters.map(({ freqHz }, i) => isotropicDbm[i] + receptionAt(freqHz).realisedGainDbi);
  const converterDbm = place.transmitters.map(
    ({ freqHz }, i) => atAntenna[i] + (head?.gainDb ?? 0) - place.lineLossDb(freqHz) - preselectionDb(receiver, freqHz),
  );
  return head
    ? { levelsDbm: atAntenna, iip2Dbm: head.iip2Dbm, iip3Dbm: head.iip3Dbm, madeIn: 'head amplifier', converterDbm }
    : {
        levelsDbm: converterDbm,
        iip2Dbm: receiver.iip2Dbm,
        iip3Dbm: receiver.iip3Dbm,
        madeIn: 'receiver',
        converterDbm,
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

/** Best that a pattern is credited with, dB. */
const WON_DB = 12;

/** Behind more loss than this nothing is heard; kilometres of cable at microwaves would leave the range of numbers. */
const MOST_LINE_DB = 300;

/** SNR loss, or a product over the noise, from which a target is not usable, dB. */
export const UNUSABLE_DB = 20;
/** A target counts as served when the chain costs it no more than this, dB. */
export const SERVED_DB = 3;

/** What one antenna makes of one target, as a state that every sentence reads. */
export type HearingState = 'served' | 'weak' | 'unusable' | 'overloads' | 'not judged';

/** @returns `not judged` where no receiver tunes it, the antenna's formulas do not hold, or nothing is computed yet. */
export function hearingState({
  receiver,
  marginDb,
  snrLossDb,
  headroomDb,
  worstProduct,
}: TargetForecast): HearingState {
  if (!receiver || marginDb === undefined || snrLossDb === undefined) return 'not judged';
  if (headroomDb !== undefined && headroomDb < 0) return 'overloads';
  if (snrLossDb >= UNUSABLE_DB || (worstProduct?.overNoiseDb ?? -Infinity) > UNUSABLE_DB) return 'unusable';
  return snrLossDb < SERVED_DB ? 'served' : 'weak';
}

/** Weighted mean of what is lost against an ideal antenna on what could be judged, dB; undefined where nothing could be. */
export const overallLossDb = (forecasts: readonly TargetForecast[]): number | undefined =>
  weightedMean(judged(forecasts), ({ lostDb }) => Math.max(-WON_DB, Math.min(LOST_DB, lostDb ?? LOST_DB)));

/** Weighted mean of the signal missing at the receiver on what could be judged, dB, at most 60 per target: what counts when the receiver's noise decides. */
export const overallWeaknessDb = (forecasts: readonly TargetForecast[]): number | undefined =>
  weightedMean(judged(forecasts), ({ signalDb }) => Math.max(-60, Math.min(60, -(signalDb ?? -60))));

const judged = (forecasts: readonly TargetForecast[]): readonly TargetForecast[] =>
  forecasts.filter((forecast) => hearingState(forecast) !== 'not judged');

/** For the order alone: what could not be judged although a receiver tunes it, or is not usable, counts as lost. Never shown. */
export const orderDb = (forecasts: readonly TargetForecast[], view: 'quiet' | 'signal'): number =>
  weightedMean(
    forecasts.filter(({ receiver }) => receiver),
    (forecast) => {
      const state = hearingState(forecast);
      if (state === 'not judged') return view === 'quiet' ? LOST_DB : 60;
      const own =
        view === 'quiet'
          ? Math.max(-WON_DB, Math.min(LOST_DB, forecast.lostDb ?? LOST_DB))
          : Math.max(-60, Math.min(60, -(forecast.signalDb ?? -60)));
      return state === 'unusable' || state === 'overloads' ? Math.max(own, LOST_DB) : own;
    },
  ) ?? LOST_DB;

function weightedMean(
  forecasts: readonly TargetForecast[],
  value: (forecast: TargetForecast) => number,
): number | undefined {
  const weight = forecasts.reduce((sum, forecast) => sum + forecast.target.weight, 0);
  if (weight === 0) return undefined;
  return forecasts.reduce((sum, forecast) => sum + forecast.target.weight * value(forecast), 0) / weight;
}
