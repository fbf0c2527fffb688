import { SCHEMAS } from '@velvet-reed/contract';
import { frequencyText } from '@velvet-reed/core';
import { useWrite, type StationData } from '../../data/station';
import { Disclosure } from '../../ui/disclosure';
import { RecordForm, type FieldSpec } from '../../ui/record-form';
import { ChangeButton, DeleteButton } from '../../ui/record-row';
import { Section } from '../../ui/stage';
import { Empty } from '../../ui/states';
import { inDb, Value } from '../../ui/value';

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
        <ul className="border-t border-rule">
          {data.receivers.map((receiver) => (
            <li key={receiver.id} className="flex flex-wrap items-center gap-x-4 border-b border-rule py-1">
              <span className="grow font-semibold">{receiver.name}</span>
              <span className="font-mono text-sm">
                {frequencyText(receiver.minHz, 2)} to {frequencyText(receiver.maxHz, 2)}
              </span>
              <Value
                shown={inDb(receiver.noiseFigureDb, 0)}
                provenance={{
                  origin: 'catalogue',
                  formula: 'Noise figure as entered',
                  source: 'your entry: data sheet or measurement',
                }}
              />
              <ChangeButton resource="receivers" record={receiver} name={receiver.name} fields={RECEIVER_FIELDS} />
              <DeleteButton resource="receivers" record={receiver} name={receiver.name} />
            </li>
          ))}
        </ul>
      )}
      <div className="mt-3">
        <Disclosure label="Add a receiver">
          {(close) => (
            <RecordForm
              fields={RECEIVER_FIELDS}
              schema={SCHEMAS.receivers}
              start={{
                name: '',
                minHz: '10 kHz',
                maxHz: '30 MHz',
                noiseFigureDb: '15 dB',
                iip2Dbm: '60 dBm',
                iip3Dbm: '20 dBm',
                bits: '12',
                fullScaleDbm: '0 dBm',
                sampleRateHz: '122.88 MHz',
                complexSamples: false,
              }}
              submit="Add the receiver"
              onCancel={close}
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
