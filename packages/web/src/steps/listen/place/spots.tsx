import { createOf, SCHEMAS } from '@velvet-reed/contract';
import { SPOT_KINDS } from '@velvet-reed/core/antenna';
import { SPOT_WORDS } from '@velvet-reed/core/choose';
import { lengthText } from '@velvet-reed/core/units';
import { spotsOf } from '@velvet-reed/station/spots';
import type { StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { Disclosure } from '../../../ui/disclosure';
import { HomeChoice } from '../../../ui/home-choice';
import { RecordForm, type FieldSpec } from '../../../ui/record-form';
import { ChangeButton, DeleteButton } from '../../../ui/record-row';
import { Caution, Section } from '../../../ui/section';

const length = { kind: 'quantity', dimension: 'length', bareUnit: 'm' } as const;
const FIELDS: readonly FieldSpec[] = [
  { name: 'name', label: 'Name', kind: 'text', hint: 'like balcony, far corner, ridge' },
  {
    ...{ name: 'kind', label: 'Where', kind: 'choice' },
    options: SPOT_KINDS.map((value) => ({ value, label: SPOT_WORDS[value] })),
  },
  { name: 'spanM', label: 'Longest side', ...length },
  { name: 'widthM', label: 'Other side', ...length },
  {
    name: 'heightM',
    label: 'Highest fixing point',
    ...length,
    hint: 'over the ground below, like 21 m on the sixth floor',
  },
  {
    name: 'distanceM',
    label: 'Distance from the house',
    ...length,
    optional: true,
    hint: '0 at the house; empty: not known',
  },
];

/** Where antennas may hang here: a usual home to begin with, then spot by spot. */
export function Spots({ data }: { readonly data: StationData }) {
  const { save } = useWrite();
  const counted = new Map(spotsOf(data).map((spot) => [spot.id, spot]));
  return (
    <Section title="Where antennas may hang" hint="Choose tries every kind at every spot, in sizes that fit there">
      {data.spots.length === 0 ? (
        <HomeChoice data={data} />
      ) : (
        <ul className="max-w-4xl border-t border-rule" aria-label="Spots">
          {data.spots.map((spot) => {
            const as = counted.get(String(spot.id)) ?? spot;
            const plotted = as.spanM !== spot.spanM || as.heightM !== spot.heightM;
            return (
              <li key={spot.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-1">
                <span className="grow">
                  <strong>{spot.name}</strong> <span className="text-sm text-dim">{SPOT_WORDS[spot.kind]}</span>
                </span>
                <span className="text-sm">
                  {lengthText(as.spanM)}
                  {as.widthM > 0 ? ` by ${lengthText(as.widthM)}` : ' straight'}, up to {lengthText(as.heightM)} high
                  {as.distanceM ? `, ${lengthText(as.distanceM)} from the house` : ''}
                  {plotted ? ' (Plot)' : ''}
                </span>
                <ChangeButton resource="spots" record={spot} name={spot.name} fields={FIELDS} />
                <DeleteButton resource="spots" record={spot} name={spot.name} />
              </li>
            );
          })}
        </ul>
      )}
      <div className="mt-2">
        <Disclosure label="Add a spot">
          {(close) => (
            <RecordForm
              fields={FIELDS}
              schema={SCHEMAS.spots}
              start={{ name: '', kind: 'garden', spanM: '', widthM: '', heightM: '', distanceM: '' }}
              submit="Add the spot"
              onCancel={close}
              onSave={async (values) => {
                await save([createOf('spots', values)], 'Spot added.');
                close();
              }}
            />
          )}
        </Disclosure>
      </div>
      <Caution>
        Windows, balconies and roofs: nothing may fall, nothing may reach a power line, and what the landlord and the
        fire rules say comes first.
      </Caution>
    </Section>
  );
}
