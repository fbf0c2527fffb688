import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { quarterWaveLengths } from '../antenna/quarter-wave';
import { besselJ0, besselJ1 } from '../numeric/bessel';
import { magnitude } from '../numeric/complex';
import { findPeak, gainRatio, lostShare, openCircuitVoltage, radiatedShare } from './far-field';
import { meshOf } from './mesh';
import { GeometryError, type Ground, type Point, type Wire, type WireModel } from './model';
import { nearFieldPerRootWatt } from './near-field';
import { findResonance } from './resonance';
import { inputImpedance, type Solution, solveAt } from './solve';
import { sommerfeldIntegrals } from './sommerfeld';
import { wireSurfaceImpedance } from './wire-loss';
import { powerDb } from '../units/decibel';
import { wavelengthM } from '../units/wavelength';

const FREE: Ground = { type: 'free' };
const AVERAGE: Ground = { type: 'real', relPermittivity: 13, conductivitySPerM: 0.005 };
const wire = (from: Point, to: Point, radiusM: number, more: Partial<Wire> = {}): Wire => ({
  from,
  to,
  radiusM,
  ...more,
});
const model = (wires: readonly Wire[], ground: Ground = FREE, more: Partial<WireModel> = {}): WireModel => ({
  wires,
  ports: [{ wire: 0, position: 0.5 }],
  loads: [],
  ground,
  ...more,
});
const solved = (one: WireModel, freqHz: number, density = 1): Solution =>
  solveAt(one, meshOf(one, freqHz, density), freqHz);
const F = 14.9896229e6; // λ = 20 m

describe('special functions', () => {
  // J_n(x) = (1/π) ∫₀^π cos(nt − x sin t) dt, by the trapezium rule, which is exact to rounding for periodic integrands.
  test.each([0, 0.3, 2.9, 3.1, 7.5, 40])('Bessel functions at %d', (x) => {
    const integral = (n: number): number =>
      Array.from({ length: 400 }, (_, i) =>
        Math.cos((n * ((i + 0.5) * Math.PI)) / 400 - x * Math.sin(((i + 0.5) * Math.PI) / 400)),
      ).reduce((a, b) => a + b) / 400;
    expect(Math.abs(besselJ0(x) - integral(0))).toBeLessThan(1e-7);
    expect(Math.abs(besselJ1(x) - integral(1))).toBeLessThan(1e-7);
  });
  // Direct current resistance 1/(πa²σ) at low frequency; skin-effect resistance 1/(2πaδσ) at high (Ramo, Whinnery & Van Duzer).
  test('a copper wire: from direct current to skin effect', () => {
    expect(wireSurfaceImpedance(0.001, 5.8e7, 1).re / (1 / (Math.PI * 1e-6 * 5.8e7))).toBeCloseTo(1, 5);
    const depth = 1 / Math.sqrt(Math.PI * 1e7 * 4e-7 * Math.PI * 5.8e7);
    expect(wireSurfaceImpedance(0.001, 5.8e7, 1e7).re * 2 * Math.PI * 0.001 * depth * 5.8e7).toBeCloseTo(1, 1);
    // the two forms meet where one takes over from the other
    const at = (40 * depth * 0.999) / 1; // radius of 39.96 skin depths
    expect(wireSurfaceImpedance(at, 5.8e7, 1e7).re / wireSurfaceImpedance(at * 1.002, 5.8e7, 1e7).re).toBeCloseTo(
      1.002,
      3,
    );
  });
  // Perfect conductor as the limit of large conductivity: S₁ → −e^{−jR}/R.
  test('ground integrals tend to the image of perfect ground', () => {
    const s = new Float64Array(8);
    sommerfeldIntegrals({ re: 1, im: -1e8 })(s, 1, 1);
    const r = Math.SQRT2;
    expect(Math.hypot(s[0] + Math.cos(r) / r, s[1] - Math.sin(r) / r)).toBeLessThan(3e-4);
  });
  // Two routes to the same integral: with h just above and just below 0.35ρ the tail is summed in different ways.
  test('both ways to sum the tail agree', () => {
    const at = sommerfeldIntegrals({ re: 13, im: -12 });
    const [a, b] = [new Float64Array(8), new Float64Array(8)];
    at(a, 1, 0.35 * (1 + 1e-9));
    at(b, 1, 0.35 * (1 - 1e-9));
    a.forEach((value, i) => expect(Math.abs(value - b[i])).toBeLessThan(2e-6));
  });
});

