import type { Change } from '@velvet-reed/contract';
import { CoreError } from '@velvet-reed/core/errors';
import { type FloorReading, readFloorCsv, readMoment } from '@velvet-reed/core/formats';
import { fixed, parseQuantity } from '@velvet-reed/core/units';
import { useState } from 'react';
import { toast } from 'sonner';
import { recordSpectrum, useInstruments } from '../../../data/instruments';
import type { StationData } from '@velvet-reed/station/record';
import { showTrouble, useWrite } from '../../../data/station';
import { levelsOf } from '@velvet-reed/station/levels';
import { NotAnswered, withAnswers } from '../../../data/table-answers';
import { fileText, logPreview } from '../../../data/table-previews';
import { momentText } from '../../../ui/moment-text';
import { Button } from '../../../ui/button';
import { Section } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { typedFrequency } from '../../../ui/typed';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { ChangeButton, DeleteButton } from '../../../ui/record-row';
import type { FieldSpec } from '../../../ui/record-form';
import { FloorChart } from './floor-chart';

/** Latest readings that are listed one by one. */
const SHOWN = 200;
const LEVEL_FIELDS: readonly FieldSpec[] = [
  { name: 'levelDbm', label: 'Floor', kind: 'quantity', dimension: 'level', bareUnit: 'dBm', freqField: 'freqHz' },
];
/** Readings of a batch; more go in several. */
const BATCH = 400;
/** Readings on one frequency belong together within this share of it. */
const SAME = 0.01;
const today = (): string => new Date().toISOString().slice(0, 10);

