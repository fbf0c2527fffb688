import { amplitudeDb, amplitudeRatio, powerDb, powerRatio } from '../units/decibel';

/** One stage as two interferers and their product meet it. */
export interface SelectiveStage {
  readonly gainF1Db: number;
  readonly gainF2Db: number;
  readonly gainProductDb: number;
  readonly iip3Dbm?: number | null;
  readonly iip2Dbm?: number | null;
}

/** A product referred to the antenna connector. */
export interface IntermodResult {
  /** Per stage, dBm; null where the stage makes none of this order. */
  readonly contributionsDbm: readonly (number | null)[];
  readonly coherentDbm: number | null;
  readonly incoherentDbm: number | null;
  /** 1-based position of the stage that makes most of it; null if none does. */
  readonly dominantStage: number | null;
}

/**
 * Product of two interferers in a chain whose stages treat each frequency differently: 2f₁−f₂ (order 3, `p1Dbm` is the tone
 * that counts twice) or f₁±f₂ (order 2), referred to the antenna by the gain AT THE PRODUCT's frequency.
 * A filter ahead of a stage weakens both tones (2A or 3A dB); a filter behind it changes nothing of that stage's product.
 */
export function intermodAtAntenna(
  order: 2 | 3,
  p1Dbm: number,
  p2Dbm: number,
  stages: readonly SelectiveStage[],
): IntermodResult {
  const made = new Float64Array(stages.length);
  productsAlong(made, order, p1Dbm, p2Dbm, {
    first: Float64Array.from(stages, ({ gainF1Db }) => gainF1Db),
    second: Float64Array.from(stages, ({ gainF2Db }) => gainF2Db),
    product: Float64Array.from(stages, ({ gainProductDb }) => gainProductDb),
    intercepts: Float64Array.from(stages, ({ iip2Dbm, iip3Dbm }) => (order === 3 ? iip3Dbm : iip2Dbm) ?? NaN),
  });
  const contributionsDbm = Array.from(made, (level) => (Number.isNaN(level) ? null : level));
  const levels = made.filter((level) => !Number.isNaN(level));
  if (levels.length === 0) return { contributionsDbm, coherentDbm: null, incoherentDbm: null, dominantStage: null };
  return {
    contributionsDbm,
    coherentDbm: inPhaseDbm(levels),
    incoherentDbm: powerDb(levels.reduce((sum, level) => sum + powerRatio(level), 0)),
    dominantStage: contributionsDbm.indexOf(Math.max(...levels)) + 1,
  };
}

/** Gains of both tones and of their product, stage by stage, dB; input intercepts of the product's order, dBm, NaN where a stage makes none. */
export interface Along {
  readonly first: Float64Array;
  readonly second: Float64Array;
  readonly product: Float64Array;
  readonly intercepts: Float64Array;
}

/** Writes what each stage makes of a product, referred to the antenna, dBm; NaN where it makes none. */
export function productsAlong(
  into: Float64Array,
  order: 2 | 3,
  p1Dbm: number,
  p2Dbm: number,
  { first, second, product, intercepts }: Along,
): void {
  let p1 = p1Dbm;
  let p2 = p2Dbm;
  let gain = 0;
  for (let i = 0; i < into.length; i += 1) {
    into[i] = (order === 3 ? 2 * p1 + p2 - 2 * intercepts[i] : p1 + p2 - intercepts[i]) - gain;
    p1 += first[i];
    p2 += second[i];
    gain += product[i];
  }
}

/** Levels of one product made in several places, in phase, dBm; places that make none are NaN. */
export function inPhaseDbm(levels: Float64Array): number {
  let sum = 0;
  for (const level of levels) if (!Number.isNaN(level)) sum += amplitudeRatio(level);
  return amplitudeDb(sum);
}

/** A way in which two strong signals (or one with itself) make a third. */
export interface ProductKind {
  readonly order: 2 | 3;
  readonly label: string;
  readonly freqHz: number;
  /** Index of the tone that counts twice in order 3, and of the other. */
  readonly first: number;
  readonly second: number;
  /** Added to the two-tone product level: harmonics are 6.02 dB (order 2) or 9.54 dB (order 3) below it. */
  readonly offsetDb: number;
}

const HARMONIC_2_DB = -6.0206;
const HARMONIC_3_DB = -9.5424;

type Offer = (order: 2 | 3, label: string, freqHz: number, first: number, second: number, offsetDb?: number) => void;

/** Every product up to order 3 of a list of carriers: f₁±f₂, 2f₁±f₂, harmonics 2f and 3f. */
function everyProduct(carriersHz: readonly number[], offer: Offer): void {
  carriersHz.forEach((f1, i) => {
    offer(2, '2f', 2 * f1, i, i, HARMONIC_2_DB);
    offer(3, '3f', 3 * f1, i, i, HARMONIC_3_DB);
    carriersHz.forEach((f2, j) => {
      if (i === j) return;
      if (i < j) {
        offer(2, 'f1+f2', f1 + f2, i, j);
        offer(2, 'f2−f1', Math.abs(f2 - f1), i, j);
      }
      offer(3, '2f1−f2', Math.abs(2 * f1 - f2), i, j);
      offer(3, '2f1+f2', 2 * f1 + f2, i, j);
    });
  });
}

/** Every product up to order 3 of a list of carriers that falls within a band widened by `marginHz` on each side. */
export function productsInBand(
  carriersHz: readonly number[],
  lowHz: number,
  highHz: number,
  marginHz = 0,
): readonly ProductKind[] {
  const found: ProductKind[] = [];
  everyProduct(carriersHz, (order, label, freqHz, first, second, offsetDb = 0) => {
    if (freqHz >= lowHz - marginHz && freqHz <= highHz + marginHz && freqHz > 0)
      found.push({ order, label, freqHz, first, second, offsetDb });
  });
  return found;
}

/** An eighth of an octave: bands are narrow, so few products lie in the same. */
const drawerOf = (freqHz: number): number => Math.floor(8 * Math.log2(freqHz));

/** The same for many bands: products are listed once, in drawers by their frequency. */
export function productFinder(
  carriersHz: readonly number[],
): (lowHz: number, highHz: number, marginHz: number) => readonly ProductKind[] {
  const drawers = new Map<number, { readonly place: number; readonly kind: ProductKind }[]>();
  let place = 0;
  everyProduct(carriersHz, (order, label, freqHz, first, second, offsetDb = 0) => {
    if (freqHz <= 0) return;
    const drawer = drawers.get(drawerOf(freqHz)) ?? [];
    drawers.set(drawerOf(freqHz), drawer);
    drawer.push({ place: (place += 1), kind: { order, label, freqHz, first, second, offsetDb } });
  });
  return (lowHz, highHz, marginHz) => {
    const [low, high] = [Math.max(lowHz - marginHz, Number.MIN_VALUE), highHz + marginHz];
    const found: { readonly place: number; readonly kind: ProductKind }[] = [];
    for (let key = drawerOf(low); key <= drawerOf(high); key += 1)
      for (const one of drawers.get(key) ?? []) if (one.kind.freqHz >= low && one.kind.freqHz <= high) found.push(one);
    // in the order in which they were listed: of equally strong ones the first is named
    return found.sort((a, b) => a.place - b.place).map(({ kind }) => kind);
  };
}
