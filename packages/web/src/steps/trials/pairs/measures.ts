import type { TrialMeasure } from '@velvet-reed/core/trial';

/** What is compared, inside a sentence. */
export const MEASURES: Readonly<Record<TrialMeasure, string>> = { snr: 'SNR', level: 'level', noise: 'noise' };
