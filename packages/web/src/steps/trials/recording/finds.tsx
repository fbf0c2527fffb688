import { fixed, frequencyText } from '@velvet-reed/core/units';
import { useMemo } from 'react';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import type { Saved } from '@velvet-reed/contract';
import { Button } from '../../../ui/button';
import { Curves } from '../../../ui/curves';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import type { OpenRecording } from '../../../workers/recording-jobs';
import { useJob } from '../../../workers/use-job';
import { Ask } from './ask';
import { levelText, timeText } from './view';

/** The noise of the whole band, what ticks in it and what stands at equal spacing. */
export function NoiseOfRecording({
  open,
  record,
  startMs,
  fullScaleDbm,
}: {
  readonly open: OpenRecording;
  readonly record: Saved<'recordings'> | undefined;
  readonly startMs: number | null;
  readonly fullScaleDbm: number | undefined;
}) {
  const { trySave } = useWrite();
  const typed = useTypedNumbers([
    { name: 'bandwidth', label: 'Noise in a bandwidth of', dimension: 'frequency', bareUnit: 'Hz', start: '100 Hz' },
  ]);
  const job = useJob('recordingNoise');
  const { answer } = job;
  const bandwidthHz = typed.value('bandwidth');
  const traces = useMemo(
    () =>
      answer
        ? [
            {
              ...{ id: 'floor', name: 'noise', look: 0 },
              points: answer.floor.atS.map((x, i) => ({ x, y: answer.floor.levelDbfs[i] + (fullScaleDbm ?? 0) })),
            },
          ]
        : [],
    [answer, fullScaleDbm],
  );
  const ys = traces.flatMap(({ points }) => points.map(({ y }) => y));
  const range = [Math.floor(Math.min(...ys, -200) / 10) * 10, Math.ceil(Math.max(...ys) / 10) * 10] as const;
  const low = ys.length > 0 ? Math.floor(Math.min(...ys) / 10) * 10 : range[0];
  const lastS = answer?.floor.atS.at(-1) ?? 1;
  const unit = fullScaleDbm === undefined ? 'dBFS' : 'dBm';
  const intoLog = async (): Promise<void> => {
    if (!answer || fullScaleDbm === undefined || !record) return;
    const every = Math.max(1, Math.ceil(answer.floor.atS.length / MOST_LOGGED));
    const from = startMs ?? Date.parse(record.createdAt);
    await trySave(
      [
        ...answer.floor.atS.flatMap((at, i) =>
          i % every === 0
            ? [
                {
                  op: 'create' as const,
                  resource: 'levels' as const,
                  values: {
                    ...{ kind: 'log' as const, atMs: Math.round(from + 1000 * at), freqHz: open.centreHz },
                    ...{ levelDbm: answer.floor.levelDbfs[i] + fullScaleDbm, bandwidthHz: bandwidthHz ?? null },
                  },
                },
              ]
            : [],
        ),
        entry('noise', `The noise of the recording ${record.name} put into the log.`),
      ],
      'The noise log has it.',
    );
  };
  return (
    <Ask
      title="Noise, ticks and combs"
      hint="the whole band; ticks do not count as noise"
      typed={typed}
      label="Read the noise"
      job={job}
      onAsk={bandwidthHz ? () => job.start({ open, bandwidthHz }) : undefined}
    >
      {answer && (
        <>
          <ul className="max-w-prose list-disc pl-5">
            <li>Noise {levelText(answer.floor.medianDbfs, fullScaleDbm)} in the middle of the time (measured).</li>
            {answer.floor.steps.map((step) => (
              <li key={step.atS}>
                Step at {timeText(step.atS)}: from {levelText(step.beforeDbfs, fullScaleDbm)} to{' '}
                {levelText(step.afterDbfs, fullScaleDbm)}.
              </li>
            ))}
            <li>
              {answer.pulses.count === 0
                ? 'Nothing ticks.'
                : answer.pulses.intervalS === null
                  ? `${answer.pulses.count} ticks.`
                  : answer.pulses.regular
                    ? `${answer.pulses.count} ticks, one every ${answer.pulses.intervalS.toPrecision(4)} s: something with a clock.`
                    : `${answer.pulses.count} crashes at uneven times, usually ${answer.pulses.intervalS.toPrecision(2)} s apart: ${((60 * answer.pulses.count) / Math.max(1, lastS)).toFixed(1)} a minute.`}
            </li>
            <li>
              {answer.comb
                ? `${answer.comb.count} carriers ${frequencyText(answer.comb.spacingHz, 4)} apart, the first at ${frequencyText(answer.comb.firstHz, 5)}: one source, usually a switched supply.`
                : 'No carriers at equal spacing.'}
            </li>
          </ul>
          <Curves
            name="noise-of-recording"
            label="Noise over time; the numbers stand below"
            x={{ head: 'time (s)', decimals: 0 }}
            y={{ head: `noise (${unit})`, decimals: 1 }}
            traces={traces}
            bands={[]}
            markers={answer.floor.steps.map(({ atS }) => ({ name: 'step', x: atS }))}
            visible={[0, lastS]}
            drawn={[0, lastS]}
            range={[low, range[1]]}
            ticks={[low, range[1]]}
            logarithmic={false}
            height={150}
            caption={`seconds; ${unit} in the bandwidth above`}
          />
          {record && fullScaleDbm !== undefined && open.centreHz > 0 ? (
            <Button onClick={() => void intoLog()}>Put it into the noise log</Button>
          ) : (
            <p className="max-w-prose text-sm text-dim">
              It goes into the noise log once the settings are kept with the centre frequency and the receiver’s full
              scale: a log is in dBm at a frequency.
            </p>
          )}
        </>
      )}
    </Ask>
  );
}
/** Values of one recording that go into the log: a longer one is thinned. */
const MOST_LOGGED = 300;

