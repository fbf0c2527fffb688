import { attenuationDbPer100m, type LineLossModel } from '../line/coax';
import { filterLossDb, type FilterSpec } from '../filter/response';
import { noisePowerDbm } from '../site/external-noise';
import { powerDb, powerRatio } from '../units/decibel';
import { preselectionDb } from '../choose/forecast';
import { activeStage, cascadeIntercepts, cascadeNoiseFactor, passiveStage, type NoiseStage } from './cascade';
import { intermodAtAntenna, productsInBand } from './intermod';
import { converterFloor, effectiveNoiseFigureDb, fullScaleHeadroom } from './receiver';

/** Stages between antenna and receiver. Gains depend on frequency where the thing does. */
export type PathStage =
  | { readonly kind: 'line'; readonly name: string; readonly cable: LineLossModel; readonly lengthM: number }
  | { readonly kind: 'filter'; readonly name: string; readonly filter: FilterSpec }
  | {
      readonly kind: 'amplifier';
      readonly name: string;
      readonly gainDb: number;
      readonly noiseFigureDb: number;
      readonly iip2Dbm: number;
      readonly iip3Dbm: number;
    }
  | { readonly kind: 'pad'; readonly name: string; readonly lossDb: number }
  | MeasuredPart;

/** Gain at one frequency, dB; a loss is negative. */
export interface TransferPoint {
  readonly freqHz: number;
  readonly gainDb: number;
}

/** A part by its own data: gain over frequency as measured or as its sheet says. */
export interface MeasuredPart {
  readonly kind: 'part';
  readonly name: string;
  /** Ascending; carried on flat beyond its ends. */
  readonly transfer: readonly TransferPoint[];
  /** Absent: passive, its noise is that of its loss at 290 K. */
  readonly noiseFigureDb?: number;
  /** Absent: it distorts nothing worth counting. */
  readonly iip2Dbm?: number;
  readonly iip3Dbm?: number;
  /** Input level of 1 dB compression; absent: 10 dB under its third-order intercept, if it has one. */
  readonly p1Dbm?: number;
}

/** Gain between the points of a part, straight in dB over log f. */
function transferDb(transfer: readonly TransferPoint[], freqHz: number): number {
  const next = transfer.findIndex((point) => point.freqHz >= freqHz);
  if (next === 0) return transfer[0].gainDb;
  if (next < 0) return transfer[transfer.length - 1]?.gainDb ?? 0;
  const [a, b] = [transfer[next - 1], transfer[next]];
  return a.gainDb + ((b.gainDb - a.gainDb) * Math.log(freqHz / a.freqHz)) / Math.log(b.freqHz / a.freqHz);
}

/** Input intercepts of a stage that distorts; undefined for one that does not. */
export function stageIntercepts(
  stage: PathStage,
): { readonly iip2Dbm?: number; readonly iip3Dbm?: number } | undefined {
  if (stage.kind !== 'amplifier' && stage.kind !== 'part') return undefined;
  const { iip2Dbm, iip3Dbm } = stage;
  return iip2Dbm === undefined && iip3Dbm === undefined ? undefined : { iip2Dbm, iip3Dbm };
}

/** Compression lies about this far below the third-order intercept where nobody measured it, dB. Physics: 9.64 for a pure cubic law. */
const BELOW_INTERCEPT_DB = 10;
/** Input level at which a stage compresses by 1 dB, dBm; undefined for one that does not. */
export function compressionDbm(stage: PathStage): number | undefined {
  if (stage.kind === 'part' && stage.p1Dbm !== undefined) return stage.p1Dbm;
  const iip3 = stageIntercepts(stage)?.iip3Dbm;
  return iip3 === undefined ? undefined : iip3 - BELOW_INTERCEPT_DB;
}

/** The receiver at the end of a path. */
export interface PathReceiver {
  readonly name: string;
  readonly noiseFigureDb: number;
  readonly iip2Dbm: number;
  readonly iip3Dbm: number;
  readonly fullScaleDbm: number;
  readonly bits: number;
  readonly sampleRateHz: number;
  readonly complexSamples: boolean;
  readonly minHz: number;
  readonly maxHz: number;
}

