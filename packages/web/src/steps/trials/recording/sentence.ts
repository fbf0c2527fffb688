import { trialVerdict, type TrialPair } from '@velvet-reed/core/trial';
import type { RecordedLevels } from '../../../workers/recording-jobs';
import type { Opened } from './use-opened';

/** What the room says of the recording on the screen, and what comes next. */
export function recordingSentence({
  opened,
  fault,
  bandsSet,
  levels,
  pairs,
  names,
}: {
  readonly opened: Opened;
  readonly fault: string;
  readonly bandsSet: boolean;
  readonly levels: RecordedLevels | undefined;
  readonly pairs: readonly TrialPair[];
  readonly names: { readonly a: string; readonly b: string };
}): { readonly sentence: string; readonly next: string } {
  const trouble = fault || opened.fault;
  if (trouble) return { sentence: trouble, next: 'Next: open another file.' };
  if (opened.missing)
    return { sentence: 'Only the settings of this recording are kept here.', next: 'Next: open its file again.' };
  if (!opened.chosen)
    return {
      sentence: 'A recording holds more than screenshots: both antennas in turn, the noise, every pulse.',
      next: 'Next: open one.',
    };
  if (!opened.layout) return { sentence: 'Reading the head of the file…', next: '' };
  if (!opened.open)
    return { sentence: 'Two channels, of which the file does not say what they are.', next: 'Next: say it.' };
  if (!bandsSet)
    return {
      sentence: `${(opened.layout.frames / opened.layout.sampleRateHz).toFixed(0)} s are open; nothing is measured yet.`,
      next: 'Next: drag over the signal, then over a quiet band beside it.',
    };
  if (!levels) return { sentence: 'Measuring level and noise…', next: '' };
  if (levels.switched && pairs.length > 0) {
    const verdict = trialVerdict(pairs, names, { plannedPairs: pairs.length });
    const count = `${pairs.length} pair${pairs.length === 1 ? '' : 's'} from one recording: `;
    return {
      sentence: count + verdict.sentence[0].toLowerCase() + verdict.sentence.slice(1),
      next: opened.record ? 'Next: put them into a trial, below.' : 'Next: say which antennas, and keep the settings.',
    };
  }
  const snr =
    levels.snrDb === null
      ? 'The signal does not stand out of the noise'
      : `The signal stands ${levels.snrDb.toFixed(1)} dB over the noise`;
  if (opened.open.meaning === 'two')
    return {
      sentence: `${snr} on the ${opened.open.channel === 0 ? 'first' : 'second'} receiver.`,
      next: 'Next: compare the channels, below.',
    };
  return { sentence: `${snr}.`, next: 'Next: keep the settings, or say the time of a turn if antennas were switched.' };
}
