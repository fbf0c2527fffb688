import type { Change } from '@velvet-reed/contract';
import {
  CoreError,
  expectedNoise,
  fixed,
  floorPattern,
  floorSteps,
  frequencyText,
  noisePowerDbm,
  parseQuantity,
  readFloorCsv,
  readMoment,
  type FloorReading,
  type FloorStep,
} from '@velvet-reed/core';
import { useState } from 'react';
import { recordSpectrum, useInstruments } from '../../data/instruments';
import { entry, showTrouble, useWrite, type StationData } from '../../data/station';
import { Button } from '../../ui/button';
import { Section } from '../../ui/stage';
import { Empty } from '../../ui/states';
import { TraceChart } from '../../ui/trace-chart';
import { TypedFields } from '../../ui/typed-numbers';
import { useTypedNumbers } from '../../ui/use-typed-numbers';
import { inDb, Value } from '../../ui/value';

/** Readings of a batch; more go in several. */
const BATCH = 400;
/** Readings on one frequency belong together within this share of it. */
const SAME = 0.01;
const HOUR_MS = 3_600_000;
const MINUTE_MS = 60_000;
/** Shorter logs are drawn over minutes. */
const SHORT_MS = 2 * HOUR_MS;
const clock = (ms: number): string => new Date(ms).toISOString().slice(11, 16);
const today = (): string => new Date().toISOString().slice(0, 10);

