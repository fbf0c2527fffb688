import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { dimensionsOf } from '../antenna/dimensions';
import { antennaKind, startDesign, wireModel } from '../antenna/kinds';
import { trimmedWires, wireSensitivities } from '../antenna/wire-sensitivity';
import type { SweepData } from '../formats/touchstone';
import { cableClass } from '../line/coax';
import { reflectionOf } from '../line/reflection';
import { add, complex, type Complex, divide, fromPolar, magnitude, multiply, subtract } from '../numeric/complex';
import { inverseFourierInPlace } from '../numeric/fft';
import { groundClass } from '../solver/ground-classes';
import type { Point } from '../solver/model';
import { finish, sweepModel } from '../solver/model-sweep';
import { findResonances } from './analyse';
import { fitAsBuilt } from './as-built';
import { averageSweeps } from './average';
import { coilVerdict } from './bench-verdict';
import { IDEAL_STANDARDS, standardReflections } from './calibration';
import { type Calibration, calibrationDoubts, checkStandard, correctSweep } from './correct';
import { distanceToFault } from './distance';
import { autoMarkers, dipShiftHz, shiftText } from './markers';
import { takeLineOff, throughLine } from './reference-plane';
import { gettingWorse, learnFromTrim } from './trim';
import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { bandSlipOf, levelSlipOf, slipOf, spanSlipOf } from '../units/slip';

const grid = (startHz: number, stopHz: number, points: number): Float64Array =>
  Float64Array.from({ length: points }, (_, i) => startHz + ((stopHz - startHz) * i) / (points - 1));
const sweepOf = (freqHz: Float64Array, gamma: (freqHz: number) => Complex): SweepData => ({
  freqHz,
  re: freqHz.map((f) => gamma(f).re),
  im: freqHz.map((f) => gamma(f).im),
  referenceOhm: 50,
});
const worst = (a: SweepData, b: SweepData): number =>
  Math.max(...Array.from(a.re, (re, i) => Math.hypot(re - b.re[i], a.im[i] - b.im[i])));

