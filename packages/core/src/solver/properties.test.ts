import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { magnitude } from '../numeric/complex';
import { gainRatio, lostShare, openCircuitVoltage, radiatedShare } from './far-field';
import { meshOf } from './mesh';
import type { Ground, Point, Wire, WireModel } from './model';
import { inputImpedance, type Solution, solveAt } from './solve';
import { powerDb } from '../units/decibel';

const F = 14.9896229e6; // λ = 20 m
const RUNS = { seed: 20260310, numRuns: 14 };
const GROUNDS: readonly Ground[] = [
  { type: 'free' },
  { type: 'perfect' },
  { type: 'real', relPermittivity: 13, conductivitySPerM: 0.005 },
];

const span = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const ground = fc.constantFrom(...GROUNDS);

/** Two bent dipoles well clear of each other and of the ground. */
const pairOfAntennas = fc
  .record({
    arm1: span(2, 6),
    arm2: span(2, 6),
    droop: span(-1.5, 1.5),
    apart: span(3, 12),
    height: span(4, 14),
    radius: span(0.0005, 0.01),
    ground,
  })
  .map(({ arm1, arm2, droop, apart, height, radius, ground: below }): WireModel => {
    const dipole = (x: number, arm: number, bend: number): Wire[] => [
      { from: [x, -arm, height + bend], to: [x, 0, height], radiusM: radius },
      { from: [x, 0, height], to: [x, arm, height + 0.5 * bend], radiusM: radius },
    ];
    return {
      wires: [...dipole(0, arm1, droop), ...dipole(apart, arm2, -droop)],
      ports: [
        { wire: 1, position: 0 },
        { wire: 3, position: 0 },
      ],
      loads: [],
      ground: below,
    };
  });

const solved = (model: WireModel, density = 1, freqHz = F): Solution =>
  solveAt(model, meshOf(model, freqHz, density), freqHz);

const moved = (model: WireModel, by: (point: Point) => Point): WireModel => ({
  ...model,
  wires: model.wires.map((wire) => ({ ...wire, from: by(wire.from), to: by(wire.to) })),
});

describe('whatever the wires', () => {
  test('what one hears of the other is heard the other way round', () => {
    fc.assert(
      fc.property(pairOfAntennas, (model) => {
        const { impedance } = solved(model);
        const [a, b] = [impedance[0][1], impedance[1][0]];
        return magnitude({ re: a.re - b.re, im: a.im - b.im }) <= 1e-8 * Math.max(1e-6, magnitude(a));
      }),
      RUNS,
    );
  });
  test('a lossless antenna in free space or over perfect ground radiates what it accepts, within 1 %', () => {
    fc.assert(
      fc.property(pairOfAntennas, (model) => {
        fc.pre(model.ground.type !== 'real');
        return Math.abs(radiatedShare(solved(model)) - 1) < 0.01;
      }),
      RUNS,
    );
  });
  test('real ground takes power and never gives any', () => {
    fc.assert(
      fc.property(pairOfAntennas, (model) => {
        const share = radiatedShare(solved({ ...model, ground: GROUNDS[2] }));
        return share > 0 && share < 1.005;
      }),
      RUNS,
    );
  });
  test('lossy wire: far field and heat add up to what is accepted', () => {
    fc.assert(
      fc.property(pairOfAntennas, (model) => {
        const lossy = {
          ...model,
          ground: GROUNDS[0],
          wires: model.wires.map((wire) => ({ ...wire, conductivitySPerM: 2e6 })),
        };
        const s = solved(lossy);
        return Math.abs(radiatedShare(s) + lostShare(s) - 1) < 0.01;
      }),
      RUNS,
    );
  });
  test('a finer mesh moves the reflection coefficient by little', () => {
    fc.assert(
      fc.property(pairOfAntennas, (model) => {
        const gamma = (density: number) => {
          const z = inputImpedance(solved(model, density));
          const den = (z.re + 50) ** 2 + z.im ** 2;
          return [(z.re ** 2 - 2500 + z.im ** 2) / den, (100 * z.im) / den];
        };
        const [a, b] = [gamma(1), gamma(2)];
        return Math.hypot(a[0] - b[0], a[1] - b[1]) < 0.04;
      }),
      RUNS,
    );
  });
  test('turning and shifting along the ground changes no impedance', () => {
    fc.assert(
      fc.property(pairOfAntennas, span(0, 6.28), span(-300, 300), (model, turn, shift) => {
        const by = ([x, y, z]: Point): Point => [
          x * Math.cos(turn) - y * Math.sin(turn) + shift,
          x * Math.sin(turn) + y * Math.cos(turn) - shift / 2,
          z,
        ];
        const [a, b] = [inputImpedance(solved(model)), inputImpedance(solved(moved(model, by)))];
        return Math.hypot(a.re - b.re, a.im - b.im) < 1e-5 * magnitude(a);
      }),
      RUNS,
    );
  });
  test('sizes and frequency scale together when nothing is lossy', () => {
    fc.assert(
      fc.property(pairOfAntennas, span(0.1, 8), (model, scale) => {
        fc.pre(model.ground.type !== 'real');
        const large = moved(model, ([x, y, z]) => [x * scale, y * scale, z * scale]);
        const wires = large.wires.map((wire) => ({ ...wire, radiusM: wire.radiusM * scale }));
        const [a, b] = [inputImpedance(solved(model)), inputImpedance(solved({ ...large, wires }, 1, F / scale))];
        return Math.hypot(a.re - b.re, a.im - b.im) < 1e-6 * magnitude(a);
      }),
      RUNS,
    );
  });
  // Effective area and gain: |V_oc|²/(8 R) with 1 V/m peak is the available power S·Gλ²/4π, S = 1/(2·376.73) W/m².
  test('what it receives follows its gain', () => {
    fc.assert(
      fc.property(pairOfAntennas, span(0, 360), span(5, 85), (model, azimuthDeg, elevationDeg) => {
        const s = solved(model);
        const wave = (polarisation: Point): number =>
          magnitude(openCircuitVoltage(s, { azimuthDeg, elevationDeg, polarisation })) ** 2;
        const [az, el] = [(azimuthDeg * Math.PI) / 180, (elevationDeg * Math.PI) / 180];
        const theta = wave([Math.sin(el) * Math.cos(az), Math.sin(el) * Math.sin(az), -Math.cos(el)]);
        const phi = wave([-Math.sin(az), Math.cos(az), 0]);
        const received = (theta + phi) / (8 * inputImpedance(s).re);
        const expected = (gainRatio(s)(azimuthDeg, elevationDeg) * 400) / (4 * Math.PI) / (2 * 376.7303);
        return Math.abs(powerDb(received / expected)) < 1e-4;
      }),
      RUNS,
    );
  });
});

