import { SCHEMAS } from '@velvet-reed/contract';
import { converterFloor, RECEIVER_KINDS, type ReceiverFigures } from '@velvet-reed/core/path';
import { fixed, frequencyText } from '@velvet-reed/core/units';
import { useWrite, type StationData } from '../../data/station';
import { dayText } from '../../ui/moment-text';
import { typedRecord } from '../../ui/typed-record';
import { Disclosure } from '../../ui/disclosure';
import { RecordForm, type FieldSpec } from '../../ui/record-form';
import { ReceiverByKind } from '../../ui/receiver-by-kind';
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
                  origin: receiver.measuredMs === null ? 'catalogue' : 'measured',
                  formula: 'Noise figure as entered',
                  source:
                    receiver.measuredMs === null
                      ? 'your entry, by its data sheet'
                      : `your measurement of ${dayText(receiver.measuredMs)}`,
                }}
              />
              <ChangeButton resource="receivers" record={receiver} name={receiver.name} fields={RECEIVER_FIELDS} />
              <DeleteButton resource="receivers" record={receiver} name={receiver.name} />
            </li>
          ))}
        </ul>
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
              start={{ name: '', ...startOf(RECEIVER_KINDS[2].figures) }}
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

const startOf = (figures: ReceiverFigures): Record<string, string | boolean> =>
  typedRecord(RECEIVER_FIELDS, { ...figures });

/** The converter's own floor can lie far above the noise figure that was typed: then one of the figures is not meant so. */
function receiverDoubt(values: Record<string, unknown>): string | undefined {
  const figures = SCHEMAS.receivers.cast(values);
  const floorDb = converterFloor({ ...figures, bandwidthHz: 1 }).noiseFigureDb;
  return floorDb > figures.noiseFigureDb + 1
    ? `With ${figures.bits} bits and ${fixed(figures.fullScaleDbm, 0)} dBm full scale the converter alone has a noise figure of ${fixed(floorDb, 0)} dB, more than the ${fixed(figures.noiseFigureDb, 0)} dB entered. Full scale at the gain in use is usually lower.`
    : undefined;
}
