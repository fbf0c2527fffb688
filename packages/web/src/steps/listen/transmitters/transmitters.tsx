import { SCHEMAS, type Saved } from '@velvet-reed/contract';
import { transmitterField } from '@velvet-reed/core/site';
import { frequencyText, lengthText, plain, showField, showPower, inDb } from '@velvet-reed/core/units';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { hasField } from '@velvet-reed/station/transmitters';
import { Disclosure } from '../../../ui/disclosure';
import { RecordForm, type FieldSpec } from '../../../ui/record-form';
import { ChangeButton, DeleteButton } from '../../../ui/record-row';
import { Section, Wide } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { Value } from '../../../ui/value';

const TRANSMITTER_FIELDS: readonly FieldSpec[] = [
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
      { value: 'output', label: 'output at its socket (own ones only)' },
    ],
  },
  {
    name: 'distanceM',
    label: 'Distance',
    kind: 'quantity',
    dimension: 'length',
    bareUnit: 'km',
    optional: true,
    hint: 'like 1.8 km; an own one may leave it empty',
  },
  { name: 'own', label: 'My own transmitter', kind: 'flag' },
  { name: 'measuredMs', label: 'Power as of', kind: 'date', hint: 'when it was measured or looked up' },
];

/** Registered transmitters with their field here. */
export function Neighbours({ data }: { readonly data: StationData }) {
  const { save } = useWrite();
  return (
    <Section title="Transmitters nearby" hint="they decide whether an amplifier overloads">
      {data.transmitters.length === 0 ? (
        <Empty>
          None entered. Look up broadcast transmitters within 30 km; overload forecasts are only as good as this list.
        </Empty>
      ) : (
        <Wide evidence label="Table of transmitters">
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
              {data.transmitters.map((transmitter) => (
                <TransmitterRow key={transmitter.id} transmitter={transmitter} />
              ))}
            </tbody>
          </table>
        </Wide>
      )}
      <div className="mt-3">
        <Disclosure label="Add a transmitter">
          {(close) => (
            <RecordForm
              fields={TRANSMITTER_FIELDS}
              schema={SCHEMAS.transmitters}
              start={{
                name: `Transmitter ${data.transmitters.length + 1}`,
                freqHz: '',
                powerW: '',
                powerKind: 'ERP',
                distanceM: '',
                own: false,
              }}
              submit="Add the transmitter"
              onCancel={close}
              onSave={async (values) => {
                await save(
                  [
                    { op: 'create', resource: 'transmitters', values },
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

function TransmitterRow({ transmitter }: { readonly transmitter: Saved<'transmitters'> }) {
  const field = hasField(transmitter) ? transmitterField(transmitter) : undefined;
  const power = showPower(transmitter.powerW);
  const inputs = [
    ['power', `${power.digits} ${power.unit} ${transmitter.powerKind}`],
    ['distance', transmitter.distanceM === null ? 'not said' : lengthText(transmitter.distanceM)],
    ['frequency', frequencyText(transmitter.freqHz)],
  ] as const;
  return (
    <tr>
      <th scope="row" className="text-ink">
        {transmitter.name}
        {field?.caution && <p className="max-w-60 text-xs text-caution">{field.caution}</p>}
      </th>
      <td className="font-mono whitespace-nowrap">{frequencyText(transmitter.freqHz)}</td>
      <td className="font-mono whitespace-nowrap">
        {power.digits} {power.unit} <span className="text-dim">{transmitter.powerKind}</span>
      </td>
      <td className="font-mono whitespace-nowrap">
        {transmitter.distanceM === null ? '' : lengthText(transmitter.distanceM)}
      </td>
      <td>
        {!field && <span className="text-sm text-dim">not known from its output: Guard works with it</span>}
        {field && (
          <>
            <Value
              shown={inDb(field.fieldDbuv, 1, 'dBµV/m')}
              provenance={{
                origin: 'model',
                formula: `E = √(30·EIRP)/d = ${plain(showField(field.fieldVPerM))}, free space, line of sight`,
                inputs,
                source: 'free-space propagation; buildings take 10 to 30 dB off, a ground reflection adds up to 6 dB',
              }}
            />
            <span className="block font-mono text-sm text-dim">{plain(showField(field.fieldVPerM))}</span>
          </>
        )}
      </td>
      <td>
        {field && (
          <Value
            shown={inDb(field.isotropicDbm, 1, 'dBm')}
            provenance={{
              origin: 'model',
              formula: 'P = E²/η · λ²/4π into a matched isotropic antenna',
              inputs,
              source: 'free-space propagation',
            }}
          />
        )}
      </td>
      <td>
        <ChangeButton
          resource="transmitters"
          record={transmitter}
          name={transmitter.name}
          fields={TRANSMITTER_FIELDS}
        />
        <DeleteButton resource="transmitters" record={transmitter} name={transmitter.name} />
      </td>
    </tr>
  );
}