describe('calibration over a grid', () => {
  // a bridge with directivity, source match and a tracking that turns with 0.5 m of cable: m = e00 + e10e01·Γ/(1 − e11·Γ)
  const bridge = (gamma: Complex, freqHz: number): Complex => {
    const tracking = fromPolar(0.9, (-720 * freqHz * 0.5) / SPEED_OF_LIGHT_M_PER_S);
    return add(
      complex(0.05, 0.02),
      divide(multiply(tracking, gamma), subtract(complex(1), multiply(complex(0.08, -0.03), gamma))),
    );
  };
  const kit = { ...IDEAL_STANDARDS, openFarad: 50e-15, openDelayS: 30e-12 };
  const calibrate = (freqHz: Float64Array): Calibration => {
    const read = (name: 'open' | 'short' | 'load') =>
      sweepOf(freqHz, (f) => bridge(standardReflections(kit, f)[name], f));
    return { freqHz, standards: kit, readings: { open: read('open'), short: read('short'), load: read('load') } };
  };
  const truth = (f: number): Complex => reflectionOf(complex(36, 200 * (f / 145e6 - 145e6 / f)), 50);
  const freqHz = grid(100e6, 200e6, 201);
  const calibration = calibrate(freqHz);

  test('on its own frequencies the truth comes back exactly, between them nearly, outside not at all', () => {
    const raw = (over: Float64Array): SweepData => sweepOf(over, (f) => bridge(truth(f), f));
    const same = correctSweep(raw(freqHz), calibration);
    expect(same.between).toBe(false);
    expect(worst(same.sweep, sweepOf(freqHz, truth))).toBeLessThan(1e-12);
    const finer = grid(120e6, 160e6, 77);
    const between = correctSweep(raw(finer), calibration);
    expect(between.between).toBe(true);
    // a step turns the tracking by 0.6°: 1 − cos(0.3°) = 1.4e-5
    expect(worst(between.sweep, sweepOf(finer, truth))).toBeLessThan(5e-5);
    expect(() => correctSweep(raw(grid(90e6, 160e6, 11)), calibration)).toThrow(/reaches from 100.0 MHz to 200.0 MHz/);
  });

  test('never by point index: the same number of points over another span would be tens of degrees wrong', () => {
    const other = grid(140e6, 150e6, 201);
    const { sweep } = correctSweep(
      sweepOf(other, (f) => bridge(truth(f), f)),
      calibration,
    );
    expect(worst(sweep, sweepOf(other, truth))).toBeLessThan(5e-5);
  });

  test('doubts: span changed, too coarse, too old', () => {
    const plan = { startHz: 100e6, stopHz: 200e6, points: 201 };
    const hour = 3600e3;
    expect(calibrationDoubts(calibration, 0, hour, plan)).toEqual([]);
    expect(calibrationDoubts(calibration, 0, hour, { ...plan, stopHz: 300e6 })[0]).toMatch(/goes beyond/);
    expect(calibrationDoubts(calibration, 0, hour, { ...plan, points: 401 })[0]).toMatch(/interpolated/);
    expect(calibrationDoubts(calibration, 0, 30 * hour, plan)[0]).toMatch(/30 hours old/);
    // 11 points over 100 MHz: 4π·10 MHz·0.5 m/c = 12° a step
    expect(calibrationDoubts(calibrate(grid(100e6, 200e6, 11)), 0, hour, plan)[0]).toMatch(
      /turn 12° .*Calibrate again/,
    );
  });

  test('a standard read again passes; a load of 51.5 Ω has 36.6 dB and passes, one of 55 Ω does not', () => {
    const through = (gamma: (f: number) => Complex): SweepData =>
      correctSweep(
        sweepOf(freqHz, (f) => bridge(gamma(f), f)),
        calibration,
      ).sweep;
    expect(
      checkStandard(
        through((f) => standardReflections(kit, f).open),
        'open',
        kit,
      ).passed,
    ).toBe(true);
    // Pozar: 51.5 Ω on 50 Ω reflects 1.5/101.5, 36.6 dB
    const near = checkStandard(
      through(() => reflectionOf(complex(51.5), 50)),
      'load',
      kit,
    );
    expect(near.passed).toBe(true);
    expect(-20 * Math.log10(near.worst)).toBeCloseTo(36.6, 1);
    expect(
      checkStandard(
        through(() => reflectionOf(complex(55), 50)),
        'load',
        kit,
      ).sentence,
    ).toMatch(/26 dB at .* instead of at least 35 dB/);
  });

  test('averaging is complex: two opposite readings give none, not the mean of their size', () => {
    const one = sweepOf(freqHz, () => complex(0.5, 0));
    const other = sweepOf(freqHz, () => complex(-0.5, 0));
    const { sweep, scatter } = averageSweeps([one, other]);
    expect(magnitude(complex(sweep.re[0], sweep.im[0]))).toBe(0);
    expect(scatter).toBeCloseTo(Math.SQRT1_2, 12);
    expect(() => averageSweeps([one, sweepOf(grid(1e6, 2e6, 201), () => complex(0))])).toThrow(/different frequencies/);
  });
});

describe('the line taken off', () => {
  const line = { ...cableClass('pe5'), lengthM: 25 };
  test('there and back is nothing, also through 75 Ω', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 900, noNaN: true }),
        fc.double({ min: -500, max: 500, noNaN: true }),
        (r, x) => {
          const sweep = sweepOf(grid(3e6, 30e6, 7), () => reflectionOf(complex(r, x), 50));
          const odd = { ...line, impedanceOhm: 75 };
          expect(worst(takeLineOff(throughLine(sweep, odd), odd).sweep, sweep)).toBeLessThan(1e-9);
        },
      ),
      { numRuns: 50, seed: 3 },
    );
  });
  test('SWR 2.0 through 1.2 dB is 2.57 at the antenna', () => {
    // worked by hand: |Γ| = 1/3 · 10^0.12 = 0.4394, SWR 2.57
    const { sweep } = takeLineOff(
      sweepOf(grid(10e6, 11e6, 2), () => complex(1 / 3)),
      { ...line, k1: 0, k2: 0.48, lengthM: 25 },
    );
    const size = Math.hypot(sweep.re[0], sweep.im[0]);
    expect((1 + size) / (1 - size)).toBeCloseTo(2.57, 2);
  });
  test('says when it cannot be trusted', () => {
    const poor = takeLineOff(
      sweepOf(grid(400e6, 440e6, 5), () => complex(0.2)),
      { ...line, lengthM: 60 },
    );
    expect(poor.unphysical).toBe(5);
    expect(poor.doubts.join(' ')).toMatch(/Measure at the feed.*reflect more than they receive/);
  });
});

