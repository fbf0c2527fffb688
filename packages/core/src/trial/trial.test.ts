import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { binomialLimits, blockRatio, censoredDifference } from './counts';
import { pairedDifferences, pairedPower, pairsForPower, readingsForHalfWidth, signedRank } from './paired';
import { surveyRows, surveySummary } from './survey';
import { firstOfRound, type TrialPair, trialVerdict } from './verdict';

describe('paired differences', () => {
  // Worked example: 1.9, 5.7, 2.0, 0.0, 3.0 dB give mean 2.5, 95 % −0.1 to 5.1.
  test('five differences that prove nothing', () => {
    const result = pairedDifferences([1.9, 5.7, 2, 0, 3]);
    expect(result.mean).toBeCloseTo(2.52, 2);
    expect(result.ciLow).toBeCloseTo(-0.1, 1);
    expect(result.ciHigh).toBeCloseTo(5.1, 1);
  });
  // Student 1908, sleep data: mean 1.58, t = 4.06, p = 0.0028.
  test('the sleep data of 1908', () => {
    const result = pairedDifferences([1.2, 2.4, 1.3, 1.3, 0, 1, 1.8, 0.8, 4.6, 1.4]);
    expect(result.mean).toBeCloseTo(1.58, 2);
    expect(result.t).toBeCloseTo(4.06, 2);
    expect(result.pTwoSided).toBeCloseTo(0.0028, 4);
  });
  test('one pair has a mean and no interval; equal differences have no t', () => {
    expect(pairedDifferences([3])).toMatchObject({ mean: 3, sd: null, ciLow: null });
    expect(pairedDifferences([2, 2, 2])).toMatchObject({ sd: 0, t: null, pTwoSided: null });
    expect(() => pairedDifferences([])).toThrow(/no complete pairs/);
  });
  // Sample sizes of a two-sided paired t test, 5 %, power 80 %: 34 for d = 0.5, 15 for 0.8 (Cohen 1988 tables for one sample).
  test('pairs by power', () => {
    expect(pairsForPower(2, 1)).toBe(34);
    expect(pairsForPower(1, 0.8)).toBe(15);
    expect([1, 2, 3].map((db) => pairsForPower(2.08, db))).toEqual([36, 11, 6]); // scatter 2.08 dB: worked example
    expect(pairsForPower(50, 0.1)).toBeNull();
  });
  test('with no true difference the power is the error rate', () => {
    for (const n of [3, 6, 20]) expect(pairedPower(n, 0, 1)).toBeCloseTo(0.05, 4);
  });
  // s = 4 dB, 95 %: half widths 5.0 / 2.9 / 1.9 / 1.3 / 0.9 dB at n = 5 / 10 / 20 / 40 / 80.
  test('readings for a half width', () => {
    expect(readingsForHalfWidth(4, 1.9).student).toBe(20);
    expect(readingsForHalfWidth(4, 1, 0.95, 0.3)).toEqual({ normal: 62, student: 64, correlated: 119 });
  });
});

describe('ranks and counts', () => {
  // Wilcoxon: the least p of n pairs is 2/2ⁿ.
  test('five equal signs can never reach 5 %, six can', () => {
    expect(signedRank([1, 2, 3, 4, 5]).pTwoSided).toBe(0.0625);
    expect(signedRank([1, 2, 3, 4, 5, 6]).pTwoSided).toBe(0.03125);
    expect(signedRank([0, 0]).pTwoSided).toBeNull();
  });
  // Hodges & Lehmann 1963: the median of all averages of two, each with itself too; here by writing every one of them down
  test('the typical difference is the median of all averages of two, for 300 random sets (seed 9) with ties', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -40, max: 40 }), { minLength: 1, maxLength: 60 }), (tenths) => {
        const values = tenths.map((one) => one / 10);
        const averages = values.flatMap((a, i) => values.slice(i).map((b) => (a + b) / 2)).sort((a, b) => a - b);
        const half = averages.length >> 1;
        const median = averages.length % 2 === 1 ? averages[half] : (averages[half - 1] + averages[half]) / 2;
        expect(signedRank(values).hodgesLehmann).toBeCloseTo(median, 12);
      }),
      { numRuns: 300, seed: 9 },
    );
  });
  // Above 25 pairs the published large-sample formula: ranks 1..26, the two largest negative: W+ = 300, mean 175.5, variance 1550.25, z = 3.162.
  test('26 pairs use the normal approximation', () => {
    const many = Array.from({ length: 26 }, (_, i) => (i >= 24 ? -1 : 1) * (i + 1));
    expect(signedRank(many)).toMatchObject({ used: 26, wPlus: 300 });
    expect(signedRank(many).pTwoSided).toBeCloseTo(0.00157, 5);
  });
  // Clopper & Pearson: 0 of n has upper limit 1 − (α/2)^{1/n}; Wilson of 0 of 10: 0.2775.
  test('no success in ten', () => {
    const limits = binomialLimits(0, 10);
    expect(limits.exactHigh).toBeCloseTo(1 - 0.025 ** 0.1, 9);
    expect(limits.wilsonHigh).toBeCloseTo(0.2775, 4);
    expect([limits.exactLow, limits.wilsonLow]).toEqual([0, 0]);
  });
  // By hand: six ratios 1.860 1.825 1.897 1.874 1.863 1.896, mean of logs ln 1.869, scatter 0.0143, t(5) = 2.571: 1.84 to 1.90.
  test('counts in alternating blocks: how many times more, by pairs of neighbours', () => {
    const [without, fitted] = [
      [812, 790, 845, 901, 870, 828],
      [1510, 1442, 1603, 1688, 1621, 1570],
    ];
    const found = blockRatio(without, fitted);
    expect(found.ratio).toBeCloseTo(1.87, 2);
    expect(found.low).toBeCloseTo(1.84, 2);
    expect(found.high).toBeCloseTo(1.9, 2);
    // a rising hour that lifts both changes nothing
    const risen = (list: readonly number[]) => list.map((count, i) => count * (1 + i));
    expect(blockRatio(risen(without), risen(fitted)).ratio).toBeCloseTo(found.ratio, 9);
    expect(blockRatio([100], [200])).toMatchObject({ ratio: expect.closeTo(2, 9), low: null });
    expect(() => blockRatio([1, 2], [1])).toThrow('here are 2 and 1');
    expect(() => blockRatio([0], [5])).toThrow('Count of a block');
  });
  test('without missing readings the likelihood gives the plain mean', () => {
    expect(censoredDifference([1, 2, 4], [0, 0, 0], -30)).toMatchObject({ exact: 3, meanDb: 7 / 3 });
    expect(censoredDifference([1, null], [0, null], -30).meanDb).toBeNull();
  });
});

