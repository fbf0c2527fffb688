import { describe, expect, test } from '@jest/globals';
import { chanceOf } from '../recording/made';
import { findRule } from './conditions';
import { dwellReading } from './dwell';
import { trialPlan } from './plan';
import { anytimeInterval, pairsWhenWatched, plannedInterval } from './sequence';
import { effectiveNumber, lagOne, readingMeans } from './series';
import { sameSlotsTest, signTest } from './same-slots';
import { type TrialPair, trialVerdict } from './verdict';

/** Differences with a mean, scatter 2 dB, and a correlation with the next. */
function made(normal: () => number, n: number, mean: number, rho: number): number[] {
  let last = normal();
  return Array.from({ length: n }, (_, i) => {
    if (i > 0) last = rho * last + Math.sqrt(1 - rho * rho) * normal();
    return mean + 2 * last;
  });
}
const pairs = (differences: readonly number[]): TrialPair[] =>
  differences.map((d) => ({ levelADbm: -80, noiseADbm: -100, levelBDbm: -80 + d, noiseBDbm: -100 }));
const names = { a: 'wire', b: 'loop' };

describe('an interval that may be watched', () => {
  test('at its ends the Bayes factor of the mixture is 20 (Rouder et al., Psychon. Bull. Rev. 16 (2009) 225, g fixed at 0.4 and 10)', () => {
    const { normal } = chanceOf(4);
    for (const n of [12, 20, 40]) {
      const differences = made(normal, n, 1, 0);
      const found = anytimeInterval(differences);
      if (!found) throw new Error(`no interval from ${n} pairs`);
      const mean = differences.reduce((sum, one) => sum + one, 0) / n;
      const m = found.effective;
      const variance = differences.reduce((sum, one) => sum + (one - mean) ** 2, 0) / n / (1 - 1 / m);
      for (const end of [found.low, found.high]) {
        const t2 = (m * (mean - end) ** 2) / variance;
        const factor = (g: number): number =>
          (1 + m * g) ** -0.5 * ((1 + t2 / ((1 + m * g) * (m - 1))) / (1 + t2 / (m - 1))) ** (-m / 2);
        expect(0.85 * factor(0.4) + 0.15 * factor(10)).toBeCloseTo(20, 3);
      }
    }
  });
  // limits: 5 % and three standard errors of the simulation; the whole of it is in the bench
  test.each([0, 0.5])(
    'watched to 60 pairs without a difference, correlation %d: ever proven at most one in twenty',
    (rho) => {
      const { normal } = chanceOf(77 + rho);
      const TRIALS = 600;
      let proven = 0;
      for (let k = 0; k < TRIALS; k += 1) {
        const differences = made(normal, 60, 0, rho);
        for (let n = 6; n <= 60; n += 1) {
          const interval = anytimeInterval(differences.slice(0, n));
          if (interval && (interval.low > 0 || interval.high < 0)) {
            proven += 1;
            break;
          }
        }
      }
      expect(proven / TRIALS).toBeLessThan(0.05 + 3 * Math.sqrt((0.05 * 0.95) / TRIALS));
    },
  );
  test('it is wider than the interval of a plan, and narrows as pairs come', () => {
    const { normal } = chanceOf(9);
    const differences = made(normal, 60, 3, 0);
    const width = (n: number): number => {
      const found = anytimeInterval(differences.slice(0, n));
      return found ? found.high - found.low : Infinity;
    };
    expect([width(10) > width(20), width(20) > width(60)]).toEqual([true, true]);
    const plan = plannedInterval(differences);
    expect(plan && plan.high - plan.low).toBeLessThan(width(60));
    // the fading time says that neighbours go together: the same readings count for fewer
    expect(anytimeInterval(differences, 0.8)?.effective).toBeLessThan(anytimeInterval(differences)?.effective ?? 0);
  });
  test('pairs to expect: more than a plan needs, fewer for more', () => {
    // a plan needs 6 pairs for 3 dB and 36 for 1 dB at a scatter of 2.08 dB (worked example)
    expect(pairsWhenWatched(2.08, 3)).toBeGreaterThan(6);
    expect(pairsWhenWatched(2.08, 1) ?? 0).toBeGreaterThan(36);
    expect(pairsWhenWatched(60, 0.1)).toBeNull();
  });
});