describe('distance to a fault', () => {
  const line = { ...cableClass('pe10'), lengthM: 31.4 };
  test('an open end 31.4 m down a lossy line is found there, whole', () => {
    const plot = distanceToFault(
      throughLine(
        sweepOf(grid(5e6, 305e6, 601), () => complex(1)),
        line,
      ),
      line,
      31.4,
    );
    expect(plot.echoes).toHaveLength(1);
    expect(plot.echoes[0].distanceM).toBeGreaterThan(31.25);
    expect(plot.echoes[0].distanceM).toBeLessThan(31.55);
    expect(plot.echoes[0].reflection).toBeGreaterThan(0.9);
    // VF·c/(2·span) and VF·c/(2·step)
    expect(plot.resolutionM).toBeCloseTo((0.66 * SPEED_OF_LIGHT_M_PER_S) / 600e6, 6);
    expect(plot.reachM).toBeCloseTo((0.66 * SPEED_OF_LIGHT_M_PER_S) / 1e6, 6);
    expect(plot.remarks).toEqual([]);
  });
  test('two echoes: a bad plug in the middle of the line and its end', () => {
    const turn = (f: number, m: number): Complex => fromPolar(1, (-720 * f * m) / (0.66 * SPEED_OF_LIGHT_M_PER_S));
    const sweep = sweepOf(grid(5e6, 305e6, 601), (f) =>
      add(multiply(complex(0.2), turn(f, 12)), multiply(complex(0.7), turn(f, 30))),
    );
    const places = distanceToFault(sweep, { ...line, k1: 0, k2: 0 })
      .echoes.map((echo) => echo.distanceM)
      .sort((a, b) => a - b);
    expect(places).toHaveLength(2);
    expect(Math.abs(places[0] - 12)).toBeLessThan(0.1);
    expect(Math.abs(places[1] - 30)).toBeLessThan(0.1);
  });
  test('a line longer than the sweep reaches is remarked; uneven points are refused', () => {
    const few = throughLine(
      sweepOf(grid(5e6, 305e6, 61), () => complex(1)),
      line,
    );
    expect(distanceToFault(few, line, 31.4).remarks.join(' ')).toMatch(/echoes from farther fold back/);
    const uneven = { ...few, freqHz: few.freqHz.map((f, i) => f + (i === 5 ? 1e6 : 0)) };
    expect(() => distanceToFault(uneven, line)).toThrow(/not evenly spaced/);
  });
  test('the transform is the one of its definition', () => {
    const n = 16;
    const re = Float64Array.from({ length: n }, (_, i) => Math.sin(i * i));
    const im = Float64Array.from({ length: n }, (_, i) => Math.cos(3 * i));
    const direct = Array.from({ length: n }, (_, t) =>
      re.reduce(
        (sum, value, k) =>
          sum + (value * Math.cos((2 * Math.PI * k * t) / n) - im[k] * Math.sin((2 * Math.PI * k * t) / n)) / n,
        0,
      ),
    );
    inverseFourierInPlace(re, im);
    direct.forEach((value, i) => expect(re[i]).toBeCloseTo(value, 12));
    expect(() => inverseFourierInPlace(new Float64Array(12), new Float64Array(12))).toThrow(/power of two/);
  });
});

