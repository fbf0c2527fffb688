import { lossProvenance, saidNoise } from '@velvet-reed/station/noise-said';
import { SaidVerdict } from '../../../ui/said';
import { SCHEMAS } from '@velvet-reed/contract';
import { amplifierWords, riseOf } from '@velvet-reed/core/noise';
import { noiseRise } from '@velvet-reed/core/path';
import { fixed, frequencyText, inDb } from '@velvet-reed/core/units';
import { Link } from 'react-router';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useStationId, useWrite } from '../../../data/station';
import { levelsOf, type OffOn } from '@velvet-reed/station/levels';
import { staleChecks, strongestCarrier } from '@velvet-reed/station/verdicts';
import { LongLogs } from '../../../ui/long-logs';
import { levelDoubt } from '../../../ui/level-doubt';
import { RecordForm, type FieldSpec } from '../../../ui/record-form';
import { ChangeButton, DeleteButton } from '../../../ui/record-row';
import { Room } from '../../../ui/room';
import { Note, Section, Wide } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { StationPage } from '../../../ui/station-page';
import { Value } from '../../../ui/value';
import { FloorLog } from './floor-log';

export default function FloorRoom() {
  return <StationPage>{(data) => <Noise data={data} />}</StationPage>;
}

const LONG_LOG = {
  title: 'Long logs',
  hint: 'days and weeks of levels from a logging program, kept whole and looked at in stretches',
  empty: 'No long log yet. A table of time and level is enough; up to a million rows.',
  value: 'Level, dBm',
};

function Noise({ data }: { readonly data: StationData }) {
  const stationId = useStationId();
  const checks = [...levelsOf(data).offOn].sort((a, b) => a.freqHz - b.freqHz);
  return (
    <Room
      title="Floor, Noise"
      verdict={<SaidVerdict said={saidNoise(data)} />}
      margin={
        <>
          <Note title="How to read it">
            <p>
              Replace the antenna by a matched dummy (50 Ω) and read the noise; put the antenna back and read again.
              Same bandwidth, fixed gain, at the quietest hour.
            </p>
          </Note>
          <Note title="What the rise means">
            <p>
              A rise of 10 dB costs 0.46 dB of SNR, 6 dB costs 1.3 dB, 3 dB costs 3 dB. Above 10 dB more gain only
              brings overload nearer.
            </p>
          </Note>
          <Note title="From a recording">
            <p>
              An evening of I and Q holds its floor second by second, every step and every tick:{' '}
              <Link to={`/s/${stationId}/trials/recording`}>read one in Recording</Link>, and its noise comes into this
              log.
            </p>
          </Note>
          <Note title="Doubt it when">
            <p>
              strong broadcasters are near: a rise can be overload. Put a 10 dB pad in; noise that falls by more than 10
              dB was made in the receiver.
            </p>
          </Note>
        </>
      }
    >
      {checks.length === 0 ? (
        <Empty>No reading yet. Two readings on one frequency are enough for an answer.</Empty>
      ) : (
        <Section title="Antenna off and on" hint="lowest frequency first">
          <ChecksTable data={data} checks={checks} />
        </Section>
      )}
      <LogCheck data={data} />
      <FloorLog data={data} />
      <LongLogs data={data} kind="levels" words={LONG_LOG} />
    </Room>
  );
}