/** The floor over time: steps beside sun times, day and night, weekdays. */
export function FloorLog({ data }: { readonly data: StationData }) {
  const { trySave } = useWrite();
  const [day, setDay] = useState(today);
  const [time, setTime] = useState('');
  const [level, setLevel] = useState('');
  const [fault, setFault] = useState('');
  const latest = levelsOf(data).log.at(-1);
  const start = latest ? typedFrequency(latest.freqHz) : '136 kHz';
  const typed = useTypedNumbers([
    { name: 'freq', label: 'Frequency of the log', dimension: 'frequency', bareUnit: 'kHz', start },
  ]);
  const freqHz = typed.value('freq');
  const readings = levelsOf(data)
    .log.filter((one) => freqHz !== undefined && Math.abs(one.freqHz / freqHz - 1) < SAME)
    .sort((a, b) => a.atMs - b.atMs);
  const saveAll = async (
    list: readonly FloorReading[],
    done: string,
    bandwidthHz: number | null = null,
  ): Promise<void> => {
    if (freqHz === undefined) return;
    for (let i = 0; i < list.length; i += BATCH)
      await trySave(
        list.slice(i, i + BATCH).map(({ atMs, levelDbm }): Change => ({
          op: 'create',
          resource: 'levels',
          values: { kind: 'log', atMs, levelDbm, freqHz, bandwidthHz },
        })),
        i + BATCH >= list.length ? done : undefined,
      );
  };
  const add = (): void => {
    const atMs = time.trim() === '' ? Date.now() : readMoment(time, day);
    if (atMs === undefined)
      return setFault(`"${time}" is not a time. Write it as 09:13, in UTC, or leave it empty for now.`);
    try {
      const levelDbm = parseQuantity(level, 'level', { bareUnit: 'dBm', freqHz });
      if (readings.some((one) => one.atMs === atMs))
        return setFault('There is a reading at this moment already. Choose another time.');
      setFault('');
      setLevel('');
      setTime('');
      void saveAll([{ atMs, levelDbm }], 'Logged.');
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      setFault(error.message);
    }
  };
  const importFile = async (file: File): Promise<void> => {
    try {
      const text = await fileText(file);
      const read = await withAnswers(
        file.name,
        (answer) => Promise.resolve().then(() => readFloorCsv(text, { ...answer, day })),
        logPreview(text, day),
      );
      setFault('');
      await saveAll(read, `${read.length} readings imported.`);
    } catch (error) {
      if (!(error instanceof CoreError || error instanceof NotAnswered)) throw error;
      setFault(`${file.name}: ${error.message} Nothing was taken.`);
    }
  };
  return (
    <Section title="Noise log" hint="the floor over time, one frequency at a time; steps beside the sun">
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        <TypedFields of={typed} />
        <label className="text-sm text-dim">
          Day, UTC
          <input
            type="date"
            className="mt-0 block text-ink"
            value={day}
            onChange={(event) => setDay(event.target.value)}
          />
        </label>
        <label className="text-sm text-dim">
          Time, UTC
          <input
            className="block w-24 font-mono text-ink"
            value={time}
            placeholder="now"
            onChange={(event) => setTime(event.target.value)}
          />
        </label>
        <label className="text-sm text-dim">
          Floor
          <input
            className="block w-28 font-mono text-ink"
            value={level}
            placeholder="-88.4 dBm"
            onChange={(event) => setLevel(event.target.value)}
            onKeyDown={(event) => event.key === 'Enter' && add()}
          />
        </label>
        <Button onClick={add}>Log the floor</Button>
        <FromReceiver
          freqHz={freqHz}
          onRead={(levelDbm, bandwidthHz) => void saveAll([{ atMs: Date.now(), levelDbm }], 'Logged.', bandwidthHz)}
        />
        <label className="text-sm text-dim">
          Log as CSV
          <input
            type="file"
            accept=".csv,.txt"
            className="ml-2 max-w-60 border-0 text-sm text-ink"
            onChange={(event) => {
              const file = event.target.files?.[0];
              event.target.value = '';
              if (file) void importFile(file);
            }}
          />
        </label>
      </div>
      {fault && (
        <p role="alert" className="mt-1 text-danger">
          {fault}
        </p>
      )}
      {readings.length < 2 ? (
        <Empty>Log the floor every minute or so, or import a log: steps are found from eight readings on.</Empty>
      ) : (
        <FloorChart data={data} readings={readings} freqHz={freqHz ?? 0} />
      )}
      {readings.length > 0 && (
        <details className="mt-2" open={readings.length < 2}>
          <summary>Readings, to change or delete ({readings.length})</summary>
          <ul className="max-h-80 max-w-2xl overflow-y-auto border-t border-rule">
            {readings
              .slice(-SHOWN)
              .reverse()
              .map((one) => (
                <li key={one.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-rule">
                  <time className="grow font-mono text-sm">{momentText(one.atMs)} UTC</time>
                  <span className="font-mono">{fixed(one.levelDbm, 1)} dBm</span>
                  <ChangeButton
                    resource="levels"
                    record={one.record}
                    name={`floor of ${momentText(one.atMs)}`}
                    fields={LEVEL_FIELDS}
                  />
                  <DeleteButton resource="levels" record={one.record} name={`Floor of ${momentText(one.atMs)}`} />
                </li>
              ))}
          </ul>
        </details>
      )}
    </Section>
  );
}

/** Points and bandwidth of a floor taken with a receiver. */
const SPAN_SHARE = 0.005;
const BANDWIDTH_HZ = 100;

function FromReceiver({
  freqHz,
  onRead,
}: {
  readonly freqHz: number | undefined;
  readonly onRead: (levelDbm: number, bandwidthHz: number) => void;
}) {
  const instruments = useInstruments();
  const receiver = instruments.data?.find(({ kind }) => kind === 'receiver');
  if (!receiver || freqHz === undefined) return null;
  const read = async (): Promise<void> => {
    try {
      const half = Math.max(2000, freqHz * SPAN_SHARE);
      const request = { startHz: freqHz - half, stopHz: freqHz + half, points: 101, bandwidthHz: BANDWIDTH_HZ };
      const { levelDb, told, bandwidthHz } = await recordSpectrum(receiver.id, request);
      onRead([...levelDb].sort((a, b) => a - b)[levelDb.length >> 1], bandwidthHz);
      if (told !== '') toast.info(told);
    } catch (error) {
      showTrouble(error);
    }
  };
  return (
    <Button onClick={() => void read()}>Read it with the {receiver.standIn ? 'stand-in receiver' : 'receiver'}</Button>
  );
}
