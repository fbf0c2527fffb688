import { noisePowerDbm } from '../site/external-noise';
import { powerDb, powerRatio } from '../units/decibel';
import { frequencyText } from '../units/format';
import { activeStage, cascadeIntercepts } from './cascade';
import { follow, productsByStage, type Followed, type PathProduct } from './products';
import type { PathQuestion, PathReceiver, PathSignal } from './question';
import { converterFloor, effectiveNoiseFigureDb, foldAlias, fullScaleHeadroom, peakRoomDb } from './receiver';
import {
  compressionDbm,
  frequenciesAlong,
  gainsAlong,
  lacksNoiseFigure,
  stageIntercepts,
  stageNoise,
  type PathStage,
} from './stages';

/** One carrier's level after each stage. */
interface SignalWalk {
  readonly signal: PathSignal;
  /** Level at the input of each stage and of the receiver, dBm. */
  readonly levelsDbm: readonly number[];
}

/** What arrives at a stage and what it does there, the receiver last. */
interface StageReport {
  readonly name: string;
  /** The middle of the wanted band at its input, Hz. */
  readonly freqHz: number;
  /** From the antenna to its input, dB. */
  readonly gainAheadDb: number;
  /** Noise at its input in the question's bandwidth: from outside and from the stages ahead, dBm. */
  readonly noiseDbm: number;
  /** Its part of all the noise that the chain adds, 0..1. */
  readonly noiseShare: number;
  /** All carriers together, dBm; absent without carriers. */
  readonly totalDbm?: number;
  /** To 1 dB compression, for the receiver to full scale, dB; absent for what does not compress. */
  readonly roomDb?: number;
  /** The strongest product in the wanted band that is made in it, as it is at the antenna. */
  readonly product?: PathProduct;
}

/** Everything about one order of stages at the wanted frequency. */
export interface PathAnalysis {
  readonly gainDb: number;
  readonly noiseFigureDb: number;
  readonly iip3Dbm: number | null;
  readonly iip2Dbm: number | null;
  readonly walks: readonly SignalWalk[];
  readonly strongest?: SignalWalk;
  readonly totalDbm: number | null;
  readonly headroomDb: number | null;
  readonly peakHeadroomDb: number | null;
  readonly canClip: boolean;
  readonly worstProduct?: PathProduct;
  /** Stage by stage, receiver last. */
  readonly reports: readonly StageReport[];
  /** First stage whose room is used up. */
  readonly firstOverload?: StageReport;
  /** Where the middle of the wanted band lands, Hz: another place only behind a converter. */
  readonly landsAtHz: number;
  /** What the receiver's range says to that; absent when it tunes there. */
  readonly outOfReach?: string;
  /** A receiver that samples directly shows the wanted band only folded, beyond half its sample rate; absent when it does not fold. */
  readonly alias?: { readonly appearsAtHz: number; readonly mirrored: boolean };
  /** Amplifying parts whose noise figure nobody entered: computed with an assumed one. */
  readonly assumedNoise: readonly string[];
  /** SNR lost to the chain against the external noise, products left out, dB. */
  readonly snrLossDb: number;
  /** The same with the worst product counted as noise. */
  readonly snrLossWithProductsDb: number;
  /** Converter floor expressed as a noise figure, dB, and whether it decides the receiver's own. */
  readonly converterNoiseFigureDb: number;
}

/** Added to the noise factor so that a chain of nothing has shares of nothing. */
const NOTHING = 1e-12;

/**
 * Gain, noise figure, intercepts, full-scale headroom and in-band products of stages in a stated order, at the middle of the wanted band.
 * Receiver noise: the larger of its stated figure and the ideal converter's floor. Intercepts are for signals that every stage passes
 * alike; products are computed pair by pair with each stage's gain at each frequency, before and behind every converter on its own.
 */
export const analysePath = (
  stages: readonly PathStage[],
  receiver: PathReceiver,
  question: PathQuestion,
): PathAnalysis => analyse(stages, receiver, question, walkedCarriers(stages, receiver, question.signals));

/** The same for several wanted bands with the same carriers, which are then followed through the stages once. */
export function analyseBands(
  stages: readonly PathStage[],
  receiver: PathReceiver,
  bands: readonly Omit<PathQuestion, 'signals'>[],
  signals: readonly PathSignal[],
): readonly PathAnalysis[] {
  const carriers = walkedCarriers(stages, receiver, signals);
  return bands.map((band) => analyse(stages, receiver, { ...band, signals }, carriers));
}

/** What the carriers do in a chain, whatever band is wanted. */
interface Walked {
  readonly followed: Followed;
  readonly walks: readonly SignalWalk[];
  readonly headroom: ReturnType<typeof fullScaleHeadroom>;
  /** Room with the peaks of all carriers counted, dB; null without a carrier. */
  readonly peakRoomDb: number | null;
  /** All carriers together at the input of each stage, dBm; absent without carriers. */
  readonly totalsDbm: readonly (number | undefined)[];
}

function walkedCarriers(stages: readonly PathStage[], receiver: PathReceiver, signals: readonly PathSignal[]): Walked {
  const followed = follow(stages, receiver, signals);
  const { carriers } = followed;
  const walks = signals.map((signal, i): SignalWalk => {
    const levelsDbm = [signal.levelDbm];
    for (const gainDb of carriers[i].gains) levelsDbm.push(levelsDbm[levelsDbm.length - 1] + gainDb);
    return { signal, levelsDbm };
  });
  const atReceiver = walks.map(({ levelsDbm }, i) => levelsDbm[stages.length] - carriers[i].preselectionDb);
  const headroom = fullScaleHeadroom(atReceiver, receiver.fullScaleDbm);
  const room = peakRoomDb(atReceiver, receiver.fullScaleDbm) ?? null;
  const totalsDbm = stages.map((_, i) =>
    walks.length === 0 ? undefined : powerDb(walks.reduce((sum, { levelsDbm }) => sum + powerRatio(levelsDbm[i]), 0)),
  );
  return { followed, walks, headroom, peakRoomDb: room, totalsDbm };
}

