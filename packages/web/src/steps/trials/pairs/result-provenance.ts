import type { TrialResult } from '@velvet-reed/core/trial';
import { fixed } from '@velvet-reed/core/units';

export const provenanceOf = ({ result, what }: TrialResult) =>
  ({
    origin: 'measured',
    formula: `mean of B − A over ${result?.n ?? 0} pairs; interval by Student’s t`,
    inputs: [
      ['pairs', String(result?.n ?? 0)],
      ['scatter (SD)', result?.sd == null ? 'needs two pairs' : `${fixed(result.sd, 2)} dB`],
      [
        '95 % interval',
        result?.ciLow == null || result.ciHigh == null
          ? 'needs two pairs'
          : `${fixed(result.ciLow, 1)} to ${fixed(result.ciHigh, 1)} dB`,
      ],
      ['p, two-sided', result?.pTwoSided == null ? 'none' : result.pTwoSided.toPrecision(2)],
    ],
    source: `your readings of ${what === 'snr' ? 'level and noise' : what}; Student 1908`,
  }) as const;