describe('mesh', () => {
  const line = (from: Point, to: Point): Wire => ({ from, to, radiusM: 0.001 });
  const star = (arms: number): WireModel => ({
    wires: Array.from({ length: arms }, (_, i) =>
      line([0, 0, 5], [Math.cos((2 * Math.PI * i) / arms), Math.sin((2 * Math.PI * i) / arms), 5]),
    ),
    ports: [{ wire: 0, position: 0 }],
    loads: [],
    ground: { type: 'free' },
  });
  // n segments in each of d arms: d(n − 1) inner nodes and d − 1 functions at the hub.
  test.each([2, 3, 5, 9])('a star of %d arms has the functions that Kirchhoff leaves', (arms) => {
    const mesh = meshOf(star(arms), 100e6);
    const each = mesh.segments / arms;
    expect(mesh.unknowns).toBe(arms * (each - 1) + arms - 1);
  });
  test('over perfect ground a wire that ends on it has one more function', () => {
    const up = (z: number): WireModel => ({
      wires: [line([0, 0, z], [0, 0, z + 5])],
      ports: [{ wire: 0, position: 0.5 }],
      loads: [],
      ground: { type: 'perfect' },
    });
    expect(meshOf(up(0), 30e6).unknowns).toBe(meshOf(up(1), 30e6).unknowns + 1);
  });
  test('ports, loads and joints sit on nodes, wherever they are asked for', () => {
    const model: WireModel = {
      wires: [line([0, -5, 5], [0, 5, 5]), line([0, 1.234, 5], [3, 1.234, 5])],
      ports: [{ wire: 0, position: 0.317 }],
      loads: [{ wire: 0, position: 0.711, ohm: 10 }],
      ground: { type: 'free' },
    };
    const mesh = meshOf(model, 14e6);
    const nodes = Array.from({ length: mesh.segments }, (_, i) => mesh.start[3 * i + 1]);
    for (const y of [-5 + 3.17, -5 + 7.11, 1.234]) expect(nodes.some((one) => Math.abs(one - y) < 1e-9)).toBe(true);
    expect(mesh.ports[0].unknowns.length).toBeGreaterThan(0);
    expect(mesh.loads[0].unknowns.length).toBeGreaterThan(0);
  });
  test('density multiplies the segments, and too many are refused by number', () => {
    expect(meshOf(star(3), 100e6, 3).segments).toBeGreaterThan(2.5 * meshOf(star(3), 100e6).segments);
    const long: WireModel = { ...star(2), wires: [line([0, 0, 5], [5000, 0, 5]), line([0, 0, 5], [0, 5, 5])] };
    expect(() => meshOf(long, 100e6)).toThrow(/segments long at 100.0 MHz; at most 1650/);
    // counted, not made: more pieces than an array can hold
    expect(() => meshOf({ ...long, wires: [{ ...long.wires[0], to: [5e12, 0, 10] }] }, 100e6)).toThrow(/segments long/);
  });
});
