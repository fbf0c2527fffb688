import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Spectrum } from '../formats/spectrum-csv';
import type { SweepData } from '../formats/touchstone';
import { swrThroughLoss } from '../line/coax';
import { detuningLossDb, padding, qFromDetuning, repeatability } from '../resonator/padding';
import { paddingChoices } from '../resonator/preferred';
import { markerAt } from './analyse';
import { findFault } from './compare';
import { checkClaims, disguisedSwr, shackReturnLossDb } from './consistency';
import { noisePeak, noiseRiseDb } from './noise-peak';
import { planSweep } from './plan';

/** Series resonance R + jRQ(f/f0 − f0/f) on 50 Ω, seen through a line with a one-way loss. */
function sweepOf(r: number, q: number, f0: number, from: number, to: number, lossDb = 0, points = 201): SweepData {
  const freqHz = Float64Array.from({ length: points }, (_, i) => from + ((to - from) * i) / (points - 1));
  const through = 10 ** (-lossDb / 10);
  const gamma = Array.from(freqHz, (f) => {
    const x = r * q * (f / f0 - f0 / f);
    const den = (r + 50) ** 2 + x * x;
    return [(through * (r * r - 2500 + x * x)) / den, (through * 100 * x) / den];
  });
  return {
    freqHz,
    re: Float64Array.from(gamma, ([re]) => re),
    im: Float64Array.from(gamma, ([, im]) => im),
    referenceOhm: 50,
  };
}
const swrAt = (sweep: SweepData, hz: number): number => markerAt(sweep, hz)?.swr ?? NaN;

describe('sweep plan', () => {
  // worked by hand: 30 MHz / 999, bandwidth over step, 5 × 21 × 30 ms, 30 MHz / 2.5 kHz + 1
  const band = (name: string, lowHz: number, widthHz: number) => ({ name, lowHz, highHz: lowHz + widthHz });
  const plan = planSweep({
    startHz: 0,
    stopHz: 30e6,
    points: 1000,
    secondsPerPoint: 0.03,
    lowestHz: 50e3,
    bands: [
      band('a', 3.5e6, 500e3),
      band('b', 7e6, 300e3),
      band('c', 10.1e6, 50e3),
      band('d', 14e6, 350e3),
      band('e', 18.068e6, 100e3),
    ],
  });
  test('step, time and points per band', () => {
    expect(plan.stepHz / 1000).toBeCloseTo(30.03, 2);
    expect(plan.seconds).toBeCloseTo(30, 9);
    expect(plan.perBand.map(({ points }) => Number(points.toFixed(1)))).toEqual([16.6, 10, 1.7, 11.7, 3.3]);
  });
  test('five segments of 21 points, and the single sweep that would do as well', () => {
    expect(plan.segments.map(({ points }) => points)).toEqual([21, 21, 21, 21, 21]);
    expect(plan.segmentSeconds).toBeCloseTo(3.15, 9);
    expect(plan.singlePoints).toBe(12_001);
    expect(plan.singleSeconds).toBeCloseTo(360.03, 2);
  });
  test('a start at 0 Hz is replaced, and a band with two points is warned of', () => {
    expect(plan.remarks[0]).toMatch(/begins at 50000 Hz/);
    expect(plan.remarks.join(' ')).toMatch(/Only 1\.7 points fall into c/);
  });
});

describe('what can be true together', () => {
  test('−29 dB means SWR 1.07, not 1.38 (by hand: |Γ| = 0.0355)', () => {
    const { claims, conflicts } = checkClaims({ returnLossDb: -29, swr: 1.38 });
    expect(claims.find(({ by }) => by === 'return loss')?.swr).toBeCloseTo(1.07, 2);
    expect(conflicts[0]).toMatch(/SWR says SWR 1\.38, return loss says 1\.07/);
    expect(checkClaims({ returnLossDb: 9.54, swr: 2, resistanceOhm: 100 }).conflicts).toEqual([]);
    expect(checkClaims({ swr: 2, resistanceOhm: 50, reactanceOhm: 50 }).conflicts).toHaveLength(1);
  });
  test('behind 9 dB of line anything looks under 1.3', () => {
    expect(disguisedSwr(9)).toBeLessThan(1.3);
    expect(disguisedSwr(0)).toBe(Infinity);
  });
  // SWR 2.0 at the shack through 1.2 dB: 2.57 at the antenna; return loss 9.54 dB at the shack (worked by hand)
  test('line taken off and put on again', () => {
    const antenna = swrThroughLoss(2, 1.2) ?? NaN;
    expect(antenna).toBeCloseTo(2.57, 2);
    expect(shackReturnLossDb(antenna, 1.2)).toBeCloseTo(9.54, 2);
  });
});