describe('as-built fit', () => {
  const design = startDesign('half-wave-dipole', 9.65e6);
  const ground = groundClass('average').ground;
  const line = { ...cableClass('pe5'), lengthM: 15 };
  /** What would be measured with wires longer by a factor and hung higher, through the line, with a velocity factor of its own. */
  const measured = (factor: number, raisedM: number, velocityFactor = line.velocityFactor): SweepData => {
    const model = wireModel(design, ground);
    const moved = ([x, y, z]: Point): Point => [x * factor, y * factor, z + raisedM];
    const built = {
      ...model,
      wires: model.wires.map((wire) => ({ ...wire, from: moved(wire.from), to: moved(wire.to) })),
    };
    const z = finish(sweepModel(built, { lowHz: 8.6e6, highHz: 10.6e6, points: 101 }));
    const atFeed = sweepOf(z.freqHz, (f) => {
      const i = z.freqHz.indexOf(f);
      return reflectionOf(complex(z.resistance[i], z.reactance[i]), 50);
    });
    return throughLine(atFeed, { ...line, velocityFactor });
  };
  test('wires 2 % too long are named as that, with an interval that holds the truth', () => {
    const { fits, before, sentence } = finish(fitAsBuilt({ design, ground, line, sweep: measured(1.02, 0) }));
    const [best] = fits;
    expect(before).toBeGreaterThan(0.05);
    expect(best.left).toBeLessThan(0.003);
    const length = best.values.find(({ id }) => id === 'length');
    expect(length?.low).toBeLessThan(1.02);
    expect(length?.high).toBeGreaterThan(1.02);
    expect((length?.high ?? 0) - (length?.low ?? 0)).toBeLessThan(0.01);
    expect(sentence).toMatch(/length of the wires/);
  });
  test('another velocity factor is not taken for another length', () => {
    const [best] = finish(fitAsBuilt({ design, ground, line, sweep: measured(1, 0, 0.7) })).fits;
    expect(best.values[0].id).toBe('velocity');
    expect(best.values[0].value * line.velocityFactor).toBeCloseTo(0.7, 2);
  });
  test('as drafted is told as that; too few points are refused', () => {
    expect(finish(fitAsBuilt({ design, ground, line, sweep: measured(1, 0) })).sentence).toBe(
      'Model and measurement agree as drafted.',
    );
    const few = sweepOf(grid(9e6, 10e6, 5), () => complex(0.1));
    expect(() => finish(fitAsBuilt({ design, ground, sweep: few }))).toThrow(/at least 13 points/);
  });
});

describe('slips of the keyboard', () => {
  test.each([
    [65, [0.065, 0.064], 'thousandfold', 0.065], // millimetres typed as metres
    [0.65, [0.065, 0.064], 'tenfold', 0.065],
    [9650, [9.65e6], 'thousandfold', 9.65e6],
  ])('%s beside %j is asked back', (value, neighbours, kind, meant) => {
    const slip = slipOf(value, neighbours);
    expect(slip?.kind).toBe(kind);
    expect((slip?.meant ?? 0) / meant).toBeCloseTo(1, 6);
  });
  test('what differs by less than four, and what has no neighbours, is left alone', () => {
    expect(slipOf(0.13, [0.065])).toBeUndefined();
    expect(slipOf(0.2, [0.065])).toBeUndefined();
    expect(slipOf(5, [])).toBeUndefined();
    expect(slipOf(0.65, [0.0065])).toMatchObject({ kind: 'hundredfold' });
    // medium wave typed in kHz for MHz; a band that touches a listed one needs no question
    const listed = [{ lowHz: 526.5e3, highHz: 1606.5e3 }];
    expect(bandSlipOf(0.53e3, 1.6e3, listed)).toBe(listed[0]);
    expect(bandSlipOf(0.6e6, 1.2e6, listed)).toBeUndefined();
    // "Did you mean 1.089 GHz" was asked for 10.4 MHz, "430 to 440 MHz" for 4.2: the digits do not fit
    const narrow = [
      { lowHz: 1.089e9, highHz: 1.091e9 },
      { lowHz: 430e6, highHz: 440e6 },
    ];
    expect(bandSlipOf(10.4e6, 10.41e6, narrow)).toBeUndefined();
    expect(bandSlipOf(4.2e6, 4.3e6, narrow)).toBeUndefined();
    expect(bandSlipOf(4.3e6, 4.4e6, narrow)).toBe(narrow[1]);
    // a marker typed a power of ten off the sweep it is for
    expect(spanSlipOf(1.4e6, [{ low: 3e6, high: 30e6 }])).toBe(14e6);
    expect(spanSlipOf(7e6, [{ low: 3e6, high: 30e6 }])).toBeUndefined();
    expect(spanSlipOf(50e6, [{ low: 8e6, high: 9e6 }])).toBeUndefined();
  });
  test('a level without its minus sign', () => {
    expect(levelSlipOf(73, [-75, -71])).toEqual({ meant: -73, kind: 'sign' });
    expect(levelSlipOf(-7.3, [-75, -71])).toEqual({ meant: -73, kind: 'tenfold' });
    expect(levelSlipOf(-95, [-75, -71])).toBeUndefined();
    expect(levelSlipOf(3, [2, 4])).toBeUndefined();
  });
});