describe('a plan fixed beforehand', () => {
  test('independent pairs give Student’s interval: 1.9, 5.7, 2.0, 0.0, 3.0 dB give −0.1 to 5.1 (worked example, t(4) = 2.776)', () => {
    const found = plannedInterval([1.9, 5.7, 2, 0, 3]);
    expect([found?.low, found?.high].map((db) => db?.toFixed(1))).toEqual(['-0.1', '5.1']);
  });
  test('a series that goes together has a wider interval, which covers', () => {
    const { normal } = chanceOf(6);
    let covered = 0;
    for (let k = 0; k < 1500; k += 1) {
      const found = plannedInterval(made(normal, 60, 1, 0.75));
      if (found && found.low <= 1 && found.high >= 1) covered += 1;
    }
    // 93 to 97 %, and two standard errors of 1,500 trials
    expect(covered / 1500).toBeGreaterThan(0.93 - 0.013);
    expect(covered / 1500).toBeLessThan(0.97 + 0.013);
  });
  test('it is judged at its end: not before, and what comes after does not count', () => {
    const differences = [3, 7, -1, 4, 5, 2, 7, 5];
    const judge = (n: number) => trialVerdict(pairs(differences.slice(0, n)), names, { plannedPairs: 7 });
    expect(judge(5).sentence).toBe('Not judged yet: 5 of the 7 pairs that were planned.');
    expect(judge(7).snr.proven).toBe(true);
    expect(judge(8).snr.result?.n).toBe(7);
    // the same seven, watched: not proven yet
    expect(trialVerdict(pairs(differences.slice(0, 7)), names).snr.proven).toBe(false);
  });
});

describe('a reading of one antenna', () => {
  test('the signal in the middle, the noise well beside it; a stray carrier at the edge is neither', () => {
    const levels = Array.from({ length: 81 }, (_, i) => (i === 40 ? -60 : i === 3 ? -40 : -100 + (i % 3)));
    expect(dwellReading(levels)).toEqual({ levelDb: -60, noiseDb: -99 });
    expect(() => dwellReading([1, 2, 3])).toThrow('here are 3');
  });
});

describe('what a comparison will take', () => {
  const ASKED = { sdDb: 2.08, worthDb: 2, fadingS: null, readS: 10, settleS: 3 };
  // worked example: 11 pairs for 2 dB at a scatter of 2.08 dB; each pair two readings of 13 s
  test('pairs, time and order', () => {
    const plan = trialPlan(ASKED);
    expect(plan.fixedPairs).toBe(11);
    expect(plan.spacingS).toBe(26);
    expect(plan.fixedMinutes).toBeCloseTo((11 * 26) / 60, 9);
    expect(plan.watchedPairs).toBeGreaterThan(11);
    expect(plan.order).toBe('A B B A A B B A');
  });
  test('in slow fading pairs stand apart: e^{−t/τ} down to a tenth takes 2.30 τ', () => {
    expect(trialPlan({ ...ASKED, fadingS: 30 }).spacingS).toBeCloseTo(30 * Math.log(10), 6);
    expect(trialPlan({ ...ASKED, fadingS: 1 }).spacingS).toBe(26);
    expect(() => trialPlan({ ...ASKED, readS: 0 })).toThrow('Time of a reading');
    expect(trialPlan({ ...ASKED, sdDb: 60, worthDb: 0.5 }).fixedMinutes).toBeNull();
  });
});

describe('verdicts', () => {
  test('by a hair: the bound lies within a tenth of the half width', () => {
    // mean 1, scatter 1.069, t(7) = 2.365: half width 0.894, bound 0.106 (by hand)
    const spread = [1, -1, 1, -1, 1, -1, 1, -1].map((one) => one + 1.0);
    const found = trialVerdict(pairs(spread), names, { plannedPairs: 8 });
    expect(found.snr.result?.ciLow).toBeCloseTo(0.106, 2);
    expect(found.snr.byAHair).toBe(false);
    const nearer = trialVerdict(pairs(spread.map((one) => one - 0.04)), names, { plannedPairs: 8 });
    expect([nearer.snr.proven, nearer.snr.byAHair]).toEqual([true, true]);
    expect(nearer.sentence).toMatch(/proven by a hair/);
  });
  test('differences alone are enough; level or noise decide where the trial asks for them', () => {
    const alone = [3, 5, 2, 6, 4, 5, 3, 4].map((differenceDb): TrialPair => ({
      ...{ levelADbm: null, noiseADbm: null, levelBDbm: null, noiseBDbm: null, differenceDb },
    }));
    expect(trialVerdict(alone, names).sentence).toBe('loop is better on SNR by 4.0 dB, proven.');
    const louder = trialVerdict(pairs([3, 5, 2, 6, 4, 5, 3, 4]), names, { primary: 'level' });
    expect(louder.sentence).toBe('loop is stronger by 4.0 dB, proven.');
  });
  // by hand: mean 2.94, scatter 2.91, half width 2.365 · 2.91/√8 = 2.43, so t excludes zero; the two losses have ranks 2 and 3 of 8, and 10 of the 256 sets
  // of ranks sum to 5 or less: p = 20/256 = 0.078 (Wilcoxon 1945)
  test('a mean that a few pairs carry is proven by t and doubted by the rank test, which is named and explained', () => {
    const found = trialVerdict(pairs([5.7, -0.9, 5, 2.6, 5.6, 5.6, 0.5, -0.6]), names, { plannedPairs: 8 });
    expect(found.snr.interval?.low).toBeCloseTo(0.5, 1);
    expect(found.doubt).toMatch(/Wilcoxon’s rank test, which asks only how often and how far.*\(p 0\.078\)/);
  });
});

