import { noisePowerDbm } from '../site/external-noise';
import { amplitudeDb, amplitudeRatio, powerDb, powerRatio } from '../units/decibel';
import { frequencyText } from '../units/format';
import { preselectionDb } from '../choose/forecast';
import { activeStage, cascadeIntercepts } from './cascade';
import { intermodAtAntenna, productsInBand, type ProductKind, type SelectiveStage } from './intermod';
import { converterFloor, effectiveNoiseFigureDb, fullScaleHeadroom } from './receiver';
import {
  compressionDbm,
  frequenciesAlong,
  gainsAlong,
  stageGainDb,
  stageIntercepts,
  stageNoise,
  type ConverterStage,
  type PathStage,
} from './stages';

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

/** What arrives at a stage and what it does there, the receiver last. */
export interface StageReport {
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
): PathAnalysis => analyse(stages, receiver, question, carriersOf(stages, receiver, question.signals));

/** The same for several wanted bands with the same carriers, which are then followed through the stages once. */
export function analyseBands(
  stages: readonly PathStage[],
  receiver: PathReceiver,
  bands: readonly Omit<PathQuestion, 'signals'>[],
  signals: readonly PathSignal[],
): readonly PathAnalysis[] {
  const carriers = carriersOf(stages, receiver, signals);
  return bands.map((band) => analyse(stages, receiver, { ...band, signals }, carriers));
}

const carriersOf = (
  stages: readonly PathStage[],
  receiver: PathReceiver,
  signals: readonly PathSignal[],
): readonly Carrier[] =>
  signals.map(({ freqHz }): Carrier => {
    const frequencies = frequenciesAlong(stages, freqHz);
    return {
      frequencies,
      gains: stages.map((stage, i) => stageGainDb(stage, frequencies[i])),
      preselectionDb: preselectionDb(receiver, frequencies[stages.length]),
    };
  });

