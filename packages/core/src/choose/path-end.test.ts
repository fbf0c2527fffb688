import { describe, expect, test } from '@jest/globals';
import type { Design } from '../antenna/kind';
import { startDesign } from '../antenna/kinds';
import type { Ground } from '../solver/model';
import { readyCandidate } from './candidate';
import { burdenOf } from './cost';
import type { ForecastPlace, ForecastTarget } from './forecast';
import { solveHearing } from './hearing';
import { EVENING } from './evening';
import { analysePath } from '../path/plan';
import { pathVerdict } from '../path/verdict';
import { pathEnd } from './path-end';

const GROUND: Ground = { type: 'real', relPermittivity: 13, conductivitySPerM: 0.005 };
const TARGET: ForecastTarget = {
  ...{ id: '1', name: '49 m', lowHz: 5.9e6, highHz: 6.2e6, bandwidthHz: 5000, weight: 5, arrivalDeg: 30 },
};
const place = (powerW: number): ForecastPlace => ({
  transmitters: [{ name: 'medium wave', freqHz: 1e6, powerW, powerKind: 'EMRP', distanceM: 3000 }],
  receivers: [],
  lineLossDb: () => 0,
  externalFaDb: () => 40,
});
const heardWith = (design: Design, target = TARGET) =>
  pathEnd(
    target,
    place(40e3),
    readyCandidate(
      { id: 'own-1', name: 'wire', source: 'own', design, burden: burdenOf(design) },
      [target],
      GROUND,
      solveHearing,
    ),
  );
const levelDbm = (design: Design): number => {
  const end = heardWith(design);
  if (end.state !== 'judged') throw new Error(end.because);
  return end.question.signals[0].levelDbm;
};

describe('what an antenna hands to its path', () => {
  test('40 kW on medium wave at 3 km: an upright of 9.3 m over radials within 3 dB of the closed form of a short rod', () => {
    // E = 300 mV/m · √40 / 3 = 632 mV/m (ITU-R BS.561); effective height half of the rod; reactance −60 (ln(2h/a) − 1) / tan kh
    // (King, Theory of Linear Antennas, short monopole; from memory); into 50 Ω without a transformer
    const design = startDesign('vertical-over-radials', 7.1e6);
    const [h, a, k] = [9.34, 0.001, (2 * Math.PI) / 299.79];
    const volts = ((0.3 * Math.sqrt(40)) / 3) * (h / 2);
    const reactance = (60 * (Math.log((2 * h) / a) - 1)) / Math.tan(k * h);
    const watts = (volts ** 2 * 50) / (50 ** 2 + reactance ** 2);
    expect(Math.abs(levelDbm(design) - 10 * Math.log10(watts * 1000))).toBeLessThan(3);
  });
  test('level wire sees the tilt of the field, some 20 dB less than upright wire; no antenna takes 39 dBm there', () => {
    const levels = (['half-wave-dipole', 'inverted-l', 'end-fed-wire', 'ground-laid-wire'] as const).map((kind) =>
      levelDbm(startDesign(kind, 7.1e6)),
    );
    expect(levels[0]).toBeLessThan(levels[1] - 10);
    for (const level of levels) {
      expect(level).toBeLessThan(10);
      expect(level).toBeGreaterThan(-70);
    }
  });
  test('a kind outside its range is not judged, and nothing is made of 0 dBi', () => {
    const dish = startDesign('dish', 10.5e9);
    expect(heardWith(dish)).toMatchObject({ state: 'not judged' });
    expect(heardWith(dish, { ...TARGET, lowHz: 10.4e9, highHz: 10.5e9 })).toMatchObject({ state: 'judged' });
  });
  test('without its answers it waits; without an antenna a lossless one stands in and says so', () => {
    const design = startDesign('half-wave-dipole', 6.1e6);
    const spec = { id: 'own-1', name: 'wire', source: 'own' as const, design, burden: burdenOf(design) };
    const unheard = readyCandidate(spec, [TARGET], GROUND, () => undefined);
    expect(pathEnd(TARGET, place(1), unheard).state).toBe('waiting');
    expect(pathEnd(TARGET, place(1))).toMatchObject({
      ...{ state: 'judged', question: { externalFaDb: 40, antennaNoise: 0 } },
      remarks: [expect.stringMatching(/No antenna is chosen/)],
    });
  });
  // 100 kW and 4 dBi are 84 dBm; √(1500² + 600²) = 1615 km lose 113.9 dB at 7.325 MHz and 116.3 at 9.65, a hop at night 14 more; twenty of them 13 dB (by hand)
  test('evening broadcasts count on short wave, not by day and not at VHF: −30.9 and −33.3 dBm from a lossless antenna', () => {
    const assumed = (target: ForecastTarget) => {
      const end = pathEnd(target, place(1));
      if (end.state !== 'judged') throw new Error(end.because);
      return end.question.signals.filter((signal) => signal.assumed).map(({ levelDbm }) => levelDbm);
    };
    const [low, high] = assumed({ ...TARGET, time: 'night' });
    expect(Math.abs(low + 30.9)).toBeLessThan(0.3);
    expect(Math.abs(high + 33.3)).toBeLessThan(0.3);
    expect(assumed({ ...TARGET, time: 'day' })).toEqual([]);
    expect(assumed({ ...TARGET, lowHz: 118e6, highHz: 137e6 })).toEqual([]);
  });
  test('a receiver of little full scale is filled by an evening on a good dipole, and the verdict says what ends it', () => {
    const design = startDesign('half-wave-dipole', 7.1e6);
    const target: ForecastTarget = { ...TARGET, lowHz: 7e6, highHz: 7.2e6, time: 'night' };
    const spec = { id: 'own-1', name: 'wire', source: 'own' as const, design, burden: burdenOf(design) };
    const end = pathEnd(target, place(1), readyCandidate(spec, [target, ...EVENING], GROUND, solveHearing));
    if (end.state !== 'judged') throw new Error(end.because);
    // the dipole is on its frequency: it hands on a few dB more or less than a lossless isotropic antenna
    const total = 10 * Math.log10(end.question.signals.reduce((sum, one) => sum + 10 ** (one.levelDbm / 10), 0));
    expect(Math.abs(total + 29)).toBeLessThan(8);
    const receiver = {
      ...{ name: 'deaf to nothing', bits: 12, fullScaleDbm: -45, sampleRateHz: 60e6, complexSamples: false },
      ...{ noiseFigureDb: 6, iip2Dbm: 60, iip3Dbm: 20, minHz: 1e5, maxHz: 29e6 },
    };
    const analysis = analysePath([], receiver, end.question);
    const { better, cure, overloadJudged } = pathVerdict([{ order: 1, stages: [], analysis }], {
      ...{ targetName: '40 m', receiver, question: end.question, transmits: false },
    });
    expect([better.state, overloadJudged]).toEqual(['overload', true]);
    expect(cure?.kinds.length).toBeGreaterThan(0);
  });
});
