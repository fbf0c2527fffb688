// Planning between antenna and receiver: order search, scatter of filters, recomputing a path.
import { designFilter, filterYield } from '@velvet-reed/core/filter';
import {
  analyseBands,
  type PathReceiver,
  type PathSignal,
  type PathStage,
  searchOrder,
  type ShelfPart,
} from '@velvet-reed/core/path';
import { finish } from '@velvet-reed/core/solver';
import { median, printLine } from './print';

const RECEIVER: PathReceiver = {
  name: 'receiver',
  noiseFigureDb: 15,
  iip2Dbm: 50,
  iip3Dbm: 10,
  fullScaleDbm: 0,
  bits: 14,
  sampleRateHz: 125e6,
  complexSamples: false,
  minHz: 1e4,
  maxHz: 2e9,
};

const signals = (count: number): readonly PathSignal[] =>
  Array.from({ length: count }, (_, i) => ({
    name: `carrier ${i}`,
    freqHz: 0.6e6 * 1.35 ** i,
    levelDbm: -25 - ((i * 7) % 30),
  }));
const goals = (count: number) =>
  Array.from({ length: count }, (_, i) => {
    const lowHz = 1.8e6 * (count > 30 ? 1.05 : 1.2) ** i;
    return { name: `band ${i}`, lowHz, highHz: lowHz * 1.03, bandwidthHz: 2400, externalFaDb: Math.max(5, 45 - i) };
  });
const amplifier = (i: number): PathStage => ({
  kind: 'amplifier',
  name: `amplifier ${i}`,
  gainDb: 10 + 3 * i,
  noiseFigureDb: 1 + i,
  iip2Dbm: 40 + i,
  iip3Dbm: 12 - i,
});
const filter = (i: number): PathStage => ({
  kind: 'filter',
  name: `filter ${i}`,
  filter: {
    shape: i % 2 === 0 ? 'lowpass' : 'highpass',
    family: 'chebyshev',
    order: 5,
    rippleDb: 0.1,
    edgeLowHz: 1.6e6,
    edgeHighHz: (1 + i) * 30e6,
    insertionLossDb: 0.4,
  },
});
const line = (lengthM: number): PathStage => ({
  kind: 'line',
  name: `line ${lengthM}`,
  cable: { k1: 1.311, k2: 0.0294 },
  lengthM,
});

/** Order search, Monte Carlo and recomputation against their targets. */
export async function pathBench(): Promise<void> {
  const stages: readonly PathStage[] = [
    line(25),
    line(5),
    ...[0, 1, 2, 3].map(amplifier),
    ...[0, 1, 2, 3, 4].map(filter),
    { kind: 'pad', name: 'pad', lossDb: 6 },
    { kind: 'pad', name: 'small pad', lossDb: 3 },
    { kind: 'pad', name: 'last pad', lossDb: 1 },
  ];
  const shelf: readonly ShelfPart[] = stages.map((stage) => ({ stage, needed: stage.kind === 'line', cost: 1 }));
  const began = performance.now();
  const found = finish(searchOrder(shelf, RECEIVER, goals(6), signals(12)));
  const searchMs = performance.now() - began;
  printLine(
    `best set and order of ${shelf.length} parts, 6 bands, 12 carriers`,
    `${(searchMs / 1000).toFixed(2)} s`,
    '1 s',
    searchMs <= 1000,
  );
  console.log(`      ${found.visited} beginnings looked at, ${found.pruned} left by the bound`);

  const design = designFilter({
    shape: 'lowpass',
    family: 'chebyshev',
    rippleDb: 0.1,
    edgesHz: [30e6],
    lineOhm: 50,
    first: 'shunt',
    order: 7,
    stops: [88e6, 95.3e6, 104.9e6].map((freqHz) => ({ name: 'FM', freqHz, leastDb: 50 })),
    passes: [{ name: '10 m', freqHz: 28e6, mostDb: 1 }],
    coilQ: 100,
    series: 'E24',
  });
  const drawn = performance.now();
  filterYield(design, 100, { coil: 0.05, capacitor: 0.05 }, 100_000);
  const yieldMs = performance.now() - drawn;
  printLine(
    '100,000 filters of order 7 with scattered parts',
    `${(yieldMs / 1000).toFixed(2)} s`,
    '1 s',
    yieldMs <= 1000,
  );

  const sixteen = [...stages, line(2), line(3)];
  const transmitters = Array.from({ length: 40 }, (_, i) => ({
    name: `transmitter ${i}`,
    freqHz: 0.55e6 * 1.14 ** i,
    levelDbm: -25 - ((i * 7) % 40),
  }));
  const times = Array.from({ length: 160 }, () => {
    const start = performance.now();
    analyseBands(sixteen, RECEIVER, goals(60), transmitters);
    return performance.now() - start;
  });
  printLine(
    'a path of 16 stages, 40 transmitters, 60 bands, anew',
    `${median(times.slice(80)).toFixed(1)} ms`,
    '8 ms',
    median(times.slice(80)) <= 8,
  );
}
