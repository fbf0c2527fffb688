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
  let p1 = p1Dbm;
  let p2 = p2Dbm;
  let productGain = 0;
  const contributionsDbm = stages.map((stage) => {
    const intercept = order === 3 ? stage.iip3Dbm : stage.iip2Dbm;
    const made =
      intercept == null ? null : (order === 3 ? 2 * p1 + p2 - 2 * intercept : p1 + p2 - intercept) - productGain;
    p1 += stage.gainF1Db;
    p2 += stage.gainF2Db;
    productGain += stage.gainProductDb;
    return made;
  });
  const made = contributionsDbm.filter((level): level is number => level !== null);
  if (made.length === 0) return { contributionsDbm, coherentDbm: null, incoherentDbm: null, dominantStage: null };
  return {
    contributionsDbm,
    coherentDbm: amplitudeDb(made.reduce((sum, level) => sum + amplitudeRatio(level), 0)),
    incoherentDbm: powerDb(made.reduce((sum, level) => sum + powerRatio(level), 0)),
    dominantStage: contributionsDbm.indexOf(Math.max(...made)) + 1,
  };
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

/**
 * Every product up to order 3 of a list of carriers that falls within a band widened by `marginHz` on each side:
 * f₁±f₂, 2f₁±f₂, harmonics 2f and 3f.
 */
export function productsInBand(
  carriersHz: readonly number[],
  lowHz: number,
  highHz: number,
  marginHz = 0,
): readonly ProductKind[] {
  const found: ProductKind[] = [];
  const offer = (order: 2 | 3, label: string, freqHz: number, first: number, second: number, offsetDb = 0): void => {
    if (freqHz >= lowHz - marginHz && freqHz <= highHz + marginHz && freqHz > 0)
      found.push({ order, label, freqHz, first, second, offsetDb });
  };
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
  return found;
}
