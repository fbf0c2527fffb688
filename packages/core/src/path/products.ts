import { amplitudeDb, amplitudeRatio } from '../units/decibel';
import { inPhaseDbm, productFinder, productsAlong, type ProductKind } from './intermod';
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
interface Carrier {
  readonly frequencies: readonly number[];
  readonly gains: readonly number[];
  readonly preselectionDb: number;
}

/** All carriers followed through the stages: the same for every wanted band. */
export interface Followed {
  readonly carriers: readonly Carrier[];
  /** Gains of the stages for each, then of the receiver's own input filter, which stands ahead of its nonlinearity, and of that, dB. */
  readonly withReceiver: readonly Float64Array[];
  /** Finds their products at the input of a stage. */
  readonly productsAt: (place: number) => ReturnType<typeof productFinder>;
}

export function follow(stages: readonly PathStage[], receiver: PathReceiver, signals: readonly PathSignal[]): Followed {
  const carriers = signals.map(({ freqHz }): Carrier => {
    const frequencies = frequenciesAlong(stages, freqHz);
    return {
      frequencies,
      gains: stages.map((stage, i) => stageGainDb(stage, frequencies[i])),
      preselectionDb: preselectionDb(receiver, frequencies[stages.length]),
    };
  });
  const finders = new Map<number, ReturnType<typeof productFinder>>();
  return {
    carriers,
    withReceiver: carriers.map(({ gains, preselectionDb: filterDb }) => Float64Array.of(...gains, -filterDb, 0)),
    productsAt(place) {
      const known = finders.get(place) ?? productFinder(carriers.map(({ frequencies }) => frequencies[place]));
      finders.set(place, known);
      return known;
    },
  };
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
export function productsByStage(
  stages: readonly PathStage[],
  receiver: PathReceiver,
  question: PathQuestion,
  followed: Followed,
  noiseDbm: number,
): { readonly worst?: PathProduct; readonly byStage: readonly (PathProduct | undefined)[] } {
  const { signals } = question;
  const { carriers, withReceiver } = followed;
  // levels are compared as they come; a product is written out once, when the strongest is known
  const byStage: (Made | undefined)[] = [...stages, receiver].map(() => undefined);
  const best = new Float64Array(byStage.length).fill(-Infinity);
  const ofAll = new Map<string, Made>();
  let strongest: Made | undefined;
  const reaches = reachesOf(stages, question);
  const none = [NaN, NaN];
  const made = new Float64Array(stages.length + 2);
  // behind the last stage nothing changes a product's gain
  const product = new Float64Array(stages.length + 2);
  const mostMoreDb = amplitudeDb(made.length);
  for (const reach of reaches) {
    const isLast = reach.to === stages.length;
    const ofOrder = (order: 2 | 3): Float64Array =>
      Float64Array.from([
        ...stages.map((stage, i) => {
          const own = i >= reach.from && i <= reach.to ? stageIntercepts(stage) : undefined;
          return (order === 3 ? own?.iip3Dbm : own?.iip2Dbm) ?? NaN;
        }),
        ...(isLast ? [NaN, order === 3 ? receiver.iip3Dbm : receiver.iip2Dbm] : none),
      ]);
    const intercepts = { 2: ofOrder(2), 3: ofOrder(3) };
    for (const kind of followed.productsAt(reach.from)(reach.lowHz, reach.highHz, question.bandwidthHz / 2)) {
      const { levelDbm: p1 } = signals[kind.first];
      const { levelDbm: p2 } = signals[kind.second];
      product.set(gainsAlong(stages, atAntenna(kind, reach, question)));
      productsAlong(made, kind.order, p1, p2, {
        first: withReceiver[kind.first],
        second: withReceiver[kind.second],
        product,
        intercepts: intercepts[kind.order],
      });
      let most = -1;
      for (let i = 0; i < made.length; i += 1) {
        if (Number.isNaN(made[i])) continue;
        if (most < 0 || made[i] > made[most]) most = i;
        const place = Math.min(i, stages.length);
        const dbm = made[i] + kind.offsetDb;
        if (dbm > best[place]) {
          best[place] = dbm;
          byStage[place] = { kind, dbm, place };
        }
      }
      if (most < 0) continue;
      // all places in phase make no more than the strongest of them times their number
      if (reaches.length === 1 && made[most] + kind.offsetDb + mostMoreDb <= (strongest?.dbm ?? -Infinity)) continue;
      let whole: Made = { kind, dbm: inPhaseDbm(made) + kind.offsetDb, place: Math.min(most, stages.length) };
      if (reaches.length > 1) {
        // the same product made ahead of a converter and behind it adds up in phase
        const key = `${kind.label} ${kind.first} ${kind.second}`;
        whole = together(ofAll.get(key), whole);
        ofAll.set(key, whole);
      }
      if (whole.dbm > (strongest?.dbm ?? -Infinity)) strongest = whole;
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
  const products = byStage.map((one) => one && written(one));
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
