import { describe, expect, test } from '@jest/globals';
import { startDesign, wireModel } from '../antenna/kinds';
import { NotConvergedError, OutOfRangeError } from '../errors';
import { complex, magnitude } from '../numeric/complex';
import { factorInPlace } from '../numeric/complex-solve';
import { analyseModel, patternSurface, spotAnalysis } from './analyse-model';
import { segmentCurrents } from './current-elements';
import { elevationStepDeg, extentM } from './far-field';
import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { currentElements } from './current-elements';
import { plainSums, radiationSums } from './far-field';
import {
  freshCells,
  isGroundKnown,
  groundKey,
  groundPermittivity,
  groundTable,
  logStepFor,
  tableReader,
  takeCells,
  type RealGround,
} from './ground-table';
import { computeGround, groundOverSpan } from './ground-span';
import { imageRange } from './images';
import { meshOf } from './mesh';
import type { WireModel } from './model';
import { finish, sweepModel } from './model-sweep';
import { farPairInto, gaussPoints, nearPairInto, samplesOf } from './pair';
import { findResonance } from './resonance';
import { loadImpedance, maximumGain, solveAt, transmission, inputImpedance } from './solve';
import { sommerfeldIntegrals } from './sommerfeld';
import { powerDb } from '../units/decibel';

const F = 14.9896229e6;
const K = (2 * Math.PI) / 20;
const dipole = (lengthM: number, height = 8): WireModel => ({
  wires: [{ from: [0, -lengthM / 2, height], to: [0, lengthM / 2, height], radiusM: 0.001 }],
  ports: [{ wire: 0, position: 0.5 }],
  loads: [],
  ground: { type: 'free' },
});

describe('pair integrals', () => {
  const p = { start: Float64Array.of(0, 0, 0), direction: Float64Array.of(0, 0, 1) };
  const lengths = Float64Array.of(0.6);
  // Against plain quadrature with 60 points a side, which needs no extraction where the segments do not touch.
  test.each([
    ['side by side', [0.15, 0, 0], [0, 0, 1]],
    ['at right angles', [0.1, 0.1, 0.3], [1, 0, 0]],
    ['in line, a gap between', [0, 0, 0.7], [0, 0, 1]],
    ['slanted', [0.2, 0.05, 0.4], [Math.SQRT1_2, 0, Math.SQRT1_2]],
  ])('near, %s: exact inner part and dense quadrature agree within 0.1 %', (_, start, direction) => {
    const q = { start: Float64Array.from(start), direction: Float64Array.from(direction) };
    const near = new Float64Array(16);
    nearPairInto(near, K, { p, pi: 0, lengthP: 0.6, q, qi: 0, lengthQ: 0.6 }, 0);
    const dense = gaussPoints(60);
    const far = new Float64Array(16);
    farPairInto(far, K, samplesOf(p, lengths, K, dense), 0, samplesOf(q, lengths, K, dense), 0);
    near.forEach((value, i) => {
      const size = Math.max(...far.slice(i < 8 ? 0 : 8, i < 8 ? 8 : 16).map(Math.abs));
      expect(Math.abs(value - far[i])).toBeLessThan(1e-3 * size);
    });
  });
  // ∬ dx dy / √((x − y)² + a²) over a square of side L, a ≪ L: 2L(ln(2L/a) − 1) + 2a.
  test('self term: the static limit in closed form', () => {
    const [l, a] = [0.6, 1e-3];
    const out = new Float64Array(16);
    const k = 1e-6; // static: φ₀ + φ₁ = 1
    nearPairInto(out, k, { p, pi: 0, lengthP: l, q: p, qi: 0, lengthQ: l }, a * a);
    const sum = out[0] + out[2] + out[4] + out[6];
    expect(sum / (2 * l * (Math.log((2 * l) / a) - 1) + 2 * a)).toBeCloseTo(1, 3);
  });
});

