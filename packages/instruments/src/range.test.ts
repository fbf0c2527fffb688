import { expect, test } from '@jest/globals';
import { startDesign, wireModel } from '@velvet-reed/core/antenna';
import { levelOf, measuredPattern, overlayModel, turnTargets } from '@velvet-reed/core/bearing';
import { analyseModel, type SpotAnalysis } from '@velvet-reed/core/solver';
import { openBench } from './serve';

const FREQ = 145.8e6;
/** What a draft's model says of its own azimuth at the horizon of free space. */
function cutOf(kind: 'yagi' | 'half-wave-dipole'): SpotAnalysis['azimuthAtArrival'] {
  const steps = analyseModel({
    ...{ model: wireModel(startDesign(kind, FREQ), { type: 'free' }), freqHz: FREQ, arrivalDeg: 0 },
    ...{ lowHz: 140e6, highHz: 150e6, points: 3 },
  });
  for (const step of steps) if (step?.part === 'spot') return step.spot.azimuthAtArrival;
  throw new Error('no answer');
}

/** Turns a stand-in once round and reads each direction three times. */
function turnOf(seed: number, home: boolean) {
  const bench = openBench(seed);
  const ask = (name: 'turntable' | 'power-meter', line: string): number => Number(String(bench(name, line)[0]));
  bench('turntable', `:STAN:ANT 'yagi ${FREQ} 0.004 free',${seed}`);
  if (home) bench('turntable', ':POS:HOME');
  const rows = turnTargets(5, { lowDeg: 0, highDeg: 360 }).flatMap(({ tableDeg, patternDeg }) => {
    bench('turntable', `:POS:AZIM ${tableDeg}`);
    while (ask('turntable', ':POS:AZIM?') !== tableDeg);
    const level = levelOf([1, 2, 3].map(() => ask('power-meter', ':MEAS:POW?')));
    return level === undefined ? [] : [{ angleDeg: patternDeg, level }];
  });
  const { levelsDb, stepDeg } = measuredPattern(rows, 'dB');
  return { angleDeg: levelsDb.map((_, i) => i * stepDeg), levelDb: levelsDb.map((db) => db ?? NaN) };
}

test('a Yagi of the stand-in, measured in eight hidden places with a wall, drift and dropped readings, agrees with its model within the stated error', () => {
  const cut = cutOf('yagi');
  const other = cutOf('half-wave-dipole');
  for (let seed = 1; seed <= 8; seed += 1) {
    const measured = turnOf(seed, true);
    // the stand-in's walls are 18 dB down at most; three readings of 0.15 dB scatter
    const stated = { scatterDb: 0.15 / Math.sqrt(3), reflectionDb: -17 };
    const found = overlayModel(measured, cut, stated);
    expect({ seed, agrees: found.agrees }).toEqual({ seed, agrees: true });
    expect(Math.abs(found.rotationDeg)).toBeLessThan(8);
    expect(found.explanations.find(({ kind }) => kind === 'mirrored')?.telling).toBe(false);
    expect(overlayModel(measured, other, stated).agrees).toBe(false);
  }
});

test('a table that was not at its mark turns the pattern by what it was off, and the overlay finds it', () => {
  const [at, off] = [turnOf(3, true), turnOf(3, false)].map(
    (one) => overlayModel(one, cutOf('yagi'), { scatterDb: 0.1, reflectionDb: -17 }).rotationDeg,
  );
  expect(Math.abs(at - off)).toBeGreaterThan(3);
});