describe('series and counts', () => {
  test('effective number in closed form equals the sum of its definition', () => {
    for (const [n, rho] of [
      [5, 0.3],
      [60, 0.4],
      [17, -0.5],
      [200, 0.9],
    ]) {
      let sum = 1;
      for (let k = 1; k < n; k += 1) sum += 2 * (1 - k / n) * rho ** k;
      expect(effectiveNumber(n, rho).exact).toBeCloseTo(n / sum, 9);
    }
  });
  test('the correlation of a long series is found', () => {
    const { normal } = chanceOf(3);
    expect(lagOne(made(normal, 4000, 0, 0.6))).toBeCloseTo(0.6, 1);
    expect(lagOne([1, 1, 1, 1, 1])).toBe(0);
  });
  test('what cannot be counted is refused', () => {
    expect(() => signTest(2.5, 1)).toThrow('whole number');
    expect(() => sameSlotsTest({ both: 0, onlyA: 0, onlyB: 0, none: 0 })).toThrow('no slots');
    expect(() => readingMeans([])).toThrow('no readings');
    expect(signTest(0, 0)).toEqual({ pTwoSided: 1, shareA: null });
  });
});

describe('conditions', () => {
  const floors = (list: readonly number[]) => ({ id: 'floor', kind: 'number', values: list }) as const;
  test('two evenings with opposite winners: a rule with its threshold, no pooled winner', () => {
    const quiet = [4.1, 3.2, 5, 3.6, 4.4, 2.9, 3.8];
    const noisy = [-3.1, -4.6, -2.8, -3.9, -4.2, -3.3, -5];
    const list = [...quiet, ...noisy];
    const found = findRule(list, [floors([...quiet.map((_, i) => -112 + i), ...noisy.map((_, i) => -103 + i)])]);
    expect(found.state).toBe('rule');
    if (found.state !== 'rule') return;
    expect(found.rule.opposite).toBe(true);
    // half-way between −106 and −103
    expect(found.rule.threshold?.at).toBeCloseTo(-104.5, 9);
    expect(found.rule.near).toMatchObject({ n: 7, meanDb: quiet.reduce((sum, one) => sum + one, 0) / 7 });
    expect(found.rule.far.meanDb).toBeLessThan(-3);
    expect(found.rule.p).toBeLessThan(0.01);
  });
  test('readings of one kind make no rule; a side with too few says how many are missing', () => {
    const { normal } = chanceOf(31);
    let rules = 0;
    for (let k = 0; k < 120; k += 1) {
      const list = made(normal, 24, 1, 0);
      const found = findRule(list, [
        floors(list.map(() => normal())),
        { id: 'dark', kind: 'flag', values: list.map(() => normal() > 0) },
        { id: 'rain', kind: 'flag', values: list.map(() => normal() > 0.5) },
      ]);
      if (found.state === 'rule') rules += 1;
    }
    // 5 % of 120 and three standard errors
    expect(rules).toBeLessThanOrEqual(13);
    expect(
      findRule([1, 2, 3, 4, 5, 6], [{ id: 'dark', kind: 'flag', values: [true, true, false, false, false, false] }]),
    ).toEqual({
      ...{ state: 'too few', factor: 'dark', side: 'far', missing: 3 },
    });
    expect(findRule([], [])).toEqual({ state: 'none' });
    expect(() => findRule([1], [floors([1, 2])])).toThrow('2 values for 1 pairs');
  });
});

// worked example: five differences of two converters, 22, 19, 25, 23, 21 dB: mean 22.0, interval 19.2 to 24.8 by Student
test('five pairs that were planned can prove a large difference; four, or five that are watched, cannot', () => {
  const pairs = (all: readonly number[]) =>
    all.map((differenceDb) => ({
      ...{ levelADbm: null, noiseADbm: null, levelBDbm: null, noiseBDbm: null, differenceDb },
    }));
  const five = pairs([22, 19, 25, 23, 21]);
  const names = { a: 'dongle', b: 'sound card' };
  const planned = trialVerdict(five, names, { plannedPairs: 5 });
  // the rank test cannot reach 5 % with five pairs, and the sentence says so
  expect(planned.sentence).toMatch(/^sound card is better on SNR by 22\.0 dB, proven\. Wilcoxon’s rank test/);
  expect(planned.snr.interval?.low).toBeCloseTo(19.2, 1);
  expect(planned.snr.interval?.high).toBeCloseTo(24.8, 1);
  expect(trialVerdict(five, names).snr.proven).toBe(false);
  expect(trialVerdict(five.slice(0, 4), names, { plannedPairs: 4 }).snr.proven).toBe(false);
});