describe('a coil by noise: the verdict went on asking for a spectrum after one was fitted', () => {
  const both = { on: true, off: true };
  const of = (centreHz: number, targetHz?: number) =>
    coilVerdict({ recorded: both, peak: { centreHz, q: 52 }, ...(targetHz === undefined ? {} : { targetHz }) });
  test.each([
    [{ on: false, off: false }, 'not measured', /source on, and one with it off/],
    [{ on: true, off: false }, 'half measured', /source off, too/],
    [{ on: false, off: true }, 'half measured', /source on, too/],
    [both, 'unclear', /Wait/],
  ] as const)('recorded %j: %s', (recorded, state, next) => {
    const found = coilVerdict({ recorded });
    expect(found.state).toBe(state);
    expect(found.next).toMatch(next);
  });
  test('above, below, on the target within 0.4 %, and without one', () => {
    expect(of(66.6e3, 61e3)).toMatchObject({ state: 'above', next: expect.stringMatching(/^Add capacitance/) });
    expect(of(66.6e3, 61e3).sentence.replaceAll('\u00a0', ' ')).toMatch(/5\.60 kHz above its target of 61\.00 kHz/);
    expect(of(60e3, 61e3)).toMatchObject({ state: 'below', next: expect.stringMatching(/^Take capacitance off/) });
    expect(of(61.2e3, 61e3).state).toBe('on target');
    expect(of(61.3e3, 61e3).state).toBe('above');
    expect(of(61e3).state).toBe('no target');
  });
  test('what could not be fitted is told in the words of the fit', () => {
    expect(coilVerdict({ recorded: both, fault: 'No peak stands out.' })).toMatchObject({
      ...{ state: 'unclear', sentence: 'No peak stands out.' },
    });
  });
});

describe('markers that set themselves, and dips that move', () => {
  /** Series resonance of 42 Ω, Q 11. */
  const dipAt = (f0: number): SweepData =>
    sweepOf(grid(13e6, 16.5e6, 351), (f) => reflectionOf(complex(42, 42 * 11 * (f / f0 - f0 / f)), 50));
  const marksOf = (bands: Parameters<typeof autoMarkers>[2], targetHz: number) => {
    const sweep = dipAt(14.18e6);
    return autoMarkers(sweep, findResonances(sweep), bands, targetHz);
  };
  const bands = [
    { name: 'wide', lowHz: 13.5e6, highHz: 16e6 },
    { name: '20 m', lowHz: 14e6, highHz: 14.35e6 },
    { name: 'outside', lowHz: 28e6, highHz: 29e6 },
  ];
  test('at the dip, and at edges and middle of the narrowest band that holds the target', () => {
    const marks = marksOf(bands, 14.1e6);
    expect(marks.map(({ name }) => name)).toEqual(['dip', '20 m, lower edge', '20 m, middle', '20 m, upper edge']);
    expect(Math.abs(marks[0].freqHz - 14.18e6)).toBeLessThan(1e4);
  });
  test('what lies outside the sweep gets none; the target itself has its own', () => {
    expect(marksOf([{ name: 'top', lowHz: 16e6, highHz: 18e6 }], 16.2e6).map(({ name }) => name)).toEqual([
      'dip',
      'top, lower edge',
    ]);
    expect(marksOf(bands, 14.175e6).map(({ name }) => name)).not.toContain('20 m, middle');
  });
  test('1.42 MHz up is told as that; dips of different wires are not compared', () => {
    const shift = dipShiftHz(findResonances(dipAt(14.18e6)), findResonances(dipAt(15.6e6)));
    expect(Math.abs((shift ?? 0) - 1.42e6)).toBeLessThan(2e3);
    expect(shiftText(1.42e6)).toBe('1.42 MHz up');
    expect(shiftText(-12e3)).toBe('12.0 kHz down');
    expect(shiftText(0)).toBe('no shift');
    const seven = sweepOf(grid(6e6, 8e6, 201), (f) => reflectionOf(complex(42, 462 * (f / 7.1e6 - 7.1e6 / f)), 50));
    expect(dipShiftHz(findResonances(seven), findResonances(dipAt(14.18e6)))).toBeUndefined();
  });
});