describe('published values', () => {
  // Balanis, Antenna Theory ch. 8: a half-wave dipole has 73 + j42.5 Ω for a vanishing radius; one segment a side is that one-mode current.
  test('half-wave dipole with a single sinusoid', () => {
    const thin = model([wire([0, 0, -5], [0, 0, 0], 1e-6), wire([0, 0, 0], [0, 0, 5], 1e-6)], FREE, {
      ports: [{ wire: 1, position: 0 }],
    });
    const z = inputImpedance(solveAt(thin, meshOf(thin, F / 40), F));
    expect(Math.abs(z.re - 73.1)).toBeLessThan(0.3);
    expect(Math.abs(z.im - 42.5)).toBeLessThan(0.5);
  });
  // Moment-method literature values for a = 10⁻⁴ λ: about 80 + j45 Ω (converged), 2.15 dBi.
  test('half-wave dipole, converged', () => {
    const s = solved(model([wire([0, 0, -5], [0, 0, 5], 0.002)]), F, 2);
    expect(Math.abs(inputImpedance(s).re - 80.3)).toBeLessThan(1);
    expect(Math.abs(inputImpedance(s).im - 45.2)).toBeLessThan(1.5);
    expect(powerDb(gainRatio(s)(0, 0))).toBeCloseTo(2.15, 1);
  });
  // Carter, Proc. IRE 20 (1932): parallel half-wave dipoles λ/4 apart, one-mode currents: 40.79 − j28.35 Ω.
  test('mutual impedance of parallel dipoles', () => {
    const pair = model(
      [0, 5].flatMap((x) => [wire([x, 0, -5], [x, 0, 0], 1e-6), wire([x, 0, 0], [x, 0, 5], 1e-6)]),
      FREE,
      {
        ports: [
          { wire: 1, position: 0 },
          { wire: 3, position: 0 },
        ],
      },
    );
    const { impedance } = solveAt(pair, meshOf(pair, F / 40), F);
    expect(Math.abs(impedance[0][1].re - 40.79)).toBeLessThan(0.2);
    expect(Math.abs(impedance[0][1].im + 28.35)).toBeLessThan(0.2);
  });
  // Quarter-wave monopole on perfect ground: 36.5 + j21.25 Ω (half the dipole) and 5.16 dBi (Balanis ch. 4).
  test('quarter-wave monopole', () => {
    const mast = model([wire([0, 0, 0], [0, 0, 5], 1e-6)], { type: 'perfect' }, { ports: [{ wire: 0, position: 0 }] });
    const s = solveAt(mast, meshOf(mast, F / 40), F);
    expect(Math.abs(inputImpedance(s).re - 36.5)).toBeLessThan(0.3);
    expect(Math.abs(inputImpedance(s).im - 21.25)).toBeLessThan(0.4);
    expect(powerDb(gainRatio(s)(0, 0))).toBeCloseTo(5.16, 1);
  });
  // Small loop of circumference 0.05 λ: R = 20π²(C/λ)⁴ = 1.234 mΩ (Balanis ch. 5); a 16-sided loop has slightly less area.
  test('small loop', () => {
    const radius = 1 / (2 * Math.PI);
    const corner = (i: number): Point => [
      radius * Math.cos((i * Math.PI) / 8),
      radius * Math.sin((i * Math.PI) / 8),
      0,
    ];
    const loop = model(Array.from({ length: 16 }, (_, i) => wire(corner(i), corner(i + 1), 1e-4)));
    const area = 0.5 * 16 * radius ** 2 * Math.sin(Math.PI / 8);
    const expected = 320 * Math.PI ** 4 * (area / 400) ** 2;
    expect(inputImpedance(solved(loop, F)).re / expected).toBeCloseTo(1, 1);
  });
  // A folded dipole of equal wires steps the impedance up by four (Balanis sec. 9.5).
  test('folded dipole: four times the dipole', () => {
    const [l, s] = [0.475 * 20, 0.1];
    const folded = model([
      wire([0, -l / 2, 0], [0, l / 2, 0], 0.001),
      wire([0, l / 2, 0], [0, l / 2, s], 0.001),
      wire([0, l / 2, s], [0, -l / 2, s], 0.001),
      wire([0, -l / 2, s], [0, -l / 2, 0], 0.001),
    ]);
    const plain = inputImpedance(solved(model([wire([0, -l / 2, 0], [0, l / 2, 0], 0.005)]), F));
    expect(inputImpedance(solved(folded, F)).re / plain.re).toBeGreaterThan(3.7);
    expect(inputImpedance(solved(folded, F)).re / plain.re).toBeLessThan(4.4);
  });
  // Viezbicke, NBS Technical Note 688 (1976), table 1: three elements on a 0.4 λ boom gain 7.1 dB over a dipole, five on 0.8 λ 9.2 dB.
  test.each([
    [0.4, [0.482, 0.47, 0.442], 9.25],
    [0.8, [0.482, 0.47, 0.428, 0.424, 0.428], 11.35],
  ] as const)('Yagi on a boom of %d λ', (boom, lengths, dbi) => {
    const spacing = lengths.length === 3 ? boom / 2 : 0.2;
    const yagi = model(
      lengths.map((length, i) => wire([20 * spacing * i, -10 * length, 0], [20 * spacing * i, 10 * length, 0], 0.085)),
      FREE,
      { ports: [{ wire: 1, position: 0.5 }] },
    );
    expect(Math.abs(powerDb(gainRatio(solved(yagi, F))(0, 0)) - dbi)).toBeLessThan(0.5);
  });
  // Image theory at a quarter wave over perfect ground: broadside at the zenith the field doubles, gain 2.15 + 6.02 − 10 log(R/R₀) dBi.
  test('dipole a quarter wave over perfect ground', () => {
    // one sinusoid on either side, so that the image cannot change the shape of the current
    const dipole = (ground: Ground): Solution => {
      const one = model([wire([0, -5, 5], [0, 0, 5], 1e-6), wire([0, 0, 5], [0, 5, 5], 1e-6)], ground, {
        ports: [{ wire: 1, position: 0 }],
      });
      return solveAt(one, meshOf(one, F / 40), F);
    };
    const s = dipole({ type: 'perfect' });
    const expected = 2.15 + 6.02 - powerDb(inputImpedance(s).re / inputImpedance(dipole(FREE)).re);
    expect(powerDb(gainRatio(s)(0, 90))).toBeCloseTo(expected, 1);
  });
  // Thin-wire values for two 49 cm arms of 4 mm wire: 145.7 / 147.7 / 150.7 MHz at 180 / 120 / 90°, ±1.5 %.
  test.each([
    [180, 145.7],
    [120, 147.7],
    [90, 150.7],
  ])('V of %d° resonates at %d MHz', (angle, mhz) => {
    const half = (angle * Math.PI) / 360;
    const arm = (side: number): Point => [0, side * 0.49 * Math.sin(half), -0.49 * Math.cos(half)];
    const v = model([wire(arm(-1), [0, 0, 0], 0.002), wire([0, 0, 0], arm(1), 0.002)], FREE, {
      ports: [{ wire: 1, position: 0 }],
    });
    const mesh = meshOf(v, 160e6, 2);
    const found = findResonance((freqHz) => inputImpedance(solveAt(v, mesh, freqHz)), 148e6);
    expect(Math.abs(found.freqHz / mhz / 1e6 - 1)).toBeLessThan(0.015);
  });
  // Field acceptance: 65 mm of 1.5 mm wire over four 73.2 mm radials at 45° resonates near 1030 MHz ± 2 %.
  test('ground plane at 1090 MHz', () => {
    const { radialM } = quarterWaveLengths(1090e6);
    const d = radialM * Math.SQRT1_2;
    const plane = model(
      [
        wire([0, 0, 0], [0, 0, 0.065], 0.00075),
        ...[0, 1, 2, 3].map((i) =>
          wire([0, 0, 0], [d * Math.cos((i * Math.PI) / 2), d * Math.sin((i * Math.PI) / 2), -d], 0.00075),
        ),
      ],
      FREE,
      { ports: [{ wire: 0, position: 0 }] },
    );
    const mesh = meshOf(plane, 1150e6, 2);
    const found = findResonance((freqHz) => inputImpedance(solveAt(plane, mesh, freqHz)), 1040e6);
    expect(Math.abs(found.freqHz / 1030e6 - 1)).toBeLessThan(0.02);
  });
});

