import { describe, expect, test } from '@jest/globals';
import { ANTENNA_KINDS, startDesign, wireModel } from '../antenna';
import { factorInPlace } from '../numeric/complex-solve';
import { spotAnalysis } from './analyse-model';
import { groundClass } from './ground-classes';
import { fillImpedanceMatrix } from './impedance-matrix';
import { meshOf } from './mesh';
import { inputImpedance, solveAt, type Fill } from './solve';

const F = 9.65e6;
const fillPlainly: Fill = (z, model, mesh, freqHz, table) => fillImpedanceMatrix(z, model, mesh, freqHz, table());

describe('figures that are shown', () => {
  // The plain solver is what earlier releases computed with.
  const models = ANTENNA_KINDS.flatMap((kind) => ('model' in kind ? [kind.id] : []));
  test.each(models)('%s: no figure moves by more than its last digit', (kind) => {
    for (const ground of ['average', 'free']) {
      const model = wireModel(startDesign(kind, F), groundClass(ground).ground);
      // stands on perfect ground alone
      if (kind === 'whip-on-surface' && ground === 'average') continue;
      const mesh = meshOf(model, F);
      const solution = solveAt(model, mesh, F);
      // pair by pair and by pivoted elimination: nothing of the kernels is in it
      const plain = solveAt(model, mesh, F, { factor: factorInPlace, fill: fillPlainly });
      const [now, before] = [inputImpedance(solution), inputImpedance(plain)];
      for (const part of ['re', 'im'] as const)
        expect(Math.abs(Math.round(10 * now[part]) - Math.round(10 * before[part]))).toBeLessThanOrEqual(1);
      const [seen, wanted] = [spotAnalysis(solution), spotAnalysis(plain)];
      expect(Math.abs(seen.peak.gainDbi - wanted.peak.gainDbi)).toBeLessThan(0.05);
      expect(Math.abs(seen.frontToBackDb - wanted.frontToBackDb)).toBeLessThan(0.05);
      expect(Math.abs(seen.efficiency - wanted.efficiency)).toBeLessThan(0.0005);
    }
  });
});
