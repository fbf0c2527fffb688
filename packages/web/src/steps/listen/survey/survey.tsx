import { CoreError } from '@velvet-reed/core/errors';
import { openingAt } from '@velvet-reed/core/site';
import { HEARD_DB, SURVEY_SIGNALS, surveyRows, surveySummary } from '@velvet-reed/core/trial';
import { fixed, frequencyText, parseQuantity, inDb } from '@velvet-reed/core/units';
import { useState } from 'react';
import { levelsOf } from '@velvet-reed/station/levels';
import { useMoment } from '../../../data/moment';
import type { StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { AntennaPicker } from '../../../ui/antenna-picker';
import { Button } from '../../../ui/button';
import { saveCsv } from '../../../ui/export';
import { Section } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { Value } from '../../../ui/value';
import { ChangeButton, DeleteButton } from '../../../ui/record-row';
import type { FieldSpec } from '../../../ui/record-form';

const READING_FIELDS: readonly FieldSpec[] = [
  { name: 'levelDbm', label: 'Level', kind: 'quantity', dimension: 'level', bareUnit: 'dBm', freqField: 'freqHz' },
  {
    name: 'againstDbm',
    label: 'Noise beside it',
    kind: 'quantity',
    dimension: 'level',
    bareUnit: 'dBm',
    freqField: 'freqHz',
  },
];

/** Of an antenna that is still there. */
const onAnAntenna = <T extends { readonly antennaId: number | null }>(
  one: T,
): one is T & { readonly antennaId: number } => one.antennaId !== null;

type Target = StationData['targets'][number];

/** A guided round through ten reference signals on one antenna. */
export function Survey({ data }: { readonly data: StationData }) {
  const [chosen, setChosen] = useState<number>();
  const antennaId = chosen ?? data.antennas[0]?.id;
  const signals = [...data.targets].sort((a, b) => b.weight - a.weight).slice(0, SURVEY_SIGNALS);
  const name = (id: number | null): string | undefined => data.antennas.find((one) => one.id === id)?.name;
  const { surveys } = levelsOf(data);
  const summary = surveySummary(surveys.filter(onAnAntenna));
  return (
    <Section title="Band survey" hint="the ten weightiest targets as reference signals, one antenna at a time">
      {antennaId === undefined || signals.length === 0 ? (
        <Empty>A survey needs at least one target and one drafted antenna.</Empty>
      ) : (
        <>
          <AntennaPicker data={data} value={antennaId} onPick={setChosen} label="Listening on" />
          <ol
            data-evidence
            className="evidence mt-2 max-w-4xl overflow-y-auto border-t border-rule"
            aria-label="Reference signals"
          >
            {signals.map((target) => (
              <Signal key={`${antennaId} ${target.id}`} data={data} target={target} antennaId={antennaId} />
            ))}
          </ol>
        </>
      )}
      {summary.length > 0 && (
        <ul className="mt-3 list-disc pl-5" aria-label="Survey so far">
          {summary.map((one) => (
            <li key={one.antennaId}>
              {name(one.antennaId) ?? 'deleted antenna'}: {one.heard} of {one.asked} heard, median{' '}
              <Value
                shown={inDb(one.medianSnrDb, 1, 'dB SNR')}
                provenance={{
                  origin: 'measured',
                  formula: `median of level − noise, latest reading of each signal; heard from ${HEARD_DB} dB`,
                  source: 'your readings',
                }}
              />
            </li>
          ))}
        </ul>
      )}
      {surveys.length > 0 && (
        <details className="mt-2">
          <summary>Readings, to change or delete</summary>
          <ul className="max-w-4xl border-t border-rule">
            {surveys.map((one) => (
              <li key={one.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-rule">
                <span className="grow">
                  {one.name} on {name(one.antennaId) ?? 'a deleted antenna'}
                </span>
                <span className="font-mono text-sm">
                  {fixed(one.levelDbm, 1)} / {fixed(one.noiseDbm, 1)} dBm
                </span>
                <ChangeButton
                  resource="levels"
                  record={one.record}
                  name={`Reading of ${one.name}`}
                  fields={READING_FIELDS}
                />
                <DeleteButton resource="levels" record={one.record} name={`Reading of ${one.name}`} />
              </li>
            ))}
          </ul>
        </details>
      )}
      {surveys.length > 0 && (
        <div className="mt-2">
          <Button
            look="quiet"
            onClick={() =>
              saveCsv(
                'band-survey.csv',
                ['time_utc', 'signal', 'freq_hz', 'level_dbm', 'snr_db', 'antenna'],
                surveyRows(surveys.filter(onAnAntenna), (id) => name(id) ?? 'deleted antenna'),
              )
            }
          >
            Survey as CSV
          </Button>
        </div>
      )}
    </Section>
  );
}

/** Whether the hour favours a signal, as a hint which one to try now. */
function hint(data: StationData, target: Target, atMs: number): string {
  const { quality, always } = openingAt(target, data.station, atMs);
  return always ? 'any hour' : `${quality} at this hour`;
}

function Signal({
  data,
  target,
  antennaId,
}: {
  readonly data: StationData;
  readonly target: Target;
  readonly antennaId: number;
}) {
  const { trySave } = useWrite();
  const { atMs } = useMoment();
  const [level, setLevel] = useState('');
  const [noise, setNoise] = useState('');
  const [fault, setFault] = useState('');
  const freqHz = (target.lowHz + target.highHz) / 2;
  const last = levelsOf(data)
    .surveys.filter((one) => one.antennaId === antennaId && one.name === target.name)
    .at(-1);
  const keep = async (): Promise<void> => {
    try {
      const options = { bareUnit: 'dBm', freqHz };
      const values = {
        kind: 'survey' as const,
        antennaId,
        subject: target.name,
        freqHz,
        levelDbm: parseQuantity(level, 'level', options),
        againstDbm: parseQuantity(noise, 'level', options),
        atMs: Date.now(),
      };
      if (values.levelDbm < values.againstDbm)
        return setFault('The level lies below the noise. Exchange the two, or read again.');
      setFault('');
      await trySave([{ op: 'create', resource: 'levels', values }], `${target.name} noted.`);
      setLevel('');
      setNoise('');
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      setFault(error.message);
    }
  };
  return (
    <li className="border-b border-rule py-1">
      <form
        className="flex flex-wrap items-center gap-x-4 gap-y-1"
        onSubmit={(event) => {
          event.preventDefault();
          void keep();
        }}
      >
        <span className="grow">
          {target.name} <span className="font-mono text-sm text-dim">{frequencyText(freqHz)}</span>{' '}
          <span className="text-sm text-dim">{hint(data, target, atMs)}</span>
        </span>
        {last && (
          <span className="font-mono text-sm">last {(last.levelDbm - last.noiseDbm).toFixed(0)} dB SNR (measured)</span>
        )}
        <input
          className="w-28 font-mono"
          placeholder="level, S7"
          aria-label={`Level of ${target.name}`}
          value={level}
          onChange={(event) => setLevel(event.target.value)}
        />
        <input
          className="w-28 font-mono"
          placeholder="noise, -110"
          aria-label={`Noise beside ${target.name}`}
          value={noise}
          onChange={(event) => setNoise(event.target.value)}
        />
        <Button type="submit" look="quiet" aria-label={`Note ${target.name}`}>
          Note
        </Button>
      </form>
      {fault && (
        <p role="alert" className="text-sm text-danger">
          {fault}
        </p>
      )}
    </li>
  );
}