function analyse(
  stages: readonly PathStage[],
  receiver: PathReceiver,
  question: PathQuestion,
  { followed, walks, headroom, peakRoomDb: room, totalsDbm }: Walked,
): PathAnalysis {
  const centreHz = (question.lowHz + question.highHz) / 2;
  const along = frequenciesAlong(stages, centreHz);
  const landsAtHz = along[along.length - 1];
  const gains = gainsAlong(stages, centreHz);
  const converterNoiseFigureDb = converterFloor({ ...receiver, bandwidthHz: question.bandwidthHz }).noiseFigureDb;
  const noiseStages = [
    ...stages.map((stage, i) => stageNoise(stage, along[i])),
    activeStage(0, effectiveNoiseFigureDb(receiver)),
  ];
  const intercepts = cascadeIntercepts([
    ...stages.map((stage, i) => ({ gainDb: gains[i], ...stageIntercepts(stage) })),
    { gainDb: 0, iip3Dbm: receiver.iip3Dbm, iip2Dbm: receiver.iip2Dbm },
  ]);
  const external = powerRatio(question.externalFaDb);
  // noise factor of what lies ahead of each stage and, last, of the whole chain
  const ahead = [1];
  let gainAhead = 1;
  const gainsAhead = noiseStages.map(({ gain, noiseFactor }, i) => {
    const here = gainAhead;
    ahead.push(ahead[i] + (noiseFactor - 1) / gainAhead);
    gainAhead *= gain;
    return here;
  });
  const factor = ahead[ahead.length - 1];
  const warm = external + (question.antennaNoise ?? 0);
  const noiseDb = powerDb(warm + factor - 1);
  const made = productsByStage(stages, receiver, question, followed, noisePowerDbm(noiseDb, question.bandwidthHz));
  const worstProduct = made.worst;
  const snrLossDb = noiseDb - question.externalFaDb;
  const reports = [...stages, undefined].map((stage, i): StageReport => {
    const totalDbm = stage === undefined ? (headroom.totalDbm ?? undefined) : totalsDbm[i];
    const most = stage && compressionDbm(stage);
    const roomDb =
      stage === undefined
        ? (headroom.headroomTotalDb ?? undefined)
        : most === undefined || totalDbm === undefined
          ? undefined
          : most - totalDbm;
    const product = made.byStage[i];
    return {
      name: stage?.name ?? receiver.name,
      freqHz: along[i],
      gainAheadDb: powerDb(gainsAhead[i]),
      noiseDbm: noisePowerDbm(powerDb((warm + ahead[i] - 1) * gainsAhead[i]), question.bandwidthHz),
      noiseShare: (ahead[i + 1] - ahead[i]) / (factor - 1 + NOTHING),
      ...(totalDbm === undefined ? {} : { totalDbm }),
      ...(roomDb === undefined ? {} : { roomDb }),
      ...(product ? { product } : {}),
    };
  });
  return {
    gainDb: intercepts.gainDb,
    noiseFigureDb: powerDb(factor),
    iip3Dbm: intercepts.iip3CoherentDbm,
    iip2Dbm: intercepts.iip2CoherentDbm,
    walks,
    strongest: walks.length === 0 ? undefined : walks.reduce((a, b) => (last(b) > last(a) ? b : a)),
    totalDbm: headroom.totalDbm,
    headroomDb: headroom.headroomTotalDb,
    peakHeadroomDb: room,
    canClip: room !== null && room < 0,
    worstProduct,
    reports,
    firstOverload: reports.find(({ roomDb }) => roomDb !== undefined && roomDb < 0),
    landsAtHz,
    ...outOfReach(receiver, landsAtHz),
    ...aliasOf(receiver, landsAtHz),
    assumedNoise: stages.filter((stage, i) => lacksNoiseFigure(stage, along[i])).map(({ name }) => name),
    snrLossDb,
    snrLossWithProductsDb: snrLossDb + (worstProduct ? powerDb(1 + powerRatio(worstProduct.overNoiseDb)) : 0),
    converterNoiseFigureDb,
  };
}

const last = (signalWalk: SignalWalk): number => signalWalk.levelsDbm[signalWalk.levelsDbm.length - 1];

/** Where direct sampling shows a frequency beyond half the sample rate. */
function aliasOf({ complexSamples, sampleRateHz }: PathReceiver, landsAtHz: number): Pick<PathAnalysis, 'alias'> {
  if (complexSamples || landsAtHz < sampleRateHz / 2) return {};
  const { appearsAtHz, mirrored } = foldAlias(landsAtHz, sampleRateHz, 0);
  return { alias: { appearsAtHz: appearsAtHz ?? 0, mirrored } };
}

function outOfReach(receiver: PathReceiver, landsAtHz: number): { readonly outOfReach?: string } {
  if (landsAtHz >= receiver.minHz && landsAtHz <= receiver.maxHz) return {};
  return {
    outOfReach: `Put a converter into the path that ends between ${frequencyText(receiver.minHz)} and ${frequencyText(receiver.maxHz)}, or choose another receiver.`,
  };
}
