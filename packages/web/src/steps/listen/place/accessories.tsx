import { ACCESSORY_KINDS, createOf, SCHEMAS } from '@velvet-reed/contract';
import type { StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { Disclosure } from '../../../ui/disclosure';
import { dayText } from '../../../ui/moment-text';
import { RecordForm, type FieldSpec } from '../../../ui/record-form';
import { ChangeButton, DeleteButton } from '../../../ui/record-row';
import { Section } from '../../../ui/section';
import { Empty } from '../../../ui/states';

const fieldsOf = (data: StationData): readonly FieldSpec[] => [
  { name: 'name', label: 'Name', kind: 'text', hint: 'by what it is, like choke at the feed' },
  {
    ...{ name: 'kind', label: 'Kind', kind: 'choice' },
    options: ACCESSORY_KINDS.map((value) => ({ value, label: value })),
  },
  {
    ...{ name: 'antennaId', label: 'Belongs to', kind: 'choice', numeric: true },
    options: [
      { value: '', label: 'the station' },
      ...data.antennas.map(({ id, name }) => ({ value: String(id), label: name })),
    ],
  },
  { name: 'property', label: 'What is known of it', kind: 'text', hint: 'like 1.2 kΩ at 7 MHz, 230 V arrester' },
  { name: 'sinceMs', label: 'In use since', kind: 'date' },
  { name: 'measuredMs', label: 'Measured on', kind: 'date', hint: 'empty: by its sheet, or not known' },
];

/** What belongs to the station beside antennas, receivers and lines. */
export function Accessories({ data }: { readonly data: StationData }) {
  const { save } = useWrite();
  const fields = fieldsOf(data);
  const owner = (id: number | null): string => data.antennas.find((one) => one.id === id)?.name ?? 'the station';
  return (
    <Section
      title="Accessories"
      hint="chokes, transformers, arresters, supplies, masts: what is known of them, and since when"
    >
      {data.accessories.length === 0 ? (
        <Empty>None entered. What you measure on a choke or a transformer today is forgotten by next spring.</Empty>
      ) : (
        <ul className="max-w-4xl border-t border-rule">
          {data.accessories.map((one) => (
            <li key={one.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-1">
              <span className="grow">
                <strong>{one.name}</strong>{' '}
                <span className="text-sm text-dim">
                  {one.kind}, of {owner(one.antennaId)}
                </span>
              </span>
              <span className="text-sm">
                {[
                  one.property &&
                    `${one.property} (${one.measuredMs === null ? 'catalogue' : `measured ${dayText(one.measuredMs)}`})`,
                  one.sinceMs !== null && `since ${dayText(one.sinceMs)}`,
                ]
                  .filter(Boolean)
                  .join('; ')}
              </span>
              <ChangeButton resource="accessories" record={one} name={one.name} fields={fields} />
              <DeleteButton resource="accessories" record={one} name={one.name} />
            </li>
          ))}
        </ul>
      )}
      <div className="mt-2">
        <Disclosure label="Add an accessory">
          {(close) => (
            <RecordForm
              fields={fields}
              schema={SCHEMAS.accessories}
              start={{ name: '', kind: 'choke', antennaId: '', property: '', sinceMs: '', measuredMs: '' }}
              submit="Add the accessory"
              onCancel={close}
              onSave={async (values) => {
                await save([createOf('accessories', values)], 'Accessory added.');
                close();
              }}
            />
          )}
        </Disclosure>
      </div>
    </Section>
  );
}
