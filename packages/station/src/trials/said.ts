import { firstOfRound, type TrialResult } from '@velvet-reed/core/trial';
import { fixed, inDb } from '@velvet-reed/core/units';
import type { Saved } from '@velvet-reed/contract';
import type { StationData } from '../record';
import type { Said } from '../said';
import { judgedTrial } from '../verdicts';
import { comparisonOf, conditionVerdict } from './conditions';

export const MEASURES = { snr: 'SNR', level: 'level', noise: 'noise' } as const;

const RULES: Readonly<Record<TrialResult['rule'], string>> = {
  plan: 'interval by Student’s t for the number of pairs fixed beforehand',
  watch: 'interval that holds at all times at once, so that it may be watched',
};

/** Where the figures of a trial come from. */
export const resultProvenance = ({ result, what, rule, interval }: TrialResult) =>
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

/** A trial's verdict. Where conditions disagree their rule is the headline, never the number pooled over them. */
export function saidTrial(data: StationData, trial: Saved<'trials'> | undefined): Said {
  if (!trial) return { pieces: ['No comparison yet.'], next: { pieces: ['Next: say which two antennas, below.'] } };
  const comparison = comparisonOf(data, trial);
  if (comparison?.finding.state === 'rule' && comparison.finding.rule.opposite)
    return { pieces: [conditionVerdict(comparison).sentence], next: { pieces: ['Next: switch by this rule.'] } };
  const { names, verdict, readings } = judgedTrial(data, trial);
  const { primary, sentence } = verdict;
  const first = firstOfRound(readings.length) === 'A' ? names.a : names.b;
  return {
    pieces:
      primary.result && !primary.proven
        ? [
            `${sentence} Mean difference in ${MEASURES[primary.what]} so far, B minus A: `,
            { shown: inDb(primary.result.mean), provenance: resultProvenance(primary) },
            '.',
          ]
        : [sentence],
    next: {
      pieces: [primary.proven ? 'Next: keep it, and repeat under other conditions.' : `Next: read ${first} first.`],
    },
  };
}
