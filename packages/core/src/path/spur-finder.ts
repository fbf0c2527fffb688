import { requirePositive } from '../errors';

/** A strong carrier as it reaches the stage in question. */
export interface StrongCarrier {
  readonly name: string;
  readonly freqHz: number;
  readonly levelDbm: number;
}

/** A way in which carriers make a spur. */
export interface SpurSource {
  readonly label: string;
  readonly order: 2 | 3;
  readonly carriers: readonly string[];
  readonly freqHz: number;
  /** How far from the spur, Hz. */
  readonly offHz: number;
  /** Level it would have at intercepts assumed alike for all, dBm; only the order of the list hangs on it. */
  readonly estimateDbm: number;
}

/** Intercepts assumed for the ranking alone, dBm: a usual wideband amplifier. */
const ASSUMED_IIP2_DBM = 35;
const ASSUMED_IIP3_DBM = 10;
/** Harmonics and products of three, against those of two: 2f −6.02, 3f −9.54, f1±f2±f3 +6.02 dB. */
const SECOND_HARMONIC_DB = -6.02;
const THIRD_HARMONIC_DB = -9.54;
const TRIPLE_DB = 6.02;

/**
 * All pairs and triples of carriers up to order 3, and harmonics, whose product lies within a tolerance of a spur; most likely first. Every carrier
 * and every sign is tried.
 */
export function spurSources(
  spurHz: number,
  carriers: readonly StrongCarrier[],
  toleranceHz: number,
): readonly SpurSource[] {
  requirePositive(spurHz, 'Spur (Hz)');
  requirePositive(toleranceHz, 'Tolerance (Hz)');
  const found: SpurSource[] = [];
  const offer = (order: 2 | 3, label: string, freq: number, of: readonly StrongCarrier[], extraDb = 0): void => {
    const freqHz = Math.abs(freq);
    const offHz = freqHz - spurHz;
    if (Math.abs(offHz) > toleranceHz) return;
    const sum = of.reduce((total, one) => total + one.levelDbm, 0);
    const estimateDbm = sum - (order === 2 ? ASSUMED_IIP2_DBM : 2 * ASSUMED_IIP3_DBM) + extraDb;
    found.push({ label, order, carriers: [...new Set(of.map(({ name }) => name))], freqHz, offHz, estimateDbm });
  };
  carriers.forEach((a, i) => {
    offer(2, '2f', 2 * a.freqHz, [a, a], SECOND_HARMONIC_DB);
    offer(3, '3f', 3 * a.freqHz, [a, a, a], THIRD_HARMONIC_DB);
    carriers.forEach((b, j) => {
      if (j > i) {
        offer(2, 'f1 + f2', a.freqHz + b.freqHz, [a, b]);
        offer(2, 'f1 − f2', a.freqHz - b.freqHz, a.freqHz > b.freqHz ? [a, b] : [b, a]);
      }
      if (j !== i) {
        offer(3, '2f1 − f2', 2 * a.freqHz - b.freqHz, [a, a, b]);
        offer(3, '2f1 + f2', 2 * a.freqHz + b.freqHz, [a, a, b]);
      }
      carriers.forEach((c, k) => {
        if (j > i && k > j) offer(3, 'f1 + f2 + f3', a.freqHz + b.freqHz + c.freqHz, [a, b, c], TRIPLE_DB);
        if (j > i && k !== i && k !== j) offer(3, 'f1 + f2 − f3', a.freqHz + b.freqHz - c.freqHz, [a, b, c], TRIPLE_DB);
      });
    });
  });
  return found.sort((a, b) => b.estimateDbm - a.estimateDbm || Math.abs(a.offHz) - Math.abs(b.offHz));
}

/**
 * What a filter ahead of the stage takes off a product against the wanted signal, dB: its losses at the carriers, each as often as the product
 * counts it, less its loss at the product itself.
 */
export function productDropDb(
  source: SpurSource,
  lossAtDb: (carrier: string) => number,
  lossAtProductDb: number,
): number {
  const [first, ...others] = source.carriers.map(lossAtDb);
  // the first carrier stands for what the others leave of the order: twice in 2f1 − f2, alone in a harmonic
  const times = source.order - others.length;
  return times * first + others.reduce((sum, loss) => sum + loss, 0) - lossAtProductDb;
}

/** What a pad test says. */
export interface PadFinding {
  /** Spur's fall per dB of pad. */
  readonly slope: number;
  readonly where: string;
  readonly advice: string;
}

/** The wanted signal must fall by the pad, within this; else gain moved or it was near the noise, dB. */
const WANTED_WITHIN_DB = 2;
const SLOPE_WITHIN = 0.35;

/**
 * Where a spur is made, by how it falls when a pad goes in. A spur that falls as the pad does is real or was made ahead of the pad; twice or three
 * times as fast: second or third order behind it; not at all: inside the receiver, or past its socket by the screen of a cable. Passive joints outside make
 * products that look real.
 */
export function padFinding(test: {
  readonly padDb: number;
  readonly wantedDropDb: number;
  readonly spurDropDb: number;
  /** An amplifier stands ahead of the pad. */
  readonly amplifierAhead: boolean;
}): PadFinding {
  requirePositive(test.padDb, 'Pad (dB)');
  const slope = test.spurDropDb / test.padDb;
  if (Math.abs(test.wantedDropDb - test.padDb) > WANTED_WITHIN_DB)
    return {
      slope,
      where: `The wanted signal fell by ${test.wantedDropDb.toFixed(1)} dB, not by the pad's ${test.padDb.toFixed(0)}: the test does not count.`,
      advice: 'Fix the gain by hand, choose a steady signal well above the noise, and test again.',
    };
  const near = (order: number): boolean => Math.abs(slope - order) <= SLOPE_WITHIN;
  if (near(0))
    return {
      slope,
      where: 'Made inside the receiver, or it comes in past its socket: by the screen of a cable or by the supply.',
      advice:
        'Take the antenna cable off. If it goes, a common-mode choke helps; if it stays, look at the clock, the computer and its supply.',
    };
  if (near(1))
    return test.amplifierAhead
      ? {
          slope,
          where: 'Product made before the pad (amplifier), or outside in a poor joint; or a real signal.',
          advice:
            'Put the pad, or a filter, ahead of the amplifier: only that decides, and only a filter there can help.',
        }
      : {
          slope,
          where: 'A real signal, or made outside in a poor joint: it falls as the wanted one does.',
          advice:
            'It comes in by the antenna: look for its transmitter. Where it is the sum or difference of two strong ones, look for rusty joints at mast, gutter and fence.',
        };
  if (near(2))
    return {
      slope,
      where: 'Made in the receiver, second order.',
      advice:
        'A pad helps 1 dB per dB against the wanted signal; a filter ahead of the receiver against one of the two carriers helps more.',
    };
  if (near(3))
    return {
      slope,
      where: 'Made in the receiver, third order.',
      advice: 'A pad helps 2 dB per dB against the wanted signal; or a filter ahead of the receiver.',
    };
  return {
    slope,
    where:
      slope > 3
        ? 'Made in the receiver, of higher order or by clipping.'
        : 'A mixture: made in more than one place, or read too near to the noise.',
    advice:
      slope > 3
        ? 'The converter clips: take gain off at once.'
        : 'Use a smaller pad, stay 3 dB above the noise, and test again ahead of each amplifier.',
  };
}
