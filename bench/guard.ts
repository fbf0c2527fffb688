import { type PlacedAntenna, startDesign } from '../packages/core/src/antenna';
import { antennaCoupling, cheapestMending, guardProof, type GuardGraph } from '../packages/core/src/guard';
import { groundClass } from '../packages/core/src/solver';
import { printLine } from './print';

const PAIRS = 60;
const FREQ_HZ = 14.2e6;
const GROUND = groundClass('average').ground;

const dipole = (x: number, y: number, heightM: number): PlacedAntenna => ({
  ...{ name: 'dipole', at: [x, y], facingDeg: (x * 37) % 360 },
  design: { ...startDesign('half-wave-dipole', FREQ_HZ), dimensions: { heightM } },
});

/** A station of twelve nodes with three receivers. */
function station(): GuardGraph {
  const receivers = [1, 2, 3];
  return {
    nodes: [
      { id: 'tx', name: 'transmitter', kind: 'transmitter', dbm: 50 },
      { id: 'mast', name: 'mast', kind: 'antenna' },
      ...receivers.flatMap((n) => [
        { id: `a${n}`, name: `antenna ${n}`, kind: 'antenna' as const },
        { id: `r${n}`, name: `receiver ${n}`, kind: 'receiver' as const, limitDbm: 0 },
      ]),
    ],
    links: [
      { from: { node: 'tx', port: 'a' }, to: { node: 'mast', port: 'a' } },
      ...receivers.map((n) => ({ from: { node: `a${n}`, port: 'a' }, to: { node: `r${n}`, port: 'a' } })),
    ],
    couplings: receivers.map((n) => ({ a: 'mast', b: `a${n}`, loss: { db: 20 + 5 * n, footing: 'model' as const } })),
  };
}

/** Couplings of pairs over real ground, and the search for the cheapest change. */
export function guardBench(): Promise<void> {
  const began = performance.now();
  for (let i = 0; i < PAIRS; i += 1)
    antennaCoupling(dipole(0, 0, 10), dipole(20 + i, i % 9, 4 + (i % 8)), GROUND, FREQ_HZ);
  const couplingS = (performance.now() - began) / 1000;
  printLine(`coupling of ${PAIRS} pairs over real ground`, `${couplingS.toFixed(2)} s`, '10 s', couplingS < 10);
  const question = {
    bands: [{ freqHz: FREQ_HZ, graph: station(), measured: [], refused: new Map<string, string>() }],
    ...{ sequence: { leads: 'no', hangs: 'no' } as const, marginToKeepDb: 10 },
    ...{ undrawn: [], loose: new Set<string>(), pulled: new Set<string>() },
  };
  const proofs = performance.now();
  for (let i = 0; i < 200; i += 1) guardProof(question);
  const proofMs = (performance.now() - proofs) / 200;
  printLine('a station judged in every state', `${proofMs.toFixed(2)} ms`, '16 ms', proofMs < 16);
  const search = performance.now();
  const found = cheapestMending(
    question,
    [
      { kind: 'limiter', name: 'limiter', price: 25, lossDb: 0.5, leakDbm: -12, surviveDbm: 33 },
      { kind: 'switch', name: 'relay', price: 40, lossDb: 0.2, isolationDb: 60 },
      { kind: 'filter', name: 'filter', price: 60, lossDb: 1, stopDb: 50 },
    ],
    (_, lossDb) => lossDb,
  );
  const searchMs = performance.now() - search;
  printLine(
    `cheapest change (${found?.changes.length ?? 0} changes)`,
    `${searchMs.toFixed(0)} ms`,
    '1 s',
    searchMs < 1000,
  );
  return Promise.resolve();
}
