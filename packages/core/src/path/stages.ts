import type { TransferPoint } from '../formats/two-port';
import { LINE_OHM, attenuationDbPer100m, type LineLossModel } from '../line/coax';
import { filterLossDb, type FilterSpec } from '../filter/response';
import { activeStage, passiveStage, type NoiseStage } from './cascade';
import { biasTee } from './pads';

/** Gain and distortion of a stage that needs power. */
interface Active {
  readonly gainDb: number;
  readonly noiseFigureDb: number;
  readonly iip2Dbm: number;
  readonly iip3Dbm: number;
}

/** Which output of a mixer a converter keeps: signal − oscillator, oscillator − signal (mirrored), or their sum. */
export type Mixing = 'above' | 'below' | 'sum';

/** Stages between antenna and receiver. Gains depend on frequency where the thing does. */
export type PathStage =
  | { readonly kind: 'line'; readonly name: string; readonly cable: LineLossModel; readonly lengthM: number }
  | { readonly kind: 'filter'; readonly name: string; readonly filter: FilterSpec }
  | ({ readonly kind: 'amplifier'; readonly name: string } & Active)
  | { readonly kind: 'pad'; readonly name: string; readonly lossDb: number }
  | { readonly kind: 'bias feed'; readonly name: string; readonly henry: number; readonly farad: number }
  | ConverterStage
  | MeasuredPart;

/** A stage behind which everything has another frequency. */
export interface ConverterStage extends Active {
  readonly kind: 'converter';
  readonly name: string;
  readonly oscillatorHz: number;
  readonly mixing: Mixing;
  /** How much less it gives of the wrong side of its oscillator, dB. */
  readonly imageRejectionDb: number;
}

/** A part by its own data: gain over frequency as measured or as its sheet says. */
interface MeasuredPart {
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
  if (stage.kind !== 'amplifier' && stage.kind !== 'part' && stage.kind !== 'converter') return undefined;
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

/** Least frequency a gain is asked at: a carrier on the oscillator comes out at nothing. */
const LEAST_HZ = 1;

/** Gain of a stage at a frequency at its input, dB; the real response of a filter, not a fixed loss. */
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
    case 'bias feed': {
      const { henry, farad } = stage;
      return -biasTee({ lineOhm: LINE_OHM, freqHz, henry, farad, ampere: 0, chokeOhm: 0, cableOhm: 0 }).lossDb;
    }
    case 'converter': {
      const above = freqHz > stage.oscillatorHz;
      const wrongSide = stage.mixing === 'above' ? !above : stage.mixing === 'below' && above;
      return stage.gainDb - (wrongSide ? stage.imageRejectionDb : 0);
    }
    case 'part':
      return transferDb(stage.transfer, freqHz);
  }
}

/** Frequency behind a stage, Hz: only a converter changes it. */
function outputHz(stage: PathStage, freqHz: number): number {
  if (stage.kind !== 'converter') return freqHz;
  const { oscillatorHz, mixing } = stage;
  return Math.max(LEAST_HZ, mixing === 'sum' ? freqHz + oscillatorHz : Math.abs(freqHz - oscillatorHz));
}

/** Frequency at the input of each stage and, last, of the receiver, Hz. */
export function frequenciesAlong(stages: readonly PathStage[], freqHz: number): readonly number[] {
  const along = [freqHz];
  for (const stage of stages) along.push(outputHz(stage, along[along.length - 1]));
  return along;
}

/** Gain of each stage for something that enters the chain at a frequency, dB. */
export function gainsAlong(stages: readonly PathStage[], freqHz: number): readonly number[] {
  let at = freqHz;
  return stages.map((stage) => {
    const gainDb = stageGainDb(stage, at);
    at = outputHz(stage, at);
    return gainDb;
  });
}

/** Noise figure taken for an amplifying part of which nobody entered one, dB: what cheap wideband amplifiers have. Common practice, no source. */
export const ASSUMED_NOISE_FIGURE_DB = 6;

/** Whether a stage amplifies and nobody said how much noise it adds. */
export const lacksNoiseFigure = (stage: PathStage, freqHz: number): boolean =>
  stage.kind === 'part' && stage.noiseFigureDb === undefined && stageGainDb(stage, freqHz) > 0;

/** Gain and noise factor of a stage at a frequency at its input. Nothing that amplifies is noiseless. */
export function stageNoise(stage: PathStage, freqHz: number): NoiseStage {
  const gainDb = stageGainDb(stage, freqHz);
  if (
    (stage.kind === 'amplifier' || stage.kind === 'part' || stage.kind === 'converter') &&
    stage.noiseFigureDb !== undefined
  )
    return activeStage(gainDb, stage.noiseFigureDb);
  return gainDb > 0 ? activeStage(gainDb, ASSUMED_NOISE_FIGURE_DB) : passiveStage(-gainDb);
}

/** Where a converter puts a band. */
export interface Conversion {
  readonly name: string;
  readonly oscillatorHz: number;
  readonly inHz: number;
  readonly outHz: number;
  readonly mirrored: boolean;
  /** Arrives at the same place, weakened by the image rejection only; absent where it would lie below 0. */
  readonly imageHz?: number;
}

/** The frequency plan of a chain: one entry a converter, antenna first. */
export function frequencyPlan(stages: readonly PathStage[], freqHz: number): readonly Conversion[] {
  const along = frequenciesAlong(stages, freqHz);
  return stages.flatMap((stage, i): Conversion[] => {
    if (stage.kind !== 'converter') return [];
    const { name, oscillatorHz, mixing } = stage;
    const imageHz = 2 * oscillatorHz - along[i];
    return [
      {
        ...{ name, oscillatorHz, inHz: along[i], outHz: along[i + 1] },
        mirrored: mixing !== 'sum' && along[i] < oscillatorHz,
        ...(mixing === 'sum' || imageHz <= 0 ? {} : { imageHz }),
      },
    ];
  });
}