describe('ground table', () => {
  test('agrees with the integrals wherever it is asked', () => {
    const ground: RealGround = { type: 'real', relPermittivity: 13, conductivitySPerM: 0.005 };
    const range = { leastM: 0.1, mostM: 60, leastHeightM: 0.1, mostHeightM: 40 };
    const read = tableReader(groundTable(ground, F, range));
    const integrals = sommerfeldIntegrals(groundPermittivity(ground, F));
    const [table, direct] = [new Float64Array(8), new Float64Array(8)];
    for (const [rho, h] of [
      [0.05, 0.12],
      [3, 0.2],
      [17, 9],
      [50, 0.5],
      [0.001, 30],
    ]) {
      read(table, rho, h);
      integrals(direct, K * rho, K * h);
      const r = Math.hypot(rho, h);
      table.forEach((value, i) => expect(Math.abs(value - K * direct[i]) * r).toBeLessThan(5e-4));
    }
  });
  test('cells that no place looks at are not computed', () => {
    const ground: RealGround = { type: 'real', relPermittivity: 5.5, conductivitySPerM: 0.0021 };
    const level = groundTable(ground, F, { leastM: 18, mostM: 30, leastHeightM: 18, mostHeightM: 18 });
    const cells = Array.from({ length: level.values.length / 8 }, (_, i) => level.values[8 * i]);
    expect(cells.filter(Number.isNaN).length).toBeGreaterThan(cells.length / 3);
    const out = new Float64Array(8);
    for (let rho = 0; rho <= 24; rho += 0.37) {
      tableReader(level)(out, rho, 18);
      expect([...out].every(Number.isFinite)).toBe(true);
    }
  });
  // Along low wires over fresh water the wave in the water, which hardly fades there, beats with the one in the air.
  test('along low wires over water the table is finer, and agrees with the integrals to half a percent where they matter', () => {
    const ground: RealGround = { type: 'real', relPermittivity: 80, conductivitySPerM: 0.003 };
    const freqHz = 28e6;
    const range = { leastM: 0.1, mostM: 20, leastHeightM: 0.1, mostHeightM: 0.1 };
    expect(logStepFor(ground, freqHz, range)).toBeLessThan(
      logStepFor(ground, freqHz, { ...range, leastM: 10, leastHeightM: 10 }),
    );
    const integrals = sommerfeldIntegrals(groundPermittivity(ground, freqHz));
    const k = (2 * Math.PI * freqHz) / SPEED_OF_LIGHT_M_PER_S;
    const worst = (logStep?: number): number => {
      const read = tableReader(groundTable(ground, freqHz, range, logStep));
      const [table, direct] = [new Float64Array(8), new Float64Array(8)];
      let off = 0;
      for (let rho = 0.05; rho < 4.5; rho *= 1.13) {
        read(table, rho, 0.1);
        integrals(direct, k * rho, k * 0.1);
        table.forEach((value, i) => (off = Math.max(off, Math.abs(value - k * direct[i]) * rho)));
      }
      return off;
    };
    expect(worst()).toBeLessThan(0.005);
    expect(worst(0.16)).toBeGreaterThan(4 * worst());
  });
  // Both are sums over the same nodes; only the order of adding differs.
  test('the sums of the kernel are those made node by node', () => {
    const [found, wanted] = [new Float64Array(8), new Float64Array(8)];
    for (const ground of [
      { re: 13, im: -12 },
      { re: 3, im: -0.1 },
      { re: 81, im: -9000 },
    ]) {
      const [kernel, plain] = [sommerfeldIntegrals(ground), sommerfeldIntegrals(ground, { plain: true })];
      for (const rho of [1e-3, 0.02, 0.5, 3, 20])
        for (const h of [1e-3, 0.01, 0.3, 2, 15]) {
          kernel(found, rho, h);
          plain(wanted, rho, h);
          const largest = Math.max(...wanted.map(Math.abs));
          found.forEach((value, i) => expect(Math.abs(value - wanted[i])).toBeLessThan(1e-12 * largest));
        }
    }
  });
});

