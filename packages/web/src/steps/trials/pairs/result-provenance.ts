import type { TrialResult } from '@velvet-reed/core/trial';
import { fixed } from '@velvet-reed/core/units';

const RULES: Readonly<Record<TrialResult['rule'], string>> = {
  plan: 'interval by Student’s t for the number of pairs fixed beforehand',
  watch: 'interval that holds at all times at once, so that it may be watched',
};

export const provenanceOf = ({ result, what, rule, interval }: TrialResult) =>
  ({
    origin: 'measured',
    formula: `mean of B − A over ${result?.n ?? 0} pairs; ${RULES[rule]}`,
    inputs: [
      ['pairs', String(result?.n ?? 0)],
      ['independent ones among them', interval ? fixed(interval.effective, 1) : 'not told yet'],
      ['scatter (SD)', result?.sd == null ? 'needs two pairs' : `${fixed(result.sd, 2)} dB`],
      ['95 % interval', interval ? `${fixed(interval.low, 1)} to ${fixed(interval.high, 1)} dB` : 'needs more pairs'],
      ['p, two-sided, of a plan', result?.pTwoSided == null ? 'none' : result.pTwoSided.toPrecision(2)],
    ],
    source: `your readings of ${what === 'snr' ? 'level and noise' : what}; ${rule === 'plan' ? 'Student 1908' : 'Lai 1976; Wang & Ramdas 2023'}`,
  }) as const;
