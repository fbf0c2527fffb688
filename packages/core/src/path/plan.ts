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
  | { readonly kind: 'pad'; readonly name: string; readonly lossDb: number };

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
  }
}

const noiseOf = (stage: PathStage, freqHz: number): NoiseStage =>
  stage.kind === 'amplifier'
    ? activeStage(stage.gainDb, stage.noiseFigureDb)
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
      ...(stage.kind === 'amplifier' ? { iip3Dbm: stage.iip3Dbm, iip2Dbm: stage.iip2Dbm } : {}),
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
    snrLossDb,
    snrLossWithProductsDb: snrLossDb + (worstProduct ? powerDb(1 + powerRatio(worstProduct.overNoiseDb)) : 0),
    converterNoiseFigureDb,
  };
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
        ...(stage.kind === 'amplifier' ? { iip2Dbm: stage.iip2Dbm, iip3Dbm: stage.iip3Dbm } : {}),
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
