import type { Provenance } from '../../../ui/value';

export const model = (formula: string, source = 'tuned circuit; Terman, Radio Engineers’ Handbook'): Provenance => ({
  origin: 'model',
  formula,
  source,
});