describe('invariants', () => {
  const bent = (seed: number): WireModel => {
    const y = 4 + (seed % 3);
    return model(
      [wire([0, -y, 8], [0, 0, 9], 0.001), wire([0, 0, 9], [0, y, 7], 0.001), wire([2, -y, 8], [2.5, y, 8.5], 0.001)],
      FREE,
      {
        ports: [
          { wire: 1, position: 0 },
          { wire: 2, position: 0.5 },
        ],
      },
    );
  };
  test.each([FREE, { type: 'perfect' } as const, AVERAGE])('reciprocity over %j', (ground) => {
    const s = solved({ ...bent(1), ground }, F);
    const [[, a], [b]] = s.impedance;
    expect(magnitude({ re: a.re - b.re, im: a.im - b.im }) / magnitude(a)).toBeLessThan(1e-9);
  });
  test('a lossless antenna radiates what it accepts', () => {
    for (const ground of [FREE, { type: 'perfect' } as const])
      expect(radiatedShare(solved({ ...bent(2), ground }, F))).toBeCloseTo(1, 2);
  });
  test('conductor loss and radiation add up', () => {
    const thin = {
      ...bent(0),
      wires: bent(0).wires.map((one) => ({ ...one, radiusM: 1e-4, conductivitySPerM: 5.8e7 })),
    };
    const s = solved(thin, F);
    expect(lostShare(s)).toBeGreaterThan(0.02);
    expect(radiatedShare(s) + lostShare(s)).toBeCloseTo(1, 2);
  });
  test('real ground swallows some power, never gives any', () => {
    const share = radiatedShare(solved({ ...bent(1), ground: AVERAGE }, F));
    expect(share).toBeGreaterThan(0.4);
    expect(share).toBeLessThan(1);
  });
  // Receiving pattern = transmitting pattern: a short probe far away couples as the radiation vector says.
  test('open-circuit voltage agrees with coupling to a distant short dipole', () => {
    const far = 2000;
    const two = model([wire([0, -5, 0], [0, 5, 0], 0.001), wire([far, -0.05, 0], [far, 0.05, 0], 0.001)], FREE, {
      ports: [
        { wire: 0, position: 0.5 },
        { wire: 1, position: 0.5 },
      ],
    });
    const s = solved(two, F);
    // the short dipole's field at distance r with moment I·l/2: E = η k I (l/2) / (4πr)
    const k = (2 * Math.PI) / wavelengthM(F);
    const field = (376.73 * k * 0.05) / (4 * Math.PI * far);
    const voc = magnitude(openCircuitVoltage(s, { azimuthDeg: 0, elevationDeg: 0, polarisation: [0, 1, 0] }));
    expect(magnitude(s.impedance[0][1]) / field / voc).toBeCloseTo(1, 1);
  });
  // Far away |E| = √(60 P G)/r (peak) and |E|/|H| = η.
  test('near field runs into the far field', () => {
    const s = solved(model([wire([0, 0, -5], [0, 0, 5], 0.001)]), F);
    const { e, h } = nearFieldPerRootWatt(s, [400, 0, 0]);
    expect(e / (Math.sqrt(60 * gainRatio(s)(0, 0)) / 400)).toBeCloseTo(1, 2);
    expect(e / h).toBeCloseTo(376.7, 0);
  });
  test.each([
    ['perfect', { type: 'perfect' }, 2e-3],
    ['real', AVERAGE, 0.05],
  ] as const)('near field over %s ground agrees with the far field at the zenith', (_, ground, within) => {
    const s = solved(model([wire([0, -5, 6], [0, 5, 6], 0.001)], ground), F);
    const { e } = nearFieldPerRootWatt(s, [0, 0, 406]);
    // distance counts from between antenna and image: both rays are within 1.5 % of 400 m
    expect(Math.abs(e / (Math.sqrt(60 * gainRatio(s)(0, 90)) / 400) - 1)).toBeLessThan(0.03 + within);
  });
  test('a finer mesh changes little', () => {
    for (const ground of [FREE, AVERAGE]) {
      const [coarse, fine] = [1, 2.5].map((density) => inputImpedance(solved({ ...bent(1), ground }, F, density)));
      expect(magnitude({ re: coarse.re - fine.re, im: coarse.im - fine.im }) / magnitude(fine)).toBeLessThan(0.025);
    }
  });
  test('where wires are cut makes no difference (any split, seeded)', () => {
    const whole = inputImpedance(
      solved(
        model([wire([0, -4.8, 0], [0, 0, 0], 0.001), wire([0, 0, 0], [0, 4.8, 0], 0.001)], FREE, {
          ports: [{ wire: 1, position: 0 }],
        }),
        F,
      ),
    );
    fc.assert(
      fc.property(fc.double({ min: 0.2, max: 0.8, noNaN: true }), (share) => {
        const y = 4.8 * share;
        const cut = model(
          [
            wire([0, -4.8, 0], [0, 0, 0], 0.001),
            wire([0, 0, 0], [0, y, 0], 0.001),
            wire([0, y, 0], [0, 4.8, 0], 0.001),
          ],
          FREE,
          { ports: [{ wire: 1, position: 0 }] },
        );
        const z = inputImpedance(solved(cut, F));
        return Math.hypot(z.re - whole.re, z.im - whole.im) < 1;
      }),
      { seed: 7, numRuns: 12 },
    );
  });
});