describe('lumped loads', () => {
  // Series and parallel resonance at 1/(2π√(LC)): 1 µH and 1 nF meet at 5.033 MHz.
  test('series and parallel', () => {
    const at = 1 / (2 * Math.PI * Math.sqrt(1e-15));
    const place = { wire: 0, position: 0.5 };
    expect(loadImpedance({ ...place, ohm: 5, henry: 1e-6, farad: 1e-9 }, at).re).toBe(5);
    expect(loadImpedance({ ...place, ohm: 5, henry: 1e-6, farad: 1e-9 }, at).im).toBeCloseTo(0, 6);
    expect(loadImpedance({ ...place, ohm: 5000, henry: 1e-6, farad: 1e-9, parallel: true }, at).re).toBeCloseTo(
      5000,
      3,
    );
    expect(loadImpedance(place, at)).toEqual(complex(0));
    expect(loadImpedance({ ...place, ohm: 0, henry: 1e-6, parallel: true }, at)).toEqual(complex(0));
  });
  test('a resistor at the feed adds to the impedance and takes its share of the power', () => {
    const plain = dipole(9.7);
    const loaded = { ...plain, loads: [{ wire: 0, position: 0.5, ohm: 70 }] };
    const [a, b] = [plain, loaded].map((one) => solveAt(one, meshOf(one, F), F).impedance[0][0]);
    expect(b.re - a.re).toBeCloseTo(70, 6);
    const spot = spotAnalysis(solveAt(loaded, meshOf(loaded, F), F));
    expect(spot.efficiency).toBeCloseTo(a.re / (a.re + 70), 3);
    expect(spot.averageGain).toBeCloseTo(1, 2);
  });
});

describe('two ports', () => {
  const two: WireModel = {
    ...dipole(9.7),
    wires: [...dipole(9.7).wires, { from: [400, -4.85, 8], to: [400, 4.85, 8], radiusM: 0.001 }],
    ports: [
      { wire: 0, position: 0.5 },
      { wire: 1, position: 0.5 },
    ],
  };
  // Friis between matched half-wave dipoles twenty wavelengths apart: 2·2.15 − 20 log(4π·20) dB.
  test('matched coupling in the far field follows Friis', () => {
    const s = solveAt(two, meshOf(two, F), F);
    expect(powerDb(maximumGain(s))).toBeCloseTo(2 * 2.14 - 20 * Math.log10(4 * Math.PI * 20), 1);
    expect(2 * powerDb(magnitude(transmission(s, 50)))).toBeLessThan(powerDb(maximumGain(s)));
  });
});

describe('resonance and sweeps', () => {
  test('a resonance that is not there is said to be missing', () => {
    expect(() => findResonance(() => complex(50, 30), 7e6)).toThrow(NotConvergedError);
  });
  test('a sweep with its ends exchanged or too few points is refused by name', () => {
    expect(() => finish(sweepModel(dipole(10), { lowHz: 20e6, highHz: 10e6, points: 11 }))).toThrow(OutOfRangeError);
    expect(() => finish(sweepModel(dipole(10), { lowHz: 1e6, highHz: 10e6, points: 1 }))).toThrow(/Number of points/);
  });
  test('every point of a short sweep may be a solve', () => {
    const sweep = finish(sweepModel(dipole(10), { lowHz: 14e6, highHz: 14.3e6, points: 5 }));
    expect(sweep.solvedHz).toEqual([...sweep.freqHz]);
  });
});

