import { SCHEMAS, type Saved } from '@velvet-reed/contract';
import { emitterField } from '@velvet-reed/core/site';
import { frequencyText, lengthText, showPower } from '@velvet-reed/core/units';
import { entry, useWrite, type StationData } from '../../data/station';
import { Disclosure } from '../../ui/disclosure';
import { RecordForm, type FieldSpec } from '../../ui/record-form';
import { ChangeButton, DeleteButton } from '../../ui/record-row';
import { Section, Wide } from '../../ui/stage';
import { Empty } from '../../ui/states';
import { inDb, Value } from '../../ui/value';

const EMITTER_FIELDS: readonly FieldSpec[] = [
  { name: 'name', label: 'Name', kind: 'text', hint: 'like 3 kW FM' },
  { name: 'freqHz', label: 'Frequency', kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz' },
  { name: 'powerW', label: 'Power', kind: 'quantity', dimension: 'power', bareUnit: 'W' },
  {
    name: 'powerKind',
    label: 'Stated as',
    kind: 'choice',
    options: [
      { value: 'ERP', label: 'ERP, against a dipole' },
      { value: 'EIRP', label: 'EIRP, against isotropic' },
      { value: 'EMRP', label: 'EMRP, against a short vertical' },
    ],
  },
  { name: 'distanceM', label: 'Distance', kind: 'quantity', dimension: 'length', bareUnit: 'km', hint: 'like 1.8 km' },
  { name: 'own', label: 'My own transmitter', kind: 'flag' },
];

/** Registered transmitters with their field here. */
export function Neighbours({ data }: { readonly data: StationData }) {
  const { save } = useWrite();
  return (
    <Section title="Transmitters nearby" hint="they decide whether an amplifier overloads">
      {data.emitters.length === 0 ? (
        <Empty>
          None entered. Look up broadcast transmitters within 30 km; overload forecasts are only as good as this list.
        </Empty>
      ) : (
        <Wide label="Table of transmitters">
          <table className="w-full max-w-4xl">
            <thead>
              <tr>
                <th scope="col">Transmitter</th>
                <th scope="col">Frequency</th>
                <th scope="col">Power</th>
                <th scope="col">Distance</th>
                <th scope="col">Field here</th>
                <th scope="col">Isotropic level</th>
                <th scope="col">
                  <span className="sr-only">Actions</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {data.emitters.map((emitter) => (
                <EmitterRow key={emitter.id} emitter={emitter} />
              ))}
            </tbody>
          </table>
        </Wide>
      )}
      <div className="mt-3">
        <Disclosure label="Add a transmitter">
          {(close) => (
            <RecordForm
              fields={EMITTER_FIELDS}
              schema={SCHEMAS.emitters}
              start={{ name: '', freqHz: '', powerW: '', powerKind: 'ERP', distanceM: '', own: false }}
              submit="Add the transmitter"
              onCancel={close}
              onSave={async (values) => {
                await save(
                  [
                    { op: 'create', resource: 'emitters', values },
                    entry('listen', `Transmitter added: ${String(values.name)}.`),
                  ],
                  'Transmitter added.',
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

function EmitterRow({ emitter }: { readonly emitter: Saved<'emitters'> }) {
  const field = emitterField(emitter);
  const power = showPower(emitter.powerW);
  const inputs = [
    ['power', `${power.digits} ${power.unit} ${emitter.powerKind}`],
    ['distance', lengthText(emitter.distanceM)],
    ['frequency', frequencyText(emitter.freqHz)],
  ] as const;
  return (
    <tr>
      <th scope="row" className="text-ink">
        {emitter.name}
        {field.caution && <p className="max-w-60 text-xs text-caution">{field.caution}</p>}
      </th>
      <td className="font-mono whitespace-nowrap">{frequencyText(emitter.freqHz)}</td>
      <td className="font-mono whitespace-nowrap">
        {power.digits} {power.unit} <span className="text-dim">{emitter.powerKind}</span>
      </td>
      <td className="font-mono whitespace-nowrap">{lengthText(emitter.distanceM)}</td>
      <td>
        <Value
          shown={inDb(field.fieldDbuv, 0, 'dBµV/m')}
          provenance={{
            origin: 'model',
            formula: `E = √(30·EIRP)/d = ${field.fieldVPerM.toPrecision(3)} V/m, free space, line of sight`,
            inputs,
            source: 'free-space propagation; buildings take 10 to 30 dB off, a ground reflection adds up to 6 dB',
          }}
        />
      </td>
      <td>
        <Value
          shown={inDb(field.isotropicDbm, 0, 'dBm')}
          provenance={{
            origin: 'model',
            formula: 'P = E²/η · λ²/4π into a matched isotropic antenna',
            inputs,
            source: 'free-space propagation',
          }}
        />
      </td>
      <td>
        <ChangeButton resource="emitters" record={emitter} name={emitter.name} fields={EMITTER_FIELDS} />
        <DeleteButton resource="emitters" record={emitter} name={emitter.name} />
      </td>
    </tr>
  );
}