describe('before and after', () => {
  // the closed form R + jRQ(f/f0 − f0/f): 1.363 / 1.191 / 1.344 good, 6.66 / 5.59 / 4.66 bad, worked by hand
  const good = sweepOf(42, 11, 14.18e6, 13e6, 16.5e6, 0, 701);
  const bad = sweepOf(42, 11, 15.6e6, 13e6, 16.5e6, 0, 701);
  test('the files of the example read as given', () => {
    expect([14e6, 14.175e6, 14.35e6].map((f) => Number(swrAt(good, f).toFixed(3)))).toEqual([1.363, 1.191, 1.344]);
    expect([14e6, 14.175e6, 14.35e6].map((f) => Number(swrAt(bad, f).toFixed(2)))).toEqual([6.66, 5.59, 4.66]);
  });
  test('a dip 1.42 MHz higher is a wire too short or open, and no tuning job', () => {
    const found = findFault([good], [bad]);
    expect(found.dips[0].shiftHz).toBeCloseTo(1.42e6, -3);
    expect(found.causes[0].id).toBe('broken');
    expect(found.tuningJob).toBe(false);
    expect(found.sentence).toMatch(/moved by 1\.42 MHz up.*too short or open.*not a tuning job/);
  });
  test('two wires that rose alike shifted together', () => {
    const found = findFault([good, sweepOf(36, 14, 7.06e6, 6.4e6, 8e6)], [bad, sweepOf(36, 14, 7.42e6, 6.4e6, 8e6)]);
    expect(found.causes[0].name).toBe('All dips shifted together');
    expect(found.dips).toHaveLength(2);
  });
  test('a dip that went while another stayed is a wire down', () => {
    const seven = sweepOf(36, 14, 7.06e6, 6.4e6, 8e6);
    const open = sweepOf(3000, 11, 14.18e6, 13e6, 16.5e6);
    const found = findFault([good, seven], [open, seven]);
    expect(found.causes[0].name).toBe('A wire is down or open');
  });
  test('a small move is a tuning job; none is none', () => {
    expect(findFault([good], [sweepOf(42, 11, 14.35e6, 13e6, 16.5e6, 0, 701)])).toMatchObject({ tuningJob: true });
    expect(findFault([good], [good]).causes[0].id).toBe('none');
    // beside a dip that moved nothing is said to have stayed
    expect(findFault([good], [bad]).causes.map(({ id }) => id)).not.toContain('none');
  });
  test('a dip 8 % lower hangs on what was added: it was called a tuning job, and the wire was to be cut for it', () => {
    const found = findFault([good], [sweepOf(42, 11, 13.05e6, 12e6, 16.5e6, 0, 701)]);
    expect(found.causes[0].id).toBe('longer');
    expect(found.tuningJob).toBe(false);
    expect(found.sentence).toMatch(/not a tuning job/);
  });
  test('more loss on the way looks like a better match and is named', () => {
    const wet = sweepOf(42, 11, 14.18e6, 13e6, 16.5e6, 2, 701);
    const found = findFault([good], [wet]);
    expect(swrAt(wet, 13.5e6)).toBeLessThan(swrAt(good, 13.5e6));
    expect(found.causes[0].id).toBe('water');
    expect(found.causes[0].reason).toMatch(/takes 2\.0 dB more/);
  });
  test.each([
    ['open-feed', 1],
    ['short-feed', -1],
  ] as const)('a feed that is %s sends everything back', (id, sign) => {
    const dead: SweepData = {
      ...good,
      re: Float64Array.from(good.freqHz, () => 0.98 * sign),
      im: new Float64Array(good.freqHz.length),
    };
    expect(findFault([good], [dead]).causes[0].id).toBe(id);
  });
});

/** Small repeatable noise, normal by twelve uniforms (Park & Miller's generator, CACM 31 (1988) 1192). */
function normal(seed: number): () => number {
  let state = seed;
  const uniform = (): number => {
    state = (state * 48271) % 2147483647;
    return state / 2147483647;
  };
  return () => Array.from({ length: 12 }, uniform).reduce((sum, value) => sum + value, -6);
}
/** The example's recording: −112 dB flat, a resonance 30 dB over it, half a dB of scatter. */
function recording(f0: number, q: number, seed: number, rise = 900): { on: Spectrum; off: Spectrum } {
  const next = normal(seed);
  const freqHz = Float64Array.from({ length: 401 }, (_, i) => 70e3 + 50 * i);
  return {
    on: {
      freqHz,
      levelDb: Float64Array.from(
        freqHz,
        (f) => -112 + 10 * Math.log10(1 + rise / (1 + (q * (f / f0 - f0 / f)) ** 2)) + 0.5 * next(),
      ),
    },
    off: { freqHz, levelDb: Float64Array.from(freqHz, () => -112) },
  };
}

