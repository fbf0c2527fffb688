import { SCHEMAS, type Saved } from '@velvet-reed/contract';
import {
  atWorkingGains,
  converterFloor,
  dynamicRange,
  effectiveNoiseFigureDb,
  gainSettingsText,
  isGainSetting,
  readGainSettings,
  highestHz,
  RECEIVER_KINDS,
  type ReceiverFigures,
} from '@velvet-reed/core/path';
import { fixed, frequencyText, inDb } from '@velvet-reed/core/units';
import type { StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { dayText } from '../../../ui/moment-text';
import { typedRecord } from '../../../ui/typed-record';
import { Disclosure } from '../../../ui/disclosure';
import { RecordForm, type FieldSpec } from '../../../ui/record-form';
import { ReceiverByKind } from '../../../ui/receiver-by-kind';
import { ChangeButton, DeleteButton } from '../../../ui/record-row';
import { Section, Wide } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { Value } from '../../../ui/value';

const RECEIVER_FIELDS: readonly FieldSpec[] = [
  { name: 'name', label: 'Name', kind: 'text', hint: 'by what it is' },
  { name: 'minHz', label: 'Tunes from', kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz' },
  { name: 'maxHz', label: 'Tunes to', kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz' },
  { name: 'noiseFigureDb', label: 'Noise figure', kind: 'quantity', dimension: 'gain' },
  { name: 'iip2Dbm', label: '2nd-order input intercept', kind: 'quantity', dimension: 'level', bareUnit: 'dBm' },
  { name: 'iip3Dbm', label: '3rd-order input intercept', kind: 'quantity', dimension: 'level', bareUnit: 'dBm' },
  { name: 'bits', label: 'Effective bits', kind: 'quantity', dimension: 'plain' },
  { name: 'fullScaleDbm', label: 'Full scale', kind: 'quantity', dimension: 'level', bareUnit: 'dBm' },
  { name: 'sampleRateHz', label: 'Sample rate', kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz' },
  { name: 'complexSamples', label: 'I and Q samples', kind: 'flag' },
  { name: 'superhet', label: 'Superhet: a dial and no samples', kind: 'flag' },
  {
    ...{ name: 'gains', label: 'At other gains, one a line', kind: 'read', long: true },
    hint: 'name; noise figure; full scale; then, where known, 2nd- and 3rd-order intercept, like “middle gain; 17 dB; −50 dBm”. The figures above are at the lowest gain.',
    read(text) {
      try {
        return { value: readGainSettings(text) };
      } catch (error) {
        return { fault: error instanceof Error ? error.message : 'This is no list of gains.' };
      }
    },
    write: ({ gains }) => (Array.isArray(gains) ? gainSettingsText(gains.filter(isGainSetting)) : ''),
  },
  {
    name: 'offsetPpm',
    label: 'Scale shows too high by',
    kind: 'quantity',
    dimension: 'plain',
    optional: true,
    hint: 'ppm',
  },
  { name: 'sinceMs', label: 'In use since', kind: 'date' },
  { name: 'measuredMs', label: 'Figures measured on', kind: 'date', hint: 'empty: by its data sheet' },
];

export function Receivers({ data }: { readonly data: StationData }) {
  const { save } = useWrite();
  return (
    <Section title="Receivers" hint="without one, nothing can be judged">
      {data.receivers.length === 0 ? (
        <Empty>
          No receiver yet. Its noise figure decides how much antenna is enough; 15 dB is usual on short wave, 6 dB at
          VHF.
        </Empty>
      ) : (
        <Wide evidence label="Receivers">
          <table className="w-full max-w-4xl">
            <thead>
              <tr>
                <th scope="col">Receiver</th>
                <th scope="col">Tunes</th>
                <th scope="col">Noise figure that counts</th>
                <th scope="col">Range of its converter</th>
                <th scope="col">Clean range, 3rd order</th>
                <th scope="col">
                  <span className="sr-only">Actions</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {data.receivers.map((receiver) => (
                <ReceiverRow key={receiver.id} receiver={receiver} />
              ))}
            </tbody>
          </table>
        </Wide>
      )}
      <div className="mt-3 flex flex-wrap gap-3">
        <Disclosure label="Add a receiver by kind" look={data.receivers.length === 0 ? 'main' : 'plain'}>
          {(close) => <ReceiverByKind onClose={close} />}
        </Disclosure>
        <Disclosure label="Add a receiver by its data sheet">
          {(close) => (
            <RecordForm
              fields={RECEIVER_FIELDS}
              schema={SCHEMAS.receivers}
              start={{ name: '', ...startOf(DATA_SHEET_START) }}
              submit="Add the receiver"
              onCancel={close}
              doubt={receiverDoubt}
              onSave={async (values) => {
                await save(
                  [{ op: 'create', resource: 'receivers', values: SCHEMAS.receivers.cast(values) }],
                  'Receiver added.',
                );
                close();
              }}
            />
          )}
        </Disclosure>
      </div>
    </Section>
  );
}

/** A data sheet is typed over the figures of a direct-sampling HF receiver. */
const DATA_SHEET_START = RECEIVER_KINDS.find(({ id }) => id === 'direct-14')?.figures ?? RECEIVER_KINDS[0].figures;

const startOf = (figures: ReceiverFigures): Record<string, string | boolean> =>
  typedRecord(RECEIVER_FIELDS, { ...figures });

/** The converter's own floor can lie far above the noise figure that was typed: then one of the figures is not meant so. */
function receiverDoubt(values: Record<string, unknown>): string | undefined {
  const figures = SCHEMAS.receivers.cast(values);
  const topHz = highestHz(figures);
  if (topHz < figures.maxHz)
    return `${frequencyText(figures.sampleRateHz, 3)} of real samples show nothing above ${frequencyText(topHz, 3)} where it is: up to ${frequencyText(figures.maxHz, 3)} it folds back. Enter the rate that it really samples at, or “Tunes to” ${frequencyText(topHz, 3)}.`;
  const floorDb = converterFloor({ ...figures, bandwidthHz: 1 }).noiseFigureDb;
  return floorDb > figures.noiseFigureDb + 1
    ? `With ${figures.bits} bits and ${fixed(figures.fullScaleDbm, 0)} dBm full scale the converter alone has a noise figure of ${fixed(floorDb, 0)} dB, more than the ${fixed(figures.noiseFigureDb, 0)} dB entered. Full scale at the gain in use is usually lower.`
    : undefined;
}

/** Bandwidth in which ranges are told, Hz: voice. */
const VOICE_HZ = 2400;

function ReceiverRow({ receiver }: { readonly receiver: Saved<'receivers'> }) {
  const noiseDb = effectiveNoiseFigureDb(receiver);
  const { snrDb, processingGainDb } = converterFloor({ ...receiver, bandwidthHz: VOICE_HZ });
  const { sfdr3Db } = dynamicRange(noiseDb, receiver.iip3Dbm, receiver.iip2Dbm, VOICE_HZ);
  const known =
    receiver.measuredMs === null
      ? 'your entry, by its data sheet'
      : `your measurement of ${dayText(receiver.measuredMs)}`;
  return (
    <tr>
      <th scope="row" className="text-ink">
        {receiver.name}
        {receiver.offsetPpm !== null && (
          <span className="block text-sm font-normal text-dim">
            scale {fixed(Math.abs(receiver.offsetPpm), 1)} ppm too {receiver.offsetPpm >= 0 ? 'high' : 'low'} (measured)
          </span>
        )}
        {atWorkingGains(receiver)
          .slice(1)
          .map((gain) => (
            <span key={gain.name} className="block text-sm font-normal text-dim">
              {gain.name.slice(receiver.name.length + 1)}: noise figure {fixed(gain.noiseFigureDb, 0)} dB, full scale{' '}
              {fixed(gain.fullScaleDbm, 0)} dBm ({receiver.gains.length > 0 ? 'your entry' : 'assumed for its kind'})
            </span>
          ))}
      </th>
      <td className="font-mono text-sm whitespace-nowrap">
        {frequencyText(receiver.minHz, 2)} to {frequencyText(highestHz(receiver), 2)}
        {highestHz(receiver) < receiver.maxHz && (
          <span className="block font-sans whitespace-normal text-caution">
            above half its sample rate everything folds back
          </span>
        )}
      </td>
      <td>
        <Value
          shown={inDb(noiseDb, 1)}
          provenance={{
            origin:
              noiseDb > receiver.noiseFigureDb ? 'model' : receiver.measuredMs === null ? 'catalogue' : 'measured',
            formula:
              noiseDb > receiver.noiseFigureDb
                ? 'floor of the converter: full scale − (6.02 N + 1.76 dB) over half the sample rate, above kT₀'
                : 'noise figure as entered',
            inputs: [['entered', `${fixed(receiver.noiseFigureDb, 1)} dB`]],
            source: known,
          }}
        />
      </td>
      <td>
        {receiver.superhet ? (
          <span className="text-sm text-dim">a dial, no samples</span>
        ) : (
          <Value
            shown={inDb(snrDb, 1)}
            provenance={{
              origin: 'model',
              formula: '6.02 N + 1.76 dB',
              inputs: [
                ['effective bits', String(receiver.bits)],
                ['more in 2.4 kHz', `${fixed(processingGainDb, 1)} dB`],
              ],
              source: 'Bennett 1948',
            }}
          />
        )}
      </td>
      <td>
        <Value
          shown={inDb(sfdr3Db, 1)}
          provenance={{
            origin: 'model',
            formula: '2/3 · (IIP3 − smallest signal), in 2.4 kHz',
            inputs: [['IIP3', `${fixed(receiver.iip3Dbm, 1)} dBm`]],
            source: 'power-series intermodulation',
          }}
        />
      </td>
      <td className="whitespace-nowrap">
        <ChangeButton resource="receivers" record={receiver} name={receiver.name} fields={RECEIVER_FIELDS} />
        <DeleteButton resource="receivers" record={receiver} name={receiver.name} />
      </td>
    </tr>
  );
}
