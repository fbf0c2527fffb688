import { spawnSync } from 'node:child_process';
import type { Design, KindId } from '../packages/core/src/antenna/kind';
import { startDesign, wireModel } from '../packages/core/src/antenna/kinds';
import { factorInPlace } from '../packages/core/src/numeric/complex-solve';
import { factorSymmetric } from '../packages/core/src/numeric/symmetric-solve';
import { spotAnalysis } from '../packages/core/src/solver/analyse-model';
import { entryFit } from '../packages/core/src/solver/entry-fit';
import { groundClass } from '../packages/core/src/solver/ground-classes';
import { fillByKernel } from '../packages/core/src/solver/fill-kernel';
import { groundTable } from '../packages/core/src/solver/ground-table';
import { imageRange } from '../packages/core/src/solver/images';
import { fillImpedanceMatrix } from '../packages/core/src/solver/impedance-matrix';
import { keptBlocks, type KeptBlocks } from '../packages/core/src/solver/kept-blocks';
import { meshOf, type Mesh } from '../packages/core/src/solver/mesh';
import type { Point, Wire, WireModel } from '../packages/core/src/solver/model';
import { finish, sweepModel } from '../packages/core/src/solver/model-sweep';
import { fillWith, solveAt, solveBytes } from '../packages/core/src/solver/solve';
import { median, printLine } from './print';

const N = 300;
const F_HZ = 9.65e6;
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

/** @returns what numpy takes for one elimination on one thread, ms; NaN where it is not present */
function denseSolve(): number {
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
      'kernel over numpy on one thread (up to 3 accepted, see docs)',
      `${(own / reference).toFixed(2)} ×`,
      '1.5 ×',
      own / reference <= 1.5,
    );
  else printLine('kernel over pivoted TypeScript', `${(plain / own).toFixed(1)} × faster`, '5 ×', plain / own >= 5);
  return reference;
}

/** A straight dipole and a fan of sloping wires, cut so finely that they have about N unknowns, over real ground. */
function finelyCut(which: 'straight' | 'sloping', unknowns: number): { model: WireModel; mesh: Mesh } {
  const { ground } = groundClass('average');
  const start = startDesign(which === 'straight' ? 'half-wave-dipole' : 'v-dipole', F_HZ);
  const design: Design =
    which === 'straight'
      ? { ...start, diameterM: 1e-4, dimensions: { lengthM: 15, heightM: 9 } }
      : { ...start, diameterM: 1e-4 };
  const single = wireModel(design, ground);
  // four sloping wires from one point, no two of them mirror images of each other
  const model: WireModel =
    which === 'straight'
      ? single
      : {
          ...single,
          wires: [9, 7.5, 6.2, 5.1].map((length, i) => ({
            from: [0, 0, 10],
            to: [length * Math.cos(1.7 * i), length * Math.sin(1.7 * i), 6 + 0.9 * i],
            radiusM: 5e-5,
          })),
          ports: [{ wire: 0, position: 0 }],
          loads: [],
        };
  let density = 1;
  let mesh = meshOf(model, F_HZ, density);
  while (mesh.unknowns < unknowns) mesh = meshOf(model, F_HZ, (density *= 1.03));
  return { model, mesh };
}

/** The whole solve (plan, fill, elimination, currents) with warm ground tables over numpy's elimination alone, and the kernel's fill over the plain one. */
function wholeSolve(numpyMs: number): void {
  for (const [which, most] of [
    ['straight', 6],
    ['sloping', 20],
  ] as const) {
    const { model, mesh } = finelyCut(which, N);
    const table = model.ground.type === 'real' ? groundTable(model.ground, F_HZ, imageRange(mesh)) : undefined;
    // a copy of the mesh has no plan yet: what a first solve takes
    const whole = time(24, () => solveAt(model, { ...mesh }, F_HZ, { table: () => table }));
    const z = new Float64Array(2 * mesh.unknowns ** 2);
    const kernel = time(24, () => fillByKernel(z, model, { ...mesh }, F_HZ, table));
    const plain = time(4, () => fillImpedanceMatrix(z, model, mesh, F_HZ, table));
    if (Number.isFinite(numpyMs))
      printLine(
        `${which} wires over real ground, N = ${mesh.unknowns}: whole solve (${whole.toFixed(1)} ms) over numpy's elimination of N = ${N}`,
        `${(whole / numpyMs).toFixed(1)} ×`,
        `${most} ×`,
        whole <= most * numpyMs,
      );
    printLine(
      `  its fill: kernel ${kernel.toFixed(1)} ms, pair by pair ${plain.toFixed(0)} ms`,
      `${(plain / kernel).toFixed(1)} × faster`,
      '4 ×',
      plain >= 4 * kernel,
    );
  }
}