describe('analysis', () => {
  test('current is largest in the middle and vanishes at the ends', () => {
    const s = solveAt(dipole(9.7), meshOf(dipole(9.7), F), F);
    const { stretches } = spotAnalysis(s);
    const middle = Math.floor(stretches.length / 2);
    expect(stretches[middle].current).toBeGreaterThan(0.95);
    expect(stretches[0].current).toBeLessThan(0.2);
    expect(Math.hypot(segmentCurrents(s)[0], segmentCurrents(s)[1])).toBe(0);
  });
  test('half-wave dipole: 2.15 dBi, broadside, 78° wide in its plane, no front or back', () => {
    const model: WireModel = dipole(9.7);
    const spot = spotAnalysis(solveAt(model, meshOf(model, F), F));
    expect(spot.peak.gainDbi).toBeCloseTo(2.15, 1);
    expect(Math.abs(spot.frontToBackDb)).toBeLessThan(0.01);
    // Balanis ch. 4: 78° between half-power points of a half-wave dipole
    expect(Math.abs((spot.azimuthWidthDeg ?? 0) - 78)).toBeLessThan(1.5);
    expect(spot.receivingDirectivityDb).toBeCloseTo(2.15, 1);
  });
  test('the surface covers the sphere in free space and the upper half over ground', () => {
    const over = { ...dipole(9.7), ground: { type: 'perfect' as const } };
    const [free, half] = [dipole(9.7), over].map((one) => patternSurface(solveAt(one, meshOf(one, F), F), 7, 9));
    expect([free.elevationDeg[0], half.elevationDeg[0]]).toEqual([-90, 0]);
    expect(free.gainDbi).toHaveLength(63);
  });
  test('the search grid narrows with height', () => {
    const at = (height: number): number => {
      const model = { ...dipole(9.7, height), ground: { type: 'perfect' as const } };
      const s = solveAt(model, meshOf(model, F), F);
      expect(extentM(s).meanHeightM).toBeCloseTo(height, 6);
      return elevationStepDeg(s);
    };
    expect(at(10)).toBe(4);
    expect(at(200)).toBeLessThan(0.6);
  });
  test('a mesh that has not settled is refined, and the spot answered again on a finer one', () => {
    // a parasitic element close by makes the reflection coefficient hang on fine differences: the first mesh moves by over 1 %
    const model = wireModel(startDesign('yagi', 145e6), { type: 'free' });
    const parts = [...analyseModel({ model, freqHz: 145e6, lowHz: 144e6, highHz: 146e6, points: 5, arrivalDeg: 15 })];
    // how large it is is told before anything is solved
    const mesh = meshOf(model, 146e6);
    const [n, usualMatrices] = [mesh.unknowns, 8];
    // matrix, factors and lists; and ways, result and matrices of the sweep, upper halves of four numbers each
    const bytes = 82 * n ** 2 + 16 * n * (n + 1) * (1 + usualMatrices);
    expect(parts[0]).toEqual({ part: 'size', segments: mesh.segments, bytes });
    const segments = parts.flatMap((one) => (one.part === 'spot' ? [one.spot.segments] : []));
    expect(segments).toHaveLength(2);
    expect(segments[1]).toBeGreaterThan(segments[0]);
    const settled = parts.find((one) => one.part === 'settled');
    expect(settled?.part === 'settled' && settled.movement <= 0.01).toBe(true);
  });
});

describe('plain elimination', () => {
  test('a matrix without an inverse is refused', () => {
    expect(() => factorInPlace(new Float64Array(8), 2)).toThrow(NotConvergedError);
  });
  test('rows in the wrong order are exchanged', () => {
    // [[0, 1], [1, 0]]·x = [2, 3]
    const x = Float64Array.of(2, 0, 3, 0);
    factorInPlace(Float64Array.of(0, 0, 1, 0, 1, 0, 0, 0), 2).solveInto(x);
    expect([...x]).toEqual([3, 0, 2, 0]);
  });
});

describe('ground integrals that many meshes share', () => {
  test('the same mesh gets the same numbers, whatever was asked before', () => {
    const ground = { type: 'real', relPermittivity: 7, conductivitySPerM: 0.0031 } as const;
    const [dipole, loop] = (['half-wave-dipole', 'vertical-over-radials'] as const).map((kind) =>
      wireModel(startDesign(kind, 9.65e6), ground),
    );
    const at = (model: typeof dipole) => inputImpedance(solveAt(model, meshOf(model, 9.65e6, 0.5), 9.65e6));
    const first = at(dipole);
    at(loop);
    expect(at(dipole)).toEqual(first);
  });
});

describe('cells of a ground that are kept', () => {
  const ground: RealGround = { type: 'real', relPermittivity: 9, conductivitySPerM: 0.0017 };
  const range = { leastM: 1, mostM: 3, leastHeightM: 1, mostHeightM: 2 };
  test('what was computed is handed out once, and is the same when it is taken in again', () => {
    freshCells();
    const { values } = groundTable(ground, F, range);
    const mine = freshCells().filter(({ key }) => key.startsWith(groundKey(ground)));
    expect(mine).toHaveLength(1);
    expect(freshCells()).toEqual([]);
    // under another frequency: nothing is computed there, so what comes back is what was taken in
    const other = mine[0].key.replace(String(F), '12345678');
    takeCells({ key: other, rows: new Map([...mine[0].rows, [99, new Float64Array(3)]]) });
    expect(groundTable(ground, 12_345_678, range).values).toEqual(values);
    expect(freshCells()).toEqual([]);
  });
});

