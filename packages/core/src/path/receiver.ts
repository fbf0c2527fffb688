import { requirePositive, requireRange } from '../errors';
import { erfc } from '../numeric/special';
import { THERMAL_NOISE_DBM_PER_HZ } from '../units/constants';
import { powerDb, powerRatio, sumAmplitudesDb, sumPowersDb } from '../units/decibel';

/**
 * Floor of an N-bit converter (or of its effective bits) with a full-scale sine of `fullScaleDbm`.
 * SNR = 6.0206 N + 1.7609 dB in half the sample rate (the whole rate for complex samples): Bennett 1948.
 */
export function converterFloor(input: {
  readonly bits: number;
  readonly fullScaleDbm: number;
  readonly sampleRateHz: number;
  readonly bandwidthHz: number;
  readonly complexSamples?: boolean;
}) {
  requireRange(input.bits, 'Bits', 1, 32);
  requirePositive(input.sampleRateHz, 'Sample rate (Hz)');
  requirePositive(input.bandwidthHz, 'Bandwidth (Hz)');
  const spanHz = input.complexSamples ? input.sampleRateHz : input.sampleRateHz / 2;
  const snrDb = 20 * Math.log10(2) * input.bits + 10 * Math.log10(1.5);
  const floorDbmPerHz = input.fullScaleDbm - snrDb - powerDb(spanHz);
  return {
    snrDb,
    floorDbmPerHz,
    noiseFigureDb: floorDbmPerHz - THERMAL_NOISE_DBM_PER_HZ,
    processingGainDb: powerDb(spanHz / input.bandwidthHz),
    mdsDbm: floorDbmPerHz + powerDb(input.bandwidthHz),
  };
}

/** Noise figure that counts: the stated one, or the converter's own floor where that is higher; a superhet has no converter that counts. */
export const effectiveNoiseFigureDb = (receiver: {
  readonly noiseFigureDb: number;
  readonly bits: number;
  readonly fullScaleDbm: number;
  readonly sampleRateHz: number;
  readonly complexSamples?: boolean;
  readonly superhet?: boolean;
}): number =>
  receiver.superhet
    ? receiver.noiseFigureDb
    : Math.max(receiver.noiseFigureDb, converterFloor({ ...receiver, bandwidthHz: 1 }).noiseFigureDb);

/** Smallest signal and spurious-free range of a chain; MDS is S/N = 0 dB in the stated bandwidth. */
export function dynamicRange(noiseFigureDb: number, iip3Dbm: number, iip2Dbm: number, bandwidthHz: number) {
  requirePositive(bandwidthHz, 'Bandwidth (Hz)');
  const mdsDbm = THERMAL_NOISE_DBM_PER_HZ + noiseFigureDb + powerDb(bandwidthHz);
  const sfdr3Db = (2 / 3) * (iip3Dbm - mdsDbm);
  const sfdr2Db = (iip2Dbm - mdsDbm) / 2;
  return { mdsDbm, sfdr3Db, sfdr2Db, level3Dbm: mdsDbm + sfdr3Db, level2Dbm: mdsDbm + sfdr2Db };
}

/** Where an input lands after real sampling without preselection. */
export interface AliasResult {
  /** Nyquist zone, 1 for the first. */
  readonly zone: number;
  /** undefined exactly on a multiple of half the sample rate. */
  readonly appearsAtHz?: number;
  readonly mirrored: boolean;
  /** Every input up to `maxHz` that lands on the same frequency, ascending. */
  readonly sameBinHz: readonly number[];
}

/** Folding of a real-sampled input; spectra stand mirrored in even zones. */
export function foldAlias(freqHz: number, sampleRateHz: number, maxHz: number): AliasResult {
  requireRange(freqHz, 'Frequency (Hz)', 0);
  requirePositive(sampleRateHz, 'Sample rate (Hz)');
  requireRange(maxHz / sampleRateHz, 'Highest frequency over sample rate', 0, 100_000);
  const halfRateHz = sampleRateHz / 2;
  const zone = Math.floor(freqHz / halfRateHz + 1e-12) + 1;
  const rest = freqHz % sampleRateHz;
  const folded = rest <= halfRateHz ? rest : sampleRateHz - rest;
  const onEdge = Math.abs(freqHz / halfRateHz - Math.round(freqHz / halfRateHz)) < 1e-12;
  const sameBinHz: number[] = [];
  for (let base = 0; base - folded <= maxHz; base += sampleRateHz) {
    if (base - folded > 0) sameBinHz.push(base - folded);
    if (base + folded <= maxHz && folded > 0) sameBinHz.push(base + folded);
  }
  return {
    zone,
    appearsAtHz: onEdge ? undefined : folded,
    mirrored: zone % 2 === 0,
    sameBinHz: sameBinHz.filter((value) => value <= maxHz).sort((a, b) => a - b),
  };
}