/** Time to the first solve over a ground that was never met, the worst of three antennas. */
function newGround(): void {
  let worst = 0;
  (['fan-dipole', 'vertical-over-radials', 'travelling-wave-wire'] as const).forEach((kind, i) => {
    const ground = { type: 'real', relPermittivity: 11.3 + i, conductivitySPerM: 0.0043 } as const;
    const model = wireModel(startDesign(kind, F_HZ), ground);
    const begun = performance.now();
    solveAt(model, meshOf(model, F_HZ), F_HZ);
    worst = Math.max(worst, performance.now() - begun);
  });
  printLine('first solve over a new ground, worst of three antennas', `${worst.toFixed(0)} ms`, '150 ms', worst <= 150);
}

/** One dimension dragged: the patterns at one frequency and the curve over a band, as a listener sees them follow. */
function dragging(): void {
  const ground = groundClass('average').ground;
  const drag = (
    kind: KindId,
    dimensions: (i: number) => Design['dimensions'],
    density: number,
    blocks?: KeptBlocks,
  ) => {
    let [segments, i] = [0, 0];
    const ms = time(120, () => {
      const design: Design = { ...startDesign(kind, 14.1e6), dimensions: dimensions((i += 1)) };
      const model = wireModel(design, ground);
      const mesh = meshOf(model, 14.35e6, density);
      ({ segments } = mesh);
      spotAnalysis(solveAt(model, mesh, 14.1e6, { fill: fillWith(blocks && { blocks }) }));
      finish(sweepModel(model, { lowHz: 14e6, highHz: 14.35e6, points: 101 }, blocks && { blocks }));
    });
    return { rate: 1000 / ms, segments };
  };
  const { rate, segments } = drag(
    'half-wave-dipole',
    (i) => ({ lengthM: 10 + 0.01 * i, heightM: 9 }),
    2,
    keptBlocks(96e6),
  );
  printLine(
    `drag: impedance, SWR curve and patterns of ${segments} segments`,
    `${rate.toFixed(0)} updates/s`,
    '60 updates/s',
    rate >= 60,
  );
  const fan = (i: number): Design['dimensions'] => ({
    bands: 3,
    band2Hz: 7.1e6,
    band3Hz: 21.2e6 + 3000 * i,
    heightM: 10,
  });
  const [kept, anew] = [keptBlocks(96e6), undefined].map((blocks) => drag('fan-dipole', fan, 1, blocks));
  console.log(
    `  one wire of a fan of ${kept.segments} segments: ${kept.rate.toFixed(0)} updates/s with the blocks of the others kept, ${anew.rate.toFixed(0)} without`,
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
      `three-band fan dipole, 3 to 30 MHz, 1001 points, ${id === 'free' ? 'free space' : 'real ground'}: ${sweep.solvedHz.length} solves, ${sweep.interpolated} of matrices between, |Γ| within ${(100 * sweep.errorBound).toPrecision(1)} %`,
      `${seconds.toFixed(2)} s`,
      '3 s',
      seconds <= 3,
    );
  }
}