/** The floor over time: steps beside sun times, day and night, weekdays. */
export function FloorLog({ data }: { readonly data: StationData }) {
  const { trySave } = useWrite();
  const [day, setDay] = useState(today);
  const [time, setTime] = useState('');
  const [level, setLevel] = useState('');
  const [fault, setFault] = useState('');
  const typed = useTypedNumbers([
    { name: 'freq', label: 'Frequency of the log', dimension: 'frequency', bareUnit: 'kHz', start: '136 kHz' },
  ]);
  const freqHz = typed.value('freq');
  const readings = data.floorReadings
    .filter((one) => freqHz !== undefined && Math.abs(one.freqHz / freqHz - 1) < SAME)
    .sort((a, b) => a.atMs - b.atMs);
  const saveAll = async (list: readonly FloorReading[], done: string): Promise<void> => {
    if (freqHz === undefined) return;
    for (let i = 0; i < list.length; i += BATCH)
      await trySave(
        list.slice(i, i + BATCH).map(({ atMs, levelDbm }): Change => ({
          op: 'create',
          resource: 'floorReadings',
          values: { atMs, levelDbm, freqHz },
        })),
        i + BATCH >= list.length ? done : undefined,
      );
  };
  const add = (): void => {
    const atMs = time.trim() === '' ? Date.now() : readMoment(time, day);
    if (atMs === undefined)
      return setFault(`"${time}" is no time. Write it as 09:13, in UTC, or leave it empty for now.`);
    try {
      const levelDbm = parseQuantity(level, 'level', { bareUnit: 'dBm' });
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
      const read = readFloorCsv(await file.text(), day);
      setFault('');
      await saveAll(read, `${read.length} readings imported.`);
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
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
          onRead={(levelDbm) => void saveAll([{ atMs: Date.now(), levelDbm }], 'Logged.')}
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
        <Log data={data} readings={readings} freqHz={freqHz ?? 0} />
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
  readonly onRead: (levelDbm: number) => void;
}) {
  const instruments = useInstruments();
  const receiver = instruments.data?.find(({ kind }) => kind === 'receiver');
  if (!receiver || freqHz === undefined) return null;
  const read = async (): Promise<void> => {
    try {
      const half = Math.max(2000, freqHz * SPAN_SHARE);
      const request = { startHz: freqHz - half, stopHz: freqHz + half, points: 101, bandwidthHz: BANDWIDTH_HZ };
      const { levelDb } = await recordSpectrum(receiver.id, request);
      onRead([...levelDb].sort((a, b) => a - b)[levelDb.length >> 1]);
    } catch (error) {
      showTrouble(error);
    }
  };
  return (
    <Button onClick={() => void read()}>Read it with the {receiver.standIn ? 'stand-in receiver' : 'receiver'}</Button>
  );
}

function Log({
  data,
  readings,
  freqHz,
}: {
  readonly data: StationData;
  readonly readings: readonly FloorReading[];
  readonly freqHz: number;
}) {
  const { trySave } = useWrite();
  const steps = floorSteps(readings, data.station);
  const pattern = floorPattern(readings, data.station);
  const begin = readings[0].atMs;
  const short = readings[readings.length - 1].atMs - begin < SHORT_MS;
  const unitMs = short ? MINUTE_MS : HOUR_MS;
  const points = readings.map(({ atMs, levelDbm }) => ({ x: (atMs - begin) / unitMs, y: levelDbm }));
  const end = Math.max(0.05, points[points.length - 1].x);
  const levels = readings.map(({ levelDbm }) => levelDbm);
  const low = 10 * Math.floor(Math.min(...levels) / 10);
  const high = 10 * Math.ceil(Math.max(...levels) / 10 + 0.01);
  const ticks = Array.from({ length: Math.round((high - low) / 10) + 1 }, (_, i) => low + 10 * i);
  const expected = expectedNoise(data.station.environment, freqHz, data.station.noiseOffsetDb);
  return (
    <div className="mt-3">
      <p role="status">
        {steps.length === 0
          ? 'No lasting step in this log.'
          : steps.map((step) => <StepLine key={step.atMs} step={step} switched={switchedNear(data, step.atMs)} />)}
      </p>
      <TraceChart
        label={`Noise floor over ${short ? 'minutes' : 'hours'} since the first reading`}
        traces={[{ id: 'floor', name: 'floor', points, look: 0 }]}
        bands={[]}
        markers={steps.map((step, i) => ({ name: `step ${i + 1}`, x: (step.atMs - begin) / unitMs }))}
        visible={[0, end]}
        drawn={[0, end]}
        range={[low, high]}
        ticks={ticks}
        logarithmic={false}
        height={200}
      />
      <p className="text-xs text-dim">
        dBm over {short ? 'minutes' : 'hours'} since {new Date(begin).toISOString().slice(0, 16).replace('T', ' ')} UTC.
        The class expects {fixed(noisePowerDbm(expected.faDb, 2500), 0)} dBm in 2.5 kHz at a lossless antenna on{' '}
        {frequencyText(freqHz)} (a median, ±10 dB).
      </p>
      <p className="mt-1 text-sm">
        Medians: {pattern.light.map((one) => `${one.name} ${fixed(one.medianDbm, 1)} dBm (${one.count})`).join(', ')};{' '}
        {pattern.weekdays.map((one) => `${one.name} ${fixed(one.medianDbm, 1)} dBm`).join(', ')}.
      </p>
      {steps.length > 0 && (
        <Button
          className="mt-1"
          onClick={() =>
            void trySave(
              steps.map((step) => entry('noise', `Floor on ${frequencyText(freqHz)}: ${stepText(step)}`)),
              'Written into the notebook.',
            )
          }
        >
          Write the steps into the notebook
        </Button>
      )}
    </div>
  );
}

function stepText(step: FloorStep): string {
  const when = `step of ${fixed(step.stepDb, 1).replace('-', '−')} dB at ${clock(step.atMs)} UTC`;
  const sun = step.sun
    ? `, ${fixed(Math.abs(step.sun.minutesAfter), 0)} min ${step.sun.minutesAfter >= 0 ? 'after' : 'before'} computed ${step.sun.event}`
    : '';
  return `${when}${sun}: ${step.hint}.`;
}

/** A device that was switched this close to a step is named beside it, ms. */
const SWITCHED_MS = 3 * MINUTE_MS;
const switchedNear = (data: StationData, atMs: number): string | undefined =>
  data.deviceSwitchings.find((one) => Math.abs(one.atMs - atMs) <= SWITCHED_MS)?.device;

function StepLine({ step, switched }: { readonly step: FloorStep; readonly switched: string | undefined }) {
  return (
    <span className="block">
      Step of{' '}
      <Value
        strong
        shown={inDb(step.stepDb, 1)}
        provenance={{
          origin: 'measured',
          formula: 'mean level after − before, outliers left out; a step is 2 dB and four scatters at least',
          inputs: [
            ['before', `${fixed(step.beforeDbm, 1)} dBm`],
            ['after', `${fixed(step.afterDbm, 1)} dBm`],
          ],
          source: 'your log; sun by the almanac',
        }}
      />{' '}
      at {clock(step.atMs)} UTC
      {step.sun
        ? `, ${fixed(Math.abs(step.sun.minutesAfter), 0)} min ${step.sun.minutesAfter >= 0 ? 'after' : 'before'} computed ${step.sun.event}`
        : ''}
      : {step.hint}.{switched ? ` You switched ${switched} within three minutes of it.` : ''}
    </span>
  );
}