describe('wires that pull each other', () => {
  const measured = [
    [-960e3, -100e3],
    [-240e3, -2066e3],
  ];
  test('after a measured cut the sensitivities reproduce it, and along other directions nothing changes (Broyden)', () => {
    const change = [-0.05, 0];
    const learned = learnFromTrim(measured, change, [50e3, 15e3]);
    const predict = (x: readonly number[]) => learned.map((row) => row[0] * x[0] + row[1] * x[1]);
    expect(predict(change)[0]).toBeCloseTo(50e3, 6);
    expect(predict(change)[1]).toBeCloseTo(15e3, 6);
    expect(learned.map((row) => row[1])).toEqual(measured.map((row) => row[1]));
    expect(() => learnFromTrim(measured, [0, 0], [1, 1])).toThrow(/No wire was changed/);
    expect(() => learnFromTrim(measured, [1], [1, 1])).toThrow(/One change per wire/);
  });
  test('the model’s sensitivities of a fan dipole: its own wire by about −f/l, the other far less, and both cuts together as they say', () => {
    const design = startDesign('fan-dipole', 7.1e6);
    const free = groundClass('free').ground;
    const { dipsHz, jacobian } = finish(wireSensitivities(design, free));
    const arms = dimensionsOf(antennaKind('fan-dipole').parameters, design);
    // a wire that is scaled scales its frequency: f·l constant (Balanis); ends and companions change it by some percent
    expect(Math.abs(jacobian[0][0] / (-dipsHz[0] / arms.arm1M) - 1)).toBeLessThan(0.1);
    expect(Math.abs(jacobian[1][1] / (-dipsHz[1] / arms.arm2M) - 1)).toBeLessThan(0.1);
    expect(Math.abs(jacobian[0][1])).toBeLessThan(0.05 * Math.abs(jacobian[1][1]));
    const both = { ...design, dimensions: { arm1M: arms.arm1M - 0.1, arm2M: arms.arm2M - 0.05 } };
    const after = finish(wireSensitivities(both, free)).dipsHz;
    after.forEach((dip, i) => {
      const predicted = -0.1 * jacobian[i][0] - 0.05 * jacobian[i][1];
      expect(Math.abs((dip - dipsHz[i]) / predicted - 1)).toBeLessThan(0.05);
    });
    expect(trimmedWires(startDesign('half-wave-dipole', 7e6))).toBeUndefined();
  });
  test('two cuts in a row that made it worse are told', () => {
    const at = (...freqs: number[]) => freqs.map((freqHz, i) => ({ lengthM: 7 - i / 10, freqHz }));
    expect(gettingWorse(at(9.5e6, 9.45e6, 9.4e6), 9.65e6)).toBe(true);
    expect(gettingWorse(at(9.5e6, 9.45e6, 9.6e6), 9.65e6)).toBe(false);
    expect(gettingWorse(at(9.5e6, 9.45e6), 9.65e6)).toBe(false);
  });
});
