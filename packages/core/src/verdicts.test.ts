import { readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { OutOfRangeError } from './errors';
import { ellipticLowpass } from './filter/elliptic';
import { ladderLossDb } from './filter/ladder';
import { insideNearField } from './guard/coupling';
import { floorSteps } from './noise/floor-log';
import { amplifierWords, noiseVerdict } from './noise/verdict';
import { analysePath } from './path/plan';
import type { PathReceiver } from './path/question';
import { fullScaleHeadroom } from './path/receiver';
import type { PathStage } from './path/stages';
import { pathVerdict, type PathVerdict } from './path/verdict';
import type { Resonance } from './sweep/analyse';
import { benchVerdict, sealingVerdict } from './sweep/bench-verdict';
import { nextCut } from './sweep/trim';
import { type TrialPair, trialVerdict } from './trial/verdict';

const RECEIVER: PathReceiver = {
  name: 'Rx',
  ...{ bits: 12, fullScaleDbm: -10, sampleRateHz: 125e6, complexSamples: false, noiseFigureDb: 15 },
  ...{ iip2Dbm: 60, iip3Dbm: 25, minHz: 1e4, maxHz: 60e6 },
};
const WANTED = { lowHz: 9.6e6, highHz: 9.7e6, bandwidthHz: 5000, externalFaDb: 45 };

describe('the verdict of a path', () => {
  const judge = (
    orders: readonly (readonly PathStage[])[],
    signals: readonly { readonly name: string; readonly freqHz: number; readonly levelDbm: number }[],
    over: Partial<typeof WANTED> = {},
    supplyFault?: string,
    transmits = false,
  ): PathVerdict =>
    pathVerdict(
      orders.map((stages, i) => ({
        order: i + 1,
        stages,
        analysis: analysePath(stages, RECEIVER, { ...WANTED, ...over, signals }),
        ...(supplyFault && i === 0 ? { supplyFault } : {}),
      })),
      { targetName: '31 m', receiver: RECEIVER, question: { ...WANTED, ...over, signals }, transmits },
    );
  const lowpass: PathStage = {
    kind: 'filter',
    name: 'low-pass',
    filter: {
      ...{ shape: 'lowpass', family: 'butterworth', order: 5, rippleDb: 0.1, insertionLossDb: 0 },
      ...{ edgeLowHz: 3e6, edgeHighHz: 3e6 },
    },
  };
  test('out of the receiver’s range comes before everything', () => {
    const { better, sentence } = judge([[]], [], { lowHz: 100e6, highHz: 101e6 });
    expect(better.state).toBe('out of reach');
    expect(sentence).toMatch(/Rx does not tune to 100\.5 MHz/);
  });
  test('beyond half its rate a receiver shows an alias, never a target', () => {
    // 62.5 MHz is half of 125 MHz: 59 MHz is shown, and with 100 MHz samples folds to 41 MHz (by hand)
    const slow = { ...RECEIVER, sampleRateHz: 100e6 };
    const question = { ...WANTED, lowHz: 58.9e6, highHz: 59.1e6, signals: [] };
    const analysis = analysePath([], slow, question);
    const { better } = pathVerdict([{ order: 1, stages: [], analysis }], {
      ...{ targetName: '6 m', receiver: slow, question, transmits: false },
    });
    expect(better.state).toBe('alias');
    expect(better.because).toContain('41.0');
  });
  test('−5 dBm into −10 dBm of full scale is 5 dB over, and said so', () => {
    const { better, sentence, next } = judge([[], []], [{ name: 'near', freqHz: 5e6, levelDbm: -5 }]);
    expect(better.state).toBe('overload');
    expect(sentence).toMatch(/Rx is driven 5\.0 dB over its full scale/);
    // the carrier that is guilty is named, and what the notch leaves stands in the sentence
    expect(next).toMatch(
      /^Put a notch for near at 5\.000 MHz ahead of Rx: under 0\.1 dB of SNR lost then \(usual figures assumed\)\.$/,
    );
    expect(fullScaleHeadroom([-5], -10).headroomTotalDb).toBeCloseTo(-5, 9);
  });
  test('"check the Guard before transmitting" was said to one who has no transmitter', () => {
    const signals = [{ name: 'far', freqHz: 5e6, levelDbm: -80 }];
    expect(judge([[]], signals).next).toBe('Nothing must change.');
    expect(judge([[]], signals, {}, undefined, true).next).toMatch(/check the Guard/);
  });
  test('"56 dB lost, put a filter ahead" did not say what remains without the product', () => {
    // 5 dB from outside against 15 dB in the receiver: 10 log(1 + 31.6/3.16) = 10.4 dB are lost to noise alone (Friis, by hand)
    const strong = [
      { name: 'a', freqHz: 4.6e6, levelDbm: -28 },
      { name: 'b', freqHz: 5.05e6, levelDbm: -28 },
    ];
    const { better, next } = judge([[]], strong, { externalFaDb: 5 });
    expect(better.state).toBe('product');
    // a notch ends the product, and an amplifier then the noise: both were tried before they are said
    expect(next).toMatch(
      /^Put a notch for [ab] at .* ahead of Rx, then put an amplifier (at the antenna|behind a notch .*): [0-2]\.\d+ dB of SNR lost then \(usual figures assumed\)\.$/,
    );
    const stronger = strong.map((one) => ({ ...one, levelDbm: -18 }));
    expect(judge([[]], stronger, { externalFaDb: 35 }).next).toMatch(
      /^Put a notch for [ab] at \S+ MHz ahead of Rx: (under )?0\.\d+ dB/,
    );
  });
  test('a filter that takes the wanted band away is the cause, whatever noise it saves', () => {
    const { better } = judge([[lowpass]], [{ name: 'far', freqHz: 5e6, levelDbm: -80 }]);
    expect(better.state).toBe('blocked');
    expect(better.because).toMatch(/low-pass takes 5\d dB off the wanted band/); // 10 log(1 + (9.65/3)^10) = 50.7 dB
  });
  test('without transmitters nothing is said of overload', () => {
    const { limit, next, overloadJudged } = judge([[], []], []);
    expect(overloadJudged).toBe(false);
    expect(limit).toMatch(/overload is not judged/);
    expect(next).toMatch(/Enter the transmitters nearby/);
  });
  test('"enter the transmitters" hid what alone helps: the choke comes first, at most two steps are told, and aim comes before all for a dish', () => {
    const asks = { targetName: 'it', receiver: RECEIVER, transmits: false, choke: 'a common-mode choke: 0 to 15 dB' };
    const question = { ...WANTED, signals: [] };
    const plain = pathVerdict([{ order: 1, stages: [], analysis: analysePath([], RECEIVER, question) }], {
      ...asks,
      question,
    });
    expect(plain.next).toMatch(
      /^Try a common-mode choke: 0 to 15 dB less noise \(assumed\)\. Then enter the transmitters/,
    );
    const high = { ...question, lowHz: 10.489e9, highHz: 10.49e9 };
    const converter: PathStage = {
      ...{ kind: 'converter', name: 'Converter', gainDb: 55, noiseFigureDb: 0.7, iip2Dbm: 0, iip3Dbm: -40 },
      ...{ oscillatorHz: 10.48e9, mixing: 'above', imageRejectionDb: 40 },
    };
    const dish = pathVerdict([{ order: 1, stages: [converter], analysis: analysePath([converter], RECEIVER, high) }], {
      ...asks,
      question: high,
    });
    expect(dish.next).toMatch(/^Aim for the greatest signal.*Then try a common-mode choke/);
    expect(dish.next).not.toMatch(/transmitters/);
    const card = { ...RECEIVER, maxHz: 96e3, minHz: 1e3 };
    const low = { ...question, lowHz: 77e3, highHz: 78e3 };
    const loop = pathVerdict([{ order: 1, stages: [], analysis: analysePath([], card, low) }], {
      ...asks,
      ...{ receiver: card, question: low },
    });
    expect(loop.next).toMatch(/keep the hum out by an isolating transformer/i);
    expect(loop.next.match(/\. Then/g)).toHaveLength(1);
  });
  test('what the verdict advises is there as data, and only where the chain can be cured', () => {
    expect(judge([[]], [{ name: 'far', freqHz: 5e6, levelDbm: -80 }]).cure).toBeUndefined();
    const { cure, next } = judge([[]], [{ name: 'strong', freqHz: 1e6, levelDbm: 0 }]);
    expect(cure?.kinds).toContain('stop');
    expect(next).toBe(cure?.words);
  });
  test('an own transmitter that nobody planned for comes before everything, with its level and Guard as the next step', () => {
    const question = { ...WANTED, signals: [{ name: 'far', freqHz: 5e6, levelDbm: -80 }] };
    const { sentence, next } = pathVerdict([{ order: 1, stages: [], analysis: analysePath([], RECEIVER, question) }], {
      targetName: '31 m',
      receiver: RECEIVER,
      question,
      transmits: true,
      threat: { name: 'own 100 W', levelDbm: 31 },
    });
    expect(sentence).toMatch(/^While own 100 W sends, 31 dBm come down from this antenna/);
    expect(next).toMatch(/^Plan it in Guard before you transmit/);
  });
  test('an order whose amplifier gets no supply is not the better one', () => {
    const { better, other } = judge([[], []], [{ name: 'far', freqHz: 5e6, levelDbm: -80 }], {}, 'Amp gets no supply.');
    expect(better.order).toBe(2);
    expect(other?.state).toBe('no supply');
  });
});

const dip = (freqHz: number): Resonance => ({ freqHz, swr: 1.2, widthSwr: 2 });
describe('the verdict of the Bench', () => {
  const cut = nextCut([{ lengthM: 5, freqHz: 14e6 }], 14.2e6);
  test('the dip nearest to the target counts, also when another is deeper', () => {
    const verdict = benchVerdict({ dips: [dip(28e6), dip(14e6)], targetHz: 14.2e6, cut, trimName: 'each arm' });
    expect(verdict.dipHz).toBe(14e6);
    expect(verdict.state).toBe('cut');
    expect(verdict.sentence).toMatch(/200 kHz too low\. Another dip, at 28\.00 MHz, is deeper and not meant/);
  });
  test('a fault forbids every cut; two cuts that made it worse do too', () => {
    const fault = benchVerdict({
      dips: [dip(14e6)],
      targetHz: 14.2e6,
      cut,
      trimName: 'arm',
      fault: 'A joint is open.',
    });
    expect([fault.state, fault.cutM]).toEqual(['fault', undefined]);
    const worse = nextCut(
      [
        { lengthM: 5.2, freqHz: 14.0e6 },
        { lengthM: 5.1, freqHz: 13.9e6 },
        { lengthM: 5.0, freqHz: 13.8e6 },
      ],
      14.2e6,
    );
    const verdict = benchVerdict({ dips: [dip(13.8e6)], targetHz: 14.2e6, cut: worse, trimName: 'arm' });
    expect([verdict.state, verdict.cutM]).toEqual(['stop', undefined]);
  });
  test('a dip above the target is too short: never a cut', () => {
    const verdict = benchVerdict({ dips: [dip(14.5e6)], targetHz: 14.2e6, cut, trimName: 'arm' });
    expect(verdict.state).toBe('too short');
    expect(verdict.next).toMatch(/do not cut/);
  });
  test('sealing waits for three positions, on the target, inside the tube', () => {
    const tube = { insideTube: true };
    expect(sealingVerdict([77.5e3, 77.52e3], 77.5e3, tube).mayBeSealed).toBe(false);
    expect(sealingVerdict([77.5e3, 77.52e3, 78.2e3], 77.5e3, tube).sentence).toMatch(/do not seal/);
    expect(sealingVerdict([78.4e3, 78.42e3, 78.44e3], 77.5e3, tube).sentence).toMatch(/920 Hz above the target/);
    expect(sealingVerdict([77.5e3, 77.52e3, 77.48e3], 77.5e3, { insideTube: false }).mayBeSealed).toBe(false);
    expect(sealingVerdict([77.5e3, 77.52e3, 77.48e3], 77.5e3, tube).mayBeSealed).toBe(true);
  });
});

describe('figures of Guard', () => {
  // λ/2π at 7 MHz: 42.8 / 6.283 = 6.82 m (Balanis, Antenna Theory, ch. 4)
  test('far-field figures are doubted within λ/2π', () => {
    expect([insideNearField(6.7, 7e6), insideNearField(6.9, 7e6)]).toEqual([true, false]);
  });
});

describe('noise and trials', () => {
  test('a reading that does not rise tells of nothing from outside; floors of another kind are counted', () => {
    expect(noiseVerdict([]).state).toBe('nothing measured');
    expect(noiseVerdict([], 2).state).toBe('some other floor');
    expect(noiseVerdict([{ freqHz: 7e6, offDbm: -110, onDbm: -110.02 }]).state).toBe('no rise');
    // −10 log(1 − 10^−0.3) = 3.0 dB at 3 dB, 0.46 dB at 10 dB (by hand)
    const three = noiseVerdict([{ freqHz: 7e6, offDbm: -110, onDbm: -107 }]);
    expect([three.state, three.sentence.includes('3.0 dB of SNR')]).toEqual(['receiver decides', true]);
    const ten = noiseVerdict([{ freqHz: 7e6, offDbm: -110, onDbm: -100 }]);
    expect([ten.state, ten.sentence.includes('0.46 dB of SNR')]).toEqual(['outside decides', true]);
  });
  test('beside an FM mast a rise of 1 dB or a fall of 4 is thought of as overload, and no amplifier is advised', () => {
    const mast = { name: 'FM mast', levelDbm: -9 };
    for (const onDbm of [-109, -114]) {
      const judged = noiseVerdict([{ freqHz: 7e6, offDbm: -110, onDbm }], 0, mast);
      expect(judged.state).toBe('perhaps overload');
      expect(`${judged.sentence} ${judged.next}`).toMatch(
        /beside FM mast \(−9 dBm\): the receiver may be overloaded.*pad of 10 dB/,
      );
      expect(amplifierWords(onDbm + 110, mast)).toBe('cannot be said');
    }
    // a rise of 10 dB hears the outside, mast or not; far from any mast a small rise is a deaf receiver
    expect(noiseVerdict([{ freqHz: 7e6, offDbm: -110, onDbm: -100 }], 0, mast).state).toBe('outside decides');
    expect(noiseVerdict([{ freqHz: 7e6, offDbm: -110, onDbm: -109 }], 0, { name: 'far', levelDbm: -60 }).state).toBe(
      'receiver decides',
    );
  });
  const pairs = (differences: readonly number[]): TrialPair[] =>
    differences.map((d) => ({ levelADbm: -80, noiseADbm: -100, levelBDbm: -80 + d, noiseBDbm: -100 }));
  const names = { a: 'A', b: 'B' };
  test('differences alike to the last digit prove nothing: they tell of the meter', () => {
    const verdict = trialVerdict(pairs([3, 3, 3, 3, 3, 3, 3, 3]), names);
    expect(verdict.snr.proven).toBe(false);
    expect(verdict.sentence).toMatch(/alike to the last digit/);
  });
  test('an interval that is shown as beginning at 0.0 dB proves nothing', () => {
    // sum of squares about the mean 1.8, scatter 0.5071, standard error 0.1793; t of 7 at 97.5 % is 2.365 (tables): half width 0.424 dB
    const spread = [0, 0.7, -0.7, 0.4, -0.4, 0.5, -0.5, 0];
    const about = (mean: number) => trialVerdict(pairs(spread.map((by) => mean + by)), names, { plannedPairs: 8 }).snr;
    // 0.45 − 0.424 = 0.026 is shown as 0.0; 0.60 − 0.424 = 0.176 as 0.2
    expect(about(0.45).result?.ciLow).toBeCloseTo(0.026, 2);
    expect(about(0.45).proven).toBe(false);
    expect(about(0.6).proven).toBe(true);
    expect(trialVerdict(pairs([2.1, 3.4, 2.8, 3.9, 2.4, 3.1, 2.6, 3.3]), names).snr.proven).toBe(true);
  });
  test('a gap in the log is no step at a moment', () => {
    const at = (minutes: number): number => Date.UTC(2026, 7, 4, 9) + minutes * 60_000;
    const log = (gapMin: number) =>
      Array.from({ length: 16 }, (_, i) => ({
        atMs: at(i < 8 ? i : i + gapMin),
        levelDbm: (i < 8 ? -88 : -101) + 0.1 * (i % 3),
      }));
    expect(floorSteps(log(0))).toHaveLength(1);
    expect(floorSteps(log(600))).toHaveLength(0);
  });
});

/** Attenuations of prototypes computed by a general-purpose library; the file says which. */
const table: unknown = JSON.parse(
  readFileSync(path.join(process.cwd(), 'packages/core/testdata/elliptic-prototypes.json'), 'utf8'),
);
const isTable = (
  value: unknown,
): value is { ratios: readonly number[]; rows: readonly (readonly [number, number, number, readonly number[]])[] } =>
  typeof value === 'object' && value !== null && 'rows' in value && 'ratios' in value;

test('elliptic low-passes of every order, ripple and depth agree with the prototypes of a general-purpose library', () => {
  if (!isTable(table)) throw new Error('The table of prototypes is not there.');
  for (const [order, rippleDb, stopDb, losses] of table.rows) {
    const { branches } = realisable({ order, rippleDb, stopDb, edgeHz: 1e6, lineOhm: 50 });
    table.ratios.forEach((ratio, i) => {
      const off = Math.abs(ladderLossDb(branches, ratio * 1e6, 50) - losses[i]);
      // beside a zero of transmission a last digit of its frequency is worth much: there a part of the figure counts
      if (!(off < Math.max(0.003, 0.003 * losses[i])))
        throw new Error(`order ${order}, ${rippleDb} dB, ${stopDb} dB at ${ratio}: ${off} dB off`);
    });
  }
  expect(table.rows.length).toBeGreaterThan(40);
});

/** The first order of traps without a negative element. */
function realisable(
  spec: Omit<Parameters<typeof ellipticLowpass>[0], 'trapOrder'>,
): ReturnType<typeof ellipticLowpass> {
  const orders = (rest: readonly number[]): number[][] =>
    rest.length === 0
      ? [[]]
      : rest.flatMap((one) => orders(rest.filter((r) => r !== one)).map((more) => [one, ...more]));
  const traps = Array.from({ length: (spec.order - 1) / 2 }, (_, i) => (spec.order - 1) / 2 - i);
  for (const trapOrder of orders(traps))
    try {
      return ellipticLowpass({ ...spec, trapOrder });
    } catch (error) {
      if (!(error instanceof OutOfRangeError)) throw error;
    }
  throw new Error(`No order of traps serves ${spec.order}.`);
}