/** Gain of a stage at a frequency, dB; the real response of a filter, not a fixed loss. */
export function stageGainDb(stage: PathStage, freqHz: number): number {
  switch (stage.kind) {
    case 'line':
      return (-attenuationDbPer100m(stage.cable, freqHz) * stage.lengthM) / 100;
    case 'filter':
      return -filterLossDb(stage.filter, freqHz);
    case 'amplifier':
      return stage.gainDb;
    case 'pad':
      return -stage.lossDb;
    case 'part':
      return transferDb(stage.transfer, freqHz);
  }
}

const noiseOf = (stage: PathStage, freqHz: number): NoiseStage =>
  (stage.kind === 'amplifier' || stage.kind === 'part') && stage.noiseFigureDb !== undefined
    ? activeStage(stageGainDb(stage, freqHz), stage.noiseFigureDb)
    : passiveStage(-stageGainDb(stage, freqHz));

/** A carrier at the antenna connector. */
export interface PathSignal {
  readonly name: string;
  readonly freqHz: number;
  readonly levelDbm: number;
}

/** One carrier's level after each stage. */
export interface SignalWalk {
  readonly signal: PathSignal;
  /** Level at the input of each stage and of the receiver, dBm. */
  readonly levelsDbm: readonly number[];
}

/** The strongest product in the wanted band and where it is made. */
export interface PathProduct {
  readonly label: string;
  readonly freqHz: number;
  readonly signals: readonly string[];
  /** Referred to the antenna connector, dBm. */
  readonly antennaDbm: number;
  /** Over the noise at the antenna in the stated bandwidth, dB. */
  readonly overNoiseDb: number;
  readonly madeIn: string;
}

/** All carriers together at the input of a stage. */
export interface StageInput {
  readonly name: string;
  readonly totalDbm: number;
  /** To 1 dB compression, for the receiver to full scale, dB; absent for what does not compress. */
  readonly roomDb?: number;
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
  /** What reaches each stage, receiver last, and how far below its compression (or full scale) that is. */
  readonly inputs: readonly StageInput[];
  /** First stage whose room is used up. */
  readonly firstOverload?: StageInput;
  /** SNR lost to the chain against the external noise, products left out, dB. */
  readonly snrLossDb: number;
  /** The same with the worst product counted as noise. */
  readonly snrLossWithProductsDb: number;
  /** Converter floor expressed as a noise figure, dB, and whether it decides the receiver's own. */
  readonly converterNoiseFigureDb: number;
}

/** Wanted band and noise for a path analysis. */
export interface PathQuestion {
  readonly lowHz: number;
  readonly highHz: number;
  readonly bandwidthHz: number;
  /** External noise figure at the antenna connector (after efficiency and mismatch), dB. */
  readonly externalFaDb: number;
  readonly signals: readonly PathSignal[];
}

/**
 * Gain, noise figure, intercepts, full-scale headroom and in-band products of stages in a stated order, at the middle of the wanted band.
 * Receiver noise: the larger of its stated figure and the ideal converter's floor. Intercepts are for signals that every stage passes
 * alike; products are computed pair by pair with each stage's gain at each frequency.
 */
export function analysePath(
  stages: readonly PathStage[],
  receiver: PathReceiver,
  question: PathQuestion,
): PathAnalysis {
  const centreHz = (question.lowHz + question.highHz) / 2;
  const converterNoiseFigureDb = converterFloor({ ...receiver, bandwidthHz: question.bandwidthHz }).noiseFigureDb;
  const receiverStage = activeStage(0, effectiveNoiseFigureDb(receiver));
  const factor = cascadeNoiseFactor([...stages.map((stage) => noiseOf(stage, centreHz)), receiverStage]);
  const intercepts = cascadeIntercepts([
    ...stages.map((stage) => ({
      gainDb: stageGainDb(stage, centreHz),
      ...stageIntercepts(stage),
    })),
    { gainDb: 0, iip3Dbm: receiver.iip3Dbm, iip2Dbm: receiver.iip2Dbm },
  ]);
  const walks = question.signals.map((signal) => walk(stages, signal));
  const atConverter = walks.map(
    ({ signal, levelsDbm }) => levelsDbm[levelsDbm.length - 1] - preselectionDb(receiver, signal.freqHz),
  );
  const headroom = fullScaleHeadroom(atConverter, receiver.fullScaleDbm);
  const external = powerRatio(question.externalFaDb);
  const noiseDb = powerDb(external + factor - 1);
  const noiseDbm = noisePowerDbm(noiseDb, question.bandwidthHz);
  const worstProduct = worstPathProduct(stages, receiver, question, noiseDbm);
  const snrLossDb = noiseDb - question.externalFaDb;
  const inputs = stageInputs(stages, receiver, walks, headroom);
  return {
    gainDb: intercepts.gainDb,
    noiseFigureDb: powerDb(factor),
    iip3Dbm: intercepts.iip3CoherentDbm,
    iip2Dbm: intercepts.iip2CoherentDbm,
    walks,
    strongest: walks.length === 0 ? undefined : walks.reduce((a, b) => (last(b) > last(a) ? b : a)),
    totalDbm: headroom.totalDbm,
    headroomDb: headroom.headroomTotalDb,
    peakHeadroomDb: headroom.headroomPeakDb,
    canClip: headroom.canClip,
    worstProduct,
    inputs,
    firstOverload: inputs.find(({ roomDb }) => roomDb !== undefined && roomDb < 0),
    snrLossDb,
    snrLossWithProductsDb: snrLossDb + (worstProduct ? powerDb(1 + powerRatio(worstProduct.overNoiseDb)) : 0),
    converterNoiseFigureDb,
  };
}