function ChecksTable({ data, checks }: { readonly data: StationData; readonly checks: readonly OffOn[] }) {
  const stale = staleChecks(data);
  return (
    <Wide evidence label="Noise readings">
      <table className="w-full max-w-4xl">
        <thead>
          <tr>
            <th scope="col">Frequency</th>
            <th scope="col">Off, dBm</th>
            <th scope="col">On, dBm</th>
            <th scope="col">Rise</th>
            <th scope="col">SNR lost</th>
            <th scope="col">Antenna over receiver</th>
            <th scope="col">Amplifier?</th>
            <th scope="col">
              <span className="sr-only">Actions</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {checks.map((check) => {
            const rise = riseOf(check);
            const { snrLossDb, externalOverInternalDb } = noiseRise(rise);
            const provenance = lossProvenance(check);
            return (
              <tr key={check.id}>
                <th scope="row" className="font-mono whitespace-nowrap text-ink">
                  {frequencyText(check.freqHz, 4)}
                  <span className="block font-sans text-xs text-dim">
                    {data.antennas.find((antenna) => antenna.id === check.antennaId)?.name}
                  </span>
                  {stale.has(check.id) && (
                    <span className="block max-w-60 font-sans text-xs whitespace-normal text-caution">
                      {stale.get(check.id)} Repeat it.
                    </span>
                  )}
                </th>
                <td className="font-mono">{fixed(check.offDbm, 1)}</td>
                <td className="font-mono">{fixed(check.onDbm, 1)}</td>
                <td>
                  <Value shown={inDb(rise, 1)} provenance={{ ...provenance, formula: 'on − off' }} />
                </td>
                <td>
                  {snrLossDb === null ? (
                    'no rise'
                  ) : (
                    <Value strong shown={inDb(snrLossDb, snrLossDb < 1 ? 2 : 1)} provenance={provenance} />
                  )}
                </td>
                <td>
                  {externalOverInternalDb === null ? (
                    ''
                  ) : (
                    <Value
                      shown={inDb(externalOverInternalDb, 1)}
                      provenance={{ ...provenance, formula: '10 log (10^(rise/10) − 1)' }}
                    />
                  )}
                </td>
                <td>{amplifierWords(rise, strongestCarrier(data))}</td>
                <td>
                  <ChangeButton
                    resource="levels"
                    record={check.record}
                    name={`Reading at ${frequencyText(check.freqHz, 4)}`}
                    fields={checkFields(data)}
                  />
                  <DeleteButton
                    resource="levels"
                    record={check.record}
                    name={`Reading at ${frequencyText(check.freqHz, 4)}`}
                  />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Wide>
  );
}

const checkFields = (data: StationData): readonly FieldSpec[] => [
  {
    name: 'antennaId',
    label: 'Antenna',
    kind: 'choice',
    numeric: true,
    options: [
      { value: '', label: 'not recorded' },
      ...data.antennas.map((antenna) => ({ value: String(antenna.id), label: antenna.name })),
    ],
  },
  { name: 'freqHz', label: 'Frequency', kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz' },
  {
    name: 'againstDbm',
    label: 'Noise, antenna off',
    kind: 'quantity',
    dimension: 'level',
    bareUnit: 'dBm',
    freqField: 'freqHz',
    hint: 'dummy load in its place',
  },
  {
    name: 'levelDbm',
    label: 'Noise, antenna on',
    kind: 'quantity',
    dimension: 'level',
    bareUnit: 'dBm',
    freqField: 'freqHz',
  },
];

function LogCheck({ data }: { readonly data: StationData }) {
  const { save } = useWrite();
  return (
    <Section title="Log a reading">
      <RecordForm
        resetAfter
        fields={checkFields(data)}
        schema={SCHEMAS.levels}
        fixed={{ kind: 'off and on' }}
        start={{ antennaId: String(data.antennas.at(-1)?.id ?? ''), freqHz: '', againstDbm: '', levelDbm: '' }}
        submit="Log this reading"
        doubt={(values) =>
          levelDoubt(
            values,
            { againstDbm: 'Noise, antenna off', levelDbm: 'Noise, antenna on' },
            levelsOf(data).offOn.flatMap(({ offDbm, onDbm }) => [offDbm, onDbm]),
          )
        }
        onSave={async (values) => {
          const check = { ...values, atMs: Date.now() };
          const rise = check.levelDbm - (check.againstDbm ?? check.levelDbm);
          const { snrLossDb } = noiseRise(rise);
          await save(
            [
              { op: 'create', resource: 'levels', values: check },
              entry(
                'noise',
                `${frequencyText(check.freqHz, 4)}: noise rises ${fixed(rise, 1)} dB with the antenna; ${snrLossDb === null ? 'no outside noise seen' : `${fixed(snrLossDb, 2)} dB of SNR lost to the receiver`}. Amplifier: ${amplifierWords(rise, strongestCarrier(data))}.`,
              ),
            ],
            'Logged.',
          );
        }}
      />
    </Section>
  );
}