function analyse(
  stages: readonly PathStage[],
  receiver: PathReceiver,
  question: PathQuestion,
  carriers: readonly Carrier[],
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
  const walks = question.signals.map((signal, i): SignalWalk => {
    const levelsDbm = [signal.levelDbm];
    for (const gainDb of carriers[i].gains) levelsDbm.push(levelsDbm[levelsDbm.length - 1] + gainDb);
    return { signal, levelsDbm };
  });
  const headroom = fullScaleHeadroom(
    walks.map(({ levelsDbm }, i) => levelsDbm[stages.length] - carriers[i].preselectionDb),
    receiver.fullScaleDbm,
  );
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
  const noiseDb = powerDb(external + factor - 1);
  const made = productsByStage(stages, receiver, question, carriers, noisePowerDbm(noiseDb, question.bandwidthHz));
  const worstProduct = made.worst;
  const snrLossDb = noiseDb - question.externalFaDb;
  const reports = [...stages, undefined].map((stage, i): StageReport => {
    const totalDbm =
      stage === undefined
        ? (headroom.totalDbm ?? undefined)
        : walks.length === 0
          ? undefined
          : powerDb(walks.reduce((sum, { levelsDbm }) => sum + powerRatio(levelsDbm[i]), 0));
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
      noiseDbm: noisePowerDbm(powerDb((external + ahead[i] - 1) * gainsAhead[i]), question.bandwidthHz),
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
    peakHeadroomDb: headroom.headroomPeakDb,
    canClip: headroom.canClip,
    worstProduct,
    reports,
    firstOverload: reports.find(({ roomDb }) => roomDb !== undefined && roomDb < 0),
    landsAtHz,
    ...outOfReach(receiver, landsAtHz),
    snrLossDb,
    snrLossWithProductsDb: snrLossDb + (worstProduct ? powerDb(1 + powerRatio(worstProduct.overNoiseDb)) : 0),
    converterNoiseFigureDb,
  };
}

const last = (signalWalk: SignalWalk): number => signalWalk.levelsDbm[signalWalk.levelsDbm.length - 1];

function outOfReach(receiver: PathReceiver, landsAtHz: number): { readonly outOfReach?: string } {
  if (landsAtHz >= receiver.minHz && landsAtHz <= receiver.maxHz) return {};
  return {
    outOfReach: `${frequencyText(landsAtHz)} arrives at ${receiver.name}, which hears ${frequencyText(receiver.minHz)} to ${frequencyText(receiver.maxHz)}. Put a converter into the path, or choose another receiver.`,
  };
}

/** What a carrier meets: its frequency at each input, the gain of each stage for it, and the receiver's own input filter. */
interface Carrier {
  readonly frequencies: readonly number[];
  readonly gains: readonly number[];
  readonly preselectionDb: number;
}

/** Stages between two converters: where they begin and end, and where the wanted band lies there. */
interface Reach {
  readonly from: number;
  readonly to: number;
  readonly lowHz: number;
  readonly highHz: number;
  /** Its ends have changed places. */
  readonly mirrored: boolean;
}

/** Reaches of one frequency each; a converter belongs to the one it ends, the receiver to the last. */
function reachesOf(stages: readonly PathStage[], { lowHz, highHz }: PathQuestion): readonly Reach[] {
  const [lows, highs] = [frequenciesAlong(stages, lowHz), frequenciesAlong(stages, highHz)];
  const ends = [...stages.flatMap(({ kind }, i) => (kind === 'converter' ? [i] : [])), stages.length];
  return ends.map((to, i): Reach => {
    const from = i === 0 ? 0 : ends[i - 1] + 1;
    const mirrored = lows[from] > highs[from];
    return {
      ...{ from, to, mirrored },
      lowHz: Math.min(lows[from], highs[from]),
      highHz: Math.max(lows[from], highs[from]),
    };
  });
}

/** The strongest product made in each stage (receiver last) and of all of them together, in phase. */
function productsByStage(
  stages: readonly PathStage[],
  receiver: PathReceiver,
  question: PathQuestion,
  carriers: readonly Carrier[],
  noiseDbm: number,
): { readonly worst?: PathProduct; readonly byStage: readonly (PathProduct | undefined)[] } {
  const { signals } = question;
  // levels are compared as they come; a product is written out once, when the strongest is known
  const byStage: (Made | undefined)[] = [...stages, receiver].map(() => undefined);
  const keep = (place: number, kind: ProductKind, dbm: number): void => {
    if (dbm > (byStage[place]?.dbm ?? -Infinity)) byStage[place] = { kind, dbm, place };
  };
  const ofAll = new Map<string, Made>();
  let strongest: Made | undefined;
  const intercepts = stages.map(stageIntercepts);
  const reaches = reachesOf(stages, question);
  for (const reach of reaches) {
    const kinds = productsInBand(
      carriers.map(({ frequencies }) => frequencies[reach.from]),
      reach.lowHz,
      reach.highHz,
      question.bandwidthHz / 2,
    );
    const isLast = reach.to === stages.length;
    for (const kind of kinds) {
      const asWanted = gainsAlong(stages, atAntenna(kind, reach, question));
      const [first, second] = [carriers[kind.first], carriers[kind.second]];
      const selective: SelectiveStage[] = stages.map((_, i) => ({
        gainF1Db: first.gains[i],
        gainF2Db: second.gains[i],
        gainProductDb: asWanted[i],
        iip2Dbm: i >= reach.from && i <= reach.to ? intercepts[i]?.iip2Dbm : undefined,
        iip3Dbm: i >= reach.from && i <= reach.to ? intercepts[i]?.iip3Dbm : undefined,
      }));
      // the receiver's own input filter stands ahead of its nonlinearity
      selective.push({ gainF1Db: -first.preselectionDb, gainF2Db: -second.preselectionDb, gainProductDb: 0 });
      selective.push({
        ...{ gainF1Db: 0, gainF2Db: 0, gainProductDb: 0 },
        ...(isLast ? { iip2Dbm: receiver.iip2Dbm, iip3Dbm: receiver.iip3Dbm } : {}),
      });
      const { levelDbm: p1 } = signals[kind.first];
      const { levelDbm: p2 } = signals[kind.second];
      const { contributionsDbm, coherentDbm, dominantStage } = intermodAtAntenna(kind.order, p1, p2, selective);
      if (coherentDbm === null || dominantStage === null) continue;
      contributionsDbm.forEach((dbm, i) => {
        if (dbm !== null) keep(Math.min(i, stages.length), kind, dbm + kind.offsetDb);
      });
      let made: Made = { kind, dbm: coherentDbm + kind.offsetDb, place: Math.min(dominantStage - 1, stages.length) };
      if (reaches.length > 1) {
        // the same product made ahead of a converter and behind it adds up in phase
        const key = `${kind.label} ${kind.first} ${kind.second}`;
        made = together(ofAll.get(key), made);
        ofAll.set(key, made);
      }
      if (made.dbm > (strongest?.dbm ?? -Infinity)) strongest = made;
    }
  }
  const written = ({ kind, dbm, place }: Made): PathProduct => ({
    label: kind.label,
    freqHz: kind.freqHz,
    signals: [...new Set([signals[kind.first].name, signals[kind.second].name])],
    antennaDbm: dbm,
    overNoiseDb: dbm - noiseDbm,
    madeIn: stages[place]?.name ?? receiver.name,
  });
  const products = byStage.map((made) => made && written(made));
  let worst = strongest && written(strongest);
  stages.forEach((stage, place) => {
    if (stage.kind !== 'converter') return;
    for (const product of imagesIn(stage, place, stages, question, noiseDbm)) {
      if (product.antennaDbm > (products[place]?.antennaDbm ?? -Infinity)) products[place] = product;
      if (product.antennaDbm > (worst?.antennaDbm ?? -Infinity)) worst = product;
    }
  });
  return { ...(worst ? { worst } : {}), byStage: products };
}

/** A product at the antenna's connector and the place that makes most of it: a stage, or the receiver behind the last. */
interface Made {
  readonly kind: ProductKind;
  readonly dbm: number;
  readonly place: number;
}

/** One product made in two places, in phase. */
const together = (before: Made | undefined, now: Made): Made =>
  before
    ? {
        ...(before.dbm > now.dbm ? before : now),
        dbm: amplitudeDb(amplitudeRatio(before.dbm) + amplitudeRatio(now.dbm)),
      }
    : now;

/** Frequency at the antenna of something that lies in the wanted band of a reach, Hz. */
function atAntenna({ freqHz }: ProductKind, reach: Reach, { lowHz, highHz }: PathQuestion): number {
  const within = freqHz - reach.lowHz;
  return reach.mirrored ? highHz - within : lowHz + within;
}

/** Carriers that a converter puts into the wanted band from the wrong side of its oscillator. */
function imagesIn(
  { name, oscillatorHz }: ConverterStage,
  place: number,
  stages: readonly PathStage[],
  question: PathQuestion,
  noiseDbm: number,
): readonly PathProduct[] {
  const ahead = stages.slice(0, place + 1);
  const sum = (freqHz: number): number => gainsAlong(ahead, freqHz).reduce((total, gainDb) => total + gainDb, 0);
  const margin = question.bandwidthHz / 2;
  const there = [question.lowHz, question.highHz].map((freqHz) => frequenciesAlong(ahead, freqHz)[place + 1]);
  const wanted = frequenciesAlong(ahead, (question.lowHz + question.highHz) / 2)[place];
  return question.signals.flatMap(({ name: carrier, freqHz, levelDbm }): PathProduct[] => {
    const along = frequenciesAlong(ahead, freqHz);
    const lands = along[place + 1];
    const inBand = lands >= Math.min(...there) - margin && lands <= Math.max(...there) + margin;
    if (!inBand || along[place] > oscillatorHz === wanted > oscillatorHz) return [];
    const antennaDbm = levelDbm + sum(freqHz) - sum((question.lowHz + question.highHz) / 2);
    return [
      {
        ...{ label: 'image', freqHz, signals: [carrier], antennaDbm, madeIn: name },
        overNoiseDb: antennaDbm - noiseDbm,
      },
    ];
  });
}
