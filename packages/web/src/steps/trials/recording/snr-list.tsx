import type { Saved } from '@velvet-reed/contract';
import { comparedSnr, type ListedSnr } from '@velvet-reed/core/recording';
import { plannedInterval } from '@velvet-reed/core/trial';
import { fixed, parseQuantity } from '@velvet-reed/core/units';
import { useState } from 'react';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { Wide } from '../../../ui/section';
import { tried } from '../../../ui/tried';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { runJob } from '../../../workers/pool';
import type { OpenRecording } from '../../../workers/recording-jobs';
import { Ask } from './ask';
import { chosenOf } from './use-opened';
import { exactHz } from './view';

/** One recording read at the list. */
interface ReadList {
  readonly name: string;
  readonly listed: readonly ListedSnr[];
  readonly crashesPerMinute: number;
}

/** Frequencies out of a line: kHz where no unit stands. */
const frequenciesIn = (text: string): readonly number[] =>
  text
    .split(/[,;\n]+/)
    .map((part) => part.trim())
    .filter(Boolean)
    .map((part) => parseQuantity(part, 'frequency', { bareUnit: 'kHz' }));

const marked = (db: number | null, half: number | null | undefined): string =>
  db === null ? 'not heard' : `${fixed(db, 1)}${half == null ? '' : ` ± ${half.toFixed(1)}`}`;
const halfOf = ({ interval }: ListedSnr): number | null => (interval ? (interval.high - interval.low) / 2 : null);