describe('verdict', () => {
  const a = [
    [-73, -85],
    [-76, -84],
    [-70, -85],
    [-81, -85],
    [-79, -86],
    [-75, -84],
    [-83, -85],
    [-77, -86],
  ];
  const b = [
    [-95, -110],
    [-97, -112],
    [-96, -110],
    [-103, -111],
    [-99, -111],
    [-98, -109],
    [-104, -113],
    [-98, -112],
  ];
  const pairs = a.map(([levelADbm, noiseADbm], i): TrialPair => ({
    levelADbm,
    noiseADbm,
    levelBDbm: b[i][0],
    noiseBDbm: b[i][1],
  }));
  const names = { a: 'wire', b: 'loop' };
  // Worked example of eight pairs: SNR +4.00 dB (1.77 to 6.23), level −22.0, noise −26.0.
  test('the weaker loop is better on SNR, proven, and the meter is contradicted', () => {
    const verdict = trialVerdict(pairs, names, { plannedPairs: 8 });
    expect(verdict.snr.result?.mean).toBeCloseTo(4, 9);
    expect(verdict.snr.result?.ciLow).toBeCloseTo(1.77, 2);
    expect(verdict.snr.result?.ciHigh).toBeCloseTo(6.23, 2);
    expect(verdict.level.result?.mean).toBeCloseTo(-22, 1);
    expect(verdict.noise.result?.mean).toBeCloseTo(-26, 1);
    expect(verdict.sentence).toBe('loop is better on SNR by 4.0 dB, proven.');
    expect(verdict.warning).toMatch(/A lower level does not mean worse/);
  });
  test('five pairs are not enough, whatever they say', () => {
    const verdict = trialVerdict(pairs.slice(0, 5), names);
    expect(verdict.snr.proven).toBe(false);
    expect(verdict.sentence).toMatch(/^Not proven, about \d+ more pairs? to show 3 dB\.$/);
  });
  test('a missing reading drops only what needs it', () => {
    const verdict = trialVerdict(
      [...pairs.slice(0, 3), { levelADbm: -80, noiseADbm: null, levelBDbm: -90, noiseBDbm: -100 }],
      names,
    );
    expect([verdict.snr.result?.n, verdict.level.result?.n]).toEqual([3, 4]);
    expect(trialVerdict([], names).sentence).toBe('No complete pair yet.');
  });
  test('rounds alternate who is read first', () => {
    expect([0, 1, 2].map(firstOfRound)).toEqual(['A', 'B', 'A']);
  });
});

describe('band survey', () => {
  const reading = (antennaId: number, name: string, snrDb: number, atMs = 0) => ({
    antennaId,
    name,
    freqHz: 1e7,
    levelDbm: -100 + snrDb,
    noiseDbm: -100,
    atMs,
  });
  test('the latest reading of each signal counts; median of an even and an odd count by hand', () => {
    const list = [
      reading(1, 'a', 20),
      reading(1, 'b', 3),
      reading(1, 'b', 9, 5),
      reading(2, 'a', 5),
      reading(2, 'b', 7),
      reading(2, 'c', 30),
    ];
    expect(surveySummary(list)).toEqual([
      { antennaId: 1, heard: 2, asked: 2, medianSnrDb: 14.5 },
      { antennaId: 2, heard: 2, asked: 3, medianSnrDb: 7 },
    ]);
  });
  test('the file has time, signal, frequency, level, SNR and antenna; a nameless antenna is refused', () => {
    expect(surveyRows([reading(1, 'a', 20, Date.UTC(2026, 2, 10))], () => 'loop')).toEqual([
      ['2026-03-10T00:00:00.000Z', 'a', 1e7, -80, 20, 'loop'],
    ]);
    expect(() => surveyRows([reading(1, 'a', 20)], () => undefined)).toThrow(/no longer there/);
  });
});
