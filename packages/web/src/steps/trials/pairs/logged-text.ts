import { MEASURES } from '@velvet-reed/station/trials/said';
import { pairCounts, type TrialPair } from '@velvet-reed/core/trial';
import { listText } from '@velvet-reed/core/units';

type ReadValue = 'levelADbm' | 'noiseADbm' | 'levelBDbm' | 'noiseBDbm';

/** For what a logged pair counts; a part of one is called that, with what it lacks. */
export function loggedText(pair: TrialPair, labels: Readonly<Record<ReadValue, string>>): string {
  const { counts, lacks } = pairCounts(pair);
  const whole = lacks.length === 0 || (lacks.length === 4 && counts.length > 0);
  const counted = listText(counts.map((what) => MEASURES[what]));
  if (whole) return `Pair logged: it counts for ${counted}.`;
  const missing = lacks.map((field) => labels[field]).join('; ');
  if (counts.length > 0) return `Part of a pair logged: it counts for ${counted} only. Missing: ${missing}.`;
  return lacks.length === 4
    ? 'Logged that neither was heard: it counts for no result.'
    : `Half a pair logged: it counts for no result. Missing: ${missing}. Change it in the list when you have read that.`;
}