/** SNR at a list of frequencies, one recording or two side by side: receivers, or antennas, by the same stations. */
export function SnrListOfRecording({
  data,
  open,
  record,
  name,
}: {
  readonly data: StationData;
  readonly open: OpenRecording;
  readonly record: Saved<'recordings'> | undefined;
  readonly name: string;
}) {
  const { trySave } = useWrite();
  const [text, setText] = useState('');
  const typed = useTypedNumbers([
    {
      ...{ name: 'bandwidth', label: 'Bandwidth of each', dimension: 'frequency', bareUnit: 'Hz' },
      start: record?.bandwidthHz ? `${record.bandwidthHz} Hz` : '',
    },
  ]);
  const [first, setFirst] = useState<ReadList>();
  const [second, setSecond] = useState<ReadList>();
  const [state, setState] = useState<{ readonly busy: boolean; readonly fault?: string }>({ busy: false });
  const list = tried(() => frequenciesIn(text));
  const bandwidthHz = typed.value('bandwidth');
  const frequenciesHz = list.value;
  const ready = frequenciesHz && frequenciesHz.length > 0 && bandwidthHz !== undefined;
  const read = async (files?: readonly File[]): Promise<void> => {
    if (!ready) return;
    setState({ busy: true });
    try {
      let other: OpenRecording = open;
      let title = name;
      if (files) {
        const { file, metaText, ...chosen } = await chosenOf(files);
        const head = await runJob('openRecording', { file, key: '', ...(metaText === undefined ? {} : { metaText }) });
        const { layout } = head.answer;
        // what its file does not say is as with the recording on the screen
        other = { ...open, file, layout, centreHz: layout.captures[0]?.centreHz ?? open.centreHz };
        title = chosen.name;
      }
      const { answer } = await runJob('recordingList', { open: other, frequenciesHz, bandwidthHz });
      if (files) setSecond({ name: title, ...answer });
      else {
        setFirst({ name: title, ...answer });
        setSecond(undefined);
      }
      setState({ busy: false });
    } catch (error) {
      setState({ busy: false, fault: error instanceof Error ? error.message : 'The list could not be read.' });
    }
  };
  const compared = first && second ? comparedSnr(first.listed, second.listed) : undefined;
  const overall =
    compared &&
    plannedInterval(compared.rows.flatMap(({ differenceDb }) => (differenceDb === null ? [] : [differenceDb])));
  const sentence =
    compared?.overall === undefined
      ? ''
      : `${second?.name ?? ''} less ${first?.name ?? ''}: ${fixed(compared.overall.mean, 1)} dB over ${compared.overall.n} frequencies${
          overall ? `, 95 % ${fixed(overall.low, 1)} to ${fixed(overall.high, 1)} dB` : ''
        }${overall && (overall.low > 0 || overall.high < 0) && compared.overall.n >= LEAST_FREQUENCIES ? '' : ': not proven'}.`;
  return (
    <Ask
      title="SNR at a list of frequencies"
      hint="one run through the file; noise is read on the quieter side of each"
      typed={typed}
      label="Read the list"
      job={list.fault ? { ...state, fault: list.fault } : state}
      onAsk={ready && !state.busy ? () => void read() : undefined}
      fields={
        <label className="block text-sm text-dim">
          Frequencies (kHz, with commas between)
          <input
            className="mt-1 block w-full min-w-64 font-mono text-ink"
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        </label>
      }
    >
      {first && (
        <>
          <Wide label="SNR by frequency">
            <table className="w-full max-w-3xl">
              <caption className="text-left text-sm text-dim">
                dB, measured; ± is 95 % of the blocks of time that count as independent
              </caption>
              <thead>
                <tr>
                  <th scope="col">Frequency</th>
                  <th scope="col">{first.name}</th>
                  {second && <th scope="col">{second.name}</th>}
                  {second && <th scope="col">second less first</th>}
                </tr>
              </thead>
              <tbody>
                {first.listed.map((one, i) => {
                  const row = compared?.rows[i];
                  const other = second?.listed[i];
                  return (
                    <tr key={`${one.freqHz} ${i}`}>
                      <th scope="row" className="whitespace-nowrap text-ink">
                        {exactHz(one.freqHz)}
                      </th>
                      <td className="font-mono whitespace-nowrap">{marked(one.snrDb, halfOf(one))}</td>
                      {other && <td className="font-mono whitespace-nowrap">{marked(other.snrDb, halfOf(other))}</td>}
                      {row && (
                        <td className="font-mono whitespace-nowrap">
                          {row.differenceDb === null ? '–' : marked(row.differenceDb, row.halfDb)}
                        </td>
                      )}
                    </tr>
                  );
                })}
                <tr>
                  <th scope="row" className="text-ink">
                    Crashes a minute
                  </th>
                  <td className="font-mono">{first.crashesPerMinute.toFixed(1)}</td>
                  {second && <td className="font-mono">{second.crashesPerMinute.toFixed(1)}</td>}
                  {second && <td />}
                </tr>
              </tbody>
            </table>
          </Wide>
          {sentence && <p className="mt-1 max-w-prose">{sentence}</p>}
          <div className="mt-2 flex flex-wrap items-end gap-3">
            <label className="text-sm text-dim">
              The same list in another recording
              <input
                type="file"
                multiple
                accept=".wav,.sigmf-meta,.sigmf-data"
                className="mt-1 block max-w-60 border-0 text-sm text-ink"
                onChange={(event) => {
                  const files = [...(event.target.files ?? [])];
                  event.target.value = '';
                  if (files.length > 0) void read(files);
                }}
              />
            </label>
            <Button
              look="quiet"
              onClick={() =>
                void trySave(
                  [
                    entry(
                      'trials',
                      sentence ||
                        `${first.name}: ${first.listed.map((one) => `${exactHz(one.freqHz)} ${marked(one.snrDb, halfOf(one))}`).join(', ')} dB SNR in ${bandwidthHz ?? 0} Hz.`,
                    ),
                  ],
                  'Written into the notebook.',
                )
              }
            >
              Write this into the notebook
            </Button>
          </div>
        </>
      )}
      {!first && data.recordings.length === 0 && (
        <p className="max-w-prose text-sm text-dim">
          Ten stations all over the band say more of a receiver than one strong one.
        </p>
      )}
    </Ask>
  );
}
/** Fewer frequencies prove nothing of all others. */
const LEAST_FREQUENCIES = 6;
