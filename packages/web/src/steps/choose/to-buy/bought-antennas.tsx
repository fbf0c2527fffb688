import { SCHEMAS, type Saved } from '@velvet-reed/contract';
import { gainsText, readGains } from '@velvet-reed/core/choose';
import { CoreError } from '@velvet-reed/core/errors';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { Disclosure } from '../../../ui/disclosure';
import { RecordForm, type FieldSpec } from '../../../ui/record-form';
import { ChangeButton, DeleteButton } from '../../../ui/record-row';
import { Section } from '../../../ui/section';

const FIELDS: readonly FieldSpec[] = [
  { name: 'name', label: 'Name', kind: 'text', hint: 'by what it is, like amplified loop to 30 MHz' },
  {
    name: 'gains',
    label: 'Effective gain by frequency',
    kind: 'read',
    read: (text) => {
      try {
        return { value: readGains(text) };
      } catch (error) {
        if (error instanceof CoreError) return { fault: error.message };
        throw error;
      }
    },
    write: ({ gains }) => (Array.isArray(gains) ? gainsText(gains) : ''),
    hint: 'like 9.6 MHz -28, 97 MHz -12; into its amplifier, or into the line',
  },
  { name: 'amplified', label: 'It has an amplifier', kind: 'flag' },
  { name: 'gainDb', label: 'Amplifier gain', kind: 'quantity', dimension: 'gain' },
  { name: 'noiseFigureDb', label: 'Amplifier noise figure', kind: 'quantity', dimension: 'gain' },
  { name: 'iip2Dbm', label: '2nd-order input intercept', kind: 'quantity', dimension: 'level', bareUnit: 'dBm' },
  { name: 'iip3Dbm', label: '3rd-order input intercept', kind: 'quantity', dimension: 'level', bareUnit: 'dBm' },
  {
    name: 'inputFilterHz',
    label: 'Low-pass at its input',
    kind: 'quantity',
    dimension: 'frequency',
    bareUnit: 'MHz',
    optional: true,
    hint: 'edge; empty for none (5 poles, 0.1 dB assumed)',
  },
  { name: 'sizeM', label: 'Size', kind: 'quantity', dimension: 'length', bareUnit: 'm' },
  { name: 'price', label: 'Price', kind: 'quantity', dimension: 'plain' },
  { name: 'hours', label: 'Work to put it up, h', kind: 'quantity', dimension: 'plain' },
  {
    name: 'sight',
    label: 'Looks',
    kind: 'choice',
    numeric: true,
    options: [
      { value: '0', label: 'unseen' },
      { value: '1', label: 'hardly seen' },
      { value: '2', label: 'plainly seen' },
      { value: '3', label: 'seen from the street' },
    ],
  },
];

const START = {
  name: '',
  gains: '',
  amplified: true,
  gainDb: '20 dB',
  noiseFigureDb: '4 dB',
  iip2Dbm: '35 dBm',
  iip3Dbm: '15 dBm',
  inputFilterHz: '',
  sizeM: '1 m',
  price: '250',
  hours: '2',
  sight: '1',
};

const summary = (one: Saved<'boughtAntennas'>): string =>
  `${gainsText(one.gains)} dBi${one.amplified ? `; amplifier ${one.gainDb} dB, IIP2 ${one.iip2Dbm} dBm` : ''}${one.inputFilterHz === null ? '' : '; low-pass at its input'}`;

/** Antennas that could be bought: they join the ranking by their data sheet. */
export function BoughtAntennas({ data }: { readonly data: StationData }) {
  const { save } = useWrite();
  return (
    <Section title="Antennas to buy" hint="by data sheet or measurement; they join the ranking">
      {data.boughtAntennas.length > 0 && (
        <ul className="border-t border-rule">
          {data.boughtAntennas.map((one) => (
            <li key={one.id} className="flex flex-wrap items-center gap-x-4 border-b border-rule py-1">
              <span className="font-semibold">{one.name}</span>
              <span className="grow font-mono text-sm">{summary(one)}</span>
              <ChangeButton resource="boughtAntennas" record={one} name={one.name} fields={FIELDS} />
              <DeleteButton resource="boughtAntennas" record={one} name={one.name} />
            </li>
          ))}
        </ul>
      )}
      <div className="mt-3">
        <Disclosure label="Add an antenna to buy">
          {(close) => (
            <RecordForm
              fields={FIELDS}
              schema={SCHEMAS.boughtAntennas}
              start={START}
              submit="Add it to the ranking"
              onCancel={close}
              onSave={async (values) => {
                await save(
                  [
                    { op: 'create', resource: 'boughtAntennas', values },
                    entry('choose', `Antenna to buy added: ${String(values.name)}.`),
                  ],
                  'It is in the ranking.',
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