describe('patterns', () => {
  // Free-space lobes of an antenna h over ground are spaced by λ/2h in the sine of the elevation: at 6 m and 868 MHz 1.65° for the first.
  test('lobes at 17 wavelengths of height are not missed', () => {
    const high = model([wire([0, 0, 5.92], [0, 0, 6.08], 0.001)], AVERAGE);
    const s = solved(high, 868e6);
    const peak = findPeak(s, 0, [0]);
    const gain = gainRatio(s);
    const coarse = Math.max(...Array.from({ length: 19 }, (_, i) => powerDb(gain(0, 5 * i))));
    const brute = Math.max(...Array.from({ length: 9001 }, (_, i) => powerDb(gain(0, i / 100))));
    expect(Math.abs(peak.gainDbi - brute)).toBeLessThan(0.01);
    expect(brute - coarse).toBeGreaterThan(1);
  });
});

describe('bad geometry gets a sentence that names the wire', () => {
  const arm = wire([0, 0, 5], [0, 5, 5], 0.001, { name: 'arm' });
  const cases: readonly (readonly [string, readonly Wire[], Partial<WireModel>, RegExp])[] = [
    ['no length', [wire([1, 1, 1], [1, 1, 1], 0.001, { name: 'stub' })], {}, /stub has no length/],
    [
      'crossing',
      [arm, wire([-1, 2, 5], [1, 2, 5], 0.001, { name: 'bar' })],
      {},
      /arm and bar cross without a junction/,
    ],
    [
      'under ground',
      [wire([0, 0, -1], [0, 5, 1], 0.001)],
      { ground: AVERAGE },
      /wire 1 reaches 1.00 m under the ground/,
    ],
    ['into real ground', [wire([0, 0, 0], [0, 0, 5], 0.001)], { ground: AVERAGE }, /wire 1 ends in real ground/],
    ['too thick', [wire([0, 0, 0], [0, 0.1, 0], 0.05, { name: 'can' })], {}, /can is too thick for its length/],
    ['open port', [arm], { ports: [{ wire: 0, position: 1 }] }, /Port 1 sits at the open end of arm/],
    [
      'one in the other',
      [arm, wire([0, 2, 5], [0, 9, 5], 0.001, { name: 'twin' })],
      {},
      /arm and twin lie in each other/,
    ],
    ['no port', [arm], { ports: [] }, /fed nowhere/],
    ['no number', [wire([0, NaN, 0], [0, 5, 0], 0.001)], {}, /wire 1 has an end that is not a number/],
  ];
  test.each(cases)('%s', (_, wires, more, sentence) => {
    const bad = model(wires, FREE, more);
    expect(() => meshOf(bad, F)).toThrow(GeometryError);
    expect(() => meshOf(bad, F)).toThrow(sentence);
  });
  test('an end on the side of another wire is a junction', () => {
    const tee = model([arm, wire([0, 2.5, 5], [0, 2.5, 9], 0.001)], FREE, { ports: [{ wire: 1, position: 0 }] });
    expect(inputImpedance(solved(tee, F)).re).toBeGreaterThan(0);
  });
});
