import { spawnSync } from 'node:child_process';
import type { Design } from '../packages/core/src/antenna/kind';
import { startDesign, wireModel } from '../packages/core/src/antenna/kinds';
import { factorInPlace } from '../packages/core/src/numeric/complex-solve';
import { factorSymmetric } from '../packages/core/src/numeric/symmetric-solve';
import { spotAnalysis } from '../packages/core/src/solver/analyse-model';
import { groundClass } from '../packages/core/src/solver/ground-classes';
import { meshOf } from '../packages/core/src/solver/mesh';
import { finish, sweepModel } from '../packages/core/src/solver/model-sweep';
import { inputImpedance, solveAt } from '../packages/core/src/solver/solve';
import { median, printLine } from './print';

const N = 300;
const NUMPY = `
import os, time, statistics
for name in ("OPENBLAS_NUM_THREADS", "OMP_NUM_THREADS", "MKL_NUM_THREADS"): os.environ[name] = "1"
import numpy as np
n = ${N}
rng = np.random.default_rng(1)
a = rng.standard_normal((n, n)) + 1j * rng.standard_normal((n, n)); a = a + a.T + 20 * np.eye(n); b = rng.standard_normal(n) + 0j
t = []
for i in range(40):
    t0 = time.perf_counter(); np.linalg.solve(a, b); t.append(time.perf_counter() - t0)
print(statistics.median(t[8:]) * 1e3)
`;

function time(runs: number, work: () => void): number {
  const times: number[] = [];
  for (let i = 0; i < runs; i += 1) {
    const begun = performance.now();
    work();
    times.push(performance.now() - begun);
  }
  return median(times.slice(Math.floor(runs / 4)));
}

function denseSolve(): void {
  let state = 1;
  const next = (): number => {
    state = (state * 1664525 + 1013904223) >>> 0;
    return state / 2 ** 32 - 0.5;
  };
  const a = new Float64Array(2 * N * N);
  for (let i = 0; i < N; i += 1)
    for (let j = 0; j <= i; j += 1)
      for (const part of [0, 1]) {
        const value = next() + (i === j ? 20 : 0);
        a[2 * (i * N + j) + part] = value;
        a[2 * (j * N + i) + part] = value;
      }
  const b = Float64Array.from({ length: 2 * N }, next);
  const own = time(24, () => factorSymmetric(a.slice(), N).solveInto(b.slice()));
  const plain = time(6, () => factorInPlace(a.slice(), N).solveInto(b.slice()));
  const numpy = spawnSync('python3', ['-c', NUMPY], { encoding: 'utf8' });
  const reference = numpy.status === 0 ? Number(numpy.stdout) : NaN;
  console.log(
    `  dense symmetric solve, N = ${N}: kernel ${own.toFixed(1)} ms, pivoted TypeScript ${plain.toFixed(0)} ms, numpy ${Number.isFinite(reference) ? `${reference.toFixed(1)} ms` : 'not present'}`,
  );
  if (Number.isFinite(reference))
    printLine(
      'kernel over numpy on one thread (2.5 accepted, see docs)',
      `${(own / reference).toFixed(2)} ×`,
      '1.5 ×',
      own / reference <= 1.5,
    );
  else printLine('kernel over pivoted TypeScript', `${(plain / own).toFixed(1)} × faster`, '5 ×', plain / own >= 5);
}

function dragging(): void {
  const ground = groundClass('average').ground;
  const update = (i: number): void => {
    const design: Design = {
      ...startDesign('half-wave-dipole', 14.1e6),
      dimensions: { lengthM: 10 + 0.01 * i, heightM: 9 },
    };
    const model = wireModel(design, ground);
    const mesh = meshOf(model, 14.35e6, 2);
    spotAnalysis(solveAt(model, mesh, 14.1e6));
    finish(sweepModel(model, { lowHz: 14e6, highHz: 14.35e6, points: 101 }));
  };
  let i = 0;
  const ms = time(16, () => update((i += 1)));
  const segments = meshOf(wireModel(startDesign('half-wave-dipole', 14.1e6), ground), 14.35e6, 2).segments;
  printLine(
    `drag: impedance, SWR curve and patterns of ${segments} segments`,
    `${(1000 / ms).toFixed(0)} updates/s`,
    '10 updates/s',
    ms <= 100,
  );
}

function fanSweep(): void {
  for (const id of ['free', 'average']) {
    const design: Design = {
      ...startDesign('fan-dipole', 7.1e6),
      dimensions: { bands: 3, band2Hz: 14.2e6, band3Hz: 28.4e6, heightM: 10 },
    };
    const model = wireModel(design, groundClass(id).ground);
    const begun = performance.now();
    const sweep = finish(sweepModel(model, { lowHz: 3e6, highHz: 30e6, points: 1001 }));
    const seconds = (performance.now() - begun) / 1000;
    printLine(
      `three-band fan dipole, 3 to 30 MHz, 1001 points, ${id === 'free' ? 'free space' : 'real ground'}: ${sweep.solvedHz.length} solves, |Γ| within ${(100 * sweep.errorBound).toPrecision(1)} %`,
      `${seconds.toFixed(2)} s`,
      '3 s',
      seconds <= 3,
    );
  }
}

function growth(): void {
  const ground = groundClass('free').ground;
  let before = 0;
  for (const n of [50, 100, 200, 400]) {
    const model = wireModel(
      { ...startDesign('half-wave-dipole', 14.1e6), diameterM: 1e-4, dimensions: { lengthM: 10, heightM: 9 } },
      ground,
    );
    const mesh = meshOf(model, 14.1e6, n / 20);
    const ms = time(6, () => inputImpedance(solveAt(model, mesh, 14.1e6)));
    console.log(
      `  solve with N = ${mesh.unknowns}: ${ms.toFixed(1)} ms${before > 0 ? `, ${(ms / before).toFixed(1)} × the one before` : ''}`,
    );
    before = ms;
  }
}

/** Speed of the wire solver; ratios measured in one run, with absolute figures for the record. */
export function solverBench(): Promise<void> {
  denseSolve();
  dragging();
  fanSweep();
  growth();
  return Promise.resolve();
}