describe('a ground over a span of frequencies', () => {
  const ground: RealGround = { type: 'real', relPermittivity: 8.5, conductivitySPerM: 0.0031 };
  const model = wireModel(startDesign('half-wave-dipole', F), ground);
  const mesh = meshOf(model, 1.1 * F);
  const span = () => groundOverSpan(model, mesh, 0.9 * F, 1.1 * F);
  test('says what it does not know before it computes; what others compute meanwhile it does not compute again', () => {
    freshCells();
    const steps = span();
    const first = steps.next();
    if (first.done) throw new Error('Nothing is needed of a ground that was never met.');
    const { freqsHz } = first.value;
    expect(freqsHz.length).toBeGreaterThanOrEqual(3);
    expect(freshCells()).toEqual([]);
    // another computes all but the first
    for (let i = 1; i < freqsHz.length; i += 1) computeGround(first.value, i);
    expect(freshCells().map(({ key }) => Number(key.split(' ')[2]))).toEqual(freqsHz.slice(1));
    const last = steps.next();
    expect(last.done).toBe(true);
    expect(freshCells().map(({ key }) => Number(key.split(' ')[2]))).toEqual(freqsHz.slice(0, 1));
    // all is known now
    expect(span().next().done).toBe(true);
  });
  test('the ground between its nodes is the one computed there, within what it tells', () => {
    const { at, error } = finish(span());
    const range = imageRange(mesh);
    for (const freqHz of [0.91 * F, 0.97 * F, 1.04 * F, 1.09 * F]) {
      const [found, wanted] = [at(freqHz)?.values, groundTable(ground, freqHz, range).values];
      const known = wanted.filter((value) => !Number.isNaN(value));
      const size = Math.max(...known.map(Math.abs));
      wanted.forEach((value, i) => {
        if (!Number.isNaN(value)) expect(Math.abs(value - (found?.[i] ?? NaN))).toBeLessThan(3 * error * size + 1e-12);
      });
    }
    expect(error).toBeLessThan(3e-4);
  });
  test('rows taken in fill what is missing, and leave what is known', () => {
    const range = { leastM: 1, mostM: 3, leastHeightM: 1, mostHeightM: 2 };
    const key = `${groundKey(ground)}7654321 0.16`;
    const part = new Float64Array(168).fill(NaN).fill(1, 136);
    takeCells({ key, rows: new Map([[2, part]]) });
    const rest = new Float64Array(168).fill(2);
    takeCells({ key, rows: new Map([[2, rest]]) });
    expect(isGroundKnown(ground, 7_654_321, range, 0.16)).toBe(false);
    const { values, logLeast, columns } = groundTable(ground, 7_654_321, range, 0.16);
    const from = (2 - Math.round(logLeast / 0.16)) * columns * 8;
    const row = values.subarray(from, from + 168).filter((value) => !Number.isNaN(value));
    expect(new Set(row)).toEqual(new Set([1, 2]));
    expect(isGroundKnown(ground, 7_654_321, range, 0.16)).toBe(true);
  });
});

describe('the far field of many currents', () => {
  // Both add the same terms; only the order differs.
  test('the sums of the kernel are those made current by current', () => {
    const dipoleOver = wireModel(startDesign('vertical-over-radials', 9.65e6), { type: 'perfect' });
    const elements = currentElements(solveAt(dipoleOver, meshOf(dipoleOver, 9.65e6), 9.65e6), 0, 3);
    const [kernel, plain] = [radiationSums(elements, 0.2), plainSums(elements, 0.2)];
    for (let i = 0; i < 50; i += 1) {
      const [azimuth, elevation] = [(i * 2 * Math.PI) / 7, (i * Math.PI) / 101];
      const toward = {
        ...{ cosT: Math.sin(elevation), sinT: Math.cos(elevation) },
        ...{ cosP: Math.cos(azimuth), sinP: Math.sin(azimuth) },
      };
      const wanted = [...plain(toward, true)];
      const largest = Math.max(...wanted.map(Math.abs));
      kernel(toward, true).forEach((value, k) => expect(Math.abs(value - wanted[k])).toBeLessThan(1e-12 * largest));
    }
  });
});