/** A matrix from those of other frequencies against one that is filled. */
function matricesBetween(): void {
  for (const kind of ['yagi', 'delta-loop', 'vertical-over-radials', 'fan-dipole'] as const) {
    const model = wireModel(startDesign(kind, 7.1e6), groundClass('average').ground);
    const [lowHz, highHz] = [6e6, 15e6];
    const mesh = meshOf(model, highHz);
    const fit = entryFit(model, mesh);
    if (!fit) return;
    const z = new Float64Array(2 * mesh.unknowns ** 2);
    const tableAt = (freqHz: number) =>
      model.ground.type === 'real' ? groundTable(model.ground, freqHz, imageRange(mesh)) : undefined;
    for (let i = 0; i < 7; i += 1) {
      const freqHz = lowHz + ((highHz - lowHz) * (1 - Math.cos((Math.PI * i) / 6))) / 2;
      fit.takeIn(z, freqHz, tableAt(freqHz));
    }
    const table = tableAt(F_HZ);
    const whole = time(16, () => fillByKernel(z, model, mesh, F_HZ, table));
    const wanted = z.slice();
    const between = time(16, () => fit.fillBetween(z, F_HZ));
    const largest = wanted.reduce((most, value) => Math.max(most, Math.abs(value)), 0);
    const off = wanted.reduce((most, value, i) => Math.max(most, Math.abs(value - z[i])), 0);
    console.log(
      `  ${kind}, N = ${mesh.unknowns}: fill ${whole.toFixed(1)} ms, from 7 matrices over 6 to 15 MHz ${between.toFixed(2)} ms, off by ${(off / largest).toExponential(0)}`,
    );
  }
}

/** A fan of long wires over radials. */
function longFan(unknowns: number): { model: WireModel; mesh: Mesh } {
  const { ground } = groundClass('average');
  const around = (count: number, lengthM: number, from: Point, heightM: (i: number) => number): Wire[] =>
    Array.from({ length: count }, (_, i) => {
      const turn = (i * 2 * Math.PI) / count + 0.1 * i;
      return { from, to: [lengthM * Math.cos(turn), lengthM * Math.sin(turn), heightM(i)], radiusM: 1e-3 };
    });
  const [foot, top]: Point[] = [
    [0, 0, 0.3],
    [0, 0, 12],
  ];
  const wires: Wire[] = [
    { from: foot, to: top, radiusM: 1e-3 },
    ...around(6, 70, top, (i) => 12 + i / 2),
    ...around(8, 20, foot, () => 0.3),
  ];
  const model: WireModel = { wires, ports: [{ wire: 0, position: 0 }], loads: [], ground };
  let density = 0.05;
  let mesh = meshOf(model, F_HZ, density);
  while (mesh.unknowns < unknowns) mesh = meshOf(model, F_HZ, (density *= 1.02));
  return { model, mesh };
}

/** How the cost grows with the number of unknowns: fill and elimination apart. */
function growth(): void {
  let before: { n: number; fill: number } | undefined;
  for (const n of [50, 100, 200, 400, 800, 1600]) {
    const { model, mesh } = longFan(n);
    const table = model.ground.type === 'real' ? groundTable(model.ground, F_HZ, imageRange(mesh)) : undefined;
    const z = new Float64Array(2 * mesh.unknowns ** 2);
    const fill = time(n > 500 ? 2 : 8, () => fillByKernel(z, model, { ...mesh }, F_HZ, table));
    const factor = time(n > 500 ? 2 : 8, () => factorSymmetric(z.slice(), mesh.unknowns));
    const power = before ? Math.log(fill / before.fill) / Math.log(mesh.unknowns / before.n) : undefined;
    const cost = `  N = ${mesh.unknowns}: fill ${fill.toFixed(1)} ms, elimination ${factor.toFixed(1)} ms`;
    if (power === undefined || n < 400)
      console.log(cost + (power === undefined ? '' : `, fill grows as N^${power.toFixed(1)}`));
    else printLine(`${cost}, fill grows as`, `N^${power.toFixed(1)}`, 'N^1.9', power <= 1.9);
    before = { n: mesh.unknowns, fill };
  }
  const { model, mesh } = longFan(1450);
  const begun = performance.now();
  solveAt(model, mesh, F_HZ);
  const seconds = (performance.now() - begun) / 1000;
  printLine(
    `six long wires and eight radials, N = ${mesh.unknowns}, ${(solveBytes(mesh) / 1e6).toFixed(0)} MB told before`,
    `${seconds.toFixed(1)} s`,
    '3 s',
    seconds <= 3,
  );
}

/** Speed of the wire solver; ratios measured in one run, with absolute figures for the record. */
export function solverBench(): Promise<void> {
  wholeSolve(denseSolve());
  newGround();
  dragging();
  matricesBetween();
  fanSweep();
  growth();
  return Promise.resolve();
}