/** More carriers than this behave like noise; fewer can meet in phase and are judged by their peaks. */
const GAUSSIAN_FROM = 5;
/** A full-scale sine's peak lies 3.01 dB above its own power. */
const SINE_CREST_DB = 10 * Math.log10(2);
/** Room between total power and a full-scale sine that a gain is best set for, for fading of groups of carriers at night. */
export const RECOMMENDED_ROOM_DB = 12;

/**
 * All signals in the analogue pass band against the converter's full scale (the level of a full-scale SINE).
 * @returns null levels for an empty list.
 */
export function fullScaleHeadroom(signalsDbm: readonly number[], fullScaleDbm: number, gainDb = 0) {
  if (signalsDbm.length === 0)
    return {
      totalDbm: null,
      headroomTotalDb: null,
      peakDbm: null,
      headroomPeakDb: null,
      canClip: false,
      clippedFraction: 0,
      many: false,
    };
  const totalDbm = sumPowersDb(signalsDbm) + gainDb;
  const peakDbm = sumAmplitudesDb(signalsDbm) + gainDb;
  const many = signalsDbm.length >= GAUSSIAN_FROM;
  const sigmas = 10 ** ((fullScaleDbm + SINE_CREST_DB - totalDbm) / 20);
  return {
    totalDbm,
    headroomTotalDb: fullScaleDbm - totalDbm,
    peakDbm,
    headroomPeakDb: fullScaleDbm - peakDbm,
    canClip: peakDbm > fullScaleDbm,
    /** Share of samples beyond full scale if the sum is Gaussian (many carriers). */
    clippedFraction: erfc(sigmas / Math.SQRT2),
    many,
  };
}

/** So far below full scale noise-like sums clip less than one sample in 10,000, dB. Source: erfc(4/√2), with the 3.01 dB of a sine's crest. */
const GAUSSIAN_ROOM_DB = 9;

/**
 * Room of a converter with the peaks of all carriers counted, dB; negative: it clips. Few carriers can meet in phase; many behave like noise, whose peaks
 * want 9 dB over their power. The one headroom of every room. @returns undefined without a carrier.
 */
export function peakRoomDb(levelsDbm: readonly number[], fullScaleDbm: number): number | undefined {
  const { peakDbm, totalDbm, many } = fullScaleHeadroom(levelsDbm, fullScaleDbm);
  if (peakDbm === null || totalDbm === null) return undefined;
  return fullScaleDbm - (many ? Math.min(peakDbm, totalDbm + GAUSSIAN_ROOM_DB) : peakDbm);
}

/** What an attenuator ahead of a suspected stage says about a spur. */
type AttenuatorVerdict =
  'real' | 'second_order' | 'third_order' | 'higher_order' | 'internal_or_after_attenuator' | 'mixed';

/** An order estimate counts if it lies this close to a whole number. */
const ORDER_WINDOW = 0.35;

/** dB the spur fell per dB of attenuator; "real" includes a product made ahead of the pad. */
export function attenuatorTest(beforeDbm: number, afterDbm: number, attenuatorDb: number) {
  requirePositive(attenuatorDb, 'Attenuator (dB)');
  const order = (beforeDbm - afterDbm) / attenuatorDb;
  const nearest = Math.round(order);
  let verdict: AttenuatorVerdict = 'mixed';
  if (order > 3 + ORDER_WINDOW) verdict = 'higher_order';
  else if (Math.abs(order - nearest) <= ORDER_WINDOW + 1e-9) {
    if (nearest === 0) verdict = 'internal_or_after_attenuator';
    if (nearest === 1) verdict = 'real';
    if (nearest === 2) verdict = 'second_order';
    if (nearest === 3) verdict = 'third_order';
  }
  return { order, verdict };
}

/** From here on the receiver counts as limited by external noise. */
const EXTERNAL_LIMIT_RISE_DB = 6;

/**
 * Rise of the noise when a matched dummy (290 K) is replaced by the antenna.
 * @returns null values where the rise says nothing (0 dB or less).
 */
export function noiseRise(riseDb: number) {
  requireRange(riseDb, 'Rise (dB)');
  const excess = powerRatio(riseDb) - 1;
  return {
    externalOverInternalDb: excess > 0 ? powerDb(excess) : null,
    snrLossDb: excess > 0 ? -powerDb(1 - 1 / powerRatio(riseDb)) : null,
    externalLimited: riseDb >= EXTERNAL_LIMIT_RISE_DB,
  };
}