describe('resonance from noise', () => {
  test('78.40 kHz and Q 85 come back with their intervals', () => {
    const { on, off } = recording(78_400, 85, 4711);
    const peak = noisePeak(on, off);
    expect(Math.abs(peak.centreHz - 78_400)).toBeLessThan(50);
    expect(Math.abs(peak.q - 85)).toBeLessThan(6);
    expect(peak.widthHz).toBeCloseTo(peak.centreHz / peak.q, 9);
    expect(peak.scatterDb).toBeCloseTo(0.5, 1);
    // 10 log(1 + 900) = 29.55 dB
    expect(peak.riseDb).toBeCloseTo(29.55, 0);
    expect(Math.abs(peak.rough.centreHz - 78_400)).toBeLessThan(400);
  });
  test('stations on a few channels do not pull it', () => {
    const { on, off } = recording(78_400, 85, 99);
    const spiked = Float64Array.from(on.levelDb, (level, i) => (i % 37 === 5 ? level + 25 : level));
    const peak = noisePeak({ ...on, levelDb: spiked }, off);
    expect(Math.abs(peak.centreHz - 78_400)).toBeLessThan(50);
    expect(Math.abs(peak.q - 85)).toBeLessThan(6);
    expect(peak.spikes).toBeGreaterThan(0.02);
  });
  test('a sloping background is taken off in linear power', () => {
    const { on } = recording(78_400, 85, 5);
    const slope = (f: number): number => -112 + (f - 80e3) / 5e3;
    const power = (db: number): number => 10 ** (db / 10);
    const peak = noisePeak(
      {
        freqHz: on.freqHz,
        levelDb: Float64Array.from(
          on.levelDb,
          (level, i) => 10 * Math.log10(Math.max(1e-15, power(level) - power(-112)) + power(slope(on.freqHz[i]))),
        ),
      },
      { freqHz: on.freqHz, levelDb: Float64Array.from(on.freqHz, slope) },
    );
    expect(Math.abs(peak.centreHz - 78_400)).toBeLessThan(50);
  });
  test('flat noise has no resonance, and says so', () => {
    const { off } = recording(78_400, 85, 5);
    const next = normal(3);
    expect(() =>
      noisePeak({ freqHz: off.freqHz, levelDb: Float64Array.from(off.freqHz, () => -112 + 0.5 * next()) }, off),
    ).toThrow(/resonance in the noise/);
    expect(() => noisePeak({ freqHz: Float64Array.of(1, 2), levelDb: Float64Array.of(1, 2) }, off)).toThrow(
      /at least 12/,
    );
  });
  test('a source heard past the antenna raises the floor everywhere; the resonance over it keeps its Q', () => {
    const { on, off } = recording(78_400, 85, 12);
    const power = (db: number): number => 10 ** (db / 10);
    // twice the background's power past the antenna: the floor between is 4.77 dB up, and the height over it 10 log(1 + 900/3) = 24.79 dB
    const past = 2 * power(-112);
    const peak = noisePeak({ ...on, levelDb: on.levelDb.map((level) => 10 * Math.log10(power(level) + past)) }, off);
    expect(Math.abs(peak.centreHz - 78_400)).toBeLessThan(50);
    expect(Math.abs(peak.q - 85)).toBeLessThan(6);
    expect(peak.riseDb).toBeCloseTo(24.79, 0);
  });
  test('a floor raised everywhere alone is no resonance', () => {
    const { off } = recording(78_400, 85, 5);
    const next = normal(8);
    const raised = Float64Array.from(off.freqHz, () => -109 + 0.5 * next());
    expect(() => noisePeak({ freqHz: off.freqHz, levelDb: raised }, off)).toThrow(/resonance in the noise/);
  });
  test('thirty thousand points narrow the interval by the root of their number', () => {
    const next = normal(31);
    const many = 30_000;
    const freqHz = Float64Array.from({ length: many }, (_, i) => 70e3 + (20e3 * i) / many);
    const level = (f: number): number => -112 + 10 * Math.log10(1 + 900 / (1 + (85 * (f / 78_400 - 78_400 / f)) ** 2));
    const on = { freqHz, levelDb: Float64Array.from(freqHz, (f) => level(f) + 0.5 * next()) };
    const off = { freqHz, levelDb: Float64Array.from(freqHz, () => -112) };
    const [fine, coarse] = [noisePeak(on, off), noisePeak(recording(78_400, 85, 4711).on, off)];
    expect(Math.abs(fine.centreHz - 78_400)).toBeLessThan(fine.centreHalfHz * 1.5);
    // 401 points against 30,000: √(30000/401) = 8.65, within the scatter of a standard deviation from 400 values
    expect(coarse.centreHalfHz / fine.centreHalfHz).toBeGreaterThan(7.5);
    expect(coarse.centreHalfHz / fine.centreHalfHz).toBeLessThan(10);
  });
  test('the 95 % interval of the centre covers the truth in about that share of forty recordings', () => {
    let covered = 0;
    for (let seed = 1; seed <= 40; seed += 1) {
      const truth = 76_000 + 60 * seed;
      const { on, off } = recording(truth, 60 + (seed % 50), 1000 + 17 * seed);
      const peak = noisePeak(on, off);
      if (Math.abs(peak.centreHz - truth) <= peak.centreHalfHz) covered += 1;
    }
    // binomial: 38 of 40 less three standard deviations of 1.4
    expect(covered).toBeGreaterThanOrEqual(34);
  });
});

