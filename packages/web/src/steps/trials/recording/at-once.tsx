import type { Saved } from '@velvet-reed/contract';
import type { Band } from '@velvet-reed/core/recording';
import { fixed } from '@velvet-reed/core/units';
import type { StationData } from '@velvet-reed/station/record';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import type { OpenRecording } from '../../../workers/recording-jobs';
import { useJob } from '../../../workers/use-job';
import { Ask } from './ask';
import { IntoTrial } from './into-trial';

/** Two receivers in one file: both antennas at the same moments, block by block. */
export function AtOnceOfRecording({
  data,
  open,
  signal,
  quiet,
  ...into
}: {
  readonly data: StationData;
  readonly open: OpenRecording;
  readonly signal: Band;
  readonly quiet: Band;
  readonly names: { readonly a: string; readonly b: string };
  readonly record: Saved<'recordings'> | undefined;
  readonly startMs: number | null;
  readonly fullScaleDbm: number | undefined;
}) {
  const typed = useTypedNumbers([
    { name: 'block', label: 'Blocks of', dimension: 'time', bareUnit: 's', start: '5 s' },
    {
      ...{ name: 'exchanged', label: 'Antennas exchanged at', dimension: 'time', bareUnit: 's' },
      ...{ start: '', optional: true },
    },
  ]);
  const job = useJob('recordingAtOnce');
  const blockS = typed.value('block');
  const { answer } = job;
  return (
    <Ask
      title="Both receivers at once"
      hint="no fading stands between the antennas; the antennas exchanged once, the receivers’ difference falls out"
      typed={typed}
      label="Compare the channels"
      job={job}
      onAsk={
        blockS === undefined || !typed.sound
          ? undefined
          : () => job.start({ open, signal, quiet, blockS, exchangedAtS: typed.value('exchanged') ?? null })
      }
    >
      {answer && (
        <>
          <p className="max-w-prose">
            {answer.pairs.length} blocks with both antennas.{' '}
            {answer.receivers ? (
              <>
                The second receiver reads {fixed(answer.receivers.levelDb, 1)} dB of signal and{' '}
                {fixed(answer.receivers.noiseDb, 1)} dB of noise more than the first; that is taken out (measured).
              </>
            ) : (
              <span className="text-caution">
                The antennas were not exchanged: what the receivers differ by is in every difference. Exchange them
                halfway, and type when.
              </span>
            )}
          </p>
          <IntoTrial data={data} pairs={answer.pairs} {...into} />
        </>
      )}
    </Ask>
  );
}