function stageInputs(
  stages: readonly PathStage[],
  receiver: PathReceiver,
  walks: readonly SignalWalk[],
  headroom: { readonly totalDbm: number | null; readonly headroomTotalDb: number | null },
): readonly StageInput[] {
  if (walks.length === 0) return [];
  const inputs = stages.map((stage, i): StageInput => {
    const totalDbm = powerDb(walks.reduce((sum, { levelsDbm }) => sum + powerRatio(levelsDbm[i]), 0));
    const most = compressionDbm(stage);
    return { name: stage.name, totalDbm, ...(most === undefined ? {} : { roomDb: most - totalDbm }) };
  });
  return headroom.totalDbm === null || headroom.headroomTotalDb === null
    ? inputs
    : [...inputs, { name: receiver.name, totalDbm: headroom.totalDbm, roomDb: headroom.headroomTotalDb }];
}

const last = (signalWalk: SignalWalk): number => signalWalk.levelsDbm[signalWalk.levelsDbm.length - 1];

function walk(stages: readonly PathStage[], signal: PathSignal): SignalWalk {
  const levelsDbm = [signal.levelDbm];
  for (const stage of stages) levelsDbm.push(levelsDbm[levelsDbm.length - 1] + stageGainDb(stage, signal.freqHz));
  return { signal, levelsDbm };
}

function worstPathProduct(
  stages: readonly PathStage[],
  receiver: PathReceiver,
  question: PathQuestion,
  noiseDbm: number,
): PathProduct | undefined {
  const { signals } = question;
  const kinds = productsInBand(
    signals.map((signal) => signal.freqHz),
    question.lowHz,
    question.highHz,
    question.bandwidthHz / 2,
  );
  const found = kinds.flatMap((kind): PathProduct[] => {
    const [f1, f2] = [signals[kind.first], signals[kind.second]];
    const at = (freqHz: number) => stages.map((stage) => stageGainDb(stage, freqHz));
    const [g1, g2, gp] = [at(f1.freqHz), at(f2.freqHz), at(kind.freqHz)];
    // the receiver's own input filter stands ahead of its nonlinearity
    const front = {
      gainF1Db: -preselectionDb(receiver, f1.freqHz),
      gainF2Db: -preselectionDb(receiver, f2.freqHz),
      gainProductDb: 0,
    };
    const result = intermodAtAntenna(kind.order, f1.levelDbm, f2.levelDbm, [
      ...stages.map((stage, i) => ({
        gainF1Db: g1[i],
        gainF2Db: g2[i],
        gainProductDb: gp[i],
        ...stageIntercepts(stage),
      })),
      front,
      { gainF1Db: 0, gainF2Db: 0, gainProductDb: 0, iip2Dbm: receiver.iip2Dbm, iip3Dbm: receiver.iip3Dbm },
    ]);
    if (result.coherentDbm === null || result.dominantStage === null) return [];
    const antennaDbm = result.coherentDbm + kind.offsetDb;
    return [
      {
        label: kind.label,
        freqHz: kind.freqHz,
        signals: kind.first === kind.second ? [f1.name] : [f1.name, f2.name],
        antennaDbm,
        overNoiseDb: antennaDbm - noiseDbm,
        madeIn: stages[result.dominantStage - 1]?.name ?? receiver.name,
      },
    ];
  });
  return found.sort((a, b) => b.antennaDbm - a.antennaDbm)[0];
}
