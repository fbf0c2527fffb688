import { describe, expect, test } from '@jest/globals';
import { parseQuantity } from '../units/quantity';
import { biasFeed } from './kinds/bias-feed';
import { line } from './kinds/line';
import { splitterLossDb } from './kinds/splitter';
import { limiterFigures } from './limiter';
import { isChoice } from './stage-kind';
import { figureFaults, STAGE_KINDS, stageKind } from './stage-kinds';
import { stageValues } from './stage-values';
import { stageGainDb } from './stages';

describe('kinds of stages by their figures', () => {
  test('splitters: hybrid 3.01 + excess, star 6.02, plain T 3.52 and 6.02 dB (power division)', () => {
    expect(splitterLossDb('hybrid', 2, 0.5)).toBeCloseTo(3.51, 2);
    expect(splitterLossDb('hybrid', 4)).toBeCloseTo(6.02, 2);
    expect(splitterLossDb('star', 2, 9)).toBeCloseTo(6.02, 2);
    expect([splitterLossDb('tee', 2), splitterLossDb('tee', 3)].map((db) => db.toFixed(2))).toEqual(['3.52', '6.02']);
  });
  test('a bias feed is a high-pass: 3 dB and more under its corners, nothing far above', () => {
    const feed = biasFeed.stage({ ...stageValues('feed'), figures: { chokeUH: 100, capacitorNF: 100 } });
    expect(stageGainDb(feed, 10e6)).toBeGreaterThan(-0.01);
    expect(stageGainDb(feed, 10e3)).toBeLessThan(-3);
  });
  test('diodes: twice as many with twice the saturation current limit 6.02 dB later (similitude of the equation)', () => {
    const [one, two] = [limiterFigures(1, 2.5e-9, 1.75), limiterFigures(2, 5e-9, 1.75)];
    expect(two.p1Dbm - one.p1Dbm).toBeCloseTo(6.02, 1);
    expect(two.iip3Dbm - one.iip3Dbm).toBeCloseTo(6.02, 1);
    // a silicon pair clips at some 0.6 V: 0.6²/100 W is 5.6 dBm
    expect(one.p1Dbm).toBeGreaterThan(2);
    expect(one.p1Dbm).toBeLessThan(9);
  });
  test('a line of known loss: twice the loss at four times the frequency, whatever cable and length stand beside it', () => {
    // skin effect: loss goes with the root of frequency
    const run = { ...stageValues('run'), figures: { knownLossDb: 3, knownAtHz: 10e6 } };
    expect(stageGainDb(line.stage(run), 10e6)).toBeCloseTo(-3, 12);
    expect(stageGainDb(line.stage(run), 40e6)).toBeCloseTo(-6, 12);
    expect(stageGainDb(line.stage({ ...run, lengthM: 35 }), 10e6)).toBeCloseTo(-3, 12);
    expect(figureFaults('line', { knownLossDb: 3 })).toMatchObject([{ id: 'knownAtHz' }]);
    expect(figureFaults('line', { knownAtHz: 1e7 })).toMatchObject([{ id: 'knownLossDb' }]);
  });
  test('every kind begins with figures and choices that it accepts; others are named', () => {
    for (const id of STAGE_KINDS) {
      const own = stageKind(id).fields.filter(({ shared }) => !shared);
      const figures = own.flatMap((field) =>
        isChoice(field) || field.start === ''
          ? []
          : [[field.id, parseQuantity(field.start, field.dimension, { bareUnit: field.bareUnit })] as const],
      );
      const choices = own.filter(isChoice).map((field) => [field.id, field.start] as const);
      expect(figureFaults(id, Object.fromEntries(figures), Object.fromEntries(choices))).toEqual([]);
    }
    expect(figureFaults('switch', { lossDb: 0.3, flux: 1 })[0]).toMatchObject({ id: 'flux' });
    expect(figureFaults('splitter', { outputs: 99, excessDb: 0 }, { form: 'ring' }).map(({ id }) => id)).toEqual([
      'form',
      'outputs',
    ]);
    expect(figureFaults('splitter', { outputs: 2, excessDb: 0 }, { polarity: 'plus' })[0].id).toBe('polarity');
    expect(figureFaults('limiter', {}).map(({ id }) => id)).toContain('perLeg');
  });
});