describe('padding', () => {
  // worked example: 390 pF at 78.40 kHz, wanted 77.5: +9.1 pF without, +9.9 pF with 32.9 pF of its own; 92.7 Hz per pF; 6.86 dB
  const coil = { installedF: 390e-12, selfF: 32.9e-12, measuredHz: 78_400, targetHz: 77_500, q: 85 };
  test('what is missing, with and without the coil’s own capacitance', () => {
    const found = padding(coil);
    expect(found.addF * 1e12).toBeCloseTo(9.9, 1);
    expect(found.withoutSelfF * 1e12).toBeCloseTo(9.1, 1);
    expect(Math.abs(found.slopeHzPerF) * 1e-12).toBeCloseTo(92.7, 1);
    expect(found.lossNowDb).toBeCloseTo(6.86, 1);
    expect(Math.abs(found.predictedHz(10e-12) - 77_500)).toBeLessThan(50);
    expect(() => padding({ ...coil, measuredHz: 77_000 })).toThrow(/below the target already/);
  });
  test('what was added is what the shift says, both ways', () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-12, max: 500e-12, noNaN: true }), (extra) => {
        const { predictedHz } = padding(coil);
        const back = padding({ ...coil, targetHz: predictedHz(extra) });
        expect(back.addF).toBeCloseTo(extra, 16);
      }),
      { seed: 5 },
    );
  });
  test('10 pF and its neighbours are offered, best first', () => {
    const [best, ...rest] = paddingChoices(9.9e-12, 'E12');
    expect(best.error).toBeLessThanOrEqual(rest[0].error);
    expect(best.sumF * 1e12).toBeCloseTo(9.9, 1);
    expect(paddingChoices(10e-12, 'E12')[0].parts).toEqual([10e-12]);
  });
  // 10–15 dB at a sixty-first beside: Q 91 to 167 (worked by hand)
  test('Q from the loss beside the resonance', () => {
    expect(qFromDetuning(60e3, 61e3, 10)).toBeCloseTo(91, -1);
    expect(qFromDetuning(60e3, 61e3, 15)).toBeCloseTo(168, -1);
    expect(detuningLossDb(60e3, 60e3, 100)).toBe(0);
    expect(qFromDetuning(60e3, 60e3, 10)).toBeUndefined();
  });
  test('three positions 0.70 kHz apart do not agree', () => {
    expect(repeatability([78_400, 78_440, 79_100])).toMatchObject({ spreadHz: 700, agrees: false });
    expect(repeatability([78_400, 78_440, 78_420]).agrees).toBe(true);
    expect(repeatability([78_400, 78_410]).agrees).toBe(false);
  });
});

describe('the rise of noise over a coil', () => {
  // worked by hand from the definition of the half-power width: at f₀(1 ± 1/(2Q)) half of the added power is left (Terman 1943, sec. 3)
  const coil = { centreHz: 198e3, q: 85, riseDb: 10 * Math.log10(1 + 30) };
  test('stands whole at the centre, and is half in power at the edges of its width', () => {
    expect(noiseRiseDb(198e3, coil)).toBeCloseTo(10 * Math.log10(31), 9);
    const halfWidth = Math.sqrt(1 + 1 / (4 * coil.q ** 2));
    for (const side of [-1, 1])
      expect(noiseRiseDb(198e3 * (halfWidth + side / (2 * coil.q)), coil)).toBeCloseTo(10 * Math.log10(16), 6);
  });
  test('is gone far from the centre', () => expect(noiseRiseDb(2 * 198e3, coil)).toBeLessThan(0.02));
});