/** What an amplifier could do, by the rise (schools of practice agree on these two limits). */
export type AmplifierAdvice = 'none_needed' | 'at_antenna_helps' | 'little';
/** Rise above 10 dB: no amplifier; below 3 dB: one at the antenna; in between little is gained. Common practice, no source. */
export const amplifierAdvice = (riseDb: number): AmplifierAdvice =>
  riseDb >= 10 ? 'none_needed' : riseDb < 3 ? 'at_antenna_helps' : 'little';

/**
 * Smallest gain of an amplifier at the antenna that keeps the SNR within `limitDb` of a noiseless chain.
 * SNR loss = 10 log[(fe + (1 − 1/La) + fs − 1)/fe] with fe the external noise behind the loss ahead (all at 290 K).
 */
export function requiredPreampGain(input: {
  readonly externalFaDb: number;
  readonly lossBeforeDb: number;
  readonly preampNoiseFigureDb: number;
  readonly cableLossDb: number;
  readonly receiverNoiseFigureDb: number;
  readonly limitDb: number;
}) {
  requirePositive(input.limitDb, 'Allowed loss (dB)');
  requireRange(input.lossBeforeDb, 'Loss ahead (dB)', 0);
  requireRange(input.cableLossDb, 'Cable loss (dB)', 0);
  const la = powerRatio(input.lossBeforeDb);
  const fe = powerRatio(input.externalFaDb) / la;
  const fp = powerRatio(input.preampNoiseFigureDb);
  const behind = powerRatio(input.receiverNoiseFigureDb + input.cableLossDb); // fr·lc: a matched loss adds to the figure
  const limit = powerRatio(input.limitDb);
  const lossWith = (fs: number): number => powerDb((fe + (1 - 1 / la) + fs - 1) / fe);
  const without = lossWith(behind);
  const infinite = lossWith(fp);
  const needed = without > input.limitDb;
  const room = limit * fe - fe + 1 / la - fp;
  const possible = !needed || room > 0;
  return {
    snrLossWithoutDb: without,
    snrLossInfiniteGainDb: infinite,
    needed,
    possible,
    minGainDb: needed && room > 0 ? powerDb((behind - 1) / room) : null,
  };
}

/** A transmitter this far outside the receiver's range is taken to be stopped by its own input filter, dB per octave and at most. */
const PRESELECTION_DB_PER_OCTAVE = 18;
const PRESELECTION_MAX_DB = 60;

/** Loss that a receiver's own input filter is assumed to have outside its range: 18 dB per octave, at most 60 dB. */
export function preselectionDb(receiver: { readonly minHz: number; readonly maxHz: number }, freqHz: number): number {
  const octaves =
    freqHz > receiver.maxHz
      ? Math.log2(freqHz / receiver.maxHz)
      : freqHz < receiver.minHz
        ? Math.log2(receiver.minHz / freqHz)
        : 0;
  return Math.min(PRESELECTION_MAX_DB, octaves * PRESELECTION_DB_PER_OCTAVE);
}

/** Less room than this is called close, dB: a carrier that fades up, or one that nobody entered. Common practice, no source. */
const CLOSE_DB = 3;

/** What transmitters do to a receiver with nothing between it and an antenna. */
export interface DirectInput {
  /** All carriers at the converter, dBm. */
  readonly totalDbm: number;
  /** Room to full scale with the peaks of all carriers counted, dB; negative: it clips. */
  readonly roomDb: number;
  readonly strongest: string;
  /** 'close': hardly room for what nobody entered. */
  readonly state: 'clips' | 'close' | 'fine';
}

/**
 * Carriers on a lossless isotropic antenna, through the receiver's assumed input filter, against its full scale.
 * @param carriers isotropic levels in dBm at their frequencies in Hz. Range: what makes products in a front end is not judged here.
 * @returns undefined without a carrier. Source: power sums; `preselectionDb` for the filter.
 */
export function directInput(
  receiver: { readonly minHz: number; readonly maxHz: number; readonly fullScaleDbm: number },
  carriers: readonly { readonly name: string; readonly freqHz: number; readonly levelDbm: number }[],
): DirectInput | undefined {
  const levels = carriers.map(({ freqHz, levelDbm }) => levelDbm - preselectionDb(receiver, freqHz));
  const { totalDbm } = fullScaleHeadroom(levels, receiver.fullScaleDbm);
  const roomDb = peakRoomDb(levels, receiver.fullScaleDbm);
  if (totalDbm === null || roomDb === undefined) return undefined;
  const strongest = carriers[levels.indexOf(Math.max(...levels))].name;
  return { totalDbm, roomDb, strongest, state: roomDb < 0 ? 'clips' : roomDb < CLOSE_DB ? 'close' : 'fine' };
}
