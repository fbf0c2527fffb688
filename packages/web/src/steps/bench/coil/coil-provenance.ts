import type { Provenance } from '@velvet-reed/station/said';

export const model = (formula: string, source = 'tuned circuit; Terman, Radio Engineers’ Handbook'): Provenance => ({
  origin: 'model',
  formula,
  source,
});