/** Offset of the receiver's scale from a station of known frequency. */
export function StandardOfRecording({
  data,
  open,
  record,
}: {
  readonly data: StationData;
  readonly open: OpenRecording;
  readonly record: Saved<'recordings'> | undefined;
}) {
  const { trySave } = useWrite();
  const typed = useTypedNumbers([
    { name: 'standard', label: 'Standard’s true frequency', dimension: 'frequency', bareUnit: 'MHz', start: '' },
  ]);
  const job = useJob('recordingStandard');
  const { answer } = job;
  const standardHz = typed.value('standard');
  const receiver = data.receivers.find(({ id }) => id === record?.receiverId);
  const keep = (ppm: number, offsetHz: number): Promise<unknown> =>
    trySave(
      [
        ...(receiver
          ? [
              {
                ...{
                  op: 'update' as const,
                  resource: 'receivers' as const,
                  id: receiver.id,
                  version: receiver.version,
                },
                values: { offsetPpm: Number(ppm.toFixed(4)) },
              },
            ]
          : []),
        entry(
          'path',
          `${receiver?.name ?? 'Receiver'}: scale off by ${fixed(ppm, 3)} ppm, ${fixed(offsetHz, 2)} Hz at ${frequencyText(standardHz ?? 0)}, from a recording.`,
        ),
      ],
      receiver ? `${receiver.name} keeps its offset.` : 'Written into the notebook.',
    );
  return (
    <Ask
      title="Frequency standard"
      hint="how far the receiver’s scale is off"
      typed={typed}
      label="Read the offset"
      job={job}
      onAsk={standardHz ? () => job.start({ open, standardHz }) : undefined}
    >
      {answer && (
        <>
          <p className="max-w-prose">
            The scale shows it {fixed(Math.abs(answer.offsetHz), 2)} Hz too {answer.offsetHz >= 0 ? 'high' : 'low'} (95
            % {fixed(answer.lowHz, 2)} to {fixed(answer.highHz, 2)} Hz): {fixed(answer.ppm, 3)} ppm. Drift{' '}
            {fixed(answer.driftHzPerMin, 2)} Hz a minute (measured).
          </p>
          <Button className="mt-1" onClick={() => void keep(answer.ppm, answer.offsetHz)}>
            {receiver ? `Keep it with ${receiver.name}` : 'Write this into the notebook'}
          </Button>
          {!receiver && (
            <p className="mt-1 max-w-prose text-sm text-dim">
              Say above which receiver made the recording, and keep the settings: then the offset stays with it.
            </p>
          )}
        </>
      )}
    </Ask>
  );
}
