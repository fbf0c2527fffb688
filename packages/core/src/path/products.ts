import { amplitudeDb, amplitudeRatio } from '../units/decibel';
import { intermodAtAntenna, productsInBand, type ProductKind, type SelectiveStage } from './intermod';
import type { PathQuestion, PathReceiver, PathSignal } from './question';
import {
  frequenciesAlong,
  gainsAlong,
  stageGainDb,
  stageIntercepts,
  type ConverterStage,
  type PathStage,
} from './stages';
import { preselectionDb } from './receiver';

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

/** What a carrier meets: its frequency at each input, the gain of each stage for it, and the receiver's own input filter. */
export interface Carrier {
  readonly frequencies: readonly number[];
  readonly gains: readonly number[];
  readonly preselectionDb: number;
}

/** Every carrier followed through the stages. */
export const carriersOf = (
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
export function productsByStage(
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
    for (const product of imagesIn(stage, place, stages, question, carriers, noiseDbm)) {
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
  carriers: readonly Carrier[],
  noiseDbm: number,
): readonly PathProduct[] {
  const margin = question.bandwidthHz / 2;
  const [low, high] = [question.lowHz, question.highHz].map((freqHz) => frequenciesAlong(stages, freqHz));
  const sum = (gains: readonly number[]): number => gains.slice(0, place + 1).reduce((total, db) => total + db, 0);
  const wantedDb = sum(gainsAlong(stages, (question.lowHz + question.highHz) / 2));
  return carriers.flatMap(({ frequencies, gains }, i): PathProduct[] => {
    const lands = frequencies[place + 1];
    const inBand =
      lands >= Math.min(low[place + 1], high[place + 1]) - margin &&
      lands <= Math.max(low[place + 1], high[place + 1]) + margin;
    if (!inBand || frequencies[place] > oscillatorHz === low[place] > oscillatorHz) return [];
    const { name: carrier, freqHz, levelDbm } = question.signals[i];
    const antennaDbm = levelDbm + sum(gains) - wantedDb;
    return [
      {
        ...{ label: 'image', freqHz, signals: [carrier], antennaDbm, madeIn: name },
        overNoiseDb: antennaDbm - noiseDbm,
      },
    ];
  });
}
